package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("Placing by name")
class NamePlacerTest {

    private final NamePlacer placer = new NamePlacer(Gazetteer.shipped());

    private Match place(String town, String province, String country) {
        return placer.place(new Words(town, province, country));
    }

    @Nested
    @DisplayName("does not mind how a name is written")
    class Spelling {

        @ParameterizedTest(name = "{0} in {1} is {2}")
        @CsvSource({
            "Soria, Soria, Soria",
            "SORIA, soria, Soria",
            "Avila, Avila, Ávila",
            "ávila, Ávila, Ávila",
            "Logrono, La Rioja, Logroño",
            "A Coruña, A Coruña, A Coruña",
            "La Coruña, La Coruña, A Coruña",
            "Coruña, Coruña, A Coruña",
            "'Coruña, A', Coruña, A Coruña",
            "Lerida, Lleida, Lleida",
            "Elx, Alicante, Elche",
            "Donostia, Gipuzkoa, San Sebastián",
            "l'hospitalet de llobregat, barcelona, L'Hospitalet de Llobregat"
        })
        void accentsCaseArticlesAndCoOfficialNames(String town, String province, String expected) {
            Match match = place(town, province, null);
            assertThat(match.state()).as(match.reason()).isEqualTo(Match.State.PLACED);
            assertThat(PlaceNames.fold(match.place().name()))
                    .contains(PlaceNames.fold(expected).substring(0, 4));
            assertThat(match.place().country()).isEqualTo("ES");
        }

        @ParameterizedTest
        @ValueSource(strings = {"Álava", "Araba", "Alava", "ALAVA", "01", "ES-VI"})
        void aProvinceHasManyNames(String province) {
            Match match = place("Vitoria", province, null);
            assertThat(match.state()).as(match.reason()).isEqualTo(Match.State.PLACED);
            assertThat(match.place().country()).isEqualTo("ES");
        }

        @ParameterizedTest
        @ValueSource(strings = {"Spain", "España", "ES", "ESP", "es", "Espagne", "Spanien"})
        void aCountryHasManyNames(String country) {
            assertThat(place("Madrid", null, country).place().country()).isEqualTo("ES");
        }
    }

    @Nested
    @DisplayName("tells namesakes apart")
    class Namesakes {

        @Test
        void byTheirCountry() {
            Match spanish = place("Vitoria", null, "Spain");
            Match brazilian = place("Vitoria", null, "Brazil");
            assertThat(spanish.place().country()).isEqualTo("ES");
            assertThat(brazilian.place().country()).isEqualTo("BR");
        }

        @Test
        void byTheirProvince() {
            Match castile = place("Toledo", "Toledo", null);
            Match ohio = place("Toledo", "Ohio", null);
            assertThat(castile.place().country()).isEqualTo("ES");
            assertThat(ohio.place().country()).isEqualTo("US");
        }

        @Test
        void andIsDoubtfulWhereNothingTellsThemApart() {
            Match match = place("Toledo", null, null);
            assertThat(match.state()).isEqualTo(Match.State.DOUBTFUL);
            assertThat(match.confidence()).isLessThan(0.6);
            assertThat(java.util.stream.Stream.concat(
                            java.util.stream.Stream.of(match.place()), match.runnersUp().stream()))
                    .extracting(Place::country)
                    .contains("US", "ES");
            assertThat(match.reason()).contains("towns have this name");
        }

        @Test
        void andSaysWhichOfTheColumnsBesideDoesNotFit() {
            Match match = place("Soria", "Zamora", "Spain");
            assertThat(match.state()).isEqualTo(Match.State.DOUBTFUL);
            assertThat(match.reason()).contains("“Zamora” has no town of this name");
        }

        @Test
        void aWordThatIsNoCountryIsADoubtToo() {
            assertThat(place("Soria", "Soria", "Atlantis").reason()).contains("“Atlantis” is not a country");
        }
    }

    @Nested
    @DisplayName("works at every level")
    class Levels {

        @Test
        void provinceAlone() {
            Match match = place(null, "Zamora", null);
            assertThat(match.place().level()).isEqualTo(PlaceLevel.PROVINCE);
            assertThat(match.place().country()).isEqualTo("ES");
        }

        @Test
        void provinceWithItsCountry() {
            assertThat(place(null, "Faro", "Portugal").place().country()).isEqualTo("PT");
        }

        @Test
        void countryAlone() {
            Match match = place(null, null, "Portugal");
            assertThat(match.place().level()).isEqualTo(PlaceLevel.COUNTRY);
            assertThat(match.confidence()).isGreaterThan(0.9);
        }
    }

    @Test
    void whatExistsNowhereIsUnplacedAndSaysSo() {
        Match match = place("Villaseca del Espejismo", "Soria", "Spain");
        assertThat(match.state()).isEqualTo(Match.State.UNPLACED);
        assertThat(match.place()).isNull();
        assertThat(match.reason()).contains("Villaseca del Espejismo");
    }

    @Test
    void emptyCellsAreUnplacedWithTheirReason() {
        assertThat(place("", "Soria", null).reason()).isEqualTo("The town is missing.");
        assertThat(place(null, "", null).reason()).isEqualTo("The province is missing.");
        assertThat(place(null, null, null).state()).isEqualTo(Match.State.UNPLACED);
    }
}
