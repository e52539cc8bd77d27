package sarnik.dashboard;

import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.query.Rank;

/**
 * A dashboard document. Its parts are kept under lasting ids, not in lists, so that two people's edits meet only where
 * they change the same thing; what stands in an order says so itself.
 *
 * @param schema version of the document's form, 1
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
        Map<String, Parameter> parameters) {

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

    /** Where a visual stands on the page's grid, in cells. */
    public record Box(int x, int y, int w, int h) {}

    /**
     * A standing rule of a visual: only rows whose column has one of these values.
     */
    public record Rule(String column, List<String> values) {}

    /**
     * Which bars are kept.
     *
     * @param end the most or the least
     * @param count how many
     * @param held true for "of all" (ranked before links narrow), false for "of what is picked"
     */
    public record Ranking(Rank.End end, int count, boolean held) {}

    /**
     * When something is picked on one visual, others are narrowed.
     *
     * @param from id of the visual on which is picked
     * @param to ids of the visuals that are narrowed; null for all others
     */
    public record Link(String from, List<String> to) {

        /** Whether the link reaches the visual of this id. */
        public boolean reaches(String visual) {
            return !visual.equals(from) && (to == null || to.contains(visual));
        }
    }

    /** Ids of the filters of a page in their order. */
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
        visuals.values().forEach(visual -> {
            if (visual instanceof Visual.OfMap map) map.layers().values().forEach(layer -> ids.add(layer.dataset()));
            else if (visual instanceof Visual.OfBars bars) ids.add(bars.dataset());
            else ids.add(((Visual.OfFigure) visual).dataset());
        });
        filters.values().forEach(filter -> ids.add(filter.dataset()));
        return ids;
    }

    /** Id of the first page. */
    public String firstPage() {
        return pages.entrySet().stream()
                .min(Map.Entry.comparingByValue(Comparator.comparingInt(Page::order)))
                .map(Map.Entry::getKey)
                .orElseThrow();
    }
}
