package sarnik.picture;

import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import sarnik.dashboard.Drawing;
import sarnik.dashboard.Layer;
import sarnik.dashboard.LayerDrawn;
import sarnik.dashboard.PlaceSheet;
import sarnik.dashboard.Sight;
import sarnik.geo.Area;
import sarnik.geo.BoundarySet;
import sarnik.geo.KernelDensity;

/**
 * A map as a picture made without a browser: the same places, sizes, classes and colours as the browser draws, in Web
 * Mercator, with title, keys and credits.
 */
public final class MapPicture {

    private static final int TITLE = 30;
    private static final int FOOT = 18;
    private static final int KEY = 200;
    private static final double BEND = 0.16;

    private final Drawing.OfMap map;
    private final Map<String, PlaceSheet> sheets;
    private final Function<String, BoundarySet> sets;
    private final Look look;
    private final int width;
    private final int height;
    private final double scale;
    private final double left;
    private final double top;

    /**
     * @param width of the map, pixels
     * @param height of the map, pixels
     * @param night whether on the dark ground of the night
     */
    public record Frame(Sight sight, int width, int height, boolean night) {}

    private record Look(String paper, String ink, String faint, String land, String water, String border) {
        static final Look DAY = new Look("#f7f4ec", "#23281f", "#6b6f60", "#efe9da", "#dde5e1", "#a9a592");
        static final Look NIGHT = new Look("#171a17", "#e9e6dc", "#a5a798", "#262a25", "#141d20", "#596052");
    }

    /**
     * @param sheets the places that the map's layers name, by tag
     * @param sets finds boundary sets; the land is drawn from the countries
     * @param frame what is in sight, and how large
     */
    public MapPicture(Drawing.OfMap map, Map<String, PlaceSheet> sheets, Function<String, BoundarySet> sets, Frame frame) {
        this.map = map;
        this.sheets = sheets;
        this.sets = sets;
        this.look = frame.night() ? Look.NIGHT : Look.DAY;
        this.width = frame.width();
        this.height = frame.height();
        double west = x(frame.sight().west());
        double east = x(frame.sight().east());
        double north = y(frame.sight().north());
        double south = y(frame.sight().south());
        scale = Math.min(width / Math.max(1e-9, east - west), height / Math.max(1e-9, south - north));
        left = (west + east) / 2 - width / scale / 2;
        top = (north + south) / 2 - height / scale / 2;
    }

    /** Web Mercator with the width of the world as 1, from the west. */
    private static double x(double lon) {
        return lon / 360 + 0.5;
    }

    /** The same from the north. */
    private static double y(double lat) {
        return 0.5 - Math.log(Math.tan(Math.PI / 4 + Math.toRadians(Math.max(-85, Math.min(85, lat))) / 2)) / (2 * Math.PI);
    }

    private double px(double lon) {
        return (x(lon) - left) * scale;
    }

    private double py(double lat) {
        return TITLE + (y(lat) - top) * scale;
    }

    /** The picture as SVG. */
    public String svg() {
        SvgPen pen = new SvgPen(fullWidth(), height + TITLE + FOOT, map.title());
        draw(pen);
        return pen.finish();
    }

    /**
     * The picture as PNG.
     *
     * @param ratio 1, or 2 for twice as many pixels each way
     */
    public byte[] png(int ratio) {
        RasterPen pen = new RasterPen(fullWidth(), height + TITLE + FOOT, ratio);
        draw(pen);
        return pen.finish();
    }

    private int fullWidth() {
        return width + (keys().isEmpty() ? 0 : KEY);
    }

    private List<LayerDrawn> keys() {
        List<LayerDrawn> keys = new ArrayList<>(map.layers().stream().filter(l -> l.key().sizeWords() != null || l.key().colourWords() != null).toList());
        Collections.reverse(keys);
        return keys;
    }

    private void draw(Pen pen) {
        pen.fill(new Rectangle2D.Double(0, 0, fullWidth(), height + TITLE + FOOT), look.paper, 1);
        pen.text(map.title(), 4, 20, 17, true, look.ink, null);
        pen.clip(0, TITLE, width, height);
        pen.fill(new Rectangle2D.Double(0, TITLE, width, height), look.water, 1);
        for (Area country : sets.apply("Countries").areas()) {
            Shape shape = path(country.shape());
            pen.fill(shape, look.land, 1);
            pen.stroke(shape, look.border, 0.8, 1);
        }
        for (LayerDrawn layer : map.layers()) {
            if (layer instanceof LayerDrawn.OfAreas areas) areas(pen, areas);
            else if (layer instanceof LayerDrawn.OfDensity density) density(pen, density);
            else if (layer instanceof LayerDrawn.OfFlows flows) flows(pen, flows);
            else if (layer instanceof LayerDrawn.OfPaths paths) paths(pen, paths);
            else if (layer instanceof LayerDrawn.OfSymbols symbols) symbols(pen, symbols);
        }
        List<Rectangle2D> taken = new ArrayList<>();
        for (int i = map.layers().size() - 1; i >= 0; i--) labels(pen, map.layers().get(i), taken);
        pen.unclip();
        pen.stroke(new Rectangle2D.Double(0.5, TITLE + 0.5, width - 1, height - 1), look.border, 1, 1);
        List<String> credits = new ArrayList<>(List.of("Natural Earth"));
        credits.addAll(map.credits());
        pen.text(String.join(" · ", credits), 4, height + TITLE + 13, 11, false, look.faint, null);
        double y = TITLE + 4;
        for (LayerDrawn layer : keys()) y = key(pen, layer, width + 12, y) + 10;
    }

    /** A shape in pixels; what lies far outside is left out. */
    private Shape path(Geometry shape) {
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        for (int g = 0; g < shape.getNumGeometries(); g++) {
            if (!(shape.getGeometryN(g) instanceof Polygon polygon)) continue;
            var box = polygon.getEnvelopeInternal();
            if (px(box.getMaxX()) < -50 || px(box.getMinX()) > width + 50 || py(box.getMinY()) < TITLE - 50 || py(box.getMaxY()) > TITLE + height + 50) continue;
            ring(path, polygon.getExteriorRing());
            for (int h = 0; h < polygon.getNumInteriorRing(); h++) ring(path, polygon.getInteriorRingN(h));
        }
        return path;
    }

    private void ring(Path2D path, LineString ring) {
        double lastX = Double.NaN;
        double lastY = Double.NaN;
        for (int i = 0; i < ring.getNumPoints(); i++) {
            Coordinate c = ring.getCoordinateN(i);
            double x = px(c.x);
            double y = py(c.y);
            // Corners nearer than half a pixel to the last say nothing.
            if (i > 0 && i < ring.getNumPoints() - 1 && Math.abs(x - lastX) < 0.5 && Math.abs(y - lastY) < 0.5) continue;
            if (i == 0) path.moveTo(x, y);
            else path.lineTo(x, y);
            lastX = x;
            lastY = y;
        }
        path.closePath();
    }

    private List<String> colours(LayerDrawn.Key key) {
        List<String> colours = new ArrayList<>(key.colours().stream().map(Drawing.Swatch::colour).toList());
        if (key.turns() && look == Look.NIGHT) Collections.reverse(colours);
        return colours;
    }

    // --- layers ---------------------------------------------------------------------------------------

    private void areas(Pen pen, LayerDrawn.OfAreas layer) {
        PlaceSheet sheet = sheets.get(layer.places());
        List<String> colours = colours(layer.key());
        Map<String, Integer> classes = new HashMap<>();
        for (int i = 0; i < layer.at().length; i++) {
            String id = sheet.ids().get(layer.at()[i]);
            classes.put(id.substring(id.indexOf('/') + 1), layer.classes()[i]);
        }
        for (Area area : sets.apply(layer.set()).areas()) {
            Integer c = classes.get(area.code());
            Shape shape = path(area.shape());
            if (c != null && c < 0) pen.hatch(shape, look.faint);
            else if (c != null) pen.fill(shape, colours.get(c), layer.head().opacity());
            if (layer.head().border() > 0) pen.stroke(shape, look.ink, layer.head().border(), 0.45);
        }
    }

    private void symbols(Pen pen, LayerDrawn.OfSymbols layer) {
        PlaceSheet sheet = sheets.get(layer.places());
        List<String> colours = colours(layer.key());
        for (int i = 0; i < layer.at().length; i++) {
            if (!(layer.radii()[i] > 0)) continue;
            int shape = layer.shapes() == null ? layer.shape() : layer.shapes()[i];
            Shape mark = mark(Layer.Shape.values()[shape], px(sheet.lon()[layer.at()[i]]), py(sheet.lat()[layer.at()[i]]), layer.radii()[i]);
            int c = layer.classes()[i];
            boolean hollow = c < 0 || layer.sizes()[i] < 0;
            if (!hollow) pen.fill(mark, colours.get(c), layer.head().opacity());
            if (hollow || layer.head().border() > 0) pen.stroke(mark, c < 0 ? look.faint : hollow ? colours.get(c) : look.ink, Math.max(hollow ? 1 : 0, layer.head().border()), hollow ? 1 : 0.5);
        }
    }

    /** A shape about a point, as symbols.js draws it. */
    static Shape mark(Layer.Shape shape, double x, double y, double r) {
        double[][] corners = switch (shape) {
            case SQUARE -> new double[][] {{-0.886, -0.886}, {0.886, -0.886}, {0.886, 0.886}, {-0.886, 0.886}};
            case DIAMOND -> new double[][] {{0, -1.25}, {1.25, 0}, {0, 1.25}, {-1.25, 0}};
            case TRIANGLE -> new double[][] {{0, -1.4}, {1.25, 0.85}, {-1.25, 0.85}};
            case STAR -> IntStream.range(0, 10).mapToObj(i -> new double[] {Math.sin(i * Math.PI / 5) * (i % 2 == 1 ? 0.62 : 1.4), -Math.cos(i * Math.PI / 5) * (i % 2 == 1 ? 0.62 : 1.4)}).toArray(double[][]::new);
            case CROSS -> new double[][] {{-0.4, -1.2}, {0.4, -1.2}, {0.4, -0.4}, {1.2, -0.4}, {1.2, 0.4}, {0.4, 0.4}, {0.4, 1.2}, {-0.4, 1.2}, {-0.4, 0.4}, {-1.2, 0.4}, {-1.2, -0.4}, {-0.4, -0.4}};
            default -> null;
        };
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        if (corners != null) {
            for (int i = 0; i < corners.length; i++) {
                if (i == 0) path.moveTo(x + corners[i][0] * r, y + corners[i][1] * r);
                else path.lineTo(x + corners[i][0] * r, y + corners[i][1] * r);
            }
            path.closePath();
        } else if (shape == Layer.Shape.RING) {
            path.append(new Ellipse2D.Double(x - 1.15 * r, y - 1.15 * r, 2.3 * r, 2.3 * r), false);
            path.append(new Ellipse2D.Double(x - 0.62 * r, y - 0.62 * r, 1.24 * r, 1.24 * r), false);
        } else if (shape == Layer.Shape.DROP) {
            path.moveTo(x, y - 1.6 * r);
            path.curveTo(x + 0.5 * r, y - 0.9 * r, x + r, y - 0.4 * r, x + r, y + 0.25 * r);
            path.curveTo(x + r, y + 0.8 * r, x + 0.55 * r, y + 1.25 * r, x, y + 1.25 * r);
            path.curveTo(x - 0.55 * r, y + 1.25 * r, x - r, y + 0.8 * r, x - r, y + 0.25 * r);
            path.curveTo(x - r, y - 0.4 * r, x - 0.5 * r, y - 0.9 * r, x, y - 1.6 * r);
            path.closePath();
        } else {
            path.append(new Ellipse2D.Double(x - r, y - r, 2 * r, 2 * r), false);
        }
        return path;
    }

    private void flows(Pen pen, LayerDrawn.OfFlows layer) {
        PlaceSheet sheet = sheets.get(layer.places());
        List<String> colours = colours(layer.key());
        for (int i = 0; i < layer.from().length; i++) {
            if (!(layer.widths()[i] > 0)) continue;
            double ax = px(sheet.lon()[layer.from()[i]]);
            double ay = py(sheet.lat()[layer.from()[i]]);
            double bx = px(sheet.lon()[layer.to()[i]]);
            double by = py(sheet.lat()[layer.to()[i]]);
            double cx = (ax + bx) / 2 - (by - ay) * BEND;
            double cy = (ay + by) / 2 + (bx - ax) * BEND;
            String colour = layer.classes()[i] < 0 ? look.faint : colours.get(layer.classes()[i]);
            Path2D line = new Path2D.Double();
            line.moveTo(ax, ay);
            line.quadTo(cx, cy, bx, by);
            pen.stroke(line, colour, layer.widths()[i], layer.head().opacity());
            double length = Math.max(1e-9, Math.hypot(bx - cx, by - cy));
            double[] u = {(bx - cx) / length, (by - cy) / length};
            double head = 5 + layer.widths()[i] * 1.2;
            Path2D arrow = new Path2D.Double();
            arrow.moveTo(bx, by);
            arrow.lineTo(bx - u[0] * head - u[1] * head * 0.5, by - u[1] * head + u[0] * head * 0.5);
            arrow.lineTo(bx - u[0] * head + u[1] * head * 0.5, by - u[1] * head - u[0] * head * 0.5);
            arrow.closePath();
            pen.fill(arrow, colour, 1);
        }
        for (int e = 0; e < layer.ends().length; e++) {
            Shape end = mark(layer.out()[e] > 0 ? Layer.Shape.SQUARE : Layer.Shape.CIRCLE, px(sheet.lon()[layer.ends()[e]]), py(sheet.lat()[layer.ends()[e]]), 3.4);
            pen.fill(end, layer.out()[e] > 0 ? look.ink : look.paper, 1);
            pen.stroke(end, look.ink, 1.2, 1);
        }
    }

    private void paths(Pen pen, LayerDrawn.OfPaths layer) {
        PlaceSheet sheet = sheets.get(layer.places());
        List<String> colours = colours(layer.key());
        for (int p = 0; p < layer.parts().length; p++) {
            int to = p + 1 < layer.parts().length ? layer.parts()[p + 1] : layer.at().length;
            int c = layer.classes()[layer.pathOf()[p]];
            String colour = c < 0 ? look.faint : colours.get(c);
            Path2D line = new Path2D.Double();
            for (int i = layer.parts()[p]; i < to; i++) {
                double x = px(sheet.lon()[layer.at()[i]]);
                double y = py(sheet.lat()[layer.at()[i]]);
                if (i == layer.parts()[p]) line.moveTo(x, y);
                else line.lineTo(x, y);
            }
            pen.stroke(line, colour, 2.4, layer.head().opacity());
            Shape start = mark(Layer.Shape.CIRCLE, px(sheet.lon()[layer.at()[layer.parts()[p]]]), py(sheet.lat()[layer.at()[layer.parts()[p]]]), 4.5);
            pen.fill(start, look.paper, 1);
            pen.stroke(start, colour, 2, 1);
            pen.fill(mark(Layer.Shape.SQUARE, px(sheet.lon()[layer.at()[to - 1]]), py(sheet.lat()[layer.at()[to - 1]]), 4.5), colour, 1);
        }
    }

    /** Density in squares of four pixels, coloured as the browser colours it. */
    private void density(Pen pen, LayerDrawn.OfDensity layer) {
        PlaceSheet sheet = sheets.get(layer.places());
        double[] lon = IntStream.of(layer.at()).mapToDouble(i -> sheet.lon()[i]).toArray();
        double[] lat = IntStream.of(layer.at()).mapToDouble(i -> sheet.lat()[i]).toArray();
        double middle = IntStream.range(0, lat.length).mapToDouble(i -> lat[i]).average().orElse(0);
        double metres = layer.metres() ? layer.radius() : layer.radius() / scale * 40_075_016.7 * Math.cos(Math.toRadians(middle));
        KernelDensity density = new KernelDensity(lon, lat, layer.weights(), metres);
        double peak = density.peak();
        if (!(peak > 0)) return;
        List<String> colours = colours(layer.key());
        int step = 4;
        for (int y = 0; y < height; y += step) {
            for (int x = 0; x < width; x += step) {
                double share = Math.min(1, density.at(new KernelDensity.Coordinates(lonOf(x + step / 2.0), latOf(y + step / 2.0))) / peak);
                if (share < 0.02) continue;
                String colour = colours.get(Math.min(colours.size() - 1, (int) (Math.sqrt(share) * colours.size())));
                pen.fill(new Rectangle2D.Double(x, TITLE + y, step, step), colour, layer.head().opacity() * Math.min(1, 0.25 + share * 3));
            }
        }
    }

    private double lonOf(double pixel) {
        return (pixel / scale + left - 0.5) * 360;
    }

    private double latOf(double pixel) {
        return Math.toDegrees(Math.atan(Math.sinh((0.5 - (pixel / scale + top)) * 2 * Math.PI)));
    }

    private void labels(Pen pen, LayerDrawn layer, List<Rectangle2D> taken) {
        boolean isArea = layer instanceof LayerDrawn.OfAreas;
        List<String> texts = layer instanceof LayerDrawn.OfAreas a ? a.labels() : layer instanceof LayerDrawn.OfSymbols s ? s.labels() : null;
        if (texts == null) return;
        int[] at = layer instanceof LayerDrawn.OfAreas a ? a.at() : ((LayerDrawn.OfSymbols) layer).at();
        int[] ranks = layer instanceof LayerDrawn.OfAreas a ? a.ranks() : ((LayerDrawn.OfSymbols) layer).ranks();
        PlaceSheet sheet = sheets.get(layer instanceof LayerDrawn.OfAreas a ? a.places() : ((LayerDrawn.OfSymbols) layer).places());
        for (int i : ranks == null ? IntStream.range(0, at.length).toArray() : ranks) {
            double x = px(sheet.lon()[at[i]]);
            double y = py(sheet.lat()[at[i]]);
            if (texts.get(i).isEmpty() || x < 0 || x > width || y < TITLE || y > TITLE + height) continue;
            // About half the size a character; the pen's font is not known here.
            double wide = texts.get(i).length() * 6.6;
            double from = isArea ? x - wide / 2 : x + ((LayerDrawn.OfSymbols) layer).radii()[i] + 3;
            Rectangle2D box = new Rectangle2D.Double(from - 3, y - 9, wide + 6, 18);
            if (taken.stream().anyMatch(box::intersects)) continue;
            taken.add(box);
            pen.text(texts.get(i), from, y + 4, 12, true, look.ink, look.paper);
        }
    }

    // --- keys -----------------------------------------------------------------------------------------

    private double key(Pen pen, LayerDrawn layer, double x, double from) {
        LayerDrawn.Key key = layer.key();
        double y = from + 12;
        pen.text(layer.head().name(), x, y, 12, true, look.ink, null);
        if (key.sizeWords() != null) {
            pen.text(key.sizeWords(), x, y += 16, 11, false, look.faint, null);
            boolean lines = layer instanceof LayerDrawn.OfFlows;
            for (Drawing.Circle circle : key.circles()) {
                double high = lines ? 17 : Math.max(15, 2 * circle.radius() + 4);
                if (lines) pen.fill(new Rectangle2D.Double(x, y + 9 - circle.radius() / 2, 42, circle.radius()), look.ink, 1);
                else pen.stroke(new Ellipse2D.Double(x + key.circles().get(0).radius() - circle.radius(), y + 4, 2 * circle.radius(), 2 * circle.radius()), look.ink, 0.9, 1);
                pen.text(circle.text(), x + (lines ? 50 : 2 * key.circles().get(0).radius() + 10), y + (lines ? 13 : circle.radius() + 8), 11, false, look.ink, null);
                y += high;
            }
            y += 4;
        }
        if (key.colourWords() == null) return y;
        pen.text(key.colourWords(), x, y += 16, 11, false, look.faint, null);
        List<String> colours = colours(key);
        if (key.ramp()) {
            for (int i = 0; i < colours.size(); i++) pen.fill(new Rectangle2D.Double(x + i * 150.0 / colours.size(), y + 5, 150.0 / colours.size() + 0.3, 10), colours.get(i), 1);
            return y + 20;
        }
        for (int i = 0; i < colours.size(); i++) {
            pen.fill(new Rectangle2D.Double(x, y + 5, 14, 12), colours.get(i), 1);
            pen.text(key.colours().get(i).text(), x + 21, y + 15, 12, false, look.ink, null);
            y += 17;
        }
        if (key.missing() > 0) {
            pen.hatch(new Rectangle2D.Double(x, y + 5, 14, 12), look.faint);
            pen.text("no data", x + 21, y + 15, 12, false, look.ink, null);
            y += 17;
        }
        return y;
    }
}
