package sarnik.app.dataset;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.web.RefusedException;
import sarnik.data.About;
import sarnik.data.Calculations;
import sarnik.data.Tie;
import sarnik.place.Placing;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Reads and changes what is said about datasets, without their rows. A change names the revision it was made on. */
@Component
class Descriptions {

    private static final TypeReference<List<Tie>> TIES = new TypeReference<>() {};
    private static final int MOST_READ = 2000;

    private final DatasetRepository datasets;
    private final Versions versions;
    private final PeopleService people;
    private final Rights rights;
    private final JsonMapper mapper;
    private final TransactionTemplate transaction;
    private final LiveRows live;

    /** What is said, by revision, which never changes; the version that is served is looked up anew each time. */
    private final Cache<Revision, Said> read =
            Caffeine.newBuilder().maximumSize(MOST_READ).build();

    private record Revision(long id, long number) {}

    private record Said(
            String name,
            Placing placing,
            About about,
            List<Tie> ties,
            Calculations calculations,
            Feed feed,
            Live live,
            Stays stays,
            Intake intake,
            long owner,
            String viewerRule) {}

    Descriptions(
            DatasetRepository datasets,
            Versions versions,
            PeopleService people,
            Rights rights,
            JsonMapper mapper,
            TransactionTemplate transaction,
            LiveRows live) {
        this.live = live;
        this.datasets = datasets;
        this.versions = versions;
        this.people = people;
        this.rights = rights;
        this.mapper = mapper;
        this.transaction = transaction;
    }

    /** What is said about a dataset now; empty where there is none. */
    Optional<Description> find(long id) {
        // In a transaction of its own: frames are computed on threads that have none. Between its questions the
        // dataset may be taken away.
        return transaction.execute(t -> datasets.standing(id)
                .flatMap(now -> versions.findById(now.getVersionId()).map(version -> {
                    Said said = read.get(
                            new Revision(id, now.getRevision()),
                            r -> said(datasets.findById(id).orElseThrow(() -> RefusedException.gone("dataset"))));
                    return description(id, now.getRevision(), said, now.getDecided(), version);
                })));
    }

    /** A dataset that has to be there. */
    Description needed(long id) {
        return find(id).orElseThrow(() -> RefusedException.gone("dataset"));
    }

    /** A dataset with the moment it was brought in. */
    record Listed(Description description, Instant at) {}

    /** All datasets, newest first, in one question to the database. */
    List<Listed> all() {
        return transaction.execute(t -> datasets.allWithVersions().stream()
                .map(pair -> {
                    Dataset dataset = (Dataset) pair[0];
                    Said said = read.get(new Revision(dataset.getId(), dataset.getRevision()), r -> said(dataset));
                    return new Listed(
                            description(
                                    dataset.getId(), dataset.getRevision(), said, dataset.getDecided(), (DatasetVersion)
                                            pair[1]),
                            dataset.getCreatedAt());
                })
                .toList());
    }

    private Description description(long id, long revision, Said said, long decided, DatasetVersion version) {
        return new Description(
                id,
                revision,
                said.name,
                said.placing,
                said.about,
                said.ties,
                said.calculations,
                said.feed,
                said.live,
                said.stays,
                said.intake,
                decided,
                said.owner,
                said.viewerRule,
                said.live == null
                        ? versions.served(version)
                        : versions.served(version).of(live.rows(said.live)));
    }

    /** A dataset as it was at one moment; empty where it has gone, or that version of its rows has. */
    Optional<Description> as(FrozenDataset then) {
        return transaction.execute(t -> find(then.dataset())
                .flatMap(now -> versions.findById(then.version()).map(v -> now.as(then, versions.served(v)))));
    }

    private Said said(Dataset dataset) {
        return new Said(
                dataset.getName(),
                read(dataset.getPlacing(), Placing.class, null),
                read(dataset.getAbout(), About.class, About.NONE),
                dataset.getTies() == null ? List.of() : mapper.readValue(dataset.getTies(), TIES),
                read(dataset.getCalculations(), Calculations.class, Calculations.NONE),
                read(dataset.getFeed(), Feed.class, null),
                read(dataset.getLive(), Live.class, null),
                read(dataset.getStays(), Stays.class, null),
                read(dataset.getIntake(), Intake.class, Intake.NONE),
                dataset.getCreatedBy(),
                dataset.getViewerRule());
    }

    private <T> T read(String json, Class<T> type, T none) {
        return json == null ? none : mapper.readValue(json, type);
    }

    /**
     * Changes what is said about a dataset.
     *
     * @param revision the revision that the change was made on
     * @return the revision after it
     * @throws RefusedException with 412 when somebody has changed it since, with 403 when it is another's and not
     *     shared; nothing
     *     is changed then
     */
    long change(long id, long revision, SignedIn person, Consumer<Dataset> change) {
        return transaction.execute(t -> {
            Dataset dataset = held(id, person);
            if (dataset.getRevision() != revision) {
                String by = dataset.getChangedBy() == null
                        ? "Somebody"
                        : dataset.getChangedBy() == person.id()
                                ? "You, on another page,"
                                : people.nameOf(dataset.getChangedBy());
                throw new RefusedException(
                        HttpStatus.PRECONDITION_FAILED,
                        ("%s changed what is said about “%s” meanwhile. Nothing of it is lost, and yours is not "
                                        + "kept yet: look at what stands now, then keep yours again.")
                                .formatted(by, dataset.getName()));
            }
            change.accept(dataset);
            dataset.changed(person.id());
            return dataset.getRevision();
        });
    }

    /** The dataset, held until the transaction ends, where this person may change it. */
    Dataset held(long id, SignedIn person) {
        Dataset dataset = datasets.findWithLockById(id).orElseThrow(() -> RefusedException.gone("dataset"));
        check(dataset, May.COMPOSE, person);
        return dataset;
    }

    private void check(Dataset dataset, May what, SignedIn person) {
        rights.check(
                person,
                new Rights.Owned(Thing.DATASET, dataset.getId(), dataset.getName(), dataset.getCreatedBy()),
                what);
    }

    /** Checks that this person may do something with a dataset. */
    void check(long id, May what, SignedIn person) {
        rights.check(person, needed(id).owned(), what);
    }

    /** Says which rows somebody sees who may not change a dataset: the word of those who may hand it on. */
    long show(long id, long revision, SignedIn person, String rule) {
        check(id, May.HAND_ON, person);
        return change(id, revision, person, d -> d.show(rule));
    }
}
