package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Tie;
import sarnik.narrow.StateReader;
import sarnik.place.Placing;
import sarnik.query.Condition;
import sarnik.query.Stage;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.map.MapDrawing;

@DisplayName("What narrows a visual")
class NarrowingTest {

    private static final Table SHOPS = csv("code,town", "a,Soria", "b,Zamora", "c,Soria", "d,Burgos");
    private static final Table SALES =
            csv("shop,litres,state", "a,1,final", "a,2,draft", "b,4,final", "c,8,final", "c,16,draft");

    private static LoadedDataset dataset(long id, Table table, Placing placing, List<Stage> rules, Tie... ties) {
        return new LoadedDataset(
                id,
                id == 1 ? "Shops" : "Sales",
                table,
                placing,
                Map.of(),
                About.NONE,
                Map.of(),
                rules,
                List.of(ties),
                Boundaries.NONE);
    }

    private static Datasets of(LoadedDataset... datasets) {
        return id ->
                Datasets.Found.of(Stream.of(datasets).filter(d -> d.id() == id).findFirst());
    }

    /** v1 are bars of shops, v2 bars of sales; v3 counts shops, v4 sums litres; a filter stands on the second page. */
    private static final String PAGE =
            "{'schema': 2, 'title': 'x', 'pages': {'p1': {'title': '', 'order': 1}, 'p2': {'title': '', 'order': 2}}, "
                    + "'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': 'code'}, "
                    + "'f2': {'type': 'choice', 'page': 'p2', 'order': 1, 'dataset': 2, 'column': 'shop'}}, "
                    + "'links': {'k1': {'from': 'v1'}, 'k2': {'from': 'v2'}}, 'visuals': {"
                    + "'v1': {'type': 'bars', 'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 8, 'h': 6}, 'dataset': 1, "
                    + "'category': 'code', 'measure': {'summary': 'COUNT'}}, "
                    + "'v2': {'type': 'bars', 'page': 'p1', 'at': {'x': 8, 'y': 0, 'w': 8, 'h': 6}, 'dataset': 2, "
                    + "'category': 'shop', 'measure': {'summary': 'COUNT'}}, "
                    + "'v3': {'type': 'figure', 'page': 'p1', 'at': {'x': 0, 'y': 6, 'w': 8, 'h': 6}, 'dataset': 1, "
                    + "'measure': {'summary': 'COUNT'}}, "
                    + "'v4': {'type': 'figure', 'page': 'p1', 'at': {'x': 8, 'y': 6, 'w': 8, 'h': 6}, 'dataset': 2, "
                    + "'measure': {'summary': 'SUM', 'column': 'litres'}}}}";

    private static FigureDrawing figure(String id, String state, Datasets datasets) {
        Dashboard dashboard = DashboardDocument.parse(PAGE.replace('\'', '"')).dashboard();
        Drawing drawn = Drawers.of(
                        dashboard,
                        StateReader.read(state, dashboard, datasets, Kinds.ALL).state(),
                        datasets)
                .draw(id);
        assertThat(drawn).isInstanceOf(FigureDrawing.class);
        return (FigureDrawing) drawn;
    }

    @ParameterizedTest
    @CsvSource({
        "p.v1=a, v4, 3",
        "'p.v1=a,b', v4, 7",
        "p.v2=c, v3, 1",
        "'p.v2=a,b', v3, 2",
        "f.f1=c, v4, 24",
        "p.v1=d, v4, –"
    })
    void aPickOnOneSideOfATieNarrowsTheOther(String state, String figure, String expected) {
        LoadedDataset shops = dataset(1, SHOPS, null, List.of());
        LoadedDataset sales = dataset(2, SALES, null, List.of(), new Tie("shop", 1, "code"));
        assertThat(figure(figure, state, of(shops, sales)).full()).isEqualTo(expected);
        LoadedDataset tied = dataset(1, SHOPS, null, List.of(), new Tie("code", 2, "shop"));
        LoadedDataset loose = dataset(2, SALES, null, List.of());
        assertThat(figure(figure, state, of(tied, loose)).full())
                .as("the tie written on the other dataset")
                .isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({"p.v1=a, v4, 3", "p.v2=c, v3, 1"})
    void aPlacingByATieIsOneToo(String state, String figure, String expected) {
        LoadedDataset shops = dataset(1, SHOPS, null, List.of());
        LoadedDataset sales = dataset(2, SALES, new Placing.ByTie("shop", 1, "code"), List.of());
        assertThat(figure(figure, state, of(shops, sales)).full()).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({
        "f.f1=c, v3, code, Shops",
        "f.f1=c, v4, code, Shops",
        "p.v1=a, v3, code, Shops",
        "p.v1=a, v4, code, Shops",
        "p.v2=a, v4, shop, Sales"
    })
    void whatANarrowingColumnHasGoneFromIsNotShownAsIfNothingNarrowedIt(
            String state, String id, String gone, String of) {
        LoadedDataset shops = dataset(1, SHOPS, null, List.of());
        LoadedDataset sales = dataset(2, SALES, null, List.of(), new Tie("state", 1, "town"));
        Dashboard dashboard = DashboardDocument.parse(PAGE.replace("{'from': 'v1'}", "{'from': 'v1', 'across': true}")
                        .replace("'column': 'code'}", "'column': 'code', 'terms': {'across': true}}")
                        .replace('\'', '"'))
                .dashboard();
        ReaderState read =
                StateReader.read(state, dashboard, of(shops, sales), Kinds.ALL).state();
        LoadedDataset left = gone.equals("code") ? dataset(1, SHOPS.only(List.of("town")), null, List.of()) : shops;
        LoadedDataset right =
                gone.equals("shop") ? dataset(2, SALES.only(List.of("litres", "state")), null, List.of()) : sales;
        assertThat(Drawers.of(dashboard, read, of(left, right)).draw(id))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class,
                        misfit -> assertThat(misfit.why())
                                .contains("cannot narrow this any more: the rows of “" + of + "” have no column “"
                                        + gone + "” now."));
        assertThat(Drawers.of(dashboard, ReaderState.NOTHING, of(left, right)).draw(id))
                .as("without it")
                .isInstanceOf(FigureDrawing.class);
    }

    @Test
    void whereNoTieLeadsAPickNarrowsNothing() {
        LoadedDataset shops = dataset(1, SHOPS, null, List.of());
        LoadedDataset sales = dataset(2, SALES, null, List.of());
        FigureDrawing drawn = figure("v4", "p.v1=a", of(shops, sales));
        assertThat(drawn.full()).isEqualTo("31");
        assertThat(drawn.trail().steps()).hasSize(1);
    }

    @Test
    void standingRulesComeFirstAndAlwaysHold() {
        LoadedDataset shops = dataset(1, SHOPS, null, List.of());
        LoadedDataset sales = dataset(
                2,
                SALES,
                null,
                List.of(new Stage("state = 'final'", List.of(new Condition.OneOf("state", List.of("final"))))),
                new Tie("shop", 1, "code"));
        assertThat(figure("v4", "", of(shops, sales)).full()).isEqualTo("13");
        FigureDrawing picked = figure("v4", "p.v1=c", of(shops, sales));
        assertThat(picked.full()).isEqualTo("8");
        assertThat(picked.trail().steps())
                .extracting("words")
                .containsExactly("All rows", "Always only rows where state = 'final'", "Picked: c");
    }

    @Test
    void aFilterOfAnotherPageNarrowsNothingHere() {
        Datasets datasets = of(dataset(1, SHOPS, null, List.of()), dataset(2, SALES, null, List.of()));
        assertThat(figure("v4", "f.f2=a", datasets).full()).isEqualTo("31");
    }

    @Test
    void whatIsNotShownOfBarsIsCounted() {
        LoadedDataset many = new LoadedDataset(
                1,
                "Many",
                csv(Stream.concat(Stream.of("name,n"), IntStream.range(0, 700).mapToObj(i -> "c" + i + "," + i))
                        .toArray(String[]::new)),
                null,
                Map.of());
        Dashboard dashboard = DashboardDocument.parse(
                        PAGE.replace('\'', '"').replace("\"category\": \"code\"", "\"category\": \"name\""))
                .dashboard();
        BarsDrawing drawn =
                (BarsDrawing) Drawers.of(dashboard, ReaderState.NOTHING, id -> Datasets.Found.of(Optional.of(many)))
                        .draw("v1");
        assertThat(drawn.others()).isPositive();
        assertThat(drawn.bars().size() + drawn.others()).isEqualTo(700);
    }

    @Test
    void theTrailOfAMapIsThatOfItsTopLayer() {
        MapFixture.Drawn drawn = MapFixture.draw(
                "\"dataset\": 1, \"rule\": {\"column\": \"product\", \"values\": [\"still\"]}",
                "\"dataset\": 1, \"rule\": {\"column\": \"product\", \"values\": [\"warm\"]}");
        MapDrawing map = drawn.map();
        assertThat(map.layers()).hasSize(2);
        assertThat(map.trail().steps())
                .extracting("words")
                .contains("Always only where product is warm")
                .doesNotContain("Always only where product is still");
    }
}
