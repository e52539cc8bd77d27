package sarnik.app.live;

import jakarta.servlet.http.HttpServletRequest;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * Where devices and their gateways send readings: JSON, one message or an array of them, or NDJSON, a message a line,
 * for as long as the sender likes. Whoever sends bears the token of the feed. What is answered as taken is durable.
 */
@RestController
class IntakeApi {

    private static final int AT_ONCE = 2000;
    private static final long PATIENCE_SECONDS = 30;
    private static final String BEARER = "Bearer ";

    private final RunningFeeds feeds;
    private final Intake intake;

    IntakeApi(RunningFeeds feeds, Intake intake) {
        this.feeds = feeds;
        this.intake = intake;
    }

    /**
     * What came of what was sent.
     *
     * @param taken readings that are kept now and were not before
     * @param alike readings that were known already
     * @param lost messages or readings that are not kept
     * @param waiting whether they wait on the disk until the database is there again
     * @param troubles why something is lost or changed, the first of each kind
     */
    record Answer(long taken, long alike, long lost, boolean waiting, List<String> troubles) {}

    private static final class Sum {
        long taken;
        long alike;
        long lost;
        boolean waiting;
        final List<String> troubles = new ArrayList<>();
        final List<CompletableFuture<ReadingWriter.Kept>> kept = new ArrayList<>();
    }

    @PostMapping("/readings/{feed}")
    ResponseEntity<Answer> take(@PathVariable long feed, HttpServletRequest request) throws IOException {
        RunningFeed to = feeds.find(feed).filter(f -> bears(request, f)).orElse(null);
        // Whoever has no token is not told which feeds there are.
        if (to == null)
            return ResponseEntity.status(HttpStatus.UNAUTHORIZED)
                    .header(HttpHeaders.WWW_AUTHENTICATE, "Bearer")
                    .body(new Answer(
                            0, 0, 0, false, List.of("This address takes readings with the token of its feed only.")));
        Sum sum = new Sum();
        boolean isStream = String.valueOf(request.getContentType()).matches("application/(x-)?(ndjson|jsonl).*");
        try {
            if (isStream) lines(to, request.getInputStream(), sum);
            else whole(to, request.getInputStream(), sum);
            settle(sum);
        } catch (ReadingWriter.Full full) {
            return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                    .header(HttpHeaders.RETRY_AFTER, "2")
                    .body(new Answer(sum.taken, sum.alike, sum.lost, sum.waiting, List.of(full.getMessage())));
        }
        Answer answer = new Answer(sum.taken, sum.alike, sum.lost, sum.waiting, sum.troubles);
        if (to.shape == null) return ResponseEntity.accepted().body(answer);
        boolean none = sum.lost > 0 && sum.taken + sum.alike == 0;
        return ResponseEntity.status(none ? HttpStatus.UNPROCESSABLE_CONTENT : HttpStatus.OK)
                .body(answer);
    }

    private static boolean bears(HttpServletRequest request, RunningFeed feed) {
        String said = request.getHeader(HttpHeaders.AUTHORIZATION);
        return said != null
                && said.startsWith(BEARER)
                && FeedTokens.fits(said.substring(BEARER.length()).strip(), feed.tokenHash);
    }

    private void whole(RunningFeed feed, InputStream body, Sum sum) throws IOException {
        byte[] message = body.readNBytes(Intake.LONGEST + 1);
        Intake.Gathered gathered = new Intake.Gathered();
        intake.read(feed, "", message, gathered);
        add(feed, gathered, sum);
    }

    /** A message a line; a line that is too long is left out, and those after it are read. */
    private void lines(RunningFeed feed, InputStream body, Sum sum) throws IOException {
        ByteArrayOutputStream line = new ByteArrayOutputStream();
        byte[] buffer = new byte[1 << 16];
        Intake.Gathered gathered = new Intake.Gathered();
        for (int read = body.read(buffer); read >= 0; read = body.read(buffer)) {
            for (int i = 0; i < read; i++) {
                if (buffer[i] != '\n') {
                    if (line.size() <= Intake.LONGEST) line.write(buffer[i]);
                    continue;
                }
                gathered = line(feed, line, gathered, sum);
            }
            // What has come so far is kept: the sender may pause.
            if (!gathered.readings.isEmpty() && body.available() == 0) {
                add(feed, gathered, sum);
                gathered = new Intake.Gathered();
                settle(sum);
            }
        }
        add(feed, line(feed, line, gathered, sum), sum);
    }

    private Intake.Gathered line(RunningFeed feed, ByteArrayOutputStream line, Intake.Gathered gathered, Sum sum) {
        byte[] message = line.toByteArray();
        line.reset();
        if (new String(message, java.nio.charset.StandardCharsets.UTF_8).isBlank()) return gathered;
        intake.read(feed, "", message, gathered);
        if (gathered.readings.size() < AT_ONCE) return gathered;
        add(feed, gathered, sum);
        return new Intake.Gathered();
    }

    private void add(RunningFeed feed, Intake.Gathered gathered, Sum sum) {
        sum.lost += gathered.lost;
        for (String words : gathered.troubles)
            if (sum.troubles.size() < 20 && !sum.troubles.contains(words)) sum.troubles.add(words);
        if (!gathered.readings.isEmpty()) sum.kept.add(intake.keep(feed, gathered));
    }

    /** Waits until all that was handed over is durable. */
    private static void settle(Sum sum) {
        for (CompletableFuture<ReadingWriter.Kept> each : sum.kept) {
            try {
                ReadingWriter.Kept kept = each.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
                sum.taken += kept.fresh();
                sum.alike += kept.alike();
                sum.waiting |= kept.isWaiting();
            } catch (ExecutionException failed) {
                if (failed.getCause() instanceof ReadingWriter.Full full) throw full;
                throw new IllegalStateException("Readings could not be kept", failed.getCause());
            } catch (TimeoutException slow) {
                throw new ReadingWriter.Full();
            } catch (InterruptedException closing) {
                Thread.currentThread().interrupt();
                throw new ReadingWriter.Full();
            }
        }
        sum.kept.clear();
    }
}
