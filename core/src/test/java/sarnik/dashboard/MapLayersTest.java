package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.dashboard.MapFixture.DATASETS;
import static sarnik.dashboard.MapFixture.LITRES;
import static sarnik.dashboard.MapFixture.PLACER;
import static sarnik.dashboard.MapFixture.PROVINCES;
import static sarnik.dashboard.MapFixture.dataset;
import static sarnik.dashboard.MapFixture.draw;
import static sarnik.dashboard.MapFixture.map;
import static sarnik.table.TestTables.csv;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.StateReader;
import sarnik.place.Placing;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.Colour;
import sarnik.visual.Key;
import sarnik.visual.SharedKey;
import sarnik.visual.Sight;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.map.Layer;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;
import sarnik.visual.map.MapVisual;

@DisplayName("A map's layers")
class MapLayersTest {

    @Nested
    @DisplayName("Symbols")
    class Symbols {

        @Test
        void zeroHasADotANegativeAmountItsSizeAndWhatIsMissingIsSaid() {
            MapFixture.Drawn drawn =
                    draw("\"dataset\": 2, \"size\": {" + LITRES + ", \"rule\": \"AREA\", \"radius\": 20}");
            assertThat(drawn.names(drawn.symbols().places(), drawn.symbols().at()))
                    .containsExactly("Zamora", "Palencia", "Soria", "Burgos");
            assertThat(drawn.symbols().sizes()).containsExactly(-40, 10, 0, Double.NaN);
            assertThat(drawn.symbols().radii()).containsExactly(20, 10, 1.8, 0);
            assertThat(drawn.note()).contains("1 place has no figure for the size and is not drawn");
        }

        @Test
        void stepsAreFifthsOfTheLargestArea() {
            MapFixture.Drawn drawn =
                    draw("\"dataset\": 1, \"size\": {" + LITRES + ", \"rule\": \"STEPPED\", \"radius\": 20}");
            // 160, 40 and 20 of 160: the fifth, the second and the first fifth.
            assertThat(drawn.symbols().radii()).containsExactly(20, 12.65, 8.94);
        }

        @Test
        void anOwnAmountCanHaveTheLargestSymbol() {
            MapFixture.Drawn drawn = draw(
                    "\"dataset\": 1, \"size\": {" + LITRES + ", \"rule\": \"AREA\", \"radius\": 20, \"largest\": 640}");
            assertThat(drawn.symbols().radii()[0]).isEqualTo(10);
        }

        @Test
        void aCategoryGivesEachValueAColourInAnOrderThatNarrowingDoesNotChange() {
            String layer = "\"dataset\": 1, \"colour\": {\"category\": \"product\"}";
            MapFixture.Drawn all = draw(layer);
            assertThat(all.symbols().key().colours())
                    .extracting(Key.Swatch::text)
                    .containsExactly("still", "warm");
            MapFixture.Drawn warm = draw(layer + ", \"rule\": {\"column\": \"product\", \"values\": [\"warm\"]}");
            assertThat(warm.symbols().key().colours())
                    .extracting(Key.Swatch::colour)
                    .isEqualTo(all.symbols().key().colours().stream()
                            .map(Key.Swatch::colour)
                            .toList());
            assertThat(warm.symbols().classes()).containsOnly(1);
            MapFixture.Drawn ordered =
                    draw("\"dataset\": 1, \"colour\": {\"category\": \"product\", \"order\": [\"warm\"]}");
            assertThat(ordered.symbols().key().colours())
                    .extracting(Key.Swatch::text)
                    .containsExactly("warm", "still");
        }

        @Test
        void aCategoryGivesEachValueAShape() {
            MapFixture.Drawn drawn = draw("\"dataset\": 1, \"symbol\": {\"category\": \"product\"}");
            assertThat(drawn.symbols().key().shapes())
                    .extracting(Key.ShapeSwatch::text)
                    .containsExactly("still", "warm");
            Map<String, Integer> shapes = new java.util.HashMap<>();
            List<String> names =
                    drawn.names(drawn.symbols().places(), drawn.symbols().at());
            for (int i = 0; i < names.size(); i++)
                shapes.put(names.get(i), drawn.symbols().shapes()[i]);
            assertThat(shapes).containsEntry("Zamora", 0).containsEntry("Benavente", 1);
        }

        @ParameterizedTest
        @ValueSource(strings = {"rust", "#123456"})
        void allWearOneColourWhereNoneStandsForAnything(String palette) {
            MapFixture.Drawn drawn = draw("\"dataset\": 1, \"colour\": {\"palette\": \"" + palette + "\"}");
            assertThat(drawn.symbols().key().colours())
                    .extracting(Key.Swatch::colour)
                    .containsExactly(
                            palette.startsWith("#")
                                    ? palette
                                    : sarnik.scale.Palette.ALL
                                            .get(palette)
                                            .at(0.5)
                                            .hex());
            assertThat(drawn.symbols().key().colourWords()).isNull();
        }

        @Test
        void theReaderChoosesTheSizeAmongWhatIsOffered() {
            String layer = "\"dataset\": 1, \"size\": {" + LITRES
                    + ", \"rule\": \"AREA\", \"radius\": 20, \"offered\": [{\"summary\": \"COUNT\"}]}";
            assertThat(draw(layer).symbols().sizes()).containsExactly(160, 40, 20);
            MapFixture.Drawn chosen = draw("s.v1.l1.size=1", Map.of(), Map.of(), layer);
            assertThat(chosen.symbols().sizes()).containsExactly(2, 2, 2);
            assertThat(chosen.symbols().key().sizesOffered()).containsExactly("sum of litres, L", "number of rows");
            assertThat(chosen.symbols().key().sizeChosen()).isEqualTo(1);
            LayerDrawn.OfDensity density =
                    (LayerDrawn.OfDensity) draw("s.v1.l1.size=1", Map.of(), Map.of(), layer + ", \"kind\": \"DENSITY\"")
                            .map()
                            .layers()
                            .get(0);
            assertThat(density.weights()).containsExactly(2, 2, 2);
            assertThat(StateReader.read("s.v1.l1.size=1", map(layer), DATASETS, Kinds.ALL)
                            .state()
                            .text())
                    .isEqualTo("s.v1.l1.size=1");
        }

        @Test
        void anotherMeasureFindsItsLargestAndItsEndsAnew() {
            String offered = "\"offered\": [{\"summary\": \"COUNT\"}]";
            String layer =
                    "\"dataset\": 1, \"size\": {" + LITRES + ", \"rule\": \"AREA\", \"radius\": 20, \"largest\": 640, "
                            + offered + "}, \"colour\": {" + LITRES + ", \"low\": 30, \"high\": 100, " + offered + "}";
            // 160 of 640 have half the radius of the largest; two rows are as many as any place has.
            assertThat(draw(layer).symbols().radii()[0]).isEqualTo(10);
            LayerDrawn.OfSymbols chosen =
                    draw("s.v1.l1=1&s.v1.l1.size=1", Map.of(), Map.of(), layer).symbols();
            assertThat(chosen.radii()).containsExactly(20, 20, 20);
            assertThat(chosen.key().below()).isEmpty();
            assertThat(chosen.key().high()).isEqualTo(2);
        }

        @Test
        void moreThanCanBeToldApartAreGatheredUnasked() {
            int count = Layer.MOST_APART + 1000;
            Table many = csv(Stream.concat(
                            Stream.of("lat,lon"),
                            IntStream.range(0, count)
                                    .mapToObj(i -> "%d.%04d,-%d.%04d"
                                            .formatted(36 + i % 7, i / 7 % 10000, 1 + i % 8, i * 7 % 10000)))
                    .toArray(String[]::new));
            Placing.ByCoordinates by = new Placing.ByCoordinates("lat", "lon");
            LoadedDataset points = dataset(5, "Points", PLACER.byCoordinates(many, by), by);
            assertThat(points.places().size()).isGreaterThan(Layer.MOST_APART);
            PageDrawer drawer = new PageDrawer(
                    map("\"dataset\": 5"),
                    ReaderState.NOTHING,
                    new Sources(id -> new Datasets.Found.Ready(points)),
                    Drawers.ANSWERER,
                    Map.of("v1", new Sight(6, -9, 36, 3, 44)));
            LayerDrawn.OfSymbols drawn = (LayerDrawn.OfSymbols)
                    ((MapDrawing) drawer.draw("v1")).layers().get(0);
            assertThat(drawn.at().length).isBetween(20, 3000);
            assertThat(Arrays.stream(drawn.sizes()).sum()).as("no row is lost").isEqualTo(count);
            assertThat(drawn.head().notes().get(0)).contains("are gathered into groups");
        }

        @Test
        void labelsAreNamesOrValuesAndComeInTheOrderOfTheirPriority() {
            MapFixture.Drawn drawn =
                    draw("\"dataset\": 1, \"size\": {" + LITRES + ", \"rule\": \"AREA\", \"radius\": 20}, \"label\": {"
                            + LITRES + ", \"priority\": {\"summary\": \"MINIMUM\", \"column\": \"litres\"}}");
            assertThat(drawn.symbols().labels()).containsExactly("Zamora 160", "Soria 40", "Benavente 20");
            // Minima 60, 10 and 5.
            assertThat(drawn.symbols().ranks()).containsExactly(0, 1, 2);
            assertThat(draw("\"dataset\": 1, \"label\": {\"column\": \"product\"}")
                            .symbols()
                            .labels())
                    .contains("still", "warm");
        }

        @ParameterizedTest
        @CsvSource({"2, 2", "12, 3"})
        void crowdsGatherAndOpenWithTheSameTotal(double zoom, int groups) {
            MapFixture.Drawn drawn = draw(
                    "",
                    Map.of("v1", new Sight(zoom, -10, 35, 5, 45)),
                    Map.of(),
                    "\"dataset\": 1, \"gather\": true, \"size\": {" + LITRES + ", \"rule\": \"AREA\", \"radius\": 20}");
            assertThat(drawn.symbols().at()).hasSize(groups);
            assertThat(Arrays.stream(drawn.symbols().sizes()).sum()).isEqualTo(220);
            assertThat(Arrays.stream(drawn.symbols().members()).sum()).isEqualTo(3);
            if (groups == 2)
                assertThat(drawn.names(drawn.symbols().places(), drawn.symbols().at()))
                        .containsExactly("2 places around Zamora", "Soria");
        }
    }

    @Nested
    @DisplayName("Areas")
    class Areas {

        private static final String AREAS = "\"dataset\": 1, \"kind\": \"AREAS\", \"set\": \"" + PROVINCES + "\", ";

        @Test
        void countPlacesByTheAreaThatHoldsThem() {
            MapFixture.Drawn drawn = draw(AREAS + "\"colour\": {" + LITRES
                    + ", \"method\": \"NATURAL\", \"classes\": 2, \"palette\": \"loch\"}");
            assertThat(drawn.names(drawn.areas().places(), drawn.areas().at())).containsExactly("Soria", "Zamora");
            assertThat(drawn.areas().values()).containsExactly(40, 180);
            assertThat(drawn.areas().classes()).containsExactly(0, 1);
            assertThat(drawn.areas().key().hints()).singleElement().asString().contains("Divide");
            assertThat(drawn.map().credits())
                    .containsExactly("Sales’s credit", "Instituto Geográfico Nacional, CC BY 4.0");
        }

        @Test
        void askOfTheRowsOfAnAreaNotOfItsTowns() {
            // The median of Zamora's rows 100, 60, 5, 15 is 37.5; of its towns' sums it would be 90.
            MapFixture.Drawn drawn =
                    draw(AREAS + "\"colour\": {\"measure\": {\"summary\": \"MEDIAN\", \"column\": \"litres\"}}");
            assertThat(drawn.areas().values()).containsExactly(20, 37.5);
        }

        @Test
        void canBeDividedByTheirSize() {
            MapFixture.Drawn drawn = draw(AREAS + "\"colour\": {" + LITRES + ", \"per\": \"km2\"}");
            // Zamora has 10,561 km² (Instituto Nacional de Estadística).
            assertThat(drawn.areas().key().high()).isCloseTo(180 / 10561.0, within(0.0003));
            assertThat(drawn.areas().key().colourWords()).isEqualTo("sum of litres, L per km²");
            assertThat(drawn.areas().key().hints()).isEmpty();
            assertThat(drawn.areas().head().notes()).isEmpty();
            assertThat(draw(AREAS + "\"colour\": {" + LITRES.replace("SUM", "AVERAGE") + ", \"per\": \"km2\"}")
                            .note())
                    .contains("“average of litres” does not add up");
        }

        @Test
        void thatArePickedNarrowDatasetsOfPoints() {
            Dashboard dashboard = map(AREAS + "\"colour\": {" + LITRES + "}");
            String pick = "p.v1=a" + PROVINCES.replace(" ", "%20") + "%2F49";
            StateReader.Read read = StateReader.read(pick, dashboard, DATASETS, Kinds.ALL);
            assertThat(read.misfits()).isEmpty();
            FigureDrawing figure = (FigureDrawing)
                    Drawers.of(dashboard, read.state(), DATASETS).draw("v2");
            assertThat(figure.full()).isEqualTo("180");
            assertThat(figure.trail().steps().get(1).words()).isEqualTo("Picked: Zamora");
        }

        @Test
        void withoutASetAreAskedFor() {
            assertThat(draw("\"dataset\": 1, \"kind\": \"AREAS\"").note())
                    .contains("lie at points")
                    .contains("Choose the areas");
        }

        @Test
        void ofASetThatHasGoneAreSaid() {
            MapFixture.Drawn drawn = draw(
                    "\"dataset\": 1, \"kind\": \"AREAS\", \"set\": \"Parishes\", \"colour\": {" + LITRES + "}",
                    "\"dataset\": 1");
            assertThat(drawn.note()).contains("“Parishes” has gone");
            assertThat(drawn.map().layers().get(1)).as("the others stand").isInstanceOf(LayerDrawn.OfSymbols.class);
        }
    }

    @Nested
    @DisplayName("Scales")
    class Scales {

        @Test
        void aSharedKeyIsWornAndStaysWhenRowsAreNarrowed() {
            SharedKey key = new SharedKey(
                    "ours",
                    "",
                    new Colour(
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            "rust",
                            null,
                            null,
                            0.0,
                            200.0,
                            List.of(50.0, 100.0),
                            null,
                            null,
                            null));
            String layer = "\"dataset\": 1, \"colour\": {" + LITRES + ", \"key\": \"ours\"}";
            for (String narrowed :
                    List.of(layer, layer + ", \"rule\": {\"column\": \"product\", \"values\": [\"warm\"]}")) {
                Key drawn = draw("", Map.of(), Map.of("ours", key), narrowed)
                        .symbols()
                        .key();
                assertThat(drawn.breaks()).containsExactly(50, 100);
                assertThat(List.of(drawn.low(), drawn.high())).containsExactly(0.0, 200.0);
                assertThat(drawn.shared()).isEqualTo("ours");
            }
            assertThat(draw(layer).note()).contains("shared key “ours” has gone");
        }

        @Test
        void whatLiesBeyondEndsThatWereSetIsMarked() {
            LayerDrawn.OfSymbols drawn = draw("\"dataset\": 1, \"size\": {" + LITRES
                            + ", \"rule\": \"AREA\", \"radius\": 20}, \"colour\": {" + LITRES
                            + ", \"low\": 30, \"high\": 100}")
                    .symbols();
            // Soria sold 40, Zamora 160, Benavente 20.
            assertThat(drawn.sizes()).containsExactly(160, 40, 20);
            assertThat(drawn.key().above()).containsExactly(0);
            assertThat(drawn.key().below()).containsExactly(2);
            Key open = draw("\"dataset\": 1, \"size\": {" + LITRES
                            + ", \"rule\": \"AREA\", \"radius\": 20}, \"colour\": {" + LITRES + "}")
                    .symbols()
                    .key();
            assertThat(List.of(open.above().length, open.below().length)).containsExactly(0, 0);
        }

        @Test
        void theReaderChoosesAmongWhatIsOffered() {
            String layer = "\"dataset\": 1, \"colour\": {" + LITRES
                    + ", \"offered\": [{\"summary\": \"AVERAGE\", \"column\": \"litres\"}]}";
            assertThat(draw(layer).symbols().key().offered())
                    .containsExactly("sum of litres, L", "average of litres, L");
            Key chosen = draw("s.v1.l1=1", Map.of(), Map.of(), layer).symbols().key();
            assertThat(chosen.colourWords()).isEqualTo("average of litres, L");
            assertThat(chosen.chosen()).isEqualTo(1);
            assertThat(StateReader.read("s.v1.l9=1&s.v1.l1=x&h.v2=l1", map(layer), DATASETS, Kinds.ALL)
                            .misfits())
                    .hasSize(3);
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "\"palette\": \"#ffffff #ffffff\" | twice in a row",
                    "\"palette\": \"mauve\" | no palette “mauve”",
                    "\"low\": 5, \"high\": 5 | has to lie below",
                    "\"breaks\": [5, 3] | have to ascend"
                })
        void whatCannotBeMadeIsSaidAndTheMapStays(String scale, String why) {
            MapFixture.Drawn drawn =
                    draw("\"dataset\": 1, \"colour\": {" + LITRES + ", " + scale + "}", "\"dataset\": 1");
            assertThat(drawn.note()).contains(why).contains("brief");
            assertThat(drawn.map().layers().get(1)).isInstanceOf(LayerDrawn.OfSymbols.class);
        }
    }

    @Nested
    @DisplayName("Together")
    class Together {

        @ParameterizedTest
        @EnumSource(Layer.Kind.class)
        void aKindThatIsChangedKeepsWhatTheOthersWereTold(Layer.Kind kind) {
            DashboardDocument document = MapFixture.document("\"dataset\": 1, \"kind\": \"SYMBOLS\", \"set\": \""
                    + PROVINCES
                    + "\", \"size\": {" + LITRES + ", \"rule\": \"AREA\", \"radius\": 20}, \"colour\": {" + LITRES
                    + "}, \"path\": {\"who\": \"product\", \"by\": \"day\"}");
            Layer before = layer(document);
            DashboardDocument.Edit edit =
                    document.edit("[{\"op\": \"replace\", \"path\": \"/visuals/v1/layers/l1/kind\", \"value\": \"%s\"}]"
                            .formatted(kind));
            Layer after = layer(edit.after());
            assertThat(after.kind()).isEqualTo(kind);
            assertThat(List.of(after.size(), after.colour(), after.path(), after.set()))
                    .isEqualTo(List.of(before.size(), before.colour(), before.path(), before.set()));
            assertThat(Drawers.of(edit.after().dashboard(), ReaderState.NOTHING, DATASETS)
                            .draw("v1"))
                    .isInstanceOf(MapDrawing.class);
            assertThat(layer(edit.after().edit(edit.inverse()).after())).isEqualTo(before);
        }

        private static Layer layer(DashboardDocument document) {
            return ((MapVisual) document.dashboard().visuals().get("v1"))
                    .layers()
                    .get("l1");
        }

        @Test
        void readersTurnLayersFromHiddenToShownAndBack() {
            String[] layers = {"\"dataset\": 1", "\"dataset\": 1, \"hidden\": true"};
            assertThat(draw(layers).map().layers())
                    .extracting(l -> l.head().hidden())
                    .containsExactly(false, true);
            assertThat(draw("h.v1=l1,l2", Map.of(), Map.of(), layers).map().layers())
                    .extracting(l -> l.head().hidden())
                    .containsExactly(true, false);
        }

        @Test
        void aPeriodAndARuleAreStepsOfTheTrail() {
            MapFixture.Drawn drawn =
                    draw("\"dataset\": 1, \"rule\": {\"column\": \"product\", \"values\": [\"still\"]}, \"period\": "
                            + "{\"column\": \"day\", \"from\": \"2026-01-01\", \"to\": \"2026-02-28\"}");
            assertThat(drawn.map().trail().steps())
                    .extracting(s -> s.words())
                    .containsSubsequence(
                            "Always only where product is still",
                            "The layer keeps to day from 2026-01-01 to 2026-02-28");
            assertThat(drawn.symbols().sizes()).containsExactly(1, 1);
        }

        @Test
        void theSummarySaysWhatIsThere() {
            String summary = draw("\"dataset\": 1, \"name\": \"Towns\", \"size\": {" + LITRES
                            + ", \"rule\": \"AREA\", \"radius\": 20}, \"colour\": {" + LITRES + "}")
                    .map()
                    .summary();
            assertThat(summary)
                    .isEqualTo("Towns: 3 symbols. The largest: Zamora 160, Soria 40, Benavente 20. Coloured by sum "
                            + "of litres, L, from 20 to 160.");
        }

        @Test
        void aDatasetOrColumnThatHasGoneLeavesTheOtherLayers() {
            MapFixture.Drawn drawn = draw(
                    "\"dataset\": 77",
                    "\"dataset\": 1, \"size\": {\"measure\": {\"summary\": \"SUM\", \"column\": \"gone\"}, "
                            + "\"rule\": \"AREA\", \"radius\": 20}",
                    "\"dataset\": 1");
            assertThat(drawn.map().layers())
                    .hasExactlyElementsOfTypes(
                            LayerDrawn.OfNothing.class, LayerDrawn.OfNothing.class, LayerDrawn.OfSymbols.class);
            assertThat(drawn.map().layers().get(0).head().notes().get(0)).contains("has gone");
            assertThat(drawn.map().layers().get(1).head().notes().get(0))
                    .contains("gone")
                    .contains("brief");
        }
    }
}
