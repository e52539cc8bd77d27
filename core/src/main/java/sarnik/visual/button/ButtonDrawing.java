package sarnik.visual.button;

import sarnik.visual.Drawing;

/**
 * @param title what stands above it; empty for nothing
 * @param words what stands on it
 * @param does clear, state, address, figures or page
 * @param address where it leads; null for others
 * @param state what is chosen by it; null for others
 * @param visual whose figures it takes along; null for others
 * @param page to which it leads; null for others
 * @param why a sentence that says why a press does nothing; null where it does something
 */
public record ButtonDrawing(
        String title, String words, String does, String address, String state, String visual, String page, String why)
        implements Drawing {}
