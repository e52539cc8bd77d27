package sarnik.visual;

/**
 * A visual that cannot be drawn.
 *
 * @param why a sentence: what is wrong and where to mend it
 */
public record MisfitDrawing(String title, String why) implements Drawing {}
