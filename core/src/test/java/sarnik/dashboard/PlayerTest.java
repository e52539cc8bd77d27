package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.dashboard.KindsTest.BARS;
import static sarnik.dashboard.KindsTest.DATASETS;
import static sarnik.dashboard.KindsTest.FIGURE;
import static sarnik.dashboard.KindsTest.PLAYER;
import static sarnik.dashboard.KindsTest.document;
import static sarnik.dashboard.KindsTest.draw;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.query.TimeStep;
import sarnik.state.ReaderState;
import sarnik.table.ColumnType;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Playing;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;
import sarnik.visual.player.PlayerDrawing;
import sarnik.visual.scatter.ScatterDrawing;

@DisplayName("A player")
class PlayerTest {

    private static String litres(String state, String player) {
        return draw(FigureDrawing.class, state, player, FIGURE).text();
    }

    @Test
    void hasAllStepsAndSaysWhichTheDataLack() {
        PlayerDrawing drawn = draw(PlayerDrawing.class, "", PLAYER);
        assertThat(drawn.steps()).hasSize(16).startsWith("2025-01", "2025-02").endsWith("2026-04");
        assertThat(drawn.labels().get(15)).isEqualTo("Apr 2026");
        assertThat(drawn.spread().subList(12, 16)).containsExactly(34, 67, -1, 100);
        assertThat(drawn.note()).isEqualTo("The data have nothing of 11 months, first Feb 2025.");
    }

    @ParameterizedTest
    @CsvSource({
        "2026-02, MOMENT, 70",
        "2026-03, MOMENT, –",
        "..2026-02, UP_TO, 105",
        "2026-01..2026-02, WINDOW, 90",
        "'', MOMENT, 265"
    })
    void showsAMomentAWindowOrAllUpToIt(String moment, String mode, String litres) {
        String state = moment.isEmpty() ? "" : "m.v1=" + moment;
        assertThat(litres(state, PLAYER + ", 'mode': '" + mode + "', 'window': 2"))
                .isEqualTo(litres);
    }

    @Test
    void isTheLastStepOfTheTrailAndIsSaid() {
        FigureDrawing figure = draw(FigureDrawing.class, "m.v1=2026-02", PLAYER, FIGURE);
        assertThat(figure.trail().steps().get(figure.trail().steps().size() - 1).words())
                .isEqualTo("Played: Feb 2026");
        Dashboard dashboard = document(PLAYER, FIGURE).dashboard();
        assertThat(new Narrowing(
                                dashboard,
                                StateReader.read("m.v1=2026-02", dashboard, DATASETS, Kinds.ALL)
                                        .state(),
                                DATASETS,
                                Kinds.ALL,
                                LocalDate.EPOCH,
                                new InMemoryEngine())
                        .nowShowing())
                .containsExactly(new Narrowing.Showing("v1", "Feb 2026", "m"));
        assertThat(Narrowing.played(dashboard, Kinds.ALL, "v1")).containsExactly("v2");
        assertThat(Narrowing.played(dashboard, Kinds.ALL, "v2")).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"2026-13", "soon", "2026-02-01", "2026-03..2026-02", "2026-01..2026-02..2026-03", "..", "2026"})
    void whatIsNoMomentIsSaid(String text) {
        Dashboard dashboard = document(PLAYER, FIGURE).dashboard();
        StateReader.Read read = StateReader.read("m.v1=" + text, dashboard, DATASETS, Kinds.ALL);
        assertThat(read.state().text()).isEmpty();
        assertThat(read.misfits()).singleElement().asString().contains("moment that cannot be read");
    }

    @ParameterizedTest
    @ValueSource(strings = {"..2026-02", "2026-02", "2026-01..2026-02"})
    void aMomentRoundTrips(String text) {
        Dashboard dashboard = document(PLAYER, FIGURE).dashboard();
        assertThat(StateReader.read("m.v1=" + text, dashboard, DATASETS, Kinds.ALL)
                        .state()
                        .text())
                .isEqualTo("m.v1=" + text);
    }

    @Test
    void doesNotNarrowItself() {
        assertThat(draw(PlayerDrawing.class, "m.v1=2026-02", PLAYER).spread())
                .isEqualTo(draw(PlayerDrawing.class, "", PLAYER).spread());
    }

    @Test
    void barsFollow() {
        BarsDrawing bars = draw(BarsDrawing.class, "m.v1=2026-02", PLAYER, BARS);
        assertThat(bars.bars()).extracting(BarsDrawing.Bar::label).containsExactly("Zamora", "Soria");
    }

    @Test
    void axesHoldOverAllSteps() {
        // A town has 100 litres in April at most; in February Zamora has 40.
        BarsDrawing held = draw(BarsDrawing.class, "m.v1=2026-02", PLAYER, BARS);
        assertThat(held.bars().get(0).end()).isCloseTo(0.4, within(1e-9));
        BarsDrawing turned = draw(BarsDrawing.class, "m.v1=2026-02&w.page=shown", PLAYER, BARS);
        assertThat(turned.bars().get(0).end()).as("turned to what is shown").isEqualTo(1);
        assertThat(draw(BarsDrawing.class, "", PLAYER, BARS).axis().high())
                .as("at rest")
                .isEqualTo(100);
        // In April there are two towns, each of warm water only; in February Zamora's 40 of still and Soria's 30 of
        // warm.
        BarsDrawing parts = draw(BarsDrawing.class, "m.v1=2026-02", PLAYER, BARS + ", 'series': 'product'");
        assertThat(parts.axis().high()).isEqualTo(100);
        assertThat(parts.bars().get(0).parts()).isNotEmpty();
        ScatterDrawing dots = draw(ScatterDrawing.class, "m.v1=2026-02", PLAYER, KindsTest.SCATTER);
        assertThat(dots.across().high()).isGreaterThanOrEqualTo(100);
        assertThat(dots.dots().keys()).containsExactlyInAnyOrder("Zamora", "Soria");
    }

    @Test
    void hoursAndMinutesEndWithTheirLastSecond() {
        Playing hours = new Playing(List.of(), TimeStep.HOUR, false);
        assertThat(hours.during(hours.read("2026-01-05T08:00").orElseThrow(), "at")
                        .toString())
                .contains("from=2026-01-05T08:00, to=2026-01-05T08:59:59");
        Playing minutes = new Playing(List.of(), TimeStep.MINUTE, false);
        assertThat(minutes.during(minutes.read("2026-01-05T08:15").orElseThrow(), "at")
                        .toString())
                .contains("to=2026-01-05T08:15:59");
        assertThat(litres(
                        "m.v1=2026-01-05T08:00", PLAYER.replace("'day'", "'at'").replace("MONTH", "HOUR")))
                .isEqualTo("10");
    }

    private static Drawing drawn(LoadedDataset dataset, String step) {
        Datasets datasets = id -> Datasets.Found.of(Optional.of(dataset));
        return Drawers.of(document(PLAYER.replace("MONTH", step)).dashboard(), ReaderState.NOTHING, datasets)
                .draw("v1");
    }

    private static LoadedDataset days(String... days) {
        return new LoadedDataset(
                1,
                "Days",
                csv(
                        Map.of("day", ColumnType.DATE),
                        Stream.concat(Stream.of("day"), Arrays.stream(days)).toList()),
                null,
                Map.of());
    }

    @Test
    void overOneMomentSaysThatThereIsNothingToPlay() {
        assertThat(((PlayerDrawing) drawn(days("2026-01-01", "2026-01-02"), "MONTH")).note())
                .isEqualTo("All rows lie in one month, so there is nothing to play.");
    }

    @Test
    void overTooManyMomentsAsksForALongerStep() {
        String[] ends = {"1700-01-01", "2100-12-31"};
        Drawing drawing = drawn(days(ends), "DAY");
        assertThat(((MisfitDrawing) drawing).why()).contains("146,462 steps").contains("longer step");
        assertThat(((PlayerDrawing) drawn(days(ends), "YEAR")).steps())
                .hasSize(401)
                .startsWith("1700")
                .endsWith("2100");
    }

    @Test
    void overTenThousandDaysIsPlayed() {
        String[] days = IntStream.range(0, 10_000)
                .mapToObj(d -> LocalDate.of(1999, 1, 1).plusDays(d).toString())
                .toArray(String[]::new);
        assertThat(((PlayerDrawing) drawn(days(days), "DAY")).steps()).hasSize(10_000);
    }

    @Test
    void classesAndSizesHoldFromStepToStep() {
        // Of the map's places, the largest month decides, whichever month is shown.
        String map = "'type': 'map', 'layers': {'l1': {'kind': 'SYMBOLS', 'order': 1, 'dataset': 2, 'name': '', "
                + "'opacity': 1, "
                + "'size': {'measure': {'summary': 'SUM', 'column': 'litres'}, 'rule': 'AREA', 'radius': 20}, "
                + "'colour': {'measure': {'summary': 'SUM', 'column': 'litres'}, 'method': 'EQUAL_STEPS', "
                + "'classes': 2, 'palette': 'loch'}}}";
        String player = "'type': 'player', 'dataset': 2, 'column': 'day', 'step': 'MONTH'";
        Dashboard dashboard = document(player, map).dashboard();
        List<String> keys = List.of("2026-01", "2026-02", "2026-03").stream()
                .map(moment -> key(dashboard, "m.v1=" + moment))
                .distinct()
                .toList();
        assertThat(keys).hasSize(1);
        assertThat(keys.get(0)).isNotEqualTo(key(dashboard, ""));
    }

    private static String key(Dashboard dashboard, String state) {
        MapDrawing map = (MapDrawing) Drawers.of(
                        dashboard,
                        StateReader.read(state, dashboard, Fixture.DATASETS, Kinds.ALL)
                                .state(),
                        Fixture.DATASETS)
                .draw("v2");
        LayerDrawn layer = map.layers().get(0);
        return map.keys().stream()
                        .map(key -> key.key().colours().stream()
                                .map(c -> c.text())
                                .toList()
                                .toString())
                        .toList()
                + layer.getClass().getSimpleName();
    }
}
