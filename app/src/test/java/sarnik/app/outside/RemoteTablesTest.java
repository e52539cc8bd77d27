package sarnik.app.outside;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.standins.RemoteTable;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("A table at an address")
class RemoteTablesTest {

    private SarnikClient ana;
    private RemoteTable remote;
    private HttpServer odd;

    @BeforeEach
    void aService(RunningSarnik sarnik) throws Exception {
        remote = RemoteTable.start(0, () -> 1);
        odd = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 4);
        odd.start();
        ana = sarnik.client("ana");
        for (int port : new int[] {remote.port(), odd.getAddress().getPort()})
            sarnik.client("marta")
                    .send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + port);
    }

    @AfterEach
    void stop() {
        remote.close();
        odd.stop(0);
    }

    private HttpResponse<String> bring(String address) throws Exception {
        return ana.send("POST", "/api/bring/address", "application/json", "{\"address\": \"" + address + "\"}");
    }

    private String page(HttpResponse<String> taken) throws Exception {
        assertThat(taken.statusCode()).as(taken.body()).isEqualTo(201);
        JsonNode state = ana.read(taken);
        while (state.get("working").asBoolean())
            state = ana.json("GET", "/api/bring/" + state.get("id").asString(""), null);
        return ana.get(state.get("address").asString("")).body();
    }

    private String here(String path) {
        return "http://127.0.0.1:" + remote.port() + path;
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({
        "/features/collections/wells, 57",
        "/features/collections/wells/items, 57",
        "/features/collections/wells/items?limit=20, 57",
        "/features/collections/districts, 4",
        "/stock.geojson, 8",
        "/stock.csv, 8"
    })
    void isReadWithAllItsPages(String path, int rows) throws Exception {
        assertThat(page(bring(here(path)))).contains(rows + " rows");
    }

    @Test
    void ofAServiceWithSeveralCollectionsOneIsAskedFor() throws Exception {
        HttpResponse<String> refused = bring(here("/features"));
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body())
                .contains("offers 2 collections")
                .contains("Wells (" + here("/features/collections/wells/items") + ")");
    }

    @Test
    void whoseHostIsNotAllowedIsNotAsked() throws Exception {
        assertThat(bring("http://localhost:1/x.csv").body()).contains("unless a steward allows");
        assertThat(bring("").body()).contains("Write the address of a table");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "itself | goes on beyond",
                "elsewhere | unless a steward allows",
                "broken | no GeoJSON",
                "nowhere | no address"
            })
    void whosePagesDoNotFollowIsRefusedInsteadOfCutShort(String next, String why) throws Exception {
        String at = "http://127.0.0.1:" + odd.getAddress().getPort();
        String href = Map.of(
                        "itself",
                        at + "/items",
                        "elsewhere",
                        "http://localhost:1/items",
                        "broken",
                        at + "/broken",
                        "nowhere",
                        "http://[")
                .get(next);
        answer(
                "/items",
                ("{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\","
                                + "\"coordinates\":[-2,41]},\"properties\":{\"n\":1}}],\"links\":[{\"rel\":\"next\","
                                + "\"href\":\"%s\"}]}")
                        .formatted(href));
        answer("/broken", "not at all");
        HttpResponse<String> refused = bring(at + "/items");
        assertThat(refused.statusCode()).as(refused.body()).isBetween(400, 499);
        assertThat(refused.body()).contains(why);
    }

    private void answer(String path, String body) {
        odd.createContext(path, exchange -> {
            try (exchange) {
                byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
                exchange.sendResponseHeaders(200, bytes.length);
                exchange.getResponseBody().write(bytes);
            }
        });
    }
}
