package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import javax.sql.DataSource;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("A page whose rows are still on their way")
class ComingTest extends BrowserTest {

    @Test
    void saysSoAndFillsByItselfWithWhatTheAddressAsks() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "Coming?");
        JsonNode document = ana.read(ana.get("/api/dashboards/" + dashboard)).get("document");
        long dataset = document.at("/visuals/v2/dataset").asLong();
        try (Connection other = sarnik.bean(DataSource.class).getConnection();
                Statement statement = other.createStatement()) {
            other.setAutoCommit(false);
            String table;
            try (ResultSet served =
                    statement.executeQuery("SELECT version_id FROM dataset_served WHERE dataset_id = " + dataset)) {
                assertThat(served.next()).isTrue();
                table = "rows.v" + served.getLong(1);
            }
            statement.execute("LOCK TABLE " + table + " IN ACCESS EXCLUSIVE MODE");
            // With something more to calculate its rows are read anew, which they cannot be just now.
            Map<String, Object> more =
                    Map.of("formulas", List.of(Map.of("name", "twice", "text", "litres * 2", "measure", false)));
            CompletableFuture<Integer> described = CompletableFuture.supplyAsync(() -> {
                try {
                    return ana.describe(dataset, "calculations", more).statusCode();
                } catch (Exception failed) {
                    throw new IllegalStateException(failed);
                }
            });
            Page page = page("ana");
            page.navigate("/dashboards/" + dashboard + "?f.f1=warm");
            page.waitForCondition(
                    () -> page.locator("[data-visual=v2]").innerText().contains("still being read"));
            assertThat(page.url()).endsWith("?f.f1=warm");
            assertThat(page.locator("#misfits").innerText()).isEmpty();
            assertThat(page.locator("#strip").innerText()).doesNotContain("has gone");
            other.rollback();
            assertThat(described.get()).isEqualTo(204);
            waitForText(page.locator("[data-visual=v2] .figure-number"), "29");
            assertThat(page.url()).endsWith("?f.f1=warm");
            page.waitForCondition(() -> page.locator("#strip").innerText().contains("warm"));
            assertThat(page.locator("[data-visual=v2]").innerText()).doesNotContain("still being read");
        }
    }
}
