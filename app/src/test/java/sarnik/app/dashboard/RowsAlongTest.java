package sarnik.app.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Rows of any visual, taken along")
class RowsAlongTest {

    private static long dashboard;

    private SarnikClient rui;
    private SarnikClient ana;

    @BeforeEach
    void aDashboard(RunningSarnik sarnik) throws Exception {
        ana = sarnik.client("ana");
        rui = sarnik.client("rui");
        if (dashboard != 0) return;
        dashboard = Samples.dashboard(ana, "Rows along?");
        ana.publish(dashboard);
    }

    private static HttpResponse<String> rows(SarnikClient client, String body) throws Exception {
        return client.send("POST", "/api/dashboards/" + dashboard + "/rows", "application/json", body);
    }

    @Test
    void areThoseThatItShowsWithTheColumnsThatItNames() throws Exception {
        String asked = "{\"state\":\"%s\",\"visual\":\"v2\",\"form\":\"csv\"}";
        assertThat(rows(rui, asked.formatted("")).body().lines()).hasSize(7);
        String warm = rows(rui, asked.formatted("f.f1=warm")).body();
        assertThat(warm.lines().toList())
                .hasSize(4)
                .first()
                .asString()
                .startsWith("litres")
                .doesNotContain("product");
        assertThat(warm).contains("20").contains("41.76401").doesNotContain("100");
        assertThat(rows(ana, asked.formatted("f.f1=warm")).body().lines().toList())
                .as("who composes takes all columns")
                .first()
                .asString()
                .contains("town", "product", "litres");
    }

    @Test
    void comeInEveryFormat() throws Exception {
        JsonNode places = Samples.parse(rows(rui, "{\"state\":\"f.f1=still\",\"visual\":\"v3\",\"form\":\"geojson\"}")
                .body());
        assertThat(places.get("features").size()).isEqualTo(3);
        assertThat(places.at("/features/0/geometry/type").asString()).isEqualTo("Point");
        for (var form : java.util.Map.of("xlsx", "PK", "gpkg", "SQLite format 3", "spreadsheet.csv", "litres")
                .entrySet()) {
            HttpResponse<String> file =
                    rows(rui, "{\"state\":\"\",\"visual\":\"v3\",\"form\":\"%s\"}".formatted(form.getKey()));
            assertThat(file.statusCode()).as(form.getKey()).isEqualTo(200);
            assertThat(file.body()).startsWith(form.getValue());
        }
    }

    @Test
    void areRefusedInASentenceWhereThereAreNone() throws Exception {
        assertThat(rows(rui, "{\"state\":\"\",\"visual\":\"v3\",\"form\":\"doc\"}")
                        .body())
                .contains("csv, spreadsheet.csv, xlsx, geojson, gpkg and parquet");
        assertThat(rows(rui, "{\"state\":\"\",\"visual\":\"v99\"}").body()).contains("has been taken away");
        assertThat(rows(rui, "{\"state\":\"\"}").statusCode()).isEqualTo(400);
    }
}
