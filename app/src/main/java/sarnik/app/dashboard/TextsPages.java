package sarnik.app.dashboard;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import sarnik.app.language.Languages;
import sarnik.app.people.SignedIn;
import sarnik.app.web.PageJson;
import sarnik.dashboard.AuthorTexts;
import sarnik.dashboard.DashboardDocument;

/** In which language a dashboard is handed over, and what its author has written in others. */
@Controller
class TextsPages {

    private final DashboardService dashboards;
    private final Languages languages;
    private final PageJson json;

    TextsPages(DashboardService dashboards, Languages languages, PageJson json) {
        this.dashboards = dashboards;
        this.languages = languages;
        this.json = json;
    }

    /** A text that its author has written, with where it stands. */
    public record Written(String at, String where, String text) {}

    @GetMapping("/dashboards/{id}/texts")
    String texts(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        DashboardService.Opened opened = dashboards.compose(id, person);
        DashboardDocument document = opened.reading().document();
        List<Written> written = AuthorTexts.of(document).entrySet().stream()
                .map(e -> new Written(e.getKey(), AuthorTexts.where(e.getKey(), document.dashboard()), e.getValue()))
                .toList();
        Map<String, Object> page = new HashMap<>();
        page.put("id", id);
        page.put("revision", opened.reading().revision());
        page.put("language", document.dashboard().language());
        page.put("languages", languages.all());
        page.put("said", document.dashboard().texts());
        page.put("texts", written);
        model.addAttribute("id", id);
        model.addAttribute("title", document.dashboard().title());
        model.addAttribute("textsJson", json.of(page));
        return "texts";
    }
}
