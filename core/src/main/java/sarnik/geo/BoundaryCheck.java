package sarnik.geo;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.operation.valid.IsValidOp;

/**
 * Checks shapes before they become a boundary set, and mends what can be mended: rings that cross themselves are taken
 * apart (JTS's GeometryFixer keeps what lies inside an odd number of turns of a ring). What cannot be used is left out
 * and
 * said.
 *
 * @param areas the areas that can be used
 * @param troubles what was mended or left out, a sentence each
 */
public record BoundaryCheck(List<Area> areas, List<String> troubles) {

    private static final Envelope EARTH = new Envelope(-180.0001, 180.0001, -90.0001, 90.0001);

    public static BoundaryCheck of(List<Area> given) {
        List<Area> areas = new ArrayList<>();
        List<String> troubles = new ArrayList<>();
        Set<String> codes = new HashSet<>();
        for (int i = 0; i < given.size(); i++) {
            Area area = given.get(i);
            String called = "Area %,d (%s)".formatted(i + 1, area.name().isEmpty() ? area.code() : area.name());
            Geometry shape = area.shape();
            if (shape == null || shape.isEmpty()) {
                troubles.add(called + " has no shape and is left out.");
                continue;
            }
            if (!finite(shape) || !EARTH.contains(shape.getEnvelopeInternal())) {
                troubles.add(called
                        + " has coordinates that are no degrees, so it is left out. If they are in a "
                        + "projected system, save them in degrees (WGS 84).");
                continue;
            }
            if (shape instanceof Polygonal && Antimeridian.isCrossed(shape)) {
                shape = Antimeridian.cut(shape);
                troubles.add(
                        called + " reaches over the meridian of 180 degrees without being cut there, so it was cut.");
            }
            IsValidOp validity = new IsValidOp(shape);
            if (!validity.isValid()) {
                shape = GeometryFixer.fix(shape);
                troubles.add("%s was mended: %s near %.4f, %.4f."
                        .formatted(
                                called,
                                validity.getValidationError().getMessage(),
                                validity.getValidationError().getCoordinate().x,
                                validity.getValidationError().getCoordinate().y));
            }
            if (!(shape instanceof Polygonal) || shape.getArea() == 0) {
                troubles.add(called + " encloses nothing and is left out.");
                continue;
            }
            if (area.code().isEmpty()) {
                troubles.add(called + " has no code and is left out.");
                continue;
            }
            if (!codes.add(area.code())) {
                troubles.add("%s has the code “%s” of another and is left out. Choose a column whose values are unique."
                        .formatted(called, area.code()));
                continue;
            }
            areas.add(new Area(area.code(), area.name().isEmpty() ? area.code() : area.name(), area.parent(), shape));
        }
        return new BoundaryCheck(List.copyOf(areas), List.copyOf(troubles));
    }

    private static boolean finite(Geometry shape) {
        for (var corner : shape.getCoordinates())
            if (!Double.isFinite(corner.x) || !Double.isFinite(corner.y)) return false;
        return true;
    }
}
