package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.testing.RunningSarnik;

@DisplayName("Signing in by a provider outside")
class OutsideSignInTest extends BrowserTest {

    private Page by(String name) {
        Page page = stranger(1280, 800);
        page.navigate(sarnik.base() + "/sign-in");
        page.click("text=Sign in by the network's office");
        page.click("text=" + name);
        return page;
    }

    @Test
    void whomTheProviderVouchesForIsWhoAStewardSaysAndNobodyElse() throws Exception {
        Page stranger = by("teo");
        assertThat(stranger.textContent("[role=alert]")).contains("nobody here is known so");
        long id = sarnik.bean(PeopleService.class)
                .add("iria", "Iria", RunningSarnik.PASSWORD, Role.ANALYST)
                .getId();
        Page steward = page("marta");
        steward.navigate("/people");
        steward.click("[data-person=iria] summary");
        steward.fill("[data-person=iria] [name=known] >> nth=1", "iria@aljibe.example");
        steward.click("[data-person=iria] [value=outside]");
        assertThat(steward.textContent(".sentence-good")).contains("signs in as Iria");
        Page iria = by("iria");
        assertThat(iria.textContent(".head")).contains("Iria, analyst");
        iria.navigate(sarnik.base() + "/me");
        iria.navigate(sarnik.base() + "/bring");
        assertThat(iria.title()).as("what an analyst may").contains("Bring");
        // Somebody who only says that this address is theirs.
        Page sly = by("sly");
        assertThat(sly.textContent("[role=alert]")).contains("nobody here is known so");
        steward.navigate("/acts");
        assertThat(steward.textContent("main")).contains("signed in by the network's office");
        // A session that a provider began is ended as any other, and a closed account stays closed.
        sarnik.client("marta").send("POST", "/people/" + id, "application/x-www-form-urlencoded", "act=close");
        iria.navigate(sarnik.base() + "/");
        assertThat(iria.url()).contains("/sign-in");
        assertThat(by("iria").textContent("[role=alert]")).contains("nobody here is known so");
    }

    @Test
    void whatIsForgedOrComesTwiceShowsNobodyIn() {
        Page page = stranger(1280, 800);
        for (String back : new String[] {
            "/sign-in/back-from-outside",
            "/sign-in/back-from-outside?code=x&state=y",
            "/sign-in/back-from-outside?error=access_denied&state=z"
        }) {
            page.navigate(sarnik.base() + back);
            assertThat(page.url()).as(back).contains("/sign-in");
        }
    }
}
