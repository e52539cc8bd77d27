package sarnik.app.dashboard;

import static sarnik.language.Language.phrase;

import java.time.Instant;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/** What people have chosen on a dashboard, kept under names of their own; its authors may offer some to all. */
@RestController
@RequestMapping("/api/dashboards/{id}/views")
class ViewApi {

    private static final int MOST = 60;
    private static final int LONGEST_NAME = 80;
    private static final int LONGEST_STATE = 20_000;

    private final DashboardService dashboards;
    private final StoredViewRepository views;

    ViewApi(DashboardService dashboards, StoredViewRepository views) {
        this.dashboards = dashboards;
        this.views = views;
    }

    /**
     * A kept view.
     *
     * @param state a reader state's text form
     * @param offered whether it is offered to all
     * @param mine whether this person may take it away
     */
    record Kept(long id, String name, String state, boolean offered, boolean mine) {}

    /**
     * A view to be kept; one of the same name takes its place.
     *
     * @param offered whether it is offered to all, which only authors of the dashboard may; null for no
     */
    record Keep(String name, String state, Boolean offered) {}

    @GetMapping
    @Transactional(readOnly = true)
    List<Kept> all(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        dashboards.read(id, person);
        return views.seen(id, person.id()).stream()
                .map(view -> new Kept(
                        view.getId(),
                        view.getName(),
                        view.getState(),
                        view.isOffered(),
                        view.getPersonId() == person.id()))
                .toList();
    }

    @PutMapping
    @Transactional
    Kept keep(@PathVariable long id, @RequestBody Keep keep, @AuthenticationPrincipal SignedIn person) {
        dashboards.read(id, person);
        String name = keep.name() == null ? "" : keep.name().strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME)
            throw new RefusedException(phrase("A view needs a name of up to {0} letters.", LONGEST_NAME));
        if (keep.state() == null || keep.state().length() > LONGEST_STATE)
            throw new RefusedException("A state has at most %,d characters.".formatted(LONGEST_STATE));
        boolean offered = Boolean.TRUE.equals(keep.offered());
        // Who may change the dashboard may offer something to all of its readers.
        if (offered) dashboards.compose(id, person);
        StoredView view = views.findByDashboardIdAndPersonIdAndName(id, person.id(), name)
                .orElseGet(() -> new StoredView(id, person.id(), name));
        if (view.getId() == null && views.countByDashboardIdAndPersonId(id, person.id()) >= MOST)
            throw new RefusedException(phrase("You keep {0} views here, and more are not kept. Take one away.", MOST));
        view.keep(keep.state(), offered, Instant.now());
        StoredView kept = views.save(view);
        return new Kept(kept.getId(), kept.getName(), kept.getState(), kept.isOffered(), true);
    }

    @DeleteMapping("/{view}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    @Transactional
    void remove(@PathVariable long id, @PathVariable long view, @AuthenticationPrincipal SignedIn person) {
        dashboards.read(id, person);
        StoredView kept = views.findById(view)
                .filter(v -> v.getDashboardId() == id && v.getPersonId() == person.id())
                .orElseThrow(() -> new RefusedException(HttpStatus.NOT_FOUND, phrase("You keep no such view here.")));
        views.delete(kept);
    }
}
