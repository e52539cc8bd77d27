package sarnik.app.dashboard;

import static sarnik.language.Language.phrase;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import sarnik.app.dataset.DatasetService;
import sarnik.app.language.SpokenRequests;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Theme;
import sarnik.data.About;
import sarnik.language.Language;

/** Fills the page on which a dashboard is read. */
@Component
public class SheetModel {

    private final DatasetService datasets;
    private final SpokenRequests requests;

    SheetModel(DatasetService datasets, SpokenRequests requests) {
        this.datasets = datasets;
        this.requests = requests;
    }

    /** Goes on in the language of a reader. */
    public void speak(HttpServletRequest request) {
        Language.speak(requests.of(request, null));
    }

    /**
     * Opens what a page shows in the language of its reader, or in that of its author where the reader has chosen none.
     *
     * @param open opens it in the language that is spoken
     */
    public <T> T spoken(HttpServletRequest request, Supplier<T> open, Function<T, Reading> reading) {
        T opened = open.get();
        Language language =
                requests.of(request, reading.apply(opened).dashboard().language());
        if (language == Language.spoken()) return opened;
        Language.speak(language);
        return open.get();
    }

    /** What is told of a dataset, for readers. */
    public record Told(String name, String line, List<String> columns) {}

    /**
     * @param base where the page asks for what it shows
     */
    public void fill(Reading reading, String base, Model model) {
        Dashboard dashboard = reading.dashboard();
        model.addAttribute("id", reading.id());
        model.addAttribute("base", base);
        model.addAttribute("title", dashboard.title());
        model.addAttribute("theme", themeOf(dashboard));
        model.addAttribute("takes", reading.takes());
        model.addAttribute(
                "told",
                dashboard.datasets().stream().flatMap(d -> told(d).stream()).toList());
    }

    /**
     * Fills the page on which it stands twice.
     *
     * @param visual the one visual that stands there; null for all
     * @return the page's name
     */
    public String beside(Reading reading, String base, String visual, Model model) {
        fill(reading, base, model);
        model.addAttribute("visual", reading.dashboard().visuals().containsKey(visual) ? visual : "");
        return "beside";
    }

    static String themeOf(Dashboard dashboard) {
        return (dashboard.theme() == null ? Theme.FIELD : dashboard.theme())
                .name()
                .toLowerCase(Locale.ROOT);
    }

    private Optional<Told> told(long dataset) {
        return datasets.description(dataset)
                .filter(d -> !d.about().isEmpty() || d.isStaying())
                .map(d -> told(d.name(), d.about(), datasets.staysIn(d), d.keptSeconds()));
    }

    /** @param staysIn the database in which its rows stay; null where they are held here */
    private static Told told(String name, About about, String staysIn, int seconds) {
        return new Told(
                name,
                staysIn == null
                        ? about.line()
                        : (about.line() + " "
                                        + phrase(
                                                "Its rows stay in “{0}” and are asked there; an answer is at most {1} seconds old.",
                                                staysIn, seconds))
                                .strip(),
                about.columns().entrySet().stream()
                        .sorted(Map.Entry.comparingByKey())
                        .map(c -> c.getKey()
                                + (c.getValue().unit().isEmpty()
                                        ? ""
                                        : " (" + c.getValue().unit() + ")")
                                + (c.getValue().description().isEmpty()
                                        ? ""
                                        : ": " + c.getValue().description()))
                        .toList());
    }
}
