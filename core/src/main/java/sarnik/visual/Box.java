package sarnik.visual;

/** Where a visual stands on the page's grid, in cells. */
public record Box(int x, int y, int w, int h) {}
