package sarnik.dashboard;

import jakarta.json.Json;
import jakarta.json.JsonArray;
import jakarta.json.JsonArrayBuilder;
import jakarta.json.JsonObject;
import jakarta.json.JsonObjectBuilder;
import jakarta.json.JsonString;
import jakarta.json.JsonStructure;
import jakarta.json.JsonValue;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.data.Rule;
import sarnik.formula.FormulaWords;
import sarnik.query.Summary;

/**
 * Measures are asked for by the names of formulas, and formulas know what readers set by its name; where one gets
 * another name, what asks for it follows.
 */
final class Renamed {

    /** New names of formulas by the old ones. */
    private final Map<String, String> formulas;

    /** What stands behind the colon now for what stood there. */
    private final Map<String, String> parameters = new LinkedHashMap<>();

    private Renamed(JsonObject before, JsonObject after) {
        formulas = names(before, after, "formulas");
        names(before, after, "parameters").forEach((was, is) -> {
            String id = after.getJsonObject("parameters").entrySet().stream()
                    .filter(p -> is.equals(name(p.getValue())))
                    .map(Map.Entry::getKey)
                    .findFirst()
                    .orElseThrow();
            parameters.put(was, FormulaWords.asName(is).equals(is) ? is : id);
        });
    }

    /**
     * @param before the document as it was
     * @param after as it was changed
     * @return as it was changed, with what follows
     */
    static JsonStructure follow(JsonObject before, JsonStructure after) {
        if (!(after instanceof JsonObject document)) return after;
        Renamed renamed = new Renamed(before, document);
        return renamed.formulas.isEmpty() && renamed.parameters.isEmpty() ? after : renamed.object(document);
    }

    private static Map<String, String> names(JsonObject before, JsonObject after, String holder) {
        Map<String, String> names = new LinkedHashMap<>();
        if (before.get(holder) instanceof JsonObject then && after.get(holder) instanceof JsonObject now)
            then.forEach((id, part) -> {
                String was = name(part);
                String is = name(now.get(id));
                if (was != null && is != null && !was.equals(is)) names.put(was, is);
            });
        return names;
    }

    private static String name(JsonValue part) {
        return part instanceof JsonObject object ? object.getString("name", null) : null;
    }

    private JsonValue value(JsonValue value) {
        if (value instanceof JsonObject object) return object(object);
        if (!(value instanceof JsonArray array)) return value;
        JsonArrayBuilder all = Json.createArrayBuilder();
        array.forEach(each -> all.add(value(each)));
        return all.build();
    }

    private JsonObject object(JsonObject object) {
        boolean measure = Summary.FORMULA.name().equals(object.getString("summary", null));
        boolean written = Rule.Is.SQL.name().equals(object.getString("is", null))
                || object.containsKey("dataset") && object.containsKey("name") && object.containsKey("text");
        JsonObjectBuilder all = Json.createObjectBuilder();
        object.forEach((key, value) -> {
            if (measure && key.equals("column") && value instanceof JsonString column)
                all.add(key, formulas.getOrDefault(column.getString(), column.getString()));
            else if (written && key.equals("text") && value instanceof JsonString text)
                all.add(key, written(text.getString()));
            else all.add(key, value(value));
        });
        return all.build();
    }

    private String written(String formula) {
        String now = formula;
        for (Map.Entry<String, String> name : parameters.entrySet())
            now = Pattern.compile(":" + Pattern.quote(name.getKey()) + "(?![\\p{L}\\p{N}_])")
                    .matcher(now)
                    .replaceAll(Matcher.quoteReplacement(":" + name.getValue()));
        return now;
    }
}
