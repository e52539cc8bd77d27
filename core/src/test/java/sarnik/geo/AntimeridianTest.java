package sarnik.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import sarnik.format.BoundaryFiles;

@DisplayName("Areas that reach over the meridian of 180 degrees")
class AntimeridianTest {

    private static BoundaryCheck check(String wkt) throws ParseException {
        return BoundaryCheck.of(List.of(new Area("A", "A", "", new WKTReader().read(wkt))));
    }

    @Test
    void areCutThereWithAsMuchOnEitherSideAndSaidToBe() throws ParseException {
        BoundaryCheck checked =
                check("POLYGON ((178 -17, -179 -17, -179 -16, 179 -15.9, 178 -16, 178 -17), (179 -16.6, 179.5 -16.6, "
                        + "179.5 -16.4, 179 -16.4, 179 -16.6))");
        Geometry shape = checked.areas().get(0).shape();
        // Three by one degree with a gable of a tenth upon it, less a hole of half by a fifth.
        assertThat(shape.getArea()).isCloseTo(3 + 0.15 - 0.1, within(1e-9));
        assertThat(shape.getEnvelopeInternal().getWidth()).isEqualTo(360);
        assertThat(shape.getNumGeometries()).isEqualTo(2);
        assertThat(checked.troubles()).singleElement().asString().contains("over the meridian of 180 degrees");
    }

    @Test
    void aroundAPoleAreClosedAlongIt() throws ParseException {
        Geometry cap = check("POLYGON ((-120 -70, 0 -70, 120 -70, -120 -70))")
                .areas()
                .get(0)
                .shape();
        assertThat(cap.getArea()).isCloseTo(360 * 20, within(1e-6));
        // As some write it: the pole as the outer ring, the coast as a hole in it.
        Geometry same = check("POLYGON ((-180 -89.999, -60 -89.999, 60 -89.999, 170 -89.999, -180 -89.999), (-120 "
                        + "-70, 0 -70, 120 -70, -120 -70))")
                .areas()
                .get(0)
                .shape();
        assertThat(same.symDifference(cap).getArea()).isCloseTo(0, within(1e-6));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "POLYGON ((-180 -90, 180 -90, 180 90, -180 90, -180 -90))",
                "POLYGON ((-170 -60, 170 -60, 170 60, -170 60, -170 -60))",
                "POLYGON ((-180 -90, 180 -90, 180 -70, 60 -65, -60 -66, -180 -70, -180 -90))"
            })
    void boxesAndEdgesAlongAPoleStayAsTheyAre(String wkt) throws ParseException {
        BoundaryCheck checked = check(wkt);
        assertThat(checked.areas().get(0).shape()).isEqualTo(new WKTReader().read(wkt));
        assertThat(checked.troubles()).isEmpty();
    }

    /** Made once, when it is first asked. */
    private static final class Countries {
        private static final IndexedSet INDEXED =
                new IndexedSet(BoundaryFiles.shipped(BoundaryFiles.Shipped.COUNTRIES));
    }

    @ParameterizedTest
    @CsvSource({
        "-100, 68.9, ",
        "-98, 60, CA",
        "-175, 66, RU",
        "179, 67, RU",
        "100, -16.54, ",
        "0, -80, AQ",
        "90, -75, AQ",
        "-20, 65, IS",
        "179.5, -16.6, FJ"
    })
    void ofTheShippedCountriesHoldWhatLiesInThem(double lon, double lat, String code) {
        assertThat(Countries.INDEXED.at(lon, lat).map(Area::code).orElse(null)).isEqualTo(code);
    }

    // Areas of the land: Encyclopaedias give 17.1, 14.2 and 0.0183 million square kilometres; the outlines are those of
    // 1:50 million.
    @ParameterizedTest
    @CsvSource({"RU, 17.1e6", "AQ, 12.3e6", "FJ, 18.3e3"})
    void haveTheSizeThatTheyHave(String code, double squareKilometres) {
        Area area = BoundaryFiles.shipped(BoundaryFiles.Shipped.COUNTRIES).areas().stream()
                .filter(a -> a.code().equals(code))
                .findFirst()
                .orElseThrow();
        assertThat(area.squareKilometres()).isCloseTo(squareKilometres, within(0.03 * squareKilometres));
    }
}
