package sarnik.live;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import sarnik.table.ColumnType;
import tools.jackson.databind.JsonNode;

/** Guesses from some messages how they become readings, and says how sure it is of each part. */
public final class MessageGuess {

    private static final int DEEPEST = 4;
    private static final int MOST_LEAVES = 300;
    private static final int LONGEST_WORD = 60;

    private static final Set<String> DEVICE = Set.of(
            "device",
            "deviceid",
            "devid",
            "deveui",
            "sensor",
            "sensorid",
            "node",
            "nodeid",
            "station",
            "stationid",
            "probe",
            "van",
            "vehicle",
            "serial",
            "mac",
            "imei",
            "thing",
            "thingid",
            "source",
            "id",
            "name",
            "code");
    private static final Set<String> TIME = Set.of(
            "time",
            "timestamp",
            "ts",
            "t",
            "at",
            "when",
            "date",
            "datetime",
            "measured",
            "measuredat",
            "observed",
            "observedat",
            "phenomenontime",
            "resulttime",
            "sent",
            "sentat",
            "recorded",
            "recordedat",
            "epoch");
    private static final Set<String> LON = Set.of("lon", "lng", "long", "longitude", "x");
    private static final Set<String> LAT = Set.of("lat", "latitude", "y");
    private static final Set<String> MEASURE = Set.of(
            "measure",
            "measurement",
            "metric",
            "property",
            "parameter",
            "observedproperty",
            "quantity",
            "channel",
            "type");
    private static final Set<String> VALUE = Set.of("value", "v", "val", "result", "reading");

    /** Endings of names that say a unit. */
    private static final Map<String, String> UNITS = Map.ofEntries(
            Map.entry("c", "°C"),
            Map.entry("degc", "°C"),
            Map.entry("celsius", "°C"),
            Map.entry("f", "°F"),
            Map.entry("pct", "%"),
            Map.entry("percent", "%"),
            Map.entry("v", "V"),
            Map.entry("mv", "mV"),
            Map.entry("ma", "mA"),
            Map.entry("w", "W"),
            Map.entry("kw", "kW"),
            Map.entry("kwh", "kWh"),
            Map.entry("mgl", "mg/l"),
            Map.entry("ntu", "NTU"),
            Map.entry("hpa", "hPa"),
            Map.entry("kpa", "kPa"),
            Map.entry("bar", "bar"),
            Map.entry("ppm", "ppm"),
            Map.entry("m", "m"),
            Map.entry("mm", "mm"),
            Map.entry("km", "km"),
            Map.entry("kmh", "km/h"),
            Map.entry("ms", "ms"),
            Map.entry("db", "dB"),
            Map.entry("dbm", "dBm"),
            Map.entry("lux", "lx"),
            Map.entry("l", "l"),
            Map.entry("litres", "l"));

    /** A message and what it came under; an empty topic for none. */
    public record Message(String topic, JsonNode json) {}

    /**
     * What was guessed of a part.
     *
     * @param part device, time, place, readings or the name of a column
     * @param words a sentence
     * @param sure whether nothing else fits as well
     */
    public record Remark(String part, String words, boolean sure) {}

    /**
     * A guess.
     *
     * @param shape null where it cannot be guessed which device a message is of: a person has to say
     */
    public record Guess(MessageShape shape, List<Remark> remarks) {}

    private final List<Message> messages;
    private final long now;
    private final Map<String, List<JsonNode>> leaves = new LinkedHashMap<>();
    private final List<Remark> remarks = new ArrayList<>();
    private final Set<String> used = new HashSet<>();
    private String readings = "";
    private int items;

    private MessageGuess(Collection<Message> messages, long now) {
        this.messages = List.copyOf(messages);
        this.now = now;
    }

    /**
     * Guesses from messages.
     *
     * @param now milliseconds since 1970: moments lie near it
     */
    public static Guess of(Collection<Message> messages, long now) {
        return new MessageGuess(messages, now).guess();
    }

    private Guess guess() {
        if (messages.isEmpty())
            return new Guess(null, List.of(new Remark("readings", "No message has come yet.", false)));
        gather();
        Optional<String> time = time();
        MessageShape.Form form = time.map(this::form).orElse(MessageShape.Form.ISO);
        String[] place = place();
        Optional<String> device = device();
        if (device.isEmpty()) {
            remarks.add(new Remark(
                    "device",
                    "Nothing in these messages looks like the code of a device. Say where it stands.",
                    false));
            return new Guess(null, remarks);
        }
        used.add(device.get());
        String[] one = oneByOne();
        List<Field> fields = one == null ? fields() : measures(one);
        return new Guess(
                new MessageShape(
                        readings,
                        device.get(),
                        time.orElse(null),
                        form,
                        place == null ? null : place[0],
                        place == null ? null : place[1],
                        one == null ? null : one[0],
                        one == null ? null : one[1],
                        fields),
                remarks);
    }

    // --- what stands where -----------------------------------------------------------------------------

    private void gather() {
        Set<String> arrays = null;
        for (Message message : messages) {
            Set<String> here = new HashSet<>();
            arrays(message.json(), "", 0, here);
            if (arrays == null) arrays = here;
            else arrays.retainAll(here);
        }
        boolean isArray = messages.stream().allMatch(m -> m.json().isArray());
        if (!isArray && arrays != null && !arrays.isEmpty()) {
            readings = arrays.stream()
                    .min(Comparator.comparingInt(String::length).thenComparing(a -> a))
                    .orElseThrow();
            remarks.add(new Remark(
                    "readings", "The readings of a message stand at %s.".formatted(readings), arrays.size() == 1));
        }
        for (Message message : messages) {
            JsonNode holder = isArray || readings.isEmpty()
                    ? message.json()
                    : message.json().at(readings);
            Iterable<JsonNode> each = holder.isArray() ? holder : List.of(holder);
            for (JsonNode item : each) {
                items++;
                leaves(item, "", 0, "");
                if (!readings.isEmpty()) leaves(message.json(), "", 0, readings);
                String[] levels = message.topic().split("/");
                if (!message.topic().isEmpty())
                    for (int i = 0; i < levels.length; i++)
                        leaves.computeIfAbsent("#" + (i + 1), k -> new ArrayList<>())
                                .add(
                                        item.isMissingNode()
                                                ? item
                                                : new tools.jackson.databind.node.StringNode(levels[i]));
            }
        }
    }

    private static void arrays(JsonNode node, String at, int depth, Set<String> found) {
        if (depth > 2 || !node.isObject()) return;
        node.properties().forEach(e -> {
            String below = at + "/" + escaped(e.getKey());
            if (e.getValue().isArray()
                    && !e.getValue().isEmpty()
                    && e.getValue().get(0).isObject()) found.add(below);
            else arrays(e.getValue(), below, depth + 1, found);
        });
    }

    private void leaves(JsonNode node, String at, int depth, String without) {
        if (depth > DEEPEST || !without.isEmpty() && at.equals(without)) return;
        if (node.isObject()) {
            node.properties().forEach(e -> leaves(e.getValue(), at + "/" + escaped(e.getKey()), depth + 1, without));
        } else if (node.isArray()) {
            // Pairs of numbers are positions.
            if (node.size() == 2 || node.size() == 3)
                for (int i = 0; i < node.size(); i++) leaves(node.get(i), at + "/" + i, depth + 1, without);
        } else if (!at.isEmpty() && (leaves.containsKey(at) || leaves.size() < MOST_LEAVES)) {
            leaves.computeIfAbsent(at, k -> new ArrayList<>()).add(node);
        }
    }

    private static String escaped(String key) {
        return key.replace("~", "~0").replace("/", "~1");
    }

    /** The last name of a pointer in small letters and digits. */
    private static String bare(String at) {
        return name(at).toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
    }

    private static String name(String at) {
        return at.substring(at.lastIndexOf('/') + 1).replace("~1", "/").replace("~0", "~");
    }

    private static String parent(String at) {
        int end = at.lastIndexOf('/');
        return end <= 0 ? "" : at.substring(0, end);
    }

    private boolean all(String at, Predicate<JsonNode> what) {
        return leaves.get(at).stream().filter(v -> !v.isNull()).allMatch(what)
                && leaves.get(at).stream().anyMatch(v -> !v.isNull());
    }

    private long distinct(String at) {
        return leaves.get(at).stream().map(JsonNode::asString).distinct().count();
    }

    // --- parts -----------------------------------------------------------------------------------------

    private static final long TWENTY_YEARS = 20L * 365 * 86_400_000L;

    private MessageShape.Form form(String at) {
        for (MessageShape.Form form : MessageShape.Form.values())
            if (all(at, v -> {
                Long millis = MessageReader.moment(v, form);
                return millis != null && Math.abs(millis - now) < TWENTY_YEARS;
            })) return form;
        return null;
    }

    private Optional<String> time() {
        List<String> fit = leaves.keySet().stream()
                .filter(at -> form(at) != null)
                .filter(at -> TIME.contains(bare(at))
                        || form(at) == MessageShape.Form.ISO
                        || form(at) != MessageShape.Form.SECONDS)
                .sorted(Comparator.comparing((String at) -> !TIME.contains(bare(at)))
                        .thenComparing(String::length))
                .toList();
        if (fit.isEmpty()) {
            remarks.add(new Remark("time", "Messages do not say when: the moment of receipt counts.", false));
            return Optional.empty();
        }
        used.add(fit.get(0));
        boolean sure = TIME.contains(bare(fit.get(0))) && (fit.size() == 1 || !TIME.contains(bare(fit.get(1))));
        remarks.add(new Remark(
                "time",
                "%s says when, as %s.".formatted(fit.get(0), form(fit.get(0)).words()),
                sure));
        fit.stream().skip(1).filter(at -> TIME.contains(bare(at))).forEach(used::add);
        return Optional.of(fit.get(0));
    }

    private Optional<String> device() {
        List<String> fit = leaves.keySet().stream()
                .filter(at -> !used.contains(at))
                .filter(at -> all(
                        at,
                        v -> (v.isString() || v.isIntegralNumber())
                                && v.asString().length() <= MessageReader.LONGEST_CODE
                                && !v.asString().isBlank()))
                .filter(at -> at.startsWith("#")
                        ? distinct(at) > 1
                        : DEVICE.contains(bare(at)) || DEVICE.contains(bare(parent(at)) + bare(at)))
                .sorted(Comparator.comparing((String at) -> at.startsWith("#"))
                        .thenComparing(at -> leaves.get(at).size() < items)
                        .thenComparing(MessageGuess::rank)
                        .thenComparing(String::length))
                .toList();
        if (fit.isEmpty()) {
            Optional<String> text = leaves.keySet().stream()
                    .filter(at -> !used.contains(at) && !at.startsWith("#"))
                    .filter(at -> all(at, v -> v.isString() && v.asString().length() <= LONGEST_WORD))
                    .filter(at -> leaves.get(at).size() == items)
                    .max(Comparator.comparingLong(this::distinct));
            text.ifPresent(at -> remarks.add(new Remark(
                    "device", "%s may be the device: it is the text that differs most.".formatted(at), false)));
            return text;
        }
        boolean sure = rank(fit.get(0)) == 0 && !fit.get(0).startsWith("#");
        remarks.add(new Remark(
                "device",
                fit.get(0).startsWith("#")
                        ? "Level %s of the topic says which device it is of."
                                .formatted(fit.get(0).substring(1))
                        : "%s says which device it is of.".formatted(fit.get(0)),
                sure));
        return Optional.of(fit.get(0));
    }

    /** Names that mean a device before those that may mean anything. */
    private static int rank(String at) {
        if (DEVICE.contains(bare(parent(at)) + bare(at))) return 0;
        return Set.of("id", "name", "code", "source").contains(bare(at)) ? 1 : 0;
    }

    private String[] place() {
        for (String lat : leaves.keySet()) {
            if (!LAT.contains(bare(lat)) || !within(lat, 90)) continue;
            for (String lon : leaves.keySet())
                if (LON.contains(bare(lon)) && parent(lon).equals(parent(lat)) && within(lon, 180))
                    return found(lon, lat);
        }
        for (String lon : leaves.keySet()) {
            String holder = parent(lon);
            if (!name(lon).equals("0") || !bare(holder).equals("coordinates")) continue;
            if (leaves.containsKey(holder + "/1") && within(lon, 180) && within(holder + "/1", 90)) {
                used.add(holder + "/2");
                return found(lon, holder + "/1");
            }
        }
        return null;
    }

    private boolean within(String at, double most) {
        return all(
                at,
                v -> MessageReader.value(v, ColumnType.DECIMAL) instanceof Double number && Math.abs(number) <= most);
    }

    private String[] found(String lon, String lat) {
        used.add(lon);
        used.add(lat);
        remarks.add(new Remark(
                "place",
                "%s and %s say where it is.".formatted(lat, lon),
                !bare(lon).equals("x")));
        return new String[] {lon, lat};
    }

    /** Where a message says of what its one value is, and the value; null where values stand under their names. */
    private String[] oneByOne() {
        List<String> values = leaves.keySet().stream()
                .filter(at -> !used.contains(at) && VALUE.contains(bare(at)) && all(at, v -> number(v)))
                .toList();
        if (values.size() != 1) return null;
        return leaves.keySet().stream()
                .filter(at -> !used.contains(at)
                        && MEASURE.contains(bare(at))
                        && parent(at).equals(parent(values.get(0))))
                .filter(at -> all(at, v -> v.isString() && v.asString().length() <= LONGEST_WORD))
                .findFirst()
                .map(at -> new String[] {at, values.get(0)})
                .orElse(null);
    }

    private List<Field> measures(String[] one) {
        List<String> names = leaves.get(one[0]).stream()
                .map(JsonNode::asString)
                .distinct()
                .sorted()
                .toList();
        remarks.add(new Remark(
                "readings",
                "Each message holds one value, at %s, and says of what, at %s; %s so far."
                        .formatted(one[1], one[0], names.size() == 1 ? "one measure" : names.size() + " measures"),
                true));
        return names.stream()
                .map(name -> new Field("=" + name, name, ColumnType.DECIMAL, unit(name)))
                .toList();
    }

    private static boolean number(JsonNode v) {
        return v.isNumber() || v.isString() && MessageReader.value(v, ColumnType.DECIMAL) != null;
    }

    private List<Field> fields() {
        List<Field> fields = new ArrayList<>();
        Map<String, Long> names = leaves.keySet().stream()
                .filter(at -> !used.contains(at) && !at.startsWith("#"))
                .collect(Collectors.groupingBy(this::called, HashMap::new, Collectors.counting()));
        for (String at : leaves.keySet()) {
            if (used.contains(at) || at.startsWith("#") || bare(at).equals("unit") || bare(at).equals("units"))
                continue;
            Optional<ColumnType> type = type(at);
            if (type.isEmpty()) continue;
            String name = names.get(called(at)) > 1 ? at.substring(1).replace('/', ' ') : called(at);
            fields.add(new Field(at, name, type.get(), type.get().isNumber() ? unit(at) : null));
            if (leaves.get(at).size() < items)
                remarks.add(new Remark(name, "Only some messages say %s.".formatted(name), false));
        }
        return fields;
    }

    /** A value that stands under “value” is called as what holds it. */
    private String called(String at) {
        return VALUE.contains(bare(at)) && !parent(at).isEmpty() ? name(parent(at)) : name(at);
    }

    private Optional<ColumnType> type(String at) {
        if (all(at, JsonNode::isBoolean)) return Optional.of(ColumnType.YES_NO);
        if (all(at, MessageGuess::number)) {
            // Codes with zeros in front are no numbers.
            boolean isCode = leaves.get(at).stream()
                    .anyMatch(v -> v.isString() && v.asString().matches("0\\d+"));
            return Optional.of(isCode ? ColumnType.TEXT : ColumnType.DECIMAL);
        }
        if (all(at, v -> v.isValueNode() && v.asString().length() <= MessageReader.LONGEST_TEXT))
            return Optional.of(ColumnType.TEXT);
        return Optional.empty();
    }

    private String unit(String at) {
        String beside = parent(at) + "/unit";
        if (leaves.containsKey(beside) && distinct(beside) == 1)
            return leaves.get(beside).get(0).asString();
        String[] parts = name(at).split("[_\\s-]|(?<=[a-z])(?=[A-Z])");
        String last = parts[parts.length - 1].toLowerCase(Locale.ROOT);
        return parts.length > 1 ? UNITS.get(last) : null;
    }
}
