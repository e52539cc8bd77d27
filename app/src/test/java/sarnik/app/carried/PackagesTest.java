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
        List<JsonNode> there = answers(folder, questions);
        assertThat(there).hasSameSizeAs(questions);
        for (int i = 0; i < questions.size(); i++) {
            Question asked = questions.get(i);
            HttpResponse<String> here = author.send(
                    "POST",
                    "/api/dashboards/" + dashboard + "/" + asked.what(),
                    "application/json",
                    MAPPER.writeValueAsString(asked.body()));
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
        questions.add(new Question("filters/values", Map.of("state", "", "filter", "f1", "find", "w")));
        compare(ana, id, folder, questions);
    }
}
