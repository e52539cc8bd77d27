package sarnik.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("The command ./sarnik")
class CommandTest {

    @TempDir
    private Path home;

    private record Said(int code, String text) {}

    private Said sarnik(Map<String, String> variables, String... words) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("../sarnik"));
        command.addAll(List.of(words));
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment().put("SARNIK_HOME", home.toString());
        builder.environment().putAll(variables);
        Process process = builder.start();
        process.getOutputStream().close();
        String text = new String(process.getInputStream().readAllBytes());
        return new Said(process.waitFor(), text);
    }

    @Test
    void helpListsWhatItCanDo() throws Exception {
        Said said = sarnik(Map.of(), "help");
        assertThat(said.code()).isZero();
        assertThat(said.text())
                .contains("demo", "start", "stop", "reset", "test", "bench", "shots", "--port", "SARNIK_HOME");
    }

    @Test
    void aCommandThatIsNotThereIsSaid() throws Exception {
        Said said = sarnik(Map.of(), "fly");
        assertThat(said.code()).isNotZero();
        assertThat(said.text()).contains("there is no command “fly”");
    }

    @ParameterizedTest
    @CsvSource({
        "demo --prot 9000, demo knows no “--prot”",
        "demo now, demo knows no “now”",
        "test --cover, test knows no “--cover”",
        "bench --engin, bench knows no “--engin”",
        "bench --two --times many, --times needs a number",
        "bench --json, --json needs a name",
        "fuzz --inputs, --inputs needs a number"
    })
    void whatACommandDoesNotKnowIsSaidBeforeAnythingIsMade(String words, String sentence) throws Exception {
        Said said = sarnik(Map.of(), words.split(" "));
        assertThat(said.code()).isEqualTo(1);
        assertThat(said.text().strip())
                .startsWith("sarnik: ")
                .contains(sentence)
                .hasLineCount(1);
        try (var made = Files.list(home)) {
            assertThat(made).isEmpty();
        }
    }

    @Test
    void askedForHelpACommandDoesNothingElse() throws Exception {
        Said said = sarnik(Map.of(), "bench", "--help");
        assertThat(said.code()).isZero();
        assertThat(said.text()).isEqualTo(sarnik(Map.of(), "help").text());
    }

    @ParameterizedTest
    @ValueSource(strings = {"abc", "0", "99999", "-1"})
    void aPortThatIsNoneIsSaid(String port) throws Exception {
        Said said = sarnik(Map.of(), "demo", "--port", port);
        assertThat(said.code()).isNotZero();
        assertThat(said.text()).contains("“" + port + "” is not a port").contains("--port 8090");
    }

    @Test
    void aPortThatIsTakenIsSaidBeforeAnythingIsMade() throws Exception {
        try (ServerSocket taken = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Said said = sarnik(Map.of("SARNIK_PORT", String.valueOf(taken.getLocalPort())), "demo");
            assertThat(said.code()).isNotZero();
            assertThat(said.text())
                    .contains("port " + taken.getLocalPort() + " is taken")
                    .contains("./sarnik demo --port");
            try (var made = Files.list(home)) {
                assertThat(made).isEmpty();
            }
        }
    }

    @Test
    void stoppingWhereNothingRunsIsNoMistake() throws Exception {
        Said said = sarnik(Map.of(), "stop");
        assertThat(said.code()).isZero();
        assertThat(said.text()).contains("nothing was running");
    }

    @Test
    void ownDataIsNotTakenAwayWithoutAsking() throws Exception {
        Files.createDirectories(home.resolve("own"));
        Said said = sarnik(Map.of(), "reset", "--own");
        assertThat(said.code()).isNotZero();
        assertThat(said.text()).contains("nothing was taken away");
        assertThat(home.resolve("own")).exists();
    }
}
