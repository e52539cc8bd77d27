package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.MapSamples;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;

/** The rules of WCAG 2.2, A and AA, as far as a machine can look: axe-core over every page. */
@DisplayName("Every page keeps the rules of accessibility")
class AccessibleTest extends BrowserTest {

    private static final Path AXE = Path.of("web/node_modules/axe-core/axe.min.js");

    private static final String LOOK = """
            async () => {
              const found = await axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations'] });
              return found.violations.flatMap(v => v.nodes.slice(0, 3).map(n => `${v.id}: ${n.target.join(' ')}: ${n.failureSummary.split('\\n').slice(1).join(' ').slice(0, 200)}`));
            }""";

    private final Map<String, List<String>> broken = new LinkedHashMap<>();

    private void look(Page page, String where) throws IOException {
        page.evaluate(Files.readString(AXE) + "; undefined");
        List<String> found = new ArrayList<>();
        for (Object each : (List<?>) page.evaluate(LOOK)) found.add(String.valueOf(each));
        if (!found.isEmpty()) broken.put(where, found);
    }

    private void visit(Page page, String address) throws IOException {
        page.navigate(address);
        if (page.locator("#sheet").count() > 0) drawn(page);
        look(page, address);
    }

    @Test
    void pagesOfAuthorsAndStewards() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "Can everyone use it?");
        long dataset = ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
        String look = ana.read(ana.upload(Samples.sales(), "sales.csv"))
                .get("address")
                .asString();
        String newer = ana.read(ana.upload(
                        RunningSarnik.file(
                                "n.csv",
                                "town,province,country,day,product,litros\nSoria,Soria,Spain,2026-03-01,still,7\n"),
                        "n.csv",
                        "?dataset=" + dataset))
                .get("address")
                .asString();
        ana.json(
                "PUT",
                "/api/keys/Accessible",
                Map.of(
                        "words",
                        "w",
                        "colour",
                        Map.of("measure", Map.of("summary", "SUM", "column", "litres"), "palette", "loch")));
        Page author = withoutPolicy("ana", 1280, 800);
        for (String address : List.of(
                "/",
                "/bring",
                look,
                newer,
                "/datasets/" + dataset,
                "/datasets/" + dataset + "/formulas",
                "/datasets/" + dataset + "/placing",
                "/boundary-sets",
                "/boundary-sets/Provinces%20of%20Spain",
                "/keys",
                "/me",
                "/dashboards/" + dashboard,
                "/dashboards/" + dashboard + "/compose",
                "/nowhere")) visit(author, address);
        author.navigate("/dashboards/" + dashboard + "/compose");
        SarnikBrowser.drawn(author);
        author.click("[data-visual=v1] .visual-title");
        author.waitForSelector(".dock .slot");
        look(author, "the dock with a brief");
        author.click(".dock .slot[aria-label^='measure'], .dock .slot >> nth=0");
        look(author, "a slot that is open");
        Page steward = withoutPolicy("marta", 1280, 800);
        for (String address : List.of("/people", "/hosts", "/databases", "/grounds")) visit(steward, address);
        steward.click("text=Sign out");
        steward.waitForURL("**/sign-in?out");
        look(steward, "/sign-in");
        assertThat(broken).isEmpty();
    }

    @Test
    void aSheetOfEveryKindOfVisualByDayByNightAndOnAPhone() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dataset = ana.bring(RunningSarnik.file("kinds.csv", KindsPagesTest.ROWS), "Kinds, for everyone");
        long id = ana.json("POST", "/api/dashboards", Map.of("title", "Every kind, for everyone?"))
                .get("id")
                .asLong();
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + id,
                Samples.JSON_PATCH,
                KindsPagesTest.ALL.formatted(dataset),
                "If-Match",
                "\"1\""));
        Page page = withoutPolicy("ana", 1280, 800);
        visit(page, "/dashboards/" + id);
        page.click("text=Night");
        look(page, "every kind by night");
        visit(withoutPolicy("ana", 390, 844), "/dashboards/" + id);
        assertThat(broken).isEmpty();
    }

    @Test
    void sheetsOfEveryKindOfLayerByDayByNightAndOnAPhone() throws Exception {
        MapSamples samples = new MapSamples(sarnik.client("ana"));
        String classes = "\"method\":\"NATURAL\",\"classes\":4,\"palette\":\"loch\"";
        long[] sheets = {
            samples.dashboard(
                    "Symbols, for everyone?",
                    MapSamples.map(
                                    "v1",
                                    0,
                                    18,
                                    "",
                                    "\"dataset\":%d,\"size\":{%s,\"rule\":\"AREA\",\"radius\":20},\"colour\":{%s,%s}"
                                            .formatted(
                                                    samples.towns,
                                                    MapSamples.sum("litres"),
                                                    MapSamples.sum("litres"),
                                                    classes))
                            + "," + MapSamples.figure(samples.towns, "litres")),
            samples.dashboard(
                    "Areas, for everyone?",
                    MapSamples.map(
                            "v1",
                            0,
                            18,
                            "",
                            "\"kind\":\"AREAS\",\"dataset\":%d,\"colour\":{%s,%s}"
                                    .formatted(samples.provinces, MapSamples.sum("rate"), classes))),
            samples.dashboard(
                    "Flows, for everyone?",
                    MapSamples.map(
                            "v1",
                            0,
                            18,
                            "\"keyAt\":\"beside\"",
                            "\"kind\":\"FLOWS\",\"dataset\":%d,\"size\":{%s,\"rule\":\"AREA\",\"radius\":10}"
                                    .formatted(samples.sent, MapSamples.sum("pieces"))))
        };
        Page desk = withoutPolicy("rui", 1280, 800);
        Page phone = withoutPolicy("rui", 390, 844);
        for (long sheet : sheets) {
            visit(desk, "/dashboards/" + sheet);
            visit(phone, "/dashboards/" + sheet);
        }
        desk.click("#mood");
        look(desk, "by night");
        assertThat(broken).isEmpty();
    }

    @Test
    void rowsOfAKeyCanBePressedWithAThumb() throws Exception {
        MapSamples samples = new MapSamples(sarnik.client("ana"));
        long id = samples.dashboard(
                "Rows of a key?",
                MapSamples.map(
                        "v1",
                        0,
                        18,
                        "",
                        ("\"kind\":\"AREAS\",\"dataset\":%d,\"colour\":{%s,\"method\":\"NATURAL\",\"classes\":5,"
                                        + "\"palette\":\"loch\"}")
                                .formatted(samples.provinces, MapSamples.sum("rate"))));
        Page page = sheet("rui", id, "");
        assertThat(page.locator("button.map-key-row").count()).isGreaterThan(3);
        for (var row : page.locator("button.map-key-row").all())
            assertThat(row.boundingBox().height).isGreaterThanOrEqualTo(24);
    }
}
