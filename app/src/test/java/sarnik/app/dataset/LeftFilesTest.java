package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.util.unit.DataSize;
import sarnik.app.MemoryBudget;
import sarnik.app.SarnikProperties;

@DisplayName("Files that an earlier run has left")
class LeftFilesTest {

    @TempDir
    Path work;

    @Test
    void areSweptAwayButForWhatIsNoFileThatWaits() throws Exception {
        for (String name :
                List.of(UUID.randomUUID() + "-0", UUID.randomUUID() + "-11", "feed123.part", "features9.page"))
            Files.writeString(work.resolve(name), "left");
        Files.writeString(work.resolve("secret.key"), "the key of all passwords");
        Files.createDirectories(work.resolve("live"));
        SarnikProperties properties =
                new SarnikProperties(DataSize.ofMegabytes(1), work, 0.5, 1, "", Duration.ofSeconds(1), null, null);
        try (WaitingRoom room = new WaitingRoom(new MemoryBudget(properties), properties, null, null, null)) {
            try (var left = Files.list(work)) {
                assertThat(left.map(file -> file.getFileName().toString()))
                        .containsExactlyInAnyOrder("secret.key", "live");
            }
        }
    }
}
