package sarnik.narrow;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.Predicate;
import sarnik.brief.Choices;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Rule;
import sarnik.data.Tie;
import sarnik.data.TieGraph;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Condition;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.Stage;
import sarnik.state.ReaderState;
import sarnik.state.ReaderState.Part;
import sarnik.state.Value;
import sarnik.visual.Asked;
import sarnik.visual.Picked;
import sarnik.visual.Playing;
import sarnik.visual.Scene;
import sarnik.visual.Source;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/**
 * Which rows a visual shows. Always in this order, each a stage of the query and so a step of the row trail: standing
 * rules of the dataset, filters, picks on other visuals and what is in sight of maps, the visual's own rule, the moment
 * of a player. A visual is not narrowed by its own pick.
 *
 * <p>Rows of one dataset follow what narrows another where their own column is tied to the column in question; where
 * the filter or link goes across, they follow through any ties: those rows stay that have a partner among the rows that
 * are left of the other dataset.
 */
public final class Narrowing {

    private final Wires wires;
    private final ReaderState state;
    private final Datasets datasets;
    private final Registry kinds;
    private final FilterScene scene;
    private TieGraph graph;

    /**
     * @param today the day that relative periods are counted from
     * @param engine answers what filters have to ask
     */
    public Narrowing(
            Wires wires, ReaderState state, Datasets datasets, Registry kinds, LocalDate today, QueryEngine engine) {
        this.wires = wires;
        this.state = state;
        this.datasets = datasets;
        this.kinds = kinds;
        this.scene = new FilterScene(today, datasets, List.of(), parameters(wires, state), engine);
    }

    /** The stages before links. */
    public List<Stage> whole(Visual visual, LoadedDataset dataset, Rule rule) {
        List<Stage> stages = filtered(visual.page(), dataset).stages();
        if (rule != null) stages.addAll(rule.stages(dataset, scene.today(), scene.parameters()));
        return stages;
    }

    /** The stages of what scales rest on, as the reader has turned that. @param sceneOf as of {@link #shown} */
    public List<Stage> scaled(
            String id, Visual visual, LoadedDataset dataset, Rule rule, Function<String, Scene> sceneOf) {
        String on = state.get(Part.SCALES, ReaderState.PAGE, Value.Choice.class)
                .map(choice -> choice.values().get(0))
                .orElse("");
        if (on.equals(ReaderState.SHOWN_ROWS)) return shown(id, visual, dataset, rule, sceneOf);
        if (!on.equals(ReaderState.ALL_ROWS)) return whole(visual, dataset, rule);
        List<Stage> stages = new ArrayList<>(dataset.rules());
        if (rule != null) stages.addAll(rule.stages(dataset, scene.today(), scene.parameters()));
        return stages;
    }

    /**
     * All stages.
     *
     * @param sceneOf the scene of another visual, by its id, for what is picked there by a predicate
     * @throws MisfitException when nothing is shown before something is chosen or picked; the message says what
     */
    public List<Stage> shown(
            String id, Visual visual, LoadedDataset dataset, Rule rule, Function<String, Scene> sceneOf) {
        Filtered filtered = filtered(visual.page(), dataset);
        links(id, visual, filtered, sceneOf);
        List<Stage> stages = filtered.stages();
        if (rule != null) stages.addAll(rule.stages(dataset, scene.today(), scene.parameters()));
        played(id, visual, dataset)
                .ifPresent(p -> stages.add(new Stage(
                        phrase("Played: {0}", p.playing().words(p.moment())),
                        List.of(p.playing().during(p.moment(), p.column())))));
        return stages;
    }

    /** A moment of a player, as it is felt by a dataset. */
    private record Played(Playing playing, Value.Moment moment, String column) {}

    /** The moment that a visual is shown at; empty where none is played that reaches it. */
    private Optional<Played> played(String id, Visual visual, LoadedDataset dataset) {
        for (Map.Entry<String, Value.Moment> one :
                state.all(Part.MOMENT, Value.Moment.class).entrySet()) {
            Visual player = wires.visuals().get(one.getKey());
            if (player == null || one.getKey().equals(id) || !player.page().equals(visual.page())) continue;
            Optional<Playing> playing = kinds.of(player).plays(player, datasets);
            Optional<String> column = playing.flatMap(p -> column(p, dataset));
            if (column.isPresent()) return Optional.of(new Played(playing.get(), one.getValue(), column.get()));
        }
        return Optional.empty();
    }

    /** The column of a dataset that is played: its own, or one that is tied to a column that is. */
    private Optional<String> column(Playing playing, LoadedDataset dataset) {
        for (Source source : playing.columns())
            if (source.dataset() == dataset.id())
                return Optional.of(source.column()).filter(c -> isTime(dataset, c));
        for (Source source : playing.columns()) {
            Optional<String> column =
                    column(source, dataset).or(() -> shared(source, dataset)).filter(c -> isTime(dataset, c));
            if (column.isPresent()) return column;
        }
        return Optional.empty();
    }

    /** The column of a dataset that shares steps of time with the source's. */
    private Optional<String> shared(Source source, LoadedDataset dataset) {
        return graph().from(source.dataset()).stream()
                .filter(hop -> hop.step() != null
                        && hop.to() == dataset.id()
                        && hop.column().equals(source.column()))
                .map(TieGraph.Hop::equals)
                .findFirst();
    }

    private static boolean isTime(LoadedDataset dataset, String column) {
        return dataset.table().find(column).filter(Choices::isTime).isPresent();
    }

    /** The steps of which one at a time is shown just now; empty where nothing is played, or all up to a moment is. */
    public Optional<GroupKey.Step> steps(String id, Visual visual, LoadedDataset dataset) {
        return played(id, visual, dataset)
                .filter(p -> !p.playing().upTo())
                .map(p -> new GroupKey.Step(p.column(), p.playing().step(), null));
    }

    /** What readers set, by id and by name, as conditions and formulas name it. */
    public static Map<String, Object> parameters(Wires wires, ReaderState state) {
        Map<String, Object> bound = new TreeMap<>();
        wires.parameters()
                .forEach((id, parameter) -> value(state, id, parameter).ifPresent(value -> {
                    Object is = parameter.bound(value);
                    bound.put(id, is);
                    bound.putIfAbsent(parameter.name(), is);
                }));
        return bound;
    }

    /** The value of a parameter, as the reader has set it or as it is at first; empty where it has none. */
    public static Optional<Value> value(ReaderState state, String id, Parameter parameter) {
        return state.get(Part.PARAMETER, id, Value.class).or(parameter::begins);
    }

    /** What a filter keeps: as the reader has turned it, or as it is at first; empty for everything. */
    private Optional<Value> value(String id) {
        Filter filter = wires.filters().get(id);
        Optional<Value> turned = state.get(Part.FILTER, id, Value.class);
        if (turned.isPresent()) return turned.filter(value -> !(value instanceof Value.All));
        String first = filter.how().first();
        return first == null ? Optional.empty() : kinds.of(filter).read(filter, first);
    }

    /**
     * The stages of a dataset that is being narrowed.
     *
     * @param stages so far
     * @param others what narrows each other dataset whose rows it follows, so far, by id
     */
    private record Filtered(LoadedDataset dataset, List<Stage> stages, Map<Long, List<Stage>> others) {

        /** What narrows a dataset so far. */
        List<Stage> of(LoadedDataset other) {
            return other.id() == dataset.id()
                    ? stages
                    : others.computeIfAbsent(other.id(), id -> new ArrayList<>(other.rules()));
        }
    }

    /** A dataset after the filters of a page: first those that rest on nothing, then those that rest on the others. */
    private Filtered filtered(String page, LoadedDataset dataset) {
        return filtered(page, dataset, id -> true);
    }

    private Filtered filtered(String page, LoadedDataset dataset, Predicate<String> counted) {
        Filtered filtered = new Filtered(dataset, new ArrayList<>(dataset.rules()), new HashMap<>());
        for (boolean resting : new boolean[] {false, true})
            for (String id : wires.filtersOf(page))
                if (kinds.of(wires.filters().get(id)).restsOnOthers() == resting && counted.test(id))
                    filter(id, filtered);
        return filtered;
    }

    /**
     * How many rows each value of a filter has.
     *
     * @param others which of the other filters narrow them, by id
     * @return the question; empty for a filter that offers no values, or whose dataset or column has gone
     */
    public Optional<Asked> counts(String id, Predicate<String> others) {
        Filter filter = wires.filters().get(id);
        Optional<String> column =
                filter == null ? Optional.empty() : kinds.of(filter).counted(filter);
        LoadedDataset dataset =
                column.isEmpty() ? null : datasets.ready(filter.dataset()).orElse(null);
        if (dataset == null || dataset.table().find(column.get()).isEmpty()) return Optional.empty();
        String page = filter.how().reachesAllPages() ? page() : filter.page();
        // Another that has to be chosen and is not leaves nothing out of what this one offers.
        Filtered left = filtered(
                page,
                dataset,
                other -> !other.equals(id) && others.test(other) && value(other).isPresent());
        return Optional.of(new Asked(
                dataset,
                Query.by(left.stages(), List.of(new GroupKey.Of(column.get())), List.of(Measure.ROWS))
                        .filled()));
    }

    private void filter(String id, Filtered filtered) {
        Filter filter = wires.filters().get(id);
        FilterKind<Filter> kind = kinds.of(filter);
        Optional<LoadedDataset> own = datasets.ready(filter.dataset());
        LoadedDataset dataset = filtered.dataset();
        boolean isOwn = filter.dataset() == dataset.id();
        Optional<String> column = kind.isOfColumn(filter)
                ? column(new Source(filter.dataset(), filter.column()), dataset)
                : Optional.empty();
        Optional<List<TieGraph.Hop>> way =
                isOwn || column.isPresent() || !filter.how().goesAcross()
                        ? Optional.empty()
                        : way(filter.dataset(), dataset);
        boolean reaches = isOwn || column.isPresent() || way.isPresent();
        Value value = value(id).orElse(null);
        if (value == null) {
            if (!reaches || !filter.how().mustBeTurned()) return;
            throw new MisfitException(phrase("Choose “{0}” first: nothing is shown before that.", filter.words()));
        }
        if (!isOwn && column.isEmpty() && filter.how().goesAcross()) checkAsked(filter.dataset(), filter.words());
        String words = kind.words(filter, value, scene);
        if (isOwn || column.isPresent()) {
            String of = column.orElse(filter.column());
            checkThere(of, dataset, words);
            FilterScene before = scene.after(List.copyOf(filtered.stages()));
            filtered.stages().add(new Stage(words, kind.conditions(filter, value, of, dataset, before)));
        }
        // What narrows the other dataset without being followed itself is there when others are followed.
        if (isOwn || own.isEmpty()) return;
        if (way.isPresent()) checkThere(filter.column(), own.get(), words);
        else if (filter.column() != null
                && own.get().table().find(filter.column()).isEmpty()) return;
        List<Stage> there = filtered.of(own.get());
        there.add(new Stage(
                words, kind.conditions(filter, value, filter.column(), own.get(), scene.after(List.copyOf(there)))));
        way.ifPresent(hops -> filtered.stages().add(carried(words, hops, there)));
    }

    /** What is narrowed by a column that has gone is not shown as if nothing narrowed it. */
    private static void checkThere(String column, LoadedDataset dataset, String words) {
        if (column != null && dataset.table().find(column).isEmpty())
            throw new MisfitException(phrase(
                    "“{0}” cannot narrow this any more: the rows of “{1}” have no column “{2}” now.",
                    words, dataset.name(), ColumnWords.of(column)));
    }

    /** What follows rows that cannot be asked just now is not shown as if nothing narrowed it. */
    private void checkAsked(long dataset, String words) {
        if (datasets.find(dataset) instanceof Datasets.Found.Unfit unfit)
            throw new MisfitException(
                    phrase("“{0}” narrows this through rows that cannot be asked just now. {1}", words, unfit.why()));
    }

    private Stage carried(String words, List<TieGraph.Hop> way, List<Stage> there) {
        return new Stage(words + ", " + graph().words(way), List.of(graph().carried(way, List.copyOf(there))));
    }

    private TieGraph graph() {
        if (graph == null) graph = new TieGraph(datasets(wires, kinds), datasets);
        return graph;
    }

    /** Ids of the datasets that visuals and filters rest on. */
    private static Set<Long> datasets(Wires wires, Registry kinds) {
        Set<Long> ids = new LinkedHashSet<>();
        wires.visuals().values().forEach(visual -> ids.addAll(kinds.of(visual).datasets(visual)));
        wires.filters().values().forEach(filter -> ids.add(filter.dataset()));
        return ids;
    }

    /** The way from one dataset to another; empty where none leads there, or it is the same. */
    private Optional<List<TieGraph.Hop>> way(long from, LoadedDataset to) {
        return graph().way(from, to.id()).filter(hops -> !hops.isEmpty());
    }

    /** What is picked on other visuals, and what is in sight of maps. */
    private void links(String id, Visual visual, Filtered filtered, Function<String, Scene> sceneOf) {
        Map<String, List<Link>> narrowing = new TreeMap<>();
        wires.links().values().stream()
                .filter(link -> link.narrows() && reaches(wires, link, link.from(), id))
                .forEach(link -> narrowing
                        .computeIfAbsent(link.from(), from -> new ArrayList<>())
                        .add(link));
        // A page that slides in is about what is picked on any of those it slides in from.
        boolean isAbout = narrowing.entrySet().stream()
                .anyMatch(e -> e.getValue().stream().anyMatch(link -> link.follows() == Link.Effect.BESIDE)
                        && state.get(Part.PICK, e.getKey(), Value.Pick.class).isPresent());
        narrowing.forEach((from, links) -> {
            Value.Pick pick = state.get(Part.PICK, from, Value.Pick.class).orElse(null);
            Value.Pick frame = state.get(Part.FRAME, from, Value.Pick.class).orElse(null);
            List<Link> picked =
                    links.stream().filter(link -> onPick(link, pick)).toList();
            List<Link> framed = links.stream()
                    .filter(link -> link.gesture() == Link.Gesture.FRAMED && frame != null)
                    .toList();
            if (!picked.isEmpty()) pick(from, pick, picked, filtered, sceneOf);
            else if (pick == null
                    && links.stream()
                            .anyMatch(link -> link.asksFirst() && !(isAbout && link.follows() == Link.Effect.BESIDE)))
                throw new MisfitException(
                        phrase("Pick something on “{0}”: what belongs to it is shown here.", nameOf(from)));
            if (!framed.isEmpty()) pick(from, frame, framed, filtered, sceneOf);
        });
    }

    private static boolean onPick(Link link, Value.Pick pick) {
        Value.Pick of = pick instanceof Value.Not not ? not.of() : pick;
        return of != null
                && (link.gesture() == Link.Gesture.PICKED
                        || link.gesture() == Link.Gesture.OPENED
                        || link.gesture() == Link.Gesture.SPANNED && of instanceof Value.Span);
    }

    private String nameOf(String id) {
        Visual visual = wires.visuals().get(id);
        return visual == null ? "" : Scene.titleOf(visual, kinds.of(visual).words(visual));
    }

    private void pick(
            String from, Value.Pick pick, List<Link> links, Filtered filtered, Function<String, Scene> sceneOf) {
        Visual visual = wires.visuals().get(from);
        Optional<Source> source =
                visual == null ? Optional.empty() : kinds.of(visual).picks(visual);
        if (source.isEmpty()) return;
        LoadedDataset dataset = filtered.dataset();
        Optional<String> column = column(source.get(), dataset);
        if (column.isPresent()) {
            filtered.stages()
                    .add(new Stage(words(from, pick), List.of(condition(from, pick, column.get(), dataset, sceneOf))));
            return;
        }
        if (source.get().dataset() == dataset.id()) checkThere(source.get().column(), dataset, words(from, pick));
        Optional<LoadedDataset> own = datasets.ready(source.get().dataset());
        if (links.stream().noneMatch(Link::goesAcross)) return;
        if (own.isEmpty()) checkAsked(source.get().dataset(), nameOf(from));
        if (own.isEmpty()) return;
        way(source.get().dataset(), dataset).ifPresent(way -> {
            checkThere(source.get().column(), own.get(), words(from, pick));
            List<Stage> there = filtered.of(own.get());
            there.add(new Stage(
                    words(from, pick),
                    List.of(condition(from, pick, source.get().column(), own.get(), sceneOf))));
            filtered.stages().add(carried(words(from, pick), way, there));
        });
    }

    private Condition condition(
            String from, Value.Pick pick, String column, LoadedDataset dataset, Function<String, Scene> sceneOf) {
        Visual visual = wires.visuals().get(from);
        boolean turned = pick instanceof Value.Not;
        Picked picked =
                kinds.of(visual).picked(visual, pick instanceof Value.Not not ? not.of() : pick, sceneOf.apply(from));
        Condition.Through through = column.equals(PlacedTable.PLACE) ? through(visual, dataset) : null;
        if (through != null) return through(picked, turned, column, visual, through);
        if (picked instanceof Picked.OneOf places && column.equals(PlacedTable.PLACE))
            picked = Picked.values(dataset.meant(places.values()));
        return turned ? new Condition.Not(picked.on(column)) : picked.on(column);
    }

    /** What the places of a visual stand for in another dataset; null for themselves. */
    private Condition.Through through(Visual visual, LoadedDataset dataset) {
        return source(visual).map(own -> TieGraph.through(own, dataset)).orElse(null);
    }

    private Optional<LoadedDataset> source(Visual visual) {
        return kinds.of(visual).picks(visual).flatMap(source -> datasets.ready(source.dataset()));
    }

    /**
     * All but one town of a province still stand for the province: what is turned round is so before it is gone
     * through.
     */
    private Condition through(Picked picked, boolean turned, String column, Visual visual, Condition.Through through) {
        if (!(picked instanceof Picked.OneOf places)) {
            Condition on = picked.on(column);
            Condition of = on instanceof Condition.Among among ? among.through(through) : on;
            return turned ? new Condition.Not(of) : of;
        }
        List<String> values = places.values();
        if (turned) {
            Set<String> left =
                    new LinkedHashSet<>(source(visual).orElseThrow().places().keySet());
            left.removeAll(values);
            values = List.copyOf(left);
        }
        return new Condition.OneOf(column, through.values(values));
    }

    /**
     * The column of a dataset that means the same as the source's: its own, the same place, or one tied to it.
     */
    public Optional<String> column(Source source, LoadedDataset dataset) {
        if (source.dataset() == dataset.id() || source.column().startsWith("@")) {
            return Optional.of(source.column())
                    .filter(c -> dataset.table().find(c).isPresent());
        }
        if (dataset.placing() instanceof Placing.ByTie tie
                && tie.dataset() == source.dataset()
                && tie.equals().equals(source.column())) {
            return Optional.of(tie.column());
        }
        Optional<String> mine = dataset.ties().stream()
                .filter(t -> t.step() == null
                        && t.dataset() == source.dataset()
                        && t.equals().equals(source.column()))
                .map(Tie::column)
                .findFirst();
        if (mine.isPresent()) return mine.filter(c -> dataset.table().find(c).isPresent());
        Optional<LoadedDataset> from = datasets.ready(source.dataset());
        Optional<String> placed = from.map(LoadedDataset::placing)
                .filter(p -> p instanceof Placing.ByTie tie
                        && tie.dataset() == dataset.id()
                        && tie.column().equals(source.column()))
                .map(p -> ((Placing.ByTie) p).equals());
        if (placed.isPresent()) return placed;
        return from.stream()
                .flatMap(d -> d.ties().stream())
                .filter(t -> t.step() == null
                        && t.dataset() == dataset.id()
                        && t.column().equals(source.column()))
                .map(Tie::equals)
                .filter(c -> dataset.table().find(c).isPresent())
                .findFirst();
    }

    /** Ids of the visuals that change with this filter or parameter, or with a pick on this visual. */
    public static Set<String> touched(Wires wires, Registry kinds, String id) {
        Set<String> touched = new LinkedHashSet<>();
        Filter filter = wires.filters().get(id);
        wires.visuals().forEach((visualId, visual) -> {
            boolean byFilter = filter != null
                    && (filter.how().reachesAllPages() || visual.page().equals(filter.page()));
            boolean byPick = wires.links().values().stream()
                    .anyMatch(link -> link.gesture() != Link.Gesture.FRAMED
                            && link.narrows()
                            && reaches(wires, link, id, visualId));
            if (byFilter || byPick || isDriven(wires, kinds, visualId, id)) touched.add(visualId);
        });
        if (wires.parameters().containsKey(id))
            wires.filters().forEach((other, of) -> {
                if (isDriven(wires, wires.parameters().get(id), id, of, kinds, other))
                    touched.addAll(touched(wires, kinds, other));
            });
        return touched;
    }

    /** Ids of the visuals that change with what is in sight of a map. */
    public static Set<String> framed(Wires wires, String id) {
        Set<String> touched = new LinkedHashSet<>();
        for (String other : wires.visuals().keySet())
            if (wires.links().values().stream()
                    .anyMatch(link ->
                            link.has(Link.Gesture.FRAMED, Link.Effect.NARROW) && reaches(wires, link, id, other)))
                touched.add(other);
        return touched;
    }

    /** Ids of the visuals that change with the moment of a player: all others of its page that rest on rows. */
    public static Set<String> played(Wires wires, Registry kinds, String id) {
        Visual player = wires.visuals().get(id);
        Set<String> touched = new LinkedHashSet<>();
        if (kinds.of(player).part() != Part.MOMENT) return touched;
        wires.visuals().forEach((other, visual) -> {
            if (!other.equals(id)
                    && visual.page().equals(player.page())
                    && (!kinds.of(visual).datasets(visual).isEmpty()
                            || !kinds.of(visual).dependsOn(visual).isEmpty())) touched.add(other);
        });
        return touched;
    }

    /** Whether a visual changes with a parameter. */
    private static boolean isDriven(Wires wires, Registry kinds, String visual, String id) {
        Parameter parameter = wires.parameters().get(id);
        Visual of = wires.visuals().get(visual);
        return parameter != null
                && (kinds.of(of).uses(of, id)
                        || wires.formulas().values().stream()
                                .anyMatch(f -> (f.names(id) || f.names(parameter.name())) && wires.asksFor(visual, f))
                        || isNamed(parameter, id, kinds.of(of).rules(of))
                        || stands(parameter, "/visuals/" + visual));
    }

    private static boolean isDriven(
            Wires wires, Parameter parameter, String id, Filter filter, Registry kinds, String at) {
        return isNamed(parameter, id, kinds.of(filter).rules(filter))
                || wires.formulas().values().stream()
                        .anyMatch(f -> kinds.of(filter).measures(filter).contains(f.name())
                                && (f.names(id) || f.names(parameter.name())))
                || stands(parameter, "/filters/" + at);
    }

    private static boolean stands(Parameter parameter, String part) {
        return parameter.at() != null && parameter.at().stream().anyMatch(at -> at.startsWith(part + "/"));
    }

    /**
     * Whether what is done on one visual reaches another: every other one of its page, or those that the link names.
     */
    private static boolean reaches(Wires wires, Link link, String from, String to) {
        if (!link.from().equals(from) || !link.reaches(to)) return false;
        // What a page is gone to with is there on that page.
        if (link.follows() == Link.Effect.GO || link.follows() == Link.Effect.BESIDE)
            return wires.visuals().get(to).page().equals(link.part());
        Visual picked = wires.visuals().get(from);
        return link.to() != null
                || picked != null
                        && picked.page().equals(wires.visuals().get(to).page());
    }

    /** By visual on which something can be picked: what tells the column of its picks, and all that mean the same. */
    public static Map<String, String> meanings(Wires wires, Registry kinds, Datasets datasets) {
        TieGraph graph = new TieGraph(datasets(wires, kinds), datasets);
        Map<String, String> meanings = new TreeMap<>();
        wires.visuals()
                .forEach((id, visual) -> kinds.of(visual)
                        .picks(visual)
                        .ifPresent(source -> meanings.put(id, graph.meaning(source.dataset(), source.column()))));
        return meanings;
    }

    /** The page that the reader looks at. */
    public String page() {
        return state.get(Part.PAGE, ReaderState.PAGE, Value.Choice.class)
                .map(page -> page.values().get(0))
                .orElseGet(wires::firstPage);
    }

    /** Whether what is done on a visual shows on the page that is looked at. */
    private boolean isFelt(String id, Set<String> touched) {
        String page = page();
        return wires.visuals().get(id).page().equals(page)
                || touched.stream()
                        .anyMatch(other -> wires.visuals().get(other).page().equals(page));
    }

    private static boolean isNamed(Parameter parameter, String id, List<Rule> rules) {
        return rules.stream().anyMatch(rule -> rule.names(id) || rule.names(parameter.name()));
    }

    /**
     * A part of "now showing".
     *
     * @param id the filter or visual that narrows, or the parameter that is set
     * @param words the narrowing as people read it
     * @param part of the reader's state, by its letter
     */
    public record Showing(String id, String words, String part) {}

    /** Everything the reader has chosen, or that holds at first, and that is felt on the page that is looked at. */
    public List<Showing> nowShowing() {
        List<Showing> parts = new ArrayList<>();
        for (String id : wires.filtersOf(page())) {
            Filter filter = wires.filters().get(id);
            value(id)
                    .ifPresent(
                            value -> parts.add(new Showing(id, kinds.of(filter).words(filter, value, scene), "f")));
        }
        state.all(Part.PARAMETER, Value.class).forEach((id, value) -> {
            Parameter parameter = wires.parameters().get(id);
            parts.add(
                    new Showing(id, phrase("parameter, value|{0} {1}", parameter.name(), parameter.words(value)), "v"));
        });
        state.all(Part.PICK, Value.Pick.class).forEach((id, pick) -> {
            if (isFelt(id, touched(wires, kinds, id))) parts.add(new Showing(id, words(id, pick), "p"));
        });
        state.all(Part.MOMENT, Value.Moment.class).forEach((id, moment) -> {
            Visual player = wires.visuals().get(id);
            if (player.page().equals(page()))
                kinds.of(player)
                        .plays(player, datasets)
                        .ifPresent(playing -> parts.add(new Showing(id, playing.words(moment), "m")));
        });
        state.all(Part.FRAME, Value.Pick.class).forEach((id, frame) -> {
            if (isFelt(id, framed(wires, id))) parts.add(new Showing(id, phrase("in sight of “{0}”", nameOf(id)), "e"));
        });
        return parts;
    }

    private String words(String id, Value.Pick pick) {
        Visual visual = wires.visuals().get(id);
        VisualKind<Visual> kind = kinds.of(visual);
        return pick instanceof Value.Not not
                ? phrase("Picked: all but {0}", kind.pickWords(visual, not.of(), datasets))
                : phrase("Picked: {0}", kind.pickWords(visual, pick, datasets));
    }

    /** The marks picked on each visual by a predicate, for those that show them. */
    public Map<String, Value.Pick> picks() {
        return state.all(Part.PICK, Value.Pick.class);
    }
}
