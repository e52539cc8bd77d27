package sarnik.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import org.junit.jupiter.api.Test;

class GatewayTest {

    private static final long NOON = Instant.parse("2026-06-01T12:00:00Z").getEpochSecond();

    @Test
    void saysTheSameAtTheSameMoment() {
        assertThat(Gateway.probes(NOON)).isEqualTo(Gateway.probes(NOON));
        assertThat(Gateway.probes(NOON + 10)).isNotEqualTo(Gateway.probes(NOON));
        assertThat(Gateway.vans(NOON)).isEqualTo(Gateway.vans(NOON));
    }

    @Test
    void mostProbesSpeakAndSomeTurnMuddyWithinADay() {
        int muddy = 0;
        for (long second = NOON; second < NOON + 86_400; second += 600) {
            String said = Gateway.probes(second);
            int speak = said.split("\"probe\"").length - 1;
            assertThat(speak).isBetween(Gateway.PROBES - 3, Gateway.PROBES);
            if (said.matches(".*\"turbidity_ntu\":[4-9].*")) muddy++;
        }
        assertThat(muddy).isGreaterThan(10);
    }

    @Test
    void vansMoveAsVansDoAndStop() {
        int stands = 0;
        for (int van = 0; van < Gateway.VANS; van++)
            for (long second = NOON; second < NOON + 7200; second += 2) {
                double[] at = Gateway.van(van, second);
                double[] next = Gateway.van(van, second + 2);
                double km = Math.hypot((next[0] - at[0]) * 85, (next[1] - at[1]) * 111);
                assertThat(km).as("no faster than 270 km/h").isLessThan(0.15);
                if (km < 1e-9) stands++;
            }
        assertThat(stands).isGreaterThan(1000);
    }
}
