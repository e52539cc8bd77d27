package sarnik.dashboard;

import com.networknt.schema.Error;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import jakarta.json.Json;
import jakarta.json.JsonArray;
import jakarta.json.JsonArrayBuilder;
import jakarta.json.JsonException;
import jakarta.json.JsonObject;
import jakarta.json.JsonReader;
import jakarta.json.JsonStructure;
import jakarta.json.JsonValue;
import java.io.StringReader;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import sarnik.narrow.Parameter;
import sarnik.scale.NumberWords;
import sarnik.state.ReaderState;
import tools.jackson.core.JacksonException;

/**
 * A dashboard document in its JSON form, and the edits made to it. Immutable.
 *
 * <p>Every document is checked against {@code dashboard.schema.json}, which ships beside this class; edits are JSON
 * Patch
 * (RFC 6902).
 *
 * @param json the document's text
 * @param dashboard what it says
 */
public record DashboardDocument(String json, Dashboard dashboard) {

    /** The form that documents have now. */
    public static final int FORM = 2;

    /** Read when the first document is, and not with each class that names one. */
    private static final class Form {
        static final Schema SCHEMA = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(DocumentSchema.text(), InputFormat.JSON);
    }

    /** An empty dashboard with one page. */
    public static DashboardDocument empty(String title) {
        JsonObject page =
                Json.createObjectBuilder().add("title", "").add("order", 1).build();
        return parse(Json.createObjectBuilder()
                .add("schema", FORM)
                .add("title", title)
                .add("pages", Json.createObjectBuilder().add("p1", page))
                .add("visuals", JsonObject.EMPTY_JSON_OBJECT)
                .add("filters", JsonObject.EMPTY_JSON_OBJECT)
                .add("links", JsonObject.EMPTY_JSON_OBJECT)
                .build()
                .toString());
    }

    /**
     * Reads a document; one of an older form is brought to the form of now.
     *
     * @throws DashboardException when the text is not a dashboard document; the message names the first place that is
     *     not
     */
    public static DashboardDocument parse(String text) {
        String json = Upgrades.upgraded(text);
        try {
            List<Error> errors = Form.SCHEMA.validate(json, InputFormat.JSON);
            if (!errors.isEmpty()) {
                throw new DashboardException(
                        DashboardException.Kind.MALFORMED,
                        "The dashboard would not fit its form at %s: %s."
                                .formatted(
                                        errors.get(0).getInstanceLocation(),
                                        errors.get(0).getMessage()));
            }
            DashboardDocument document = new DashboardDocument(json, DocumentJson.read(json, Dashboard.class));
            document.checkPages();
            document.checkParameters();
            document.checkColours();
            document.checkNames();
            document.checkFormulas();
            return document;
        } catch (JacksonException | IllegalArgumentException broken) {
            throw new DashboardException(
                    DashboardException.Kind.MALFORMED,
                    broken instanceof IllegalArgumentException
                            ? "The dashboard cannot be read: " + broken.getMessage()
                            : "The dashboard cannot be read: a part of it is not of the kind that is expected there.");
        }
    }

    private void checkPages() {
        dashboard.pages().forEach((id, page) -> {
            if (page.under() != null && dashboard.above(id) == null)
                throw new DashboardException(
                        DashboardException.Kind.MALFORMED,
                        "“%s” cannot stand under that page: it has gone, or stands under another itself."
                                .formatted(dashboard.pageName(id)));
        });
        dashboard.visuals().forEach((id, visual) -> {
            if (!dashboard.pages().containsKey(visual.page())) {
                throw new DashboardException(
                        DashboardException.Kind.MALFORMED,
                        "Visual “%s” stands on a page that does not exist.".formatted(id));
            }
            if (visual.at().x() + visual.at().w() > Dashboard.COLUMNS) {
                throw new DashboardException(
                        DashboardException.Kind.MALFORMED,
                        "Visual “%s” reaches over the edge of the sheet.".formatted(id));
            }
        });
    }

    private void checkColours() {
        String trouble = dashboard.own() == null ? null : dashboard.own().trouble();
        if (trouble != null) throw new DashboardException(DashboardException.Kind.MALFORMED, trouble);
    }

    /** Two parts of one name, or a name that addresses keep for something else, would lead elsewhere than they say. */
    private void checkNames() {
        Set<String> pages = new HashSet<>();
        Set<String> others = new HashSet<>();
        dashboard.names().forEach((id, name) -> {
            if (!name.matches("[a-z][a-z0-9-]{0,39}"))
                throw new DashboardException(
                        DashboardException.Kind.MALFORMED,
                        "“%s” cannot be a name in addresses: it takes small letters a to z, digits and -, up to 40, and begins with a letter."
                                .formatted(name));
            boolean page = dashboard.pages().containsKey(id);
            if (!page && name.equals(ReaderState.PAGE) || !(page ? pages : others).add(name))
                throw new DashboardException(
                        DashboardException.Kind.MALFORMED,
                        "Addresses call something else “%s” already. Choose another name.".formatted(name));
        });
    }

    private void checkFormulas() {
        Set<String> names = new HashSet<>();
        dashboard.formulas().values().forEach(formula -> {
            if (!names.add(formula.dataset() + " " + formula.name()))
                throw new DashboardException(
                        DashboardException.Kind.MALFORMED,
                        "Another formula of this dashboard is called “%s”. Choose another name."
                                .formatted(formula.name()));
        });
    }

    private void checkParameters() {
        for (Parameter parameter : dashboard.parameters().values()) {
            if (!parameter.allows(parameter.value())) {
                throw new DashboardException(
                        DashboardException.Kind.MALFORMED,
                        "“%s” is %s at first, which lies beyond its least and greatest value."
                                .formatted(parameter.name(), NumberWords.full(parameter.value())));
            }
        }
    }

    /**
     * An edit that was made.
     *
     * @param after the document after it
     * @param inverse JSON Patch that takes it back
     * @param words what was done, as people read it
     */
    public record Edit(DashboardDocument after, String inverse, String words) {}

    /** The edit that makes another document of this one, as JSON Patch. */
    public String patchTo(DashboardDocument other) {
        return Json.createDiff(object(json), object(other.json)).toString();
    }

    /**
     * Applies a JSON Patch.
     *
     * @param patch an array of operations (RFC 6902); {@code test} operations guard against changes by others
     * @throws DashboardException when the patch is malformed, does not fit the document any more, or would break its
     *     form
     */
    public Edit edit(String patch) {
        JsonObject before = object(json);
        JsonArray operations = withHolders(operations(patch), before);
        JsonStructure after;
        try {
            after = Json.createPatch(operations).apply(before);
        } catch (JsonException unfit) {
            throw new DashboardException(
                    DashboardException.Kind.OVERTAKEN,
                    "The change does not fit the dashboard as it is now: somebody has changed or removed the "
                            + "same thing meanwhile.");
        } catch (RuntimeException malformed) {
            throw new DashboardException(
                    DashboardException.Kind.MALFORMED,
                    "The change is not a JSON Patch: each operation needs its op, its path and what belongs to "
                            + "it (RFC 6902).");
        }
        String text = Renamed.follow(before, after).toString();
        if (NUL.matcher(text).find() || hasHalfPair(text))
            throw new DashboardException(
                    DashboardException.Kind.MALFORMED,
                    "A text of the change holds a character that cannot be kept (NUL, or half of a pair of "
                            + "surrogates). Leave it out.");
        DashboardDocument document = parse(text);
        String inverse = Json.createDiff(document.object(document.json), before)
                .toJsonArray()
                .toString();
        return new Edit(document, guarded(inverse, document), EditWords.of(operations, dashboard, document.dashboard));
    }

    /** The character NUL as JSON writes it: the database keeps all but this one. */
    private static final Pattern NUL = Pattern.compile("(?<!\\\\)(?:\\\\\\\\)*\\\\u0000");

    private static boolean hasHalfPair(String text) {
        return text.codePoints().anyMatch(c -> c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE);
    }

    /** What a document need not have: it is added with the first that stands in it. */
    private static final Set<String> HOLDERS = Set.of("finishes", "groups", "parameters", "names", "formulas");

    /** Of which each begins empty. */
    private static final String FINISHES = "finishes";

    /** What a filter need not say. */
    private static final String TERMS = "terms";

    /** The same operations, each behind those that add what it is to stand in where that is not there yet. */
    private static JsonArray withHolders(JsonArray operations, JsonObject document) {
        JsonArrayBuilder all = Json.createArrayBuilder();
        Set<String> there = new HashSet<>();
        for (JsonValue value : operations) {
            if (value instanceof JsonObject operation
                    && operation.getString("op", "").equals("add")
                    && operation.getString("path", "").startsWith("/")) {
                String[] path = operation.getString("path").split("/");
                for (int i = 2; i < path.length; i++) {
                    boolean holds =
                            i == 2 ? HOLDERS.contains(path[1]) : path[1].equals(FINISHES) || path[i - 1].equals(TERMS);
                    if (!holds) continue;
                    String holder = String.join("/", Arrays.copyOf(path, i));
                    if (!isThere(document, holder) && there.add(holder))
                        all.add(Json.createObjectBuilder()
                                .add("op", "add")
                                .add("path", holder)
                                .add("value", JsonValue.EMPTY_JSON_OBJECT));
                }
                there.add(operation.getString("path"));
            }
            all.add(value);
        }
        return all.build();
    }

    private static boolean isThere(JsonObject document, String path) {
        JsonValue at = document;
        for (String name : path.substring(1).split("/")) at = at instanceof JsonObject object ? object.get(name) : null;
        return at instanceof JsonObject;
    }

    /** Puts a test before each operation, so that taking it back never overwrites what others did since. */
    private String guarded(String inverse, DashboardDocument after) {
        var out = Json.createArrayBuilder();
        JsonObject now = object(after.json);
        for (var value : operations(inverse)) {
            JsonObject operation = value.asJsonObject();
            if (!operation.getString("op").equals("add")) {
                String path = operation.getString("path");
                var pointer = Json.createPointer(path);
                if (pointer.containsValue(now)) {
                    out.add(Json.createObjectBuilder()
                            .add("op", "test")
                            .add("path", path)
                            .add("value", pointer.getValue(now)));
                }
            }
            out.add(operation);
        }
        return out.build().toString();
    }

    private static JsonObject object(String text) {
        try (JsonReader reader = Json.createReader(new StringReader(text))) {
            return reader.readObject();
        }
    }

    private static JsonArray operations(String text) {
        try (JsonReader reader = Json.createReader(new StringReader(text))) {
            return reader.readArray();
        } catch (RuntimeException broken) {
            throw new DashboardException(
                    DashboardException.Kind.MALFORMED,
                    "The change is not a JSON Patch: it has to be an array of operations.");
        }
    }
}
