package sarnik.app.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sarnik.live.Reading;

@DisplayName("Readings that wait on the disk")
class SpoolTest {

    @TempDir
    private Path directory;

    private static List<Spool.Waiting> readings(int from, int to) {
        return IntStream.range(from, to)
                .mapToObj(i -> Spool.Waiting.of(
                        7,
                        new Reading(
                                "d" + i,
                                i * 1000L,
                                i % 2 == 0 ? -2.5 : Double.NaN,
                                i % 2 == 0 ? 41.0 : Double.NaN,
                                new Object[] {i + 0.0, "text “ñ”\n" + i, i % 3 == 0, null})))
                .toList();
    }

    private static List<Reading> emptied(Spool spool) throws Exception {
        List<Reading> taken = new ArrayList<>();
        spool.empty(waiting -> waiting.forEach(w -> taken.add(w.reading())));
        return taken;
    }

    @Test
    void comeBackAsTheyWereOnceAndInTheirOrderAlsoToAProgramThatBeginsAnew() throws Exception {
        assertThat(new Spool(directory, 1 << 24).keep(readings(0, 12_000))).isTrue();
        assertThat(new Spool(directory, 1 << 24).keep(readings(12_000, 12_010))).isTrue();
        Spool spool = new Spool(directory, 1 << 24);
        List<Reading> taken = emptied(spool);
        assertThat(taken).hasSize(12_010);
        for (int i = 0; i < taken.size(); i += 997) {
            Reading expected = readings(i, i + 1).get(0).reading();
            assertThat(taken.get(i).device()).isEqualTo(expected.device());
            assertThat(taken.get(i).millis()).isEqualTo(expected.millis());
            assertThat(taken.get(i).hasPosition()).isEqualTo(expected.hasPosition());
            assertThat(taken.get(i).values()).containsExactly(i + 0.0, "text “ñ”\n" + i, i % 3 == 0, null);
        }
        assertThat(spool.isEmpty()).isTrue();
        assertThat(emptied(spool)).isEmpty();
    }

    @Test
    void areRefusedWhereThereIsNoMoreRoomAndThoseThatWaitStay() throws Exception {
        Spool spool = new Spool(directory, 20_000);
        assertThat(spool.keep(readings(0, 50))).isTrue();
        assertThat(spool.keep(readings(50, 1000))).isFalse();
        assertThat(emptied(spool)).hasSize(50);
        assertThat(spool.keep(readings(50, 60))).isTrue();
    }

    @Test
    void waitOnWhereTheyCannotBeWrittenYetAndALineThatWasCutIsLeftOut() throws Exception {
        Spool spool = new Spool(directory, 1 << 24);
        spool.keep(readings(0, 10));
        assertThatThrownBy(() -> spool.empty(waiting -> {
                    throw new IOException("still away");
                }))
                .hasMessage("still away");
        spool.keep(readings(10, 12));
        Files.writeString(directory.resolve("waiting.ndjson"), "{\"feed\":7,\"devi", StandardOpenOption.APPEND);
        assertThat(emptied(spool)).extracting(Reading::device).startsWith("d0").hasSize(10);
        assertThat(emptied(spool)).extracting(Reading::device).containsExactly("d10", "d11");
    }
}
