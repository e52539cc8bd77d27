package sarnik.app.dashboard;

import java.util.List;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;

/** Tags of dashboards, and what a person has marked. */
@RestController
@RequestMapping("/api/dashboards/{id}")
class KeepsakeApi {

    private final Keepsakes keepsakes;
    private final DashboardService dashboards;

    KeepsakeApi(Keepsakes keepsakes, DashboardService dashboards) {
        this.keepsakes = keepsakes;
        this.dashboards = dashboards;
    }

    /** Says by which words a dashboard is found; all who may read it see them. */
    @PutMapping("/tags")
    Set<String> tag(@PathVariable long id, @RequestBody List<String> tags, @AuthenticationPrincipal SignedIn person) {
        dashboards.check(id, May.COMPOSE, person);
        return keepsakes.tag(id, tags);
    }

    /** Marks a dashboard for oneself, or no more. */
    @PutMapping("/mark")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void mark(@PathVariable long id, @RequestBody boolean marked, @AuthenticationPrincipal SignedIn person) {
        dashboards.check(id, May.READ, person);
        keepsakes.mark(id, marked, person);
    }
}
