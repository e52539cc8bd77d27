package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.texts;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Rows of totals, subtotals and statistics")
class TotalRowsTest {

    @TempDir
    Path directory;

    private Reading read(String text, Shaping shaping) throws IOException {
        return new TableReader()
                .read(CsvFile.open(Files.writeString(directory.resolve("t.csv"), text), FileChoices.NONE), shaping);
    }

    private static final Shaping.Rows NO_STATISTICS = new Shaping.Rows(null, null, null, null, true, null, null, true);

    private static final String FILE = "town,litres,note\nSoria,3,\nZamora,4,\nTOTAL,7,\n";

    @Test
    void areLeftOutAndReported() throws IOException {
        Reading reading = read(FILE, Shaping.NONE);
        assertThat(texts(reading.table(), "town")).containsExactly("Soria", "Zamora");
        assertThat(reading.troubles().first())
                .singleElement()
                .satisfies(t -> assertThat(t.line()).isEqualTo(4));
        assertThat(reading.sums())
                .isEqualTo(new Reading.Sums(
                        1, List.of("TOTAL"), 0, false, List.of(), 0, false, List.of(), 0, false, List.of()));
    }

    @Test
    void areKeptWhereThePersonSaysSo() throws IOException {
        assertThat(read(FILE, new Shaping(null, null, null, null, true, null, null))
                        .table()
                        .rows())
                .isEqualTo(3);
    }

    @ParameterizedTest
    @CsvSource({
        "Total Soria",
        "Subtotal: Soria",
        "Soria Total",
        "Soria - subtotal",
        "Summe Soria",
        "Zwischensumme Soria",
        "Sous-total Soria"
    })
    void ofSomeOfTheRowsAreKeptAndSaidUntilSomebodyDecides(String says) throws IOException {
        String file = "town,note,litres\nSoria,a,3\nSoria,b,4\n" + says + ",,7\nZamora,c,4\n";
        Reading kept = read(file, Shaping.NONE);
        assertThat(kept.table().rows()).isEqualTo(4);
        assertThat(kept.sums())
                .isEqualTo(new Reading.Sums(
                        0, List.of(), 1, false, List.of(says), 0, false, List.of(), 0, false, List.of()));
        Reading without =
                read(file, new Shaping(null, null, null, null, false, null, null, null, true, false, null, null, null));
        assertThat(texts(without.table(), "town")).containsExactly("Soria", "Soria", "Zamora");
        assertThat(without.sums())
                .isEqualTo(new Reading.Sums(
                        0, List.of(), 1, true, List.of(says), 0, false, List.of(), 0, false, List.of()));
    }

    @ParameterizedTest
    @CsvSource({"Totalán", "Totana", "Gesamtschule Kassel", "Somalia", "Subtotalis", "Maxwell", "Meanjin"})
    void areNotSeenInNamesThatOnlyBeginLikeThem(String name) throws IOException {
        assertThat(read("town,note,litres\nSoria,a,3\n" + name + ",,7\n", Shaping.NONE)
                        .sums()
                        .likely())
                .isZero();
    }

    @ParameterizedTest
    @CsvSource({"Average", "MAX", "Std. dev.:", "' Promedio'", "média", "Durchschnitt", "Écart-type", "Sum"})
    void whatIsWorkedOutFromThemInAnotherWayIsKeptAndSaidUntilSomebodyDecides(String says) throws IOException {
        String file = "town,litres,price\nSoria,3,2.5\nLerma,4,\nZamora,5,1.5\n" + says + ",4,n/a\n";
        Reading kept = read(file, Shaping.NONE);
        assertThat(kept.table().rows()).isEqualTo(4);
        assertThat(kept.sums())
                .isEqualTo(new Reading.Sums(
                        0, List.of(), 0, false, List.of(), 0, false, List.of(), 1, false, List.of(says.strip())));
        Reading without = read(file, Shaping.NONE.withRows(NO_STATISTICS));
        assertThat(texts(without.table(), "town")).containsExactly("Soria", "Lerma", "Zamora");
        assertThat(without.sums().summingUp()).isEqualTo(1);
    }

    @Test
    void areLeftOutOfPeriodsThatBecomeRowsToo() throws IOException {
        String file = "town,Jan-24,Feb-24,Mar-24\nSoria,3,4,5\nLerma,5,6,7\nMean,4,5,6\n";
        Shaping.Turn turn = new Shaping.Turn(List.of("Jan-24", "Feb-24", "Mar-24"), "month", "litres");
        assertThat(read(file, Shaping.ofTurn(turn)).sums().summingUp()).isEqualTo(3);
        Reading without = read(file, Shaping.ofTurn(turn).withRows(NO_STATISTICS));
        assertThat(texts(without.table(), "town")).doesNotContain("Mean").hasSize(6);
    }

    @Test
    void leftOutSubtotalsTakeNoRowWithThemThatIsNamedLikeAStatistic() throws IOException {
        String file = "name,note,litres\nMax,,3\nAna,a,4\nTotal Ana,,4\nMax,,5\nLea,b,2\n";
        Reading without =
                read(file, new Shaping(null, null, null, null, false, null, null, null, true, false, null, null, null));
        assertThat(texts(without.table(), "name")).containsExactly("Max", "Ana", "Max", "Lea");
    }

    @Test
    void areSeenBelowGroups() throws IOException {
        String file = "region,town,litres\nNorth,Soria,3\nNorth,Lerma,4\n,Mean,3.5\nSouth,Jerez,5\nSouth,Ronda,6\n";
        assertThat(read(file, Shaping.NONE).sums().statistics()).containsExactly("Mean");
    }

    @Test
    void areNoneWhereWordsStandBesideOrTheTableIsOneOfStatistics() throws IOException {
        for (String file : List.of(
                "shop,town,litres\nOpen,Soria,3\nMax,Lerma,4\nOpen,Soria,5\n",
                "shop,day,litres\nOpen,2024-01-01,3\nMax,2024-01-02,4\nOpen,2024-01-03,5\n",
                "name,litres\nSoria,3\nMax,\nLerma,4\n",
                "name,litres,price\nAna,3,1\nMax,5,2\nMax,4,1\nLea,4,2\n",
                "of,litres,price\nMean,3,1\nMin,1,0.5\nMax,9,4\nTowns,12,12\n"))
            assertThat(read(file, Shaping.NONE).sums().summingUp()).as(file).isZero();
    }

    @ParameterizedTest
    @CsvSource({"Total", "Gesamtergebnis", "Total général", "Summe", "Sous-total", "Total general"})
    void asSpreadsheetsOfSeveralLanguagesWriteThem(String says) throws IOException {
        assertThat(texts(
                        read("town,litres,note\nSoria,3,a\n" + says + ",3,\n", Shaping.NONE)
                                .table(),
                        "town"))
                .containsExactly("Soria");
    }

    private static final String BY_SEX = """
            town,sex,year,people
            Soria,women,2024,19
            Soria,men,2024,20
            Soria,Total,2024,39
            Zamora,women,2024,30
            Zamora,men,2024,28
            Zamora, total ,2024,58
            """;

    @Test
    void ofACategoryAreKeptAndSaidUntilSomebodyDecides() throws IOException {
        Reading kept = read(BY_SEX, Shaping.NONE);
        assertThat(kept.table().rows()).isEqualTo(6);
        assertThat(kept.sums().within()).isEqualTo(2);
        assertThat(kept.sums().withoutWithin()).isFalse();
        assertThat(kept.sums().categories())
                .containsExactly(new Reading.OfACategory("Total", "sex"), new Reading.OfACategory("total", "sex"));
        Reading without = read(
                BY_SEX, new Shaping(null, null, null, null, false, null, null, null, false, true, null, null, null));
        assertThat(texts(without.table(), "sex")).containsExactly("women", "men", "women", "men");
        assertThat(without.sums().within()).isEqualTo(2);
        assertThat(without.sums().withoutWithin()).isTrue();
        assertThat(without.troubles().total()).as("each is listed").isEqualTo(2);
    }

    @Test
    void ofAllAreSaidWhereAllTheirCellsAreFilled() throws IOException {
        Reading reading = read("town,litres\nSoria,3\nZamora,4\nTotal:,7\n", Shaping.NONE);
        assertThat(reading.table().rows()).isEqualTo(3);
        assertThat(reading.sums().categories()).containsExactly(new Reading.OfACategory("Total:", "town"));
    }

    @ParameterizedTest
    @CsvSource({"Totana", "Total Soria", "All", "Suma", "Soma", "Summer", "Gesamtschule", "Both"})
    void ofACategoryAreNotSeenInOtherWords(String word) throws IOException {
        assertThat(read("town,kind,litres\nSoria,a,3\nZamora," + word + ",4\n", Shaping.NONE)
                        .sums()
                        .within())
                .isZero();
    }

    @Test
    void areNotSeenInAPlaceThatIsCalledTotal() throws IOException {
        assertThat(read("town,litres\nTotal,3\nTotalán,4\n", Shaping.NONE)
                        .table()
                        .rows())
                .as("all its cells are filled")
                .isEqualTo(2);
    }
}
