package sarnik.dashboard;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.UnaryOperator;
import sarnik.dashboard.Brief.Kind;
import sarnik.dashboard.Brief.Option;
import sarnik.dashboard.Brief.Part;
import sarnik.dashboard.Brief.Slot;
import sarnik.dashboard.Brief.Words;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.query.QueryEngine;
import sarnik.query.Rank;
import sarnik.scale.Classes;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/** Writes the briefs of visuals and filters, with the options that fit each slot. */
public final class BriefWriter {

    static final List<String> COUNT_WORDS =
            List.of("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven");
    private static final int MOST_RULE_VALUES = 12;

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final QueryEngine engine;
    private final Offers offers;

    /**
     * What there is to choose from besides columns.
     *
     * @param sets names of boundary sets
     * @param keys shared keys
     * @param grounds names of the sources of pictures
     * @param datasets names of all placed datasets by id
     */
    public record Offers(List<String> sets, List<SharedKey> keys, List<String> grounds, Map<Long, String> datasets) {

        static final Offers NONE = new Offers(List.of(), List.of(), List.of(), Map.of());
    }

    public BriefWriter(Dashboard dashboard, Datasets datasets, QueryEngine engine, Offers offers) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.engine = engine;
        this.offers = offers;
    }

    public BriefWriter(Dashboard dashboard, Datasets datasets, QueryEngine engine) {
        this(dashboard, datasets, engine, Offers.NONE);
    }

    /**
     * The brief of a visual, filter or parameter.
     *
     * @throws MisfitException when there is none of this id, or its dataset has gone
     */
    public Brief write(String id) {
        Filter filter = dashboard.filters().get(id);
        if (filter != null) return filter(id, filter);
        Parameter parameter = dashboard.parameters().get(id);
        if (parameter != null) return parameter(id, parameter);
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) throw new MisfitException("This part has been taken away from the dashboard.");
        String path = "/visuals/" + id;
        List<Part> parts = new ArrayList<>();
        List<Part> finish = new ArrayList<>();
        if (visual instanceof Visual.OfMap map) {
            Brief ofMap = new MapBrief(this, offers).write(path, map, datasets);
            parts.addAll(ofMap.parts());
            finish.addAll(ofMap.finish());
        } else if (visual instanceof Visual.OfBars bars) bars(path, bars, parts);
        else figure(path, (Visual.OfFigure) visual, parts);
        if (!(visual instanceof Visual.OfFigure)) link(id, parts);
        finish.add(0, title(path, visual.title()));
        return new Brief(parts, finish);
    }

    static String hint(Classes.Method method) {
        return switch (method) {
            case NATURAL -> "cuts where the values leave gaps";
            case EQUAL_STEPS -> "each class equally wide";
            case EQUAL_COUNTS -> "each class equally full";
            case ABOUT_THE_MEAN -> "a standard deviation wide, about the mean";
            case ROUND_NUMBERS -> "bounds that are easily read";
            case GEOMETRIC -> "each class a factor wide";
        };
    }

    private void bars(String path, Visual.OfBars bars, List<Part> parts) {
        LoadedDataset dataset = datasets.get(bars.dataset());
        Dashboard.Ranking rank = bars.rank();
        parts.add(new Words("Bars: "));
        boolean held = rank != null && rank.held();
        List<Option> ranks = new ArrayList<>();
        for (Rank.End end : Rank.End.values()) {
            for (int count : new int[] {3, 5, 10, 20}) {
                ranks.add(new Option(rankWords(end, count), "", map("end", end.name(), "count", count, "held", held)));
            }
        }
        parts.add(new Slot(
                "which bars",
                rank == null ? "all values" : rankWords(rank.end(), rank.count()),
                path + "/rank",
                Kind.CHOSEN,
                false,
                rank != null,
                ranks));
        parts.add(new Words(" of "));
        parts.add(new Slot(
                "category",
                ColumnWords.of(bars.category()),
                path + "/category",
                Kind.CHOSEN,
                false,
                false,
                categories(dataset)));
        parts.add(new Words(" in " + dataset.name() + " by "));
        parts.add(new Slot(
                "measure",
                ColumnWords.of(bars.measure()),
                path + "/measure",
                Kind.CHOSEN,
                false,
                false,
                measures(dataset)));
        if (rank != null) {
            parts.add(new Words(", ranked "));
            parts.add(new Slot(
                    "what is ranked",
                    held ? "of all" : "of what is picked",
                    path + "/rank/held",
                    Kind.CHOSEN,
                    false,
                    false,
                    List.of(
                            new Option("of what is picked", "picks narrow first, then the rank is taken", false),
                            new Option("of all", "the rank is taken first, then picks narrow", true))));
        }
        rule(path, bars.rule(), dataset, parts);
        parts.add(new Words("."));
    }

    private static String rankWords(Rank.End end, int count) {
        return "the " + Drawer.end(end) + " "
                + (count < COUNT_WORDS.size() ? COUNT_WORDS.get(count) : String.valueOf(count));
    }

    private void figure(String path, Visual.OfFigure figure, List<Part> parts) {
        LoadedDataset dataset = datasets.get(figure.dataset());
        parts.add(new Words("One figure: the "));
        parts.add(new Slot(
                "measure",
                ColumnWords.of(figure.measure()),
                path + "/measure",
                Kind.CHOSEN,
                false,
                false,
                measures(dataset)));
        parts.add(new Words(" in " + dataset.name()));
        rule(path, figure.rule(), dataset, parts);
        parts.add(new Words("."));
    }

    private Brief filter(String id, Filter filter) {
        LoadedDataset dataset = datasets.get(filter.dataset());
        boolean choice = filter instanceof Filter.Choice;
        List<Option> columns = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            Column column = dataset.table().column(name);
            boolean fits = choice
                    ? column instanceof CodedColumn
                    : column.type() == ColumnType.DATE || column.type() == ColumnType.TIME;
            if (fits && !name.equals(PlacedTable.PLACE))
                columns.add(new Option(ColumnWords.of(name), preview(column), name));
        }
        String path = "/filters/" + id;
        return new Brief(
                List.of(
                        new Words("The reader may choose " + (choice ? "values of " : "a range of ")),
                        new Slot(
                                "column",
                                ColumnWords.of(filter.column()),
                                path + "/column",
                                Kind.CHOSEN,
                                false,
                                false,
                                columns),
                        new Words(" in " + dataset.name() + ".")),
                List.of(title(path, filter.title())));
    }

    /** All parameters by id. */
    Map<String, Parameter> parameters() {
        return dashboard.parameters();
    }

    private Brief parameter(String id, Parameter parameter) {
        String path = "/parameters/" + id;
        BriefLine line = new BriefLine();
        line.say("The reader sets the number ");
        line.slot(
                "name",
                "“" + parameter.name() + "”",
                path + "/name",
                Kind.TYPED,
                false,
                false,
                List.of(new Option(parameter.name(), "", parameter.name())));
        line.say(", at first ");
        line.slot(
                "first value",
                NumberWords.full(parameter.value()),
                path + "/value",
                Kind.NUMBER,
                false,
                false,
                List.of());
        line.say(parameter.low() == null ? " " : ", no less than ");
        line.slot(
                "least value",
                parameter.low() == null ? "+ least value" : NumberWords.full(parameter.low()),
                path + "/low",
                Kind.NUMBER,
                parameter.low() == null,
                parameter.low() != null,
                List.of());
        line.say(parameter.high() == null ? " " : " and no more than ");
        line.slot(
                "greatest value",
                parameter.high() == null ? "+ greatest value" : NumberWords.full(parameter.high()),
                path + "/high",
                Kind.NUMBER,
                parameter.high() == null,
                parameter.high() != null,
                List.of());
        line.say(". Scales can turn about it: choose it as the centre in a layer's brief.");
        return new Brief(line.parts(), List.of());
    }

    private static Slot title(String path, String title) {
        boolean empty = title == null || title.isBlank();
        return new Slot(
                "title",
                empty ? "+ title" : "titled “" + title + "”",
                path + "/title",
                Kind.TYPED,
                empty,
                false,
                List.of(new Option(empty ? "" : title, "", empty ? "" : title)));
    }

    private void link(String id, List<Part> parts) {
        Map.Entry<String, Dashboard.Link> link = dashboard.links().entrySet().stream()
                .filter(e -> e.getValue().from().equals(id))
                .findFirst()
                .orElse(null);
        List<Option> options = new ArrayList<>();
        options.add(new Option("every other visual", "", map("from", id)));
        dashboard.visuals().forEach((other, visual) -> {
            if (!other.equals(id))
                options.add(new Option("only " + name(visual), "", map("from", id, "to", List.of(other))));
        });
        String path = "/links/" + (link == null ? "k" + id : link.getKey());
        if (link == null) {
            parts.add(new Words(" "));
            parts.add(new Slot("link", "+ link", path, Kind.CHOSEN, true, false, options));
            return;
        }
        parts.add(new Words(" What is picked here narrows "));
        List<String> to = link.getValue().to();
        String text = to == null
                ? "every other visual"
                : Narrowing.list(
                        to.stream()
                                .map(dashboard.visuals()::get)
                                .filter(Objects::nonNull)
                                .map(BriefWriter::name)
                                .toList(),
                        "and");
        parts.add(new Slot("link", text, path, Kind.CHOSEN, false, true, options));
        parts.add(new Words("."));
    }

    private static String name(Visual visual) {
        if (visual.title() != null && !visual.title().isBlank()) return "“" + visual.title() + "”";
        if (visual instanceof Visual.OfMap) return "the map";
        if (visual instanceof Visual.OfBars bars) return "the bars of " + ColumnWords.of(bars.category());
        return "the figure " + ColumnWords.of(((Visual.OfFigure) visual).measure());
    }

    void rule(String path, Dashboard.Rule rule, LoadedDataset dataset, List<Part> parts) {
        List<Option> options = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            if (dataset.table().column(name) instanceof CodedColumn column
                    && column.dictionary().size() <= MOST_RULE_VALUES) {
                for (String value : column.dictionary()) {
                    options.add(new Option(
                            ColumnWords.of(name) + " is " + value, "", map("column", name, "values", List.of(value))));
                }
            }
        }
        if (rule == null) {
            if (options.isEmpty()) return;
            parts.add(new Words(" "));
            parts.add(new Slot("rule", "+ rule", path + "/rule", Kind.CHOSEN, true, false, options));
            return;
        }
        parts.add(new Words(", only where "));
        parts.add(new Slot(
                "rule",
                ColumnWords.of(rule.column()) + " is " + Narrowing.list(rule.values(), "or"),
                path + "/rule",
                Kind.CHOSEN,
                false,
                true,
                options));
    }

    private static List<Option> categories(LoadedDataset dataset) {
        List<Option> options = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            Column column = dataset.table().column(name);
            if (column instanceof CodedColumn) options.add(new Option(ColumnWords.of(name), preview(column), name));
        }
        return options;
    }

    private static String preview(Column column) {
        if (column instanceof CodedColumn coded) {
            int count = coded.dictionary().size();
            if (count > 4) return "%,d values".formatted(count);
            return String.join(", ", coded.dictionary());
        }
        return column.type().words();
    }

    /** All measures of a dataset, each with its value over all rows. */
    List<Option> measures(LoadedDataset dataset) {
        return dataset.previews().of(dataset, engine).stream()
                .map(p -> new Option(ColumnWords.of(p.measure()), p.words(), value(p.measure())))
                .toList();
    }

    static Map<String, Object> value(Measure measure) {
        Map<String, Object> value = new HashMap<>();
        value.put("summary", measure.summary().name());
        if (measure.column() != null) value.put("column", measure.column());
        return value;
    }

    static List<Option> wrapped(List<Option> options, UnaryOperator<Object> wrap) {
        return options.stream()
                .map(o -> new Option(o.text(), o.hint(), wrap.apply(o.value())))
                .toList();
    }

    static Map<String, Object> map(Object... entries) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < entries.length; i += 2) map.put((String) entries[i], entries[i + 1]);
        return map;
    }
}
