package sarnik.app.instance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.app.testing.Waiting.until;

import java.io.BufferedReader;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import javax.sql.DataSource;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.people.SignInWaits;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.app.work.Jobs;
import sarnik.app.work.Progress;
import sarnik.demo.SarnikClient;
import sarnik.demo.SarnikDevice;
import sarnik.standins.Balancer;
import tools.jackson.databind.JsonNode;

/** Two instances of the application on one database, and a balancer that sends each request to the next of them. */
@ExtendWith(RunningSarnik.class)
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
@DisplayName("Two instances")
class InstancesTest {

    private static final String FORM = "application/x-www-form-urlencoded";
    private static final String TOWNS = "town,country,litres\nSoria,Spain,1\nZamora,Spain,2\nBurgos,Spain,4\n";

    private RunningSarnik sarnik;
    private ConfigurableApplicationContext other;
    private Balancer balancer;

    /** Ana, at the instance that all tests use. */
    private SarnikClient here;

    /** The same session, at the other. */
    private SarnikClient there;

    /** The same session, at whichever is next. */
    private SarnikClient either;

    @BeforeAll
    void begin(RunningSarnik running) throws Exception {
        sarnik = running;
        other = running.another();
        balancer = Balancer.start(0, List.of(running.base(), RunningSarnik.address(other)));
        here = new SarnikClient(running.base());
        assertThat(here.signIn("ana", RunningSarnik.PASSWORD)).isTrue();
        there = here.at(RunningSarnik.address(other));
        either = here.at(balancer.address());
    }

    @AfterAll
    void end() {
        balancer.close();
        other.close();
    }

    private static Path towns() {
        return RunningSarnik.file("towns.csv", TOWNS);
    }

    private static String keep(String name) {
        return "{\"name\": \"" + name + "\"}";
    }

    @Test
    void knowOfEachOther() throws Exception {
        until(() -> sarnik.bean(Instances.class).hasOthers(), "the first knows of the other");
        Instances second = other.getBean(Instances.class);
        assertThat(sarnik.bean(Instances.class).addressOf(second.own())).contains(RunningSarnik.address(other));
        assertThat(second.addressOf(second.own())).as("oneself is nobody else").isEmpty();
        assertThat(second.isThere(second.own())).isTrue();
        assertThat(second.isThere(UUID.randomUUID())).isFalse();
    }

    /** One would sweep away what waits at the other. */
    @Test
    void eachHasADirectoryOfItsOwn() {
        assertThatThrownBy(() -> sarnik.another())
                .rootCause()
                .hasMessageContaining("Another instance of Sarnik works in")
                .hasMessageContaining("SARNIK_WORK");
    }

    @Test
    void oneIsSignedInAtBothAndEndedAtBoth() throws Exception {
        sarnik.bean(PeopleService.class).add("twofold", "Twofold", RunningSarnik.PASSWORD, Role.READER);
        SarnikClient first = new SarnikClient(balancer.address());
        assertThat(first.signIn("twofold", RunningSarnik.PASSWORD))
                .as("the form comes from one and goes to the other")
                .isTrue();
        SarnikClient second = first.at(RunningSarnik.address(other));
        for (int i = 0; i < 4; i++) assertThat(first.get("/me").uri().getPath()).isEqualTo("/me");
        SarnikClient elsewhere = new SarnikClient(sarnik.base());
        elsewhere.signIn("twofold", RunningSarnik.PASSWORD);
        elsewhere.send("POST", "/me/sessions", FORM, "key=");
        assertThat(second.get("/me").uri().toString()).endsWith("/sign-in?ended");
        assertThat(second.get("/api/requests").statusCode()).isEqualTo(401);
        assertThat(elsewhere.get("/me").uri().getPath()).isEqualTo("/me");
    }

    @Test
    void wrongTriesAreCountedTogether() throws Exception {
        sarnik.bean(PeopleService.class).add("guessed", "Guessed", RunningSarnik.PASSWORD, Role.READER);
        SarnikClient client = new SarnikClient(balancer.address());
        for (int i = 0; i < 2; i++)
            assertThat(client.signIn("guessed", "wrong-" + i)).isFalse();
        // As many as make the wait longer than this test takes on a slow machine, at one and the other by turns.
        for (int i = 0; i < 6; i++) {
            sarnik.bean(SignInWaits.class).wrong("guessed", "127.0.0.1");
            other.getBean(SignInWaits.class).wrong("guessed", "127.0.0.1");
        }
        for (String base : List.of(sarnik.base(), RunningSarnik.address(other)))
            assertThat(new SarnikClient(base).signIn("guessed", RunningSarnik.PASSWORD))
                    .as("at %s, though it is right", base)
                    .isFalse();
    }

    @Test
    void aFileIsSentToOneAndLookedOverAtTheOther() throws Exception {
        JsonNode taken = here.read(here.upload(towns(), "towns.csv"));
        String id = taken.get("id").asString();
        assertThat(there.get("/bring").body()).contains("/bring/" + id);
        assertThat(there.get("/bring/" + id).body()).contains("Zamora");
        there.read(there.untilRead(there.send(
                "POST",
                "/api/bring/" + id + "/intake",
                "application/json",
                "{\"shaping\": {\"names\": {\"litres\": \"water\"}}}")));
        assertThat(here.get("/bring/" + id).body()).contains("water");
        HttpResponse<String> kept =
                there.send("POST", "/api/bring/" + id + "/keep", "application/json", keep("Kept at the other"));
        assertThat(kept.statusCode()).as(kept.body()).isEqualTo(201);
        long dataset = Long.parseLong(Samples.parse(kept.body()).get("id").asString());
        for (SarnikClient client : List.of(here, there)) {
            assertThat(client.get("/datasets/" + dataset + "/rows.csv").body())
                    .contains("water")
                    .contains("Burgos");
            assertThat(client.get("/bring/" + id).statusCode())
                    .as("it waits no more")
                    .isEqualTo(404);
        }
    }

    @Test
    void nothingIsKeptTwiceThroughABalancer() throws Exception {
        long dataset = either.bring(towns(), "Kept through a balancer");
        Path newer = RunningSarnik.file("towns.csv", "town,country,litres\nLugo,Spain,8\n");
        for (int i = 0; i < 3; i++) {
            JsonNode taken = either.read(either.upload(newer, "towns.csv", "?dataset=" + dataset));
            either.read(either.send(
                    "POST", "/api/bring/" + taken.get("id").asString() + "/serve?append=true", "application/json", ""));
        }
        for (SarnikClient client : List.of(here, there))
            assertThat(client.get("/datasets/" + dataset + "/rows.csv").body().lines())
                    .as("a row that is there already is put below once")
                    .hasSize(5);
    }

    @Test
    void anotherReadsAgainWhatWaitedInOneThatHasEnded() throws Exception {
        ConfigurableApplicationContext third = sarnik.another("work-of-one-that-ends");
        SarnikClient atThird = here.at(RunningSarnik.address(third));
        JsonNode taken = atThird.read(atThird.upload(towns(), "towns.csv"));
        String id = taken.get("id").asString();
        atThird.read(atThird.untilRead(atThird.send(
                "POST",
                "/api/bring/" + id + "/intake",
                "application/json",
                "{\"shaping\": {\"names\": {\"litres\": \"drunk\"}}}")));
        third.close();
        assertThat(here.get("/bring/" + id).body())
                .as("as it was shaped there")
                .contains("drunk")
                .contains("Zamora");
        HttpResponse<String> kept =
                there.send("POST", "/api/bring/" + id + "/keep", "application/json", keep("Of one that ended"));
        assertThat(kept.statusCode()).as(kept.body()).isEqualTo(201);
    }

    @Test
    void whatNobodyAnswersForIsAnsweredHere() throws Exception {
        UUID gone = UUID.randomUUID();
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        JdbcClient database = sarnik.bean(JdbcClient.class);
        database.sql("INSERT INTO instances (id, address, seen_at) VALUES (?, ?, now())")
                .params(gone, "http://127.0.0.1:" + port)
                .update();
        HttpResponse<String> answer = here.get("/api/jobs/" + gone + "." + UUID.randomUUID());
        assertThat(answer.statusCode()).isEqualTo(404);
        assertThat(answer.body()).contains("its server has ended").contains("begin it again");
        assertThat(sarnik.bean(Instances.class).isThere(gone)).isFalse();
        assertThat(here.get("/api/jobs/nonsense").statusCode()).isEqualTo(404);
        assertThat(here.get("/bring/" + UUID.randomUUID()).body()).contains("This file waits no more");
    }

    @Test
    void aJobOfOneIsAskedForAndStoppedAtTheOther() throws Exception {
        CountDownLatch end = new CountDownLatch(1);
        Jobs jobs = other.getBean(Jobs.class);
        ResponseEntity<Object> begun = jobs.begin(sarnik.person("ana"), "Counting", progress -> {
            end.await(60, TimeUnit.SECONDS);
            return Map.of("counted", 7);
        });
        String id = ((Jobs.Going) begun.getBody()).job();
        HttpResponse<String> goesOn = raw("/api/jobs/" + id);
        assertThat(goesOn.statusCode()).isEqualTo(202);
        assertThat(goesOn.body()).contains("Counting");
        end.countDown();
        assertThat(here.get("/api/jobs/" + id).body()).contains("\"counted\":7");
        ResponseEntity<Object> endless =
                jobs.begin(sarnik.person("ana"), "Counting on", InstancesTest::countsUntilStopped);
        String second = ((Jobs.Going) endless.getBody()).job();
        assertThat(here.send("DELETE", "/api/jobs/" + second, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        until(() -> raw("/api/jobs/" + second).statusCode() == 409, "it is stopped");
    }

    private static Object countsUntilStopped(Progress progress) throws InterruptedException {
        while (true) {
            progress.at(1, 0);
            Thread.sleep(5);
        }
    }

    /** An answer as it is: the client asks again by itself while a job goes on. */
    private HttpResponse<String> raw(String path) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(sarnik.base() + path))
                                .header("Cookie", here.cookies())
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void aBoundarySetThatComesBackAsAnotherIsAnotherAtBoth() throws Exception {
        zone("Zones of two", -7);
        assertThat(shapes(there)).isEqualTo(shapes(here));
        String before = shapes(there);
        assertThat(here.send("DELETE", "/api/boundary-sets/Zones%20of%20two", "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        zone("Zones of two", -3);
        assertThat(shapes(here)).isNotEqualTo(before);
        assertThat(shapes(there)).isEqualTo(shapes(here));
    }

    private static String shapes(SarnikClient client) throws Exception {
        return client.get("/api/boundary-sets/Zones%20of%20two/shapes/CLOSE").body();
    }

    private void zone(String name, int west) throws Exception {
        String area = """
                {"type": "FeatureCollection", "features": [{"type": "Feature", "properties": {"id": "A"}, "geometry":
                 {"type": "Polygon", "coordinates": [[[%1$d, 41], [%2$d, 41], [%2$d, 43], [%1$d, 43], [%1$d, 41]]]}}]}""".formatted(west, west + 2);
        JsonNode taken = here.read(here.upload(RunningSarnik.file("zone.geojson", area), "zone.geojson"));
        here.json(
                "POST",
                "/api/bring/" + taken.get("id").asString() + "/areas",
                Map.of("name", name, "level", "zone", "code", "id", "credit", ""));
    }

    @Test
    void whatOneDoesAnotherDoesNotDoMeanwhile() throws Exception {
        try (Alone first = new Alone(sarnik.bean(DataSource.class));
                Alone second = new Alone(sarnik.bean(DataSource.class))) {
            Alone.Turn turn = first.at("a test", 7).orElseThrow();
            assertThat(first.at("a test", 7)).as("twice at once, here").isEmpty();
            assertThat(second.at("a test", 7)).as("elsewhere").isEmpty();
            assertThat(second.at("a test", 8)).as("of something else").isPresent();
            assertThat(turn.lasts()).isTrue();
            turn.close();
            assertThat(turn.lasts()).isFalse();
            assertThat(second.at("a test", 7)).isPresent();
            second.close();
            assertThat(first.at("a test", 7))
                    .as("whoever ends gives all turns back")
                    .isPresent();
        }
    }

    @Test
    void aTurnEndsWithTheConnectionItIsHeldOn() throws Exception {
        try (Alone first = new Alone(sarnik.bean(DataSource.class))) {
            Alone.Turn turn = first.at("a cut", 7).orElseThrow();
            sarnik.bean(JdbcClient.class)
                    .sql("SELECT pg_terminate_backend(pid) FROM pg_locks WHERE locktype = 'advisory' AND objid = 7"
                            + " AND classid::bigint = (hashtext('a cut')::bigint & 4294967295)")
                    .query()
                    .listOfRows();
            until(
                    () -> {
                        first.check();
                        return !turn.lasts();
                    },
                    "it is noticed");
            assertThat(first.at("a cut", 7)).as("it can be taken anew").isPresent();
        }
    }

    @Test
    void readingsThatCameToOneAreShownAndToldOfByTheOther() throws Exception {
        JsonNode made = here.json("POST", "/api/feeds", Map.of("name", "Read by either"));
        long id = made.get("id").asLong();
        String token = made.get("token").asString();
        send(sarnik.base(), id, token, 0);
        JsonNode guess = here.read(here.get("/api/feeds/" + id + "/guess"));
        assertThat(here.send(
                                "PUT",
                                "/api/feeds/" + id + "/shape",
                                "application/json",
                                guess.get("shape").toString(),
                                "If-Match",
                                "\"" + revision(id) + "\"")
                        .statusCode())
                .isEqualTo(204);
        long dashboard = figure(
                here.read(here.get("/api/feeds/" + id)).get("readingsDataset").asLong());
        assertThat(send(sarnik.base(), id, token, 1)).isEqualTo(200);
        until(() -> said(there, dashboard).equals("1"), "the other shows it");
        try (BufferedReader told = changes(dashboard)) {
            assertThat(told.readLine()).startsWith(":");
            for (int reading = 2; reading <= 5; reading++)
                assertThat(send(sarnik.base(), id, token, reading)).isEqualTo(200);
            until(() -> told.readLine().startsWith("data"), "it is told at the other");
        }
        for (int reading = 6; reading <= 9; reading++)
            assertThat(send(balancer.address(), id, token, reading)).isEqualTo(200);
        for (SarnikClient client : List.of(here, there))
            until(() -> said(client, dashboard).equals("9"), "each is counted once by both");
        // What one has written while the other could not hear of it.
        sarnik.bean(JdbcClient.class)
                .sql("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query = 'LISTEN live'")
                .query()
                .listOfRows();
        assertThat(send(sarnik.base(), id, token, 10)).isEqualTo(200);
        for (SarnikClient client : List.of(here, there))
            until(() -> said(client, dashboard).equals("10"), "the one that came meanwhile is counted by both");
    }

    private long revision(long feed) throws Exception {
        return here.read(here.get("/api/feeds/" + feed)).get("revision").asLong();
    }

    private int send(String base, long feed, String token, int number) throws Exception {
        String body = "{\"device\": \"d%d\", \"time\": \"%s\", \"level\": %d}"
                .formatted(number % 3, Instant.now().minusSeconds(100 - number), number);
        return new SarnikDevice(base).send(feed, token, body).statusCode();
    }

    /** A dashboard that counts the rows of a dataset. */
    private long figure(long dataset) throws Exception {
        JsonNode made = here.json("POST", "/api/dashboards", Map.of("title", "How many?"));
        here.read(here.send(
                "PATCH",
                "/api/dashboards/" + made.get("id").asLong(),
                Samples.JSON_PATCH,
                """
                [{"op":"add","path":"/visuals/v1","value":{"type":"figure","page":"p1","at":{"x":0,"y":0,"w":6,"h":4},
                   "title":"Readings","dataset":%d,"measure":{"summary":"COUNT"}}}]""".formatted(dataset),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        return made.get("id").asLong();
    }

    private static String said(SarnikClient client, long dashboard) throws Exception {
        JsonNode frames = client.json("POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", ""));
        return frames.at("/drawings/v1/text").asString();
    }

    /** What the other tells a page that is open. */
    private BufferedReader changes(long dashboard) throws Exception {
        HttpResponse<InputStream> answer = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(
                                        RunningSarnik.address(other) + "/api/dashboards/" + dashboard + "/changes"))
                                .header("Cookie", here.cookies())
                                .build(),
                        HttpResponse.BodyHandlers.ofInputStream());
        return new BufferedReader(new InputStreamReader(answer.body()));
    }

    @Test
    void editsOfTwoPeopleAtTwoInstancesMeet() throws Exception {
        long dashboard = figure(here.bring(towns(), "Edited at both"));
        long revision = here.read(here.get("/api/dashboards/" + dashboard))
                .get("revision")
                .asLong();
        assertThat(edit(here, dashboard, revision, "First")).isEqualTo(200);
        assertThat(edit(there, dashboard, revision, "Second"))
                .as("on a revision that is not the newest")
                .isEqualTo(412);
        assertThat(edit(there, dashboard, revision + 1, "Second")).isEqualTo(200);
        assertThat(List.of(here, there, either).stream()
                        .map(client -> title(client, dashboard))
                        .collect(Collectors.toSet()))
                .containsExactly("Second");
    }

    private static int edit(SarnikClient by, long dashboard, long revision, String title) throws Exception {
        return by.send(
                        "PATCH",
                        "/api/dashboards/" + dashboard,
                        Samples.JSON_PATCH,
                        "[{\"op\":\"replace\",\"path\":\"/title\",\"value\":\"%s\"}]".formatted(title),
                        "If-Match",
                        "\"" + revision + "\"")
                .statusCode();
    }

    private static String title(SarnikClient client, long dashboard) {
        try {
            return client.read(client.get("/api/dashboards/" + dashboard))
                    .at("/document/title")
                    .asString();
        } catch (Exception failed) {
            throw new IllegalStateException(failed);
        }
    }
}
