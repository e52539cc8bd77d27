package sarnik.visual.figure;

import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param words what is measured
 * @param text the figure, brief
 * @param full the figure, whole
 */
public record FigureDrawing(String title, String words, String text, String full, Trail trail) implements Drawing {}
