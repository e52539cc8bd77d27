package sarnik.app.dataset;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
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
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;
import sarnik.app.SarnikProperties;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
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
import sarnik.table.Table;

/** Takes files in: reads them, guesses types and placing, and keeps what the person has looked over. */
@Service
class BringInService implements AutoCloseable {

    private static final Duration WAIT = Duration.ofHours(2);
    private static final int MOST_WAITING = 20;
    private static final int READERS = 2;

    private final DatasetService datasets;
    private final BoundarySets boundaries;
    private final Path directory;
    private final Cache<String, Work> waiting;
    private final ExecutorService readers = Executors.newFixedThreadPool(READERS);

    BringInService(DatasetService datasets, BoundarySets boundaries, SarnikProperties properties) {
        this.datasets = datasets;
        this.boundaries = boundaries;
        this.directory = properties.workDirectory();
        this.waiting = Caffeine.newBuilder()
                .expireAfterAccess(WAIT)
                .maximumSize(MOST_WAITING)
                .removalListener((String id, Work gone, RemovalCause cause) -> {
                    if (cause != RemovalCause.REPLACED && gone != null) gone.files().forEach(BringInService::delete);
                })
                .build();
    }

    @Override
    public void close() {
        readers.shutdownNow();
    }

    /**
     * Files that are being read or have been.
     *
     * @param rows how many rows have been gone through, in this pass
     * @param all how many rows there are; 0 as long as that is not known
     * @param before what holds again when this reading fails or is stopped; null for the first reading
     */
    private record Work(long person, List<Path> files, Future<BringIn> done, AtomicLong rows, AtomicLong all, AtomicBoolean stopped, Work before) {}

    /**
     * How far the reading has come.
     *
     * @param bringIn what came of it; null as long as it goes on
     */
    record State(String id, BringIn bringIn, long rows, long all) {}

    /**
     * Takes files and begins to read them.
     *
     * @param refreshes the dataset whose newer rows they hold, whose way of reading then holds too; null for a new dataset
     * @return the id under which they wait
     */
    String take(List<MultipartFile> uploads, Long refreshes, SignedIn person) {
        if (uploads.isEmpty()) throw new RefusedException("Choose a file.");
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
        } catch (IOException | RuntimeException failed) {
            files.forEach(BringInService::delete);
            if (failed instanceof IOException io) throw new UncheckedIOException(io);
            throw (RuntimeException) failed;
        }
        begin(id, files, names, intake, refreshes, person.id(), null);
        return id;
    }

    private void begin(String id, List<Path> files, List<String> names, Intake intake, Long refreshes, long person, Work before) {
        AtomicLong rows = new AtomicLong();
        AtomicLong all = new AtomicLong();
        AtomicBoolean stopped = new AtomicBoolean();
        Future<BringIn> done = readers.submit(() -> {
            TableFiles read = TableFiles.read(files, names, intake, (row, of) -> {
                if (stopped.get()) throw new CancellationException();
                rows.set(row);
                all.set(of);
            });
            Placing placing = refreshes == null ? guess(read.reading().table()) : datasets.needed(refreshes).dataset().placing();
            return new BringIn(id, person, files, names, intake, read.reading(), read.first().kind(), read.first().sheets(), read.first().areas(), placing, refreshes);
        });
        waiting.put(id, new Work(person, files, done, rows, all, stopped, before));
    }

    /**
     * How far the reading of waiting files has come, after a while at most.
     *
     * @throws sarnik.table.UnreadableTableException when they hold no table
     */
    State state(String id, SignedIn person, Duration patience) {
        Work work = work(id, person);
        try {
            return new State(id, work.done.get(patience.toMillis(), TimeUnit.MILLISECONDS), work.rows.get(), work.all.get());
        } catch (TimeoutException goesOn) {
            return new State(id, null, work.rows.get(), work.all.get());
        } catch (CancellationException stopped) {
            throw goneFile();
        } catch (ExecutionException failed) {
            giveUp(id, work);
            if (failed.getCause() instanceof CancellationException) throw goneFile();
            if (failed.getCause() instanceof RuntimeException refused) throw refused;
            throw new UncheckedIOException(failed.getCause() instanceof IOException io ? io : new IOException(failed.getCause()));
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("Interrupted while a file was read", interrupted);
        }
    }

    /** Stops reading. Files that had been read before wait on as they were, others are forgotten. */
    void stop(String id, SignedIn person) {
        Work work = work(id, person);
        work.stopped.set(true);
        giveUp(id, work);
    }

    private void giveUp(String id, Work work) {
        if (work.before == null) waiting.invalidate(id);
        else waiting.put(id, work.before);
    }

    /**
     * The waiting files of this id, once they are read.
     *
     * @throws RefusedException when they are another's or wait no more
     */
    BringIn get(String id, SignedIn person) {
        return state(id, person, WAIT).bringIn();
    }

    private Work work(String id, SignedIn person) {
        return Optional.ofNullable(waiting.getIfPresent(id)).filter(w -> w.person() == person.id()).orElseThrow(BringInService::goneFile);
    }

    private static RefusedException goneFile() {
        return new RefusedException(HttpStatus.NOT_FOUND, "This file waits no more: it has been kept already, or two hours have gone by. Choose it again.");
    }

    /**
     * Reads the files again in another way. Where that does not work they still wait as they were.
     *
     * @throws sarnik.table.UnreadableTableException when no table comes of it
     */
    State reshape(String id, Intake intake, SignedIn person, Duration patience) {
        BringIn before = get(id, person);
        begin(id, before.files(), before.fileNames(), intake, before.refreshes(), person.id(), work(id, person));
        return state(id, person, patience);
    }

    /** How the rows might be placed: by codes of areas, coordinates or names, else by a code that a placed dataset has too; null when nothing fits. */
    private Placing guess(Table table) {
        PlacingGuess guess = new PlacingGuess(Gazetteer.shipped());
        return guess.codes(table, boundaries.likely()).or(() -> guess.guess(table)).or(() -> tie(table)).orElse(null);
    }

    private Optional<Placing> tie(Table table) {
        Placing best = null;
        double bestShare = 0.8;
        for (DatasetService.Listed listed : datasets.all()) {
            if (!listed.placed()) continue;
            Table other = datasets.needed(listed.id()).dataset().table();
            for (String theirs : other.names()) {
                if (theirs.startsWith("@") || !(other.column(theirs) instanceof CodedColumn keys) || keys.dictionary().size() < other.rows()) continue;
                Set<String> known = new HashSet<>(keys.dictionary());
                for (String mine : table.names()) {
                    double share = share(table, mine, known);
                    if (share > bestShare) {
                        bestShare = share;
                        best = new Placing.ByTie(mine, listed.id(), theirs);
                    }
                }
            }
        }
        return Optional.ofNullable(best);
    }

    private static double share(Table table, String column, Set<String> known) {
        if (!(table.column(column) instanceof CodedColumn coded) || coded.type() != ColumnType.TEXT || coded.dictionary().isEmpty()) return 0;
        return (double) coded.dictionary().stream().filter(known::contains).count() / coded.dictionary().size();
    }

    PlacedTable place(BringIn bringIn, Placing placing) {
        return datasets.place(bringIn.reading().table(), placing);
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

    /** Keeps the file as a dataset and lets it wait no more. */
    long keep(BringIn bringIn, String name, Placing placing, SignedIn person) {
        String title = name == null || name.isBlank() ? bringIn.name() : name.strip();
        if (title.length() > 120) throw new RefusedException("The name is longer than 120 characters. Choose a shorter one.");
        if (placing != null) place(bringIn, placing);
        long id = datasets.keep(title, bringIn.reading().table(), placing, new Intake(bringIn.intake().choices(), bringIn.intake().shaping().withTypesOf(bringIn.reading().table())),
                bringIn.reading().troubles().total(), bringIn.fileName(), person);
        waiting.invalidate(bringIn.id());
        return id;
    }

    /**
     * Lets a dataset serve the files' rows as its next version.
     *
     * @param append whether they are put below those that are served now
     */
    void serve(BringIn bringIn, boolean append, SignedIn person) {
        if (bringIn.refreshes() == null) throw new RefusedException("This file is not brought in for a dataset. Keep it as a new one.");
        datasets.refresh(bringIn.refreshes(), bringIn.reading().table(), append, bringIn.reading().troubles().total(), bringIn.fileName(), person.id());
        waiting.invalidate(bringIn.id());
    }

    private static void delete(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException left) {
            throw new UncheckedIOException(left);
        }
    }

    /** Values of a few columns, row by row, for looking at. */
    static List<List<String>> firstRows(Table table, int most) {
        List<String> names = table.names().stream().filter(n -> !n.startsWith("@")).toList();
        List<List<String>> rows = new ArrayList<>();
        for (int row = 0; row < Math.min(most, table.rows()); row++) {
            List<String> cells = new ArrayList<>();
            for (String name : names) {
                String text = table.column(name).text(row);
                cells.add(text == null ? "" : text);
            }
            rows.add(cells);
        }
        return rows;
    }
}
