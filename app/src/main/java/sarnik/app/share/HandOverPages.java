package sarnik.app.share;

import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import sarnik.app.dashboard.DashboardService;
import sarnik.app.dashboard.Keepsakes;
import sarnik.app.dataset.DatasetService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.web.PageJson;

/** The page on which a dashboard is handed over: published, given to people, shown by links. */
@Controller
class HandOverPages {

    private final Things things;
    private final DashboardService dashboards;
    private final DatasetService datasets;
    private final Keepsakes keepsakes;
    private final PageJson json;

    HandOverPages(
            Things things, DashboardService dashboards, DatasetService datasets, Keepsakes keepsakes, PageJson json) {
        this.keepsakes = keepsakes;
        this.things = things;
        this.dashboards = dashboards;
        this.datasets = datasets;
        this.json = json;
    }

    /** A dataset that the dashboard rests on. */
    record Rested(long id, String name, List<String> columns) {}

    @GetMapping("/dashboards/{id}/hand-over")
    String page(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        Rights.Owned of = things.needed(Thing.DASHBOARD, id, May.HAND_ON, person);
        model.addAttribute("id", id);
        model.addAttribute("title", of.name());
        model.addAttribute("tags", String.join(", ", keepsakes.tags(id)));
        model.addAttribute(
                "datasetsJson",
                json.of(dashboards.datasets(id).stream()
                        .flatMap(d -> datasets.description(d).stream())
                        .map(d -> new Rested(d.id(), d.name(), d.columnNames()))
                        .toList()));
        return "hand-over";
    }
}
