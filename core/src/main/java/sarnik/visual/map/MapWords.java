package sarnik.visual.map;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import sarnik.scale.NumberWords;
import sarnik.scale.ValueWords;
import sarnik.visual.Key;
import sarnik.visual.Scene;

/** What a map shows, in words. */
final class MapWords {

    private static final int NAMED = 3;

    private final Scene scene;

    private MapWords(Scene scene) {
        this.scene = scene;
    }

    /** What the map shows, layer by layer, for those who cannot see it. */
    static String summary(List<LayerDrawn> drawn, Scene scene) {
        MapWords words = new MapWords(scene);
        List<String> sentences = new ArrayList<>();
        for (LayerDrawn layer : drawn) if (!layer.head().hidden()) sentences.add(words.summary(layer));
        return String.join(" ", sentences);
    }

    private String summary(LayerDrawn layer) {
        String name = layer.head().name();
        if (layer instanceof LayerDrawn.OfSymbols s) {
            String most = IntStream.range(0, Math.min(NAMED, s.at().length))
                    .mapToObj(i -> name(s.places(), s.at()[i]) + " " + NumberWords.full(s.sizes()[i]))
                    .reduce((a, b) -> a + ", " + b)
                    .orElse("none");
            return "%s: %,d symbols. The largest: %s.%s".formatted(name, s.at().length, most, colours(s.key()));
        }
        if (layer instanceof LayerDrawn.OfAreas a) {
            int[] order = IntStream.range(0, a.at().length)
                    .boxed()
                    .filter(i -> Double.isFinite(a.values()[i]))
                    .sorted(Comparator.comparingDouble(i -> -a.values()[i]))
                    .mapToInt(i -> i)
                    .toArray();
            String most = IntStream.range(0, Math.min(NAMED, order.length))
                    .mapToObj(i -> name(a.places(), a.at()[order[i]]) + " "
                            + (a.key().low() == null
                                            ? ValueWords.NUMBER
                                            : a.key().read())
                                    .full(a.values()[order[i]]))
                    .reduce((x, y) -> x + ", " + y)
                    .orElse("none");
            return "%s: %,d %s. The highest: %s.%s"
                    .formatted(
                            name,
                            a.at().length,
                            a.set() == null ? "shapes" : "areas of " + a.set(),
                            most,
                            colours(a.key()));
        }
        if (layer instanceof LayerDrawn.OfDensity d)
            return "%s: the density of %,d places.".formatted(name, d.at().length);
        if (layer instanceof LayerDrawn.OfFlows f) {
            String most = IntStream.range(0, Math.min(NAMED, f.from().length))
                    .mapToObj(i -> "%s to %s %s"
                            .formatted(
                                    name(f.places(), f.from()[i]),
                                    name(f.places(), f.to()[i]),
                                    NumberWords.full(f.values()[i])))
                    .reduce((a, b) -> a + ", " + b)
                    .orElse("none");
            return "%s: %,d flows. The largest: %s.".formatted(name, f.from().length, most);
        }
        if (layer instanceof LayerDrawn.OfPaths p)
            return "%s: %,d paths through %,d points.".formatted(name, p.names().size(), p.at().length);
        return String.join(" ", layer.head().notes());
    }

    private String name(String sheet, int place) {
        return scene.sheet(sheet).names().get(place);
    }

    private static String colours(Key key) {
        if (key.colourWords() == null) return "";
        if (key.low() == null) return " Coloured by " + key.colourWords() + ".";
        return String.format(
                Locale.ENGLISH,
                " Coloured by %s, from %s to %s%s.",
                key.colourWords(),
                key.read().full(key.low()),
                key.read().full(key.high()),
                key.missing() == 0 ? "" : "; %,d without data".formatted(key.missing()));
    }
}
