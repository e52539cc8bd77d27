package sarnik.app.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Dashboards as files")
class DashboardFileTest {

    private static final String JSON = "application/json";
    private static final JsonMapper MAPPER = JsonMapper.shared();

    private static ObjectNode file(SarnikClient ana, long dashboard) throws Exception {
        HttpResponse<String> answer = ana.get("/api/dashboards/" + dashboard + "/file");
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(answer.headers().firstValue("Content-Disposition").orElse(""))
                .contains("attachment", ".sarnik.json");
        return (ObjectNode) Samples.parse(answer.body());
    }

    private static String full(SarnikClient client, long dashboard) throws Exception {
        return client.json(
                        "POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", "", "ids", List.of("v2")))
                .at("/drawings/v2/full")
                .asString();
    }

    @Test
    void comesInAgainOntoAnotherDatasetWithItsKeysAndColumnsOfOtherNames(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long first = Samples.dashboard(ana, "To be taken along?");
        ObjectNode file = file(ana, first);
        assertThat(file.get("sarnikDashboard").asInt()).isEqualTo(1);
        assertThat(file.toString()).doesNotContain("Zamora").doesNotContain("\"rows\"");
        assertThat(file.at("/datasets/0/columns").size()).isEqualTo(6);
        file.set("keys", MAPPER.readTree("""
                [{"name":"Litres of the test","words":"from the file","colour":{"measure":{"summary":"SUM","column":"litres"},"method":"NATURAL","classes":3,"palette":"loch"}}]"""));
        long id = file.at("/datasets/0/id").asLong();
        // The same rows with other names, under which nothing but the day is found by itself.
        long other = ana.bring(
                RunningSarnik.file(
                        "verkauf.csv",
                        Samples.SALES
                                .replace(
                                        "town,province,country,day,product,litres",
                                        "town,province,country,day,Sorte,Liter")
                                .replace(",100", ",1000")),
                "Verkauf");
        JsonNode found = ana.json(
                "POST", "/api/dashboard-files/match", Map.of("file", file, "onto", Map.of(String.valueOf(id), other)));
        assertThat(found.get("title").asString()).isEqualTo("To be taken along?");
        assertThat(found.at("/keys/0").asString()).contains("comes with it");
        Map<String, String> columns = new HashMap<>();
        for (JsonNode used : found.at("/datasets/0/used"))
            columns.put(
                    used.get("name").asString(),
                    used.get("to").isNull() ? null : used.get("to").asString());
        assertThat(columns).containsEntry("day", "day").containsEntry("@place", "@place");
        assertThat(columns.get("litres")).isNull();
        assertThat(columns.get("product")).isNull();
        columns.put("litres", "Liter");
        columns.put("product", "Sorte");
        long made = ana.json(
                        "POST",
                        "/api/dashboard-files",
                        Map.of(
                                "file",
                                file,
                                "title",
                                "Brought in?",
                                "onto",
                                Map.of(String.valueOf(id), Map.of("dataset", other, "columns", columns))))
                .get("dashboard")
                .asLong();
        assertThat(full(ana, made)).isEqualTo("1,079");
        assertThat(full(ana, first)).as("the one it was taken of stays").isEqualTo("179");
        assertThat(ana.get("/keys").body()).contains("Litres of the test");
        ObjectNode again = file(ana, made);
        assertThat(again.at("/document/filters/f1/column").asString()).isEqualTo("Sorte");
        assertThat(again.at("/document/title").asString()).isEqualTo("Brought in?");
    }

    @Test
    void twoDatasetsCanTakeEachOthersPlace(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "Each other's?");
        ObjectNode file = file(ana, dashboard);
        long one = file.at("/datasets/0/id").asLong();
        long two = ana.bring(RunningSarnik.file("two.csv", Samples.SALES.replace(",40", ",400")), "Two");
        ((ObjectNode) file.at("/document/visuals/v3")).put("dataset", two);
        ((tools.jackson.databind.node.ArrayNode) file.get("datasets"))
                .add(MAPPER.valueToTree(Map.of("id", two, "name", "Two", "placed", true, "columns", List.of())));
        long made = ana.json(
                        "POST",
                        "/api/dashboard-files",
                        Map.of(
                                "file",
                                file,
                                "onto",
                                Map.of(
                                        String.valueOf(one), Map.of("dataset", two),
                                        String.valueOf(two), Map.of("dataset", one))))
                .get("dashboard")
                .asLong();
        JsonNode document = ana.read(ana.get("/api/dashboards/" + made)).get("document");
        assertThat(document.at("/visuals/v2/dataset").asLong()).isEqualTo(two);
        assertThat(document.at("/visuals/v3/dataset").asLong()).isEqualTo(one);
        assertThat(full(ana, made)).isEqualTo("539");
    }

    @Test
    void whatIsNoFileOrOneOfANewerFormIsRefusedInASentence(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        ObjectNode good = file(ana, Samples.dashboard(ana, "A good file?"));
        ObjectNode newer = good.deepCopy().put("sarnikDashboard", 2);
        ObjectNode newerDocument = good.deepCopy();
        ((ObjectNode) newerDocument.get("document")).put("schema", 99);
        ObjectNode strange = good.deepCopy().put("extra", "x");
        ObjectNode broken = good.deepCopy();
        ((ObjectNode) broken.get("document")).put("visuals", "none");
        Map<String, String> refused = new HashMap<>();
        refused.put(newer.toString(), "made by a newer Sarnik");
        refused.put(newerDocument.toString(), "made by a newer Sarnik");
        refused.put(strange.toString(), "no dashboard's file");
        refused.put(broken.toString(), "would not fit its form");
        refused.put("[1,2]", "no dashboard's file");
        refused.put("{}", "no dashboard's file");
        refused.put("\"x\"", "no dashboard's file");
        refused.put("null", "Choose a dashboard's file");
        refused.put(
                "{\"sarnikDashboard\":1,\"document\":{},\"datasets\":\"" + "x".repeat(3_500_000) + "\"}",
                "up to 3,072 kB");
        for (var one : refused.entrySet())
            for (String address : List.of("/api/dashboard-files", "/api/dashboard-files/match")) {
                HttpResponse<String> answer = ana.send("POST", address, JSON, "{\"file\":" + one.getKey() + "}");
                assertThat(answer.statusCode()).as(one.getValue()).isEqualTo(400);
                assertThat(answer.body()).contains(one.getValue());
            }
        assertThat(ana.send("POST", "/api/dashboard-files", JSON, "{\"file\":\"" + "x".repeat(5 << 20) + "\"}")
                        .statusCode())
                .as("100 MB are not even read")
                .isEqualTo(413);
        assertThat(ana.send("POST", "/api/dashboard-files", JSON, "{\"file\":" + good + ",\"onto\":{}}")
                        .body())
                .contains("Say which dataset takes the place of");
    }

    @Test
    void scriptInAFileStaysText(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        ObjectNode file = file(ana, Samples.dashboard(ana, "Script?"));
        long dataset = file.at("/datasets/0/id").asLong();
        String script = "</script><script>alert(1)</script><img src=x onerror=alert(2)>";
        ((ObjectNode) file.get("document")).put("title", script);
        long made = ana.json(
                        "POST",
                        "/api/dashboard-files",
                        Map.of("file", file, "onto", Map.of(String.valueOf(dataset), Map.of("dataset", dataset))))
                .get("dashboard")
                .asLong();
        for (String page : List.of(
                "/", "/dashboards/" + made, "/dashboards/" + made + "/compose", "/dashboards/" + made + "/hand-over"))
            assertThat(ana.get(page).body())
                    .as(page)
                    .doesNotContain("<script>alert")
                    .doesNotContain("<img src=x");
        ana.send("DELETE", "/api/dashboards/" + made, JSON, "");
    }
}
