package sarnik.visual.picture;

import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * A picture that was uploaded.
 *
 * @param image name of the stored picture; null where none was chosen yet
 * @param shows what it shows, for those who cannot see it; null where nothing was said yet
 * @param fills whether it fills its box and is cut, instead of being seen whole; null for no
 */
public record Picture(String page, Box at, String title, String image, String shows, Boolean fills) implements Visual {}
