package sarnik.app.dataset;

import static sarnik.language.Language.phrase;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.BooleanSupplier;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.database.DatabaseRows;
import sarnik.app.database.Elsewhere;
import sarnik.app.database.StayingTables;
import sarnik.app.people.Groups;
import sarnik.app.people.SignedIn;
import sarnik.app.people.Viewer;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.web.DayWords;
import sarnik.app.web.RefusedException;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.ViewerRule;
import sarnik.formula.FormulaException;
import sarnik.formula.PostgresDialect;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.place.Decisions;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.Watch;
import sarnik.query.QueryException;
import sarnik.sql.Face;
import sarnik.sql.FaceMaker;
import sarnik.sql.SourceColumn;
import sarnik.sql.StayingRows;
import sarnik.table.Table;

/**
 * Keeps datasets and hands them out ready to be asked. A version is loaded on first use by the {@link VersionStore},
 * shared by
 * all readers, and given up when the memory set aside is full.
 */
@Service
public class DatasetService implements Datasets {

    /** How long a request waits for rows that are on their way before it says so. */
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    /** How often work that waits for rows looks whether it is to stop. */
    private static final Duration STEP = Duration.ofSeconds(1);

    /** What a face takes in memory, about. */
    private static final long FACE_BYTES = 16L << 20;

    private final Descriptions descriptions;
    private final Versions versions;
    private final VersionStore store;
    private final PlacingService decisions;
    private final BoundarySets boundaries;
    private final RowPlacer placer;
    private final TransactionTemplate transaction;
    private final Rights rights;
    private final Groups groups;
    private final LiveRows live;
    private final StayingTables tables;
    private final DatabaseRows databases;
    private final HeldRows held;

    /** All rows of all datasets as they are now, for what nobody looks at. */
    private final SeenDatasets whole = new SeenDatasets(this, Viewer.PROGRAM, Map.of(), List.of());

    /** A dataset as lists show it. */
    public record Listed(long id, String name, long rows, int columns, boolean placed, Instant at) {

        /** When it was brought in, in words. */
        public String day() {
            return DayWords.of(at);
        }
    }

    DatasetService(
            Descriptions descriptions,
            Versions versions,
            VersionStore store,
            PlacingService decisions,
            BoundarySets boundaries,
            RowPlacer placer,
            TransactionTemplate transaction,
            Rights rights,
            Groups groups,
            LiveRows live,
            StayingTables tables,
            DatabaseRows databases,
            HeldRows held) {
        this.held = held;
        this.live = live;
        this.tables = tables;
        this.databases = databases;
        this.descriptions = descriptions;
        this.versions = versions;
        this.store = store;
        this.decisions = decisions;
        this.boundaries = boundaries;
        this.placer = placer;
        this.transaction = transaction;
        this.rights = rights;
        this.groups = groups;
    }

    // --- finding ---------------------------------------------------------------------------------------

    @Override
    public Found find(long id) {
        return find(id, whole);
    }

    /** Datasets as somebody sees them, as they are now. */
    public SeenDatasets seenBy(Viewer viewer) {
        return seenBy(viewer, List.of(), List.of());
    }

    /**
     * Datasets as somebody sees them.
     *
     * @param frozen those that are seen as they were at one moment
     * @param bound which rows are seen at most
     */
    public SeenDatasets seenBy(Viewer viewer, List<FrozenDataset> frozen, List<SeenDatasets.Bound> bound) {
        Map<Long, FrozenDataset> byId = new HashMap<>();
        frozen.forEach(f -> byId.put(f.dataset(), f));
        return new SeenDatasets(this, viewer, byId, bound);
    }

    /** Whether a viewer sees all rows of a dataset: somebody who may change it does. */
    boolean seesAll(Viewer viewer, Description of) {
        return viewer.person() != null && rights.may(viewer.person(), of.owned(), May.COMPOSE);
    }

    Found find(long id, SeenDatasets seen) {
        Optional<Loaded> loaded;
        try {
            loaded = load(id, seen);
        } catch (RefusedException refused) {
            return new Found.Unfit(refused.getMessage());
        }
        if (loaded.isEmpty()) return Found.GONE;
        return loaded.get().unfit() == null
                ? new Found.Ready(loaded.get().dataset())
                : new Found.Unfit(loaded.get().unfit());
    }

    /** What is found of a dataset whose rows are on their way. */
    Found coming(long id, SeenDatasets seen) {
        return said(id, seen)
                .<Found>map(of -> new Found.Unfit(phrase(
                        "The rows of “{0}” are still being read and placed. They are shown as soon as they are there.",
                        of.name())))
                .orElse(Found.GONE);
    }

    /** What is said about a dataset, without its rows; empty when there is none of this id. */
    public Optional<Description> description(long id) {
        return descriptions.find(id);
    }

    /**
     * A dataset in memory; empty when there is none of this id.
     *
     * @throws RefusedException with 503 when its rows are still on their way, or memory is full
     */
    public Optional<Loaded> load(long id) {
        return load(id, whole);
    }

    /** A dataset as somebody sees it; see {@link #load(long)}. */
    Optional<Loaded> load(long id, SeenDatasets seen) {
        return load(id, seen, PATIENCE, () -> false);
    }

    /**
     * The same.
     *
     * @param patience after which it is asked whether to wait as long again
     */
    private Optional<Loaded> load(long id, SeenDatasets seen, Duration patience, BooleanSupplier waitsOn) {
        Optional<Description> now = said(id, seen);
        if (now.isEmpty()) return Optional.empty();
        CompletableFuture<Loaded> work = begin(now.get(), seen);
        while (true) {
            try {
                return Optional.of(
                        work.get(patience.toMillis(), TimeUnit.MILLISECONDS).described(now.get()));
            } catch (TimeoutException goesOn) {
                if (!waitsOn.getAsBoolean())
                    throw new RefusedException(
                            HttpStatus.SERVICE_UNAVAILABLE,
                            "The rows of “%s” are still being read and placed. Look again in a moment."
                                    .formatted(now.get().name()));
            } catch (ExecutionException failed) {
                // A version that was swapped while it was read is gone; what is served now is there.
                Optional<Description> later = descriptions.find(id);
                if (!seen.isFrozen(id)
                        && later.isPresent()
                        && later.get().served().version() != now.get().served().version())
                    return load(id, seen, patience, waitsOn);
                throw VersionStore.cause(failed);
            } catch (InterruptedException interrupted) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("Interrupted while a dataset was read", interrupted);
            }
        }
    }

    /**
     * A dataset for work that no request waits for: however long its rows are on their way.
     *
     * @param watch told now and then meanwhile; what it throws ends the waiting
     */
    private Optional<Loaded> load(long id, Watch watch) {
        return load(id, whole, STEP, () -> {
            watch.at(0, 0);
            return true;
        });
    }

    /** Begins to load datasets; what comes is done when all are in memory or cannot be. Waits for nothing. */
    public CompletableFuture<Void> prepare(Collection<Long> ids) {
        return prepare(ids, whole);
    }

    CompletableFuture<Void> prepare(Collection<Long> ids, SeenDatasets seen) {
        return CompletableFuture.allOf(ids.stream()
                .distinct()
                .flatMap(id -> said(id, seen).stream())
                .map(d -> begin(d, seen).handle((loaded, failed) -> null))
                .toArray(CompletableFuture[]::new));
    }

    /**
     * A dataset in memory where it is there soon; empty while its rows are on their way.
     *
     * @throws RefusedException when there is none
     */
    Optional<Loaded> loadedSoon(long id, Duration patience, SeenDatasets seen) {
        Description now = descriptions.needed(id);
        try {
            return Optional.of(begin(now, seen)
                    .get(patience.toMillis(), TimeUnit.MILLISECONDS)
                    .described(now));
        } catch (TimeoutException goesOn) {
            return Optional.empty();
        } catch (ExecutionException failed) {
            if (VersionStore.cause(failed) instanceof RefusedException) return Optional.empty();
            throw VersionStore.cause(failed);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("Interrupted while a dataset was read", interrupted);
        }
    }

    /** What is said about all datasets that somebody may read, newest first. */
    public List<Description> descriptions(SignedIn person) {
        Rights.Held held = rights.held(Thing.DATASET, person);
        return descriptions.all().stream()
                .map(Descriptions.Listed::description)
                .filter(d -> held.may(d.id(), d.owner(), May.READ))
                .toList();
    }

    /** What is said about a dataset, as somebody sees it. */
    Optional<Description> said(long id, SeenDatasets seen) {
        FrozenDataset then = seen.frozen(id);
        return then == null ? descriptions.find(id) : descriptions.as(then);
    }

    private CompletableFuture<Loaded> begin(Description now, SeenDatasets seen) {
        VersionStore.Key key = key(now, new HashSet<>(), seen);
        CompletableFuture<Loaded> all = begin(now, key, seen);
        List<ViewerRule> rules = seen.rules(now);
        if (rules.isEmpty()) return all;
        // Rows that are not seen are not there: what one viewer sees is a table of its own, shared by all who see
        // alike.
        Map<String, List<String>> known = seen.viewer().known();
        String only = rules.stream().map(r -> r.text() + " " + r.named(known)).collect(Collectors.joining("\n"));
        List<CompletableFuture<Loaded>> needed = new ArrayList<>(List.of(all));
        if (!isHeld(now)) needed.addAll(tied(key, seen));
        return store.get(
                key.only(only),
                isHeld(now) ? now.served().bytes() : FACE_BYTES,
                now.name(),
                needed,
                rows -> !isHeld(now)
                        ? seenOf(now, rows.get(0), rules, known, rows.subList(1, rows.size()))
                        : narrowed(now, rows.get(0), rules, known));
    }

    private List<CompletableFuture<Loaded>> tied(VersionStore.Key key, SeenDatasets seen) {
        return key.tied().stream()
                .flatMap(other -> said(other.dataset(), seen).map(d -> begin(d, other, seen)).stream())
                .toList();
    }

    private CompletableFuture<Loaded> begin(Description now, VersionStore.Key key, SeenDatasets seen) {
        List<CompletableFuture<Loaded>> tied = tied(key, seen);
        FrozenDataset then = seen.frozen(now.id());
        if (then != null) store.last(key);
        return store.get(
                key,
                isHeld(now) ? now.served().bytes() : FACE_BYTES,
                now.name(),
                tied,
                other -> loaded(
                        now,
                        rowsOrFace(now),
                        then == null ? decisions.of(now.id()) : PlacingService.of(then.decisions()),
                        other));
    }

    /** What the database is called in which the rows of a dataset stay; null where they are held here. */
    public String staysIn(Description of) {
        return of.isStaying() ? tables.database(of.stays().database()).getName() : null;
    }

    /** The rows of a dataset; where they are not held in memory, their face. */
    private Table rowsOrFace(Description now) {
        if (now.isLive()) return live.table(now.live());
        if (now.isStaying()) return face(now);
        if (!isHeld(now)) return faceOfVersion(now);
        return transaction.execute(t -> versions.rows(now.served().version()));
    }

    /** Whether the rows of a dataset are held in memory when it is asked. */
    boolean isHeld(Description of) {
        return of.isLive()
                || !of.isStaying()
                        && held.holds(of.served().bytes(), of.served().columns().size());
    }

    /**
     * All rows of the version that a dataset serves, to be compared or put together with others; read for it where they
     * are not held.
     *
     * @param watch told now and then while they are on their way
     */
    Table rowsOf(long id, Watch watch) {
        Description now = descriptions.needed(id);
        if (isHeld(now)) return needed(id, watch).own();
        return transaction.execute(t -> versions.rows(now.served().version()));
    }

    /** The face of a version whose rows are too many to be held: they are asked in the table in which they are kept. */
    private Table faceOfVersion(Description now) {
        List<SourceColumn> columns = new ArrayList<>();
        for (StoredColumn column : now.served().columns())
            columns.add(new SourceColumn(
                    column.name(),
                    "c" + columns.size(),
                    switch (column.type()) {
                        case TEXT -> SourceColumn.Held.TEXT;
                        case WHOLE -> SourceColumn.Held.WHOLE;
                        // Summed up with the digits that they are written with.
                        case DECIMAL -> SourceColumn.Held.SHORT_FLOAT;
                        case DATE -> SourceColumn.Held.DATE;
                        case TIME -> SourceColumn.Held.TIME;
                        case YES_NO -> SourceColumn.Held.YES_NO;
                    },
                    column.type()));
        // A version never changes, so an answer holds for as long as there is room for it.
        return FaceMaker.look(
                        tables.runner(StayingTables.OWN, Stays.LONGEST_KEEP),
                        PostgresDialect.INSTANCE,
                        "Sarnik’s own database",
                        RowStore.table(now.served().version()),
                        columns,
                        StayingKeeper.placed(now.placing()))
                .table();
    }

    /** The face of rows that stay elsewhere, with where they are. */
    private Table face(Description now) {
        Table table = transaction.execute(t -> versions.rows(now.served().version()));
        Face face = transaction.execute(
                t -> versions.face(versions.find(now.served().version())));
        Elsewhere database = tables.database(now.stays().database());
        return face.ordered(table.staying(new StayingRows(
                tables.runner(now.stays().database(), now.stays().keep()),
                database.getKind().dialect(),
                database.getName(),
                databases.relation(now.stays().at()),
                now.stays().columns(),
                face)));
    }

    /**
     * Of rows that stay elsewhere those that a viewer sees: their words are looked up anew, since others are not there.
     */
    private Loaded seenOf(
            Description now, Loaded all, List<ViewerRule> rules, Map<String, List<String>> known, List<Loaded> tied) {
        Table table = all.own();
        StayingRows rows = StayingRows.of(table).orElseThrow();
        try {
            for (ViewerRule rule : rules)
                rows = rows.only(
                        rule.condition(scope(table, all.placed()), surroundings(all.placed()), known), rows.face());
            return loaded(now, FaceMaker.again(rows, table).table(), decisions.of(now.id()), tied);
        } catch (FormulaException | IllegalArgumentException unfit) {
            throw unseen(now);
        } catch (QueryException cannot) {
            throw new RefusedException(cannot.getMessage());
        }
    }

    /** Who may see what cannot be told: nothing is shown. */
    private static RefusedException unseen(Description now) {
        return new RefusedException(
                "Which rows of “%s” you may see cannot be told just now. Whoever looks after it has to mend its rule on rows."
                        .formatted(now.name()));
    }

    private Loaded narrowed(Description now, Loaded all, List<ViewerRule> rules, Map<String, List<String>> known) {
        Table table = all.dataset().table();
        BitSet seen = null;
        try {
            for (ViewerRule rule : rules) {
                BitSet rows = rule.rows(table, scope(table, all.placed()), surroundings(all.placed()), known);
                if (seen == null) seen = rows;
                else seen.and(rows);
            }
        } catch (FormulaException | IllegalArgumentException unfit) {
            throw unseen(now);
        }
        int[] picked = seen.stream().toArray();
        PlacedTable placed = all.placed() == null ? null : all.placed().pick(picked);
        return calculated(now, all.own().pick(picked), placed, all.unfit());
    }

    private VersionStore.Key key(Description now, Set<Long> onTheWay, SeenDatasets seen) {
        onTheWay.add(now.id());
        List<VersionStore.Key> tied = now.placing() == null
                ? List.of()
                : now.placing()
                        .ties()
                        .map(Placing.ByTie::dataset)
                        .distinct()
                        .filter(other -> !onTheWay.contains(other))
                        .flatMap(other -> said(other, seen).stream())
                        .map(other -> key(other, new HashSet<>(onTheWay), seen))
                        .toList();
        return new VersionStore.Key(
                now.id(),
                now.served().version(),
                now.placing(),
                now.decided(),
                now.calculations(),
                boundaries.changes(),
                now.dependsOnToday() ? today() : null,
                tied,
                now.stays(),
                now.isLive() ? live.tick(now.live()) : 0,
                "");
    }

    /** Holds rows that have just been kept in memory: they are at hand and placed, and need not be read back. */
    void hold(Description now, Table table, PlacedTable placed) {
        if (!isHeld(now)) return;
        store.put(key(now, new HashSet<>(), whole), calculated(now, table, placed, null));
    }

    private static LocalDate today() {
        return LocalDate.now(Clock.systemUTC());
    }

    private Loaded loaded(Description now, Table table, Decisions decided, List<Loaded> tied) {
        PlacedTable placed = null;
        String unfit = null;
        try {
            placed = now.placing() == null ? null : placer.place(table, now.placing(), decided, tied, Watch.NONE);
        } catch (RefusedException cannot) {
            unfit = "“%s” cannot be placed: %s".formatted(now.name(), cannot.getMessage());
        }
        return calculated(now, table, placed, unfit);
    }

    private Loaded calculated(Description now, Table table, PlacedTable placed, String unfit) {
        Calculations.Applied applied = now.calculations()
                .apply(placed == null ? table : placed.table(), scope(table, placed), surroundings(placed));
        LoadedDataset ready = new LoadedDataset(
                now.id(),
                now.name(),
                applied.table(),
                now.placing(),
                placed == null ? Map.of() : placed.places(),
                now.about(),
                applied.measures(),
                applied.rules(),
                now.ties(),
                boundaries::indexed);
        return new Loaded(ready, placed, table.names(), applied.troubles(), unfit);
    }

    /** A dataset that has to be there, whether it can be placed or not. */
    public Loaded needed(long id) {
        return load(id).orElseThrow(() -> RefusedException.gone("dataset"));
    }

    /** The same for work that no request waits for, which is told now and then while rows are on their way. */
    Loaded needed(long id, Watch watch) {
        return load(id, watch).orElseThrow(() -> RefusedException.gone("dataset"));
    }

    /** All datasets that somebody may read, newest first. */
    public List<Listed> all(SignedIn person) {
        Rights.Held held = rights.held(Thing.DATASET, person);
        return descriptions.all().stream()
                .filter(l -> held.may(l.description().id(), l.description().owner(), May.READ))
                .map(l -> {
                    Description d = l.description();
                    return new Listed(
                            d.id(),
                            d.name(),
                            d.served().rows(),
                            d.served().columns().size(),
                            d.isPlaced(),
                            l.at());
                })
                .toList();
    }

    @Override
    public Boundaries boundaries() {
        return boundaries::indexed;
    }

    /** The versions of a dataset, newest first. */
    @Transactional(readOnly = true)
    public List<DatasetVersion> versions(long id) {
        return versions.of(id);
    }

    // --- calculating -----------------------------------------------------------------------------------

    /** What formulas over a dataset may name. */
    Scope scope(long id) {
        Loaded loaded = needed(id);
        return scope(loaded.own(), loaded.placed());
    }

    Scope scope(Table table, PlacedTable placed) {
        return Scope.of(table)
                .withPlaces(
                        placed == null
                                ? Set.of()
                                : placed.origin() == null ? Set.of(Scope.PLACE) : Set.of(Scope.PLACE, "origin"),
                        boundaries.names());
    }

    Surroundings surroundings(PlacedTable placed) {
        Map<String, Surroundings.AreaAt> areas = new HashMap<>();
        boundaries.names().forEach(name -> areas.put(name, boundaries.at(name)));
        if (placed == null) return new Surroundings(Map.of(), Map.of(), areas, today());
        IntFunction<double[]> at = placed::position;
        if (placed.origin() == null) return new Surroundings(Map.of(), Map.of(Scope.PLACE, at), areas, today());
        return new Surroundings(Map.of(), Map.of(Scope.PLACE, at, "origin", placed.origin()::position), areas, today());
    }

    // --- placing ---------------------------------------------------------------------------------------

    /**
     * Places a table.
     *
     * @param watch told how far it has come
     * @throws RefusedException when the recipe does not fit the table, or its tie leads to nothing
     */
    public PlacedTable place(Table table, Placing placing, Watch watch) {
        // No dataset has this id: what holds for all of them is meant.
        return placer.place(table, placing, decisions.of(0), tied(placing, watch), watch);
    }

    /** Places newer rows of a dataset as they would be served: by its recipe, with what has been decided for it. */
    PlacedTable placeNewer(long id, Table table, Watch watch) {
        Placing placing = descriptions.needed(id).placing();
        return placer.place(table, placing, decisions.of(id), tied(placing, watch), watch);
    }

    private List<Loaded> tied(Placing placing, Watch watch) {
        return placing == null
                ? List.of()
                : placing.ties()
                        .map(Placing.ByTie::dataset)
                        .distinct()
                        .flatMap(other -> load(other, watch).stream())
                        .toList();
    }

    // --- seeing ----------------------------------------------------------------------------------------

    /**
     * Checks that this person may do something with a dataset.
     *
     * @throws RefusedException when there is none, or the person may not
     */
    public void check(long id, May what, SignedIn person) {
        descriptions.check(id, what, person);
    }

    /** Datasets as a person sees them, as they are now. */
    public SeenDatasets seenBy(SignedIn person) {
        return seenBy(groups.viewer(person));
    }

    /** A dataset that has to be there, as a person sees it. */
    Loaded needed(long id, SignedIn person) {
        return load(id, seenBy(person)).orElseThrow(() -> RefusedException.gone("dataset"));
    }
}
