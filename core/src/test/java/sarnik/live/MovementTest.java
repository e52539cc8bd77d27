package sarnik.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("Moving devices")
class MovementTest {

    private static Movement.Position at(long seconds, double lon, double lat) {
        return new Movement.Position(seconds * 1000, lon, lat);
    }

    @Test
    void thatJumpAreNotBelievedUntilTheyStay() {
        Movement movement = new Movement(3_600_000);
        assertThat(movement.take(at(0, -2.46, 41.76))).isTrue();
        assertThat(movement.take(at(10, -2.45, 41.76))).isTrue();
        // 1,000 km in ten seconds, once.
        assertThat(movement.take(at(20, 9.0, 45.0))).isFalse();
        assertThat(movement.newest()).isEqualTo(at(10, -2.45, 41.76));
        assertThat(movement.take(at(30, -2.44, 41.76))).isTrue();
        // Carried elsewhere by a plane, with its sender off.
        assertThat(movement.take(at(40, 9.0, 45.0))).isFalse();
        assertThat(movement.take(at(50, 9.001, 45.0))).isFalse();
        assertThat(movement.take(at(60, 9.002, 45.0))).isTrue();
        assertThat(movement.trail()).extracting(Movement.Position::lon).containsExactly(9.0, 9.001, 9.002);
    }

    @Test
    void headWhereTheyHaveGoneAndTheirTrailIsOfTheLastWhile() {
        Movement movement = new Movement(60_000);
        assertThat(movement.heading()).isNaN();
        for (int i = 0; i <= 20; i++) movement.take(at(i * 10L, -2.0 + i * 0.001, 41.0));
        assertThat(movement.heading()).isCloseTo(90, within(0.01));
        assertThat(movement.trail()).hasSize(8);
        assertThat(movement.take(at(5, 0, 0))).as("late ones change nothing").isTrue();
        assertThat(movement.newest().lon()).isCloseTo(-1.98, within(1e-9));
        movement.take(at(300, -1.98, 41.001));
        assertThat(movement.heading()).isCloseTo(0, within(0.01));
    }

    @Test
    void stopWhereTheyStay() {
        Random random = new Random(1);
        List<Movement.Position> way = new ArrayList<>();
        long now = 0;
        double lon = -2.5;
        for (int leg = 0; leg < 4; leg++) {
            for (int i = 0; i < 30; i++) way.add(at(now += 10, lon += 0.002, 41.5));
            // Stays for ten minutes, trembling by some 20 metres.
            for (int i = 0; i < 60; i++)
                way.add(at(now += 10, lon + random.nextGaussian() * 0.0002, 41.5 + random.nextGaussian() * 0.0001));
        }
        List<Stops.Stop> stops = Stops.of(way, 100, 300_000, 60_000);
        assertThat(stops).hasSize(4);
        assertThat(stops).allSatisfy(stop -> assertThat(stop.millis()).isBetween(580_000L, 640_000L));
        assertThat(stops.get(0).lon()).isCloseTo(-2.44, within(0.0005));
        assertThat(Stops.of(way, 100, 700_000, 60_000))
                .as("none stays for so long")
                .isEmpty();
        assertThat(Stops.of(List.of(), 100, 0, 0)).isEmpty();
    }

    @Test
    void withAHoleInTheirReadingsStopTwice() {
        List<Movement.Position> way = new ArrayList<>();
        for (int i = 0; i < 60; i++) way.add(at(i * 10L, 179.9999, 10));
        for (int i = 0; i < 60; i++) way.add(at(7200 + i * 10L, -179.9999, 10));
        assertThat(Stops.of(way, 100, 300_000, 600_000)).hasSize(2);
        assertThat(Stops.of(way, 100, 300_000, 10_000_000)).singleElement().satisfies(s -> {
            assertThat(Math.abs(s.lon())).isCloseTo(180, within(0.001));
            assertThat(s.positions()).isEqualTo(120);
        });
    }
}
