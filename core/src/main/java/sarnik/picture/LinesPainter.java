package sarnik.picture;

import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.stream.IntStream;
import sarnik.data.PlaceSheet;
import sarnik.visual.map.LayerDrawn;

/** Draws flows and paths as flows.js and paths.js draw them in the browser. */
final class LinesPainter {

    /** How far a flow bends to the right of its way, as a share of its length. */
    private static final double BEND = 0.16;
    /** How thick a flow is at its end, as a share of its beginning. */
    private static final double END = 0.45;

    private static final int STEPS = 24;
    private static final double PATH = 2.4;
    /** Room between the arrows along a path, pixels. */
    private static final double ARROWS = 90;

    private final Pen pen;
    private final View view;
    private final Look look;
    private final PlaceSheet sheet;
    private final List<String> colours;

    /**
     * @param sheet the places that the layer names
     * @param colours of its classes
     */
    LinesPainter(Pen pen, View view, Look look, PlaceSheet sheet, List<String> colours) {
        this.pen = pen;
        this.view = view;
        this.look = look;
        this.sheet = sheet;
        this.colours = colours;
    }

    private Point2D at(int place) {
        return view.at(sheet.lon()[place], sheet.lat()[place]);
    }

    private String colour(int c) {
        return c < 0 ? look.faint() : colours.get(c);
    }

    private static Shape closed(List<Point2D> corners) {
        Path2D path = open(corners);
        path.closePath();
        return path;
    }

    private static Path2D open(List<Point2D> points) {
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        for (int i = 0; i < points.size(); i++) {
            if (i == 0) path.moveTo(points.get(i).getX(), points.get(i).getY());
            else path.lineTo(points.get(i).getX(), points.get(i).getY());
        }
        return path;
    }

    private static Point2D moved(Point2D from, double x, double y, double by) {
        return new Point2D.Double(from.getX() + x * by, from.getY() + y * by);
    }

    // --- flows ----------------------------------------------------------------------------------------

    void flows(LayerDrawn.OfFlows layer) {
        for (int i = 0; i < layer.from().length; i++) {
            if (!(layer.widths()[i] > 0)) continue;
            Shape ribbon = ribbon(at(layer.from()[i]), at(layer.to()[i]), layer.widths()[i]);
            pen.fill(ribbon, colour(layer.classes()[i]), layer.head().opacity());
            pen.stroke(ribbon, look.paper(), 0.6, layer.head().opacity() * 0.8);
        }
        double most = Math.max(
                1,
                IntStream.range(0, layer.ends().length)
                        .mapToDouble(e -> Math.max(layer.out()[e], layer.in()[e]))
                        .max()
                        .orElse(1));
        for (int e = 0; e < layer.ends().length; e++) {
            Point2D p = at(layer.ends()[e]);
            double r = 2.2 + 4 * Math.sqrt(Math.max(0, Math.max(layer.out()[e], layer.in()[e])) / most);
            boolean sends = layer.out()[e] > 0;
            Shape end = sends
                    ? new Rectangle2D.Double(p.getX() - r, p.getY() - r, 2 * r, 2 * r)
                    : new Ellipse2D.Double(p.getX() - r, p.getY() - r, 2 * r, 2 * r);
            pen.fill(end, sends ? look.ink() : look.paper(), 1);
            pen.stroke(end, look.ink(), 1.2, 1);
        }
    }

    /** The outline of a ribbon that narrows along a curve and ends in a head. */
    private static Shape ribbon(Point2D a, Point2D b, double width) {
        Point2D c = new Point2D.Double(
                (a.getX() + b.getX()) / 2 - (b.getY() - a.getY()) * BEND,
                (a.getY() + b.getY()) / 2 + (b.getX() - a.getX()) * BEND);
        double length = a.distance(b);
        double stop = Math.max(0.5, 1 - Math.min(length * 0.35, 5 + width * 1.3) / Math.max(1, length));
        List<Point2D> left = new ArrayList<>();
        List<Point2D> right = new ArrayList<>();
        for (int s = 0; s <= STEPS; s++) {
            double t = stop * s / STEPS;
            Point2D p =
                    new Point2D.Double(along(a.getX(), c.getX(), b.getX(), t), along(a.getY(), c.getY(), b.getY(), t));
            double dx = 2 * (1 - t) * (c.getX() - a.getX()) + 2 * t * (b.getX() - c.getX());
            double dy = 2 * (1 - t) * (c.getY() - a.getY()) + 2 * t * (b.getY() - c.getY());
            double d = Math.hypot(dx, dy) == 0 ? 1 : Math.hypot(dx, dy);
            double half = width * (1 - (1 - END) * t) / 2;
            left.add(moved(p, -dy / d, dx / d, half));
            right.add(moved(p, dy / d, -dx / d, half));
            if (s < STEPS) continue;
            double wing = half + Math.min(6, 2 + width * 0.35);
            left.add(moved(p, -dy / d, dx / d, wing));
            left.add(b);
            left.add(moved(p, dy / d, -dx / d, wing));
        }
        Collections.reverse(right);
        left.addAll(right);
        return closed(left);
    }

    private static double along(double a, double c, double b, double t) {
        return (1 - t) * (1 - t) * a + 2 * (1 - t) * t * c + t * t * b;
    }

    // --- paths ----------------------------------------------------------------------------------------

    void paths(LayerDrawn.OfPaths layer) {
        for (int p = 0; p < layer.parts().length; p++) {
            int to = p + 1 < layer.parts().length ? layer.parts()[p + 1] : layer.at().length;
            List<Point2D> points = IntStream.range(layer.parts()[p], to)
                    .mapToObj(i -> at(layer.at()[i]))
                    .toList();
            String colour = colour(layer.classes()[layer.pathOf()[p]]);
            Path2D line = open(points);
            double opacity = layer.head().opacity();
            pen.stroke(line, look.paper(), PATH + 2, opacity * 0.8);
            pen.stroke(line, colour, PATH, opacity);
            arrows(points, colour, opacity);
            if (points.size() > 1) stops(points, colour, opacity);
        }
    }

    /** Small arrows along the way, evenly apart. */
    private void arrows(List<Point2D> points, String colour, double opacity) {
        double until = ARROWS / 2;
        for (int i = 1; i < points.size(); i++) {
            Point2D a = points.get(i - 1);
            double length = a.distance(points.get(i));
            double ux = (points.get(i).getX() - a.getX()) / length;
            double uy = (points.get(i).getY() - a.getY()) / length;
            for (; until < length; until += ARROWS) {
                Point2D at = moved(a, ux, uy, until);
                Point2D back = moved(at, ux, uy, -4);
                pen.fill(
                        closed(List.of(moved(at, ux, uy, 6), moved(back, -uy, ux, 4.5), moved(back, uy, -ux, 4.5))),
                        colour,
                        opacity);
            }
            until -= length;
        }
    }

    /** A dot at each stop, a ring where the way starts and a square where it ends. */
    private void stops(List<Point2D> points, String colour, double opacity) {
        for (Point2D p : points.subList(1, points.size() - 1))
            pen.fill(new Ellipse2D.Double(p.getX() - 2, p.getY() - 2, 4, 4), colour, opacity);
        Point2D start = points.get(0);
        Point2D end = points.get(points.size() - 1);
        Shape ring = new Ellipse2D.Double(start.getX() - 4.5, start.getY() - 4.5, 9, 9);
        pen.fill(ring, look.paper(), opacity);
        pen.stroke(ring, colour, 2, opacity);
        pen.fill(new Rectangle2D.Double(end.getX() - 4, end.getY() - 4, 8, 8), colour, opacity);
    }
}
