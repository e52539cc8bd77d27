package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ByteOrderValues;
import org.locationtech.jts.io.WKBWriter;
import org.locationtech.jts.io.WKTReader;
import sarnik.place.Gazetteer;
import sarnik.place.Placing;
import sarnik.place.PlacingGuess;
import sarnik.table.FileChoices;
import sarnik.table.Reading;
import sarnik.table.Shaping;
import sarnik.table.TableReader;

@DisplayName("Columns of shapes")
class ShapeColumnTest {

    @TempDir
    Path directory;

    private TableFile open(String text, Integer system) throws IOException {
        Path file = Files.writeString(directory.resolve("in.csv"), text);
        return TableFile.open(file, new FileChoices(null, null, null, null, null, null, null, system));
    }

    private static Reading read(TableFile file) throws IOException {
        return new TableReader().read(file.rows(), Shaping.NONE);
    }

    private static List<Double> at(Reading reading, int row) {
        List<Double> at = new ArrayList<>();
        for (String name : reading.position()) {
            String text = reading.table().column(name).text(row);
            at.add(text == null ? null : Double.valueOf(text));
        }
        return at;
    }

    @Test
    void giveEachRowAPositionAndStayAsTheyWereWritten() throws IOException {
        String area = "POLYGON Z ((-2 41 700, -1 41 710, -1 42 705, -2 42 700, -2 41 700))";
        TableFile file = open(
                "name;geom\nwell;POINT Z (-2.47 41.76 1063)\ncourse;LINESTRING(-3 40, -3 41)\nfield;" + area
                        + "\nnone;\n",
                null);
        assertThat(file.areas()).isTrue();
        assertThat(file.rows().words()).contains("shapes in “geom”, coordinates in degrees");
        Reading reading = read(file);
        assertThat(reading.position()).containsExactly("lon", "lat");
        assertThat(at(reading, 0)).containsExactly(-2.47, 41.76);
        assertThat(at(reading, 1).get(0)).isEqualTo(-3.0);
        assertThat(at(reading, 2).get(0)).isBetween(-2.0, -1.0);
        assertThat(at(reading, 3)).containsOnlyNulls();
        assertThat(reading.table().column("geom").text(2)).isEqualTo(area);
        List<Geometry> shapes = new ArrayList<>();
        file.features().orElseThrow().each(f -> shapes.add(f.shape()));
        assertThat(shapes.get(2).getArea()).isEqualTo(1);
        assertThat(shapes.get(3)).isNull();
    }

    @ParameterizedTest(name = "mark {0}")
    @CsvSource(
            value = {"none", "COMMA"},
            nullValues = "none")
    void giveDegreesWithPointsWhateverStandsBeforeTheDecimalsOfTheFile(Shaping.DecimalMark said) throws IOException {
        TableFile file =
                open("litres;price;geom\n1.204;12,50;POINT (-2.473 41.764)\n2.310;3,75;POINT (-5.745 41.503)\n", null);
        Shaping shaping = new Shaping(null, null, null, null, false, said, null);
        Reading reading = new TableReader().read(file.rows(), shaping);
        assertThat(at(reading, 0)).containsExactly(-2.473, 41.764);
        assertThat(reading.table().column("litres").text(0)).isEqualTo("1204.0");
        assertThat(reading.marks().words()).isNull();
    }

    @Test
    void comeBeforeColumnsThatOnlyLookLikeAPlace() throws IOException {
        Reading reading =
                read(open("lat,lon,town,shape\n1,2,Soria,POINT(-2.47 41.76)\n3,4,Soria,POINT(-5.7 41.5)\n", null));
        assertThat(reading.position()).containsExactly("lon 2", "lat 2");
        assertThat(new PlacingGuess(Gazetteer.shipped()).ownShapes(reading))
                .contains(new Placing.ByCoordinates("lat 2", "lon 2"));
        Reading mostlyWithout = read(open("town,shape\nSoria,POINT(-2.47 41.76)\nZamora,\nBurgos,\n", null));
        assertThat(new PlacingGuess(Gazetteer.shipped()).ownShapes(mostlyWithout))
                .isEmpty();
    }

    @ParameterizedTest(name = "{0} bytes first, system {1}")
    @CsvSource({"big, 0", "little, 0", "big, 4326", "little, 25830"})
    void areReadFromWellKnownBinary(String order, int system) throws Exception {
        Geometry point = new WKTReader().read(system == 25830 ? "POINT (544082.9 4623333.1)" : "POINT (-2.47 41.76)");
        point.setSRID(system);
        byte[] binary = new WKBWriter(
                        2,
                        order.equals("big") ? ByteOrderValues.BIG_ENDIAN : ByteOrderValues.LITTLE_ENDIAN,
                        system != 0)
                .write(point);
        Reading reading = read(open("n,geom\n1," + HexFormat.of().formatHex(binary) + "\n", null));
        assertThat(at(reading, 0).get(0)).isCloseTo(-2.47, within(0.001));
        assertThat(at(reading, 0).get(1)).isCloseTo(41.76, within(0.001));
    }

    @Test
    void thatSayTheirSystemAreTurnedAndThoseThatDoNotAreAskedAbout() throws IOException {
        assertThat(at(read(open("n,g\n1,SRID=25830;POINT(544082.9 4623333.1)\n", null)), 0)
                        .get(0))
                .isCloseTo(-2.47, within(0.001));

        String metres = "n;g\n1;POINT(544082.9 4623333.1)\n";
        TableFile asked = open(metres, null);
        assertThat(asked.features().orElseThrow().asks())
                .hasValueSatisfying(
                        s -> assertThat(s).contains("not in degrees").contains("Say which it is"));
        assertThat(at(read(asked), 0)).containsOnlyNulls();
        TableFile said = open(metres, 25830);
        assertThat(said.features().orElseThrow().asks()).isEmpty();
        assertThat(at(read(said), 0).get(1)).isCloseTo(41.76, within(0.001));

        TableFile unknown = open("n,g\n1,SRID=999999;POINT(1 2)\n", null);
        assertThat(unknown.features().orElseThrow().asks())
                .hasValueSatisfying(s -> assertThat(s).contains("999999"));
        assertThat(at(read(unknown), 0)).containsOnlyNulls();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "POINT(1 2|POINT(1 2)",
                "the point is made|POINT(1 2)",
                "0101|0102",
                "00000000000000000000|01",
                "POINTS OF VIEW|POINT (3 4)"
            })
    void areOnlyThoseWhoseCellsAreAllShapes(String one, String other) throws IOException {
        TableFile file = open("n;g\n1;" + one + "\n2;" + other + "\n", null);
        assertThat(file.features()).isEmpty();
        assertThat(read(file).position()).isEmpty();
        assertThat(read(file).table().names()).containsExactly("n", "g");
    }

    @Test
    void ofRowsThatAreTooShortOrTooLongDoNotMoveOtherCells() throws IOException {
        Reading reading = read(open("n,g,m\n1,POINT(1 2),x\n2,POINT(3 4)\n3,POINT(5 6),y,more\n", null));
        assertThat(at(reading, 1)).containsExactly(3.0, 4.0);
        assertThat(at(reading, 2)).containsExactly(5.0, 6.0);
        assertThat(reading.table().column("m").text(1)).isNull();
        assertThat(reading.table().column("m").text(2)).isEqualTo("y");
    }
}
