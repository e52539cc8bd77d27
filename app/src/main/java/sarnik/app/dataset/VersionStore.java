package sarnik.app.dataset;

import com.github.benmanes.caffeine.cache.AsyncCache;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Function;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import sarnik.app.MemoryBudget;
import sarnik.data.Calculations;
import sarnik.place.Placing;
import sarnik.visual.Key;

/**
 * The versions that are in memory. What is kept is found by all that it is made of: the version, the placing with what
 * was
 * decided about it, the calculations, the boundary sets, the day where something is calculated from it, and the
 * version that
 * it is tied to. So nothing has ever to be forgotten: whoever changes one of these asks for something else from then
 * on. A tie
 * is resolved before loading; the loader never asks the store it fills. Loads run on threads of their own and are
 * shared by all
 * who wait for them; each is weighed whole and gives way when memory is short.
 */
@Component
class VersionStore implements AutoCloseable {

    /** Two read at once; more would crowd out the answers. */
    private static final int LOADERS = 2;

    private static final int MOST_LASTING = 10_000;

    private final AsyncCache<Key, Loaded> kept;
    private final MemoryBudget budget;
    private final ExecutorService loaders = Executors.newFixedThreadPool(LOADERS, work -> {
        Thread thread = new Thread(work, "load");
        thread.setDaemon(true);
        return thread;
    });

    /**
     * All that a version in memory is made of.
     *
     * @param boundaries goes up by one when a boundary set comes or goes
     * @param today null where nothing is calculated from it
     * @param tied what it is placed by; empty where it is tied to nothing
     * @param stays where its rows are that stay elsewhere, and for how long an answer holds; null where they are held
     *     here
     * @param tick goes up with newer rows where they come by themselves; 0 where they do not
     * @param only which of its rows; empty for all
     */
    record Key(
            long dataset,
            long version,
            Placing placing,
            long decided,
            Calculations calculations,
            long boundaries,
            LocalDate today,
            List<Key> tied,
            Stays stays,
            long tick,
            String only) {

        /** The same, with some of its rows only. */
        Key only(String which) {
            return new Key(
                    dataset, version, placing, decided, calculations, boundaries, today, tied, stays, tick, which);
        }
    }

    /** What is asked for as it was at one moment; newer rows do not take its place. */
    private final Cache<Key, Boolean> lasting = Caffeine.newBuilder()
            .maximumSize(MOST_LASTING)
            .expireAfterAccess(Duration.ofHours(1))
            .build();

    VersionStore(MemoryBudget budget) {
        this.budget = budget;
        // Weighed in kilobytes: a weight is an int.
        this.kept = Caffeine.newBuilder()
                .executor(Runnable::run)
                .maximumWeight(budget.total() / 1024)
                .weigher((Key key, Loaded l) -> (int) Math.min(Integer.MAX_VALUE, l.bytes() / 1024 + 1))
                .buildAsync();
        budget.whenLeft(bytes ->
                kept.synchronous().policy().eviction().ifPresent(e -> e.setMaximum(Math.max(1, bytes / 1024))));
    }

    @Override
    public void close() {
        loaders.shutdownNow();
    }

    /**
     * What is in memory under a key, or will be once it is loaded.
     *
     * @param bytes what it will take, about
     * @param tied what it is placed by, in memory or on its way
     * @param load reads it, given what it is placed by; called on a thread of the store, once for all who ask
     */
    CompletableFuture<Loaded> get(
            Key key,
            long bytes,
            String name,
            List<CompletableFuture<Loaded>> tied,
            Function<List<Loaded>, Loaded> load) {
        CompletableFuture<Loaded> known = kept.getIfPresent(key);
        if (known != null) return known;
        CompletableFuture<List<Loaded>> before = CompletableFuture.allOf(tied.toArray(CompletableFuture[]::new))
                .thenApply(all -> tied.stream().map(CompletableFuture::join).toList());
        return kept.get(
                key,
                (k, pool) -> before.thenApplyAsync(t -> reserving(bytes, name, () -> load.apply(t)), loaders)
                        .whenComplete((loaded, failed) -> {
                            if (loaded != null) leaveOlder(k);
                        }));
    }

    private Loaded reserving(long bytes, String name, Supplier<Loaded> load) {
        try (MemoryBudget.Share share = budget.reserve(bytes, "“" + name + "”")) {
            return load.get();
        }
    }

    /** Puts what is at hand under its key. */
    void put(Key key, Loaded loaded) {
        kept.put(key, CompletableFuture.completedFuture(loaded));
        leaveOlder(key);
    }

    /** Says that something is asked for as it was at one moment. */
    void last(Key key) {
        lasting.put(key.only(""), true);
    }

    /** What is in memory for a dataset under other keys is of the past, but for what lasts. */
    private void leaveOlder(Key newest) {
        Key now = newest.only("");
        if (lasting.getIfPresent(now) != null) return;
        kept.asMap().forEach((key, work) -> {
            if (key.dataset != now.dataset || !work.isDone()) return;
            Key whole = key.only("");
            if (!whole.equals(now) && lasting.getIfPresent(whole) == null)
                kept.asMap().remove(key, work);
        });
    }

    /** The cause of a load that failed. */
    static RuntimeException cause(Throwable failed) {
        Throwable cause =
                failed instanceof CompletionException || failed instanceof java.util.concurrent.ExecutionException
                        ? Objects.requireNonNullElse(failed.getCause(), failed)
                        : failed;
        return cause instanceof RuntimeException known ? known : new IllegalStateException(cause);
    }
}
