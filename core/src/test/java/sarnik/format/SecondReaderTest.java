package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import sarnik.table.Column;
import sarnik.table.FileChoices;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Files written and read by other makers' programs; {@code tools/samples/make.py} made them and says which. */
@DisplayName("What second readers read is read here:")
class SecondReaderTest {

    private static final Path FILES = Path.of("src/test/resources/sarnik/format/second");

    /** Digits that a binary number of four bytes holds. */
    private static final double SHORT = 1e-7;

    private static final double A_CENTIMETRE = 1e-7;

    static Stream<String> files() throws IOException {
        try (Stream<Path> all = Files.list(FILES)) {
            return all
                    .map(f -> f.getFileName().toString())
                    .filter(n -> !n.endsWith(".json"))
                    .sorted()
                    .toList()
                    .stream();
        }
    }

    @ParameterizedTest
    @MethodSource("files")
    void rowsColumnsValuesAndShapes(String name) throws IOException {
        JsonNode second = JsonMapper.builder().build().readTree(Files.readAllBytes(FILES.resolve(name + ".json")));
        TableFile file = TableFile.open(
                FILES.resolve(name),
                FileChoices.NONE.withSheet(second.path("sheet").asString(null)));
        if (second.has("sheets"))
            assertThat(file.sheets())
                    .containsExactlyElementsOf(second.get("sheets")
                            .valueStream()
                            .map(JsonNode::asString)
                            .toList());
        Table table = new TableReader().read(file.rows(), Shaping.NONE).table();
        assertThat(table.rows()).isEqualTo(second.get("rows").size());
        for (int row = 0; row < table.rows(); row++) {
            for (var cell : second.get("rows").get(row).properties())
                assertThat(table.names()).contains(cell.getKey());
            for (var cell : second.get("rows").get(row).properties())
                compare(
                        table.column(cell.getKey()),
                        row,
                        cell.getValue(),
                        name + ", row " + row + ", " + cell.getKey());
        }
        if (second.has("shapes")) shapes(file, second.get("shapes"));
    }

    private static void compare(Column column, int row, JsonNode second, String where) {
        String here = column.isMissing(row) ? "" : column.text(row);
        if (second.isNull() || second.isString() && second.asString().isEmpty())
            assertThat(here).as(where).isEmpty();
        else if (second.isBoolean() || second.isNumber() && here.matches("yes|no"))
            assertThat(here)
                    .as(where)
                    .isIn(
                            (second.isBoolean() ? second.asBoolean() : second.asInt() == 1)
                                    ? List.of("yes", "true")
                                    : List.of("no", "false"));
        else if (second.isNumber())
            assertThat(Double.parseDouble(here))
                    .as(where)
                    .isCloseTo(second.asDouble(), within(Math.abs(second.asDouble()) * SHORT));
        else assertThat(moment(here)).as(where).isEqualTo(moment(second.asString()));
    }

    /** A day or a moment in one writing; other texts without the blanks around them, which tables are read without. */
    private static String moment(String written) {
        String text = written.strip();
        if (!text.matches("\\d{4}-\\d\\d-\\d\\d[T ]\\d\\d:\\d\\d(:\\d\\d(\\.0+)?Z?)?")) return text;
        return text.replace(' ', 'T')
                .replaceFirst("(\\.0+)?Z?$", "")
                .replaceFirst("(T\\d\\d:\\d\\d):00$", "$1")
                .replaceFirst("T00:00$", "");
    }

    private static void shapes(TableFile file, JsonNode second) throws IOException {
        List<Geometry> here = new ArrayList<>();
        file.features().orElseThrow().each(feature -> here.add(feature.shape()));
        assertThat(here).hasSize(second.size());
        for (int i = 0; i < here.size(); i++) {
            if (second.get(i).isNull())
                assertThat(here.get(i) == null || here.get(i).isEmpty()).isTrue();
            else
                assertThat(here.get(i)
                                .norm()
                                .equalsExact(read(second.get(i).asString()).norm(), A_CENTIMETRE))
                        .as("%s is %s", here.get(i), second.get(i))
                        .isTrue();
        }
    }

    /** A single part stands for itself, as it does in files whose layers are of several parts. */
    private static Geometry read(String text) {
        try {
            return new WKTReader().read(text);
        } catch (ParseException odd) {
            throw new IllegalStateException(odd);
        }
    }
}
