package sarnik.dashboard;

import jakarta.json.Json;
import jakarta.json.JsonArray;
import jakarta.json.JsonArrayBuilder;
import jakarta.json.JsonNumber;
import jakarta.json.JsonObject;
import jakarta.json.JsonObjectBuilder;
import jakarta.json.JsonString;
import jakarta.json.JsonValue;
import java.io.StringReader;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import sarnik.brief.Choices;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Template;
import sarnik.table.CodedColumn;
import sarnik.table.Column;

/**
 * A dashboard made anew onto another dataset: what names a column of the one names the column of the other that was
 * matched with it.
 */
public final class Moving {

    /** Texts in which fields stand in braces. */
    private static final Set<String> TEMPLATES = Set.of("text", "below");
    /** What is never the name of a column. */
    private static final Set<String> NO_COLUMNS = Set.of(
            "title", "name", "words", "values", "good", "bad", "type", "kind", "summary", "page", "shows", "state",
            "address", "palette", "method", "key", "set", "ground", "is", "step", "rule");

    private Moving() {}

    /**
     * A column that a dashboard uses.
     *
     * @param name its name
     * @param words what it is called, and what it holds
     * @param to the column of the other dataset that goes by its name; null where there is none
     * @param fitting columns of the other dataset that hold the same kind of values
     */
    public record Used(String name, String words, String to, List<String> fitting) {}

    /** The columns of a dataset that a dashboard uses, each with what it is matched with. */
    public static List<Used> used(DashboardDocument document, LoadedDataset from, LoadedDataset to) {
        Set<String> found = new LinkedHashSet<>();
        new Walk(from.id(), from.id(), names(from), name -> {
                    found.add(name);
                    return name;
                })
                .object(read(document.json()), false);
        return found.stream()
                .map(name -> {
                    List<String> fitting = fitting(name, from, to);
                    return new Used(
                            name, words(name, from), match(name, fitting).orElse(null), fitting);
                })
                .toList();
    }

    private static String words(String name, LoadedDataset dataset) {
        if (dataset.measures().containsKey(name)) return name + ", a formula";
        return ColumnWords.of(name) + ", "
                + (name.startsWith("@")
                        ? "a place"
                        : dataset.table().column(name).type().words());
    }

    private static Set<String> names(LoadedDataset dataset) {
        Set<String> names = new LinkedHashSet<>(dataset.columnNames());
        names.addAll(dataset.measures().keySet());
        return names;
    }

    private static List<String> fitting(String name, LoadedDataset from, LoadedDataset to) {
        if (from.measures().containsKey(name)) return List.copyOf(to.measures().keySet());
        Column column = from.table().column(name);
        return to.columnNames().stream()
                .filter(other -> other.startsWith("@") == name.startsWith("@"))
                .filter(other -> kind(to.table().column(other)).equals(kind(column)))
                .toList();
    }

    private static String kind(Column column) {
        if (column instanceof CodedColumn) return "words";
        return column.type().isNumber() ? "numbers" : "dates";
    }

    private static Optional<String> match(String name, List<String> fitting) {
        if (fitting.contains(name)) return Optional.of(name);
        return fitting.stream()
                .filter(other -> plain(other).equals(plain(name)))
                .findFirst();
    }

    private static String plain(String name) {
        return Normalizer.normalize(name, Normalizer.Form.NFKD)
                .replaceAll("[^\\p{L}\\p{N}]", "")
                .toLowerCase(Locale.ROOT);
    }

    /**
     * The document onto another dataset.
     *
     * @param from id of the dataset that it was on
     * @param to id of the other
     * @param columns names of the one's columns and formulas, and what stands for each; what is not among them stays as
     *     it is, and its visuals say what is missing
     * @param title the title of the one that is made
     * @throws DashboardException when the document would not hold
     */
    public static DashboardDocument onto(
            DashboardDocument document, long from, long to, Map<String, String> columns, String title) {
        return titled(moved(read(document.json()), from, to, columns), title);
    }

    /** The same of a document as JSON, without looking whether it holds. */
    static JsonObject moved(JsonObject document, long from, long to, Map<String, String> columns) {
        return new Walk(from, to, columns.keySet(), name -> columns.getOrDefault(name, name)).object(document, false);
    }

    /** The same document under another title. */
    public static DashboardDocument again(DashboardDocument document, String title) {
        return titled(read(document.json()), title);
    }

    static DashboardDocument titled(JsonObject document, String title) {
        return DashboardDocument.parse(
                Json.createObjectBuilder(document).add("title", title).build().toString());
    }

    static JsonObject read(String json) {
        try (var reader = Json.createReader(new StringReader(json))) {
            return reader.readObject();
        }
    }

    /** Goes through a document and puts other names in place of those that stand for columns of a dataset. */
    private record Walk(long from, long to, Set<String> names, UnaryOperator<String> other) {

        /**
         * @param of whether what is around is of the dataset
         */
        JsonObject object(JsonObject object, boolean of) {
            boolean own = object.get("dataset") instanceof JsonNumber id ? id.longValue() == from : of;
            JsonObjectBuilder made = Json.createObjectBuilder();
            object.forEach((key, value) -> {
                if (key.equals("dataset") && value instanceof JsonNumber id)
                    made.add(key, id.longValue() == from ? Json.createValue(to) : id);
                else made.add(key, value(key, value, own));
            });
            return made.build();
        }

        private JsonValue value(String key, JsonValue value, boolean own) {
            if (value instanceof JsonObject object) return object(object, own);
            if (value instanceof JsonArray array) {
                JsonArrayBuilder made = Json.createArrayBuilder();
                for (JsonValue one : array) made.add(value(key, one, own));
                return made.build();
            }
            if (!own || !(value instanceof JsonString text)) return value;
            if (TEMPLATES.contains(key)) return Json.createValue(filled(text.getString()));
            boolean named = !NO_COLUMNS.contains(key) && names.contains(text.getString());
            return named ? Json.createValue(other.apply(text.getString())) : value;
        }

        /** The fields of a template under their other names. */
        private String filled(String text) {
            StringBuilder made = new StringBuilder();
            for (Template.Part part : Template.of(text).parts()) {
                if (part instanceof Template.Literal literal) made.append(literal.text());
                else if (part instanceof Template.Field field)
                    made.append(
                            names.contains(field.name())
                                    ? field.written().replace(field.name(), other.apply(field.name()))
                                    : field.written());
            }
            return made.toString();
        }
    }

    /**
     * The edit that puts a visual of one dashboard on another: with links of its own there, and the numbers that it
     * follows.
     *
     * @param id the visual on its own dashboard
     * @param fresh the id it will have on the other
     * @throws sarnik.data.MisfitException when it is about another part of its own dashboard
     */
    public static List<Map<String, Object>> copied(Dashboard dashboard, String id, Dashboard other, String fresh) {
        Remaking.Copy copy = Remaking.copy(dashboard, id, fresh, other);
        List<Map<String, Object>> ops = new ArrayList<>();
        Map<String, Object> missing = new LinkedHashMap<>();
        dashboard.parameters().forEach((number, parameter) -> {
            if (Remaking.follows(dashboard, id, number) && !other.parameters().containsKey(number))
                missing.put(number, DocumentJson.plain(parameter));
        });
        if (!missing.isEmpty() && other.parameters().isEmpty())
            ops.add(Choices.map("op", "add", "path", "/parameters", "value", Map.of()));
        missing.forEach((number, parameter) ->
                ops.add(Choices.map("op", "add", "path", "/parameters/" + number, "value", parameter)));
        ops.addAll(copy.ops());
        return ops;
    }
}
