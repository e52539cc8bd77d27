package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.dashboard.Fixture.DASHBOARD;
import static sarnik.dashboard.Fixture.DATASETS;
import static sarnik.dashboard.Fixture.draw;
import static sarnik.dashboard.Fixture.drawEdited;
import static sarnik.dashboard.Fixture.place;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sarnik.data.PlaceSheet;
import sarnik.data.Words;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.Narrowing;
import sarnik.narrow.choice.Choice;
import sarnik.narrow.dates.Dates;
import sarnik.query.RowTrail;
import sarnik.state.ReaderState;
import sarnik.visual.Key;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;

@DisplayName("What a dashboard draws")
class DrawerTest {

    private static LayerDrawn.OfSymbols symbols(MapDrawing map) {
        return (LayerDrawn.OfSymbols) map.layers().get(0);
    }

    private static BarsDrawing bars(String state) {
        return (BarsDrawing) draw(state, "v2");
    }

    private static String figure(String state) {
        return ((FigureDrawing) draw(state, "v3")).full();
    }

    @Nested
    @DisplayName("A map")
    class Maps {

        private final MapDrawing map = (MapDrawing) draw("", "v1");

        @Test
        void hasASymbolForEachPlaceLargestFirst() {
            LayerDrawn.OfSymbols layer = symbols(map);
            PlaceSheet places = Fixture.REFILLS.sheet("@place");
            assertThat(layer.places()).isEqualTo(places.tag());
            assertThat(Arrays.stream(layer.at()).mapToObj(places.names()::get))
                    .containsExactly("Zamora", "Burgos", "Soria");
            assertThat(layer.sizes()).containsExactly(100, 42, 30);
            assertThat(layer.radii()[0]).isEqualTo(20);
            assertThat(layer.radii()[1]).isCloseTo(20 * Math.sqrt(0.42), within(0.01));
            assertThat(places.lat()[layer.at()[2]]).isCloseTo(41.76, within(0.05));
        }

        @Test
        void colourFollowsTheClasses() {
            LayerDrawn.OfSymbols layer = symbols(map);
            // Averages 100, 21, 15 in two natural classes.
            assertThat(layer.classes()).containsExactly(1, 0, 0);
            assertThat(layer.key().colours()).extracting(Key.Swatch::count).containsExactly(2, 1);
            assertThat(layer.key().colours()).extracting(Key.Swatch::text).containsExactly("15 – 21", "21 – 100");
        }

        @Test
        void rowsWithoutAPlaceAreAStepOfTheTrail() {
            assertThat(map.trail().steps()).extracting(RowTrail.Step::left).containsExactly(6L, 5L, 3L);
            assertThat(map.trail().steps().get(2).words()).isEqualTo("Grouped by place");
        }

        @Test
        void withoutALayerItSaysSo() {
            MapDrawing empty =
                    (MapDrawing) drawEdited("[{\"op\":\"remove\",\"path\":\"/visuals/v1/layers/l1\"}]", "", "v1");
            assertThat(empty.trail().empty()).contains("no layer");
        }
    }

    @Nested
    @DisplayName("Picks")
    class Picks {

        @Test
        void narrowOthersButNotTheVisualItself() {
            String pick = "p.v1=" + place(1);
            assertThat(figure(pick)).isEqualTo("30");
            assertThat(bars(pick).bars()).extracting(BarsDrawing.Bar::label).containsExactly("Soria");
            assertThat(symbols((MapDrawing) draw(pick, "v1")).at()).hasSize(3);
        }

        @Test
        void reachOtherDatasetsThroughThePlace() {
            BarsDrawing status = (BarsDrawing) draw("p.v1=" + place(3), "v4");
            assertThat(status.bars()).extracting(BarsDrawing.Bar::label).containsExactly("closed");
        }

        @Test
        void reachOnlyWhatTheLinkNames() {
            String pick = "p.v2=" + place(2);
            assertThat(figure(pick)).isEqualTo("100");
            assertThat(((BarsDrawing) draw(pick, "v4")).bars())
                    .as("v4 is not in the link")
                    .hasSize(2);
            assertThat(Narrowing.touched(DASHBOARD, Kinds.ALL, "v2")).containsExactlyInAnyOrder("v1", "v3");
            assertThat(Narrowing.touched(DASHBOARD, Kinds.ALL, "f1")).containsExactlyInAnyOrder("v1", "v2", "v3", "v4");
        }

        @Test
        void ofSeveralTownsAddUp() {
            assertThat(figure("p.v1=" + place(1) + "," + place(3))).isEqualTo("72");
        }
    }

    @Test
    void rowsWithoutAPlaceHaveABarOnlyWhereNothingIsRanked() {
        assertThat(bars("").bars()).extracting(BarsDrawing.Bar::label).containsExactly("Zamora", "Burgos");
        assertThat(bars("").trail().steps())
                .extracting(RowTrail.Step::words)
                .contains("Only rows that have a value to group by");
        BarsDrawing all = (BarsDrawing) drawEdited("[{\"op\":\"remove\",\"path\":\"/visuals/v2/rank\"}]", "", "v2");
        assertThat(all.bars())
                .extracting(BarsDrawing.Bar::label)
                .containsExactly("(unplaced)", "Zamora", "Burgos", "Soria");
    }

    @Nested
    @DisplayName("Ranks")
    class Ranks {

        @Test
        void ofWhatIsPickedAreTakenAfterThePicks() {
            assertThat(bars("f.f1=warm").bars())
                    .extracting(BarsDrawing.Bar::label)
                    .containsExactly("Soria", "Burgos");
        }

        @Test
        void heldOnTheWholeArePickedFromAfterwards() {
            String held = "[{\"op\":\"replace\",\"path\":\"/visuals/v2/rank\",\"value\":{\"end\":\"TOP\",\"count\":2,"
                    + "\"held\":true}}]";
            BarsDrawing all = (BarsDrawing) drawEdited(held, "", "v2");
            assertThat(all.bars()).extracting(BarsDrawing.Bar::label).containsExactly("Zamora", "Burgos");
            BarsDrawing picked = (BarsDrawing) drawEdited(held, "p.v1=" + place(1), "v2");
            assertThat(picked.bars())
                    .as("Soria is not among the two best of all")
                    .isEmpty();
            assertThat(picked.trail().steps())
                    .extracting(RowTrail.Step::words)
                    .contains("Only the top 2 of all, before picks");
        }
    }

    @Test
    void filtersPicksAndRulesAreStepsInTheirFixedOrder() {
        String rule = "[{\"op\":\"add\",\"path\":\"/visuals/v3/rule\",\"value\":{\"column\":\"state\","
                + "\"values\":[\"final\"]}}]";
        FigureDrawing figure = (FigureDrawing)
                drawEdited(rule, "p.v1=" + place(1) + "," + place(3) + "&f.f1=still,warm&f.f2=2026-02-01..", "v3");
        assertThat(figure.trail().steps())
                .extracting(RowTrail.Step::words)
                .containsExactly(
                        "All rows",
                        "product is still or warm",
                        "Day from 1 February 2026",
                        "Picked: Burgos and Soria",
                        "Always only where state is final");
        assertThat(figure.trail().steps()).extracting(RowTrail.Step::left).containsExactly(6L, 6L, 3L, 3L, 2L);
        assertThat(figure.full()).isEqualTo("22");
    }

    @Test
    void nothingLeftSaysWhichStepTookTheLast() {
        FigureDrawing figure = (FigureDrawing) draw("f.f2=2020-01-01..2020-02-01", "v3");
        assertThat(figure.text()).isEqualTo("–");
        assertThat(figure.trail().empty())
                .isEqualTo("No row is left after this step: Day from 1 January 2020 to 1 February 2020.");
    }

    @Test
    void barsReachFromZeroEvenBelowIt() {
        BarsDrawing bars = bars("f.f1=warm");
        assertThat(bars.bars().get(0).start()).isZero();
        assertThat(bars.bars().get(0).end()).isEqualTo(1);
        assertThat(bars.bars().get(1).end()).isCloseTo(0.1, within(1e-9));
        assertThat(bars.words()).isEqualTo("sum of litres");
    }

    @Test
    void whatNoLongerFitsIsDrawnAsASentence() {
        assertThat(drawEdited("[{\"op\":\"replace\",\"path\":\"/visuals/v3/dataset\",\"value\":77}]", "", "v3"))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class, m -> assertThat(m.why()).contains("dataset of this visual has gone"));
        assertThat(drawEdited(
                        "[{\"op\":\"replace\",\"path\":\"/visuals/v3/measure\",\"value\":{\"summary\":\"SUM\","
                                + "\"column\":\"weight\"}}]",
                        "",
                        "v3"))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class,
                        m -> assertThat(m.why()).contains("no column “weight”").contains("brief"));
        assertThat(draw("", "v99")).isInstanceOf(MisfitDrawing.class);
    }

    @Test
    void nowShowingNamesEveryChoice() {
        ReaderState state = Fixture.state("f.f1=still&p.v1=" + place(1));
        assertThat(new Narrowing(DASHBOARD, state, DATASETS, Kinds.ALL, LocalDate.EPOCH, Fixture.ENGINE).nowShowing())
                .containsExactly(
                        new Narrowing.Showing("f1", "product is still", "f"),
                        new Narrowing.Showing("v1", "Picked: Soria", "p"));
        assertThat(Words.list(List.of("a", "b", "c", "d", "e"), "or")).isEqualTo("a, b, c and 2 more");
        assertThat(Words.list(List.of(), "or")).isEqualTo("nothing");
    }

    @Test
    void filtersOfferWhatTheDataHolds() {
        assertThat(FilterOffer.of(DASHBOARD.filters().get("f1"), Fixture.scene(DATASETS), Kinds.ALL)
                        .values())
                .containsExactly("still", "warm");
        FilterOffer days = FilterOffer.of(DASHBOARD.filters().get("f2"), Fixture.scene(DATASETS), Kinds.ALL);
        assertThat(days.from()).isEqualTo("2026-01-01");
        assertThat(days.to()).isEqualTo("2026-03-02");
        assertThat(FilterOffer.of(new Choice("p1", 1, 2, "colour", ""), Fixture.scene(DATASETS), Kinds.ALL)
                        .misfit())
                .contains("has gone");
        assertThat(FilterOffer.of(new Choice("p1", 1, 2, "day", ""), Fixture.scene(DATASETS), Kinds.ALL)
                        .misfit())
                .contains("no longer holds text");
        assertThat(FilterOffer.of(new Dates("p1", 1, 2, "product", ""), Fixture.scene(DATASETS), Kinds.ALL)
                        .misfit())
                .contains("no longer holds dates");
    }
}
