package sarnik.visual;

import java.util.ArrayList;
import java.util.List;
import sarnik.scale.NumberWords;
import sarnik.table.Rounded;

/**
 * An axis of numbers.
 *
 * @param low the value at its beginning
 * @param high the value at its end
 * @param ticks where it is marked, ascending
 * @param words what is measured along it
 * @param logarithmic whether equal lengths are equal factors
 */
public record Axis(double low, double high, List<Tick> ticks, String words, boolean logarithmic) {

    public Axis(double low, double high, List<Tick> ticks, String words) {
        this(low, high, ticks, words, false);
    }

    private static final int STEPS = 5;

    /**
     * @param at 0 to 1 of its length
     */
    public record Tick(double at, String text) {}

    /**
     * An axis of round numbers that holds all values.
     *
     * @param fromZero whether it has to begin or end at zero, as it must where lengths are compared
     */
    public static Axis of(double least, double most, boolean fromZero, Written written, String words) {
        double low = fromZero ? Math.min(0, least) : least;
        double high = fromZero ? Math.max(0, most) : most;
        if (!Double.isFinite(low) || !Double.isFinite(high)) return new Axis(0, 1, List.of(), words);
        if (low == high) {
            double room = low == 0 ? 1 : Math.abs(low) * 0.1;
            if (!fromZero || low == 0) low -= fromZero ? 0 : room;
            high += room;
        }
        if (!written.read().isAmount()) return plain(low, high, written, words);
        double step = NumberWords.roundUp((high - low) / STEPS);
        double from = Math.floor(low / step + 1e-9) * step;
        double to = Math.ceil(high / step - 1e-9) * step;
        List<Tick> ticks = new ArrayList<>();
        int count = (int) Rounded.up((to - from) / step);
        double[] values = new double[count + 1];
        for (int i = 0; i <= count; i++) values[i] = round(from + i * step, step);
        List<String> texts = written.marks(values, step);
        for (int i = 0; i <= count; i++) ticks.add(new Tick((double) i / count, texts.get(i)));
        return new Axis(from, to, ticks, words);
    }

    private static double round(double value, double step) {
        return Rounded.even(value / step) * step;
    }

    private static Axis plain(double low, double high, Written written, String words) {
        List<Tick> ticks = new ArrayList<>();
        for (int i = 0; i <= STEPS; i++)
            ticks.add(new Tick((double) i / STEPS, written.brief(low + (high - low) * i / STEPS)));
        return new Axis(low, high, ticks, words);
    }

    /** Where a value stands, 0 to 1; NaN for a missing one. */
    public double at(double value) {
        return logarithmic ? Math.log(value / low) / Math.log(high / low) : (value - low) / (high - low);
    }

    /** An axis of which each stretch of equal length is a factor; for values above zero that lie far apart. */
    public static Axis logarithmic(double least, double most, Written written, String words) {
        double low = NumberWords.roundDown(least);
        double high = Math.max(NumberWords.roundUp(most), low * 10);
        List<Tick> ticks = new ArrayList<>();
        boolean many = high / low > 2000;
        double span = Math.log(high / low);
        for (double power = Rounded.power(Rounded.tens(low)); power <= high; power *= 10)
            for (double step : many ? new double[] {1} : new double[] {1, 2, 5}) {
                double value = power * step;
                if (value < low * (1 - 1e-9) || value > high * (1 + 1e-9)) continue;
                ticks.add(new Tick(Math.log(value / low) / span, written.brief(value)));
            }
        return new Axis(low, high, ticks, words, true);
    }
}
