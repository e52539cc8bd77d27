package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.FrameLocator;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.KeyboardModifier;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("The kinds of visual on a page")
class KindsPagesTest extends BrowserTest {

    static final String ROWS = """
            town,province,country,at,product,litres,euros
            Soria,Soria,Spain,2026-01-05T08:00,still,10,2
            Soria,Soria,Spain,2026-01-12T09:00,warm,20,4
            Soria,Soria,Spain,2026-02-03T09:30,still,15,3
            Zamora,Zamora,Spain,2026-01-06T10:00,still,100,12
            Zamora,Zamora,Spain,2026-03-03T11:00,warm,60,9
            Burgos,Burgos,Spain,2026-02-01T08:30,still,40,8
            Burgos,Burgos,Spain,2026-03-08T20:00,warm,2,1
            Palencia,Palencia,Spain,2026-03-09T20:00,warm,25,5
            """;

    /** Every kind at once, over one dataset, all linked to each other. */
    static final String ALL = """
            [{"op":"add","path":"/visuals/v1","value":{"type":"bars","page":"p1","at":{"x":0,"y":0,"w":8,"h":7},"title":"Bars","dataset":%1$d,"category":"@place","measure":{"summary":"SUM","column":"litres"},"series":"product"}},
             {"op":"add","path":"/visuals/v2","value":{"type":"lines","page":"p1","at":{"x":8,"y":0,"w":8,"h":7},"title":"Lines","dataset":%1$d,"time":"at","step":"MONTH","measures":[{"summary":"SUM","column":"litres"}],"category":"product","pinned":[{"at":"2026-02","text":"Two kiosks were opened in the north of the province"}]}},
             {"op":"add","path":"/visuals/v3","value":{"type":"ring","page":"p1","at":{"x":16,"y":0,"w":8,"h":7},"title":"Ring","dataset":%1$d,"category":"product","measure":{"summary":"SUM","column":"litres"}}},
             {"op":"add","path":"/visuals/v4","value":{"type":"scatter","page":"p1","at":{"x":0,"y":7,"w":8,"h":8},"title":"Scatter","dataset":%1$d,"category":"@place","across":{"summary":"SUM","column":"litres"},"up":{"summary":"SUM","column":"euros"},"line":true,"quarters":"MEAN"}},
             {"op":"add","path":"/visuals/v5","value":{"type":"grid","page":"p1","at":{"x":8,"y":7,"w":8,"h":8},"title":"Grid","dataset":%1$d,"down":{"column":"at","step":"WEEKDAY"},"across":{"column":"at","step":"HOUR_OF_DAY"},"measure":{"summary":"SUM","column":"litres"}}},
             {"op":"add","path":"/visuals/v6","value":{"type":"table","page":"p1","at":{"x":16,"y":7,"w":8,"h":8},"title":"Table","dataset":%1$d,"categories":["@place"],"measures":[{"summary":"SUM","column":"litres"},{"summary":"COUNT"}],"totals":true}},
             {"op":"add","path":"/visuals/v7","value":{"type":"figure","page":"p1","at":{"x":0,"y":15,"w":8,"h":4},"title":"Figure","dataset":%1$d,"measure":{"summary":"SUM","column":"litres"},"against":{"kind":"WHOLE"},"over":"at"}},
             {"op":"add","path":"/visuals/v8","value":{"type":"words","page":"p1","at":{"x":8,"y":15,"w":16,"h":4},"title":"Words","dataset":%1$d,"text":"## All\\n\\nComes to **{sum of litres}** <script>boom()</script>","figures":[{"summary":"SUM","column":"litres"}]}},
             {"op":"add","path":"/visuals/v9","value":{"type":"list","page":"p1","at":{"x":0,"y":19,"w":8,"h":8},"title":"List","dataset":%1$d,"text":"{town}: {litres:0.0 l}","below":"{at:month}","pick":"@place","order":{"by":"litres","down":true},"mark":{"of":"litres","limits":{"good":50,"bad":10}}}},
             {"op":"add","path":"/visuals/v10","value":{"type":"details","page":"p1","at":{"x":8,"y":19,"w":8,"h":8},"title":"Details","dataset":%1$d,"by":"@place","figures":[{"summary":"SUM","column":"litres"}],"over":"at","spot":true}},
             {"op":"add","path":"/visuals/v11","value":{"type":"key","page":"p1","at":{"x":16,"y":19,"w":8,"h":5},"title":"Key","of":"v3"}},
             {"op":"add","path":"/filters/f1","value":{"type":"choice","page":"p1","order":1,"dataset":%1$d,"column":"product","title":"Product"}},
             {"op":"add","path":"/visuals/v12","value":{"type":"filter","page":"p1","at":{"x":16,"y":24,"w":8,"h":3},"title":"Filter","control":"f1"}},
             {"op":"add","path":"/visuals/v13","value":{"type":"button","page":"p1","at":{"x":0,"y":27,"w":8,"h":2},"title":"","words":"Show everything","does":{"kind":"CLEAR"}}},
             {"op":"add","path":"/links/k9","value":{"from":"v9"}},
             {"op":"add","path":"/links/k1","value":{"from":"v1"}},{"op":"add","path":"/links/k2","value":{"from":"v2"}},
             {"op":"add","path":"/links/k3","value":{"from":"v3"}},{"op":"add","path":"/links/k4","value":{"from":"v4"}},
             {"op":"add","path":"/links/k5","value":{"from":"v5"}},{"op":"add","path":"/links/k6","value":{"from":"v6"}}]
            """;

    private SarnikClient ana;
    private long dataset;

    @BeforeEach
    void bringIn() throws Exception {
        ana = sarnik.client("ana");
        dataset = ana.bring(RunningSarnik.file("kinds.csv", ROWS), "Zz kinds");
    }

    private long dashboard(String title, String patch) throws Exception {
        JsonNode made = ana.json("POST", "/api/dashboards", Map.of("title", title));
        long id = made.get("id").asLong();
        if (!patch.isEmpty())
            ana.read(ana.send(
                    "PATCH",
                    "/api/dashboards/" + id,
                    Samples.JSON_PATCH,
                    patch,
                    "If-Match",
                    "\"" + made.get("revision").asLong() + "\""));
        ana.publish(id);
        return id;
    }

    private Page all(String title) throws Exception {
        return sheet("rui", dashboard(title, ALL.formatted(dataset)), "");
    }

    private static void waitForNumber(Page page, String number) {
        page.waitForFunction(
                "n => document.querySelector('[data-visual=v7] .figure-number').textContent === n", number);
    }

    @ParameterizedTest
    @CsvSource({
        "WHERE, map, .map-view",
        "HOW_MUCH, figure, .figure-number",
        "CHANGED, lines, .line",
        "CHANGED, grid, .grid-row",
        "WHICH_MOST, bars, .bar",
        "WHICH_MOST, ring, .wedge",
        "TOGETHER, scatter, .dot",
        "TOGETHER, funnel, .funnel-dot",
        "TOGETHER, difference, .parting",
        "CHANGED, unlikely, .unlikely",
        "EXACTLY, table, .table-row",
        "EXACTLY, list, .line-item",
        "EXACTLY, details, .details-head",
        "SAY, words, .sheet-words",
        "SAY, picture, .visual-wanting",
        "LET_CHOOSE, button, .sheet-button"
    })
    void areAddedAndChangedWithTheKeyboardAlone(String question, String kind, String mark) throws Exception {
        Page page = page("ana");
        page.navigate("/dashboards/" + dashboard("With keys alone: " + kind, "") + "/compose");
        page.waitForSelector(".question");
        page.focus("select[aria-label='Dataset']");
        page.keyboard().type("Zz kinds");
        page.focus(".question[data-question=" + question + "]");
        page.keyboard().press("Enter");
        page.waitForSelector(".proposal");
        int wanted = (int) page.evaluate("""
                kind => { const all = [...document.querySelectorAll('.proposal')];
                  window.proposed = all.length; return all.findIndex(p => p.dataset.kind === kind); }""", kind);
        assertThat(wanted).as("a proposal of " + kind).isNotNegative();
        page.locator(".proposal").nth(wanted).focus();
        page.keyboard().press("Enter");
        page.waitForSelector(".visual-" + kind + " " + mark);
        // Its sentence is in the dock; its first slot opens and closes with keys.
        Locator slot = page.locator(".dock-brief button.slot").first();
        slot.waitFor();
        slot.focus();
        page.keyboard().press("Enter");
        page.waitForSelector(".popup");
        page.keyboard().press("Escape");
        page.waitForCondition(() -> page.locator(".popup").count() == 0);
        assertThat(page.locator(".dock-brief").textContent()).doesNotContain("undefined", "null");
    }

    @Test
    void areShownOtherwiseAndOnceMore() throws Exception {
        Page page = page("ana");
        page.navigate("/dashboards/" + dashboard("Otherwise?", ALL.formatted(dataset)) + "/compose");
        SarnikBrowser.drawn(page);
        page.click("[data-visual=v3] .visual-title");
        page.click(".dock >> text=Show it otherwise");
        page.click(".popup-option >> text=as bars");
        page.waitForSelector("[data-visual=v3] .bar");
        page.click("#undo");
        page.waitForSelector("[data-visual=v3] .wedge");
        page.click(".dock >> text=One more of it");
        page.click(".popup-option >> text=On this sheet");
        page.waitForFunction("() => document.querySelectorAll('.wedge').length === 4");
        page.click("[data-visual=v3] .visual-title");
        page.click(".dock >> text=One more of it");
        page.click(".popup-option >> text=On a new dashboard");
        page.waitForURL("**/dashboards/*/compose");
        page.waitForFunction("() => document.querySelectorAll('.visual').length === 1"
                + " && document.querySelectorAll('.wedge').length === 2");
        assertThat(page.locator("#sheet-title input").inputValue()).isEqualTo("Ring");
    }

    @Test
    void aDashboardIsMadeAgainOntoAnotherDataset() throws Exception {
        long other = ana.bring(
                RunningSarnik.file(
                        "others.csv", ROWS.replace("litres", "Litres ").replace("product", "kind of water")),
                "Zz others");
        Page page = page("ana");
        page.navigate("/dashboards/" + dashboard("Again?", ALL.formatted(dataset)) + "/compose");
        SarnikBrowser.drawn(page);
        page.click("#duplicate-dashboard");
        page.fill(".duplicate-form input", "Again, elsewhere?");
        page.selectOption("[aria-label='Dataset to replace']", String.valueOf(dataset));
        page.selectOption("[aria-label='Dataset that takes its place']", String.valueOf(other));
        page.waitForSelector(".settling-line.is-open >> text=product");
        assertThat(page.locator(".settling-line.is-open").count()).isOne();
        assertThat(page.locator("[aria-label='What stands for litres']").inputValue())
                .isEqualTo("Litres");
        page.selectOption("[aria-label='What stands for product']", "kind of water");
        page.click(".duplicate-form >> text=Make it");
        page.waitForURL(url -> !url.contains("duplicates") && page.title().startsWith("Again, elsewhere"));
        SarnikBrowser.drawn(page);
        waitForNumber(page, "272");
        assertThat(page.locator(".visual-misfit").count()).isZero();
        assertThat(page.locator("[data-visual=v9] .line-text").first().textContent())
                .contains("100.0 l");
    }

    @Test
    void barsAndRingsArePickedAndEverythingFollows() throws Exception {
        Page page = all("Do they follow?");
        waitForNumber(page, "272");
        page.locator("[data-visual=v1] .bar[data-key]").first().focus();
        page.keyboard().press("Enter");
        waitForNumber(page, "160");
        assertThat(page.locator("[data-visual=v7] .figure-against").textContent())
                .isEqualTo("59 % of 272 in all");
        page.keyboard().press("Enter");
        waitForNumber(page, "272");
        page.locator("[data-visual=v3] .wedge").first().focus();
        page.keyboard().press("Enter");
        waitForNumber(page, "165");
        assertThat(page.locator("[data-visual=v8] .live-figure").textContent()).isEqualTo("165");
        assertThat(page.locator("[data-visual=v3] .wedge.is-picked").count()).isOne();
    }

    @Test
    void aSpanOfTimeIsPickedWithTheMouseAndWithKeys() throws Exception {
        Page page = all("Which months?");
        page.focus("[data-visual=v2] .lines svg");
        page.keyboard().press("ArrowRight");
        assertThat(page.locator("[data-visual=v2] .tip").textContent()).contains("2026-01-01 to 2026-01-31");
        page.keyboard().press("Shift+ArrowRight");
        page.keyboard().press("Enter");
        waitForNumber(page, "185");
        assertThat(page.url()).contains("p.v2=~span.2026-01-01_2026-02-28");
        page.reload();
        SarnikBrowser.drawn(page);
        waitForNumber(page, "185");
        assertThat(page.locator("#showing").textContent()).contains("from 1 January 2026 to 28 February 2026");
        page.click("text=Put everything back");
        waitForNumber(page, "272");
        BoundingBox box = page.locator("[data-visual=v2] .lines").boundingBox();
        double y = box.y + box.height / 2;
        page.mouse().move(box.x + box.width * 0.99, y);
        page.mouse().down();
        page.mouse().move(box.x + box.width * 0.9, y);
        page.mouse().up();
        waitForNumber(page, "87");
    }

    @Test
    void aNoteStandsBesideWhatItIsPinnedToAndIsAddedFromTheBrief() throws Exception {
        Page page = page("ana");
        page.navigate("/dashboards/" + dashboard("What happened?", ALL.formatted(dataset)) + "/compose");
        SarnikBrowser.drawn(page);
        Locator note = page.locator("[data-visual=v2] .note");
        assertThat(note.getAttribute("aria-label")).startsWith("Two kiosks were opened");
        assertThat((String) page.evaluate("""
                () => { const v = document.querySelector('[data-visual=v2] .lines svg').getBoundingClientRect();
                  const n = document.querySelector('[data-visual=v2] .note').getBoundingClientRect();
                  return ['left', 'top'].filter(side => n[side] < v[side] - 1)
                    .concat(['right', 'bottom'].filter(side => n[side] > v[side] + 1)).join(); }"""))
                .as("sides at which the note leaves the drawing")
                .isEmpty();
        page.click("[data-visual=v1] .visual-title");
        page.click(".dock-brief .slot >> text=+ note");
        page.click(".popup-option >> text=at Zamora");
        page.waitForSelector("[data-visual=v1] .note text:has-text('What happened here')");
        page.click(".dock-brief .slot >> text=What happened here");
        page.fill(".popup input", "Fiesta");
        page.keyboard().press("Enter");
        page.waitForSelector("[data-visual=v1] .note text:has-text('Fiesta')");
    }

    @Test
    void whatAnAuthorHasChangedStaysWhenMoreIsTaken() throws Exception {
        Page page = page("ana");
        long id = dashboard("How far from the target?", ALL.formatted(dataset));
        page.navigate("/dashboards/" + id + "/compose");
        SarnikBrowser.drawn(page);
        page.click("[data-visual=v2] .visual-title");
        page.click(".dock-brief .slot >> text=+ reference line");
        page.click(".popup label >> text=a target");
        page.click("text=Take these");
        page.click(".dock-brief .slot >> text=/^0$/");
        page.fill(".popup input", "55");
        page.keyboard().press("Enter");
        page.waitForSelector("[data-visual=v2] .reference-words >> text=target 55");
        page.click(".dock-brief .slot >> text=with target");
        page.click(".popup label >> text=the mean");
        page.click("text=Take these");
        page.waitForSelector("[data-visual=v2] .reference-words >> text=mean");
        assertThat(page.locator("[data-visual=v2] .reference-words").allTextContents())
                .hasSize(2)
                .contains("target 55");
    }

    @Test
    void theColumnsOfATableAreMovedSizedAndOrderedByTheReader() throws Exception {
        Page page = all("Which columns?");
        Locator heads = page.locator("[data-visual=v6] th .sorter");
        heads.last().press("Shift+ArrowLeft");
        assertThat(heads.allTextContents()).containsExactly("place", "number of rows", "sum of litres");
        assertThat(page.evaluate("() => document.activeElement.textContent")).isEqualTo("number of rows");
        Locator grip = page.locator("[data-visual=v6] .column-grip").first();
        double before = grip.locator("xpath=..").boundingBox().width;
        grip.press("ArrowRight");
        grip.press("ArrowRight");
        assertThat(grip.locator("xpath=..").boundingBox().width).isGreaterThan(before + 20);
        BoundingBox last = heads.last().boundingBox();
        BoundingBox first = heads.first().boundingBox();
        page.mouse().move(last.x + last.width / 2, last.y + 8);
        page.mouse().down();
        page.mouse().move(first.x + 40, last.y + 8);
        page.mouse().move(first.x + 4, last.y + 8);
        page.mouse().up();
        page.waitForFunction(
                "() => document.querySelector('[data-visual=v6] th .sorter').textContent === 'sum of litres'");
        page.reload();
        SarnikBrowser.drawn(page);
        assertThat(heads.allTextContents()).containsExactly("sum of litres", "place", "number of rows");
        heads.nth(2).click();
        page.waitForSelector("[data-visual=v6] th[aria-sort=descending] >> text=number of rows");
        heads.nth(1).click(new Locator.ClickOptions().setModifiers(List.of(KeyboardModifier.SHIFT)));
        page.waitForSelector("[data-visual=v6] th[aria-sort=ascending] >> text=place");
        assertThat(page.locator("[data-visual=v6] th[aria-sort=descending]").count())
                .isEqualTo(1);
    }

    @Test
    void aBoxAroundDotsPicksThem() throws Exception {
        Page page = all("Which dots?");
        BoundingBox box = page.locator("[data-visual=v4] .scatter").boundingBox();
        page.mouse().move(box.x + box.width * 0.6, box.y + 2);
        page.mouse().down();
        page.mouse().move(box.x + box.width - 2, box.y + box.height * 0.6);
        page.mouse().up();
        waitForNumber(page, "160");
        page.waitForFunction("() => document.querySelectorAll('[data-visual=v4] .dot.is-picked').length === 1");
        page.locator("[data-visual=v4] .dot[aria-label^='Burgos']").focus();
        assertThat(page.locator("[data-visual=v4] .tip").textContent())
                .contains("Burgos")
                .contains("42");
        page.keyboard().press("Shift+Enter");
        waitForNumber(page, "202");
    }

    @Test
    void aRowOfAGridAndOfATablePicks() throws Exception {
        Page page = all("Which day?");
        page.locator("[data-visual=v5] .grid-row").first().focus();
        page.keyboard().press("Enter");
        // The 5th and 12th of January and the 9th of March 2026 were Mondays.
        waitForNumber(page, "55");
        page.click("text=Put everything back");
        waitForNumber(page, "272");
        page.click("[data-visual=v6] .sorter >> text=number of rows");
        page.waitForSelector("[data-visual=v6] th[aria-sort=descending] >> text=number of rows");
        assertThat(page.locator("[data-visual=v6] .table-row").first().textContent())
                .startsWith("Soria");
        page.locator("[data-visual=v6] .table-row").first().click();
        waitForNumber(page, "45");
        assertThat(page.locator("[data-visual=v6] tfoot").textContent()).contains("272");
    }

    @Test
    void wordsCarryNoScriptAndFiguresThatFollow() throws Exception {
        Page page = all("What is said?");
        assertThat(page.locator("[data-visual=v8] script").count()).isZero();
        assertThat(page.locator("[data-visual=v8] .sheet-words").textContent())
                .contains("272")
                .contains("<script>");
    }

    @Test
    void aLineOfAListOpensAndPicksAndDetailsFollow() throws Exception {
        Page page = all("What is behind it?");
        assertThat(page.locator("[data-visual=v9] .line-text").first().textContent())
                .isEqualTo("● good Zamora: 100.0 l");
        assertThat(page.locator("[data-visual=v9] .line-record").first().isVisible())
                .isFalse();
        page.locator("[data-visual=v9] .line-opener").first().focus();
        page.keyboard().press("Enter");
        assertThat(page.locator("[data-visual=v9] .line-record").first().innerText())
                .contains("province")
                .contains("6 Jan 2026, 10:00");
        page.locator("[data-visual=v9] .line-words").first().focus();
        page.keyboard().press("Enter");
        waitForNumber(page, "160");
        page.waitForSelector("[data-visual=v10] h3 >> text=Zamora");
        assertThat(page.locator("[data-visual=v10] .details-figure b").first().textContent())
                .isEqualTo("160");
        // It stays open, and the lines of the same place are lit.
        assertThat(page.locator("[data-visual=v9] .line-record").first().isVisible())
                .isTrue();
        assertThat(page.locator("[data-visual=v9] .line-item.is-picked").count())
                .isEqualTo(2);
    }

    @Test
    void detailsAreTurnedOneByOne() throws Exception {
        Page page = all("And the next?");
        String first = page.locator("[data-visual=v10] h3").textContent();
        page.click("[data-visual=v10] >> text=On");
        page.waitForFunction("n => document.querySelector('[data-visual=v10] h3').textContent !== n", first);
        assertThat(page.locator("[data-visual=v10] .details-turn").textContent())
                .contains("2 of 4");
        page.click("[data-visual=v10] >> text=Back");
        page.waitForFunction("n => document.querySelector('[data-visual=v10] h3').textContent === n", first);
    }

    @Test
    void aFilterOnTheSheetNarrowsAndAButtonPutsBack() throws Exception {
        Page page = all("Only some?");
        assertThat(page.locator("#strip .filter").count()).isZero();
        page.click("[data-visual=v12] .filter-choose");
        page.click(".popup-list label >> text=warm");
        waitForNumber(page, "107");
        page.keyboard().press("Escape");
        assertThat(page.locator("[data-visual=v12] .filter-choose").textContent())
                .isEqualTo("warm");
        page.focus("[data-visual=v13] button");
        page.keyboard().press("Enter");
        waitForNumber(page, "272");
        assertThat(page.locator("[data-visual=v12] .filter-choose").textContent())
                .isEqualTo("all");
    }

    @ParameterizedTest
    @ValueSource(strings = {"v1", "v2", "v3", "v4", "v5", "v6", "v9"})
    void areTakenAlongAsFiguresPictureAndDrawing(String id) throws Exception {
        Page page = all("May I keep it?");
        byte[][] files = new byte[3][];
        for (int form = 0; form < 3; form++) {
            page.focus("[data-visual=" + id + "] [aria-label='Take along']");
            page.keyboard().press("Enter");
            Locator option = page.locator(".popup .popup-option").nth(form);
            Download download = page.waitForDownload(option::click);
            files[form] = Files.readAllBytes(download.path());
        }
        String csv = new String(files[0], StandardCharsets.UTF_8);
        assertThat(csv.lines().count()).isGreaterThan(1);
        assertThat(csv).doesNotContain("undefined", "NaN");
        BufferedImage picture = ImageIO.read(new ByteArrayInputStream(files[1]));
        assertThat(picture.getWidth()).isGreaterThan(500);
        assertThat(colours(picture)).as("colours of the picture").isGreaterThan(3);
        String drawing = new String(files[2], StandardCharsets.UTF_8);
        assertThat(drawing)
                .startsWith("<svg")
                .contains("<text", "Hanken Grotesk")
                .doesNotContain("<foreignObject");
        DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(new ByteArrayInputStream(files[2]));
    }

    /** A dashboard of figures of more than three digits. */
    private long many(String title) throws Exception {
        String many = ROWS.replace("still,100,12", "still,100123.45,12")
                .replace("warm,60,9", "warm,60000,9")
                .replace("still,40,8", "still,160088.3,8");
        dataset = ana.bring(RunningSarnik.file("many.csv", many), "Zz many");
        return dashboard(title, ALL.formatted(dataset));
    }

    /** A difference is of the figures, not of what is written of them. */
    @Test
    void standBesideEachOtherInAnyLanguage() throws Exception {
        Page page = sheet("rui", many("Nebeneinander?"), "?f.f1=still&language=de");
        page.click("#showing >> text=Nebeneinander");
        FrameLocator right = page.frameLocator("#right");
        right.locator("[data-visual=v7] .beside-difference:has-text('dasselbe wie links')")
                .waitFor();
        right.locator("[data-visual=v13] button").click();
        // 320,283.75 and 260,236.75.
        right.locator("[data-visual=v7] .beside-difference:has-text('+60.047 gegenüber links (+23,1 %)')")
                .waitFor();
    }

    /** Whatever language is spoken, programs read the figures of a file; on the page they are written as people read. */
    @ParameterizedTest
    @CsvSource({
        "v1, 'Zamora;160123.45'",
        "v3, 'still;260236.75'",
        "v4, 'Zamora;160123.45;21'",
        "v6, 'Zamora;160123.45;2'",
        "v7, '320283.75'"
    })
    void areTakenAlongWithAllTheirDigits(String id, String line) throws Exception {
        Page page = sheet("rui", many("Ganz genau?"), "?language=de");
        page.focus("[data-visual=" + id + "] [aria-label='Mitnehmen']");
        page.keyboard().press("Enter");
        Download download = page.waitForDownload(
                () -> page.locator(".popup .popup-option").first().click());
        List<String> lines = Files.readAllLines(download.path());
        assertThat(lines).anyMatch(l -> l.replace(',', ';').startsWith(line));
    }

    private static long colours(BufferedImage picture) {
        return IntStream.range(0, picture.getWidth() * picture.getHeight())
                .map(i -> picture.getRGB(i % picture.getWidth(), i / picture.getWidth()))
                .distinct()
                .count();
    }

    @Test
    void aPictureIsChosenAndSaysWhatItShows() throws Exception {
        long id = dashboard("With a picture", """
                [{"op":"add","path":"/visuals/v1","value":{"type":"picture","page":"p1","at":{"x":0,"y":0,"w":8,"h":7},"title":""}}]""");
        Page page = page("ana");
        page.navigate("/dashboards/" + id + "/compose");
        page.click("[data-visual=v1]", new Page.ClickOptions().setPosition(60, 60));
        page.click(".dock-brief .slot >> text=+ choose one");
        BufferedImage drawn = new BufferedImage(40, 20, BufferedImage.TYPE_INT_RGB);
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(drawn, "png", png);
        page.setInputFiles(".popup input[type=file]", new FilePayload("black.png", "image/png", png.toByteArray()));
        page.waitForFunction("() => document.querySelector('[data-visual=v1] img')?.naturalWidth === 40");
        assertThat(page.locator("[data-visual=v1]").innerText()).contains("Say in the brief what this picture shows");
        page.click(".dock-brief .slot >> text=+ what it shows");
        page.fill(".popup input", "A tap in Soria");
        page.keyboard().press("Enter");
        page.waitForSelector("[data-visual=v1] img[alt='A tap in Soria']");
    }

    private static FilePayload picture(String name, int width) throws Exception {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, 20, BufferedImage.TYPE_INT_RGB), "png", png);
        return new FilePayload(name, "image/png", png.toByteArray());
    }

    @Test
    void picturesOfValuesAreChosenTogetherAndTheOnePickedIsShown() throws Exception {
        long id = dashboard("With pictures", """
                [{"op":"add","path":"/visuals/v1","value":{"type":"bars","page":"p1","at":{"x":0,"y":0,"w":12,"h":8},"title":"",
                   "dataset":%1$d,"category":"town","measure":{"summary":"COUNT"}}},
                 {"op":"add","path":"/visuals/v2","value":{"type":"picture","page":"p1","at":{"x":12,"y":0,"w":8,"h":7},"title":"",
                   "each":{"dataset":%1$d,"column":"town"}}},
                 {"op":"add","path":"/links/k1","value":{"from":"v1"}}]""".formatted(dataset));
        Page page = page("ana");
        page.navigate("/dashboards/" + id + "/compose");
        page.waitForSelector("[data-visual=v2] >> text=Pick one town to see its picture.");
        page.click("[data-visual=v2]", new Page.ClickOptions().setPosition(60, 60));
        page.click(".dock-brief .slot >> text=+ choose pictures");
        page.setInputFiles(
                ".popup input[type=file]",
                new FilePayload[] {picture("soria.png", 40), picture("zamora at noon.png", 50), picture("x.png", 60)});
        page.waitForSelector(".shot-line >> nth=2");
        assertThat(page.locator(".shot-line .hint").allTextContents())
                .containsExactly("by its name", "likely, by its name", "whose is it?");
        page.click("text=Take these pictures");
        page.waitForSelector(".popup >> text=Of 1 it is not said whose they are");
        page.click("text=Take these pictures");
        page.waitForSelector(".dock-brief .slot >> text=/2 of \\d+ have one/");
        page.navigate("/dashboards/" + id);
        SarnikBrowser.drawn(page);
        page.click("[data-visual=v1] [data-key=Zamora]");
        page.waitForFunction("() => document.querySelector('[data-visual=v2] img')?.naturalWidth === 50");
        page.waitForSelector("[data-visual=v2] img[alt=Zamora]");
    }

    @ParameterizedTest
    @ValueSource(strings = {"v1", "v2", "v3", "v4", "v5", "v6", "v7", "v8", "v9", "v10", "v11"})
    void giveTheirFiguresAsATableAndTheirTrail(String id) throws Exception {
        Page page = all("As a table?");
        page.focus("[data-visual=" + id + "] [aria-label='The figures as a table']");
        page.keyboard().press("Enter");
        page.waitForSelector(".sheet-dialog table tbody tr");
        assertThat(page.locator(".sheet-dialog").textContent()).doesNotContain("undefined", "NaN");
    }

    @Test
    void standOnAPhoneWithoutBeingCutOff() throws Exception {
        long id = dashboard("On a phone?", ALL.formatted(dataset));
        Page page = phone("rui");
        page.navigate("/dashboards/" + id);
        SarnikBrowser.drawn(page);
        assertThat((List<?>) page.evaluate("""
                        () => [...document.querySelectorAll('.visual')].filter(v => v.scrollWidth > v.clientWidth + 1
                          || v.getBoundingClientRect().right > innerWidth + 1).map(v => v.dataset.visual)""")).isEmpty();
    }

    @Test
    void letGoOfAllTheyHeldOnTo() throws Exception {
        Page page = all("Does anything leak?");
        Object left = page.evaluate("""
                async () => {
                  const { KINDS } = await import('/js/visuals/kinds.js');
                  const id = location.pathname.split('/').pop();
                  const opened = await (await fetch(`/api/dashboards/${id}`)).json();
                  const http = await import('/js/http.js');
                  const frames = await http.ask('POST', `/api/dashboards/${id}/frames`, { body: { state: '' } });
                  const places = await import('/js/places.js');
                  places.remember(frames.places);
                  const held = { listeners: 0, observers: 0 };
                  const keys = new Map();
                  for (const target of [window, document]) {
                    for (const [name, step] of [['addEventListener', 1], ['removeEventListener', -1]]) {
                      const own = target[name];
                      target[name] = function (type, run, ...rest) {
                        const all = keys.get(target) ?? keys.set(target, new Map()).get(target);
                        const of = all.get(type) ?? all.set(type, new Set()).get(type);
                        if (step > 0 && !of.has(run)) { of.add(run); held.listeners++; }
                        if (step < 0 && of.delete(run)) held.listeners--;
                        return own.call(this, type, run, ...rest);
                      };
                    }
                  }
                  const Observer = window.ResizeObserver;
                  window.ResizeObserver = class extends Observer {
                    observe(...a) { if (!this.on) { this.on = true; held.observers++; } super.observe(...a); }
                    disconnect() { if (this.on) { this.on = false; held.observers--; } super.disconnect(); }
                  };
                  const before = document.querySelectorAll('*').length;
                  const found = {};
                  for (const [visual, drawing] of Object.entries(frames.drawings)) {
                    const kind = KINDS[drawing.type];
                    const [listeners, observers] = [held.listeners, held.observers];
                    for (let i = 0; i < 500; i++) {
                      const body = document.createElement('div');
                      body.style.cssText = 'position:fixed;width:300px;height:200px';
                      document.body.append(body);
                      const handle = kind.mount(body, { id: visual, title: 't', titleElement: body,
                        visual: opened.document.visuals[visual], composing: false, emit: () => ({}) });
                      kind.draw(handle, drawing);
                      kind.unmount(handle);
                      body.remove();
                    }
                    found[drawing.type] = [held.listeners - listeners, held.observers - observers];
                  }
                  found.nodes = document.querySelectorAll('*').length - before;
                  return JSON.stringify(found);
                }""");
        assertThat(Samples.parse((String) left).properties()).isNotEmpty().allSatisfy(kind -> {
            if (kind.getValue().isArray())
                kind.getValue()
                        .forEach(n -> assertThat(n.asInt()).as(kind.getKey()).isZero());
            else assertThat(kind.getValue().asInt()).as(kind.getKey()).isZero();
        });
    }
}
