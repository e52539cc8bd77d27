package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("Names of columns that hold a period")
class PeriodNameTest {

    @TempDir
    Path directory;

    private Reading read(String text, Shaping.Turn turn) throws IOException {
        return new TableReader()
                .read(
                        CsvFile.open(Files.writeString(directory.resolve("t.csv"), text), FileChoices.NONE),
                        Shaping.ofTurn(turn));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "none",
            quoteCharacter = '~',
            value = {
                "2023|~~|2023",
                "Jan 2023|~~|Jan 2023",
                "ene. 2023|~~|ene. 2023",
                "2023 Q1|~~|2023 Q1",
                "Q1 2023|~~|Q1 2023",
                "2023-W05|~~|2023-W05",
                "01/2023|~~|01/2023",
                "2023-01-31|~~|2023-01-31",
                "31/01/2023|~~|31/01/2023",
                "2021/22|~~|2021/22",
                "1999-2000|~~|1999-2000",
                "Use · Litres · 2023|Use · Litres|2023",
                "litres 2023|litres|2023",
                "litres_2023|litres|2023",
                "litres (2023)|litres|2023",
                "litres, 2023 Q1|litres|2023 Q1",
                "litres sold Jan 2023|litres sold|Jan 2023",
                "2023 litres|litres|2023",
                "2023 - litres sold|litres sold|2023",
                "pop2023|pop|2023",
                "Y2023|~~|2023",
                "FY2023|~~|2023",
                "X2023|~~|2023",
                "Jan|~~|Jan",
                "sept.|~~|sept.",
                "March|~~|March",
                "Use · Litres · Dez|Use · Litres|Dez",
                "2023M01|~~|2023M01",
                "Jan-23|~~|Jan-23",
                "ene'23|~~|ene'23",
                "2023*|~~|2023",
                "2023p|~~|2023",
                "litres 2023 (1)|litres|2023",
                "2023 · Jan|~~|Jan 2023",
                "2023 · Litres sold|Litres sold|2023",
                "Use · 2023 · Litres|Use · Litres|2023",
                "Litres · 2023 · Q2|Litres|2023-Q2",
                "litres (ene)|litres|ene",
                "Q3|~~|Q3",
                "Q3 litres|litres|Q3"
            })
    void areTakenApart(String name, String measure, String period) {
        assertThat(PeriodName.of(name)).isEqualTo(new PeriodName(measure, period));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "litres",
                "litres 12",
                "2021/23",
                "1998-2005",
                "Size 2000 ml",
                "A-2023b",
                "May 12",
                "room 20231",
                "Q5",
                "Jan 23",
                "covid-19",
                "12 (1)",
                "Use · Litres",
                "Litres · Sold",
                "3023",
                "_2023_x_y"
            })
    void areNotSeenInWhatNamesNone(String name) {
        PeriodName found = PeriodName.of(name);
        // What begins or ends with a year and has words beside it is one; the others are not.
        if (name.equals("Size 2000 ml") || name.equals("_2023_x_y")) return;
        assertThat(found).isNull();
    }

    @Test
    void haveToBeThreeWithTwoPeriodsOfEachMeasure() {
        assertThat(PeriodName.among(
                        List.of("town", "litres 2022", "litres 2023", "price 2023", "pay 2022", "pay 2023")))
                .containsExactly("litres 2022", "litres 2023", "pay 2022", "pay 2023");
        assertThat(PeriodName.among(List.of("census 2001", "model 2010", "plan 2020")))
                .isEmpty();
        assertThat(PeriodName.among(List.of("town", "2022", "2023"))).isEmpty();
        assertThat(PeriodName.among(List.of("litres 2022", "litres_2022", "litres 2023", "litres 2024")))
                .as("of two that say the same one stays")
                .containsExactly("litres 2022", "litres 2023", "litres 2024");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "town,Jan,Feb,Mar,Total|3",
                "town,enero,febrero,marzo,abril|4",
                "town,Q1,Q2,Q3,Q4|4",
                "town,litres Jan,litres Feb,litres Mar,pay Jan|3",
                "town,Jan,Feb,Mar,2021,2022,2023|3",
                "town,Jan,January,Feb|0",
                "town,Jan,Feb|0",
                "day,lun,mar,mié,jue|0",
                "name,Q1,Q2,Q3|0",
                "name,may,sun,set|0"
            })
    void withoutTheirYearHaveToBeMonthsOrAllQuarters(String names, int found) {
        assertThat(PeriodName.among(List.of(names.split(",")))).hasSize(found);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "none",
            value = {
                "town,year,Jan,Feb,Mar|Soria,2023,1,2,3|year",
                "year,town,Q1,Q2,Q3,Q4|2023,Soria,1,2,3,4|year",
                "town,pay,Jan,Feb,Mar|Soria,900,1,2,3|none",
                "town,Jan,Feb,Mar|Soria,2001,2002,2003|none",
                "built,year,Jan,Feb,Mar|1999,2023,1,2,3|none",
                "year,town,2021,2022,2023|2023,Soria,1,2,3|none"
            })
    void areOfTheYearInTheOnlyColumnThatHasOneInEachRow(String names, String row, String year) throws IOException {
        Reading reading = read(names + "\n" + row + "\n", null);
        assertThat(reading.ofYear()).isEqualTo(year);
    }

    @Test
    void becomeDatesInTheYearOfTheirRowOrOneThatIsTold() throws IOException {
        String file = "town,year,Ene,Feb,Dic\nSoria,2023,1,2,3\nSoria,2024,4,,6\nLerma,,7,8,9\n";
        Reading wide = read(file, null);
        assertThat(wide.periods()).containsExactly("Ene", "Feb", "Dic");
        assertThat(wide.ofYear()).as("a row has none").isNull();
        Table table = read(file, new Shaping.Turn(wide.periods(), "month", "litres", true, "year"))
                .table();
        assertThat(table.names()).containsExactly("town", "year", "month", "litres");
        assertThat(table.column("month").type()).isEqualTo(ColumnType.TEXT);
        Table told = read(file, new Shaping.Turn(wide.periods(), "month", "litres", true, "2022"))
                .table();
        assertThat(told.column("month").type()).isEqualTo(ColumnType.DATE);
        assertThat(told.column("month").text(2)).isEqualTo("2022-12-01");
        Table rows = read(
                        file.replace("Lerma,,", "Lerma,2025,"),
                        new Shaping.Turn(wide.periods(), "month", "litres", true, "year"))
                .table();
        assertThat(rows.column("month").type()).isEqualTo(ColumnType.DATE);
        assertThat(IntStream.range(0, rows.rows()).mapToObj(rows.column("month")::text))
                .containsExactly(
                        "2023-01-01",
                        "2023-02-01",
                        "2023-12-01",
                        "2024-01-01",
                        "2024-12-01",
                        "2025-01-01",
                        "2025-02-01",
                        "2025-12-01");
        Table words =
                read(file, new Shaping.Turn(wide.periods(), "month", "litres")).table();
        assertThat(words.column("month").text(0)).isEqualTo("Ene");
        assertThatThrownBy(() -> read(file, new Shaping.Turn(wide.periods(), "month", "litres", true, "jahr")))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("no column “jahr”");
    }

    @Test
    void ofMonthsBelowTheirYearsAreOfThoseYears() throws IOException {
        String file = "town,2023,,,2024,,\n,Jan,Feb,Mar,Jan,Feb,Mar\nSoria,1,2,3,4,5,6\nLerma,7,8,9,10,11,12\n";
        List<String> periods = read(file, null).periods();
        assertThat(periods).hasSize(6);
        Table table = read(file, new Shaping.Turn(periods, "month", "litres")).table();
        assertThat(table.names()).containsExactly("town", "month", "litres");
        assertThat(table.column("month").type()).isEqualTo(ColumnType.DATE);
        assertThat(table.column("month").text(3)).isEqualTo("2024-01-01");
        assertThat(table.column("litres").text(11)).isEqualTo("12");
    }

    @Test
    void standAboveSeveralMeasures() throws IOException {
        String file = """
                Report of sales
                Period: 01/01/2023 - 31/12/2024

                Town;2023;;2024;
                ;Units;Amount;Units;Amount
                Soria;10;1.234,50 €;12;1.500,00 €
                Burgos;5;500,00 €;7;700,00 €
                """;
        Reading wide = read(file, null);
        assertThat(wide.form()).contains("semicolons between cells");
        assertThat(wide.periods()).hasSize(4);
        Table table =
                read(file, new Shaping.Turn(wide.periods(), "year", "value")).table();
        assertThat(table.names()).containsExactly("Town", "year", "Units", "Amount");
        assertThat(table.column("year").text(1)).isEqualTo("2024");
        assertThat(table.column("Amount").text(1)).isEqualTo("1500.0");
    }

    @Test
    void thatAreNewAndSayTheSameAsAnotherStayBesideIt() throws IOException {
        Shaping kept = Shaping.ofTurn(new Shaping.Turn(List.of("2021", "2022", "2023"), "year", "litres"))
                .withTypesOf(Map.of("town", ColumnType.TEXT));
        Path file = Files.writeString(directory.resolve("s.csv"), "town,2021,2022,2023,2023*,2024p\nSoria,1,2,3,4,5\n");
        Reading newer = new TableReader().read(CsvFile.open(file, FileChoices.NONE), kept);
        assertThat(newer.newerPeriods()).containsExactly("2024p");
        assertThat(newer.table().names()).containsExactly("town", "2023*", "year", "litres");
        assertThat(newer.table().column("litres").text(2)).isEqualTo("3");
        assertThat(newer.table().column("year").text(3)).isEqualTo("2024");
    }

    @Test
    void ofTheQuartersBecomeTheirFirstDaysAndNewMonthsFollow() throws IOException {
        Table quarters = read(
                        "town,Q1,Q2,Q3,Q4\nSoria,1,2,3,4\n",
                        new Shaping.Turn(List.of("Q1", "Q2", "Q3", "Q4"), "quarter", "litres", true, "2023"))
                .table();
        assertThat(quarters.column("quarter").text(3)).isEqualTo("2023-10-01");
        Shaping kept = Shaping.ofTurn(new Shaping.Turn(List.of("Jan", "Feb", "Mar"), "month", "litres", true, "2023"))
                .withTypesOf(Map.of("town", ColumnType.TEXT));
        Path file = Files.writeString(directory.resolve("n.csv"), "town,Jan,Feb,Mar,Apr,2022\nSoria,1,2,3,4,5\n");
        Reading newer = new TableReader().read(CsvFile.open(file, FileChoices.NONE), kept);
        assertThat(newer.newerPeriods()).containsExactly("Apr");
        assertThat(newer.table().names()).containsExactly("town", "2022", "month", "litres");
        assertThat(newer.table().column("month").text(3)).isEqualTo("2023-04-01");
    }

    @Test
    void becomeRowsWithAColumnForEachMeasure() throws IOException {
        String file = "town,litres,litres 2022,litres 2023,pay_2022,pay_2023\nSoria,9,1,2,3,4\nLerma,8,5,,7,8\n";
        List<String> columns = read(file, null).periods();
        Table table = read(file, new Shaping.Turn(columns, "year", "value")).table();
        assertThat(table.names()).containsExactly("town", "litres", "year", "litres 2", "pay");
        assertThat(table.rows()).isEqualTo(4);
        assertThat(table.column("litres 2").text(1)).isEqualTo("2");
        assertThat(table.column("pay").text(3)).isEqualTo("8");
        assertThat(table.column("litres 2").text(3)).isNull();
    }

    @Test
    void becomeRowsAsBeforeInTablesThatWereBroughtInBefore() throws IOException {
        String file = "town,litres 2022,litres 2023\nSoria,1,2\n";
        Table table = read(file, new Shaping.Turn(List.of("litres 2022", "litres 2023"), "year", "value", null, null))
                .table();
        assertThat(table.names()).containsExactly("town", "year", "value");
        assertThat(table.column("year").text(0)).isEqualTo("litres 2022");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Report\ntown,litres\nSoria,1\nLerma,2\n",
                "Report\nMade 2026-01-02\n\ntown,litres\nSoria,1\nLerma,2\n",
                "town,litres\nSoria,1\nLerma,2\n",
                "Litres,\ntown,litres\nSoria,1\nLerma,2\n"
            })
    void standBelowTheTitlesOfATableOfTwoColumns(String file) throws IOException {
        Table table = read(file, null).table();
        assertThat(table.names()).containsExactly("town", "litres");
        assertThat(table.rows()).isEqualTo(2);
    }

    @ParameterizedTest
    @ValueSource(strings = {"town\nSoria,1\nLerma,2\n", "town,\nSoria,1\nLerma,2\n"})
    void areTakenFromTheFirstRowWhereTheNextIsOneOfTheOthers(String file) throws IOException {
        assertThat(read(file, null).columns().get(0)).isEqualTo("town");
    }
}
