package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.query.Frame;
import sarnik.statistics.AgeBands;
import sarnik.statistics.AgeStandardised;
import sarnik.statistics.Interval;
import sarnik.statistics.RateOf;
import sarnik.statistics.Rates;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.map.LayerDrawn.Trust;

/**
 * The rates of a layer by what they were counted of: where each may well lie, which rest on too few, drawn toward the
 * whole or made comparable in age.
 */
final class Trusted {

    private final Chance chance;
    private final LoadedDataset.Rate rate;
    private final Asked shown;
    private final Asked whole;

    /**
     * @param rows whose dataset can be asked for both sums of the rate
     * @param column whose values are the marks
     * @param domain what the scale is cut from
     */
    Trusted(LayerRows rows, LoadedDataset.Rate rate, String column, String domain) {
        this.chance = rows.layer.chance() == null ? Chance.GUESSED : rows.layer.chance();
        this.rate = rate;
        List<String> by = chance.ages() == null
                ? List.of(column)
                : List.of(column, chance.ages().band());
        if (chance.ages() != null
                && rows.dataset().table().find(chance.ages().band()).isEmpty())
            throw new MisfitException(phrase(
                    "The column of ages “{0}” has gone. Choose another in the layer’s brief.",
                    chance.ages().band()));
        this.shown = rows.ask(by, List.of(rate.events(), rate.over()));
        this.whole = rows.domain(by, List.of(rate.events(), rate.over()), domain);
    }

    /** Whether what is shown differs from what was counted. */
    boolean changes() {
        return chance.isToward() || chance.ages() != null;
    }

    /** What is said of how the values came about, behind what they are called. */
    String words(String measure) {
        String words = measure;
        if (chance.ages() != null)
            words = switch (chance.ages().like()) {
                case EUROPE_2013 -> phrase("{0}, ages made alike as in the European standard of 2013", words);
                case WORLD_2000 -> phrase("{0}, ages made alike as in the world’s standard of 2000 to 2025", words);
                case TOGETHER -> phrase("{0}, ages made alike as in all places together", words);
                case EXPECTED -> phrase("{0}, beside what its own ages lead one to expect", words);
            };
        return chance.isToward() && chance.ages() == null ? phrase("{0}, drawn toward the whole", words) : words;
    }

    /**
     * What was counted, by mark and age band; one band where ages are not told apart.
     *
     * @param keys of the marks
     */
    private record Counted(List<String> keys, double[][] events, double[][] over) {

        static Counted of(Frame frame, Map<String, Integer> bands) {
            Map<String, Integer> marks = new LinkedHashMap<>();
            int count = Math.max(
                    1,
                    bands.isEmpty()
                            ? 1
                            : bands.values().stream().mapToInt(b -> b + 1).max().orElse(1));
            List<double[]> events = new ArrayList<>();
            List<double[]> over = new ArrayList<>();
            for (int g = 0; g < frame.size(); g++) {
                // Further keys are the steps of a player, over which scales are held.
                StringBuilder key = new StringBuilder(String.valueOf(frame.key(0, g)));
                for (int k = bands.isEmpty() ? 1 : 2; k < frame.keys().size(); k++)
                    key.append('\u0000').append(frame.key(k, g));
                int mark = marks.computeIfAbsent(key.toString(), k -> marks.size());
                if (mark == events.size()) {
                    events.add(new double[count]);
                    over.add(new double[count]);
                }
                int band = bands.isEmpty() ? 0 : bands.getOrDefault(String.valueOf(frame.key(1, g)), -1);
                if (band < 0) continue;
                events.get(mark)[band] += frame.value(0, g);
                over.get(mark)[band] += frame.value(1, g);
            }
            return new Counted(
                    List.copyOf(marks.keySet()), events.toArray(double[][]::new), over.toArray(double[][]::new));
        }

        double[] allEvents() {
            return Arrays.stream(events)
                    .mapToDouble(e -> Arrays.stream(e).sum())
                    .toArray();
        }

        double[] allOver() {
            return Arrays.stream(over).mapToDouble(o -> Arrays.stream(o).sum()).toArray();
        }

        /**
         * By band of all marks, those left out of which one of both is unknown.
         *
         * @param of what is summed, by mark and band: the events or what they could happen to
         */
        double[] together(double[][] of) {
            double[] sums = new double[of.length == 0 ? 0 : of[0].length];
            for (int m = 0; m < of.length; m++)
                for (int b = 0; b < sums.length; b++)
                    if (Double.isFinite(events[m][b]) && Double.isFinite(over[m][b])) sums[b] += of[m][b];
            return sums;
        }
    }

    /**
     * @param values by mark
     * @param intervals where each may well lie, of what was counted or made comparable
     */
    private record Values(List<String> keys, double[] values, Interval[] intervals) {}

    private RateOf of(Counted counted) {
        if (chance.of() != null) return chance.of().rate();
        return rate.guessed(counted.allEvents(), counted.allOver());
    }

    private Map<String, Integer> bands(Frame whole, List<double[]> weights) {
        if (chance.ages() == null) return Map.of();
        Set<String> texts = new LinkedHashSet<>();
        for (int g = 0; g < whole.size(); g++) texts.add(String.valueOf(whole.key(1, g)));
        List<String> all = List.copyOf(texts);
        AgeBands bands;
        try {
            bands = AgeBands.of(all, chance.ages().like().standard());
        } catch (IllegalArgumentException unfit) {
            throw new MisfitException(phrase(
                    "{0} cannot be told apart by age: {1}",
                    ColumnWords.of(chance.ages().band()), unfit.getMessage()));
        }
        weights.add(bands.weights());
        Map<String, Integer> of = new HashMap<>();
        for (int t = 0; t < all.size(); t++) of.put(all.get(t), bands.of()[t]);
        return of;
    }

    private Values values(Counted counted, Counted whole, double[] standard, RateOf of) {
        double[] events = counted.allEvents();
        double[] over = counted.allOver();
        double[] values = new double[events.length];
        Interval[] intervals = new Interval[events.length];
        double[] smoothed = chance.isToward() && chance.ages() == null ? Rates.smoothed(events, over) : null;
        double[] wholeEvents = whole.together(whole.events);
        double[] wholeOver = whole.together(whole.over);
        double crude =
                Arrays.stream(wholeEvents).sum() / Arrays.stream(wholeOver).sum();
        for (int m = 0; m < values.length; m++) {
            if (chance.ages() == null) {
                values[m] = smoothed == null ? over[m] > 0 ? events[m] / over[m] : Double.NaN : smoothed[m];
                intervals[m] = of == null ? Interval.UNKNOWN : of.interval(events[m], over[m]);
                continue;
            }
            AgeStandardised.Standardised made = switch (chance.ages().like()) {
                case EXPECTED -> expected(events[m], counted.over[m], wholeEvents, wholeOver, crude);
                case TOGETHER ->
                    AgeStandardised.direct(counted.events[m], counted.over[m], wholeOver, Rates.USUAL_CONFIDENCE);
                default -> AgeStandardised.direct(counted.events[m], counted.over[m], standard, Rates.USUAL_CONFIDENCE);
            };
            values[m] = made.rate();
            intervals[m] = made.interval();
        }
        return new Values(
                counted.keys,
                Arrays.stream(values).map(v -> v * rate.times()).toArray(),
                Arrays.stream(intervals).map(i -> i.times(rate.times())).toArray(Interval[]::new));
    }

    private static AgeStandardised.Standardised expected(
            double events, double[] over, double[] wholeEvents, double[] wholeOver, double crude) {
        double[] rates = IntStream.range(0, over.length)
                .mapToDouble(b -> wholeOver[b] > 0 ? wholeEvents[b] / wholeOver[b] : 0)
                .toArray();
        AgeStandardised.Standardised ratio = AgeStandardised.indirect(events, over, rates, Rates.USUAL_CONFIDENCE);
        return new AgeStandardised.Standardised(
                ratio.rate() * crude, ratio.interval().times(crude));
    }

    /**
     * @param values the rates that are shown, by mark as asked for
     * @param domain those that the scale is cut from
     * @param trust what is told of how sure each is; null where nothing is
     * @param of what the rate was taken to be of; null where nothing is known
     */
    record Shown(double[] values, double[] domain, Trust trust, RateOf of) {}

    /**
     * @param keys of the marks
     */
    Shown shown(Answers answers, List<String> keys) {
        List<double[]> standard = new ArrayList<>();
        Frame wholeFrame = answers.of(whole);
        Map<String, Integer> bands = bands(wholeFrame, standard);
        Counted held = Counted.of(wholeFrame, bands);
        Counted counted = Counted.of(answers.of(shown), bands);
        RateOf of = of(held);
        double[] weights = standard.isEmpty() ? null : standard.get(0);
        Values now = values(counted, held, weights, of);
        Map<String, Integer> at = new HashMap<>();
        for (int m = 0; m < now.keys.size(); m++) at.put(now.keys.get(m), m);
        double[] values = new double[keys.size()];
        double[] lows = new double[keys.size()];
        double[] highs = new double[keys.size()];
        List<Integer> unsure = new ArrayList<>();
        double[] events = counted.allEvents();
        double[] over = counted.allOver();
        for (int k = 0; k < values.length; k++) {
            Integer m = at.get(keys.get(k));
            values[k] = m == null ? Double.NaN : now.values[m];
            lows[k] = m == null ? Double.NaN : now.intervals[m].low();
            highs[k] = m == null ? Double.NaN : now.intervals[m].high();
            if (m != null && of != null && over[m] > 0 && of.isUnsure(events[m], over[m])) unsure.add(k);
        }
        Trust trust = of == null
                ? null
                : new Trust(
                        PlaceMarks.rounded(lows),
                        PlaceMarks.rounded(highs),
                        unsure.stream().mapToInt(Integer::intValue).toArray(),
                        null);
        return new Shown(values, values(held, held, weights, of).values, trust, of);
    }

    /** Whether what the rate is of was guessed. */
    boolean isGuessed() {
        return chance.of() == null;
    }
}
