package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import sarnik.table.FileChoices;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;

@DisplayName("Shapes that are more than points")
class WholeShapesTest {

    private static final List<String> ALL = List.of(
            "LINESTRING Z(-2.5 41.7 1063, -2.4 41.8 1071.5)",
            "POLYGON ((-6 40, -5 40, -5 41, -6 41, -6 40), (-5.8 40.2, -5.8 40.8, -5.2 40.8, -5.2 40.2, -5.8 40.2))",
            "MULTIPOLYGON (((0 0, 1 0, 1 1, 0 0)), ((5 5, 6 5, 6 6, 5 5)))",
            "MULTILINESTRING ((0 0, 1 1), (2 2, 3 3))",
            "MULTIPOINT ((0 0), (1 1))",
            "GEOMETRYCOLLECTION (POINT (1 2), LINESTRING (0 0, 1 1))",
            "POINT (-3.7 40.4)");

    @TempDir
    Path directory;

    private Table read(byte[] bytes) throws IOException {
        Path file = Files.write(Files.createTempFile(directory, "in", ""), bytes);
        return new TableReader()
                .read(TableFile.open(file, FileChoices.NONE).rows(), Shaping.NONE)
                .table();
    }

    private Table csv(List<String> shapes) throws IOException {
        StringBuilder text = new StringBuilder("name;way\n");
        for (int i = 0; i < shapes.size(); i++)
            text.append("n").append(i).append(";\"").append(shapes.get(i)).append("\"\n");
        return read(text.toString().getBytes(StandardCharsets.UTF_8));
    }

    private static Geometry shape(String text) {
        try {
            return new WKTReader().read(text);
        } catch (ParseException broken) {
            throw new IllegalArgumentException(text, broken);
        }
    }

    private static List<Double> heights(Geometry shape) {
        List<Double> heights = new ArrayList<>();
        for (var corner : shape.getCoordinates()) heights.add(corner.getZ());
        return heights;
    }

    @ParameterizedTest
    @EnumSource(
            value = TableFormat.class,
            names = {"GEOJSON", "GEOPACKAGE", "PARQUET"})
    void goOutAsTheyCameIn(TableFormat format) throws IOException {
        Table before = csv(ALL);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        format.write(before, "ways", row -> new double[] {9, 9}, out);
        Table after = read(out.toByteArray());
        assertThat(after.names())
                .as("the column of shapes is the shapes")
                .contains("name", "shape")
                .doesNotContain("way");
        for (int row = 0; row < ALL.size(); row++) {
            Geometry came = shape(ALL.get(row));
            Geometry went = shape(after.column("shape").text(row));
            assertThat(went.getGeometryType()).isEqualTo(came.getGeometryType());
            assertThat(went.norm()).isEqualTo(came.norm());
        }
        assertThat(heights(shape(after.column("shape").text(0)))).containsExactly(1063.0, 1071.5);
        assertThat(after.column("lon").text(6)).as("not the position handed in").isEqualTo("-3.7");
    }

    @Test
    void areWrittenInAGeoPackageAsItsStandardAsks() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        TableFormat.GEOPACKAGE.write(csv(ALL.subList(0, 1)), "ways", null, out);
        Path file = Files.write(directory.resolve("ways.gpkg"), out.toByteArray());
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                var statement = connection.createStatement()) {
            var row = statement.executeQuery(
                    "SELECT hex(geom), geometry_type_name, z, min_x, max_y FROM ways, gpkg_geometry_columns, "
                            + "gpkg_contents");
            assertThat(row.next()).isTrue();
            // GP, version 0, flags 1, system 4326; little-endian, 1002 for a line with heights (ISO 19125), two
            // corners.
            ByteBuffer blob =
                    ByteBuffer.wrap(HexFormat.of().parseHex(row.getString(1))).order(ByteOrder.LITTLE_ENDIAN);
            assertThat(blob.capacity()).isEqualTo(8 + 1 + 4 + 4 + 2 * 24);
            assertThat(blob.getInt(4)).isEqualTo(4326);
            assertThat(blob.get(8)).isEqualTo((byte) 1);
            assertThat(blob.getInt(9)).isEqualTo(1002);
            assertThat(blob.getInt(13)).isEqualTo(2);
            assertThat(blob.getDouble(17)).isEqualTo(-2.5);
            assertThat(blob.getDouble(33)).isEqualTo(1063);
            assertThat(row.getString(2)).isEqualTo("LINESTRING");
            assertThat(row.getInt(3)).isEqualTo(2);
            assertThat(row.getDouble(4)).isEqualTo(-2.5);
            assertThat(row.getDouble(5)).isEqualTo(41.8);
        }
    }

    @Test
    void ofGeoJsonAreOutlinedAgainstTheClock() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        TableFormat.GEOJSON.write(
                csv(List.of("POLYGON((0 0, 0 4, 4 4, 4 0, 0 0), (1 1, 3 1, 3 3, 1 3, 1 1))")), "fields", null, out);
        assertThat(out.toString(StandardCharsets.UTF_8))
                .contains("\"coordinates\":[[[0.0,0.0],[4.0,0.0],[4.0,4.0],[0.0,4.0],[0.0,0.0]],[[1.0,1.0],[1.0,"
                        + "3.0],[3.0,3.0],[3.0,1.0],[1.0,1.0]]]");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"type\":\"Feature\",\"properties\":{\"a\":1},\"geometry\":{\"type\":\"LineString\","
                        + "\"coordinates\":[[1,2],[3,4]]}} | LINESTRING (1 2, 3 4)",
                "{\"type\":\"Feature\",\"properties\":{\"a\":1},\"geometry\":{\"type\":\"Point\","
                        + "\"coordinates\":[1,2,300]}} | POINT Z(1 2 300)",
                "<kml><Placemark><name>a</name><LineString><coordinates>1,2,30 "
                        + "3,4,40</coordinates></LineString></Placemark></kml> | LINESTRING Z(1 2 30, 3 4 40)"
            })
    void areKeptInAColumnOfTheirOwn(String file, String kept) throws IOException {
        Table table = read(file.getBytes(StandardCharsets.UTF_8));
        assertThat(table.names()).endsWith("lon", "lat", "shape");
        assertThat(table.column("shape").text(0)).isEqualTo(kept);
    }

    @Test
    void thatReachOverTheMeridianOf180DegreesLieOnOneOfItsSides() throws IOException {
        Table table = csv(List.of("POLYGON((177 -17, -179 -17, -179 -16, 178 -15.5, 177 -16, 177 -17))"));
        assertThat(Math.abs(Double.parseDouble(table.column("lon").text(0)))).isBetween(177.0, 180.0);
        assertThat(Double.parseDouble(table.column("lat").text(0))).isBetween(-17.0, -15.5);
    }

    @Test
    void areNotWrittenTwiceWherePointsSayAll() throws IOException {
        Table table =
                read("<kml><Placemark><name>a</name><Point><coordinates>1,2,0</coordinates></Point></Placemark></kml>"
                        .getBytes(StandardCharsets.UTF_8));
        assertThat(table.names()).containsExactly("name", "lon", "lat");
    }

    @Test
    void ofAShapefileKeepTheirHeights() throws IOException {
        double[][] corners = {{-2.5, 41.7, 1063}, {-2.4, 41.8, 1071}};
        int content = 4 + 32 + 4 + 4 + 4 + 16 * 2 + 16 + 8 * 2;
        ByteBuffer shp = ByteBuffer.allocate(100 + 8 + content);
        SampleFiles.shpHeader(shp, 13);
        shp.order(ByteOrder.BIG_ENDIAN)
                .putInt(1)
                .putInt(content / 2)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(13)
                .position(shp.position() + 32);
        shp.putInt(1).putInt(2).putInt(0);
        for (double[] at : corners) shp.putDouble(at[0]).putDouble(at[1]);
        shp.putDouble(1063).putDouble(1071).putDouble(1063).putDouble(1071);
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("ways.shp", shp.array());
        files.put("ways.prj", SampleFiles.bytes(SampleFiles.DEGREES));
        assertThat(read(SampleFiles.zip(files)).column("shape").text(0))
                .isEqualTo("LINESTRING Z(-2.5 41.7 1063, -2.4 41.8 1071)");
    }

    @Test
    void ofAnotherSystemAreKeptInDegreesBesides() throws IOException {
        // Madrid's Puerta del Sol and a point 1 km north of it, in metres of zone 30.
        Table table = csv(List.of("SRID=25830;LINESTRING(440300 4474250, 440300 4475250)"));
        assertThat(table.names()).containsExactly("name", "way", "lon", "lat", "shape");
        Geometry line = shape(table.column("shape").text(0));
        assertThat(line.getCoordinate().x).isBetween(-3.71, -3.70);
        assertThat(line.getCoordinate().y).isBetween(40.41, 40.42);
    }
}
