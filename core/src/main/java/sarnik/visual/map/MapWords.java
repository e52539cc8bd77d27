package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
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
                    .orElse(phrase("none"));
            return coloured(phrase("{0}: {1} symbols. The largest: {2}.", name, s.at().length, most), s.key());
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
                    .orElse(phrase("none"));
            return coloured(
                    a.set() == null
                            ? phrase("{0}: {1} shapes. The highest: {2}.", name, a.at().length, most)
                            : phrase("{0}: {1} areas of {2}. The highest: {3}.", name, a.at().length, a.set(), most),
                    a.key());
        }
        if (layer instanceof LayerDrawn.OfDensity d)
            return phrase("{0}: the density of {1} places.", name, d.at().length);
        if (layer instanceof LayerDrawn.OfFlows f) {
            String most = IntStream.range(0, Math.min(NAMED, f.from().length))
                    .mapToObj(i -> phrase(
                            "from, to, value|{0} to {1} {2}",
                            name(f.places(), f.from()[i]),
                            name(f.places(), f.to()[i]),
                            NumberWords.full(f.values()[i])))
                    .reduce((a, b) -> a + ", " + b)
                    .orElse(phrase("none"));
            return phrase("{0}: {1} flows. The largest: {2}.", name, f.from().length, most);
        }
        if (layer instanceof LayerDrawn.OfPaths p)
            return phrase("{0}: {1} paths through {2} points.", name, p.names().size(), p.at().length);
        return String.join(" ", layer.head().notes());
    }

    private String name(String sheet, int place) {
        return scene.sheet(sheet).names().get(place);
    }

    private static String coloured(String words, Key key) {
        if (key.colourWords() == null) return words;
        if (key.low() == null) return words + " " + phrase("Coloured by {0}.", key.colourWords());
        String low = key.read().full(key.low());
        String high = key.read().full(key.high());
        return words
                + " "
                + (key.missing() == 0
                        ? phrase("Coloured by {0}, from {1} to {2}.", key.colourWords(), low, high)
                        : phrase(
                                "Coloured by {0}, from {1} to {2}; {3} without data.",
                                key.colourWords(), low, high, key.missing()));
    }
}
