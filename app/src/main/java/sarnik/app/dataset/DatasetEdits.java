package sarnik.app.dataset;

import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.uses.Uses;
import sarnik.app.web.RefusedException;
import sarnik.data.About;
import sarnik.data.Calculations;
import tools.jackson.databind.json.JsonMapper;

/** Changes what is said of datasets and worked out over them, keeps them as they are now, and takes them away. */
@Service
public class DatasetEdits {

    private final DatasetService loads;
    private final DatasetRepository datasets;
    private final Descriptions descriptions;
    private final Versions versions;
    private final PlacingService decisions;
    private final Uses uses;
    private final Rights rights;
    private final JsonMapper mapper;
    private final TransactionTemplate transaction;

    DatasetEdits(
            DatasetService loads,
            DatasetRepository datasets,
            Descriptions descriptions,
            Versions versions,
            PlacingService decisions,
            Uses uses,
            Rights rights,
            JsonMapper mapper,
            TransactionTemplate transaction) {
        this.loads = loads;
        this.datasets = datasets;
        this.descriptions = descriptions;
        this.versions = versions;
        this.decisions = decisions;
        this.uses = uses;
        this.rights = rights;
        this.mapper = mapper;
        this.transaction = transaction;
    }

    /**
     * Sets what is calculated over a dataset.
     *
     * @return the revision after it
     * @throws RefusedException when a formula or rule does not work; the message says which and why
     */
    long calculate(long id, long revision, Calculations calculations, SignedIn person) {
        descriptions.check(id, May.COMPOSE, person);
        Calculations.Applied tried = tryOut(id, calculations);
        // What only lacks a value in some rows is kept; it is said on the dataset's page.
        tried.troubles().stream().filter(t -> !t.some()).findFirst().ifPresent(t -> {
            throw new RefusedException("“" + t.of() + "” cannot be kept: " + t.words());
        });
        return descriptions.change(id, revision, person, d -> d.calculate(mapper.writeValueAsString(calculations)));
    }

    /** What would come of calculations over the rows that a dataset serves. */
    Calculations.Applied tryOut(long id, Calculations calculations) {
        Loaded loaded = loads.needed(id);
        return calculations.apply(
                loaded.placed() == null ? loaded.own() : loaded.placed().table(),
                loads.scope(loaded.own(), loaded.placed()),
                loads.surroundings(loaded.placed()));
    }

    /** Sets what is told of a dataset. @return the revision after it */
    long describe(long id, long revision, About about, SignedIn person) {
        return descriptions.change(id, revision, person, d -> d.describe(mapper.writeValueAsString(about)));
    }

    /** Gives a dataset another name. @return the revision after it */
    long rename(long id, long revision, String name, SignedIn person) {
        if (name == null || name.isBlank() || name.length() > 120)
            throw new RefusedException("A dataset's name has 1 to 120 characters.");
        return descriptions.change(id, revision, person, d -> d.rename(name.strip()));
    }

    /** A dataset as it is now, to be kept so; the datasets that it is placed by come with it. */
    public List<FrozenDataset> frozen(long id) {
        List<FrozenDataset> frozen = new ArrayList<>();
        freeze(id, frozen);
        return frozen;
    }

    private void freeze(long id, List<FrozenDataset> frozen) {
        if (frozen.stream().anyMatch(f -> f.dataset() == id)) return;
        Description now = descriptions.needed(id);
        frozen.add(new FrozenDataset(
                id,
                now.served().version(),
                now.served().number(),
                now.name(),
                now.placing(),
                now.about(),
                now.ties(),
                now.calculations(),
                now.decided(),
                decisions.frozen(id)));
        if (now.placing() != null)
            now.placing().ties().forEach(tie -> {
                if (descriptions.find(tie.dataset()).isPresent()) freeze(tie.dataset(), frozen);
            });
    }

    /**
     * Takes a dataset away, with all its versions.
     *
     * @throws RefusedException when something depends on it; the message names it
     */
    void remove(long id, SignedIn person) {
        if (descriptions.needed(id).isLive())
            throw new RefusedException("Its rows come from a feed. Take the feed away, and this goes with it.");
        removeLive(id, person);
    }

    /** The same of a dataset that a feed is shown as, which goes with the feed. */
    public void removeLive(long id, SignedIn person) {
        transaction.executeWithoutResult(t -> {
            // In the order in which a refresh takes them, so that two never wait for each other.
            versions.held(id);
            Dataset dataset = descriptions.held(id, person);
            uses.refuseWhereUsed("The dataset", uses.ofDataset(id));
            versions.removeAll(id);
            rights.forget(Thing.DATASET, id);
            datasets.delete(dataset);
        });
    }
}
