package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
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
import sarnik.data.Datasets;
import sarnik.data.Formulated;
import sarnik.data.Previews;
import sarnik.data.SheetFormula;
import sarnik.narrow.FilterScene;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.state.ReaderState;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Question;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.wiring.Checker;
import sarnik.wiring.Finding;
import sarnik.wiring.Wiring;

@DisplayName("A measure of a dashboard's own")
class WhatIfTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 15);

    /** A figure (v1) and bars by product (v2) of “If dearer”, and a figure of litres (v3) beside them. */
    private static DashboardDocument with(String formula) {
        return DashboardDocument.parse(
                """
                {'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}}, 'links': {}, 'filters': {},
                 'parameters': {'n1': {'name': 'rise', 'order': 1, 'value': 10, 'low': -50, 'high': 50},
                                'n2': {'name': 'which one', 'order': 2, 'value': 0, 'type': 'TEXT', 'first': 'still'}},
                 'formulas': {'m1': {'dataset': 2, 'name': 'If dearer', 'text': '%s'}},
                 'visuals': {
                   'v1': {'type': 'figure', 'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 6, 'h': 4}, 'title': '', 'dataset': 2,
                          'measure': {'summary': 'FORMULA', 'column': 'If dearer'}},
                   'v2': {'type': 'bars', 'page': 'p1', 'at': {'x': 6, 'y': 0, 'w': 6, 'h': 4}, 'title': '', 'dataset': 2,
                          'category': 'product', 'measure': {'summary': 'FORMULA', 'column': 'If dearer'}},
                   'v3': {'type': 'figure', 'page': 'p1', 'at': {'x': 12, 'y': 0, 'w': 6, 'h': 4}, 'title': '', 'dataset': 1,
                          'measure': {'summary': 'COUNT'}}}}
                """.formatted(formula.replace("'", "\\u0027")).replace('\'', '"'));
    }

    private static Datasets datasets(DashboardDocument document, ReaderState state) {
        return Formulated.of(
                new SheetFormula.Scene(DATASETS, ENGINE, TODAY, Narrowing.parameters(document.dashboard(), state)),
                document.dashboard().formulas().values());
    }

    private static Drawing draw(DashboardDocument document, String text, String visual) {
        ReaderState state = StateReader.read(
                        text, document.dashboard(), datasets(document, ReaderState.NOTHING), Kinds.ALL)
                .state();
        return new PageDrawer(
                        document.dashboard(),
                        state,
                        new Sources(datasets(document, state), name -> Optional.empty(), TODAY),
                        new Answerer(ENGINE, new AnswerStore(1000)),
                        Map.of())
                .draw(visual);
    }

    private static String figure(DashboardDocument document, String state) {
        return ((FigureDrawing) draw(document, state, "v1")).text();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "SUM(litres * (1 + :rise / 100)) | | 1.29 k",
                "SUM(litres * (1 + :rise / 100)) | v.n1=-50 | 586",
                "SUM(litres * (1 + :n1 / 100)) | v.n1=0 | 1.17 k",
                "SUM(CASE WHEN product = :n2 THEN litres * 2 ELSE 0.0 END) | | 2.3 k",
                "SUM(CASE WHEN product = :n2 THEN litres * 2 ELSE 0.0 END) | v.n2=warm | 44",
                "SUM(litres) * :rise | v.n1=2 | 2.34 k",
                "MEDIAN(litres * :rise) | v.n1=2 | 60",
                "COUNT(*) FILTER (WHERE litres > :rise) | v.n1=20 | 3",
                "COUNT(*) FILTER (WHERE litres > :rise) | v.n1=40 | 2"
            })
    void followsWhatTheReaderSets(String formula, String state, String shown) {
        assertThat(figure(with(formula), state == null ? "" : state)).isEqualTo(shown);
    }

    @Test
    void isNarrowedAndGroupedLikeAnyOther() {
        BarsDrawing bars = (BarsDrawing) draw(with("SUM(litres * :rise)"), "v.n1=2", "v2");
        assertThat(bars.bars()).extracting(BarsDrawing.Bar::full).containsExactly("2,300", "44");
    }

    @Test
    void isOfferedWithItsValue() {
        DashboardDocument document = with("SUM(litres * (1 + :rise / 100))");
        assertThat(new Previews().of(datasets(document, ReaderState.NOTHING).get(2), ENGINE))
                .contains(new Previews.Preview(new Measure(Summary.FORMULA, "If dearer"), "1.29 k"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "SUM(litres * :risen) | There is no parameter “:risen” here. Did you mean “rise”?",
                "SUM(liters) | There is no column “liters”.",
                "litres * 2 | Sum it up",
                "SUM(litres | is expected"
            })
    void saysWhereItIsShownWhatIsWrongWithIt(String formula, String why) {
        DashboardDocument document = with(formula);
        assertThat(((MisfitDrawing) draw(document, "", "v1")).why()).contains("“If dearer” cannot be worked out", why);
        assertThat(draw(document, "", "v3")).as("others are not touched").isInstanceOf(FigureDrawing.class);
        assertThat(check(document))
                .anySatisfy(finding -> assertThat(finding.about()).isEqualTo("m1"));
    }

    private static List<Finding> check(DashboardDocument document) {
        Datasets of = datasets(document, ReaderState.NOTHING);
        PageDrawer drawer = new PageDrawer(
                document.dashboard(),
                ReaderState.NOTHING,
                new Sources(of, name -> Optional.empty(), TODAY),
                new Answerer(ENGINE),
                Map.of());
        return Checker.check(document.dashboard(), of, ENGINE, new FilterScene(TODAY, of, ENGINE), drawer);
    }

    @Test
    void thatNobodyShowsIsFound() {
        DashboardDocument bare = with("SUM(litres)")
                .edit("[{\"op\": \"remove\", \"path\": \"/visuals/v1\"}, {\"op\": \"remove\", \"path\": "
                        + "\"/visuals/v2\"}]")
                .after();
        assertThat(check(bare)).extracting(Finding::sentence).contains("No visual shows the formula “If dearer”.");
        assertThat(check(with("SUM(litres) * :rise")))
                .extracting(Finding::about)
                .doesNotContain("m1", "n1")
                .contains("n2");
    }

    @Test
    void isAPartOfTheWiring() {
        DashboardDocument document = with("SUM(litres) * :rise");
        assertThat(Wiring.of(document.dashboard(), datasets(document, ReaderState.NOTHING))
                        .wires())
                .extracting(wire -> wire.from() + " " + wire.to())
                .contains("d2 m1", "n1 m1", "m1 v1", "m1 v2", "n1 v1")
                .doesNotContain("n2 m1", "m1 v3");
    }

    @Test
    void keepsItsVisualsUnderAnotherName() {
        DashboardDocument renamed = with("SUM(litres) * :rise")
                .edit("[{\"op\": \"replace\", \"path\": \"/formulas/m1/name\", \"value\": \"Dearer\"}]")
                .after();
        assertThat(figure(renamed, "v.n1=2")).isEqualTo("2.34 k");
    }

    @ParameterizedTest
    @CsvSource({"dearer, SUM(litres) * :dearer", "by how much, SUM(litres) * :n1"})
    void knowsWhatReadersSetUnderAnotherName(String name, String text) {
        Dashboard renamed = with("SUM(litres) * :rise")
                .edit("[{\"op\": \"replace\", \"path\": \"/parameters/n1/name\", \"value\": \"%s\"}]".formatted(name))
                .after()
                .dashboard();
        assertThat(renamed.formulas().get("m1").text()).isEqualTo(text);
    }

    @Test
    void hasANameOfItsOwn() {
        DashboardDocument document = with("SUM(litres)");
        assertThatThrownBy(() -> document.edit("[{\"op\": \"add\", \"path\": \"/formulas/m2\", \"value\": "
                        + "{\"dataset\": 2, \"name\": \"If dearer\", \"text\": \"COUNT(*)\"}}]"))
                .hasMessageContaining("Another formula of this dashboard is called “If dearer”");
    }

    @Test
    void changesOnlyWhatShowsIt() {
        DashboardDocument document = with("SUM(litres) * :rise");
        assertThat(Narrowing.touched(document.dashboard(), Kinds.ALL, "n1")).containsExactlyInAnyOrder("v1", "v2");
        assertThat(Narrowing.touched(document.dashboard(), Kinds.ALL, "n2")).isEmpty();
    }

    @Test
    void isProposedAndSaysWhatItIs() {
        DashboardDocument document = with("SUM(litres) * :rise");
        Proposals.Added added = new Proposals(document.dashboard(), "p1", () -> "x1")
                .answer(Question.LET_CHOOSE, Fixture.REFILLS).stream()
                        .filter(a -> a.words().startsWith("A measure of your own"))
                        .findFirst()
                        .orElseThrow();
        assertThat(added.id()).isEqualTo("mx1");
        assertThat(added.ops().toString()).contains("/formulas/mx1", "SUM(\"litres\")", "name=Formula");
        Brief brief = new BriefWriter(document.dashboard(), DATASETS, new Choices(ENGINE)).write("m1");
        assertThat(brief.parts().stream()
                        .filter(Brief.Control.class::isInstance)
                        .map(part -> ((Brief.Control) part).text()))
                .containsExactly("“If dearer”", "Refills", "SUM(litres) * :rise");
        assertThat(((Brief.Control) brief.parts().get(4)).options())
                .extracting(Brief.Option::text)
                .contains(":rise", ":n2", "litres", "product");
        assertThat(Removal.of(document.dashboard(), "m1").patch()).contains("/formulas/m1");
    }

    /** The same dashboard whose measure is something else. */
    private static DashboardDocument being(String says) {
        return with("COUNT(*)")
                .edit("[{'op': 'replace', 'path': '/formulas/m1', 'value': {'dataset': 2, 'name': 'If dearer', %s}}]"
                        .formatted(says)
                        .replace('\'', '"'))
                .after();
    }

    private static final String SIDES =
            "'before': {'column': 'day', 'is': 'BETWEEN', 'from': '2026-01-01', 'to': '2026-01-31'},"
                    + " 'after': {'column': 'day', 'is': 'BETWEEN', 'from': '2026-02-01', 'to': '2026-03-31'}";

    @ParameterizedTest
    @CsvSource({
        "SUM, litres, AMOUNT, -1.05 k",
        "COUNT, , AMOUNT, 0",
        "AVERAGE, litres, PERCENT, -94.4",
        "SUM, litres, ERRORS, -1.04",
        "MEDIAN, litres, AMOUNT, -80"
    })
    void canBeTheChangeOfAnother(String summary, String column, String as, String shown) {
        DashboardDocument document = being("'change': {'of': {'summary': '%s'%s}, %s, 'as': '%s'}"
                .formatted(summary, column == null ? "" : ", 'column': '" + column + "'", SIDES, as));
        assertThat(figure(document, "")).isEqualTo(shown);
        Brief brief = new BriefWriter(document.dashboard(), DATASETS, new Choices(ENGINE)).write("m1");
        assertThat(brief.text())
                .contains("the change of " + (column == null ? "number of rows" : ""))
                .contains("from rows where day", "to rows where day");
    }

    @Test
    void thatIsAChangeFollowsARuleThatNamesWhatReadersSet() {
        DashboardDocument document = being("'change': {'of': {'summary': 'SUM', 'column': 'litres'}, "
                + "'before': {'is': 'SQL', 'text': 'litres <= :rise'}, 'after': {'is': 'SQL', 'text': "
                + "'litres > :rise'}}");
        assertThat(figure(document, "v.n1=30")).isEqualTo("1.11 k");
        assertThat(figure(document, "v.n1=40")).isEqualTo("1.03 k");
        assertThat(Narrowing.touched(document.dashboard(), Kinds.ALL, "n1")).contains("v1");
    }

    @Test
    void canBeHeldAgainstAFigureOfAnotherDataset() {
        String kiosks = "'dataset': 1, 'figure': {'summary': 'COUNT'}";
        // Soria, Zamora and Burgos have a kiosk each; one refill has no place.
        assertThat(figure(being("'reference': {" + kiosks + "}"), "")).isEqualTo("3");
        assertThat(figure(being("'reference': {'of': {'summary': 'COUNT'}, 'times': 10, " + kiosks + "}"), ""))
                .as("five refills of known places to three kiosks")
                .isEqualTo("16.7");
        DashboardDocument gone = being("'reference': {'dataset': 9, 'figure': {'summary': 'COUNT'}}");
        assertThat(((MisfitDrawing) draw(gone, "", "v1")).why()).contains("has gone");
        Brief brief = new BriefWriter(
                        being("'reference': {'of': {'summary': 'COUNT'}, " + kiosks + "}")
                                .dashboard(),
                        DATASETS,
                        new Choices(ENGINE))
                .write("m1");
        assertThat(brief.text())
                .contains("number of rows for each one of the number of rows of Kiosks, joined by the same place");
    }

    @Test
    void isProposedAsAChangeOnAMap() {
        DashboardDocument document = with("SUM(litres)");
        int[] number = {0};
        Proposals.Added added = new Proposals(document.dashboard(), DATASETS, "p1", () -> "x" + number[0]++)
                .answer(Question.CHANGED, Fixture.REFILLS).stream()
                        .filter(a -> a.words().startsWith("Where has it changed?"))
                        .findFirst()
                        .orElseThrow();
        String ops = added.ops().toString();
        assertThat(ops).contains("/formulas/mx", "PERCENT", "type=map", "change of sum of litres", "about=VALUE");
    }
}
