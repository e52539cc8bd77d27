package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Values as people write them")
class WrittenValuesTest {

    @TempDir
    Path directory;

    private Reading read(Shaping shaping, String... lines) throws IOException {
        Path file = Files.writeString(Files.createTempFile(directory, "in", ".csv"), String.join("\n", lines) + "\n");
        return new TableReader()
                .read(CsvFile.open(file, new FileChoices(null, "\t", null, null, 1, null, null)), shaping);
    }

    private Reading column(Shaping shaping, String... cells) throws IOException {
        return read(
                shaping,
                ("n\tv\n" + Arrays.stream(cells).map(c -> "x\t" + c).collect(Collectors.joining("\n"))).split("\n"));
    }

    private static List<String> texts(Reading reading, String column) {
        Column values = reading.table().column(column);
        return IntStream.range(0, values.size()).mapToObj(values::text).toList();
    }

    @Test
    void aZeroWithAMinusIsNoughtAndLeavesItsColumnExact() throws IOException {
        Reading reading = column(Shaping.NONE, "-0.00", "1.25", "-2.50");
        assertThat(texts(reading, "v")).containsExactly("0.0", "1.25", "-2.5");
        assertThat(((DecimalColumn) reading.table().column("v")).unit()).isEqualTo(100);
    }

    @Test
    void decimalsAreTheNearestThereIs() {
        Random random = new Random(7);
        for (int i = 0; i < 200_000; i++) {
            StringBuilder text = new StringBuilder(List.of("", "-", "+").get(random.nextInt(3)));
            int digits = 1 + random.nextInt(19);
            int mark = random.nextInt(digits + 1);
            for (int d = 0; d < digits; d++) {
                if (d == mark) text.append('.');
                text.append((char) ('0' + random.nextInt(10)));
            }
            if (random.nextInt(9) == 0) text.append("e-").append(random.nextInt(40));
            assertThat(CellForm.DECIMAL_POINT.decimal(text.toString()))
                    .as(text.toString())
                    .isEqualTo(0.0 + Double.parseDouble(text.toString()));
        }
        assertThat(CellForm.DECIMAL_POINT.decimal("-0.0")).isEqualTo(0.0);
        assertThat(CellForm.DECIMAL_COMMA.decimal("0,1")).isEqualTo(0.1);
        assertThat(CellForm.GROUPED_COMMA.decimal("-1.234.567,89")).isEqualTo(-1234567.89);
    }

    /** What a column is made of is found from its first thousand cells where most of them are words. */
    @Test
    void aColumnOfWordsStaysOneWhateverAmountsComeLate() throws IOException {
        String[] cells = IntStream.range(0, 3000)
                .mapToObj(i -> i < 1500 ? "word " + i : i % 2 == 0 ? i + " kg" : i + " m")
                .toArray(String[]::new);
        Reading reading = column(Shaping.NONE, cells);
        assertThat(reading.table().column("v").type()).isEqualTo(ColumnType.TEXT);
        assertThat(texts(reading, "v")).containsExactly(cells);
    }

    @Nested
    @DisplayName("dates")
    class Dates {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "2021/01/31|2021-01-31",
                    "2021-01-31|2021-01-31",
                    "31 Jan 2021|2021-01-31",
                    "Jan 31, 2021|2021-01-31",
                    "31-Jan-21|2021-01-31",
                    "14-03-2023|2023-03-14",
                    "31.12.2020|2020-12-31",
                    "20210131|2021-01-31",
                    "2021-W05|2021-02-01",
                    "Q1 2021|2021-01-01",
                    "2021Q3|2021-07-01",
                    "Jan 2021|2021-01-01",
                    "Jan-21|2021-01-01",
                    "2021-05|2021-05-01",
                    "05/2021|2021-05-01",
                    "31 de enero de 2021|2021-01-31",
                    "1er février 2021|2021-02-01",
                    "31. Januar 2021|2021-01-31",
                    "31 gennaio 2021|2021-01-31",
                    "31 de dezembro de 2021|2021-12-31",
                    "Sunday, 31 January 2021|2021-01-31",
                    "March 3rd, 2021|2021-03-03",
                    "3/25/2021|2021-03-25",
                    "25/3/21|2021-03-25",
                    "12 mars 1999|1999-03-12",
                    "31 desembre 2021|2021-12-31",
                    "15-Aug-69|2069-08-15",
                    "15-Aug-71|1971-08-15"
                })
        void areReadHoweverTheyAreWritten(String written, String date) throws IOException {
            Reading reading = column(Shaping.NONE, written, written);
            assertThat(reading.table().column("v").type()).isEqualTo(ColumnType.DATE);
            assertThat(texts(reading, "v")).containsOnly(date);
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "2021-01-31T10:15:30Z|2021-01-31T10:15:30",
                    "2021-01-31T10:15:30+02:00|2021-01-31T08:15:30",
                    "2021-01-31 10:15:30.250-0500|2021-01-31T15:15:30",
                    "31/01/2021 14:05|2021-01-31T14:05",
                    "1/31/2021 2:05 PM|2021-01-31T14:05",
                    "31 Jan 2021 12:00 am|2021-01-31T00:00",
                    "Jan 31, 2021, 9:30:15 p.m.|2021-01-31T21:30:15",
                    "2021/01/31 07:00|2021-01-31T07:00",
                    "20210131 07:30|2021-01-31T07:30",
                    "31.01.2021 23:59:59|2021-01-31T23:59:59",
                    "1/31/2021 2 PM|2021-01-31T14:00",
                    "2021-01-31T10:15:30.123456Z|2021-01-31T10:15:30",
                    "2021-01-31T10:15+05:30[Asia/Kolkata]|2021-01-31T04:45"
                })
        void withTheirTimeAreReadHoweverTheyAreWritten(String written, String time) throws IOException {
            Reading reading = column(Shaping.NONE, written, written);
            assertThat(reading.table().column("v").type()).isEqualTo(ColumnType.TIME);
            assertThat(texts(reading, "v")).containsOnly(time);
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "31/02/2021",
                    "2021-13-01",
                    "Mai Thai 2021",
                    "31/31/2021",
                    "12345678",
                    "2021-W60",
                    "Q5 2021",
                    "1-2-3",
                    "10:30",
                    "v1.2.3",
                    "3.14.15",
                    "192.168.1.1",
                    "May",
                    "12 de"
                })
        void areNotSeenInWhatIsNone(String written) throws IOException {
            assertThat(column(Shaping.NONE, written, written)
                            .table()
                            .column("v")
                            .type())
                    .isNotIn(ColumnType.DATE, ColumnType.TIME);
        }

        @Test
        void haveTheirDayFirstWhereOneValueSaysSoAndTheOtherColumnsFollow() throws IOException {
            Reading reading = read(Shaping.NONE, "a\tb", "01/02/2021\t03/04/2021", "25/02/2021\t05/06/2021");
            assertThat(texts(reading, "a")).containsExactly("2021-02-01", "2021-02-25");
            assertThat(texts(reading, "b")).as("its neighbour tells").containsExactly("2021-04-03", "2021-06-05");
            assertThat(reading.said().get("b").either()).isFalse();
            assertThat(reading.said().get("b").words()).isEqualTo("day first");
            Reading american =
                    read(Shaping.NONE, "a\tb", "01/02/2021\t03/04/2021 10:00", "02/25/2021\t05/06/2021 11:00");
            assertThat(texts(american, "b")).containsExactly("2021-03-04T10:00", "2021-05-06T11:00");
            assertThat(american.monthFirst()).isTrue();
        }

        @Test
        void thatCanBeReadEitherWaySayThatNothingTellsAndAreTurnedByOneWord() throws IOException {
            Reading guessed = column(Shaping.NONE, "01/02/2021", "03/04/2021");
            assertThat(texts(guessed, "v")).containsExactly("2021-02-01", "2021-04-03");
            assertThat(guessed.said().get("v").either()).isTrue();
            assertThat(guessed.said().get("v").words()).contains("day first", "nothing in the file tells");
            Reading told = column(Shaping.NONE.withMonthFirst(true), "01/02/2021", "03/04/2021");
            assertThat(texts(told, "v")).containsExactly("2021-01-02", "2021-03-04");
            assertThat(told.said().get("v").either()).isFalse();
        }

        @Test
        void areSecondsSince1970WhereTheColumnIsCalledSo() throws IOException {
            Reading reading = read(
                    Shaping.NONE,
                    "timestamp\tid\tcreated_ms",
                    "1612087200\t1612087200\t1612087200123",
                    "1612090800\t1612090800\t1612090800000");
            assertThat(texts(reading, "timestamp")).containsExactly("2021-01-31T10:00", "2021-01-31T11:00");
            assertThat(texts(reading, "created_ms").get(1)).isEqualTo("2021-01-31T11:00");
            assertThat(reading.table().column("id").type()).isEqualTo(ColumnType.WHOLE);
            assertThat(reading.said().get("timestamp").words()).contains("seconds since 1970");
        }

        @ParameterizedTest
        @CsvSource({"date", "sale_date", "Date of sale", "Fecha", "day"})
        void areDaysAsSpreadsheetsCountThemWhereTheColumnIsCalledSo(String name) throws IOException {
            Reading reading = read(Shaping.NONE, name + "\tid", "45000\t45000", "25569\t45001", "60000\t3");
            assertThat(texts(reading, name)).containsExactly("2023-03-15", "1970-01-01", "2064-04-08");
            assertThat(reading.said().get(name).words()).contains("as spreadsheets count them");
            assertThat(reading.table().column("id").type()).isEqualTo(ColumnType.WHOLE);
            Reading whole =
                    read(Shaping.ofTypes(Map.of(name, ColumnType.WHOLE)), name + "\tid", "45000\t1", "25569\t2");
            assertThat(texts(whole, name)).containsExactly("45000", "25569");
        }

        @ParameterizedTest
        @CsvSource({"candidate", "updated", "litres per day", "sales to date", "dated"})
        void areNoDaysWhereTheColumnIsCalledOtherwiseUnlessSetByHand(String name) throws IOException {
            assertThat(texts(read(Shaping.NONE, name + "\tid", "45000\t1", "45001\t2"), name))
                    .containsExactly("45000", "45001");
            assertThat(texts(
                            read(Shaping.ofTypes(Map.of(name, ColumnType.DATE)), name + "\tid", "45000\t1", "45001\t2"),
                            name))
                    .containsExactly("2023-03-15", "2023-03-16");
        }

        @Test
        void areMonthsOfSixDigitsWhereTheColumnIsCalledSo() throws IOException {
            Reading reading = read(Shaping.NONE, "year_month\tid", "202101\t202101", "202112\t202112");
            assertThat(texts(reading, "year_month")).containsExactly("2021-01-01", "2021-12-01");
            assertThat(texts(reading, "id")).containsExactly("202101", "202112");
            assertThat(reading.said().get("year_month").words()).contains("first day");
            assertThat(texts(read(Shaping.NONE, "month\tid", "202101\t1", "202113\t2"), "month"))
                    .as("there is no thirteenth month")
                    .containsExactly("202101", "202113");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "mar 12 ene 2021|2021-01-12",
                    "mar. 12 janv. 2021|2021-01-12",
                    "12 ene 2021 mar|2021-01-12",
                    "mar 2 mar 2021|2021-03-02",
                    "12 mar 2021|2021-03-12",
                    "mar 12 2021|2021-03-12",
                    "lun 1 mar 2021|2021-03-01"
                })
        void tellADayOfTheWeekFromAMonthOfTheSameName(String written, String date) throws IOException {
            assertThat(texts(column(Shaping.NONE, written, written), "v")).containsExactly(date, date);
        }

        @Test
        void sayThatTheyWereTurnedIntoUtcAndHowManyHaveNoOffset() throws IOException {
            Reading all =
                    column(Shaping.NONE, "2021-01-05T10:00:00+02:00", "2021-01-05 10:00 -0330", "2021-01-05T10:00Z");
            assertThat(texts(all, "v")).containsExactly("2021-01-05T08:00", "2021-01-05T13:30", "2021-01-05T10:00");
            assertThat(all.said().get("v").words()).isEqualTo("turned into UTC by its offset");
            Reading some = column(Shaping.NONE, "2021-01-05T10:00:00Z", "2021-01-05T10:00:00", "2021-01-05T10:00:00");
            assertThat(some.said().get("v").words())
                    .isEqualTo("turned into UTC by its offset, which stands behind 1 of 3");
            assertThat(column(Shaping.NONE, "2021-01-05T10:00:00", "2021-01-05 11:00")
                            .said())
                    .isEmpty();
        }

        @Test
        void areNoDaysAmongDatesThatAreWrittenAsSuch() throws IOException {
            Reading reading =
                    column(Shaping.ofTypes(Map.of("v", ColumnType.DATE)), "2021-01-31", "2021-02-01", "45000");
            assertThat(texts(reading, "v")).containsExactly("2021-01-31", "2021-02-01", null);
            assertThat(reading.troubles().total()).isEqualTo(1);
        }

        @Test
        void setByHandAreReadInAllWays() throws IOException {
            Reading reading = column(
                    Shaping.ofTypes(Map.of("v", ColumnType.DATE)),
                    "2021-01-31",
                    "31 Jan 2021",
                    "Jan 2021",
                    "25/12/2021",
                    "never");
            assertThat(texts(reading, "v"))
                    .containsExactly("2021-01-31", "2021-01-31", "2021-01-01", "2021-12-25", null);
            assertThat(reading.troubles().total()).isEqualTo(1);
        }
    }

    @Nested
    @DisplayName("amounts")
    class Amounts {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "€ 1,234.50|1234.5|€",
                    "1.234,50 €|1234.5|€",
                    "$5.20|5.2|$",
                    "-$5.20|-5.2|$",
                    "$-5.20|-5.2|$",
                    "($5.20)|-5.2|$",
                    "12.5 %|12.5|%",
                    "12,5%|12.5|%",
                    "EUR 12.5|12.5|EUR",
                    "12.5 USD|12.5|USD",
                    "R$ 1.234,56|1234.56|R$",
                    "1 234,5 kr|1234.5|kr",
                    "1'234.50 CHF|1234.5|CHF",
                    "£1,000.75|1000.75|£",
                    "1,234.50-|-1234.5|",
                    "(1,234.50)|-1234.5|",
                    "−12.5|-12.5|",
                    "₹ 1,500.25|1500.25|₹",
                    "3.5e-2 %|0.035|%"
                })
        void areReadWithTheirUnit(String written, double value, String unit) throws IOException {
            Reading reading = column(Shaping.NONE, written, written);
            assertThat(reading.table().column("v").type().isNumber())
                    .as(reading.table().column("v").type().words())
                    .isTrue();
            assertThat(Double.parseDouble(reading.table().column("v").text(0))).isEqualTo(value);
            assertThat(reading.said().containsKey("v") ? reading.said().get("v").unit() : "")
                    .isEqualTo(unit == null ? "" : unit);
        }

        @Test
        void inSeveralUnitsCannotBeAddedUpAndStayText() throws IOException {
            Reading reading = column(Shaping.NONE, "€5.20", "$5.20", "€7.10");
            assertThat(reading.table().column("v").type()).isEqualTo(ColumnType.TEXT);
            assertThat(reading.said().get("v").words()).contains("several units ($, €)");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "€5|€6|$7|$8|“v” is in $, and was in € before.",
                    "5%|6%|0.05|0.06|“v” has no % beside its numbers, as it had before.",
                    "0.05|0.06|5%|6%|“v” is in %, and was without a unit before.",
                    "€5|€6|€7|$8|“v” has amounts in several units ($, €), which cannot be added up.",
                    "2021-01-05T10:00Z|2021-01-05T11:00Z|2021-01-05T10:00|2021-01-05T11:00|“v” has no offset from UTC behind its times, as it had before.",
                    "2021-01-05T10:00|2021-01-05T11:00|2021-01-05T10:00Z|2021-01-05T11:00Z|“v” has offsets from UTC behind its times, and had none before.",
                    "2021-01-05T10:00Z|2021-01-05T11:00Z|2021-01-05T10:00+01:00|2021-01-05T11:00Z|",
                    "€5|€6|7|8|",
                    "5|6|€7|€8|",
                    "€5|€6|€7|8|"
                })
        void inAnotherUnitThanBeforeAreSaidToBeSo(String a, String b, String c, String d, String said)
                throws IOException {
            Reading before = column(Shaping.NONE, a, b);
            Shaping kept = Shaping.NONE.withTypesOf(before.table()).withUnits(before.units());
            Reading now = column(kept, c, d);
            assertThat(now.otherUnits(kept.units())).isEqualTo(said == null ? List.of() : List.of(said));
            assertThat(now.otherUnits(Map.of()))
                    .as("of tables brought in before units were kept only several at once are said")
                    .hasSize(said != null && said.contains("several") ? 1 : 0);
        }

        @Test
        void haveTheUnitsOfTheirLastRows() throws IOException {
            Reading first = column(Shaping.NONE, "€5", "€6");
            Shaping kept = Shaping.NONE.withUnits(first.units());
            assertThat(kept.units()).as("the other column is of text").containsExactly(Map.entry("v", "€"));
            assertThat(kept.withUnits(Map.of("v", List.of("$"))).units()).containsExactly(Map.entry("v", "$"));
            assertThat(kept.withUnits(Map.of("v", List.of("$", "€"))).units()).containsExactly(Map.entry("v", "€"));
        }

        @Test
        void sayHowManyHaveNoUnit() throws IOException {
            assertThat(column(Shaping.NONE, "12.5%", "0.3", "12.5%", "7")
                            .said()
                            .get("v")
                            .words())
                    .isEqualTo("in %, which is beside 2 of 4");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "1204*|1204|*",
                    "1,204.5 **|1204.5|**",
                    "985 †|985|†",
                    "12¹|12|¹",
                    "12 (p)|12|(p)",
                    "12(e)|12|(e)",
                    "12 (1)|12|(1)",
                    "12 [a]|12|[a]",
                    "12[1]|12|[1]",
                    "12.5 p|12.5|p",
                    "-3 r|-3|r",
                    "(3) *|-3|*",
                    "4% *|4|*",
                    "$5 *|5|*"
                })
        void areReadWithoutTheMarksThatLeadToNotes(String written, double value, String flag) throws IOException {
            Reading reading = column(Shaping.NONE, written, "7", "8");
            assertThat(reading.table().column("v").type().isNumber()).isTrue();
            assertThat(Double.parseDouble(reading.table().column("v").text(0))).isEqualTo(value);
            assertThat(reading.said().get("v").words()).endsWith("without the marks behind some (" + flag + ")");
        }

        @ParameterizedTest
        @CsvSource({"14a", "14 b", "12(3)", "12 (abc)", "7 pe", "*", "p", "(p)", "a*", "1*2"})
        void haveNoOtherLettersBehindThem(String written) throws IOException {
            assertThat(column(Shaping.NONE, written, written)
                            .table()
                            .column("v")
                            .type())
                    .isEqualTo(ColumnType.TEXT);
        }

        @ParameterizedTest
        @CsvSource({"A12", "12 Main St", "5 boxes", "No. 7", "B-52", "(555) 123-4567", "$", "%", "v2.0"})
        void areNotSeenInWhatIsNone(String written) throws IOException {
            assertThat(column(Shaping.NONE, written, written)
                            .table()
                            .column("v")
                            .type())
                    .isEqualTo(ColumnType.TEXT);
        }
    }

    @Nested
    @DisplayName("are not dropped by a guess")
    class NotDropped {

        @Test
        void nearlyAllNoIsNoColumnOfYesAndNo() throws IOException {
            String[] cells = new String[100];
            Arrays.fill(cells, "no");
            cells[7] = "perhaps";
            Reading reading = column(Shaping.NONE, cells);
            assertThat(reading.table().column("v").type()).isEqualTo(ColumnType.TEXT);
            assertThat(reading.table().column("v").text(7)).isEqualTo("perhaps");
        }

        @Test
        void aTownCalledSomaIsNoTotal() throws IOException {
            assertThat(read(Shaping.NONE, "town\tn\tm", "Soma\t1\t", "Suma\t2\t", "Izmir\t3\t4")
                            .table()
                            .rows())
                    .isEqualTo(3);
            assertThat(read(Shaping.NONE, "town\tn\tm", "Izmir\t3\t4", "Total\t3\t")
                            .table()
                            .rows())
                    .isEqualTo(1);
        }
    }
}
