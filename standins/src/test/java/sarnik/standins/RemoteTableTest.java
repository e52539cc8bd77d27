package sarnik.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("The table that changes")
class RemoteTableTest {

    private static HttpResponse<String> get(RemoteTable table, String path) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + table.port() + path))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void isTheSameAtTheSameStepAndAnotherAtTheNext() throws Exception {
        AtomicLong step = new AtomicLong(41);
        try (RemoteTable table = RemoteTable.start(0, step::get)) {
            String first = get(table, "/stock.csv").body();
            assertThat(get(table, "/stock.csv").body()).isEqualTo(first);
            step.incrementAndGet();
            assertThat(get(table, "/stock.csv").body())
                    .isNotEqualTo(first)
                    .hasLineCount(9)
                    .startsWith("depot,town,province,country,cartridges");
        }
    }

    @Test
    void isThereAsGeoJsonToo() throws Exception {
        try (RemoteTable table = RemoteTable.start(0, () -> 7)) {
            HttpResponse<String> answer = get(table, "/stock.geojson");
            assertThat(answer.headers().firstValue("Content-Type")).contains("application/geo+json");
            assertThat(answer.body())
                    .contains("\"type\":\"FeatureCollection\"")
                    .contains("Évora")
                    .contains("[-7.90746,38.56667]");
        }
    }

    @Test
    void neverRunsBelowNothing() {
        for (long step = 0; step < 500; step++) {
            assertThat(RemoteTable.csv(step).lines().skip(1).mapToInt(line -> Integer.parseInt(line.split(",")[4])))
                    .allMatch(n -> n > 0 && n <= 240);
        }
    }
}
