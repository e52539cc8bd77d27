package sarnik.app.dashboard;

import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.web.DayWords;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.Differences;

/**
 * The versions of a draft: one for each edit, with who made it and when. They can be named, compared and brought back.
 */
@Service
class DraftVersions {

    private static final int SHOWN = 300;
    private static final int LONGEST = 120;

    private final StoredDashboardRepository dashboards;
    private final StoredEditRepository edits;
    private final DashboardService service;
    private final PeopleService people;

    DraftVersions(
            StoredDashboardRepository dashboards,
            StoredEditRepository edits,
            DashboardService service,
            PeopleService people) {
        this.dashboards = dashboards;
        this.edits = edits;
        this.service = service;
        this.people = people;
    }

    /**
     * A version as lists show it.
     *
     * @param id by which it is looked at
     * @param words what its edit did
     * @param name what somebody calls it; empty for nothing
     * @param now whether it is the draft as it stands
     */
    public record Line(long id, long revision, String by, String moment, String words, String name, boolean now) {}

    /** The newest versions of a draft, newest first, and older ones that have a name. */
    @Transactional(readOnly = true)
    List<Line> of(long dashboard, SignedIn person) {
        service.check(dashboard, May.COMPOSE, person);
        long newest = dashboards.findById(dashboard).orElseThrow().getRevision();
        return edits.lines(dashboard, newest - SHOWN).stream()
                .map(edit -> new Line(
                        edit.getId(),
                        edit.getRevision(),
                        people.nameOf(edit.getAuthorId()),
                        DayWords.moment(edit.getMadeAt()),
                        edit.getWords(),
                        edit.getName() == null ? "" : edit.getName(),
                        edit.getRevision() == newest))
                .toList();
    }

    private StoredEdit needed(long dashboard, long revision) {
        return edits.findByDashboardIdAndRevision(dashboard, revision)
                .orElseThrow(() -> RefusedException.gone("version"));
    }

    private DashboardDocument document(long dashboard, long revision) {
        return DashboardDocument.parse(needed(dashboard, revision).getDocument());
    }

    /** Says what a version is called; nothing takes its name away. */
    @Transactional
    void call(long dashboard, long revision, String name, SignedIn person) {
        service.check(dashboard, May.COMPOSE, person);
        String clean = name == null ? "" : name.strip();
        if (clean.length() > LONGEST)
            throw new RefusedException("A version is called by up to %d characters.".formatted(LONGEST));
        needed(dashboard, revision).call(clean.isEmpty() ? null : clean);
    }

    /** What was done to come from one version to another, a phrase each. */
    @Transactional(readOnly = true)
    List<String> between(long dashboard, long before, long after, SignedIn person) {
        service.check(dashboard, May.COMPOSE, person);
        return Differences.of(document(dashboard, before), document(dashboard, after));
    }

    /** Makes the draft what it was: an edit as any other, which can be undone. */
    @Transactional
    void back(long dashboard, long revision, SignedIn person) {
        service.check(dashboard, May.COMPOSE, person);
        StoredDashboard now = dashboards.findById(dashboard).orElseThrow();
        DashboardDocument draft = DashboardDocument.parse(now.getDocument());
        String patch = draft.patchTo(document(dashboard, revision));
        if (patch.equals("[]")) throw new RefusedException("The draft is as it was then.");
        service.edit(dashboard, now.getRevision(), patch, person);
    }
}
