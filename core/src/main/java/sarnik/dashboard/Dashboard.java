package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.brief.Parts;
import sarnik.data.SheetFormula;
import sarnik.narrow.Filter;
import sarnik.narrow.Link;
import sarnik.narrow.Parameter;
import sarnik.narrow.Wires;
import sarnik.query.Summary;
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
 * @param own colours of its author's own, which it wears instead; null for none
 * @param finishes how visuals and pages are dressed, by their ids, and all pages by {@link #ALL_PAGES}
 * @param groups visuals that move, are copied and hidden as one, by id
 * @param names what addresses call filters, parameters, visuals and pages, by their ids
 * @param formulas measures of its own, by id
 * @param language in which it is handed over, such as {@code es}; null for that of each reader
 * @param texts what its author has written in other languages, by language and by where it stands
 */
public record Dashboard(
        int schema,
        String title,
        Map<String, Page> pages,
        Map<String, Visual> visuals,
        Map<String, Filter> filters,
        Map<String, Link> links,
        Map<String, Parameter> parameters,
        Theme theme,
        OwnTheme own,
        Map<String, Finish> finishes,
        Map<String, Group> groups,
        Map<String, String> names,
        Map<String, SheetFormula> formulas,
        String language,
        Map<String, Map<String, AuthorTexts.Said>> texts)
        implements Wires {

    public Dashboard {
        if (parameters == null) parameters = Map.of();
        if (finishes == null) finishes = Map.of();
        if (groups == null) groups = Map.of();
        if (names == null) names = Map.of();
        if (formulas == null) formulas = Map.of();
        if (texts == null) texts = Map.of();
    }

    /** The same with other visuals and filters. */
    Dashboard with(Map<String, Visual> others, Map<String, Filter> controls) {
        return new Dashboard(
                schema,
                title,
                pages,
                others,
                controls,
                links,
                parameters,
                theme,
                own,
                finishes,
                groups,
                names,
                formulas,
                language,
                texts);
    }

    /** The same without groups. */
    Dashboard ungrouped() {
        return new Dashboard(
                schema,
                title,
                pages,
                visuals,
                filters,
                links,
                parameters,
                theme,
                own,
                finishes,
                Map.of(),
                names,
                formulas,
                language,
                texts);
    }

    /** In the place of an id among the finishes: all pages. */
    public static final String ALL_PAGES = "all";

    /**
     * Visuals of one page that belong together.
     *
     * @param visuals their ids
     * @param swap whether they stand in one place, of which one is shown at a time; null for no
     * @param by id of the parameter that says which of them is shown, by its number; null where the reader turns it by
     *     a switch of its own
     */
    public record Group(List<String> visuals, Boolean swap, String by) {

        public boolean swaps() {
            return Boolean.TRUE.equals(swap);
        }
    }

    /** The grid's columns. */
    public static final int COLUMNS = 24;

    /**
     * @param title what the page is called; may be empty
     * @param order its place among the pages
     * @param hidden whether readers find it only by a button or an address that leads to it; null for no
     * @param under id of the page under which its title stands; null for none
     * @param size how large it is drawn; null to fill the width
     * @param phone its visuals as they stand on a phone, one below the other; null for reading order
     */
    public record Page(String title, int order, Boolean hidden, String under, Size size, List<Spot> phone) {

        /** A page that is shown. */
        public Page(String title, int order) {
            this(title, order, null, null, null, null);
        }

        public boolean isHidden() {
            return Boolean.TRUE.equals(hidden);
        }
    }

    /**
     * How large a page is drawn.
     *
     * @param fit what it fills
     * @param width of a page that is as wide everywhere, in pixels; null else
     * @param trimmed whether the bare cells around what stands on it are cut away; null for no
     */
    public record Size(Fit fit, Integer width, Boolean trimmed) {}

    /** What a page fills. */
    public enum Fit {
        WIDTH,
        WINDOW,
        FIXED
    }

    /**
     * Where a visual stands on a phone: by its place in the list.
     *
     * @param visual its id
     * @param rows how many rows of the grid it is high; null for what its kind takes
     * @param left whether it is left out there; null for no
     */
    public record Spot(String visual, Integer rows, Boolean left) {}

    /** Ids of the pages in their order, each followed by those under it. */
    @Override
    public List<String> pageIds() {
        List<String> inOrder = pages.entrySet().stream()
                .sorted(Map.Entry.comparingByValue(Comparator.comparingInt(Page::order)))
                .map(Map.Entry::getKey)
                .toList();
        List<String> nested = new ArrayList<>();
        for (String id : inOrder) {
            if (above(id) != null) continue;
            nested.add(id);
            inOrder.stream().filter(other -> id.equals(above(other))).forEach(nested::add);
        }
        return nested;
    }

    /**
     * Id of the page under which a page's title stands; null where there is none, or it stands under another itself.
     */
    public String above(String page) {
        String under = pages.get(page).under();
        return under == null
                        || under.equals(page)
                        || !pages.containsKey(under)
                        || pages.get(under).under() != null
                ? null
                : under;
    }

    /** The visuals of a page as they stand on a phone; those of which nothing is said come last, in reading order. */
    public List<Spot> onPhone(String page) {
        List<Spot> spots = new ArrayList<>();
        List<Spot> said = pages.get(page).phone();
        Set<String> known = new HashSet<>();
        for (Spot spot : said == null ? List.<Spot>of() : said) {
            Visual visual = visuals.get(spot.visual());
            if (visual != null && visual.page().equals(page) && known.add(spot.visual())) spots.add(spot);
        }
        readingOrder(page).stream()
                .filter(id -> !known.contains(id))
                .forEach(id -> spots.add(new Spot(id, null, null)));
        return spots;
    }

    /** Ids of the visuals of a page from the top, and from the left where they stand side by side. */
    public List<String> readingOrder(String page) {
        return visuals.entrySet().stream()
                .filter(v -> v.getValue().page().equals(page))
                .sorted(Comparator.comparing((Map.Entry<String, Visual> v) ->
                                v.getValue().at().y())
                        .thenComparing(v -> v.getValue().at().x())
                        .thenComparing(Map.Entry::getKey))
                .map(Map.Entry::getKey)
                .toList();
    }

    /** How a visual is dressed, with what is said of its page and of all. */
    public Finish finishOf(String visual) {
        return finish(visual)
                .over(finish(visuals.get(visual).page()))
                .over(finish(ALL_PAGES))
                .over(Finish.USUAL);
    }

    /** What is said of a part itself. */
    public Finish finish(String id) {
        return finishes.getOrDefault(id, Finish.NOTHING);
    }

    /** Ids of the visuals of its page that belong together with one, itself among them. */
    public List<String> together(String visual) {
        return groups.values().stream()
                .map(Group::visuals)
                .filter(of -> of.contains(visual))
                .findFirst()
                .map(of -> of.stream()
                        .filter(id -> visuals.containsKey(id)
                                && visuals.get(id)
                                        .page()
                                        .equals(visuals.get(visual).page()))
                        .toList())
                .orElse(List.of(visual));
    }

    /** Ids of the visuals that stand in one place with a visual, itself among them. */
    List<String> inOnePlace(String visual) {
        return groups.values().stream()
                .filter(group -> group.swaps() && group.visuals().contains(visual))
                .findFirst()
                .map(group -> together(visual))
                .orElse(List.of(visual));
    }

    @Override
    public boolean asksFor(String visual, SheetFormula formula) {
        Visual of = visuals.get(visual);
        return Kinds.ALL.of(of).datasets(of).contains(formula.dataset())
                // Records say all of their parts, also in the compiled core, which reads no JSON of them.
                && of.toString().contains("summary=" + Summary.FORMULA + ", column=" + formula.name());
    }

    @Override
    public Map<String, List<String>> swaps() {
        Map<String, List<String>> swaps = new LinkedHashMap<>();
        groups.forEach((id, group) -> {
            if (group.swaps()) swaps.put(id, group.visuals());
        });
        return swaps;
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
                .filter(f ->
                        f.getValue().page().equals(page) || f.getValue().how().reachesAllPages())
                .sorted(Map.Entry.comparingByValue(Comparator.comparingInt(Filter::order)))
                .map(Map.Entry::getKey)
                .toList();
    }

    /** Ids of the filters that stand on a page, in their order. */
    public List<String> filtersOn(String page) {
        return filtersOf(page).stream()
                .filter(id -> filters.get(id).page().equals(page))
                .toList();
    }

    /** Ids of the datasets that visuals and filters show, each once. */
    public Set<Long> datasets() {
        Set<Long> ids = new LinkedHashSet<>();
        visuals.values().forEach(visual -> ids.addAll(Kinds.ALL.of(visual).datasets(visual)));
        filters.values().forEach(filter -> ids.add(filter.dataset()));
        formulas.values().forEach(formula -> {
            ids.add(formula.dataset());
            if (formula.reference() != null) ids.add(formula.reference().dataset());
        });
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
                Kinds.ALL.of(visual).hasKey(visual),
                Kinds.ALL.of(visual).framed());
    }

    @Override
    public String firstPage() {
        return pageIds().get(0);
    }
}
