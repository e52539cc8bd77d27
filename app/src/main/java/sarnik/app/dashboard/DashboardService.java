package sarnik.app.dashboard;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;

/** Keeps dashboards and their history. Every edit is one revision; a stale edit is refused, nothing is lost. */
@Service
class DashboardService {

    private static final int MOST_OTHERS = 60;

    private static final int MOST_PARSED = 200;

    private final StoredDashboardRepository dashboards;
    private final StoredEditRepository edits;
    private final PeopleService people;

    /** Parsed documents: reading and checking one takes longer than answering what it asks. */
    private final Cache<Revision, Dashboard> parsed =
            Caffeine.newBuilder().maximumSize(MOST_PARSED).build();

    private record Revision(long id, long number) {}

    DashboardService(StoredDashboardRepository dashboards, StoredEditRepository edits, PeopleService people) {
        this.dashboards = dashboards;
        this.edits = edits;
        this.people = people;
    }

    /**
     * A dashboard as one person finds it.
     *
     * @param shared whether other authors may change it
     * @param mayChange whether this person may
     * @param mayShare whether this person may say so
     * @param undo what undo would take back, in words; null when there is nothing
     * @param redo what redo would do again, in words; null when there is nothing
     */
    record Opened(
            long id,
            long revision,
            DashboardDocument document,
            boolean openToReaders,
            boolean shared,
            boolean mayChange,
            boolean mayShare,
            String undo,
            String redo) {}

    /** A dashboard as lists show it. */
    record Listed(long id, String title, Dashboard dashboard, boolean openToReaders, Instant changedAt) {}

    @Transactional(readOnly = true)
    List<Listed> all(SignedIn person) {
        return dashboards.findAllByOrderByChangedAtDesc().stream()
                .filter(d -> isOpenTo(person, d.isOpenToReaders()))
                .map(d -> new Listed(d.getId(), d.getTitle(), parsed(d), d.isOpenToReaders(), d.getChangedAt()))
                .toList();
    }

    /** Titles of the other dashboards that are open to a person, by id. */
    @Transactional(readOnly = true)
    Map<Long, String> others(long id, SignedIn person) {
        Map<Long, String> others = new LinkedHashMap<>();
        dashboards.findAllByOrderByChangedAtDesc().stream()
                .filter(d -> d.getId() != id && isOpenTo(person, d.isOpenToReaders()))
                .limit(MOST_OTHERS)
                .forEach(d -> others.put(d.getId(), d.getTitle()));
        return others;
    }

    private Dashboard parsed(StoredDashboard stored) {
        return parsed.get(
                new Revision(stored.getId(), stored.getRevision()),
                r -> DashboardDocument.parse(stored.getDocument()).dashboard());
    }

    /**
     * The dashboard of an id or a title, whoever may see it.
     *
     * @throws IllegalArgumentException when there is none, or several of the title
     */
    @Transactional(readOnly = true)
    public Dashboard named(String name) {
        List<StoredDashboard> found = dashboards.findAllByOrderByChangedAtDesc().stream()
                .filter(d ->
                        d.getTitle().equals(name) || String.valueOf(d.getId()).equals(name))
                .toList();
        if (found.isEmpty()) throw new IllegalArgumentException("there is no dashboard “" + name + "”.");
        if (found.size() > 1)
            throw new IllegalArgumentException("%d dashboards are called “%s”: say which by its number, %s."
                    .formatted(
                            found.size(),
                            name,
                            found.stream().map(d -> String.valueOf(d.getId())).toList()));
        return parsed(found.get(0));
    }

    private static boolean isOpenTo(SignedIn person, boolean openToReaders) {
        return person.isAuthor() || openToReaders;
    }

    /**
     * The newest revision of a dashboard, for answering what it shows.
     *
     * @throws RefusedException when there is none, or it is not open to this person
     */
    @Transactional(readOnly = true)
    Dashboard read(long id, SignedIn person) {
        long revision = dashboards
                .standing(id)
                .filter(d -> isOpenTo(person, d.getOpenToReaders()))
                .orElseThrow(() -> RefusedException.gone("dashboard"))
                .getRevision();
        return parsed.get(
                new Revision(id, revision),
                r -> DashboardDocument.parse(
                                dashboards.findById(id).orElseThrow().getDocument())
                        .dashboard());
    }

    /** @throws RefusedException when there is none, or it is not open to this person */
    @Transactional(readOnly = true)
    Opened open(long id, SignedIn person) {
        StoredDashboard dashboard = dashboards
                .findById(id)
                .filter(d -> isOpenTo(person, d.isOpenToReaders()))
                .orElseThrow(() -> RefusedException.gone("dashboard"));
        return opened(dashboard, person);
    }

    /** @throws RefusedException as {@link #open}, and with 403 when this person may not change it */
    @Transactional(readOnly = true)
    Opened compose(long id, SignedIn person) {
        StoredDashboard dashboard = dashboards.findById(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        people.checkMayChange(dashboard.getTitle(), dashboard.getCreatedBy(), dashboard.isShared(), person);
        return opened(dashboard, person);
    }

    private Opened opened(StoredDashboard dashboard, SignedIn person) {
        return new Opened(
                dashboard.getId(),
                dashboard.getRevision(),
                DashboardDocument.parse(dashboard.getDocument()),
                dashboard.isOpenToReaders(),
                dashboard.isShared(),
                person.isAuthor() && people.mayChange(dashboard.getCreatedBy(), dashboard.isShared(), person),
                person.isAuthor() && people.mayChange(dashboard.getCreatedBy(), false, person),
                undoable(dashboard.getId(), person).map(StoredEdit::getWords).orElse(null),
                redoable(dashboard.getId(), person).map(StoredEdit::getWords).orElse(null));
    }

    private Optional<StoredEdit> undoable(long id, SignedIn person) {
        return edits.findFirstByDashboardIdAndAuthorIdAndStateOrderByRevisionDesc(
                id, person.id(), StoredEdit.State.DONE);
    }

    private Optional<StoredEdit> redoable(long id, SignedIn person) {
        return edits.findFirstByDashboardIdAndAuthorIdAndStateOrderByRevisionAsc(
                id, person.id(), StoredEdit.State.UNDONE);
    }

    /** Makes an empty dashboard. */
    @Transactional
    Opened make(String title, SignedIn person) {
        if (title == null || title.isBlank())
            throw new RefusedException("A dashboard needs a title: the question it answers.");
        StoredDashboard made = dashboards.save(new StoredDashboard(
                DashboardDocument.empty(title.strip()),
                person.id(),
                Clock.systemUTC().instant()));
        return opened(made, person);
    }

    /** Keeps a dashboard that was made of another. */
    @Transactional
    Opened keep(DashboardDocument document, SignedIn person) {
        StoredDashboard made = dashboards.save(
                new StoredDashboard(document, person.id(), Clock.systemUTC().instant()));
        return opened(made, person);
    }

    /**
     * Makes an edit.
     *
     * @param revision the revision that the edit was made on
     * @param patch JSON Patch (RFC 6902)
     * @throws RefusedException with 412 when there is a newer revision; nothing is changed then
     * @throws DashboardException when the patch is malformed or would break the document's form
     */
    @Transactional
    Opened edit(long id, long revision, String patch, SignedIn person) {
        StoredDashboard dashboard = newest(id, revision, person);
        DashboardDocument.Edit edit =
                DashboardDocument.parse(dashboard.getDocument()).edit(patch);
        dashboard.take(edit.after(), Clock.systemUTC().instant());
        edits.replaceUndone(id, person.id());
        edits.save(new StoredEdit(dashboard, person.id(), edit.words(), patch, edit.inverse(), StoredEdit.State.DONE));
        return opened(dashboard, person);
    }

    /**
     * Takes back the person's own newest edit.
     *
     * @throws DashboardException when somebody has changed the same thing since
     */
    @Transactional
    Opened undo(long id, long revision, SignedIn person) {
        StoredDashboard dashboard = newest(id, revision, person);
        StoredEdit edit =
                undoable(id, person).orElseThrow(() -> new RefusedException("There is nothing of yours to undo."));
        step(dashboard, edit, edit.getInverse(), "undo: " + edit.getWords(), person);
        edit.become(StoredEdit.State.UNDONE);
        edits.flush();
        return opened(dashboard, person);
    }

    /** Does the person's last undone edit again. */
    @Transactional
    Opened redo(long id, long revision, SignedIn person) {
        StoredDashboard dashboard = newest(id, revision, person);
        StoredEdit edit =
                redoable(id, person).orElseThrow(() -> new RefusedException("There is nothing of yours to redo."));
        edit.redoneWith(step(dashboard, edit, edit.getPatch(), "redo: " + edit.getWords(), person));
        edits.flush();
        return opened(dashboard, person);
    }

    private String step(StoredDashboard dashboard, StoredEdit edit, String patch, String words, SignedIn person) {
        DashboardDocument.Edit made =
                DashboardDocument.parse(dashboard.getDocument()).edit(patch);
        dashboard.take(made.after(), Clock.systemUTC().instant());
        edits.save(new StoredEdit(dashboard, person.id(), words, patch, made.inverse(), StoredEdit.State.STEP));
        return made.inverse();
    }

    private StoredDashboard newest(long id, long revision, SignedIn person) {
        StoredDashboard dashboard = held(id, person);
        if (dashboard.getRevision() != revision)
            throw new RefusedException(HttpStatus.PRECONDITION_FAILED, whoWentOn(id, revision));
        return dashboard;
    }

    private String whoWentOn(long id, long revision) {
        List<StoredEdit> since = edits.findByDashboardIdAndRevisionGreaterThanOrderByRevisionDesc(id, revision);
        if (since.isEmpty()) return "This dashboard has no revision %d. Load it again.".formatted(revision);
        return "%s has changed this dashboard meanwhile: %s."
                .formatted(
                        people.nameOf(since.get(0).getAuthorId()), since.get(0).getWords());
    }

    /** The dashboard, held until the transaction ends, where this person may change it. */
    private StoredDashboard held(long id, SignedIn person) {
        StoredDashboard dashboard =
                dashboards.findWithLockById(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        people.checkMayChange(dashboard.getTitle(), dashboard.getCreatedBy(), dashboard.isShared(), person);
        return dashboard;
    }

    @Transactional
    void openToReaders(long id, boolean open, SignedIn person) {
        held(id, person).openToReaders(open);
    }

    /** Says whether other authors may change and remove a dashboard: its owner's word, or a steward's. */
    @Transactional
    void share(long id, boolean shared, SignedIn person) {
        StoredDashboard dashboard =
                dashboards.findWithLockById(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        people.checkMayChange(dashboard.getTitle(), dashboard.getCreatedBy(), false, person);
        dashboard.share(shared);
    }

    /** Takes a dashboard away with its history. */
    @Transactional
    void remove(long id, SignedIn person) {
        dashboards.delete(held(id, person));
    }
}
