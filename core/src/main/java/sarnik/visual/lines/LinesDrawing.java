package sarnik.visual.lines;

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
 * @param words what is measured, by which step
 * @param steps the texts of all steps from the first to the last, also those without a value
 * @param from the first day of each step, ISO 8601
 * @param to the last day of each step
 * @param ticks numbers of the steps that are marked, and their words
 * @param lines the lines, in the order in which they are drawn
 * @param axis what is measured along the upright
 * @param style how they are drawn
 * @param references lines across
 * @param pinned notes pinned to what is drawn
 * @param notes sentences about what is not as one would expect
 */
public record LinesDrawing(
        String title,
        String words,
        List<String> steps,
        List<String> from,
        List<String> to,
        List<Mark> ticks,
        List<Line> lines,
        Axis axis,
        String style,
        List<Reference.Drawn> references,
        List<Note> pinned,
        List<String> notes,
        Trail trail)
        implements Drawing {

    @Override
    public double tells() {
        return lines.isEmpty() ? 0 : Spread.of(lines.get(0).values());
    }

    @Override
    public List<NamedKey> keys() {
        return NamedKey.ofColours(
                words,
                lines.stream()
                        .filter(l -> !l.ghost())
                        .map(l -> new Key.Swatch(l.colour(), l.label(), 0))
                        .toList());
    }

    /** A step that is marked along the axis. */
    public record Mark(int step, String text) {}

    /**
     * @param label what stands at its end
     * @param values a value for each step, NaN where there is none: the line has a gap there
     * @param bases where an area begins, for each step; null where it begins at zero
     * @param texts the values in words
     * @param ghost whether it is a comparison that is drawn faintly
     */
    public record Line(
            String label, String colour, double[] values, double[] bases, List<String> texts, boolean ghost) {}
}
