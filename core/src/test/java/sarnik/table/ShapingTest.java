package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static sarnik.table.TestTables.texts;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Shaping a table on its way in")
class ShapingTest {

    @TempDir
    Path directory;

    private Reading read(String text, FileChoices choices, Shaping shaping) throws IOException {
        return new TableReader()
                .read(CsvFile.open(Files.writeString(directory.resolve("t.csv"), text), choices), shaping);
    }

    private Reading read(String text, Shaping shaping) throws IOException {
        return read(text, FileChoices.NONE, shaping);
    }

    @Nested
    @DisplayName("columns")
    class Columns {

        @Test
        void areLeftOutRenamedAndRetypedByTheirNamesInTheFile() throws IOException {
            Shaping shaping = new Shaping(
                    Map.of("tel", ColumnType.TEXT), Map.of("tel", "phone"), Set.of("note"), null, false, null, null);
            Reading reading = read("town,tel,note\nSoria,975123456,x\n", shaping);
            assertThat(reading.table().names()).containsExactly("town", "phone");
            assertThat(reading.table().column("phone").type()).isEqualTo(ColumnType.TEXT);
            assertThat(reading.columns()).containsExactly("town", "tel", "note");
            assertThat(reading.source()).containsEntry("phone", "tel");
        }

        @Test
        void keepTheirTypesWhenTheNextFileLooksDifferent() throws IOException {
            Shaping first = new Shaping(null, Map.of("tel", "phone"), null, null, false, null, null);
            Table kept = read("town,tel\nSoria,0975123\nSoria,0975124\n", first).table();
            assertThat(kept.column("phone").type()).isEqualTo(ColumnType.TEXT);
            Table next =
                    read("town,tel\nSoria,975123\n", first.withTypesOf(kept)).table();
            assertThat(next.column("phone").type())
                    .as("a number now, by its looks")
                    .isEqualTo(ColumnType.TEXT);
        }

        @Test
        void cannotShareAName() {
            assertThatThrownBy(() ->
                            read("a,b\n1,2\n", new Shaping(null, Map.of("a", "b"), null, null, false, null, null)))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("“b”");
        }

        @Test
        void cannotAllBeLeftOut() {
            assertThatThrownBy(() -> read("a\n1\n", new Shaping(null, null, Set.of("a"), null, false, null, null)))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("at least one");
        }
    }

    @Nested
    @DisplayName("words that mean no value")
    class Missing {

        @Test
        void doNotHideTheTypeOfAColumnAndAreSuggested() throws IOException {
            Reading reading = read("v\n3.5\n-\nn/a\nn/a\n4\n7\n8\n", Shaping.NONE);
            assertThat(reading.table().column("v").type()).isEqualTo(ColumnType.DECIMAL);
            assertThat(reading.missingWords()).containsEntry("-", 1L).containsEntry("n/a", 2L);
            assertThat(reading.troubles().total()).isEqualTo(3);
        }

        @Test
        void areNoTroubleOnceTheyAreNamed() throws IOException {
            Reading reading = read(
                    "v,t\n3.5,N/A\n-,Soria\nN/A,Zamora\n",
                    new Shaping(null, null, null, Set.of("-", "n/a"), false, null, null));
            assertThat(texts(reading.table(), "v")).containsExactly("3.5", null, null);
            assertThat(texts(reading.table(), "t")).containsExactly(null, "Soria", "Zamora");
            assertThat(reading.troubles().total()).isZero();
        }
    }

    @Nested
    @DisplayName("marks in numbers")
    class Marks {

        @ParameterizedTest(name = "{0} and {1} are {2} and {3}")
        @CsvSource(
                delimiter = '|',
                value = {
                    "1.234,5 | 12,25 | 1234.5 | 12.25",
                    "1,234.5 | 12.25 | 1234.5 | 12.25",
                    "1 234,5 | 2 000 000,0 | 1234.5 | 2000000.0",
                    "1.234 | 0.5 | 1.234 | 0.5",
                    "-1'234.5 | +7.5 | -1234.5 | 7.5"
                })
        void areFoundByLooking(String a, String b, String first, String second) throws IOException {
            assertThat(texts(
                            read("v;w\n%s;x\n%s;y\n".formatted(a, b), Shaping.NONE)
                                    .table(),
                            "v"))
                    .containsExactly(first, second);
        }

        /** Lines are parted by blanks. */
        @ParameterizedTest(name = "{0}")
        @CsvSource(
                delimiter = '|',
                quoteCharacter = '~',
                value = {
                    "litres;price 1,204;12.50 985;3.75 | 1204.0 985.0 | POINT",
                    "litres;price 1.204;12,50 985;3,75 | 1204.0 985.0 | COMMA",
                    "litres;share 1,204;0,125 2,310;0,750 | 1.204 2.31 | COMMA",
                    "litres;share 1.204;0.125 2.310;0.750 | 1.204 2.31 | POINT",
                    "litres;people 1,204;1,234,567 2,310;9 | 1204.0 2310.0 | POINT",
                    "litres;people 1.204;1.234.567 2.310;9 | 1204.0 2310.0 | COMMA"
                })
        void inNumbersThatCanBeReadEitherWayAreThoseThatOthersNeed(
                String file, String numbers, Shaping.DecimalMark mark) throws IOException {
            Reading reading = read(file.replace(' ', '\n') + '\n', Shaping.NONE);
            assertThat(texts(reading.table(), "litres")).containsExactly(numbers.split(" "));
            assertThat(reading.marks()).isEqualTo(new Reading.Marks(mark, List.of(), null));
        }

        /**
         * Commas between cells hardly stand before decimals, where semicolons do they do; whole numbers beside are all
         * below a thousand where thousands are parted.
         */
        @ParameterizedTest(name = "{0}")
        @CsvSource(
                delimiter = '|',
                quoteCharacter = '~',
                value = {
                    "litres,n \"1,204\",a \"2,310\",b | 1204.0 2310.0 | 1,204 | 1204 | 1.204",
                    "litres;n 1,204;a 2,310;b | 1.204 2.31 | 1,204 | 1.204 | 1204",
                    "litres_n 1,204_a 2,310_b | 1.204 2.31 | 1,204 | 1.204 | 1204",
                    "litres_n 1,204_a 985_b | 1204.0 985.0 | 1,204 | 1204 | 1.204",
                    "litres_n 1,204_a 2310_b | 1.204 2310.0 | 1,204 | 1.204 | 1204",
                    "litres;n 41.764;a 2.473;b | 41.764 2.473 | 41.764 | 41.764 | 41764",
                    "litres;n €1,204;a €985;b | 1.204 985.0 | 1,204 | 1.204 | 1204"
                })
        void thatAreOnlyGuessedAreSaidAndTurnedByOneDecision(
                String file, String numbers, String example, String taken, String otherwise) throws IOException {
            String text = file.replace('_', '\t').replace(' ', '\n') + '\n';
            Reading reading = read(text, Shaping.NONE);
            assertThat(texts(reading.table(), "litres")).containsExactly(numbers.split(" "));
            Reading.Marks marks = reading.marks();
            assertThat(marks.columns()).containsExactly("litres");
            assertThat(marks.words())
                    .isEqualTo("Numbers such as “" + example + "” in litres can be read either way. They are taken as "
                            + taken + ".");
            assertThat(marks.read(marks.other())).isEqualTo(otherwise);
            Reading turned = read(text, Shaping.NONE.withEitherMark(marks.other()));
            assertThat(Double.parseDouble(turned.table().column("litres").text(0)))
                    .isEqualTo(Double.parseDouble(otherwise));
            assertThat(turned.marks().words()).as("it has been decided").isNull();
        }

        @Test
        void ofManyNumbersOfWhichNoneHasOneOrTwoDigitsBehindThemPartThousands() throws IOException {
            StringBuilder file = new StringBuilder("litres\tn\n985\ta\n");
            for (int row = 0; row < 40; row++)
                file.append("1.").append(204 + row).append("\tb\n");
            Reading reading = read(file.toString(), Shaping.NONE);
            assertThat(texts(reading.table(), "litres")).contains("985.0", "1204.0", "1223.0");
            assertThat(reading.marks().words()).contains("“1.204” in litres", "as 1204");
        }

        @Test
        void areTheSameInAllColumns() throws IOException {
            Table table = read("litres\tn\tdegrees\n1,204\t985\t41.764\n985\t1\t41.555\n", Shaping.NONE)
                    .table();
            assertThat(texts(table, "litres")).containsExactly("1204.0", "985.0");
            assertThat(texts(table, "degrees")).containsExactly("41.764", "41.555");
        }

        @Test
        void thatSomebodyHasDecidedGiveWayToWhatTheFileTells() throws IOException {
            Table table = read("litres;price\n1.204;12,50\n", Shaping.NONE.withEitherMark(Shaping.DecimalMark.POINT))
                    .table();
            assertThat(texts(table, "litres")).containsExactly("1204.0");
        }

        @Test
        void thatCanBeReadEitherWayFollowTheRestOfTheFile() throws IOException {
            Table table =
                    read("litres;share\n1.234;3,5\n2.500;4,25\n", Shaping.NONE).table();
            assertThat(texts(table, "litres")).containsExactly("1234.0", "2500.0");
        }

        @Test
        void canBeSaid() throws IOException {
            assertThat(texts(
                            read(
                                            "v\n1.234\n2.500\n",
                                            new Shaping(null, null, null, null, false, Shaping.DecimalMark.COMMA, null))
                                    .table(),
                            "v"))
                    .containsExactly("1234.0", "2500.0");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {"1.23,4", "12.34.567", "1.234.56", ".123,4", "1,2,3"})
        void inOddPlacesMakeNoNumber(String odd) throws IOException {
            assertThat(read("v;w\n%s;x\n1.234,5;y\n".formatted(odd), Shaping.NONE)
                            .table()
                            .column("v")
                            .type())
                    .isEqualTo(ColumnType.TEXT);
        }
    }

    @Nested
    @DisplayName("the header")
    class Header {

        @Test
        void isFoundBelowATitle() throws IOException {
            Reading reading = read("Refills of the network\n\ntown,litres,takings\nSoria,3,1.5\n", Shaping.NONE);
            assertThat(reading.table().names()).containsExactly("town", "litres", "takings");
            assertThat(reading.table().rows()).isEqualTo(1);
            assertThat(reading.form()).contains("row 2");
        }

        @Test
        void overTwoRowsGivesNamesOfTwoParts() throws IOException {
            Reading reading = read("town,Litres,,Takings,\n,2023,2024,2023,2024\nSoria,3,4,1.5,2\n", Shaping.NONE);
            assertThat(reading.table().names())
                    .containsExactly("town", "Litres · 2023", "Litres · 2024", "Takings · 2023", "Takings · 2024");
        }

        @Test
        void mayBeMissing() throws IOException {
            Reading reading = read("Soria,3.5,2026-01-01\nZamora,4,2026-01-02\n", Shaping.NONE);
            assertThat(reading.table().names()).containsExactly("column 1", "column 2", "column 3");
            assertThat(reading.table().rows()).isEqualTo(2);
        }

        @Test
        void canBeSaid() throws IOException {
            FileChoices choices = new FileChoices(null, null, null, 2, 1, null, null);
            assertThat(read("a,b\ntown,litres\nSoria,3\n", choices, Shaping.NONE)
                            .table()
                            .names())
                    .containsExactly("town", "litres");
        }

        @Test
        void ofYearsIsAHeader() throws IOException {
            assertThat(read("town,2023,2024\nSoria,3,4\n", Shaping.NONE).table().names())
                    .containsExactly("town", "2023", "2024");
        }
    }

    @Nested
    @DisplayName("the form of a text file")
    class Form {

        @Test
        void canBeSaid() throws IOException {
            FileChoices choices = new FileChoices("ISO-8859-1", ";", "'", null, null, null, null);
            Table table = read("a;b\n'x;y';2\n", choices, Shaping.NONE).table();
            assertThat(table.column("a").text(0)).isEqualTo("x;y");
        }

        @Test
        void anEncodingThatDoesNotExistIsRefusedInASentence() {
            assertThatThrownBy(() ->
                            read("a\n1\n", new FileChoices("UTF-99", null, null, null, null, null, null), Shaping.NONE))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("UTF-99");
        }

        @Test
        void twoEqualMarksAreRefused() {
            assertThatThrownBy(
                            () -> read("a\n1\n", new FileChoices(null, "'", "'", null, null, null, null), Shaping.NONE))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("different");
        }
    }

    @Nested
    @DisplayName("a wide table made long")
    class Turned {

        @Test
        void hasARowForEachPeriodThatHasAValue() throws IOException {
            Reading wide = read("town,2023,2024,2025\nSoria,3,,5\nZamora,,,\n", Shaping.NONE);
            assertThat(wide.periods()).containsExactly("2023", "2024", "2025");
            Shaping turn = Shaping.ofTurn(new Shaping.Turn(wide.periods(), "year", "litres"));
            Table table =
                    read("town,2023,2024,2025\nSoria,3,,5\nZamora,,,\n", turn).table();
            assertThat(table.names()).containsExactly("town", "year", "litres");
            assertThat(texts(table, "town")).containsExactly("Soria", "Soria", "Zamora");
            assertThat(texts(table, "year")).containsExactly("2023", "2025", null);
            assertThat(texts(table, "litres")).containsExactly("3", "5", null);
        }

        @Test
        void keepsTheOrderOfThemesMeasuresAndPeriods() throws IOException {
            String file = "town,Use,,,,Money,\n,Litres,,Refills,,Takings,\n,2024,2025,2024,2025,2024,2025\nSoria,1,2,"
                    + "3,4,5,6\n";
            Reading wide = read(file, new FileChoices(null, null, null, 1, 3, null, null), Shaping.NONE);
            assertThat(wide.table().names())
                    .containsExactly(
                            "town",
                            "Use · Litres · 2024",
                            "Use · Litres · 2025",
                            "Use · Refills · 2024",
                            "Use · Refills · 2025",
                            "Money · Takings · 2024",
                            "Money · Takings · 2025");
            Shaping turn = Shaping.ofTurn(new Shaping.Turn(wide.periods(), "year", null));
            Table table = read(file, new FileChoices(null, null, null, 1, 3, null, null), turn)
                    .table();
            assertThat(table.names())
                    .containsExactly("town", "year", "Use · Litres", "Use · Refills", "Money · Takings");
            assertThat(texts(table, "Money · Takings")).containsExactly("5", "6");
        }

        @Test
        void isRefusedWhereAllColumnsOfAMeasureHaveGone() {
            Shaping turn = Shaping.ofTurn(new Shaping.Turn(List.of("2023", "pay 2026"), "year", "litres"));
            assertThatThrownBy(() -> read("town,2023\nSoria,3\n", turn))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("pay 2026");
        }

        @Test
        void takesNewPeriodsOfWhatIsKeptAndDoesWithoutOldOnes() throws IOException {
            Shaping.Turn turn = new Shaping.Turn(List.of("2022", "2023", "2024"), "year", "litres");
            Shaping first = new Shaping(null, null, Set.of("2021"), null, false, null, turn);
            Reading before = read("town,2020,2021,2022,2023,2024\nSoria,9,8,3,4,5\n", first);
            assertThat(before.newerPeriods()).as("nothing is kept yet").isEmpty();
            assertThat(before.table().names()).containsExactly("town", "2020", "year", "litres");
            Reading newer = read(
                    "town,2020,2021,2023,2024,2025,pay 2025\nSoria,9,8,4,5,6,7\n", first.withTypesOf(before.table()));
            assertThat(newer.newerPeriods()).containsExactly("2025");
            assertThat(newer.gonePeriods()).containsExactly("2022");
            assertThat(texts(newer.table(), "year")).containsExactly("2023", "2024", "2025");
            assertThat(texts(newer.table(), "litres")).containsExactly("4", "5", "6");
            assertThat(newer.table().names()).containsExactly("town", "2020", "pay 2025", "year", "litres");
        }
    }

    @Test
    @DisplayName("tells how far it has come and stops when told to")
    void progress() {
        // Decimals come so late that the rows have to be gone through again.
        String rows = "a\n" + "1\n".repeat(80_000) + "1.5\n".repeat(20_000);
        List<String> told = new ArrayList<>();
        assertThatThrownBy(() -> new TableReader((n, all) -> {
                            told.add(n + " of " + all);
                            if (all > 0) throw new IllegalStateException("stopped");
                        })
                        .read(
                                CsvFile.open(Files.writeString(directory.resolve("t.csv"), rows), FileChoices.NONE),
                                Shaping.NONE))
                .hasMessage("stopped");
        assertThat(told)
                .containsExactly(
                        "20000 of 0", "40000 of 0", "60000 of 0", "80000 of 0", "100000 of 0", "20000 of 100000");
    }

    @Test
    @DisplayName("what late rows say counts for the first ones too")
    void lateRows() throws IOException {
        int early = 70_000;
        StringBuilder rows = new StringBuilder("n,day,mark,word\n");
        for (int i = 0; i < early; i++)
            rows.append(i % 1000)
                    .append(",03/04/2026,7,")
                    .append("w")
                    .append(i % 7)
                    .append('\n');
        rows.append("Total,,7,\n");
        for (int i = 0; i < early / 10; i++) rows.append("2.5,25/04/2026,x,w8\n");
        rows.append("oh,25/04/2026,9,w8\n").append("1\n");
        Reading reading = new TableReader()
                .read(
                        CsvFile.open(Files.writeString(directory.resolve("late.csv"), rows), FileChoices.NONE),
                        Shaping.NONE);
        Table table = reading.table();
        assertThat(table.rows()).isEqualTo(early + early / 10 + 2);
        assertThat(table.column("n").type()).isEqualTo(ColumnType.DECIMAL);
        assertThat(table.column("n").text(999)).isEqualTo("999.0");
        assertThat(table.column("n").text(early)).isEqualTo("2.5");
        // The day comes first, which only late rows tell.
        assertThat(table.column("day").text(0)).isEqualTo("2026-04-03");
        assertThat(table.column("mark").type()).isEqualTo(ColumnType.TEXT);
        assertThat(table.column("mark").text(0)).isEqualTo("7");
        assertThat(table.column("word").text(early + 1)).isEqualTo("w8");
        assertThat(reading.troubles().first())
                .extracting(Troubles.Trouble::line, Troubles.Trouble::column)
                .containsExactly(
                        tuple((long) early + 2, null),
                        tuple((long) early + early / 10 + 3, "n"),
                        tuple((long) early + early / 10 + 4, null));
    }

    @Nested
    @DisplayName("several files of one shape")
    class Several {

        private RowSource file(String name, String text) throws IOException {
            return CsvFile.open(Files.writeString(directory.resolve(name), text), FileChoices.NONE);
        }

        @Test
        void areOneTableWithColumnsMatchedByName() throws IOException {
            RowSource joined = new JoinedSource(
                    List.of(file("a", "town,litres\nSoria,3\n"), file("b", "litres;town\n4;Zamora\n")),
                    List.of("a", "b"));
            Table table = new TableReader().read(joined, Shaping.NONE).table();
            assertThat(texts(table, "town")).containsExactly("Soria", "Zamora");
            assertThat(texts(table, "litres")).containsExactly("3", "4");
        }

        @Test
        void thatDifferAreRefusedWithWhatDiffers() throws IOException {
            List<RowSource> files = List.of(file("a", "town,litres\nSoria,3\n"), file("b", "town,takings\nSoria,3\n"));
            assertThatThrownBy(() -> new JoinedSource(files, List.of("may.csv", "june.csv")))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("june.csv")
                    .hasMessageContaining("lacks litres")
                    .hasMessageContaining("takings besides");
        }
    }

    @Nested
    @DisplayName("rows put below others")
    class Below {

        @Test
        void haveTheColumnsOfThoseAbove() {
            Table above = TestTables.csv("town,litres,day", "Soria,3,2026-01-01", ",,");
            Table below = TestTables.csv("litres,town,extra", "4,Zamora,x", "5,Soria,y");
            Table both = above.followedBy(below);
            assertThat(texts(both, "town")).containsExactly("Soria", null, "Zamora", "Soria");
            assertThat(texts(both, "litres")).containsExactly("3", null, "4", "5");
            assertThat(texts(both, "day")).containsExactly("2026-01-01", null, null, null);
        }

        @Test
        void cannotHoldAnotherType() {
            assertThatThrownBy(() -> TestTables.csv("v", "3").followedBy(TestTables.csv("v", "x")))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("“v”");
        }
    }

    @Nested
    @DisplayName("the profile of a column")
    class Profile {

        @Test
        void ofTextCountsItsCommonestValues() {
            ColumnProfile profile = ColumnProfile.of(TestTables.csv("v,w", "a,1", "b,1", "b,1", ",1", "c,1", "d,1")
                    .column("v"));
            assertThat(profile.filled()).isEqualTo(5);
            assertThat(profile.distinct()).isEqualTo(4);
            assertThat(profile.commonest().get(0)).isEqualTo(new ColumnProfile.Common("b", 2));
            assertThat(profile.commonest()).hasSize(3);
        }

        @Test
        void ofNumbersCountsThemInEqualSteps() {
            ColumnProfile profile =
                    ColumnProfile.of(TestTables.csv("v", "0", "1", "1", "12").column("v"));
            assertThat(profile.bins()).containsExactly(1L, 2L, 0L, 0L, 0L, 0L, 0L, 0L, 0L, 0L, 0L, 1L);
        }

        @Test
        void ofEqualOrMissingValuesDoesNotBreak() {
            assertThat(ColumnProfile.of(TestTables.csv("v", "7", "7").column("v"))
                            .bins()
                            .get(0))
                    .isEqualTo(2);
            assertThat(ColumnProfile.of(TestTables.csv("v,w", ",1", ",2").column("v"))
                            .filled())
                    .isZero();
        }
    }
}
