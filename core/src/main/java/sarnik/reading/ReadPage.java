package sarnik.reading;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Bound;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.PartJson;
import sarnik.dashboard.Sources;
import sarnik.data.Datasets;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.finding.Finder;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.narrow.ValueCounts;
import sarnik.query.QueryEngine;
import sarnik.state.ReaderState;
import sarnik.state.ReaderState.Part;
import sarnik.state.Value;
import sarnik.visual.Drawing;
import sarnik.visual.SharedKey;
import sarnik.visual.Sight;
import sarnik.visual.map.MapAnswers;
import sarnik.visual.map.MapVisual;
import sarnik.visual.map.PlaceTeller;

/**
 * Answers what a reader asks of a dashboard: the same on the server and in the browser, where a dashboard was carried
 * away. Safe to share between threads.
 */
public final class ReadPage {

    private static final int MOST_ALIKE = 50;

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final Function<String, Optional<SharedKey>> keys;
    private final Answerer answerer;
    private final LocalDate today;
    private final PartJson parts;

    /**
     * @param keys finds shared keys by name
     * @param today the day that relative periods are counted from
     */
    public ReadPage(
            Dashboard dashboard,
            Datasets datasets,
            Function<String, Optional<SharedKey>> keys,
            Answerer answerer,
            LocalDate today,
            PartJson parts) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.keys = keys;
        this.answerer = answerer;
        this.today = today;
        this.parts = parts;
    }

    /**
     * A reader's state as it was read.
     *
     * @param datasets with the measures of the dashboard, for what the reader has set
     */
    public record Read(StateReader.Read read, Datasets datasets) {
        public ReaderState state() {
            return read.state();
        }
    }

    /**
     * What the visuals show.
     *
     * @param state the state's canonical text form
     * @param showing what has been chosen, in words
     * @param misfits sentences about what in the asked state does not fit
     * @param drawings by visual
     * @param lit what is picked on a visual by a predicate, as the values it means
     * @param places the sheets of places that the drawings name and that are not known yet, by tag
     * @param coming whether rows were still on their way, so that it is to be asked again
     */
    public record Frames(
            String state,
            List<Narrowing.Showing> showing,
            List<String> misfits,
            Map<String, Drawing> drawings,
            Map<String, List<String>> lit,
            Map<String, PlaceSheet> places,
            boolean coming) {

        /** The same, drawn while rows were still on their way. */
        public Frames whileComing() {
            return new Frames(state, showing, misfits, drawings, lit, places, true);
        }
    }

    private QueryEngine engine() {
        return answerer.engine();
    }

    /** @param state a reader state's text form */
    public Read read(String state) {
        Datasets once = OnceDatasets.of(datasets);
        StateReader.Read read = StateReader.read(
                state,
                dashboard,
                OnceDatasets.formulated(once, dashboard, ReaderState.NOTHING, engine(), today),
                Kinds.ALL);
        return new Read(read, OnceDatasets.formulated(once, dashboard, read.state(), engine(), today));
    }

    /**
     * Draws visuals.
     *
     * @param state a reader state's text form
     * @param ids the visuals wanted; null for all
     * @param sights what is in sight on maps, by visual; null for whole maps
     * @param known tags of the sheets of places that are known already; null for none
     * @param check is called between steps, and may throw to give the work up
     */
    public Frames frames(
            String state, Collection<String> ids, Map<String, Sight> sights, Set<String> known, Runnable check) {
        Read read = read(state);
        PageDrawer drawer = drawer(read, sights == null ? Map.of() : sights);
        // Each once, whatever is asked for how often.
        List<String> wanted = ids == null
                ? List.copyOf(dashboard.visuals().keySet())
                : ids.stream().distinct().toList();
        Map<String, Drawing> drawn = drawer.draw(wanted, check);
        Map<String, PlaceSheet> places = new LinkedHashMap<>(drawer.sheets());
        if (known != null) places.keySet().removeAll(known);
        return new Frames(
                read.state().text(),
                narrowing(read).nowShowing(),
                read.read().misfits(),
                drawn,
                drawer.lit(),
                places,
                false);
    }

    private Narrowing narrowing(Read read) {
        return new Narrowing(dashboard, read.state(), read.datasets(), Kinds.ALL, today, engine());
    }

    private FilterScene scene(Read read) {
        return new FilterScene(today, read.datasets(), engine());
    }

    public PageDrawer drawer(Read read, Map<String, Sight> sights) {
        return new PageDrawer(
                Bound.of(dashboard, read.state(), parts),
                read.state(),
                new Sources(read.datasets(), keys, today),
                answerer,
                sights);
    }

    /**
     * What is asked about a map beside its drawing.
     *
     * @throws MisfitException when it has gone
     */
    public MapAnswers onMap(String state, String visual) {
        if (visual == null || !(dashboard.visuals().get(visual) instanceof MapVisual map))
            throw new MisfitException(phrase("This map has been taken away from the dashboard."));
        return new MapAnswers(map, drawer(read(state), Map.of()).scene(visual), engine());
    }

    /** What is told of a place. */
    public PlaceTeller.Told told(String state, String visual, String layer, String place) {
        return onMap(state, visual).tell(layer, place);
    }

    /**
     * The places near one, or most like it.
     *
     * @param metres within which others are near; null where it is not about that
     * @param count how many others are alike; null where it is not about that
     * @throws MisfitException when neither is said
     */
    public List<PlaceTeller.Found> others(
            String state, String visual, String layer, String place, Double metres, Integer count) {
        if (count != null) return onMap(state, visual).alike(layer, place, Math.max(1, Math.min(MOST_ALIKE, count)));
        if (metres == null || !(metres > 0))
            throw new MisfitException(phrase("Say within which distance places are near."));
        return onMap(state, visual).near(layer, place, metres);
    }

    /**
     * The values of a filter, each with how many rows the other filters leave it.
     *
     * @param find what a value has to hold; empty for all
     * @throws MisfitException when the filter has gone, or has no values to choose from
     */
    public ValueCounts values(String state, String filter, String find) {
        if (filter == null || !dashboard.filters().containsKey(filter))
            throw new MisfitException(phrase("This filter has been taken away."));
        Read read = read(state);
        FilterOffer offer = FilterOffer.of(dashboard.filters().get(filter), scene(read), Kinds.ALL);
        Set<String> chosen = new HashSet<>(read.state()
                .get(Part.FILTER, filter, Value.Choice.class)
                .map(Value.Choice::values)
                .orElse(List.of()));
        return ValueCounts.of(dashboard, narrowing(read), engine(), filter, find == null ? "" : find, chosen, offer)
                .orElseThrow(() -> new MisfitException(phrase("This filter has no values to choose from.")));
    }

    /** What words mean that a reader types to narrow a page. */
    public Finder.Found find(String state, String words) {
        Read read = read(state);
        return new Finder(dashboard, Kinds.ALL, scene(read), narrowing(read).page()).read(words, read.state());
    }

    /** What each filter offers to choose from. */
    public Map<String, FilterOffer> offers() {
        FilterScene scene = new FilterScene(today, OnceDatasets.of(datasets, dashboard, engine(), today), engine());
        Map<String, FilterOffer> offers = new LinkedHashMap<>();
        for (String page : dashboard.pageIds())
            for (String id : dashboard.filtersOf(page))
                offers.computeIfAbsent(
                        id, of -> FilterOffer.of(dashboard.filters().get(of), scene, Kinds.ALL));
        return offers;
    }
}
