package sarnik.visual.words;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param blocks what stands below each other
 * @param notes sentences about what is not as one would expect
 * @param trail the rows of the figures; null where there is none
 */
public record WordsDrawing(String title, List<Node> blocks, List<String> notes, Trail trail) implements Drawing {

    /**
     * A part of a text.
     *
     * @param kind paragraph, heading, list, numbers, item, quote, code, rule; and within them text, strong, emphasis,
     *     link, line, figure
     * @param text what is read; null where there are parts
     * @param level of a heading, 1 to 3
     * @param href where a link leads; null for others
     * @param parts what it is made of
     */
    public record Node(String kind, String text, int level, String href, List<Node> parts) {}
}
