package sarnik.visual.filter;

import sarnik.visual.Drawing;

/**
 * @param control id of the filter or parameter
 */
public record SheetFilterDrawing(String title, String control) implements Drawing {}
