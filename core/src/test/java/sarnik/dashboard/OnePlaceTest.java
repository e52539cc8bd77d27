package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.dashboard.MapFixture.ALL;
import static sarnik.dashboard.MapFixture.DATASETS;
import static sarnik.dashboard.MapFixture.ENGINE;
import static sarnik.dashboard.MapFixture.LITRES;
import static sarnik.dashboard.MapFixture.map;

import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.state.ReaderState;
import sarnik.visual.Sight;
import sarnik.visual.map.MapAnswers;
import sarnik.visual.map.MapVisual;
import sarnik.visual.map.PlaceTeller;

@DisplayName("About one place of a map")
class OnePlaceTest {

    private final Dashboard dashboard = map("\"dataset\": 1, \"size\": {" + LITRES
            + ", \"rule\": \"AREA\", \"radius\": 20}, \"tip\": {\"measures\": [{\"summary\": "
            + "\"COUNT\"}], \"columns\": [\"product\"], \"over\": \"day\"}");
    private final MapAnswers drawer = new MapAnswers(
            (MapVisual) dashboard.visuals().get("v1"),
            Drawers.of(dashboard, ReaderState.NOTHING, DATASETS).scene("v1"),
            ENGINE);

    private String id(String name) {
        return ALL.get(1L).places().values().stream()
                .filter(p -> p.name().equals(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    @Test
    void isToldWhatTheLayerShowsAndWhatItTells() {
        PlaceTeller.Told told = drawer.tell("l1", id("Soria"));
        assertThat(told.lines())
                .containsExactly(
                        new PlaceTeller.Line("sum of litres, L", "40"),
                        new PlaceTeller.Line("number of rows", "2"),
                        new PlaceTeller.Line("product", "still, warm"));
        assertThat(told.chart().labels()).containsExactly("2026-01-01", "2026-02-01");
        assertThat(told.chart().values()).containsExactly(10 / 30.0, 1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{place} sold {sum of litres} litres in {number of rows} rows | Soria sold 40 litres in 2 rows",
                "{Sum of litres, L}, {product} | 40, still, warm",
                "{gone} and {} stay | {gone} and {} stay",
                "<b>{place}</b> $1 | <b>Soria</b> $1"
            })
    void isToldInTheAuthorsWords(String template, String text) {
        PlaceTeller.Told told = drawer.tell("l1", id("Soria"));
        assertThat(PlaceTeller.filled(template, told.name(), told.lines())).isEqualTo(text);
        assertThat(told.text()).isNull();
    }

    @Test
    void theRowsInSightAreHandedOutWithTheirPosition() {
        MapAnswers.Rows rows = drawer.rowsWithin("l1", new Sight(8, -6.5, 41, -5, 42.5), true);
        assertThat(rows.table().names()).containsExactly("town", "province", "country", "product", "litres", "day");
        assertThat(IntStream.range(0, rows.table().rows()).mapToObj(rows.table().column("town")::text))
                .containsExactly("Zamora", "Zamora", "Benavente", "Benavente");
        assertThat(rows.position().apply(0)[1]).isCloseTo(41.5, within(0.1));
        assertThat(drawer.rowsWithin("l1", new Sight(8, 10, 10, 11, 11), true)
                        .table()
                        .rows())
                .isZero();
    }

    @Test
    void readersAreHandedOnlyTheColumnsThatTheLayerShowsOrTells() {
        MapAnswers.Rows rows = drawer.rowsWithin("l1", new Sight(8, -6.5, 41, -5, 42.5), false);
        assertThat(rows.table().names()).containsExactly("product", "litres", "day");
        assertThat(rows.table().rows()).isEqualTo(4);
    }

    @Test
    void nearbyPlacesComeNearestFirst() {
        // Benavente lies some 60 km from Zamora, Soria some 270.
        assertThat(drawer.near("l1", id("Zamora"), 100_000))
                .extracting(PlaceTeller.Found::name)
                .containsExactly("Zamora", "Benavente");
        assertThat(drawer.near("l1", id("Zamora"), 1000)).hasSize(1);
    }

    @Test
    void alikeAreThoseWithTheNearestFigures() {
        assertThat(drawer.alike("l1", id("Benavente"), 1))
                .extracting(PlaceTeller.Found::name)
                .containsExactly("Benavente", "Soria");
    }
}
