package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Coordinate;
import sarnik.geo.SystemRegister;
import sarnik.table.FileChoices;
import sarnik.table.TestTables;

@DisplayName("The system of a GeoPackage's layer")
class GeoPackageSystemsTest {

    private static final String DEGREES_OF_ETRS89 =
            "GEOGCS[\"ETRS89\",DATUM[\"European_Terrestrial_Reference_System_1989\",SPHEROID[\"GRS "
                    + "1980\",6378137,298.257222101]],PRIMEM[\"Greenwich\",0],UNIT[\"degree\",0.0174532925199433]]";
    private static final String ZONE_30 = "PROJCS[\"our own name\"," + DEGREES_OF_ETRS89
            + ",PROJECTION[\"Transverse_Mercator\"],PARAMETER[\"latitude_of_origin\",0],"
            + "PARAMETER[\"central_meridian\",-3],"
            + "PARAMETER[\"scale_factor\",0.9996],PARAMETER[\"false_easting\",500000],"
            + "PARAMETER[\"false_northing\",0],UNIT[\"metre\",1]]";

    @TempDir
    Path directory;

    /** A package with one point whose numbers are in a system that is told in this way. */
    private TableFile open(double x, double y, int own, String organization, int code, String definition, Integer said)
            throws IOException, SQLException {
        Path file = directory.resolve("one.gpkg");
        try (var out = Files.newOutputStream(file)) {
            TableFormat.GEOPACKAGE.write(TestTables.csv("n", "1"), "one", row -> new double[] {x, y}, out);
        }
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            try (PreparedStatement system = connection.prepareStatement(
                    "INSERT OR REPLACE INTO gpkg_spatial_ref_sys VALUES ('a system', ?, ?, ?, ?, NULL)")) {
                system.setInt(1, own);
                system.setString(2, organization);
                system.setInt(3, code);
                system.setString(4, definition);
                system.executeUpdate();
            }
            try (PreparedStatement layer = connection.prepareStatement("UPDATE gpkg_geometry_columns SET srs_id = ?")) {
                layer.setInt(1, own);
                layer.executeUpdate();
            }
        }
        return TableFile.open(file, new FileChoices(null, null, null, null, null, null, null, said));
    }

    private static Coordinate at(TableFile file) throws IOException {
        Coordinate[] at = new Coordinate[1];
        file.features().orElseThrow().each(f -> at[0] = f.shape().getCoordinate());
        return at[0];
    }

    private static void isSoria(TableFile file) throws IOException {
        assertThat(file.features().orElseThrow().asks()).isEmpty();
        assertThat(at(file).x).isCloseTo(-2.47, within(0.001));
        assertThat(at(file).y).isCloseTo(41.76, within(0.001));
    }

    private static void isAsked(TableFile file, String words) throws IOException {
        assertThat(file.features().orElseThrow().asks())
                .hasValueSatisfying(s -> assertThat(s).contains(words));
        assertThat(at(file).x).isNaN();
    }

    @Test
    void isItsOrganisationAndCodeWhateverThePackagesOwnNumber() throws Exception {
        assertThat(SystemRegister.shipped().find(25830)).isPresent();
        isSoria(open(544082.9, 4623333.1, 7, "EPSG", 25830, "undefined", null));
        isSoria(open(544082.9, 4623333.1, 4258, "epsg", 25830, "", null));
        isSoria(open(-2.47, 41.76, 7, "EPSG", 4326, "undefined", null));
    }

    @Test
    void isItsDefinitionWhereTheCodeIsNotKnown() throws Exception {
        isSoria(open(544082.9, 4623333.1, 100001, "OURS", 1, ZONE_30, null));
        isSoria(open(-2.47, 41.76, 100001, "OURS", 1, DEGREES_OF_ETRS89, null));
    }

    @Test
    void isAskedForWhereNeitherTellsIt() throws Exception {
        isAsked(open(544082.9, 4623333.1, 100001, "OURS", 12, "undefined", null), "OURS:12");
        isAsked(open(544082.9, 4623333.1, -1, "NONE", -1, "undefined", null), "Say which it is");
        isAsked(
                open(544082.9, 4623333.1, 100001, "OURS", 12, "PROJCS[\"x\",PROJECTION[\"Own_Way\"]]", null),
                "not read");
        isSoria(open(544082.9, 4623333.1, 100001, "OURS", 12, "undefined", 25830));
    }
}
