package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.MapFixture.ENGINE;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.TieGraph;
import sarnik.narrow.StateReader;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.figure.FigureDrawing;

@DisplayName("Datasets of towns and of the provinces that hold them")
class TiesOfPlacesTest {

    private static final LoadedDataset SALES = MapFixture.sales();

    private static final LoadedDataset CASES = cases();

    private static LoadedDataset cases() {
        Placing.ByArea by = new Placing.ByArea("province", MapFixture.PROVINCES);
        PlacedTable placed = MapFixture.PLACER.byArea(
                csv("province,cases", "Soria,1", "Soria,2", "Zamora,4", "Burgos,8"), "province", MapFixture.SET.set());
        return MapFixture.dataset(5, "Cases", placed, by);
    }

    private static final Map<Long, LoadedDataset> ALL = Map.of(1L, SALES, 5L, CASES);
    private static final Datasets DATASETS = id -> Datasets.Found.of(Optional.ofNullable(ALL.get(id)));

    /** Bars of towns (v1) and of provinces (v2), and figures of both datasets (v3, v4). */
    private static final Dashboard DASHBOARD =
            DashboardDocument.parse("""
            {'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}},
             'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': 'product', 'title': '', 'terms': {'across': true}},
                         'f2': {'type': 'numbers', 'page': 'p1', 'order': 2, 'dataset': 5, 'column': 'cases', 'title': '', 'terms': {'across': true}}},
             'links': {'k1': {'from': 'v1'}, 'k2': {'from': 'v2'}},
             'visuals': {
               'v1': {'type': 'bars', 'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 6, 'h': 4}, 'title': '', 'dataset': 1, 'category': '@place', 'measure': {'summary': 'COUNT'}},
               'v2': {'type': 'bars', 'page': 'p1', 'at': {'x': 6, 'y': 0, 'w': 6, 'h': 4}, 'title': '', 'dataset': 5, 'category': '@place', 'measure': {'summary': 'COUNT'}},
               'v3': {'type': 'figure', 'page': 'p1', 'at': {'x': 12, 'y': 0, 'w': 6, 'h': 4}, 'title': '', 'dataset': 1, 'measure': {'summary': 'SUM', 'column': 'litres'}},
               'v4': {'type': 'figure', 'page': 'p1', 'at': {'x': 18, 'y': 0, 'w': 6, 'h': 4}, 'title': '', 'dataset': 5, 'measure': {'summary': 'SUM', 'column': 'cases'}}}}
            """.replace('\'', '"')).dashboard();

    private static String place(LoadedDataset dataset, int row) {
        return dataset.table().column(PlacedTable.PLACE).text(row);
    }

    private static FigureDrawing draw(String state, String visual) {
        return (FigureDrawing) new PageDrawer(
                        DASHBOARD,
                        StateReader.read(state, DASHBOARD, DATASETS, Kinds.ALL).state(),
                        new Sources(DATASETS, name -> Optional.empty(), LocalDate.EPOCH),
                        new Answerer(ENGINE),
                        Map.of())
                .draw(visual);
    }

    @ParameterizedTest
    @CsvSource({
        "0, 3, a town picked: its province",
        "4, 4, another town of a province",
    })
    void followAPickedTownByItsProvince(int row, String cases, String as) {
        assertThat(draw("p.v1=" + place(SALES, row), "v4").text()).as(as).isEqualTo(cases);
        assertThat(draw("p.v1=!" + place(SALES, 0), "v4").text())
                .as("all towns but Soria: the province that holds them")
                .isEqualTo("4");
        assertThat(draw("p.v1=!" + place(SALES, 4), "v4").text())
                .as("all but one of two towns: their province still")
                .isEqualTo("7");
    }

    @Test
    void followAPickedProvinceByItsTowns() {
        assertThat(draw("p.v2=" + place(CASES, 2).replace("/", "%2F"), "v3").text())
                .isEqualTo("180");
        assertThat(draw("p.v2=" + place(CASES, 0).replace("/", "%2F"), "v3").text())
                .isEqualTo("40");
    }

    @Test
    void followFiltersAcrossByTheAreaThatHoldsThem() {
        assertThat(draw("f.f1=warm", "v4").text())
                .as("warm is sold in Soria and Benavente")
                .isEqualTo("7");
        assertThat(draw("f.f2=2..4", "v3").text())
                .as("both provinces have such weeks")
                .isEqualTo("220");
        assertThat(draw("f.f2=3..9", "v3").text()).isEqualTo("180");
        assertThat(draw("f.f2=3..9", "v3").trail().steps().get(1).words())
                .contains("by way of the same area of Provinces of Spain in Cases");
    }

    @Test
    void areTiedByTheAreaWithTheShareThatFindsAPartner() {
        TieGraph graph = new TieGraph(List.of(1L, 5L), DATASETS);
        TieGraph.Hop hop = graph.way(1, 5).orElseThrow().get(0);
        assertThat(hop.words()).isEqualTo("the same area of Provinces of Spain");
        assertThat(graph.partners(hop)).as("nothing is sold in Burgos").isEqualTo(0.75);
        assertThat(graph.partners(graph.way(5, 1).orElseThrow().get(0))).isEqualTo(1);
    }

    @Test
    void aDatasetThatCannotBeAskedJustNowIsSaid() {
        Datasets refreshing = id -> id == 5
                ? new Datasets.Found.Unfit("“Cases” is being refreshed. Try again in a moment.")
                : DATASETS.find(id);
        for (String state : List.of("f.f2=3..9", "")) {
            Drawing sales = new PageDrawer(
                            DASHBOARD,
                            StateReader.read(state, DASHBOARD, refreshing, Kinds.ALL)
                                    .state(),
                            new Sources(refreshing, name -> Optional.empty(), LocalDate.EPOCH),
                            new Answerer(ENGINE),
                            Map.of())
                    .draw("v3");
            // What nothing narrows is shown; what should be narrowed is not shown as if it were.
            if (state.isEmpty()) assertThat(((FigureDrawing) sales).text()).isEqualTo("220");
            else
                assertThat(((MisfitDrawing) sales).why())
                        .isEqualTo("“cases” narrows this through rows that cannot be asked just now. “Cases” is being "
                                + "refreshed. Try again in a moment.");
        }
    }
}
