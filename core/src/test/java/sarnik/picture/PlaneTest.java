package sarnik.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.geom.Area;
import java.awt.geom.Path2D;
import java.awt.geom.PathIterator;
import java.awt.geom.Point2D;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Envelope;
import sarnik.visual.Sight;

class PlaneTest {

    private static final Plane.EqualArea AREA = new Plane.EqualArea(0, 40);

    /**
     * Snyder 1987, p. 332: on a sphere of radius 3, about 40° north and 100° west, the point 20° south and 100° east
     * has x = −4.2339303 and y = 4.0257775.
     */
    @Test
    void equalAreaGivesTheFiguresOfItsManual() {
        Point2D at = new Plane.EqualArea(-100, 40).at(100, -20);
        double radius = 3 * 2 * Math.PI;
        assertThat(at.getX() * radius).isCloseTo(-4.2339303, within(1e-6));
        assertThat(-at.getY() * radius).isCloseTo(4.0257775, within(1e-6));
    }

    @Property(tries = 300)
    void eachPlaneLeadsBackToTheDegreesItCameFrom(
            @ForAll @DoubleRange(min = -80, max = 80) double lon,
            @ForAll @DoubleRange(min = -60, max = 84) double lat) {
        for (Plane plane : new Plane[] {new Plane.Mercator(), AREA}) {
            Point2D there = plane.at(lon, lat);
            Point2D back = plane.degrees(there.getX(), there.getY());
            assertThat(back.getX()).isCloseTo(lon, within(1e-7));
            assertThat(back.getY()).isCloseTo(lat, within(1e-7));
        }
    }

    private static double area(View view, Envelope box) {
        double area = 0;
        double[] p = new double[6];
        Point2D last = null;
        for (PathIterator i = view.path(box).getPathIterator(null); !i.isDone(); i.next()) {
            if (i.currentSegment(p) == PathIterator.SEG_CLOSE) break;
            Point2D at = new Point2D.Double(p[0], p[1]);
            if (last != null) area += last.getX() * at.getY() - at.getX() * last.getY();
            last = at;
        }
        return Math.abs(area) / 2;
    }

    /** A band from 30 to 40 degrees holds (sin 40 − sin 30) / (sin 60 − sin 50) times the area of one from 50 to 60. */
    @ParameterizedTest
    @CsvSource({"true", "false"})
    void onlyOneOfThemKeepsAreas(boolean equalArea) {
        View view = View.of(new Sight(4, -10, 25, 10, 65), equalArea ? AREA : new Plane.Mercator(), 1000, 1000, 0);
        double ratio = area(view, new Envelope(-5, 5, 30, 40)) / area(view, new Envelope(-5, 5, 50, 60));
        double expected = (Math.sin(Math.toRadians(40)) - Math.sin(Math.toRadians(30)))
                / (Math.sin(Math.toRadians(60)) - Math.sin(Math.toRadians(50)));
        assertThat(Math.abs(ratio - expected) < 0.01 * expected).isEqualTo(equalArea);
    }

    @Test
    void whatIsInSightFitsThePicture() {
        for (Plane plane : new Plane[] {new Plane.Mercator(), AREA}) {
            View view = View.of(new Sight(5, -10, 35, 5, 44), plane, 600, 400, 30);
            for (double lon : new double[] {-10, 5}) {
                for (double lat : new double[] {35, 44}) {
                    assertThat(view.at(lon, lat).getX()).isBetween(-1e-6, 600 + 1e-6);
                    assertThat(view.at(lon, lat).getY()).isBetween(30 - 1e-6, 430 + 1e-6);
                }
            }
            assertThat(view.degrees(300, 200).getX()).isCloseTo(-2.5, within(0.5));
        }
    }

    @Test
    void longEdgesBendWithTheMeridians() {
        View view = View.of(new Sight(4, 0, 26, 20, 60), AREA, 1000, 1000, 0);
        Path2D box = (Path2D) view.path(new Envelope(0, 18, 26, 60));
        Point2D middle = view.at(18, 43);
        // A straight edge from corner to corner would leave the middle of the meridian far outside or inside.
        assertThat(new Area(box).intersects(middle.getX() - 1, middle.getY() - 1, 2, 2))
                .isTrue();
        assertThat(box.contains(middle.getX() + 2, middle.getY())).isFalse();
        assertThat(box.contains(middle.getX() - 2, middle.getY())).isTrue();
    }
}
