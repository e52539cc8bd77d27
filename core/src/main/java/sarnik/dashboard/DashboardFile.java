package sarnik.dashboard;

import com.networknt.schema.Error;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import jakarta.json.Json;
import jakarta.json.JsonException;
import jakarta.json.JsonNumber;
import jakarta.json.JsonObject;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.LoadedDataset;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.FormulaMeasure;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;
import sarnik.visual.SharedKey;
import tools.jackson.core.JacksonException;

/**
 * A dashboard as a file: its document, what it rests on in words, and the keys it wears; no rows. Its form is described
 * by {@code dashboard-file.schema.json}, which ships beside this class.
 *
 * @param document the dashboard's document
 * @param datasets what the document rests on
 * @param keys the shared keys that it wears
 */
public record DashboardFile(DashboardDocument document, List<OfDataset> datasets, List<SharedKey> keys) {

    /** The form that files have now. */
    public static final int FORM = 1;

    /** More than the largest document that an editor makes; what is larger is no dashboard. */
    public static final int LARGEST = 3 << 20;

    private static final Schema SCHEMA = schema();

    private static Schema schema() {
        try (var in = DashboardFile.class.getResourceAsStream("dashboard-file.schema.json")) {
            return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                    .getSchema(new String(in.readAllBytes(), StandardCharsets.UTF_8), InputFormat.JSON);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    /** A column of a dataset, as far as others can be found for it. */
    public record OfColumn(String name, ColumnType type, String unit, String description) {}

    /**
     * A dataset without its rows.
     *
     * @param id what the document calls it
     */
    public record OfDataset(
            long id,
            String name,
            Boolean placed,
            List<OfColumn> columns,
            List<Calculations.Item> formulas,
            List<String> rules) {

        public OfDataset {
            columns = columns == null ? List.of() : List.copyOf(columns);
            formulas = formulas == null ? List.of() : List.copyOf(formulas);
            rules = rules == null ? List.of() : List.copyOf(rules);
        }

        /** A dataset as a file tells of it. */
        public static OfDataset of(LoadedDataset dataset, Calculations calculations, List<String> columns) {
            return new OfDataset(
                    dataset.id(),
                    dataset.name(),
                    dataset.isPlaced(),
                    columns.stream()
                            .map(name -> new OfColumn(
                                    name,
                                    dataset.table().column(name).type(),
                                    dataset.about().unit(name),
                                    description(dataset.about(), name)))
                            .toList(),
                    calculations.formulas(),
                    calculations.rules());
        }

        private static String description(About about, String column) {
            return about.columns().containsKey(column)
                    ? about.columns().get(column).description()
                    : "";
        }

        /** A dataset of these columns that has no rows, so that others can be matched with it. */
        LoadedDataset withoutRows() {
            Map<String, Column> all = new LinkedHashMap<>();
            columns.forEach(column -> all.put(column.name(), empty(column.type())));
            if (Boolean.TRUE.equals(placed))
                for (String name : List.of(PlacedTable.PLACE, PlacedTable.PROVINCE, PlacedTable.COUNTRY))
                    all.put(name, empty(ColumnType.TEXT));
            Map<String, FormulaMeasure> measures = new LinkedHashMap<>();
            formulas.stream()
                    .filter(Calculations.Item::measure)
                    .forEach(f -> measures.put(f.name(), FormulaMeasure.unfit("It has no rows.")));
            return new LoadedDataset(
                    id,
                    name,
                    new Table(all),
                    Boolean.TRUE.equals(placed) ? new Placing.ByWords("") : null,
                    Map.of(),
                    About.NONE,
                    measures,
                    List.of(),
                    List.of(),
                    Boundaries.NONE);
        }

        private static Column empty(ColumnType type) {
            return switch (type) {
                case TEXT -> new CodedColumn(ColumnType.TEXT, Codes.of(new int[0], 0, 0), List.of());
                case YES_NO -> CodedColumn.yesNo(new byte[0]);
                case WHOLE -> new WholeColumn(new long[0]);
                case DECIMAL -> new DecimalColumn(new double[0]);
                case DATE -> new DateColumn(new int[0]);
                case TIME -> new TimeColumn(new long[0]);
            };
        }
    }

    /** What of a file is written beside its document. */
    private record Beside(List<OfDataset> datasets, List<SharedKey> keys) {}

    /** This dashboard as the text of a file. */
    public String text() {
        JsonObject beside = Moving.read(DocumentJson.write(new Beside(datasets, keys)));
        return Json.createObjectBuilder()
                .add("sarnikDashboard", FORM)
                .add("document", Moving.read(document.json()))
                .add("datasets", beside.get("datasets"))
                .add("keys", beside.get("keys"))
                .build()
                .toString();
    }

    /**
     * Reads a file.
     *
     * @throws DashboardException when it is none, or of a form that is newer than this program; the message says which
     */
    public static DashboardFile read(String text) {
        if (text == null || text.length() > LARGEST)
            throw refused("A dashboard's file has up to %,d kB; this one is none.".formatted(LARGEST >> 10));
        JsonObject file;
        try {
            file = Moving.read(text);
        } catch (JsonException | IllegalStateException | ClassCastException broken) {
            throw refused("This is no dashboard's file: it cannot be read as JSON.");
        }
        if (file.get("sarnikDashboard") instanceof JsonNumber form && form.doubleValue() > FORM)
            throw refused(
                    "This file was made by a newer Sarnik (its form is %s, this one reads up to %d). Bring this Sarnik up to date."
                            .formatted(form, FORM));
        List<Error> errors = SCHEMA.validate(text, InputFormat.JSON);
        if (!errors.isEmpty())
            throw refused("This is no dashboard's file: at %s it %s."
                    .formatted(
                            errors.get(0).getInstanceLocation(), errors.get(0).getMessage()));
        try {
            Beside beside = DocumentJson.read(
                    Json.createObjectBuilder()
                            .add("datasets", file.get("datasets"))
                            .add("keys", file.getOrDefault("keys", JsonObject.NULL))
                            .build()
                            .toString(),
                    Beside.class);
            return new DashboardFile(
                    DashboardDocument.parse(file.getJsonObject("document").toString()),
                    beside.datasets(),
                    beside.keys() == null ? List.of() : beside.keys());
        } catch (JacksonException broken) {
            throw refused("This is no dashboard's file: a part of it is not of the kind that is expected there.");
        }
    }

    private static DashboardException refused(String why) {
        return new DashboardException(DashboardException.Kind.MALFORMED, why);
    }

    /** A dataset of the file by what the document calls it. */
    public OfDataset dataset(long id) {
        return datasets.stream()
                .filter(d -> d.id() == id)
                .findFirst()
                .orElseThrow(() -> refused("The file tells nothing of the dataset %d.".formatted(id)));
    }

    /** The columns that the document uses of one of its datasets, each with what it is matched with in another. */
    public List<Moving.Used> used(long id, LoadedDataset to) {
        return Moving.used(document, dataset(id).withoutRows(), to);
    }

    /**
     * What takes the place of a dataset.
     *
     * @param dataset id of the one that is there
     * @param columns names of the file's columns and formulas, and what stands for each
     */
    public record Onto(long dataset, Map<String, String> columns) {}

    /**
     * The document onto the datasets that are there.
     *
     * @param onto by what the document calls its datasets
     * @throws DashboardException when one of them is left out, or the document would not hold
     */
    public DashboardDocument onto(Map<Long, Onto> onto, String title) {
        JsonObject moved = Moving.read(document.json());
        // By ids that nothing has at first, so that two datasets can take each other's place.
        long fresh = -1;
        Map<Long, Onto> between = new LinkedHashMap<>();
        for (long id : document.dashboard().datasets()) {
            if (!onto.containsKey(id))
                throw refused("Say which dataset takes the place of “%s”."
                        .formatted(dataset(id).name()));
            moved = Moving.moved(moved, id, fresh, Map.of());
            between.put(fresh--, onto.get(id));
        }
        for (var one : between.entrySet())
            moved = Moving.moved(
                    moved,
                    one.getKey(),
                    one.getValue().dataset(),
                    one.getValue().columns());
        return Moving.titled(moved, title);
    }
}
