package sarnik.visual;

/**
 * Words pinned to something that is drawn, with a line that leads there.
 *
 * @param at what they are pinned to: of lines over time a step or a day, of bars a value of the category, of maps a
 *     place
 * @param text the words
 */
public record Note(String at, String text) {

    /** What stands in documents, as JSON Schema. */
    public static final String SCHEMA =
            "{\"type\": [\"array\", \"null\"], \"maxItems\": 20, \"items\": {\"type\": \"object\", "
                    + "\"additionalProperties\": false, "
                    + "\"required\": [\"at\", \"text\"], \"properties\": {\"at\": {\"type\": \"string\", "
                    + "\"maxLength\": 500}, "
                    + "\"text\": {\"type\": \"string\", \"maxLength\": 300}}}}";
}
