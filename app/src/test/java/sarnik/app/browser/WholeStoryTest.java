package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;

@DisplayName("The whole story")
class WholeStoryTest extends BrowserTest {

    @Test
    void aTableBecomesALinkedMapDashboardThatAReaderSees() {
        Page ana = home("ana");

        // Bring in and place.
        ana.click("text=Bring a table in");
        ana.setInputFiles("#file", Samples.sales());
        ana.waitForURL("**/bring/*");
        waitForText(ana.locator("#counts .good"), "5");
        assertThat(ana.locator("#doubts").textContent())
                .contains("Nowhere at all")
                .contains("unplaced");
        assertThat(ana.locator("#placing-map .map-view").getAttribute("data-places"))
                .isEqualTo("3");
        ana.fill("#name", "Story sales");
        ana.click("#keep");
        ana.waitForURL("**/datasets/*");

        // Compose.
        ana.fill("[name=title]", "Where does the story sell?");
        ana.click("text=Start a dashboard");
        ana.waitForURL("**/compose");
        ana.waitForSelector(".question");
        add(ana, "Where?", 0);
        add(ana, "How much?", 0);
        add(ana, "Which are the most?", 0);
        add(ana, "Let the reader choose.", 0);
        assertThat(ana.locator(".visual")).matches(v -> v.count() == 3);
        ana.click("#hand-over");
        ana.waitForSelector("[data-ready]");
        ana.click("text=Publish this version as edition 1");
        waitForText(ana.locator(".said"), "Edition 1 is what readers see now");
        // What is drawn anew above moves what is pressed next.
        waitForText(ana.locator("#standing"), "Edition 1, published by");
        ana.waitForSelector("#findings > *");
        ana.click("#grant-keep");
        waitForText(ana.locator(".given"), "everybody who can sign in may");
        ana.click("text=Back to composing");

        // Read and pick.
        ana.click(".sheet-acts a >> text=Read");
        drawn(ana);
        ana.waitForSelector("text=Now showing everything");
        waitForText(ana.locator(".figure-number"), "179");
        double[] soria = onScreen(ana, -2.46883, 41.76401);
        ana.mouse().click(soria[0], soria[1]);
        waitForText(ana.locator(".figure-number"), "30");
        assertThat(ana.locator("#showing").textContent()).contains("Picked: Soria");
        double[] burgos = onScreen(ana, -3.70184, 42.35022);
        ana.keyboard().down("Shift");
        ana.mouse().click(burgos[0], burgos[1]);
        ana.keyboard().up("Shift");
        waitForText(ana.locator(".figure-number"), "72");

        // The row trail.
        ana.hover(".visual-figure");
        ana.click(".visual-figure [title='Which rows are these?']");
        assertThat(ana.locator(".trail").textContent())
                .contains("All rows")
                .contains("6 rows")
                .contains("Picked: Burgos and Soria")
                .contains("4 rows");
        ana.keyboard().press("Escape");

        // The same address as a reader, then back and forward.
        String address = ana.url().substring(sarnik.base().length());
        assertThat(address).contains("p.v");
        Page rui = page("rui");
        rui.navigate(address);
        waitForText(rui.locator(".figure-number"), "72");
        assertThat(rui.locator("#showing").textContent()).contains("Picked: Burgos and Soria");
        assertThat(rui.locator("text=Compose").count()).isZero();
        rui.click("#showing >> text=Put everything back");
        waitForText(rui.locator(".figure-number"), "179");
        rui.goBack();
        waitForText(rui.locator(".figure-number"), "72");
        rui.goForward();
        waitForText(rui.locator(".figure-number"), "179");
    }

    private static void add(Page page, String question, int which) {
        int before = page.locator(".visual, .filter").count();
        if (page.locator(".question").count() == 0) page.click(".dock >> text=Add something else");
        page.click(".question >> text=" + question);
        page.locator(".proposal").nth(which).click();
        page.waitForCondition(() -> page.locator(".visual, .filter").count() == before + 1);
        page.waitForSelector(".dock .slot:not(select)");
        drawn(page);
    }

    /** From a file to a page of two pages that readers see, without a pointer. */
    @Test
    void aTableBecomesTwoPagesWithTheKeyboardAlone() {
        Page ana = home("ana");
        ana.navigate("/bring");
        // The file itself is chosen in a dialog of the browser's own, which is opened by a key on its button.
        ana.setInputFiles("#file", Samples.sales());
        ana.waitForURL("**/bring/*");
        waitForText(ana.locator("#counts .good"), "5");
        ana.focus("#name");
        ana.keyboard().press("Control+A");
        ana.keyboard().type("Keyboard sales");
        press(ana, "#keep");
        ana.waitForURL("**/datasets/*");
        press(ana, "#first-page");
        ana.waitForURL("**/compose");
        drawn(ana);
        ana.waitForSelector(".visual-map");

        // The title asks a question of its own.
        ana.focus("#sheet-title input");
        ana.keyboard().press("Control+A");
        ana.keyboard().type("Where do the keys sell?");
        ana.keyboard().press("Tab");
        waitForText(ana.locator("#undo"), "title");

        // A second page, with what is typed in a sentence and what is proposed.
        press(ana, ".page-add");
        waitForText(ana.locator(".dock-brief"), "The second page");
        press(ana, ".dock .slot[aria-label^='title']");
        ana.keyboard().type("Of what");
        ana.keyboard().press("Enter");
        waitForText(ana.locator(".page-title[aria-current]"), "Of what");
        press(ana, "text=Add something else");
        ana.focus(".sentence-field");
        ana.keyboard().type("bars of litres by product titled “Still or sparkling?”");
        waitForText(ana.locator(".sentence-words"), "by sum of litres");
        ana.keyboard().press("Enter");
        ana.waitForSelector(".visual-bars .bar");
        press(ana, "text=Add something else");
        press(ana, ".question[data-question=EXACTLY]");
        press(ana, ".proposal[data-kind=table]");
        ana.waitForSelector(".visual-table table");

        // Arranged and dressed: the table beside the bars, both on a leaf.
        ana.focus(".visual-bars > .visual-title");
        ana.keyboard().press("Shift+Enter");
        ana.focus(".visual-table > .visual-title");
        ana.keyboard().press("Shift+Enter");
        press(ana, ".dock [data-act=GROUP]");
        waitForText(ana.locator("#undo"), "grouping");
        ana.focus(".visual-bars > .visual-title");
        ana.keyboard().press("Escape");
        press(ana, ".page-title[aria-current]");
        press(ana, ".dock >> text=Finish");
        press(ana, ".dock .slot[aria-label^='ground']");
        ana.keyboard().press("ArrowDown");
        ana.keyboard().press("Enter");
        ana.waitForSelector(".visual-bars[data-ground=leaf]");

        String address = ana.url().substring(sarnik.base().length()).replace("/compose", "");
        press(ana, "#hand-over");
        ana.waitForSelector("[data-ready]");
        press(ana, "text=Publish this version as edition 1");
        waitForText(ana.locator(".said"), "Edition 1 is what readers see now");
        // Everybody who can sign in stands first among those to whom it can be given.
        press(ana, "#grant-keep");
        waitForText(ana.locator(".given"), "everybody who can sign in may");
        Page rui = page("rui");
        rui.navigate(address);
        rui.waitForSelector(".visual-bars[data-ground=leaf] .bar");
        assertThat(rui.title()).contains("Where do the keys sell?");
        assertThat(rui.locator(".page-title").allTextContents()).hasSize(2).contains("Of what");
        rui.focus(".page-title >> nth=0");
        rui.keyboard().press("Enter");
        rui.waitForSelector(".visual-map");
    }

    private static void press(Page page, String selector) {
        page.waitForSelector(selector);
        page.focus(selector);
        page.keyboard().press("Enter");
    }
}
