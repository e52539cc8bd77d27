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
 * @param theme the colours that it wears; null for those of a field sheet
 */
public record Dashboard(
        int schema,
        String title,
        Map<String, Page> pages,
        Map<String, Visual> visuals,
        Map<String, Filter> filters,
        Map<String, Link> links,
        Map<String, Parameter> parameters,
        Theme theme)
        implements Wires {

    public Dashboard {
        if (parameters == null) parameters = Map.of();
    }

    /** The grid's columns. */
    public static final int COLUMNS = 24;

    /**
     * @param title what the page is called; may be empty
     * @param order its place among the pages
     * @param hidden whether readers find it only by a button or an address that leads to it; null for no
     */
    public record Page(String title, int order, Boolean hidden) {

        /** A page that is shown. */
        public Page(String title, int order) {
            this(title, order, null);
        }

        public boolean isHidden() {
            return Boolean.TRUE.equals(hidden);
        }
    }

    /** Ids of the pages in their order. */
    @Override
    public List<String> pageIds() {
        return pages.entrySet().stream()
                .sorted(Map.Entry.comparingByValue(Comparator.comparingInt(Page::order)))
                .map(Map.Entry::getKey)
                .toList();
    }

    /** What a page is called: by its title, or by its place among the pages. */
    public String pageName(String id) {
        Page page = pages.get(id);
        return page.title() == null || page.title().isBlank()
                ? "Page " + (pageIds().indexOf(id) + 1)
                : page.title();
    }

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
                controls,
                pageIds().stream()
                        .map(id -> new Parts.Part(id, pageName(id), false))
                        .toList());
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
        return pageIds().get(0);
    }
}
