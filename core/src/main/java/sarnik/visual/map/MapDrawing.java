package sarnik.visual.map;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.NamedKey;
import sarnik.visual.Trail;

/**
 * @param layers the lowest first
 * @param summary what the map shows, for those who cannot see it
 * @param credits what licences ask to be said
 * @param pinned notes beside places
 */
public record MapDrawing(
        String title, List<LayerDrawn> layers, String summary, List<String> credits, List<Pinned> pinned, Trail trail)
        implements Drawing {

    /**
     * A note beside a place.
     *
     * @param place its name
     * @param lon degrees
     * @param lat degrees
     * @param text the words
     */
    public record Pinned(String place, double lon, double lat, String text) {}

    @Override
    public List<NamedKey> keys() {
        return layers.stream()
                .map(layer -> new NamedKey(layer.head().name(), layer.kind(), layer.key()))
                .toList();
    }
}
