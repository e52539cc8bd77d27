package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import sarnik.app.dataset.DatasetLines;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.dataset.Keeping;
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
    private final DatasetLines lines;
    private final Keeping keeping;
    private final Keepsakes keepsakes;
    private final PageJson json;

    DashboardPages(
            DashboardService dashboards,
            Readings readings,
            SheetModel sheets,
            DatasetService datasets,
            DatasetLines lines,
            Keeping keeping,
            Keepsakes keepsakes,
            PageJson json) {
        this.lines = lines;
        this.keeping = keeping;
        this.keepsakes = keepsakes;
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
     * @param words what it can be found by: its title, its owner, its tags, the names of its datasets, the titles of
     *     its pages and visuals
     * @param tags in alphabetical order
     * @param marked whether this person has marked it
     * @param seen when this person saw it last, in words; empty for never
     * @param seenAt the same in seconds since 1970; 0 for never
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
            Set<String> tags,
            boolean marked,
            String seen,
            long seenAt,
            List<PlanBox> plan,
            String boxes,
            int planHeight) {

        static HomeSheet of(
                DashboardService.Listed listed, List<String> on, Set<String> tags, Keepsakes.Own own, PageJson json) {
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
                    Stream.of(
                                    Stream.of(listed.title(), listed.owner()),
                                    on.stream(),
                                    tags.stream(),
                                    dashboard.pages().values().stream().map(Dashboard.Page::title),
                                    dashboard.visuals().values().stream().map(Visual::title))
                            .flatMap(words -> words)
                            .filter(Objects::nonNull)
                            .collect(Collectors.joining(" ")),
                    DayWords.of(listed.changedAt()),
                    tags,
                    own.marked(),
                    own.seen() == null ? "" : DayWords.of(own.seen()),
                    own.seen() == null ? 0 : own.seen().getEpochSecond(),
                    plan,
                    json.of(plan),
                    height);
        }
    }

    @GetMapping("/")
    String home(@AuthenticationPrincipal SignedIn person, HttpServletRequest request, Model model) {
        // Whoever composes does it in English, from home on.
        if (!person.isAuthor()) sheets.speak(request);
        Map<Long, Set<String>> tags = keepsakes.tags();
        Map<Long, Keepsakes.Own> own = keepsakes.of(person);
        List<HomeSheet> sheetsOfHome = dashboards.all(person).stream()
                .map(listed -> HomeSheet.of(
                        listed,
                        namesOf(listed.dashboard()),
                        tags.getOrDefault(listed.id(), Set.of()),
                        own.getOrDefault(listed.id(), Keepsakes.Own.NOTHING),
                        json))
                .toList();
        model.addAttribute("dashboards", sheetsOfHome);
        model.addAttribute(
                "tags",
                sheetsOfHome.stream()
                        .flatMap(d -> d.tags().stream())
                        .collect(Collectors.toCollection(() -> new TreeSet<>(String.CASE_INSENSITIVE_ORDER))));
        List<DatasetLines.Line> readable = person.isAuthor() ? lines.of(person) : List.of();
        model.addAttribute("datasets", readable);
        model.addAttribute("kept", keeping.versions());
        model.addAttribute(
                "datasetsJson",
                json.of(readable.stream()
                        .map(line -> new Other(line.of().id(), line.of().name()))
                        .toList()));
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
    String read(
            @PathVariable long id, @AuthenticationPrincipal SignedIn person, HttpServletRequest request, Model model) {
        return sheet(id, person, request, model, false);
    }

    @GetMapping("/dashboards/{id}/compose")
    String compose(
            @PathVariable long id, @AuthenticationPrincipal SignedIn person, HttpServletRequest request, Model model) {
        return sheet(id, person, request, model, true);
    }

    /** The page twice, or one of its visuals. */
    @GetMapping("/dashboards/{id}/beside")
    String beside(
            @PathVariable long id,
            @RequestParam(required = false) String visual,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            Model model) {
        Reading reading = sheets.spoken(request, () -> readings.of(id, person), Function.identity());
        return sheets.beside(reading, "/api/dashboards/" + id, visual, model);
    }

    /** An edition twice, or one of its visuals. */
    @GetMapping("/editions/{edition}/beside")
    String editionBeside(
            @PathVariable long edition,
            @RequestParam(required = false) String visual,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            Model model) {
        Reading reading = sheets.spoken(request, () -> readings.edition(edition, person), Function.identity());
        return sheets.beside(reading, "/api/editions/" + edition, visual, model);
    }

    /** An edition as readers see it, for those who may change its dashboard. */
    @GetMapping("/editions/{edition}")
    String edition(
            @PathVariable long edition,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            Model model) {
        Reading reading = sheets.spoken(request, () -> readings.edition(edition, person), Function.identity());
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

    private String sheet(long id, SignedIn person, HttpServletRequest request, Model model, boolean composing) {
        DashboardService.Opened opened = composing
                ? dashboards.compose(id, person)
                : sheets.spoken(request, () -> dashboards.open(id, person), DashboardService.Opened::reading);
        keepsakes.seen(id, person);
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
