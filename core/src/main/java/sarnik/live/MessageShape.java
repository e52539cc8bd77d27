package sarnik.live;

import java.util.List;

/**
 * How a message becomes readings. All places are JSON pointers (RFC 6901). Each is looked for in the reading first and
 * then in the whole message, so that what is said once of a device holds for all readings that come with it;
 * {@code #2} is the second level of the topic that the message came under.
 *
 * @param readings where the readings of a message stand as an array; empty where a message is one reading, or is the
 *     array itself
 * @param device where the device's code stands
 * @param time where the moment of measuring stands; null where messages have none and the moment of receipt counts
 * @param form how moments are written
 * @param lon where the longitude stands, degrees; null for devices that do not say where they are
 * @param lat where the latitude stands, degrees
 * @param measure where a message that holds one value says of what; null where its values stand under their names
 * @param value where that value stands
 * @param fields the columns; with {@code measure}, one is at {@code =name} where the measure is called so
 */
public record MessageShape(
        String readings,
        String device,
        String time,
        Form form,
        String lon,
        String lat,
        String measure,
        String value,
        List<Field> fields) {

    /** How moments are written. */
    public enum Form {
        /** ISO 8601; without an offset it is UTC. */
        ISO("date and time (ISO 8601)"),
        SECONDS("seconds since 1970"),
        MILLISECONDS("milliseconds since 1970"),
        MICROSECONDS("microseconds since 1970");

        private final String words;

        Form(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public MessageShape {
        readings = readings == null ? "" : readings;
        fields = List.copyOf(fields);
    }

    /** Whether each message holds one value and says of what. */
    public boolean isOneByOne() {
        return measure != null && value != null;
    }

    public boolean isMoving() {
        return lon != null && lat != null;
    }

    /** The number of a column; -1 where there is none of that name. */
    public int field(String name) {
        for (int i = 0; i < fields.size(); i++) if (fields.get(i).name().equals(name)) return i;
        return -1;
    }
}
