package sarnik.geo;

import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.Proj4jException;
import org.locationtech.proj4j.datum.Ellipsoid;

/** The figures of the earth that systems rest on. */
final class Ellipsoids {

    private Ellipsoids() {}

    /** Half axes of the ellipsoid of a system in the words of PROJ, metres; null where they cannot be told. */
    static double[] of(String parameters) {
        try {
            Ellipsoid ellipsoid = new CRSFactory()
                    .createFromParameters("x", Projection.asRead(parameters))
                    .getDatum()
                    .getEllipsoid();
            return new double[] {ellipsoid.getA(), ellipsoid.getB()};
        } catch (Proj4jException | NullPointerException untold) {
            return null;
        }
    }
}
