package sarnik.visual.key;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.NamedKey;
import sarnik.visual.Trail;

/**
 * @param parts what is explained, one below the other
 * @param counted whether the numbers behind the rows tell how many marks wear them
 * @param notes sentences about what is not as one would expect
 * @param trail the rows of the visual whose key it is; null for a shared key
 */
public record KeyDrawing(String title, List<NamedKey> parts, boolean counted, List<String> notes, Trail trail)
        implements Drawing {}
