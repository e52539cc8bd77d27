package sarnik.picture;

import java.awt.Color;
import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.IntToDoubleFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Point;
import sarnik.data.OwnShapes;
import sarnik.data.PlaceSheet;
import sarnik.geo.Area;
import sarnik.geo.KernelDensity;
import sarnik.geo.ShapeBand;
import sarnik.scale.NumberWords;
import sarnik.visual.Key;
import sarnik.visual.Sight;
import sarnik.visual.map.Layer;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;

/**
 * A map as a picture made without a browser: the same places, sizes, classes and colours as the browser draws, on the
 * same ground,
 * with title, keys and credits.
 */
public final class MapPicture {

    private static final int TITLE = 30;
    private static final int FOOT = 18;
    private static final int KEY = 200;
    /** The longest scale bar, pixels. */
    private static final double BAR = 110;
    /** A square of density, pixels. */
    private static final int CELL = 2;
    /** Density below this share of the greatest is left clear. */
    private static final double FAINTEST = 0.02;
    /** The least radius of a group in which its number has room. */
    private static final double ROOM = 7;
    /** The mark of what lies beyond a scale's ends, on an area; on symbols it is half their size within bounds. */
    /** Width of a line without a border, pixels; see areas.js. */
    private static final double LINE = 2;

    private static final int NOTE_LINE = 15;
    private static final int NOTE_LETTERS = 26;
    private static final double ON_AREA = 3.6;
    private static final double LEAST_MARK = 2.6;
    private static final double MOST_MARK = 5;

    private final MapDrawing map;
    private final Map<String, PlaceSheet> sheets;
    private final Function<LayerDrawn.OfAreas, List<Area>> areas;
    private final Function<String, Optional<Ground.Tiles>> sources;
    private final Frame frame;
    private final Look look;
    private final View view;
    private final int width;
    private final int height;

    /**
     * @param plane on which the map lies
     * @param width of the map, pixels
     * @param height of the map, pixels
     * @param night whether on the dark ground of the night
     * @param ground what lies under the layers
     * @param credit what is to be said of the ground; may be empty
     */
    public record Frame(Sight sight, Plane plane, int width, int height, boolean night, Ground ground, String credit) {}

    /**
     * @param sheets the places that the map's layers name, by tag
     * @param areas finds the shapes of a layer
     * @param sources finds the tiles of a source by its name
     * @param frame what is in sight, how large, and on what ground
     */
    public MapPicture(
            MapDrawing map,
            Map<String, PlaceSheet> sheets,
            Function<LayerDrawn.OfAreas, List<Area>> areas,
            Function<String, Optional<Ground.Tiles>> sources,
            Frame frame) {
        this.map = map;
        this.sources = sources;
        this.sheets = sheets;
        this.areas = areas;
        this.frame = frame;
        this.look = Look.of(frame.night());
        this.width = frame.width();
        this.height = frame.height();
        this.view = View.of(frame.sight(), frame.plane(), width, height, TITLE);
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
        List<LayerDrawn> keys = new ArrayList<>(map.layers().stream()
                .filter(l -> l.key().sizeWords() != null
                        || l.key().colourWords() != null
                        || !l.key().shapes().isEmpty())
                .toList());
        Collections.reverse(keys);
        return keys;
    }

    private void draw(Pen pen) {
        GroundPainter ground = new GroundPainter(frame.ground(), view, look);
        pen.fill(new Rectangle2D.Double(0, 0, fullWidth(), height + TITLE + FOOT), look.paper(), 1);
        pen.text(map.title(), 4, 20, 17, Face.TITLE, look.ink(), null);
        pen.clip(view.all());
        ground.paint(pen);
        for (LayerDrawn layer : map.layers()) {
            if (layer instanceof LayerDrawn.OfAreas areas) areas(pen, areas);
            else if (layer instanceof LayerDrawn.OfOutlines outlines) outlines(pen, outlines);
            else if (layer instanceof LayerDrawn.OfPictures pictures)
                sources.apply(pictures.source())
                        .ifPresent(
                                tiles -> ground.over(pen, tiles, pictures.head().opacity()));
            else if (layer instanceof LayerDrawn.OfDensity density) density(pen, density);
            else if (layer instanceof LayerDrawn.OfFlows flows)
                lines(pen, flows.places(), flows).flows(flows);
            else if (layer instanceof LayerDrawn.OfPaths paths)
                lines(pen, paths.places(), paths).paths(paths);
            else if (layer instanceof LayerDrawn.OfSymbols symbols) symbols(pen, symbols);
        }
        List<Rectangle2D> taken = new ArrayList<>(List.of(scaleBar(pen)));
        for (MapDrawing.Pinned note : map.pinned()) note(pen, note, taken);
        for (int i = map.layers().size() - 1; i >= 0; i--)
            if (map.layers().get(i) instanceof LayerDrawn.OfOutlines outlines) names(pen, outlines, taken);
            else labels(pen, map.layers().get(i), taken);
        ground.names(pen, taken);
        pen.unclip();
        pen.stroke(new Rectangle2D.Double(0.5, TITLE + 0.5, width - 1, height - 1), look.border(), 1, 1);
        String credits = Stream.concat(Stream.of(frame.credit()), map.credits().stream())
                .filter(c -> !c.isBlank())
                .collect(Collectors.joining(" · "));
        pen.text(credits, 4, height + TITLE + 13, 11, Face.TEXT, look.faint(), null);
        KeyPainter key = new KeyPainter(pen, look, width + 12, TITLE + 4);
        for (LayerDrawn layer : keys()) key.paint(layer, colours(layer.key()));
    }

    /**
     * A bar of a round length on the ground in the middle of the map, at the lower right.
     *
     * @return the box that it takes up
     */
    private Rectangle2D scaleBar(Pen pen) {
        double pixel = view.metresInTheMiddle();
        double metres = NumberWords.roundDown(BAR * pixel);
        double wide = metres / pixel;
        double x = width - wide - 10;
        double y = TITLE + height - 12;
        Path2D bar = new Path2D.Double();
        bar.moveTo(x, y - 5);
        bar.lineTo(x, y);
        bar.lineTo(x + wide, y);
        bar.lineTo(x + wide, y - 5);
        pen.stroke(bar, look.ink(), 1.5, 1);
        String words = metres < 1000 ? NumberWords.full(metres) + " m" : NumberWords.full(metres / 1000) + " km";
        pen.text(words, x + wide / 2 - Face.TEXT.wide(words, 10) / 2, y - 4, 10, Face.TEXT, look.ink(), look.paper());
        return new Rectangle2D.Double(x - 4, y - 16, wide + 8, 20);
    }

    /** A note beside its place, with a line that leads there, as map/notes.js has it. */
    private void note(Pen pen, MapDrawing.Pinned note, List<Rectangle2D> taken) {
        Point2D at = view.at(note.lon(), note.lat());
        if (!view.all().contains(at)) return;
        List<String> lines = lines(note.text());
        double wide =
                lines.stream().mapToDouble(l -> Face.TEXT.wide(l, 12)).max().orElse(0) + 10;
        double high = lines.size() * NOTE_LINE + 5;
        Rectangle2D box = free(at, wide, high, taken);
        taken.add(box);
        boolean below = box.getY() > at.getY();
        Path2D leader = new Path2D.Double();
        leader.moveTo(at.getX(), at.getY());
        leader.lineTo(
                Math.max(box.getX() + 4, Math.min(at.getX(), box.getMaxX() - 4)), below ? box.getY() : box.getMaxY());
        pen.stroke(leader, look.ink(), 1, 1);
        Shape pin = new Ellipse2D.Double(at.getX() - 3.2, at.getY() - 3.2, 6.4, 6.4);
        pen.fill(pin, look.paper(), 1);
        pen.stroke(pin, look.ink(), 1, 1);
        pen.fill(box, look.paper(), 1);
        pen.stroke(box, look.faint(), 1, 1);
        for (int i = 0; i < lines.size(); i++)
            pen.text(lines.get(i), box.getX() + 5, box.getY() + 13 + i * NOTE_LINE, 12, Face.TEXT, look.ink(), null);
    }

    private Rectangle2D free(Point2D at, double wide, double high, List<Rectangle2D> taken) {
        Rectangle2D first = null;
        for (double away : new double[] {26, 54, 86})
            for (double top : new double[] {at.getY() - away - high, at.getY() + away})
                for (double shift : new double[] {-0.5, 0, -1}) {
                    Rectangle2D box = new Rectangle2D.Double(at.getX() + shift * wide, top, wide, high);
                    if (!view.all().contains(box)) continue;
                    if (first == null) first = box;
                    if (taken.stream().noneMatch(box::intersects)) return box;
                }
        return first != null
                ? first
                : new Rectangle2D.Double(
                        Math.max(0, Math.min(at.getX(), width - wide)),
                        Math.max(TITLE, at.getY() - 26 - high),
                        wide,
                        high);
    }

    /** The words of a note in lines of about so many letters. */
    private static List<String> lines(String text) {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : text.strip().split("\\s+")) {
            if (line.length() > 0 && line.length() + word.length() + 1 > NOTE_LETTERS) {
                lines.add(line.toString());
                line.setLength(0);
            }
            line.append(line.length() == 0 ? "" : " ").append(word);
        }
        lines.add(line.toString());
        return lines;
    }

    private List<String> colours(Key key) {
        List<String> colours =
                new ArrayList<>(key.colours().stream().map(Key.Swatch::colour).toList());
        if (key.turns() && look.night()) Collections.reverse(colours);
        return colours;
    }

    // --- layers ---------------------------------------------------------------------------------------

    private void outlines(Pen pen, LayerDrawn.OfOutlines layer) {
        for (Area area : areas.apply(layer.asAreas()))
            if (layer.head().border() > 0)
                pen.stroke(
                        view.path(area.shape()),
                        look.ink(),
                        layer.head().border(),
                        layer.head().opacity());
    }

    /** The names of areas, those of the largest first. */
    private void names(Pen pen, LayerDrawn.OfOutlines layer, List<Rectangle2D> taken) {
        if (!layer.named()) return;
        areas.apply(layer.asAreas()).stream()
                .sorted(Comparator.comparingDouble(Area::squareKilometres).reversed())
                .forEach(area -> {
                    Point middle = area.shape().getInteriorPoint();
                    Point2D at = view.at(middle.getX(), middle.getY());
                    if (!view.all().contains(at)) return;
                    double wide = Face.BOLD.wide(area.name(), 12);
                    Rectangle2D box = new Rectangle2D.Double(at.getX() - wide / 2 - 3, at.getY() - 9, wide + 6, 18);
                    if (taken.stream().anyMatch(t -> t.intersects(box))) return;
                    taken.add(box);
                    pen.text(area.name(), at.getX() - wide / 2, at.getY() + 4, 12, Face.BOLD, look.ink(), look.paper());
                });
    }

    private void areas(Pen pen, LayerDrawn.OfAreas layer) {
        PlaceSheet sheet = sheets.get(layer.places());
        List<String> colours = colours(layer.key());
        Map<String, Integer> classes = new HashMap<>();
        Set<String> unsure = new HashSet<>();
        if (layer.trust() != null)
            for (int i : layer.trust().unsure())
                unsure.add(OwnShapes.code(sheet.ids().get(layer.at()[i])));
        for (int i = 0; i < layer.at().length; i++) {
            classes.put(OwnShapes.code(sheet.ids().get(layer.at()[i])), layer.classes()[i]);
        }
        for (Area area : areas.apply(layer)) {
            Integer c = classes.get(area.code());
            Shape shape = view.path(area.shape());
            if (c != null && c < 0) pen.hatch(shape, look.faint());
            else if (c != null) pen.fill(shape, colours.get(c), layer.head().opacity());
            if (c != null && c >= 0 && unsure.contains(area.code())) pen.lines(shape, look.ink());
            if (layer.head().border() > 0)
                pen.stroke(shape, look.ink(), layer.head().border(), 0.45);
            if (c != null)
                lines(
                        pen,
                        area.shape(),
                        c < 0 ? look.faint() : colours.get(c),
                        LINE + 2 * layer.head().border(),
                        layer.head().opacity());
        }
        beyond(pen, layer.key(), sheet, layer.at(), i -> ON_AREA);
    }

    /** The lines of a shape, and its points as dots; see areas.js. */
    private void lines(Pen pen, Geometry shape, String colour, double width, double opacity) {
        List<LineString> lines = ShapeBand.linesOf(shape);
        if (!lines.isEmpty()) pen.stroke(view.path(lines), colour, width, opacity);
        for (Coordinate point : ShapeBand.pointsOf(shape)) {
            Point2D at = view.at(point.x, point.y);
            pen.fill(Marks.of(Layer.Shape.CIRCLE, at.getX(), at.getY(), width / 2 + 2), colour, opacity);
        }
    }

    /**
     * Marks the places whose values lie beyond ends that were set: their colour alone would make them look like those
     * at the end.
     */
    private void beyond(Pen pen, Key key, PlaceSheet sheet, int[] at, IntToDoubleFunction size) {
        for (boolean up : new boolean[] {false, true}) {
            for (int i : up ? key.above() : key.below()) {
                if (!(size.applyAsDouble(i) > 0)) continue;
                Point2D place = view.at(sheet.lon()[at[i]], sheet.lat()[at[i]]);
                Shape arrow = Marks.arrow(place.getX(), place.getY(), size.applyAsDouble(i), up);
                pen.stroke(arrow, look.paper(), 2, 0.8);
                pen.fill(arrow, look.ink(), 1);
            }
        }
    }

    private void symbols(Pen pen, LayerDrawn.OfSymbols layer) {
        PlaceSheet sheet = sheets.get(layer.places());
        List<String> colours = colours(layer.key());
        for (int i = 0; i < layer.at().length; i++) {
            if (!(layer.radii()[i] > 0)) continue;
            int shape = layer.shapes() == null ? layer.shape() : layer.shapes()[i];
            Point2D at = view.at(sheet.lon()[layer.at()[i]], sheet.lat()[layer.at()[i]]);
            Shape mark = Marks.of(Layer.Shape.values()[shape], at.getX(), at.getY(), layer.radii()[i]);
            int c = layer.classes()[i];
            boolean hollow = c < 0 || layer.sizes()[i] < 0;
            if (!hollow) pen.fill(mark, colours.get(c), layer.head().opacity());
            if (hollow || layer.head().border() > 0)
                pen.stroke(
                        mark,
                        c < 0 ? look.faint() : hollow ? colours.get(c) : look.ink(),
                        Math.max(hollow ? 1 : 0, layer.head().border()),
                        hollow ? 1 : 0.5);
        }
        if (layer.trust() != null)
            for (int i : layer.trust().unsure()) {
                if (!(layer.radii()[i] > 0) || layer.classes()[i] < 0) continue;
                int shape = layer.shapes() == null ? layer.shape() : layer.shapes()[i];
                Point2D at = view.at(sheet.lon()[layer.at()[i]], sheet.lat()[layer.at()[i]]);
                pen.lines(Marks.of(Layer.Shape.values()[shape], at.getX(), at.getY(), layer.radii()[i]), look.ink());
            }
        if (layer.members() != null) counts(pen, layer, sheet);
        beyond(
                pen,
                layer.key(),
                sheet,
                layer.at(),
                i -> layer.radii()[i] > 0 ? Math.max(LEAST_MARK, Math.min(MOST_MARK, layer.radii()[i] * 0.5)) : 0);
    }

    /** The number of places that a group stands for, inside it where there is room. */
    private void counts(Pen pen, LayerDrawn.OfSymbols layer, PlaceSheet sheet) {
        for (int i = 0; i < layer.members().length; i++) {
            if (layer.members()[i] < 2 || layer.radii()[i] < ROOM) continue;
            Point2D at = view.at(sheet.lon()[layer.at()[i]], sheet.lat()[layer.at()[i]]);
            String count = String.valueOf(layer.members()[i]);
            pen.text(
                    count,
                    at.getX() - Face.BOLD.wide(count, 11) / 2,
                    at.getY() + 4,
                    11,
                    Face.BOLD,
                    look.ink(),
                    look.paper());
        }
    }

    private LinesPainter lines(Pen pen, String places, LayerDrawn layer) {
        return new LinesPainter(pen, view, look, sheets.get(places), colours(layer.key()));
    }

    /** Density in squares of two pixels, coloured as the browser colours it. */
    private void density(Pen pen, LayerDrawn.OfDensity layer) {
        PlaceSheet sheet = sheets.get(layer.places());
        double[] lon = IntStream.of(layer.at()).mapToDouble(i -> sheet.lon()[i]).toArray();
        double[] lat = IntStream.of(layer.at()).mapToDouble(i -> sheet.lat()[i]).toArray();
        double middle = IntStream.range(0, lat.length)
                .mapToDouble(i -> lat[i])
                .average()
                .orElse(0);
        double metres =
                layer.metres() ? layer.radius() : layer.radius() * view.plane().metres(middle) / view.scale();
        KernelDensity density = new KernelDensity(lon, lat, layer.weights(), metres);
        double peak = density.peak();
        if (!(peak > 0)) return;
        List<String> colours = colours(layer.key());
        BufferedImage image = new BufferedImage(width / CELL, height / CELL, BufferedImage.TYPE_INT_ARGB);
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                Point2D at = view.degrees((x + 0.5) * CELL, (y + 0.5) * CELL);
                double share = Math.min(1, density.between(new KernelDensity.Coordinates(at.getX(), at.getY())) / peak);
                if (share < FAINTEST) continue;
                int colour = Color.decode(
                                colours.get(Math.min(colours.size() - 1, (int) (Math.sqrt(share) * colours.size()))))
                        .getRGB();
                image.setRGB(
                        x,
                        y,
                        colour & 0xFFFFFF | (int) (255 * layer.head().opacity() * Math.min(1, 0.25 + share * 3)) << 24);
            }
        }
        pen.image(image, 0, TITLE, image.getWidth() * CELL, image.getHeight() * CELL);
    }

    private void labels(Pen pen, LayerDrawn layer, List<Rectangle2D> taken) {
        boolean isArea = layer instanceof LayerDrawn.OfAreas;
        List<String> texts = layer instanceof LayerDrawn.OfAreas a
                ? a.labels()
                : layer instanceof LayerDrawn.OfSymbols s ? s.labels() : null;
        if (texts == null) return;
        int[] at = layer instanceof LayerDrawn.OfAreas a ? a.at() : ((LayerDrawn.OfSymbols) layer).at();
        int[] ranks = layer instanceof LayerDrawn.OfAreas a ? a.ranks() : ((LayerDrawn.OfSymbols) layer).ranks();
        PlaceSheet sheet = sheets.get(
                layer instanceof LayerDrawn.OfAreas a ? a.places() : ((LayerDrawn.OfSymbols) layer).places());
        for (int i : ranks == null ? IntStream.range(0, at.length).toArray() : ranks) {
            double x = view.at(sheet.lon()[at[i]], sheet.lat()[at[i]]).getX();
            double y = view.at(sheet.lon()[at[i]], sheet.lat()[at[i]]).getY();
            if (texts.get(i).isEmpty() || x < 0 || x > width || y < TITLE || y > TITLE + height) continue;
            double wide = Face.BOLD.wide(texts.get(i), 12);
            double from = isArea ? x - wide / 2 : x + ((LayerDrawn.OfSymbols) layer).radii()[i] + 3;
            Rectangle2D box = new Rectangle2D.Double(from - 3, y - 9, wide + 6, 18);
            if (taken.stream().anyMatch(box::intersects)) continue;
            taken.add(box);
            pen.text(texts.get(i), from, y + 4, 12, Face.BOLD, look.ink(), look.paper());
        }
    }
}
