package sarnik.visual.map;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.NamedKey;
import sarnik.visual.Trail;

/**
 * @param layers the lowest first
 * @param summary what the map shows, for those who cannot see it
 * @param credits what licences ask to be said
 */
public record MapDrawing(String title, List<LayerDrawn> layers, String summary, List<String> credits, Trail trail)
        implements Drawing {

    @Override
    public List<NamedKey> keys() {
        return layers.stream()
                .map(layer -> new NamedKey(layer.head().name(), layer.kind(), layer.key()))
                .toList();
    }
}
