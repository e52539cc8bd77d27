package sarnik.visual.player;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Telling;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.TimeStep;
import sarnik.state.ReaderState;
import sarnik.state.Value;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.visual.Asked;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Playing;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.StepWords;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;
import sarnik.visual.player.Player.Mode;

/** The kind of visual that plays time. */
public final class PlayerKind implements VisualKind<Player> {

    /** With more steps nobody finds one. */
    static final int MOST_STEPS = 10_000;

    private static final int USUAL_SPEED = 2;
    private static final List<Integer> SPEEDS = List.of(1, 2, 4, 10);
    private static final List<Integer> WINDOWS = List.of(2, 3, 4, 7, 12, 28, 52);

    private static final Slot COLUMN =
            Slot.at("/column", "column", "{\"$ref\": \"#/$defs/column\"}").needed();
    private static final Slot ALSO = Slot.at(
            "/also",
            "columns of other datasets",
            "{\"type\": [\"object\", \"null\"], \"maxProperties\": 12, \"additionalProperties\": {\"$ref\": \"#/$defs/column\"}}");
    private static final Slot STEP = Slot.at(
            "/step",
            "step",
            "{\"enum\": [\"MINUTE\", \"HOUR\", \"DAY\", \"WEEK\", \"MONTH\", \"QUARTER\", \"YEAR\", null]}");
    private static final Slot MODE =
            Slot.at("/mode", "what is shown", "{\"enum\": [\"MOMENT\", \"WINDOW\", \"UP_TO\", null]}");
    private static final Slot WINDOW =
            Slot.at("/window", "steps shown", "{\"type\": [\"integer\", \"null\"], \"minimum\": 1, \"maximum\": 1000}");
    private static final Slot SPEED =
            Slot.at("/speed", "speed", "{\"type\": [\"integer\", \"null\"], \"minimum\": 1, \"maximum\": 30}");
    private static final Slot REPEAT = Slot.at("/repeat", "at the end", "{\"type\": [\"boolean\", \"null\"]}");
    private static final Slot WORDS = Slot.at("/words", "words of the moment", "{\"$ref\": \"#/$defs/words\"}");

    private static final Slot MEASURE =
            Slot.at("/measure", "spread", "{\"anyOf\": [{\"type\": \"null\"}, {\"$ref\": \"#/$defs/measure\"}]}");

    @Override
    public String name() {
        return "player";
    }

    @Override
    public Class<Player> type() {
        return Player.class;
    }

    @Override
    public Class<PlayerDrawing> drawing() {
        return PlayerDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 8h8M2 8V6M4 8V4M6 8V5M8 8V3M4 1v2";
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, COLUMN, ALSO, STEP, MODE, WINDOW, SPEED, REPEAT, WORDS, MEASURE, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Player.class);
    }

    @Override
    public List<String> asked() {
        return List.of("player", "plays");
    }

    @Override
    public String words(Player player) {
        return phrase("the player of {0}", ColumnWords.of(player.column()));
    }

    @Override
    public Set<Long> datasets(Player player) {
        Set<Long> ids = new LinkedHashSet<>(Set.of(player.dataset()));
        if (player.also() != null) ids.addAll(player.also().keySet());
        return ids;
    }

    @Override
    public ReaderState.Part part() {
        return ReaderState.Part.MOMENT;
    }

    @Override
    public Optional<Value> moment(Player player, String text, Datasets datasets) {
        return datasets.ready(player.dataset())
                .flatMap(d -> d.table().find(player.column()))
                .filter(Choices::isTime)
                .flatMap(column -> playing(player, column).read(text));
    }

    @Override
    public Optional<Playing> plays(Player player, Datasets datasets) {
        return datasets.ready(player.dataset())
                .flatMap(d -> d.table().find(player.column()))
                .filter(Choices::isTime)
                .map(column -> playing(player, column));
    }

    private static Playing playing(Player player, Column column) {
        return new Playing(player.sources(), step(player, column), player.shows() == Mode.UP_TO);
    }

    /** The step that was chosen, where the column has such steps; else one that suits it. */
    private static TimeStep step(Player player, Column column) {
        boolean fits = player.step() != null
                && (column.type() == ColumnType.TIME || !player.step().needsTime());
        return fits ? player.step() : StepWords.stepFor(column);
    }

    @Override
    public Plan plan(Player player, Scene scene) {
        LoadedDataset dataset = scene.dataset(player.dataset());
        Column column = dataset.table()
                .find(player.column())
                .orElseThrow(() -> new MisfitException(phrase("There is no column “{0}” any more", player.column())));
        if (!Choices.isTime(column))
            throw new MisfitException(phrase(
                    "“{0}” holds {1}, which cannot be played",
                    player.column(), column.type().said()));
        TimeStep step = step(player, column);
        Plan plan = new Plan();
        List<GroupKey> key = List.of(new GroupKey.Step(player.column(), step, null));
        Asked whole = plan.ask(
                dataset, Query.by(dataset.rules(), key, List.of(Measure.ROWS)).filled());
        Asked shown = plan.ask(
                dataset,
                Query.by(scene.shown(dataset, player.rule()), key, List.of(player.spread()))
                        .filled());
        return plan.drawn(answers -> draw(player, step, answers.of(whole), answers.of(shown)));
    }

    private static PlayerDrawing draw(Player player, TimeStep step, Frame whole, Frame shown) {
        Map<Long, Double> all = rows(step, whole);
        Map<Long, Double> left = rows(step, shown);
        long first = all.keySet().stream().mapToLong(n -> n).min().orElse(0);
        long last = all.keySet().stream().mapToLong(n -> n).max().orElse(-1);
        if (last - first >= MOST_STEPS)
            throw new MisfitException(phrase(
                    "There are {0} steps of a {1} from {2} to {3}; a player moves over up to {4}. Choose a longer step in its brief.",
                    last - first + 1, step.said(), StepWords.of(step, first), StepWords.of(step, last), MOST_STEPS));
        double most = Math.max(
                Double.MIN_NORMAL,
                left.values().stream().mapToDouble(n -> n).max().orElse(1));
        List<String> steps = new ArrayList<>();
        List<String> labels = new ArrayList<>();
        List<Integer> spread = new ArrayList<>();
        List<String> missing = new ArrayList<>();
        for (long number = first; number <= last; number++) {
            steps.add(step.text(number));
            labels.add(StepWords.of(step, number));
            boolean none = !all.containsKey(number);
            if (none) missing.add(StepWords.of(step, number));
            spread.add(none ? -1 : (int) Math.ceil(100 * Math.max(0, left.getOrDefault(number, 0.0)) / most));
        }
        return new PlayerDrawing(
                Scene.titleOf(player, ColumnWords.of(player.column())),
                steps,
                labels,
                spread,
                player.shows(),
                player.steps(),
                player.speed() == null ? USUAL_SPEED : player.speed(),
                Boolean.TRUE.equals(player.repeat()),
                player.words() == null || player.words().isBlank() ? "{moment}" : player.words(),
                step.said(),
                note(step, steps.size(), missing),
                Trail.of(shown.trail()));
    }

    private static String note(TimeStep step, int count, List<String> missing) {
        if (count == 0) return phrase("There is no row with a moment.");
        if (count == 1) return phrase("All rows lie in one {0}, so there is nothing to play.", step.said());
        if (missing.isEmpty()) return "";
        return missing.size() == 1
                ? phrase("The data have nothing of {0}.", missing.get(0))
                : phrase("The data have nothing of {0}, first {1}.", step.counted(missing.size()), missing.get(0));
    }

    private static Map<Long, Double> rows(TimeStep step, Frame frame) {
        Map<Long, Double> rows = new HashMap<>();
        for (int g = 0; g < frame.size(); g++)
            if (!Double.isNaN(frame.value(0, g))) rows.put(step.number(frame.key(0, g)), frame.value(0, g));
        return rows;
    }

    @Override
    public void brief(Player player, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(player.dataset());
        Column column = dataset.table().find(player.column()).orElse(null);
        boolean times = column != null && column.type() == ColumnType.TIME;
        line.say("The reader plays ");
        line.choose(COLUMN, ColumnWords.of(player.column()), Choices.times(dataset));
        line.say(" of " + dataset.name());
        also(player, line, choices, datasets);
        line.say(" by the ");
        TimeStep now = column != null && Choices.isTime(column) ? step(player, column) : TimeStep.DAY;
        line.choose(
                STEP,
                now.words(),
                Arrays.stream(TimeStep.values())
                        .filter(step -> !step.comesAgain() && (times || !step.needsTime()))
                        .map(step -> new Option(step.words(), "", step.name()))
                        .toList());
        line.say(": ");
        line.choose(
                MODE,
                words(player.shows(), now),
                Arrays.stream(Mode.values())
                        .map(mode -> new Option(words(mode, now), "", mode.name()))
                        .toList());
        if (player.shows() == Mode.WINDOW) {
            line.say(" of ");
            line.choose(
                    WINDOW,
                    player.steps() + " " + now.words() + "s",
                    WINDOWS.stream()
                            .map(n -> new Option(n + " " + now.words() + "s", "", n))
                            .toList());
        }
        line.say(", at ");
        int speed = player.speed() == null ? USUAL_SPEED : player.speed();
        line.choose(
                SPEED,
                speed + (speed == 1 ? " step" : " steps") + " a second",
                SPEEDS.stream()
                        .map(n -> new Option(n + (n == 1 ? " step" : " steps") + " a second", "", n))
                        .toList());
        line.say(", ");
        line.choose(
                REPEAT,
                Boolean.TRUE.equals(player.repeat()) ? "again and again" : "once",
                List.of(new Option("once", "and it stays at the end", false), new Option("again and again", "", true)));
        boolean plain = player.words() == null || player.words().isBlank();
        line.say(plain ? " " : ", said as ");
        line.slot(
                WORDS,
                plain ? "+ own words for the moment" : "“" + player.words() + "”",
                Kind.TYPED,
                plain,
                !plain,
                List.of(new Option(plain ? "Now: {moment}" : player.words(), "", "{moment}")));
        line.say(", over the spread of ");
        line.choose(MEASURE, ColumnWords.of(player.spread()), choices.measures(dataset));
        Choices.rule(line, player.rule(), dataset);
        line.say(".");
    }

    private static String words(Mode mode, TimeStep step) {
        return switch (mode) {
            case MOMENT -> "each " + step.words() + " alone";
            case WINDOW -> "a window";
            case UP_TO -> "all up to it";
        };
    }

    private static void also(Player player, BriefLine line, Choices choices, Datasets datasets) {
        List<Option> options = new ArrayList<>();
        choices.datasets().forEach((id, name) -> {
            if (id == player.dataset()) return;
            datasets.ready(id)
                    .ifPresent(other -> Choices.times(other)
                            .forEach(o -> options.add(new Option(
                                    o.text() + " of " + other.name(),
                                    o.hint(),
                                    Choices.map(String.valueOf(id), o.value())))));
        });
        boolean none = player.also() == null || player.also().isEmpty();
        if (options.isEmpty() && none) return;
        String words = none
                ? "+ of another dataset as well"
                : String.join(
                        " and ",
                        player.also().entrySet().stream()
                                .map(e -> ColumnWords.of(e.getValue()) + " of "
                                        + datasets.ready(e.getKey())
                                                .map(LoadedDataset::name)
                                                .orElse("a dataset that has gone"))
                                .toList());
        line.say(none ? " " : " and ");
        line.may(ALSO, words, none, options);
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.CHANGED && question != Question.LET_CHOOSE) return List.of();
        return Telling.time(dataset)
                .map(column -> new Proposal(
                        "Play " + ColumnWords.of(column) + " for the whole page",
                        new Player(
                                null,
                                null,
                                "",
                                dataset.id(),
                                column,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null),
                        12,
                        3))
                .map(List::of)
                .orElse(List.of());
    }

    @Override
    public Ingredients ingredients(Player player) {
        return Ingredients.NONE;
    }
}
