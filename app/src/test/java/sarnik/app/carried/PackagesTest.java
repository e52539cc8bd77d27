package sarnik.app.carried;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.carried.Carrier;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@ExtendWith(RunningSarnik.class)
@DisplayName("Dashboards as packages")
class PackagesTest {

    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    /** A package on disk. */
    static Path unpacked(byte[] zip) throws IOException {
        Path folder = Files.createTempDirectory("sarnik-package");
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                Path file = folder.resolve(entry.getName());
                Files.createDirectories(file.getParent());
                Files.write(file, in.readAllBytes());
            }
        }
        return folder;
    }

    private record Question(String what, Map<String, Object> body) {}

    private static List<JsonNode> answers(Path folder, List<Question> questions) throws Exception {
        Path in = folder.resolve("questions");
        List<String> lines = new ArrayList<>();
        for (Question question : questions) lines.add(MAPPER.writeValueAsString(question));
        Files.write(in, lines);
        Path out = folder.resolve("answers");
        Process node = new ProcessBuilder(
                        "node",
                        Path.of("src/test/resources/carried.cjs")
                                .toAbsolutePath()
                                .toString(),
                        folder.toString(),
                        LocalDate.now().toString())
                .redirectInput(in.toFile())
                .redirectOutput(out.toFile())
                .redirectError(folder.resolve("errors").toFile())
                .start();
        assertThat(node.waitFor(3, TimeUnit.MINUTES)).isTrue();
        assertThat(node.exitValue())
                .as(Files.readString(folder.resolve("errors")))
                .isZero();
        return Files.readAllLines(out).stream().map(Samples::parse).toList();
    }

    /** Asks the server and the package the same, and compares answer for answer. */
    private static void compare(SarnikClient author, long dashboard, Path folder, List<Question> questions)
            throws Exception {
        compare(author, dashboard, folder, questions, "en");
    }

    private static void compare(
            SarnikClient author, long dashboard, Path folder, List<Question> questions, String language)
            throws Exception {
        List<JsonNode> there = answers(folder, questions);
        assertThat(there).hasSameSizeAs(questions);
        for (int i = 0; i < questions.size(); i++) {
            Question asked = questions.get(i);
            HttpResponse<String> here = author.send(
                    "POST",
                    "/api/dashboards/" + dashboard + "/" + asked.what(),
                    "application/json",
                    MAPPER.writeValueAsString(asked.body()),
                    "Accept-Language",
                    language);
            JsonNode said = Samples.parse(here.body());
            if (here.statusCode() == 200)
                assertThat(there.get(i).get("answer")).as("%s", asked).isEqualTo(said);
            else
                assertThat(there.get(i).get("refused").asString())
                        .as("%s", asked)
                        .isEqualTo(said.get("detail").asString());
        }
    }

    @Test
    void answerBitForBitWhatTheServerAnswers(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = Samples.dashboard(ana, "Carried away?");
        ana.publish(id);
        Packages.Made made = sarnik.bean(Packages.class).make(id);
        assertThat(made.about().datasets()).hasSize(1);
        assertThat(made.about().datasets().get(0).rows()).isEqualTo(6);
        assertThat(made.about().datasets().get(0).left()).contains("country");
        Path folder = unpacked(made.zip());
        Random random = new Random(7);
        List<String> parts = List.of(
                "f.f1=still",
                "f.f1=warm",
                "f.f2=2026-01-02..",
                "f.f2=..2026-01-31",
                "p.v3=!",
                "f.f1=gone",
                "f.f2=soon");
        List<Question> questions = new ArrayList<>();
        for (int n = 0; n < 40; n++) {
            StringBuilder state = new StringBuilder();
            for (String part : parts)
                if (random.nextInt(3) == 0)
                    state.append(state.isEmpty() ? "" : "&").append(part);
            Map<String, Object> body = new LinkedHashMap<>(Map.of("state", state.toString()));
            questions.add(new Question("frames", body));
            questions.add(new Question("filters/values", Map.of("state", state.toString(), "filter", "f1")));
        }
        questions.add(new Question("narrowings", Map.of("state", "", "words", "still water in Soria")));
        questions.add(new Question("narrowings", Map.of("state", "", "words", "warm over 1,000.5; 2 000 or 1,5")));
        questions.add(new Question("filters/values", Map.of("state", "", "filter", "f1", "find", "w")));
        compare(ana, id, folder, questions);
    }

    @Test
    void areAnsweredInTheLanguageInWhichTheyAreHandedOver(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = Samples.dashboard(ana, "Carried away in Portuguese?");
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + id,
                Samples.JSON_PATCH,
                """
                [{"op":"add","path":"/language","value":"pt"}]""",
                "If-Match",
                "\""
                        + ana.read(ana.get("/api/dashboards/" + id))
                                .get("revision")
                                .asLong() + "\""));
        ana.publish(id);
        Path folder = unpacked(sarnik.bean(Packages.class).make(id).zip());
        assertThat(Files.readString(folder.resolve("index.html")))
                .contains("lang=\"pt\"", "\"Now showing everything\":\"Agora mostra-se tudo\"");
        List<Question> questions = new ArrayList<>();
        for (String state : List.of("", "f.f1=still", "f.f2=2026-01-02..&p.v3=!", "f.f1=gone", "f.f2=~last.3.month"))
            questions.add(new Question("frames", Map.of("state", state)));
        questions.add(new Question("frames", Map.of("state", "", "file", true)));
        compare(ana, id, folder, questions, "pt");
        assertThat(answers(folder, questions.subList(1, 2)).toString()).contains("Product é still", "Todas as linhas");
    }

    /** Two datasets, one of them placed by a tie to the other, with formulas, a rule, and picks that go across. */
    private static long tied(SarnikClient ana, int rows) throws Exception {
        Random random = new Random(11);
        StringBuilder wells = new StringBuilder("code,state,lat,lon\n");
        for (int n = 0; n < 40; n++)
            wells.append("W%02d,%s,%.4f,%.4f%n"
                    .formatted(
                            n,
                            List.of("open", "closed", "in repair").get(n % 3),
                            40 + random.nextDouble(),
                            -4 + random.nextDouble()));
        StringBuilder visits = new StringBuilder("well,day,litres,secret\n");
        for (int n = 0; n < rows; n++)
            visits.append("W%02d,%s,%d.5,s%d%n"
                    .formatted(
                            random.nextInt(40),
                            LocalDate.of(2026, 1, 1).plusDays(n * 120L / rows),
                            random.nextInt(400),
                            n));
        long well = ana.bring(
                RunningSarnik.file("wells.csv", wells.toString()),
                "Wells carried " + rows,
                Map.of(),
                Map.of("type", "coordinates", "lat", "lat", "lon", "lon"));
        long visit = ana.bring(
                RunningSarnik.file("visits.csv", visits.toString()),
                "Visits carried " + rows,
                Map.of(),
                Map.of("type", "tie", "column", "well", "dataset", well, "equals", "code"));
        assertThat(ana.describe(
                                visit,
                                "calculations",
                                Map.of(
                                        "formulas",
                                        List.of(
                                                Map.of("name", "half", "text", "litres / 2", "measure", false),
                                                Map.of(
                                                        "name",
                                                        "a visit",
                                                        "text",
                                                        "sum(half) / count(*) * 2",
                                                        "measure",
                                                        true)),
                                        "rules",
                                        List.of("litres > 3")))
                        .statusCode())
                .isEqualTo(204);
        JsonNode made = ana.json("POST", "/api/dashboards", Map.of("title", "Tied and carried? " + rows));
        String patch = """
                [{"op":"add","path":"/visuals/v1","value":{"type":"map","page":"p1","at":{"x":0,"y":0,"w":12,"h":10},"title":"Map","layers":{"l1":{"order":1,"dataset":%1$d,"opacity":0.8,"size":{"measure":{"summary":"SUM","column":"litres"},"rule":"AREA","radius":24}}}}},
                 {"op":"add","path":"/visuals/v2","value":{"type":"figure","page":"p1","at":{"x":12,"y":0,"w":6,"h":4},"title":"A visit","dataset":%1$d,"measure":{"summary":"FORMULA","column":"a visit"}}},
                 {"op":"add","path":"/visuals/v3","value":{"type":"bars","page":"p1","at":{"x":12,"y":4,"w":6,"h":6},"title":"States","dataset":%2$d,"category":"state","measure":{"summary":"COUNT"}}},
                 {"op":"add","path":"/visuals/v4","value":{"type":"lines","page":"p1","at":{"x":18,"y":4,"w":6,"h":6},"title":"Weeks","dataset":%1$d,"time":"day","step":"WEEK","measures":[{"summary":"SUM","column":"litres"}]}},
                 {"op":"add","path":"/filters/f1","value":{"type":"choice","page":"p1","order":1,"dataset":%2$d,"column":"state","title":"State","terms":{"across":true}}},
                 {"op":"add","path":"/links/k3","value":{"from":"v3","across":true}}]
                """.formatted(visit, well);
        long id = made.get("id").asLong();
        ana.read(ana.send("PATCH", "/api/dashboards/" + id, Samples.JSON_PATCH, patch, "If-Match", "\"1\""));
        ana.publish(id);
        return id;
    }

    @Test
    void takeAlongWhatTiesFormulasAndRulesNeed(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = tied(ana, 600);
        Packages.Made made = sarnik.bean(Packages.class).make(id);
        assertThat(made.about().datasets()).hasSize(2);
        assertThat(made.about().datasets()).allSatisfy(d -> assertThat(d.sums()).isNull());
        assertThat(made.about().datasets().stream().flatMap(d -> d.left().stream()))
                .as("what nothing shows stays here")
                .contains("secret");
        Path folder = unpacked(made.zip());
        assertThat(Files.readString(folder.resolve("data.js"))).doesNotContain("\"secret\"");
        compare(ana, id, folder, acrossTies());
    }

    @Test
    void holdSumsAtTheFinestGrainOfWhatHasManyRows(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = tied(ana, 130_000);
        Packages.Made made = sarnik.bean(Packages.class).make(id);
        Carrier.Said visits = made.about().datasets().get(0);
        assertThat(visits.rows()).isEqualTo(130_000);
        // 40 wells in 18 weeks, of which some rows meet the rule and others do not.
        assertThat(visits.sums()).isLessThan(40 * 18 * 2 + 1);
        assertThat(made.about().dataBytes()).isLessThan(60_000);
        compare(ana, id, unpacked(made.zip()), acrossTies());
    }

    private static List<Question> acrossTies() {
        List<Question> questions = new ArrayList<>();
        for (String state : List.of(
                "",
                "f.f1=open",
                "f.f1=closed.open",
                "p.v3=closed",
                "p.v3=in%20repair&f.f1=closed",
                "p.v3=open&f.f1=open",
                "p.v3=nowhere"))
            for (int zoom : new int[] {4, 7, 10})
                questions.add(new Question(
                        "frames",
                        Map.of(
                                "state",
                                state,
                                "sights",
                                Map.of(
                                        "v1",
                                        Map.of(
                                                "zoom", zoom, "west", -4.2, "south", 39.9, "east", -2.9, "north",
                                                41.1)))));
        questions.add(new Question("filters/values", Map.of("state", "p.v3=open", "filter", "f1")));
        return questions;
    }

    @Test
    void areRefusedWhereNothingIsPublishedOrTheRowsAreTooMany(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long draft = Samples.dashboard(ana, "A draft is not carried?");
        assertThat(ana.get("/api/dashboards/" + draft + "/package").statusCode())
                .isEqualTo(404);
        ana.publish(draft);
        assertThat(sarnik.client("rui")
                        .get("/api/dashboards/" + draft + "/package.zip")
                        .statusCode())
                .as("a reader who may read it may not hand it on")
                .isIn(403, 404);
    }
}
