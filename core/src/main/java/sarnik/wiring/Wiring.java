package sarnik.wiring;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.dashboard.Unreached;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.SheetFormula;
import sarnik.data.TieGraph;
import sarnik.narrow.Filter;
import sarnik.narrow.Link;
import sarnik.narrow.Narrowing;
import sarnik.narrow.Parameter;
import sarnik.visual.Source;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/**
 * What of a dashboard reaches what: its datasets, their ties, its filters, parameters, visuals, links, shared keys and
 * pages.
 *
 * @param parts what is wired
 * @param wires from one part to another
 */
public record Wiring(List<Part> parts, List<Wire> wires) {

    /** What a part is. */
    public enum Sort {
        DATASET,
        KEY,
        FILTER,
        PARAMETER,
        /** A measure of the dashboard's own. */
        MEASURE,
        VISUAL,
        PAGE
    }

    /**
     * @param id of the part in the document; of a dataset {@code d} and its number, of a shared key {@code key} and its
     *     name
     * @param words what people call it
     * @param page id of the page that it stands on; empty for what stands on none
     */
    public record Part(String id, Sort sort, String words, String page) {}

    /** What a wire is. */
    public enum Course {
        /** Two datasets are tied. */
        TIE,
        /** A visual, a filter or a player rests on a dataset. */
        RESTS,
        /** A filter narrows a visual. */
        NARROWS,
        /** What is done on a visual reaches another, a parameter, a filter or a page. */
        LINK,
        /** A parameter drives a visual or a filter. */
        DRIVES,
        /** A visual wears a shared key. */
        WEARS,
        /** A filter depends on another; a visual is about another. */
        DEPENDS
    }

    /**
     * @param words what the wire says: "equal town", "is narrowed when a place is picked"
     * @param id of the link; empty for others
     */
    public record Wire(String from, String to, Course course, String words, String id) {}

    /** Draws up what is wired in a dashboard. */
    public static Wiring of(Dashboard dashboard, Datasets datasets) {
        return new Drawn(dashboard, datasets).wiring();
    }

    private static String dataset(long id) {
        return "d" + id;
    }

    private static final class Drawn {
        private final Dashboard dashboard;
        private final Datasets datasets;
        private final TieGraph graph;
        private final Map<String, Part> parts = new LinkedHashMap<>();
        private final Set<Wire> wires = new LinkedHashSet<>();

        Drawn(Dashboard dashboard, Datasets datasets) {
            this.dashboard = dashboard;
            this.datasets = datasets;
            this.graph = new TieGraph(dashboard.datasets(), datasets);
        }

        Wiring wiring() {
            for (long id : dashboard.datasets())
                part(
                        dataset(id),
                        Sort.DATASET,
                        datasets.ready(id).map(LoadedDataset::name).orElse("a dataset that cannot be asked"),
                        "");
            dashboard.pageIds().forEach(id -> part(id, Sort.PAGE, dashboard.pageName(id), ""));
            dashboard.visuals().forEach(this::visual);
            dashboard.filters().forEach(this::filter);
            dashboard.parameters().forEach(this::parameter);
            dashboard.formulas().forEach(this::measure);
            dashboard.links().forEach(this::link);
            for (long id : dashboard.datasets()) ties(id);
            return new Wiring(List.copyOf(parts.values()), List.copyOf(wires));
        }

        private void part(String id, Sort sort, String words, String page) {
            parts.putIfAbsent(id, new Part(id, sort, words, page));
        }

        private void wire(String from, String to, Course course, String words, String id) {
            if (parts.containsKey(from) && parts.containsKey(to)) wires.add(new Wire(from, to, course, words, id));
        }

        private <V extends Visual> void visual(String id, V visual) {
            VisualKind<V> kind = Kinds.ALL.of(visual);
            part(id, Sort.VISUAL, called(visual), visual.page());
            for (long dataset : kind.datasets(visual)) wire(dataset(dataset), id, Course.RESTS, "rests on it", "");
            for (String key : Keys.worn(visual)) {
                part("key " + key, Sort.KEY, key, "");
                wire("key " + key, id, Course.WEARS, "wears it", "");
            }
        }

        private void filter(String id, Filter filter) {
            part(id, Sort.FILTER, filter.words(), filter.how().reachesAllPages() ? "" : filter.page());
            wire(dataset(filter.dataset()), id, Course.RESTS, "is about it", "");
            for (String other : filter.how().dependsOn()) {
                Filter of = dashboard.filters().get(other);
                if (of == null) continue;
                part(other, Sort.FILTER, of.words(), of.page());
                wire(other, id, Course.DEPENDS, "leaves what it offers", "");
            }
            for (String visual : reached(dashboard, datasets, graph, filter))
                wire(id, visual, Course.NARROWS, "is narrowed", "");
        }

        private void parameter(String id, Parameter parameter) {
            part(id, Sort.PARAMETER, parameter.name(), "");
            Set<String> driven = new LinkedHashSet<>(Narrowing.touched(dashboard, Kinds.ALL, id));
            driven.forEach(other -> wire(id, other, Course.DRIVES, "follows it", ""));
            if (parameter.at() != null)
                parameter.at().forEach(at -> wire(id, at.split("/")[2], Course.DRIVES, "has it in its sentence", ""));
        }

        private void measure(String id, SheetFormula formula) {
            part(id, Sort.MEASURE, formula.name(), "");
            wire(dataset(formula.dataset()), id, Course.RESTS, "is summed up", "");
            if (formula.reference() != null)
                wire(dataset(formula.reference().dataset()), id, Course.RESTS, "is held against it", "");
            dashboard.parameters().forEach((other, parameter) -> {
                if (formula.names(other) || formula.names(parameter.name()))
                    wire(other, id, Course.DRIVES, "stands in it", "");
            });
            for (String visual : dashboard.visuals().keySet())
                if (dashboard.asksFor(visual, formula)) wire(id, visual, Course.RESTS, "shows it", "");
        }

        private void link(String id, Link link) {
            String words = words(link);
            if (link.part() != null) wire(link.from(), link.part(), Course.LINK, words, id);
            else if (link.dashboard() == null)
                for (String to : targets(dashboard, link)) wire(link.from(), to, Course.LINK, words, id);
        }

        private void ties(long id) {
            for (TieGraph.Hop hop : graph.from(id)) {
                if (hop.from() > hop.to()) continue;
                datasets.ready(hop.to()).ifPresent(to -> part(dataset(hop.to()), Sort.DATASET, to.name(), ""));
                String words = hop.words();
                wire(dataset(hop.from()), dataset(hop.to()), Course.TIE, words, "");
            }
        }
    }

    static <V extends Visual> String called(V visual) {
        return visual.title() != null && !visual.title().isBlank()
                ? visual.title()
                : Kinds.ALL.of(visual).words(visual);
    }

    /** Ids of the visuals that a link is about. */
    static List<String> targets(Dashboard dashboard, Link link) {
        Visual from = dashboard.visuals().get(link.from());
        List<String> targets = new ArrayList<>();
        dashboard.visuals().forEach((id, visual) -> {
            if (link.reaches(id)
                    && (link.to() != null || from != null && visual.page().equals(from.page()))) targets.add(id);
        });
        return targets;
    }

    /** "is narrowed when something is picked" */
    static String words(Link link) {
        String on = switch (link.gesture()) {
            case PICKED -> "when something is picked";
            case HOVERED -> "while the pointer rests on something";
            case FRAMED -> "when the map is moved";
            case SPANNED -> "when a stretch is drawn";
            case OPENED -> "when something is opened";
        };
        String effect = switch (link.follows()) {
            case NARROW -> "is narrowed ";
            case LIGHT -> "is lit ";
            case FLY -> "flies there ";
            case OPEN -> "slides in ";
            case SET -> "is set ";
            case GO -> "is gone to ";
            case BESIDE -> "slides in ";
        };
        return effect + on;
    }

    /** Ids of the visuals whose rows follow a filter. */
    static List<String> reached(Dashboard dashboard, Datasets datasets, TieGraph graph, Filter filter) {
        List<String> reached = new ArrayList<>();
        dashboard.visuals().forEach((id, visual) -> {
            if (!filter.how().reachesAllPages() && !visual.page().equals(filter.page())) return;
            boolean any = rests(visual).stream().anyMatch(dataset -> follows(datasets, graph, filter, dataset));
            if (any) reached.add(id);
        });
        return reached;
    }

    static <V extends Visual> Set<Long> rests(V visual) {
        return Kinds.ALL.of(visual).datasets(visual);
    }

    private static boolean follows(Datasets datasets, TieGraph graph, Filter filter, long dataset) {
        if (dataset == filter.dataset()) return true;
        if (filter.how().goesAcross() && graph.way(filter.dataset(), dataset).isPresent()) return true;
        if (filter.column() == null || !Kinds.ALL.of(filter).isOfColumn(filter)) return false;
        return !Unreached.is(datasets, graph, new Source(filter.dataset(), filter.column()), dataset, false);
    }
}
