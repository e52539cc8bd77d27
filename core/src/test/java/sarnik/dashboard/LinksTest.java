package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.Fixture.DATASETS;
import static sarnik.dashboard.Fixture.ENGINE;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.data.TieGraph;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.figure.FigureDrawing;

@DisplayName("Links: what is done here, and what follows there")
class LinksTest {

    /**
     * Bars of kiosks by status (v1) and of refills by product (v2), a map (v3), figures of kiosks (v4) and refills
     * (v5).
     */
    private static DashboardDocument with(String links) {
        return DashboardDocument.parse(
                ("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}, 'p2': {'title': 'More', "
                                + "'order': 2}}, "
                                + "'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 2, "
                                + "'column': 'product', 'title': ''}}, "
                                + "'parameters': {'n1': {'name': 'Which', 'order': 1, 'value': 0, 'type': 'TEXT'}}, "
                                + "'links': {"
                                + links + "}, 'visuals': {"
                                + "'v1': {'type': 'bars', 'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 6, 'h': 4}, "
                                + "'title': 'Status', 'dataset': 1, 'category': 'status', 'measure': "
                                + "{'summary': 'COUNT'}}, "
                                + "'v2': {'type': 'bars', 'page': 'p1', 'at': {'x': 6, 'y': 0, 'w': 6, 'h': 4}, "
                                + "'title': 'Product', 'dataset': 2, 'category': 'product', 'measure': "
                                + "{'summary': 'COUNT'}}, "
                                + "'v3': {'type': 'map', 'page': 'p1', 'at': {'x': 12, 'y': 0, 'w': 6, 'h': 4}, "
                                + "'title': 'Map', 'layers': {'l1': {'kind': 'SYMBOLS', 'order': 1, "
                                + "'dataset': 1, 'name': '', 'opacity': 1}}}, "
                                + "'v4': {'type': 'figure', 'page': 'p1', 'at': {'x': 0, 'y': 4, 'w': 6, 'h': 4}, "
                                + "'title': 'Kiosks', 'dataset': 1, 'measure': {'summary': 'COUNT'}}, "
                                + "'v5': {'type': 'figure', 'page': 'p1', 'at': {'x': 6, 'y': 4, 'w': 6, 'h': 4}, "
                                + "'title': 'Refills', 'dataset': 2, 'measure': {'summary': 'COUNT'}}, "
                                + "'v6': {'type': 'figure', 'page': 'p2', 'at': {'x': 0, 'y': 0, 'w': 6, 'h': 4}, "
                                + "'title': 'There', 'dataset': 2, 'measure': {'summary': 'COUNT'}}}}")
                        .replace('\'', '"'));
    }

    private static Drawing draw(String links, String state, String visual) {
        Dashboard dashboard = with(links).dashboard();
        return new PageDrawer(
                        dashboard,
                        StateReader.read(state, dashboard, DATASETS, Kinds.ALL).state(),
                        new Sources(DATASETS, name -> Optional.empty(), LocalDate.EPOCH),
                        new Answerer(ENGINE),
                        Map.of())
                .draw(visual);
    }

    private static String rows(String links, String state, String visual) {
        return ((FigureDrawing) draw(links, state, visual)).text();
    }

    @Test
    void ofAnOlderDashboardReachOnlyWhatTheColumnIsTiedTo() {
        String old = "'k1': {'from': 'v1'}";
        assertThat(rows(old, "p.v1=closed", "v4")).isEqualTo("1");
        assertThat(rows(old, "p.v1=closed", "v5")).isEqualTo("6");
    }

    @Test
    void thatGoAcrossReachTheRowsThatHaveAPartner() {
        String across = "'k1': {'from': 'v1', 'across': true}, 'k2': {'from': 'v2', 'across': true}";
        assertThat(rows(across, "p.v1=closed", "v5")).as("of the closed kiosk").isEqualTo("2");
        assertThat(rows(across, "p.v2=warm", "v4"))
                .as("kiosks with a warm refill")
                .isEqualTo("2");
        assertThat(rows(across, "p.v2=warm&p.v1=closed", "v4")).as("both").isEqualTo("1");
        assertThat(rows(across, "p.v1=closed&f.f1=warm", "v5")).isEqualTo("1");
        FigureDrawing figure = (FigureDrawing) draw(across, "p.v2=warm", "v4");
        assertThat(figure.trail().steps().get(1).words())
                .isEqualTo("Picked: warm, by way of code = kiosk of Refills (all rows of Kiosks have a partner)");
    }

    @Test
    void aPickCanBeTurnedRound() {
        String link = "'k1': {'from': 'v1', 'across': true}";
        assertThat(rows(link, "p.v1=!closed", "v4")).isEqualTo("3");
        assertThat(rows(link, "p.v1=!closed", "v5")).isEqualTo("4");
        Dashboard dashboard = with(link).dashboard();
        StateReader.Read read = StateReader.read("p.v1=!closed", dashboard, DATASETS, Kinds.ALL);
        assertThat(read.state().text()).isEqualTo("p.v1=!closed");
        PageDrawer drawer = Drawers.of(dashboard, read.state(), DATASETS);
        assertThat(drawer.lit().get("v1")).containsExactly("open");
        assertThat(new Narrowing(dashboard, read.state(), DATASETS, Kinds.ALL, LocalDate.EPOCH, ENGINE).nowShowing())
                .extracting(Narrowing.Showing::words)
                .containsExactly("Picked: all but closed");
    }

    @Test
    void whatIsInSightOfAMapNarrows() {
        String link = "'k1': {'from': 'v3', 'on': 'FRAMED'}";
        assertThat(rows(link, "e.v3=~box.-3_41_-2_42", "v4")).isEqualTo("1");
        assertThat(rows(link, "e.v3=~box.-3_41_-2_42", "v5")).isEqualTo("2");
        assertThat(rows(link, "p.v3=" + Fixture.place(1), "v4"))
                .as("a pick is not what it is about")
                .isEqualTo("4");
        assertThat(Narrowing.framed(with(link).dashboard(), "v3"))
                .contains("v4", "v5")
                .doesNotContain("v3", "v6");
        assertThat(StateReader.read("e.v3=~box.-3_41_-2_42", with("").dashboard(), DATASETS, Kinds.ALL)
                        .misfits())
                .singleElement()
                .asString()
                .contains("nothing follows");
    }

    @Test
    void nothingIsShownBeforeAPickWhereTheAuthorSaysSo() {
        String link = "'k1': {'from': 'v1', 'to': ['v4'], 'asks': true}";
        assertThat(((MisfitDrawing) draw(link, "", "v4")).why())
                .isEqualTo("Pick something on “Status”: what belongs to it is shown here.");
        assertThat(rows(link, "p.v1=open", "v4")).isEqualTo("3");
        assertThat(rows(link, "", "v5")).isEqualTo("6");
    }

    @Test
    void whatAPageIsGoneToWithIsThere() {
        String link = "'k1': {'from': 'v2', 'effect': 'GO', 'part': 'p2'}";
        assertThat(rows(link, "p.v2=warm", "v6")).isEqualTo("2");
        assertThat(rows(link, "p.v2=warm", "v5")).isEqualTo("6");
    }

    @Test
    void whatIsCarriedFromAnotherDashboardFindsItsFilterOrItsPick() {
        Dashboard dashboard = with("").dashboard();
        assertThat(StateReader.read("carry.2.product=warm", dashboard, DATASETS, Kinds.ALL)
                        .state()
                        .text())
                .isEqualTo("f.f1=warm");
        assertThat(StateReader.read("carry.1.status=open", dashboard, DATASETS, Kinds.ALL)
                        .state()
                        .text())
                .isEqualTo("p.v1=open");
        assertThat(StateReader.read("carry.1.phone=0600", dashboard, DATASETS, Kinds.ALL)
                        .misfits())
                .singleElement()
                .asString()
                .contains("nothing here is about phone");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'from': 'v1' | When a status is picked here, every other visual is narrowed",
                "'from': 'v1', 'to': ['v4'], 'asks': true | When a status is picked here, the figure",
                "'from': 'v1', 'on': 'HOVERED', 'effect': 'LIGHT' | When the pointer rests on a status here, what "
                        + "belongs to it is lit in every other visual.",
                "'from': 'v1', 'effect': 'FLY', 'to': ['v3'] | When a status is picked here, “Map” flies there.",
                "'from': 'v1', 'effect': 'SET', 'part': 'n1' | When a status is picked here, Which takes its value.",
                "'from': 'v1', 'on': 'OPENED', 'effect': 'GO', 'part': 'p2' | When a status is opened here, the "
                        + "page “More” is gone to with it.",
            })
    void isASentence(String link, String sentence) {
        DashboardDocument document = with("'k1': {" + link + "}");
        String text = new BriefWriter(document.dashboard(), DATASETS, new Choices(ENGINE))
                .write("v1")
                .text();
        assertThat(text)
                .contains(
                        sentence.replace("the figure", "“Kiosks” is narrowed, and nothing is shown there until then."));
    }

    @Test
    void whereNoTieLeadsTheAuthorIsTold() {
        String text = new BriefWriter(with("'k1': {'from': 'v1'}").dashboard(), DATASETS, new Choices(ENGINE))
                .write("v1")
                .text();
        assertThat(text).contains("rows of Refills do not follow: no tie leads there from Kiosks");
        assertThat(text).contains("A tie of “kiosk” to “code” of Kiosks would serve");
    }

    @Test
    void everyEffectThatIsOfferedHolds() {
        DashboardDocument document = with("'k1': {'from': 'v1'}");
        Brief brief = new BriefWriter(document.dashboard(), DATASETS, new Choices(ENGINE).with(Map.of(7L, "Other")))
                .write("v1");
        List<Brief.Control> controls = brief.parts().stream()
                .filter(Brief.Control.class::isInstance)
                .map(Brief.Control.class::cast)
                .filter(c -> c.path().startsWith("/links/"))
                .toList();
        assertThat(controls).hasSizeGreaterThan(3);
        for (Brief.Control control : controls)
            for (Brief.Option option : control.options()) {
                String patch = DocumentJson.write(
                        List.of(Map.of("op", "add", "path", control.path(), "value", option.value())));
                DashboardDocument after = document.edit(patch).after();
                assertThat(new BriefWriter(after.dashboard(), DATASETS, new Choices(ENGINE))
                                .write("v1")
                                .text())
                        .as(option.text())
                        .isNotBlank();
            }
    }

    @Test
    void columnsThatMeanTheSameAreKnownByOneName() {
        Map<String, String> means = Narrowing.meanings(with("").dashboard(), Kinds.ALL, DATASETS);
        assertThat(means).containsEntry("v3", "@place").containsEntry("v1", "1.status");
        TieGraph graph = new TieGraph(List.of(1L, 2L), DATASETS);
        assertThat(graph.meaning(2, "kiosk"))
                .isEqualTo(graph.meaning(1, "code"))
                .isEqualTo("1.code");
        assertThat(graph.way(2, 1).orElseThrow()).hasSize(1);
        assertThat(graph.way(2, 9)).isEmpty();
    }

    @Test
    void aCopyHasAllLinksOfItsOwnAndARemovalTakesThoseThatSetWhatGoes() {
        DashboardDocument document = with("'k1': {'from': 'v1'}, 'k2': {'from': 'v1', 'effect': 'SET', 'part': 'n1'}");
        DashboardDocument copied = document.edit(DocumentJson.write(
                        Remaking.copy(document.dashboard(), "v1", () -> "new1").ops()))
                .after();
        assertThat(copied.dashboard().links().values().stream()
                        .filter(l -> l.from().equals("vnew1")))
                .hasSize(2);
        DashboardDocument after =
                document.edit(Removal.of(document.dashboard(), "n1").patch()).after();
        assertThat(after.dashboard().links()).containsOnlyKeys("k1");
    }
}
