package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Geometry;
import sarnik.table.ColumnType;
import sarnik.table.FileChoices;
import sarnik.table.Reading;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;
import sarnik.table.UnreadableTableException;

@DisplayName("Files of other formats")
class FormatsTest {

    @TempDir
    Path directory;

    private TableFile open(byte[] bytes, FileChoices choices) throws IOException {
        return TableFile.open(Files.write(Files.createTempFile(directory, "t", ".bin"), bytes), choices);
    }

    private Table table(byte[] bytes) throws IOException {
        return reading(bytes, FileChoices.NONE).table();
    }

    private Reading reading(byte[] bytes, FileChoices choices) throws IOException {
        return new TableReader().read(open(bytes, choices).rows(), Shaping.NONE);
    }

    private static FileChoices sheet(String name, String range) {
        return new FileChoices(null, null, null, null, null, name, range);
    }

    private static List<String> row(Table table, int row) {
        List<String> cells = new ArrayList<>();
        for (String name : table.names()) cells.add(table.column(name).text(row));
        return cells;
    }

    private List<Geometry> shapes(byte[] bytes, FileChoices choices) throws IOException {
        List<Geometry> shapes = new ArrayList<>();
        open(bytes, choices).features().orElseThrow().each(f -> shapes.add(f.shape()));
        return shapes;
    }

    @ParameterizedTest
    @EnumSource(TableFormat.class)
    @DisplayName("come back as they were given out")
    void roundTrip(TableFormat format) throws IOException {
        Table before = SampleFiles.points();
        Table after = table(SampleFiles.written(format));
        assertThat(after.names()).containsAll(before.names()).contains("lon", "lat");
        for (String name : List.of("town", "litres", "takings", "day", "seen")) {
            for (int row = 0; row < 3; row++)
                assertThat(after.column(name).text(row))
                        .as(name + " in row " + row)
                        .isEqualTo(before.column(name).text(row));
            assertThat(after.column(name).type())
                    .as(name)
                    .isEqualTo(before.column(name).type());
        }
        assertThat(Double.parseDouble(after.column("lon").text(2))).isCloseTo(-4.5, within(1e-9));
        assertThat(Double.parseDouble(after.column("lat").text(2))).isCloseTo(43.75, within(1e-9));
        assertThat(after.column("lat").isMissing(1)).isTrue();
    }

    @Nested
    @DisplayName("workbooks")
    class Workbooks {

        @Test
        void giveTheirFirstSheetAndNameTheOthers() throws IOException {
            TableFile file = open(SampleFiles.workbook(), FileChoices.NONE);
            assertThat(file.sheets()).containsExactly("Stands", "By year");
            assertThat(row(table(SampleFiles.workbook()), 0)).containsExactly("Soria", "12");
        }

        @Test
        void haveTitlesMergedNamesDatesAndTheNoiseOfDecimalsRoundedAway() throws IOException {
            Table table =
                    reading(SampleFiles.workbook(), sheet("By year", "B1:F100")).table();
            assertThat(table.names()).containsExactly("town", "since", "Litres · 2024", "Litres · 2025", "Open");
            assertThat(row(table, 0).subList(0, 3)).containsExactly("Soria", "2021-03-04", "0.3");
            assertThat(table.column("Open").text(0)).isEqualTo("yes");
            assertThat(table.column("since").text(1)).isEqualTo("2021-03-05T06:30");
        }

        @Test
        void showOnlyTheCellsOfTheRange() throws IOException {
            assertThat(reading(SampleFiles.workbook(), sheet("By year", "b3:c6"))
                            .table()
                            .names())
                    .containsExactly("town", "since");
        }

        @Test
        void refuseSheetsAndRangesThatDoNotExist() {
            assertThatThrownBy(() -> open(SampleFiles.workbook(), sheet("Else", null)))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("By year");
            assertThatThrownBy(() -> open(SampleFiles.workbook(), sheet(null, "B3-H4")))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("B3:H200");
            assertThatThrownBy(() -> open(SampleFiles.workbook(), sheet(null, "H4:B3")))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("before it begins");
        }
    }

    @Nested
    @DisplayName("GeoJSON and other JSON")
    class Json {

        @Test
        void givePropertiesAndAPositionOnEveryShape() throws IOException {
            Table table = table(SampleFiles.bytes(SampleFiles.GEOJSON));
            assertThat(table.names())
                    .containsExactly("id", "town", "litres", "open", "station.kind", "note", "lon", "lat", "shape");
            assertThat(row(table, 0))
                    .containsExactly(
                            "k1",
                            "Soria",
                            "12.5",
                            "yes",
                            "wall",
                            null,
                            "-2.4667",
                            "41.7667",
                            "POINT (-2.4667 41.7667)");
            double lon = Double.parseDouble(table.column("lon").text(1));
            assertThat(lon)
                    .as("in the area, not in its hole")
                    .satisfiesAnyOf(
                            x -> assertThat(x).isBetween(-6.0, -5.8),
                            x -> assertThat(x).isBetween(-5.2, -5.0));
            assertThat(table.column("lat").isMissing(2)).isTrue();
            assertThat(open(SampleFiles.bytes(SampleFiles.GEOJSON), FileChoices.NONE)
                            .areas())
                    .isTrue();
        }

        @Test
        void haveTheirHoles() throws IOException {
            assertThat(shapes(SampleFiles.bytes(SampleFiles.GEOJSON), FileChoices.NONE)
                            .get(1)
                            .getArea())
                    .isCloseTo(1 - 0.36, within(1e-9));
        }

        @Test
        void oneObjectALineOrInAList() throws IOException {
            for (String text : List.of(
                    SampleFiles.LINES,
                    "[" + SampleFiles.LINES.strip().replace("}\n{", "},{") + "]",
                    "\uFEFF" + SampleFiles.LINES)) {
                Table table = table(SampleFiles.bytes(text));
                assertThat(table.names()).containsExactly("town", "litres", "tags");
                assertThat(row(table, 1)).containsExactly("Zamora", "4", "[\"a\",\"b\"]");
            }
        }

        @Test
        void inAnotherCoordinateSystemIsRefused() {
            String other = SampleFiles.GEOJSON.replaceFirst(
                    "\\{",
                    "{\"crs\": {\"type\": \"name\", \"properties\": {\"name\": \"urn:ogc:def:crs:EPSG::25830\"}},");
            assertThatThrownBy(() -> open(SampleFiles.bytes(other), FileChoices.NONE))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("25830")
                    .hasMessageContaining("degrees");
        }

        @Test
        void brokenOffSaysWhere() {
            assertThatThrownBy(() -> open(SampleFiles.bytes(SampleFiles.GEOJSON.substring(0, 300)), FileChoices.NONE))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("line 4");
        }

        @Test
        void aShapeThatIsNoneSaysWhich() {
            String odd = SampleFiles.GEOJSON.replace("[-2.4667, 41.7667]", "[\"a\", 1]");
            assertThatThrownBy(() -> open(SampleFiles.bytes(odd), FileChoices.NONE))
                    .hasMessageContaining("Feature 1")
                    .hasMessageContaining("two numbers");
        }
    }

    @Nested
    @DisplayName("TopoJSON")
    class TopoJson {

        @Test
        void putsShapesTogetherFromSharedArcs() throws IOException {
            byte[] file = SampleFiles.bytes(SampleFiles.TOPOJSON);
            Table table = table(file);
            assertThat(row(table, 0).subList(0, 2)).containsExactly("W", "West");
            List<Geometry> shapes = shapes(file, FileChoices.NONE);
            assertThat(shapes.get(0).getArea()).isCloseTo(1, within(1e-9));
            assertThat(shapes.get(1).getArea()).isCloseTo(1, within(1e-9));
            assertThat(shapes.get(0).touches(shapes.get(1))).isTrue();
            assertThat(shapes.get(0).getEnvelopeInternal().getMinX()).isCloseTo(-3, within(1e-9));
        }

        @Test
        void givesEachOfItsLayers() throws IOException {
            byte[] file = SampleFiles.bytes(SampleFiles.TOPOJSON);
            assertThat(open(file, FileChoices.NONE).sheets()).containsExactly("zones", "spots");
            assertThat(table2(file)).containsExactly("-2.5", "40.5");
        }

        private List<String> table2(byte[] file) throws IOException {
            return row(reading(file, sheet("spots", null)).table(), 0);
        }
    }

    @Nested
    @DisplayName("shapefiles")
    class Shapefiles {

        @Test
        void areTurnedIntoDegreesAsTheirSystemSays() throws IOException {
            Table table = table(SampleFiles.shapefileOfPoints());
            assertThat(row(table, 0).subList(0, 2)).containsExactly("Logroño", "2.5");
            // Central meridian of the zone plus 45 km at 41.77 degrees north: 45,000 / (111,320 cos 41.77).
            assertThat(Double.parseDouble(table.column("lon").text(0)))
                    .isCloseTo(-3 + 45_000 / (0.9996 * 111_320 * Math.cos(Math.toRadians(41.77))), within(0.002));
            assertThat(Double.parseDouble(table.column("lat").text(1))).isBetween(40.3, 40.5);
        }

        @Test
        void knowHolesByTheirDirection() throws IOException {
            assertThat(shapes(SampleFiles.shapefileOfAreas(), FileChoices.NONE))
                    .singleElement()
                    .satisfies(s -> assertThat(s.getArea()).isCloseTo(16 - 4, within(1e-9)));
        }
    }

    @Nested
    @DisplayName("KML and GPX")
    class Xml {

        @Test
        void placemarksGiveNameDescriptionAndValues() throws IOException {
            Table table = table(SampleFiles.bytes(SampleFiles.KML));
            assertThat(table.names())
                    .containsExactly("name", "description", "litres", "open", "when", "lon", "lat", "shape");
            assertThat(row(table, 0))
                    .containsExactly(
                            "Soria & sons",
                            "<b>wall</b>",
                            "12.5",
                            "yes",
                            null,
                            "-2.4667",
                            "41.7667",
                            "POINT Z(-2.4667 41.7667 1060)");
            assertThat(table.column("when").text(2)).isEqualTo("2026-05-01");
            assertThat(shapes(SampleFiles.bytes(SampleFiles.KML), FileChoices.NONE)
                            .get(1)
                            .getArea())
                    .isCloseTo(1, within(1e-9));
        }

        @Test
        void packedKmlIsUnpacked() throws IOException {
            assertThat(table(SampleFiles.zip(Map.of("doc.kml", SampleFiles.bytes(SampleFiles.KML))))
                            .rows())
                    .isEqualTo(3);
        }

        @Test
        void tracksGiveARowAPoint() throws IOException {
            Table table = table(SampleFiles.bytes(SampleFiles.GPX));
            assertThat(table.rows()).isEqualTo(4);
            assertThat(table.column("kind").text(0)).isEqualTo("waypoint");
            assertThat(table.column("path").text(1)).isEqualTo("Van 1");
            assertThat(table.column("segment").text(3)).isEqualTo("2");
            assertThat(table.column("time").type()).isEqualTo(ColumnType.TIME);
            assertThat(table.column("time").text(2)).isEqualTo("2026-05-04T07:40");
        }

        @Test
        void entitiesAreNeverExpanded() {
            String bomb = "<?xml version=\"1.0\"?><!DOCTYPE kml [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b "
                    + "\"&a;&a;&a;&a;&a;&a;&a;&a;\"><!ENTITY c SYSTEM \"file:///etc/hostname\">]>"
                    + "<kml><Placemark><name>&b;&c;</name><Point><coordinates>1,"
                    + "2</coordinates></Point></Placemark></kml>";
            assertThatThrownBy(() -> table(SampleFiles.bytes(bomb)))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("XML");
        }
    }

    @Nested
    @DisplayName("archives")
    class Archives {

        @Test
        void thatUnpackToFarMoreThanTheyAreAreRefused() {
            byte[] bomb = SampleFiles.zip(Map.of("xl/workbook.xml", new byte[100 << 20]));
            assertThat(bomb.length).isLessThan(200_000);
            assertThatThrownBy(() -> open(bomb, FileChoices.NONE))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("Unpacked");
        }

        @Test
        void whoseFilesLeadOutOfThemAreRefused() {
            for (String name : List.of("../../etc/x.shp", "/etc/x.shp", "a/..\\..\\x.shp", "C:\\x.shp")) {
                assertThatThrownBy(() -> open(SampleFiles.zip(Map.of(name, new byte[9])), FileChoices.NONE))
                        .hasMessageContaining("leads out");
            }
        }

        @Test
        void thatHoldNoTableAreRefused() {
            assertThatThrownBy(() -> open(SampleFiles.zip(Map.of("a.doc", new byte[9])), FileChoices.NONE))
                    .hasMessageContaining("holds no table");
        }
    }

    @Test
    @DisplayName("a GeoPackage whose table is a view that computes is not read")
    void noViews() throws Exception {
        Path file = Files.write(directory.resolve("v.gpkg"), SampleFiles.written(TableFormat.GEOPACKAGE));
        try (var connection = java.sql.DriverManager.getConnection("jdbc:sqlite:" + file);
                var statement = connection.createStatement()) {
            statement.execute("ALTER TABLE \"Stands\" RENAME TO held");
            statement.execute(
                    "CREATE VIEW \"Stands\" AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) "
                            + "SELECT i FROM n");
        }
        assertThatThrownBy(() -> TableFile.open(file, FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("no layer");
    }
}
