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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;
import sarnik.app.MemoryBudget;
import sarnik.app.SarnikProperties;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.work.Progress;
import sarnik.format.BoundaryFiles;
import sarnik.format.FeatureSource;
import sarnik.format.TableFile;
import sarnik.geo.Area;
import sarnik.geo.BoundaryCheck;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.PlacingGuess;
import sarnik.table.CodedColumn;
import sarnik.table.ColumnType;
import sarnik.table.Reading;
import sarnik.table.Table;
import sarnik.table.TableDiff;

/** Takes files in: reads them, guesses types and placing, and keeps what the person has looked over. */
@Service
class BringInService implements AutoCloseable {

    /** Characters of a cell on a page; shapes as text have many more. */
    private static final int LONGEST_SHOWN = 400;

    private static final Logger LOG = LoggerFactory.getLogger(BringInService.class);
    private static final Duration WAIT = Duration.ofHours(2);
    private static final int READERS = 2;

    /** How long a request waits for a reading to end before it is told that it goes on. */
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    /** A table takes about so many times the bytes of its file while it is read; what it takes then is known. */
    private static final double BYTES_A_BYTE = 1.5;

    private static final double TIED = 0.8;
    private static final int LOOKED_UP = 200;

    private final Object taking = new Object();
    private final DatasetService datasets;
    private final BoundarySets boundaries;
    private final MemoryBudget memory;
    private final Path directory;
    private final int mostWaiting;
    private final Cache<String, Work> waiting;
    private final ExecutorService readers = Executors.newFixedThreadPool(READERS);

    BringInService(DatasetService datasets, BoundarySets boundaries, MemoryBudget memory, SarnikProperties properties) {
        this.datasets = datasets;
        this.boundaries = boundaries;
        this.memory = memory;
        this.directory = properties.workDirectory();
        this.mostWaiting = properties.mostWaiting();
        this.waiting = Caffeine.newBuilder()
                .expireAfterAccess(WAIT)
                .scheduler(Scheduler.systemScheduler())
                .removalListener((String id, Work gone, RemovalCause cause) -> {
                    if (cause != RemovalCause.REPLACED && gone != null) gone.leave();
                })
                .build();
        sweep();
    }

    /** What an earlier run has left behind can be asked for no more. */
    private void sweep() {
        if (!Files.isDirectory(directory)) return;
        try (Stream<Path> left = Files.list(directory)) {
            left.filter(Files::isRegularFile).forEach(BringInService::delete);
        } catch (IOException failed) {
            LOG.warn("The files that an earlier run has left in {} could not be swept away", directory, failed);
        }
    }

    @Override
    public void close() {
        readers.shutdownNow();
    }

    /**
     * Files that are being read or have been.
     *
     * @param share the memory that their table takes
     * @param claimed set by whoever keeps or serves them: only one may
     * @param before what holds again when this reading fails or is stopped; null for the first reading
     */
    private record Work(long person, List<Path> files, List<String> names, Future<BringIn> done, Progress progress, MemoryBudget.Share share, AtomicBoolean claimed, Work before) {

        void leave() {
            progress.stop();
            share.close();
            if (before != null) before.share.close();
            files.forEach(BringInService::delete);
        }
    }

    /**
     * How far the reading has come.
     *
     * @param bringIn what came of it; null as long as it goes on
     * @param words what is being done
     */
    record State(String id, BringIn bringIn, String words, long rows, long all) {}

    /** Files of a person that wait. */
    record Waiting(String id, String names, boolean read) {}

    /** What waits of a person. */
    List<Waiting> waiting(SignedIn person) {
        return waiting.asMap().entrySet().stream().filter(e -> e.getValue().person == person.id())
                .map(e -> new Waiting(e.getKey(), String.join(", ", e.getValue().names), e.getValue().done.isDone())).toList();
    }

    /**
     * Takes files and begins to read them.
     *
     * @param refreshes the dataset whose newer rows they hold, whose way of reading then holds too; null for a new dataset
     * @return the id under which they wait
     * @throws RefusedException when as many of this person's wait as may, or memory is full
     */
    String take(List<MultipartFile> uploads, Long refreshes, SignedIn person) {
        if (uploads.isEmpty()) throw new RefusedException("Choose a file.");
        checkRoom(person);
        Intake intake = refreshes == null ? Intake.NONE : datasets.intake(refreshes);
        String id = UUID.randomUUID().toString();
        List<Path> files = new ArrayList<>();
        List<String> names = new ArrayList<>();
        try {
            Files.createDirectories(directory);
            for (MultipartFile upload : uploads) {
                Path file = directory.resolve(id + "-" + files.size());
                files.add(file);
                upload.transferTo(file);
                String name = Optional.ofNullable(upload.getOriginalFilename()).filter(n -> !n.isBlank()).orElse("table.csv");
                names.add(name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1));
            }
            // Looked at again where it is taken: several may have been sent at once.
            synchronized (taking) {
                checkRoom(person);
                begin(id, files, names, intake, refreshes, person.id(), null);
            }
        } catch (IOException | RuntimeException failed) {
            files.forEach(BringInService::delete);
            if (failed instanceof IOException io) throw new UncheckedIOException(io);
            throw (RuntimeException) failed;
        }
        return id;
    }

    private void checkRoom(SignedIn person) {
        if (waiting(person).size() >= mostWaiting) {
            throw new RefusedException(HttpStatus.TOO_MANY_REQUESTS, "%d files of yours wait to be looked over, which is as many as may. Go on with one of them, or let one go, on the page “Bring a table in”.".formatted(mostWaiting));
        }
    }

    private void begin(String id, List<Path> files, List<String> names, Intake intake, Long refreshes, long person, Work before) throws IOException {
        long bytes = 0;
        for (Path file : files) bytes += Files.size(file);
        String what = "“" + names.get(0) + "”";
        MemoryBudget.Share share = memory.reserve((long) (bytes * BYTES_A_BYTE), what);
        Progress progress = new Progress("Reading");
        Future<BringIn> done = readers.submit(() -> {
            TableFiles read = TableFiles.read(files, names, intake, progress::at);
            share.become(read.reading().table().bytes(), what);
            progress.next("Finding places");
            Placing placing = refreshes == null ? guess(read.reading(), read.first().areas()) : datasets.description(refreshes).map(Description::placing).orElse(null);
            Comparison comparison = refreshes == null ? null : compare(refreshes, read.reading().table(), progress);
            return new BringIn(id, person, files, names, intake, read.reading(), read.first().kind(), read.first().sheets(), read.first().areas(), read.first().features().flatMap(FeatureSource::asks).orElse(null), placing, refreshes, comparison);
        });
        waiting.put(id, new Work(person, files, names, done, progress, share, new AtomicBoolean(), before));
    }

    private Comparison compare(long dataset, Table newer, Progress progress) {
        long against = datasets.description(dataset).orElseThrow(() -> RefusedException.gone("dataset")).served().version();
        Loaded now = datasets.needed(dataset);
        Table before = now.own();
        progress.next("Comparing");
        TableDiff diff = TableDiff.of(before, newer);
        int below = TableDiff.rowsNotIn(before, newer).length;
        progress.next("Placing");
        try {
            PlacingPreview placing = now.dataset().placing() == null ? null : PlacingPreview.of(datasets.placeNewer(dataset, newer, progress));
            return new Comparison(against, before.rows(), below, diff, placing, null);
        } catch (RefusedException unfit) {
            return new Comparison(against, before.rows(), below, diff, null, unfit.getMessage());
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
                waiting.asMap().replace(id, work, new Work(work.person, work.files, work.names, work.done, work.progress, work.share, work.claimed, null));
            }
            return new State(id, read, work.progress.words(), work.progress.done(), work.progress.all());
        } catch (TimeoutException goesOn) {
            return new State(id, null, work.progress.words(), work.progress.done(), work.progress.all());
        } catch (CancellationException stopped) {
            giveUp(id, work);
            throw stopped(work);
        } catch (ExecutionException failed) {
            giveUp(id, work);
            if (failed.getCause() instanceof CancellationException) throw stopped(work);
            if (failed.getCause() instanceof RuntimeException refused) throw refused;
            throw new UncheckedIOException(failed.getCause() instanceof IOException io ? io : new IOException(failed.getCause()));
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("Interrupted while a file was read", interrupted);
        }
    }

    private static RefusedException stopped(Work work) {
        return new RefusedException(HttpStatus.CONFLICT, work.before == null ? "Stopped. Nothing was kept of “%s”; choose it again when you want it.".formatted(work.names.get(0)) : "Stopped. “%s” stands as it was read before.".formatted(work.names.get(0)));
    }

    /** Stops a reading that goes on, which whoever waits for it is told; files that are read are let go. */
    void stop(String id, SignedIn person) {
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
        if (read == null) throw new RefusedException(HttpStatus.SERVICE_UNAVAILABLE, "This file is still being read. Look again in a moment.");
        return read;
    }

    private Work work(String id, SignedIn person) {
        return Optional.ofNullable(waiting.getIfPresent(id)).filter(w -> w.person() == person.id()).orElseThrow(BringInService::goneFile);
    }

    private static RefusedException goneFile() {
        return new RefusedException(HttpStatus.NOT_FOUND, "This file waits no more: it has been kept already, was let go, or two hours have gone by. Choose it again.");
    }

    /**
     * Reads the files again in another way. Where that does not work they still wait as they were.
     *
     * @throws sarnik.table.UnreadableTableException when no table comes of it
     */
    State reshape(String id, Intake intake, SignedIn person, Duration patience) {
        BringIn before = get(id, person);
        try {
            begin(id, before.files(), before.fileNames(), intake, before.refreshes(), person.id(), work(id, person));
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
        return state(id, person, patience);
    }

    /**
     * How the rows might be placed: by the file's own shapes, codes of areas, coordinates or names, else by a code that a placed
     * dataset has too; null when nothing fits. Where the shapes are areas, codes of areas that are known come before them.
     */
    private Placing guess(Reading reading, boolean areas) {
        Table table = reading.table();
        PlacingGuess guess = new PlacingGuess(Gazetteer.shipped());
        Optional<Placing> own = guess.ownShapes(reading);
        if (own.isPresent() && !areas) return own.get();
        return guess.codes(table, boundaries.likely()).or(() -> own).or(() -> guess.guess(table)).or(() -> tie(table)).orElse(null);
    }

    /** A tie that most values of a column fit. Looked up in the database, so that no other table has to be loaded. */
    private Optional<Placing> tie(Table table) {
        Map<String, List<String>> samples = new LinkedHashMap<>();
        for (String name : table.names()) {
            if (!(table.column(name) instanceof CodedColumn coded) || coded.type() != ColumnType.TEXT || coded.dictionary().isEmpty()) continue;
            List<String> words = coded.dictionary();
            int step = Math.max(1, words.size() / LOOKED_UP);
            samples.put(name, IntStream.iterate(0, i -> i < words.size(), i -> i + step).mapToObj(words::get).toList());
        }
        if (samples.isEmpty()) return Optional.empty();
        Set<String> all = samples.values().stream().flatMap(List::stream).collect(Collectors.toSet());
        Placing best = null;
        double bestShare = TIED;
        for (DatasetService.KeyColumn key : datasets.keys()) {
            Set<String> known = datasets.occurring(key, all);
            for (var sample : samples.entrySet()) {
                double share = (double) sample.getValue().stream().filter(known::contains).count() / sample.getValue().size();
                if (share > bestShare) {
                    bestShare = share;
                    best = new Placing.ByTie(sample.getKey(), key.dataset().id(), key.column());
                }
            }
        }
        return Optional.ofNullable(best);
    }

    PlacedTable place(BringIn bringIn, Placing placing, Progress progress) {
        if (placing == null) throw new RefusedException("Say how the rows are placed.");
        return datasets.place(bringIn.reading().table(), placing, progress);
    }

    /**
     * The areas of waiting files, checked and mended.
     *
     * @param code column of codes
     * @param name column of names; null for none
     * @param parent column of the codes of wider areas; null for none
     */
    BoundaryCheck areas(BringIn bringIn, String code, String name, String parent) {
        if (code == null || code.isBlank()) throw new RefusedException("Choose the column that holds the codes of the areas.");
        if (bringIn.asks() != null) throw new RefusedException(bringIn.asks());
        List<Area> areas = new ArrayList<>();
        try {
            for (Path file : bringIn.files()) {
                FeatureSource features = TableFile.open(file, bringIn.intake().choices()).features().orElseThrow(() -> new RefusedException("The file holds no shapes."));
                areas.addAll(BoundaryFiles.areas(features, code, name, parent));
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
        return BoundaryCheck.of(areas);
    }

    /** Keeps the file as a dataset and lets it wait no more. Of several at once only one keeps it. */
    long keep(BringIn bringIn, String name, Placing placing, SignedIn person, Progress progress) {
        String title = name == null || name.isBlank() ? bringIn.name() : name.strip();
        if (title.length() > 120) throw new RefusedException("The name is longer than 120 characters. Choose a shorter one.");
        return claimed(bringIn, person, () -> datasets.keep(title, bringIn.reading().table(), placing,
                new Intake(bringIn.intake().choices(), bringIn.intake().shaping().withTypesOf(bringIn.reading().table())), bringIn.reading().troubles().total(), bringIn.fileName(), person, progress));
    }

    /**
     * Lets a dataset serve the files' rows as its next version.
     *
     * @param append whether they are put below those that are served now
     */
    void serve(BringIn bringIn, boolean append, SignedIn person, Progress progress) {
        if (bringIn.refreshes() == null) throw new RefusedException("This file is not brought in for a dataset. Keep it as a new one.");
        DatasetService.Newer newer = new DatasetService.Newer(bringIn.reading().table(), append, bringIn.comparison().against(), bringIn.reading().troubles().total(), bringIn.fileName(), bringIn.intake().shaping().names());
        claimed(bringIn, person, () -> datasets.refresh(bringIn.refreshes(), newer, person, progress));
    }

    private <T> T claimed(BringIn bringIn, SignedIn person, Supplier<T> keep) {
        Work work = work(bringIn.id(), person);
        if (!work.claimed.compareAndSet(false, true)) throw new RefusedException(HttpStatus.CONFLICT, "“%s” is being kept already.".formatted(bringIn.fileName()));
        boolean kept = false;
        try {
            T result = keep.get();
            kept = true;
            waiting.invalidate(bringIn.id());
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

    /** Values of a few rows for looking at, long ones cut short. */
    static List<List<String>> firstRows(Table table, int most) {
        List<String> names = table.names().stream().filter(n -> !n.startsWith("@")).toList();
        List<List<String>> rows = new ArrayList<>();
        for (int row = 0; row < Math.min(most, table.rows()); row++) {
            List<String> cells = new ArrayList<>();
            for (String name : names) {
                String text = table.column(name).text(row);
                cells.add(text == null ? "" : text.length() > LONGEST_SHOWN ? text.substring(0, LONGEST_SHOWN) + "…" : text);
            }
            rows.add(cells);
        }
        return rows;
    }
}
