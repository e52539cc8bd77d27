package sarnik.visual;

import java.util.List;
import sarnik.query.Measure;
import sarnik.scale.Classes;
import sarnik.scale.ColourScale;

/**
 * Colours by a measure, or by a category.
 *
 * @param measure what colours stand for; null where a category does
 * @param per what the measure is divided by: {@code km2} for the size of the area; null for nothing
 * @param category column whose values have a colour each; null where a measure does
 * @param order the values that come first; null for the commonest first
 * @param ramp whether colours run on without classes; null for no
 * @param method how values are cut into classes
 * @param classes 2 to 11
 * @param palette see {@link sarnik.scale.Palette#of}
 * @param reversed whether the palette runs the other way; null for no
 * @param centre what the scale turns about; null where it does not diverge
 * @param low the low end; null for the least value
 * @param high the high end; null for the greatest value
 * @param breaks own breaks; null to find them
 * @param key name of the shared key whose scale is worn instead; null for none
 * @param offered measures among which the reader chooses; null for none
 * @param domain what the scale is cut from: {@code shown} for what is shown; {@code held} or null for the
 *     whole, before links
 */
public record Colour(
        Measure measure,
        String per,
        String category,
        List<String> order,
        Boolean ramp,
        Classes.Method method,
        Integer classes,
        String palette,
        Boolean reversed,
        ColourScale.Centre centre,
        Double low,
        Double high,
        List<Double> breaks,
        String key,
        List<Measure> offered,
        String domain) {

    /** Each value of a category in a colour of its own. */
    public static Colour of(String category, String palette) {
        return new Colour(
                null, null, category, null, null, null, null, palette, null, null, null, null, null, null, null, null);
    }

    /** Colours by a measure in classes. */
    public static Colour by(Measure measure, Classes.Method method, int classes, String palette) {
        return new Colour(
                measure, null, null, null, null, method, classes, palette, null, null, null, null, null, null, null,
                null);
    }

    /** The same colours on another scale. */
    public Colour wearing(Colour scale) {
        return new Colour(
                measure,
                per,
                category,
                scale.order,
                scale.ramp,
                scale.method,
                scale.classes,
                scale.palette,
                scale.reversed,
                scale.centre,
                scale.low,
                scale.high,
                scale.breaks,
                key,
                offered,
                domain);
    }

    /** The same scale by another measure; ends and breaks belong to the values, so they are found anew. */
    public Colour by(Measure other) {
        return other.equals(measure)
                ? this
                : new Colour(
                        other, per, null, order, ramp, method, classes, palette, reversed, centre, null, null, null,
                        key, offered, domain);
    }

    /** The same scale about another centre. */
    public Colour about(ColourScale.Centre other) {
        return new Colour(
                measure, per, category, order, ramp, method, classes, palette, reversed, other, low, high, breaks, key,
                offered, domain);
    }

    /** Whether all wear one colour of the palette. */
    public boolean standsForNothing() {
        return measure == null && category == null;
    }

    /** How the scale is made. */
    public ColourScale.Choice choice() {
        return new ColourScale.Choice(
                Boolean.TRUE.equals(ramp),
                method == null ? Classes.Method.NATURAL : method,
                classes == null ? 5 : classes,
                palette == null ? "loch" : palette,
                Boolean.TRUE.equals(reversed),
                centre,
                low,
                high,
                breaks);
    }
}
