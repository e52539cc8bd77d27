package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.scale.Palette;
import sarnik.statistics.LocalClusters;
import sarnik.visual.Colouring;
import sarnik.visual.Key.Swatch;
import sarnik.visual.Nearby;

/** Places that are high or low beside their neighbours by more than chance, as colours. */
final class FoundClusters {

    /** So large a share of false ones among those that are called found is borne. */
    private static final double BORNE = 0.05;

    /** The same for those that are called found surely. */
    private static final double SURELY = 0.01;

    /** More places than this are more than can be compared while somebody waits. */
    private static final int MOST = 20_000;

    /** So many values are put elsewhere in all, about; fewer times each where there are many places. */
    private static final double MOST_DRAWN = 2e7;

    /**
     * So large a part of places is tried to the end at most; of the others it is known sooner that they are no
     * surprise.
     */
    private static final double TRIED_WHOLLY = 0.3;

    private static final int FEWEST_TIMES = 999;
    private static final long SEED = 20;
    private static final int MIDDLE = 2;

    private FoundClusters() {}

    /**
     * @param colouring the classes and what they mean
     * @param falses of each mark the share of false finds among those that are as surprising; NaN where nothing is
     *     known
     */
    record Drawn(Colouring colouring, double[] falses) {}

    /**
     * @param at numbers of the marks' places in the sheet
     * @param values of the marks
     * @param set the boundary set of which the marks are areas; null for none
     * @param palette two-sided
     * @param notes takes what the colours mean and what they do not
     */
    static Drawn draw(
            Chance.Clusters asked,
            LoadedDataset dataset,
            PlaceSheet sheet,
            int[] at,
            double[] values,
            String set,
            Palette palette,
            String words,
            List<String> notes) {
        if (at.length > MOST)
            throw new MisfitException(phrase(
                    "{0} places are more than can be compared with their neighbours; at most {1}. Count them by areas.",
                    at.length, MOST));
        // In the order of their ids, so that the same rows give the same colours however they are sorted.
        int[] order = IntStream.range(0, at.length)
                .boxed()
                .sorted(Comparator.comparing((Integer m) -> sheet.ids().get(at[m])))
                .mapToInt(m -> m)
                .toArray();
        double[] ordered = Arrays.stream(order).mapToDouble(m -> values[m]).toArray();
        int[] places = Arrays.stream(order).map(m -> at[m]).toArray();
        Nearby near = Nearby.of(
                dataset,
                Arrays.stream(places).mapToObj(sheet.ids()::get).toList(),
                Arrays.stream(places).mapToDouble(p -> sheet.lon()[p]).toArray(),
                Arrays.stream(places).mapToDouble(p -> sheet.lat()[p]).toArray(),
                set,
                asked.near() == null ? null : asked.near().km(),
                asked.near() == null ? null : asked.near().nearest());
        int times = (int) Math.max(
                FEWEST_TIMES,
                Math.min(
                        LocalClusters.USUAL_TIMES,
                        MOST_DRAWN
                                / Math.max(
                                        1,
                                        TRIED_WHOLLY
                                                * at.length
                                                * Math.max(1, near.neighbours().mean()))));
        LocalClusters.Found[] found = asked.by() == Chance.By.BESIDE
                ? LocalClusters.alike(ordered, near.neighbours(), times, SEED)
                : LocalClusters.hotSpots(ordered, near.neighbours(), times, SEED);
        int[] classes = new int[at.length];
        double[] falses = new double[at.length];
        int[] counts = new int[6];
        for (int k = 0; k < order.length; k++) {
            boolean hasValue = Double.isFinite(ordered[k]);
            int c = !hasValue ? -1 : classOf(found[k], asked.by());
            classes[order[k]] = c;
            falses[order[k]] = found[k].discovery();
            if (c >= 0) counts[c]++;
        }
        // What is high is warm, as everywhere.
        List<String> colours = new ArrayList<>(palette.colours(5));
        Collections.reverse(colours);
        List<String> meanings = meanings(asked.by());
        List<Swatch> swatches = new ArrayList<>();
        for (int c = 0; c < 5; c++) swatches.add(new Swatch(colours.get(c), meanings.get(c), counts[c]));
        if (counts[5] > 0) swatches.add(new Swatch(Palette.OTHERS, phrase("no neighbour to compare with"), counts[5]));
        int missing = (int) Arrays.stream(classes).filter(c -> c < 0).count();
        notes.add(said(asked.by(), near.words(), times));
        return new Drawn(Colouring.of(words, swatches, classes, missing), falses);
    }

    /** 0 and 1 lower, 2 as chance would have it, 3 and 4 higher, 5 without a neighbour. */
    private static int classOf(LocalClusters.Found found, Chance.By by) {
        if (by == Chance.By.BESIDE)
            return switch (found.kind(BORNE)) {
                case LOW -> 0;
                case LOW_ALONE -> 1;
                case HIGH_ALONE -> 3;
                case HIGH -> 4;
                case NOTHING -> MIDDLE;
                case UNKNOWN -> 5;
            };
        boolean surely = found.discovery() <= SURELY;
        return switch (found.kind(BORNE)) {
            case LOW, LOW_ALONE -> surely ? 0 : 1;
            case HIGH, HIGH_ALONE -> surely ? 4 : 3;
            case NOTHING -> MIDDLE;
            case UNKNOWN -> 5;
        };
    }

    private static List<String> meanings(Chance.By by) {
        return by == Chance.By.BESIDE
                ? List.of(
                        phrase("low among low ones"),
                        phrase("low among high ones"),
                        phrase("no more than chance"),
                        phrase("high among low ones"),
                        phrase("high among high ones"))
                : List.of(
                        phrase("low together, of 100 found at most 1 by chance"),
                        phrase("low together, of 100 found at most 5 by chance"),
                        phrase("no more than chance"),
                        phrase("high together, of 100 found at most 5 by chance"),
                        phrase("high together, of 100 found at most 1 by chance"));
    }

    private static String said(Chance.By by, String near, int times) {
        return by == Chance.By.BESIDE
                ? phrase(
                        "Coloured: alike or unlike their neighbours ({0}) by more than chance, which was tried up to {1} times; of 100 at most 5 are so by chance. Why, it does not say.",
                        near, times)
                : phrase(
                        "Coloured: high or low together with their neighbours ({0}) by more than chance, which was tried up to {1} times. Why, it does not say; what is not coloured may still be high.",
                        near, times);
    }
}
