package sarnik.visual.figure;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.place.PlacedTable;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Summary;
import sarnik.scale.ValueWords;
import sarnik.visual.Asked;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;

/** The kind of visual that says how much: one number. */
public final class FigureKind implements VisualKind<Figure> {

    private static final int MOST_EACH = 3;

    @Override
    public String name() {
        return "figure";
    }

    @Override
    public Class<Figure> type() {
        return Figure.class;
    }

    @Override
    public Class<FigureDrawing> drawing() {
        return FigureDrawing.class;
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, Slots.MEASURE, Choices.RULE);
    }

    @Override
    public String words(Figure figure) {
        return "the figure " + ColumnWords.of(figure.measure());
    }

    @Override
    public Set<Long> datasets(Figure figure) {
        return Set.of(figure.dataset());
    }

    @Override
    public Plan plan(Figure figure, Scene scene) {
        LoadedDataset dataset = scene.dataset(figure.dataset());
        Plan plan = new Plan();
        Asked asked =
                plan.ask(dataset, Query.of(scene.shown(dataset, figure.rule()), List.of(), List.of(figure.measure())));
        return plan.drawn(answers -> {
            Frame frame = answers.of(asked);
            double value = frame.value(0, 0);
            ValueWords read = dataset.read(figure.measure());
            String words = ColumnWords.of(figure.measure());
            return new FigureDrawing(
                    Scene.titleOf(figure, words), words, read.brief(value), read.full(value), Trail.of(frame.trail()));
        });
    }

    @Override
    public void brief(Figure figure, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(figure.dataset());
        line.say("One figure: the ");
        line.choose(Slots.MEASURE, ColumnWords.of(figure.measure()), choices.measures(dataset));
        line.say(" in " + dataset.name());
        Choices.rule(line, figure.rule(), dataset);
        line.say(".");
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.HOW_MUCH) return List.of();
        List<Measure> measures = new ArrayList<>();
        Telling.sums(dataset).stream().limit(MOST_EACH).forEach(measures::add);
        measures.add(Measure.ROWS);
        if (dataset.isPlaced()) measures.add(new Measure(Summary.DISTINCT, PlacedTable.PLACE));
        return measures.stream()
                .map(measure -> new Proposal(
                        "How much? " + ColumnWords.of(measure) + " in " + dataset.name(),
                        new Figure(null, null, "", dataset.id(), measure, null),
                        5,
                        4))
                .toList();
    }
}
