package sarnik.visual.map;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.place.Place;
import sarnik.scale.NumberWords;
import sarnik.visual.Slots;

/** Writes the brief of a map: a sentence for each layer, and one about the map as a whole. */
final class MapBrief {

    private final Choices choices;
    /** Places of a layer that a note can be pinned to: a brief that named all of them would take long to come. */
    private static final int MOST_PLACES = 300;

    private final BriefLine line;
    private final BriefLine looks;

    MapBrief(BriefLine line, BriefLine looks, Choices choices) {
        this.line = line;
        this.looks = looks;
        this.choices = choices;
    }

    void write(MapVisual map, Datasets datasets) {
        line.say("A map");
        boolean first = true;
        List<Map.Entry<String, Layer>> layers = map.layers().entrySet().stream()
                .sorted(Map.Entry.comparingByValue(
                        Comparator.comparingInt(Layer::order).reversed()))
                .toList();
        for (Map.Entry<String, Layer> entry : layers) {
            line.say(first ? layers.size() > 1 ? ", on top " : " of " : ";\nbelow it ");
            first = false;
            String at = "/layers/" + entry.getKey();
            if (!entry.getValue().kind().hasData()) {
                entry.getValue().kind().bare().sentence(line.about(at), entry.getValue(), choices);
                if (layers.size() > 1) {
                    line.say(" ");
                    line.about(at)
                            .slot(Slot.within("", "this layer"), "– this layer", Kind.REMOVE, true, true, List.of());
                }
                new LayerLooks(looks.about(at), entry.getValue(), null, layers.size() > 1).write();
                continue;
            }
            LoadedDataset dataset = datasets.ready(entry.getValue().dataset()).orElse(null);
            if (dataset == null) {
                line.say("a layer whose dataset has gone ");
                line.about(at)
                        .slot(
                                LayerSlots.at("/dataset"),
                                "+ dataset",
                                Kind.CHOSEN,
                                true,
                                false,
                                choices.datasets().entrySet().stream()
                                        .map(d -> new Option(d.getValue(), "", d.getKey()))
                                        .toList());
                continue;
            }
            boolean named = layers.size() > 1;
            new LayerBrief(line.about(at), choices, entry.getValue(), dataset, named).write();
            new LayerLooks(looks.about(at), entry.getValue(), dataset, named).write();
        }
        line.say(". ");
        addLayer(layers);
        Slots.pinned(line, map.pinned(), places(layers, datasets));
        ground(map);
        movement(map);
    }

    /** The largest places of the layers, by name, as something that a note can be pinned to. */
    private static List<Option> places(List<Map.Entry<String, Layer>> layers, Datasets datasets) {
        Map<String, Option> options = new TreeMap<>();
        for (Map.Entry<String, Layer> entry : layers) {
            Layer layer = entry.getValue();
            if (layer.kind().hasData())
                datasets.ready(layer.dataset()).ifPresent(dataset -> places(layer, dataset, options));
        }
        return options.values().stream()
                .sorted(Comparator.comparing(Option::text, String.CASE_INSENSITIVE_ORDER)
                        .thenComparing(Option::hint))
                .toList();
    }

    private static void places(Layer layer, LoadedDataset dataset, Map<String, Option> options) {
        try {
            Map<String, Place> places = dataset.placesOf(layer.placeColumn());
            PlaceSheet sheet = dataset.sheet(layer.placeColumn());
            IntStream.range(0, sheet.ids().size())
                    .boxed()
                    .filter(i -> places.containsKey(sheet.ids().get(i)))
                    .sorted(Comparator.comparingLong(
                            i -> -places.get(sheet.ids().get(i)).population()))
                    .limit(MOST_PLACES)
                    .forEach(i -> options.put(
                            sheet.ids().get(i),
                            new Option(
                                    sheet.names().get(i),
                                    sheet.within().get(i),
                                    sheet.ids().get(i))));
        } catch (MisfitException gone) {
            // The layer says so itself.
        }
    }

    private void addLayer(List<Map.Entry<String, Layer>> layers) {
        int order = layers.stream().mapToInt(l -> l.getValue().order()).max().orElse(0) + 1;
        String id = "l"
                + (layers.stream()
                                .map(l -> l.getKey().replaceAll("\\D", ""))
                                .filter(d -> !d.isEmpty() && d.length() < 6)
                                .mapToInt(Integer::parseInt)
                                .max()
                                .orElse(0)
                        + 1);
        List<Option> options = choices.datasets().entrySet().stream()
                .map(d -> new Option(
                        "places of " + d.getValue(),
                        "",
                        Choices.map("kind", "SYMBOLS", "order", order, "dataset", d.getKey(), "opacity", 0.75)))
                .collect(Collectors.toCollection(ArrayList::new));
        for (String set : choices.sets())
            options.add(new Option(
                    "outlines of " + set,
                    "borders alone",
                    Choices.map("kind", "OUTLINES", "order", order, "set", set, "opacity", 0.75)));
        for (String source : choices.grounds())
            options.add(new Option(
                    "pictures of " + source,
                    "over the ground",
                    Choices.map("kind", "PICTURES", "order", order, "set", source, "opacity", 0.75)));
        if (!options.isEmpty())
            line.slot(Slot.within("/layers/" + id, "layer"), "+ layer", Kind.CHOSEN, true, false, options);
    }

    // --- the map as a whole ---------------------------------------------------------------------------

    private static final Map<String, String> MOODS = moods();

    private static Map<String, String> moods() {
        Map<String, String> moods = new LinkedHashMap<>();
        moods.put("paper", "paper");
        moods.put("outline", "outlines only");
        moods.put("tinted", "tinted relief");
        moods.put("plain", "nothing");
        return moods;
    }

    private void ground(MapVisual map) {
        looks.say("\nGround: ");
        MapVisual.Ground ground = map.ground() == null ? new MapVisual.Ground("paper", 2) : map.ground();
        List<Option> moods = new ArrayList<>();
        MOODS.forEach((mood, words) ->
                moods.add(new Option(words, "", Choices.map("mood", mood, "detail", ground.detail()))));
        for (String source : choices.grounds())
            moods.add(new Option(
                    "pictures of " + source, "", Choices.map("mood", "source:" + source, "detail", ground.detail())));
        String now = ground.mood().startsWith("source:")
                ? "pictures of " + ground.mood().substring(7)
                : MOODS.getOrDefault(ground.mood(), "paper");
        looks.choose(MapSlots.at("/ground").named("ground"), now, moods);
        looks.say(" with ");
        List<Option> details = new ArrayList<>();
        List<String> words = List.of("little", "some", "much");
        for (int d = 1; d <= 3; d++)
            details.add(new Option(words.get(d - 1) + " detail", "", Choices.map("mood", ground.mood(), "detail", d)));
        looks.choose(
                MapSlots.at("/ground").named("detail of the ground"),
                words.get(ground.detail() - 1) + " detail",
                details);
        looks.say(" · projection ");
        looks.choose(
                MapSlots.at("/projection").named("projection"),
                "equal-area".equals(map.projection()) ? "equal-area" : "Web Mercator",
                List.of(
                        new Option("Web Mercator", "directions are true", "mercator"),
                        new Option("equal-area", "areas are true", "equal-area")));
        looks.say(" · keys ");
        String keyAt = map.keyAt() == null ? "in" : map.keyAt();
        looks.choose(
                MapSlots.at("/keyAt").named("place of the keys"),
                Map.of("in", "in the map", "beside", "beside it", "none", "nowhere")
                        .get(keyAt),
                List.of(
                        new Option("in the map", "", "in"),
                        new Option("beside it", "", "beside"),
                        new Option("nowhere", "", "none")));
    }

    private void movement(MapVisual map) {
        looks.say(" · starts ");
        looks.slot(
                MapSlots.at("/start").named("start"),
                map.start() == null ? "fitted to what it shows" : "where it was put",
                Kind.EXTENT,
                false,
                map.start() != null,
                List.of());
        looks.say(" · ");
        boolean locked = Boolean.TRUE.equals(map.locked());
        looks.choose(
                MapSlots.at("/locked").named("movement"),
                locked ? "stays put" : "can be moved",
                List.of(new Option("can be moved", "", false), new Option("stays put", "", true)));
        looks.say(" · far-off parts ");
        boolean framed = Boolean.TRUE.equals(map.insets());
        looks.choose(
                MapSlots.at("/insets").named("far-off parts"),
                framed ? "stand in frames of their own" : "are told of",
                List.of(
                        new Option("are told of", "how many places lie beyond the edge", false),
                        new Option("stand in frames of their own", "such as islands", true)));
        looks.say(" · ");
        MapVisual.Bounds bounds = map.bounds();
        List<Option> limits = new ArrayList<>();
        for (double[] ends : new double[][] {{2, 8}, {4, 10}, {5, 12}, {6, 16}})
            limits.add(new Option(zooms(ends[0], ends[1]), "", Choices.map("farthest", ends[0], "nearest", ends[1])));
        looks.slot(
                MapSlots.at("/bounds").named("limits of zoom"),
                bounds == null ? "+ limits of zoom" : zooms(bounds.farthest(), bounds.nearest()),
                Kind.CHOSEN,
                bounds == null,
                bounds != null,
                limits);
        looks.say(" · ");
        looks.slot(
                MapSlots.at("/together").named("maps that move together"),
                map.together() == null || map.together().isBlank()
                        ? "+ moves with others"
                        : "moves with all maps of “" + map.together() + "”",
                Kind.TYPED,
                map.together() == null || map.together().isBlank(),
                map.together() != null,
                List.of(new Option(map.together() == null ? "" : map.together(), "", "")));
        looks.say(" · ");
        looks.slot(MapSlots.at("/views").named("saved view"), "+ saved view", Kind.SAVED_VIEW, true, false, List.of());
        looks.say(" · readers ");
        int withheld = map.withheld() == null ? 0 : map.withheld().size();
        List<Option> controls = Arrays.stream(MapVisual.Control.values())
                .map(c -> new Option(controlWords(c), "", c.name()))
                .toList();
        looks.slot(
                MapSlots.at("/withheld").named("controls for readers"),
                withheld == 0 ? "have all controls" : "have all controls but " + withheld,
                Kind.SET,
                false,
                false,
                controls);
        looks.say(" · rows they take along hold ");
        looks.choose(
                MapSlots.at("/rows").named("rows to take along"),
                "all".equals(map.rows()) ? "all columns" : "what the map shows and tells",
                List.of(new Option("what the map shows and tells", "", "shown"), new Option("all columns", "", "all")));
    }

    private static String zooms(double farthest, double nearest) {
        return "from " + width(farthest) + " to " + width(nearest) + " across";
    }

    /** About how wide a stretch of ground a map of 700 pixels shows at 40 degrees of latitude. */
    private static String width(double zoom) {
        double km = 700 * 156.543 * Math.cos(Math.toRadians(40)) / Math.pow(2, zoom);
        return NumberWords.full(NumberWords.roundDown(km)) + " km";
    }

    private static String controlWords(MapVisual.Control control) {
        return switch (control) {
            case ZOOM -> "nearer and farther";
            case HOME -> "back to the start";
            case SEARCH -> "search of places";
            case GROUND -> "choice of the ground";
            case LAYERS -> "layers shown or hidden";
            case SCALE -> "scale bar";
            case NORTH -> "needle to the north";
            case COORDINATES -> "degrees at the pointer";
            case FULL -> "full screen";
            case NEAR -> "nearby and alike";
            case HERE -> "where they are themselves";
            case FOLLOW -> "following what is shown";
            case PICTURE -> "picture to take along";
        };
    }
}
