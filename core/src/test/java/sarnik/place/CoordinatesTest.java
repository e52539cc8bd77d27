package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.table.TestTables.csv;

import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.Table;

@DisplayName("Placing by coordinates, codes and mixed words")
class CoordinatesTest {

    private final Gazetteer gazetteer = Gazetteer.shipped();
    private final TablePlacer placer = new TablePlacer(gazetteer);

    @Nested
    @DisplayName("Degrees")
    class OfDegrees {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "41.76401 | 41.76401", "-2.46883 | -2.46883", "41,764 | 41.764", "+3 | 3",
                            "41° 45′ 50″ N | 41.763889", "41°45'50\"N | 41.763889", "2°28'8\" W | -2.468889",
                    "N 41 45.834 | 41.7639", "41 45 50 | 41.763889", "-2 28 8 | -2.468889", "2.47 O | -2.47",
                            "41d45m50 | 41.763889", "41º | 41", "3 30 E | 3.5"
                })
        void areReadAsPeopleWriteThem(String text, double expected) {
            assertThat(Degrees.read(text)).isCloseTo(expected, within(1e-5));
        }

        @ParameterizedTest
        @ValueSource(strings = {"", "north", "41 75 00", "12.5.6", "N 41 S", "4176401", "41 45 61", "--3"})
        void areNotReadFromAnythingElse(String text) {
            assertThat(Degrees.read(text)).isNaN();
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "41.764, -2.469",
                    "41.764; -2.469",
                    "41.764 -2.469",
                    "(41.764, -2.469)",
                    "41,764; -2,469",
                    "41.764,-2.469",
                    "41.764N 2.469W",
                    "41° 45' 50.4\" N, 2° 28' 8.4\" W"
                })
        void twoMayStandInOneText(String text) {
            double[] pair = Degrees.readPair(text);
            assertThat(pair).isNotNull();
            assertThat(pair[0]).isCloseTo(41.764, within(1e-3));
            assertThat(pair[1]).isCloseTo(-2.469, within(1e-3));
        }

        @Test
        void oneTextWithoutTwoNumbersIsNone() {
            for (String text : List.of("41.764", "Soria", "", "41, Soria"))
                assertThat(Degrees.readPair(text)).as(text).isNull();
        }
    }

    @Nested
    @DisplayName("Tables of coordinates")
    class Tables {

        @Test
        void eachPairIsAPlaceNamedAfterTheTownItLiesIn() {
            PlacedTable placed = placer.byCoordinates(
                    csv("lat,lon", "41.764,-2.469", "41.764,-2.469", "40.4165,-3.7026"),
                    new Placing.ByCoordinates("lat", "lon"));
            assertThat(placed.places()).hasSize(2);
            assertThat(placed.match(0).place().name()).isEqualTo("Soria");
            assertThat(placed.match(0).place().lon()).isEqualTo(-2.469);
            assertThat(placed.table().column(PlacedTable.PROVINCE).text(0)).isEqualTo("Soria");
            assertThat(placed.match(2).state()).isEqualTo(Match.State.PLACED);
        }

        @Test
        void columnsTheWrongWayRoundAreNoticedAndTurned() {
            PlacedTable placed = placer.byCoordinates(
                    csv("lat,lon", "-2.469,41.764", "-3.7026,40.4165", "-5.66,40.97"),
                    new Placing.ByCoordinates("lat", "lon"));
            assertThat(placed.match(0).place().name()).isEqualTo("Soria");
            assertThat(placed.match(0).reason()).contains("the other way round");
            PlacedTable said =
                    placer.byCoordinates(csv("a;b", "2°28'8\"W;41°45'50\"N"), new Placing.ByCoordinates("a", "b"));
            assertThat(said.match(0).place().lat()).isCloseTo(41.764, within(1e-3));
        }

        @Test
        void whatCannotBeRightIsPointedOut() {
            PlacedTable placed = placer.byCoordinates(
                    csv("lat,lon", "0,0", "95,10", "x,1", ",2", "30.0,-40.0", "41.7,-2.4"),
                    new Placing.ByCoordinates("lat", "lon"));
            assertThat(placed.match(0).state()).isEqualTo(Match.State.DOUBTFUL);
            assertThat(placed.match(0).reason()).contains("0, 0 lies in the sea");
            assertThat(placed.match(1).reason()).contains("outside the world");
            assertThat(placed.match(2).reason()).contains("cannot be read as degrees");
            assertThat(placed.match(3).reason()).contains("missing");
            assertThat(placed.rows(Match.State.PLACED)).isEqualTo(2);
        }

        @Test
        void farFromTownsIsNoDoubtAndSaidOnce() {
            PlacedTable ships = placer.byCoordinates(
                    csv("lat,lon", "30.0,-40.0", "12.5,-38.1", "44.2,-35.7", "41.7,-2.4"),
                    new Placing.ByCoordinates("lat", "lon"));
            assertThat(ships.rows(Match.State.PLACED)).isEqualTo(4);
            assertThat(ships.match(0).reason()).contains("No town").contains("100 km");
            assertThat(ships.remarks()).containsExactly("Of 3 rows no town lies within 100 km.");
            assertThat(placer.byCoordinates(csv("lat,lon", "41.7,-2.4"), new Placing.ByCoordinates("lat", "lon"))
                            .remarks())
                    .isEmpty();
        }

        @Test
        void aTableOfTheSeaIsNotTurnedByTheFewOfItsRowsThatWouldLieNearTowns() {
            String[] rows = new String[21];
            for (int i = 0; i < 19; i++) rows[i] = "%d.5,-%d.5".formatted(24 + i % 6, 36 + i % 8);
            // 41.7 N 2.4 W lies near Soria; here it stands the other way round.
            rows[19] = "-2.4,41.7";
            rows[20] = "-3.7,40.4";
            PlacedTable buoys = placer.byCoordinates(
                    csv("lat,lon\n" + String.join("\n", rows)), new Placing.ByCoordinates("lat", "lon"));
            assertThat(buoys.match(0).place().lat()).isEqualTo(24.5);
        }

        @Test
        void rowsInTheSeaAreDoubtfulWhereFewAreAndNotInATableOfTheSea() {
            TablePlacer ashore = new TablePlacer(gazetteer, Decisions.NONE, (lon, lat) -> lon < 3, Watch.NONE);
            String[] rows = new String[60];
            for (int i = 0; i < rows.length; i++) rows[i] = "41.%d,2.1".formatted(20 + i);
            rows[7] = "41.4,3.2";
            assertThat(ashore.byCoordinates(
                                    csv("lat,lon\n" + String.join("\n", rows)), new Placing.ByCoordinates("lat", "lon"))
                            .match(7)
                            .reason())
                    .contains("lies in the sea");
            for (int i = 0; i < 10; i++) rows[i] = "41.%d,3.2".formatted(20 + i);
            PlacedTable boats = ashore.byCoordinates(
                    csv("lat,lon\n" + String.join("\n", rows)), new Placing.ByCoordinates("lat", "lon"));
            assertThat(boats.rows(Match.State.PLACED)).isEqualTo(60);
            assertThat(boats.remarks()).containsExactly("10 rows lie in the sea.");
        }

        @Test
        void aTieReachesCoordinatesToo() {
            PlacedTable probes = placer.byCoordinates(
                    csv("probe,lat,lon", "P1,41.764,-2.469"), new Placing.ByCoordinates("lat", "lon"));
            PlacedTable readings = placer.byTie(csv("id,v", "P1,3", "P1,4"), "id", probes, "probe");
            assertThat(readings.match(1).place()).isEqualTo(probes.match(0).place());
        }

        @Test
        void theyAreGuessedWhereNearlyEveryRowHasThem() {
            PlacingGuess guess = new PlacingGuess(gazetteer);
            assertThat(guess.guess(csv("name,latitude,longitude", "a,41.7,-2.4", "b,40.4,-3.7")))
                    .contains(new Placing.ByCoordinates("latitude", "longitude"));
            assertThat(guess.guess(csv("name;coordinates", "a;41.7, -2.4", "b;40.4, -3.7")))
                    .contains(new Placing.ByCoordinates("coordinates", null));
            assertThat(guess.guess(csv("town,province,latitude,longitude", "Soria,Soria,,", "Zamora,Zamora,41.5,-5.7")))
                    .contains(new Placing.ByName("town", "province", null));
        }

        @Test
        void theNearestTownIsFoundByPosition() {
            assertThat(gazetteer.nearestTown(-2.47, 41.76, 5_000))
                    .map(Place::name)
                    .contains("Soria");
            assertThat(gazetteer.nearestTown(-40, 30, 100_000)).isEmpty();
            assertThat(gazetteer.nearestTown(179.99, -16.8, 400_000))
                    .as("near the edge of the map")
                    .isPresent();
        }
    }

    @Nested
    @DisplayName("Codes")
    class Codes {

        @ParameterizedTest
        @CsvSource({
            "ES, Spain",
            "ESP, Spain",
            "pt, Portugal",
            "ES-SO, Soria",
            "42, Soria",
            "42173, Soria",
            "08019, Barcelona"
        })
        void ofEveryLevelAreKnown(String code, String name) {
            PlacedTable placed = placer.byCode(csv("code,x", code + ",a"), new Placing.ByCode("code"));
            assertThat(placed.match(0).place()).as(placed.match(0).reason()).isNotNull();
            assertThat(placed.match(0).place().name()).isEqualTo(name);
        }

        @Test
        void lostLeadingZerosArePutBackAndSaid() {
            PlacedTable placed =
                    placer.byCode(csv("code,x", "8019,a", "1,b", "99999,c", ",d"), new Placing.ByCode("code"));
            assertThat(placed.match(0).place().name()).isEqualTo("Barcelona");
            assertThat(placed.match(0).reason()).contains("lost leading zero");
            assertThat(placed.match(1).place().province()).isEqualTo("ES.59.VI");
            assertThat(placed.match(2).reason()).contains("“99999”");
            assertThat(placed.match(3).reason()).contains("missing");
        }
    }

    @Nested
    @DisplayName("Mixed words")
    class Mixed {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "Soria, Spain | Soria | | Spain",
                    "Soria (Soria) | Soria | Soria |",
                    "Braga, Braga, Portugal | Braga | Braga | Portugal",
                    "Coruña, A | Coruña, A | |",
                    "Portugal | | | Portugal",
                    "Castilla y León | | Castilla y León |",
                    "Madrid | Madrid | |"
                })
        void areToldApart(String text, String town, String province, String country) {
            assertThat(Words.of(text, gazetteer)).isEqualTo(new Words(town, province, country));
        }

        @Test
        void arePlacedAtTheirLevel() {
            Table table = csv("where;n", "Soria, Spain;1", "Toledo, Ohio;2", "Portugal;3", ";4");
            PlacedTable placed = placer.byWords(table, new Placing.ByWords("where"));
            assertThat(placed.match(0).place().country()).isEqualTo("ES");
            assertThat(placed.match(1).place().country()).isEqualTo("US");
            assertThat(placed.match(2).place().level()).isEqualTo(PlaceLevel.COUNTRY);
            assertThat(placed.match(3).state()).isEqualTo(Match.State.UNPLACED);
        }
    }

    @Nested
    @DisplayName("Slips of the pen")
    class Slips {

        @Test
        void areFoundWithinOneLetterAndSomeTwo() {
            NameTable names = GazetteerPacks.table(List.of("zaragoza", "zamora", "soria", "salamanca", "x"));
            assertThat(names.near("zaragosa")).containsExactly(new NameTable.Near("zaragoza", 1));
            assertThat(names.near("zargaoza")).extracting(NameTable.Near::name).containsExactly("zaragoza");
            assertThat(names.near("slamancca")).containsExactly(new NameTable.Near("salamanca", 2));
            assertThat(names.near("soria")).as("itself is no slip").isEmpty();
            assertThat(names.near("sorya")).containsExactly(new NameTable.Near("soria", 1));
            assertThat(names.near("abc")).isEmpty();
        }

        @ParameterizedTest
        @CsvSource({"kitten, sitting, 3, 3", "abcd, acbd, 2, 1", "soria, soria, 2, 0", "a, abcd, 2, 3", "ca, abc, 3, 3"
        })
        void distanceIsThatOfOptimalStringAlignment(String a, String b, int most, int expected) {
            assertThat(NameTable.distance(a, b, most)).isEqualTo(expected);
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "Zaragzoa | Zaragoza | one letter off",
                    "Sta. Cruz de Tenerife | Santa Cruz de Tenerife | written out as",
                    "Llobregat Hospitalet de | L'Hospitalet de Llobregat | another order"
                })
        void sayHowTheNameFits(String written, String name, String how) {
            Match match = new NamePlacer(gazetteer).place(new Words(written, null, "Spain"));
            assertThat(match.place().name()).isEqualTo(name);
            assertThat(match.reason()).contains(how);
        }
    }
}
