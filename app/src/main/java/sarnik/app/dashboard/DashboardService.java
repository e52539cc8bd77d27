package sarnik.app.dashboard;

import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.rights.Who;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;

/** Keeps dashboards and their history. Every edit is one revision; a stale edit is refused, nothing is lost. */
@Service
public class DashboardService {

    private static final int MOST_OTHERS = 60;

    private final StoredDashboardRepository dashboards;
    private final StoredEditRepository edits;
    private final PeopleService people;
    private final Rights rights;
    private final Readings readings;

    DashboardService(
            StoredDashboardRepository dashboards,
            StoredEditRepository edits,
            PeopleService people,
            Rights rights,
            Readings readings) {
        this.dashboards = dashboards;
        this.edits = edits;
        this.people = people;
        this.rights = rights;
        this.readings = readings;
    }

    /**
     * A dashboard as one person finds it.
     *
     * @param shared whether other authors may change it
     * @param published whether there is an edition that readers see
     * @param mayShare whether this person may hand it on
     * @param undo what undo would take back, in words; null when there is nothing
     * @param redo what redo would do again, in words; null when there is nothing
     */
    record Opened(Reading reading, boolean shared, boolean published, boolean mayShare, String undo, String redo) {

        /** Somebody who only reads. */
        static Opened read(Reading reading) {
            return new Opened(reading, false, reading.edition() != null, false, null, null);
        }

        long id() {
            return reading.id();
        }

        long revision() {
            return reading.revision();
        }

        DashboardDocument document() {
            return reading.document();
        }
    }

    /** A dashboard as lists show it. */
    record Listed(
            long id,
            String title,
            Dashboard dashboard,
            boolean published,
            boolean mine,
            String owner,
            Instant changedAt) {}

    @Transactional(readOnly = true)
    List<Listed> all(SignedIn person) {
        Rights.Held held = rights.held(Thing.DASHBOARD, person);
        return dashboards.findAllByOrderByChangedAtDesc().stream()
                .filter(d -> held.may(d.getId(), d.getCreatedBy(), May.READ))
                .filter(d -> person.isAuthor() || d.getEditionId() != null)
                .map(d -> {
                    boolean draft = d.getEditionId() == null || held.may(d.getId(), d.getCreatedBy(), May.COMPOSE);
                    Dashboard shown = (draft
                                    ? readings.document(d)
                                    : readings.edition(d.getEditionId()).document())
                            .dashboard();
                    return new Listed(
                            d.getId(),
                            shown.title(),
                            shown,
                            d.getEditionId() != null,
                            d.getCreatedBy() == person.id(),
                            people.nameOf(d.getCreatedBy()),
                            d.getChangedAt());
                })
                .toList();
    }

    /** Titles of the other dashboards that are open to a person, by id. */
    @Transactional(readOnly = true)
    Map<Long, String> others(long id, SignedIn person) {
        Map<Long, String> others = new LinkedHashMap<>();
        all(person).stream().filter(d -> d.id() != id).limit(MOST_OTHERS).forEach(d -> others.put(d.id(), d.title()));
        return others;
    }

    /**
     * The dashboard of an id or a title, whoever may see it.
     *
     * @throws IllegalArgumentException when there is none, or several of the title
     */
    @Transactional(readOnly = true)
    public Dashboard named(String name) {
        return readings.document(stored(name)).dashboard();
    }

    /** A dashboard that is published. */
    public record Published(long id, long owner) {}

    /**
     * The published dashboard of an id or a title, whoever may see it.
     *
     * @throws IllegalArgumentException when there is none, or several of the title, or it is not published
     */
    @Transactional(readOnly = true)
    public Published published(String name) {
        StoredDashboard found = stored(name);
        if (found.getEditionId() == null)
            throw new IllegalArgumentException(
                    "“%s” is not published. Publish it on its page “Hand over”.".formatted(found.getTitle()));
        return new Published(found.getId(), found.getCreatedBy());
    }

    private StoredDashboard stored(String name) {
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
        return found.get(0);
    }

    /** A dashboard as something that people have rights on; null where it has gone. */
    @Transactional(readOnly = true)
    public Rights.Owned owned(long id) {
        return dashboards.findById(id).map(StoredDashboard::owned).orElse(null);
    }

    /**
     * Checks that somebody may do something with a dashboard.
     *
     * @throws RefusedException when there is none, or the person may not
     */
    @Transactional(readOnly = true)
    public void check(long id, May what, SignedIn person) {
        Rights.Owned of = owned(id);
        if (of == null) throw RefusedException.gone("dashboard");
        rights.check(person, of, what);
    }

    /**
     * A dashboard as somebody reads it.
     *
     * @throws RefusedException when there is none, or it is not open to this person
     */
    @Transactional(readOnly = true)
    public Reading read(long id, SignedIn person) {
        return readings.of(id, person);
    }

    /** @throws RefusedException when there is none, or it is not open to this person */
    @Transactional(readOnly = true)
    Opened open(long id, SignedIn person) {
        return opened(readings.of(id, person));
    }

    /** @throws RefusedException as {@link #open}, and with 403 when this person may not change it */
    @Transactional(readOnly = true)
    Opened compose(long id, SignedIn person) {
        return opened(
                readings.draft(dashboards.findById(id).orElseThrow(() -> RefusedException.gone("dashboard")), person));
    }

    /** The datasets that a dashboard's edition rests on, or its draft where it is not published. */
    @Transactional(readOnly = true)
    public Set<Long> datasets(long id) {
        StoredDashboard stored = dashboards.findById(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        return (stored.getEditionId() == null
                        ? readings.document(stored)
                        : readings.edition(stored.getEditionId()).document())
                .dashboard()
                .datasets();
    }

    /** Checks that somebody may compose with datasets. */
    void checkDatasets(SignedIn person, long... ids) {
        for (long id : ids) readings.checkDataset(id, person);
    }

    private Opened opened(StoredDashboard dashboard, SignedIn person) {
        return opened(readings.draft(dashboard, person));
    }

    @Transactional(readOnly = true)
    Opened opened(Reading reading) {
        if (!reading.composes()) return Opened.read(reading);
        SignedIn person = reading.viewer().person();
        long id = reading.id();
        StoredDashboard stored = dashboards.findById(id).orElseThrow();
        return new Opened(
                reading,
                rights.isGiven(Thing.DASHBOARD, id, Who.ANALYSTS, May.COMPOSE),
                stored.getEditionId() != null,
                rights.may(person, stored.owned(), May.HAND_ON),
                undoable(id, person).map(StoredEdit::getWords).orElse(null),
                redoable(id, person).map(StoredEdit::getWords).orElse(null));
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
        return keep(DashboardDocument.empty(title.strip()), person);
    }

    /** Keeps a dashboard that was made of another. */
    @Transactional
    Opened keep(DashboardDocument document, SignedIn person) {
        readings.checkDatasets(document.dashboard(), person);
        StoredDashboard made = dashboards.save(
                new StoredDashboard(document, person.id(), Clock.systemUTC().instant()));
        // Analysts see each other's work unless its owner says otherwise.
        rights.give(Thing.DASHBOARD, made.getId(), Who.ANALYSTS, May.READ);
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
        readings.checkDatasets(edit.after().dashboard(), person);
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
        return held(id, May.COMPOSE, person);
    }

    private StoredDashboard held(long id, May what, SignedIn person) {
        StoredDashboard dashboard =
                dashboards.findWithLockById(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        rights.check(person, dashboard.owned(), what);
        return dashboard;
    }

    /** Says whether all analysts may change a dashboard. */
    @Transactional
    void share(long id, boolean shared, SignedIn person) {
        held(id, May.HAND_ON, person);
        rights.give(Thing.DASHBOARD, id, Who.ANALYSTS, shared ? May.COMPOSE : May.READ);
    }

    /** Says what those who read a dashboard may take along. */
    @Transactional
    void take(long id, Takes takes, SignedIn person) {
        held(id, May.HAND_ON, person).take(takes);
    }

    /** Takes a dashboard away with its history. */
    @Transactional
    void remove(long id, SignedIn person) {
        dashboards.delete(held(id, person));
        rights.forget(Thing.DASHBOARD, id);
    }
}
