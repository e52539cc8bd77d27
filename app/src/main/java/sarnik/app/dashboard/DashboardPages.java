package sarnik.app.dashboard;

import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.people.SignedIn;
import sarnik.app.web.DayWords;
import sarnik.app.web.PageJson;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.visual.Visual;

/** Home, and the two states of a dashboard: read and compose. */
@Controller
class DashboardPages {

    private static final int LOWEST = 24;

    private final DashboardService dashboards;
    private final Readings readings;
    private final SheetModel sheets;
    private final DatasetService datasets;
    private final PageJson json;

    DashboardPages(
            DashboardService dashboards, Readings readings, SheetModel sheets, DatasetService datasets, PageJson json) {
        this.readings = readings;
        this.sheets = sheets;
        this.json = json;
        this.dashboards = dashboards;
        this.datasets = datasets;
    }

    /** A visual's place in the small plan of a sheet. */
    public record PlanBox(String id, String sign, int x, int y, int w, int h) {}

    /**
     * A dashboard on the home page with a small plan of its sheet.
     *
     * @param words what it can be found by: its title, its owner, the names of its datasets
     * @param boxes the plan as JSON, of which a true small picture is drawn
     */
    public record HomeSheet(
            long id,
            String title,
            boolean published,
            boolean mine,
            String owner,
            String words,
            String changed,
            List<PlanBox> plan,
            String boxes,
            int planHeight) {

        static HomeSheet of(DashboardService.Listed listed, List<String> on, PageJson json) {
            Dashboard dashboard = listed.dashboard();
            List<PlanBox> plan = dashboard.readingOrder(dashboard.firstPage()).stream()
                    .filter(id -> !dashboard.finish(id).isHidden())
                    .map(id -> {
                        Visual v = dashboard.visuals().get(id);
                        return new PlanBox(id, Kinds.ALL.of(v).sign(), v.at().x(), v.at().y(), v.at().w(), v.at().h());
                    })
                    // What lies below the picture is not drawn.
                    .filter(box -> box.y() < LOWEST)
                    .toList();
            int height = Math.max(
                    12,
                    Math.min(
                            24, plan.stream().mapToInt(b -> b.y() + b.h()).max().orElse(0)));
            return new HomeSheet(
                    listed.id(),
                    listed.title(),
                    listed.published(),
                    listed.mine(),
                    listed.owner(),
                    listed.title() + " " + listed.owner() + " " + String.join(" ", on),
                    DayWords.of(listed.changedAt()),
                    plan,
                    json.of(plan),
                    height);
        }
    }

    @GetMapping("/")
    String home(@AuthenticationPrincipal SignedIn person, Model model) {
        model.addAttribute(
                "dashboards",
                dashboards.all(person).stream()
                        .map(listed -> HomeSheet.of(listed, namesOf(listed.dashboard()), json))
                        .toList());
        List<DatasetService.Listed> readable = person.isAuthor() ? datasets.all(person) : List.of();
        model.addAttribute("datasets", readable);
        model.addAttribute(
                "datasetsJson",
                json.of(readable.stream().map(d -> new Other(d.id(), d.name())).toList()));
        return "home";
    }

    private List<String> namesOf(Dashboard dashboard) {
        return dashboard.datasets().stream()
                .flatMap(id -> datasets.description(id).stream())
                .map(Description::name)
                .toList();
    }

    @PostMapping("/dashboards")
    String make(@RequestParam String title, @AuthenticationPrincipal SignedIn person) {
        return "redirect:/dashboards/" + dashboards.make(title, person).id() + "/compose";
    }

    @GetMapping("/dashboards/{id}")
    String read(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        return sheet(id, person, model, false);
    }

    @GetMapping("/dashboards/{id}/compose")
    String compose(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        return sheet(id, person, model, true);
    }

    /** The page twice, or one of its visuals. */
    @GetMapping("/dashboards/{id}/beside")
    String beside(
            @PathVariable long id,
            @RequestParam(required = false) String visual,
            @AuthenticationPrincipal SignedIn person,
            Model model) {
        return sheets.beside(readings.of(id, person), "/api/dashboards/" + id, visual, model);
    }

    /** An edition twice, or one of its visuals. */
    @GetMapping("/editions/{edition}/beside")
    String editionBeside(
            @PathVariable long edition,
            @RequestParam(required = false) String visual,
            @AuthenticationPrincipal SignedIn person,
            Model model) {
        return sheets.beside(readings.edition(edition, person), "/api/editions/" + edition, visual, model);
    }

    /** An edition as readers see it, for those who may change its dashboard. */
    @GetMapping("/editions/{edition}")
    String edition(@PathVariable long edition, @AuthenticationPrincipal SignedIn person, Model model) {
        Reading reading = readings.edition(edition, person);
        sheets.fill(reading, "/api/editions/" + edition, model);
        model.addAttribute("composing", false);
        model.addAttribute("mayChange", false);
        model.addAttribute("mayShare", false);
        model.addAttribute("published", true);
        return "sheet";
    }

    @GetMapping("/dashboards/{id}/wiring")
    String wiring(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        DashboardService.Opened opened = dashboards.compose(id, person);
        model.addAttribute("id", id);
        model.addAttribute("title", opened.document().dashboard().title());
        return "wiring";
    }

    /** Something that can be chosen by its name. */
    public record Other(long id, String name) {}

    private String sheet(long id, SignedIn person, Model model, boolean composing) {
        DashboardService.Opened opened = composing ? dashboards.compose(id, person) : dashboards.open(id, person);
        sheets.fill(opened.reading(), "/api/dashboards/" + id, model);
        model.addAttribute("published", opened.published());
        model.addAttribute("composing", composing);
        model.addAttribute("mayChange", opened.reading().composes());
        model.addAttribute("mayShare", opened.mayShare());
        model.addAttribute("shared", opened.shared());
        if (composing) {
            model.addAttribute("datasetsJson", json.of(datasets.all(person)));
            model.addAttribute(
                    "dashboardsJson",
                    json.of(dashboards.all(person).stream()
                            .map(d -> new Other(d.id(), d.title()))
                            .toList()));
        }
        return "sheet";
    }
}
