package sarnik.dashboard;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Condition;
import sarnik.query.Stage;
import sarnik.scale.NumberWords;

/**
 * Which rows a visual shows: always filters first, then picks on other visuals, then the visual's own rule. Each is a
 * stage of the query and so a step of the row trail. A visual is not narrowed by its own pick.
 */
public final class Narrowing {

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.ENGLISH);
    private static final int NAMED = 3;

    private final Dashboard dashboard;
    private final ReaderState state;
    private final Datasets datasets;

    public Narrowing(Dashboard dashboard, ReaderState state, Datasets datasets) {
        this.dashboard = dashboard;
        this.state = state;
        this.datasets = datasets;
    }

    /**
     * The stages before links: filters of the visual's page.
     */
    List<Stage> filterStages(Visual visual, LoadedDataset dataset) {
        List<Stage> stages = new ArrayList<>();
        for (String id : dashboard.filtersOf(visual.page())) {
            Filter filter = dashboard.filters().get(id);
            filterCondition(id, filter, dataset).ifPresent(c -> stages.add(new Stage(words(id, filter), List.of(c))));
        }
        return stages;
    }

    /** The stages that links bring: what is picked on other visuals. */
    List<Stage> linkStages(String visualId, LoadedDataset dataset) {
        List<Stage> stages = new ArrayList<>();
        state.picks().forEach((from, values) -> {
            if (dashboard.links().values().stream()
                    .noneMatch(link -> link.from().equals(from) && link.reaches(visualId))) return;
            Source source = source(dashboard.visuals().get(from));
            column(source, dataset)
                    .ifPresent(column -> stages.add(new Stage(
                            pickWords(from, values),
                            List.of(new Condition.OneOf(
                                    column, column.equals(PlacedTable.PLACE) ? dataset.meant(values) : values)))));
        });
        return stages;
    }

    /** The stage of the visual's own rule, if it has one. */
    static List<Stage> ruleStages(Dashboard.Rule rule) {
        if (rule == null) return List.of();
        return List.of(new Stage(
                "Always only where %s is %s".formatted(ColumnWords.of(rule.column()), list(rule.values(), "or")),
                List.of(new Condition.OneOf(rule.column(), rule.values()))));
    }

    private Optional<Condition> filterCondition(String id, Filter filter, LoadedDataset dataset) {
        Optional<String> column = column(new Source(filter.dataset(), filter.column()), dataset);
        if (column.isEmpty()) return Optional.empty();
        if (filter instanceof Filter.Choice) {
            return Optional.ofNullable(state.choices().get(id))
                    .map(values -> new Condition.OneOf(column.get(), values));
        }
        return Optional.ofNullable(state.dates().get(id))
                .map(range -> new Condition.Between(column.get(), text(range.from()), text(range.to())));
    }

    private static String text(LocalDate date) {
        return date == null ? null : date.toString();
    }

    /** The dataset and column whose values a visual's groups are. */
    record Source(long dataset, String column) {}

    static Source source(Visual visual) {
        if (visual instanceof Visual.OfMap map) {
            long dataset = map.layers().values().stream()
                    .mapToLong(Layer::dataset)
                    .findFirst()
                    .orElse(-1);
            return new Source(dataset, PlacedTable.PLACE);
        }
        if (visual instanceof Visual.OfBars bars) return new Source(bars.dataset(), bars.category());
        return new Source(-1, null);
    }

    /**
     * The column of a dataset that means the same as the source's: its own, the same place, or one tied to it.
     */
    private Optional<String> column(Source source, LoadedDataset dataset) {
        if (source.column() == null) return Optional.empty();
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
    public static Set<String> touched(Dashboard dashboard, String id) {
        Set<String> touched = new LinkedHashSet<>();
        Filter filter = dashboard.filters().get(id);
        dashboard.visuals().forEach((visualId, visual) -> {
            boolean byFilter = filter != null && visual.page().equals(filter.page());
            boolean byPick =
                    dashboard.links().values().stream().anyMatch(l -> l.from().equals(id) && l.reaches(visualId));
            boolean byParameter = visual instanceof Visual.OfMap map
                    && dashboard.parameters().containsKey(id)
                    && map.layers().values().stream().anyMatch(layer -> turnsAbout(layer.colour(), id));
            if (byFilter || byPick || byParameter) touched.add(visualId);
        });
        return touched;
    }

    /** Whether a scale turns about a parameter; that of a shared key may. */
    private static boolean turnsAbout(Layer.Colour colour, String parameter) {
        return colour != null
                && (colour.key() != null
                        || colour.centre() != null
                                && parameter.equals(colour.centre().parameter()));
    }

    /**
     * A part of "now showing".
     *
     * @param id the filter or visual that narrows, or the parameter that is set
     * @param words the narrowing as people read it
     */
    public record Showing(String id, String words) {}

    /** Everything the reader has chosen, in words. */
    public List<Showing> nowShowing() {
        List<Showing> parts = new ArrayList<>();
        for (String id : dashboard.filtersOf(dashboard.firstPage())) {
            if (state.choices().containsKey(id) || state.dates().containsKey(id)) {
                parts.add(new Showing(id, words(id, dashboard.filters().get(id))));
            }
        }
        state.numbers()
                .forEach((id, number) -> parts.add(
                        new Showing(id, dashboard.parameters().get(id).name() + " " + NumberWords.full(number))));
        state.picks().forEach((id, values) -> parts.add(new Showing(id, pickWords(id, values))));
        return parts;
    }

    private String words(String id, Filter filter) {
        if (filter instanceof Filter.Choice)
            return filter.words() + " is " + list(state.choices().getOrDefault(id, List.of()), "or");
        ReaderState.Dates range = state.dates().get(id);
        if (range == null) return filter.words();
        if (range.from() == null) return filter.words() + " up to " + DAY.format(range.to());
        if (range.to() == null) return filter.words() + " from " + DAY.format(range.from());
        return "%s from %s to %s".formatted(filter.words(), DAY.format(range.from()), DAY.format(range.to()));
    }

    private String pickWords(String visual, List<String> values) {
        Source source = source(dashboard.visuals().get(visual));
        List<String> names = values.stream()
                .map(v -> label(dashboard.visuals().get(visual), source, v))
                .sorted()
                .toList();
        return "Picked: " + list(names, "and");
    }

    /** What a picked value is called: on a map by the layer that shows it. */
    private String label(Visual visual, Source source, String value) {
        if (!(visual instanceof Visual.OfMap map))
            return datasets.ready(source.dataset())
                    .map(d -> d.label(source.column(), value))
                    .orElse(value);
        return map.layers().values().stream()
                .flatMap(layer -> datasets.ready(layer.dataset()).stream().flatMap(d -> d.shown(layer, value).stream()))
                .findFirst()
                .map(Place::name)
                .orElse(value);
    }

    /** "a, b or c"; more than three as "a, b, c and 4 more". */
    static String list(Collection<String> words, String last) {
        List<String> all = List.copyOf(words);
        if (all.isEmpty()) return "nothing";
        if (all.size() == 1) return all.get(0);
        if (all.size() > NAMED)
            return String.join(", ", all.subList(0, NAMED)) + " and " + (all.size() - NAMED) + " more";
        return String.join(", ", all.subList(0, all.size() - 1)) + " " + last + " " + all.get(all.size() - 1);
    }
}
