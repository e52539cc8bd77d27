package sarnik.visual.bars;

import java.util.List;
import sarnik.visual.Axis;
import sarnik.visual.Drawing;
import sarnik.visual.Key;
import sarnik.visual.NamedKey;
import sarnik.visual.Note;
import sarnik.visual.Reference;
import sarnik.visual.Spread;
import sarnik.visual.Trail;

/**
 * @param words what is measured
 * @param bars in their order
 * @param others how many bars are not shown, 0 for none
 * @param axis what their lengths stand for
 * @param layout stacked, grouped, shares or back; null where bars have no parts
 * @param upright whether they stand upright
 * @param colours what the colours of parts stand for; empty for one colour
 * @param references lines across, at 0 to 1 of the axis
 * @param pinned notes pinned to what is drawn
 * @param notes sentences about what is not as one would expect
 */
public record BarsDrawing(
        String title,
        String words,
        List<Bar> bars,
        int others,
        Axis axis,
        String layout,
        boolean upright,
        List<Key.Swatch> colours,
        List<Reference.Drawn> references,
        List<Note> pinned,
        List<String> notes,
        Trail trail)
        implements Drawing {

    @Override
    public double tells() {
        return Spread.of(
                bars.stream().mapToDouble(bar -> bar.end() - bar.start()).toArray());
    }

    @Override
    public List<NamedKey> keys() {
        return NamedKey.ofColours(words, colours);
    }

    /**
     * @param key the category's value, null for missing and for others
     * @param start where the bar starts, 0 to 1 of the axis
     * @param end where it ends
     * @param after whether it comes after a gap: the first of the least, behind the most
     * @param parts what it is made of; null for one piece
     * @param sure how sure it is; null where nothing is known of that
     */
    public record Bar(
            String key,
            String label,
            double start,
            double end,
            String text,
            String full,
            boolean after,
            List<Part> parts,
            Sure sure) {}

    /**
     * How sure a rate is.
     *
     * @param low where it may well lie, 95 of 100, 0 to 1 of the axis
     * @param high the other end; beyond 1 where the axis ends before it
     * @param text the same in words
     * @param unsure whether it rests on too few to be trusted
     */
    public record Sure(double low, double high, String text, boolean unsure) {}

    /**
     * @param colour its colour
     * @param label the value of the series
     * @param start where it starts, 0 to 1 of the axis
     * @param end where it ends
     * @param text its figure
     */
    public record Part(String colour, String label, double start, double end, String text) {}
}
