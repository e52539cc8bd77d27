package sarnik.app.dataset;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.web.RefusedException;
import sarnik.app.work.Progress;
import sarnik.data.About;
import sarnik.data.Tie;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.table.ColumnType;
import sarnik.table.Reading;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableDiff;
import sarnik.table.TableParts;
import tools.jackson.databind.json.JsonMapper;

/** Keeps rows: as new datasets, as newer versions of those there are, and says which version is served. */
@Service
public class RowKeeper {

    private final DatasetRepository stored;
    private final DatasetService datasets;
    private final Descriptions descriptions;
    private final Versions versions;
    private final JsonMapper mapper;
    private final TransactionTemplate transaction;
    private final NewDatasets made;
    private final HeldRows held;

    RowKeeper(
            DatasetRepository stored,
            DatasetService datasets,
            Descriptions descriptions,
            Versions versions,
            JsonMapper mapper,
            TransactionTemplate transaction,
            NewDatasets made,
            HeldRows held) {
        this.held = held;
        this.stored = stored;
        this.datasets = datasets;
        this.descriptions = descriptions;
        this.versions = versions;
        this.mapper = mapper;
        this.transaction = transaction;
        this.made = made;
    }

    /**
     * Keeps rows as a new dataset: they, its description and its first version, in one transaction.
     *
     * @param placing null when the rows have no place
     * @param intake how its files are read from now on
     * @param about what is known of its columns
     * @return the dataset's id
     */
    long keep(
            String name,
            TableParts rows,
            Placing placing,
            Intake intake,
            About about,
            long troubles,
            String fileName,
            SignedIn person,
            Progress progress) {
        progress.next("Placing the rows");
        PlacedTable placed = placing == null ? null : datasets.place(rows.sample(), placing, progress);
        progress.next("Keeping the rows");
        long id = made.keep(
                new NewDatasets.Begun(name, placing, intake, about),
                dataset -> {},
                kept -> placeable(
                        versions.write(kept, rows, new Versions.From(troubles, fileName, person.id()), progress::at),
                        placing),
                person);
        // Where the rows are at hand and placed, they need not be read back.
        if (rows.areHeld()) descriptions.find(id).ifPresent(d -> datasets.hold(d, rows.sample(), placed));
        return id;
    }

    private DatasetVersion placeable(DatasetVersion version, Placing placing) {
        versions.checkPlaceable(version, placing);
        return version;
    }

    /**
     * Keeps a dataset whose rows come by themselves.
     *
     * @param empty a table without rows, whose columns it has
     * @param placing null when the rows have no place
     * @param ties its columns that mean the same as columns of others
     * @return the dataset's id
     */
    public long keepLive(
            String name, Table empty, Placing placing, Live live, About about, List<Tie> ties, SignedIn person) {
        return made.keep(
                new NewDatasets.Begun(name, placing, Intake.NONE, about),
                dataset -> {
                    if (!ties.isEmpty()) dataset.tie(mapper.writeValueAsString(ties));
                    dataset.showLive(mapper.writeValueAsString(live));
                },
                kept -> versions.write(kept, empty, new Versions.From(0, "", person.id())),
                person);
    }

    /** Says anew which columns a dataset has whose rows come by themselves, and where they lie. */
    public void reshapeLive(long id, Table empty, Placing placing, About about, SignedIn person) {
        transaction.executeWithoutResult(t -> {
            ServedVersion served = versions.held(id);
            Dataset dataset = stored.findWithLockById(id).orElseThrow(() -> RefusedException.gone("dataset"));
            dataset.place(placing == null ? null : mapper.writeValueAsString(placing));
            if (dataset.getAbout() == null && !about.isEmpty()) dataset.describe(mapper.writeValueAsString(about));
            dataset.changed(person.id());
            served.serve(versions.write(id, empty, new Versions.From(0, "", person.id()))
                    .getId());
            versions.forgetOld(id, served.getVersionId());
        });
    }

    /** Checks that the rows of a dataset are held here, so that others can take their place. */
    static void checkHeld(Description said) {
        checkNotLive(said);
        if (said.isStaying())
            throw new RefusedException(
                    "The rows of “%s” stay in their database; no others can take their place.".formatted(said.name()));
    }

    private static void checkNotLive(Description said) {
        if (said.isLive())
            throw new RefusedException(
                    "The rows of “%s” come by themselves, from its feed; no others can take their place."
                            .formatted(said.name()));
    }

    /** How a dataset's files are read: as it was kept, with the types of its columns. */
    public Intake intake(long id) {
        Description now = descriptions.needed(id);
        Map<String, ColumnType> types = new HashMap<>();
        now.served().columns().forEach(c -> types.put(c.name(), c.type()));
        return new Intake(now.intake().choices(), now.intake().shaping().withTypesOf(types));
    }

    /** Reads files as those of a dataset are read, as much of them as can be held. */
    Reading read(long id, List<Path> files, List<String> names, Progress progress) throws IOException {
        TableFiles opened = TableFiles.open(files, names, intake(id));
        return opened.read(progress::at, held.whileRead(opened.columns()));
    }

    /**
     * Newer rows of a dataset.
     *
     * @param append whether they are put below those that are served now, but for those that are there already
     * @param against the version that they were compared with, which they may take the place of; null for the one that
     *     is
     *     served as this begins
     * @param shaping what a person has said of the file's rows and of what its columns are called here; kept, so that it
     *     holds at every refresh
     * @param units units beside the numbers of its columns; kept, so that another one is seen at every refresh
     */
    record Newer(
            TableParts rows,
            boolean append,
            Long against,
            long troubles,
            String fileName,
            Shaping shaping,
            Map<String, List<String>> units) {}

    /**
     * Newer rows beside those that are served.
     *
     * @param against the version they were compared with
     * @param before how many rows it has
     * @param below how many of the newer rows are not there yet
     * @param rules the dataset's standing rules that work now, and would not with the newer rows in their place
     */
    record Beside(long against, long before, long below, TableDiff diff, List<String> rules) {}

    /** Compares newer rows with those that are served; in the database, where there are too many of either to be held. */
    Beside compare(long id, TableParts newer, Progress progress) {
        Description said = descriptions.needed(id);
        long against = said.served().version();
        if (areHeld(said, newer)) {
            Table before = datasets.rowsOf(id, progress);
            return new Beside(
                    against,
                    before.rows(),
                    TableDiff.rowsNotIn(before, newer.sample()).length,
                    TableDiff.of(before, newer.sample()),
                    rulesAmiss(said, newer, progress));
        }
        RowsBeside.Compared compared =
                transaction.execute(t -> versions.compare(versions.find(against), newer, progress::at));
        return new Beside(
                against, said.served().rows(), compared.below(), compared.diff(), rulesAmiss(said, newer, progress));
    }

    private List<String> rulesAmiss(Description said, TableParts newer, Progress progress) {
        if (said.calculations().rules().isEmpty()) return List.of();
        PlacedTable placed = datasets.needed(said.id(), progress).placed();
        List<String> before = said.calculations().rulesAmiss(datasets.scope(said.id()));
        return said.calculations().rulesAmiss(datasets.scope(newer.sample(), placed)).stream()
                .filter(rule -> !before.contains(rule))
                .toList();
    }

    /** Whether newer rows and those that are served can be looked at in memory. */
    private boolean areHeld(Description said, TableParts newer) {
        return newer.areHeld() && datasets.isHeld(said);
    }

    /**
     * Writes newer rows as a dataset's next version and serves it. Until the last moment, and when it fails, the
     * version
     * before is served. Rows that are put below others are joined with what is served when their turn comes; rows that
     * take
     * the place of others give way to those that came in meanwhile.
     *
     * @return the version's number
     * @throws RefusedException when the rows cannot be placed as the dataset says, or cannot be put below the others;
     *     with 409
     *     when other rows came in since they were compared
     */
    int refresh(long id, Newer newer, SignedIn person, Progress progress) {
        descriptions.check(id, May.COMPOSE, person);
        return refresh(id, newer, person.id(), progress);
    }

    /** The same on the word of somebody who has set it going before. */
    int refresh(long id, Newer newer, long person, Progress progress) {
        Description said = descriptions.needed(id);
        checkHeld(said);
        long before = newer.against() != null ? newer.against() : said.served().version();
        boolean held = areHeld(said, newer.rows());
        if (said.placing() != null) {
            progress.next("Placing the rows");
            Table rows = newer.rows().sample();
            datasets.placeNewer(
                    id, newer.append() && held ? below(datasets.rowsOf(id, progress), rows) : rows, progress);
        }
        progress.next("Keeping the rows");
        return transaction.execute(t -> {
            ServedVersion served = versions.held(id);
            if (!newer.append()) versions.checkStill(served, before);
            DatasetVersion version = placeable(written(id, served, newer, held, person, progress), said.placing());
            served.serve(version.getId());
            versions.forgetOld(id, version.getId());
            keepTold(id, newer, person);
            // The last moment at which it can be stopped: what was written is taken back with the transaction.
            progress.at(0, 0);
            return version.getNumber();
        });
    }

    private DatasetVersion written(
            long id, ServedVersion served, Newer newer, boolean held, long person, Progress progress) {
        Versions.From from = new Versions.From(newer.troubles(), newer.fileName(), person);
        if (!newer.append()) return versions.write(id, newer.rows(), from, progress::at);
        if (held)
            return versions.write(
                    id, below(versions.rows(served.getVersionId()), newer.rows().sample()), from);
        try {
            return versions.writeBelow(id, versions.find(served.getVersionId()), newer.rows(), from, progress::at);
        } catch (IllegalArgumentException unfit) {
            throw notBelow(unfit);
        }
    }

    /** What a person has said of newer rows holds from now on, and so do the units that their numbers have. */
    private void keepTold(long id, Newer newer, long person) {
        Dataset dataset = stored.findWithLockById(id).orElseThrow(() -> RefusedException.gone("dataset"));
        Intake kept = dataset.getIntake() == null ? Intake.NONE : mapper.readValue(dataset.getIntake(), Intake.class);
        Shaping told = kept.shaping().withRowsOf(newer.shaping()).withUnits(newer.units());
        if (told.equals(kept.shaping())) return;
        dataset.takeIn(mapper.writeValueAsString(new Intake(kept.choices(), told)));
        if (dataset.getAbout() != null) {
            Map<String, String> units = new HashMap<>(told.units());
            units.values().removeIf(Reading.OFFSET::equals);
            dataset.describe(mapper.writeValueAsString(mapper.readValue(dataset.getAbout(), About.class)
                    .withUnits(kept.shaping().units(), units)));
        }
        dataset.changed(person);
    }

    private static Table below(Table above, Table newer) {
        try {
            return above.followedBy(newer.pick(TableDiff.rowsNotIn(above, newer)));
        } catch (IllegalArgumentException unfit) {
            throw notBelow(unfit);
        }
    }

    private static RefusedException notBelow(IllegalArgumentException unfit) {
        return new RefusedException(
                unfit.getMessage() + ". Let the new rows take the place of the old ones, or mend the file.");
    }

    /** Serves another version of a dataset. */
    void serve(long id, int number, SignedIn person) {
        checkHeld(descriptions.needed(id));
        transaction.executeWithoutResult(t -> {
            ServedVersion served = versions.held(id);
            descriptions.held(id, person);
            served.serve(versions.find(id, number)
                    .orElseThrow(() -> RefusedException.gone("version"))
                    .getId());
        });
    }
}
