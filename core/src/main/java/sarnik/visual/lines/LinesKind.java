package sarnik.visual.lines;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
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
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.Format;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Ranking;
import sarnik.data.Telling;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.Stage;
import sarnik.query.TimeStep;
import sarnik.scale.Palette;
import sarnik.state.Value;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.visual.Asked;
import sarnik.visual.Axis;
import sarnik.visual.Box;
import sarnik.visual.CategoryColours;
import sarnik.visual.Clock;
import sarnik.visual.Ingredients;
import sarnik.visual.Period;
import sarnik.visual.Picked;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Reference;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.StepWords;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;
import sarnik.visual.Written;

/** The kind of visual that says how something has changed: lines over time. Gaps stay gaps. */
public final class LinesKind implements VisualKind<Lines> {

    /** More lines than this cannot be told apart. */
    static final int MOST_LINES = 8;

    /** More steps than this are more than there are pixels to draw them with. */
    static final int MOST_STEPS = 20_000;

    private static final int MOST_TICKS = 6;

    private static final Slot TIME =
            Slot.at("/time", "column of time", "{\"$ref\": \"#/$defs/column\"}").needed();
    private static final Slot STEP = Slot.at(
            "/step",
            "step of time",
            "{\"enum\": [\"MINUTE\", \"HOUR\", \"DAY\", \"WEEK\", \"MONTH\", \"QUARTER\", \"YEAR\", null]}");
    private static final Slot ZONE = Slot.at("/zone", "clock", Clock.SCHEMA);
    private static final Slot MEASURES = Slot.at(
                    "/measures",
                    "measures",
                    "{\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/measure\"}, \"minItems\": 1, \"maxItems\": 8}")
            .needed();
    private static final Slot CATEGORY =
            Slot.at("/category", "a line for each", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");
    private static final Slot STYLE = Slot.at(
            "/style",
            "how they are drawn",
            "{\"enum\": [\"LINES\", \"DOTS\", \"STEPS\", \"AREAS\", \"STACKED\", null]}");
    private static final Slot BEFORE = Slot.at("/before", "the year before", "{\"type\": [\"boolean\", \"null\"]}");

    @Override
    public String name() {
        return "lines";
    }

    @Override
    public Class<Lines> type() {
        return Lines.class;
    }

    @Override
    public Class<LinesDrawing> drawing() {
        return LinesDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 8l3-4 2 2 3-5";
    }

    @Override
    public List<Slot> slots() {
        return List.of(
                Slots.DATASET,
                TIME,
                STEP,
                ZONE,
                MEASURES,
                CATEGORY,
                Slots.RANK,
                STYLE,
                BEFORE,
                Slots.REFERENCES,
                Slots.PINNED,
                Slots.COLOUR,
                Slots.FORMAT,
                Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Lines.class, Reference.class, Format.class);
    }

    @Override
    public String words(Lines lines) {
        return "the lines of " + ColumnWords.of(lines.measures().get(0));
    }

    @Override
    public Set<Long> datasets(Lines lines) {
        return Set.of(lines.dataset());
    }

    @Override
    public Optional<Source> picks(Lines lines) {
        return Optional.of(new Source(lines.dataset(), lines.time()));
    }

    @Override
    public Picked picked(Lines lines, Value.Pick pick, Scene scene) {
        if (lines.zone() == null || !(pick instanceof Value.Span span))
            return VisualKind.super.picked(lines, pick, scene);
        // What a clock shows is no stretch of the moments themselves where it goes back or each place has its own.
        TimeStep step = step(scene.dataset(lines.dataset()).table().find(lines.time()), lines);
        TimeStep by = step.needsTime() ? step : TimeStep.DAY;
        long first = by.number(span.from());
        long last = Math.min(by.number(span.to()), first + MOST_STEPS);
        return new Picked.InGroups(
                by,
                lines.zone(),
                LongStream.rangeClosed(first, last).mapToObj(by::text).toList());
    }

    private static TimeStep step(Optional<Column> time, Lines lines) {
        return lines.step() != null
                ? lines.step()
                : time.map(StepWords::stepFor).orElse(TimeStep.DAY);
    }

    @Override
    public String pickWords(Lines lines, Value.Pick pick, Datasets datasets) {
        if (!(pick instanceof Value.Span span)) return VisualKind.super.pickWords(lines, pick, datasets);
        return span.from().equals(span.to())
                ? ColumnWords.of(lines.time()) + " " + day(span.from())
                : ColumnWords.of(lines.time()) + " from " + day(span.from()) + " to " + day(span.to());
    }

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.ENGLISH);

    private static String day(String text) {
        try {
            return DAY.format(LocalDate.parse(text.length() > 10 ? text.substring(0, 10) : text));
        } catch (DateTimeException unreadable) {
            return text;
        }
    }

    @Override
    public boolean uses(Lines lines, String parameter) {
        return Reference.uses(lines.references(), parameter);
    }

    @Override
    public Stream<String> places(Lines lines, String parameter) {
        return Slots.references(lines.references(), parameter);
    }

    // --- drawing ----------------------------------------------------------------------------------------

    @Override
    public boolean hasKey(Lines visual) {
        return visual.category() != null || visual.measures().size() > 1;
    }

    @Override
    public Plan plan(Lines lines, Scene scene) {
        LoadedDataset dataset = scene.dataset(lines.dataset());
        Column column = dataset.table()
                .find(lines.time())
                .orElseThrow(() -> new MisfitException("There is no column “" + lines.time() + "” any more"));
        if (!Choices.isTime(column))
            throw new MisfitException("“" + lines.time() + "” holds "
                    + column.type().words() + " and no dates any more, so there is no line over it");
        TimeStep step = step(Optional.of(column), lines);
        if (step.needsTime() && column.type() != ColumnType.TIME)
            throw new MisfitException("“" + lines.time() + "” holds days, which cannot be cut into " + step.words()
                    + "s. Choose a longer step");
        List<Stage> shown = scene.shown(dataset, lines.rule());
        GroupKey time = new GroupKey.Step(lines.time(), step, lines.zone());
        List<GroupKey> keys =
                lines.category() == null ? List.of(time) : List.of(new GroupKey.Of(lines.category()), time);
        List<Measure> measures =
                lines.category() == null ? lines.measures() : lines.measures().subList(0, 1);
        Plan plan = new Plan();
        Asked asked = plan.ask(dataset, Query.by(shown, keys, measures).filled());
        Asked ranked = lines.category() == null
                ? null
                : plan.ask(
                        dataset,
                        Query.of(
                                        shown,
                                        List.of(lines.category()),
                                        List.of(measures.get(0).plain()))
                                .filled()
                                .ranked(rank(lines)));
        Asked yearBefore = Boolean.TRUE.equals(lines.before()) && lines.category() == null
                ? plan.ask(
                        dataset,
                        Query.by(Period.without(lines.time(), shown), keys, measures)
                                .filled())
                : null;
        CategoryColours colours =
                lines.category() == null ? null : CategoryColours.of(dataset, lines.category(), lines.colour(), scene);
        return plan.drawn(answers -> new Drawn(lines, dataset, step, measures, scene)
                .of(
                        answers.of(asked),
                        ranked == null ? null : answers.of(ranked),
                        yearBefore == null ? null : answers.of(yearBefore),
                        colours));
    }

    private static Rank rank(Lines lines) {
        Ranking rank = lines.rank();
        return rank == null
                ? new Rank(0, Rank.End.TOP, MOST_LINES, false)
                : new Rank(0, rank.end(), Math.min(rank.count(), MOST_LINES), false);
    }

    /** What is drawn of the answers. */
    private record Drawn(Lines lines, LoadedDataset dataset, TimeStep step, List<Measure> measures, Scene scene) {

        LinesDrawing of(Frame frame, Frame ranked, Frame anyTime, CategoryColours colours) {
            int timeKey = frame.keys().size() - 1;
            List<String> notes = new ArrayList<>();
            if (lines.step() == null) notes.add("A point a " + step.words() + ": chosen by the span of the data.");
            long[] numbers = IntStream.range(0, frame.size())
                    .mapToLong(g -> step.number(frame.key(timeKey, g)))
                    .toArray();
            long first = Arrays.stream(numbers).min().orElse(0);
            long last = Arrays.stream(numbers).max().orElse(-1);
            if (last - first >= MOST_STEPS) {
                throw new MisfitException("A point a %s makes %,d of them, more than can be drawn. Choose a longer step"
                        .formatted(step.words(), last - first + 1));
            }
            int count = (int) (last - first + 1);
            Written written = Written.of(dataset, measures.get(0), lines.format());
            List<LinesDrawing.Line> drawn = ranked == null
                    ? byMeasure(frame, numbers, first, count, anyTime)
                    : byCategory(frame, numbers, first, count, ranked, colours, written, notes);
            boolean stacked = lines.style() == Lines.Style.STACKED;
            if (stacked) drawn = stacked(drawn);
            boolean fromZero = stacked || lines.style() == Lines.Style.AREAS;
            double[] all = drawn.stream()
                    .flatMapToDouble(l -> Arrays.stream(l.values()))
                    .filter(Double::isFinite)
                    .toArray();
            List<Reference.Drawn> references = Reference.drawn(lines.references(), all, scene, written);
            double[] ends = DoubleStream.concat(
                            Arrays.stream(all), references.stream().flatMapToDouble(Reference.Drawn::ends))
                    .sorted()
                    .toArray();
            double least = ends.length == 0 ? 0 : ends[0];
            double most = ends.length == 0 ? 1 : ends[ends.length - 1];
            // Changes are read against zero where they are small beside the values only if zero is far away.
            boolean near = least >= 0 && least < most * 0.4;
            String words = String.join(
                    ", ", measures.stream().map(m -> ColumnWords.of(m)).toList());
            if (count == 1) notes.add("All rows lie in one " + step.words() + ", so there is a point and no line.");
            return new LinesDrawing(
                    Scene.titleOf(lines, words + " by " + step.words()),
                    words + " by " + step.words() + " of " + ColumnWords.of(lines.time())
                            + (lines.zone() == null ? "" : ", " + Clock.words(lines.zone())),
                    LongStream.range(first, first + count).mapToObj(step::text).toList(),
                    days(first, count),
                    days(first + 1, count).stream()
                            .map(d -> step.needsTime() || d == null
                                    ? d
                                    : LocalDate.parse(d).minusDays(1).toString())
                            .toList(),
                    ticks(first, count),
                    drawn,
                    Axis.of(least, most, fromZero || near, written, dataset.words(measures.get(0))),
                    (lines.style() == null ? Lines.Style.LINES : lines.style())
                            .name()
                            .toLowerCase(Locale.ROOT),
                    references,
                    lines.pinned() == null ? List.of() : lines.pinned(),
                    notes,
                    Trail.of(frame.trail()));
        }

        private List<String> days(long from, int count) {
            return LongStream.range(from, from + count)
                    .mapToObj(n ->
                            step.needsTime() ? step.text(n) : step.firstDay(n).toString())
                    .toList();
        }

        private List<LinesDrawing.Line> byMeasure(Frame frame, long[] numbers, long first, int count, Frame anyTime) {
            List<String> colours = Palette.ALL.get("flags").colours(Math.max(1, measures.size()));
            List<LinesDrawing.Line> drawn = new ArrayList<>();
            for (int m = 0; m < measures.size(); m++) {
                Written written = Written.of(dataset, measures.get(m), lines.format());
                double[] values = empty(count);
                for (int g = 0; g < numbers.length; g++) values[(int) (numbers[g] - first)] = frame.value(m, g);
                if (anyTime != null) {
                    double[] ghost = yearBefore(anyTime, m, first, count);
                    drawn.add(new LinesDrawing.Line(
                            "a year before", colours.get(m), ghost, null, texts(ghost, written), true));
                }
                drawn.add(new LinesDrawing.Line(
                        ColumnWords.brief(measures.get(m)),
                        colours.get(m),
                        values,
                        null,
                        texts(values, written),
                        false));
            }
            return drawn;
        }

        /** The values of the same steps a year before: of the same month, of the same week, of the same date. */
        private double[] yearBefore(Frame anyTime, int measure, long first, int count) {
            Map<Long, Double> known = new HashMap<>();
            for (int g = 0; g < anyTime.size(); g++)
                known.put(step.number(anyTime.key(0, g)), anyTime.value(measure, g));
            double[] values = empty(count);
            for (int i = 0; i < count; i++) {
                LocalDate day = step.firstDay(first + i);
                // Weeks are compared with weeks: 52 of them before, which begins on the same weekday.
                long before = step == TimeStep.WEEK
                        ? first + i - 52
                        : step.needsTime()
                                ? step.number(day.minusYears(1).toEpochDay(), minute(first + i))
                                : step.number(day.minusYears(1).toEpochDay(), 0);
                values[i] = known.getOrDefault(before, Double.NaN);
            }
            return values;
        }

        private int minute(long number) {
            return step == TimeStep.MINUTE ? (int) Math.floorMod(number, 1440L) : (int) Math.floorMod(number, 24L) * 60;
        }

        private List<LinesDrawing.Line> byCategory(
                Frame frame,
                long[] numbers,
                long first,
                int count,
                Frame ranked,
                CategoryColours colours,
                Written written,
                List<String> notes) {
            Map<String, double[]> byValue = new LinkedHashMap<>();
            List<String> kept = IntStream.range(0, ranked.size())
                    .boxed()
                    .sorted(Comparator.comparingDouble(g -> -ranked.value(0, g)))
                    .map(g -> ranked.key(0, g))
                    .toList();
            kept.forEach(value -> byValue.put(value, empty(count)));
            int others = 0;
            String last = null;
            for (int g = 0; g < numbers.length; g++) {
                double[] values = byValue.get(frame.key(0, g));
                if (values != null) values[(int) (numbers[g] - first)] = frame.value(0, g);
                else if (!frame.key(0, g).equals(last)) others++;
                last = frame.key(0, g);
            }
            if (others > 0)
                notes.add("%,d more %s no line of %s own; a rank in the brief says which have one."
                        .formatted(others, others == 1 ? "has" : "have", others == 1 ? "its" : "their"));
            List<LinesDrawing.Line> drawn = new ArrayList<>();
            byValue.forEach((value, values) -> drawn.add(new LinesDrawing.Line(
                    dataset.label(lines.category(), value),
                    colours.of(value),
                    values,
                    null,
                    texts(values, written),
                    false)));
            return drawn;
        }

        private static double[] empty(int count) {
            double[] values = new double[count];
            Arrays.fill(values, Double.NaN);
            return values;
        }

        private static List<String> texts(double[] values, Written written) {
            return Arrays.stream(values).mapToObj(written::full).toList();
        }

        /** One on top of the other; where one has no value nothing is added. */
        private static List<LinesDrawing.Line> stacked(List<LinesDrawing.Line> lines) {
            List<LinesDrawing.Line> stacked = new ArrayList<>();
            double[] base = null;
            for (LinesDrawing.Line line : lines) {
                double[] from = base == null ? new double[line.values().length] : base.clone();
                double[] to = from.clone();
                for (int i = 0; i < to.length; i++) if (Double.isFinite(line.values()[i])) to[i] += line.values()[i];
                stacked.add(new LinesDrawing.Line(line.label(), line.colour(), to, from, line.texts(), line.ghost()));
                base = to;
            }
            return stacked;
        }

        private List<LinesDrawing.Mark> ticks(long first, int count) {
            List<LinesDrawing.Mark> marks = new ArrayList<>();
            int every = Math.max(1, (int) Math.ceil(count / (double) MOST_TICKS));
            for (int i = 0; i < count; i += every) marks.add(new LinesDrawing.Mark(i, StepWords.of(step, first + i)));
            return marks;
        }
    }

    // --- its sentence ----------------------------------------------------------------------------------

    @Override
    public void brief(Lines lines, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(lines.dataset());
        Lines.Style style = lines.style() == null ? Lines.Style.LINES : lines.style();
        List<Option> styles = new ArrayList<>();
        for (Lines.Style s : Lines.Style.values()) styles.add(new Option(s.words(), "", s.name()));
        String first = style.words();
        line.choose(STYLE, Character.toUpperCase(first.charAt(0)) + first.substring(1), styles);
        line.say(" of ");
        line.slot(
                MEASURES,
                String.join(
                        " and ", lines.measures().stream().map(ColumnWords::of).toList()),
                Kind.SET,
                false,
                false,
                choices.measures(dataset));
        Slots.over(line, "/measures/0", lines.measures().get(0));
        for (int m = 1; m < lines.measures().size(); m++)
            Slots.percentile(line, "/measures/" + m, lines.measures().get(m));
        line.say(" in " + dataset.name() + " by ");
        List<Option> steps = new ArrayList<>();
        for (TimeStep s : TimeStep.values()) if (!s.comesAgain()) steps.add(new Option(s.words(), "", s.name()));
        line.slot(
                STEP,
                lines.step() == null ? "a step that suits" : lines.step().words(),
                Kind.CHOSEN,
                false,
                lines.step() != null,
                steps);
        line.say(" of ");
        line.choose(TIME, ColumnWords.of(lines.time()), Choices.times(dataset));
        Clock.write(line, "/zone", lines.zone(), dataset, lines.time());
        line.say(lines.category() == null ? " " : ", one for each ");
        line.may(
                CATEGORY,
                lines.category() == null ? "+ a line for each" : ColumnWords.of(lines.category()),
                lines.category() == null,
                Choices.categories(dataset));
        if (lines.category() != null) Slots.rank(line, lines.rank(), MOST_LINES);
        if (lines.category() == null) {
            boolean before = Boolean.TRUE.equals(lines.before());
            line.say(" ");
            line.may(
                    BEFORE,
                    before ? "with the year before" : "+ the year before",
                    !before,
                    List.of(new Option("with the year before", "as a ghost behind the line", true)));
        }
        Slots.references(line, lines.references(), choices);
        Slots.pinned(line, lines.pinned(), Slots.steps(dataset, lines.time(), lines.step()));
        Choices.rule(line, lines.rule(), dataset);
        line.say(".");
        Slots.format(looks, lines.format());
        if (lines.category() != null) Slots.categoryColour(looks, lines.colour(), choices);
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.CHANGED) return List.of();
        Optional<String> time = Telling.time(dataset);
        if (time.isEmpty()) return List.of();
        List<Proposal> proposals = new ArrayList<>();
        List<Measure> measures =
                new ArrayList<>(Telling.sums(dataset).stream().limit(2).toList());
        measures.add(Measure.ROWS);
        for (Measure measure : measures)
            proposals.add(new Proposal(
                    "How has it changed? " + ColumnWords.of(measure) + " over " + ColumnWords.of(time.get()),
                    of(dataset, time.get(), measure, null),
                    14,
                    8));
        Telling.categories(dataset).stream()
                .filter(c -> Telling.distinct(dataset, c) <= MOST_LINES && !c.startsWith("@"))
                .findFirst()
                .ifPresent(category -> proposals.add(new Proposal(
                        "A line for each " + ColumnWords.of(category) + ": " + ColumnWords.of(measures.get(0)),
                        of(dataset, time.get(), measures.get(0), category),
                        14,
                        8)));
        return proposals;
    }

    private static Lines of(LoadedDataset dataset, String time, Measure measure, String category) {
        return new Lines(
                null,
                null,
                "",
                dataset.id(),
                time,
                null,
                null,
                List.of(measure),
                category,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
    }

    @Override
    public Ingredients ingredients(Lines lines) {
        return new Ingredients(
                lines.dataset(),
                lines.category() == null ? List.of() : List.of(lines.category()),
                lines.measures(),
                lines.time(),
                lines.rule(),
                lines.rank(),
                lines.colour());
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        if (from.dataset() == null) return Optional.empty();
        LoadedDataset dataset = datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        Optional<String> time = Optional.ofNullable(from.time()).or(() -> Telling.time(dataset));
        if (time.isEmpty()) return Optional.empty();
        String category = from.categories().stream()
                .filter(c -> Telling.distinct(dataset, c) <= 200)
                .findFirst()
                .orElse(null);
        List<String> left = from.categories().stream()
                .filter(c -> !c.equals(category))
                .map(ColumnWords::of)
                .toList();
        return Optional.of(new Become(
                new Lines(
                        page,
                        at,
                        title,
                        dataset.id(),
                        time.get(),
                        null,
                        null,
                        from.measuresOrRows(),
                        category,
                        from.rank(),
                        null,
                        null,
                        null,
                        null,
                        from.colour(),
                        null,
                        from.rule()),
                left));
    }
}
