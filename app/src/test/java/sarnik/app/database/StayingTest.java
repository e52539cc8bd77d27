package sarnik.app.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.Reader;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.postgresql.PGConnection;
import sarnik.app.dataset.DatasetService;
import sarnik.app.people.Viewer;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.app.testing.Waiting;
import sarnik.data.LoadedDataset;
import sarnik.demo.DemoFiles;
import sarnik.demo.DemoNetwork;
import sarnik.demo.SarnikClient;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Summary;
import sarnik.sql.Engines;
import sarnik.table.CodedColumn;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@ExtendWith(RunningSarnik.class)
@DisplayName("Rows that stay in a database elsewhere")
class StayingTest {

    private static final int REFILLS = 6_000;

    private RunningSarnik sarnik;
    private SarnikClient steward;
    private SarnikClient ana;
    private DatabaseBeside outlets;

    @TempDir
    Path files;

    @BeforeEach
    void refillsElsewhere(RunningSarnik running) throws Exception {
        sarnik = running;
        steward = running.client("marta");
        ana = running.client("ana");
        outlets = new DatabaseBeside(running, "outlets", "outlets_reader", "still water");
        outlets.create();
        outlets.run("""
                CREATE TABLE refills (
                  kiosk text, day date, product text, litres numeric(8, 2), takings numeric(8, 2), state text)""");
        DemoFiles.refills(DemoNetwork.shipped(), REFILLS, files.resolve("refills.csv"));
        try (Connection connection = outlets.connect();
                Reader rows = Files.newBufferedReader(files.resolve("refills.csv"))) {
            connection
                    .unwrap(PGConnection.class)
                    .getCopyAPI()
                    .copyIn("COPY refills FROM STDIN (FORMAT csv, HEADER)", rows);
        }
        outlets.run("GRANT SELECT ON refills TO outlets_reader");
        assertThat(outlets.name(steward, Map.of("name", "Outlets", "seconds", "10"))
                        .body())
                .contains("It answers, and its user can only read.");
    }

    /** The rows go, and with them what rests on them. */
    @AfterEach
    void clear() throws Exception {
        for (long dashboard : dashboards)
            ana.read(ana.send("DELETE", "/api/dashboards/" + dashboard, "application/json", ""));
        // What is placed by others goes before them.
        Collections.reverse(datasets);
        for (long dataset : datasets) ana.read(ana.send("DELETE", "/api/datasets/" + dataset, "application/json", ""));
        for (Elsewhere known : sarnik.bean(Databases.class).all())
            if (known.getName().equals("Outlets")) sarnik.bean(Databases.class).remove(known.getId());
    }

    private final List<Long> dashboards = new ArrayList<>();
    private final List<Long> datasets = new ArrayList<>();

    private long kiosks() throws Exception {
        DemoFiles.kiosks(DemoNetwork.shipped(), files.resolve("kiosks.csv"));
        long kiosks = ana.bring(files.resolve("kiosks.csv"), "Far kiosks");
        datasets.add(kiosks);
        return kiosks;
    }

    private JsonNode look(String address) throws Exception {
        return ana.read(ana.untilRead(ana.send(
                "POST",
                "/api/bring/address",
                "application/json",
                JsonMapper.shared().writeValueAsString(Map.of("address", address)))));
    }

    /** Leaves the refills where they are, or brings them in. */
    private long kept(String address, String name, Map<String, Object> placing) throws Exception {
        Map<String, Object> keep = new LinkedHashMap<>(Map.of("name", name));
        if (placing != null) keep.put("placing", placing);
        JsonNode kept = ana.json("POST", "/api/bring/" + look(address).get("id").asString() + "/keep", keep);
        datasets.add(Long.parseLong(kept.get("id").asString()));
        return datasets.get(datasets.size() - 1);
    }

    private static Map<String, Object> tied(long kiosks) {
        return Map.of("type", "tie", "column", "kiosk", "dataset", kiosks, "equals", "code");
    }

    private long composed(String title, String parts, Map<String, Long> datasets) throws Exception {
        String text = parts;
        for (Map.Entry<String, Long> dataset : datasets.entrySet())
            text = text.replace(
                    "\"" + dataset.getKey() + "\"", dataset.getValue().toString());
        JsonNode dashboard = ana.json("POST", "/api/dashboards", Map.of("title", title));
        dashboards.add(dashboard.get("id").asLong());
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard.get("id").asLong(),
                Samples.JSON_PATCH,
                text,
                "If-Match",
                "\"" + dashboard.get("revision").asLong() + "\""));
        return dashboard.get("id").asLong();
    }

    private static String shipped(String name) throws Exception {
        try (var in = DemoNetwork.class.getResourceAsStream("/sarnik/demo/" + name + ".json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private JsonNode frames(long dashboard, String state) throws Exception {
        return ana.json("POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", state));
    }

    /** Equal but for the names of datasets, what is said of all rows, and the last digits of what was rounded. */
    private static void same(JsonNode there, JsonNode here, String at) {
        if (here.isNumber() && there.isNumber()) {
            double wanted = here.asDouble();
            assertThat(there.asDouble()).as(at).isCloseTo(wanted, within(1e-6 * Math.max(1, Math.abs(wanted))));
        } else if (here.isObject()) {
            assertThat(there.propertyNames()).as(at).containsExactlyElementsOf(here.propertyNames());
            for (String name : here.propertyNames())
                if (!List.of("dataset", "tag", "places").contains(name))
                    same(there.get(name), here.get(name), at + "/" + name);
        } else if (here.isArray()) {
            assertThat(there.size()).as(at).isEqualTo(here.size());
            for (int i = 0; i < here.size(); i++) same(there.get(i), here.get(i), at + "/" + i);
        } else if (!here.asString("").startsWith("All rows")) {
            assertThat(there).as(at).isEqualTo(here);
        }
    }

    @Test
    void showTheSameFiguresAsThoseThatWereBroughtIn() throws Exception {
        long kiosks = kiosks();
        long held = kept("database:Outlets/public.refills", "Far held", tied(kiosks));
        long far = kept("stays:Outlets/public.refills", "Far refills", tied(kiosks));
        Map<String, Object> formulas = Map.of(
                "formulas",
                List.of(Map.of(
                        "name", "takings per litre", "text", "SUM(takings) / NULLIF(SUM(litres), 0)", "measure", true)),
                "rules",
                List.of());
        for (long dataset : List.of(held, far))
            assertThat(ana.describe(dataset, "calculations", formulas).statusCode())
                    .isEqualTo(204);
        for (String name : List.of(
                "where-do-refills-sell", "warm-weather", "top-and-bottom", "takings-against-visits", "what-if")) {
            String parts = shipped(name);
            long there = composed("Far " + name, parts, Map.of("REFILLS", far));
            long here = composed("Far held " + name, parts, Map.of("REFILLS", held));
            for (String state : List.of("", "f.f1=warm,still", "f.f1=sparkling&f.f2=2025-03-01..2025-09-30")) {
                JsonNode wanted = frames(here, state).get("drawings");
                same(frames(there, state).get("drawings"), wanted, name + " " + state);
                assertThat(wanted.size()).as(name).isGreaterThan(3);
                assertThat(wanted.toString()).as(name + " " + state).doesNotContain("\"misfit\"");
            }
        }
        JsonNode drawings = frames(composed("Far trail", shipped("where-do-refills-sell"), Map.of("REFILLS", far)), "")
                .get("drawings");
        assertThat(drawings.toString())
                .as("readers see where and when it was asked")
                .containsPattern("All rows of Outlets as of \\d\\d:\\d\\d:\\d\\d UTC");
    }

    private JsonNode count(long dataset) throws Exception {
        return ana.read(ana.get("/api/datasets/" + dataset + "/rows?page=0"));
    }

    @Test
    void areShownFoundOrderedAndGivenOut() throws Exception {
        long kiosks = kiosks();
        long held = kept("database:Outlets/public.refills", "Far held", tied(kiosks));
        long far = kept("stays:Outlets/public.refills", "Far refills", tied(kiosks));
        for (String asked :
                List.of("sort=litres&down=true", "find=warm&sort=takings&page=2", "find=MINERAL&sort=litres")) {
            JsonNode wanted = ana.read(ana.get("/api/datasets/" + held + "/rows?" + asked));
            JsonNode found = ana.read(ana.get("/api/datasets/" + far + "/rows?" + asked));
            assertThat(found.get("found")).as(asked).isEqualTo(wanted.get("found"));
            int by = asked.contains("litres") ? 3 : 4;
            for (int row = 0; row < wanted.get("rows").size(); row++)
                assertThat(found.get("rows").get(row).get(by))
                        .as(asked)
                        .isEqualTo(wanted.get("rows").get(row).get(by));
        }
        String rows = ana.get("/datasets/" + far + "/rows.csv").body();
        assertThat(rows.lines().count()).isEqualTo(REFILLS + 1);
        assertThat(rows.lines().sorted().toList())
                .isEqualTo(ana.get("/datasets/" + held + "/rows.csv")
                        .body()
                        .lines()
                        .sorted()
                        .toList());
        assertThat(ana.get("/datasets/" + far).body())
                .contains("6,000 rows in public.refills, which stay in “Outlets”")
                .contains("Look again now");
    }

    @Test
    void answersHoldForAsLongAsIsSaidAndNewWordsAreFoundWhenLookedAtAgain() throws Exception {
        long far = kept("stays:Outlets/public.refills", "Far refills", null);
        assertThat(ana.describe(far, "kept-answers", Map.of("seconds", 3600)).statusCode())
                .isEqualTo(204);
        assertThat(count(far).get("found").asInt()).isEqualTo(REFILLS);
        outlets.run("INSERT INTO refills VALUES ('K-0001', '2026-06-01', 'salty', 1, 1, 'final')");
        assertThat(count(far).get("found").asInt()).as("an answer that is kept").isEqualTo(REFILLS);
        assertThat(ana.describe(far, "kept-answers", Map.of("seconds", 0)).statusCode())
                .isEqualTo(204);
        assertThat(count(far).get("found").asInt()).as("asked anew").isEqualTo(REFILLS + 1);
        assertThat(ana.describe(far, "kept-answers", Map.of("seconds", -1)).body())
                .contains("0 to 86,400 seconds");
        assertThat(words(far)).doesNotContain("salty");
        JsonNode looked = ana.json("POST", "/api/datasets/" + far + "/feed", null);
        assertThat(looked.get("words").asString()).contains("6,001 rows");
        assertThat(words(far)).contains("salty");
        outlets.run("REVOKE SELECT ON refills FROM outlets_reader");
        looked = ana.json("POST", "/api/datasets/" + far + "/feed", null);
        assertThat(looked.get("outcome").asString()).isEqualTo("FAILED");
        assertThat(looked.get("words").asString()).contains("permission denied").contains("still holds");
        assertThat(ana.get("/api/datasets/" + far + "/rows?find=x").body()).contains("permission denied");
    }

    private List<String> words(long dataset) {
        return ((CodedColumn) sarnik.bean(DatasetService.class)
                        .seenBy(Viewer.PROGRAM)
                        .get(dataset)
                        .table()
                        .column("product"))
                .dictionary();
    }

    @Test
    void whatTheDatabaseCannotWorkOutIsSaidWhileComposing() throws Exception {
        long far = kept("stays:Outlets/public.refills", "Far refills", null);
        for (String formula : List.of("REGEXP_REPLACE(product, 'a', 'b')", "MAX(product)")) {
            boolean measure = formula.startsWith("MAX");
            JsonNode tried = ana.json(
                    "POST",
                    "/api/datasets/" + far + "/formulas/try",
                    Map.of(
                            "kind",
                            measure ? "measure" : "column",
                            "text",
                            measure ? "CHAR_LENGTH(" + formula + ")" : formula));
            assertThat(tried.get("trouble").get("words").asString())
                    .contains("cannot be worked out where the rows are: PostgreSQL has no such thing");
        }
        JsonNode tried = ana.json(
                "POST",
                "/api/datasets/" + far + "/formulas/try",
                Map.of("kind", "column", "text", "CASE WHEN litres > 20 THEN 'large' ELSE product END"));
        assertThat(tried.get("trouble").isNull()).isTrue();
        assertThat(tried.get("rows").size()).isGreaterThan(3);
        HttpResponse<String> kept = ana.describe(
                far,
                "calculations",
                Map.of(
                        "formulas",
                        List.of(Map.of("name", "drink", "text", "SPLIT_PART(product, 'a', 1)", "measure", false)),
                        "rules",
                        List.of("state = 'final'")));
        assertThat(kept.statusCode()).isEqualTo(204);
    }

    @Test
    void inHowManyRowsAFormulaCannotBeWorkedOutIsCountedThere() throws Exception {
        long far = kept("stays:Outlets/public.refills", "Far refills", null);
        long provisional;
        try (Connection connection = outlets.connect();
                ResultSet counted = connection
                        .createStatement()
                        .executeQuery("SELECT COUNT(*) FROM refills WHERE state = 'provisional'")) {
            counted.next();
            provisional = counted.getLong(1);
        }
        assertThat(provisional).isBetween(2L, REFILLS - 1L);
        String said = "%,d rows have no value: a part of it cannot be worked out there".formatted(provisional);
        JsonNode tried = ana.json(
                "POST",
                "/api/datasets/" + far + "/formulas/try",
                Map.of("kind", "measure", "text", "SUM(COALESCE(litres / POSITION('f' IN state), 7))"));
        assertThat(tried.at("/trouble/words").asString()).startsWith(said);
        assertThat(tried.at("/rows/0/1").asString()).isNotEqualTo("–");
        String rule = "1 / POSITION('f' IN state) >= 0";
        ana.describe(
                far,
                "calculations",
                Map.of(
                        "formulas",
                        List.of(Map.of("name", "most", "text", "litres / POSITION('f' IN state)", "measure", false)),
                        "rules",
                        List.of(rule)));
        assertThat(ana.get("/datasets/" + far).body()).contains("most: " + said).contains("&gt;= 0: " + said);
    }

    @Test
    void viewersSeeTheirRowsAndNoWordsOfOthers() throws Exception {
        long far = kept("stays:Outlets/public.refills", "Far refills", tied(kiosks()));
        assertThat(ana.describe(far, "viewer-rule", Map.of("rule", "product IN ('still', 'warm') AND litres > 30"))
                        .statusCode())
                .isEqualTo(204);
        LoadedDataset seen =
                sarnik.bean(DatasetService.class).seenBy(Viewer.STRANGER).get(far);
        assertThat(((CodedColumn) seen.table().column("product")).dictionary()).containsExactly("still", "warm");
        try (Connection connection = outlets.connect();
                Statement statement = connection.createStatement();
                var found = statement.executeQuery(
                        "SELECT COUNT(*), SUM(litres), COUNT(DISTINCT kiosk) FROM refills WHERE product IN "
                                + "('still', 'warm') AND litres > 30")) {
            found.next();
            Frame all = seen.answer(
                    new Engines(),
                    Query.of(
                            List.of(),
                            List.of(),
                            List.of(
                                    Measure.ROWS,
                                    new Measure(Summary.SUM, "litres"),
                                    new Measure(Summary.DISTINCT, "kiosk"))));
            for (int m = 0; m < 3; m++) assertThat(all.value(m, 0)).isEqualTo(found.getDouble(m + 1));
            assertThat(all.trail().steps().get(0).left()).isEqualTo(found.getLong(1));
            assertThat(ana.json(
                                    "POST",
                                    "/api/datasets/" + far + "/viewer-rule/try",
                                    Map.of("rule", "product IN ('still', 'warm') AND litres > 30"))
                            .get("words")
                            .asString())
                    .contains("would see %,d of 6,000 rows".formatted(found.getLong(1)));
        }
    }

    @Test
    void otherRowsCannotTakeTheirPlaceNorBeKeptAsOfNow() throws Exception {
        long far = kept("stays:Outlets/public.refills", "Far refills", tied(kiosks()));
        assertThat(ana.upload(files.resolve("refills.csv"), "refills.csv", "?dataset=" + far)
                        .body())
                .contains("stay in their database");
        long id = sarnik.bean(Databases.class).all().stream()
                .filter(d -> d.getName().equals("Outlets"))
                .findFirst()
                .orElseThrow()
                .getId();
        assertThat(DatabaseBeside.form(steward, "/databases/remove", Map.of("id", String.valueOf(id)))
                        .body())
                .contains("Rows of “Far refills” stay in “Outlets”");
        long dashboard = composed("Far frozen", shipped("where-do-refills-sell"), Map.of("REFILLS", far));
        assertThat(ana.send(
                                "POST",
                                "/api/dashboards/" + dashboard + "/editions",
                                "application/json",
                                "{\"words\":\"\",\"frozen\":[" + far + "]}")
                        .body())
                .contains("readers always see what stands there");
    }

    @Test
    void whatNobodyWaitsForIsGivenUpThere() throws Exception {
        outlets.run("CREATE VIEW slow AS SELECT * FROM refills WHERE pg_sleep(0) IS NOT NULL");
        outlets.run("GRANT SELECT ON slow TO outlets_reader");
        long far = kept("stays:Outlets/public.slow", "Far slow", null);
        outlets.run("CREATE OR REPLACE VIEW slow AS SELECT * FROM refills WHERE pg_sleep(0.001) IS NOT NULL");
        assertThat(ana.describe(far, "kept-answers", Map.of("seconds", 0)).statusCode())
                .isEqualTo(204);
        CompletableFuture<HttpResponse<String>> asked = CompletableFuture.supplyAsync(() -> {
            try {
                return ana.send(
                        "GET",
                        "/api/datasets/" + far + "/rows?find=warm",
                        "application/json",
                        "",
                        "Sarnik-Page",
                        "slow");
            } catch (Exception failed) {
                throw new IllegalStateException(failed);
            }
        });
        Waiting.until(() -> running() > 0, "the database is asked");
        ana.send("DELETE", "/api/questions", "application/json", "", "Sarnik-Page", "slow");
        Waiting.until(() -> running() == 0, "nothing is asked any more");
        assertThat(asked.get().statusCode()).isEqualTo(409);
    }

    @Test
    void howManyRowsFindAPartnerIsAskedWhereTheyAre() throws Exception {
        long kiosks = kiosks();
        long far = kept("stays:Outlets/public.refills", "Far refills", null);
        outlets.run("UPDATE refills SET kiosk = 'nowhere' WHERE product = 'mineral'");
        outlets.run("DELETE FROM refills WHERE kiosk <> 'nowhere' AND product <> 'still'");
        assertThat(ana.describe(far, "kept-answers", Map.of("seconds", 0)).statusCode())
                .isEqualTo(204);
        ana.json("POST", "/api/datasets/" + far + "/feed", null);
        try (Connection connection = outlets.connect();
                Statement statement = connection.createStatement();
                var found = statement.executeQuery(
                        "SELECT COUNT(*) FILTER (WHERE kiosk <> 'nowhere') * 100.0 / COUNT(*), COUNT(*) FROM "
                                + "refills")) {
            found.next();
            assertThat(ana.json(
                                    "POST",
                                    "/api/datasets/" + far + "/ties/match",
                                    Map.of("column", "kiosk", "dataset", kiosks, "equals", "code"))
                            .get("words")
                            .asString())
                    .startsWith("%.1f %% of %,d rows find a partner over there"
                            .formatted(found.getDouble(1), found.getLong(2)));
        }
    }

    @Test
    void whyADatabaseCannotBeAskedIsSaid() throws Exception {
        long far = kept("stays:Outlets/public.refills", "Far refills", null);
        outlets.onServer("ALTER ROLE outlets_reader PASSWORD 'changed'");
        outlets.onServer("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE usename = 'outlets_reader'");
        assertThat(ana.get("/api/datasets/" + far + "/rows?find=never-asked-before")
                        .body())
                .contains("does not let its user in");
    }

    private int running() {
        try (Connection connection = outlets.connect();
                Statement statement = connection.createStatement();
                var found = statement.executeQuery(
                        "SELECT COUNT(*) FROM pg_stat_activity WHERE usename = 'outlets_reader' AND state = "
                                + "'active'")) {
            found.next();
            return found.getInt(1);
        } catch (SQLException failed) {
            throw new IllegalStateException(failed);
        }
    }
}
