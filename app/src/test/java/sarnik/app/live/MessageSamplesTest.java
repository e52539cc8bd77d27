package sarnik.app.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Waiting;

@ExtendWith(RunningSarnik.class)
@DisplayName("The newest messages of a feed")
class MessageSamplesTest {

    /** However few come at a time and however often they are looked at. */
    @Test
    void areKeptInTheirOrder(RunningSarnik sarnik) throws Exception {
        long feed = sarnik.client("ana")
                .json("POST", "/api/feeds", Map.of("name", "Looked at"))
                .get("id")
                .asLong();
        Samples samples = sarnik.bean(Samples.class);
        List<String> sent = new ArrayList<>();
        for (int round = 0; round < 14; round++) {
            String message = "{\"n\": " + round + "}";
            // Of messages that come close together one is enough.
            Waiting.until(
                    () -> {
                        samples.met(feed, "", message.getBytes(StandardCharsets.UTF_8));
                        return samples.of(feed).stream()
                                .anyMatch(s -> s.message().equals(message));
                    },
                    message);
            sent.add(0, message);
        }
        List<String> kept = samples.of(feed).stream()
                .map(Samples.Sample::message)
                .distinct()
                .toList();
        assertThat(kept).isEqualTo(sent.subList(0, kept.size()));
        assertThat(samples.of(feed)).hasSizeGreaterThan(3).hasSizeLessThanOrEqualTo(14);
    }
}
