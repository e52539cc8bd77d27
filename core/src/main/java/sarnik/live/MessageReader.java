package sarnik.live;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import sarnik.table.ColumnType;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Makes readings of messages as a shape says. What cannot be read is said with the reason and never left out silently.
 */
public final class MessageReader {

    /** A device's code is no longer than this, characters. */
    public static final int LONGEST_CODE = 120;

    /** A text value is no longer than this, characters. */
    public static final int LONGEST_TEXT = 1_000;

    private static final JsonMapper JSON = new JsonMapper();

    private final MessageShape shape;
    private final Clocks clocks;

    /**
     * Which moments are taken.
     *
     * @param aheadMillis a clock that is so far ahead is wrong, and the moment of receipt counts instead
     * @param oldestMillis what is older than this, counted back from its receipt, is not kept
     */
    public record Clocks(long aheadMillis, long oldestMillis) {}

    /** Something that could not be read, or not as it was sent. {@code lost} where no reading came of it. */
    public record Trouble(String words, boolean lost) {}

    /** What came of a message. */
    public record Read(List<Reading> readings, List<Trouble> troubles) {}

    public MessageReader(MessageShape shape, Clocks clocks) {
        this.shape = shape;
        this.clocks = clocks;
    }

    /**
     * Reads a message.
     *
     * @param message JSON in UTF-8
     * @param topic what it came under, levels with / in between; empty for none
     * @param received when it came, milliseconds since 1970
     */
    public Read read(byte[] message, String topic, long received) {
        JsonNode root;
        try {
            root = JSON.readTree(message);
        } catch (JacksonException broken) {
            return new Read(List.of(), List.of(new Trouble("It is no JSON: " + firstLine(broken), true)));
        }
        return read(root, topic, received);
    }

    private static String firstLine(JacksonException broken) {
        String said = String.valueOf(broken.getOriginalMessage());
        int end = said.indexOf('\n');
        return end < 0 ? said : said.substring(0, end);
    }

    /** The same of a message that has been taken apart. */
    public Read read(JsonNode root, String topic, long received) {
        List<Reading> readings = new ArrayList<>();
        List<Trouble> troubles = new ArrayList<>();
        JsonNode items = shape.readings().isEmpty() ? root : root.at(shape.readings());
        if (items.isMissingNode()) {
            troubles.add(new Trouble("There are no readings at " + shape.readings(), true));
        } else if (items.isArray()) {
            for (JsonNode item : items) one(item, root, topic, received, readings, troubles);
        } else {
            one(items, root, topic, received, readings, troubles);
        }
        return new Read(readings, troubles);
    }

    private void one(
            JsonNode item, JsonNode root, String topic, long received, List<Reading> readings, List<Trouble> troubles) {
        String device = text(find(shape.device(), item, root, topic));
        if (device == null || device.isBlank()) {
            troubles.add(new Trouble("It does not say which device it is of: nothing at " + shape.device(), true));
            return;
        }
        device = device.strip();
        if (device.length() > LONGEST_CODE) {
            troubles.add(new Trouble("The device's code has more than %d characters".formatted(LONGEST_CODE), true));
            return;
        }
        Long millis = moment(device, item, root, topic, received, troubles);
        if (millis == null) return;
        Object[] values = new Object[shape.fields().size()];
        boolean isEmpty = true;
        for (int f = 0; f < values.length; f++) {
            values[f] = value(device, shape.fields().get(f), item, root, topic, troubles);
            isEmpty &= values[f] == null;
        }
        double[] position = position(device, item, root, topic, troubles);
        if (isEmpty && position == null) {
            troubles.add(new Trouble("%s says nothing that this feed knows".formatted(device), true));
            return;
        }
        readings.add(new Reading(
                device,
                millis,
                position == null ? Double.NaN : position[0],
                position == null ? Double.NaN : position[1],
                values));
    }

    // --- moments ---------------------------------------------------------------------------------------

    private Long moment(
            String device, JsonNode item, JsonNode root, String topic, long received, List<Trouble> troubles) {
        if (shape.time() == null) return received;
        JsonNode said = find(shape.time(), item, root, topic);
        if (said.isMissingNode() || said.isNull()) {
            troubles.add(new Trouble("%s does not say when: the moment of receipt is taken".formatted(device), false));
            return received;
        }
        Long millis = moment(said, shape.form());
        if (millis == null) {
            troubles.add(new Trouble(
                    "%s says when as %s, which is no %s"
                            .formatted(device, shortened(said), shape.form().words()),
                    true));
            return null;
        }
        if (millis - received > clocks.aheadMillis()) {
            troubles.add(new Trouble(
                    "The clock of %s is %s ahead: the moment of receipt is taken"
                            .formatted(device, Spans.words(millis - received)),
                    false));
            return received;
        }
        if (received - millis > clocks.oldestMillis()) {
            troubles.add(new Trouble(
                    "%s sends what is %s old, and readings are kept for %s"
                            .formatted(device, Spans.words(received - millis), Spans.words(clocks.oldestMillis())),
                    true));
            return null;
        }
        return millis;
    }

    /** A moment in milliseconds since 1970; null where it is not written so. */
    static Long moment(JsonNode said, MessageShape.Form form) {
        if (form == MessageShape.Form.ISO) return said.isString() ? iso(said.stringValue()) : null;
        double number;
        if (said.isNumber()) {
            number = said.doubleValue();
        } else {
            try {
                number = Double.parseDouble(String.valueOf(text(said)));
            } catch (NumberFormatException none) {
                return null;
            }
        }
        double millis = switch (form) {
            case SECONDS -> number * 1000;
            case MICROSECONDS -> number / 1000;
            default -> number;
        };
        // No clock that works is before 1970 or after the year 9999.
        return millis >= 0 && millis < 253_402_300_800_000.0 ? Math.round(millis) : null;
    }

    private static Long iso(String said) {
        String text = said.strip().replace(' ', 'T');
        try {
            Instant at = text.matches(".*(?:[Zz]|[+-]\\d\\d:?\\d\\d|[+-]\\d\\d)")
                    ? OffsetDateTime.parse(withColon(text)).toInstant()
                    : LocalDateTime.parse(text).toInstant(ZoneOffset.UTC);
            return at.toEpochMilli();
        } catch (DateTimeException | ArithmeticException unreadable) {
            return null;
        }
    }

    /** An offset as +02 or +0200 is written +02:00. */
    private static String withColon(String text) {
        int sign = Math.max(text.lastIndexOf('+'), text.lastIndexOf('-'));
        if (sign < text.indexOf('T') || sign < 0) return text;
        String offset = text.substring(sign + 1);
        if (offset.length() == 2) return text + ":00";
        return offset.length() == 4 ? text.substring(0, sign + 3) + ":" + offset.substring(2) : text;
    }

    // --- values ----------------------------------------------------------------------------------------

    private Object value(
            String device, Field field, JsonNode item, JsonNode root, String topic, List<Trouble> troubles) {
        JsonNode said = said(field, item, root, topic);
        if (said.isMissingNode() || said.isNull()) return null;
        Object value = value(said, field.type());
        if (value == null)
            troubles.add(new Trouble(
                    "%s says %s for %s, which is no %s"
                            .formatted(
                                    device,
                                    shortened(said),
                                    field.name(),
                                    field.type().words()),
                    false));
        return value;
    }

    private JsonNode said(Field field, JsonNode item, JsonNode root, String topic) {
        if (!field.at().startsWith("=")) return find(field.at(), item, root, topic);
        boolean isOfIt =
                shape.isOneByOne() && field.at().substring(1).equals(text(find(shape.measure(), item, root, topic)));
        return isOfIt
                ? find(shape.value(), item, root, topic)
                : JSON.getNodeFactory().missingNode();
    }

    /** A value as a column of this type holds it; null where it is none. */
    static Object value(JsonNode said, ColumnType type) {
        if (type == ColumnType.YES_NO) {
            if (said.isBoolean()) return said.booleanValue();
            return switch (String.valueOf(text(said)).toLowerCase(java.util.Locale.ROOT)) {
                case "yes", "true", "on", "1" -> true;
                case "no", "false", "off", "0" -> false;
                default -> null;
            };
        }
        String text = text(said);
        if (type == ColumnType.TEXT) return text == null || text.length() > LONGEST_TEXT ? null : text;
        if (text == null) return null;
        try {
            // What Java takes besides plain numbers (NaN, Infinity, 1d, 0x1p3) is no number of a sensor.
            if (!text.strip().matches("[+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:[eE][+-]?\\d+)?")) return null;
            double number = Double.parseDouble(text.strip());
            if (Double.isInfinite(number)) return null;
            return type == ColumnType.WHOLE && number != Math.rint(number) ? null : (Object) number;
        } catch (NumberFormatException none) {
            return null;
        }
    }

    /** A value that is no array or object, as text; null for those. */
    private static String text(JsonNode said) {
        return said.isString() ? said.stringValue() : said.isValueNode() && !said.isNull() ? said.asString() : null;
    }

    private static String shortened(JsonNode said) {
        String text = said.toString();
        return text.length() > 60 ? text.substring(0, 60) + "…" : text;
    }

    // --- positions -------------------------------------------------------------------------------------

    private double[] position(String device, JsonNode item, JsonNode root, String topic, List<Trouble> troubles) {
        if (!shape.isMoving()) return null;
        JsonNode lon = find(shape.lon(), item, root, topic);
        JsonNode lat = find(shape.lat(), item, root, topic);
        if (lon.isMissingNode() || lon.isNull() || lat.isMissingNode() || lat.isNull()) return null;
        Object x = value(lon, ColumnType.DECIMAL);
        Object y = value(lat, ColumnType.DECIMAL);
        if (!(x instanceof Double east)
                || !(y instanceof Double north)
                || Math.abs(east) > 180
                || Math.abs(north) > 90) {
            troubles.add(new Trouble(
                    "%s says it is at %s, %s, which is no place on Earth"
                            .formatted(device, shortened(lat), shortened(lon)),
                    false));
            return null;
        }
        // Devices without a fix say 0, 0, which lies in the sea.
        if (east == 0 && north == 0) {
            troubles.add(new Trouble("%s says it is at 0, 0: it does not know where it is".formatted(device), false));
            return null;
        }
        return new double[] {east, north};
    }

    private static JsonNode find(String at, JsonNode item, JsonNode root, String topic) {
        if (at.startsWith("#")) {
            String[] levels = topic.split("/");
            int level = Integer.parseInt(at.substring(1)) - 1;
            return level < levels.length && !topic.isEmpty()
                    ? JSON.getNodeFactory().stringNode(levels[level])
                    : JSON.getNodeFactory().missingNode();
        }
        JsonNode inItem = item.at(at);
        return inItem.isMissingNode() && item != root ? root.at(at) : inItem;
    }
}
