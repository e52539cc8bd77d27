package sarnik.visual.filter;

import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * A filter, or a number that readers set, on the sheet instead of in the strip.
 *
 * @param control id of the filter or parameter
 */
public record SheetFilter(String page, Box at, String title, String control) implements Visual {}
