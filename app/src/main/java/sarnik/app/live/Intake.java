package sarnik.app.live;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.springframework.stereotype.Component;
import sarnik.live.MessageReader;
import sarnik.live.Reading;

/** Takes messages of feeds in, by whichever way they come: reads them, and keeps what is read. */
@Component
class Intake {

    /** A longer message is not read, bytes. */
    static final int LONGEST = 4 << 20;

    private final ReadingWriter writer;
    private final Troubles troubles;
    private final Samples samples;

    Intake(ReadingWriter writer, Troubles troubles, Samples samples) {
        this.writer = writer;
        this.troubles = troubles;
        this.samples = samples;
    }

    /** What of messages was taken, and what was not, in words; not kept yet. */
    static final class Gathered {
        final List<Reading> readings = new ArrayList<>();
        final List<String> troubles = new ArrayList<>();
        int lost;
    }

    /**
     * Reads a message.
     *
     * @param topic what it came under; empty for none
     */
    void read(RunningFeed feed, String topic, byte[] message, Gathered into) {
        long now = System.currentTimeMillis();
        samples.met(feed.id, topic, message);
        // How messages become readings is still to be said; this one is kept as a sample.
        if (feed.shape == null) return;
        if (message.length > LONGEST) {
            trouble(
                    feed,
                    "A message of %,d bytes was not read; the longest is of %,d".formatted(message.length, LONGEST),
                    message,
                    true,
                    into);
            return;
        }
        MessageReader.Read read = feed.reader().read(message, topic, now);
        read.troubles().forEach(t -> trouble(feed, t.words(), message, t.lost(), into));
        for (Reading reading : read.readings()) {
            if (feed.mayTake(reading.device(), now)) into.readings.add(reading);
            else if (!feed.knows(reading.device()))
                trouble(
                        feed,
                        "%s is no device that this feed knows, or it has %,d already"
                                .formatted(reading.device(), RunningFeed.MOST_DEVICES),
                        message,
                        true,
                        into);
            else
                trouble(
                        feed,
                        "%s sends more than it may, %,d readings a second at most over a longer time"
                                .formatted(reading.device(), RunningFeed.READINGS_A_SECOND),
                        message,
                        true,
                        into);
        }
    }

    private void trouble(RunningFeed feed, String words, byte[] message, boolean lost, Gathered into) {
        troubles.met(
                feed.id, words, new String(message, 0, Math.min(message.length, 4000), StandardCharsets.UTF_8), lost);
        if (into.troubles.size() < 20) into.troubles.add(words);
        if (lost) into.lost++;
    }

    /** Keeps what was read; done once it is durable. */
    CompletableFuture<ReadingWriter.Kept> keep(RunningFeed feed, Gathered gathered) {
        return writer.keep(feed, List.copyOf(gathered.readings));
    }
}
