package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.table.TestTables.csv;
import static sarnik.table.TestTables.read;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("A CSV file")
class CsvTest {

    @Nested
    @DisplayName("guesses types")
    class Types {

        @ParameterizedTest(name = "{0} is {2}")
        @CsvSource(
                delimiter = '|',
                value = {
                    "12 | -7 | WHOLE", "12.5 | 7 | DECIMAL", "1e3 | 2.5E-2 | DECIMAL", "2026-05-31 | 2024-02-29 | DATE",
                            "31/05/2026 | 01/02/2026 | DATE",
                    "31.5.2026 | 1.12.2026 | DATE", "2026-05-31T12:30 | 2026-05-31 08:00:05 | TIME",
                            "yes | no | YES_NO", "Sí | No | YES_NO", "true | FALSE | YES_NO",
                    "Soria | Zamora | TEXT", "08013 | 28001 | TEXT", "89340712345678901234 | 7 | TEXT",
                            "999999999999999999 | 7 | WHOLE", "12 | twelve | TEXT"
                })
        void fromTheWholeColumn(String first, String second, ColumnType expected) {
            assertThat(csv("v", first, second).column("v").type()).isEqualTo(expected);
        }

        @Test
        void aDecimalCommaIsReadWhereCellsArePartedBySemicolons() {
            Table table = csv("v;w", "12,5;a", "7,25;b");
            assertThat(((DecimalColumn) table.column("v")).all()).containsExactly(12.5, 7.25);
        }

        @Test
        void datesReadMonthFirstOnlyWhereDaysCannotComeFirst() {
            assertThat(csv("v", "12/31/2025", "01/13/2026").column("v").text(0)).isEqualTo("2025-12-31");
            assertThat(csv("v", "01/02/2026", "03/04/2026").column("v").text(0))
                    .as("both fit: day first")
                    .isEqualTo("2026-02-01");
        }

        @Test
        void aFewStrangersDoNotTurnAColumnIntoText() {
            List<String> lines = new java.util.ArrayList<>(Collections.nCopies(98, "3.5"));
            lines.add("n/a");
            Reading reading = read("v\n" + String.join("\n", lines) + "\n");
            assertThat(reading.table().column("v").type()).isEqualTo(ColumnType.DECIMAL);
            assertThat(reading.table().column("v").isMissing(98)).isTrue();
            assertThat(reading.troubles().unread()).containsExactly(Map.entry("v", 1L));
            assertThat(reading.troubles().first()).singleElement().satisfies(t -> {
                assertThat(t.line()).isEqualTo(100);
                assertThat(t.column()).isEqualTo("v");
                assertThat(t.text()).isEqualTo("n/a");
                assertThat(t.why()).contains("decimal number").contains("missing");
            });
        }

        @Test
        void aTypeThatIsSetIsNotGuessed() {
            Reading reading =
                    read("phone\n600123456\n600123457\n", StandardCharsets.UTF_8, Map.of("phone", ColumnType.TEXT));
            assertThat(reading.table().column("phone").type()).isEqualTo(ColumnType.TEXT);
            assertThat(reading.table().column("phone").text(0)).isEqualTo("600123456");
        }

        @Test
        void aColumnWithoutAnyValueIsEmptyText() {
            Table table = csv("a,b", "1,", "2,");
            assertThat(table.column("b").type()).isEqualTo(ColumnType.TEXT);
            assertThat(table.column("b").isMissing(0)).isTrue();
        }

        @Test
        void wholeNumbersThatDoNotFitSixtyFourBitsAreCodes() {
            assertThat(csv("v", "99999999999999999999", "1").column("v").type()).isEqualTo(ColumnType.TEXT);
        }
    }

    @Nested
    @DisplayName("finds out how the file is written")
    class Form {

        @ParameterizedTest
        @ValueSource(strings = {",", ";", "\t", "|"})
        void theDelimiter(String mark) {
            Table table = csv("town" + mark + "litres", "Soria" + mark + "3", "Zamora" + mark + "4");
            assertThat(table.names()).containsExactly("town", "litres");
        }

        @Test
        void windowsLettersWhereTheBytesAreNotUtf8() {
            Reading reading = read("town\nÁvila\nLogroño\n", Charset.forName("windows-1252"), Map.of());
            assertThat(reading.table().column("town").text(1)).isEqualTo("Logroño");
            assertThat(reading.form()).contains("windows-1252");
        }

        @Test
        void aByteOrderMarkIsNotPartOfTheFirstName() {
            assertThat(read("\uFEFFtown,x\nSoria,1\n").table().names()).containsExactly("town", "x");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "Title^a;b^1,5;2,5^3,5;4,5|semicolons",
                    "Title^a,b^1;x,2^2;y,3|commas",
                    "Title, long^a\tb\tc^1\t2\t3|tabs",
                    "a,b^1,2^note|commas",
                    "a;b^x|semicolons",
                    "a^b^c|commas"
                })
        void theDelimiterThoughATitleOrANoteHasNone(String file, String mark) {
            assertThat(read(file.replace("^", "\n") + "\n").form()).contains(mark + " between cells");
        }

        @Test
        void quotedCellsMayHoldDelimitersQuotesAndLines() {
            Table table = csv("a,b", "\"x, \"\"y\"\"\nz\",1");
            assertThat(table.column("a").text(0)).isEqualTo("x, \"y\"\nz");
        }
    }

    @Nested
    @DisplayName("keeps every row and says what it could not take")
    class BadInput {

        @Test
        void raggedRowsAreFilledOrCutAndReported() {
            Reading reading = read("a,b,c\n1,2\n1,2,3,4\n1,2,3\n");
            assertThat(reading.table().rows()).isEqualTo(3);
            assertThat(reading.table().column("c").isMissing(0)).isTrue();
            assertThat(reading.troubles().first())
                    .extracting(Troubles.Trouble::line)
                    .containsExactly(2L, 3L);
            assertThat(reading.troubles().first().get(0).why()).contains("2 of 3 cells");
            assertThat(reading.troubles().first().get(1).why())
                    .contains("4 cells")
                    .contains("header has 3");
        }

        @Test
        void doubleAndEmptyHeaderNamesAreMadeUniqueAndReported() {
            Reading reading = read("town,,town,@place\nSoria,1,2,x\n");
            assertThat(reading.table().names()).containsExactly("town", "column 2", "town 2", "place");
            assertThat(reading.troubles().total()).isEqualTo(3);
        }

        @Test
        void aNullByteIsTakenOutAndReported() {
            Reading reading = read("a\nSo\0ria\nZamora\n");
            assertThat(reading.table().column("a").text(0)).isEqualTo("Soria");
            assertThat(reading.troubles().first().get(0).why()).contains("null byte");
        }

        @Test
        void scriptAndFormulaCellsStayPlainText() {
            Table table = csv("a", "<script>alert(1)</script>", "=HYPERLINK(\"x\")");
            assertThat(table.column("a").text(0)).isEqualTo("<script>alert(1)</script>");
            assertThat(table.column("a").text(1)).startsWith("=HYPERLINK");
        }

        @Test
        void twoHundredColumnsAreNoMatter() {
            String header = IntStream.range(0, 200).mapToObj(i -> "c" + i).collect(Collectors.joining(","));
            String row = String.join(",", Collections.nCopies(200, "7"));
            assertThat(csv(header, row).names()).hasSize(200);
        }

        @Test
        void tooManyColumnsAreRefusedWithTheLimit() {
            String header = IntStream.range(0, 1001).mapToObj(i -> "c" + i).collect(Collectors.joining(","));
            assertThatThrownBy(() -> csv(header, "1"))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("1,000");
        }

        @Test
        void onlyTheFirstTroublesAreKeptInWordsButAllAreCounted() {
            String rows = "1,2\n".repeat(100) + "1,2,3\n".repeat(Troubles.KEPT + 5);
            Reading reading = read("a,b\n" + rows);
            assertThat(reading.troubles().total()).isEqualTo(Troubles.KEPT + 5);
            assertThat(reading.troubles().first()).hasSize(Troubles.KEPT);
            assertThat(reading.troubles().unread())
                    .as("whole rows are no cells of a column")
                    .isEmpty();
        }
    }

    @Nested
    @DisplayName("refuses what holds no table, in a sentence")
    class Refusals {

        @Test
        void anEmptyFile() {
            assertThatThrownBy(() -> read(""))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("empty")
                    .hasMessageContaining("Choose");
        }

        @Test
        void onlyEmptyLines() {
            assertThatThrownBy(() -> read("\n\n\n"))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("empty lines");
        }

        @Test
        void onlyAHeader() {
            assertThatThrownBy(() -> read("a,b\n"))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("2 columns")
                    .hasMessageContaining("no row");
        }

        @ParameterizedTest
        @CsvSource({"504B0304, ZIP", "25504446, PDF", "89504E47, picture", "1F8B0800, gzip"})
        void otherFormatsByTheirFirstBytes(String hex, String named) {
            byte[] bytes = Arrays.copyOf(java.util.HexFormat.of().parseHex(hex), 400);
            assertThatThrownBy(() -> read(bytes, Map.of()))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining(named)
                    .hasMessageContaining("CSV");
        }

        @ParameterizedTest
        @ValueSource(strings = {"\u0001\u0002\n\u0003\n", "a\u0001b\u0002c\u0003\n\u0004,1\n"})
        void aFewBytesThatAreNoText(String text) {
            assertThatThrownBy(() -> read(text))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("something other than text");
        }

        @Test
        void randomBytesNeverDoMoreThanRefuseOrGiveRows() {
            Random random = new Random(7);
            for (int n = 0; n < 300; n++) {
                byte[] bytes = new byte[1 + random.nextInt(3000)];
                random.nextBytes(bytes);
                if (n % 3 == 0)
                    for (int i = 0; i < bytes.length; i++)
                        bytes[i] = (byte) ("a,\"\n;1.-\t|é".charAt((bytes[i] & 0xFF) % 11));
                try {
                    assertThat(read(bytes, Map.of()).table().rows()).isPositive();
                } catch (UnreadableTableException refused) {
                    assertThat(refused).hasMessageMatching("(?s).{20,}");
                }
            }
        }

        @Test
        void aQuoteThatIsNeverClosed() {
            String text = "a,b\n1,\"never closed\n" + "x".repeat(2 << 20);
            assertThatThrownBy(() -> read(text))
                    .isInstanceOf(UnreadableTableException.class)
                    .hasMessageContaining("quote");
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "town,note,litres\nSoria,\"a,3\nBurgos,b,4\nLerma,c,5\n",
                    "town,note\nSoria,a\nBurgos,\"b\nLerma,c\nZamora,d\n",
                    "town;note\nSoria;a\nBurgos;\"b\r\nLerma;c",
                    "town,note\nSoria,a\nBurgos,\"b,c"
                })
        void aQuoteThatIsNeverClosedThoughWhatFollowsFitsACell(String text) {
            for (Charset charset : List.of(StandardCharsets.UTF_8, StandardCharsets.UTF_16LE))
                assertThatThrownBy(() -> read(text, charset, Map.of()))
                        .as(charset.name())
                        .isInstanceOf(UnreadableTableException.class)
                        .hasMessageContaining("A quote that is opened and never closed");
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "town,note\nSoria,a\nBurgos,\"b\nc\"\n",
                    "town,note\nSoria,a\nBurgos,\"b,c\"\r\n\r\n",
                    "town,note\nSoria,\"a\nb\"\nBurgos,5\" pipe\n",
                    "town,note,litres\nSoria,\"a\nb\",3\nBurgos,\"c\nd\",\n"
                })
        void butNotOneThatIs(String text) {
            assertThat(read(text).table().rows()).isEqualTo(2);
        }
    }

    @Test
    @DisplayName("holds a table in about the size of its arrays")
    void memoryIsThatOfTheArrays() {
        StringBuilder text = new StringBuilder("kiosk,day,litres\n");
        for (int i = 0; i < 10_000; i++)
            text.append('K')
                    .append(i % 100)
                    .append(",2026-01-0")
                    .append(1 + i % 9)
                    .append(',')
                    .append(i % 50)
                    .append(".5\n");
        Table table = read(text.toString()).table();
        // 1 byte a kiosk code, 2 a day, 2 a decimal, and the words of 100 kiosks.
        assertThat(table.bytes()).isBetween(50_000L, 60_000L);
    }
}
