package sarnik.visual.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.scale.Palette;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Box;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Sight;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;
import sarnik.visual.Written;

/** The kind of visual that says exactly: a table. What is not in sight stays on the server. */
public final class TableKind implements VisualKind<TableVisual> {

    /** Rows that are sent at once. */
    static final int PAGE = 100;

    private static final int HEATS = 7;

    private static final String BOOLEAN = "{\"type\": [\"boolean\", \"null\"]}";
    private static final Slot CATEGORIES = Slot.at(
                    "/categories",
                    "categories",
                    "{\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/column\"}, \"minItems\": 1, \"maxItems\": 6}")
            .needed();
    private static final Slot MEASURES = Slot.at(
                    "/measures",
                    "measures",
                    "{\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/measure\"}, \"minItems\": 1, \"maxItems\": 20}")
            .needed();
    private static final Slot ORDER = Slot.at(
            "/order",
            "order",
            "{\"type\": [\"array\", \"null\"], \"maxItems\": 6, \"items\": {\"type\": \"object\", \"additionalProperties\": false, "
                    + "\"required\": [\"column\", \"down\"], \"properties\": {\"column\": {\"type\": \"integer\", \"minimum\": 0}, "
                    + "\"down\": {\"type\": \"boolean\"}}}}");
    private static final Slot FIRST =
            Slot.at("/first", "number of rows", "{\"type\": [\"integer\", \"null\"], \"minimum\": 1}");
    private static final Slot TOTALS = Slot.at("/totals", "total", BOOLEAN);
    private static final Slot SUBTOTALS = Slot.at("/subtotals", "subtotals", BOOLEAN);
    private static final Slot HEAT = Slot.at("/heat", "tints", BOOLEAN);

    @Override
    public String name() {
        return "table";
    }

    @Override
    public Class<TableVisual> type() {
        return TableVisual.class;
    }

    @Override
    public Class<TableDrawing> drawing() {
        return TableDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 2h8M1 4.5h8M1 7h8M4 2v7";
    }

    @Override
    public List<Slot> slots() {
        return List.of(
                Slots.DATASET, CATEGORIES, MEASURES, ORDER, FIRST, TOTALS, SUBTOTALS, HEAT, Slots.FORMAT, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(TableVisual.class);
    }

    @Override
    public String words(TableVisual table) {
        return "the table of " + ColumnWords.of(table.categories().get(0));
    }

    @Override
    public Set<Long> datasets(TableVisual table) {
        return Set.of(table.dataset());
    }

    @Override
    public Optional<Source> picks(TableVisual table) {
        return Optional.of(new Source(table.dataset(), table.categories().get(0)));
    }

    @Override
    public Plan plan(TableVisual table, Scene scene) {
        LoadedDataset dataset = scene.dataset(table.dataset());
        List<Stage> shown = scene.shown(dataset, table.rule());
        Plan plan = new Plan();
        Asked rows = plan.ask(dataset, Query.of(shown, table.categories(), table.measures()));
        Asked total = Boolean.TRUE.equals(table.totals())
                ? plan.ask(dataset, Query.of(shown, List.of(), plain(table.measures())))
                : null;
        Asked subtotals = hasSubtotals(table)
                ? plan.ask(dataset, Query.of(shown, table.categories().subList(0, 1), plain(table.measures())))
                : null;
        Sight sight = scene.sight();
        return plan.drawn(answers -> new Drawn(table, dataset, answers, sight).of(rows, total, subtotals));
    }

    private static boolean hasSubtotals(TableVisual table) {
        return Boolean.TRUE.equals(table.subtotals()) && table.categories().size() > 1;
    }

    private static List<Measure> plain(List<Measure> measures) {
        return measures.stream().map(Measure::plain).toList();
    }

    /** What is drawn of the answers. */
    private record Drawn(TableVisual table, LoadedDataset dataset, Answers answers, Sight sight) {

        TableDrawing of(Asked rows, Asked total, Asked subtotals) {
            Frame frame = answers.of(rows);
            List<TableVisual.By> order = order();
            int[] sorted = sorted(frame, order);
            int all = table.first() == null ? sorted.length : Math.min(table.first(), sorted.length);
            List<Line> lines =
                    lines(frame, Arrays.copyOf(sorted, all), subtotals == null ? null : answers.of(subtotals));
            int from = sight.from() == null ? 0 : Math.max(0, Math.min(sight.from(), lines.size() - 1));
            List<Line> inSight = lines.subList(from, Math.min(lines.size(), from + sight.rows(PAGE)));
            List<List<String>> figures = figures(inSight, total);
            double[][] ends = Boolean.TRUE.equals(table.heat()) ? ends(frame) : null;
            List<TableDrawing.Row> drawn = new ArrayList<>();
            for (int i = 0; i < inSight.size(); i++) drawn.add(row(inSight.get(i), figures.get(i), ends));
            TableDrawing.Row whole = total == null
                    ? null
                    : row(new Line(null, labels(List.of("all")), null, true), figures.get(inSight.size()), null);
            List<String> notes = new ArrayList<>();
            if (all < sorted.length) notes.add("The first %,d of %,d rows.".formatted(all, sorted.length));
            return new TableDrawing(
                    Scene.titleOf(
                            table,
                            ColumnWords.of(table.measures().get(0)) + " by "
                                    + ColumnWords.of(table.categories().get(0))),
                    heads(order),
                    drawn,
                    from,
                    lines.size(),
                    whole,
                    PAGE,
                    notes,
                    Trail.of(frame.trail()));
        }

        /** A line of the table: a row, or a subtotal. */
        private record Line(String key, List<String> labels, double[] values, boolean sub) {}

        private List<TableVisual.By> order() {
            int columns = table.categories().size() + table.measures().size();
            if (sight.order() != null && sight.order() >= 0 && sight.order() < columns)
                return List.of(new TableVisual.By(sight.order(), Boolean.TRUE.equals(sight.down())));
            if (table.order() != null && !table.order().isEmpty())
                return table.order().stream().filter(b -> b.column() < columns).toList();
            return List.of(new TableVisual.By(table.categories().size(), true));
        }

        private int[] sorted(Frame frame, List<TableVisual.By> order) {
            Comparator<Integer> by = (a, b) -> 0;
            for (TableVisual.By one : order) by = by.thenComparing(comparator(frame, one));
            String find = sight.find() == null ? "" : sight.find().strip().toLowerCase(Locale.ROOT);
            return IntStream.range(0, frame.size())
                    .filter(g -> find.isEmpty() || holds(frame, g, find))
                    .boxed()
                    .sorted(by)
                    .mapToInt(g -> g)
                    .toArray();
        }

        private boolean holds(Frame frame, int group, String find) {
            for (int c = 0; c < table.categories().size(); c++)
                if (label(c, frame.key(c, group)).toLowerCase(Locale.ROOT).contains(find)) return true;
            return false;
        }

        private Comparator<Integer> comparator(Frame frame, TableVisual.By by) {
            if (by.column() < table.categories().size()) {
                Comparator<Integer> labels = Comparator.comparing(
                        g -> label(by.column(), frame.key(by.column(), g)), String.CASE_INSENSITIVE_ORDER);
                return by.down() ? labels.reversed() : labels;
            }
            double[] values =
                    frame.values().get(by.column() - table.categories().size());
            // What is missing stands last either way.
            Comparator<Integer> missing = Comparator.comparing(g -> Double.isNaN(values[g]));
            Comparator<Integer> size = Comparator.comparingDouble(g -> values[g]);
            return missing.thenComparing(by.down() ? size.reversed() : size);
        }

        private String label(int category, String key) {
            return dataset.label(table.categories().get(category), key);
        }

        private List<Line> lines(Frame frame, int[] sorted, Frame subtotals) {
            List<Line> lines = new ArrayList<>();
            if (subtotals == null) {
                for (int g : sorted) lines.add(line(frame, g));
                return lines;
            }
            Map<String, Integer> groups = new HashMap<>();
            for (int g = 0; g < subtotals.size(); g++) groups.put(subtotals.key(0, g), g);
            // Rows that belong together stand together, in the order in which their first one comes.
            Map<String, List<Integer>> together = new LinkedHashMap<>();
            for (int g : sorted)
                together.computeIfAbsent(frame.key(0, g), k -> new ArrayList<>())
                        .add(g);
            together.forEach((key, members) -> {
                for (int g : members) lines.add(line(frame, g));
                int group = groups.get(key);
                double[] values = new double[table.measures().size()];
                for (int m = 0; m < values.length; m++) values[m] = subtotals.value(m, group);
                lines.add(new Line(key, labels(List.of("all of " + label(0, key))), values, true));
            });
            return lines;
        }

        private List<String> labels(List<String> first) {
            List<String> labels = new ArrayList<>(first);
            while (labels.size() < table.categories().size()) labels.add("");
            return labels;
        }

        private Line line(Frame frame, int group) {
            List<String> labels = new ArrayList<>();
            for (int c = 0; c < table.categories().size(); c++) labels.add(label(c, frame.key(c, group)));
            double[] values = new double[table.measures().size()];
            for (int m = 0; m < values.length; m++) values[m] = frame.value(m, group);
            return new Line(frame.key(0, group), labels, values, false);
        }

        /** The figures of each line in sight and of the total behind them, in line column by column. */
        private List<List<String>> figures(List<Line> lines, Asked total) {
            int count = lines.size() + (total == null ? 0 : 1);
            List<List<String>> figures = new ArrayList<>();
            for (int i = 0; i < count; i++) figures.add(new ArrayList<>());
            for (int m = 0; m < table.measures().size(); m++) {
                Measure measure = table.measures().get(m);
                Written written = Written.of(dataset, measure, table.format());
                double[] values = new double[lines.size()];
                for (int i = 0; i < values.length; i++) values[i] = lines.get(i).values()[m];
                List<String> texts = written.whole(values);
                for (int i = 0; i < values.length; i++) figures.get(i).add(texts.get(i));
                if (total != null)
                    figures.get(lines.size())
                            .add(
                                    measure.over() == null
                                            ? written.full(answers.of(total).value(m, 0))
                                            : "");
            }
            return figures;
        }

        private TableDrawing.Row row(Line line, List<String> figures, double[][] ends) {
            List<String> cells = new ArrayList<>(line.labels());
            cells.addAll(figures);
            List<String> tints = null;
            if (ends != null && !line.sub()) {
                tints = new ArrayList<>();
                for (int c = 0; c < line.labels().size(); c++) tints.add(null);
                for (int m = 0; m < line.values().length; m++) tints.add(tint(line.values()[m], ends[m]));
            }
            return new TableDrawing.Row(line.key(), cells, tints, line.sub());
        }

        private static String tint(double value, double[] ends) {
            if (!Double.isFinite(value) || !(ends[1] > ends[0])) return null;
            int at = (int) Math.min(HEATS - 1, Math.floor((value - ends[0]) / (ends[1] - ends[0]) * HEATS));
            // The deeper half of the palette would hide the figures.
            return Palette.ALL.get("loch").colours(HEATS * 2).get(at);
        }

        private double[][] ends(Frame frame) {
            double[][] ends = new double[table.measures().size()][];
            for (int m = 0; m < ends.length; m++) {
                double[] known = Arrays.stream(frame.values().get(m))
                        .filter(Double::isFinite)
                        .toArray();
                ends[m] = new double[] {
                    Arrays.stream(known).min().orElse(0),
                    Arrays.stream(known).max().orElse(0)
                };
            }
            return ends;
        }

        private List<TableDrawing.Head> heads(List<TableVisual.By> order) {
            List<TableDrawing.Head> heads = new ArrayList<>();
            for (int c = 0; c < table.categories().size(); c++)
                heads.add(
                        new TableDrawing.Head(ColumnWords.of(table.categories().get(c)), false, sorted(order, c)));
            for (int m = 0; m < table.measures().size(); m++)
                heads.add(new TableDrawing.Head(
                        dataset.words(table.measures().get(m)),
                        true,
                        sorted(order, table.categories().size() + m)));
            return heads;
        }

        private static String sorted(List<TableVisual.By> order, int column) {
            return order.stream()
                    .filter(b -> b.column() == column)
                    .findFirst()
                    .map(b -> b.down() ? "down" : "up")
                    .orElse(null);
        }
    }

    // --- its sentence ----------------------------------------------------------------------------------

    @Override
    public void brief(TableVisual table, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(table.dataset());
        line.say("A table of ");
        line.slot(
                MEASURES,
                String.join(
                        " and ", table.measures().stream().map(ColumnWords::of).toList()),
                Kind.SET,
                false,
                false,
                choices.measures(dataset));
        line.say(" in " + dataset.name() + ", a row for each ");
        line.slot(
                CATEGORIES,
                String.join(
                        " and ",
                        table.categories().stream().map(ColumnWords::of).toList()),
                Kind.SET,
                false,
                false,
                Choices.categories(dataset));
        line.say(", ");
        List<Option> orders = new ArrayList<>();
        List<String> names = new ArrayList<>();
        table.categories().forEach(c -> names.add(ColumnWords.of(c)));
        table.measures().forEach(m -> names.add(ColumnWords.of(m)));
        for (int c = 0; c < names.size(); c++) {
            orders.add(new Option("by " + names.get(c) + ", the most first", "", List.of(new TableVisual.By(c, true))));
            orders.add(
                    new Option("by " + names.get(c) + ", the least first", "", List.of(new TableVisual.By(c, false))));
        }
        TableVisual.By by = table.order() == null || table.order().isEmpty()
                ? new TableVisual.By(table.categories().size(), true)
                : table.order().get(0);
        line.may(
                ORDER,
                "by " + (by.column() < names.size() ? names.get(by.column()) : "a column that has gone") + ", the "
                        + (by.down() ? "most" : "least") + " first",
                table.order() == null,
                orders);
        line.say(" ");
        List<Option> counts = new ArrayList<>();
        for (int n : new int[] {5, 10, 20, 50, 100}) counts.add(new Option("the first " + Choices.count(n), "", n));
        line.may(
                FIRST,
                table.first() == null ? "+ first rows only" : "the first " + Choices.count(table.first()),
                table.first() == null,
                counts);
        flag(line, TOTALS, table.totals(), "+ total", "with a total");
        if (table.categories().size() > 1) flag(line, SUBTOTALS, table.subtotals(), "+ subtotals", "with subtotals");
        flag(line, HEAT, table.heat(), "+ tints", "tinted by size");
        Choices.rule(line, table.rule(), dataset);
        line.say(".");
        Slots.format(looks, table.format());
    }

    private static void flag(BriefLine line, Slot slot, Boolean on, String offer, String words) {
        boolean set = Boolean.TRUE.equals(on);
        line.say(" ");
        line.may(slot, set ? words : offer, !set, List.of(new Option(words, "", true)));
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.EXACTLY) return List.of();
        List<Measure> measures =
                new ArrayList<>(Telling.sums(dataset).stream().limit(3).toList());
        measures.add(Measure.ROWS);
        return Telling.categories(dataset).stream()
                .limit(2)
                .map(c -> new Proposal(
                        "All figures, a row for each " + ColumnWords.of(c),
                        new TableVisual(
                                null,
                                null,
                                "",
                                dataset.id(),
                                List.of(c),
                                measures,
                                null,
                                null,
                                true,
                                null,
                                null,
                                null,
                                null),
                        14,
                        10))
                .toList();
    }

    @Override
    public Ingredients ingredients(TableVisual table) {
        return new Ingredients(table.dataset(), table.categories(), table.measures(), null, table.rule(), null, null);
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        List<String> categories = from.categories().isEmpty()
                ? Telling.categories(dataset).stream().limit(1).toList()
                : from.categories();
        if (categories.isEmpty()) return Optional.empty();
        return Optional.of(new Become(
                new TableVisual(
                        page,
                        at,
                        title,
                        dataset.id(),
                        categories,
                        from.measuresOrRows(),
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        from.rule()),
                from.time() == null ? List.of() : List.of("the time")));
    }
}
