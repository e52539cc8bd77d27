package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.MapFixture.DATASETS;
import static sarnik.dashboard.MapFixture.ENGINE;
import static sarnik.dashboard.MapFixture.LITRES;
import static sarnik.dashboard.MapFixture.PROVINCES;
import static sarnik.dashboard.MapFixture.document;
import static sarnik.dashboard.MapFixture.sales;

import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.brief.Parts;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.query.Frame;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.RowPage;
import sarnik.query.RowQuery;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.Colour;
import sarnik.visual.Question;
import sarnik.visual.SharedKey;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;
import tools.jackson.databind.json.JsonMapper;

@DisplayName("The brief of a map")
class MapBriefTest {

    private static final JsonMapper MAPPER = JsonMapper.shared();
    private static final SharedKey OURS = new SharedKey(
            "ours",
            "litres",
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
                    List.of(50.0),
                    null,
                    null,
                    null));
    private static final Choices OFFERS = offers(ENGINE);

    private static Choices offers(QueryEngine engine) {
        return new Choices(
                engine,
                List.of(PROVINCES),
                List.of(new Choices.Named("ours", "litres")),
                List.of("Aerial"),
                Map.of(1L, "Sales", 3L, "Sent"),
                Map.of(),
                Parts.NONE,
                Map.of());
    }

    private static final String SIZE = "\"size\": {" + LITRES + ", \"rule\": \"AREA\", \"radius\": 20}";
    private static final String PIECES =
            "\"size\": {\"measure\": {\"summary\": \"SUM\", \"column\": \"pieces\"}, \"rule\": \"AREA\", "
                    + "\"radius\": 20}";

    private static Brief brief(String... layers) {
        return new BriefWriter(document(layers).dashboard(), DATASETS, OFFERS).write("v1");
    }

    private static Stream<Brief.Control> slots(Brief brief) {
        return Stream.concat(brief.parts().stream(), brief.finish().stream())
                .filter(Brief.Control.class::isInstance)
                .map(Brief.Control.class::cast);
    }

    private static Brief.Control slot(String name, String... layers) {
        return slots(brief(layers))
                .filter(s -> s.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no slot " + name));
    }

    private static String looks(String... layers) {
        return new Brief(brief(layers).finish(), List.of()).text();
    }

    /** One layer of each kind, told much. */
    static Stream<String> layers() {
        return Stream.of(
                "\"dataset\": 1, " + SIZE + ", \"colour\": {" + LITRES
                        + ", \"classes\": 3}, \"label\": {}, \"tip\": {\"measures\": [{\"summary\": \"COUNT\"}]}",
                "\"dataset\": 1, \"kind\": \"AREAS\", \"set\": \"" + PROVINCES + "\", \"colour\": {" + LITRES
                        + ", \"centre\": {\"about\": \"MEAN\"}, \"palette\": \"rust to loch\"}",
                "\"dataset\": 1, \"kind\": \"DENSITY\", " + SIZE,
                "\"dataset\": 3, \"kind\": \"FLOWS\", " + PIECES + ", \"colour\": {\"category\": \"from\"}",
                "\"dataset\": 4, \"kind\": \"PATHS\", \"path\": {\"who\": \"van\", \"by\": \"at\", "
                        + "\"breakMinutes\": 120}");
    }

    @Nested
    @DisplayName("reads")
    class Reads {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "\"dataset\": 1 | A map of symbols: one circle for each place of Sales. When a place is picked "
                            + "here, every other visual is narrowed.",
                    "\"dataset\": 1, \"symbol\": {\"shape\": \"STAR\"}, \"gather\": true | A map of symbols: "
                            + "one star for each place of Sales gathered where they crowd. When a place is picked "
                            + "here, every other visual is narrowed.",
                    "\"dataset\": 1, \"kind\": \"DENSITY\", \"spread\": {\"radius\": 25000, \"metres\": true} | "
                            + "A map of density of the places of Sales, felt within 25 km. When a place is picked "
                            + "here, every other visual is narrowed.",
                    "\"dataset\": 3, \"kind\": \"FLOWS\" | A map of flows of Sent from place to the next. When "
                            + "a place is picked here, every other visual is narrowed.",
                    "\"dataset\": 4, \"kind\": \"PATHS\", \"path\": {\"who\": \"van\", \"by\": \"at\", "
                            + "\"breakMinutes\": 480, \"breakMetres\": 20000} | A map of paths of Rounds, one "
                            + "for each van, in order of at, broken after 8 hours or after 20 km. When a "
                            + "place is picked here, every other visual is narrowed."
                })
        void asASentence(String layer, String sentence) {
            assertThat(brief(layer).text()).isEqualTo(sentence);
        }

        @Test
        void fromTheUppermostLayerToTheLowest() {
            assertThat(brief("\"dataset\": 1", "\"dataset\": 3, \"kind\": \"FLOWS\"")
                            .text())
                    .startsWith("A map, on top flows of Sent from place to the next; below it symbols: one circle "
                            + "for each place of Sales.");
        }

        @Test
        void asAreasAboutACentre() {
            assertThat(brief("\"dataset\": 1, \"kind\": \"AREAS\", \"set\": \"" + PROVINCES + "\", \"colour\": {"
                                    + LITRES
                                    + ", \"per\": \"km2\", \"classes\": 6, \"centre\": {\"about\": "
                                    + "\"VALUE\", \"value\": 100}}")
                            .text())
                    .startsWith("A map of areas of Provinces of Spain in Sales, coloured by sum of litres per km² "
                            + "in six natural classes about 100.");
        }

        @Test
        void asAreasThatMayBeDividedByTheirSizeWhereTheMeasureAddsUp() {
            String areas = "\"dataset\": 1, \"kind\": \"AREAS\", \"set\": \"" + PROVINCES + "\", \"colour\": {%s}";
            assertThat(slots(brief(areas.formatted(LITRES))))
                    .extracting(Brief.Control::name)
                    .contains("base");
            assertThat(slots(brief(areas.formatted(LITRES.replace("SUM", "AVERAGE")))))
                    .extracting(Brief.Control::name)
                    .doesNotContain("base");
        }

        @Test
        void asASharedKeyThatIsWorn() {
            String layer = "\"dataset\": 1, \"colour\": {" + LITRES + ", \"key\": \"ours\"}";
            assertThat(brief(layer).text())
                    .contains("coloured by sum of litres on the shared key “ours”")
                    .doesNotContain("natural classes");
            assertThat(looks(layer)).doesNotContain("palette");
        }

        @Test
        void asALayerWhoseDatasetHasGoneAndOffersOthers() {
            assertThat(brief("\"dataset\": 77").text()).contains("a layer whose dataset has gone");
            assertThat(slot("dataset", "\"dataset\": 77").options())
                    .extracting(Brief.Option::text)
                    .containsExactlyInAnyOrder("Sales", "Sent");
        }
    }

    @Nested
    @DisplayName("offers")
    class Offered {

        /** What needs a gesture on the map or a form of its own has no options to try. */
        private static final List<Brief.Kind> BY_HAND = List.of(
                Brief.Kind.TIP,
                Brief.Kind.PERIOD,
                Brief.Kind.SCALE,
                Brief.Kind.EXTENT,
                Brief.Kind.SAVED_VIEW,
                Brief.Kind.REMOVE,
                Brief.Kind.NUMBER);

        @ParameterizedTest
        @MethodSource("sarnik.dashboard.MapBriefTest#layers")
        void onlyWhatMakesADocumentThatHoldsAndAMapThatIsDrawn(String layer) {
            DashboardDocument before = document(layer);
            for (Brief.Control slot :
                    slots(brief(layer)).filter(s -> !BY_HAND.contains(s.kind())).toList()) {
                for (Brief.Option option : slot.options()) {
                    Object value = slot.kind() == Brief.Kind.SET || slot.kind() == Brief.Kind.ORDER
                            ? List.of(option.value())
                            : option.value();
                    Dashboard after = before.edit(MAPPER.writeValueAsString(
                                    List.of(Map.of("op", "add", "path", slot.path(), "value", value))))
                            .after()
                            .dashboard();
                    assertThat(new BriefWriter(after, DATASETS, OFFERS)
                                    .write("v1")
                                    .text())
                            .as("%s: %s", slot.name(), option.text())
                            .isNotBlank();
                    MapDrawing map = (MapDrawing) new PageDrawer(
                                    after,
                                    ReaderState.NOTHING,
                                    new Sources(
                                            DATASETS, name -> java.util.Optional.of(OURS), java.time.LocalDate.EPOCH),
                                    Drawers.ANSWERER,
                                    Map.of())
                            .draw("v1");
                    boolean mayAsk =
                            slot.name().equals("kind of layer") || slot.name().equals("whether it is shown");
                    if (!mayAsk)
                        assertThat(map.layers().get(0))
                                .as("%s: %s", slot.name(), option.text())
                                .isNotInstanceOf(LayerDrawn.OfNothing.class);
                }
            }
        }

        @ParameterizedTest
        @MethodSource("sarnik.dashboard.MapBriefTest#layers")
        void toTakeAwayOnlyWhatIsThere(String layer) {
            DashboardDocument before = document(layer);
            for (Brief.Control slot : slots(brief(layer))
                    .filter(s -> s.removable() && s.kind() != Brief.Kind.REMOVE)
                    .toList()) {
                assertThat(before.edit("[{\"op\":\"remove\",\"path\":\"" + slot.path() + "\"}]")
                                .after())
                        .as(slot.name())
                        .isNotNull();
            }
        }

        @Test
        void anotherMeasureOnTheScaleAsItWasMadeButForItsEnds() {
            String layer = "\"dataset\": 1, \"kind\": \"AREAS\", \"set\": \"" + PROVINCES + "\", \"colour\": {" + LITRES
                    + ", \"per\": \"km2\", \"classes\": 4, \"method\": \"GEOMETRIC\", \"palette\": \"dusk\", "
                    + "\"reversed\": true, \"low\": 1, \"high\": 9, "
                    + "\"offered\": [{\"summary\": \"COUNT\"}]}";
            Object value = slot("colour", layer).options().get(0).value();
            assertThat(MAPPER.valueToTree(value).toString())
                    .isEqualTo("{\"measure\":{\"summary\":\"COUNT\"},\"method\":\"GEOMETRIC\",\"classes\":4,"
                            + "\"palette\":\"dusk\",\"per\":\"km2\",\"reversed\":true,"
                            + "\"offered\":[{\"summary\":\"COUNT\"}]}");
        }

        @Test
        void howFarEachSideOfACentreRuns() {
            String layer = "\"dataset\": 1, \"colour\": {" + LITRES
                    + ", \"palette\": \"rust to loch\", \"centre\": {\"about\": \"MEAN\"%s}}";
            assertThat(looks(layer.formatted(""))).contains("each side in full");
            assertThat(looks(layer.formatted(", \"even\": true"))).contains("equally deep at equal distance");
            assertThat(looks("\"dataset\": 1, \"colour\": {" + LITRES + "}")).doesNotContain("each side");
        }

        @Test
        void theMeasuresOfAVersionWithValuesThatAreWorkedOutOnce() {
            AtomicInteger asked = new AtomicInteger();
            QueryEngine counting = new QueryEngine() {
                @Override
                public Frame answer(Table table, Query query) {
                    asked.incrementAndGet();
                    return ENGINE.answer(table, query);
                }

                @Override
                public RowPage rows(Table table, RowQuery query) {
                    return ENGINE.rows(table, query);
                }
            };
            LoadedDataset fresh = sales();
            for (int n = 0; n < 3; n++) {
                Brief brief = new BriefWriter(
                                document("\"dataset\": 1", "\"dataset\": 1, \"kind\": \"DENSITY\"")
                                        .dashboard(),
                                id -> new Datasets.Found.Ready(fresh),
                                offers(counting))
                        .write("v1");
                assertThat(slots(brief)
                                .filter(s -> s.name().equals("size"))
                                .findFirst()
                                .orElseThrow()
                                .options())
                        .extracting(Brief.Option::hint)
                        .contains("220");
            }
            assertThat(asked).hasValue(1);
        }

        @Test
        void aScaleOfItsOwnToWhatWoreOneColour() {
            Object value = slot("colour", "\"dataset\": 1, \"colour\": {\"palette\": \"#123456\"}")
                    .options()
                    .get(0)
                    .value();
            assertThat(MAPPER.valueToTree(value).get("palette").asString()).isEqualTo("loch");
        }

        @Test
        void flowsOnlyToDatasetsThatComeFromSomewhere() {
            assertThat(slot("kind of layer", "\"dataset\": 1").options())
                    .extracting(Brief.Option::text)
                    .doesNotContain("flows");
            assertThat(slot("kind of layer", "\"dataset\": 3").options())
                    .extracting(Brief.Option::text)
                    .contains("flows");
        }

        @Test
        void palettesThatFitWhatIsColoured() {
            assertThat(slot("palette", "\"dataset\": 1, \"colour\": {" + LITRES + "}")
                            .options())
                    .extracting(Brief.Option::text)
                    .contains("loch")
                    .doesNotContain("flags", "rust to loch");
            assertThat(slot(
                                    "palette",
                                    "\"dataset\": 1, \"colour\": {" + LITRES + ", \"centre\": {\"about\": \"MEAN\"}}")
                            .options())
                    .extracting(Brief.Option::text)
                    .containsOnly("rust to loch", "heather to lichen", "sun to dusk");
            assertThat(slot("palette", "\"dataset\": 1, \"colour\": {\"category\": \"product\"}")
                            .options())
                    .extracting(Brief.Option::text)
                    .containsOnly("flags");
        }

        @ParameterizedTest
        @ValueSource(strings = {"paper", "outlines only", "tinted relief", "nothing", "pictures of Aerial"})
        void grounds(String ground) {
            assertThat(slot("ground", "\"dataset\": 1").options())
                    .extracting(Brief.Option::text)
                    .contains(ground);
        }

        @Test
        void limitsOfZoomInKilometres() {
            // A pixel of zoom 0 is 156.5 km wide at the equator, so 700 pixels of zoom 5 at 40 degrees show 2,623 km.
            assertThat(slot("limits of zoom", "\"dataset\": 1").options())
                    .extracting(Brief.Option::text)
                    .contains("from 2,000 km to 20 km across");
        }
    }

    @Nested
    @DisplayName("is undone in words")
    class InWords {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "/visuals/v1/layers/l1/colour/classes | 4 | the colour of the map",
                    "/visuals/v1/layers/l1/size/radius | 30 | the size of the map",
                    "/visuals/v1/layers/l1/kind | \"AREAS\" | the kind of layer of the map",
                    "/visuals/v1/ground | {\"mood\": \"plain\", \"detail\": 1} | the ground of the map",
                    "/visuals/v1/layers/l2 | {\"order\": 2, \"dataset\": 1, \"opacity\": 1} | the layer of the map",
                    "/visuals/v1/together | \"both\" | the moving together of the map"
                })
        void thatSayWhatChanged(String path, String value, String words) {
            DashboardDocument before = document("\"dataset\": 1, " + SIZE + ", \"colour\": {" + LITRES + "}");
            assertThat(before.edit("[{\"op\":\"add\",\"path\":\"" + path + "\",\"value\":" + value + "}]")
                            .words())
                    .isEqualTo(words);
        }
    }

    @Nested
    @DisplayName("Answers to “Where?”")
    class Where {

        private List<String> kinds(long dataset) {
            return new Proposals(document("\"dataset\": 1").dashboard(), "p1", () -> "x")
                    .answer(Question.WHERE, DATASETS.get(dataset)).stream()
                            .map(p -> MAPPER.valueToTree(p.ops())
                                    .get(0)
                                    .get("value")
                                    .get("layers")
                                    .get("l1")
                                    .get("kind")
                                    .asString())
                            .toList();
        }

        @Test
        void areOfTheKindsThatTheDataCanShow() {
            assertThat(kinds(1)).containsOnly("SYMBOLS");
            assertThat(kinds(3)).startsWith("FLOWS").contains("SYMBOLS");
            assertThat(kinds(4)).contains("PATHS").doesNotContain("FLOWS");
        }
    }
}
