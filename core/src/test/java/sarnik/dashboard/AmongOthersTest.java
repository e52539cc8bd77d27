package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.StateReader;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.visual.Sight;
import sarnik.visual.details.DetailsDrawing;
import sarnik.visual.map.MapAnswers;
import sarnik.visual.map.MapVisual;
import sarnik.visual.map.PlaceTeller;

/** A share of all of one place is its share among the places, also where that place alone is told about. */
@DisplayName("Measures that rest on the other groups as well")
class AmongOthersTest {

    private static final LoadedDataset SALES = MapFixture.sales(
            new Calculations.Item("share", "SUM(litres) / SUM(SUM(litres)) OVER () * 100", true),
            new Calculations.Item("place by size", "RANK() OVER (ORDER BY SUM(litres) DESC)", true),
            new Calculations.Item("each", "AVG(litres)", true));
    private static final Datasets DATASETS = id -> Datasets.Found.of(Optional.of(SALES));

    private static final Dashboard DASHBOARD = DashboardDocument.parse("""
            {"schema": 2, "title": "x", "pages": {"p1": {"title": "", "order": 1}},
             "filters": {"f1": {"type": "choice", "page": "p1", "order": 1, "dataset": 1, "column": "product"}},
             "links": {"k1": {"from": "v1"}},
             "visuals": {
               "v1": {"type": "map", "page": "p1", "at": {"x": 0, "y": 0, "w": 12, "h": 10}, "title": "", "layers": {"l1":
                 {"order": 1, "opacity": 0.8, "dataset": 1, "size": {"measure": {"summary": "SUM", "column": "litres"}, "rule": "AREA", "radius": 20},
                  "tip": {"measures": [{"summary": "FORMULA", "column": "share"}, {"summary": "FORMULA", "column": "place by size"},
                                       {"summary": "FORMULA", "column": "each"}]}}}},
               "v2": {"type": "details", "page": "p1", "at": {"x": 12, "y": 0, "w": 8, "h": 8}, "title": "", "dataset": 1, "by": "town",
                 "figures": [{"summary": "FORMULA", "column": "each"}, {"summary": "FORMULA", "column": "share"},
                             {"summary": "FORMULA", "column": "place by size"}]}}}
            """).dashboard();

    private static PageDrawer drawer(String state, Map<String, Sight> sights) {
        return new PageDrawer(
                DASHBOARD,
                StateReader.read(state, DASHBOARD, DATASETS, Kinds.ALL).state(),
                new Sources(DATASETS),
                Drawers.ANSWERER,
                sights);
    }

    private static String id(String town) {
        return SALES.places().values().stream()
                .filter(p -> p.name().equals(town))
                .findFirst()
                .orElseThrow()
                .id();
    }

    /** Of 220 litres 160 are Zamora's, 40 Soria's and 20 Benavente's. */
    @ParameterizedTest
    @CsvSource({
        "'', Zamora, 72.73, 1, 80",
        "'', Benavente, 9.09, 3, 10",
        "f.f1=still, Soria, 5.88, 2, 10",
        "f.f1=warm, Zamora, –, –, –"
    })
    void areToldAmongAllPlaces(String state, String town, String share, String rank, String each) {
        MapAnswers answers = new MapAnswers(
                (MapVisual) DASHBOARD.visuals().get("v1"),
                drawer(state, Map.of()).scene("v1"),
                MapFixture.ENGINE);
        assertThat(answers.tell("l1", id(town)).lines())
                .extracting(PlaceTeller.Line::value)
                .endsWith(share, rank, each);
    }

    @ParameterizedTest
    @CsvSource({"'', Soria, 20, 18.18, 2", "'', Benavente, 10, 9.09, 3", "f.f1=still, Soria, 10, 5.88, 2"})
    void standOnASheetOfOneAmongAll(String state, String town, String each, String share, String rank) {
        Sight sight = new Sight(0, 0, 0, 0, 0, 0, null, null, null, town, null);
        DetailsDrawing drawn =
                (DetailsDrawing) drawer(state, Map.of("v2", sight)).draw("v2");
        assertThat(drawn.figures()).extracting(DetailsDrawing.Counted::text).containsExactly(each, share, rank);
    }

    /** What is picked alone is still one of all that could be. */
    @Test
    void standAmongAllWhereOneIsPicked() {
        DetailsDrawing drawn =
                (DetailsDrawing) drawer("p.v1=" + id("Soria"), Map.of()).draw("v2");
        assertThat(drawn.name()).isEqualTo("Soria");
        assertThat(drawn.figures()).extracting(DetailsDrawing.Counted::text).containsExactly("20", "18.18", "2");
    }

    @Test
    void areKnownFromOthers() {
        assertThat(SALES.isAmongGroups(new Measure(Summary.FORMULA, "share"))).isTrue();
        assertThat(SALES.isAmongGroups(new Measure(Summary.FORMULA, "each"))).isFalse();
        assertThat(SALES.isAmongGroups(new Measure(Summary.FORMULA, "gone"))).isFalse();
        assertThat(SALES.isAmongGroups(new Measure(Summary.SUM, "litres"))).isFalse();
    }
}
