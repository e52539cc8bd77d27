package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Rule;
import sarnik.narrow.StateReader;
import sarnik.place.Gazetteer;
import sarnik.place.Match;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.TablePlacer;
import sarnik.query.Condition;
import sarnik.query.TimeStep;
import sarnik.table.Table;
import sarnik.visual.Drawing;
import sarnik.visual.Key;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;

/** Devices as places of their own: where each is now, towards where it heads, the worst on top. */
@DisplayName("Devices on a map")
class DevicesOnMapTest {

    private static final Table ROWS = csv(
            "device,name,lat,lon,state,heading,heat,newest",
            "d1,North,42.00000,-3.00000,good,90,5,2026-05-01T10:00:00",
            "d2,South,42.00000,-3.00000,bad,,50,2026-05-01T11:50:00",
            "d3,West,42.00001,-3.00001,good,180,6,2026-05-01T11:59:00",
            "d4,,,,silent,,7,2026-05-01T12:00:00");

    private static final LoadedDataset DEVICES = placed(ROWS);

    private static LoadedDataset placed(Table rows) {
        Placing.ByThing recipe = new Placing.ByThing("device", "name", "lat", "lon");
        PlacedTable placed = new TablePlacer(Gazetteer.shipped()).by(rows, recipe);
        return new LoadedDataset(1, "Devices", placed.table(), recipe, placed.places());
    }

    private static final Datasets DATASETS = id -> Datasets.Found.of(id == 1 ? Optional.of(DEVICES) : Optional.empty());

    private static Drawing draw(String symbol, String more, String state, String visual) {
        Dashboard dashboard = DashboardDocument.parse(
                        ("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}, 'p2': {'title': "
                                        + "'One', 'order': 2, 'hidden': true}}, 'filters': {}, "
                                        + "'links': {'k1': {'from': 'v1', 'effect': 'BESIDE', 'part': 'p2'}, 'k2': "
                                        + "{'from': 'v2', 'effect': 'BESIDE', 'part': 'p2', 'across': "
                                        + "true}}, 'visuals': {"
                                        + "'v1': {'type': 'map', 'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 6, 'h': "
                                        + "4}, 'title': 'Map', 'layers': {'l1': {'kind': 'SYMBOLS', "
                                        + "'order': 1, 'dataset': 1, 'opacity': 1, "
                                        + "'colour': {'category': 'state', 'order': ['good', 'watch', 'bad', "
                                        + "'silent']}, 'symbol': "
                                        + symbol + more + "}}}, "
                                        + "'v2': {'type': 'bars', 'page': 'p1', 'at': {'x': 6, 'y': 0, 'w': 6, 'h': "
                                        + "4}, 'title': 'Bars', 'dataset': 1, 'category': 'device', "
                                        + "'measure': {'summary': 'COUNT'}}, "
                                        + "'v3': {'type': 'figure', 'page': 'p2', 'at': {'x': 0, 'y': 0, 'w': 6, "
                                        + "'h': 4}, 'title': 'Heat', 'dataset': 1, 'measure': {'summary': "
                                        + "'MAXIMUM', 'column': 'heat'}}}}")
                                .replace('\'', '"'))
                .dashboard();
        return Drawers.of(
                        dashboard,
                        StateReader.read(state, dashboard, DATASETS, Kinds.ALL).state(),
                        DATASETS)
                .draw(visual);
    }

    private static LayerDrawn.OfSymbols symbols(String symbol, String more) {
        return (LayerDrawn.OfSymbols)
                ((MapDrawing) draw(symbol, more, "", "v1")).layers().get(0);
    }

    /** Each is a place by its own name, also where another stands at the same spot, and keeps it wherever it goes. */
    @Test
    void areAPlaceEach() {
        assertThat(DEVICES.table().column(PlacedTable.PLACE).text(0)).isEqualTo("td1");
        assertThat(DEVICES.places()).containsOnlyKeys("td1", "td2", "td3");
        Place place = DEVICES.places().get("td1");
        assertThat(place.name()).isEqualTo("North");
        assertThat(place.province()).as("by the town nearby").isNotBlank();
        LoadedDataset moved = placed(csv("device,name,lat,lon", "d1,North,41.50000,2.00000"));
        assertThat(moved.places().get("td1").lon()).isEqualTo(2);
        PlacedTable odd = new TablePlacer(Gazetteer.shipped())
                .by(
                        csv("device,name,lat,lon", "x,X,95.0,2.0", "y,Y,1.5,", ",Z,1.5,2.5"),
                        new Placing.ByThing("device", null, "lat", "lon"));
        assertThat(odd.finds()).extracting(find -> find.match().state()).containsOnly(Match.State.UNPLACED);
        assertThat(odd.places()).isEmpty();
    }

    @Test
    void pointTowardsTheirHeading() {
        LayerDrawn.OfSymbols drawn = symbols("{'turn': 'heading'}", "");
        List<Double> turns = new ArrayList<>();
        for (double turn : drawn.turns()) turns.add(turn);
        assertThat(turns).containsExactlyInAnyOrder(90.0, 180.0, Double.NaN);
        assertThat(symbols("{'shape': 'CIRCLE'}", "").turns()).isNull();
    }

    /** Of three that crowd together, two good ones and a bad one, the bad one is seen where the author says so. */
    @Test
    void showTheWorstWhereTheyGather() {
        LayerDrawn.OfSymbols commonest = symbols("{'shape': 'CIRCLE'}", ", 'gather': true");
        LayerDrawn.OfSymbols worst = symbols("{'last': true}", ", 'gather': true");
        assertThat(worst.members()).containsExactly(3);
        assertThat(commonest.classes()).containsExactly(0);
        assertThat(worst.classes()).containsExactly(2);
        LayerDrawn.OfSymbols apart = symbols("{'last': true}", "");
        int top = apart.pile()[apart.pile().length - 1];
        assertThat(apart.classes()[top]).as("on top").isEqualTo(2);
    }

    /** A state keeps its sign, however many devices are in each. */
    @Test
    void wearTheSignsOfStatesInTheirOrder() {
        LayerDrawn.OfSymbols drawn = symbols("{'category': 'state'}", "");
        assertThat(drawn.key().shapes())
                .extracting(Key.ShapeSwatch::text)
                .containsExactly("good", "watch", "bad", "silent");
    }

    /** The page that slides in is about what is picked on any of those that lead to it, and asks where nothing is. */
    @ParameterizedTest
    @CsvSource({"p.v1=td2, 50", "p.v2=d2, 50", "p.v2=d3, 6", "p.v1=td1, 5"})
    void havePagesThatSlideIn(String state, String heat) {
        assertThat(((FigureDrawing) draw("null", "", "g.page=p2&" + state, "v3")).text())
                .isEqualTo(heat);
    }

    @Test
    void pagesThatSlideInAskFirst() {
        assertThat(((MisfitDrawing) draw("null", "", "g.page=p2", "v3")).why()).contains("Pick something on");
    }

    /** The last minutes and hours are counted back from the newest row. */
    @ParameterizedTest
    @CsvSource({"15, MINUTE, 2026-05-01T11:45:01", "1, HOUR, 2026-05-01T11:00:01", "24, HOUR, 2026-04-30T12:00:01"})
    void areKeptByTheLastMinutes(int count, TimeStep step, String from) {
        Rule rule = Rule.last("newest", count, step, true);
        assertThat(rule.stages(DEVICES, LocalDate.EPOCH, Map.of()).get(0).conditions())
                .containsExactly(new Condition.Between("newest", from, "2026-05-01T12:00"));
        assertThat(rule.words()).contains("up to the newest");
    }

    @Test
    void haveNoLastMinutesCountedFromADay() {
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> Rule.last("newest", 5, TimeStep.MINUTE, false).stages(DEVICES, LocalDate.EPOCH, Map.of()))
                .isInstanceOf(MisfitException.class)
                .hasMessageContaining("up to the newest");
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> Rule.last("state", 5, TimeStep.MINUTE, true).stages(DEVICES, LocalDate.EPOCH, Map.of()))
                .isInstanceOf(MisfitException.class)
                .hasMessageContaining("no last minutes");
    }
}
