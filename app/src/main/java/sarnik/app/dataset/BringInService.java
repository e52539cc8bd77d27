package sarnik.app.dataset;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;
import sarnik.app.SarnikProperties;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.PlacingGuess;
import sarnik.table.CodedColumn;
import sarnik.table.ColumnType;
import sarnik.table.CsvReading;
import sarnik.table.CsvTableReader;
import sarnik.table.Table;

/** Takes files in: reads them, guesses types and placing, and keeps what the person has looked over. */
@Service
class BringInService {

    private static final Duration WAIT = Duration.ofHours(2);
    private static final int MOST_WAITING = 20;

    private final DatasetService datasets;
    private final Path directory;
    private final Cache<String, BringIn> waiting;

    BringInService(DatasetService datasets, SarnikProperties properties) {
        this.datasets = datasets;
        this.directory = properties.workDirectory();
        this.waiting = Caffeine.newBuilder()
                .expireAfterAccess(WAIT)
                .maximumSize(MOST_WAITING)
                .removalListener((String id, BringIn gone, RemovalCause cause) -> {
                    if (cause != RemovalCause.REPLACED && gone != null) delete(gone.file());
                })
                .build();
    }

    /**
     * Takes a file.
     *
     * @param refreshes the dataset whose newer rows it holds, whose types then hold for the columns of the same name; null
     *     for a new dataset
     * @throws sarnik.table.UnreadableTableException when it holds no table
     */
    BringIn take(MultipartFile upload, Long refreshes, SignedIn person) {
        Map<String, ColumnType> types = refreshes == null ? Map.of() : datasets.types(refreshes);
        String id = UUID.randomUUID().toString();
        try {
            Files.createDirectories(directory);
            Path file = directory.resolve(id);
            upload.transferTo(file);
            try {
                String name = Optional.ofNullable(upload.getOriginalFilename()).filter(n -> !n.isBlank()).orElse("table.csv");
                String lastPart = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
                CsvReading reading = new CsvTableReader().read(file, types);
                Placing placing = refreshes == null ? guess(reading.table()) : datasets.needed(refreshes).dataset().placing();
                BringIn bringIn = new BringIn(id, person.id(), file, lastPart, reading, types, placing, Clock.systemUTC().instant(), refreshes);
                waiting.put(id, bringIn);
                return bringIn;
            } catch (RuntimeException | IOException refused) {
                delete(file);
                throw refused;
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /**
     * The waiting file of this id.
     *
     * @throws RefusedException when it is another's or waits no more
     */
    BringIn get(String id, SignedIn person) {
        return Optional.ofNullable(waiting.getIfPresent(id)).filter(b -> b.person() == person.id())
                .orElseThrow(() -> new RefusedException(org.springframework.http.HttpStatus.NOT_FOUND,
                        "This file waits no more: it has been kept already, or two hours have gone by. Choose it again."));
    }

    /** Reads the file again with some types set by hand. */
    BringIn retype(String id, Map<String, ColumnType> types, SignedIn person) {
        BringIn bringIn = get(id, person);
        try {
            CsvReading reading = new CsvTableReader().read(bringIn.file(), types);
            BringIn again = bringIn.reread(reading, types, guess(reading.table()));
            waiting.put(id, again);
            return again;
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** How the rows might be placed: by coordinates or names, else by a code that a placed dataset has too; null when nothing fits. */
    private Placing guess(Table table) {
        return new PlacingGuess(Gazetteer.shipped()).guess(table).or(() -> tie(table)).orElse(null);
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

    /** Keeps the file as a dataset and lets it wait no more. */
    long keep(BringIn bringIn, String name, Placing placing, SignedIn person) {
        String title = name == null || name.isBlank() ? bringIn.name() : name.strip();
        if (title.length() > 120) throw new RefusedException("The name is longer than 120 characters. Choose a shorter one.");
        if (placing != null) place(bringIn, placing);
        long id = datasets.keep(title, bringIn.reading().table(), placing, bringIn.reading().troubles().total(), bringIn.fileName(), person);
        waiting.invalidate(bringIn.id());
        return id;
    }

    /** Lets a dataset serve the file's rows as its next version. */
    void serve(BringIn bringIn, SignedIn person) {
        if (bringIn.refreshes() == null) throw new RefusedException("This file is not brought in for a dataset. Keep it as a new one.");
        datasets.refresh(bringIn.refreshes(), bringIn.reading().table(), bringIn.reading().troubles().total(), bringIn.fileName(), person);
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
