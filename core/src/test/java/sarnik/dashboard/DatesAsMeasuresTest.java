package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.MapFixture.ENGINE;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Previews;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.state.ReaderState;
import sarnik.visual.Drawing;
import sarnik.visual.Key;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;

@DisplayName("A measure that gives a date is a date wherever it is shown")
class DatesAsMeasuresTest {

    private static final String FIRST = "\"measure\": {\"summary\": \"FORMULA\", \"column\": \"first day\"}";

    /** The sales with the earliest day and moment of a group as measures. */
    private static LoadedDataset sales() {
        return MapFixture.sales(
                new Calculations.Item("first day", "MIN(day)", true),
                new Calculations.Item("moment", "MAX(CAST(day AS TIMESTAMP))", true),
                new Calculations.Item("span", "MAX(day) - MIN(day)", true));
    }

    private static Drawing draw(String visual, String layers) {
        Dashboard dashboard =
                DashboardDocument.parse("""
                {"schema": 1, "title": "x", "pages": {"p1": {"title": "", "order": 1}}, "filters": {}, "links": {},
                 "visuals": {"v1": {"type": "map", "page": "p1", "at": {"x": 0, "y": 0, "w": 12, "h": 10}, "title": "", "layers": {%s}},
                   "v2": {"type": "figure", "page": "p1", "at": {"x": 12, "y": 0, "w": 4, "h": 4}, "title": "", "dataset": 1, %s},
                   "v3": {"type": "bars", "page": "p1", "at": {"x": 12, "y": 4, "w": 4, "h": 4}, "title": "", "dataset": 1, "category": "town", %s}}}""".formatted(layers, FIRST, FIRST)).dashboard();
        Datasets datasets = id -> Datasets.Found.of(Optional.of(sales()));
        return Drawers.of(dashboard, ReaderState.NOTHING, datasets).draw(visual);
    }

    @Test
    void onAFigureAndInBarsThatStartBeforeTheFirst() {
        FigureDrawing figure = (FigureDrawing) draw("v2", "");
        assertThat(List.of(figure.text(), figure.full())).containsExactly("2026-01-01", "2026-01-01");
        assertThat(figure.value()).as("a day is no amount").isNull();
        BarsDrawing bars = (BarsDrawing) draw("v3", "");
        assertThat(bars.bars()).extracting(BarsDrawing.Bar::text).containsOnly("2026-01-01");
        assertThat(bars.bars()).allSatisfy(bar -> assertThat(bar.end()).isBetween(0.0, 1.0));
    }

    @Test
    void asColoursOfAMapAndInItsKey() {
        MapDrawing map = (MapDrawing) draw(
                "v1",
                "\"l1\": {\"order\": 1, \"opacity\": 0.8, \"dataset\": 1, \"colour\": {\"measure\": "
                        + "{\"summary\": \"FORMULA\", \"column\": \"moment\"}, \"method\": "
                        + "\"EQUAL_STEPS\", \"classes\": 2, \"palette\": \"loch\"}}");
        Key key = map.layers().get(0).key();
        assertThat(key.read().name()).isEqualTo("TIME");
        assertThat(key.colours())
                .extracting(Key.Swatch::text)
                .first()
                .asString()
                .startsWith("2026-02-01T00:00 – ");
        assertThat(map.summary()).contains("from 2026-02-01T00:00 to 2026-03-01T00:00");
    }

    @Test
    void hasNoSizeAndCannotBeDividedByOne() {
        for (String layer : List.of(
                "\"size\": {" + FIRST + ", \"rule\": \"AREA\", \"radius\": 20}",
                "\"kind\": \"DENSITY\", \"size\": {" + FIRST + ", \"rule\": \"AREA\", \"radius\": 20}",
                "\"colour\": {" + FIRST
                        + ", \"per\": \"km2\", \"method\": \"EQUAL_STEPS\", \"classes\": 2, \"palette\": \"loch\"}")) {
            MapDrawing map =
                    (MapDrawing) draw("v1", "\"l1\": {\"order\": 1, \"opacity\": 0.8, \"dataset\": 1, " + layer + "}");
            assertThat(map.layers().get(0)).isInstanceOf(LayerDrawn.OfNothing.class);
            assertThat(map.layers().get(0).head().notes())
                    .singleElement()
                    .asString()
                    .contains("“first day” is a date");
        }
    }

    @Test
    void inPreviewsAndDaysBetweenAreANumber() {
        List<Previews.Preview> previews = new Previews().of(sales(), ENGINE);
        assertThat(previews)
                .filteredOn(p -> p.measure().equals(new Measure(Summary.FORMULA, "first day")))
                .singleElement()
                .satisfies(p -> assertThat(p.words()).isEqualTo("2026-01-01"));
        assertThat(previews)
                .filteredOn(p -> p.measure().equals(new Measure(Summary.FORMULA, "span")))
                .singleElement()
                .satisfies(p -> assertThat(p.words()).isEqualTo("59"));
    }
}
