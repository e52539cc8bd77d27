package sarnik.visual;

import java.util.List;

/**
 * What the colours, sizes and shapes of a part of a drawing stand for.
 *
 * @param name what the part is called; empty where the drawing has one part only
 * @param kind the kind of layer, by which marks are drawn; null for other drawings
 */
public record NamedKey(String name, String kind, Key key) {

    /** The key of marks in the colours of a category; none where they have one colour. */
    public static List<NamedKey> ofColours(String words, List<Key.Swatch> colours) {
        if (colours.isEmpty()) return List.of();
        Key.Draft draft = new Key.Draft();
        draft.colourWords = words;
        draft.colours = colours;
        return List.of(new NamedKey("", null, draft.key()));
    }
}
