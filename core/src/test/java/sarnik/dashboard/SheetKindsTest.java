package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.KindsTest.DATASETS;
import static sarnik.dashboard.KindsTest.DETAILS;
import static sarnik.dashboard.KindsTest.EACH;
import static sarnik.dashboard.KindsTest.FIGURE;
import static sarnik.dashboard.KindsTest.LIST;
import static sarnik.dashboard.KindsTest.RING;
import static sarnik.dashboard.KindsTest.document;
import static sarnik.dashboard.KindsTest.draw;
import static sarnik.dashboard.KindsTest.misfit;
import static sarnik.table.TestTables.csv;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Tie;
import sarnik.query.InMemoryEngine;
import sarnik.state.ReaderState;
import sarnik.visual.Drawing;
import sarnik.visual.Fields;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Sight;
import sarnik.visual.button.ButtonDrawing;
import sarnik.visual.details.DetailsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.filter.SheetFilterDrawing;
import sarnik.visual.key.KeyDrawing;
import sarnik.visual.list.ListDrawing;
import sarnik.visual.picture.PictureDrawing;

@DisplayName("Lists, details, keys, pictures, buttons and filters on the sheet")
class SheetKindsTest {

    private static Drawing seen(String id, Sight sight, Datasets datasets, String... visuals) {
        return new PageDrawer(
                        document(visuals).dashboard(),
                        ReaderState.NOTHING,
                        new Sources(datasets),
                        Drawers.ANSWERER,
                        Map.of(id, sight))
                .draw(id);
    }

    private static Sight finding(String find, int from, Integer count) {
        return new Sight(0, 0, 0, 0, 0, from, null, null, null, find, count);
    }

    @Nested
    @DisplayName("Lists")
    class OfLists {

        @Test
        void ofRowsAreWrittenFromATemplateInTheOrderAskedFor() {
            ListDrawing drawn = draw(ListDrawing.class, "", LIST);
            assertThat(drawn.all()).isEqualTo(8);
            assertThat(drawn.lines())
                    .extracting(ListDrawing.Line::text)
                    .startsWith("Benavente: 100.0 l", "Zamora: 60.0 l", "Zamora: 40.0 l")
                    .endsWith("Soria: 5.0 l", "Burgos: –");
            assertThat(drawn.lines().get(0).below()).isEqualTo("Apr 2026 {gone}");
            assertThat(drawn.notes()).singleElement().asString().startsWith("{gone} names no column of Sales");
        }

        /** Of a row's own value nothing is taken away; what was worked out to many decimals is rounded. */
        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "1234.56|1,234.56",
                    "-1234567.5|-1,234,567.5",
                    "12|12",
                    "0.0625|0.0625",
                    "21.437829342|21.44",
                    "4321.437829342|4,321",
                    "90071992547409931|90,071,992,547,409,931"
                })
        void showAnAmountWithAllItsDigits(String amount, String shown) {
            LoadedDataset sales =
                    new LoadedDataset(1, "Sales", csv("town,euros", "A," + amount, "B,1"), null, Map.of());
            assertThat(new Fields(sales)
                            .value("euros", sales.table().column("euros").text(0), null))
                    .isEqualTo(shown);
        }

        @Test
        void areGoodWatchOrBadByANumberOrByWords() {
            assertThat(draw(ListDrawing.class, "", LIST).lines())
                    .extracting(ListDrawing.Line::state)
                    .containsExactly("good", "good", "watch", "watch", "watch", "bad", "bad", null);
            String words = "'mark': {'of': 'product', 'good': ['still'], 'bad': ['warm']}";
            assertThat(draw(ListDrawing.class, "", LIST.replaceAll("'mark'.*", words))
                            .lines())
                    .extracting(ListDrawing.Line::state)
                    .containsExactly("bad", "bad", "good", "bad", "good", "good", "good", null);
        }

        @Test
        void openToTheWholeRow() {
            assertThat(draw(ListDrawing.class, "", LIST).lines().get(2).record())
                    .extracting(ListDrawing.Entry::words, ListDrawing.Entry::text)
                    .contains(
                            Assertions.tuple("town", "Zamora"),
                            Assertions.tuple("day", "11 Feb 2026"),
                            Assertions.tuple("at", "11 Jan 2026, 08:00"));
            assertThat(draw(ListDrawing.class, "", LIST + ", 'opened': ['euros']")
                            .lines()
                            .get(2)
                            .record())
                    .extracting(ListDrawing.Entry::text)
                    .containsExactly("8");
        }

        @Test
        void pickTheValueThatTheirRowHas() {
            assertThat(draw(FigureDrawing.class, "p.v1=Soria", LIST, FIGURE).full())
                    .isEqualTo("65");
            assertThat(draw(ListDrawing.class, "p.v1=Soria", RING, LIST).all()).isEqualTo(4);
        }

        @Test
        void areSearchedAndTurnedByTheReader() {
            ListDrawing drawn = (ListDrawing) seen("v1", finding("ZAM", 1, null), DATASETS, LIST);
            assertThat(drawn.all()).isEqualTo(2);
            assertThat(drawn.lines()).extracting(ListDrawing.Line::text).containsExactly("Zamora: 40.0 l");
            assertThat(drawn.trail().steps()).extracting("words").last().isEqualTo("Holding “ZAM”");
            assertThat(((ListDrawing) seen("v1", finding(null, 0, 3), DATASETS, LIST)).lines())
                    .hasSize(3);
        }

        @Test
        void ofValuesHaveFiguresAndTheirOwnOrder() {
            ListDrawing drawn = draw(ListDrawing.class, "", EACH);
            assertThat(drawn.lines())
                    .extracting(ListDrawing.Line::text)
                    .containsExactly("Benavente", "Zamora", "Soria", "Burgos");
            assertThat(drawn.lines().get(2).below()).isEqualTo("65 of 4");
            assertThat(draw(ListDrawing.class, "", EACH + ", 'order': {'by': 'town', 'down': true}")
                            .lines())
                    .extracting(ListDrawing.Line::text)
                    .containsExactly("Zamora", "Soria", "Burgos", "Benavente");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "'by': 'litres'|'by': 'gone'|no column “gone”",
                    "'pick': 'town'|'pick': 'gone'|no column “gone”",
                    "'of': 'litres'|'of': 'gone'|no column “gone”"
                })
        void whoseColumnHasGoneSaySo(String was, String now, String why) {
            assertThat(misfit(LIST.replace(was.strip(), now))).contains(why).endsWith(".");
        }

        @Test
        void whoseFigureHasGoneSaySo() {
            assertThat(misfit(EACH + ", 'order': {'by': 'mean of litres', 'down': true}"))
                    .contains("none of the figures of this list");
        }
    }

    @Nested
    @DisplayName("Details")
    class OfDetails {

        @Test
        void tellAboutTheFirstWhereNothingIsPicked() {
            DetailsDrawing drawn = draw(DetailsDrawing.class, "", DETAILS);
            assertThat(drawn.name()).isEqualTo("Benavente");
            assertThat(drawn.number()).isOne();
            assertThat(drawn.all()).isEqualTo(4);
            assertThat(drawn.after()).isEqualTo("Burgos");
            assertThat(drawn.figures().get(0).text()).isEqualTo("100");
        }

        @Test
        void tellAboutWhatIsPicked() {
            DetailsDrawing drawn = draw(DetailsDrawing.class, "p.v1=Soria", RING, DETAILS);
            assertThat(drawn.name()).isEqualTo("Soria");
            assertThat(drawn.all()).isOne();
            assertThat(drawn.figures().get(0).text()).isEqualTo("65");
            assertThat(drawn.figures().get(0).line()).isNotEmpty();
            assertThat(drawn.groups().get(0).entries())
                    .extracting(DetailsDrawing.Entry::words, DetailsDrawing.Entry::text)
                    .contains(
                            Assertions.tuple("product", "still, warm"),
                            Assertions.tuple("litres", "5 to 30"),
                            Assertions.tuple("day", "10 Jan 2025, 10 Apr 2025, 10 Jan 2026, 10 Feb 2026"));
        }

        @Test
        void areTurnedToAnotherAndBackToTheFirstWhenThatIsNotLeft() {
            DetailsDrawing zamora = (DetailsDrawing) seen("v1", finding("Zamora", 0, null), DATASETS, DETAILS);
            assertThat(zamora.figures().get(0).text()).isEqualTo("100");
            assertThat(zamora.before()).isEqualTo("Soria");
            assertThat(zamora.after()).isNull();
            DetailsDrawing gone = (DetailsDrawing) seen("v1", finding("Atlantis", 0, null), DATASETS, DETAILS);
            assertThat(gone.gone()).isTrue();
            assertThat(gone.figures()).isEmpty();
        }

        @Test
        void listTheRowsOfTiedDatasetsEitherWayOrSayThatNoTieLeadsThere() {
            LoadedDataset visits = new LoadedDataset(
                    2,
                    "Visits",
                    csv(
                            "where,on,note",
                            "Soria,2026-01-02,first",
                            "Soria,2026-02-02,second",
                            "Zamora,2026-02-03,other"),
                    null,
                    Map.of(),
                    About.NONE,
                    Map.of(),
                    List.of(),
                    List.of(new Tie("where", 1, "town")),
                    Boundaries.NONE);
            LoadedDataset loose = new LoadedDataset(3, "Loose", csv("a", "x"), null, Map.of());
            Map<Long, LoadedDataset> all = Map.of(1L, KindsTest.SALES, 2L, visits, 3L, loose);
            Datasets datasets = id -> Datasets.Found.of(Optional.ofNullable(all.get(id)));
            DetailsDrawing drawn =
                    (DetailsDrawing) seen("v1", finding("Soria", 0, null), datasets, DETAILS + ", 'tied': [2, 3]");
            assertThat(drawn.tied()).singleElement().satisfies(tied -> {
                assertThat(tied.words()).isEqualTo("Visits");
                assertThat(tied.all()).isEqualTo(2);
                assertThat(tied.rows())
                        .containsExactly(List.of("2 Feb 2026", "second"), List.of("2 Jan 2026", "first"));
            });
            assertThat(drawn.notes()).singleElement().asString().startsWith("No tie leads from town to Loose");
        }

        @Test
        void groupWhatTheyTellAndSayWhatHasGone() {
            DetailsDrawing drawn = draw(
                    DetailsDrawing.class,
                    "",
                    DETAILS
                            + ", 'groups': [{'title': 'Money', 'columns': ['euros', 'gone']}, {'columns': "
                            + "['product']}]");
            assertThat(drawn.groups()).extracting(DetailsDrawing.Told::title).containsExactly("Money", "");
            assertThat(drawn.notes()).containsExactly("There is no column “gone” any more.");
        }
    }

    @Nested
    @DisplayName("Keys")
    class OfKeys {

        private static final String KEY = "'type': 'key', 'of': 'v1'";

        @Test
        void sayWhatTheColoursOfAnotherVisualStandFor() {
            KeyDrawing drawn = draw(KeyDrawing.class, "", RING, KEY);
            assertThat(drawn.parts().get(0).key().colours())
                    .extracting("text")
                    .containsExactly("Benavente", "Zamora", "Soria");
            assertThat(draw(KeyDrawing.class, "", KindsTest.GRID, KEY)
                            .parts()
                            .get(0)
                            .key()
                            .colours())
                    .isNotEmpty();
            assertThat(draw(KeyDrawing.class, "", FIGURE, KEY).notes())
                    .singleElement()
                    .asString()
                    .contains("stand for nothing");
        }

        @Test
        void ofNothingOrOfAKeySaySo() {
            assertThat(misfit("'type': 'key'")).contains("Choose in the brief");
            assertThat(draw(MisfitDrawing.class, "", RING, "'type': 'key', 'of': 'v9'")
                            .why())
                    .contains("has gone");
            assertThat(draw(MisfitDrawing.class, "", "'type': 'key', 'of': 'v2'", "'type': 'key', 'of': 'v1'")
                            .why())
                    .contains("has gone");
            assertThat(misfit("'type': 'key', 'key': 'none'")).contains("The shared key “none” has gone");
        }

        @Test
        void goWithTheVisualThatTheyAreOf() {
            DashboardDocument document = document(RING, KEY, FIGURE);
            Removal.Removed removed = Removal.of(document.dashboard(), "v1");
            assertThat(removed.words()).contains("the key");
            DashboardDocument after = document.edit(removed.patch()).after();
            assertThat(after.dashboard().visuals()).containsOnlyKeys("v3");
        }
    }

    @Nested
    @DisplayName("Filters on the sheet, buttons and pictures")
    class OfControls {

        @Test
        void aFilterOnTheSheetGoesWithItsFilter() {
            DashboardDocument document = document("'type': 'filter', 'control': 'f1'", FIGURE);
            assertThat(draw(SheetFilterDrawing.class, "", "'type': 'filter', 'control': 'f1'")
                            .control())
                    .isEqualTo("f1");
            DashboardDocument after = document.edit(
                            Removal.of(document.dashboard(), "f1").patch())
                    .after();
            assertThat(after.dashboard().visuals()).containsOnlyKeys("v2");
            assertThat(document.dashboard().parts().controls())
                    .extracting("id", "keyed")
                    .contains(Assertions.tuple("f1", true), Assertions.tuple("n1", false));
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "javascript:alert(1)",
                    "data:text/html,x",
                    "//elsewhere.example",
                    "/\\\\elsewhere.example",
                    "JaVaScRiPt:x",
                    "https://a b"
                })
        void aButtonLeadsNowhereThatRuns(String address) {
            Assertions.assertThatThrownBy(
                            () -> document("'type': 'button', 'words': 'x', 'does': {'kind': 'ADDRESS', 'address': '"
                                    + address + "'}"))
                    .isInstanceOf(DashboardException.class)
                    .hasMessageContaining("/does/address");
        }

        @Test
        void aButtonLeadsToOtherDashboardsAndSites() {
            for (String address : List.of("/dashboards/9?f.f1=a", "https://example.org/x", "mailto:a@example.org"))
                assertThat(draw(
                                        ButtonDrawing.class,
                                        "",
                                        "'type': 'button', 'words': 'x', 'does': {'kind': 'ADDRESS', 'address': '"
                                                + address + "'}")
                                .why())
                        .isNull();
            assertThat(draw(ButtonDrawing.class, "", "'type': 'button', 'words': 'x', 'does': {'kind': 'ADDRESS'}")
                            .why())
                    .contains("does nothing yet");
        }

        @Test
        void aPictureAsksWhatItShows() {
            String image = "'type': 'picture', 'image': '" + "a1".repeat(32) + "'";
            assertThat(draw(PictureDrawing.class, "", image).wanting()).contains("what this picture shows");
            assertThat(draw(PictureDrawing.class, "", image + ", 'shows': 'A tap'")
                            .wanting())
                    .isNull();
            assertThat(draw(PictureDrawing.class, "", "'type': 'picture'").wanting())
                    .contains("no picture here yet");
        }

        @Test
        void picturesOfValuesShowTheOneThatIsShown() {
            String image = "a1".repeat(32);
            String each =
                    "'type': 'picture', 'each': {'dataset': 1, 'column': 'town', 'shots': {'Zamora': {'image': '%s'}, "
                                    .formatted(image)
                            + "'Burgos': {'image': '%s', 'shows': 'A tap in Burgos'}}}".formatted(image);
            PictureDrawing all = draw(PictureDrawing.class, "", RING, each);
            assertThat(all.image()).isNull();
            assertThat(all.wanting()).isEqualTo("Pick one town to see its picture.");
            PictureDrawing zamora = draw(PictureDrawing.class, "p.v1=Zamora", RING, each);
            assertThat(zamora.image()).isEqualTo(image);
            assertThat(zamora.shows()).isEqualTo("Zamora");
            assertThat(zamora.title()).isEqualTo("Zamora");
            assertThat(zamora.wanting()).isNull();
            assertThat(draw(PictureDrawing.class, "p.v1=Burgos", RING, each).shows())
                    .isEqualTo("A tap in Burgos");
            PictureDrawing soria = draw(PictureDrawing.class, "p.v1=Soria", RING, each);
            assertThat(soria.image()).isNull();
            assertThat(soria.wanting()).isEqualTo("There is no picture of Soria yet.");
            assertThat(document(each).dashboard().visuals().values())
                    .singleElement()
                    .satisfies(v -> assertThat(Kinds.ALL.of(v).files(v)).containsExactly(image));
            Brief brief = new BriefWriter(document(each).dashboard(), DATASETS, new Choices(new InMemoryEngine()))
                    .write("v1");
            assertThat(brief.text()).contains("The picture of the town in Sales that is shown: 2 of 4 have one");
        }

        @Test
        void everyOptionOfTheirSlotsHolds() {
            DashboardDocument document = document(
                    RING,
                    "'type': 'key', 'of': 'v1'",
                    "'type': 'button', 'words': 'x', 'does': {'kind': 'CLEAR'}",
                    "'type': 'filter', 'control': 'f1'",
                    "'type': 'picture'",
                    "'type': 'picture', 'each': {'dataset': 1, 'column': 'town'}");
            BriefWriter writer = new BriefWriter(document.dashboard(), DATASETS, new Choices(new InMemoryEngine()));
            for (String id : List.of("v2", "v3", "v4", "v5"))
                writer.write(id).parts().stream()
                        .filter(Brief.Control.class::isInstance)
                        .map(Brief.Control.class::cast)
                        .filter(slot -> slot.kind() == Brief.Kind.CHOSEN)
                        .forEach(slot -> slot.options()
                                .forEach(option -> assertThat(document.edit(DocumentJson.write(List.of(Map.of(
                                                        "op", "add", "path", slot.path(), "value", option.value()))))
                                                .words())
                                        .isNotEqualTo("a change")));
        }
    }
}
