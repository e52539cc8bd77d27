package sarnik.narrow;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Rule;
import sarnik.data.Tie;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Stage;
import sarnik.scale.NumberWords;
import sarnik.state.ReaderState;
import sarnik.state.ReaderState.Part;
import sarnik.state.Value;
import sarnik.visual.Picked;
import sarnik.visual.Scene;
import sarnik.visual.Source;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/**
 * Which rows a visual shows. Always in this order, each a stage of the query and so a step of the row trail: standing
 * rules of the dataset, filters of the page, picks on other visuals, the visual's own rule. A visual is not narrowed by
 * its own pick.
 */
public final class Narrowing {

    private final Wires wires;
    private final ReaderState state;
    private final Datasets datasets;
    private final Registry kinds;
    private final LocalDate today;

    /**
     * @param today the day that relative periods are counted from
     */
    public Narrowing(Wires wires, ReaderState state, Datasets datasets, Registry kinds, LocalDate today) {
        this.today = today;
        this.wires = wires;
        this.state = state;
        this.datasets = datasets;
        this.kinds = kinds;
    }

    /** The stages before links. */
    public List<Stage> whole(Visual visual, LoadedDataset dataset, Rule rule) {
        List<Stage> stages = before(visual, dataset);
        if (rule != null) stages.addAll(rule.stages(dataset, today, numbers()));
        return stages;
    }

    /**
     * All stages.
     *
     * @param sceneOf the scene of another visual, by its id, for what is picked there by a predicate
     */
    public List<Stage> shown(
            String id, Visual visual, LoadedDataset dataset, Rule rule, Function<String, Scene> sceneOf) {
        List<Stage> stages = before(visual, dataset);
        links(id, dataset, sceneOf, stages);
        if (rule != null) stages.addAll(rule.stages(dataset, today, numbers()));
        return stages;
    }

    /** The numbers that readers set, by id and by name, as conditions in SQL name them. */
    private Map<String, Double> numbers() {
        Map<String, Double> numbers = new TreeMap<>();
        wires.parameters().forEach((id, parameter) -> {
            double value = state.get(Part.PARAMETER, id, Value.Number.class)
                    .map(Value.Number::value)
                    .orElse(parameter.value());
            numbers.put(id, value);
            numbers.putIfAbsent(parameter.name(), value);
        });
        return numbers;
    }

    private List<Stage> before(Visual visual, LoadedDataset dataset) {
        List<Stage> stages = new ArrayList<>(dataset.rules());
        for (String id : wires.filtersOf(visual.page())) filter(id, dataset).ifPresent(stages::add);
        return stages;
    }

    private Optional<Stage> filter(String id, LoadedDataset dataset) {
        Filter filter = wires.filters().get(id);
        Value value = state.get(Part.FILTER, id, Value.class).orElse(null);
        if (value == null) return Optional.empty();
        FilterKind<Filter> kind = kinds.of(filter);
        return column(new Source(filter.dataset(), filter.column()), dataset)
                .map(column -> new Stage(kind.words(filter, value), List.of(kind.condition(filter, value, column))));
    }

    /** What is picked on other visuals. */
    private void links(String id, LoadedDataset dataset, Function<String, Scene> sceneOf, List<Stage> stages) {
        state.all(Part.PICK, Value.Pick.class).forEach((from, pick) -> {
            if (wires.links().values().stream().noneMatch(link -> reaches(wires, link, from, id))) return;
            Visual visual = wires.visuals().get(from);
            VisualKind<Visual> kind = kinds.of(visual);
            Optional<Source> source = kind.picks(visual);
            if (source.isEmpty()) return;
            column(source.get(), dataset).ifPresent(column -> {
                Picked picked = kind.picked(visual, pick, sceneOf.apply(from));
                if (picked instanceof Picked.OneOf places && column.equals(PlacedTable.PLACE))
                    picked = Picked.values(dataset.meant(places.values()));
                stages.add(new Stage(words(from, pick), List.of(picked.on(column))));
            });
        });
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
                .filter(t -> t.dataset() == source.dataset() && t.equals().equals(source.column()))
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
                .filter(t -> t.dataset() == dataset.id() && t.column().equals(source.column()))
                .map(Tie::equals)
                .filter(c -> dataset.table().find(c).isPresent())
                .findFirst();
    }

    /** Ids of the visuals that change with this filter or parameter, or with a pick on this visual. */
    public static Set<String> touched(Wires wires, Registry kinds, String id) {
        Set<String> touched = new LinkedHashSet<>();
        Filter filter = wires.filters().get(id);
        wires.visuals().forEach((visualId, visual) -> {
            boolean byFilter = filter != null && visual.page().equals(filter.page());
            boolean byPick = wires.links().values().stream().anyMatch(link -> reaches(wires, link, id, visualId));
            boolean byParameter = wires.parameters().containsKey(id)
                    && (kinds.of(visual).uses(visual, id)
                            || isNamed(
                                    wires.parameters().get(id),
                                    id,
                                    kinds.of(visual).rules(visual)));
            if (byFilter || byPick || byParameter) touched.add(visualId);
        });
        return touched;
    }

    /** Whether a pick on one visual narrows another: every other one of its page, or those that the link names. */
    private static boolean reaches(Wires wires, Link link, String from, String to) {
        if (!link.from().equals(from) || !link.reaches(to)) return false;
        Visual picked = wires.visuals().get(from);
        return link.to() != null
                || picked != null
                        && picked.page().equals(wires.visuals().get(to).page());
    }

    /** The page that the reader looks at. */
    public String page() {
        return state.get(Part.PAGE, ReaderState.PAGE, Value.Choice.class)
                .map(page -> page.values().get(0))
                .orElseGet(wires::firstPage);
    }

    /** Whether what is picked on a visual shows on the page that is looked at. */
    private boolean isFelt(String id) {
        String page = page();
        return wires.visuals().get(id).page().equals(page)
                || touched(wires, kinds, id).stream()
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
     */
    public record Showing(String id, String words) {}

    /** Everything the reader has chosen that is felt on the page that is looked at, in words. */
    public List<Showing> nowShowing() {
        List<Showing> parts = new ArrayList<>();
        for (String id : wires.filtersOf(page())) {
            Filter filter = wires.filters().get(id);
            state.get(Part.FILTER, id, Value.class)
                    .ifPresent(
                            value -> parts.add(new Showing(id, kinds.of(filter).words(filter, value))));
        }
        state.all(Part.PARAMETER, Value.Number.class)
                .forEach((id, number) -> parts.add(
                        new Showing(id, wires.parameters().get(id).name() + " " + NumberWords.full(number.value()))));
        state.all(Part.PICK, Value.Pick.class).forEach((id, pick) -> {
            if (isFelt(id)) parts.add(new Showing(id, words(id, pick)));
        });
        return parts;
    }

    private String words(String id, Value.Pick pick) {
        Visual visual = wires.visuals().get(id);
        VisualKind<Visual> kind = kinds.of(visual);
        return "Picked: " + kind.pickWords(visual, pick, datasets);
    }

    /** The marks picked on each visual by a predicate, for those that show them. */
    public Map<String, Value.Pick> picks() {
        return state.all(Part.PICK, Value.Pick.class);
    }
}
