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
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.Rank;
import sarnik.query.Summary;
import sarnik.scale.CircleSizes;
import sarnik.scale.Classes;
import sarnik.scale.NumberWords;
import sarnik.scale.Palette;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/** Writes the briefs of visuals and filters, with the options that fit each slot. */
public final class BriefWriter {

    private static final List<String> COUNT_WORDS =
            List.of("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven");
    private static final int MOST_RULE_VALUES = 12;
    private static final int MOST_PREVIEWED = 40;

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final QueryEngine engine;

    public BriefWriter(Dashboard dashboard, Datasets datasets, QueryEngine engine) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.engine = engine;
    }

    /**
     * The brief of a visual or filter.
     *
     * @throws MisfitException when there is none of this id, or its dataset has gone
     */
    public Brief write(String id) {
        Filter filter = dashboard.filters().get(id);
        if (filter != null) return filter(id, filter);
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) throw new MisfitException("This part has been taken away from the dashboard.");
        String path = "/visuals/" + id;
        List<Part> parts = new ArrayList<>();
        List<Part> finish = new ArrayList<>();
        if (visual instanceof Visual.OfMap map) map(path, map, parts, finish);
        else if (visual instanceof Visual.OfBars bars) bars(path, bars, parts);
        else figure(path, (Visual.OfFigure) visual, parts);
        if (!(visual instanceof Visual.OfFigure)) link(id, parts);
        finish.add(0, title(path, visual.title()));
        return new Brief(parts, finish);
    }

    private void map(String path, Visual.OfMap map, List<Part> parts, List<Part> finish) {
        parts.add(new Words("A map: "));
        boolean first = true;
        for (Map.Entry<String, Visual.Symbols> entry : map.layers().entrySet()) {
            Visual.Symbols layer = entry.getValue();
            LoadedDataset dataset = datasets.get(layer.dataset());
            List<Option> measures = measures(dataset);
            String at = path + "/layers/" + entry.getKey();
            parts.add(new Words((first ? "one circle for each place of " : "; and one for each place of ") + dataset.name()));
            first = false;
            size(at, layer, measures, parts);
            colour(at, layer, measures, parts);
            rule(at, layer.rule(), dataset, parts);
            finish(at, layer, finish);
        }
        parts.add(new Words("."));
    }

    private static void size(String at, Visual.Symbols layer, List<Option> measures, List<Part> parts) {
        if (layer.size() == null) {
            parts.add(new Words(" "));
            parts.add(new Slot("size", "+ size", at + "/size", Kind.CHOSEN, true, false, wrapped(measures, m -> sizeValue(m, 28))));
            return;
        }
        parts.add(new Words(", sized by "));
        parts.add(new Slot("size", ColumnWords.of(layer.size().measure()), at + "/size", Kind.CHOSEN, false, true,
                wrapped(measures, m -> sizeValue(m, layer.size().radius()))));
    }

    private static Map<String, Object> sizeValue(Object measure, double radius) {
        return map("measure", measure, "rule", CircleSizes.Rule.AREA.name(), "radius", radius);
    }

    private static void colour(String at, Visual.Symbols layer, List<Option> measures, List<Part> parts) {
        Visual.Colour colour = layer.colour();
        if (colour == null) {
            parts.add(new Words(" "));
            parts.add(new Slot("colour", "+ colour", at + "/colour", Kind.CHOSEN, true, false,
                    wrapped(measures, m -> map("measure", m, "method", "NATURAL", "classes", 5, "palette", "loch"))));
            return;
        }
        parts.add(new Words(", coloured by "));
        parts.add(new Slot("colour", ColumnWords.of(colour.measure()), at + "/colour", Kind.CHOSEN, false, true,
                wrapped(measures, m -> map("measure", m, "method", colour.method().name(), "classes", colour.classes(), "palette", colour.palette()))));
        parts.add(new Words(" in "));
        List<Option> counts = new ArrayList<>();
        for (int n = 2; n <= 9; n++) counts.add(new Option(COUNT_WORDS.get(n), "", n));
        parts.add(new Slot("number of classes", COUNT_WORDS.get(colour.classes()), at + "/colour/classes", Kind.CHOSEN, false, false, counts));
        parts.add(new Words(" "));
        List<Option> methods = new ArrayList<>();
        for (Classes.Method method : Classes.Method.values()) methods.add(new Option(method.words(), hint(method), method.name()));
        parts.add(new Slot("kind of classes", colour.method().words(), at + "/colour/method", Kind.CHOSEN, false, false, methods));
        parts.add(new Words(" classes"));
    }

    private static String hint(Classes.Method method) {
        return switch (method) {
            case NATURAL -> "cuts where the values leave gaps";
            case EQUAL_STEPS -> "each class equally wide";
            case EQUAL_COUNTS -> "each class equally full";
            case ABOUT_THE_MEAN -> "a standard deviation wide, about the mean";
            case ROUND_NUMBERS -> "bounds that are easily read";
            case GEOMETRIC -> "each class a factor wide";
        };
    }

    private static void finish(String at, Visual.Symbols layer, List<Part> finish) {
        if (layer.colour() != null) {
            finish.add(new Words(" · palette "));
            List<Option> palettes = new ArrayList<>();
            for (String name : Palette.NAMES) palettes.add(new Option(name, String.join(" ", Palette.ALL.get(name).colours(5)), name));
            finish.add(new Slot("palette", layer.colour().palette(), at + "/colour/palette", Kind.CHOSEN, false, false, palettes));
        }
        if (layer.size() != null) {
            finish.add(new Words(" · largest circle "));
            List<Option> radii = new ArrayList<>();
            for (int radius : new int[] {12, 20, 28, 36, 48}) radii.add(new Option(radius + " pixels", "", radius));
            finish.add(new Slot("largest circle", NumberWords.full(layer.size().radius()) + " pixels", at + "/size/radius", Kind.CHOSEN, false, false, radii));
            finish.add(new Words(" · circles grow "));
            List<Option> rules = List.of(
                    new Option("with their area", "area proportional to the amount", "AREA"),
                    new Option("as the eye sees them", "after Flannery 1971", "FLANNERY"));
            finish.add(new Slot("growth", layer.size().rule() == CircleSizes.Rule.AREA ? "with their area" : "as the eye sees them",
                    at + "/size/rule", Kind.CHOSEN, false, false, rules));
        }
        finish.add(new Words(" · opacity "));
        List<Option> opacities = new ArrayList<>();
        for (int percent : new int[] {40, 60, 75, 90, 100}) opacities.add(new Option(percent + " %", "", percent / 100.0));
        finish.add(new Slot("opacity", Math.round(layer.opacity() * 100) + " %", at + "/opacity", Kind.CHOSEN, false, false, opacities));
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
        parts.add(new Slot("which bars", rank == null ? "all values" : rankWords(rank.end(), rank.count()), path + "/rank", Kind.CHOSEN, false, rank != null, ranks));
        parts.add(new Words(" of "));
        parts.add(new Slot("category", ColumnWords.of(bars.category()), path + "/category", Kind.CHOSEN, false, false, categories(dataset)));
        parts.add(new Words(" in " + dataset.name() + " by "));
        parts.add(new Slot("measure", ColumnWords.of(bars.measure()), path + "/measure", Kind.CHOSEN, false, false, measures(dataset)));
        if (rank != null) {
            parts.add(new Words(", ranked "));
            parts.add(new Slot("what is ranked", held ? "of all" : "of what is picked", path + "/rank/held", Kind.CHOSEN, false, false,
                    List.of(new Option("of what is picked", "picks narrow first, then the rank is taken", false),
                            new Option("of all", "the rank is taken first, then picks narrow", true))));
        }
        rule(path, bars.rule(), dataset, parts);
        parts.add(new Words("."));
    }

    private static String rankWords(Rank.End end, int count) {
        return "the " + Drawer.end(end) + " " + (count < COUNT_WORDS.size() ? COUNT_WORDS.get(count) : String.valueOf(count));
    }

    private void figure(String path, Visual.OfFigure figure, List<Part> parts) {
        LoadedDataset dataset = datasets.get(figure.dataset());
        parts.add(new Words("One figure: the "));
        parts.add(new Slot("measure", ColumnWords.of(figure.measure()), path + "/measure", Kind.CHOSEN, false, false, measures(dataset)));
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
            boolean fits = choice ? column instanceof CodedColumn : column.type() == ColumnType.DATE || column.type() == ColumnType.TIME;
            if (fits && !name.equals(PlacedTable.PLACE)) columns.add(new Option(ColumnWords.of(name), preview(column), name));
        }
        String path = "/filters/" + id;
        return new Brief(
                List.of(new Words("The reader may choose " + (choice ? "values of " : "a range of ")),
                        new Slot("column", ColumnWords.of(filter.column()), path + "/column", Kind.CHOSEN, false, false, columns),
                        new Words(" in " + dataset.name() + ".")),
                List.of(title(path, filter.title())));
    }

    private static Slot title(String path, String title) {
        boolean empty = title == null || title.isBlank();
        return new Slot("title", empty ? "+ title" : "titled “" + title + "”", path + "/title", Kind.TYPED, empty, false,
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
            if (!other.equals(id)) options.add(new Option("only " + name(visual), "", map("from", id, "to", List.of(other))));
        });
        String path = "/links/" + (link == null ? "k" + id : link.getKey());
        if (link == null) {
            parts.add(new Words(" "));
            parts.add(new Slot("link", "+ link", path, Kind.CHOSEN, true, false, options));
            return;
        }
        parts.add(new Words(" What is picked here narrows "));
        List<String> to = link.getValue().to();
        String text = to == null ? "every other visual"
                : Narrowing.list(to.stream().map(dashboard.visuals()::get).filter(Objects::nonNull).map(BriefWriter::name).toList(), "and");
        parts.add(new Slot("link", text, path, Kind.CHOSEN, false, true, options));
        parts.add(new Words("."));
    }

    private static String name(Visual visual) {
        if (visual.title() != null && !visual.title().isBlank()) return "“" + visual.title() + "”";
        if (visual instanceof Visual.OfMap) return "the map";
        if (visual instanceof Visual.OfBars bars) return "the bars of " + ColumnWords.of(bars.category());
        return "the figure " + ColumnWords.of(((Visual.OfFigure) visual).measure());
    }

    private static void rule(String path, Dashboard.Rule rule, LoadedDataset dataset, List<Part> parts) {
        List<Option> options = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            if (dataset.table().column(name) instanceof CodedColumn column && column.dictionary().size() <= MOST_RULE_VALUES) {
                for (String value : column.dictionary()) {
                    options.add(new Option(ColumnWords.of(name) + " is " + value, "", map("column", name, "values", List.of(value))));
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
        parts.add(new Slot("rule", ColumnWords.of(rule.column()) + " is " + Narrowing.list(rule.values(), "or"), path + "/rule", Kind.CHOSEN, false, true, options));
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
    private List<Option> measures(LoadedDataset dataset) {
        List<Measure> measures = new ArrayList<>();
        measures.add(Measure.ROWS);
        dataset.measures().keySet().forEach(name -> measures.add(new Measure(Summary.FORMULA, name)));
        for (String name : dataset.columnNames()) {
            Column column = dataset.table().column(name);
            if (column.type().isNumber()) {
                for (Summary summary : List.of(Summary.SUM, Summary.AVERAGE, Summary.MEDIAN, Summary.MINIMUM, Summary.MAXIMUM)) measures.add(new Measure(summary, name));
            } else if (column instanceof CodedColumn) {
                measures.add(new Measure(Summary.DISTINCT, name));
            }
        }
        List<Measure> previewed = measures.subList(0, Math.min(MOST_PREVIEWED, measures.size()));
        Frame all = dataset.answer(engine, Query.of(dataset.rules(), List.of(), previewed));
        List<Option> options = new ArrayList<>();
        for (int i = 0; i < measures.size(); i++) {
            Measure measure = measures.get(i);
            options.add(new Option(ColumnWords.of(measure), i < previewed.size() ? NumberWords.brief(all.value(i, 0)) : "", value(measure)));
        }
        return options;
    }

    static Map<String, Object> value(Measure measure) {
        Map<String, Object> value = new HashMap<>();
        value.put("summary", measure.summary().name());
        if (measure.column() != null) value.put("column", measure.column());
        return value;
    }

    private static List<Option> wrapped(List<Option> options, UnaryOperator<Object> wrap) {
        return options.stream().map(o -> new Option(o.text(), o.hint(), wrap.apply(o.value()))).toList();
    }

    static Map<String, Object> map(Object... entries) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < entries.length; i += 2) map.put((String) entries[i], entries[i + 1]);
        return map;
    }
}
