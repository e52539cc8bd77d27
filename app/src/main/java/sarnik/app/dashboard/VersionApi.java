package sarnik.app.dashboard;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import sarnik.app.people.SignedIn;

/** The versions of a draft: their page, and what is asked and done on it. */
@Controller
class VersionApi {

    private final DraftVersions versions;
    private final DashboardService dashboards;
    private final Readings readings;
    private final SheetModel sheets;

    VersionApi(DraftVersions versions, DashboardService dashboards, Readings readings, SheetModel sheets) {
        this.versions = versions;
        this.dashboards = dashboards;
        this.readings = readings;
        this.sheets = sheets;
    }

    @GetMapping("/dashboards/{id}/versions")
    String page(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        model.addAttribute("id", id);
        model.addAttribute(
                "title", dashboards.compose(id, person).document().dashboard().title());
        return "versions";
    }

    /**
     * A version as readers would see it, for those who may change its dashboard.
     *
     * @param bare whether it stands within the page of versions, without the program's head
     */
    @GetMapping("/versions/{version}")
    String look(
            @PathVariable long version,
            @RequestParam(defaultValue = "false") boolean bare,
            @AuthenticationPrincipal SignedIn person,
            Model model) {
        sheets.fill(readings.version(version, person), "/api/versions/" + version, model);
        model.addAttribute("composing", false);
        model.addAttribute("mayChange", false);
        model.addAttribute("mayShare", false);
        model.addAttribute("published", false);
        model.addAttribute("bare", bare);
        return "sheet";
    }

    /** The newest versions of a draft, and older ones that have a name. */
    @GetMapping("/api/dashboards/{id}/versions")
    @ResponseBody
    List<DraftVersions.Line> all(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        return versions.of(id, person);
    }

    /** What a version is called. */
    record Called(String name) {}

    /** Names a version, so that it is found again. */
    @PutMapping("/api/dashboards/{id}/versions/{revision}/name")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void call(
            @PathVariable long id,
            @PathVariable long revision,
            @RequestBody Called called,
            @AuthenticationPrincipal SignedIn person) {
        versions.call(id, revision, called.name(), person);
    }

    /** What was done to come from a version to another one. */
    @GetMapping("/api/dashboards/{id}/versions/{revision}/differences")
    @ResponseBody
    List<String> differences(
            @PathVariable long id,
            @PathVariable long revision,
            @RequestParam long to,
            @AuthenticationPrincipal SignedIn person) {
        return versions.between(id, revision, to, person);
    }

    /** Makes the draft what it was. */
    @PostMapping("/api/dashboards/{id}/versions/{revision}/back")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void back(@PathVariable long id, @PathVariable long revision, @AuthenticationPrincipal SignedIn person) {
        versions.back(id, revision, person);
    }
}
