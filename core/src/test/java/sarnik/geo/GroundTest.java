package sarnik.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.io.WKTReader;
import sarnik.place.Land;

@DisplayName("Distances, stored areas, land and sea")
class GroundTest {

    private static final double DEGREE = Math.PI * 6_371_008.8 / 180;

    private static Area area(String code, String wkt) throws Exception {
        return new Area(code, "Area " + code, "parent", new WKTReader().read(wkt));
    }

    /** By hand on the sphere: along the equator and a meridian, over the pole, and to the other side of the Earth. */
    @ParameterizedTest(name = "{0} {1} to {2} {3} is {4} degrees")
    @CsvSource({
        "0, 0, 1, 0, 1",
        "0, 0, 0, 1, 1",
        "0, 80, 180, 80, 20",
        "0, 0, 180, 0, 180",
        "179.5, 0, -179.5, 0, 1",
        "5, 5, 5, 5, 0",
        "0, 60, 90, 60, 41.409622"
    })
    void aGreatCircleIsMeasured(double lon1, double lat1, double lon2, double lat2, double degrees) {
        assertThat(GreatCircle.metres(lon1, lat1, lon2, lat2)).isCloseTo(degrees * DEGREE, within(1.0));
        assertThat(GreatCircle.metres(lon2, lat2, lon1, lat1)).isCloseTo(degrees * DEGREE, within(1.0));
    }

    @Test
    void areasComeBackFromTheirBytes() throws Exception {
        List<Area> areas = List.of(
                area("ñ1", "POLYGON((0 0, 4 0, 4 4, 0 4, 0 0), (1 1, 2 1, 2 2, 1 1))"),
                area("2", "MULTIPOLYGON(((9 9, 10 9, 10 10, 9 9)), ((20 20, 21 20, 21 21, 20 20)))"));
        List<Area> back = AreaBytes.read(AreaBytes.write(areas));
        assertThat(back).hasSize(2);
        for (int i = 0; i < 2; i++) {
            assertThat(back.get(i).code()).isEqualTo(areas.get(i).code());
            assertThat(back.get(i).name()).isEqualTo(areas.get(i).name());
            assertThat(back.get(i).parent()).isEqualTo("parent");
            assertThat(back.get(i).shape().equalsExact(areas.get(i).shape())).isTrue();
        }
    }

    @Test
    void bytesThatAreNoneAreRefused() throws Exception {
        byte[] bytes = AreaBytes.write(List.of(area("1", "POLYGON((0 0, 4 0, 4 4, 0 0))")));
        assertThatThrownBy(() -> AreaBytes.read(new byte[] {1, 2, 3})).isInstanceOf(UncheckedIOException.class);
        assertThatThrownBy(() -> AreaBytes.read(Arrays.copyOf(bytes, bytes.length / 2)))
                .isInstanceOf(UncheckedIOException.class);
    }

    @Test
    void aPointInsideAnAreaIsInside() throws Exception {
        Area horseshoe = area("u", "POLYGON((0 0, 9 0, 9 9, 8 9, 8 1, 1 1, 1 9, 0 9, 0 0))");
        double[] at = horseshoe.inside();
        assertThat(new AreaFinder(new BoundarySet("u", "own", "", List.of(horseshoe))).at(at[0], at[1]))
                .isZero();
    }

    @Test
    void landReachesALittleWayOffTheCoast() throws Exception {
        Land land = Land.of(
                new AreaFinder(
                        new BoundarySet("Island", "own", "", List.of(area("i", "POLYGON((0 0, 4 0, 4 4, 0 4, 0 0))")))),
                0.1);
        assertThat(land.isNear(2, 2)).isTrue();
        assertThat(land.isNear(4.05, 2)).isTrue();
        assertThat(land.isNear(4.06, 4.06)).isTrue();
        assertThat(land.isNear(4.3, 2)).isFalse();
        assertThat(Land.EVERYWHERE.isNear(-30, 40)).isTrue();
    }
}
