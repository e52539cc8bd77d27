package sarnik.visual.picture;

import sarnik.visual.Drawing;

/**
 * @param image name of the stored picture; null for none
 * @param shows what it shows; empty where nothing was said
 * @param fills whether it fills its box and is cut
 * @param wanting a sentence about what its author has still to say; null for nothing
 */
public record PictureDrawing(String title, String image, String shows, boolean fills, String wanting)
        implements Drawing {}
