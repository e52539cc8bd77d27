package sarnik.visual.funnel;

import java.util.List;
import sarnik.visual.Axis;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param across the axis of what rates rest on
 * @param up the axis of rates
 * @param whole where the rate of all together stands, 0 to 1 of the upright axis
 * @param wholeWords that rate in words
 * @param limits the curves within which chance alone would let rates lie, the inner ones first
 * @param dots the marks
 * @param heads what the figures of the marks are, in words
 * @param notes sentences about what is told and what is not
 */
public record FunnelDrawing(
        String title,
        Axis across,
        Axis up,
        double whole,
        String wholeWords,
        List<Limit> limits,
        List<Dot> dots,
        List<String> heads,
        List<String> notes,
        Trail trail)
        implements Drawing {

    /**
     * A pair of curves.
     *
     * @param words what they mean: "95 of 100"
     * @param x places along, ten-thousandths
     * @param low of each the lower curve, ten-thousandths of the upright axis
     * @param high the upper
     */
    public record Limit(String words, int[] x, int[] low, int[] high) {}

    /**
     * A mark.
     *
     * @param key its value of the category
     * @param x ten-thousandths along
     * @param y ten-thousandths upwards
     * @param beyond 0 within the inner limits, 1 beyond those, 2 beyond the outer; negative where it lies below
     * @param unsure whether it rests on too few to be trusted
     * @param named whether its name is written beside it
     * @param texts its figures, as the heads say
     */
    public record Dot(
            String key, String label, int x, int y, int beyond, boolean unsure, boolean named, List<String> texts) {}

    /** The more lie beyond the limits, the more it tells. */
    @Override
    public double tells() {
        long beyond = dots.stream().filter(dot -> Math.abs(dot.beyond) == 2).count();
        return dots.isEmpty() ? 0 : Math.min(1, 4.0 * beyond / dots.size());
    }
}
