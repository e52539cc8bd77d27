package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.entry;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("Rows that are meant in another way than they stand")
class MendedRowsTest {

    @TempDir
    Path directory;

    private RowSource file(String name, String text) throws IOException {
        return CsvFile.open(Files.writeString(directory.resolve(name), text), FileChoices.NONE);
    }

    private Reading read(String text, Shaping.Rows rows) throws IOException {
        return read(file("t.csv", text), rows, null);
    }

    private static Reading read(RowSource file, Shaping.Rows rows, Shaping.Turn turn) throws IOException {
        Shaping shaping = Shaping.ofTurn(turn);
        return new TableReader().read(file, rows == null ? shaping : shaping.withRows(rows));
    }

    private static Shaping.Rows lone(Shaping.Lone lone) {
        return new Shaping.Rows(null, null, lone, null, true, null, null, null);
    }

    private static Shaping.Rows filledDown(String... columns) {
        return new Shaping.Rows(Set.of(columns), null, null, null, true, null, null, null);
    }

    /** All rows, cells parted by bars. */
    private static List<String> rows(Reading reading) {
        List<String> rows = new ArrayList<>();
        Table table = reading.table();
        for (int row = 0; row < table.rows(); row++) {
            int at = row;
            rows.add(String.join(
                    "|",
                    table.names().stream()
                            .map(name -> String.valueOf(table.column(name).text(at)))
                            .toList()));
        }
        return rows;
    }

    @Nested
    @DisplayName("names of columns once more")
    class Names {

        private static final String PAGES =
                "town,litres,price\nSoria,1200,12.5\ntown,litres,price\nBurgos,985,3.75\n town ,litres,\nLerma,7,1.5\n";

        @Test
        void areLeftOutAndSaid() throws IOException {
            Reading reading = read(PAGES, null);
            assertThat(rows(reading)).containsExactly("Soria|1200|12.5", "Burgos|985|3.75", "Lerma|7|1.5");
            assertThat(reading.rows().names()).isEqualTo(2);
            assertThat(reading.rows().withNames()).isFalse();
        }

        @Test
        void areKeptWhereSomebodySaysSo() throws IOException {
            Reading reading = read(PAGES, new Shaping.Rows(null, null, null, true, true, null, null, null));
            assertThat(reading.table().rows()).isEqualTo(5);
            assertThat(reading.table().column("litres").type()).isEqualTo(ColumnType.TEXT);
            assertThat(reading.rows().withNames()).isTrue();
        }

        @Test
        void areKnownByTheirLastPartsAndBeforePeriodsBecomeRows() throws IOException {
            String file =
                    "town,Litres,,,\n,2023,2024,2025,2026\nSoria,1,2,3,4\ntown,2023,2024,2025,2026\nLerma,5,6,7,8\n";
            Reading wide = read(file("t.csv", file), null, null);
            Shaping.Turn turn = new Shaping.Turn(wide.periods(), "year", null);
            Reading turned = read(file("t.csv", file), null, turn);
            assertThat(turned.table().rows()).isEqualTo(8);
            assertThat(turned.rows().names()).isEqualTo(1);
        }

        @ParameterizedTest
        @ValueSource(strings = {"town,2,3", "town,,", "Soria,litres,price"})
        void areNotSeenInARowWithACellOfItsOwn(String row) throws IOException {
            Reading reading = read("town,litres,price\nLerma,1,2\n" + row + "\nAlmazán,3,4\n", null);
            assertThat(reading.rows().names()).isZero();
            assertThat(reading.table().rows()).isEqualTo(3);
        }
    }

    @Nested
    @DisplayName("words in one cell only")
    class Lone {

        private static final String NOTES =
                "town,litres,price\nSoria,1200,12.5\nBurgos,985,3.75\nSource: the waterworks,,\n* provisional\n";
        private static final String HEADINGS =
                "town,litres,price\nNorth,,\nLerma,1,2\nBurgos,3,4\nSouth,,\nSoria,5,6\nTotal,9,\n";

        @Test
        void areKeptAndSaid() throws IOException {
            Reading reading = read(NOTES, null);
            assertThat(reading.table().rows()).isEqualTo(4);
            assertThat(reading.rows().lone()).isEqualTo(2);
            assertThat(reading.rows().loneAre()).isEqualTo(Shaping.Lone.KEPT);
            assertThat(reading.rows().examples()).containsExactly("Source: the waterworks", "* provisional");
        }

        @Test
        void areLeftOut() throws IOException {
            Reading reading = read(NOTES, lone(Shaping.Lone.LEFT_OUT));
            assertThat(rows(reading)).containsExactly("Soria|1200|12.5", "Burgos|985|3.75");
            assertThat(reading.rows().lone()).isEqualTo(2);
        }

        @Test
        void becomeAColumnOfTheRowsBelow() throws IOException {
            Reading reading = read(HEADINGS, lone(Shaping.Lone.HEADINGS));
            assertThat(reading.table().names()).containsExactly("town", "litres", "price", "heading");
            assertThat(rows(reading)).containsExactly("Lerma|1|2|North", "Burgos|3|4|North", "Soria|5|6|South");
            assertThat(reading.sums().leftOut()).as("the total is one still").isEqualTo(1);
        }

        @Test
        void getANameThatIsFree() throws IOException {
            Reading reading = read(
                    HEADINGS.replace("price", "heading").replace("town", "heading 2"), lone(Shaping.Lone.HEADINGS));
            assertThat(reading.table().names()).containsExactly("heading 2", "litres", "heading", "heading 3");
        }

        @Test
        void areSaidOfTwoColumnsOnlyWhereTheyBeginAsNotesDo() throws IOException {
            String rows = "town,litres\nSoria,1\nBurgos,\nLerma,3\n";
            assertThat(read(rows, null).rows().lone()).isZero();
            assertThat(read(rows + "Fuente: ayuntamiento,\n* provisional,\nNotes: none,\n", null)
                            .rows()
                            .lone())
                    .isEqualTo(3);
        }

        @ParameterizedTest
        @ValueSource(strings = {"1200", "12.50 €", "(3)", "2026"})
        void areNotSeenInNumbers(String number) throws IOException {
            assertThat(read("town,litres,price\nLerma,1,2\n," + number + ",\nAlmazán,3,4\n", null)
                            .rows()
                            .lone())
                    .isZero();
        }

        @Test
        void areNotSaidWhereMostRowsAreSo() throws IOException {
            assertThat(read("town,note,price\nLerma,,\nSoria,,\nAlmazán,a,4\n", null)
                            .rows()
                            .lone())
                    .isZero();
        }
    }

    @Nested
    @DisplayName("what is said at the head of a group only")
    class Heads {

        private static final String GROUPS = """
                region,province,town,litres
                North,Burgos,Lerma,1
                ,,Aranda,2
                ,Soria,Almazán,3
                North total,,,6
                South,,Cádiz,4
                ,,Jerez,5
                """;

        @Test
        void isFound() throws IOException {
            Reading reading = read(GROUPS, null);
            assertThat(reading.rows().gaps()).containsExactly(entry("region", 3L), entry("province", 4L));
            assertThat(reading.rows().filledDown()).isEmpty();
        }

        @Test
        void isFilledDownToTheNextGroupAndNotIntoSums() throws IOException {
            Reading reading = read(GROUPS, filledDown("region", "province"));
            assertThat(rows(reading))
                    .containsExactly(
                            "North|Burgos|Lerma|1",
                            "North|Burgos|Aranda|2",
                            "North|Soria|Almazán|3",
                            "North total|null|null|6",
                            "South|null|Cádiz|4",
                            "South|null|Jerez|5");
            assertThat(reading.rows().filledDown()).containsExactly(entry("region", 3L), entry("province", 1L));
            assertThat(reading.rows().gaps()).as("nothing is open").doesNotContainKey("region");
            assertThat(reading.sums().likely()).as("the subtotal is one still").isEqualTo(1);
        }

        @Test
        void mayBeYearsButNoOtherNumbers() throws IOException {
            assertThat(read("year,town,litres\n2024,Lerma,1\n,Soria,2\n2025,Lerma,1\n,Soria,2\n", null)
                            .rows()
                            .gaps())
                    .containsExactly(entry("year", 2L));
            assertThat(read("budget,town,litres\n500,Lerma,1\n,Soria,2\n700,Lerma,1\n,Soria,2\n", null)
                            .rows()
                            .gaps())
                    .isEmpty();
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    // The first row has none.
                    "region,town\n,Lerma\nNorth,Soria\n,Burgos\nSouth,Cádiz\n",
                    // One is said again right below.
                    "region,town\nNorth,Lerma\nNorth,Soria\n,Burgos\n,Aranda\nSouth,Cádiz\n",
                    // Nothing is filled throughout.
                    "region,town\nNorth,Lerma\n,\n,Burgos\nSouth,\n",
                    // It is not at the beginning of the rows.
                    "town,remark\nLerma,dry\nSoria,\nBurgos,\nCádiz,wet\n"
                })
        void isNotSeenElsewhere(String file) throws IOException {
            assertThat(read(file, null).rows().gaps()).isEmpty();
        }

        @Test
        void isNotSeenInAFewGapsOfMany() throws IOException {
            StringBuilder file = new StringBuilder("region,town\n");
            for (int i = 0; i < 40; i++)
                file.append(i == 7 || i == 9 ? "" : "r" + i).append(",t\n");
            assertThat(read(file.toString(), null).rows().gaps()).isEmpty();
        }
    }

    @Nested
    @DisplayName("numbers in cells that are merged")
    class Merged {

        /** A sheet whose cells with a caret are merged with the one above. */
        private record Sheet(List<String> header, List<List<String>> cells, Set<Integer> hidden) implements RowSource {

            static Sheet of(String... rows) {
                List<List<String>> cells =
                        Arrays.stream(rows).map(row -> List.of(row.split(","))).toList();
                return new Sheet(cells.get(0), cells.subList(1, cells.size()), Set.of());
            }

            static Sheet hiding(Set<Integer> rows, Sheet sheet) {
                return new Sheet(sheet.header, sheet.cells, rows);
            }

            @Override
            public void each(Visitor visitor) {
                for (int row = 0; row < cells.size(); row++) {
                    java.util.BitSet merged = new java.util.BitSet();
                    List<String> shown = new ArrayList<>();
                    for (int i = 0; i < header.size(); i++) {
                        int at = row;
                        while (cells.get(at).get(i).equals("^")) at--;
                        merged.set(i, at < row);
                        shown.add(cells.get(at).get(i));
                    }
                    visitor.row(row + 2L, RowSource.cells(shown, merged, hidden.contains(row)));
                }
            }

            @Override
            public String words() {
                return "a sheet";
            }
        }

        private static final Sheet BUDGETS = Sheet.of(
                "region,year,budget,town",
                "North,2024,500,Lerma",
                "^,^,^,Soria",
                "^,2025,^,Burgos",
                "South,^,700,Cádiz",
                "^,^,^,Jerez");

        @Test
        void areSaidButNotYearsOrWords() throws IOException {
            Reading reading = read(BUDGETS, null, null);
            assertThat(reading.rows().merged()).containsExactly(new Reading.Merged("budget", "500", 3, false));
            assertThat(rows(reading).get(2)).isEqualTo("North|2025|500|Burgos");
        }

        @Test
        void standOnceWhereSomebodySaysSo() throws IOException {
            Reading reading =
                    read(BUDGETS, new Shaping.Rows(null, Set.of("budget"), null, null, true, null, null, null), null);
            assertThat(rows(reading))
                    .containsExactly(
                            "North|2024|500|Lerma",
                            "North|2024|null|Soria",
                            "North|2025|null|Burgos",
                            "South|2025|700|Cádiz",
                            "South|2025|null|Jerez");
            assertThat(reading.rows().merged()).containsExactly(new Reading.Merged("budget", "500", 3, true));
        }

        @Test
        void standInTheFirstRowThatIsShown() throws IOException {
            Sheet sheet = Sheet.hiding(Set.of(0, 3), BUDGETS);
            Shaping.Rows told =
                    new Shaping.Rows(Set.of("region"), Set.of("budget"), null, null, true, true, null, null);
            Reading reading = read(sheet, told, null);
            assertThat(rows(reading))
                    .containsExactly("North|2024|500|Soria", "North|2025|null|Burgos", "South|2025|700|Jerez");
            assertThat(reading.rows().hidden()).isEqualTo(2);
        }

        @Test
        void headsOfGroupsHoldBelowThoughTheirRowsAreLeftOut() throws IOException {
            Sheet sheet = Sheet.hiding(
                    Set.of(0, 3), Sheet.of("region,town", "North,Lerma", ",Soria", ",Burgos", "South,Jerez", ",Ronda"));
            Reading reading =
                    read(sheet, new Shaping.Rows(Set.of("region"), null, null, null, true, true, null, null), null);
            assertThat(rows(reading)).containsExactly("North|Soria", "North|Burgos", "South|Ronda");
            assertThat(reading.rows().filledDown()).containsEntry("region", 3L);
            Sheet totals = Sheet.hiding(
                    Set.of(1), Sheet.of("region,town,litres", "North,Lerma,1", "Total North,,1", ",Soria,2"));
            assertThat(rows(read(
                            totals,
                            new Shaping.Rows(Set.of("region"), null, null, null, true, true, null, null),
                            null)))
                    .as("a sum that is hidden heads no group")
                    .containsExactly("North|Lerma|1", "North|Soria|2");
            Reading files = read(
                    new JoinedSource(List.of(sheet, sheet), List.of("a", "b")),
                    new Shaping.Rows(null, null, null, null, true, null, null, null),
                    null);
            assertThat(files.rows().hidden()).isEqualTo(4);
        }

        @Test
        void areFoundInFilesPutTogether() throws IOException {
            Reading reading = read(new JoinedSource(List.of(BUDGETS, BUDGETS), List.of("a", "b")), null, null);
            assertThat(reading.rows().merged()).containsExactly(new Reading.Merged("budget", "500", 3, false));
        }
    }

    @Nested
    @DisplayName("rows that stand more than once")
    class Again {

        private static final String SALES =
                "town,month,litres\nSoria,2024-01,5\nBurgos,2024-01,7\nSoria,2024-02,5\nBurgos,2024-01, 7\n"
                        + "Lerma,2024-02,\nLerma,2024-02\n";

        private static Shaping.Rows eachOnce(String... filledDown) {
            return new Shaping.Rows(Set.of(filledDown), null, null, null, true, null, true, null);
        }

        @Test
        void areSaidAndLeftOutWhereSomebodySaysSo() throws IOException {
            Reading kept = read(SALES, null);
            assertThat(kept.table().rows()).isEqualTo(6);
            assertThat(kept.rows().again()).isEqualTo(2);
            assertThat(kept.rows().eachOnce()).isFalse();
            Reading once = read(SALES, eachOnce());
            assertThat(rows(once))
                    .containsExactly(
                            "Soria|2024-01-01|5", "Burgos|2024-01-01|7", "Soria|2024-02-01|5", "Lerma|2024-02-01|null");
            assertThat(once.rows().again()).isEqualTo(2);
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    // Two of a town differ in their litres, so that each row is an event, and two may be alike.
                    "town,litres\nSoria,5\nSoria,6\nBurgos,7\nBurgos,7\n",
                    "town,kind\nSoria,still\nSoria,still\nBurgos,still\n",
                    "product,price\nstill,2\nstill,2\nsparkling,3\nstill,2\nsparkling,3\n",
                    "number,town,litres\n1,Soria,5\n2,Soria,5\n3,Burgos,7\n",
                    "region,town,litres\nNorth,a,5\n,b,5\n,c,6\nSouth,a,6\n,b,5\n,c,6\n"
                })
        void areNotSaidWhereRowsMayBeAlike(String file) throws IOException {
            assertThat(read(file, null).rows().again()).isZero();
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    // The number tells rows apart though the town does not; words of several columns may do together.
                    "number,town,litres\n1,Soria,5\n2,Soria,6\n3,Burgos,7\n2,Soria,6\n",
                    "town,kind,litres\nSoria,still,5\nSoria,sparkling,5\nBurgos,still,7\nSoria,still,5\n",
                    "at,litres\n2024-01-01 10:00,5\n2024-01-01 10:05,5\n2024-01-01 10:05,5\n",
                    "town,price\nSoria,2.50\nBurgos,3.10\nBurgos,3.10\nTotal,\n"
                })
        void areSaidWhereWhatTheOthersAreOfDiffers(String file) throws IOException {
            assertThat(read(file, null).rows().again()).isOne();
        }

        @Test
        void areNotTheSameUnderAnotherHeadOrWithAColumnThatIsLeftOut() throws IOException {
            String groups = "region,town,litres\nNorth,a,5\n,b,5\nSouth,a,5\n,b,5\n,b,5\n";
            Reading reading = read(groups, eachOnce("region"));
            assertThat(rows(reading)).containsExactly("North|a|5", "North|b|5", "South|a|5", "South|b|5");
            assertThat(reading.rows().again()).isOne();
            Shaping without = new Shaping(null, null, Set.of("number"), null, false, null, null);
            String numbered = "number,town,litres\n1,Soria,5\n2,Burgos,7\n3,Burgos,7\n";
            assertThat(new TableReader()
                            .read(file("t.csv", numbered), without)
                            .rows()
                            .again())
                    .as("they differ in the file")
                    .isZero();
        }

        @Test
        void areSeenInFilesThatOverlap() throws IOException {
            RowSource june = file("june.csv", "town,day,litres\nSoria,2024-06-29,5\nSoria,2024-06-30,6\n");
            RowSource july = file("july.csv", "day,town,litres\n2024-06-30,Soria,6\n2024-07-01,Soria,4\n");
            Reading both = read(new JoinedSource(List.of(june, july), List.of("june", "july")), null, null);
            assertThat(both.rows().again()).isOne();
            Reading once = read(new JoinedSource(List.of(june, july), List.of("june", "july")), eachOnce(), null);
            assertThat(once.table().rows()).isEqualTo(3);
        }

        @Test
        void totalsAreNoneOfThem() throws IOException {
            String file = "town,kind,litres\nSoria,a,5\nTotal,,5\nBurgos,a,7\nTotal,,5\n";
            Reading reading = read(file, eachOnce());
            assertThat(reading.rows().again()).isZero();
            assertThat(reading.sums().leftOut()).isEqualTo(2);
        }
    }

    @Nested
    @DisplayName("units between the names and the rows")
    class Units {

        private static final String FILE = "town,litres,price\n,(l),€\nSoria,1200,12.5\nBurgos,985,3.75\n";

        @Test
        void areUnitsAndNoRow() throws IOException {
            Reading reading = read(FILE, null);
            assertThat(rows(reading)).containsExactly("Soria|1200|12.5", "Burgos|985|3.75");
            assertThat(reading.said().get("litres").unit()).isEqualTo("l");
            assertThat(reading.said().get("price").words()).isEqualTo("in €");
            assertThat(reading.form()).endsWith(", units in the row below");
        }

        @Test
        void areSeenAndLeftOutOnPagesThatFollow() throws IOException {
            Reading reading = read(FILE + FILE + "Lerma,7,1.5\nSource: the waterworks,,\n", null);
            assertThat(rows(reading))
                    .containsExactly(
                            "Soria|1200|12.5",
                            "Burgos|985|3.75",
                            "Soria|1200|12.5",
                            "Burgos|985|3.75",
                            "Lerma|7|1.5",
                            "Source: the waterworks|null|null");
            assertThat(reading.rows().names()).isEqualTo(2);
            assertThat(reading.said().get("litres").unit()).isEqualTo("l");
        }

        @Test
        void areARowWhereSomebodySaysThatNamesStandInOne() throws IOException {
            RowSource file = CsvFile.open(
                    Files.writeString(directory.resolve("t.csv"), FILE),
                    new FileChoices(null, null, null, null, 1, null, null));
            assertThat(read(file, null, null).table().rows()).isEqualTo(3);
        }

        @Test
        void staysWithPeriodsThatBecomeRowsWhereAllHaveTheSame() throws IOException {
            String file = "town,2023,2024,2025\n,l,%s,l\nSoria,1,2,3\nLerma,4,5,6\n";
            Shaping.Turn turn = new Shaping.Turn(List.of("2023", "2024", "2025"), "year", "litres");
            assertThat(read(file("t.csv", file.formatted("l")), null, turn)
                            .said()
                            .get("litres")
                            .unit())
                    .isEqualTo("l");
            assertThat(read(file("t.csv", file.formatted("m³")), null, turn).said())
                    .doesNotContainKey("litres");
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "Lerma,unknown,",
                    ",n/a,-",
                    ",5,€",
                    ",l,a unit that is far too long to be one",
                    "town,l,€",
                })
        void areNotSeenInARowLikeTheOthers(String row) throws IOException {
            assertThat(read("town,litres,price\n" + row + "\nSoria,1200,12.5\nBurgos,985,3.75\n", null)
                            .table()
                            .rows())
                    .isEqualTo(3);
        }

        @Test
        void areNamesWhereTheyTellColumnsOfOneNameApart() throws IOException {
            Reading reading = read("town,litres,litres,price\n,still,sparkling,€\nSoria,1,2,3\nLerma,4,5,6\n", null);
            assertThat(reading.table().names())
                    .containsExactly("town", "litres · still", "litres · sparkling", "price · €");
            assertThat(reading.table().rows()).isEqualTo(2);
            assertThat(read("town,litres,litres\n,l,l\nSoria,1,2\nLerma,4,5\n", null)
                            .table()
                            .names())
                    .containsExactly("town", "litres", "litres 2");
        }

        @Test
        void haveToBeTheSameInFilesPutTogether() throws IOException {
            RowSource first = file("a.csv", FILE);
            assertThat(new JoinedSource(List.of(first, file("b.csv", FILE)), List.of("a", "b")).units())
                    .containsExactly("", "l", "€");
            RowSource other = file("b.csv", FILE.replace("(l)", "m³"));
            assertThatThrownBy(() -> new JoinedSource(List.of(first, other), List.of("a", "b")))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessage("“b” has “litres” in m³, “a” in l. Bring it in by itself.");
        }
    }
}
