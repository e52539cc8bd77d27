package sarnik.place;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.IntBuffer;
import java.nio.LongBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReferenceArray;

/**
 * The gazetteer in one piece of memory: places in columns of numbers, names found by their hashes. Where a folder is
 * told by
 * the system property {@code sarnik.index} or the environment ({@code SARNIK_INDEX}), it is built there once and
 * mapped from its file afterwards, so that nothing is
 * read before it is needed; else it is built in memory. Places become objects when they are asked for, each once.
 * Immutable,
 * safe to share between threads.
 */
final class GazetteerIndex {

    /** Changes with the layout and with what {@link PlaceNames#fold} makes of a name. */
    static final int FORM = 1;

    private static final String FOLDER = "sarnik.index";
    private static final String FOLDER_OF_ENVIRONMENT = "SARNIK_INDEX";

    private static final long MAGIC = 0x5361726e696b4758L;

    /** Numbers of one place. */
    private static final int WIDTH = 9;

    private static final double DEGREE = 1e5;
    private static final PlaceLevel[] LEVELS = PlaceLevel.values();

    /** The parts of the file, in order. */
    enum Part {
        /** Texts, each with its length before it. */
        TEXTS,
        /** {@link #WIDTH} numbers for each place. */
        PLACES,
        /** Hashes of keys, ascending, and the place of each. */
        KEYS,
        KEY_PLACES,
        /** The folded texts of names. */
        NAMES;

        /** How many parts stand before the tables of names. */
        static final int COUNT = values().length;
    }

    private final ByteBuffer all;
    private final ByteBuffer texts;
    private final IntBuffer places;
    private final LongBuffer keys;
    private final IntBuffer keyPlaces;
    private final AtomicReferenceArray<Place> known;
    private final NameTable[] tables;

    private GazetteerIndex(ByteBuffer all) {
        this.all = all.order(ByteOrder.LITTLE_ENDIAN);
        texts = part(Part.TEXTS.ordinal());
        places = part(Part.PLACES.ordinal()).asIntBuffer();
        keys = part(Part.KEYS.ordinal()).asLongBuffer();
        keyPlaces = part(Part.KEY_PLACES.ordinal()).asIntBuffer();
        ByteBuffer names = part(Part.NAMES.ordinal());
        known = new AtomicReferenceArray<>(size());
        tables = new NameTable[NameTable.Of.values().length];
        for (int t = 0; t < tables.length; t++) {
            ByteBuffer[] parts = new ByteBuffer[NameTable.PARTS];
            for (int p = 0; p < parts.length; p++) parts[p] = part(Part.COUNT + t * NameTable.PARTS + p);
            tables[t] = new NameTable(parts, names);
        }
    }

    /**
     * The index of the packs that ship: mapped where its file is there, else built and, where there is a folder, kept.
     */
    static GazetteerIndex shipped() {
        String folder = System.getProperty(FOLDER, System.getenv(FOLDER_OF_ENVIRONMENT));
        if (folder == null || folder.isBlank()) return new GazetteerIndex(ByteBuffer.wrap(GazetteerPacks.build()));
        Path file = Path.of(folder).resolve("gazetteer-%s-%d.bin".formatted(GazetteerPacks.version(), FORM));
        try {
            if (!isWhole(file)) write(file, GazetteerPacks.build());
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
                return new GazetteerIndex(channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size()));
            }
        } catch (IOException unwritten) {
            return new GazetteerIndex(ByteBuffer.wrap(GazetteerPacks.build()));
        }
    }

    private static boolean isWhole(Path file) throws IOException {
        if (!Files.isRegularFile(file)) return false;
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            ByteBuffer head = ByteBuffer.allocate(16).order(ByteOrder.LITTLE_ENDIAN);
            channel.read(head, 0);
            return head.position() == 16 && head.getLong(0) == MAGIC && head.getLong(8) == channel.size();
        }
    }

    /** Written beside its place and moved there, so that another process never meets half of it. */
    private static void write(Path file, byte[] built) throws IOException {
        Files.createDirectories(file.getParent());
        Path beside = Files.createTempFile(file.getParent(), "gazetteer", ".part");
        try {
            Files.write(beside, built);
            Files.move(beside, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(beside);
        }
    }

    /** Puts parts together: magic, length, the end of each part, then the parts, each at a multiple of eight. */
    static byte[] joined(byte[][] parts) {
        int at = 16 + 8 * parts.length;
        int[][] bounds = new int[parts.length][];
        for (int p = 0; p < parts.length; p++) {
            at = at + 7 & ~7;
            bounds[p] = new int[] {at, parts[p].length};
            at += parts[p].length;
        }
        ByteBuffer out = ByteBuffer.allocate(at).order(ByteOrder.LITTLE_ENDIAN);
        out.putLong(MAGIC).putLong(at);
        for (int[] bound : bounds) out.putInt(bound[0]).putInt(bound[1]);
        for (int p = 0; p < parts.length; p++) out.position(bounds[p][0]).put(parts[p]);
        return out.array();
    }

    private ByteBuffer part(int p) {
        return all.slice(all.getInt(16 + 8 * p), all.getInt(20 + 8 * p)).order(ByteOrder.LITTLE_ENDIAN);
    }

    NameTable table(NameTable.Of of) {
        return tables[of.ordinal()];
    }

    /** How many places there are. */
    int size() {
        return places.capacity() / WIDTH;
    }

    /** The numbers of a place, in the order in which {@link #place} reads them. */
    static int[] numbers(
            int id,
            int name,
            int country,
            int region,
            int province,
            PlaceLevel level,
            int seat,
            double lon,
            double lat,
            long population) {
        int[] numbers = {
            id,
            name,
            country,
            region,
            province,
            level.ordinal() | seat + 1 << 4,
            (int) Math.round(lon * DEGREE),
            (int) Math.round(lat * DEGREE),
            (int) Math.min(Integer.MAX_VALUE, population)
        };
        if (numbers.length != WIDTH) throw new IllegalStateException();
        return numbers;
    }

    Place place(int i) {
        Place place = known.get(i);
        if (place != null) return place;
        int at = i * WIDTH;
        Place read = new Place(
                text(places.get(at)),
                level(i),
                text(places.get(at + 1)),
                text(places.get(at + 2)),
                text(places.get(at + 3)),
                text(places.get(at + 4)),
                seat(i) > 0,
                lon(i),
                lat(i),
                population(i));
        // Whoever came first made the one that all share.
        return known.compareAndSet(i, null, read) ? read : known.get(i);
    }

    PlaceLevel level(int i) {
        return LEVELS[places.get(i * WIDTH + 5) & 15];
    }

    /** 2 for a capital, 1 for another seat, 0 for none, -1 for a part of a town and what is there no more. */
    int seat(int i) {
        return (places.get(i * WIDTH + 5) >> 4) - 1;
    }

    double lon(int i) {
        return places.get(i * WIDTH + 6) / DEGREE;
    }

    double lat(int i) {
        return places.get(i * WIDTH + 7) / DEGREE;
    }

    long population(int i) {
        return places.get(i * WIDTH + 8);
    }

    String country(int i) {
        return text(places.get(i * WIDTH + 2));
    }

    /**
     * How many towns lie in each country, region and province, by their codes. A code is one text in the file, so only
     * few are read.
     */
    Map<String, Integer> townsByCode() {
        Map<Integer, int[]> counts = new HashMap<>();
        int[] last = {-1, -1, -1};
        int[][] counter = new int[last.length][];
        for (int i = 0; i < size(); i++) {
            if (level(i) != PlaceLevel.TOWN) continue;
            for (int c = 0; c < last.length; c++) {
                int text = places.get(i * WIDTH + 2 + c);
                if (text != last[c]) {
                    last[c] = text;
                    counter[c] = counts.computeIfAbsent(text, t -> new int[1]);
                }
                counter[c][0]++;
            }
        }
        Map<String, Integer> byCode = new HashMap<>();
        counts.forEach((text, count) -> byCode.merge(text(text), count[0], Integer::sum));
        byCode.remove("");
        return byCode;
    }

    private String text(int at) {
        byte[] bytes = new byte[texts.getShort(at)];
        texts.get(at + 2, bytes);
        return new String(bytes, StandardCharsets.UTF_8);
    }

    /** The place of a key, such as {@code i:g3108288}; -1 where there is none. */
    int byKey(String key) {
        int i = NameTable.search(keys, NameTable.hash(key));
        return i < 0 ? -1 : keyPlaces.get(i);
    }
}
