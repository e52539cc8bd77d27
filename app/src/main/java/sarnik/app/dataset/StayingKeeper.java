package sarnik.app.dataset;

import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.database.DatabaseRows;
import sarnik.app.database.Elsewhere;
import sarnik.app.database.StayingTables;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.work.Progress;
import sarnik.data.About;
import sarnik.place.Placing;
import sarnik.query.QueryException;
import sarnik.sql.FaceMaker;
import sarnik.sql.SqlRunner;
import tools.jackson.databind.json.JsonMapper;

/**
 * Keeps datasets whose rows stay in a database elsewhere: where they are, and their face, which is written as a version
 * as rows are.
 */
@Service
class StayingKeeper {

    private final DatasetRepository stored;
    private final DatasetService datasets;
    private final Descriptions descriptions;
    private final Versions versions;
    private final StayingTables tables;
    private final DatabaseRows rows;
    private final JsonMapper mapper;
    private final TransactionTemplate transaction;
    private final NewDatasets made;

    StayingKeeper(
            DatasetRepository stored,
            DatasetService datasets,
            Descriptions descriptions,
            Versions versions,
            StayingTables tables,
            DatabaseRows rows,
            JsonMapper mapper,
            TransactionTemplate transaction,
            NewDatasets made) {
        this.stored = stored;
        this.datasets = datasets;
        this.descriptions = descriptions;
        this.versions = versions;
        this.tables = tables;
        this.rows = rows;
        this.mapper = mapper;
        this.transaction = transaction;
        this.made = made;
    }

    /**
     * Keeps a dataset whose rows stay.
     *
     * @param placing null when the rows have no place
     * @param about what is known of its columns
     * @return the dataset's id
     * @throws RefusedException when the rows cannot be asked, or cannot be placed so; the message says why
     */
    long keep(String name, Stays stays, Placing placing, About about, SignedIn person, Progress progress) {
        progress.next("Looking at the rows");
        FaceMaker.Made face = look(stays, placing);
        Stays known = new Stays(stays.database(), stays.of(), face.columns(), stays.keep());
        progress.next("Placing the rows");
        if (placing != null) datasets.place(face.table(), placing, progress);
        progress.next("Keeping what is known of them");
        return made.keep(
                new NewDatasets.Begun(name, placing, Intake.NONE, about),
                dataset -> dataset.stay(mapper.writeValueAsString(known)),
                kept -> versions.write(kept, face, known.of(), person.id()),
                person);
    }

    /**
     * Looks at the rows again: at their number, their words, and where those are.
     *
     * @return the number of the version that is served from now on
     * @throws RefusedException when they cannot be asked; the message says why
     */
    int lookAgain(long id, long person, Progress progress) {
        Description said = descriptions.needed(id);
        progress.next("Looking at the rows");
        FaceMaker.Made face = look(said.stays(), said.placing());
        progress.next("Placing the rows");
        if (said.placing() != null) datasets.placeNewer(id, face.table(), progress);
        return transaction.execute(t -> {
            ServedVersion served = versions.held(id);
            Dataset dataset = stored.findWithLockById(id).orElseThrow(() -> RefusedException.gone("dataset"));
            Stays now = mapper.readValue(dataset.getStays(), Stays.class);
            dataset.stay(mapper.writeValueAsString(new Stays(now.database(), now.of(), face.columns(), now.keep())));
            dataset.changed(person);
            DatasetVersion version = versions.write(id, face, now.of(), person);
            served.serve(version.getId());
            versions.forgetOld(id, version.getId());
            return version.getNumber();
        });
    }

    /** What the database is called in which rows stay. */
    String where(Stays stays) {
        return tables.database(stays.database()).getName();
    }

    /** The columns that say where rows are: those of a destination before those of an origin. */
    static List<List<String>> placed(Placing placing) {
        if (placing == null) return List.of();
        return placing instanceof Placing.FromTo both
                ? List.of(both.to().columns(), both.from().columns())
                : List.of(placing.columns());
    }

    private FaceMaker.Made look(Stays stays, Placing placing) {
        Elsewhere database = tables.database(stays.database());
        // Nothing that is kept is looked at: it is as old as people wait for newer.
        SqlRunner runner = tables.runner(stays.database(), 0);
        try {
            return FaceMaker.look(
                    runner,
                    database.getKind().dialect(),
                    database.getName(),
                    rows.relation(stays.at()),
                    stays.columns(),
                    placed(placing));
        } catch (QueryException cannot) {
            throw new RefusedException(cannot.getMessage());
        }
    }

    /**
     * Says for how long an answer of the database holds.
     *
     * @return the revision after it
     */
    long keeping(long id, long revision, int seconds, SignedIn person) {
        if (seconds < 0 || seconds > Stays.LONGEST_KEEP)
            throw new RefusedException("An answer holds for 0 to %,d seconds.".formatted(Stays.LONGEST_KEEP));
        return descriptions.change(id, revision, person, d -> {
            if (d.getStays() == null) throw new RefusedException("The rows of this dataset are held here.");
            d.stay(mapper.writeValueAsString(
                    mapper.readValue(d.getStays(), Stays.class).keeping(seconds)));
        });
    }
}
