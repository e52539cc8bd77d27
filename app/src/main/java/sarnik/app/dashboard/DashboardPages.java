package sarnik.app.dashboard;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import sarnik.app.dataset.DatasetService;
import sarnik.app.people.SignedIn;
import sarnik.app.web.DayWords;
import sarnik.app.web.PageJson;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.dashboard.Theme;
import sarnik.visual.Visual;

/** Home, and the two states of a dashboard: read and compose. */
@Controller
class DashboardPages {

    private static final int LOWEST = 24;

    private final DashboardService dashboards;
    private final DatasetService datasets;
    private final PageJson json;

    DashboardPages(DashboardService dashboards, DatasetService datasets, PageJson json) {
        this.json = json;
        this.dashboards = dashboards;
        this.datasets = datasets;
    }

    /** A visual's place in the small plan of a sheet. */
    public record PlanBox(String id, String sign, int x, int y, int w, int h) {}

    /**
     * A dashboard on the home page with a small plan of its sheet.
     *
     * @param boxes the plan as JSON, of which a true small picture is drawn
     */
    public record HomeSheet(
            long id,
            String title,
            boolean openToReaders,
            String changed,
            List<PlanBox> plan,
            String boxes,
            int planHeight) {

        static HomeSheet of(DashboardService.Listed listed, PageJson json) {
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
                    listed.openToReaders(),
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
                        .map(listed -> HomeSheet.of(listed, json))
                        .toList());
        model.addAttribute("datasets", person.isAuthor() ? datasets.all() : List.of());
        return "home";
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
        Dashboard dashboard = dashboards.open(id, person).document().dashboard();
        model.addAttribute("id", id);
        model.addAttribute("title", dashboard.title());
        model.addAttribute("theme", themeOf(dashboard));
        model.addAttribute("visual", dashboard.visuals().containsKey(visual) ? visual : "");
        return "beside";
    }

    private static String themeOf(Dashboard dashboard) {
        return (dashboard.theme() == null ? Theme.FIELD : dashboard.theme())
                .name()
                .toLowerCase(Locale.ROOT);
    }

    @GetMapping("/dashboards/{id}/wiring")
    String wiring(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        DashboardService.Opened opened = dashboards.compose(id, person);
        model.addAttribute("id", id);
        model.addAttribute("title", opened.document().dashboard().title());
        return "wiring";
    }

    /** Another dashboard, on which a visual can be put as well. */
    public record Other(long id, String title) {}

    /** What is told of a dataset, for readers. */
    public record Told(String name, String line, List<String> columns) {}

    private Optional<Told> told(long dataset) {
        return datasets.description(dataset)
                .filter(d -> !d.about().isEmpty())
                .map(d -> new Told(
                        d.name(),
                        d.about().line(),
                        d.about().columns().entrySet().stream()
                                .sorted(Map.Entry.comparingByKey())
                                .map(c -> c.getKey()
                                        + (c.getValue().unit().isEmpty()
                                                ? ""
                                                : " (" + c.getValue().unit() + ")")
                                        + (c.getValue().description().isEmpty()
                                                ? ""
                                                : ": " + c.getValue().description()))
                                .toList()));
    }

    private String sheet(long id, SignedIn person, Model model, boolean composing) {
        DashboardService.Opened opened = composing ? dashboards.compose(id, person) : dashboards.open(id, person);
        model.addAttribute("id", id);
        model.addAttribute("title", opened.document().dashboard().title());
        model.addAttribute("theme", themeOf(opened.document().dashboard()));
        model.addAttribute("openToReaders", opened.openToReaders());
        model.addAttribute("composing", composing);
        model.addAttribute("mayChange", opened.mayChange());
        model.addAttribute("mayShare", opened.mayShare());
        model.addAttribute("shared", opened.shared());
        model.addAttribute(
                "told",
                opened.document().dashboard().datasets().stream()
                        .flatMap(d -> told(d).stream())
                        .toList());
        if (composing) {
            model.addAttribute("datasetsJson", json.of(datasets.all()));
            model.addAttribute(
                    "dashboardsJson",
                    json.of(dashboards.all(person).stream()
                            .map(d -> new Other(d.id(), d.title()))
                            .toList()));
        }
        return "sheet";
    }
}
