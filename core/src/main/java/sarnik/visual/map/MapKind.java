package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Rule;
import sarnik.data.Telling;
import sarnik.data.Words;
import sarnik.language.Language;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Measure;
import sarnik.query.QueryException;
import sarnik.scale.CircleSizes;
import sarnik.scale.Classes;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.ColumnType;
import sarnik.visual.Answers;
import sarnik.visual.Colour;
import sarnik.visual.Key;
import sarnik.visual.Known;
import sarnik.visual.Picked;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scales;
import sarnik.visual.Scene;
import sarnik.visual.Source;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;

/** The kind of visual that shows where. A layer that does not fit its data says so and leaves the others standing. */
public final class MapKind implements VisualKind<MapVisual> {

    private static final int MOST_EACH = 3;
    private static final int LEAST_FOR_DENSITY = 100;
    private static final int MOST_TRAVELLERS = 60;
    private static final int WIDE = 14;
    private static final int HIGH = 12;
    /** About how large a cell of the grid is, pixels, less what stands around a map. */
    private static final int CELL_WIDE = 49;

    private static final int CELL_HIGH = 38;

    @Override
    public String name() {
        return "map";
    }

    @Override
    public Class<MapVisual> type() {
        return MapVisual.class;
    }

    @Override
    public Class<MapDrawing> drawing() {
        return MapDrawing.class;
    }

    @Override
    public Map<Class<?>, String> parts() {
        return Map.of(
                LayerDrawn.OfSymbols.class, "symbols",
                LayerDrawn.OfAreas.class, "areas",
                LayerDrawn.OfDensity.class, "density",
                LayerDrawn.OfFlows.class, "flows",
                LayerDrawn.OfPaths.class, "paths",
                LayerDrawn.OfOutlines.class, "outlines",
                LayerDrawn.OfPictures.class, "pictures",
                LayerDrawn.OfNothing.class, "nothing");
    }

    @Override
    public List<Class<?>> typed() {
        return List.of(LayerDrawn.class);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(
                Layer.class,
                Layer.Size.class,
                Layer.Symbol.class,
                Layer.Path.class,
                Layer.Label.class,
                Layer.Tip.class,
                Chance.class,
                Chance.Ages.class,
                Chance.Clusters.class,
                Chance.Near.class);
    }

    @Override
    public String sign() {
        return "M1 7c2-3 3 1 5-2s2-3 3-3M3 3a1 1 0 1 0 .1 0M7 7a1 1 0 1 0 .1 0";
    }

    @Override
    public List<Slot> slots() {
        return MapSlots.ALL;
    }

    @Override
    public String words(MapVisual map) {
        return phrase("the map");
    }

    @Override
    public Set<Long> datasets(MapVisual map) {
        Set<Long> ids = new LinkedHashSet<>();
        map.layers().values().stream()
                .filter(layer -> layer.kind().hasData())
                .forEach(layer -> ids.add(layer.dataset()));
        return ids;
    }

    @Override
    public void brief(MapVisual map, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        new MapBrief(line, looks, choices).write(map, datasets);
    }

    // --- what is picked --------------------------------------------------------------------------

    @Override
    public Optional<Source> picks(MapVisual map) {
        long dataset = map.layers().values().stream()
                .filter(layer -> layer.kind().hasData())
                .mapToLong(Layer::dataset)
                .findFirst()
                .orElse(-1);
        return Optional.of(new Source(dataset, PlacedTable.PLACE));
    }

    @Override
    public Known known(MapVisual map, List<String> values, Datasets datasets) {
        List<LoadedDataset> shown = map.layers().values().stream()
                .flatMap(layer -> datasets.ready(layer.dataset()).stream())
                .distinct()
                .toList();
        if (map.layers().values().stream()
                .anyMatch(layer -> datasets.find(layer.dataset()) instanceof Datasets.Found.Unfit))
            return new Known(values, "");
        if (shown.isEmpty()) return new Known(List.of(), null);
        List<String> known =
                values.stream().filter(v -> place(map, v, datasets).isPresent()).toList();
        return new Known(
                known,
                phrase(
                        "{0} does not have in {1}",
                        Language.all(shown.stream().map(LoadedDataset::name).toList()),
                        ColumnWords.of(PlacedTable.PLACE)));
    }

    @Override
    public String label(MapVisual map, String value, Datasets datasets) {
        return place(map, value, datasets).map(Place::said).orElse(value);
    }

    private static Optional<Place> place(MapVisual map, String id, Datasets datasets) {
        return map.layers().values().stream()
                .flatMap(layer -> datasets.ready(layer.dataset()).flatMap(d -> d.shown(layer.set(), id)).stream())
                .findFirst();
    }

    @Override
    public boolean framed() {
        return true;
    }

    @Override
    public Picked picked(MapVisual map, Value.Pick pick, Scene scene) {
        return PickedPlaces.of(
                map, pick, scene, layer -> asRead(scene, layer, map.layers().get(layer)));
    }

    @Override
    public String pickWords(MapVisual map, Value.Pick pick, Datasets datasets) {
        return PickedPlaces.words(map, pick, datasets)
                .orElseGet(() -> Words.list(
                        pick instanceof Value.Values of
                                ? of.values().stream()
                                        .map(v -> label(map, v, datasets))
                                        .sorted()
                                        .toList()
                                : List.of(),
                        "and"));
    }

    @Override
    public List<String> turnable(MapVisual map) {
        return List.copyOf(map.layers().keySet());
    }

    @Override
    public List<String> offers(MapVisual map) {
        List<String> ids = new ArrayList<>(map.layers().keySet());
        map.layers().keySet().forEach(id -> ids.add(id + SIZE));
        return ids;
    }

    // --- parameters ------------------------------------------------------------------------------

    @Override
    public boolean uses(MapVisual map, String parameter) {
        return map.layers().values().stream().anyMatch(layer -> turnsAbout(layer.colour(), parameter));
    }

    /** Whether a scale turns about a parameter; that of a shared key may. */
    private static boolean turnsAbout(Colour colour, String parameter) {
        return colour != null
                && (colour.key() != null
                        || colour.centre() != null
                                && parameter.equals(colour.centre().parameter()));
    }

    @Override
    public Stream<String> places(MapVisual map, String parameter) {
        return map.layers().entrySet().stream()
                .filter(e -> e.getValue().colour() != null
                        && e.getValue().colour().centre() != null
                        && parameter.equals(e.getValue().colour().centre().parameter()))
                .map(e -> "/layers/" + e.getKey() + "/colour/centre");
    }

    // --- drawing -------------------------------------------------------------------------------------

    /** What stands behind a layer's id in the reader state where the measure of its size is chosen. */
    private static final String SIZE = ".size";

    /** A layer that is on its way to be drawn. */
    private record Coming(String id, Layer set, Layer read, LayerRows rows, LayerPlan plan, String misfit) {

        /** What it is called where it cannot be drawn. */
        String name() {
            if (read.name() != null && !read.name().isBlank()) return read.name();
            if (!read.kind().hasData()) return read.kind().bare().name(read);
            return rows == null ? phrase("Layer {0}", id) : rows.head(List.of()).name();
        }
    }

    @Override
    public List<Rule> rules(MapVisual visual) {
        return visual.layers().values().stream()
                .map(Layer::rule)
                .filter(Objects::nonNull)
                .toList();
    }

    @Override
    public boolean hasKey(MapVisual visual) {
        return !visual.layers().isEmpty();
    }

    @Override
    public Plan plan(MapVisual map, Scene scene) {
        Plan plan = new Plan();
        List<Coming> layers = new ArrayList<>();
        for (Map.Entry<String, Layer> entry : inOrder(map)) layers.add(coming(entry, scene, plan));
        return plan.drawn(answers -> draw(map, scene, layers, answers));
    }

    private static Coming coming(Map.Entry<String, Layer> entry, Scene scene, Plan plan) {
        String id = entry.getKey();
        Layer layer = asRead(scene, id, entry.getValue());
        if (!layer.kind().hasData()) return new Coming(id, entry.getValue(), layer, null, null, null);
        LayerRows rows = null;
        try {
            rows = new LayerRows(id, layer, scene, plan);
            if (layer.startsHidden()) return new Coming(id, entry.getValue(), layer, rows, null, null);
            if (!rows.dataset().isPlaced())
                throw new MisfitException(phrase(
                        "The rows of “{0}” have no place. Say on the dataset’s page how they are placed",
                        rows.dataset().name()));
            fits(layer, rows.dataset());
            LayerPlan drawn = layer.kind().room().plan(rows, new Scales(scene::key, scene::number));
            return new Coming(id, entry.getValue(), layer, rows, drawn, null);
        } catch (MisfitException | QueryException misfit) {
            return new Coming(id, entry.getValue(), layer, rows, null, misfit.getMessage());
        }
    }

    private static MapDrawing draw(MapVisual map, Scene scene, List<Coming> layers, Answers answers) {
        List<LayerDrawn> drawn = new ArrayList<>();
        Set<String> credits = new LinkedHashSet<>();
        Trail trail = null;
        for (Coming layer : layers) {
            if (layer.misfit != null) {
                drawn.add(misfit(layer, layer.misfit));
            } else if (!layer.read.kind().hasData()) {
                drawn.add(bare(layer, scene, credits));
            } else if (layer.plan == null) {
                drawn.add(new LayerDrawn.OfNothing(layer.rows.head(List.of()), Key.NONE));
            } else {
                try {
                    LayerDrawn one = layer.plan.draw().of(answers, new ArrayList<>(layer.rows.notes));
                    credits(layer.read, layer.rows.dataset(), credits);
                    drawn.add(offering(one, scene, layer.id, layer.set, layer.rows.dataset()));
                    trail = Trail.of(answers.of(layer.plan.main()).trail());
                } catch (MisfitException | QueryException misfit) {
                    drawn.add(misfit(layer, misfit.getMessage()));
                }
            }
        }
        if (trail == null) trail = Trail.none(map.layers().isEmpty() ? phrase("The map has no layer yet.") : null);
        return new MapDrawing(
                Scene.titleOf(map, map.layers().isEmpty() ? phrase("An empty map") : titleOf(map, scene.datasets())),
                drawn,
                MapWords.summary(drawn, scene),
                List.copyOf(credits),
                pinned(map, scene.datasets()),
                trail);
    }

    /**
     * The rows of a layer as the reader has set it, for asking at once.
     *
     * @throws MisfitException when the layer has gone or no longer fits its data
     */
    static LayerRows rows(MapVisual map, String layer, Scene scene) {
        if (!map.layers().containsKey(layer))
            throw new MisfitException(phrase("This layer has been taken away from the map."));
        return new LayerRows(layer, asRead(scene, layer, map.layers().get(layer)), scene, new Plan());
    }

    private static LayerDrawn misfit(Coming layer, String why) {
        String sentence = why.endsWith(".") ? why : phrase("{0}. Choose what fits in the layer’s brief.", why);
        return new LayerDrawn.OfNothing(
                new LayerDrawn.Head(
                        layer.id, layer.name(), layer.read.startsHidden(), layer.read.opacity(), 0, List.of(sentence)),
                Key.NONE);
    }

    /** The notes whose place is there. */
    private static List<MapDrawing.Pinned> pinned(MapVisual map, Datasets datasets) {
        if (map.pinned() == null) return List.of();
        return map.pinned().stream()
                .flatMap(note -> place(map, note.at(), datasets)
                        .map(p -> new MapDrawing.Pinned(p.name(), p.lon(), p.lat(), note.text()))
                        .stream())
                .toList();
    }

    /** A layer without data. */
    private static LayerDrawn bare(Coming layer, Scene scene, Set<String> credits) {
        LayerDrawn.Head head = new LayerDrawn.Head(
                layer.id,
                layer.name(),
                layer.read.startsHidden(),
                layer.read.opacity(),
                layer.read.borderOrUsual(),
                List.of());
        if (layer.read.startsHidden()) return new LayerDrawn.OfNothing(head, Key.NONE);
        try {
            LayerDrawn drawn = layer.read.kind().bare().drawn(layer.read, head, scene);
            if (drawn instanceof LayerDrawn.OfOutlines outlines
                    && !outlines.credit().isEmpty()) credits.add(outlines.credit());
            return drawn;
        } catch (MisfitException gone) {
            return misfit(layer, gone.getMessage());
        }
    }

    private static void credits(Layer layer, LoadedDataset dataset, Set<String> credits) {
        if (!dataset.about().credit().isEmpty()) credits.add(dataset.about().credit());
        if (layer.kind() == Layer.Kind.AREAS)
            PlaceMarks.setOf(layer, dataset)
                    .flatMap(dataset::creditOf)
                    .filter(c -> !c.isEmpty())
                    .ifPresent(credits::add);
    }

    /**
     * Checks that what sizes stand for is an amount: a date has none.
     *
     * @throws MisfitException when it is not
     */
    private static void fits(Layer layer, LoadedDataset dataset) {
        if (layer.size() != null
                && !layer.isOfShapes()
                && !dataset.read(layer.size().measure()).isAmount()) {
            throw new MisfitException(phrase(
                    "“{0}” is a date, and a date has no size. Choose another measure for the size; colours and labels can stand for dates",
                    ColumnWords.of(layer.size().measure())));
        }
        if (layer.colour() != null
                && layer.colour().measure() != null
                && layer.colour().per() != null
                && !dataset.read(layer.colour().measure()).isAmount()) {
            throw new MisfitException(phrase(
                    "“{0}” is a date, and a date cannot be divided by the size of an area. Take that off in the layer’s brief",
                    ColumnWords.of(layer.colour().measure())));
        }
    }

    private static List<Map.Entry<String, Layer>> inOrder(MapVisual map) {
        return map.layers().entrySet().stream()
                .sorted(Map.Entry.<String, Layer>comparingByValue(Comparator.comparingInt(Layer::order))
                        .thenComparing(Map.Entry.comparingByKey()))
                .toList();
    }

    /** The layer as the reader has set it: shown or hidden, with the measure that was chosen. */
    private static Layer asRead(Scene scene, String id, Layer layer) {
        boolean hidden = layer.startsHidden() ^ scene.state().isTurned(scene.id(), id);
        Colour colour = layer.colour();
        if (colour != null && colour.offered() != null && colour.measure() != null) {
            colour = colour.by(
                    chosen(colour.measure(), colour.offered(), scene.state().offered(scene.id(), id)));
        }
        Layer.Size size = layer.size();
        if (size != null && size.offered() != null) {
            size = size.by(chosen(size.measure(), size.offered(), scene.state().offered(scene.id(), id + SIZE)));
        }
        return new Layer(
                layer.kind(),
                layer.order(),
                layer.dataset(),
                layer.name(),
                hidden,
                size,
                colour,
                layer.symbol(),
                layer.gather(),
                layer.set(),
                layer.spread(),
                layer.path(),
                layer.label(),
                layer.tip(),
                layer.border(),
                layer.opacity(),
                layer.rule(),
                layer.period(),
                layer.chance());
    }

    /** What the reader may choose among: what the author chose, then what is offered besides. */
    private static List<Measure> offered(Measure first, List<Measure> more) {
        List<Measure> offered = new ArrayList<>(List.of(first));
        more.stream().filter(m -> !m.equals(first)).forEach(offered::add);
        return offered;
    }

    private static Measure chosen(Measure first, List<Measure> more, int chosen) {
        List<Measure> offered = offered(first, more);
        return offered.get(chosen < offered.size() ? chosen : 0);
    }

    private static LayerDrawn offering(LayerDrawn drawn, Scene scene, String id, Layer layer, LoadedDataset dataset) {
        Key key = drawn.key();
        Colour colour = layer.colour();
        if (colour != null && colour.offered() != null && colour.measure() != null) {
            List<Measure> offered = offered(colour.measure(), colour.offered());
            key = key.offering(
                    offered.stream().map(dataset::words).toList(),
                    offered.indexOf(chosen(
                            colour.measure(), colour.offered(), scene.state().offered(scene.id(), id))));
        }
        Layer.Size size = layer.size();
        if (size != null && size.offered() != null && !layer.isOfShapes()) {
            List<Measure> offered = offered(size.measure(), size.offered());
            key = key.offeringSizes(
                    offered.stream().map(dataset::words).toList(),
                    offered.indexOf(
                            chosen(size.measure(), size.offered(), scene.state().offered(scene.id(), id + SIZE))));
        }
        return key == drawn.key() ? drawn : drawn.with(key);
    }

    private static String titleOf(MapVisual map, Datasets datasets) {
        Layer top = map.layers().values().stream()
                .max(Comparator.comparingInt(Layer::order))
                .orElseThrow();
        if (top.name() != null && !top.name().isBlank()) return top.name();
        if (!top.kind().hasData()) return top.kind().bare().name(top);
        return datasets.ready(top.dataset()).map(d -> LayerRows.nameOf(top, d)).orElse(phrase("A map"));
    }

    // --- proposals ---------------------------------------------------------------------------------

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        return question == Question.WHERE && dataset.isPlaced() ? where(dataset) : List.of();
    }

    private static List<Proposal> where(LoadedDataset dataset) {
        List<Proposal> proposals = new ArrayList<>();
        List<Measure> measures = Telling.measures(dataset);
        Measure amount = Telling.amount(dataset);
        Measure rate =
                measures.stream().filter(m -> !Telling.addsUp(m)).findFirst().orElse(amount);
        Colour colour = Colour.by(rate, Classes.Method.NATURAL, 5, "loch");
        if (dataset.table().find(PlacedTable.ORIGIN).isPresent()) {
            proposals.add(map(
                    "From where to where? " + ColumnWords.of(amount) + " in " + dataset.name(),
                    Layer.of(Layer.Kind.FLOWS, dataset.id()).sized(size(amount, 24))));
        }
        if (dataset.placing() instanceof Placing.ByArea area) {
            proposals.add(map(
                    "Which areas? " + ColumnWords.of(rate) + " by area of " + area.set(),
                    Layer.of(Layer.Kind.AREAS, dataset.id()).coloured(colour)));
        }
        if (dataset.ownShapes().isPresent()) {
            proposals.add(map(
                    "Which lines and areas? " + ColumnWords.of(rate) + " on the shapes of " + dataset.name(),
                    Layer.of(Layer.Kind.SHAPES, dataset.id()).coloured(colour)));
        }
        Stream.concat(measures.stream().limit(MOST_EACH - 1), Stream.of(Measure.ROWS))
                .forEach(measure -> proposals.add(symbols(dataset, measure)));
        if (dataset.places().size() >= LEAST_FOR_DENSITY) {
            proposals.add(map(
                    "Where is it thick? The density of " + ColumnWords.of(amount),
                    Layer.of(Layer.Kind.DENSITY, dataset.id()).sized(size(amount, 28))));
        }
        paths(dataset)
                .ifPresent(path -> proposals.add(map(
                        "Which ways? One path for each " + ColumnWords.of(path.who()),
                        Layer.of(Layer.Kind.PATHS, dataset.id()).joined(path))));
        return proposals;
    }

    /** Amounts size symbols; a rate or a mean has no size and colours them. */
    private static Proposal symbols(LoadedDataset dataset, Measure measure) {
        String words = "Where? " + ColumnWords.of(measure) + " in " + dataset.name();
        Layer layer = Layer.of(Layer.Kind.SYMBOLS, dataset.id());
        if (!Telling.addsUp(measure))
            return map(words, layer.coloured(Colour.by(measure, Classes.Method.NATURAL, 5, "loch")));
        double radius = Crowding.radius(dataset, measure, WIDE * CELL_WIDE, HIGH * CELL_HIGH);
        return map(words, layer.sized(size(measure, radius)));
    }

    private static Layer.Size size(Measure measure, double radius) {
        return new Layer.Size(measure, CircleSizes.Rule.AREA, radius, null, null);
    }

    private static Proposal map(String words, Layer layer) {
        return new Proposal(words, MapVisual.of(Map.of("l1", layer)), WIDE, HIGH);
    }

    /**
     * Who travels and in which order, where the dataset has a column of times and one that tells few travellers apart.
     */
    private static Optional<Layer.Path> paths(LoadedDataset dataset) {
        if (!(dataset.placing() instanceof Placing.ByCoordinates)) return Optional.empty();
        Optional<String> by = dataset.columnNames().stream()
                .filter(n -> dataset.table().column(n).type() == ColumnType.TIME)
                .findFirst();
        Optional<String> who = dataset.columnNames().stream()
                .filter(n -> !n.startsWith("@")
                        && dataset.table().column(n) instanceof CodedColumn c
                        && c.dictionary().size() > 1
                        && c.dictionary().size() <= MOST_TRAVELLERS)
                .findFirst();
        return by.flatMap(b -> who.map(w -> new Layer.Path(w, b, null, null)));
    }
}
