package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.dashboard.Fixture.DATASETS;
import static sarnik.dashboard.Fixture.ENGINE;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.brief.Choices;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.narrow.ValueCounts;
import sarnik.place.Gazetteer;
import sarnik.place.Place;
import sarnik.query.RowTrail;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Question;
import sarnik.visual.figure.FigureDrawing;

@DisplayName("Each kind of filter")
class FilterKindsTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 15);

    /** Figures of refills (v3) and of kiosks (v5) beside what the fixture has, and these filters instead of its own. */
    private static DashboardDocument with(String filters, String names) {
        String figure =
                "{'type': 'figure', 'page': 'p1', 'at': {'x': 0, 'y': %d, 'w': 6, 'h': 4}, 'title': '', 'dataset': %d, "
                        + "'measure': {'summary': 'COUNT'}}";
        return DashboardDocument.parse(("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}, "
                        + "'p2': {'title': 'More', 'order': 2}}, 'links': {}, 'filters': {" + filters + "}, 'names': {"
                        + names
                        + "}, 'visuals': {'v1': " + figure.formatted(0, 1) + ", 'v2': " + figure.formatted(4, 2) + "}}")
                .replace('\'', '"'));
    }

    private static String filter(String id, String type, long dataset, String column, String more) {
        return "'%s': {'type': '%s', 'page': 'p1', 'order': 1, 'dataset': %d, 'title': ''%s%s}"
                .formatted(id, type, dataset, column == null ? "" : ", 'column': '" + column + "'", more);
    }

    private static StateReader.Read read(DashboardDocument document, String state) {
        return StateReader.read(state, document.dashboard(), DATASETS, Kinds.ALL);
    }

    private static Drawing draw(DashboardDocument document, String state, String visual) {
        return new PageDrawer(
                        document.dashboard(),
                        read(document, state).state(),
                        new Sources(DATASETS, name -> Optional.empty(), TODAY),
                        new Answerer(ENGINE),
                        Map.of())
                .draw(visual);
    }

    private static String rows(DashboardDocument document, String state, String visual) {
        return ((FigureDrawing) draw(document, state, visual)).text();
    }

    private static Narrowing narrowing(DashboardDocument document, String state) {
        return new Narrowing(document.dashboard(), read(document, state).state(), DATASETS, Kinds.ALL, TODAY, ENGINE);
    }

    private static String showing(DashboardDocument document, String state) {
        return narrowing(document, state).nowShowing().get(0).words();
    }

    private static FilterOffer offer(DashboardDocument document, String id) {
        return FilterOffer.of(document.dashboard().filters().get(id), Fixture.scene(DATASETS), Kinds.ALL);
    }

    @Nested
    @DisplayName("Days")
    class OfDays {
        private final DashboardDocument days = with(filter("f1", "dates", 2, "day", ""), "");

        @ParameterizedTest
        @CsvSource({
            "2026-01, 3",
            "2026-01..2026-02, 4",
            "2026, 6",
            "..2026-01-01, 2",
            "2026-03-02, 1",
            "~last.2.month, 3",
            "~this.month, 2",
            "~before.month, 1",
            "~todate.year, 6",
            "~last.14.day, 1",
            "~this.quarter, 6"
        })
        void areKept(String said, String rows) {
            assertThat(rows(days, "f.f1=" + said, "v2")).isEqualTo(rows);
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "~last.0.day",
                    "~last.month",
                    "~this.hour",
                    "~last.99999.day",
                    "2026-13",
                    "soon",
                    "2026-02-30"
                })
        void thatCannotBeReadAreSaid(String said) {
            assertThat(read(days, "f.f1=" + said).state().text()).isEmpty();
            assertThat(read(days, "f.f1=" + said).misfits())
                    .singleElement()
                    .asString()
                    .contains("date range");
        }

        @Test
        void ofAPeriodAreSaidWithTheDayTheyAreCountedFrom() {
            assertThat(showing(days, "f.f1=~last.30.day"))
                    .isEqualTo("day in the last 30 days counted from today, 15 March 2026 (from 14 February 2026 to 15 "
                            + "March 2026)");
            DashboardDocument newest = with(filter("f1", "dates", 2, "day", ", 'newest': true"), "");
            assertThat(showing(newest, "f.f1=~last.1.day"))
                    .startsWith("day in the newest day counted from the newest day, 2 March 2026");
            assertThat(rows(newest, "f.f1=~last.2.day", "v2")).isEqualTo("2");
        }

        @ParameterizedTest
        @CsvSource({"SINCE, 2026-02, 3", "UNTIL, 2026-01, 3", "SINCE, 2026-02..2026-02, 1"})
        void ofOneEndStandAlone(String end, String said, String rows) {
            DashboardDocument one = with(filter("f1", "dates", 2, "day", ", 'end': '" + end + "'"), "'f1': 'since'");
            assertThat(rows(one, "since=" + said, "v2")).isEqualTo(rows);
        }

        @ParameterizedTest
        @CsvSource({"0001-01-01..0001-12-31, 0", "..9999-12-31, 6", "9999.., 0"})
        void atTheEndsOfTheCalendar(String said, String rows) {
            assertThat(rows(days, "f.f1=" + said, "v2")).isEqualTo(rows);
        }
    }

    @Nested
    @DisplayName("Thresholds and the newest")
    class Resting {

        @Test
        void groupsFallAwayAsTheBoundRises() {
            DashboardDocument bound = with(
                    filter("f1", "threshold", 2, "kiosk", ", 'measure': {'summary': 'SUM', 'column': 'litres'}"), "");
            assertThat(List.of("0", "31", "43", "101", "1001").stream()
                            .map(b -> rows(bound, "f.f1=" + b, "v2"))
                            .toList())
                    .containsExactly("6", "4", "2", "1", "0");
            FilterOffer offer = offer(bound, "f1");
            assertThat(List.of(offer.from(), offer.to())).containsExactly("30", "1000");
        }

        @Test
        void groupsAreMeasuredAsTheOtherFiltersLeaveThem() {
            DashboardDocument both = with(
                    filter("f1", "threshold", 2, "kiosk", ", 'measure': {'summary': 'SUM', 'column': 'litres'}") + ", "
                            + filter("f2", "choice", 2, "product", ""),
                    "");
            assertThat(rows(both, "f.f1=30&f.f2=still", "v2")).isEqualTo("3");
            assertThat(rows(both, "f.f1=30&f.f2=warm", "v2")).isEqualTo("0");
        }

        @Test
        void theOtherSideIsKeptWhereTheBoundIsAMost() {
            DashboardDocument most = with(filter("f1", "threshold", 2, "litres", ", 'most': true"), "");
            assertThat(rows(most, "f.f1=20", "v2")).isEqualTo("3");
        }

        @Test
        void theNewestOfAllAndOfEach() {
            assertThat(rows(with(filter("f1", "newest", 2, "day", ""), ""), "f.f1=on", "v2"))
                    .isEqualTo("1");
            DashboardDocument each = with(
                    filter("f1", "newest", 2, "day", ", 'by': 'kiosk'") + ", "
                            + filter("f2", "choice", 2, "product", ""),
                    "");
            assertThat(rows(each, "f.f1=on", "v2")).isEqualTo("4");
            assertThat(rows(each, "", "v2")).isEqualTo("6");
            assertThat(rows(each, "f.f1=on&f.f2=still", "v2"))
                    .as("the newest of what others leave")
                    .isEqualTo("4");
            assertThat(showing(each, "f.f1=on")).isEqualTo("Only the newest of each kiosk, by day");
        }

        @Test
        void whatIsNoDeviceIsSaid() {
            DashboardDocument odd = with(filter("f1", "newest", 2, "day", ", 'by': 'litres'"), "");
            assertThat(draw(odd, "f.f1=on", "v2")).isInstanceOf(MisfitDrawing.class);
            assertThat(((MisfitDrawing) draw(odd, "f.f1=on", "v2")).why()).contains("has a name or a code");
        }
    }

    @Nested
    @DisplayName("Places")
    class OfPlaces {
        private final DashboardDocument places = with(filter("f1", "place", 1, "@place", ""), "");

        @Test
        void aroundAPointAndInAnExtentNarrowAllThatIsPlaced() {
            Place soria = Gazetteer.shipped().search("Soria", 1).get(0);
            String around = "f.f1=~around." + soria.lon() + "_" + soria.lat() + "_%d.Soria";
            assertThat(rows(places, around.formatted(5000), "v1")).isEqualTo("1");
            assertThat(rows(places, around.formatted(5000), "v2")).isEqualTo("2");
            assertThat(rows(places, around.formatted(400_000), "v1")).isEqualTo("3");
            assertThat(showing(places, around.formatted(5000))).isEqualTo("place within 5 km of Soria");
            assertThat(rows(places, "f.f1=~box.-3_41_-2_42", "v1")).isEqualTo("1");
        }

        @Test
        void chosenOnesAreKeptAndStrangersSaid() {
            String soria = Fixture.place(1);
            assertThat(rows(places, "f.f1=" + soria, "v2")).isEqualTo("2");
            assertThat(read(places, "f.f1=g1,g2").misfits())
                    .singleElement()
                    .asString()
                    .contains("g1 and g2");
        }

        @ParameterizedTest
        @ValueSource(
                strings = {"~around.1_2.x", "~around.200_0_5.x", "~around", "~near.5.x", "~class.l1.none", "~box.1_2_3"
                })
        void nonsenseIsSaid(String said) {
            assertThat(read(places, "f.f1=" + said).state().text()).isEmpty();
            assertThat(read(places, "f.f1=" + said).misfits())
                    .singleElement()
                    .asString()
                    .contains("area, place or extent");
        }

        @ParameterizedTest
        @ValueSource(strings = {"Soria", "A.B. (1.5)", "10 de Abril, 2.5", "Łódź & co=1"})
        void aNameOfAnyLettersRoundTrips(String name) {
            String text = new Value.Around(-2.5, 41.25, 5000, name).text();
            assertThat(Texts.around(text).map(Value.Around::name)).contains(name);
        }
    }

    @Nested
    @DisplayName("The terms")
    class OnTerms {

        @Test
        void somethingHoldsAtFirstUntilEverythingIsAskedFor() {
            DashboardDocument first =
                    with(filter("f1", "choice", 2, "product", ", 'terms': {'first': 'still'}"), "'f1': 'product'");
            assertThat(rows(first, "", "v2")).isEqualTo("4");
            assertThat(rows(first, "product=warm", "v2")).isEqualTo("2");
            assertThat(rows(first, "product=*", "v2")).isEqualTo("6");
            assertThat(read(first, "product=still").state().text()).isEmpty();
            assertThat(read(first, "product=*").state().text()).isEqualTo("f.f1=*");
            assertThat(showing(first, "")).isEqualTo("product is still");
        }

        @Test
        void nothingIsShownBeforeWhatIsRequired() {
            DashboardDocument required =
                    with(filter("f1", "choice", 2, "product", ", 'terms': {'required': true}"), "");
            assertThat(((MisfitDrawing) draw(required, "", "v2")).why())
                    .isEqualTo("Choose “product” first: nothing is shown before that.");
            assertThat(rows(required, "", "v1")).as("what it does not reach").isEqualTo("4");
            assertThat(rows(required, "f.f1=warm", "v2")).isEqualTo("2");
        }

        @Test
        void rowsOfAnotherDatasetFollowWhereItGoesAcross() {
            DashboardDocument across = with(filter("f1", "choice", 2, "product", ", 'terms': {'across': true}"), "");
            assertThat(rows(across, "f.f1=warm", "v1")).isEqualTo("2");
            List<RowTrail.Step> steps =
                    ((FigureDrawing) draw(across, "f.f1=warm", "v1")).trail().steps();
            assertThat(steps.get(steps.size() - 1).words())
                    .isEqualTo(
                            "product is warm, by way of code = kiosk of Refills (all rows of Kiosks have a partner)");
            assertThat(rows(with(filter("f1", "choice", 2, "product", ""), ""), "f.f1=warm", "v1"))
                    .as("as older dashboards have it")
                    .isEqualTo("4");
        }

        @Test
        void allPagesAreNarrowedWhereItReachesThem() {
            DashboardDocument all = with(filter("f1", "choice", 2, "product", ", 'terms': {'everywhere': true}"), "");
            assertThat(all.dashboard().filtersOf("p2")).containsExactly("f1");
            assertThat(all.dashboard().filtersOn("p2")).isEmpty();
            assertThat(Removal.of(all.dashboard(), "p2").patch()).doesNotContain("filters");
        }

        @Test
        void takingAFilterAwayTakesWhatIsSaidOfItAlong() {
            DashboardDocument two = with(
                    filter("f1", "choice", 2, "product", "") + ", "
                            + filter("f2", "choice", 2, "kiosk", ", 'terms': {'under': ['f1']}"),
                    "'f1': 'product'");
            DashboardDocument after =
                    two.edit(Removal.of(two.dashboard(), "f1").patch()).after();
            assertThat(after.dashboard().names()).isEmpty();
            assertThat(after.dashboard().filters().get("f2").how().dependsOn()).isEmpty();
        }
    }

    @Nested
    @DisplayName("Values are counted")
    class Counted {
        private final DashboardDocument two = with(
                filter("f1", "choice", 2, "product", ", 'sequence': ['warm']") + ", "
                        + filter("f2", "choice", 2, "kiosk", ", 'terms': {'under': ['f1']}"),
                "");

        private List<String> values(String state, String id, String find, String... chosen) {
            return ValueCounts.of(
                            two.dashboard(), narrowing(two, state), ENGINE, id, find, Set.of(chosen), offer(two, id))
                    .orElseThrow()
                    .values()
                    .stream()
                    .map(v -> v.value() + " " + v.rows())
                    .toList();
        }

        @Test
        void asTheOthersLeaveThemAndInTheAuthorsOrder() {
            assertThat(values("", "f1", "")).containsExactly("warm 2", "still 4");
            assertThat(values("f.f2=K1", "f1", "")).containsExactly("warm 1", "still 1");
            assertThat(values("f.f1=still", "f1", "")).as("not by itself").containsExactly("warm 2", "still 4");
        }

        @Test
        void oneThatDependsOnAnotherOffersOnlyWhatIsLeft() {
            assertThat(values("f.f1=warm", "f2", "")).containsExactly("K1 1", "K3 1");
        }

        @Test
        void lettersFindThem() {
            assertThat(values("", "f1", "ARM")).containsExactly("warm 2");
            assertThat(values("", "f1", "x")).isEmpty();
            assertThat(values("", "f2", "", "K4")).startsWith("K4 1");
        }
    }

    @Nested
    @DisplayName("Names in addresses")
    class Named {

        @Test
        void areReadAndStrangersAreSaid() {
            DashboardDocument named = with(filter("f1", "choice", 2, "product", ""), "'f1': 'product', 'p2': 'more'");
            StateReader.Read read = read(named, "product=still&page=more&utm=1&x");
            assertThat(read.state().text()).isEqualTo("f.f1=still&g.page=p2");
            assertThat(read.misfits())
                    .containsExactly(
                            "The address says something of “utm”, which this dashboard does not know; it is left out.");
        }

        @ParameterizedTest
        @CsvSource({"'Product', small letters", "'page', something else", "'9a', small letters"})
        void thatLeadAstrayAreRefused(String name, String why) {
            DashboardDocument bare = with(filter("f1", "choice", 2, "product", ""), "");
            assertThatThrownBy(() -> bare.edit("[{\"op\":\"add\",\"path\":\"/names/f1\",\"value\":\"" + name + "\"}]"))
                    .isInstanceOf(DashboardException.class)
                    .hasMessageContaining(why);
        }

        @Test
        void standForOnePartEach() {
            DashboardDocument one = with(
                    filter("f1", "choice", 2, "product", "") + ", " + filter("f2", "dates", 2, "day", ""), "'f1': 'a'");
            assertThatThrownBy(() -> one.edit("[{\"op\":\"add\",\"path\":\"/names/f2\",\"value\":\"a\"}]"))
                    .hasMessageContaining("already");
        }
    }

    @Test
    void rulesAreTurnedOnByName() {
        DashboardDocument rules = with(
                filter(
                        "f1",
                        "rules",
                        2,
                        null,
                        ", 'rules': {'r1': {'name': 'Much', 'order': 2, 'rule': {'is': 'SQL', 'text': 'litres > 30'}}, "
                                + "'r2': {'name': 'Final', 'order': 1, 'rule': {'column': 'state', 'values': "
                                + "['final']}}}"),
                "");
        assertThat(rows(rules, "f.f1=r1", "v2")).isEqualTo("3");
        assertThat(rows(rules, "f.f1=r1,r2", "v2")).isEqualTo("2");
        assertThat(showing(rules, "f.f1=r1,r2")).isEqualTo("Only “Final” and “Much”");
        assertThat(read(rules, "f.f1=r9").misfits()).singleElement().asString().contains("r9");
    }

    @Test
    void everyProposedFilterHoldsAndHasASentence() {
        Dashboard empty = with("", "").dashboard();
        List<Proposals.Added> proposals = new Proposals(empty, "p1", () -> "x1")
                .answer(Question.LET_CHOOSE, Fixture.REFILLS).stream()
                        .filter(added -> added.id().startsWith("f"))
                        .toList();
        assertThat(proposals).hasSizeGreaterThan(8);
        for (Proposals.Added added : proposals) {
            DashboardDocument after =
                    with("", "").edit(DocumentJson.write(added.ops())).after();
            assertThat(offer(after, added.id()).misfit()).as(added.words()).isNull();
            assertThat(new BriefWriter(after.dashboard(), DATASETS, new Choices(ENGINE))
                            .write(added.id())
                            .text())
                    .as(added.words())
                    .startsWith("The reader ");
        }
    }
}
