package sarnik.scale;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import sarnik.table.Sums;

/**
 * Which colour a value wears: classes with a colour each, or a ramp of many steps. Immutable.
 *
 * @param classes the classes; of a ramp its steps
 * @param colours one for each class, lowest first
 * @param ramp whether colours run on without classes
 * @param low the low end that was set; minus infinity where none was
 * @param high the high end that was set; infinity where none was
 */
public record ColourScale(Classes classes, List<String> colours, boolean ramp, double low, double high) {

    /** Steps of a ramp: more cannot be told apart. */
    public static final int RAMP_STEPS = 64;

    /** What a diverging scale turns about. */
    public enum About {
        VALUE,
        MEAN,
        MEDIAN,
        /** A number that the reader sets; it has to be made a value before a scale is. */
        PARAMETER
    }

    /**
     * @param about what kind of centre
     * @param value the centre, where it is a value
     * @param even whether a colour is as deep on one side as at the same distance on the other, so that the shorter
     *     side stays
     *     lighter; null or false where each side runs over the full range of its half of the palette
     * @param parameter id of the number that the reader sets, where it is one
     */
    public record Centre(About about, Double value, Boolean even, String parameter) {

        boolean isEven() {
            return Boolean.TRUE.equals(even);
        }
    }

    /**
     * How a scale is to be made.
     *
     * @param ramp whether colours run on without classes
     * @param method how values are cut into classes
     * @param classes how many, 2 to 11; with a centre as many on each side, so an odd number loses one
     * @param palette see {@link Palette#of}
     * @param reversed whether the palette runs from high to low
     * @param centre null where the scale does not diverge
     * @param low the low end; null to take the least value
     * @param high the high end; null to take the greatest value
     * @param breaks own breaks, ascending; null to find them by the method
     */
    public record Choice(
            boolean ramp,
            Classes.Method method,
            int classes,
            String palette,
            boolean reversed,
            Centre centre,
            Double low,
            Double high,
            List<Double> breaks) {}

    /**
     * Makes a scale for values.
     *
     * @param values any order; missing (NaN) and infinite ones take no part
     * @throws IllegalArgumentException when the palette cannot be read, the ends or breaks are not ascending, or the
     *     centre is not known yet
     */
    public static ColourScale of(Choice choice, double[] values) {
        Palette palette = Palette.of(choice.palette());
        double[] finite = Arrays.stream(values).filter(Double::isFinite).toArray();
        if (choice.low() != null && choice.high() != null && choice.low() >= choice.high()) {
            throw new IllegalArgumentException("The scale's low end, %s, has to lie below its high end, %s"
                    .formatted(NumberWords.full(choice.low()), NumberWords.full(choice.high())));
        }
        double least = Arrays.stream(finite).min().orElse(Double.NaN);
        double most = Arrays.stream(finite).max().orElse(Double.NaN);
        double low = choice.low() == null ? least : choice.low();
        double high = choice.high() == null ? most : choice.high();
        double[] inside =
                Arrays.stream(finite).map(v -> Math.max(low, Math.min(high, v))).toArray();
        Double centre = centre(choice.centre(), finite);
        Classes classes = classes(choice, inside, low, high, centre);
        List<String> colours =
                centre == null ? palette.colours(classes.count()) : diverging(palette, classes, centre, choice);
        if (choice.reversed()) {
            colours = new ArrayList<>(colours);
            Collections.reverse(colours);
        }
        return new ColourScale(
                classes,
                List.copyOf(colours),
                choice.ramp(),
                choice.low() == null ? Double.NEGATIVE_INFINITY : choice.low(),
                choice.high() == null ? Double.POSITIVE_INFINITY : choice.high());
    }

    /**
     * Checks that a scale can be made, whatever the values will be.
     *
     * @throws IllegalArgumentException as {@link #of}, but that a centre may be a number which is not known yet
     */
    public static void check(Choice c) {
        boolean open = c.centre() != null && c.centre().about() == About.PARAMETER;
        of(
                open
                        ? new Choice(
                                c.ramp(),
                                c.method(),
                                c.classes(),
                                c.palette(),
                                c.reversed(),
                                new Centre(About.VALUE, 0.0, c.centre().even(), null),
                                c.low(),
                                c.high(),
                                c.breaks())
                        : c,
                new double[] {0, 1});
    }

    private static Double centre(Centre centre, double[] values) {
        if (centre == null) return null;
        if (centre.about() == About.PARAMETER)
            throw new IllegalArgumentException("The number that the scale turns about is not known");
        if (centre.about() == About.VALUE) return centre.value() == null ? 0.0 : centre.value();
        if (values.length == 0) return null;
        if (centre.about() == About.MEAN) return Sums.mean(values);
        double[] sorted = Arrays.stream(values).sorted().toArray();
        int middle = sorted.length / 2;
        return sorted.length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
    }

    private static Classes classes(Choice choice, double[] inside, double low, double high, Double centre) {
        if (choice.breaks() != null && !choice.ramp()) return own(choice.breaks(), low, high);
        if (choice.ramp()) {
            double from = centre == null ? low : Math.min(low, centre);
            double to = centre == null ? high : Math.max(high, centre);
            double[] steps = IntStream.range(1, RAMP_STEPS)
                    .mapToDouble(i -> from + (to - from) * i / RAMP_STEPS)
                    .distinct()
                    .filter(b -> b < to && b >= from)
                    .toArray();
            return new Classes(steps, from, to);
        }
        if (centre == null || inside.length == 0) return Classes.of(choice.method(), inside, choice.classes());
        double[] under = Arrays.stream(inside).filter(v -> v <= centre).toArray();
        double[] over = Arrays.stream(inside).filter(v -> v > centre).toArray();
        int each = Math.max(1, choice.classes() / 2);
        DoubleStream.Builder breaks = DoubleStream.builder();
        if (under.length > 0 && each > 1)
            Arrays.stream(Classes.of(choice.method(), under, each).breaks()).forEach(breaks);
        if (under.length > 0 && over.length > 0) breaks.add(centre);
        if (over.length > 0 && each > 1)
            Arrays.stream(Classes.of(choice.method(), over, each).breaks()).forEach(breaks);
        return new Classes(breaks.build().distinct().sorted().toArray(), low, high);
    }

    private static Classes own(List<Double> breaks, double low, double high) {
        double[] own = breaks.stream().mapToDouble(d -> d).toArray();
        for (int i = 1; i < own.length; i++) {
            if (!(own[i] > own[i - 1]))
                throw new IllegalArgumentException("The scale's own breaks have to ascend: %s is not above %s"
                        .formatted(NumberWords.full(own[i]), NumberWords.full(own[i - 1])));
        }
        // Kept even where no value lies beyond them: an own break is a promise to the reader.
        return new Classes(
                own,
                own.length == 0 || !(low > own[0]) ? low : Math.min(low, own[0]),
                own.length == 0 || !(high < own[own.length - 1]) ? high : own[own.length - 1]);
    }

    /** Each side takes its half of the palette from the centre outwards. */
    private static List<String> diverging(Palette palette, Classes classes, double centre, Choice choice) {
        int count = classes.count();
        double under = Math.max(0, centre - classes.low());
        double over = Math.max(0, classes.high() - centre);
        double longer = Math.max(under, over);
        boolean even = choice.centre().isEven() && longer > 0;
        double deepUnder = even ? under / longer : 1;
        double deepOver = even ? over / longer : 1;
        if (choice.ramp()) {
            return IntStream.range(0, count)
                    .mapToObj(i -> {
                        double middle = classes.low() + (classes.high() - classes.low()) * (i + 0.5) / count;
                        double side = middle < centre
                                ? -deepUnder * (centre - middle) / under
                                : over > 0 ? deepOver * (middle - centre) / over : 0;
                        return palette.at(0.5 + side / 2).hex();
                    })
                    .toList();
        }
        int below = (int) IntStream.range(0, count)
                .filter(c -> (c < count - 1 ? classes.breaks()[c] : classes.high()) <= centre)
                .count();
        int above = count - below;
        List<String> colours = new ArrayList<>();
        for (int i = 0; i < below; i++)
            colours.add(palette.at(0.5 - deepUnder * (below - i) / below / 2).hex());
        for (int i = 0; i < above; i++)
            colours.add(palette.at(0.5 + deepOver * (i + 1) / above / 2).hex());
        return colours;
    }

    /** -1 for a value below the low end that was set, 1 for one above the high end, 0 else. */
    public int beyond(double value) {
        return !Double.isFinite(value) ? 0 : value < low ? -1 : value > high ? 1 : 0;
    }

    /** The class of a value, from 0; -1 for a missing or infinite one. */
    public int classOf(double value) {
        return Double.isFinite(value) ? Math.min(classes.classOf(value), colours.size() - 1) : -1;
    }

    /**
     * How values are spread between the ends.
     *
     * @param bars how many bars of equal width
     * @return how many values fall into each; values beyond the ends count to the outermost
     */
    public int[] spread(double[] values, int bars) {
        int[] counts = new int[bars];
        double width = classes.high() - classes.low();
        for (double v : values) {
            if (!Double.isFinite(v)) continue;
            int bar = width > 0 ? (int) ((v - classes.low()) / width * bars) : 0;
            counts[Math.max(0, Math.min(bars - 1, bar))]++;
        }
        return counts;
    }
}
