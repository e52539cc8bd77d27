package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static sarnik.table.TestTables.csv;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.Table;

@DisplayName("Placing a table")
class TablePlacerTest {

    private final TablePlacer placer = new TablePlacer(Gazetteer.shipped());
    private final Table kiosks = csv(
            "code,town,province",
            "K1,Soria,Soria",
            "K2,Palencia,Palencia",
            "K3,Soria,Soria",
            "K4,Nowhere at all,Soria",
            "K5,,Soria");

    @Test
    void everyRowGetsThePlaceOfItsWords() {
        PlacedTable placed = placer.byName(kiosks, new Placing.ByName("town", "province", null));
        assertThat(placed.table().column(PlacedTable.PLACE).text(0))
                .isEqualTo(placed.table().column(PlacedTable.PLACE).text(2))
                .isNotNull();
        assertThat(placed.table().column(PlacedTable.PROVINCE).text(1)).isEqualTo("Palencia");
        assertThat(placed.table().column(PlacedTable.COUNTRY).text(1)).isEqualTo("Spain");
        assertThat(placed.table().column(PlacedTable.PLACE).isMissing(3)).isTrue();
    }

    @Test
    void distinctWordsAreFoundOnceWithTheirRows() {
        PlacedTable placed = placer.byName(kiosks, new Placing.ByName("town", "province", null));
        assertThat(placed.finds()).hasSize(4);
        assertThat(placed.finds().get(0).rows()).isEqualTo(2);
        assertThat(placed.finds().get(0).words().line()).isEqualTo("Soria, Soria");
        assertThat(placed.rows(Match.State.PLACED)).isEqualTo(3);
        assertThat(placed.rows(Match.State.UNPLACED)).isEqualTo(2);
        assertThat(placed.places()).hasSize(2);
    }

    @Test
    void aTieFindsTheRowOverThere() {
        PlacedTable placed = placer.byName(kiosks, new Placing.ByName("town", "province", null));
        Table refills = csv("kiosk,litres", "K1,3", "K2,4", "K4,5", "K9,6", ",7");
        PlacedTable tied = placer.byTie(refills, "kiosk", placed, "code");
        assertThat(tied.table().column(PlacedTable.PROVINCE).text(1)).isEqualTo("Palencia");
        assertThat(tied.finds())
                .extracting(f -> f.match().reason())
                .contains(
                        "The tied row “K4” is itself unplaced.",
                        "No row over there has “K9”.",
                        "The value is missing.");
    }

    @Test
    void codesThatWereReadAsNumbersAreWordsHere() {
        Table byNumber = csv("place,n", "42,1", "34,2");
        PlacedTable placed = placer.byName(byNumber, new Placing.ByName(null, "place", null));
        assertThat(placed.table().column(PlacedTable.PROVINCE).text(0)).isEqualTo("Soria");
        assertThat(placed.table().column(PlacedTable.PROVINCE).text(1)).isEqualTo("Palencia");
    }

    @Test
    void aRecipeThatDoesNotFitIsRefused() {
        assertThatThrownBy(() -> placer.byName(kiosks, new Placing.ByName(null, null, null)))
                .hasMessageContaining("No column");
        assertThatThrownBy(() -> placer.byName(kiosks, new Placing.ByName("pueblo", null, null)))
                .hasMessageContaining("“pueblo”");
    }

    @Test
    void theGuessNamesTheColumnsThatHoldPlaces() {
        PlacingGuess guess = new PlacingGuess(Gazetteer.shipped());
        assertThat(guess.guess(csv("name,town,province,country", "a,Soria,Soria,Spain", "b,Braga,Braga,Portugal")))
                .contains(new Placing.ByName("town", "province", "country"));
        assertThat(guess.guess(csv("Localidad;Provincia;x", "Soria;Soria;1", "Béjar;Salamanca;2")))
                .contains(new Placing.ByName("Localidad", "Provincia", null));
        assertThat(guess.guess(csv("provincia,cases", "Soria,1", "Zamora,2")))
                .contains(new Placing.ByName(null, "provincia", null));
        assertThat(guess.guess(csv("a,b", "x1,1", "x2,2")).isEmpty()).isTrue();
    }

    @Test
    void theGazetteerKnowsTheIberianPeninsulaAndTheWorld() {
        Gazetteer gazetteer = Gazetteer.shipped();
        assertThat(gazetteer.townsOf("ES").size()).isGreaterThan(8000);
        assertThat(gazetteer.townsOf("PT").size()).isGreaterThan(500);
        Place soria = gazetteer.area("ES.55.SO").orElseThrow();
        assertThat(soria.name()).isEqualTo("Soria");
        assertThat(gazetteer.find(soria.id())).contains(soria);
        assertThat(gazetteer.area("PT").orElseThrow().level()).isEqualTo(PlaceLevel.COUNTRY);
    }

    @Test
    void distanceIsThatOfTheGreatCircle() {
        Gazetteer gazetteer = Gazetteer.shipped();
        Place madrid = gazetteer.townsOf("ES").get(0);
        Place lisbon = gazetteer.townsOf("PT").get(0);
        // About 502 km between the two capitals.
        assertThat(madrid.metresTo(lisbon)).isCloseTo(502_500, within(4_000.0));
    }

    @Test
    void foldingTakesAwayAccentsMarksAndCaseAndJoinsTheCatalanDoubleL() {
        assertThat(PlaceNames.fold("L'Hospitalet")).isEqualTo("l hospitalet");
        assertThat(PlaceNames.fold("Sant Marçal·la")).isEqualTo("sant marcalla");
        assertThat(PlaceNames.fold("  ÀÉÎÕÜ-ñ·ç ")).isEqualTo("aeiou nc");
        assertThat(PlaceNames.withoutArticle("la rioja")).isEqualTo("rioja");
        assertThat(PlaceNames.withoutArticle("l hospitalet")).isEqualTo("hospitalet");
    }

    @Test
    void originAndDestinationAreGuessedByCodesAndByCoordinatesToo() {
        PlacingGuess guess = new PlacingGuess(Gazetteer.shipped());
        assertThat(guess.guess(csv("from,to,t", "ES,PT,3", "FR,ES,4", "DE,PT,5")))
                .contains(new Placing.FromTo(new Placing.ByCode("from"), new Placing.ByCode("to")));
        Table hours = csv("shop,from,to", "a,9,17", "b,10,18", "c,8,14");
        assertThat(guess.guess(hours)).as("hours are no provinces").isEmpty();
        Table flights = csv(
                "origin_lat,origin_lon,dest,to_lat,to_lon",
                "41.764,-2.469,Lugo,43.012,-7.556",
                "40.417,-3.704,Soria,41.764,-2.469");
        Placing by = guess.guess(flights).orElseThrow();
        assertThat(by)
                .isEqualTo(new Placing.FromTo(
                        new Placing.ByCoordinates("origin_lat", "origin_lon"),
                        new Placing.ByCoordinates("to_lat", "to_lon")));
        PlacedTable placed = new TablePlacer(Gazetteer.shipped()).by(flights, by);
        assertThat(placed.match(0).place().name()).isEqualTo("Lugo");
        assertThat(placed.origin().match(0).place().name()).isEqualTo("Soria");
        assertThat(guess.guess(csv("from_lat,from_lon", "41.764,-2.469")))
                .as("one end is a place")
                .contains(new Placing.ByCoordinates("from_lat", "from_lon"));
    }

    @Test
    @DisplayName("rows from one place to another have two placings, and the worse end counts")
    void fromOnePlaceToAnother() {
        Table table = csv(
                "depot,destination,pieces",
                "\"Soria, Spain\",\"Zamora, Spain\",3",
                "\"Lugo, Spain\",\"Nowhere at all, Spain\",4",
                "\"Burgos, Spain\",\"Teruel, Spain\",5");
        Placing guess = new PlacingGuess(Gazetteer.shipped()).guess(table).orElseThrow();
        assertThat(guess)
                .isEqualTo(new Placing.FromTo(new Placing.ByWords("depot"), new Placing.ByWords("destination")));
        assertThat(guess.words()).isEqualTo("from the words in depot to the words in destination");
        PlacedTable placed = new TablePlacer(Gazetteer.shipped()).by(table, guess);
        assertThat(placed.match(0).place().name()).isEqualTo("Zamora");
        assertThat(placed.origin().match(0).place().name()).isEqualTo("Soria");
        assertThat(placed.places()
                        .get(placed.table().column(PlacedTable.ORIGIN).text(2))
                        .name())
                .isEqualTo("Burgos");
        assertThat(placed.rows(Match.State.UNPLACED)).isEqualTo(1);
        assertThat(placed.allFinds()).hasSize(6);
    }
}
