package sarnik.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("A coordinate system on the ground")
class ProjectionTest {

    /** The corner cases: UTM's own origin, Web Mercator's formula x = R·λ, and the false origin of LAEA Europe at 52 N 10 E. */
    @ParameterizedTest(name = "EPSG:{0} {1} {2} is {3} east, {4} north")
    @CsvSource({"25830, 500000, 0, -3, 0", "25829, 500000, 4427757.218, -9, 40", "3857, -333958.4723798, 0, -3, 0", "3035, 4321000, 3210000, 10, 52", "4326, -3.7, 40.4, -3.7, 40.4"})
    void turnsIntoDegrees(int epsg, double x, double y, double lon, double lat) {
        double[] at = Projection.ofEpsg(epsg).orElseThrow().toDegrees(x, y);
        assertThat(at[0]).isCloseTo(lon, within(1e-6));
        assertThat(at[1]).isCloseTo(lat, within(1e-6));
    }

    @Test
    void isEmptyForACodeThatTheRegisterLacks() {
        assertThat(Projection.ofEpsg(999_999)).isEmpty();
    }

    @Test
    void givesNothingForWhatLiesOutsideIt() {
        assertThat(Projection.ofEpsg(25830).orElseThrow().toDegrees(1e12, 1e12)).isNull();
        assertThat(Projection.ofEpsg(3857).orElseThrow().toDegrees(Double.NaN, 0)).isNull();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "Transverse_Mercator | PARAMETER[\"False_Easting\",500000.0],PARAMETER[\"Central_Meridian\",-3.0],PARAMETER[\"Scale_Factor\",0.9996],PARAMETER[\"Latitude_Of_Origin\",0.0] | 500000 | 4427757.218 | -3 | 40",
        "Lambert_Azimuthal_Equal_Area | PARAMETER[\"False_Easting\",4321000.0],PARAMETER[\"False_Northing\",3210000.0],PARAMETER[\"Central_Meridian\",10.0],PARAMETER[\"Latitude_Of_Origin\",52.0] | 4321000 | 3210000 | 10 | 52"})
    void isReadFromTheDescriptionBesideAShapefile(String method, String parameters, double x, double y, double lon, double lat) {
        String text = "PROJCS[\"x\",GEOGCS[\"GCS_ETRS_1989\",DATUM[\"D_ETRS_1989\",SPHEROID[\"GRS_1980\",6378137.0,298.257222101]],PRIMEM[\"Greenwich\",0.0],UNIT[\"Degree\",0.0174532925199433]],"
                + "PROJECTION[\"" + method + "\"]," + parameters + ",UNIT[\"Meter\",1.0]]";
        double[] at = Projection.ofDescription(text).orElseThrow().toDegrees(x, y);
        assertThat(at[0]).isCloseTo(lon, within(1e-6));
        assertThat(at[1]).isCloseTo(lat, within(1e-6));
    }

    @Test
    void isReadByItsCodeWhereTheDescriptionGivesOne() {
        String text = "PROJCS[\"ETRS89 / UTM zone 30N\",GEOGCS[\"ETRS89\",DATUM[\"x\",SPHEROID[\"GRS 1980\",6378137,298.257222101]],AUTHORITY[\"EPSG\",\"4258\"]],PROJECTION[\"Own\"],UNIT[\"metre\",1],AUTHORITY[\"EPSG\",\"25830\"]]";
        assertThat(Projection.ofDescription(text).orElseThrow().name()).isEqualTo("EPSG:25830");
    }

    @Test
    void inDegreesNeedsNoTurning() {
        assertThat(Projection.ofDescription("GEOGCS[\"GCS_WGS_1984\",DATUM[\"D_WGS_1984\",SPHEROID[\"WGS_1984\",6378137.0,298.257223563]]]").orElseThrow().isDegrees()).isTrue();
        assertThat(Projection.ofDescription("not a description")).isEmpty();
    }
}
