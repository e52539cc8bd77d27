package sarnik.picture;

import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.util.stream.IntStream;
import sarnik.visual.map.Layer;
import sarnik.visual.map.LayerDrawn;

/** The outlines of marks, as symbols.js and beyond.js draw them. */
final class Marks {

    private Marks() {}

    /** A shape about a point. */
    static Shape of(Layer.Shape shape, double x, double y, double r) {
        double[][] corners = switch (shape) {
            case SQUARE -> new double[][] {{-0.886, -0.886}, {0.886, -0.886}, {0.886, 0.886}, {-0.886, 0.886}};
            case DIAMOND -> new double[][] {{0, -1.25}, {1.25, 0}, {0, 1.25}, {-1.25, 0}};
            case TRIANGLE -> new double[][] {{0, -1.4}, {1.25, 0.85}, {-1.25, 0.85}};
            case STAR ->
                IntStream.range(0, 10)
                        .mapToObj(i -> new double[] {
                            Math.sin(i * Math.PI / 5) * (i % 2 == 1 ? 0.62 : 1.4),
                            -Math.cos(i * Math.PI / 5) * (i % 2 == 1 ? 0.62 : 1.4)
                        })
                        .toArray(double[][]::new);
            case CROSS ->
                new double[][] {
                    {-0.4, -1.2},
                    {0.4, -1.2},
                    {0.4, -0.4},
                    {1.2, -0.4},
                    {1.2, 0.4},
                    {0.4, 0.4},
                    {0.4, 1.2},
                    {-0.4, 1.2},
                    {-0.4, 0.4},
                    {-1.2, 0.4},
                    {-1.2, -0.4},
                    {-0.4, -0.4}
                };
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

    /** A triangle up for what lies above the high end of a scale, down for what lies below the low one. */
    static Shape arrow(double x, double y, double r, boolean up) {
        int way = up ? -1 : 1;
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        path.moveTo(x, y + way * r * 1.1);
        path.lineTo(x + r, y - way * r * 0.75);
        path.lineTo(x - r, y - way * r * 0.75);
        path.closePath();
        return path;
    }

    /** Whether what lies beyond the ends of a layer's scale is marked on the map. */
    static boolean beyondIsMarked(LayerDrawn layer) {
        return layer instanceof LayerDrawn.OfSymbols || layer instanceof LayerDrawn.OfAreas;
    }
}
