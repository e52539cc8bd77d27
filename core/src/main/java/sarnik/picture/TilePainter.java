package sarnik.picture;

import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.Rectangle2D;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Draws the shapes of a vector tile in Sarnik's looks. What a layer holds is told by the words in its name, and what a
 * road is
 * by its attributes, since there are many ways to call them. A tile that holds neither land nor water is drawn over
 * the ground
 * that lies below it.
 */
final class TilePainter {

    static final int SIZE = 256;

    private static final Pattern LAND = Pattern.compile("earth|^land$|land_?poly|mainland|continent");
    private static final Pattern WATER = Pattern.compile("^water$|ocean|lake|sea|water_?poly|reservoir");
    private static final Pattern RIVER = Pattern.compile("water_?way|river|stream|canal|water_?line|^water$");
    private static final Pattern COVER = Pattern.compile("wood|forest|park|natural|green|land_?cover|land_?use");
    private static final Pattern BUILDING = Pattern.compile("building");
    private static final Pattern BORDER = Pattern.compile("bound|border|admin");
    private static final Pattern ROAD = Pattern.compile("road|street|highway|transport(?!.*name)");
    private static final Pattern NO_ROAD = Pattern.compile("rail|ferry|tram|subway|aerialway|pier|runway|taxiway");
    private static final Pattern MAIN = Pattern.compile("motorway|trunk|primary|highway|main|express");
    private static final Pattern MIDDLING = Pattern.compile("secondary|tertiary|major|medium|middle");
    private static final Pattern GREEN = Pattern.compile("wood|forest|park|grass|green|scrub|nature|meadow|farm");
    private static final Pattern SETTLED =
            Pattern.compile("residential|urban|built|town|village|industrial|commercial|retail");
    private static final List<String> KINDS = List.of("class", "kind", "highway", "type", "subclass", "kind_detail");
    /** From which zoom on streets, middling and main roads are drawn, with some detail. */
    private static final int[] SHOWN_FROM = {12, 9, 5};

    private static final int BUILDINGS_FROM = 14;

    private final VectorTile tile;
    private final int zoom;
    private final int detail;
    private final Look look;

    TilePainter(VectorTile tile, int zoom, int detail, Look look) {
        this.tile = tile;
        this.zoom = zoom;
        this.detail = detail;
        this.look = look;
    }

    /** Draws the tile into a square. */
    void paint(Pen pen, double x, double y, double size) {
        Rectangle2D all = new Rectangle2D.Double(x, y, size, size);
        pen.clip(all);
        boolean whole =
                tile.layers().stream().anyMatch(l -> LAND.matcher(name(l)).find());
        boolean wet =
                tile.layers().stream().anyMatch(l -> WATER.matcher(name(l)).find());
        if (whole || wet) pen.fill(all, whole ? look.water() : look.land(), 1);
        Square square = new Square(pen, x, y, size);
        square.areas(LAND, look.land());
        square.cover();
        square.areas(WATER, look.water());
        square.lines(RIVER, look.river(), 0.9);
        if (zoom + detail - 2 >= BUILDINGS_FROM) square.areas(BUILDING, look.built());
        square.lines(BORDER, look.border(), 1);
        // The narrowest first, so that a main road runs over the streets that meet it.
        for (int rank = 0; rank < SHOWN_FROM.length; rank++)
            if (zoom + 2 * (detail - 2) >= SHOWN_FROM[rank]) square.roads(rank);
        pen.unclip();
    }

    private static String name(VectorTile.Layer layer) {
        return layer.name().toLowerCase(Locale.ROOT);
    }

    /** How much a road matters: 0 a street, 1 a middling road, 2 a main one. */
    private static int rank(Map<String, String> attributes) {
        String kind = kind(attributes);
        return MAIN.matcher(kind).find() ? 2 : MIDDLING.matcher(kind).find() ? 1 : 0;
    }

    private static String kind(Map<String, String> attributes) {
        StringBuilder kinds = new StringBuilder();
        for (String key : KINDS) kinds.append(attributes.getOrDefault(key, "")).append(' ');
        return kinds.toString().toLowerCase(Locale.ROOT);
    }

    /** The square that the tile fills. */
    private final class Square {

        private final Pen pen;
        private final AffineTransform corner;
        private final double size;

        Square(Pen pen, double x, double y, double size) {
            this.pen = pen;
            this.corner = AffineTransform.getTranslateInstance(x, y);
            this.size = size;
        }

        private Shape placed(VectorTile.Layer layer, VectorTile.Feature feature) {
            AffineTransform to = new AffineTransform(corner);
            to.scale(size / layer.extent(), size / layer.extent());
            return feature.shape().createTransformedShape(to);
        }

        void areas(Pattern names, String colour) {
            for (VectorTile.Layer layer : tile.layers()) {
                if (!names.matcher(name(layer)).find()) continue;
                for (VectorTile.Feature feature : layer.features())
                    if (feature.area()) pen.fill(placed(layer, feature), colour, 1);
            }
        }

        /** Woods and what is built; other uses of the land stay plain. */
        void cover() {
            for (VectorTile.Layer layer : tile.layers()) {
                if (!COVER.matcher(name(layer)).find()) continue;
                for (VectorTile.Feature feature : layer.features()) {
                    if (!feature.area()) continue;
                    String kind = name(layer) + " " + kind(feature.attributes());
                    if (SETTLED.matcher(kind).find()) pen.fill(placed(layer, feature), look.built(), 0.5);
                    else if (GREEN.matcher(kind).find()) pen.fill(placed(layer, feature), look.wood(), 1);
                }
            }
        }

        void lines(Pattern names, String colour, double width) {
            for (VectorTile.Layer layer : tile.layers()) {
                if (!names.matcher(name(layer)).find()) continue;
                for (VectorTile.Feature feature : layer.features())
                    if (!feature.area()) pen.stroke(placed(layer, feature), colour, width, 1);
            }
        }

        void roads(int rank) {
            double nearer = Math.max(0, zoom - SHOWN_FROM[rank]);
            double width = 0.7 + 0.3 * rank + 0.25 * nearer * (rank + 1) / 2;
            for (VectorTile.Layer layer : tile.layers()) {
                if (!ROAD.matcher(name(layer)).find()) continue;
                for (VectorTile.Feature feature : layer.features()) {
                    if (feature.area()
                            || rank(feature.attributes()) != rank
                            || NO_ROAD.matcher(kind(feature.attributes())).find()) continue;
                    Shape road = placed(layer, feature);
                    if (rank > 0 || nearer < 2) {
                        pen.stroke(road, look.road(), width * size / SIZE, 1);
                    } else {
                        pen.stroke(road, look.province(), (width + 1) * size / SIZE, 1);
                        pen.stroke(road, look.street(), width * size / SIZE, 1);
                    }
                }
            }
        }
    }
}
