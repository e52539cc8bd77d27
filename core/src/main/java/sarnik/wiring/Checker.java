package sarnik.wiring;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import sarnik.brief.Choices;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DocumentJson;
import sarnik.dashboard.Kinds;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.Unreached;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Ranking;
import sarnik.data.Rule;
import sarnik.data.SheetFormula;
import sarnik.data.TieGraph;
import sarnik.data.Words;
import sarnik.narrow.Filter;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.narrow.Link;
import sarnik.narrow.Link.Effect;
import sarnik.narrow.Link.Gesture;
import sarnik.narrow.Narrowing;
import sarnik.narrow.Parameter;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.query.Stage;
import sarnik.state.ReaderState;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.visual.Drawing;
import sarnik.visual.Ingredients;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Source;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;
import sarnik.wiring.Finding.Kind;

/**
 * Looks through a dashboard for what its readers would run into: links and filters that reach nothing, ties whose rows
 * find few partners, loops, ranks that a pick empties, what nobody uses or gets to, what no longer fits its data.
 */
public final class Checker {

    /** Ties of which fewer rows than this have a partner are told. */
    private static final double ENOUGH = 0.95;

    private static final int NAMED = 5;

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final QueryEngine engine;
    private final FilterScene scene;
    private final TieGraph graph;
    private final List<Finding> found = new ArrayList<>();

    private Checker(Dashboard dashboard, Datasets datasets, QueryEngine engine, FilterScene scene) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.engine = engine;
        this.scene = scene;
        this.graph = new TieGraph(dashboard.datasets(), datasets);
    }

    /**
     * Looks through a dashboard.
     *
     * @param drawer draws it as a reader sees it who has chosen nothing
     * @param scene the day that relative periods are counted from, and what answers
     */
    public static List<Finding> check(
            Dashboard dashboard, Datasets datasets, QueryEngine engine, FilterScene scene, PageDrawer drawer) {
        Checker checker = new Checker(dashboard, datasets, engine, scene);
        checker.misfits(drawer);
        dashboard.links().forEach(checker::link);
        dashboard.filters().forEach(checker::filter);
        checker.ties();
        checker.loops();
        dashboard.visuals().forEach(checker::visual);
        checker.twice();
        dashboard.parameters().forEach(checker::parameter);
        dashboard.formulas().forEach(checker::formula);
        checker.keys();
        checker.pages();
        checker.theme();
        return List.copyOf(checker.found);
    }

    private void say(Kind kind, String about, String sentence) {
        found.add(Finding.of(kind, about, sentence));
    }

    private void mend(Kind kind, String about, String sentence, String press, Map<String, Object> op) {
        found.add(Finding.mended(kind, about, sentence, press, op));
    }

    private String name(String id) {
        Visual visual = dashboard.visuals().get(id);
        return visual == null ? "a visual that has gone" : "“" + Wiring.called(visual) + "”";
    }

    // --- what no longer fits -----------------------------------------------------------------------

    private void misfits(PageDrawer drawer) {
        Map<String, Drawing> drawn = drawer.draw(dashboard.visuals().keySet(), () -> {});
        drawn.forEach((id, drawing) -> {
            // What waits for a choice is no misfit.
            if (drawing instanceof MisfitDrawing misfit
                    && !misfit.why().startsWith("Pick something")
                    && !misfit.why().startsWith("Choose “"))
                say(Kind.MISFIT, id, name(id) + " cannot be shown: " + misfit.why());
        });
        dashboard.filters().forEach((id, filter) -> {
            FilterOffer offer = FilterOffer.of(filter, scene, Kinds.ALL);
            if (offer.misfit() != null)
                mend(
                        Kind.MISFIT,
                        id,
                        "The filter " + filter.words() + " offers nothing: " + offer.misfit(),
                        "Take the filter away",
                        Choices.map("op", "remove", "path", "/filters/" + id));
            else if (filter.how().first() != null
                    && Kinds.ALL.of(filter).read(filter, filter.how().first()).isEmpty())
                mend(
                        Kind.MISFIT,
                        id,
                        "The filter " + filter.words() + " is to keep “"
                                + filter.how().first() + "” at first, which it cannot read, so it keeps everything.",
                        "Begin with everything",
                        Choices.map("op", "remove", "path", "/filters/" + id + "/terms/first"));
        });
    }

    // --- links and filters -------------------------------------------------------------------------

    private void link(String id, Link link) {
        String path = "/links/" + id;
        Map<String, Object> away = Choices.map("op", "remove", "path", path);
        Visual from = dashboard.visuals().get(link.from());
        if (from == null) {
            mend(Kind.REACHES_NOTHING, "", "A link begins at a visual that has gone.", "Take the link away", away);
            return;
        }
        Optional<Source> source = picks(from);
        if (source.isEmpty()) {
            mend(
                    Kind.REACHES_NOTHING,
                    link.from(),
                    "Nothing can be picked on " + name(link.from()) + ", so its link does nothing.",
                    "Take the link away",
                    away);
            return;
        }
        if (link.part() != null && !isThere(link.part())) {
            mend(
                    Kind.REACHES_NOTHING,
                    link.from(),
                    "A link of " + name(link.from()) + " leads to a part that has gone.",
                    "Take the link away",
                    away);
            return;
        }
        if (link.leadsToPage()
                && dashboard.pages().containsKey(link.part())
                && dashboard.visuals().values().stream().noneMatch(v -> v.page().equals(link.part())))
            say(
                    Kind.REACHES_NOTHING,
                    link.from(),
                    "A link of " + name(link.from()) + " goes to the page “" + dashboard.pageName(link.part())
                            + "”, on which nothing stands.");
        if (link.follows() == Effect.NARROW) narrowing(id, link, source.get(), away);
    }

    private void narrowing(String id, Link link, Source source, Map<String, Object> away) {
        List<String> targets = Wiring.targets(dashboard, link);
        Set<Long> lost = new LinkedHashSet<>();
        boolean any = false;
        boolean acrossWould = false;
        for (String target : targets)
            for (long dataset : Wiring.rests(dashboard.visuals().get(target))) {
                if (!Unreached.is(datasets, graph, source, dataset, link.goesAcross())) any = true;
                else {
                    lost.add(dataset);
                    acrossWould |= graph.way(source.dataset(), dataset).isPresent();
                }
            }
        if (lost.isEmpty() && any) return;
        if (lost.isEmpty()) {
            mend(
                    Kind.REACHES_NOTHING,
                    link.from(),
                    "The link of " + name(link.from()) + " reaches no visual that rests on rows.",
                    "Take the link away",
                    away);
            return;
        }
        String names = Words.list(lost.stream().map(this::dataset).toList(), "and");
        String sentence = any
                ? "What is picked on " + name(link.from()) + " leaves rows of " + names
                        + " as they are, because no tie of its column leads there."
                : "What is picked on " + name(link.from()) + " changes nothing: no tie leads from its column to "
                        + names + ".";
        if (acrossWould)
            mend(
                    Kind.REACHES_NOTHING,
                    link.from(),
                    sentence,
                    "Let rows follow that have a partner",
                    Choices.map("op", "add", "path", "/links/" + id + "/across", "value", true));
        else if (any) say(Kind.REACHES_NOTHING, link.from(), sentence);
        else mend(Kind.REACHES_NOTHING, link.from(), sentence, "Take the link away", away);
    }

    private void filter(String id, Filter filter) {
        // Of one that no longer fits its data that is said already.
        boolean fits = FilterOffer.of(filter, scene, Kinds.ALL).misfit() == null;
        if (fits && Wiring.reached(dashboard, datasets, graph, filter).isEmpty())
            mend(
                    Kind.REACHES_NOTHING,
                    id,
                    "The filter " + filter.words() + " narrows no visual"
                            + (filter.how().reachesAllPages() ? "." : " of its page."),
                    "Take the filter away",
                    Choices.map("op", "remove", "path", "/filters/" + id));
        for (String other : filter.how().dependsOn()) {
            Filter of = dashboard.filters().get(other);
            if (of != null && of.how().dependsOn().contains(id) && id.compareTo(other) < 0)
                mend(
                        Kind.LOOP,
                        id,
                        "The filters " + filter.words() + " and " + of.words()
                                + " each offer only what the other leaves: once both are turned neither can be turned on.",
                        "Let " + filter.words() + " offer everything",
                        Choices.map("op", "remove", "path", "/filters/" + id + "/terms/under"));
        }
    }

    // --- ties --------------------------------------------------------------------------------------

    private void ties() {
        Set<TieGraph.Hop> told = new HashSet<>();
        for (long id : dashboard.datasets())
            for (TieGraph.Hop hop : graph.from(id)) {
                if (hop.column().equals(PlacedTable.PLACE)
                        || !told.add(hop)
                        || !dashboard.datasets().contains(hop.to())) continue;
                double share = graph.partners(hop);
                if (share >= ENOUGH) continue;
                LoadedDataset to = datasets.get(hop.to());
                long without = Math.round((1 - share) * to.table().rows());
                say(
                        Kind.FEW_PARTNERS,
                        "d" + hop.to(),
                        "%,d of %,d rows of %s find no partner in %s by %s%s; what is picked there leaves them out."
                                .formatted(
                                        without,
                                        to.table().rows(),
                                        to.name(),
                                        dataset(hop.from()),
                                        hop.isEqual()
                                                ? ColumnWords.of(hop.equals()) + " = " + ColumnWords.of(hop.column())
                                                : hop.words(),
                                        examples(hop)));
            }
    }

    private String examples(TieGraph.Hop hop) {
        if (!hop.isEqual()) return "";
        Column mine = datasets.get(hop.to()).table().column(hop.equals());
        Column theirs = datasets.get(hop.from()).table().column(hop.column());
        if (!(mine instanceof CodedColumn own) || !(theirs instanceof CodedColumn other)) return "";
        Set<String> known = new HashSet<>(other.dictionary());
        List<String> without = own.dictionary().stream()
                .filter(v -> !known.contains(v))
                .sorted()
                .limit(NAMED)
                .toList();
        return without.isEmpty() ? "" : ", such as " + Words.list(without, "and");
    }

    // --- loops -------------------------------------------------------------------------------------

    private void loops() {
        // A pick that sets a filter by which its own visual is narrowed leaves nothing else to be picked.
        dashboard.links().forEach((id, link) -> {
            if (link.follows() != Effect.SET || !dashboard.filters().containsKey(link.part())) return;
            Filter filter = dashboard.filters().get(link.part());
            if (Wiring.reached(dashboard, datasets, graph, filter).contains(link.from()))
                say(
                        Kind.LOOP,
                        link.from(),
                        "Picking on " + name(link.from()) + " sets the filter " + filter.words()
                                + ", which narrows " + name(link.from())
                                + " itself: after the first pick nothing else is left to be picked there.");
        });
        Map<String, Set<String>> goes = new HashMap<>();
        dashboard.links().values().forEach(link -> {
            Visual from = dashboard.visuals().get(link.from());
            if (from != null && link.follows() == Effect.GO && link.part() != null && link.gesture() == Gesture.PICKED)
                goes.computeIfAbsent(from.page(), p -> new TreeSet<>()).add(link.part());
        });
        Set<Set<String>> told = new HashSet<>();
        for (String page : goes.keySet()) {
            Set<String> around = around(goes, page);
            if (around.contains(page) && told.add(new TreeSet<>(around)))
                say(
                        Kind.LOOP,
                        page,
                        "Picking goes around in a circle: "
                                + Words.list(
                                        around.stream()
                                                .filter(dashboard.pages()::containsKey)
                                                .map(p -> "“" + dashboard.pageName(p) + "”")
                                                .toList(),
                                        "and")
                                + " lead to each other by a press. Let one of them be gone to when something is opened.");
        }
    }

    private static Set<String> around(Map<String, Set<String>> goes, String page) {
        Set<String> seen = new TreeSet<>();
        Deque<String> open = new ArrayDeque<>(goes.get(page));
        while (!open.isEmpty()) {
            String next = open.poll();
            if (seen.add(next)) open.addAll(goes.getOrDefault(next, Set.of()));
        }
        return seen;
    }

    // --- visuals -----------------------------------------------------------------------------------

    private <V extends Visual> void visual(String id, V visual) {
        VisualKind<V> kind = Kinds.ALL.of(visual);
        Ranking rank = kind.ingredients(visual).rank();
        if (rank != null && rank.held() && isNarrowed(id, visual))
            say(
                    Kind.RANK_AND_FILTER,
                    id,
                    name(id) + " ranks the whole and is then narrowed by picks: under a pick it may show fewer than "
                            + Choices.count(rank.count())
                            + ", or none. Rank what is picked instead, if that is not what it is to say.");
        for (Rule rule : kind.rules(visual)) noRow(id, visual, rule);
        // Words and pictures speak for themselves.
        if (kind.ingredients(visual).equals(Ingredients.NONE)
                && kind.picks(visual).isEmpty()) return;
        if (visual.title() == null || visual.title().isBlank())
            mend(
                    Kind.NO_LABEL,
                    id,
                    name(id) + " has no title, so screen readers call it by its kind alone.",
                    "Title it “" + capital(kind.words(visual)) + "”",
                    Choices.map(
                            "op", "add", "path", "/visuals/" + id + "/title", "value", capital(kind.words(visual))));
    }

    private static String capital(String words) {
        String plain = words.startsWith("the ") ? words.substring("the ".length()) : words;
        return plain.isEmpty() ? words : Character.toUpperCase(plain.charAt(0)) + plain.substring(1);
    }

    private boolean isNarrowed(String id, Visual visual) {
        return dashboard.links().values().stream()
                .anyMatch(link -> link.follows() == Effect.NARROW
                        && Wiring.targets(dashboard, link).contains(id)
                        && dashboard.visuals().containsKey(link.from())
                        && picks(dashboard.visuals().get(link.from()))
                                .filter(source -> Wiring.rests(visual).stream()
                                        .anyMatch(d -> !Unreached.is(datasets, graph, source, d, link.goesAcross())))
                                .isPresent());
    }

    private <V extends Visual> void noRow(String id, V visual, Rule rule) {
        for (long of : Wiring.rests(visual)) {
            LoadedDataset dataset = datasets.ready(of).orElse(null);
            if (dataset == null
                    || rule.column() != null
                            && dataset.table().find(rule.column()).isEmpty()) continue;
            try {
                List<Stage> stages = new ArrayList<>(dataset.rules());
                stages.addAll(rule.stages(dataset, scene.today(), parameters()));
                double rows = dataset.answer(engine, Query.of(stages, List.of(), List.of(Measure.ROWS)))
                        .value(0, 0);
                if (rows == 0)
                    say(
                            Kind.NO_ROW,
                            id,
                            "The rule of " + name(id) + ", only where " + rule.words() + ", leaves no row of "
                                    + dataset.name() + ".");
                return;
            } catch (MisfitException | QueryException unfit) {
                // Said as a misfit.
                return;
            }
        }
    }

    private Map<String, Object> parameters() {
        return Narrowing.parameters(dashboard, ReaderState.NOTHING);
    }

    private static <V extends Visual> Optional<Source> picks(V visual) {
        return Kinds.ALL.of(visual).picks(visual);
    }

    // --- what stands twice, and what nobody uses ---------------------------------------------------

    private void twice() {
        Map<String, String> first = new HashMap<>();
        dashboard.filters().forEach((id, filter) -> {
            if (filter.column() == null) return;
            String on = (filter.how().reachesAllPages() ? "" : filter.page()) + " " + filter.dataset() + " "
                    + filter.column() + " " + Kinds.ALL.of(filter).isOfColumn(filter);
            String other = first.putIfAbsent(on, id);
            if (other != null)
                say(
                        Kind.TWO_ON_ONE_COLUMN,
                        id,
                        "The filters " + dashboard.filters().get(other).words() + " and " + filter.words()
                                + " are about the same column, " + ColumnWords.of(filter.column()) + " of "
                                + dataset(filter.dataset())
                                + ": what is turned on one may leave nothing of what is turned on the other.");
        });
    }

    private void parameter(String id, Parameter parameter) {
        boolean set = dashboard.links().values().stream().anyMatch(link -> id.equals(link.part()));
        if (!Narrowing.touched(dashboard, Kinds.ALL, id).isEmpty()
                || parameter.at() != null && !parameter.at().isEmpty()) return;
        mend(
                Kind.UNUSED,
                id,
                "Nothing follows “" + parameter.name() + "”" + (set ? ", though a link sets it." : "."),
                "Take it away",
                Choices.map("op", "remove", "path", "/parameters/" + id));
    }

    private void formula(String id, SheetFormula formula) {
        if (!(datasets.find(formula.dataset()) instanceof Datasets.Found.Ready ready)) {
            mend(
                    Kind.MISFIT,
                    id,
                    "The formula “" + formula.name() + "” sums up a dataset that has gone.",
                    "Take it away",
                    Choices.map("op", "remove", "path", "/formulas/" + id));
            return;
        }
        formula.trouble(ready.dataset(), new SheetFormula.Scene(datasets, engine, scene.today(), parameters()))
                .ifPresent(trouble -> say(
                        Kind.MISFIT,
                        id,
                        "The formula “" + formula.name() + "” cannot be worked out: " + trouble.words()));
        boolean used = dashboard.visuals().keySet().stream().anyMatch(visual -> dashboard.asksFor(visual, formula))
                || dashboard.filters().values().stream()
                        .anyMatch(
                                filter -> Kinds.ALL.of(filter).measures(filter).contains(formula.name()));
        if (!used)
            mend(
                    Kind.UNUSED,
                    id,
                    "No visual shows the formula “" + formula.name() + "”.",
                    "Take it away",
                    Choices.map("op", "remove", "path", "/formulas/" + id));
    }

    private void keys() {
        Map<String, Map<String, String>> units = new LinkedHashMap<>();
        dashboard
                .visuals()
                .forEach((id, visual) -> Keys.all(visual).forEach(worn -> {
                    if (worn.measure() == null || worn.measure().column() == null || worn.dataset() == null) return;
                    datasets.ready(worn.dataset()).ifPresent(dataset -> {
                        String unit = dataset.about().unit(worn.measure().column());
                        if (!unit.isEmpty())
                            units.computeIfAbsent(worn.key(), k -> new LinkedHashMap<>())
                                    .putIfAbsent(unit, id);
                    });
                }));
        units.forEach((key, by) -> {
            if (by.size() > 1)
                say(
                        Kind.UNITS,
                        "key " + key,
                        "The shared key “" + key + "” is worn by figures in " + Words.list(by.keySet(), "and")
                                + ": one colour stands for different amounts.");
        });
    }

    // --- pages and colours -------------------------------------------------------------------------

    private void pages() {
        Set<String> led = new HashSet<>();
        dashboard.links().values().forEach(link -> {
            if (link.leadsToPage()) led.add(link.part());
        });
        dashboard.visuals().forEach((id, visual) -> {
            Map<String, Object> plain = new LinkedHashMap<>(DocumentJson.plain(visual));
            plain.remove("page");
            named(plain, led);
        });
        dashboard.pages().forEach((id, page) -> {
            if (!page.isHidden() || led.contains(id) || dashboard.names().containsKey(id)) return;
            mend(
                    Kind.PAGE_NOBODY_REACHES,
                    id,
                    "The page “" + dashboard.pageName(id)
                            + "” is hidden, and no button, link or name in addresses leads to it.",
                    "Show it to readers",
                    Choices.map("op", "add", "path", "/pages/" + id + "/hidden", "value", false));
        });
        String first = dashboard.firstPage();
        if (dashboard.pages().get(first).isHidden() && dashboard.pages().size() > 1)
            say(
                    Kind.PAGE_NOBODY_REACHES,
                    first,
                    "The first page is hidden, yet it is what an address without a page opens.");
    }

    /** Pages that a part of a document names. */
    private void named(Object at, Set<String> led) {
        if (at instanceof List<?> list) list.forEach(one -> named(one, led));
        if (!(at instanceof Map<?, ?> map)) return;
        if (map.get("page") instanceof String page) led.add(page);
        map.values().forEach(value -> named(value, led));
    }

    private void theme() {
        String trouble = dashboard.own() == null ? null : dashboard.own().trouble();
        if (trouble != null) say(Kind.CONTRAST, "", trouble);
    }

    private boolean isThere(String id) {
        return dashboard.filters().containsKey(id)
                || dashboard.parameters().containsKey(id)
                || dashboard.pages().containsKey(id)
                || dashboard.visuals().containsKey(id);
    }

    private String dataset(long id) {
        return datasets.ready(id).map(LoadedDataset::name).orElse("a dataset that cannot be asked");
    }
}
