package sarnik.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("A coordinate system on the ground")
class ProjectionTest {

    /**
     * The corner cases: UTM's own origin, Web Mercator's formula x = R·λ, and the false origin of LAEA Europe at 52 N
     * 10 E.
     */
    @ParameterizedTest(name = "EPSG:{0} {1} {2} is {3} east, {4} north")
    @CsvSource({
        "25830, 500000, 0, -3, 0",
        "25829, 500000, 4427757.218, -9, 40",
        "3857, -333958.4723798, 0, -3, 0",
        "3035, 4321000, 3210000, 10, 52",
        "4326, -3.7, 40.4, -3.7, 40.4"
    })
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
        assertThat(Projection.ofEpsg(3857).orElseThrow().toDegrees(Double.NaN, 0))
                .isNull();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Transverse_Mercator | "
                        + "PARAMETER[\"False_Easting\",500000.0],PARAMETER[\"Central_Meridian\",-3.0],"
                        + "PARAMETER[\"Scale_Factor\",0.9996],PARAMETER[\"Latitude_Of_Origin\",0.0] | 500000 | "
                        + "4427757.218 | -3 | 40",
                "Lambert_Azimuthal_Equal_Area | "
                        + "PARAMETER[\"False_Easting\",4321000.0],PARAMETER[\"False_Northing\",3210000.0],"
                        + "PARAMETER[\"Central_Meridian\",10.0],PARAMETER[\"Latitude_Of_Origin\",52.0] | "
                        + "4321000 | 3210000 | 10 | 52"
            })
    void isReadFromTheDescriptionBesideAShapefile(
            String method, String parameters, double x, double y, double lon, double lat) {
        String text = "PROJCS[\"x\",GEOGCS[\"GCS_ETRS_1989\",DATUM[\"D_ETRS_1989\",SPHEROID[\"GRS_1980\",6378137.0,"
                + "298.257222101]],PRIMEM[\"Greenwich\",0.0],UNIT[\"Degree\",0.0174532925199433]],"
                + "PROJECTION[\"" + method + "\"]," + parameters + ",UNIT[\"Meter\",1.0]]";
        double[] at = Projection.ofDescription(text).orElseThrow().toDegrees(x, y);
        assertThat(at[0]).isCloseTo(lon, within(1e-6));
        assertThat(at[1]).isCloseTo(lat, within(1e-6));
    }

    @Test
    void isReadByItsCodeWhereTheDescriptionGivesOne() {
        String text = "PROJCS[\"ETRS89 / UTM zone 30N\",GEOGCS[\"ETRS89\",DATUM[\"x\",SPHEROID[\"GRS "
                + "1980\",6378137,298.257222101]],AUTHORITY[\"EPSG\",\"4258\"]],PROJECTION[\"Own\"],"
                + "UNIT[\"metre\",1],AUTHORITY[\"EPSG\",\"25830\"]]";
        assertThat(Projection.ofDescription(text).orElseThrow().name()).isEqualTo("EPSG:25830");
    }

    @Test
    void inDegreesNeedsNoTurning() {
        assertThat(Projection.ofDescription(
                                "GEOGCS[\"GCS_WGS_1984\",DATUM[\"D_WGS_1984\",SPHEROID[\"WGS_1984\",6378137.0,"
                                        + "298.257223563]]]")
                        .orElseThrow()
                        .isDegrees())
                .isTrue();
        assertThat(Projection.ofDescription("not a description")).isEmpty();
    }

    private static String projected(String name, String geographic, String datum, String spheroid, String rest) {
        return ("PROJCS[\"%s\",GEOGCS[\"%s\",DATUM[\"%s\",SPHEROID[%s]],PRIMEM[\"Greenwich\",0.0],"
                        + "UNIT[\"Degree\",0.0174532925199433]],%s]")
                .formatted(name, geographic, datum, spheroid, rest);
    }

    /**
     * False origins are written in the system's own unit: read as metres, these points came some thousand kilometres
     * off.
     */
    @Test
    void inFeetHasItsFalseOriginsInFeet() {
        String text = projected(
                "NAD_1983_StatePlane_New_York_Long_Island_FIPS_3104_Feet",
                "GCS_North_American_1983",
                "D_North_American_1983",
                "\"GRS_1980\",6378137.0,298.257222101",
                "PROJECTION[\"Lambert_Conformal_Conic\"],PARAMETER[\"False_Easting\",984250.0],"
                        + "PARAMETER[\"False_Northing\",0.0],PARAMETER[\"Central_Meridian\",-74.0],"
                        + "PARAMETER[\"Standard_Parallel_1\",40.66666666666666],"
                        + "PARAMETER[\"Standard_Parallel_2\",41.03333333333333],"
                        + "PARAMETER[\"Latitude_Of_Origin\",40.16666666666666],UNIT[\"Foot_US\",0.3048006096012192]");
        Projection read = Projection.ofDescription(text).orElseThrow();
        assertThat(read.name()).isEqualTo("EPSG:2263");
        double[] at = read.toDegrees(984250, 0);
        assertThat(at[0]).isCloseTo(-74, within(1e-5));
        assertThat(at[1]).isCloseTo(40.16666666, within(1e-5));
        // Called otherwise, with the same numbers: it is matched by what it is.
        assertThat(Projection.ofDescription(
                                text.replace("NAD_1983_StatePlane_New_York_Long_Island_FIPS_3104_Feet", "City grid"))
                        .orElseThrow()
                        .toDegrees(984250, 0)[0])
                .isCloseTo(-74, within(1e-5));
    }

    /**
     * On the auxiliary sphere of web maps latitudes are those of the ellipsoid; taken for another Mercator they lie 21
     * km off.
     */
    @Test
    void ofWebMapsIsOnTheAuxiliarySphere() {
        String text = projected(
                "WGS_1984_Web_Mercator_Auxiliary_Sphere",
                "GCS_WGS_1984",
                "D_WGS_1984",
                "\"WGS_1984\",6378137.0,298.257223563",
                "PROJECTION[\"Mercator_Auxiliary_Sphere\"],PARAMETER[\"False_Easting\",0.0],"
                        + "PARAMETER[\"False_Northing\",0.0],PARAMETER[\"Central_Meridian\",0.0],"
                        + "PARAMETER[\"Standard_Parallel_1\",0.0],PARAMETER[\"Auxiliary_Sphere_Type\",0.0],"
                        + "UNIT[\"Meter\",1.0]");
        double[] at = Projection.ofDescription(text).orElseThrow().toDegrees(-11169055.58, 2800000.0);
        assertThat(at[0]).isCloseTo(-100.33333333, within(1e-6));
        assertThat(at[1]).isCloseTo(24.381786944, within(1e-6));
    }

    /** European Datum 1950 lies some 230 m from WGS 84 in Spain, whichever way a file says it. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "ED_1950_UTM_Zone_30N | GCS_European_1950 | D_European_1950",
                "Own name | GCS_European_1950 | D_European_1950",
                "Own name | ED50 | European_Datum_1950",
                "Own name | Own too | European_Datum_1950"
            })
    void takesTheShiftOfItsDatumAlong(String name, String geographic, String datum) {
        String text = projected(
                name,
                geographic,
                datum,
                "\"International_1924\",6378388.0,297.0",
                "PROJECTION[\"Transverse_Mercator\"],PARAMETER[\"False_Easting\",500000.0],"
                        + "PARAMETER[\"False_Northing\",0.0],PARAMETER[\"Central_Meridian\",-3.0],"
                        + "PARAMETER[\"Scale_Factor\",0.9996],PARAMETER[\"Latitude_Of_Origin\",0.0],"
                        + "UNIT[\"Meter\",1.0]");
        double[] read = Projection.ofDescription(text).orElseThrow().toDegrees(440_000, 4_474_000);
        double[] other = Projection.ofEpsg(25830).orElseThrow().toDegrees(440_000, 4_474_000);
        double metres = GreatCircle.metres(read[0], read[1], other[0], other[1]);
        assertThat(metres).isBetween(150.0, 300.0);
    }

    @Test
    void onAnotherDatumIsNotDegreesAsTheyStand() {
        Projection ed50 = Projection.ofDescription(
                        "GEOGCS[\"GCS_European_1950\",DATUM[\"D_European_1950\",SPHEROID[\"International_1924\","
                                + "6378388.0,297.0]],PRIMEM[\"Greenwich\",0.0],UNIT[\"Degree\",0.0174532925199433]]")
                .orElseThrow();
        assertThat(ed50.isDegrees()).isFalse();
        double[] at = ed50.toDegrees(-3.7, 40.4);
        assertThat(GreatCircle.metres(at[0], at[1], -3.7, 40.4)).isBetween(80.0, 300.0);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a datum that is not known | "
                        + "PROJCS[\"x\",GEOGCS[\"Own\",DATUM[\"Own\",SPHEROID[\"Own\",6378388.0,297.0]],"
                        + "UNIT[\"Degree\",0.0174532925199433]],PROJECTION[\"Transverse_Mercator\"],"
                        + "PARAMETER[\"Central_Meridian\",5.5],UNIT[\"Meter\",1.0]]",
                "a way that is not known | "
                        + "PROJCS[\"x\",GEOGCS[\"GCS_WGS_1984\",DATUM[\"D_WGS_1984\",SPHEROID[\"WGS_1984\","
                        + "6378137.0,298.257223563]]],PROJECTION[\"Robinson_Of_My_Own\"],UNIT[\"Meter\",1.0]]",
                "a number that is not known | "
                        + "PROJCS[\"x\",GEOGCS[\"GCS_WGS_1984\",DATUM[\"D_WGS_1984\",SPHEROID[\"WGS_1984\","
                        + "6378137.0,298.257223563]]],PROJECTION[\"Transverse_Mercator\"],"
                        + "PARAMETER[\"Central_Meridian\",5.5],PARAMETER[\"XY_Plane_Rotation\",12],"
                        + "UNIT[\"Meter\",1.0]]",
                "brackets that do not close | PROJCS[\"x\",GEOGCS[\"GCS_WGS_1984\""
            })
    void isNotGuessedWhereSomethingIsNotKnown(String what, String text) {
        assertThat(Projection.ofDescription(text)).as(what).isEmpty();
    }

    @Test
    void isReadInTheNewerWritingToo() {
        String text = "PROJCRS[\"ETRS89 / UTM zone 30N\",BASEGEOGCRS[\"ETRS89\",DATUM[\"European Terrestrial "
                + "Reference System 1989\",ELLIPSOID[\"GRS "
                + "1980\",6378137,298.257222101,LENGTHUNIT[\"metre\",1]]],PRIMEM[\"Greenwich\",0,"
                + "ANGLEUNIT[\"degree\",0.0174532925199433]]],"
                + "CONVERSION[\"UTM zone 30N\",METHOD[\"Transverse "
                + "Mercator\",ID[\"EPSG\",9807]],PARAMETER[\"Latitude of natural "
                + "origin\",0,ANGLEUNIT[\"degree\",0.0174532925199433]],PARAMETER[\"Longitude of natural "
                + "origin\",-3,ANGLEUNIT[\"degree\",0.0174532925199433]],"
                + "PARAMETER[\"Scale factor at natural "
                + "origin\",0.9996,SCALEUNIT[\"unity\",1]],PARAMETER[\"False "
                + "easting\",500000,LENGTHUNIT[\"metre\",1]],PARAMETER[\"False "
                + "northing\",0,LENGTHUNIT[\"metre\",1]]],CS[Cartesian,2],LENGTHUNIT[\"metre\",1]]";
        assertThat(Projection.ofDescription(text).orElseThrow().name()).isEqualTo("EPSG:25830");
    }
}
