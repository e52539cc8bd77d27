package sarnik.format;

import java.util.Optional;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.CoordinateSequenceFilter;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKBReader;
import sarnik.geo.Projection;
import sarnik.table.UnreadableTableException;

/**
 * In which coordinate system the shapes of a file are: what a person has said, else what the file says. Nothing is
 * guessed:
 * where neither says it, shapes have no place until somebody does.
 *
 * @param projection {@link Projection#UNSAID} where it is not known
 * @param asks what has to be said, a sentence; null where it is known
 */
record Systems(Projection projection, String asks) {

    static final String SAY = "Say which it is: 4326 for degrees, or another code of the EPSG register.";
    private static final int SHOWN = 60;

    static final Systems DEGREES = new Systems(Projection.DEGREES, null);

    /**
     * @param said the code of the EPSG dataset that a person has said; null where nobody has
     * @param description what the file says, as well-known text; null where it says nothing
     * @throws UnreadableTableException when a person has said a system that is not known
     */
    static Systems of(Integer said, String description) {
        if (said != null) {
            return new Systems(
                    Projection.ofEpsg(said)
                            .orElseThrow(() -> new UnreadableTableException(
                                    ("The coordinate system EPSG:%d is not known here. Say another, or save the "
                                                    + "shapes in degrees (4326).")
                                            .formatted(said))),
                    null);
        }
        if (description == null || description.isBlank())
            return unsaid("The file does not say in which coordinate system its shapes are; of a shapefile the part "
                    + ".prj would. "
                    + SAY);
        Optional<Projection> read = Projection.ofDescription(description);
        String plain = description.strip();
        return read.map(p -> new Systems(p, null))
                .orElseGet(() -> unsaid("The file says its coordinate system in a way that is not read: “%s”. %s"
                        .formatted(plain.substring(0, Math.min(SHOWN, plain.length())), SAY)));
    }

    /** A system that is named by something else than what is known here. */
    static Systems unsaid(String asks) {
        return new Systems(Projection.UNSAID, asks);
    }

    /**
     * A shape that is written as well-known binary in this system, in degrees.
     *
     * @param number of its row, for the sentence
     * @throws UnreadableTableException when it is none
     */
    Geometry shape(byte[] binary, long number) {
        try {
            Geometry shape = new WKBReader(JsonShapes.SHAPES).read(binary);
            if (!projection.isDegrees()) turn(shape, projection);
            return shape;
        } catch (ParseException | IllegalArgumentException broken) {
            throw brokenShape(number);
        }
    }

    static UnreadableTableException brokenShape(long number) {
        return new UnreadableTableException("The shape of row %,d is broken.".formatted(number));
    }

    /** Turns all corners of a shape into degrees, in place; a corner that has none becomes NaN. */
    static void turn(Geometry shape, Projection projection) {
        shape.apply(new CoordinateSequenceFilter() {
            @Override
            public void filter(CoordinateSequence corners, int i) {
                double[] at = projection.toDegrees(corners.getX(i), corners.getY(i));
                corners.setOrdinate(i, 0, at == null ? Double.NaN : at[0]);
                corners.setOrdinate(i, 1, at == null ? Double.NaN : at[1]);
            }

            @Override
            public boolean isDone() {
                return false;
            }

            @Override
            public boolean isGeometryChanged() {
                return true;
            }
        });
    }

    /** How the coordinates are written, for people. */
    String words() {
        return asks != null
                ? "coordinates in a system that is not said"
                : projection.isDegrees() ? "coordinates in degrees" : "coordinates in " + projection.words();
    }
}
