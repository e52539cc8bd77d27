package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static sarnik.table.TestTables.csv;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.geo.Area;
import sarnik.place.Placing;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.Question;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapAnswers;
import sarnik.visual.map.MapDrawing;
import sarnik.visual.map.MapVisual;

@DisplayName("The shapes that rows brought along")
class OwnShapesTest {

    private static final Placing.ByCoordinates BY = new Placing.ByCoordinates("lat", "lon");

    private static LoadedDataset ways(String... rows) {
        Table table = csv(rows);
        return MapFixture.dataset(7, "Ways", MapFixture.PLACER.byCoordinates(table, BY), BY);
    }

    private static LoadedDataset ways() {
        return ways(
                "name,lat,lon,flow,way",
                "course,40.5,-3,10,\"LINESTRING (-3 40, -3 41)\"",
                "field,41.5,-1.5,20,\"POLYGON ((-2 41, -1 41, -1 42, -2 42, -2 41))\"",
                "again,40.5,-3,5,\"LINESTRING (-3 40, -4 40)\"",
                "nothing,43,-5,1,");
    }

    private static MapDrawing draw(LoadedDataset dataset, String layer) {
        Dashboard dashboard = MapFixture.map(layer);
        Datasets datasets = id -> Datasets.Found.of(Optional.of(dataset));
        return (MapDrawing)
                new PageDrawer(dashboard, ReaderState.NOTHING, new Sources(datasets), Drawers.ANSWERER, Map.of())
                        .draw("v1");
    }

    @Test
    void areDrawnAsTheyAreByTheFiguresOfTheirPlace() {
        MapDrawing map = draw(
                ways(),
                "\"kind\": \"SHAPES\", \"dataset\": 7, \"colour\": {\"measure\": {\"summary\": \"SUM\", "
                        + "\"column\": \"flow\"}, \"breaks\": [16]}");
        LayerDrawn.OfAreas shapes = (LayerDrawn.OfAreas) map.layers().get(0);
        assertThat(shapes.set()).isNull();
        assertThat(shapes.own()).isNotEmpty();
        assertThat(IntStream.range(0, 3).mapToObj(i -> shapes.values()[i] + " " + shapes.classes()[i]))
                .containsExactlyInAnyOrder("15.0 0", "20.0 1", "1.0 0");
        assertThat(map.summary()).contains("3 shapes");
    }

    @Test
    void ofOnePlaceAreThatPlacesTogether() {
        List<Area> areas = ways().ownShapes().orElseThrow().set().areas();
        assertThat(areas).hasSize(2);
        assertThat(areas.stream().map(a -> a.shape().getNumGeometries())).containsExactlyInAnyOrder(1, 2);
    }

    @Test
    void overTheMeridianOf180DegreesAreInTwoPartsAndNoWiderThanTheyAre() {
        Area area = ways(
                        "name,lat,lon,way",
                        "bay,-16.5,179.5,\"POLYGON ((177 -17, -179 -17, -179 -16, 178 -15.5, 177 -16, 177 -17))\"")
                .ownShapes()
                .orElseThrow()
                .set()
                .areas()
                .get(0);
        assertThat(area.shape().getNumGeometries()).isEqualTo(2);
        assertThat(area.squareKilometres()).isLessThan(70_000);
    }

    @Test
    void changeTheirTagWithTheirContent() {
        String tag = ways().ownShapes().orElseThrow().tag();
        assertThat(ways().ownShapes().orElseThrow().tag()).isEqualTo(tag);
        assertThat(ways("name,lat,lon,way", "course,40.5,-3,\"LINESTRING (-3 40, -3 42)\"")
                        .ownShapes()
                        .orElseThrow()
                        .tag())
                .isNotEqualTo(tag);
    }

    @Test
    void haveASizeWhereTheyAreAreas() {
        // A degree square at 41.5° north, on a sphere of 6,371 km: 111.19² · cos 41.5°.
        LoadedDataset ways = ways(
                "lat,lon,flow,way",
                "40.5,-3,10,\"LINESTRING (-3 40, -3 41)\"",
                "41.5,-1.5,200000,\"POLYGON ((-2 41, -1 41, -1 42, -2 42, -2 41))\"");
        MapDrawing map = draw(
                ways,
                "\"kind\": \"SHAPES\", \"dataset\": 7, \"colour\": {\"measure\": {\"summary\": \"SUM\", "
                        + "\"column\": \"flow\"}, \"per\": \"km2\"}");
        LayerDrawn.OfAreas shapes = (LayerDrawn.OfAreas) map.layers().get(0);
        assertThat(java.util.Arrays.stream(shapes.values())
                        .filter(Double::isFinite)
                        .boxed()
                        .toList())
                .singleElement()
                .satisfies(density -> assertThat(density).isCloseTo(200_000 / (111.19 * 111.19 * 0.749), within(0.05)));
    }

    @Test
    void areNoWordsToGroupBy() {
        assertThat(ways().columnNames()).contains("name").doesNotContain("way");
    }

    @Test
    void areOfferedOnlyWhereThereAreSome() {
        LoadedDataset none = ways("name,lat,lon,note", "course,40.5,-3,\"LINESTRING of old\"");
        assertThat(none.ownShapes()).isEmpty();
        LayerDrawn drawn =
                draw(none, "\"kind\": \"SHAPES\", \"dataset\": 7").layers().get(0);
        assertThat(drawn.head().notes()).singleElement().asString().contains("brought no shapes along");
        Proposals proposals = new Proposals(MapFixture.map(), "p1", () -> "x");
        assertThat(proposals.answer(Question.WHERE, ways()))
                .anyMatch(p -> p.words().contains("shapes of Ways"));
        assertThat(proposals.answer(Question.WHERE, none))
                .noneMatch(p -> p.words().contains("shapes of"));
    }

    @Test
    void areGivenOnlyOfALayerThatShowsThem() {
        Dashboard dashboard = MapFixture.map("\"kind\": \"SYMBOLS\", \"dataset\": 7");
        PageDrawer drawer = new PageDrawer(
                dashboard,
                ReaderState.NOTHING,
                new Sources(id -> Datasets.Found.of(Optional.of(ways()))),
                Drawers.ANSWERER,
                Map.of());
        assertThatThrownBy(() -> new MapAnswers(
                                (MapVisual) dashboard.visuals().get("v1"), drawer.scene("v1"), MapFixture.ENGINE)
                        .ownShapes("l1"))
                .isInstanceOf(MisfitException.class);
    }
}
