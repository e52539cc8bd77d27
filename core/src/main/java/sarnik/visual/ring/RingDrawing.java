package sarnik.visual.ring;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Key;
import sarnik.visual.NamedKey;
import sarnik.visual.Spread;
import sarnik.visual.Trail;

/**
 * @param words what is measured
 * @param whole the whole, brief
 * @param wholeFull the whole
 * @param parts the parts, the largest first, others last
 * @param notes sentences about what is not as one would expect
 */
public record RingDrawing(
        String title, String words, String whole, String wholeFull, List<Part> parts, List<String> notes, Trail trail)
        implements Drawing {

    @Override
    public double tells() {
        return Spread.of(parts.stream().mapToDouble(Part::share).toArray());
    }

    @Override
    public List<NamedKey> keys() {
        return NamedKey.ofColours(
                words,
                parts.stream()
                        .map(p -> new Key.Swatch(p.colour(), p.label(), 0))
                        .toList());
    }

    /**
     * @param key the category's value; null for others and for what is missing
     * @param share of the whole, 0 to 1
     * @param percent the share in words
     */
    public record Part(
            String key, String label, String colour, double share, String text, String full, String percent) {}
}
