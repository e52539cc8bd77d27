package sarnik.app.live;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import sarnik.live.Reading;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * Where readings wait on disk while the database is away: a line of JSON each, forced to the disk before they are
 * acknowledged, up to a bound. Safe to share between threads.
 */
final class Spool {

    /** A reading that waits. */
    record Waiting(long feed, String device, long millis, Double lon, Double lat, Object[] values) {

        static Waiting of(long feed, Reading reading) {
            return new Waiting(
                    feed,
                    reading.device(),
                    reading.millis(),
                    reading.hasPosition() ? reading.lon() : null,
                    reading.hasPosition() ? reading.lat() : null,
                    reading.values());
        }

        Reading reading() {
            Object[] read = values.clone();
            // A number without decimals comes back as a whole one.
            for (int i = 0; i < read.length; i++) if (read[i] instanceof Number number) read[i] = number.doubleValue();
            return new Reading(device, millis, lon == null ? Double.NaN : lon, lat == null ? Double.NaN : lat, read);
        }
    }

    /** Takes readings that have waited; once it returns they are safe elsewhere. */
    interface Taker {
        void take(List<Waiting> waiting) throws Exception;
    }

    private static final int AT_ONCE = 5000;

    private final Path open;
    private final Path closed;
    private final long mostBytes;
    private final JsonMapper json = new JsonMapper();

    Spool(Path directory, long mostBytes) throws IOException {
        Files.createDirectories(directory);
        this.open = directory.resolve("waiting.ndjson");
        this.closed = directory.resolve("being-written.ndjson");
        this.mostBytes = mostBytes;
    }

    /**
     * Keeps readings on the disk.
     *
     * @return false where there is no more room
     */
    synchronized boolean keep(List<Waiting> waiting) throws IOException {
        StringBuilder lines = new StringBuilder();
        for (Waiting one : waiting) lines.append(json.writeValueAsString(one)).append('\n');
        byte[] bytes = lines.toString().getBytes(StandardCharsets.UTF_8);
        if (bytes() + bytes.length > mostBytes) return false;
        try (FileChannel file = FileChannel.open(
                open, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.APPEND)) {
            long before = file.size();
            try {
                ByteBuffer buffer = ByteBuffer.wrap(bytes);
                while (buffer.hasRemaining()) file.write(buffer);
                file.force(true);
            } catch (IOException full) {
                file.truncate(before);
                throw full;
            }
        }
        return true;
    }

    synchronized long bytes() throws IOException {
        long bytes = 0;
        for (Path file : List.of(open, closed)) if (Files.exists(file)) bytes += Files.size(file);
        return bytes;
    }

    boolean isEmpty() throws IOException {
        return bytes() == 0;
    }

    /**
     * Hands over all that waits, and forgets it once it is taken. What fails waits on; the taker knows what it has
     * already.
     */
    void empty(Taker taker) throws Exception {
        synchronized (this) {
            if (!Files.exists(closed)) {
                if (!Files.exists(open)) return;
                Files.move(open, closed, StandardCopyOption.ATOMIC_MOVE);
            }
        }
        try (BufferedReader reader = Files.newBufferedReader(closed);
                Stream<String> lines = reader.lines()) {
            List<Waiting> next = new ArrayList<>();
            for (String line : (Iterable<String>) lines::iterator) {
                try {
                    next.add(json.readValue(line, Waiting.class));
                } catch (JacksonException cut) {
                    // The last line of a machine that stopped while it wrote; it was never acknowledged.
                    continue;
                }
                if (next.size() < AT_ONCE) continue;
                taker.take(List.copyOf(next));
                next.clear();
            }
            if (!next.isEmpty()) taker.take(next);
        }
        synchronized (this) {
            Files.delete(closed);
        }
    }
}
