package sarnik.visual.unlikely;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import sarnik.brief.Choices;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.RolledUp;
import sarnik.data.Telling;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.scale.NumberWords;
import sarnik.statistics.Interval;
import sarnik.statistics.Rates;
import sarnik.statistics.Unlikely;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Extremes;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Nearby;
import sarnik.visual.Period;
import sarnik.visual.Plan;
import sarnik.visual.Scene;
import sarnik.visual.StepWords;
import sarnik.visual.Trail;
import sarnik.visual.Written;

/** What is asked and drawn of values that stand out of their own history, of their neighbours, or of other rows. */
final class UnlikelyDrawer {

    private static final int USUAL_COUNT = 20;

    /** So much of a history is drawn. */
    private static final int MOST_DRAWN = 60;

    /** More values of a category than this are more than can be looked at while somebody waits. */
    private static final int MOST_VALUES = 400_000;

    /** Of more rows than this it is not told on which days they were. */
    private static final int MOST_DATED = 250_000;

    private static final int FEWEST_PLACES = 12;
    private static final double THOUSAND = 1000;

    private final UnlikelyList list;
    private final LoadedDataset dataset;
    private final TimeStep step;
    private final LocalDate today;
    private final Column time;
    private final Written written;
    private final Plan plan = new Plan();
    private final Asked all;
    private final Asked inPeriod;

    UnlikelyDrawer(UnlikelyList list, Scene scene) {
        this.list = list;
        LoadedDataset plain = scene.dataset(list.dataset());
        this.dataset = plain.with(list.category());
        this.written = Written.of(
                dataset,
                list.isOfRows() ? new Measure(Summary.MAXIMUM, list.measure().column()) : list.measure(),
                null);
        List<Stage> shown = scene.shown(dataset, list.rule());
        this.today = scene.today();
        if (list.isOfRows()) {
            this.step = null;
            this.time = null;
            this.inPeriod = null;
            this.all = plan.ask(dataset, ofRows(shown));
            return;
        }
        if (list.time() == null) {
            this.step = null;
            this.time = null;
            this.inPeriod = null;
            this.all = plan.ask(
                    dataset,
                    Query.of(shown, List.of(list.category()), List.of(list.measure()))
                            .filled());
            return;
        }
        this.time = dataset.table().find(list.time()).filter(Choices::isTime).orElseThrow(this::noTime);
        this.step = list.step() == null ? StepWords.stepFor(time) : list.step();
        if (step.needsTime() && time.type() != ColumnType.TIME)
            throw new MisfitException(phrase(
                    "“{0}” holds days, which cannot be cut into steps shorter than a day. Choose a longer step",
                    list.time()));
        GroupKey by = new GroupKey.Step(list.time(), step, null);
        // What is usual rests on all of the history, whatever stretch of it is kept.
        this.all = plan.ask(
                dataset,
                Query.by(
                                Period.without(list.time(), shown),
                                List.of(new GroupKey.Of(list.category()), by),
                                List.of(list.measure()))
                        .filled());
        this.inPeriod = plan.ask(
                dataset, Query.by(shown, List.of(by), List.of(list.measure())).filled());
    }

    Plan plan() {
        return plan.drawn(answers -> list.isOfRows()
                ? besideRows(answers)
                : time == null ? besideNeighbours(answers) : besideHistory(answers));
    }

    private MisfitException noTime() {
        return new MisfitException(phrase("There is no column of dates “{0}” any more", ColumnWords.of(list.time())));
    }

    private String words() {
        return list.words();
    }

    private int count() {
        return list.count() == null ? USUAL_COUNT : list.count();
    }

    /**
     * Something that stands out.
     *
     * @param away deviations
     * @param text what it is called
     * @param line what is listed of it, if it is
     */
    private record Found(double away, String text, Supplier<UnlikelyDrawing.Line> line) {}

    private Found found(double away, String key, Supplier<UnlikelyDrawing.Line> line) {
        return new Found(away, dataset.label(list.category(), key), line);
    }

    /** @param standing how many of those that were looked at stand out */
    private UnlikelyDrawing drawn(List<Found> found, long standing, long looked, List<String> notes, Frame frame) {
        List<UnlikelyDrawing.Line> lines = found.stream()
                .sorted(Comparator.comparingDouble((Found f) -> -Math.abs(f.away))
                        .thenComparing(Found::text))
                .limit(count())
                .map(f -> f.line.get())
                .toList();
        if (looked > 0)
            notes.add(phrase(
                    "{0} of {1} stand out by {2} deviations or more, where {3} would if they varied as a normal distribution does. Why, it does not say.",
                    standing,
                    looked,
                    NumberWords.brief(Unlikely.FROM),
                    looked * Rates.chanceOf(Unlikely.FROM) < 1
                            ? phrase("hardly any")
                            : phrase(
                                    "about {0}",
                                    NumberWords.brief(Math.rint(looked * Rates.chanceOf(Unlikely.FROM))))));
        return new UnlikelyDrawing(
                Scene.titleOf(list, phrase("Unlikely values of {0} by {1}", words(), ColumnWords.of(list.category()))),
                lines,
                found.size(),
                (int) Math.min(Integer.MAX_VALUE, looked),
                notes,
                Trail.of(frame.trail()));
    }

    // --- beside their own history ------------------------------------------------------------------------

    private UnlikelyDrawing besideHistory(Answers answers) {
        Frame frame = answers.of(all);
        areNotTooMany(frame.size());
        Frame kept = answers.of(inPeriod);
        Set<Long> listed = new HashSet<>();
        for (int g = 0; g < kept.size(); g++) listed.add(step.number(kept.key(0, g)));
        List<String> notes = new ArrayList<>();
        long[] numbers = IntStream.range(0, frame.size())
                .mapToLong(g -> step.number(frame.key(1, g)))
                .toArray();
        long last = Arrays.stream(numbers).max().orElse(0);
        areNotTooMany(last - Arrays.stream(numbers).min().orElse(0) + 1);
        if (isUnfinished(last)) {
            listed.remove(last);
            String words = StepWords.of(step, last);
            notes.add(
                    step.needsTime()
                            ? phrase("{0} may not be over yet and is left out.", words)
                            : phrase("{0} is not over yet and is left out.", words));
        }
        Map<String, List<Integer>> groups = new LinkedHashMap<>();
        for (int g = 0; g < numbers.length; g++)
            groups.computeIfAbsent(frame.key(0, g), k -> new ArrayList<>()).add(g);
        List<Found> found = new ArrayList<>();
        int looked = 0;
        for (Map.Entry<String, List<Integer>> group : groups.entrySet()) {
            long first =
                    group.getValue().stream().mapToLong(g -> numbers[g]).min().orElse(0);
            double[] series = new double[(int) (last - first + 1)];
            // Nothing counted and nothing sold is nought; an average of nothing is unknown.
            Arrays.fill(series, dataset.addsUp(list.measure()) ? 0 : Double.NaN);
            for (int g : group.getValue()) series[(int) (numbers[g] - first)] = frame.value(0, g);
            double[] away = Unlikely.ofHistory(series, season());
            for (int t = 0; t < series.length; t++) {
                // What comes round in a season is not known before one has passed.
                if (!listed.contains(first + t) || Double.isNaN(away[t]) || t < season()) continue;
                looked++;
                if (Math.abs(away[t]) < Unlikely.FROM) continue;
                int at = t;
                found.add(
                        found(away[t], group.getKey(), () -> historyLine(group.getKey(), series, at, first, away[at])));
            }
        }
        notes.add(
                0,
                phrase(
                        "Each {0} beside those before it of the same {1}, by their middle value and how far half of them lie from it (Iglewicz and Hoaglin 1993).",
                        step.said(), ColumnWords.of(list.category())));
        return drawn(found, found.size(), looked, notes, frame);
    }

    /** Neither the values that are there, nor the steps of time from the first to the last: one may stand far off. */
    private static void areNotTooMany(long values) {
        if (values > MOST_VALUES)
            throw new MisfitException(phrase(
                    "{0} values are more than can be looked at; at most {1}. Choose a longer step or narrow first.",
                    values, MOST_VALUES));
    }

    /** After so many steps the same comes round. */
    private int season() {
        return switch (step) {
            case HOUR -> 24;
            case DAY -> 7;
            case WEEK -> 52;
            case MONTH -> 12;
            case QUARTER -> 4;
            default -> 1;
        };
    }

    /**
     * Whether the data end before the step does, so that less of it is known than of others. Nobody knows of the newest
     * hour whether more of it comes; nor is a step over that today lies in.
     */
    private boolean isUnfinished(long number) {
        Optional<Extremes> ends = time.extremes();
        if (ends.isEmpty()) return false;
        if (step.needsTime()) return true;
        LocalDate last = step.firstDay(number + 1).minusDays(1);
        LocalDate newest = LocalDate.parse(time.text(ends.get().highest()).substring(0, 10));
        return newest.isBefore(last) || !today.isBefore(step.firstDay(number)) && !today.isAfter(last);
    }

    private UnlikelyDrawing.Line historyLine(String key, double[] series, int at, long first, double away) {
        Unlikely.Usual usual = Unlikely.before(series, at, season());
        Interval interval = usual.interval();
        String when = StepWords.of(step, first + at);
        int from = Math.max(0, Math.min(at - MOST_DRAWN * 2 / 3, series.length - MOST_DRAWN));
        double[] drawn = Arrays.copyOfRange(series, from, Math.min(series.length, from + MOST_DRAWN));
        double[] ends = ends(drawn, interval);
        return new UnlikelyDrawing.Line(
                key,
                dataset.label(list.category(), key),
                when,
                written.full(series[at]),
                Double.isInfinite(away)
                        ? phrase(
                                "{0} in {1}; before it was always {2}.",
                                written.full(series[at]), when, written.full(usual.median()))
                        : phrase(
                                "{0} in {1}; of {2} before, {3} was usual. {4} deviations away.",
                                written.full(series[at]),
                                when,
                                step.counted(Math.toIntExact(usual.count())),
                                phrase(
                                        "{0} to {1}",
                                        written.full(usual.median() - usual.deviation()),
                                        written.full(usual.median() + usual.deviation())),
                                NumberWords.brief(Math.abs(away))),
                away > 0,
                within(drawn, ends),
                at - from,
                place(interval.low(), ends),
                place(interval.high(), ends));
    }

    private static double[] ends(double[] values, Interval interval) {
        double low = Arrays.stream(values).filter(Double::isFinite).min().orElse(0);
        double high = Arrays.stream(values).filter(Double::isFinite).max().orElse(1);
        if (interval.isKnown()) {
            low = Math.min(low, Math.max(interval.low(), low - (high - low)));
            high = Math.max(high, Math.min(interval.high(), high + (high - low)));
        }
        return new double[] {low, high > low ? high : low + 1};
    }

    private static double[] within(double[] values, double[] ends) {
        return Arrays.stream(values).map(v -> place(v, ends)).toArray();
    }

    private static double place(double value, double[] ends) {
        return Double.isNaN(value)
                ? Double.NaN
                : Math.rint(Math.max(0, Math.min(1, (value - ends[0]) / (ends[1] - ends[0]))) * THOUSAND) / THOUSAND;
    }

    // --- beside their neighbours -------------------------------------------------------------------------

    private UnlikelyDrawing besideNeighbours(Answers answers) {
        Frame frame = answers.of(all);
        Map<String, Place> places = dataset.placesOf(list.category());
        if (places.isEmpty())
            throw new MisfitException(phrase(
                    "{0} has no places, so it has no neighbours. Choose a column of dates to look at its history.",
                    ColumnWords.of(list.category())));
        int[] placed = IntStream.range(0, frame.size())
                .filter(g -> places.containsKey(frame.key(0, g)))
                .toArray();
        List<String> notes = new ArrayList<>();
        if (placed.length < FEWEST_PLACES) {
            notes.add(phrase(
                    "{0} places are too few to say which stands out of its neighbours; at least {1} are needed.",
                    placed.length, FEWEST_PLACES));
            return drawn(List.of(), 0, 0, notes, frame);
        }
        List<String> ids = Arrays.stream(placed).mapToObj(g -> frame.key(0, g)).toList();
        double[] values =
                Arrays.stream(placed).mapToDouble(g -> frame.value(0, g)).toArray();
        Nearby near = Nearby.of(
                dataset,
                ids,
                ids.stream().mapToDouble(id -> places.get(id).lon()).toArray(),
                ids.stream().mapToDouble(id -> places.get(id).lat()).toArray(),
                set(),
                null,
                list.nearest());
        double[] away = Unlikely.ofNeighbours(values, near.neighbours());
        List<Found> found = new ArrayList<>();
        int looked = 0;
        for (int p = 0; p < away.length; p++) {
            if (Double.isNaN(away[p])) continue;
            looked++;
            if (Math.abs(away[p]) < Unlikely.FROM) continue;
            double[] around = Arrays.stream(near.neighbours().of()[p])
                    .mapToDouble(n -> values[n])
                    .filter(Double::isFinite)
                    .sorted()
                    .toArray();
            int at = p;
            found.add(found(away[p], ids.get(p), () -> neighbourLine(ids.get(at), values[at], around, away[at])));
        }
        notes.add(phrase(
                "Each place beside the middle value of its neighbours, {0}, by what such differences usually are (Iglewicz and Hoaglin 1993).",
                near.words()));
        return drawn(found, found.size(), looked, notes, frame);
    }

    /** The boundary set whose areas are looked at; null where they are other places. */
    private String set() {
        if (RolledUp.isOne(list.category()))
            return RolledUp.set(list.category()).orElse(null);
        return list.category().equals(PlacedTable.PLACE) && dataset.placing() instanceof Placing.ByArea area
                ? area.set()
                : null;
    }

    private UnlikelyDrawing.Line neighbourLine(String key, double value, double[] around, double away) {
        double[] ends = ends(
                IntStream.rangeClosed(0, around.length)
                        .mapToDouble(i -> i < around.length ? around[i] : value)
                        .toArray(),
                Interval.UNKNOWN);
        return new UnlikelyDrawing.Line(
                key,
                dataset.label(list.category(), key),
                null,
                written.full(value),
                phrase(
                        "{0}; its {1} neighbours have {2} to {3}. {4} deviations away.",
                        written.full(value),
                        around.length,
                        written.full(around[0]),
                        written.full(around[around.length - 1]),
                        NumberWords.brief(Math.abs(away))),
                away > 0,
                within(around, ends),
                (int) (place(value, ends) * THOUSAND),
                place(around[0], ends),
                place(around[around.length - 1], ends));
    }

    // --- beside other rows -------------------------------------------------------------------------------

    /** What single rows are dated by: what was chosen, or the column of days or times that tells most. */
    static Optional<String> datedBy(UnlikelyList list, LoadedDataset dataset) {
        return list.time() == null
                ? Telling.time(dataset)
                : dataset.table().find(list.time()).filter(Choices::isTime).map(column -> list.time());
    }

    /** Whether it is told of which days rows are: of very many it would take too long to find out. */
    private boolean isDated() {
        return dataset.table().weight() <= MOST_DATED && datedBy(list, dataset).isPresent();
    }

    /** How many rows of each category have which value, and on which day. */
    private Query ofRows(List<Stage> shown) {
        String column = list.measure().column();
        if (column == null
                || dataset.table()
                        .find(column)
                        .filter(c -> c.type() == ColumnType.WHOLE || c.type() == ColumnType.DECIMAL)
                        .isEmpty())
            throw new MisfitException(phrase(
                    "Single rows have no {0} of their own. Choose a column of numbers to look at its rows", words()));
        if (list.time() != null && datedBy(list, dataset).isEmpty()) throw noTime();
        List<GroupKey> keys = new ArrayList<>(List.of(new GroupKey.Of(list.category()), new GroupKey.Of(column)));
        if (isDated()) keys.add(new GroupKey.Step(datedBy(list, dataset).orElseThrow(), TimeStep.DAY, null));
        return Query.by(shown, keys, List.of(Measure.ROWS)).filled();
    }

    /** Rows of a category that have one value. @param first when the first of them was; null where that is not known */
    private record Alike(double value, long rows, String first, String last) {

        Alike and(Alike other) {
            return new Alike(value, rows + other.rows, edge(first, other.first, -1), edge(last, other.last, 1));
        }

        private static String edge(String one, String other, int sign) {
            if (one == null || other == null) return one == null ? other : one;
            return Integer.signum(one.compareTo(other)) == sign ? one : other;
        }
    }

    private UnlikelyDrawing besideRows(Answers answers) {
        Frame frame = answers.of(all);
        areNotTooMany(frame.size());
        Map<String, Map<Double, Alike>> categories = new LinkedHashMap<>();
        for (int g = 0; g < frame.size(); g++) {
            if (frame.key(0, g) == null || frame.key(1, g) == null) continue;
            double value = Double.parseDouble(frame.key(1, g));
            // A database elsewhere may hold what is no number or without end; beside that nothing can be told.
            if (!Double.isFinite(value)) continue;
            String day = isDated() ? frame.key(2, g) : null;
            Alike one = new Alike(value, (long) frame.value(0, g), day, day);
            categories.computeIfAbsent(frame.key(0, g), k -> new TreeMap<>()).merge(one.value, one, Alike::and);
        }
        List<Found> found = new ArrayList<>();
        long looked = 0;
        long standing = 0;
        for (Map.Entry<String, Map<Double, Alike>> category : categories.entrySet()) {
            List<Alike> values = List.copyOf(category.getValue().values());
            Unlikely.Usual usual = Unlikely.usual(
                    values.stream().mapToDouble(Alike::value).toArray(),
                    values.stream().mapToLong(Alike::rows).toArray());
            if (usual.count() < Unlikely.FEWEST) continue;
            looked += usual.count();
            for (Alike one : values) {
                double away = usual.away(one.value);
                if (Math.abs(away) < Unlikely.FROM) continue;
                standing += one.rows;
                found.add(found(away, category.getKey(), () -> rowLine(category.getKey(), one, values, usual, away)));
            }
        }
        List<String> notes = new ArrayList<>();
        notes.add(phrase(
                "Each row beside all rows of the same {0}, by their middle value and how far half of them lie from it (Iglewicz and Hoaglin 1993). Rows of one value are one line.",
                ColumnWords.of(list.category())));
        if (!isDated() && datedBy(list, dataset).isPresent())
            notes.add(phrase("Of more than {0} rows it is not told on which day they were.", MOST_DATED));
        return drawn(found, standing, looked, notes, frame);
    }

    private UnlikelyDrawing.Line rowLine(String key, Alike one, List<Alike> all, Unlikely.Usual usual, double away) {
        int step = Math.max(1, all.size() / MOST_DRAWN);
        double[] drawn = IntStream.range(0, all.size())
                .filter(i -> i % step == 0 || i == all.size() - 1)
                .mapToDouble(i -> all.get(i).value)
                .toArray();
        double[] ends = ends(drawn, Interval.UNKNOWN);
        String value = one.rows == 1
                ? written.full(one.value)
                : phrase("{0} rows with {1}", one.rows, written.full(one.value));
        String what = one.first == null ? value : phrase("{0} on {1}", value, days(one));
        return new UnlikelyDrawing.Line(
                key,
                dataset.label(list.category(), key),
                null,
                written.full(one.value),
                Double.isInfinite(away)
                        ? phrase(
                                "{0}; all others of {1} rows have {2}.",
                                what, usual.count(), written.full(usual.median()))
                        : phrase(
                                "{0}; of {1} rows, {2} was usual. {3} deviations away.",
                                what,
                                usual.count(),
                                phrase(
                                        "{0} to {1}",
                                        written.full(usual.median() - usual.deviation()),
                                        written.full(usual.median() + usual.deviation())),
                                NumberWords.brief(Math.abs(away))),
                away > 0,
                within(drawn, ends),
                (int) (place(one.value, ends) * THOUSAND),
                place(usual.median() - usual.deviation(), ends),
                place(usual.median() + usual.deviation(), ends));
    }

    /** The days of the first and of the last of some rows. */
    private static String days(Alike rows) {
        String first = StepWords.of(TimeStep.DAY, TimeStep.DAY.number(rows.first));
        return rows.first.equals(rows.last)
                ? first
                : phrase("{0} to {1}", first, StepWords.of(TimeStep.DAY, TimeStep.DAY.number(rows.last)));
    }
}
