package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
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
                "X2023|~~|2023"
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
                "Q1",
                "Use · Litres",
                "2023 · Litres sold",
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
        Table table = read(file, new Shaping.Turn(List.of("litres 2022", "litres 2023"), "year", "value", null))
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
