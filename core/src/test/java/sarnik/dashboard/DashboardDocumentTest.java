package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.visual.map.MapVisual;
import tools.jackson.databind.json.JsonMapper;

class DashboardDocumentTest {

    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private final DashboardDocument document = DashboardDocument.parse(Fixture.DOCUMENT);

    @Test
    void anEmptyDashboardHasItsTitleAndAPage() {
        Dashboard dashboard = DashboardDocument.empty("How warm?").dashboard();
        assertThat(dashboard.title()).isEqualTo("How warm?");
        assertThat(dashboard.firstPage()).isEqualTo("p1");
        assertThat(dashboard.visuals()).isEmpty();
    }

    @Test
    void theJsonIsReadIntoItsRecords() {
        MapVisual map = (MapVisual) document.dashboard().visuals().get("v1");
        assertThat(map.layers().get("l1").size().radius()).isEqualTo(20);
        assertThat(document.dashboard().filtersOf("p1")).containsExactly("f1", "f2");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "an unknown member | [{'op':'add','path':'/visuals/v1/colour','value':1}]",
                "an unknown kind of visual | [{'op':'replace','path':'/visuals/v1/type','value':'cake'}]",
                "an opacity above 1 | [{'op':'replace','path':'/visuals/v1/layers/l1/opacity','value':3}]",
                "a title that is too long | [{'op':'replace','path':'/title','value':''}]",
                "a visual over the edge | "
                        + "[{'op':'replace','path':'/visuals/v1/at','value':{'x':20,'y':0,'w':12,'h':3}}]",
                "a page that is not there | [{'op':'replace','path':'/visuals/v1/page','value':'p9'}]",
                "an id that is no id | [{'op':'add','path':'/links/K 1','value':{'from':'v1'}}]"
            })
    void editsThatWouldBreakTheFormAreRefused(String what, String patch) {
        assertThatThrownBy(() -> document.edit(patch.replace('\'', '"')))
                .as(what)
                .isInstanceOfSatisfying(
                        DashboardException.class,
                        e -> assertThat(e.kind()).isEqualTo(DashboardException.Kind.MALFORMED));
    }

    @Test
    void whatIsNoPatchIsRefused() {
        for (String text : List.of("", "{}", "[1]", "[{\"op\":\"fly\",\"path\":\"/title\"}]", "nonsense")) {
            assertThatThrownBy(() -> document.edit(text)).as(text).isInstanceOf(DashboardException.class);
        }
    }

    @Test
    void aTestThatFailsMeansOvertaken() {
        assertThatThrownBy(() ->
                        document.edit("[{\"op\":\"test\",\"path\":\"/title\",\"value\":\"Other\"},{\"op\":\"replace\","
                                + "\"path\":\"/title\",\"value\":\"Mine\"}]"))
                .isInstanceOfSatisfying(
                        DashboardException.class,
                        e -> assertThat(e.kind()).isEqualTo(DashboardException.Kind.OVERTAKEN));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "[{'op':'replace','path':'/title','value':'Who?'}] | the dashboard's title",
                "[{'op':'replace','path':'/visuals/v1/layers/l1/colour/classes','value':5}] | the colour of the map",
                "[{'op':'replace','path':'/visuals/v2/at','value':{'x':0,'y':0,'w':2,'h':2}}] | the place on "
                        + "the sheet of the bars “Top”",
                "[{'op':'remove','path':'/visuals/v3'}] | taking away the figure",
                "[{'op':'add','path':'/links/k9','value':{'from':'v2'}}] | adding a link",
                "[{'op':'replace','path':'/filters/f2/title','value':'When'}] | the title of the filter Day",
                "[{'op':'replace','path':'/pages/p1/title','value':'One'}] | the title of the page “One”"
            })
    void anEditIsSaidInWords(String patch, String words) {
        assertThat(document.edit(patch.replace('\'', '"')).words()).isEqualTo(words);
    }

    @Test
    void anInverseDoesNotOverwriteWhatOthersDidSince() {
        DashboardDocument.Edit mine = document.edit("[{\"op\":\"replace\",\"path\":\"/title\",\"value\":\"Mine\"}]");
        DashboardDocument theirs = mine.after()
                .edit("[{\"op\":\"replace\",\"path\":\"/title\",\"value\":\"Theirs\"}]")
                .after();
        assertThatThrownBy(() -> theirs.edit(mine.inverse()))
                .isInstanceOfSatisfying(
                        DashboardException.class,
                        e -> assertThat(e.kind()).isEqualTo(DashboardException.Kind.OVERTAKEN));
        DashboardDocument elsewhere = mine.after()
                .edit("[{\"op\":\"remove\",\"path\":\"/visuals/v3\"}]")
                .after();
        assertThat(elsewhere.edit(mine.inverse()).after().dashboard().title()).isEqualTo("Where?");
    }

    @Property(tries = 150)
    void inversesTakeAnySeriesOfEditsBack(@ForAll long seed) {
        Random random = new Random(seed);
        List<String> inverses = new ArrayList<>();
        DashboardDocument now = document;
        for (int i = 0; i < 6; i++) {
            DashboardDocument.Edit edit = now.edit(anyPatch(now.dashboard(), random));
            inverses.add(0, edit.inverse());
            now = edit.after();
        }
        for (String inverse : inverses) now = now.edit(inverse).after();
        assertThat(MAPPER.readTree(now.json())).isEqualTo(MAPPER.readTree(document.json()));
    }

    private static String anyPatch(Dashboard dashboard, Random random) {
        List<String> visuals = List.copyOf(dashboard.visuals().keySet());
        String visual = visuals.isEmpty() ? null : visuals.get(random.nextInt(visuals.size()));
        String patch = switch (visual == null ? 0 : random.nextInt(5)) {
            case 0 ->
                ("{'op':'add','path':'/visuals/n%d','value':{'type':'figure','page':'p1','at':{'x':0,'y':0,'w':4,"
                                + "'h':3},'dataset':2,'measure':{'summary':'COUNT'}}}")
                        .formatted(random.nextInt(5));
            case 1 -> "{'op':'remove','path':'/visuals/%s'}".formatted(visual);
            case 2 ->
                "{'op':'replace','path':'/visuals/%s/at','value':{'x':%d,'y':2,'w':4,'h':3}}"
                        .formatted(visual, random.nextInt(20));
            case 3 -> "{'op':'replace','path':'/title','value':'T%d'}".formatted(random.nextInt(9));
            default -> "{'op':'add','path':'/visuals/%s/title','value':'x/y~%d'}".formatted(visual, random.nextInt(9));
        };
        return ("[" + patch + "]").replace('\'', '"');
    }
}
