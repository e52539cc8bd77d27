package sarnik.app.live;

import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import sarnik.app.dataset.DatasetService;
import sarnik.app.people.SignedIn;
import sarnik.app.web.PageJson;
import sarnik.app.web.RefusedException;

/** The pages of feeds: all that there are, and each with its messages and what they become. */
@Controller
class FeedPages {

    private final Feeds feeds;
    private final DatasetService datasets;
    private final PageJson json;

    FeedPages(Feeds feeds, DatasetService datasets, PageJson json) {
        this.feeds = feeds;
        this.datasets = datasets;
        this.json = json;
    }

    /** A dataset that may list devices. */
    record Choice(long id, String name, List<String> columns) {}

    @GetMapping("/feeds")
    String all(@AuthenticationPrincipal SignedIn person, Model model) {
        model.addAttribute("feeds", feeds.all(person));
        return "feeds";
    }

    @PostMapping("/feeds")
    String make(@RequestParam String name, @AuthenticationPrincipal SignedIn person, RedirectAttributes flash) {
        try {
            Feeds.Made made = feeds.make(name, person);
            flash.addFlashAttribute("token", made.token());
            return "redirect:/feeds/" + made.id();
        } catch (RefusedException refused) {
            flash.addFlashAttribute("refused", refused.getMessage());
            return "redirect:/feeds";
        }
    }

    @GetMapping("/feeds/{id}")
    String feed(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        LiveFeed feed = feeds.needed(id, person);
        model.addAttribute("id", id);
        model.addAttribute("name", feed.getName());
        model.addAttribute(
                "datasetsJson",
                json.of(datasets.descriptions(person).stream()
                        .filter(d -> !d.isLive())
                        .map(d -> new Choice(d.id(), d.name(), d.columnNames()))
                        .toList()));
        return "feed";
    }
}
