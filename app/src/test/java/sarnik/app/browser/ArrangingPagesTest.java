package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.KeyboardModifier;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.app.testing.Waiting;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("Arranging a page")
class ArrangingPagesTest extends BrowserTest {

    private static final Locator.ClickOptions SHIFT =
            new Locator.ClickOptions().setModifiers(List.of(KeyboardModifier.SHIFT));

    private JsonNode document(long dashboard) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        return ana.read(ana.get("/api/dashboards/" + dashboard)).get("document");
    }

    private List<Integer> at(long dashboard, String visual) throws Exception {
        JsonNode at = document(dashboard).get("visuals").get(visual).get("at");
        return List.of(
                at.get("x").asInt(),
                at.get("y").asInt(),
                at.get("w").asInt(),
                at.get("h").asInt());
    }

    /** Edits the newest revision. */
    private void patch(long dashboard, String patch) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long revision = ana.read(ana.get("/api/dashboards/" + dashboard))
                .get("revision")
                .asLong();
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                patch.replace('\'', '"'),
                "If-Match",
                "\"" + revision + "\""));
    }

    private Page composing(long dashboard) {
        Page page = sheet("ana", dashboard, "/compose");
        page.waitForSelector(".question");
        return page;
    }

    private static Locator title(Page page, String visual) {
        return page.locator("[data-visual=" + visual + "] > .visual-title");
    }

    private static void undone(Page page, String words) {
        page.waitForFunction("words => document.getElementById('undo').textContent.includes(words)", words);
    }

    @Test
    void severalAreChosenLinedUpGroupedAndDraggedTogether() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Several?");
        Page page = composing(dashboard);
        title(page, "v2").click();
        title(page, "v3").click(SHIFT);
        waitForText(page.locator(".dock-brief"), "2 visuals");
        page.click(".dock [data-act=RIGHT]");
        undone(page, "the place");
        assertThat(at(dashboard, "v2")).containsExactly(18, 0, 6, 4);
        page.click(".dock [data-act=GROUP]");
        undone(page, "grouping");
        waitForText(page.locator(".dock-brief"), "take the group apart");

        // What moves one moves both; what they would cover makes room.
        page.keyboard().press("Escape");
        title(page, "v2").click();
        page.waitForSelector("[data-visual=v3].is-beside");
        BoundingBox box = title(page, "v2").boundingBox();
        BoundingBox column = page.locator("#sheet").boundingBox();
        double cell = column.width / 24;
        page.mouse().move(box.x + 20, box.y + 8);
        page.mouse().down();
        page.mouse().move(box.x + 20 - 3 * cell, box.y + 8 + 42, new Mouse.MoveOptions().setSteps(8));
        page.mouse().move(box.x + 20 - 6 * cell, box.y + 8 + 84, new Mouse.MoveOptions().setSteps(8));
        page.mouse().up();
        undone(page, "the places of");
        assertThat(at(dashboard, "v2")).containsExactly(12, 2, 6, 4);
        assertThat(at(dashboard, "v3")).containsExactly(6, 6, 12, 6);
        assertThat(at(dashboard, "v1").get(1)).as("the map makes room").isGreaterThanOrEqualTo(12);
        nothingIsCovered(page);

        page.click("#undo");
        undone(page, "grouping");
        assertThat(at(dashboard, "v1")).containsExactly(0, 0, 12, 10);
        title(page, "v3").focus();
        page.keyboard().press("ArrowDown");
        undone(page, "the places of 2 visuals");
        assertThat(at(dashboard, "v2")).containsExactly(18, 1, 6, 4);
        assertThat(at(dashboard, "v3")).containsExactly(12, 5, 12, 6);
    }

    private static void nothingIsCovered(Page page) {
        List<BoundingBox> boxes = new ArrayList<>();
        for (Locator visual : page.locator("#sheet .visual").all()) boxes.add(visual.boundingBox());
        for (int i = 0; i < boxes.size(); i++)
            for (int j = 0; j < i; j++) {
                BoundingBox a = boxes.get(i);
                BoundingBox b = boxes.get(j);
                assertThat(a.x < b.x + b.width - 1
                                && b.x < a.x + a.width - 1
                                && a.y < b.y + b.height - 1
                                && b.y < a.y + a.height - 1)
                        .isFalse();
            }
    }

    @Test
    void aBoxDrawnOnTheBareSheetChoosesWhatItTouches() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "A box?");
        Page page = composing(dashboard);
        BoundingBox figure = page.locator("[data-visual=v2]").boundingBox();
        // Right of the figure the sheet is bare.
        page.mouse().move(figure.x + figure.width + 120, figure.y + 20);
        page.mouse().down();
        page.mouse()
                .move(figure.x + figure.width - 30, figure.y + figure.height + 60, new Mouse.MoveOptions().setSteps(6));
        page.waitForSelector(".choosing");
        page.mouse().up();
        waitForText(page.locator(".dock-brief"), "2 visuals");
        page.click(".dock [data-act=HIDE]");
        undone(page, "the finish of 2 visuals");
        sarnik.client("ana").publish(dashboard);
        Page rui = sheet("rui", dashboard, "");
        assertThat(rui.locator("[data-visual]").count())
                .as("readers see the map alone")
                .isOne();
        page.click("text=One more of each");
        page.waitForFunction("() => document.querySelectorAll('[data-visual]').length === 5");
        page.click("text=Take away");
        page.waitForFunction("() => document.querySelectorAll('[data-visual]').length === 3");
        assertThat(document(dashboard).get("finishes").size()).isEqualTo(2);
    }

    @Test
    void guidesShowWhichEdgesAgree() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Guides?");
        Page page = composing(dashboard);
        BoundingBox box = title(page, "v2").boundingBox();
        page.mouse().move(box.x + 20, box.y + 8);
        page.mouse().down();
        page.mouse().move(box.x + 75, box.y + 8, new Mouse.MoveOptions().setSteps(4));
        page.mouse().move(box.x + 22, box.y + 8, new Mouse.MoveOptions().setSteps(4));
        page.waitForFunction("() => document.querySelectorAll('.guide').length > 1");
        page.mouse().up();
        page.waitForFunction("() => !document.querySelector('.guide')");
    }

    /** Every gesture on a full page is kept, and what is dragged covers nothing. */
    @Test
    void sixtyVisualsAreDragged() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = ana.json("POST", "/api/dashboards", Map.of("title", "Sixty?"))
                .get("id")
                .asLong();
        List<String> ops = new ArrayList<>();
        for (int i = 0; i < 60; i++)
            ops.add(("{'op':'add','path':'/visuals/v%d','value':{'type':'words','page':'p1','at':{'x':%d,'y':%d,"
                            + "'w':4,'h':2},"
                            + "'title':'Note %d','text':'Here'}}")
                    .formatted(i, i % 6 * 4, i / 6 * 2, i));
        patch(dashboard, "[" + String.join(",", ops) + "]");
        Page page = composing(dashboard);
        int moves = 6;
        long before = ana.read(ana.get("/api/dashboards/" + dashboard))
                .get("revision")
                .asLong();
        for (int move = 0; move < moves; move++) {
            Locator title = title(page, "v" + move * 7);
            title.scrollIntoViewIfNeeded();
            BoundingBox box = title.boundingBox();
            double cell = page.locator("#sheet").boundingBox().width / 24;
            page.mouse().move(box.x + 15, box.y + 8);
            page.mouse().down();
            page.mouse()
                    .move(
                            box.x + 15 + (move % 2 == 0 ? 4 : -4) * cell,
                            box.y + 50,
                            new Mouse.MoveOptions().setSteps(6));
            page.mouse().up();
        }
        page.waitForFunction(
                "async ([id, revision]) => (await (await fetch(`/api/dashboards/${id}`)).json()).revision >= revision",
                List.of((int) dashboard, (int) before + moves));
        Set<String> cells = new HashSet<>();
        for (JsonNode visual : document(dashboard).get("visuals")) {
            JsonNode at = visual.get("at");
            for (int x = 0; x < at.get("w").asInt(); x++)
                for (int y = 0; y < at.get("h").asInt(); y++)
                    assertThat(cells.add((at.get("x").asInt() + x) + " "
                                    + (at.get("y").asInt() + y)))
                            .isTrue();
        }
    }

    @Test
    void aPageHasAnArrangementOfItsOwnForPhones() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "On a phone?");
        Page page = composing(dashboard);
        page.click("#as-phone");
        page.waitForSelector("body.as-phone [data-visual=v3] svg");
        title(page, "v3").click();
        page.click(".dock .slot >> text=higher");
        undone(page, "stands on a phone");
        title(page, "v1").click();
        page.click(".dock .slot >> text=half a screen");
        page.waitForSelector("[data-visual=v1] >> xpath=ancestor::*[contains(@class, 'has-rows')]");
        title(page, "v2").click();
        page.click(".dock .slot >> text=leave it out");
        page.waitForSelector(".off-phone [data-visual=v2]");
        assertThat(document(dashboard)
                        .get("pages")
                        .get("p1")
                        .get("phone")
                        .valueStream()
                        .map(spot -> spot.get("visual").asString()))
                .containsExactly("v1", "v3", "v2");

        sarnik.client("ana").publish(dashboard);
        Page phone = phone("rui");
        phone.navigate("/dashboards/" + dashboard);
        drawn(phone);
        assertThat(phone.locator("[data-visual=v2]").isVisible()).isFalse();
        assertThat(phone.locator("[data-visual=v3]").boundingBox().y)
                .isGreaterThan(phone.locator("[data-visual=v1]").boundingBox().y);
        assertThat(phone.locator("[data-visual=v1]").boundingBox().height).isBetween(380.0, 425.0);
        // On a desk nothing has changed.
        assertThat(sheet("rui", dashboard, "").locator("[data-visual=v2]").isVisible())
                .isTrue();

        // A visual that is taken away leaves no trace in it.
        page.click("#as-phone");
        page.waitForSelector("body:not(.as-phone) .question");
        title(page, "v3").click();
        page.click("text=Take away");
        page.waitForFunction("() => document.querySelectorAll('[data-visual]').length === 2");
        assertThat(document(dashboard).get("pages").get("p1").get("phone").size())
                .isEqualTo(2);
    }

    @Test
    void finishIsSeenAtOnceAndAPageHasASize() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Finish?");
        Page page = composing(dashboard);
        page.click(".page-title[aria-current]");
        page.click(".dock >> text=Finish");
        page.click(".dock .slot[aria-label^='border']");
        page.click(".popup-option >> text=a double line");
        page.waitForSelector("[data-visual=v2][data-border=double]");
        title(page, "v2").click();
        page.waitForSelector(".dock .slot[aria-label^='lettering']");
        double before = page.locator("[data-visual=v2] .figure-words").boundingBox().height;
        page.click(".dock .slot[aria-label^='lettering']");
        page.click(".popup-option >> text=letters for a wall");
        page.waitForSelector("[data-visual=v2][data-lettering=poster][data-border=double]");
        assertThat(page.locator("[data-visual=v2] .figure-words").boundingBox().height)
                .isGreaterThan(before * 1.3);
        page.click(".dock .slot[aria-label^='border']");
        page.click(".popup-option >> text=no line");
        page.waitForSelector("[data-visual=v2][data-border=none]");
        // What is said of itself can be left out; the brief says so a moment after the sheet shows it.
        page.click(".dock .slot[aria-label='border: no line']");
        page.click(".popup-option >> text=Leave border out");
        page.waitForSelector("[data-visual=v2][data-border=double]");

        patch(dashboard, "[{'op':'add','path':'/pages/p1/size','value':{'fit':'WINDOW'}}]");
        Page reading = sheet("ana", dashboard, "");
        assertThat((Boolean) reading.evaluate(
                        "() => document.querySelector('#sheet').getBoundingClientRect().bottom <= innerHeight"))
                .as("nothing is scrolled")
                .isTrue();
        patch(
                dashboard,
                "[{'op':'replace','path':'/pages/p1/size','value':{'fit':'FIXED','width':1024,'trimmed':true}},"
                        + "{'op':'remove','path':'/visuals/v1'},{'op':'remove','path':'/links/k1'}]");
        reading.reload();
        drawn(reading);
        assertThat(reading.locator("#sheet").boundingBox().width).isEqualTo(1024);
        assertThat(reading.locator("[data-visual=v3]").boundingBox().width)
                .as("twelve columns are all that is left")
                .isGreaterThan(940);
    }

    @Test
    void coloursOfOnesOwnAreTriedOnAndRefusedWhereTheyCannotBeRead() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Own colours?");
        Page page = composing(dashboard);
        page.click(".page-title[aria-current]");
        page.click(".dock >> text=Finish");
        page.click(".dock .slot[aria-label^='own colours']");
        page.evaluate("""
                () => { const ink = document.querySelector('.popup input[data-part=ink]');
                        ink.value = '#bbbbbb'; ink.dispatchEvent(new Event('input', { bubbles: true })); }""");
        waitForText(page.locator(".popup .sentence-bad"), "The ink is hard to read on the paper");
        assertThat(page.locator(".popup >> text=Wear these colours").isDisabled())
                .isTrue();
        page.evaluate("""
                () => { for (const [part, colour] of [['ink', '#10203a'], ['paper', '#eef2ff']]) {
                          const input = document.querySelector(`.popup input[data-part=${part}]`);
                          input.value = colour; input.dispatchEvent(new Event('input', { bubbles: true })); } }""");
        String paper = "() => getComputedStyle(document.documentElement).getPropertyValue('--paper').trim()";
        page.waitForFunction("() => (" + paper + ")().toLowerCase() === '#eef2ff'");
        page.click(".popup >> text=Wear these colours");
        undone(page, "the theme");
        Page reading = sheet("ana", dashboard, "");
        assertThat((String) reading.evaluate(paper)).isEqualToIgnoringCase("#EEF2FF");
        reading.click("#mood");
        assertThat((String) reading.evaluate(paper)).isNotEqualToIgnoringCase("#EEF2FF");
    }

    @Test
    void twoPeopleArrangeTheSamePage() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Both?");
        Page page = composing(dashboard);
        // Somebody moves the bars while this page is open.
        patch(dashboard, "[{'op':'replace','path':'/visuals/v3/at','value':{'x':12,'y':14,'w':12,'h':6}}]");
        title(page, "v2").focus();
        page.keyboard().press("ArrowRight");
        waitForText(page.locator(".said"), "Your change is put on top");
        // It is said as soon as it is done here, and kept a moment later.
        Waiting.until(() -> at(dashboard, "v2").get(0) == 13, "the change put on top");
        assertThat(at(dashboard, "v2")).containsExactly(13, 0, 6, 4);
        assertThat(at(dashboard, "v3")).as("nothing of theirs is lost").containsExactly(12, 14, 12, 6);
    }
}
