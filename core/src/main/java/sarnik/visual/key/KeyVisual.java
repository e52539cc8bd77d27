package sarnik.visual.key;

import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * A key as a visual of its own: that of another visual, or a shared key.
 *
 * @param of id of the visual whose key it is; null for a shared key
 * @param key name of the shared key; null for that of a visual
 */
public record KeyVisual(String page, Box at, String title, String of, String key) implements Visual {}
