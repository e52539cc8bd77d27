package sarnik.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.table.ColumnType;

@DisplayName("States of devices")
class StateKeeperTest {

    private static final MessageShape SHAPE = new MessageShape(
            "",
            "/d",
            "/t",
            MessageShape.Form.SECONDS,
            null,
            null,
            null,
            null,
            List.of(
                    new Field("/turbidity", "turbidity", ColumnType.DECIMAL, "NTU"),
                    new Field("/battery", "battery", ColumnType.DECIMAL, "%")));

    private static Reading reading(long seconds, Double turbidity, Double battery) {
        return new Reading("d", seconds * 1000, Double.NaN, Double.NaN, new Object[] {turbidity, battery});
    }

    private static StateKeeper keeper(long silentSeconds, Threshold... thresholds) {
        return new StateKeeper(SHAPE, List.of(thresholds), silentSeconds * 1000);
    }

    private static Threshold turbid(double back, long seconds) {
        return new Threshold("turbidity", Threshold.Side.ABOVE, 1.0, 4.0, back, seconds);
    }

    @Test
    void areTheWorstOfWhatThresholdsSayAndWhyIsSaid() {
        StateKeeper keeper = keeper(0, turbid(0, 0), new Threshold("battery", Threshold.Side.BELOW, 20.0, 10.0, 0, 0));
        assertThat(keeper.take(reading(0, 0.5, 90.0)).state()).isEqualTo(DeviceState.GOOD);
        assertThat(keeper.take(reading(1, 0.6, 90.0))).isNull();
        StateKeeper.Turn watch = keeper.take(reading(2, 2.0, 90.0));
        assertThat(watch.state()).isEqualTo(DeviceState.WATCH);
        assertThat(watch.why()).isEqualTo("turbidity 2, above 1");
        // What a reading does not say stays as it was.
        StateKeeper.Turn bad = keeper.take(reading(3, null, 9.5));
        assertThat(bad.state()).isEqualTo(DeviceState.BAD);
        assertThat(bad.why()).isEqualTo("battery 9.5, below 10");
        assertThat(keeper.take(reading(4, null, 90.0)).why()).isEqualTo("turbidity 2, above 1");
        assertThat(keeper.take(reading(5, 0.1, null)).state()).isEqualTo(DeviceState.GOOD);
    }

    /** Bad for one thing and bad for another are not the same news, though the state stays. */
    @Test
    void stayForOtherReasonsWhichAreSaid() {
        StateKeeper keeper = keeper(0, turbid(0, 0), new Threshold("battery", Threshold.Side.BELOW, 20.0, 10.0, 0, 0));
        keeper.take(reading(0, 5.0, 90.0));
        assertThat(keeper.take(reading(1, 7.0, 80.0))).as("no news").isNull();
        assertThat(keeper.now().why()).isEqualTo("turbidity 5, above 4");
        StateKeeper.Turn more = keeper.take(reading(2, null, 9.0));
        assertThat(more.reasons()).containsExactly("turbidity 5, above 4", "battery 9, below 10");
        assertThat(more.since()).as("it is bad since then").isZero();
        assertThat(keeper.take(reading(3, 0.2, null)))
                .as("one that has gone is not told")
                .isNull();
        assertThat(keeper.now().why()).isEqualTo("battery 9, below 10");
        assertThat(keeper.now().since()).isZero();
        assertThat(keeper.take(reading(4, 6.0, null)).why()).isEqualTo("turbidity 6, above 4; battery 9, below 10");
    }

    @Test
    void areNeverForAValueThatDoesNotLieBeyond() {
        StateKeeper keeper = keeper(30, turbid(0.5, 0));
        keeper.take(reading(0, 4.2, null));
        keeper.look(100_000);
        assertThat(keeper.take(reading(200, 3.8, null)).why())
                .as("it is bad still, for what was said last")
                .isEqualTo("turbidity 4.2, above 4");
    }

    @ParameterizedTest
    @CsvSource({
        "4, 4, 'turbidity 4, at 4 or above'",
        "4.00000001, 4, 'turbidity 4.00000001, above 4'",
        "0.00042, 0.0004, 'turbidity 0.00042, above 0.0004'",
        "12345678, 4, 'turbidity 12345700, above 4'",
        "1234.56789, 1000.5, 'turbidity 1234.57, above 1000.5'",
        "0, 0, 'turbidity 0, at 0 or above'",
        "-3.5, -4, 'turbidity -3.5, above -4'"
    })
    void sayTheirValueSoThatItCanBeToldFromTheLimit(double value, double limit, String why) {
        StateKeeper keeper = keeper(0, new Threshold("turbidity", Threshold.Side.ABOVE, null, limit, 0, 0));
        assertThat(keeper.take(reading(0, value, null)).why()).isEqualTo(why);
    }

    /** What is at hand after a start may begin where values tremble within what they have to come back by. */
    @ParameterizedTest
    @CsvSource({
        "BAD, 'turbidity 4.2, above 4', BAD, 'turbidity 4.2, above 4'",
        "BAD, 'battery 9, below 10; turbidity 4, at 4 or above', BAD, 'turbidity 4, at 4 or above'",
        // Of a limit that has been changed meanwhile, of another measure, of another state.
        "BAD, 'turbidity 5.2, above 5', WATCH, 'turbidity 3.8, above 1'",
        "BAD, 'chlorine 4.2, above 4', WATCH, 'turbidity 3.8, above 1'",
        "WATCH, 'turbidity 4.2, above 4', WATCH, 'turbidity 3.8, above 1'",
        "GOOD, '', WATCH, 'turbidity 3.8, above 1'"
    })
    void goOnWhereNothingHasComeBack(DeviceState kept, String why, DeviceState state, String reasons) {
        StateKeeper keeper = keeper(0, turbid(0.5, 0));
        keeper.take(reading(100, 3.8, null));
        keeper.remember(kept, 50_000, why);
        assertThat(keeper.now().state()).isEqualTo(state);
        assertThat(keeper.now().why()).isEqualTo(reasons);
        assertThat(keeper.now().since()).isEqualTo(kept == state ? 50_000 : 100_000);
        assertThat(keeper.take(reading(101, 3.4, null)) == null)
                .as("it comes back as any other")
                .isEqualTo(state == DeviceState.WATCH);
    }

    @Test
    void areNotRememberedWhereValuesHaveDecidedSince() {
        StateKeeper keeper = keeper(0, turbid(0.5, 0));
        keeper.take(reading(100, 0.0, null));
        keeper.take(reading(101, 3.8, null));
        keeper.remember(DeviceState.BAD, 50_000, "turbidity 4.2, above 4");
        assertThat(keeper.now().state()).isEqualTo(DeviceState.WATCH);
        StateKeeper unheard = keeper(0, turbid(0.5, 0));
        unheard.remember(DeviceState.BAD, 50_000, "turbidity 4.2, above 4");
        assertThat(unheard.now()).isNull();
    }

    @Test
    void reasonsAreAlikeByMeasureAndSide() {
        String why = "pH; raw 4.2, above 4; salt 1, at 1 or below";
        assertThat(StateKeeper.lacking(
                        List.of(
                                "pH; raw 9, above 4",
                                "salt 0.5, below 1",
                                "salt 9, above 8",
                                "raw 5, above 4",
                                "no reading"),
                        why))
                .containsExactly("salt 9, above 8", "no reading");
        assertThat(StateKeeper.lacking(List.of("no reading"), "no reading")).isEmpty();
        assertThat(StateKeeper.both("", List.of("a 1, above 0"))).isEqualTo("a 1, above 0");
        assertThat(StateKeeper.both("b 2, above 0", List.of("a 1, above 0"))).isEqualTo("b 2, above 0; a 1, above 0");
    }

    @Test
    void thatTrembleAboutALimitDoNotTurnToAndFro() {
        StateKeeper keeper = keeper(0, turbid(0.5, 0));
        keeper.take(reading(0, 0.0, null));
        int turns = 0;
        for (int i = 1; i < 40; i++) if (keeper.take(reading(i, 3.9 + 0.2 * (i % 2), null)) != null) turns++;
        assertThat(turns).isEqualTo(1);
        assertThat(keeper.now().state()).isEqualTo(DeviceState.BAD);
        assertThat(keeper.take(reading(50, 3.4, null)).state()).isEqualTo(DeviceState.WATCH);
        assertThat(keeper.take(reading(51, 0.6, null))).isNull();
        assertThat(keeper.take(reading(52, 0.4, null)).state()).isEqualTo(DeviceState.GOOD);
    }

    @Test
    void countOnlyAfterSoLong() {
        StateKeeper keeper = keeper(0, turbid(0, 60));
        keeper.take(reading(0, 9.0, null));
        assertThat(keeper.now().state()).isEqualTo(DeviceState.GOOD);
        assertThat(keeper.take(reading(59, 9.0, null))).isNull();
        assertThat(keeper.take(reading(60, 9.0, null)).state()).isEqualTo(DeviceState.BAD);
        keeper.take(reading(61, 0.0, null));
        keeper.take(reading(62, 9.0, null));
        assertThat(keeper.take(reading(100, 0.0, null))).isNull();
        assertThat(keeper.take(reading(130, 9.0, null)))
                .as("it was good in between")
                .isNull();
    }

    @Test
    void areSilentAfterTheirTimeAndSinceTheirLastWord() {
        StateKeeper keeper = keeper(30, turbid(0, 0));
        assertThat(keeper.look(1_000_000)).as("it has never said anything").isNull();
        keeper.take(reading(100, 2.0, null));
        assertThat(keeper.look(130_000)).isNull();
        StateKeeper.Turn silent = keeper.look(130_001);
        assertThat(silent.state()).isEqualTo(DeviceState.SILENT);
        assertThat(silent.since()).isEqualTo(100_000);
        assertThat(silent.why()).isEqualTo("no reading");
        assertThat(keeper.look(200_000)).isNull();
        assertThat(keeper.take(reading(90, 9.0, null)))
                .as("late ones change nothing")
                .isNull();
        assertThat(keeper.take(reading(300, null, 50.0)).state()).isEqualTo(DeviceState.WATCH);
    }

    @Test
    void areRefusedWhereLimitsDoNotGoTogether() {
        assertThatThrownBy(() -> new Threshold("x", Threshold.Side.ABOVE, 5.0, 4.0, 0, 0))
                .hasMessageContaining("bad has to lie above");
        assertThatThrownBy(() -> new Threshold("x", Threshold.Side.BELOW, null, null, 0, 0))
                .hasMessageContaining("needs a value");
        assertThatThrownBy(() -> new Threshold("x", Threshold.Side.BELOW, 1.0, null, Double.NaN, 0))
                .hasMessageContaining("comes back");
    }

    /** Against a plain evaluation over all that was said, for many ways of values. */
    @Test
    void areThoseOfAPlainEvaluation() {
        Random random = new Random(3);
        for (int world = 0; world < 300; world++) {
            Threshold threshold = new Threshold(
                    "turbidity", Threshold.Side.ABOVE, 1.0, 4.0, random.nextInt(3) * 0.4, random.nextInt(4) * 5L);
            StateKeeper keeper = keeper(0, threshold);
            List<double[]> said = new ArrayList<>();
            long at = 0;
            for (int i = 0; i < 60; i++) {
                at += 1 + random.nextInt(6);
                double value = random.nextInt(60) / 10.0;
                said.add(new double[] {at, value});
                keeper.take(reading(at, value, null));
                DeviceState expected = holds(said, threshold, 4.0)
                        ? DeviceState.BAD
                        : holds(said, threshold, 1.0) ? DeviceState.WATCH : DeviceState.GOOD;
                assertThat(keeper.now().state()).as("world %d at %d", world, at).isEqualTo(expected);
            }
        }
    }

    /** Whether some run of values beyond the limit was long enough, and none since has come back far enough. */
    private static boolean holds(List<double[]> said, Threshold threshold, double limit) {
        int lastReached = -1;
        for (int to = 0; to < said.size(); to++) {
            int from = to;
            while (from >= 0 && said.get(from)[1] >= limit) from--;
            if (from < to && said.get(to)[0] - said.get(from + 1)[0] >= threshold.seconds()) lastReached = to;
        }
        if (lastReached < 0) return false;
        return said.subList(lastReached, said.size()).stream().noneMatch(v -> v[1] < limit - threshold.back());
    }
}
