package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.place.GeneratedTables.Beside;
import sarnik.place.GeneratedTables.Judged;
import sarnik.place.GeneratedTables.Kind;

@DisplayName("Confidence means what it says")
class ConfidenceTest {

    private static List<Judged> heldOut;

    @BeforeAll
    static void tables() {
        heldOut = GeneratedTables.judge(Kind.HELD_OUT, 20261126);
    }

    private static void report(String name, List<Judged> some) {
        System.out.printf(
                "  %-24s %6d names, placed %.3f, of those right %.4f, calibration error %.4f%n",
                name,
                some.size(),
                GeneratedTables.placed(some).count() / (double) some.size(),
                GeneratedTables.right(some),
                GeneratedTables.calibrationError(some));
    }

    @Test
    void onCountriesAndDirtThatItWasNotTunedFor() {
        report("held out", heldOut);
        assertThat(GeneratedTables.calibrationError(heldOut)).isLessThan(0.03);
        assertThat(GeneratedTables.right(heldOut)).isGreaterThan(0.98);
        assertThat(GeneratedTables.placed(heldOut).count()).isGreaterThan(heldOut.size() * 8L / 10);
    }

    @Test
    void inEachCountryAndWhateverStandsBesideTheName() {
        for (Function<Judged, Object> by : List.<Function<Judged, Object>>of(Judged::country, Judged::beside)) {
            heldOut.stream().collect(Collectors.groupingBy(by)).forEach((group, some) -> {
                report(String.valueOf(group), some);
                // A table has 150 names: of few, chance alone makes an error.
                assertThat(GeneratedTables.calibrationError(some))
                        .as("%s", group)
                        .isLessThan(0.03 + 0.7 / Math.sqrt(some.size()));
                assertThat(GeneratedTables.right(some)).as("%s", group).isGreaterThan(0.965);
            });
        }
    }

    @Test
    void byReason() {
        for (String reason : List.of("name fits", "one letter off", "towns have this name", "is known, but")) {
            List<Judged> some = heldOut.stream()
                    .filter(j -> j.match().reason().toLowerCase().contains(reason))
                    .toList();
            report("“" + reason + "”", some);
            assertThat(some).as(reason).hasSizeGreaterThan(100);
            assertThat(GeneratedTables.calibrationError(some)).as(reason).isLessThan(0.06);
        }
    }

    @Test
    void ofTownsThatNoListKnowsFewArePlaced() {
        List<Judged> unlisted =
                heldOut.stream().filter(j -> j.dirt().equals("in no list")).toList();
        report("in no list", unlisted);
        assertThat(unlisted).hasSizeGreaterThan(500);
        assertThat(GeneratedTables.placed(unlisted).count()).isLessThan(unlisted.size() / 5);
    }

    @Test
    void onTheTablesItWasTunedFor() {
        List<Judged> tuned = GeneratedTables.judge(Kind.CALIBRATED, 7);
        report("calibrated on", tuned);
        assertThat(GeneratedTables.calibrationError(tuned)).isLessThan(0.02);
        assertThat(GeneratedTables.placed(tuned)
                        .filter(j -> j.beside() == Beside.PROVINCE)
                        .toList())
                .hasSizeGreaterThan(2000);
    }

    @Test
    void theRestOfTheTableTellsNamesakesApart() {
        List<Words> spanish = words(
                "Toledo", "Cuenca", "Ciudad Real", "Albacete", "Guadalajara", "Talavera de la Reina", "Tomelloso");
        List<Words> american = words("Toledo", "Perrysburg", "Findlay", "Sandusky", "Ann Arbor", "Ypsilanti");
        assertThat(new JointPlacer(new NamePlacer(GeneratedTables.ALL)).place(spanish))
                .extracting(m -> m.place().country())
                .containsOnly("ES");
        Match ohio = new JointPlacer(new NamePlacer(GeneratedTables.ALL))
                .place(american)
                .get(0);
        assertThat(ohio.place().country()).isEqualTo("US");
        assertThat(ohio.reason()).contains("the rest of the table lies near");
    }

    private static List<Words> words(String... towns) {
        return Arrays.stream(towns).map(t -> new Words(t, null, null)).toList();
    }
}
