package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.dashboard.MapFixture.LITRES;
import static sarnik.dashboard.MapFixture.PLACER;
import static sarnik.dashboard.MapFixture.dataset;
import static sarnik.dashboard.MapFixture.draw;
import static sarnik.dashboard.MapFixture.map;
import static sarnik.dashboard.MapFixture.sent;
import static sarnik.table.TestTables.csv;

import java.util.Arrays;
import java.util.List;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.place.Gazetteer;
import sarnik.place.Placing;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;

@DisplayName("Layers of lines and density")
class LineLayersTest {

    @Nested
    @DisplayName("Flows")
    class Flows {

        @Test
        void addUpByOriginAndDestinationWidestFirst() {
            LayerDrawn.OfFlows flows =
                    draw("\"dataset\": 3, \"kind\": \"FLOWS\", \"size\": {\"measure\": {\"summary\": \"SUM\", "
                                    + "\"column\": \"pieces\"}, \"rule\": \"AREA\", \"radius\": 20}")
                            .flows();
            assertThat(flows.values()).containsExactly(30, 7, 1);
            assertThat(flows.widths()[0]).isEqualTo(10);
            assertThat(flows.widths()[1]).isCloseTo(10 * 7 / 30.0, within(0.01));
        }

        @Test
        void knowWhatGoesOutAndComesInAtEachEnd() {
            MapFixture.Drawn drawn =
                    draw("\"dataset\": 3, \"kind\": \"FLOWS\", \"size\": {\"measure\": {\"summary\": \"SUM\", "
                            + "\"column\": \"pieces\"}, \"rule\": \"AREA\", \"radius\": 20}");
            LayerDrawn.OfFlows flows = drawn.flows();
            int soria = drawn.names(flows.places(), flows.ends()).indexOf("Soria");
            assertThat(flows.out()[soria]).isEqualTo(31);
            assertThat(flows.in()[soria]).isEqualTo(7);
            assertThat(drawn.note()).contains("1 flow stays where it begins");
        }

        @Test
        void tellNothingOfAllThatGoesOutWhereItDoesNotAddUp() {
            LayerDrawn.OfFlows flows =
                    draw("\"dataset\": 3, \"kind\": \"FLOWS\", \"size\": {\"measure\": {\"summary\": \"AVERAGE\", "
                                    + "\"column\": \"pieces\"}, \"rule\": \"AREA\", \"radius\": 20}")
                            .flows();
            assertThat(flows.values()).hasSize(3).doesNotContain(Double.NaN);
            assertThat(flows.ends()).isNotEmpty();
            assertThat(DoubleStream.concat(Arrays.stream(flows.out()), Arrays.stream(flows.in())))
                    .allMatch(v -> v.isNaN() || v == 0);
        }

        @Test
        void thatComeFromNowhereAreSaid() {
            assertThat(draw("\"dataset\": 1, \"kind\": \"FLOWS\"").note()).contains("come from nowhere");
        }

        @Test
        void areSummedUpByProvinceWhereThereAreTooMany() {
            List<String> towns = Gazetteer.shipped().townsOf("ES").stream()
                    .filter(t -> t.population() > 5000)
                    .limit(400)
                    .map(t -> t.name() + ", "
                            + Gazetteer.shipped().provinceOf(t).orElseThrow().name())
                    .toList();
            Table many = csv(Stream.concat(
                            Stream.of("from,to,pieces"), towns.stream().map(t -> "\"Soria, Soria\",\"" + t + "\",1"))
                    .toArray(String[]::new));
            Placing.FromTo by = new Placing.FromTo(new Placing.ByWords("from"), new Placing.ByWords("to"));
            LoadedDataset sent = dataset(3, "Many", PLACER.by(many, by), by);
            Dashboard dashboard = map("\"dataset\": 3, \"kind\": \"FLOWS\"");
            MapDrawing map =
                    (MapDrawing) Drawers.of(dashboard, ReaderState.NOTHING, id -> new Datasets.Found.Ready(sent))
                            .draw("v1");
            LayerDrawn.OfFlows flows = (LayerDrawn.OfFlows) map.layers().get(0);
            assertThat(flows.head().notes().get(0)).contains("summed up by province");
            assertThat(flows.from().length).isBetween(10, 60);
        }
    }

    @Nested
    @DisplayName("Paths")
    class Paths {

        private LayerDrawn.OfPaths paths(String breaks) {
            return (LayerDrawn.OfPaths)
                    draw("\"dataset\": 4, \"kind\": \"PATHS\", \"path\": {\"who\": \"van\", \"by\": \"at\"" + breaks
                                    + "}")
                            .map()
                            .layers()
                            .get(0);
        }

        @Test
        void joinPointsInOrder() {
            LayerDrawn.OfPaths paths = paths("");
            assertThat(paths.names()).containsExactly("A", "B");
            assertThat(paths.parts()).containsExactly(0, 3);
            assertThat(paths.moments().subList(3, 5)).containsExactly("2026-05-18 08:00", "2026-05-18 08:30");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {", \"breakMinutes\": 120 | 3", ", \"breakMetres\": 10000 | 4", ", \"breakMetres\": 30000 | 2"})
        void breakAtGaps(String gap, int parts) {
            assertThat(paths(gap).parts()).hasSize(parts);
        }

        @Test
        void withoutAnOrderAskForOne() {
            assertThat(draw("\"dataset\": 4, \"kind\": \"PATHS\"").note()).contains("in which order");
            assertThat(draw("\"dataset\": 4, \"kind\": \"PATHS\", \"path\": {\"who\": \"van\", \"by\": \"gone\"}")
                            .note())
                    .contains("“gone”")
                    .contains("has gone");
        }
    }

    @Test
    void densityOfWhatDoesNotAddUpSaysSo() {
        String layer =
                "\"dataset\": 1, \"kind\": \"DENSITY\", \"size\": {" + LITRES + ", \"rule\": \"AREA\", \"radius\": 20}";
        assertThat(draw(layer).map().layers().get(0).head().notes()).isEmpty();
        assertThat(draw(layer.replace("\"SUM\"", "\"AVERAGE\"")).note()).contains("does not add up");
    }

    @Test
    void densityStatesItsUnitAndItsPeakOnTheGround() {
        LayerDrawn.OfDensity density = (LayerDrawn.OfDensity)
                draw("\"dataset\": 1, \"kind\": \"DENSITY\", \"spread\": {\"radius\": 10000, \"metres\": true}, "
                                + "\"size\": {"
                                + LITRES + ", \"rule\": \"AREA\", \"radius\": 20}")
                        .map()
                        .layers()
                        .get(0);
        assertThat(density.key().colourWords()).isEqualTo("sum of litres, L per km², within 10 km");
        // One town far from the others: 3/(πr²) of its 160 litres at its middle.
        assertThat(density.peak()).isCloseTo(160 * 3 / (Math.PI * 100), within(0.05));
    }
}
