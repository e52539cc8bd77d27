package sarnik.app.dataset;

import java.time.Clock;
import java.util.function.Consumer;
import java.util.function.LongFunction;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.rights.Who;
import sarnik.data.About;
import sarnik.place.Placing;
import tools.jackson.databind.json.JsonMapper;

/** Keeps what is new: a dataset's description, who may read it and its first version, in one transaction. */
@Component
class NewDatasets {

    private final DatasetRepository stored;
    private final Versions versions;
    private final Rights rights;
    private final JsonMapper mapper;
    private final TransactionTemplate transaction;

    NewDatasets(
            DatasetRepository stored,
            Versions versions,
            Rights rights,
            JsonMapper mapper,
            TransactionTemplate transaction) {
        this.stored = stored;
        this.versions = versions;
        this.rights = rights;
        this.mapper = mapper;
        this.transaction = transaction;
    }

    /**
     * What every new dataset has.
     *
     * @param placing null when its rows have no place
     * @param intake how its files are read from now on
     * @param about what is known of its columns
     */
    record Begun(String name, Placing placing, Intake intake, About about) {}

    /**
     * Keeps a new dataset; all analysts may read it.
     *
     * @param further says what else is kept of it
     * @param first writes its first version, given the dataset's id
     * @return the dataset's id
     */
    long keep(Begun begun, Consumer<Dataset> further, LongFunction<DatasetVersion> first, SignedIn person) {
        return transaction.execute(t -> {
            Dataset made = new Dataset(
                    begun.name(),
                    begun.placing() == null ? null : mapper.writeValueAsString(begun.placing()),
                    mapper.writeValueAsString(begun.intake()),
                    person.id(),
                    Clock.systemUTC().instant());
            if (!begun.about().isEmpty()) made.describe(mapper.writeValueAsString(begun.about()));
            further.accept(made);
            stored.saveAndFlush(made);
            rights.give(Thing.DATASET, made.getId(), Who.ANALYSTS, May.READ);
            versions.serveFirst(made.getId(), first.apply(made.getId()).getId());
            return made.getId();
        });
    }
}
