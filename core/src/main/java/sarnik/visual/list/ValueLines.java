package sarnik.visual.list;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Template;
import sarnik.language.Language;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.visual.Asked;
import sarnik.visual.Fields;
import sarnik.visual.Plan;
import sarnik.visual.Scene;
import sarnik.visual.Trail;
import sarnik.visual.Written;

/** The lines of a list of the values of a column. */
final class ValueLines {

    private final Listing list;
    private final Scene scene;
    private final LoadedDataset dataset;
    private final List<Measure> figures;

    ValueLines(Listing list, Scene scene) {
        this.list = list;
        this.scene = scene;
        this.dataset = scene.dataset(list.dataset());
        this.figures = ListKind.figures(list);
    }

    Plan plan() {
        Plan plan = new Plan();
        Asked asked = plan.ask(dataset, Query.of(scene.shown(dataset, list.rule()), List.of(list.each()), figures));
        return plan.drawn(answers -> {
            Frame frame = answers.of(asked);
            String find = scene.sight().find() == null
                    ? ""
                    : scene.sight().find().strip().toLowerCase(Locale.ROOT);
            int[] order = IntStream.range(0, frame.size())
                    .filter(g -> label(frame, g).toLowerCase(Locale.ROOT).contains(find))
                    .boxed()
                    .sorted(order(frame))
                    .mapToInt(g -> g)
                    .toArray();
            int from = scene.sight().from() == null
                    ? 0
                    : Math.max(0, Math.min(scene.sight().from(), order.length - 1));
            Set<String> unknown = new LinkedHashSet<>();
            Template text = Template.of(list.text());
            Template below = list.below() == null ? null : Template.of(list.below());
            List<ListDrawing.Line> lines = new ArrayList<>();
            for (int i = from; i < Math.min(order.length, from + scene.sight().rows(RowLines.PAGE)); i++) {
                int g = order[i];
                lines.add(new ListDrawing.Line(
                        frame.key(0, g),
                        filled(text, frame, g, unknown),
                        below == null ? null : filled(below, frame, g, unknown),
                        state(frame, g),
                        record(frame, g)));
            }
            return new ListDrawing(
                    Scene.titleOf(list, ColumnWords.of(list.each())),
                    lines,
                    from,
                    order.length,
                    RowLines.PAGE,
                    ColumnWords.of(list.each()),
                    unknown.isEmpty()
                            ? List.of()
                            : List.of(phrase(
                                    "{0} names none of the list’s figures, or not a way to write one.",
                                    Language.all(List.copyOf(unknown)))),
                    Trail.of(frame.trail()));
        });
    }

    private String label(Frame frame, int group) {
        return dataset.label(list.each(), frame.key(0, group));
    }

    private Comparator<Integer> order(Frame frame) {
        Listing.By by = list.order() == null ? new Listing.By(ColumnWords.kept(figures.get(0)), true) : list.order();
        if (by.by().equals(list.each())) {
            Comparator<Integer> labels = Comparator.comparing(g -> label(frame, g), String.CASE_INSENSITIVE_ORDER);
            return by.down() ? labels.reversed() : labels;
        }
        double[] values = frame.values().get(figure(by.by()));
        Comparator<Integer> missing = Comparator.comparing(g -> Double.isNaN(values[g]));
        Comparator<Integer> size = Comparator.comparingDouble(g -> values[g]);
        return missing.thenComparing(by.down() ? size.reversed() : size)
                .thenComparing(g -> label(frame, g), String.CASE_INSENSITIVE_ORDER);
    }

    private int figure(String words) {
        for (int m = 0; m < figures.size(); m++)
            if (ColumnWords.kept(figures.get(m)).equals(words)) return m;
        throw new MisfitException(phrase("“{0}” is none of the figures of this list any more", words));
    }

    private String filled(Template template, Frame frame, int group, Set<String> unknown) {
        return template.filled(field -> {
            if (field.is(ColumnWords.kept(list.each())) || field.is(list.each())) return label(frame, group);
            String value = Fields.figure(field, dataset, figures, m -> frame.value(m, group));
            if (value == null) unknown.add(field.written());
            return value;
        });
    }

    private String state(Frame frame, int group) {
        if (list.mark() == null) return null;
        if (list.mark().of().equals(list.each())) return list.mark().of(frame.key(0, group), Double.NaN);
        return list.mark().of(null, frame.value(figure(list.mark().of()), group));
    }

    private List<ListDrawing.Entry> record(Frame frame, int group) {
        List<ListDrawing.Entry> record = new ArrayList<>();
        for (int m = 0; m < figures.size(); m++)
            record.add(new ListDrawing.Entry(
                    dataset.words(figures.get(m)),
                    Written.of(dataset, figures.get(m), null).full(frame.value(m, group))));
        return record;
    }
}
