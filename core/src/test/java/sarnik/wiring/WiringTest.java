package sarnik.wiring;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.DocumentJson;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.Sources;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Tie;
import sarnik.narrow.FilterScene;
import sarnik.query.InMemoryEngine;
import sarnik.state.ReaderState;
import sarnik.wiring.Finding.Kind;
import sarnik.wiring.Wiring.Course;

@DisplayName("The wiring and its checker")
class WiringTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 15);
    private static final InMemoryEngine ENGINE = new InMemoryEngine();

    private static LoadedDataset dataset(long id, String name, List<Tie> ties, String... rows) {
        return new LoadedDataset(
                id, name, csv(rows), null, Map.of(), About.NONE, Map.of(), List.of(), ties, Boundaries.NONE);
    }

    /** Kiosks 1, refills 2 tied to them, of which one row in three has no kiosk; weather 3, tied to nothing. */
    private static final Map<Long, LoadedDataset> ALL = Map.of(
            1L, dataset(1, "Kiosks", List.of(), "code,town", "K1,Soria", "K2,Zamora", "K3,Burgos", "K4,Soria"),
            2L,
                    dataset(
                            2,
                            "Refills",
                            List.of(new Tie("kiosk", 1, "code")),
                            "kiosk,product,litres",
                            "K1,still,1",
                            "K2,warm,2",
                            "K9,still,3"),
            3L, dataset(3, "Weather", List.of(), "station,degrees", "A,10", "B,20"));

    private static final Datasets DATASETS = id -> Datasets.Found.of(Optional.ofNullable(ALL.get(id)));

    private static final String BARS =
            "'v1': {'type': 'bars', 'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 6, 'h': 4}, 'title': 'Towns', "
                    + "'dataset': 1, 'category': 'town', 'measure': {'summary': 'COUNT'}%s}";
    private static final String FIGURE =
            "'%s': {'type': 'figure', 'page': '%s', 'at': {'x': 6, 'y': 0, 'w': 6, 'h': 4}, 'title': '%s', "
                    + "'dataset': %d, 'measure': {'summary': 'COUNT'}}";

    private static DashboardDocument with(String visuals, String more) {
        return DashboardDocument.parse(
                ("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': 'One', 'order': 1}, 'p2': {'title': 'Two', "
                                + "'order': 2}}, "
                                + "'visuals': {" + visuals + "}, " + more + "}")
                        .replace('\'', '"'));
    }

    private static String refills() {
        return BARS.formatted("") + ", " + FIGURE.formatted("v2", "p1", "Refills", 2);
    }

    private static final String NOTHING = "'filters': {}, 'links': {}";

    private static List<Finding> check(DashboardDocument document) {
        PageDrawer drawer = new PageDrawer(
                document.dashboard(),
                ReaderState.NOTHING,
                new Sources(DATASETS, name -> Optional.empty(), TODAY),
                new Answerer(ENGINE),
                Map.of());
        return Checker.check(document.dashboard(), DATASETS, ENGINE, new FilterScene(TODAY, DATASETS, ENGINE), drawer);
    }

    private static Optional<Finding> find(DashboardDocument document, Kind kind) {
        return check(document).stream().filter(f -> f.kind() == kind).findFirst();
    }

    @Test
    void drawsWhatReachesWhat() {
        Wiring wiring = Wiring.of(
                with(
                                refills(),
                                "'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 2, "
                                        + "'column': 'product', 'title': '', 'terms': {'across': true}}}, "
                                        + "'links': {'k1': {'from': 'v1', 'across': true}, 'k2': {'from': 'v1', "
                                        + "'on': 'OPENED', 'effect': 'GO', 'part': 'p2'}}, "
                                        + "'parameters': {'n1': {'name': 'Shown', 'order': 1, 'value': 0, 'type': "
                                        + "'WORD', 'options': [{'words': 'a', 'value': 'town'}], 'at': "
                                        + "['/visuals/v1/category']}}")
                        .dashboard(),
                DATASETS);
        assertThat(wiring.parts())
                .extracting(Wiring.Part::id)
                .containsExactlyInAnyOrder("d1", "d2", "p1", "p2", "v1", "v2", "f1", "n1");
        assertThat(wiring.wires())
                .extracting(w -> w.from() + " " + w.course() + " " + w.to())
                .contains(
                        "d1 TIE d2",
                        "d1 RESTS v1",
                        "d2 RESTS f1",
                        "f1 NARROWS v1",
                        "f1 NARROWS v2",
                        "v1 LINK v2",
                        "v1 LINK p2",
                        "n1 DRIVES v1");
        assertThat(wiring.wires())
                .filteredOn(w -> w.course() == Course.TIE)
                .extracting(Wiring.Wire::words)
                .containsExactly("code = kiosk");
    }

    @Test
    void nothingIsSaidOfADashboardThatHolds() {
        DashboardDocument whole = with(
                BARS.formatted(""),
                "'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': 'town', "
                        + "'title': ''}}, 'links': {}");
        assertThat(check(whole)).isEmpty();
    }

    @Test
    void aLinkThatChangesNothingIsMendedWhereATieLeads() {
        DashboardDocument document = with(refills(), "'filters': {}, 'links': {'k1': {'from': 'v1'}}");
        Finding finding = find(document, Kind.REACHES_NOTHING).orElseThrow();
        assertThat(finding.sentence())
                .isEqualTo("What is picked on “Towns” changes nothing: no tie leads from its column to Refills.");
        DashboardDocument mended =
                document.edit(DocumentJson.write(finding.mend())).after();
        assertThat(find(mended, Kind.REACHES_NOTHING)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "REACHES_NOTHING | 'filters': {'f1': {'type': 'choice', 'page': 'p2', 'order': 1, 'dataset': 1, "
                        + "'column': 'town', 'title': 'Town'}}, 'links': {} | The filter Town narrows no visual of "
                        + "its page.",
                "REACHES_NOTHING | 'filters': {}, 'links': {'k1': {'from': 'v1', 'effect': 'SET', 'part': 'n9'}} | "
                        + "leads to a part that has gone",
                "REACHES_NOTHING | 'filters': {}, 'links': {'k1': {'from': 'v2'}} | Nothing can be picked on “Refills”",
                "FEW_PARTNERS | 'filters': {}, 'links': {} | 1 of 3 rows of Refills find no partner in Kiosks by "
                        + "kiosk = code, such as K9",
                "LOOP | 'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': "
                        + "'town', 'title': 'Town'}}, 'links': {'k1': {'from': 'v1', 'effect': 'SET', 'part': "
                        + "'f1'}} | sets the filter Town, which narrows “Towns” itself",
                "TWO_ON_ONE_COLUMN | 'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, "
                        + "'column': 'town', 'title': 'A'}, 'f2': {'type': 'search', 'page': 'p1', 'order': 2, "
                        + "'dataset': 1, 'column': 'town', 'title': 'B'}}, 'links': {} | The filters A and "
                        + "B are about the same column",
                "UNUSED | 'filters': {}, 'links': {}, 'parameters': {'n1': {'name': 'Idle', 'order': 1, 'value': "
                        + "0}} | Nothing follows “Idle”.",
                "MISFIT | 'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': "
                        + "'gone', 'title': 'Town'}}, 'links': {} | The filter Town offers nothing",
                "MISFIT | 'filters': {'f1': {'type': 'dates', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': "
                        + "'town', 'title': 'Town'}}, 'links': {} | no longer holds dates",
            })
    void says(Kind kind, String more, String sentence) {
        Finding finding = find(with(refills(), more), kind).orElseThrow();
        assertThat(finding.sentence()).contains(sentence);
        if (!finding.mend().isEmpty()) {
            DashboardDocument mended = with(refills(), more)
                    .edit(DocumentJson.write(finding.mend()))
                    .after();
            assertThat(check(mended)).noneMatch(f -> f.sentence().equals(finding.sentence()));
        }
    }

    @Test
    void aRankOfTheWholeThatPicksEmptyIsSaid() {
        DashboardDocument document = with(
                BARS.formatted(", 'rank': {'end': 'TOP', 'count': 5, 'held': true}") + ", "
                        + BARS.formatted("")
                                .replace("'v1'", "'v3'")
                                .replace("'x': 0", "'x': 12")
                                .replace("Towns", "Others"),
                "'filters': {}, 'links': {'k1': {'from': 'v3'}}");
        assertThat(find(document, Kind.RANK_AND_FILTER).orElseThrow().sentence())
                .contains("“Towns” ranks the whole")
                .contains("fewer than five");
    }

    @Test
    void aRuleThatLeavesNoRowIsSaid() {
        DashboardDocument document =
                with(BARS.formatted(", 'rule': {'column': 'town', 'values': ['Nowhere']}"), NOTHING);
        assertThat(find(document, Kind.NO_ROW).orElseThrow().sentence()).contains("leaves no row of Kiosks");
    }

    @Test
    void whatHasNoTitleIsNamedByAPress() {
        DashboardDocument document = with(FIGURE.formatted("v1", "p1", "", 1), NOTHING);
        Finding finding = find(document, Kind.NO_LABEL).orElseThrow();
        assertThat(check(document.edit(DocumentJson.write(finding.mend())).after()))
                .isEmpty();
    }

    @Test
    void aHiddenPageThatNobodyGetsToIsShownByAPress() {
        DashboardDocument hidden = with(BARS.formatted(""), NOTHING)
                .edit("[{\"op\":\"add\",\"path\":\"/pages/p2/hidden\",\"value\":true}]")
                .after();
        Finding finding = find(hidden, Kind.PAGE_NOBODY_REACHES).orElseThrow();
        assertThat(check(hidden.edit(DocumentJson.write(finding.mend())).after()))
                .isEmpty();
        DashboardDocument named = hidden.edit("[{\"op\":\"add\",\"path\":\"/names/p2\",\"value\":\"two\"}]")
                .after();
        assertThat(find(named, Kind.PAGE_NOBODY_REACHES)).isEmpty();
    }

    @Test
    void filtersThatWaitForEachOtherAndPagesInACircleAreLoops() {
        DashboardDocument filters = with(
                refills(),
                "'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': 'town', "
                        + "'title': 'A', 'terms': {'under': ['f2']}}, "
                        + "'f2': {'type': 'choice', 'page': 'p1', 'order': 2, 'dataset': 1, 'column': 'code', "
                        + "'title': 'B', 'terms': {'under': ['f1']}}}, 'links': {}");
        assertThat(find(filters, Kind.LOOP).orElseThrow().sentence()).contains("each offer only what the other leaves");
        DashboardDocument pages = with(
                BARS.formatted("") + ", "
                        + BARS.formatted("").replace("'v1'", "'v3'").replace("'p1'", "'p2'"),
                "'filters': {}, 'links': {'k1': {'from': 'v1', 'effect': 'GO', 'part': 'p2'}, 'k2': {'from': 'v3', "
                        + "'effect': 'GO', 'part': 'p1'}}");
        assertThat(find(pages, Kind.LOOP).orElseThrow().sentence()).contains("“One” and “Two” lead to each other");
    }

    @Test
    void aDatasetThatHasGoneIsSaidAndNothingFails() {
        DashboardDocument gone = with(
                refills() + ", " + FIGURE.formatted("v9", "p1", "Gone", 99),
                "'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 99, 'column': 'a', "
                        + "'title': 'A'}}, 'links': {'k1': {'from': 'v1'}}");
        assertThat(check(gone))
                .anyMatch(f -> f.kind() == Kind.MISFIT && f.about().equals("v9"));
        assertThat(Wiring.of(gone.dashboard(), DATASETS).parts())
                .anyMatch(p -> p.id().equals("d99") && p.words().equals("a dataset that cannot be asked"));
    }
}
