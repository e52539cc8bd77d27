package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicInteger;
import javax.sql.DataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

@DisplayName("A page whose rows are still on their way")
class ComingTest extends BrowserTest {

    private SarnikClient ana;
    private long dashboard;
    private JsonNode document;

    @BeforeEach
    void make() throws Exception {
        ana = sarnik.client("ana");
        dashboard = Samples.dashboard(ana, "Coming?");
        document = ana.read(ana.get("/api/dashboards/" + dashboard)).get("document");
    }

    /** Rows that are to be read anew and cannot be, until they are let go. */
    private final class Held implements AutoCloseable {

        private final Connection other = sarnik.bean(DataSource.class).getConnection();
        private final CompletableFuture<Integer> described;

        Held() throws SQLException {
            long dataset = document.at("/visuals/v2/dataset").asLong();
            try (Statement statement = other.createStatement()) {
                other.setAutoCommit(false);
                String table;
                try (ResultSet served =
                        statement.executeQuery("SELECT version_id FROM dataset_served WHERE dataset_id = " + dataset)) {
                    assertThat(served.next()).isTrue();
                    table = "rows.v" + served.getLong(1);
                }
                statement.execute("LOCK TABLE " + table + " IN ACCESS EXCLUSIVE MODE");
            }
            // With something more to calculate they are read anew.
            Map<String, Object> more =
                    Map.of("formulas", List.of(Map.of("name", "twice", "text", "litres * 2", "measure", false)));
            described = CompletableFuture.supplyAsync(() -> {
                try {
                    return ana.describe(dataset, "calculations", more).statusCode();
                } catch (Exception failed) {
                    throw new IllegalStateException(failed);
                }
            });
        }

        void letGo() throws SQLException {
            other.rollback();
            assertThat(described.join()).isEqualTo(204);
        }

        @Override
        public void close() throws SQLException {
            other.rollback();
            other.close();
        }
    }

    /** Opens the dashboard, and waits until it says that its rows are still on their way. */
    private Page opened(String asked) {
        Page page = page("ana");
        page.navigate("/dashboards/" + dashboard + asked);
        page.waitForCondition(() -> page.locator("[data-visual=v2]").innerText().contains("still being read"));
        return page;
    }

    @Test
    void saysSoAndFillsByItselfWithWhatTheAddressAsks() throws Exception {
        try (Held held = new Held()) {
            Page page = opened("?f.f1=warm");
            assertThat(page.url()).endsWith("?f.f1=warm");
            assertThat(page.locator("#misfits").innerText()).isEmpty();
            assertThat(page.locator("#strip").innerText()).doesNotContain("has gone");
            held.letGo();
            waitForText(page.locator("[data-visual=v2] .figure-number"), "29");
            assertThat(page.url()).endsWith("?f.f1=warm");
            page.waitForCondition(() -> page.locator("#strip").innerText().contains("warm"));
            assertThat(page.locator("[data-visual=v2]").innerText()).doesNotContain("still being read");
        }
    }

    @Test
    void isSetForPaperOnceAllIsThere() throws Exception {
        try (Held held = new Held()) {
            Page page = opened("?f.f1=warm#print.A4");
            assertThat(page.locator("body[data-printed], .print-page").count()).isZero();
            held.letGo();
            page.waitForCondition(() -> page.locator("body[data-printed]").count() == 1);
            assertThat(page.locator(".print-page [data-visual=v2]").textContent())
                    .contains("29");
        }
    }

    @Test
    void whatItsFiltersOfferIsAskedForUntilItIsKnownAndTakenAsSomebodyHasEditedItMeanwhile() {
        AtomicInteger asked = new AtomicInteger();
        Page page = page("ana");
        page.route("**/api/dashboards/" + dashboard, route -> {
            switch (asked.getAndIncrement()) {
                case 0, 2 -> withoutOffers(route);
                case 1 -> route.abort();
                default -> {
                    retitle();
                    route.resume();
                }
            }
        });
        page.navigate("/dashboards/" + dashboard + "?f.f1=warm");
        page.waitForCondition(() -> page.locator("[data-filter=f1]").innerText().contains("…"));
        page.evaluate("() => { window.sarnikStands().then(() => "
                + "(window.stood = document.querySelector('[data-filter=f1]').innerText)); }");
        page.waitForCondition(() -> page.locator("[data-filter=f1]").innerText().contains("warm"));
        assertThat(asked.get()).isEqualTo(4);
        page.waitForFunction("() => window.stood");
        assertThat((String) page.evaluate("window.stood"))
                .as("what a picture of it would show")
                .contains("warm");
        waitForText(page.locator("[data-visual=v2] .visual-title"), "Of another hand");
        assertThat(page.url()).endsWith("?f.f1=warm");
    }

    /** What a page is told of which the rows are on their way. */
    private static void withoutOffers(Route route) {
        APIResponse answer = route.fetch();
        ObjectNode told = (ObjectNode) Samples.parse(answer.text());
        told.put("coming", true);
        ((ObjectNode) told.at("/offers/f1")).put("misfit", "Rows are still being read.");
        route.fulfill(new Route.FulfillOptions().setResponse(answer).setBody(told.toString()));
    }

    private void retitle() {
        try {
            JsonNode now = ana.read(ana.get("/api/dashboards/" + dashboard));
            ana.read(ana.send(
                    "PATCH",
                    "/api/dashboards/" + dashboard,
                    Samples.JSON_PATCH,
                    "[{\"op\":\"replace\",\"path\":\"/visuals/v2/title\",\"value\":\"Of another hand\"}]",
                    "If-Match",
                    "\"" + now.get("revision").asLong() + "\""));
        } catch (Exception failed) {
            throw new IllegalStateException(failed);
        }
    }
}
