package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import sarnik.place.PlacedTable;
import sarnik.table.ColumnType;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Bringing a table in")
class BringInTest {

    private static JsonNode take(SarnikClient client, Path file) throws Exception {
        return client.read(client.upload(file, file.getFileName().toString()));
    }

    @Test
    void theGuessIsMadeAndThePageShowsRowsTypesAndTroubles(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken =
                take(ana, RunningSarnik.file("my sales.csv", Samples.SALES + "Soria,Soria,Spain,2026-02-04\n"));
        assertThat(taken.get("guess").get("town").asString()).isEqualTo("town");
        assertThat(taken.get("guess").get("country").asString()).isEqualTo("country");
        String page = ana.get(taken.get("address").asString()).body();
        assertThat(page)
                .contains("7 rows, 6 columns; CSV, UTF-8, commas between cells")
                .contains("2026-01-02")
                .contains("1 trouble in the file")
                .contains("4 of 6 cells");
    }

    @Test
    void aTableOfPeriodsPlacedByPositionsInOneColumnIsLookedAt(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken = take(
                ana,
                RunningSarnik.file(
                        "wide.csv",
                        "position,beds,2023,2024\n\"41.7636, -2.4649\",7,1,2\n\"42.3439, -3.6969\",8,3,4\n"));
        assertThat(taken.get("guess").get("lat").asString()).isEqualTo("position");
        assertThat(taken.get("guess").get("lon").isNull()).isTrue();
        ana.json(
                "POST",
                "/api/bring/" + taken.get("id").asString() + "/intake",
                Map.of(
                        "shaping",
                        Map.of("turn", Map.of("columns", List.of("2023", "2024"), "period", "year", "value", "use"))));
        HttpResponse<String> page = ana.get(taken.get("address").asString());
        assertThat(page.statusCode()).isEqualTo(200);
        assertThat(page.body()).contains("4 rows").contains("beds");
    }

    @Test
    void placingSaysWhatIsPlacedDoubtfulAndUnplaced(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken = take(ana, Samples.sales());
        JsonNode found = ana.json("POST", "/api/bring/" + taken.get("id").asString() + "/placing", taken.get("guess"));
        assertThat(found.get("placed").asInt()).isEqualTo(5);
        assertThat(found.get("unplaced").asInt()).isEqualTo(1);
        assertThat(found.get("points")).hasSize(3);
        assertThat(found.get("doubts").get(0).get("reason").asString()).contains("Nowhere at all");
    }

    @Test
    void whatIsKeptIsServedAsItWasRead(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = ana.bring(Samples.sales(), "Kept sales");
        DatasetService datasets = sarnik.bean(DatasetService.class);
        assertThat(datasets.needed(id).dataset().table().rows()).isEqualTo(6);
        String page = ana.get("/datasets/" + id).body();
        assertThat(page)
                .contains("Kept sales")
                .contains("6 rows from sales.csv, version 1")
                .contains("Nowhere at all");
        assertThat(ana.get("/").body()).contains("Kept sales");
    }

    @Test
    void aTypeThatIsSetStays(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken = take(ana, RunningSarnik.file("phones.csv", "town,phone\nSoria,600\nZamora,601\n"));
        String id = taken.get("id").asString();
        ana.json("POST", "/api/bring/" + id + "/intake", Map.of("shaping", Map.of("types", Map.of("phone", "TEXT"))));
        Map<String, Object> keep = new HashMap<>();
        keep.put("name", "Phones");
        keep.put("placing", null);
        long dataset = Long.parseLong(
                ana.json("POST", "/api/bring/" + id + "/keep", keep).get("id").asString());
        assertThat(sarnik.bean(DatasetService.class)
                        .needed(dataset)
                        .dataset()
                        .table()
                        .column("phone")
                        .type())
                .isEqualTo(ColumnType.TEXT);
    }

    @Test
    void aTieIsGuessedWhereCodesMatchAPlacedDataset(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long kiosks = ana.bring(
                RunningSarnik.file(
                        "stands.csv", "stand,town,province,country\nQX1,Soria,Soria,Spain\nQX2,Burgos,Burgos,Spain\n"),
                "Stands");
        JsonNode taken = take(ana, RunningSarnik.file("fills.csv", "where,n\nQX1,3\nQX2,4\nQX1,5\n"));
        assertThat(taken.get("guess").get("type").asString()).isEqualTo("tie");
        assertThat(taken.get("guess").get("dataset").asLong()).isEqualTo(kiosks);
        assertThat(taken.get("guess").get("equals").asString()).isEqualTo("stand");
        JsonNode found = ana.json("POST", "/api/bring/" + taken.get("id").asString() + "/placing", taken.get("guess"));
        assertThat(found.get("partners").asString())
                .isEqualTo("all of 3 rows find a partner over there; all of 2 rows over there find one here.");
    }

    @Test
    void originAndDestinationThatAreKeysOfADatasetAreTiedToIt(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long fields = ana.bring(
                RunningSarnik.file(
                        "fields.csv",
                        "field,town,province,country\nXQA,Soria,Soria,Spain\nXQB,Burgos,Burgos,Spain\nXQC,"
                                + "Zamora,Zamora,Spain\n"),
                "Airfields");
        JsonNode taken = take(
                ana,
                RunningSarnik.file("flights.csv", "origin,destination,seats\nXQA,XQB,30\nXQB,XQC,40\nXQA,XQC,50\n"));
        JsonNode guess = taken.get("guess");
        assertThat(guess.get("type").asString()).isEqualTo("from-to");
        assertThat(guess.get("from").get("dataset").asLong()).isEqualTo(fields);
        assertThat(guess.get("to").get("column").asString()).isEqualTo("destination");
        assertThat(ana.json("POST", "/api/bring/" + taken.get("id").asString() + "/placing", guess)
                        .get("placed")
                        .asInt())
                .isEqualTo(3);
        long id = Long.parseLong(ana.json(
                        "POST",
                        "/api/bring/" + taken.get("id").asString() + "/keep",
                        Map.of("name", "Flights", "placing", guess))
                .get("id")
                .asString());
        PlacedTable placed = sarnik.bean(DatasetService.class).needed(id).placed();
        assertThat(placed.origin().match(1).place().name()).isEqualTo("Burgos");
        assertThat(placed.match(1).place().name()).isEqualTo("Zamora");
        assertThat(ana.send("DELETE", "/api/datasets/" + fields, "application/json", "")
                        .body())
                .as("what rests on it is said")
                .contains("Flights");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "an empty file | '' | The file is empty",
                "only a header | 'a,b' | no row below it",
                "not a CSV | '%PDF-1.4 something' | PDF document"
            })
    void whatIsNoTableIsRefusedInASentence(String what, String content, String sentence, RunningSarnik sarnik)
            throws Exception {
        HttpResponse<String> answer = sarnik.client("ana").upload(RunningSarnik.file("x.csv", content), "x.csv");
        assertThat(answer.statusCode()).as(what).isEqualTo(422);
        assertThat(Samples.parse(answer.body()).get("detail").asString()).contains(sentence);
        assertThat(answer.headers().firstValue("Content-Type")).contains("application/problem+json");
    }

    @Test
    void aFileOverTheLimitIsRefusedWithTheLimit(RunningSarnik sarnik) throws Exception {
        Path large = Files.createTempFile("large", ".csv");
        Files.write(large, new byte[9 << 20]);
        HttpResponse<String> answer = sarnik.client("ana").upload(large, "large.csv");
        assertThat(answer.statusCode()).isEqualTo(413);
        assertThat(answer.body()).contains("larger than 8 MB");
    }

    @Test
    void namesWithScriptStayText(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken = take(
                ana,
                RunningSarnik.file(
                        "<img src=x onerror=alert(1)>.csv",
                        "<script>alert(1)</script>,town\n\"<b onclick=\"\"x\"\">\",Soria\n=1+1,Burgos\n"));
        String page = ana.get(taken.get("address").asString()).body();
        assertThat(page)
                .doesNotContain("<script>alert")
                .doesNotContain("<img src=x")
                .doesNotContain("<b onclick")
                .contains("&lt;script&gt;alert(1)");
    }

    @Test
    void anotherPersonsFileIsNotThere(RunningSarnik sarnik) throws Exception {
        JsonNode taken = take(sarnik.client("ana"), Samples.sales());
        HttpResponse<String> answer =
                sarnik.client("berta").get(taken.get("address").asString());
        assertThat(answer.statusCode()).isEqualTo(404);
        assertThat(answer.body()).contains("Choose it again");
    }

    @Test
    void aPlacingThatDoesNotFitSaysSoAndTheFileStillWaits(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        String id = take(ana, Samples.sales()).get("id").asString();
        HttpResponse<String> unfit = ana.send(
                "POST",
                "/api/bring/" + id + "/keep",
                "application/json",
                "{\"name\":\"x\",\"placing\":{\"type\":\"name\",\"town\":\"pueblo\"}}");
        assertThat(unfit.statusCode()).isEqualTo(400);
        assertThat(unfit.body()).contains("pueblo");
        HttpResponse<String> gone = ana.send(
                "POST",
                "/api/bring/" + id + "/keep",
                "application/json",
                "{\"name\":\"x\",\"placing\":{\"type\":\"tie\",\"column\":\"town\",\"dataset\":999999,"
                        + "\"equals\":\"code\"}}");
        assertThat(gone.body()).contains("has gone");
        assertThat(ana.get("/bring/" + id).statusCode()).isEqualTo(200);
    }

    @Test
    void asManyFilesAsMayWaitAndNoMoreHoweverManyAreSentAtOnce(RunningSarnik sarnik) throws Exception {
        SarnikClient marta = sarnik.client("marta");
        Path file = Samples.sales();
        ExecutorService senders = Executors.newFixedThreadPool(8);
        Map<Integer, Integer> answers = new HashMap<>();
        List<String> taken = new ArrayList<>();
        try {
            List<Future<HttpResponse<String>>> sent = new ArrayList<>();
            for (int i = 0; i < RunningSarnik.MOST_WAITING + 20; i++)
                sent.add(senders.submit(() -> marta.upload(file, "sales.csv")));
            for (Future<HttpResponse<String>> one : sent) {
                HttpResponse<String> answer = one.get();
                answers.merge(answer.statusCode() / 100 * 100, 1, Integer::sum);
                if (answer.statusCode() / 100 == 2)
                    taken.add(marta.read(answer).get("id").asString());
                else assertThat(answer.body()).contains("as many as may");
            }
            assertThat(answers).containsExactlyInAnyOrderEntriesOf(Map.of(200, RunningSarnik.MOST_WAITING, 400, 20));
            assertThat(sarnik.client("ana").upload(file, "sales.csv").statusCode() / 100)
                    .as("another's room is another's")
                    .isEqualTo(2);
        } finally {
            senders.shutdownNow();
            for (String id : taken) marta.send("DELETE", "/api/bring/" + id, "application/json", "");
        }
        assertThat(marta.upload(file, "sales.csv").statusCode() / 100).isEqualTo(2);
    }

    @Test
    void filesOfAnInstanceThatHasEndedAreLetGoWithoutBeingReadAgain(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        String id = ana.read(ana.upload(Samples.sales(), "sales.csv")).get("id").asString();
        String left = UUID.randomUUID().toString();
        JdbcClient database = sarnik.bean(JdbcClient.class);
        database.sql("""
                        INSERT INTO waiting_files SELECT (jsonb_populate_record(w, jsonb_build_object(
                            'id', ?, 'instance', gen_random_uuid()::text))).* FROM waiting_files AS w WHERE id = ?""").params(left, id).update();
        assertThat(ana.get("/bring").body()).contains("/bring/" + id).contains("/bring/" + left);
        assertThat(ana.send("DELETE", "/api/bring/" + left, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.get("/bring").body()).contains("/bring/" + id).doesNotContain("/bring/" + left);
        assertThat(ana.send("DELETE", "/api/bring/" + left, "application/json", "")
                        .statusCode())
                .isEqualTo(404);
        ana.send("DELETE", "/api/bring/" + id, "application/json", "");
    }
}
