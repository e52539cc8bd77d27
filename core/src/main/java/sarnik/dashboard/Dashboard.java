package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.brief.Parts;
import sarnik.narrow.Filter;
import sarnik.narrow.Link;
import sarnik.narrow.Parameter;
import sarnik.narrow.Wires;
import sarnik.visual.Visual;

/**
 * A dashboard document. Its parts are kept under lasting ids, not in lists, so that two people's edits meet only where
 * they change the same thing; what stands in an order says so itself.
 *
 * @param schema version of the document's form, 2
 * @param title the question that the dashboard answers
 * @param pages pages by id
 * @param visuals visuals by id
 * @param filters filters by id
 * @param links links by id
 * @param parameters parameters by id; empty where the document has none
 */
public record Dashboard(
        int schema,
        String title,
        Map<String, Page> pages,
        Map<String, Visual> visuals,
        Map<String, Filter> filters,
        Map<String, Link> links,
        Map<String, Parameter> parameters)
        implements Wires {

    public Dashboard {
        if (parameters == null) parameters = Map.of();
    }

    /** The grid's columns. */
    public static final int COLUMNS = 24;

    /**
     * @param title what the page is called; may be empty
     * @param order its place among the pages
     */
    public record Page(String title, int order) {}

    @Override
    public List<String> filtersOf(String page) {
        return filters.entrySet().stream()
                .filter(f -> f.getValue().page().equals(page))
                .sorted(Map.Entry.comparingByValue(Comparator.comparingInt(Filter::order)))
                .map(Map.Entry::getKey)
                .toList();
    }

    /** Ids of the datasets that visuals and filters show, each once. */
    public Set<Long> datasets() {
        Set<Long> ids = new LinkedHashSet<>();
        visuals.values().forEach(visual -> ids.addAll(Kinds.ALL.of(visual).datasets(visual)));
        filters.values().forEach(filter -> ids.add(filter.dataset()));
        return ids;
    }

    /** What of it another part can be about. */
    public Parts parts() {
        Set<String> held = new HashSet<>();
        visuals.values().forEach(visual -> held.addAll(Kinds.ALL.of(visual).holds(visual)));
        List<Parts.Part> controls = new ArrayList<>();
        filters.forEach((id, filter) -> controls.add(new Parts.Part(id, filter.words(), held.contains(id))));
        parameters.forEach((id, parameter) -> controls.add(new Parts.Part(id, parameter.name(), held.contains(id))));
        return new Parts(
                visuals.entrySet().stream()
                        .map(v -> part(v.getKey(), v.getValue()))
                        .toList(),
                controls);
    }

    private static <V extends Visual> Parts.Part part(String id, V visual) {
        boolean titled = visual.title() != null && !visual.title().isBlank();
        return new Parts.Part(
                id,
                titled ? visual.title() : Kinds.ALL.of(visual).words(visual),
                Kinds.ALL.of(visual).hasKey(visual));
    }

    @Override
    public String firstPage() {
        return pages.entrySet().stream()
                .min(Map.Entry.comparingByValue(Comparator.comparingInt(Page::order)))
                .map(Map.Entry::getKey)
                .orElseThrow();
    }
}
