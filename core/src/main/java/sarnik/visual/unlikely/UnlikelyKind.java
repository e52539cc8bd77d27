package sarnik.visual.unlikely;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.RolledUp;
import sarnik.data.Telling;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.query.TimeStep;
import sarnik.visual.Box;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.VisualKind;

/** The kind of visual that lists values that stand out of their own history, of their neighbours or of other rows, with why. */
public final class UnlikelyKind implements VisualKind<UnlikelyList> {

    private static final Slot MEASURE = Slot.at("/measure", "what is looked at", "{\"$ref\": \"#/$defs/measure\"}")
            .needed();
    private static final Slot TIME =
            Slot.at("/time", "what it is compared with", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");
    private static final Slot STEP = Slot.at(
            "/step",
            "step of time",
            "{\"enum\": [\"MINUTE\", \"HOUR\", \"DAY\", " + "\"WEEK\", \"MONTH\", \"QUARTER\", \"YEAR\", null]}");
    private static final Slot NEAREST =
            Slot.at("/nearest", "neighbours", "{\"type\": [\"integer\", \"null\"], \"minimum\": 3, \"maximum\": 100}");
    private static final Slot ROWS = Slot.at("/rows", "single rows", "{\"type\": [\"boolean\", \"null\"]}");
    private static final Slot COUNT = Slot.at(
            "/count", "number of lines", "{\"type\": [\"integer\", \"null\"], \"minimum\": 1, \"maximum\": 200}");

    @Override
    public List<String> asked() {
        return List.of("unlikely", "unlikely values");
    }

    @Override
    public String name() {
        return "unlikely";
    }

    @Override
    public Class<UnlikelyList> type() {
        return UnlikelyList.class;
    }

    @Override
    public Class<UnlikelyDrawing> drawing() {
        return UnlikelyDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 7l2-.6 2 .5L6.5 2 8 6.8 9 6.5M6.5 2h.1";
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, Slots.CATEGORY, MEASURE, TIME, STEP, NEAREST, COUNT, ROWS, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(UnlikelyList.class);
    }

    @Override
    public String words(UnlikelyList list) {
        return phrase("unlikely values of {0}", list.words());
    }

    @Override
    public Set<Long> datasets(UnlikelyList list) {
        return Set.of(list.dataset());
    }

    @Override
    public Optional<Source> picks(UnlikelyList list) {
        return Optional.of(new Source(list.dataset(), list.category()));
    }

    @Override
    public Plan plan(UnlikelyList list, Scene scene) {
        return new UnlikelyDrawer(list, scene).plan();
    }

    @Override
    public void brief(UnlikelyList list, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(list.dataset());
        line.say("Unlikely values of ");
        line.choose(MEASURE, list.words(), choices.measures(dataset));
        line.say(" ");
        line.slot(
                ROWS,
                list.isOfRows() ? "in the rows of each" : "of each",
                Brief.Kind.CHOSEN,
                false,
                list.isOfRows(),
                List.of(new Option("in the rows of each", "row by row, beside the other rows of the same", true)));
        line.say(" ");
        line.choose(
                Slots.CATEGORY.named("what is looked at one by one"),
                ColumnWords.of(list.category()),
                Choices.categories(dataset));
        line.say(" in " + dataset.name() + ", beside ");
        if (list.isOfRows()) againstRows(list, line, dataset);
        else against(list, line, dataset);
        line.say("; ");
        line.slot(
                COUNT,
                list.count() == null ? "the twenty farthest off" : "the " + list.count() + " farthest off",
                Brief.Kind.NUMBER,
                false,
                list.count() != null,
                List.of());
        Choices.rule(line, list.rule(), dataset);
        line.say(".");
    }

    /** Of single rows. */
    private static void againstRows(UnlikelyList list, BriefLine line, LoadedDataset dataset) {
        line.say("the other rows of the same " + ColumnWords.of(list.category()));
        Optional<String> dated = UnlikelyDrawer.datedBy(list, dataset);
        if (dated.isEmpty()) return;
        line.say(", dated by ");
        line.slot(
                TIME,
                ColumnWords.of(dated.get()),
                Brief.Kind.CHOSEN,
                false,
                list.time() != null,
                Choices.times(dataset));
    }

    /** Of all rows of a category in a step of time, or at a place. */
    private static void against(UnlikelyList list, BriefLine line, LoadedDataset dataset) {
        List<Option> beside = new ArrayList<>(Choices.times(dataset).stream()
                .map(time -> new Option("its own history by " + time.text(), time.hint(), time.value()))
                .toList());
        line.slot(
                TIME,
                list.time() == null ? "its neighbours" : "its own history by " + ColumnWords.of(list.time()),
                Brief.Kind.CHOSEN,
                false,
                list.time() != null,
                beside);
        if (list.time() != null) {
            line.say(", ");
            List<Option> steps = new ArrayList<>();
            for (TimeStep s : TimeStep.values()) if (!s.comesAgain()) steps.add(new Option(s.words(), "", s.name()));
            line.slot(
                    STEP,
                    list.step() == null
                            ? "in steps that suit"
                            : "each " + list.step().words(),
                    Brief.Kind.CHOSEN,
                    false,
                    list.step() != null,
                    steps);
        } else {
            line.say(", ");
            List<Option> nearest = new ArrayList<>();
            for (int n : new int[] {4, 6, 8, 12, 20}) nearest.add(new Option("the nearest " + n, "", n));
            line.slot(
                    NEAREST,
                    list.nearest() == null ? "those that touch or lie nearest" : "the nearest " + list.nearest(),
                    Brief.Kind.CHOSEN,
                    false,
                    list.nearest() != null,
                    nearest);
        }
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.CHANGED && question != Question.TOGETHER) return List.of();
        Measure measure = Telling.measures(dataset).stream().findFirst().orElse(Measure.ROWS);
        String time = Telling.time(dataset).orElse(null);
        boolean placed =
                dataset.isPlaced() && dataset.table().find(PlacedTable.PLACE).isPresent();
        String category = placed
                ? PlacedTable.PLACE
                : Telling.categories(dataset).stream().findFirst().orElse(null);
        if (category == null || (question == Question.CHANGED ? time == null : !placed)) return List.of();
        boolean history = question == Question.CHANGED;
        return List.of(new Proposal(
                history
                        ? "What is unlikely in " + ColumnWords.of(measure) + ", beside its own history"
                        : "Where " + ColumnWords.of(measure) + " is unlikely, beside the neighbours",
                new UnlikelyList(
                        null,
                        null,
                        "",
                        dataset.id(),
                        category,
                        measure,
                        history ? time : null,
                        null,
                        null,
                        null,
                        null,
                        null),
                10,
                10));
    }

    @Override
    public Ingredients ingredients(UnlikelyList list) {
        return new Ingredients(
                list.dataset(),
                List.of(list.category()),
                List.of(list.measure()),
                list.time(),
                list.rule(),
                null,
                null);
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        Optional<String> category = from.categories().stream()
                .findFirst()
                .or(() -> Telling.categories(dataset).stream().findFirst());
        String time = from.time() != null ? from.time() : Telling.time(dataset).orElse(null);
        boolean isPlace =
                category.isPresent() && (category.get().equals(PlacedTable.PLACE) || RolledUp.isOne(category.get()));
        if (category.isEmpty() || time == null && !isPlace) return Optional.empty();
        Measure measure = from.measuresOrRows().get(0).plain();
        return Optional.of(new Become(
                new UnlikelyList(
                        page,
                        at,
                        title,
                        dataset.id(),
                        category.get(),
                        measure,
                        time,
                        null,
                        null,
                        null,
                        from.rule(),
                        null),
                from.left(category.get(), measure, true)));
    }
}
