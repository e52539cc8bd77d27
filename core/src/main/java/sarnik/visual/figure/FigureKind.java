package sarnik.visual.figure;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.place.PlacedTable;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.scale.NumberWords;
import sarnik.visual.Asked;
import sarnik.visual.Box;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Sign;
import sarnik.visual.Slots;
import sarnik.visual.SureRates;
import sarnik.visual.TinyLine;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;
import sarnik.visual.Written;

/** The kind of visual that says how much: one number. */
public final class FigureKind implements VisualKind<Figure> {

    private static final int MOST_EACH = 3;

    private static final Slot AGAINST = Slot.at(
            "/against",
            "comparison",
            "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": [\"kind\"], \"properties\": "
                    + "{\"kind\": {\"enum\": [\"TARGET\", \"PARAMETER\", \"WHOLE\", \"BEFORE\", \"YEAR\"]}, "
                    + "\"value\": {\"$ref\": \"#/$defs/number\"}, "
                    + "\"parameter\": {\"type\": [\"string\", \"null\"], \"maxLength\": 31}, "
                    + "\"time\": {\"type\": [\"string\", \"null\"], \"maxLength\": 200}}}");
    private static final Slot OVER =
            Slot.at("/over", "tiny line", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");

    @Override
    public List<String> asked() {
        return List.of("figure", "number");
    }

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
    public String sign() {
        return "M3 3l2-2v7M3 8h4";
    }

    @Override
    public List<Slot> slots() {
        return List.of(
                Slots.DATASET, Slots.MEASURE, AGAINST, Slots.STATES, OVER, Sign.SLOT, Slots.FORMAT, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Figure.class, Figure.Against.class);
    }

    @Override
    public String words(Figure figure) {
        return phrase("the figure {0}", ColumnWords.of(figure.measure()));
    }

    @Override
    public Set<Long> datasets(Figure figure) {
        return Set.of(figure.dataset());
    }

    @Override
    public boolean uses(Figure figure, String parameter) {
        return figure.against() != null && parameter.equals(figure.against().parameter());
    }

    @Override
    public Stream<String> places(Figure figure, String parameter) {
        return uses(figure, parameter) ? Stream.of("/against") : Stream.empty();
    }

    @Override
    public Plan plan(Figure figure, Scene scene) {
        LoadedDataset dataset = scene.dataset(figure.dataset());
        List<Stage> shown = scene.shown(dataset, figure.rule());
        List<Measure> measures = List.of(figure.measure());
        Plan plan = new Plan();
        Asked asked = plan.ask(dataset, Query.of(shown, List.of(), measures));
        Compared compared = Compared.plan(figure, scene, dataset, shown, plan);
        TimeStep step = figure.over() == null ? null : TinyLine.step(dataset, figure.over());
        Asked line = step == null
                ? null
                : plan.ask(
                        dataset,
                        Query.by(shown, List.of(new GroupKey.Step(figure.over(), step, null)), measures)
                                .filled());
        LoadedDataset.Rate rate = SureRates.rate(dataset, figure.measure()).orElse(null);
        Asked sums = rate == null
                ? null
                : plan.ask(rate.dataset(), Query.of(shown, List.of(), List.of(rate.events(), rate.over())));
        return plan.drawn(answers -> {
            Frame frame = answers.of(asked);
            double value = frame.value(0, 0);
            Written written = Written.of(dataset, figure.measure(), figure.format());
            String words = ColumnWords.of(figure.measure());
            List<SureRates.Sure> rates = sums == null ? List.of() : SureRates.of(rate, answers.of(sums));
            SureRates.Sure sure = rates.isEmpty()
                            || rates.get(0) == null
                            || !rates.get(0).interval().isKnown()
                    ? null
                    : rates.get(0);
            return new FigureDrawing(
                    Scene.titleOf(figure, words),
                    words,
                    written.brief(value),
                    written.full(value),
                    written.read().isAmount() && Double.isFinite(value) ? value : null,
                    written.isPercent(),
                    compared == null ? null : compared.words(value, answers, written),
                    figure.states() == null ? null : figure.states().of(value),
                    line == null ? null : TinyLine.heights(answers.of(line), 0, step),
                    line == null ? null : TinyLine.words(answers.of(line), step),
                    figure.sign() == null ? null : figure.sign().path(),
                    SureRates.words(sure, written),
                    sure != null && sure.interval().isKnown() && sure.unsure(),
                    Trail.of(frame.trail()));
        });
    }

    @Override
    public void brief(Figure figure, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(figure.dataset());
        line.say("One figure: the ");
        line.choose(Slots.MEASURE, ColumnWords.of(figure.measure()), choices.measures(dataset));
        Slots.percentile(line, "/measure", figure.measure());
        line.say(" in " + dataset.name());
        against(figure.against(), line, choices, Choices.times(dataset));
        Slots.states(line, figure.states());
        line.say(figure.over() == null ? " " : ", with ");
        line.may(
                OVER,
                figure.over() == null ? "+ tiny line" : "a tiny line over " + ColumnWords.of(figure.over()),
                figure.over() == null,
                Choices.times(dataset));
        Choices.rule(line, figure.rule(), dataset);
        line.say(".");
        Slots.format(looks, figure.format());
        looks.say(" ");
        looks.may(
                Sign.SLOT,
                figure.sign() == null ? "+ sign" : "with " + figure.sign().words() + " as its sign",
                figure.sign() == null,
                Sign.options());
    }

    private static void against(Figure.Against against, BriefLine line, Choices choices, List<Option> times) {
        List<Option> options = new ArrayList<>(List.of(
                new Option(
                        "a target",
                        "a value that you write",
                        new Figure.Against(Figure.Against.Kind.TARGET, 100.0, null, null)),
                new Option(
                        "the whole",
                        "what it is without picks",
                        new Figure.Against(Figure.Against.Kind.WHOLE, null, null, null))));
        choices.parameters()
                .forEach((id, parameter) -> options.add(new Option(
                        "the reader's “" + parameter.name() + "”",
                        "",
                        new Figure.Against(Figure.Against.Kind.PARAMETER, null, id, null))));
        for (Option time : times)
            for (Figure.Against.Kind kind : List.of(Figure.Against.Kind.BEFORE, Figure.Against.Kind.YEAR))
                options.add(new Option(
                        kind.words() + " by " + time.text(),
                        kind == Figure.Against.Kind.BEFORE
                                ? "the stretch of the same length just before what is shown"
                                : "the same days a year earlier",
                        new Figure.Against(kind, null, null, (String) time.value())));
        line.say(against == null ? " " : ", against ");
        line.may(AGAINST, against == null ? "+ comparison" : words(against), against == null, options);
        if (against == null || against.kind() != Figure.Against.Kind.TARGET) return;
        line.say(" of ");
        line.slot(
                Slot.within("/against/value", "value of the target"),
                against.value() == null ? "+ value" : NumberWords.full(against.value()),
                Kind.NUMBER,
                against.value() == null,
                false,
                List.of());
    }

    private static String words(Figure.Against against) {
        return against.kind().words() + (against.kind().isPeriod() ? " by " + ColumnWords.of(against.time()) : "");
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.HOW_MUCH) return List.of();
        String time = Telling.time(dataset).orElse(null);
        List<Measure> measures = new ArrayList<>();
        Telling.measures(dataset).stream().limit(MOST_EACH).forEach(measures::add);
        measures.add(Measure.ROWS);
        if (dataset.isPlaced()) measures.add(new Measure(Summary.DISTINCT, PlacedTable.PLACE));
        return measures.stream()
                .map(measure -> new Proposal(
                        "How much? " + ColumnWords.of(measure) + " in " + dataset.name(),
                        new Figure(null, null, "", dataset.id(), measure, null, null, time, null, null, null),
                        5,
                        4))
                .toList();
    }

    @Override
    public Ingredients ingredients(Figure figure) {
        return new Ingredients(
                figure.dataset(), List.of(), List.of(figure.measure()), figure.over(), figure.rule(), null, null);
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        if (from.dataset() == null) return Optional.empty();
        Measure measure = from.measuresOrRows().get(0).plain();
        return Optional.of(new Become(
                new Figure(page, at, title, from.dataset(), measure, null, null, from.time(), null, null, from.rule()),
                from.left(null, measure, true)));
    }
}
