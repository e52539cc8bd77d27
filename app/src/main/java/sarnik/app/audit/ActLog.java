package sarnik.app.audit;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Keeps what was done, for two years. */
@Service
public class ActLog {

    private static final Logger LOG = LoggerFactory.getLogger(ActLog.class);
    private static final Duration KEPT = Duration.ofDays(730);
    private static final Duration BETWEEN_CLEANING = Duration.ofDays(1);

    private final ActRepository acts;
    private final TransactionTemplate transaction;
    private final Clock clock = Clock.systemUTC();
    private final AtomicReference<Instant> cleaned = new AtomicReference<>(Instant.EPOCH);

    ActLog(ActRepository acts, TransactionTemplate transaction) {
        this.acts = acts;
        this.transaction = transaction;
    }

    /**
     * Keeps an act. What cannot be kept is written into the log of the application: what was done is done.
     *
     * @param who as that person signs in
     * @param words a sentence without its subject: "took rows of “Refills” along"
     * @param address where it came from
     */
    public void keep(String who, Act.Kind kind, String words, String address) {
        Instant now = clock.instant();
        try {
            transaction.executeWithoutResult(t -> {
                acts.save(new Act(now, who, kind, words, address));
                Instant last = cleaned.get();
                if (last.plus(BETWEEN_CLEANING).isBefore(now) && cleaned.compareAndSet(last, now))
                    acts.forget(now.minus(KEPT));
            });
        } catch (RuntimeException lost) {
            LOG.error("Not kept: {} {} ({})", who, words, kind, lost);
        }
    }

    /**
     * What was done, the newest first.
     *
     * @param kinds empty for all
     * @param who empty for anybody
     * @param words empty for anything
     */
    List<Act> found(Set<Act.Kind> kinds, String who, String words, Instant from, Instant until, int most) {
        return acts.found(
                kinds.isEmpty() ? Set.of(Act.Kind.values()) : kinds,
                who.toLowerCase(java.util.Locale.ROOT),
                words.toLowerCase(java.util.Locale.ROOT),
                from,
                until,
                Limit.of(most));
    }
}
