package sarnik.app.live;

import java.net.InetAddress;
import java.time.Instant;
import java.util.concurrent.Semaphore;
import java.util.function.LongFunction;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Reads the messages of one feed from its broker for as long as this instance is the one that does, and connects again
 * whenever the connection is lost. A message is told as safe once its readings are; what is not is sent again.
 */
final class Subscription implements AutoCloseable, BrokerClient.Receiver {

    private static final Logger LOG = LoggerFactory.getLogger(Subscription.class);
    private static final long LOOKS_MILLIS = 500;
    private static final long LONGEST_WAIT_MILLIS = 30_000;

    /**
     * How it stands.
     *
     * @param isOpen whether messages come
     * @param since since when
     * @param words why they do not; null while they do
     */
    record Standing(boolean isOpen, Instant since, String words) {}

    final Broker broker;
    private final long feed;
    private final String sealed;
    private final Supplier<String> word;
    private final Supplier<InetAddress> address;
    private final Supplier<Boolean> isOurs;
    private final LongFunction<RunningFeed> feeds;
    private final Intake intake;
    private final Thread thread;
    private final Semaphore wake = new Semaphore(0);

    private volatile boolean isWanted = true;
    private volatile Standing standing = new Standing(false, Instant.now(), "it is being connected");
    private volatile BrokerClient client;
    private volatile boolean isToReopen;

    /**
     * @param sealed what is kept of the password; null for none
     * @param word the password, null for none, or a refusal
     * @param address where the broker is, or a refusal
     * @param isOurs whether this instance is the one that reads the feed
     */
    Subscription(
            long feed,
            Broker broker,
            String sealed,
            Supplier<String> word,
            Supplier<InetAddress> address,
            Supplier<Boolean> isOurs,
            LongFunction<RunningFeed> feeds,
            Intake intake) {
        this.feed = feed;
        this.broker = broker;
        this.sealed = sealed;
        this.word = word;
        this.address = address;
        this.isOurs = isOurs;
        this.feeds = feeds;
        this.intake = intake;
        this.thread = new Thread(this::run, "broker of feed " + feed);
        thread.setDaemon(true);
    }

    void begin() {
        thread.start();
    }

    boolean is(Broker other, String otherSealed) {
        return broker.equals(other) && java.util.Objects.equals(sealed, otherSealed);
    }

    Standing standing() {
        return standing;
    }

    @Override
    public void close() {
        isWanted = false;
        wake.release();
        thread.interrupt();
    }

    static String words(Throwable failed) {
        Throwable last = failed;
        while (last.getCause() != null && last.getCause() != last) last = last.getCause();
        return last.getMessage() == null ? last.getClass().getSimpleName() : last.getMessage();
    }

    private void stands(boolean isOpen, String words) {
        if (standing.isOpen != isOpen || !java.util.Objects.equals(standing.words, words))
            standing = new Standing(isOpen, isOpen == standing.isOpen ? standing.since : Instant.now(), words);
    }

    // --- the thread ------------------------------------------------------------------------------------

    private void run() {
        long wait = LOOKS_MILLIS;
        while (isWanted) {
            try {
                if (client == null && !isOurs.get()) {
                    stands(false, "another instance of Sarnik reads it");
                } else if (client == null) {
                    connect();
                    wait = LOOKS_MILLIS;
                } else if (isToReopen || !client.isOpen()) {
                    drop();
                    // What was refused for want of room is not asked for at once.
                    wait = Math.max(wait, 2000);
                }
            } catch (InterruptedException closing) {
                break;
            } catch (Exception failed) {
                drop();
                stands(false, words(failed));
                wait = Math.min(LONGEST_WAIT_MILLIS, wait * 2);
            }
            try {
                if (wake.tryAcquire(client == null ? wait : LOOKS_MILLIS, java.util.concurrent.TimeUnit.MILLISECONDS))
                    wake.drainPermits();
            } catch (InterruptedException closing) {
                break;
            }
        }
        drop();
    }

    private void connect() throws Exception {
        isToReopen = false;
        BrokerClient fresh = BrokerClient.of(broker, word.get(), address.get(), this);
        try {
            fresh.open();
        } catch (Exception failed) {
            fresh.close();
            throw failed;
        }
        client = fresh;
        stands(true, null);
        LOG.info("Feed {} is read from {}", feed, broker.address());
    }

    private void drop() {
        BrokerClient old = client;
        client = null;
        if (old != null) old.close();
    }

    // --- what comes ------------------------------------------------------------------------------------

    @Override
    public void lost(String why) {
        if (client == null) return;
        stands(false, why);
        LOG.warn("The broker of feed {} is away: {}", feed, why);
        isToReopen = true;
        wake.release();
    }

    @Override
    public void arrived(String topic, byte[] message, Runnable safe) {
        try {
            RunningFeed now = feeds.apply(feed);
            if (now == null) return;
            Intake.Gathered gathered = new Intake.Gathered();
            intake.read(now, topic, message, gathered);
            intake.keep(now, gathered).whenComplete((kept, failed) -> {
                if (failed == null) safe.run();
                else again(failed);
            });
        } catch (RuntimeException failed) {
            again(failed);
        }
    }

    /** A broker sends what is not told as safe again once it is connected anew. */
    private void again(Throwable failed) {
        stands(false, words(failed));
        isToReopen = true;
        wake.release();
    }
}
