package sarnik.statistics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("Age bands of a table beside those of a standard")
class AgeBandsTest {

    @ParameterizedTest(name = "{0} begins at {1}")
    @CsvSource({
        "0-4, 0",
        "0–4, 0",
        "'5 to 9', 5",
        "85+, 85",
        "'85 and over', 85",
        "'under 5', 0",
        "'<1', 0",
        "'menos de 5', 0",
        "17, 17",
        "'65 y más', 65",
        "'[20,25)', 20",
        "'Age 30-34', 30",
        "Y_LT5, 0",
        "Y_GE85, 85",
        "Y15-19, 15",
        "'4 and under', 0",
        "'4 y menos', 0",
        "'bis 4', 0",
        "'5 bis unter 10', 5",
        "'6-11 months', 0",
        "'12–23 meses', 1",
        "'65 Jahre und älter', 65"
    })
    void beginWhereTheirWordsSay(String text, int start) {
        assertThat(AgeBands.start(text)).hasValue(start);
    }

    @Test
    void areNoneWhereNoAgeIsSaid() {
        assertThat(AgeBands.start("all")).isEqualTo(OptionalInt.empty());
        assertThat(AgeBands.start("2026")).isEqualTo(OptionalInt.empty());
        assertThat(AgeBands.start(null)).isEqualTo(OptionalInt.empty());
    }

    /**
     * Of 100,000 in Europe's standard 5,000 are under five, 10,500 are 10 to under 20 once halved, 19,500 are 65 or
     * older.
     */
    @Test
    void areCountedInWhatBothHaveInCommon() {
        AgeBands coarse = AgeBands.of(List.of("0-14", "15-64", "65+", "unknown"), StandardPopulation.EUROPE_2013);
        assertThat(coarse.starts()).containsExactly(0, 15, 65);
        assertThat(coarse.of()).containsExactly(0, 1, 2, -1);
        assertThat(coarse.weights()[0]).isEqualTo(1000 + 4000 + 5500 + 5500);
        assertThat(coarse.weights()[2]).isEqualTo(5500 + 5000 + 4000 + 2500 + 1500 + 800 + 200);
        assertThat(coarse.words()).containsExactly("0–14", "15–64", "65+");
        // Single years are put together into the standard's bands.
        List<String> years =
                IntStream.rangeClosed(0, 100).mapToObj(String::valueOf).toList();
        AgeBands single = AgeBands.of(years, StandardPopulation.EUROPE_2013);
        assertThat(single.size())
                .isEqualTo(StandardPopulation.EUROPE_2013.bands().size());
        assertThat(single.of()[17]).isEqualTo(single.of()[15]);
        assertThat(IntStream.range(0, single.size())
                        .mapToDouble(b -> single.weights()[b])
                        .sum())
                .isCloseTo(StandardPopulation.EUROPE_2013.whole(), within(1e-9));
    }

    @Test
    void leaveOutThoseYoungerThanTheFirst() {
        AgeBands adults = AgeBands.of(List.of("15-24", "25-64", "65+"), StandardPopulation.EUROPE_2013);
        assertThat(adults.starts()).containsExactly(15, 25, 65);
        assertThat(adults.weights()[0]).isEqualTo(5500 + 6000);
    }

    @Test
    void saySoWhereTheyDoNotFit() {
        assertThatThrownBy(() -> AgeBands.of(List.of("all"), StandardPopulation.EUROPE_2013))
                .hasMessageContaining("At least two age bands");
        assertThatThrownBy(() -> AgeBands.of(List.of("0-7", "8-12", "13+"), StandardPopulation.EUROPE_2013))
                .hasMessageContaining("no border among them");
        assertThatThrownBy(() -> AgeBands.of(List.of("18-24", "25+"), StandardPopulation.EUROPE_2013))
                .hasMessageContaining("begins at 18 years");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "0-14;15-64;65+;15-19",
                "under 15;15-64;20-24;65+",
                "0-64;65+;75+",
                "0-64;65-74;65+;75+",
                "0–4;5–9;10–14;0–14;15+"
            })
    void saySoWhereTheyOverlap(String bands) {
        assertThatThrownBy(() -> AgeBands.of(List.of(bands.split(";")), StandardPopulation.EUROPE_2013))
                .hasMessageContaining("overlap, so people would be counted twice");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<5;5-14;15-64;65+",
                "under 1;1-4;5-14;15 and over",
                "0-5;5-10;10-15;15+",
                "Y_LT5;Y5-14;Y15-64;Y_GE65",
                "0 bis unter 5;5 bis unter 15;15 bis unter 65;65 und älter",
                "0–4;0-4;5–14;15+;unknown;all ages",
                "0;1;2;3;4;5;6;15"
            })
    void doNotOverlapWhereOneBeginsAsAnotherEnds(String bands) {
        assertThat(AgeBands.of(List.of(bands.split(";")), StandardPopulation.EUROPE_2013)
                        .starts()[0])
                .isZero();
    }
}
