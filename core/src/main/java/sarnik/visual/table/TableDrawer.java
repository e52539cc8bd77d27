package sarnik.visual.table;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.TimeStep;
import sarnik.scale.Palette;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Scene;
import sarnik.visual.Sight;
import sarnik.visual.SureRates;
import sarnik.visual.TinyLine;
import sarnik.visual.Trail;
import sarnik.visual.Written;

/** What is drawn of the answers to a table's questions. */
record TableDrawer(
        TableVisual table, LoadedDataset dataset, Answers answers, Sight sight, List<TableKind.Rates> rates) {

    private static final int HEATS = 7;

    TableDrawing draw(Asked rows, Asked total, Asked subtotals, Asked tiny, TimeStep step) {
        Frame frame = answers.of(rows);
        List<TableVisual.By> order = order();
        int[] sorted = sorted(frame, order);
        int all = table.first() == null ? sorted.length : Math.min(table.first(), sorted.length);
        List<Line> lines = lines(frame, Arrays.copyOf(sorted, all), subtotals == null ? null : answers.of(subtotals));
        int from = sight.from() == null ? 0 : Math.max(0, Math.min(sight.from(), lines.size() - 1));
        List<Line> inSight = lines.subList(from, Math.min(lines.size(), from + sight.rows(TableKind.PAGE)));
        List<List<String>> figures = figures(inSight, total);
        double[][] ends = Boolean.TRUE.equals(table.heat()) ? ends(frame) : null;
        Map<Integer, Map<List<String>, SureRates.Sure>> sure = sure();
        List<TableDrawing.Row> drawn = new ArrayList<>();
        Frame overTime = tiny == null ? null : answers.of(tiny);
        Map<List<String>, List<Double>> tinyLines = overTime == null ? Map.of() : tinyLines(overTime, step, inSight);
        for (int i = 0; i < inSight.size(); i++)
            drawn.add(row(
                    inSight.get(i),
                    figures.get(i),
                    ends,
                    sure,
                    tinyLines.get(inSight.get(i).keys())));
        TableDrawing.Row whole = total == null
                ? null
                : row(
                        new Line(List.of(), labels(List.of(phrase("rows|all"))), whole(total), true),
                        figures.get(inSight.size()),
                        null,
                        Map.of(),
                        null);
        List<String> notes = new ArrayList<>();
        if (all < sorted.length) notes.add(phrase("The first {0} of {1} rows.", all, sorted.length));
        if (table.over() != null && tiny == null)
            notes.add(phrase("There are no tiny lines: there can be more than {0} rows.", TableKind.MOST_LINES));
        return new TableDrawing(
                Scene.titleOf(
                        table,
                        phrase(
                                "{0} by {1}",
                                ColumnWords.of(table.measures().get(0)),
                                ColumnWords.of(table.categories().get(0)))),
                heads(order),
                drawn,
                from,
                lines.size(),
                whole,
                overTime == null
                        ? null
                        : ColumnWords.brief(table.measures().get(0).plain()) + " "
                                + TinyLine.words(overTime, table.categories().size(), step),
                TableKind.PAGE,
                notes,
                Trail.of(frame.trail()));
    }

    /** A line of the table: a row, or a subtotal. */
    private record Line(List<String> keys, List<String> labels, double[] values, boolean sub) {

        String key() {
            return keys.isEmpty() ? null : keys.get(0);
        }
    }

    private double[] whole(Asked total) {
        Frame frame = answers.of(total);
        double[] values = new double[table.measures().size()];
        for (int m = 0; m < values.length; m++)
            values[m] = table.measures().get(m).over() == null ? frame.value(m, 0) : Double.NaN;
        return values;
    }

    /** The tiny lines of the rows in sight, which all begin and end together. */
    private Map<List<String>, List<Double>> tinyLines(Frame frame, TimeStep step, List<Line> inSight) {
        Set<List<String>> wanted = inSight.stream().map(Line::keys).collect(Collectors.toSet());
        Map<List<String>, Map<Long, Double>> values = new HashMap<>();
        int time = table.categories().size();
        for (int g = 0; g < frame.size(); g++) {
            List<String> keys = keys(frame, g);
            if (wanted.contains(keys))
                values.computeIfAbsent(keys, k -> new HashMap<>())
                        .put(step.number(frame.key(time, g)), frame.value(0, g));
        }
        long first = Arrays.stream(frame.keys().get(time))
                .mapToLong(step::number)
                .min()
                .orElse(0);
        long last = Arrays.stream(frame.keys().get(time))
                .mapToLong(step::number)
                .max()
                .orElse(0);
        Map<List<String>, List<Double>> lines = new HashMap<>();
        values.forEach((keys, of) -> lines.put(keys, TinyLine.heights(of, first, last)));
        return lines;
    }

    private List<String> keys(Frame frame, int group) {
        List<String> keys = new ArrayList<>();
        for (int c = 0; c < table.categories().size(); c++) keys.add(frame.key(c, group));
        return keys;
    }

    private List<TableVisual.By> order() {
        int columns = table.categories().size() + table.measures().size();
        if (sight.order() != null && sight.order() >= 0 && sight.order() < columns)
            return Stream.concat(
                            Stream.of(new TableVisual.By(sight.order(), Boolean.TRUE.equals(sight.down()))),
                            sight.then() == null
                                    ? Stream.empty()
                                    : sight.then().stream()
                                            .filter(t -> t.column() >= 0 && t.column() < columns)
                                            .map(t -> new TableVisual.By(t.column(), t.down())))
                    .toList();
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
        double[] values = frame.values().get(by.column() - table.categories().size());
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
            together.computeIfAbsent(frame.key(0, g), k -> new ArrayList<>()).add(g);
        together.forEach((key, members) -> {
            for (int g : members) lines.add(line(frame, g));
            int group = groups.get(key);
            double[] values = new double[table.measures().size()];
            for (int m = 0; m < values.length; m++)
                values[m] = table.measures().get(m).over() == null ? subtotals.value(m, group) : Double.NaN;
            lines.add(new Line(
                    Collections.singletonList(key),
                    labels(List.of(phrase("all of {0}", label(0, key)))),
                    values,
                    true));
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
        return new Line(keys(frame, group), labels, values, false);
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
            // What is worked out over all rows has no subtotal.
            for (int i = 0; i < values.length; i++)
                figures.get(i).add(lines.get(i).sub() && measure.over() != null ? "" : texts.get(i));
            if (total != null)
                figures.get(lines.size())
                        .add(
                                measure.over() == null
                                        ? written.full(answers.of(total).value(m, 0))
                                        : "");
        }
        return figures;
    }

    /** How sure the rates of each row are, by measure and by the row's keys. */
    private Map<Integer, Map<List<String>, SureRates.Sure>> sure() {
        Map<Integer, Map<List<String>, SureRates.Sure>> all = new HashMap<>();
        for (TableKind.Rates one : rates) {
            Frame frame = answers.of(one.sums());
            List<SureRates.Sure> sure = SureRates.of(one.rate(), frame);
            Map<List<String>, SureRates.Sure> byKeys = new HashMap<>();
            for (int g = 0; g < sure.size(); g++) if (sure.get(g) != null) byKeys.put(keys(frame, g), sure.get(g));
            all.put(one.measure(), byKeys);
        }
        return all;
    }

    /** How sure each cell of a line is; null where nothing is known of any. */
    private List<TableDrawing.Sure> sure(Line line, Map<Integer, Map<List<String>, SureRates.Sure>> sure) {
        if (line.sub() || sure.values().stream().noneMatch(of -> of.containsKey(line.keys()))) return null;
        List<TableDrawing.Sure> cells =
                new ArrayList<>(Collections.nCopies(line.labels().size() + line.values().length, null));
        sure.forEach((measure, of) -> {
            SureRates.Sure one = of.get(line.keys());
            String words =
                    SureRates.words(one, Written.of(dataset, table.measures().get(measure), table.format()));
            if (words != null) cells.set(line.labels().size() + measure, new TableDrawing.Sure(words, one.unsure()));
        });
        return cells;
    }

    private TableDrawing.Row row(
            Line line,
            List<String> figures,
            double[][] ends,
            Map<Integer, Map<List<String>, SureRates.Sure>> sure,
            List<Double> tiny) {
        List<String> cells = new ArrayList<>(line.labels());
        cells.addAll(figures);
        List<String> tints = null;
        if (ends != null && !line.sub()) {
            tints = new ArrayList<>();
            for (int c = 0; c < line.labels().size(); c++) tints.add(null);
            for (int m = 0; m < line.values().length; m++) tints.add(tint(line.values()[m], ends[m]));
        }
        return new TableDrawing.Row(
                line.key(), cells, tints, states(line), sure(line, sure), line.sub() ? null : tiny, line.sub());
    }

    /** What is said of each cell; null where nothing is said of any. */
    private List<String> states(Line line) {
        if (table.looks() == null || table.looks().isEmpty()) return null;
        List<String> states = new ArrayList<>(Collections.nCopies(line.labels().size() + line.values().length, null));
        for (TableVisual.Look look : table.looks()) {
            int measure = table.measures().indexOf(look.measure());
            if (measure >= 0)
                states.set(line.labels().size() + measure, look.states().of(line.values()[measure]));
        }
        return states;
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
                Arrays.stream(known).min().orElse(0), Arrays.stream(known).max().orElse(0)
            };
        }
        return ends;
    }

    private List<TableDrawing.Head> heads(List<TableVisual.By> order) {
        List<TableDrawing.Head> heads = new ArrayList<>();
        for (int c = 0; c < table.categories().size(); c++)
            heads.add(new TableDrawing.Head(ColumnWords.of(table.categories().get(c)), false, sorted(order, c)));
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
