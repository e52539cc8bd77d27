package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.dashboard.MapFixture.DATASETS;
import static sarnik.dashboard.MapFixture.ENGINE;
import static sarnik.dashboard.MapFixture.LITRES;
import static sarnik.dashboard.MapFixture.document;
import static sarnik.dashboard.MapFixture.draw;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.brief.Choices;
import sarnik.narrow.Narrowing;
import sarnik.narrow.Parameter;
import sarnik.narrow.StateReader;
import sarnik.scale.ColourScale.About;
import sarnik.scale.ColourScale.Centre;
import sarnik.state.ReaderState;
import sarnik.visual.Colour;
import sarnik.visual.Question;
import sarnik.visual.SharedKey;

@DisplayName("A number that the reader sets")
class ParameterTest {

    /** Soria sold 40, Zamora 160, Benavente 20; the number is 30 at first. */
    private static final String ABOUT = "\"dataset\": 1, \"colour\": {" + LITRES
            + ", \"method\": \"EQUAL_STEPS\", \"classes\": 2, \"palette\": \"rust to loch\", \"centre\": "
            + "{\"about\": \"PARAMETER\", \"parameter\": \"%s\"}}";

    private static StateReader.Read read(String text) {
        return StateReader.read(text, document(ABOUT.formatted("n1")).dashboard(), DATASETS, Kinds.ALL);
    }

    @Test
    void isWhatAScaleTurnsAbout() {
        assertThat(draw(ABOUT.formatted("n1")).symbols().key().breaks()).containsExactly(30);
        assertThat(draw("v.n1=90.5", Map.of(), Map.of(), ABOUT.formatted("n1"))
                        .symbols()
                        .key()
                        .breaks())
                .containsExactly(90.5);
    }

    @Test
    void thatHasGoneIsSaidAndTheMapStays() {
        MapFixture.Drawn drawn = draw(ABOUT.formatted("n9"));
        assertThat(drawn.note()).contains("not of this dashboard").contains("turns about the mean");
        assertThat(drawn.symbols().key().breaks()[0]).isCloseTo(220 / 3.0, org.assertj.core.data.Offset.offset(1e-9));
    }

    @Test
    void isWornWithASharedKey() {
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
                        2,
                        "rust to loch",
                        null,
                        new Centre(About.PARAMETER, null, null, "n1"),
                        null,
                        null,
                        null,
                        null,
                        null,
                        null));
        assertThat(draw(
                                "v.n1=50",
                                Map.of(),
                                Map.of("ours", key),
                                "\"dataset\": 1, \"colour\": {" + LITRES + ", \"key\": \"ours\"}")
                        .symbols()
                        .key()
                        .breaks())
                .containsExactly(50);
    }

    @ParameterizedTest(name = "{0} is {1}")
    @CsvSource({"v.n1=45, v.n1=45", "v.n1=45.50, v.n1=45.5", "v.n1=4.5e1, v.n1=45", "v.n1=30, ''"})
    void standsInTheAddressWhereItIsAnother(String text, String canonical) {
        assertThat(read(text).state().text()).isEqualTo(canonical);
        assertThat(read(text).misfits()).isEmpty();
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "v.n1=101, beyond what it can be",
        "v.n1=-0.1, beyond what it can be",
        "v.n1=NaN, beyond what it can be",
        "v.n1=many, is no number",
        "v.n9=1, no longer has"
    })
    void thatDoesNotFitIsLeftOutAndSaid(String text, String why) {
        assertThat(read(text).state().values()).isEmpty();
        assertThat(read(text).misfits()).singleElement().asString().contains(why);
    }

    @Test
    void isAmongWhatIsShowingAndTouchesTheMapsThatTurnAboutIt() {
        Dashboard dashboard = document(ABOUT.formatted("n1")).dashboard();
        ReaderState state = read("v.n1=45").state();
        assertThat(new Narrowing(dashboard, state, DATASETS, Kinds.ALL, LocalDate.EPOCH, Fixture.ENGINE).nowShowing())
                .extracting(Narrowing.Showing::words)
                .containsExactly("Wanted 45");
        assertThat(state.with(ReaderState.Part.PARAMETER, "n1", null).text()).isEmpty();
        assertThat(Narrowing.touched(dashboard, Kinds.ALL, "n1")).containsExactly("v1");
        assertThat(Narrowing.touched(document("\"dataset\": 1").dashboard(), Kinds.ALL, "n1"))
                .isEmpty();
    }

    @Test
    void isProposedAndMakesADocumentThatHolds() {
        DashboardDocument none = DashboardDocument.parse(
                "{\"schema\": 1, \"title\": \"x\", \"pages\": {\"p1\": {\"title\": \"\", \"order\": 1}}, "
                        + "\"filters\": {}, \"visuals\": {}, \"links\": {}}");
        DashboardDocument now = none;
        for (int n = 1; n <= 2; n++) {
            String suffix = "x" + n;
            List<Proposals.Added> proposals =
                    new Proposals(now.dashboard(), "p1", () -> suffix).answer(Question.LET_CHOOSE, MapFixture.sales());
            Proposals.Added number = proposals.stream()
                    .filter(p -> p.id().startsWith("n"))
                    .findFirst()
                    .orElseThrow();
            DashboardDocument.Edit edit =
                    now.edit(tools.jackson.databind.json.JsonMapper.shared().writeValueAsString(number.ops()));
            assertThat(edit.words()).isEqualTo("adding the number Number " + n);
            now = edit.after();
        }
        assertThat(now.dashboard().parameters().values())
                .extracting(Parameter::name)
                .containsExactlyInAnyOrder("Number 1", "Number 2");
        DashboardDocument both = now;
        assertThatThrownBy(() ->
                        both.edit("[{\"op\": \"add\", \"path\": \"/parameters/nx1/value\", \"value\": \"many\"}]"))
                .hasMessageContaining("/parameters/nx1/value");
    }

    @ParameterizedTest(name = "{0} {1}")
    @CsvSource({"low, 31", "high, 29.5", "value, 101"})
    void beginsWithinItsBounds(String part, double number) {
        DashboardDocument document = document(ABOUT.formatted("n1"));
        assertThatThrownBy(() -> document.edit(
                        "[{\"op\": \"add\", \"path\": \"/parameters/n1/%s\", \"value\": %s}]".formatted(part, number)))
                .hasMessageContaining("“Wanted” is")
                .hasMessageContaining("beyond its least and greatest value");
    }

    @Test
    void hasABriefAndIsOfferedAsACentre() {
        DashboardDocument document = document(ABOUT.formatted("n1"));
        assertThat(new BriefWriter(document.dashboard(), DATASETS, new Choices(ENGINE))
                        .write("n1")
                        .text())
                .startsWith("The reader sets the number “Wanted”, at first 30, no less than 0 and no more than 100, "
                        + "turned by typing.");
        assertThat(new BriefWriter(document.dashboard(), DATASETS, new Choices(ENGINE))
                        .write("v1")
                        .text())
                .contains("about the reader's “Wanted”");
        assertThat(document.edit("[{\"op\": \"replace\", \"path\": \"/parameters/n1/value\", \"value\": 5}]")
                        .words())
                .isEqualTo("a part of the number Wanted");
    }
}
