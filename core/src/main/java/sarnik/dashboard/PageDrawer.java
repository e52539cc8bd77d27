package sarnik.dashboard;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import java.util.function.Supplier;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.data.Rule;
import sarnik.narrow.Narrowing;
import sarnik.narrow.Registry;
import sarnik.query.Condition;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryException;
import sarnik.query.Stage;
import sarnik.state.ReaderState;
import sarnik.state.ReaderState.Part;
import sarnik.state.Value;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.AskedRows;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Picked;
import sarnik.visual.Plan;
import sarnik.visual.Scene;
import sarnik.visual.SharedKey;
import sarnik.visual.Sight;
import sarnik.visual.Source;
import sarnik.visual.Visual;

/**
 * Draws the visuals of a dashboard for one reader state, in three steps: each is planned, all queries of all plans are
 * answered together, each is drawn of the answers. Safe to share between threads.
 */
public final class PageDrawer {

    private final Dashboard dashboard;
    private final ReaderState state;
    private final Sources sources;
    private final Answerer answerer;
    private final Map<String, Sight> sights;
    private final Narrowing narrowing;
    private final Registry kinds;
    private final ConcurrentMap<String, PlaceSheet> sheets = new ConcurrentHashMap<>();

    /**
     * @param sights what is in sight, by visual; one that is not among them is seen as a whole
     */
    public PageDrawer(
            Dashboard dashboard, ReaderState state, Sources sources, Answerer answerer, Map<String, Sight> sights) {
        this(dashboard, state, sources, answerer, sights, Kinds.ALL);
    }

    /** The same. @param kinds the kinds that its parts may have */
    public PageDrawer(
            Dashboard dashboard,
            ReaderState state,
            Sources sources,
            Answerer answerer,
            Map<String, Sight> sights,
            Registry kinds) {
        this.kinds = kinds;
        this.dashboard = dashboard;
        this.state = state;
        this.sources = sources;
        this.answerer = answerer;
        this.sights = sights;
        this.narrowing = new Narrowing(dashboard, state, sources.datasets(), kinds, sources.today(), answerer.engine());
    }

    /** The places that the drawings made so far name, by tag. */
    public Map<String, PlaceSheet> sheets() {
        return Map.copyOf(sheets);
    }

    /** Draws one visual; see {@link #draw(Collection, Runnable)}. */
    public Drawing draw(String id) {
        return draw(List.of(id), () -> {}).get(id);
    }

    /**
     * Draws visuals.
     *
     * @param check is called between steps, and may throw to give the work up
     * @return by id; a {@link MisfitDrawing} where a visual no longer fits its data
     */
    public Map<String, Drawing> draw(Collection<String> ids, Runnable check) {
        Map<String, Plan> plans = new LinkedHashMap<>();
        Map<String, Drawing> drawn = new LinkedHashMap<>();
        Set<Asked> asked = new LinkedHashSet<>();
        List<AskedRows> rows = new ArrayList<>();
        for (String id : ids) {
            check.run();
            drawn.put(id, guarded(id, () -> {
                Plan plan = plan(dashboard.visuals().get(id), scene(id));
                asked.addAll(plan.asked());
                rows.addAll(plan.askedRows());
                plans.put(id, plan);
                return null;
            }));
        }
        Answers answers = answerer.answer(asked, rows, check);
        plans.forEach((id, plan) -> drawn.put(id, guarded(id, () -> plan.draw(answers))));
        return drawn;
    }

    /**
     * Rows that a visual rests on just now.
     *
     * @param dataset they are of
     * @param stages what leaves them
     */
    public record Shown(LoadedDataset dataset, List<Stage> stages) {}

    /**
     * The rows that a visual of one dataset shows, narrowed as it is.
     *
     * @throws MisfitException when it has gone, does not fit, or shows rows of none or of several datasets
     */
    public Shown shown(String id) {
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) throw new MisfitException("This visual has been taken away from the dashboard.");
        return shown(visual, scene(id));
    }

    private <V extends Visual> Shown shown(V visual, Scene scene) {
        Set<Long> datasets = kinds.of(visual).datasets(visual);
        if (datasets.size() != 1)
            throw new MisfitException("Rows are taken along of visuals that show the rows of one dataset.");
        List<Rule> rules = kinds.of(visual).rules(visual);
        LoadedDataset dataset = scene.dataset(datasets.iterator().next());
        return new Shown(dataset, scene.shown(dataset, rules.isEmpty() ? null : rules.get(0)));
    }

    private <V extends Visual> Plan plan(V visual, Scene scene) {
        return kinds.of(visual).plan(visual, scene);
    }

    private <V extends Visual> Set<String> dependsOn(V visual) {
        return kinds.of(visual).dependsOn(visual);
    }

    private Drawing guarded(String id, Supplier<Drawing> step) {
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) return new MisfitDrawing("", "This visual has been taken away from the dashboard.");
        try {
            return step.get();
        } catch (MisfitException | QueryException misfit) {
            return new MisfitDrawing(visual.title() == null ? "" : visual.title(), sentence(misfit.getMessage()));
        }
    }

    private static String sentence(String message) {
        return message.endsWith(".") ? message : message + ". Choose what fits in the visual's brief.";
    }

    /**
     * What is picked on visuals by a predicate, as the values it means, for those that show them.
     *
     * @return by visual; without those whose picks are values already
     */
    public Map<String, List<String>> lit() {
        Map<String, List<String>> lit = new LinkedHashMap<>();
        state.all(Part.PICK, Value.Pick.class).forEach((id, pick) -> {
            if (!(pick instanceof Value.Values) && !(pick instanceof Value.Span))
                lit.put(id, values(dashboard.visuals().get(id), pick, scene(id)));
        });
        return lit;
    }

    private <V extends Visual> List<String> values(V visual, Value.Pick pick, Scene scene) {
        try {
            if (pick instanceof Value.Not not) return allBut(visual, values(visual, not.of(), scene));
            return answerer.values(kinds.of(visual).picked(visual, pick, scene));
        } catch (MisfitException | QueryException misfit) {
            return new ArrayList<>();
        }
    }

    /** The values of what is picked on a visual, but for some. */
    private <V extends Visual> List<String> allBut(V visual, List<String> values) {
        Source source = kinds.of(visual).picks(visual).orElseThrow();
        LoadedDataset dataset = sources.datasets().get(source.dataset());
        Stage others = new Stage("all but these", List.of(new Condition.NoneOf(source.column(), values)));
        Query query = Query.by(List.of(others), List.of(new GroupKey.Of(source.column())), List.of(Measure.ROWS));
        return answerer.values(new Picked.Among(new Asked(dataset, query), 0));
    }

    /** What a visual is planned in. */
    public Scene scene(String id) {
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) throw new MisfitException("This visual has been taken away from the dashboard.");
        return new Scene() {
            @Override
            public String id() {
                return id;
            }

            @Override
            public LoadedDataset dataset(long dataset) {
                return sources.datasets().get(dataset);
            }

            @Override
            public Datasets datasets() {
                return sources.datasets();
            }

            @Override
            public List<Stage> shown(LoadedDataset dataset, Rule rule) {
                return narrowing.shown(id, visual, dataset, rule, PageDrawer.this::scene);
            }

            @Override
            public List<Stage> whole(LoadedDataset dataset, Rule rule) {
                return narrowing.whole(visual, dataset, rule);
            }

            @Override
            public List<Stage> scaled(LoadedDataset dataset, Rule rule) {
                return narrowing.scaled(id, visual, dataset, rule, PageDrawer.this::scene);
            }

            @Override
            public Optional<GroupKey.Step> steps(LoadedDataset dataset) {
                return narrowing.steps(id, visual, dataset);
            }

            @Override
            public Plan plan(String other) {
                Visual of = dashboard.visuals().get(other);
                if (of == null || !dependsOn(of).isEmpty())
                    throw new MisfitException("What this was about has gone. Choose something else in its brief.");
                return PageDrawer.this.plan(of, PageDrawer.this.scene(other));
            }

            @Override
            public Optional<String> same(Source source, LoadedDataset dataset) {
                return narrowing.column(source, dataset);
            }

            @Override
            public ReaderState state() {
                return state;
            }

            @Override
            public Optional<Double> number(String parameter) {
                return Optional.ofNullable(dashboard.parameters().get(parameter))
                        .flatMap(p -> Narrowing.value(state, parameter, p).map(p::bound))
                        .filter(Double.class::isInstance)
                        .map(Double.class::cast);
            }

            @Override
            public Optional<SharedKey> key(String name) {
                return sources.keys().apply(name);
            }

            @Override
            public Sight sight() {
                return sights.getOrDefault(id, Sight.FIRST);
            }

            @Override
            public LocalDate today() {
                return sources.today();
            }

            @Override
            public void names(PlaceSheet sheet) {
                sheets.putIfAbsent(sheet.tag(), sheet);
            }

            @Override
            public PlaceSheet sheet(String tag) {
                return sheets.get(tag);
            }
        };
    }
}
