package sarnik.app.command;

import static org.assertj.core.api.Assertions.assertThat;

import de.siegmar.fastcsv.reader.CsvReader;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("./sarnik place")
class PlaceCommandTest {

    @TempDir
    private Path directory;

    private InputStream in = InputStream.nullInputStream();
    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();

    private int run(String... arguments) {
        return new PlaceCommand(in, new PrintStream(out), new PrintStream(err)).run(arguments);
    }

    private int place(String content, String... more) throws Exception {
        Files.writeString(directory.resolve("in.csv"), content);
        List<String> arguments = new ArrayList<>(List.of(
                directory.resolve("in.csv").toString(),
                "--out",
                directory.resolve("placed.csv").toString()));
        arguments.addAll(List.of(more));
        return run(arguments.toArray(String[]::new));
    }

    private List<String> placed() throws Exception {
        return Files.readAllLines(directory.resolve("placed.csv"));
    }

    @Test
    void columnsAreGuessedAndEveryCellStaysAsItWas() throws Exception {
        int code = place("phone,town,province,litres\n0600,Soria,Soria,1.50\n0601,Burgos,Burgos,2.0\n");
        assertThat(code).isEqualTo(PlaceCommand.ALL_PLACED);
        assertThat(out.toString()).startsWith("2 rows placed, 0 doubtful, 0 unplaced, by town, province;");
        assertThat(placed().get(0))
                .isEqualTo("phone,town,province,litres,state,confidence,place,level,code,longitude,latitude,reason");
        assertThat(placed().get(1))
                .startsWith("0600,Soria,Soria,1.50,placed,")
                .contains(",Soria,town,g3108681,-2.46883,41.76401,");
    }

    @Test
    void doubtfulAndUnplacedRowsAreWrittenWithTheirReasonAndTold() throws Exception {
        int code = place("town\nNowhere at all\nSoria\n\"Villanueva\"\n", "--town", "town");
        assertThat(code).isEqualTo(PlaceCommand.SOME_NOT);
        assertThat(placed().get(1))
                .startsWith("Nowhere at all,unplaced,0.00,,,,,,")
                .contains("No town is called");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "where;n~Soria, Spain;1~Braga, Portugal;2 | --where where",
                        "lat;lon~41,76;-2,46~40,41;-3,70 | --lat lat --lon lon",
                "c;n~42173;1~8019;2 | --code c", "a;b~Soria;Spain~Burgos;Spain | --town a --country b"
            })
    void everyWayOfPlacingCanBeTold(String content, String options) throws Exception {
        assertThat(place(content.replace('~', '\n') + "\n", options.split(" ")))
                .as(err.toString())
                .isEqualTo(PlaceCommand.ALL_PLACED);
        assertThat(placed()).hasSize(3);
    }

    @Test
    void ofAJourneyBothEndsAreWritten() throws Exception {
        assertThat(place(
                        "from,to,n\n\"Soria, Spain\",\"Braga, Portugal\",3\n\"Nowhere at all, Spain\",\"Soria, "
                                + "Spain\",2\n",
                        "--from",
                        "from",
                        "--to",
                        "to"))
                .isEqualTo(PlaceCommand.SOME_NOT);
        assertThat(placed().get(0))
                .isEqualTo("from,to,n,state,confidence,place,level,code,longitude,latitude,reason,origin "
                        + "state,origin confidence,origin place,origin level,origin code,origin "
                        + "longitude,origin latitude,origin reason");
        assertThat(placed().get(1)).containsSubsequence("placed", ",Braga,town,", "placed", ",Soria,town,g3108681,");
        assertThat(placed().get(2)).containsSubsequence(",Soria,town,g3108681,", "unplaced");
        assertThat(out.toString()).startsWith("1 row placed, 0 doubtful, 1 unplaced");
        assertThat(run("in.csv", "--out", "-", "--from", "from")).isEqualTo(PlaceCommand.NOTHING_DONE);
    }

    @Test
    void aColumnThatIsThereAlreadyIsNotOverwritten() throws Exception {
        place("town,state,place\nSoria,open,here\n", "--town", "town");
        assertThat(placed().get(0))
                .isEqualTo(
                        "town,state,place,placed state,confidence,placed place,level,code,longitude,latitude,reason");
        assertThat(placed().get(1)).startsWith("Soria,open,here,placed,");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "--town pueblo | no column “pueblo”",
                "--fly x | no option --fly",
                "--town | needs a name behind it",
                "--lon n | --lon goes with --lat",
                "other.csv | Two files are named",
                "--code n --town town | contradict each other",
                "--town town --town n | --town is said twice",
                "--town= | needs a name behind it",
                "-x | no option -x"
            })
    void misuseIsSaidWithTheUsageAndNothingIsWritten(String options, String said) throws Exception {
        assertThat(place("n,town\n1,Soria\n", options.split(" "))).isEqualTo(PlaceCommand.NOTHING_DONE);
        assertThat(err.toString()).contains(said).contains("usage: ./sarnik place");
        assertThat(directory.resolve("placed.csv")).doesNotExist();
    }

    @Test
    void standardInputAndOutputAreFilesToo() throws Exception {
        in = new ByteArrayInputStream("town,n\nSoria,1\n".getBytes(StandardCharsets.UTF_8));
        assertThat(run("-", "--out=-", "--town=town")).isEqualTo(PlaceCommand.ALL_PLACED);
        assertThat(out.toString()).startsWith("town,n,state,").contains("Soria,1,placed,");
        assertThat(err.toString()).contains("1 row placed").contains("standard output");
    }

    @Test
    void onlyPlainFilesAreReplaced() throws Exception {
        Path folder = Files.createDirectory(directory.resolve("folder"));
        Files.writeString(directory.resolve("in.csv"), "town\nSoria\n");
        String source = directory.resolve("in.csv").toString();
        assertThat(run(source, "--out", folder.toString(), "--town", "town")).isEqualTo(PlaceCommand.NOTHING_DONE);
        assertThat(folder).isDirectory();
        assertThat(err.toString()).contains("is a directory");
        assertThat(run(source, "--out", "/dev/null", "--town", "town")).isEqualTo(PlaceCommand.ALL_PLACED);
        assertThat(Files.isRegularFile(Path.of("/dev/null")))
                .as("the device is still one")
                .isFalse();
        Path real = Files.writeString(directory.resolve("real.csv"), "old");
        Path link = Files.createSymbolicLink(directory.resolve("link.csv"), real);
        assertThat(run(source, "--out", link.toString(), "--town", "town")).isEqualTo(PlaceCommand.ALL_PLACED);
        assertThat(Files.isSymbolicLink(link)).isTrue();
        assertThat(real).content().startsWith("town,state");
        assertThat(run(source, "--out", directory.resolve("no/where.csv").toString()))
                .isEqualTo(PlaceCommand.NOTHING_DONE);
        try (var left = Files.list(directory)) {
            assertThat(left.map(f -> f.getFileName().toString())).noneMatch(n -> n.endsWith(".part"));
        }
    }

    @Test
    void codesThatAreWrittenAreCodesThatAreRead() throws Exception {
        place("where\n\"Soria, Spain\"\nZamora\nPortugal\n", "--where", "where");
        Files.move(directory.resolve("placed.csv"), directory.resolve("first.csv"));
        assertThat(run(
                        directory.resolve("first.csv").toString(),
                        "--out",
                        directory.resolve("again.csv").toString(),
                        "--code",
                        "code"))
                .as(err.toString())
                .isEqualTo(PlaceCommand.ALL_PLACED);
        assertThat(column("again.csv", "placed code"))
                .isEqualTo(column("first.csv", "code"))
                .hasSize(3)
                .doesNotContain("");
        assertThat(column("again.csv", "placed place")).isEqualTo(column("first.csv", "place"));
    }

    private List<String> column(String file, String name) throws IOException {
        try (var rows = CsvReader.builder().ofNamedCsvRecord(directory.resolve(file))) {
            return rows.stream().map(row -> row.getField(name)).toList();
        }
    }

    @Test
    void helpIsNoMistake() {
        assertThat(run("--help")).isZero();
        assertThat(out.toString()).startsWith("usage: ./sarnik place");
    }

    @Test
    void filesThatCannotBeReadAreSaid() throws Exception {
        assertThat(run("/nowhere/in.csv", "--out", "x.csv")).isEqualTo(PlaceCommand.NOTHING_DONE);
        assertThat(err.toString()).contains("there is no file /nowhere/in.csv");
        assertThat(place("")).isEqualTo(PlaceCommand.NOTHING_DONE);
        assertThat(err.toString()).contains("The file is empty");
        assertThat(run()).isEqualTo(PlaceCommand.NOTHING_DONE);
        assertThat(err.toString()).contains("Name the file to place, or -");
        assertThat(place("a,b\nx1,2\ny1,3\n")).isEqualTo(PlaceCommand.NOTHING_DONE);
        assertThat(err.toString()).contains("No column seems to tell where a row is");
    }

    @Test
    void aFileThatWasThereStaysWhenNothingCouldBeDone() throws Exception {
        Files.writeString(directory.resolve("placed.csv"), "kept");
        place("", "--town", "x");
        assertThat(directory.resolve("placed.csv")).hasContent("kept");
    }
}
