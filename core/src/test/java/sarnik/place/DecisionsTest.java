package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.Table;

@DisplayName("Decisions and names")
class DecisionsTest {

    private final Gazetteer gazetteer = Gazetteer.shipped();

    @Test
    void whatIsDecidedHoldsOverWhatIsFoundAndTheRestStays() {
        Table table = csv("town,n", "Soria,1", "Nowhere at all,2", "Burgos,3");
        Place zamora = gazetteer.search("Zamora, Spain", 1).get(0);
        Decisions decisions = new Decisions(Map.of(
                new Words("Nowhere at all", null, null),
                Optional.of(zamora),
                new Words("Burgos", null, null),
                Optional.empty()));
        PlacedTable placed =
                new TablePlacer(gazetteer, decisions).byName(table, new Placing.ByName("town", null, null));
        assertThat(placed.match(0).place().name()).isEqualTo("Soria");
        assertThat(placed.match(1).place()).isEqualTo(zamora);
        assertThat(placed.match(1).state()).isEqualTo(Match.State.PLACED);
        assertThat(placed.match(1).confidence()).isEqualTo(1);
        assertThat(placed.match(2).place()).isNull();
        assertThat(placed.match(2).reason()).isEqualTo("Left out by hand.");
    }

    @ParameterizedTest
    @ValueSource(strings = {"g3108681", "rES", "rES.55.SO", "c-2.46883,41.76401", "c10,0"})
    void idsOfPlacesAndPointsAreRead(String id) {
        assertThat(Decisions.place(id, gazetteer)).isPresent();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "g0", "c200,10", "c10,91", "c1;2", "soria", "c1,2,3"})
    void otherIdsAreNot(String id) {
        assertThat(Decisions.place(id, gazetteer)).isEmpty();
    }

    @Test
    void aPointLiesInTheProvinceOfTheTownBesideIt() {
        Place point = Decisions.place("c-2.47,41.765", gazetteer).orElseThrow();
        assertThat(point.name()).isEqualTo("Soria");
        assertThat(point.province()).isEqualTo("ES.55.SO");
        Place sea = Decisions.place("c-30,35", gazetteer).orElseThrow();
        assertThat(sea.name()).isEqualTo("35.000°N 30.000°W");
        assertThat(sea.country()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "sta marta | santa marta",
                "vva de la serena | villanueva de la serena",
                "s joao | san joao",
                "pto real | puerto real"
            })
    void abbreviationsAreWrittenOut(String written, String first) {
        assertThat(PlaceNames.writtenOut(written)).first().isEqualTo(first);
    }

    @Test
    void namesWithoutAbbreviationsHaveNothingToWriteOut() {
        assertThat(PlaceNames.writtenOut("santa marta")).isEmpty();
        assertThat(PlaceNames.writtenOut("s s s s s s")).hasSizeLessThanOrEqualTo(6);
    }

    @Test
    void theWordsOfANameMakeOneBagInAnyOrder() {
        assertThat(PlaceNames.bag("hospitalet de llobregat l")).isEqualTo(PlaceNames.bag("l hospitalet llobregat de"));
        assertThat(PlaceNames.isArticle("A")).isTrue();
        assertThat(PlaceNames.isArticle("Los")).isTrue();
        assertThat(PlaceNames.isArticle("Soria")).isFalse();
    }

    @Test
    void aRecipeIsSaidInWords() {
        assertThat(List.of(
                        new Placing.ByName("town", null, "country"),
                        new Placing.ByCoordinates("lat", "lon"),
                        new Placing.ByCoordinates("where", null),
                        new Placing.ByWords("w"),
                        new Placing.ByCode("c"),
                        new Placing.ByTie("kiosk", 3, "code")))
                .extracting(Placing::words)
                .containsExactly(
                        "town, country",
                        "the coordinates in lat and lon",
                        "the coordinates in where",
                        "the words in w",
                        "the code in c",
                        "a tie of kiosk to code");
    }

    @Test
    void searchingFindsTheLikeliestFirst() {
        assertThat(gazetteer.search("Toledo, Ohio", 3))
                .first()
                .satisfies(p -> assertThat(p.country()).isEqualTo("US"));
        assertThat(gazetteer.search("Castilla y León", 3))
                .extracting(Place::level)
                .contains(PlaceLevel.REGION);
        assertThat(gazetteer.search("Madrid", 2)).hasSizeLessThanOrEqualTo(2);
        assertThat(gazetteer.search("zzzzzzz", 3)).isEmpty();
    }
}
