package sarnik.geo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import sarnik.format.BoundaryFiles;

@DisplayName("A boundary set")
class BoundarySetTest {

    private static final GeometryFactory SHAPES = new GeometryFactory();

    private static Geometry shape(String wkt) {
        try {
            return new WKTReader(SHAPES).read(wkt);
        } catch (ParseException broken) {
            throw new IllegalArgumentException(broken);
        }
    }

    /** A square of one degree, its lower left corner at x, y. */
    private static Area square(int x, int y) {
        return new Area(
                x + "," + y,
                "Square " + x + " " + y,
                "",
                shape("POLYGON((%1$d %2$d, %3$d %2$d, %3$d %4$d, %1$d %4$d, %1$d %2$d))"
                        .formatted(x, y, x + 1, y + 1)));
    }

    @Nested
    @DisplayName("finds the area that holds a point")
    class Finding {

        @Test
        void asJtsItselfDoesForRandomStars() {
            Random random = new Random(4);
            List<Area> stars = new java.util.ArrayList<>();
            for (int i = 0; i < 60; i++) {
                double cx = random.nextDouble() * 20 - 10;
                double cy = random.nextDouble() * 20 - 10;
                Coordinate[] ring = new Coordinate[41];
                for (int k = 0; k < 40; k++) {
                    double r = 0.3 + random.nextDouble();
                    ring[k] = new Coordinate(cx + r * Math.cos(k * Math.PI / 20), cy + r * Math.sin(k * Math.PI / 20));
                }
                ring[40] = ring[0];
                stars.add(new Area("s" + i, "Star " + i, "", SHAPES.createPolygon(ring)));
            }
            AreaFinder finder = new AreaFinder(new BoundarySet("Stars", "own", "", stars));
            int inside = 0;
            for (int n = 0; n < 20_000; n++) {
                double x = random.nextDouble() * 24 - 12;
                double y = random.nextDouble() * 24 - 12;
                int found = finder.at(x, y);
                Geometry point = SHAPES.createPoint(new Coordinate(x, y));
                int first = 0;
                while (first < stars.size() && !stars.get(first).shape().covers(point)) first++;
                assertThat(found)
                        .as("the first star that holds %f %f", x, y)
                        .isEqualTo(first == stars.size() ? -1 : first);
                if (found >= 0) inside++;
            }
            assertThat(inside).isGreaterThan(2000);
        }

        @Test
        void withItsHolesAndEdges() {
            Area ring =
                    new Area("r", "Ring", "", shape("POLYGON((0 0, 4 0, 4 4, 0 4, 0 0), (1 1, 3 1, 3 3, 1 3, 1 1))"));
            AreaFinder finder = new AreaFinder(new BoundarySet("x", "own", "", List.of(ring)));
            assertThat(finder.at(0.5, 0.5)).isZero();
            assertThat(finder.at(2, 2)).isEqualTo(-1);
            assertThat(finder.at(0, 0)).as("a corner").isZero();
            assertThat(finder.at(5, 5)).isEqualTo(-1);
            assertThat(finder.at(Double.NaN, 0)).isEqualTo(-1);
        }
    }

    @Nested
    @DisplayName("is held for long")
    class HeldForLong {

        /** The same set with an object for each corner. */
        private static BoundarySet asObjects(BoundarySet set) {
            BoundarySet same = new BoundarySet(
                    set.name(), set.level(), set.credit(), AreaBytes.read(AreaBytes.write(set.areas())));
            assertThat(corners(same.areas().get(0).shape())).isNotInstanceOf(CompactCorners.class);
            return same;
        }

        private static CoordinateSequence corners(Geometry shape) {
            return ((Polygon) shape.getGeometryN(0)).getExteriorRing().getCoordinateSequence();
        }

        @Test
        void whenItShips() {
            assertThat(BoundaryFiles.shipped(BoundaryFiles.Shipped.COUNTRIES).areas())
                    .allSatisfy(area -> assertThat(corners(area.shape())).isInstanceOf(CompactCorners.class));
        }

        @Test
        void withTheVeryShapesThatItWasMadeOf() {
            for (BoundaryFiles.Shipped shipped : BoundaryFiles.Shipped.values()) {
                BoundarySet set = asObjects(BoundaryFiles.shipped(shipped));
                BoundarySet held = set.compact();
                assertThat(held.name()).isEqualTo(set.name());
                assertThat(held.level()).isEqualTo(set.level());
                assertThat(held.credit()).isEqualTo(set.credit());
                assertThat(held.areas()).hasSameSizeAs(set.areas());
                for (int a = 0; a < set.areas().size(); a++) {
                    Area area = set.areas().get(a);
                    Area same = held.areas().get(a);
                    assertThat(List.of(same.code(), same.name(), same.parent()))
                            .isEqualTo(List.of(area.code(), area.name(), area.parent()));
                    assertThat(same.shape().equalsExact(area.shape()))
                            .as(area.name())
                            .isTrue();
                    assertThat(same.squareKilometres()).isEqualTo(area.squareKilometres());
                }
            }
        }

        @Test
        void andCornersAsObjectsAreNotKept() {
            Geometry held = new BoundarySet("x", "own", "", List.of(square(1, 1)))
                    .compact()
                    .areas()
                    .get(0)
                    .shape();
            Coordinate[] asked = held.getCoordinates();
            asked[0].x = 77;
            assertThat(held.getCoordinates()[0].x).isEqualTo(1);
            assertThat(held.copy().equalsExact(held)).isTrue();
            assertThat(corners(held)).isInstanceOf(CompactCorners.class);
        }

        @Test
        void andItsAreasAreFoundAsBefore() {
            BoundarySet set = asObjects(BoundaryFiles.shipped(BoundaryFiles.Shipped.PROVINCES));
            AreaFinder before = new AreaFinder(set);
            AreaFinder held = new AreaFinder(set.compact());
            Random random = new Random(9);
            int inside = 0;
            for (int n = 0; n < 20_000; n++) {
                double x = random.nextDouble() * 14 - 10;
                double y = random.nextDouble() * 9 + 35.5;
                assertThat(held.at(x, y)).isEqualTo(before.at(x, y));
                if (before.at(x, y) >= 0) inside++;
            }
            assertThat(inside).isGreaterThan(5000);
        }
    }

    @Nested
    @DisplayName("is checked")
    class Checked {

        @Test
        void andWhatCrossesItselfIsMended() {
            BoundaryCheck check = BoundaryCheck.of(
                    List.of(new Area("b", "Bow", "", shape("POLYGON((0 0, 2 2, 2 0, 0 2, 0 0))")), square(5, 5)));
            assertThat(check.areas()).hasSize(2);
            assertThat(check.areas().get(0).shape().isValid()).isTrue();
            assertThat(check.areas().get(0).shape().getArea()).isEqualTo(2);
            assertThat(check.troubles())
                    .singleElement()
                    .asString()
                    .contains("Bow")
                    .contains("mended")
                    .contains("1.0000, 1.0000");
        }

        @Test
        void andWhatCannotBeUsedIsLeftOutAndSaid() {
            Area line = new Area("l", "Line", "", shape("POLYGON((0 0, 1 1, 2 2, 0 0))"));
            Area metres = new Area(
                    "m",
                    "Metres",
                    "",
                    shape("POLYGON((500000 4000000, 500100 4000000, 500100 4000100, 500000 4000000))"));
            Area none = new Area("n", "None", "", null);
            Area noCode = new Area("", "Uncoded", "", square(1, 1).shape());
            BoundaryCheck check = BoundaryCheck.of(List.of(line, metres, none, noCode, square(1, 1), square(1, 1)));
            assertThat(check.areas()).hasSize(1);
            assertThat(String.join("\n", check.troubles()))
                    .contains("Line) was mended")
                    .contains("Line) encloses nothing")
                    .contains("no degrees")
                    .contains("no shape")
                    .contains("no code")
                    .contains("of another");
        }
    }

    @Nested
    @DisplayName("is simplified")
    class Simplified {

        /** Two areas with a wiggling border between them. */
        private BoundarySet neighbours() {
            StringBuilder border = new StringBuilder();
            for (int i = 1; i < 200; i++)
                border.append(", ").append(5 + 0.004 * Math.sin(i)).append(' ').append(i * 0.02);
            String up = border.toString();
            String left = "POLYGON((0 0, 5 0" + up + ", 5 4, 0 4, 0 0))";
            String[] corners = up.substring(2).split(", ");
            StringBuilder down = new StringBuilder();
            for (int i = corners.length - 1; i >= 0; i--) down.append(", ").append(corners[i]);
            String right = "POLYGON((5 0, 9 0, 9 4, 5 4" + down + ", 5 0))";
            return new BoundarySet(
                    "Two",
                    "own",
                    "",
                    List.of(new Area("l", "Left", "", shape(left)), new Area("r", "Right", "", shape(right))));
        }

        @Test
        void withoutGapsBetweenNeighbours() {
            BoundarySet set = neighbours();
            List<Geometry> far = ShapeBand.FAR.simplify(set);
            assertThat(far.get(0).getNumPoints()).isLessThan(20);
            assertThat(far.get(0).intersection(far.get(1)).getArea()).isZero();
            assertThat(far.get(0).union(far.get(1)).getArea()).isEqualTo(36);
            assertThat(ShapeBand.CLOSE.simplify(set).get(0))
                    .isSameAs(set.areas().get(0).shape());
        }

        @Test
        void intoStepsOfWholeNumbers() {
            List<int[]> rings = ShapeBand.WIDE.rings(square(-3, 40).shape());
            assertThat(rings)
                    .singleElement()
                    .satisfies(r -> assertThat(r).containsExactly(-3000, 40_000, 1000, 0, 0, 1000, -1000, 0));
            assertThat(ShapeBand.FAR.rings(shape("POLYGON((0 0, 0.0001 0, 0.0001 0.0001, 0 0))")))
                    .as("too small to be seen")
                    .isEmpty();
        }

        @Test
        void linesAndPointsAmongThemAreOpenAndADotHasOneCorner() {
            var all = shape(
                    "GEOMETRYCOLLECTION(LINESTRING(0 0, 1 1, 3 1), MULTIPOINT((2 2)), POLYGON((0 0, 1 0, 1 1, 0 0)))");
            assertThat(ShapeBand.WIDE.lines(all))
                    .containsExactly(new int[] {0, 0, 1000, 1000, 2000, 0}, new int[] {2000, 2000});
            assertThat(ShapeBand.WIDE.rings(all)).hasSize(1);
            BoundarySet set = new BoundarySet(
                    "s", "own", "", List.of(new Area("a", "a", "", shape("LINESTRING(0 0, 1 0.0001, 2 0)"))));
            assertThat(ShapeBand.FAR.simplify(set).get(0).getNumPoints()).isEqualTo(2);
        }
    }

    @Test
    @DisplayName("knows which areas are left")
    void left() {
        BoundarySet set = new BoundarySet("x", "own", "", List.of(square(0, 0), square(1, 0)));
        assertThat(set.without(Set.of("0,0"))).extracting(Area::code).containsExactly("1,0");
        assertThat(set.find("1,0")).isPresent();
        assertThat(set.find("9,9")).isEmpty();
    }
}
