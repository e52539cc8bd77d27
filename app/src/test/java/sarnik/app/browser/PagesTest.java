package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;

@DisplayName("Signing in, home and people")
class PagesTest extends BrowserTest {

    @Test
    void aWrongPasswordIsSaidAndSigningOutEnds() {
        Page page = home("rui");
        page.click("text=Sign out");
        page.waitForURL("**/sign-in?out");
        assertThat(page.textContent("main")).contains("You are signed out.");
        page.fill("[name=username]", "rui");
        page.fill("[name=password]", "not this one");
        page.click("button[type=submit]");
        assertThat(page.textContent("[role=alert]")).contains("not right");
        page.navigate("/");
        assertThat(page.url()).endsWith("/sign-in");
    }

    @Test
    void homeShowsDashboardsWithAPlanAndDatasetsToAuthorsOnly() throws Exception {
        long id = Samples.dashboard(sarnik.client("ana"), "Is this on the home page?");
        Page ana = home("ana");
        assertThat(ana.locator(".plan:has-text('Is this on the home page?') svg path")
                        .count())
                .isEqualTo(3);
        assertThat(ana.textContent("main")).contains("Datasets").contains("a draft");
        ana.click(".plan:has-text('Is this on the home page?')");
        assertThat(ana.url()).endsWith("/dashboards/" + id);
        assertThat(home("rui").textContent("main")).doesNotContain("Datasets");
    }

    @Test
    void aStewardLetsAPersonInWhoThenSignsIn() {
        Page marta = home("marta");
        marta.click("text=People");
        marta.fill("[name=signIn]", "olga");
        marta.fill("[name=name]", "Olga");
        marta.fill("form[action='/people'] [name=password]", RunningSarnik.PASSWORD);
        marta.click("text=Let this person in");
        assertThat(marta.textContent(".sentence-good")).contains("Olga can sign in now.");
        assertThat(home("olga").textContent(".head")).contains("Olga, reader");
    }

    @ParameterizedTest
    @ValueSource(strings = {"/dashboards/999999", "/nowhere", "/datasets/999999", "/bring/not-there"})
    void whatIsNotThereIsSaidWithAWayHome(String address) {
        Page page = page("ana");
        assertThat(page.navigate(address).status()).isEqualTo(404);
        assertThat(page.locator("main h1").count()).isEqualTo(1);
        page.click("text=Go home");
        assertThat(page.url()).isEqualTo(sarnik.base() + "/");
    }

    @Test
    void aStrangeAddressIsAnAnswerAndNoTrace() {
        Page page = page("ana");
        assertThat(page.navigate("/dashboards/abc").status()).isEqualTo(400);
        assertThat(page.textContent("main")).doesNotContain("Exception").doesNotContain("java.");
    }
}
