package sarnik.dashboard;

import jakarta.json.Json;
import jakarta.json.JsonException;
import jakarta.json.JsonObject;
import jakarta.json.JsonReader;
import jakarta.json.JsonString;
import jakarta.json.JsonStructure;
import jakarta.json.JsonValue;
import java.io.StringReader;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What the author of a dashboard has written for readers, and the same in other languages. Each text is known by where
 * it stands in the document (JSON Pointer, RFC 6901).
 */
public final class AuthorTexts {

    /** Parts of a document that hold such texts, and what those are called there. */
    private static final List<String> PARTS = List.of("pages", "visuals", "filters");

    private static final Set<String> CALLED = Set.of("title", "text", "below", "words", "shows", "all");

    /** What lies within one of these has a name that readers see. */
    private static final Set<String> NAMED = Set.of("layers", "views", "rules", "references");

    private AuthorTexts() {}

    /**
     * A text in another language.
     *
     * @param of the text of which it is; where that reads otherwise by now, it stands itself
     * @param text in the other language
     */
    public record Said(String of, String text) {}

    /** All texts of a document, by where they stand, in its order. */
    public static Map<String, String> of(DashboardDocument document) {
        JsonObject json = read(document.json()).asJsonObject();
        Map<String, String> texts = new LinkedHashMap<>();
        texts.put("/title", json.getString("title"));
        for (String part : PARTS) if (json.containsKey(part)) gather("/" + part, part, "", json.get(part), texts);
        return texts;
    }

    private static void gather(String at, String name, String within, JsonValue value, Map<String, String> texts) {
        if (value instanceof JsonObject object) {
            object.forEach((key, one) -> {
                String pointer = at + "/" + key.replace("~", "~0").replace("/", "~1");
                boolean isText = CALLED.contains(key) || key.equals("name") && NAMED.contains(within);
                if (one instanceof JsonString text) {
                    if (isText && !text.getString().isBlank()) texts.put(pointer, text.getString());
                } else gather(pointer, key, name, one, texts);
            });
        } else if (value != null && value.getValueType() == JsonValue.ValueType.ARRAY) {
            int i = 0;
            for (JsonValue one : value.asJsonArray()) gather(at + "/" + i++, String.valueOf(i), name, one, texts);
        }
    }

    /**
     * A document with its texts in a language, as far as they are given in it and stand for what is written now.
     *
     * @param tag such as {@code es}
     */
    public static DashboardDocument in(String tag, DashboardDocument document) {
        Map<String, Said> said = document.dashboard().texts().get(tag);
        if (said == null || said.isEmpty()) return document;
        JsonStructure json = read(document.json());
        for (Map.Entry<String, Said> one : said.entrySet()) {
            try {
                boolean holds = json.getValue(one.getKey()) instanceof JsonString text
                        && text.getString().equals(one.getValue().of());
                if (holds && !one.getValue().text().isBlank())
                    json = Json.createPointer(one.getKey())
                            .replace(json, Json.createValue(one.getValue().text()));
            } catch (JsonException gone) {
                // What it stood for has been taken away.
            }
        }
        return DashboardDocument.parse(json.toString());
    }

    /** Where a text stands, for its author. */
    public static String where(String at, Dashboard dashboard) {
        String[] path = at.split("/");
        if (path.length < 4) return "the dashboard";
        String what = path[path.length - 1].equals("title") ? "" : ", " + path[path.length - 1];
        return switch (path[1]) {
            case "pages" -> "a page" + what;
            case "filters" -> "the filter " + dashboard.filters().get(path[2]).words() + what;
            default ->
                Kinds.ALL
                                .of(dashboard.visuals().get(path[2]))
                                .words(dashboard.visuals().get(path[2]))
                        + what;
        };
    }

    private static JsonStructure read(String json) {
        try (JsonReader reader = Json.createReader(new StringReader(json))) {
            return reader.read();
        }
    }
}
