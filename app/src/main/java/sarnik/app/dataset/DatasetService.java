package sarnik.app.dataset;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.SarnikProperties;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.people.SignedIn;
import sarnik.app.web.DayWords;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.About;
import sarnik.dashboard.Calculations;
import sarnik.dashboard.Datasets;
import sarnik.dashboard.LoadedDataset;
import sarnik.dashboard.MisfitException;
import sarnik.dashboard.Tie;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.place.Decisions;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.TablePlacer;
import sarnik.table.Column;
import sarnik.table.Table;
import sarnik.table.TableDiff;
import sarnik.table.ValueMatch;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Keeps datasets and hands them out ready to be asked. A version is loaded on first use, shared by all readers, and
 * given up when the memory set aside is full.
 */
@Service
public class DatasetService implements Datasets {

    private static final TypeReference<List<Tie>> TIES = new TypeReference<>() {};

    private static final int MOST_DESCRIBED = 2000;

    private final DatasetRepository datasets;
    private final Versions versions;
    private final PlacingService decisions;
    private final BoundarySets boundaries;
    private final JsonMapper mapper;
    private final TransactionTemplate transaction;
    private final Cache<Long, Loaded> loaded;

    /** Descriptions of datasets; whoever changes one forgets it here. */
    private final Cache<Long, Dataset> described = Caffeine.newBuilder().maximumSize(MOST_DESCRIBED).build();

    /**
     * A version in memory, with all that was found when it was placed.
     *
     * @param placed null where rows have no place
     * @param columns names of the columns that were brought in; the table has those of placing and formulas besides
     * @param troubles what does not work of the dataset's formulas and rules
     */
    public record Loaded(LoadedDataset dataset, PlacedTable placed, List<String> columns, List<Calculations.Trouble> troubles) {}

    /** A dataset as lists show it. */
    public record Listed(long id, String name, long rows, int columns, boolean placed, Instant at) {

        /** When it was brought in, in words. */
        public String day() {
            return DayWords.of(at);
        }
    }

    DatasetService(DatasetRepository datasets, Versions versions, PlacingService decisions, BoundarySets boundaries, JsonMapper mapper,
            TransactionTemplate transaction, SarnikProperties properties) {
        this.datasets = datasets;
        this.versions = versions;
        this.decisions = decisions;
        this.boundaries = boundaries;
        this.mapper = mapper;
        this.transaction = transaction;
        long budget = (long) (Runtime.getRuntime().maxMemory() * properties.memoryShare());
        // Weighed in kilobytes: a weight is an int.
        this.loaded = Caffeine.newBuilder()
                .maximumWeight(budget / 1024)
                .weigher((Long version, Loaded l) -> (int) Math.min(Integer.MAX_VALUE, l.dataset().table().bytes() / 1024 + 1))
                .build();
    }

    @Override
    public Optional<LoadedDataset> find(long id) {
        return load(id).map(Loaded::dataset);
    }

    /** A dataset in memory; empty when there is none of this id. */
    public Optional<Loaded> load(long id) {
        // Read in a transaction of its own: frames are computed on threads that have none.
        Dataset dataset = described.get(id, d -> transaction.execute(t -> datasets.findById(d).orElse(null)));
        if (dataset == null || dataset.getVersionId() == null) return Optional.empty();
        return Optional.of(loaded.get(dataset.getVersionId(), version -> read(dataset, version)));
    }

    private Loaded read(Dataset dataset, long versionId) {
        return loaded(dataset, transaction.execute(t -> versions.rows(versionId)));
    }

    private Loaded loaded(Dataset dataset, Table table) {
        Placing placing = dataset.getPlacing() == null ? null : mapper.readValue(dataset.getPlacing(), Placing.class);
        About about = dataset.getAbout() == null ? About.NONE : mapper.readValue(dataset.getAbout(), About.class);
        PlacedTable placed = placing == null ? null : place(table, placing, decisions.of(dataset.getId()));
        Calculations.Applied applied = calculations(dataset).apply(placed == null ? table : placed.table(), scope(table, placed), surroundings(placed));
        LoadedDataset ready = new LoadedDataset(dataset.getId(), dataset.getName(), applied.table(), placing, placed == null ? Map.of() : placed.places(), about,
                applied.measures(), applied.rules(), dataset.getTies() == null ? List.of() : mapper.readValue(dataset.getTies(), TIES), boundaries::indexed);
        return new Loaded(ready, placed, table.names(), applied.troubles());
    }

    private Calculations calculations(Dataset dataset) {
        return dataset.getCalculations() == null ? Calculations.NONE : mapper.readValue(dataset.getCalculations(), Calculations.class);
    }

    /** What is calculated over a dataset, as it was kept. */
    @Transactional(readOnly = true)
    public Calculations calculations(long id) {
        return calculations(datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset")));
    }

    /**
     * Sets what is calculated over a dataset.
     *
     * @throws RefusedException when a formula or rule does not work; the message says which and why
     */
    void calculate(long id, Calculations calculations) {
        Calculations.Applied tried = tryOut(id, calculations);
        // What only lacks a value in some rows is kept; it is said on the dataset's page.
        tried.troubles().stream().filter(t -> !t.words().contains("no value:")).findFirst().ifPresent(t -> {
            throw new RefusedException("“" + t.of() + "” cannot be kept: " + t.words());
        });
        transaction.executeWithoutResult(t -> datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset")).calculate(mapper.writeValueAsString(calculations)));
        placeAgain(id);
    }

    /** What would come of calculations over the rows that a dataset serves. */
    Calculations.Applied tryOut(long id, Calculations calculations) {
        Loaded loaded = needed(id);
        return calculations.apply(own(loaded), scope(own(loaded), loaded.placed()), surroundings(loaded.placed()));
    }

    /** What formulas over a dataset may name. */
    Scope scope(long id) {
        Loaded loaded = needed(id);
        return scope(own(loaded), loaded.placed());
    }

    private Scope scope(Table table, PlacedTable placed) {
        return Scope.of(table).withPlaces(placed == null ? Set.of() : placed.origin() == null ? Set.of(Scope.PLACE) : Set.of(Scope.PLACE, "origin"), boundaries.names());
    }

    private Surroundings surroundings(PlacedTable placed) {
        LocalDate today = LocalDate.now(Clock.systemUTC());
        Map<String, Surroundings.AreaAt> areas = new HashMap<>();
        boundaries.names().forEach(name -> areas.put(name, boundaries.at(name)));
        if (placed == null) return new Surroundings(Map.of(), Map.of(), areas, today);
        IntFunction<double[]> at = placed::position;
        if (placed.origin() == null) return new Surroundings(Map.of(), Map.of(Scope.PLACE, at), areas, today);
        return new Surroundings(Map.of(), Map.of(Scope.PLACE, at, "origin", placed.origin()::position), areas, today);
    }

    /**
     * Places a table.
     *
     * @throws RefusedException when the recipe does not fit the table, or its tie leads to nothing
     */
    public PlacedTable place(Table table, Placing placing) {
        // No dataset has this id: what holds for all of them is meant.
        return place(table, placing, decisions.of(0));
    }

    /** Places newer rows of a dataset as they would be served: by its recipe, with what has been decided for it. */
    PlacedTable placeNewer(long id, Table table) {
        return place(table, needed(id).dataset().placing(), decisions.of(id));
    }

    private PlacedTable place(Table table, Placing placing, Decisions decided) {
        TablePlacer placer = new TablePlacer(Gazetteer.shipped(), decided, boundaries.land());
        try {
            if (placing instanceof Placing.ByArea area) {
                return placer.byArea(table, area.column(), boundaries.find(area.set()).orElseThrow(() -> new RefusedException("The boundary set “" + area.set() + "” has gone.")));
            }
            if (!(placing instanceof Placing.ByTie tie)) return placer.by(table, placing);
            Loaded other = load(tie.dataset()).filter(l -> l.placed() != null)
                    .orElseThrow(() -> new RefusedException("The dataset that this one is tied to has gone, or is not placed itself."));
            return placer.byTie(table, tie.column(), other.placed(), tie.equals());
        } catch (IllegalArgumentException unfit) {
            throw new RefusedException(unfit.getMessage() + ". Choose the columns that tell where a row is.");
        }
    }

    /**
     * Keeps a table as a new dataset: its rows, its description and its first version, in one transaction.
     *
     * @param placing null when the rows have no place
     * @param intake how its files are read from now on
     * @return the dataset's id
     */
    long keep(String name, Table table, Placing placing, Intake intake, long troubles, String fileName, SignedIn person) {
        Dataset dataset = transaction.execute(t -> {
            Dataset made = datasets.save(new Dataset(name, placing == null ? null : mapper.writeValueAsString(placing), mapper.writeValueAsString(intake), person.id(), Clock.systemUTC().instant()));
            made.serve(versions.write(made.getId(), table, troubles, fileName, person.id()).getId());
            return made;
        });
        // The rows are at hand: they need not be read back.
        loaded.put(dataset.getVersionId(), loaded(dataset, table));
        return dataset.getId();
    }

    /** How a dataset's files are read: as it was kept, with the types of its columns. */
    @Transactional(readOnly = true)
    public Intake intake(long id) {
        Dataset dataset = datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset"));
        Intake kept = dataset.getIntake() == null ? Intake.NONE : mapper.readValue(dataset.getIntake(), Intake.class);
        return new Intake(kept.choices(), kept.shaping().withTypesOf(own(needed(id))));
    }

    /** The columns that were brought in, without those that placing and formulas add. */
    static Table own(Loaded loaded) {
        return loaded.dataset().table().only(loaded.columns());
    }

    /**
     * Writes newer rows as a dataset's next version and serves it. Until the last moment, and when it fails, the version
     * before is served.
     *
     * @param append whether the rows are put below those that are served now, but for those that are there already
     * @return the version's number
     * @throws RefusedException when the rows cannot be placed as the dataset says, or cannot be put below the others
     */
    int refresh(long id, Table newer, boolean append, long troubles, String fileName, long person) {
        Loaded now = needed(id);
        Table table = append ? below(own(now), newer) : newer;
        Placing placing = now.dataset().placing();
        if (placing != null) place(table, placing);
        Integer number = transaction.execute(t -> {
            Dataset dataset = datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset"));
            DatasetVersion version = versions.write(id, table, troubles, fileName, person);
            dataset.serve(version.getId());
            versions.forgetOld(id, version.getId());
            return version.getNumber();
        });
        forget(id);
        return number;
    }

    private static Table below(Table above, Table newer) {
        try {
            return above.followedBy(newer.pick(TableDiff.rowsNotIn(above, newer)));
        } catch (IllegalArgumentException unfit) {
            throw new RefusedException(unfit.getMessage() + ". Let the new rows take the place of the old ones, or mend the file.");
        }
    }

    /**
     * How many rows find a partner through a tie, on each side.
     *
     * @throws RefusedException when one of the columns is not there
     */
    ValueMatch match(long id, Tie tie) {
        if (tie.dataset() == id) throw new RefusedException("A tie leads to another dataset.");
        return ValueMatch.of(column(needed(id), tie.column()), column(needed(tie.dataset()), tie.equals()));
    }

    private static Column column(Loaded loaded, String name) {
        return loaded.dataset().table().find(name == null ? "" : name).orElseThrow(() -> new RefusedException("“%s” has no column “%s”.".formatted(loaded.dataset().name(), name)));
    }

    /** Sets what columns of a dataset mean the same as columns of others. */
    void tie(long id, List<Tie> ties) {
        ties.forEach(tie -> match(id, tie));
        transaction.executeWithoutResult(t -> datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset")).tie(mapper.writeValueAsString(ties)));
        placeAgain(id);
    }

    /** What is told of a dataset. */
    void describe(long id, About about) {
        transaction.executeWithoutResult(t -> datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset")).describe(mapper.writeValueAsString(about)));
        placeAgain(id);
    }

    /** The dashboards that show a dataset. */
    @Transactional(readOnly = true)
    public List<DatasetRepository.Use> usesOf(long id) {
        return datasets.usesOf(id);
    }

    /** Names of the datasets that are placed by a tie to this one. */
    @Transactional(readOnly = true)
    public List<String> tiedTo(long id) {
        return datasets.tiedTo(id);
    }

    /**
     * Takes a dataset away, with all its versions.
     *
     * @throws RefusedException when something depends on it; the message names it
     */
    void remove(long id) {
        needed(id);
        List<String> users = new ArrayList<>(usesOf(id).stream().map(u -> "the dashboard “" + u.getTitle() + "”").toList());
        tiedTo(id).forEach(name -> users.add("the placing of “" + name + "”"));
        if (!users.isEmpty()) throw new RefusedException(HttpStatus.CONFLICT, "The dataset is needed by " + String.join(", ", users) + ". Take that away first, or let it use another dataset.");
        transaction.executeWithoutResult(t -> {
            Dataset dataset = datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset"));
            dataset.serve(null);
            datasets.saveAndFlush(dataset);
            versions.removeAll(id);
            datasets.delete(dataset);
        });
        placeAgain(id);
    }

    /** Gives a dataset another name. */
    void rename(long id, String name) {
        if (name == null || name.isBlank() || name.length() > 120) throw new RefusedException("A dataset's name has 1 to 120 characters.");
        transaction.executeWithoutResult(t -> datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset")).rename(name.strip()));
        placeAgain(id);
    }

    /** Serves another version of a dataset. */
    void serve(long id, int number) {
        transaction.executeWithoutResult(t -> {
            DatasetVersion version = versions.find(id, number).orElseThrow(() -> RefusedException.gone("version"));
            datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset")).serve(version.getId());
        });
        forget(id);
    }

    /** Places a dataset's rows anew at their next use, because something was decided. */
    void placeAgain(long id) {
        loaded.asMap().values().removeIf(l -> l.dataset().id() == id);
        forget(id);
    }

    /** Places the rows of all datasets anew at their next use. */
    void placeAllAgain() {
        loaded.invalidateAll();
    }

    /** Forgets what is held of a dataset, and of those that are placed by a tie to it. */
    private void forget(long id) {
        described.invalidate(id);
        loaded.asMap().values().removeIf(l -> l.dataset().placing() instanceof Placing.ByTie tie && tie.dataset() == id);
    }

    /** The versions of a dataset, newest first. */
    @Transactional(readOnly = true)
    public List<DatasetVersion> versions(long id) {
        return versions.of(id);
    }

    /** All datasets, newest first. */
    @Transactional(readOnly = true)
    public List<Listed> all() {
        return datasets.findAllByOrderByCreatedAtDesc().stream().map(this::listed).toList();
    }

    private Listed listed(Dataset dataset) {
        DatasetVersion version = versions.find(dataset.getVersionId());
        return new Listed(dataset.getId(), dataset.getName(), version.getRowCount(), versions.columns(version).size(),
                dataset.getPlacing() != null, dataset.getCreatedAt());
    }

    /** The version that a dataset serves. */
    @Transactional(readOnly = true)
    public Optional<DatasetVersion> version(long id) {
        return datasets.findById(id).map(d -> versions.find(d.getVersionId()));
    }

    /** A dataset that has to be there. */
    public Loaded needed(long id) {
        try {
            return load(id).orElseThrow(() -> RefusedException.gone("dataset"));
        } catch (MisfitException unfit) {
            throw new RefusedException(unfit.getMessage());
        }
    }
}
