package sarnik.visual.lines;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Over;
import sarnik.query.TimeStep;
import sarnik.scale.Palette;
import sarnik.visual.AlongTime;
import sarnik.visual.Answers;
import sarnik.visual.Axis;
import sarnik.visual.CategoryColours;
import sarnik.visual.Clock;
import sarnik.visual.Period;
import sarnik.visual.Reference;
import sarnik.visual.Scene;
import sarnik.visual.StepWords;
import sarnik.visual.Trail;
import sarnik.visual.Written;

/** What is drawn of the answers to the questions of lines. */
record LinesDrawer(Lines lines, LoadedDataset dataset, TimeStep step, List<Measure> measures, Scene scene) {

    private static final int MOST_TICKS = 6;

    /**
     * @param asked the values by category, where there are some, and step
     * @param ranked the categories that have a line; null without categories
     * @param before the values of a year before; null without them
     * @param isStretch whether those are of the same stretch alone
     */
    LinesDrawing of(
            AlongTime asked, Frame ranked, Frame before, boolean isStretch, CategoryColours colours, Answers answers) {
        Frame frame = asked.of(answers);
        int timeKey = frame.keys().size() - 1;
        List<String> notes = new ArrayList<>();
        if (lines.step() == null) notes.add(phrase("A point a {0}: chosen by the span of the data.", step.said()));
        asked.note(notes);
        long[] numbers = IntStream.range(0, frame.size())
                .mapToLong(g -> step.number(frame.key(timeKey, g)))
                .toArray();
        long first = Arrays.stream(numbers).min().orElse(0);
        long last = Arrays.stream(numbers).max().orElse(-1);
        if (last - first >= LinesKind.MOST_STEPS) {
            throw new MisfitException(phrase(
                    "A point a {0} makes {1} of them, more than can be drawn. Choose a longer step",
                    step.said(), last - first + 1));
        }
        int count = (int) (last - first + 1);
        Written written = Written.of(dataset, measures.get(0), lines.format());
        List<LinesDrawing.Line> drawn = ranked == null
                ? byMeasure(frame, numbers, first, count, before, isStretch, notes)
                : byCategory(frame, numbers, first, count, ranked, colours, written, notes);
        Lines.Style style = lines.style() == null ? Lines.Style.LINES : lines.style();
        for (Measure measure : measures)
            if (style == Lines.Style.STACKED && !addsUp(measure)) {
                notes.add(phrase("“{0}” does not add up, so the lines are not stacked.", ColumnWords.brief(measure)));
                style = Lines.Style.LINES;
            }
        boolean stacked = style == Lines.Style.STACKED;
        if (stacked) drawn = stacked(drawn);
        boolean fromZero = stacked || style == Lines.Style.AREAS;
        double[] all = drawn.stream()
                .flatMapToDouble(l -> Arrays.stream(l.values()))
                .filter(Double::isFinite)
                .toArray();
        List<Reference.Drawn> references =
                Reference.drawn(lines.references(), compared(drawn, stacked), scene, written);
        double[] ends = DoubleStream.concat(
                        Arrays.stream(all), references.stream().flatMapToDouble(Reference.Drawn::ends))
                .sorted()
                .toArray();
        double least = ends.length == 0 ? 0 : ends[0];
        double most = ends.length == 0 ? 1 : ends[ends.length - 1];
        // Changes are read against zero where they are small beside the values only if zero is far away.
        boolean near = least >= 0 && least < most * 0.4;
        String words =
                String.join(", ", measures.stream().map(m -> ColumnWords.of(m)).toList());
        if (count == 1) notes.add(phrase("All rows lie in one {0}, so there is a point and no line.", step.said()));
        return new LinesDrawing(
                Scene.titleOf(lines, phrase("{0} by {1}", words, step.said())),
                lines.zone() == null
                        ? phrase("{0} by {1} of {2}", words, step.said(), ColumnWords.of(lines.time()))
                        : phrase(
                                "{0} by {1} of {2}, {3}",
                                words, step.said(), ColumnWords.of(lines.time()), Clock.words(lines.zone())),
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
                style.name().toLowerCase(Locale.ROOT),
                references,
                lines.pinned() == null ? List.of() : lines.pinned(),
                notes,
                Trail.of(frame.trail()));
    }

    /** What means and medians are of: all that is measured now, or how high all of it stands together. */
    private static double[] compared(List<LinesDrawing.Line> drawn, boolean stacked) {
        List<LinesDrawing.Line> now = drawn.stream().filter(l -> !l.ghost()).toList();
        return now.subList(stacked && !now.isEmpty() ? now.size() - 1 : 0, now.size()).stream()
                .flatMapToDouble(l -> Arrays.stream(l.values()))
                .toArray();
    }

    /** Whether lines of a measure may stand on each other; ranks may not, all else as what it is worked out of. */
    private boolean addsUp(Measure measure) {
        boolean isRank = measure.over() != null && measure.over().kind() == Over.Kind.RANK;
        return !isRank && dataset.addsUp(measure.plain());
    }

    private List<String> days(long from, int count) {
        return LongStream.range(from, from + count)
                .mapToObj(
                        n -> step.needsTime() ? step.text(n) : step.firstDay(n).toString())
                .toList();
    }

    private List<LinesDrawing.Line> byMeasure(
            Frame frame, long[] numbers, long first, int count, Frame before, boolean isStretch, List<String> notes) {
        List<String> colours = Palette.ALL.get("flags").colours(Math.max(1, measures.size()));
        List<LinesDrawing.Line> drawn = new ArrayList<>();
        for (int m = 0; m < measures.size(); m++) {
            Written written = Written.of(dataset, measures.get(m), lines.format());
            double[] values = empty(count);
            for (int g = 0; g < numbers.length; g++) values[(int) (numbers[g] - first)] = frame.value(m, g);
            Over over = measures.get(m).over();
            if (before != null && !isStretch && over != null && over.kind().isOfAll())
                notes.add(phrase(
                        "What is shown is no single stretch of time, so “{0}” has no year before.",
                        ColumnWords.brief(measures.get(m))));
            else if (before != null) {
                double[] ghost = yearBefore(before, m, first, count);
                drawn.add(new LinesDrawing.Line(
                        phrase("a year before"), colours.get(m), ghost, null, texts(ghost, written), true));
            }
            drawn.add(new LinesDrawing.Line(
                    ColumnWords.brief(measures.get(m)), colours.get(m), values, null, texts(values, written), false));
        }
        return drawn;
    }

    /** The values of the same steps a year before: of the same month, of the same week, of the same date. */
    private double[] yearBefore(Frame earlier, int measure, long first, int count) {
        Map<Long, Double> known = new HashMap<>();
        for (int g = 0; g < earlier.size(); g++) known.put(step.number(earlier.key(0, g)), earlier.value(measure, g));
        double[] values = empty(count);
        for (int i = 0; i < count; i++) {
            LocalDate day = step.firstDay(first + i);
            long before = step == TimeStep.WEEK
                    ? first + i - Period.WEEKS_A_YEAR
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
            notes.add(phrase(
                    "{0, plural, one {# more has no line of its own} other {# more have no line of their own}}; a rank in the brief says which have one.",
                    others));
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

    /** One on top of the other, and those of a year before on theirs; where one has no value nothing is added. */
    private static List<LinesDrawing.Line> stacked(List<LinesDrawing.Line> lines) {
        List<LinesDrawing.Line> stacked = new ArrayList<>();
        Map<Boolean, double[]> bases = new HashMap<>();
        for (LinesDrawing.Line line : lines) {
            double[] base = bases.get(line.ghost());
            double[] from = base == null ? new double[line.values().length] : base.clone();
            double[] to = from.clone();
            for (int i = 0; i < to.length; i++) if (Double.isFinite(line.values()[i])) to[i] += line.values()[i];
            stacked.add(new LinesDrawing.Line(line.label(), line.colour(), to, from, line.texts(), line.ghost()));
            bases.put(line.ghost(), to);
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
