package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Stream;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/** What may be added to a dashboard in answer to a question, made with the data at hand. */
public final class Proposals {

    /** What the author wants to know. */
    public enum Question {
        WHERE("Where?"),
        HOW_MUCH("How much?"),
        WHICH_MOST("Which are the most?"),
        LET_CHOOSE("Let the reader choose.");

        private final String words;

        Question(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Something to add.
     *
     * @param id the id it will have
     * @param words what it answers
     * @param ops JSON Patch operations that add it
     */
    public record Proposal(String id, String words, List<Map<String, Object>> ops) {}

    private static final int MOST_EACH = 3;
    private static final int LEAST_FOR_DENSITY = 100;
    private static final int MOST_TRAVELLERS = 60;
    private static final int MOST_CATEGORY_VALUES = 20_000;

    private final Dashboard dashboard;
    private final Supplier<String> ids;

    /**
     * @param ids gives a fresh suffix for an id: lower-case letters and digits
     */
    public Proposals(Dashboard dashboard, Supplier<String> ids) {
        this.dashboard = dashboard;
        this.ids = ids;
    }

    /** Proposals for one dataset, best first. */
    public List<Proposal> answer(Question question, LoadedDataset dataset) {
        return switch (question) {
            case WHERE -> where(dataset);
            case HOW_MUCH -> howMuch(dataset);
            case WHICH_MOST -> whichMost(dataset);
            case LET_CHOOSE -> letChoose(dataset);
        };
    }

    private List<Proposal> where(LoadedDataset dataset) {
        if (!dataset.isPlaced()) return List.of();
        List<Proposal> proposals = new ArrayList<>();
        List<Measure> sums = sums(dataset);
        Measure first = sums.stream().findFirst().orElse(Measure.ROWS);
        if (dataset.table().find(PlacedTable.ORIGIN).isPresent()) {
            proposals.add(map(
                    "From where to where? " + ColumnWords.of(first) + " in " + dataset.name(),
                    layer(dataset, "FLOWS", "size", size(first, 24))));
        }
        if (dataset.placing() instanceof Placing.ByArea area) {
            proposals.add(map(
                    "Which areas? " + ColumnWords.of(first) + " by area of " + area.set(),
                    layer(dataset, "AREAS", "colour", colour(first))));
        }
        if (dataset.ownShapes().isPresent()) {
            proposals.add(map(
                    "Which lines and areas? " + ColumnWords.of(first) + " on the shapes of " + dataset.name(),
                    layer(dataset, "SHAPES", "colour", colour(first))));
        }
        Stream.concat(sums.stream().limit(MOST_EACH - 1), Stream.of(Measure.ROWS))
                .forEach(measure -> proposals.add(map(
                        "Where? " + ColumnWords.of(measure) + " in " + dataset.name(),
                        layer(dataset, "SYMBOLS", "size", size(measure, 28)))));
        if (dataset.places().size() >= LEAST_FOR_DENSITY) {
            proposals.add(map(
                    "Where is it thick? The density of " + ColumnWords.of(first),
                    layer(dataset, "DENSITY", "size", size(first, 28))));
        }
        paths(dataset)
                .ifPresent(path -> proposals.add(map(
                        "Which ways? One path for each " + ColumnWords.of((String) path.get("who")),
                        layer(dataset, "PATHS", "path", path))));
        return proposals;
    }

    private Proposal map(String words, Map<String, Object> layer) {
        return visual(
                words,
                14,
                12,
                BriefWriter.map("type", "map", "title", "", "layers", BriefWriter.map("l1", layer)),
                true);
    }

    private static Map<String, Object> layer(LoadedDataset dataset, String kind, String part, Object value) {
        return BriefWriter.map("kind", kind, "order", 1, "dataset", dataset.id(), part, value, "opacity", 0.75);
    }

    private static Map<String, Object> size(Measure measure, int radius) {
        return BriefWriter.map("measure", BriefWriter.value(measure), "rule", "AREA", "radius", radius);
    }

    private static Map<String, Object> colour(Measure measure) {
        return BriefWriter.map(
                "measure", BriefWriter.value(measure), "method", "NATURAL", "classes", 5, "palette", "loch");
    }

    /**
     * Who travels and in which order, where the dataset has a column of times and one that tells few travellers apart.
     */
    private static Optional<Map<String, Object>> paths(LoadedDataset dataset) {
        if (!(dataset.placing() instanceof Placing.ByCoordinates)) return Optional.empty();
        Optional<String> by = dataset.columnNames().stream()
                .filter(n -> dataset.table().column(n).type() == ColumnType.TIME)
                .findFirst();
        Optional<String> who = dataset.columnNames().stream()
                .filter(n -> !n.startsWith("@")
                        && dataset.table().column(n) instanceof CodedColumn c
                        && c.dictionary().size() > 1
                        && c.dictionary().size() <= MOST_TRAVELLERS)
                .findFirst();
        return by.flatMap(b -> who.map(w -> BriefWriter.map("who", w, "by", b)));
    }

    private List<Proposal> howMuch(LoadedDataset dataset) {
        List<Measure> measures = new ArrayList<>();
        sums(dataset).stream().limit(MOST_EACH).forEach(measures::add);
        measures.add(Measure.ROWS);
        if (dataset.isPlaced()) measures.add(new Measure(Summary.DISTINCT, PlacedTable.PLACE));
        return measures.stream()
                .map(measure -> visual(
                        "How much? " + ColumnWords.of(measure) + " in " + dataset.name(),
                        5,
                        4,
                        BriefWriter.map(
                                "type",
                                "figure",
                                "title",
                                "",
                                "dataset",
                                dataset.id(),
                                "measure",
                                BriefWriter.value(measure)),
                        false))
                .toList();
    }

    private List<Proposal> whichMost(LoadedDataset dataset) {
        Measure measure = sums(dataset).stream().findFirst().orElse(Measure.ROWS);
        return categories(dataset).stream()
                .limit(MOST_EACH + 1)
                .map(category -> {
                    Map<String, Object> rank = BriefWriter.map("end", "TOP", "count", 10, "held", false);
                    return visual(
                            "The top ten of %s, by %s".formatted(ColumnWords.of(category), ColumnWords.of(measure)),
                            10,
                            8,
                            BriefWriter.map(
                                    "type",
                                    "bars",
                                    "title",
                                    "",
                                    "dataset",
                                    dataset.id(),
                                    "category",
                                    category,
                                    "measure",
                                    BriefWriter.value(measure),
                                    "rank",
                                    rank),
                            true);
                })
                .toList();
    }

    private List<Proposal> letChoose(LoadedDataset dataset) {
        List<Proposal> proposals = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            Column column = dataset.table().column(name);
            boolean choice = column instanceof CodedColumn coded
                    && coded.dictionary().size() <= 300
                    && coded.dictionary().size() > 1;
            boolean dates = column.type() == ColumnType.DATE || column.type() == ColumnType.TIME;
            if ((!choice && !dates) || name.equals(PlacedTable.PLACE)) continue;
            String id = "f" + ids.get();
            int order = dashboard.filters().values().stream()
                            .mapToInt(Filter::order)
                            .max()
                            .orElse(0)
                    + 1;
            Map<String, Object> filter = BriefWriter.map(
                    "type",
                    choice ? "choice" : "dates",
                    "page",
                    dashboard.firstPage(),
                    "order",
                    order,
                    "dataset",
                    dataset.id(),
                    "column",
                    name,
                    "title",
                    "");
            proposals.add(new Proposal(
                    id,
                    choice ? "Values of " + ColumnWords.of(name) : "A range of " + ColumnWords.of(name),
                    List.of(add("/filters/" + id, filter))));
        }
        proposals.add(number());
        return proposals;
    }

    /** A number that scales can turn about. */
    private Proposal number() {
        String id = "n" + ids.get();
        List<Map<String, Object>> ops = new ArrayList<>();
        if (dashboard.parameters().isEmpty()) ops.add(add("/parameters", Map.of()));
        int order = dashboard.parameters().values().stream()
                        .mapToInt(Parameter::order)
                        .max()
                        .orElse(0)
                + 1;
        ops.add(add("/parameters/" + id, BriefWriter.map("name", "Number " + order, "order", order, "value", 0)));
        return new Proposal(id, "A number, about which scales can turn", ops);
    }

    private Proposal visual(String words, int w, int h, Map<String, Object> visual, boolean linked) {
        String id = "v" + ids.get();
        visual.put("page", dashboard.firstPage());
        visual.put("at", free(w, h));
        List<Map<String, Object>> ops = new ArrayList<>();
        ops.add(add("/visuals/" + id, visual));
        if (linked) ops.add(add("/links/k" + id, BriefWriter.map("from", id)));
        return new Proposal(id, words, ops);
    }

    private static Map<String, Object> add(String path, Object value) {
        return BriefWriter.map("op", "add", "path", path, "value", value);
    }

    /** The first free cells, from the top left, that are large enough. */
    private Map<String, Object> free(int w, int h) {
        List<Dashboard.Box> boxes =
                dashboard.visuals().values().stream().map(Visual::at).toList();
        int bottom = boxes.stream().mapToInt(b -> b.y() + b.h()).max().orElse(0);
        for (int y = 0; y <= bottom; y++) {
            for (int x = 0; x + w <= Dashboard.COLUMNS; x++) {
                Dashboard.Box box = new Dashboard.Box(x, y, w, h);
                if (boxes.stream().noneMatch(b -> overlap(b, box)))
                    return BriefWriter.map("x", x, "y", y, "w", w, "h", h);
            }
        }
        return BriefWriter.map("x", 0, "y", bottom, "w", w, "h", h);
    }

    private static boolean overlap(Dashboard.Box a, Dashboard.Box b) {
        return a.x() < b.x() + b.w() && b.x() < a.x() + a.w() && a.y() < b.y() + b.h() && b.y() < a.y() + a.h();
    }

    /** Measure formulas, then sums of the number columns that look like amounts, decimals first. */
    private static List<Measure> sums(LoadedDataset dataset) {
        Stream<Measure> formulas = dataset.measures().keySet().stream().map(name -> new Measure(Summary.FORMULA, name));
        Stream<Measure> sums = dataset.columnNames().stream()
                .filter(name -> dataset.table().column(name).type().isNumber())
                .filter(name -> !name.toLowerCase(Locale.ROOT)
                        .matches("(?:.*[ _])?(?:id|code|number|no|year|month|lat|lon|latitude|longitude)"))
                .sorted(Comparator.comparingInt(
                        name -> dataset.table().column(name).type() == ColumnType.DECIMAL ? 0 : 1))
                .map(name -> new Measure(Summary.SUM, name));
        return Stream.concat(formulas, sums).toList();
    }

    /** Columns whose values make good bars: few distinct values first, places ahead. */
    private static List<String> categories(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> dataset.table().column(name) instanceof CodedColumn c
                        && c.dictionary().size() > 1
                        && c.dictionary().size() <= MOST_CATEGORY_VALUES
                        && !name.equals(PlacedTable.COUNTRY))
                .sorted(Comparator.comparingInt((String name) -> name.startsWith("@") ? 0 : 1)
                        .thenComparingInt(name -> ((CodedColumn) dataset.table().column(name))
                                .dictionary()
                                .size()))
                .toList();
    }
}
