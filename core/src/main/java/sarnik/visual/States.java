package sarnik.visual;

/**
 * When a value is good and when it is bad.
 *
 * @param good from here on it is good
 * @param bad from here on it is bad; between the two it is to be watched. Below {@code good} where more is worse
 */
public record States(double good, double bad) {

    /** What stands in documents, as JSON Schema. */
    public static final String SCHEMA =
            "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": [\"good\", \"bad\"], \"properties\": "
                    + "{\"good\": {\"type\": \"number\"}, \"bad\": {\"type\": \"number\"}}}";

    /** good, watch or bad; null where there is no value. */
    public String of(double value) {
        if (Double.isNaN(value)) return null;
        boolean moreIsBetter = good >= bad;
        if (moreIsBetter ? value >= good : value <= good) return "good";
        return (moreIsBetter ? value <= bad : value >= bad) ? "bad" : "watch";
    }
}
