package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javax.sql.DataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import sarnik.table.Table;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("What was acknowledged is never lost")
class NeverLostTest {

    private RunningSarnik sarnik;
    private SarnikClient ana;
    private long sales;

    @BeforeEach
    void aDataset(RunningSarnik running) throws Exception {
        sarnik = running;
        ana = running.client("ana");
        sales = ana.bring(Samples.sales(), "Sales");
    }

    /** Does the same from several hands at the same moment. */
    private static <T> List<T> atOnce(int hands, java.util.function.IntFunction<Callable<T>> work) throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(hands);
        try {
            List<Future<T>> all =
                    pool.invokeAll(IntStream.range(0, hands).mapToObj(work).toList());
            List<T> results = new ArrayList<>();
            for (Future<T> one : all) results.add(one.get());
            return results;
        } finally {
            pool.shutdown();
        }
    }

    private JsonNode newer(String content) throws Exception {
        return ana.read(ana.upload(RunningSarnik.file("newer.csv", content), "newer.csv", "?dataset=" + sales));
    }

    private HttpResponse<String> serve(JsonNode taken, String query) throws Exception {
        return ana.send("POST", "/api/bring/" + taken.get("id").asString() + "/serve" + query, "application/json", "");
    }

    private Table served() {
        return sarnik.bean(DatasetService.class).needed(sales).dataset().table();
    }

    private static String row(int litres) {
        return "town,province,country,day,product,litres\nSoria,Soria,Spain,2026-03-01,still," + litres + "\n";
    }

    @Test
    void whatAnAuthorSaysHoldsThoughRefreshesRun() throws Exception {
        AtomicBoolean on = new AtomicBoolean(true);
        List<Integer> done = atOnce(2, hand -> () -> {
            if (hand == 0) {
                int refreshed = 0;
                while (on.get()) {
                    assertThat(serve(newer(row(refreshed)), "").statusCode()).isEqualTo(200);
                    refreshed++;
                }
                return refreshed;
            }
            try {
                for (int i = 0; i < 15; i++) {
                    assertThat(ana.describe(sales, "name", Map.of("name", "Name " + i))
                                    .statusCode())
                            .isEqualTo(204);
                    assertThat(ana.describe(sales, "about", Map.of("title", "Title " + i))
                                    .statusCode())
                            .isEqualTo(204);
                    Description now =
                            sarnik.bean(DatasetService.class).description(sales).orElseThrow();
                    assertThat(now.name()).isEqualTo("Name " + i);
                    assertThat(now.about().title()).isEqualTo("Title " + i);
                }
            } finally {
                on.set(false);
            }
            return 15;
        });
        Description now = sarnik.bean(DatasetService.class).description(sales).orElseThrow();
        assertThat(now.name()).isEqualTo("Name 14");
        assertThat(now.about().title()).isEqualTo("Title 14");
        assertThat(now.served().number()).isEqualTo(1 + done.get(0));
    }

    @Test
    void aChangeOfAnOlderRevisionIsRefusedAndSaysWho() throws Exception {
        HttpResponse<String> stand = ana.get("/api/datasets/" + sales);
        String tag = stand.headers().firstValue("ETag").orElseThrow();
        HttpResponse<String> first = ana.send(
                "PUT", "/api/datasets/" + sales + "/name", "application/json", "{\"name\":\"First\"}", "If-Match", tag);
        assertThat(first.statusCode()).isEqualTo(204);
        assertThat(first.headers().firstValue("ETag")).isPresent().isNotEqualTo(java.util.Optional.of(tag));
        HttpResponse<String> stale = ana.send(
                "PUT",
                "/api/datasets/" + sales + "/about",
                "application/json",
                "{\"title\":\"Stale\"}",
                "If-Match",
                tag);
        assertThat(stale.statusCode()).isEqualTo(412);
        assertThat(stale.body()).contains("You, on another page, changed what is said about “First”");
        assertThat(ana.send("PUT", "/api/datasets/" + sales + "/name", "application/json", "{\"name\":\"x\"}")
                        .statusCode())
                .isEqualTo(428);
        assertThat(sarnik.bean(DatasetService.class)
                        .description(sales)
                        .orElseThrow()
                        .about()
                        .title())
                .isEmpty();
    }

    @Test
    void rowsThatSeveralPutBelowAtOnceAreAllThere() throws Exception {
        int before = served().rows();
        List<JsonNode> taken = new ArrayList<>();
        for (int i = 0; i < 6; i++) taken.add(newer(row(1000 + i)));
        List<Integer> answers =
                atOnce(6, i -> () -> serve(taken.get(i), "?append=true").statusCode());
        assertThat(answers).containsOnly(200);
        Table after = served();
        assertThat(after.rows()).isEqualTo(before + 6);
        assertThat(IntStream.range(0, after.rows())
                        .mapToObj(r -> after.column("litres").text(r))
                        .collect(Collectors.toSet()))
                .contains("1000", "1001", "1002", "1003", "1004", "1005");
    }

    @Test
    void ofRowsThatTakeThePlaceOfOthersTheSlowerAreTold() throws Exception {
        JsonNode first = newer(row(1));
        JsonNode second = newer(row(2));
        assertThat(serve(first, "").statusCode()).isEqualTo(200);
        HttpResponse<String> late = serve(second, "");
        assertThat(late.statusCode()).isEqualTo(409);
        assertThat(late.body()).contains("Newer rows came in meanwhile: version 2 is served now");
        assertThat(served().column("litres").text(0)).isEqualTo("1");
        // Compared anew, they may.
        ana.json("POST", "/api/bring/" + second.get("id").asString() + "/intake", Map.of());
        assertThat(serve(second, "").statusCode()).isEqualTo(200);
        assertThat(served().column("litres").text(0)).isEqualTo("2");
    }

    @Test
    void twoWhoTakeADatasetAwayAtOnceGetOneAnswerEach() throws Exception {
        List<Integer> answers = atOnce(
                4,
                i -> () -> ana.send("DELETE", "/api/datasets/" + sales, "application/json", "")
                        .statusCode());
        assertThat(answers).containsOnlyOnce(204).allMatch(s -> s == 204 || s == 404);
    }

    @Test
    void aFileThatSeveralKeepAtOnceIsKeptOnce() throws Exception {
        JsonNode taken = ana.read(ana.upload(Samples.sales(), "sales.csv"));
        long before = sarnik.bean(DatasetService.class).all(sarnik.person("marta")).stream()
                .filter(d -> d.name().equals("Kept at once"))
                .count();
        List<Integer> answers = atOnce(
                4,
                i -> () -> ana.send(
                                "POST",
                                "/api/bring/" + taken.get("id").asString() + "/keep",
                                "application/json",
                                "{\"name\":\"Kept at once\"}")
                        .statusCode());
        assertThat(answers).containsOnlyOnce(201).allMatch(s -> s == 201 || s == 409 || s == 404);
        assertThat(sarnik.bean(DatasetService.class).all(sarnik.person("marta")).stream()
                        .filter(d -> d.name().equals("Kept at once"))
                        .count())
                .isEqualTo(before + 1);
    }

    private void sql(String statement) throws Exception {
        try (var connection = sarnik.bean(DataSource.class).getConnection();
                var change = connection.createStatement()) {
            assertThat(change.executeUpdate(statement)).isPositive();
        }
    }

    @Test
    void aDatasetThatCannotBePlacedStopsNothingElse() throws Exception {
        long dashboard = Samples.dashboard(ana, "Stands?");
        long shown = ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
        // As an older program left it behind when a boundary set was taken away.
        sql("UPDATE datasets SET recipe = '{\"type\":\"area\",\"column\":\"town\",\"set\":\"Long gone\"}', "
                + "revision = revision + 1 WHERE id = "
                + shown);
        assertThat(ana.get("/datasets/" + shown).statusCode()).isEqualTo(200);
        assertThat(ana.get("/datasets/" + shown).body())
                .contains("cannot be placed: The boundary set “Long gone” has gone.");
        assertThat(ana.get("/datasets/" + sales).statusCode()).isEqualTo(200);
        assertThat(ana.get("/").statusCode()).isEqualTo(200);
        assertThat(ana.get("/dashboards/" + dashboard).statusCode()).isEqualTo(200);
        JsonNode frames = ana.json("POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", ""));
        assertThat(frames.at("/drawings/v2/why").asString()).contains("Long gone");
        assertThat(ana.upload(Samples.sales(), "sales.csv").statusCode())
                .as("the look at a new file")
                .isEqualTo(201);
        assertThat(ana.read(ana.get("/api/datasets/" + shown + "/rows"))
                        .get("found")
                        .asInt())
                .isEqualTo(6);
        assertThat(ana.describe(shown, "name", Map.of("name", "Unfit")).statusCode())
                .isEqualTo(204);
        assertThat(ana.send("DELETE", "/api/dashboards/" + dashboard, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.send("DELETE", "/api/datasets/" + shown, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
    }

    @Test
    void datasetsTiedToEachOtherDoNotWaitForEver() throws Exception {
        long other = ana.bring(RunningSarnik.file("o.csv", "code,n\nA,1\nB,2\n"), "Other");
        sql("UPDATE datasets SET recipe = '{\"type\":\"tie\",\"column\":\"product\",\"dataset\":" + other
                + ",\"equals\":\"code\"}', revision = revision + 1 WHERE id = " + sales);
        sql("UPDATE datasets SET recipe = '{\"type\":\"tie\",\"column\":\"code\",\"dataset\":" + sales
                + ",\"equals\":\"product\"}', revision = revision + 1 WHERE id = " + other);
        List<Integer> answers = atOnce(
                4,
                i -> () -> ana.get("/datasets/" + (i % 2 == 0 ? sales : other)).statusCode());
        assertThat(answers).containsOnly(200);
        assertThat(ana.get("/datasets/" + sales).body()).contains("cannot be placed");
        sql("UPDATE datasets SET recipe = NULL, revision = revision + 1 WHERE id IN (" + sales + ", " + other + ")");
    }

    @Test
    void aBoundarySetIsTakenAwayOnlyWhenNothingRestsOnIt() throws Exception {
        JsonNode zones = ana.read(ana.upload(
                RunningSarnik.file(
                        "z.geojson",
                        "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\","
                                + "\"properties\":{\"id\":\"N\"},\"geometry\":{\"type\":\"Polygon\","
                                + "\"coordinates\":[[[-4,41],[-3,41],[-3,42],[-4,42],[-4,41]]]}}]}"),
                "z.geojson"));
        ana.json(
                "POST",
                "/api/bring/" + zones.get("id").asString() + "/areas",
                Map.of("name", "Zones in use", "code", "id"));
        JsonNode taken = ana.read(ana.upload(RunningSarnik.file("v.csv", "where,n\nN,1\n"), "v.csv"));
        long id = ana.json(
                        "POST",
                        "/api/bring/" + taken.get("id").asString() + "/keep",
                        Map.of(
                                "name",
                                "In zones",
                                "placing",
                                Map.of("type", "area", "column", "where", "set", "Zones in use")))
                .get("id")
                .asLong();
        HttpResponse<String> refused =
                ana.send("DELETE", "/api/boundary-sets/Zones%20in%20use", "application/json", "");
        assertThat(refused.statusCode()).isEqualTo(409);
        assertThat(refused.body()).contains("the placing of “In zones”");
        assertThat(sarnik.client("berta")
                        .send("DELETE", "/api/boundary-sets/Zones%20in%20use", "application/json", "")
                        .statusCode())
                .isEqualTo(403);
        assertThat(ana.send("DELETE", "/api/datasets/" + id, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.send("DELETE", "/api/boundary-sets/Zones%20in%20use", "application/json", "")
                        .statusCode())
                .isEqualTo(204);
    }

    @Test
    void onlyTheOwnerAndWhomItIsSharedWithChangeADataset() throws Exception {
        SarnikClient berta = sarnik.client("berta");
        HttpResponse<String> refused = berta.describe(sales, "name", Map.of("name", "Berta's"));
        assertThat(refused.statusCode()).isEqualTo(403);
        assertThat(refused.body()).contains("is ana's, who has not let you change it");
        assertThat(berta.send("DELETE", "/api/datasets/" + sales, "application/json", "")
                        .statusCode())
                .isEqualTo(403);
        assertThat(berta.send("PUT", "/api/datasets/" + sales + "/shared", "application/json", "true")
                        .statusCode())
                .isEqualTo(403);
        ana.json("PUT", "/api/datasets/" + sales + "/shared", true);
        assertThat(berta.describe(sales, "name", Map.of("name", "Berta's")).statusCode())
                .isEqualTo(204);
        assertThat(sarnik.client("marta")
                        .describe(sales, "name", Map.of("name", "Marta's"))
                        .statusCode())
                .as("a steward")
                .isEqualTo(204);
    }

    @Test
    void aRowOfAThousandColumnsIsKeptWhole() throws Exception {
        String header = IntStream.range(0, 1000).mapToObj(i -> "column " + i).collect(Collectors.joining(","));
        String line = IntStream.range(0, 1000)
                .mapToObj(i -> "a text that is longer than what a page of the database holds beside a thousand others "
                        + "has room for number "
                        + i)
                .collect(Collectors.joining(","));
        JsonNode taken = ana.read(
                ana.upload(RunningSarnik.file("wide.csv", header + "\n" + line + "\n" + line + "\n"), "wide.csv"));
        long id = ana.json("POST", "/api/bring/" + taken.get("id").asString() + "/keep", Map.of("name", "Wide"))
                .get("id")
                .asLong();
        JsonNode rows = ana.read(ana.get("/api/datasets/" + id + "/rows"));
        assertThat(rows.at("/rows/1")).hasSize(1000);
        Table read = sarnik.bean(org.springframework.transaction.support.TransactionTemplate.class)
                .execute(t -> sarnik.bean(Versions.class)
                        .rows(sarnik.bean(DatasetService.class)
                                .description(id)
                                .orElseThrow()
                                .served()
                                .version()));
        assertThat(read.names()).hasSize(1000);
        assertThat(read.column("column 999").text(1)).endsWith("number 999");
        assertThat(ana.send("DELETE", "/api/datasets/" + id, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
    }

    @Test
    void aColumnThatIsCalledOtherwiseInAFileIsTheSameOneFromThenOn() throws Exception {
        JsonNode taken = newer("town,province,country,day,product,litros\nSoria,Soria,Spain,2026-03-01,still,77\n");
        assertThat(ana.get(taken.get("address").asString()).body()).contains("What litres is called in the file");
        ana.json(
                "POST",
                "/api/bring/" + taken.get("id").asString() + "/intake",
                Map.of("shaping", Map.of("names", Map.of("litros", "litres"))));
        assertThat(serve(taken, "").statusCode()).isEqualTo(200);
        assertThat(served().column("litres").text(0)).isEqualTo("77");
        assertThat(serve(newer("town,province,country,day,product,litros\nSoria,Soria,Spain,2026-03-01,still,78\n"), "")
                        .statusCode())
                .isEqualTo(200);
        assertThat(served().column("litres").text(0))
                .as("without being told again")
                .isEqualTo("78");
        assertThat(serve(newer(row(79)), "").statusCode()).isEqualTo(200);
        assertThat(served().column("litres").text(0)).isEqualTo("79");
    }
}
