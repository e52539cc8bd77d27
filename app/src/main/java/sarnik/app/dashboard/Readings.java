package sarnik.app.dashboard;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.key.SharedKeys;
import sarnik.app.people.Groups;
import sarnik.app.people.SignedIn;
import sarnik.app.people.Viewer;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.AuthorTexts;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.language.Language;
import sarnik.visual.SharedKey;
import tools.jackson.databind.json.JsonMapper;

/**
 * Opens dashboards to whoever looks. Who may change one finds its draft; others its edition, over the rows that they
 * may see. Authors who may read one that is not published find its draft as well.
 */
@Service
public class Readings {

    private static final int MOST_PARSED = 200;

    private final StoredDashboardRepository dashboards;
    private final StoredEditionRepository editions;
    private final StoredEditRepository edits;
    private final DatasetService datasets;
    private final SharedKeys keys;
    private final Groups groups;
    private final Rights rights;
    private final JsonMapper mapper;

    /** Documents that were read: reading and checking one takes longer than answering what it asks. */
    private final Cache<Revision, DashboardDocument> read =
            Caffeine.newBuilder().maximumSize(MOST_PARSED).build();

    private final Cache<Long, Edition> readEditions =
            Caffeine.newBuilder().maximumSize(MOST_PARSED).build();

    private final Cache<Translated, DashboardDocument> translated =
            Caffeine.newBuilder().maximumSize(200).build();

    private record Revision(long id, long number) {}

    private record Translated(long edition, String tag) {}

    Readings(
            StoredDashboardRepository dashboards,
            StoredEditionRepository editions,
            StoredEditRepository edits,
            DatasetService datasets,
            SharedKeys keys,
            Groups groups,
            Rights rights,
            JsonMapper mapper) {
        this.dashboards = dashboards;
        this.editions = editions;
        this.edits = edits;
        this.datasets = datasets;
        this.keys = keys;
        this.groups = groups;
        this.rights = rights;
        this.mapper = mapper;
    }

    /** An edition as it was read. */
    record Edition(long dashboard, int number, long revision, DashboardDocument document, RestsOn restsOn) {

        private Map<String, SharedKey> keys() {
            return restsOn.keys().stream().collect(Collectors.toMap(SharedKey::name, Function.identity()));
        }
    }

    DashboardDocument document(StoredDashboard stored) {
        return read.get(
                new Revision(stored.getId(), stored.getRevision()), r -> DashboardDocument.parse(stored.getDocument()));
    }

    /** @throws RefusedException when there is none of this id */
    Edition edition(long id) {
        Edition known = readEditions.getIfPresent(id);
        if (known != null) return known;
        StoredEdition stored = editions.findById(id).orElseThrow(() -> RefusedException.gone("edition"));
        Edition edition = new Edition(
                stored.getDashboardId(),
                stored.getNumber(),
                stored.getRevision(),
                DashboardDocument.parse(stored.getDocument()),
                mapper.readValue(stored.getRestsOn(), RestsOn.class));
        readEditions.put(id, edition);
        return edition;
    }

    /** @throws RefusedException when there is none, or it is not open to this person */
    @Transactional(readOnly = true)
    Reading of(long id, SignedIn person) {
        StoredDashboardRepository.Standing now =
                dashboards.standing(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        Rights.Owned owned = owned(id, now);
        if (rights.may(person, owned, May.COMPOSE))
            return draft(id, now, person, mayReadAll(document(id, now).dashboard(), person));
        if (!rights.may(person, owned, May.READ)) throw RefusedException.gone("dashboard");
        if (now.getEditionId() != null)
            return edition(now.getEditionId(), groups.viewer(person), takes(now), List.of());
        if (!person.isAuthor()) throw RefusedException.gone("dashboard");
        return draft(id, now, person, false);
    }

    private static Rights.Owned owned(long id, StoredDashboardRepository.Standing now) {
        return new Rights.Owned(sarnik.app.rights.Thing.DASHBOARD, id, now.getTitle(), now.getCreatedBy());
    }

    private static Takes takes(StoredDashboardRepository.Standing now) {
        return new Takes(now.getTakesRows(), now.getTakesPictures(), now.getTakesPrints());
    }

    /**
     * The edition that is published of a dashboard, as somebody sees it.
     *
     * @param takes what may be taken along at most
     * @param bound which rows are seen at most
     * @throws RefusedException when it is not published
     */
    @Transactional(readOnly = true)
    public Reading published(long id, Viewer viewer, Takes takes, List<SeenDatasets.Bound> bound) {
        StoredDashboardRepository.Standing now =
                dashboards.standing(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        if (now.getEditionId() == null) throw RefusedException.gone("dashboard");
        return edition(now.getEditionId(), viewer, takes(now).and(takes), bound);
    }

    /** An edition, published or not, as those see it who may change its dashboard, and with their rows. */
    @Transactional(readOnly = true)
    Reading edition(long edition, SignedIn person) {
        Edition of = edition(edition);
        StoredDashboardRepository.Standing now =
                dashboards.standing(of.dashboard()).orElseThrow(() -> RefusedException.gone("dashboard"));
        boolean shown = now.getEditionId() != null && now.getEditionId() == edition;
        rights.check(person, owned(of.dashboard(), now), shown ? May.READ : May.COMPOSE);
        return edition(edition, groups.viewer(person), takes(now), List.of());
    }

    private Reading edition(long edition, Viewer viewer, Takes takes, List<SeenDatasets.Bound> bound) {
        Edition of = edition(edition);
        Map<String, SharedKey> worn = of.keys();
        return new Reading(
                of.dashboard(),
                of.revision(),
                of.number(),
                inSpoken(edition, of),
                viewer,
                datasets.seenBy(viewer, of.restsOn().datasets(), bound),
                name -> java.util.Optional.ofNullable(worn.get(name)),
                false,
                takes);
    }

    /** The document of an edition with its texts in the language that is spoken, where its author has given them. */
    private DashboardDocument inSpoken(long edition, Edition of) {
        String tag = Language.spoken().tag();
        if (!of.document().dashboard().texts().containsKey(tag)) return of.document();
        return translated.get(new Translated(edition, tag), t -> AuthorTexts.in(tag, of.document()));
    }

    /** A version of a draft, as those see it who may change its dashboard. */
    @Transactional(readOnly = true)
    Reading version(long version, SignedIn person) {
        StoredEdit of = edits.findById(version).orElseThrow(() -> RefusedException.gone("version"));
        StoredDashboard now =
                dashboards.findById(of.getDashboardId()).orElseThrow(() -> RefusedException.gone("version"));
        rights.check(person, now.owned(), May.COMPOSE);
        DashboardDocument document = DashboardDocument.parse(of.getDocument());
        Viewer viewer = groups.viewer(person);
        return new Reading(
                now.getId(),
                of.getRevision(),
                null,
                document,
                viewer,
                datasets.seenBy(viewer),
                keys::find,
                false,
                Takes.ALL);
    }

    private DashboardDocument document(long id, StoredDashboardRepository.Standing now) {
        return read.get(
                new Revision(id, now.getRevision()),
                r -> DashboardDocument.parse(
                        dashboards.findById(id).orElseThrow().getDocument()));
    }

    private Reading draft(long id, StoredDashboardRepository.Standing now, SignedIn person, boolean composes) {
        Viewer viewer = groups.viewer(person);
        return new Reading(
                id,
                now.getRevision(),
                null,
                document(id, now),
                viewer,
                datasets.seenBy(viewer),
                keys::find,
                composes,
                composes ? Takes.ALL : takes(now));
    }

    /** @throws RefusedException with 403 when this person may not change it, or not read what it rests on */
    Reading draft(StoredDashboard stored, SignedIn person) {
        rights.check(person, stored.owned(), May.COMPOSE);
        // Read anew: what is not committed yet must not be known by its revision.
        DashboardDocument document = DashboardDocument.parse(stored.getDocument());
        checkDatasets(document.dashboard(), person);
        Viewer viewer = groups.viewer(person);
        return new Reading(
                stored.getId(),
                stored.getRevision(),
                null,
                document,
                viewer,
                datasets.seenBy(viewer),
                keys::find,
                true,
                Takes.ALL);
    }

    private boolean mayReadAll(Dashboard dashboard, SignedIn person) {
        return dashboard.datasets().stream()
                .flatMap(id -> datasets.description(id).stream())
                .allMatch(d -> rights.may(person, d.owned(), May.READ));
    }

    /**
     * Checks that somebody may compose with the datasets of a dashboard: all of their columns are offered then.
     *
     * @throws RefusedException with 403; the message names the dataset
     */
    void checkDatasets(Dashboard dashboard, SignedIn person) {
        for (long id : dashboard.datasets()) datasets.description(id).ifPresent(d -> checkReads(d, person));
    }

    private void checkReads(Description of, SignedIn person) {
        if (!rights.may(person, of.owned(), May.READ))
            throw new RefusedException(
                    org.springframework.http.HttpStatus.FORBIDDEN,
                    "It rests on the dataset “%s”, which is not open to you, so you cannot compose with it. Ask its owner."
                            .formatted(of.name()));
    }

    /** Checks that somebody may compose with a dataset. */
    void checkDataset(long id, SignedIn person) {
        datasets.description(id).ifPresent(d -> checkReads(d, person));
    }
}
