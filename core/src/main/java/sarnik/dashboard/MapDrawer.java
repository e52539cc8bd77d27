package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentMap;
import java.util.function.Function;
import java.util.stream.IntStream;
import sarnik.query.Condition;
import sarnik.query.Measure;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.query.Stage;
import sarnik.scale.NumberWords;
import sarnik.scale.ValueWords;

/** Draws the layers of a map. A layer that does not fit its data says so and leaves the others standing. */
final class MapDrawer {

    private static final int NAMED = 3;
    /** What stands behind a layer's id in the reader state where the measure of its size is chosen. */
    private static final String SIZE = ".size";

    private final Datasets datasets;
    private final Scales scales;
    private final ReaderState state;
    private final QueryEngine engine;
    private final Sight sight;
    private final ConcurrentMap<String, PlaceSheet> sheets;
    private final StagesOf stagesOf;

    /** The stages of a layer's rows. */
    interface StagesOf {
        List<Stage> of(Layer layer, LoadedDataset dataset);
    }

    MapDrawer(
            Datasets datasets,
            Scales scales,
            ReaderState state,
            QueryEngine engine,
            Sight sight,
            ConcurrentMap<String, PlaceSheet> sheets,
            StagesOf stagesOf) {
        this.datasets = datasets;
        this.scales = scales;
        this.state = state;
        this.engine = engine;
        this.sight = sight == null ? Sight.FIRST : sight;
        this.sheets = sheets;
        this.stagesOf = stagesOf;
    }

    /**
     * @param title makes the title from what the map shows
     */
    Drawing.OfMap draw(String id, Visual.OfMap map, Function<String, String> title) {
        List<LayerDrawn> drawn = new ArrayList<>();
        Set<String> credits = new LinkedHashSet<>();
        Drawing.Trail trail = null;
        for (Map.Entry<String, Layer> entry : inOrder(map)) {
            Layer layer = asRead(id, entry.getKey(), entry.getValue());
            LayerRows rows = null;
            try {
                rows = rows(id, map, entry.getKey());
                LoadedDataset dataset = rows.dataset();
                if (layer.startsHidden()) {
                    drawn.add(new LayerDrawn.OfNothing(rows.head(), LayerDrawn.Key.NONE));
                    continue;
                }
                if (!dataset.isPlaced())
                    throw new MisfitException("The rows of “" + dataset.name()
                            + "” have no place. Say on the dataset's page how they are placed");
                LayerDrawn one = draw(rows);
                credits(layer, dataset, credits);
                drawn.add(offering(one, id, entry.getKey(), entry.getValue(), rows.dataset()));
                trail = Drawing.Trail.of(Drawer.named(rows.last().trail()));
            } catch (MisfitException | QueryException misfit) {
                drawn.add(misfit(entry.getKey(), layer, rows, misfit.getMessage()));
            }
        }
        if (trail == null)
            trail = new Drawing.Trail(List.of(), map.layers().isEmpty() ? "The map has no layer yet." : null);
        return new Drawing.OfMap(
                title.apply(map.layers().isEmpty() ? "An empty map" : titleOf(map)),
                drawn,
                summary(drawn),
                List.copyOf(credits),
                trail);
    }

    /** The rows of a layer as the reader has set it. */
    LayerRows rows(String id, Visual.OfMap map, String layerId) {
        if (!map.layers().containsKey(layerId))
            throw new MisfitException("This layer has been taken away from the map.");
        Layer layer = asRead(id, layerId, map.layers().get(layerId));
        LoadedDataset dataset = datasets.get(layer.dataset());
        return new LayerRows(layerId, layer, dataset, stagesOf.of(layer, dataset), engine, sight, sheets);
    }

    private static LayerDrawn misfit(String id, Layer layer, LayerRows rows, String why) {
        String sentence = why.endsWith(".") ? why : why + ". Choose what fits in the layer's brief.";
        String name = layer.name() != null && !layer.name().isBlank()
                ? layer.name()
                : rows == null ? "Layer " + id : rows.head().name();
        return new LayerDrawn.OfNothing(
                new LayerDrawn.Head(id, name, layer.startsHidden(), layer.opacity(), 0, List.of(sentence)),
                LayerDrawn.Key.NONE);
    }

    private static void credits(Layer layer, LoadedDataset dataset, Set<String> credits) {
        if (!dataset.about().credit().isEmpty()) credits.add(dataset.about().credit());
        if (layer.kind() == Layer.Kind.AREAS)
            PlacesDrawer.setOf(layer, dataset)
                    .flatMap(dataset::creditOf)
                    .filter(c -> !c.isEmpty())
                    .ifPresent(credits::add);
    }

    private LayerDrawn draw(LayerRows rows) {
        fits(rows.layer, rows.dataset());
        return switch (rows.layer.kind()) {
            case SYMBOLS -> new PlacesDrawer(rows, scales).symbols();
            case AREAS -> new PlacesDrawer(rows, scales).areas();
            case SHAPES -> new PlacesDrawer(rows, scales).ownShapes();
            case DENSITY -> DensityDrawer.draw(rows);
            case FLOWS -> new LinesDrawer(rows, scales).flows();
            case PATHS -> new LinesDrawer(rows, scales).paths();
        };
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
            throw new MisfitException(
                    ("“%s” is a date, and a date has no size. Choose another measure for the size; colours and "
                                    + "labels can stand for dates")
                            .formatted(ColumnWords.of(layer.size().measure())));
        }
        if (layer.colour() != null
                && layer.colour().measure() != null
                && layer.colour().per() != null
                && !dataset.read(layer.colour().measure()).isAmount()) {
            throw new MisfitException(
                    ("“%s” is a date, and a date cannot be divided by the size of an area. Take that off in the "
                                    + "layer's brief")
                            .formatted(ColumnWords.of(layer.colour().measure())));
        }
    }

    private static List<Map.Entry<String, Layer>> inOrder(Visual.OfMap map) {
        return map.layers().entrySet().stream()
                .sorted(Map.Entry.<String, Layer>comparingByValue(Comparator.comparingInt(Layer::order))
                        .thenComparing(Map.Entry.comparingByKey()))
                .toList();
    }

    /** The layer as the reader has set it: shown or hidden, with the measure that was chosen. */
    private Layer asRead(String visual, String id, Layer layer) {
        boolean hidden = layer.startsHidden() ^ state.isTurned(visual, id);
        Layer.Colour colour = layer.colour();
        if (colour != null && colour.offered() != null && colour.measure() != null) {
            colour = colour.by(chosen(colour.measure(), colour.offered(), state.slot(visual, id)));
        }
        Layer.Size size = layer.size();
        if (size != null && size.offered() != null) {
            size = size.by(chosen(size.measure(), size.offered(), state.slot(visual, id + SIZE)));
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
                layer.period());
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

    private LayerDrawn offering(LayerDrawn drawn, String visual, String id, Layer layer, LoadedDataset dataset) {
        LayerDrawn.Key key = drawn.key();
        Layer.Colour colour = layer.colour();
        if (colour != null && colour.offered() != null && colour.measure() != null) {
            List<Measure> offered = offered(colour.measure(), colour.offered());
            key = key.offering(
                    offered.stream().map(dataset::words).toList(),
                    offered.indexOf(chosen(colour.measure(), colour.offered(), state.slot(visual, id))));
        }
        Layer.Size size = layer.size();
        if (size != null && size.offered() != null && !layer.isOfShapes()) {
            List<Measure> offered = offered(size.measure(), size.offered());
            key = key.offeringSizes(
                    offered.stream().map(dataset::words).toList(),
                    offered.indexOf(chosen(size.measure(), size.offered(), state.slot(visual, id + SIZE))));
        }
        return key == drawn.key() ? drawn : drawn.with(key);
    }

    /** The stage of a layer's own period. */
    static List<Stage> periodStages(Layer.Period period) {
        if (period == null) return List.of();
        String from = period.from() == null ? null : period.from().toString();
        String to = period.to() == null ? null : period.to().toString();
        String words = from == null ? "up to " + to : to == null ? "from " + from : "from " + from + " to " + to;
        return List.of(new Stage(
                "The layer keeps to %s %s".formatted(ColumnWords.of(period.column()), words),
                List.of(new Condition.Between(period.column(), from, to))));
    }

    private String titleOf(Visual.OfMap map) {
        Layer top = map.layers().values().stream()
                .max(Comparator.comparingInt(Layer::order))
                .orElseThrow();
        if (top.name() != null && !top.name().isBlank()) return top.name();
        Optional<LoadedDataset> dataset = datasets.ready(top.dataset());
        return dataset.map(d -> LayerRows.nameOf(top, d)).orElse("A map");
    }

    // --- in words ---------------------------------------------------------------------------------

    /** What the map shows, layer by layer, for those who cannot see it. */
    private String summary(List<LayerDrawn> drawn) {
        List<String> sentences = new ArrayList<>();
        for (LayerDrawn layer : drawn) if (!layer.head().hidden()) sentences.add(summary(layer));
        return String.join(" ", sentences);
    }

    private String summary(LayerDrawn layer) {
        String name = layer.head().name();
        if (layer instanceof LayerDrawn.OfSymbols s) {
            String most = IntStream.range(0, Math.min(NAMED, s.at().length))
                    .mapToObj(i -> name(s.places(), s.at()[i]) + " " + NumberWords.full(s.sizes()[i]))
                    .reduce((a, b) -> a + ", " + b)
                    .orElse("none");
            return "%s: %,d symbols. The largest: %s.%s".formatted(name, s.at().length, most, colours(s.key()));
        }
        if (layer instanceof LayerDrawn.OfAreas a) {
            int[] order = IntStream.range(0, a.at().length)
                    .boxed()
                    .filter(i -> Double.isFinite(a.values()[i]))
                    .sorted(Comparator.comparingDouble(i -> -a.values()[i]))
                    .mapToInt(i -> i)
                    .toArray();
            String most = IntStream.range(0, Math.min(NAMED, order.length))
                    .mapToObj(i -> name(a.places(), a.at()[order[i]]) + " "
                            + (a.key().low() == null
                                            ? ValueWords.NUMBER
                                            : a.key().read())
                                    .full(a.values()[order[i]]))
                    .reduce((x, y) -> x + ", " + y)
                    .orElse("none");
            return "%s: %,d %s. The highest: %s.%s"
                    .formatted(
                            name,
                            a.at().length,
                            a.set() == null ? "shapes" : "areas of " + a.set(),
                            most,
                            colours(a.key()));
        }
        if (layer instanceof LayerDrawn.OfDensity d)
            return "%s: the density of %,d places.".formatted(name, d.at().length);
        if (layer instanceof LayerDrawn.OfFlows f) {
            String most = IntStream.range(0, Math.min(NAMED, f.from().length))
                    .mapToObj(i -> "%s to %s %s"
                            .formatted(
                                    name(f.places(), f.from()[i]),
                                    name(f.places(), f.to()[i]),
                                    NumberWords.full(f.values()[i])))
                    .reduce((a, b) -> a + ", " + b)
                    .orElse("none");
            return "%s: %,d flows. The largest: %s.".formatted(name, f.from().length, most);
        }
        if (layer instanceof LayerDrawn.OfPaths p)
            return "%s: %,d paths through %,d points.".formatted(name, p.names().size(), p.at().length);
        return String.join(" ", layer.head().notes());
    }

    private String name(String sheet, int place) {
        return sheets.get(sheet).names().get(place);
    }

    private static String colours(LayerDrawn.Key key) {
        if (key.colourWords() == null) return "";
        if (key.low() == null) return " Coloured by " + key.colourWords() + ".";
        return String.format(
                Locale.ENGLISH,
                " Coloured by %s, from %s to %s%s.",
                key.colourWords(),
                key.read().full(key.low()),
                key.read().full(key.high()),
                key.missing() == 0 ? "" : "; %,d without data".formatted(key.missing()));
    }
}
