package sarnik.app.work;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import sarnik.app.instance.HeldBy;
import sarnik.app.instance.Instances;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/**
 * Work that may take longer than a moment: it goes on by itself, says how far it has come, and stops when its person
 * says so.
 * A request that begins it gets the result where it comes soon, else the number of the job, under which it is asked
 * for. A job lives in the instance that has begun it, whose id stands in the job's.
 */
@Component
public class Jobs implements HeldBy, AutoCloseable {

    private static final int AT_ONCE = 2;
    private static final int MOST_OF_ONE = 8;
    private static final Duration KEPT = Duration.ofMinutes(30);

    /** How long an answer waits for the result before it says how far it has come. */
    private static final Duration PATIENCE = Duration.ofMillis(800);

    private static final Pattern ASKED = Pattern.compile("/api/jobs/([0-9a-f-]{36})\\.[0-9a-f-]{36}");

    private final UUID own;
    private final ExecutorService workers = Executors.newFixedThreadPool(AT_ONCE);
    private final Cache<String, Job> jobs =
            Caffeine.newBuilder().expireAfterAccess(KEPT).build();

    @Autowired
    Jobs(Instances instances) {
        this(instances.own());
    }

    Jobs(UUID own) {
        this.own = own;
    }

    private record Job(long person, Progress progress, Future<?> result) {}

    /**
     * A job that goes on.
     *
     * @param words what is being done
     * @param done how much of it is done
     * @param all how much there is; 0 as long as that is not known
     */
    public record Going(String job, boolean working, String words, long done, long all) {}

    /** The work. */
    @FunctionalInterface
    public interface Work {

        /** @throws Exception what becomes the answer; a {@link CancellationException} where it was stopped */
        Object run(Progress progress) throws Exception;
    }

    @Override
    public Optional<UUID> holder(String path) {
        Matcher asked = ASKED.matcher(path);
        return asked.matches() ? Optional.of(UUID.fromString(asked.group(1))) : Optional.empty();
    }

    @Override
    public void close() {
        workers.shutdownNow();
    }

    /**
     * Begins a job.
     *
     * @return its result where it comes soon, else 202 with a {@link Going}
     * @throws RefusedException when this person has too many jobs at once
     */
    public ResponseEntity<Object> begin(SignedIn person, String words, Work work) {
        if (jobs.asMap().values().stream()
                        .filter(j -> j.person == person.id() && !j.result.isDone())
                        .count()
                >= MOST_OF_ONE) {
            throw new RefusedException(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "%d jobs of yours are in work already. Wait for one of them to end, or stop one."
                            .formatted(MOST_OF_ONE));
        }
        Progress progress = new Progress(words);
        String id = own + "." + UUID.randomUUID();
        jobs.put(id, new Job(person.id(), progress, workers.submit(() -> work.run(progress))));
        return state(id, person);
    }

    /**
     * What has come of a job.
     *
     * @throws RefusedException when there is none, when it was stopped, and with whatever it was refused for
     */
    public ResponseEntity<Object> state(String id, SignedIn person) {
        Job job = job(id, person);
        try {
            Object result = job.result.get(PATIENCE.toMillis(), TimeUnit.MILLISECONDS);
            jobs.invalidate(id);
            return result instanceof ResponseEntity<?> answer
                    ? ResponseEntity.status(answer.getStatusCode())
                            .headers(answer.getHeaders())
                            .body(answer.getBody())
                    : ResponseEntity.ok(result);
        } catch (TimeoutException goesOn) {
            return ResponseEntity.accepted()
                    .body(new Going(id, true, job.progress.words(), job.progress.done(), job.progress.all()));
        } catch (CancellationException stopped) {
            throw stopped();
        } catch (ExecutionException failed) {
            jobs.invalidate(id);
            if (failed.getCause() instanceof CancellationException) throw stopped();
            if (failed.getCause() instanceof RuntimeException refused) throw refused;
            throw new IllegalStateException(failed.getCause());
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("Interrupted while a job was waited for", interrupted);
        }
    }

    /** Stops a job; what it had begun to write is taken back. */
    public void stop(String id, SignedIn person) {
        job(id, person).progress.stop();
    }

    private Job job(String id, SignedIn person) {
        Job job = jobs.getIfPresent(id);
        if (job == null && id.contains(".") && !id.startsWith(own.toString()))
            throw new RefusedException(
                    HttpStatus.NOT_FOUND,
                    "What was being done was cut off: its server has ended. Look whether it is done; if it is not, begin it again.");
        if (job == null || job.person != person.id()) throw RefusedException.gone("job");
        return job;
    }

    private static RefusedException stopped() {
        return new RefusedException(HttpStatus.CONFLICT, "Stopped. Nothing was changed.");
    }
}
