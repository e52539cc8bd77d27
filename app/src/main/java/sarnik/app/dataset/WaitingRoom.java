package sarnik.app.dataset;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import com.github.benmanes.caffeine.cache.Scheduler;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sarnik.app.MemoryBudget;
import sarnik.app.SarnikProperties;
import sarnik.app.instance.HeldBy;
import sarnik.app.instance.Instances;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.work.Progress;

/**
 * Files that were sent and wait to be looked over, each person's own, with what came of reading them. They are read by
 * threads
 * of this room; what waits too long, is kept or is let go leaves with its files and its share of the memory. The files
 * lie in the database too, so that another instance reads them again when this one has ended.
 */
@Component
class WaitingRoom implements HeldBy, AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(WaitingRoom.class);
    private static final Duration WAIT = Duration.ofHours(2);
    private static final int READERS = 2;

    /** How long a request waits for a reading to end before it is told that it goes on. */
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    /** A table takes about so many times the bytes of its file while it is read; what it takes then is known. */
    private static final double BYTES_A_BYTE = 1.5;

    /** Addresses that are about files that wait. */
    private static final Pattern ASKED = Pattern.compile("(?:/api)?/bring/([0-9a-f-]{36})(?:/.*)?");

    private final Object taking = new Object();
    private final MemoryBudget memory;
    private final WaitingFiles stored;
    private final Instances instances;
    private final HeldRows held;
    private Readers readerOf;
    /** What files are called that wait, or that newer rows are fetched into. */
    private static final Pattern WAITING =
            Pattern.compile("[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}-\\d+|(?:feed|features).*\\.(?:part|page)");

    private final Path directory;
    private final int mostWaiting;
    private final Cache<String, Work> waiting;
    private final ExecutorService readers = Executors.newFixedThreadPool(READERS);
    private final ExecutorService writers = Executors.newFixedThreadPool(READERS);

    WaitingRoom(
            MemoryBudget memory, SarnikProperties properties, WaitingFiles stored, Instances instances, HeldRows held) {
        this.held = held;
        this.memory = memory;
        this.stored = stored;
        this.instances = instances;
        this.directory = properties.workDirectory();
        this.mostWaiting = properties.mostWaiting();
        this.waiting = Caffeine.newBuilder()
                .expireAfterAccess(WAIT)
                .scheduler(Scheduler.systemScheduler())
                .removalListener((String id, Work gone, RemovalCause cause) -> {
                    if (cause != RemovalCause.REPLACED && gone != null) leave(id, gone);
                })
                .build();
        sweep();
    }

    /**
     * What an earlier run has left behind lies in the database as well. Only what waits is taken away: the key by which
     * passwords are sealed lies in the same directory.
     */
    private void sweep() {
        if (!Files.isDirectory(directory)) return;
        try (Stream<Path> left = Files.list(directory)) {
            left.filter(Files::isRegularFile)
                    .filter(file ->
                            WAITING.matcher(file.getFileName().toString()).matches())
                    .forEach(WaitingRoom::delete);
        } catch (IOException failed) {
            LOG.warn("The files that an earlier run has left in {} could not be swept away", directory, failed);
        }
    }

    private void leave(String id, Work gone) {
        gone.leave();
        try {
            stored.remove(id, instances.own());
        } catch (DataAccessException away) {
            LOG.debug("The database is away; {} is forgotten by its age", id, away);
        }
    }

    /** Says how files are read. */
    void readBy(Readers ways) {
        readerOf = ways;
    }

    @Override
    public Optional<UUID> holder(String path) {
        Matcher asked = ASKED.matcher(path);
        if (!asked.matches() || waiting.getIfPresent(asked.group(1)) != null) return Optional.empty();
        return stored.holder(asked.group(1)).filter(by -> !by.equals(instances.own()));
    }

    @Scheduled(fixedDelay = 10, initialDelay = 1, timeUnit = TimeUnit.MINUTES)
    void forget() {
        waiting.asMap().keySet().forEach(id -> {
            // What is looked at here only by its pages is used as well.
            if (!stored.use(id, instances.own())) waiting.invalidate(id);
        });
        stored.forget(WAIT.multipliedBy(2));
    }

    @Override
    public void close() {
        readers.shutdownNow();
        writers.shutdownNow();
    }

    /**
     * Files that were sent.
     *
     * @param id under which they wait
     * @param names what their sender calls them
     */
    record Sent(String id, List<Path> files, List<String> names) {

        /** What people are told of them. */
        String words() {
            return "“" + names.get(0) + "”";
        }
    }

    /** Reads files. */
    @FunctionalInterface
    interface Reader {

        /**
         * @param share the memory that is held for their table, to be corrected once it is known
         */
        BringIn read(Sent sent, Progress progress, MemoryBudget.Share share) throws IOException;
    }

    /** Says how somebody's files are read in some way. */
    @FunctionalInterface
    interface Readers {
        Reader of(WaitingFiles.Asked asked, SignedIn person);
    }

    /**
     * Files that are being read or have been.
     *
     * @param share the memory that their table takes
     * @param claimed set by whoever keeps or serves them: only one may
     * @param before what holds again when this reading fails or is stopped; null for the first reading
     */
    private record Work(
            long person,
            Sent sent,
            Future<BringIn> done,
            Progress progress,
            MemoryBudget.Share share,
            AtomicBoolean claimed,
            Work before) {

        void leave() {
            progress.stop();
            share.close();
            if (before != null) before.share.close();
            sent.files.forEach(WaitingRoom::delete);
        }

        State state(String id, BringIn read) {
            return new State(id, read, progress.words(), progress.done(), progress.all());
        }
    }

    /**
     * How far the reading has come.
     *
     * @param bringIn what came of it; null as long as it goes on
     * @param words what is being done
     */
    record State(String id, BringIn bringIn, String words, long rows, long all) {}

    /** What waits of a person, whichever instance holds it. */
    List<WaitingFiles.Waiting> of(SignedIn person) {
        return stored.of(person.id());
    }

    /** A file on its way in. */
    interface Upload {

        /**
         * Writes it.
         *
         * @return what it is called; null for nothing
         */
        String to(Path file) throws IOException;
    }

    /**
     * Takes files and begins to read them.
     *
     * @return the id under which they wait
     * @throws RefusedException when as many of this person's wait as may, or memory is full
     */
    String take(List<? extends Upload> uploads, SignedIn person, WaitingFiles.Asked asked) {
        if (uploads.isEmpty()) throw new RefusedException("Choose a file.");
        checkRoom(person);
        Sent sent = new Sent(UUID.randomUUID().toString(), new ArrayList<>(), new ArrayList<>());
        try {
            Files.createDirectories(directory);
            for (Upload upload : uploads) {
                Path file = directory.resolve(sent.id + "-" + sent.files.size());
                sent.files.add(file);
                String name = Optional.ofNullable(upload.to(file))
                        .filter(n -> !n.isBlank())
                        .orElse("table.csv");
                sent.names.add(name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1));
            }
            // Looked at again where it is taken: several may have been sent at once.
            synchronized (taking) {
                checkRoom(person);
                stored.begin(sent.id, person.id(), instances.own(), sent.names, asked);
                begin(sent, person, asked, null, true);
            }
        } catch (IOException | RuntimeException failed) {
            sent.files.forEach(WaitingRoom::delete);
            stored.remove(sent.id, instances.own());
            if (failed instanceof IOException io) throw new UncheckedIOException(io);
            throw (RuntimeException) failed;
        }
        return sent.id;
    }

    /** Reads waiting files again, in another way. Where that does not work they still wait as they were. */
    void again(String id, SignedIn person, WaitingFiles.Asked asked) {
        Work before = work(id, person);
        try {
            begin(before.sent, person, asked, before, false);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private void checkRoom(SignedIn person) {
        if (of(person).size() >= mostWaiting) {
            throw new RefusedException(
                    HttpStatus.TOO_MANY_REQUESTS,
                    ("%d files of yours wait to be looked over, which is as many as may. Go on with one of them, "
                                    + "or let one go, on the page “Bring a table in”.")
                            .formatted(mostWaiting));
        }
    }

    /** Bytes that a table takes while it is read of files, if all its rows are held, about. */
    static long whileRead(List<Path> files) throws IOException {
        long bytes = 0;
        for (Path file : files) bytes += Files.size(file);
        return (long) (bytes * BYTES_A_BYTE);
    }

    /** @param isNew whether they are to be written down as well; only what is written down counts as read */
    private Work begin(Sent sent, SignedIn person, WaitingFiles.Asked asked, Work before, boolean isNew)
            throws IOException {
        MemoryBudget.Share share = memory.reserve(Math.min(whileRead(sent.files), held.whileRead(1)), sent.words());
        Progress progress = new Progress("Reading");
        Reader reader = readerOf.of(asked, person);
        Future<?> written = isNew
                ? writers.submit(() -> stored.write(sent.id, sent.files))
                : CompletableFuture.completedFuture(null);
        Future<BringIn> done = readers.submit(() -> {
            try {
                BringIn read = reader.read(sent, progress, share);
                written.get();
                stored.wasRead(sent.id, instances.own(), asked.intake());
                return read;
            } catch (CancellationException stopped) {
                // Whoever asks for it is told, but it waits no more, though nobody may ask.
                if (before == null) {
                    stored.remove(sent.id, instances.own());
                    share.close();
                }
                throw stopped;
            }
        });
        Work work = new Work(person.id(), sent, done, progress, share, new AtomicBoolean(), before);
        waiting.put(sent.id, work);
        return work;
    }

    /** Somebody's files that no instance holds that is there. */
    private Optional<WaitingFiles.Waiting> left(String id, SignedIn person) {
        return stored.find(id, person.id())
                .filter(w -> w.instance().equals(instances.own()) || !instances.isThere(w.instance()));
    }

    /** Goes on with files that another instance held, which has ended; null where there are none. */
    private Work takenOver(String id, SignedIn person) {
        WaitingFiles.Waiting known = left(id, person).orElse(null);
        if (known == null) return null;
        synchronized (taking) {
            Work here = waiting.getIfPresent(id);
            if (here != null) return here;
            if (!stored.takeOver(id, known.instance(), instances.own())) return null;
            if (!known.isWhole()) {
                stored.remove(id, instances.own());
                return null;
            }
            Sent sent = new Sent(id, new ArrayList<>(), known.names());
            try {
                Files.createDirectories(directory);
                for (int file = 0; file < known.names().size(); file++) {
                    sent.files.add(directory.resolve(id + "-" + file));
                    stored.read(id, file, sent.files.get(file));
                }
                return begin(sent, person, known.asked(), null, false);
            } catch (IOException | RuntimeException failed) {
                // It waits on in the database, and is read when there is room for it.
                sent.files.forEach(WaitingRoom::delete);
                if (failed instanceof IOException io) throw new UncheckedIOException(io);
                throw (RuntimeException) failed;
            }
        }
    }

    /**
     * How far the reading of waiting files has come, after a while at most.
     *
     * @throws sarnik.table.UnreadableTableException when they hold no table
     */
    State state(String id, SignedIn person, Duration patience) {
        Work work = work(id, person);
        try {
            BringIn read = work.done.get(patience.toMillis(), TimeUnit.MILLISECONDS);
            // What held before this reading is not needed any more.
            if (work.before != null) {
                work.before.share.close();
                waiting.asMap()
                        .replace(
                                id,
                                work,
                                new Work(
                                        work.person,
                                        work.sent,
                                        work.done,
                                        work.progress,
                                        work.share,
                                        work.claimed,
                                        null));
            }
            return work.state(id, read);
        } catch (TimeoutException goesOn) {
            return work.state(id, null);
        } catch (CancellationException stopped) {
            giveUp(id, work);
            throw stopped(work);
        } catch (ExecutionException failed) {
            giveUp(id, work);
            if (failed.getCause() instanceof CancellationException) throw stopped(work);
            if (failed.getCause() instanceof RuntimeException refused) throw refused;
            if (failed.getCause() instanceof ExecutionException unwritten
                    && unwritten.getCause() instanceof RuntimeException refused) throw refused;
            throw new UncheckedIOException(
                    failed.getCause() instanceof IOException io ? io : new IOException(failed.getCause()));
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("Interrupted while a file was read", interrupted);
        }
    }

    private static RefusedException stopped(Work work) {
        String words = work.before == null
                ? "Stopped. Nothing was kept of %s; choose it again when you want it."
                : "Stopped. %s stands as it was read before.";
        return new RefusedException(HttpStatus.CONFLICT, words.formatted(work.sent.words()));
    }

    /** Stops a reading that goes on, which whoever waits for it is told; files that are read are let go. */
    void stop(String id, SignedIn person) {
        // What nobody holds any more need not be read again to be let go.
        if (waiting.getIfPresent(id) == null) {
            stored.remove(id, left(id, person).orElseThrow(WaitingRoom::gone).instance());
            return;
        }
        Work work = work(id, person);
        work.progress.stop();
        if (work.done.isDone()) waiting.invalidate(id);
    }

    /** Files that had been read before wait on as they were, others are forgotten. */
    private void giveUp(String id, Work work) {
        if (work.before == null) {
            waiting.invalidate(id);
        } else {
            work.share.close();
            waiting.put(id, work.before);
        }
    }

    /**
     * The waiting files of this id, once they are read.
     *
     * @throws RefusedException when they are another's or wait no more; with 503 when they are still being read
     */
    BringIn get(String id, SignedIn person) {
        BringIn read = state(id, person, PATIENCE).bringIn();
        if (read == null)
            throw new RefusedException(
                    HttpStatus.SERVICE_UNAVAILABLE, "This file is still being read. Look again in a moment.");
        return read;
    }

    private Work work(String id, SignedIn person) {
        return Optional.ofNullable(waiting.getIfPresent(id))
                .or(() -> Optional.ofNullable(takenOver(id, person)))
                .filter(w -> w.person() == person.id())
                .orElseThrow(WaitingRoom::gone);
    }

    private static RefusedException gone() {
        return new RefusedException(
                HttpStatus.NOT_FOUND,
                "This file waits no more: it has been kept already, was let go, or two hours "
                        + "have gone by. Choose it again.");
    }

    /** Keeps or serves waiting files, which then wait no more. Of several at once only one does. */
    <T> T claimed(String id, SignedIn person, Supplier<T> keep) {
        Work work = work(id, person);
        if (!work.claimed.compareAndSet(false, true))
            throw new RefusedException(HttpStatus.CONFLICT, work.sent.words() + " is being kept already.");
        boolean kept = false;
        try {
            if (!stored.use(id, instances.own()))
                throw new RefusedException(
                        HttpStatus.CONFLICT, work.sent.words() + " is held by another server now. Look at it again.");
            T result = keep.get();
            kept = true;
            waiting.invalidate(id);
            return result;
        } finally {
            if (!kept) work.claimed.set(false);
        }
    }

    private static void delete(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException left) {
            LOG.warn("{} could not be deleted", file, left);
        }
    }
}
