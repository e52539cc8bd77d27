package sarnik.visual.picture;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * A picture that was uploaded, or one of several: that of the value that is shown.
 *
 * @param image name of the stored picture; null where none was chosen yet
 * @param shows what it shows, for those who cannot see it; null where nothing was said yet
 * @param fills whether it fills its box and is cut, instead of being seen whole; null for no
 * @param each the pictures of the values of a column, in place of the one; null for one only
 */
public record Picture(String page, Box at, String title, String image, String shows, Boolean fills, Each each)
        implements Visual {

    /**
     * Pictures of things that a dataset tells of, such as devices.
     *
     * @param dataset its id
     * @param column says which of them a row is about
     * @param shots by value its picture
     */
    public record Each(long dataset, String column, Map<String, Shot> shots) {
        public Each {
            shots = shots == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(shots));
        }
    }

    /**
     * @param image name of the stored picture
     * @param shows what it shows; null for the value itself
     */
    public record Shot(String image, String shows) {}
}
