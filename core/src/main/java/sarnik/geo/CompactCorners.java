package sarnik.geo;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.impl.PackedCoordinateSequence;
import org.locationtech.jts.geom.impl.PackedCoordinateSequenceFactory;

/**
 * The corners of a shape that is held for long: two numbers each, 16 bytes, where an object for each takes 40. Corners
 * as objects are made when they are asked for and not kept, as the packed sequences of JTS would keep them.
 */
final class CompactCorners extends PackedCoordinateSequence.Double {

    /** Makes shapes whose corners are held so. */
    static final GeometryFactory SHAPES = new GeometryFactory(new Sequences());

    private CompactCorners(double[] numbers) {
        super(numbers, 2, 0);
    }

    @Override
    public Coordinate[] toCoordinateArray() {
        Coordinate[] corners = new Coordinate[size()];
        for (int i = 0; i < corners.length; i++) corners[i] = new CoordinateXY(getX(i), getY(i));
        return corners;
    }

    @Override
    public CompactCorners copy() {
        return new CompactCorners(getRawCoordinates().clone());
    }

    private static final class Sequences extends PackedCoordinateSequenceFactory {

        @Override
        public CoordinateSequence create(Coordinate[] corners) {
            CompactCorners made = new CompactCorners(new double[2 * (corners == null ? 0 : corners.length)]);
            for (int i = 0; i < made.size(); i++) {
                made.setX(i, corners[i].x);
                made.setY(i, corners[i].y);
            }
            return made;
        }

        @Override
        public CoordinateSequence create(CoordinateSequence corners) {
            CompactCorners made = new CompactCorners(new double[2 * corners.size()]);
            for (int i = 0; i < made.size(); i++) {
                made.setX(i, corners.getX(i));
                made.setY(i, corners.getY(i));
            }
            return made;
        }

        /** Heights and measures are not kept: areas have none. */
        @Override
        public CoordinateSequence create(int size, int dimension, int measures) {
            return new CompactCorners(new double[2 * size]);
        }

        @Override
        public CoordinateSequence create(int size, int dimension) {
            return create(size, dimension, 0);
        }
    }
}
