package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.dashboard.KindsTest.DATASETS;
import static sarnik.dashboard.KindsTest.FIGURE;
import static sarnik.dashboard.KindsTest.document;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.brief.Choices;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.state.ReaderState;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.figure.FigureDrawing;

@DisplayName("Rules of visuals")
class RuleTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 4, 2);

    private static String rows(String rule, String state) {
        Dashboard dashboard = document(FIGURE.replace("'SUM', 'column': 'litres'", "'COUNT'") + ", 'rule': " + rule)
                .dashboard();
        PageDrawer drawer = new PageDrawer(
                dashboard,
                StateReader.read(state, dashboard, DATASETS, Kinds.ALL).state(),
                new Sources(DATASETS, name -> Optional.empty(), TODAY),
                Drawers.ANSWERER,
                Map.of());
        var drawn = drawer.draw("v1");
        return drawn instanceof MisfitDrawing misfit ? misfit.why() : ((FigureDrawing) drawn).full();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'column': 'town', 'values': ['Soria', 'Burgos']}|5",
                "{'column': 'town', 'is': 'NONE_OF', 'values': ['Soria']}|4",
                "{'column': 'product', 'is': 'NONE_OF', 'values': ['still']}|3",
                "{'column': 'litres', 'is': 'BETWEEN', 'from': 20, 'to': '60'}|4",
                "{'column': 'litres', 'is': 'BETWEEN', 'from': 40}|3",
                "{'column': 'day', 'is': 'BETWEEN', 'to': '2026-01-10'}|3",
                "{'column': 'town', 'is': 'CONTAINS', 'text': 'AVE'}|1",
                "{'column': 'product', 'is': 'MISSING'}|1",
                "{'column': 'litres', 'is': 'MISSING'}|1",
                "{'column': 'litres', 'is': 'FILLED'}|7",
                "{'column': 'day', 'is': 'LAST', 'last': 2, 'step': 'DAY'}|2",
                "{'column': 'day', 'is': 'LAST', 'last': 2, 'step': 'MONTH'}|4",
                "{'column': 'day', 'is': 'LAST', 'last': 1, 'step': 'YEAR'}|6",
                "{'column': 'day', 'is': 'LAST', 'last': 2, 'step': 'DAY', 'newest': true}|2",
                "{'is': 'SQL', 'text': 'litres > 20 AND product = ''warm'''}|3",
                "{'column': 'town', 'values': ['Soria'], 'and': {'column': 'litres', 'is': 'BETWEEN', 'from': 20}}|2",
                "{'is': 'SQL', 'text': 'litres > :n1'}|2"
            })
    void keepJustTheRowsThatMeetThem(String rule, String expected) {
        // Two quotes in a row stand for one of SQL, which JSON lets be.
        assertThat(rows(rule.replace("''warm''", "\\u0027warm\\u0027"), "")).isEqualTo(expected);
    }

    @Test
    void inSqlFollowTheNumberThatTheReaderSets() {
        String rule = "{'is': 'SQL', 'text': 'litres > :n1'}";
        assertThat(rows(rule, "v.n1=10")).isEqualTo("5");
        assertThat(rows(rule, "v.n1=99")).isEqualTo("1");
        Dashboard dashboard = document(FIGURE + ", 'rule': " + rule).dashboard();
        assertThat(Narrowing.touched(dashboard, Kinds.ALL, "n1")).containsExactly("v1");
    }

    @Test
    void areEachAStepOfTheTrailInWords() {
        Dashboard dashboard = document(FIGURE
                        + ", 'rule': {'column': 'town', 'values': ['Soria'], 'and': "
                        + "{'column': 'day', 'is': 'LAST', 'last': 3, 'step': 'MONTH', 'newest': true}}")
                .dashboard();
        FigureDrawing drawn = (FigureDrawing)
                Drawers.of(dashboard, ReaderState.NOTHING, DATASETS).draw("v1");
        assertThat(drawn.trail().steps())
                .extracting("words")
                .containsExactly(
                        "All rows",
                        "Always only where town is Soria",
                        "Always only where day is in the last 3 months up to the newest, 2026-01-04 to 2026-04-03");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'column': 'gone', 'is': 'FILLED'}|no column “gone”",
                "{'column': 'gone', 'is': 'LAST', 'last': 2, 'step': 'DAY'}|no column “gone”",
                "{'column': 'town', 'is': 'LAST', 'last': 2, 'step': 'DAY'}|which has no last days",
                "{'column': 'town', 'is': 'BETWEEN', 'from': 'a'}|no range",
                "{'column': 'litres', 'is': 'CONTAINS', 'text': 'a'}|no words are looked for",
                "{'is': 'SQL', 'text': 'litres + 1'}|is no condition",
                "{'is': 'SQL', 'text': 'litres >'}|does not fit",
                "{'is': 'SQL', 'text': 'nobody = 1'}|does not fit"
            })
    void thatDoNotFitSaySo(String rule, String why) {
        assertThat(rows(rule, "")).contains(why);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{'column': 'town'}",
                "{'is': 'ONE_OF', 'values': ['a']}",
                "{'is': 'SQL'}",
                "{'column': 'town', 'is': 'CONTAINS'}",
                "{'column': 'day', 'is': 'LAST', 'last': 0, 'step': 'DAY'}",
                "{'column': 'day', 'is': 'LAST', 'last': 3}"
            })
    void thatAreNotWholeAreNoDocument(String rule) {
        assertThatThrownBy(() -> document(FIGURE + ", 'rule': " + rule)).isInstanceOf(DashboardException.class);
    }

    @Test
    void areSentencesInTheBrief() {
        String rule = "{'column': 'litres', 'is': 'BETWEEN', 'from': 20, 'and': {'column': 'town', 'is': 'CONTAINS', "
                + "'text': 'or', 'and': {'is': 'SQL', 'text': 'weight < 5'}}}";
        assertThat(new BriefWriter(
                                document(FIGURE + ", 'rule': " + rule).dashboard(),
                                DATASETS,
                                new Choices(new InMemoryEngine()))
                        .write("v1")
                        .text())
                .endsWith("only where litres is at least 20 and town contains “or” and this holds: “weight < 5”.");
    }
}
