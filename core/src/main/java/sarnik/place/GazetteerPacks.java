package sarnik.place;

import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.GZIPInputStream;

/**
 * Builds the {@link GazetteerIndex} of the packs that ship.
 *
 * <p>Sources: GeoNames (CC BY 4.0), Instituto Geográfico Nacional (CC BY 4.0), Natural Earth, Unicode CLDR. See
 * {@code docs/data.md}.
 */
final class GazetteerPacks {

    /** Countries whose letters for regions are in daily use without the country's before them. */
    private static final Set<String> LETTERED = Set.of("US", "CA", "BR", "IN", "AU", "MX", "IT", "CH", "DE", "ZA");

    private final Texts texts = new Texts();
    private final Ints places = new Ints();
    private final Map<String, Integer> keys = new LinkedHashMap<>();
    private final Texts names = new Texts();
    private final Builder[] tables = {new Builder(), new Builder(), new Builder()};
    private int count;

    private GazetteerPacks() {}

    /** What tells these packs from others. */
    static String version() {
        return list().get(1);
    }

    private static List<String> list() {
        try (InputStream in = GazetteerPacks.class.getResourceAsStream("packs.txt")) {
            if (in == null) throw new IOException("The list of packs is missing from the class path");
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).lines().toList();
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    static byte[] build() {
        GazetteerPacks packs = new GazetteerPacks();
        packs.read();
        List<byte[]> parts = new ArrayList<>(List.of(packs.texts.bytes(), packs.places.bytes()));
        long[] hashes = new long[packs.keys.size()];
        Map<Long, Integer> of = new HashMap<>();
        int k = 0;
        for (var key : packs.keys.entrySet()) {
            hashes[k] = NameTable.hash(key.getKey());
            of.put(hashes[k++], key.getValue());
        }
        Arrays.sort(hashes);
        Ints values = new Ints();
        for (long hash : hashes) values.add(of.get(hash));
        parts.add(bytes(hashes));
        parts.add(values.bytes());
        List<byte[]> tables = new ArrayList<>();
        for (Builder table : packs.tables) tables.addAll(table.parts(packs.names));
        parts.add(packs.names.bytes());
        parts.addAll(tables);
        return GazetteerIndex.joined(parts.toArray(byte[][]::new));
    }

    /** A table of names, the first of which is borne by place 0, and so on. */
    static NameTable table(List<String> names) {
        Builder builder = new Builder();
        for (int i = 0; i < names.size(); i++) builder.add(names.get(i), i, NameTable.MAIN | NameTable.WHOLE);
        Texts texts = new Texts();
        ByteBuffer[] parts = builder.parts(texts).stream()
                .map(bytes -> ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN))
                .toArray(ByteBuffer[]::new);
        return new NameTable(parts, ByteBuffer.wrap(texts.bytes()).order(ByteOrder.LITTLE_ENDIAN));
    }

    private void read() {
        Map<String, double[]> sums = new HashMap<>();
        for (String pack : list().get(0).split(" ")) {
            lines(pack, c -> {
                int place = add(
                        c[0],
                        PlaceLevel.TOWN,
                        c[1],
                        c[3],
                        c[4],
                        c[5],
                        Integer.parseInt(c[7]),
                        Double.parseDouble(c[8]),
                        Double.parseDouble(c[9]),
                        Long.parseLong(c[10]));
                // The seat speaks for its municipality; the list has the largest place first.
                if (!c[6].isEmpty()
                        && (!keys.containsKey("m:" + c[6]) || c[7].equals("1") && !isSeat(keys.get("m:" + c[6]))))
                    keys.put("m:" + c[6], place);
                for (String name : names(c[1], c[2]))
                    name(
                            NameTable.Of.TOWNS,
                            name,
                            place,
                            name.equals(c[1]) || c[1].contains("/") && c[1].contains(name) ? NameTable.MAIN : 0);
                double people = Double.parseDouble(c[10]) + 1;
                double[] sum = sums.computeIfAbsent(c[3], code -> new double[3]);
                sum[0] += people * Double.parseDouble(c[8]);
                sum[1] += people * Double.parseDouble(c[9]);
                sum[2] += people;
            });
        }
        lines("regions.tsv.gz", this::region);
        lines("countries.tsv.gz", c -> {
            double[] sum = sums.get(c[0]);
            if (sum == null && c[5].isEmpty()) return;
            double[] at = sum == null
                    ? new double[] {Double.parseDouble(c[5]), Double.parseDouble(c[6])}
                    : new double[] {sum[0] / sum[2], sum[1] / sum[2]};
            int place = add(
                    "r" + c[0],
                    PlaceLevel.COUNTRY,
                    c[3],
                    c[0],
                    "",
                    "",
                    0,
                    at[0],
                    at[1],
                    sum == null ? 0 : (long) sum[2]);
            keys.put("a:" + c[0], place);
            keys.putIfAbsent("c:" + c[0], place);
            keys.putIfAbsent("c:" + c[1], place);
            if (!c[2].isEmpty()) keys.putIfAbsent("c:" + c[2], place);
            for (String code : c[4].split("\\|")) if (!code.isEmpty()) keys.putIfAbsent("c:" + code, place);
            for (String code : List.of(c[0], c[1])) country(code, place, NameTable.CODE);
            for (String name : c[7].split("\\|")) country(name, place, 0);
        });
        // Codes that no region bears: the town of their name, or a country.
        lines("codes.tsv.gz", c -> {
            Integer place = keys.get((c[1].length() == 2 ? "a:" : "i:") + c[1]);
            if (place != null) keys.putIfAbsent("c:" + c[0], place);
        });
    }

    private boolean isSeat(int place) {
        return places.get(place * 9 + 5) >> 4 == 2;
    }

    private void country(String name, int place, int flags) {
        String key = PlaceNames.squashed(name);
        if (!key.isEmpty()) tables[NameTable.Of.COUNTRIES.ordinal()].add(key, place, flags | NameTable.WHOLE);
    }

    /**
     * @param c level, code, name, other names, ISO 3166-2, number, longitude, latitude, people, further codes of ISO
     *     3166-2
     */
    private void region(String[] c) {
        boolean province = c[0].equals("province");
        String country = c[1].substring(0, 2);
        String region = province ? c[1].substring(0, c[1].lastIndexOf('.')) : c[1];
        int place = add(
                "r" + c[1],
                province ? PlaceLevel.PROVINCE : PlaceLevel.REGION,
                c[2],
                country,
                region,
                province ? c[1] : "",
                0,
                Double.parseDouble(c[6]),
                Double.parseDouble(c[7]),
                Long.parseLong(c[8]));
        keys.put("a:" + c[1], place);
        for (String name : names(c[2], c[3]))
            name(NameTable.Of.REGIONS, name, place, name.equals(c[2]) ? NameTable.MAIN : 0);
        for (String iso : (c[4] + "|" + c[9]).split("\\|")) {
            if (iso.isEmpty()) continue;
            keys.putIfAbsent("c:" + iso, place);
            name(NameTable.Of.REGIONS, iso, place, NameTable.CODE);
            if (LETTERED.contains(country) && iso.matches("[A-Z]{2}-[A-Z]{2,3}"))
                name(NameTable.Of.REGIONS, iso.substring(3), place, NameTable.CODE);
        }
        if (c[5].isEmpty()) return;
        keys.putIfAbsent("n:" + c[5], place);
        name(NameTable.Of.REGIONS, c[5], place, NameTable.CODE);
    }

    private int add(
            String id,
            PlaceLevel level,
            String name,
            String country,
            String region,
            String province,
            int seat,
            double lon,
            double lat,
            long population) {
        for (int number : GazetteerIndex.numbers(
                texts.at(id),
                texts.at(name),
                texts.at(country),
                texts.at(region),
                texts.at(province),
                level,
                seat,
                lon,
                lat,
                population)) places.add(number);
        keys.put("i:" + id, count);
        return count++;
    }

    private void name(NameTable.Of of, String name, int place, int flags) {
        String whole = PlaceNames.fold(name);
        if (whole.isEmpty()) return;
        Builder table = tables[of.ordinal()];
        table.add(whole, place, flags | NameTable.WHOLE);
        if ((flags & NameTable.CODE) != 0) return;
        String bare = PlaceNames.withoutArticle(whole);
        if (!bare.equals(whole)) table.add(bare, place, flags);
    }

    private static List<String> names(String main, String others) {
        List<String> names = new ArrayList<>();
        names.add(main);
        if (main.contains("/")) names.addAll(List.of(main.split("/")));
        if (!others.isEmpty()) names.addAll(List.of(others.split("\\|")));
        return names;
    }

    private interface Line {
        void take(String[] cells);
    }

    private static void lines(String pack, Line line) {
        try (var in = GazetteerPacks.class.getResourceAsStream(pack)) {
            if (in == null) throw new IOException("The pack " + pack + " is missing from the class path");
            var reader = new BufferedReader(
                    new InputStreamReader(new GZIPInputStream(in, 1 << 16), StandardCharsets.UTF_8), 1 << 16);
            for (String text = reader.readLine(); text != null; text = reader.readLine())
                line.take(text.split("\t", -1));
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    /** Names of one kind on their way into a table. */
    private static final class Builder {

        private final Map<String, Ints> bearers = new HashMap<>(1 << 16);

        void add(String folded, int place, int flags) {
            Ints list = bearers.computeIfAbsent(folded, f -> new Ints(1));
            for (int i = 0; i < list.size; i++) {
                if (list.get(i) >> NameTable.FLAGS != place) continue;
                list.set(i, list.get(i) | flags);
                return;
            }
            list.add(place << NameTable.FLAGS | flags);
        }

        List<byte[]> parts(Texts texts) {
            record Name(long hash, String text) {}
            Name[] order = bearers.keySet().stream()
                    .map(text -> new Name(NameTable.hash(text), text))
                    .toArray(Name[]::new);
            Arrays.parallelSort(order, (a, b) -> Long.compare(a.hash, b.hash));
            long[] hashes = new long[order.length];
            Ints starts = new Ints();
            Ints all = new Ints();
            Ints textAt = new Ints();
            List<long[]> bags = new ArrayList<>();
            int spelled = 0;
            for (int n = 0; n < order.length; n++) {
                String text = order[n].text;
                hashes[n] = order[n].hash;
                starts.add(all.size);
                textAt.add(texts.at(text));
                Ints list = bearers.get(text);
                for (int i = 0; i < list.size; i++) all.add(list.get(i));
                if (text.indexOf(' ') > 0) bags.add(new long[] {NameTable.hash(PlaceNames.bag(text)), n});
                if (NameTable.isSpelled(text)) spelled += text.length() + 1;
            }
            starts.add(all.size);
            // A form's hash above, the name that it is of below: sorted as one number.
            long[] forms = new long[spelled];
            int f = 0;
            for (int n = 0; n < order.length; n++) {
                String text = order[n].text;
                if (NameTable.isSpelled(text))
                    for (int out = -1; out < text.length(); out++)
                        forms[f++] = (long) NameTable.form(text, out) << 32 | n;
            }
            Arrays.parallelSort(forms);
            Ints formHashes = new Ints(spelled);
            Ints formNames = new Ints(spelled);
            for (long form : forms) {
                formHashes.add((int) (form >> 32));
                formNames.add((int) form);
            }
            bags.sort((a, b) -> Long.compare(a[0], b[0]));
            Ints bagNames = new Ints();
            bags.forEach(bag -> bagNames.add((int) bag[1]));
            return List.of(
                    bytes(hashes),
                    starts.bytes(),
                    all.bytes(),
                    textAt.bytes(),
                    formHashes.bytes(),
                    formNames.bytes(),
                    bytes(bags.stream().mapToLong(b -> b[0]).toArray()),
                    bagNames.bytes());
        }
    }

    private static byte[] bytes(long[] numbers) {
        ByteBuffer out = ByteBuffer.allocate(8 * numbers.length).order(ByteOrder.LITTLE_ENDIAN);
        out.asLongBuffer().put(numbers);
        return out.array();
    }

    /** Texts one after the other, each once, with its length before it. */
    private static final class Texts {

        private final Map<String, Integer> known = new HashMap<>(1 << 16);
        private final ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 20);

        int at(String text) {
            Integer at = known.get(text);
            if (at != null) return at;
            int here = out.size();
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            out.write(bytes.length);
            out.write(bytes.length >> 8);
            out.writeBytes(bytes);
            known.put(text, here);
            return here;
        }

        byte[] bytes() {
            return out.toByteArray();
        }
    }

    /** A list of numbers that grows. */
    private static final class Ints {

        private int[] numbers;
        private int size;

        Ints() {
            this(1 << 10);
        }

        Ints(int room) {
            numbers = new int[room];
        }

        void add(int number) {
            if (size == numbers.length) numbers = Arrays.copyOf(numbers, Math.max(4, size * 2));
            numbers[size++] = number;
        }

        int get(int i) {
            return numbers[i];
        }

        void set(int i, int number) {
            numbers[i] = number;
        }

        byte[] bytes() {
            ByteBuffer out = ByteBuffer.allocate(4 * size).order(ByteOrder.LITTLE_ENDIAN);
            out.asIntBuffer().put(numbers, 0, size);
            return out.array();
        }
    }
}
