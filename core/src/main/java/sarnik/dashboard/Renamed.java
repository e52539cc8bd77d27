package sarnik.dashboard;

import jakarta.json.Json;
import jakarta.json.JsonArray;
import jakarta.json.JsonArrayBuilder;
import jakarta.json.JsonObject;
import jakarta.json.JsonObjectBuilder;
import jakarta.json.JsonStructure;
import jakarta.json.JsonValue;
import java.util.HashMap;
import java.util.Map;
import sarnik.query.Summary;

/** Measures are asked for by the names of formulas; where one gets another name, what asks for it follows. */
final class Renamed {

    private Renamed() {}

    /**
     * @param before the document as it was
     * @param after as it was changed
     * @return as it was changed, with what follows
     */
    static JsonStructure formulas(JsonObject before, JsonStructure after) {
        if (!(after instanceof JsonObject document)
                || !(before.get("formulas") instanceof JsonObject then)
                || !(document.get("formulas") instanceof JsonObject now)) return after;
        Map<String, String> names = new HashMap<>();
        then.forEach((id, formula) -> {
            String was = name(formula);
            String is = name(now.get(id));
            if (was != null && is != null && !was.equals(is)) names.put(was, is);
        });
        return names.isEmpty() ? after : object(document, names);
    }

    private static String name(JsonValue formula) {
        return formula instanceof JsonObject object ? object.getString("name", null) : null;
    }

    private static JsonValue value(JsonValue value, Map<String, String> names) {
        if (value instanceof JsonObject object) return object(object, names);
        if (!(value instanceof JsonArray array)) return value;
        JsonArrayBuilder all = Json.createArrayBuilder();
        array.forEach(each -> all.add(value(each, names)));
        return all.build();
    }

    private static JsonObject object(JsonObject object, Map<String, String> names) {
        boolean measure = Summary.FORMULA.name().equals(object.getString("summary", null));
        JsonObjectBuilder all = Json.createObjectBuilder();
        object.forEach((key, value) -> {
            String other = measure && key.equals("column") ? names.get(object.getString("column", null)) : null;
            if (other != null) all.add(key, other);
            else all.add(key, value(value, names));
        });
        return all.build();
    }
}
