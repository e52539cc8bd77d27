package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.dashboard.Brief.Kind;
import sarnik.dashboard.Brief.Option;
import sarnik.scale.NumberWords;

/** Writes the brief of a map: a sentence for each layer, and one about the map as a whole. */
final class MapBrief {

    private final BriefWriter writer;
    private final BriefWriter.Offers offers;
    private final BriefLine line = new BriefLine();
    private final BriefLine looks = new BriefLine();

    MapBrief(BriefWriter writer, BriefWriter.Offers offers) {
        this.writer = writer;
        this.offers = offers;
    }

    Brief write(String path, Visual.OfMap map, Datasets datasets) {
        line.say("A map");
        boolean first = true;
        List<Map.Entry<String, Layer>> layers = map.layers().entrySet().stream()
                .sorted(Map.Entry.comparingByValue(
                        Comparator.comparingInt(Layer::order).reversed()))
                .toList();
        for (Map.Entry<String, Layer> entry : layers) {
            line.say(first ? layers.size() > 1 ? ", on top " : " of " : ";\nbelow it ");
            first = false;
            String at = path + "/layers/" + entry.getKey();
            LoadedDataset dataset = datasets.ready(entry.getValue().dataset()).orElse(null);
            if (dataset == null) {
                line.say("a layer whose dataset has gone ");
                line.slot(
                        "dataset",
                        "+ dataset",
                        at + "/dataset",
                        Kind.CHOSEN,
                        true,
                        false,
                        offers.datasets().entrySet().stream()
                                .map(d -> new Option(d.getValue(), "", d.getKey()))
                                .toList());
                continue;
            }
            Brief layer = new LayerBrief(writer, offers, at, entry.getValue(), dataset, layers.size() > 1).write();
            line.parts().addAll(layer.parts());
            looks.parts().addAll(layer.finish());
        }
        line.say(". ");
        addLayer(path, layers);
        ground(path, map);
        movement(path, map);
        return new Brief(line.parts(), looks.parts());
    }

    private void addLayer(String path, List<Map.Entry<String, Layer>> layers) {
        int order = layers.stream().mapToInt(l -> l.getValue().order()).max().orElse(0) + 1;
        String id = "l"
                + (layers.stream()
                                .map(l -> l.getKey().replaceAll("\\D", ""))
                                .filter(d -> !d.isEmpty() && d.length() < 6)
                                .mapToInt(Integer::parseInt)
                                .max()
                                .orElse(0)
                        + 1);
        List<Option> options = offers.datasets().entrySet().stream()
                .map(d -> new Option(
                        "places of " + d.getValue(),
                        "",
                        BriefWriter.map("kind", "SYMBOLS", "order", order, "dataset", d.getKey(), "opacity", 0.75)))
                .toList();
        if (!options.isEmpty())
            line.slot("layer", "+ layer", path + "/layers/" + id, Kind.CHOSEN, true, false, options);
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

    private void ground(String path, Visual.OfMap map) {
        looks.say("\nGround: ");
        Visual.Ground ground = map.ground() == null ? new Visual.Ground("paper", 2) : map.ground();
        List<Option> moods = new ArrayList<>();
        MOODS.forEach((mood, words) ->
                moods.add(new Option(words, "", BriefWriter.map("mood", mood, "detail", ground.detail()))));
        for (String source : offers.grounds())
            moods.add(new Option(
                    "pictures of " + source,
                    "",
                    BriefWriter.map("mood", "source:" + source, "detail", ground.detail())));
        String now = ground.mood().startsWith("source:")
                ? "pictures of " + ground.mood().substring(7)
                : MOODS.getOrDefault(ground.mood(), "paper");
        looks.choose("ground", now, path + "/ground", moods);
        looks.say(" with ");
        List<Option> details = new ArrayList<>();
        List<String> words = List.of("little", "some", "much");
        for (int d = 1; d <= 3; d++)
            details.add(
                    new Option(words.get(d - 1) + " detail", "", BriefWriter.map("mood", ground.mood(), "detail", d)));
        looks.choose("detail of the ground", words.get(ground.detail() - 1) + " detail", path + "/ground", details);
        looks.say(" · projection ");
        looks.choose(
                "projection",
                "equal-area".equals(map.projection()) ? "equal-area" : "Web Mercator",
                path + "/projection",
                List.of(
                        new Option("Web Mercator", "directions are true", "mercator"),
                        new Option("equal-area", "areas are true", "equal-area")));
        looks.say(" · keys ");
        String keyAt = map.keyAt() == null ? "in" : map.keyAt();
        looks.choose(
                "place of the keys",
                Map.of("in", "in the map", "beside", "beside it", "none", "nowhere")
                        .get(keyAt),
                path + "/keyAt",
                List.of(
                        new Option("in the map", "", "in"),
                        new Option("beside it", "", "beside"),
                        new Option("nowhere", "", "none")));
    }

    private void movement(String path, Visual.OfMap map) {
        looks.say(" · starts ");
        looks.slot(
                "start",
                map.start() == null ? "fitted to what it shows" : "where it was put",
                path + "/start",
                Kind.EXTENT,
                false,
                map.start() != null,
                List.of());
        looks.say(" · ");
        boolean locked = Boolean.TRUE.equals(map.locked());
        looks.choose(
                "movement",
                locked ? "stays put" : "can be moved",
                path + "/locked",
                List.of(new Option("can be moved", "", false), new Option("stays put", "", true)));
        looks.say(" · ");
        Visual.Bounds bounds = map.bounds();
        List<Option> limits = new ArrayList<>();
        for (double[] ends : new double[][] {{2, 8}, {4, 10}, {5, 12}, {6, 16}})
            limits.add(
                    new Option(zooms(ends[0], ends[1]), "", BriefWriter.map("farthest", ends[0], "nearest", ends[1])));
        looks.slot(
                "limits of zoom",
                bounds == null ? "+ limits of zoom" : zooms(bounds.farthest(), bounds.nearest()),
                path + "/bounds",
                Kind.CHOSEN,
                bounds == null,
                bounds != null,
                limits);
        looks.say(" · ");
        looks.slot(
                "maps that move together",
                map.together() == null || map.together().isBlank()
                        ? "+ moves with others"
                        : "moves with all maps of “" + map.together() + "”",
                path + "/together",
                Kind.TYPED,
                map.together() == null || map.together().isBlank(),
                map.together() != null,
                List.of(new Option(map.together() == null ? "" : map.together(), "", "")));
        looks.say(" · ");
        looks.slot("saved view", "+ saved view", path + "/views", Kind.SAVED_VIEW, true, false, List.of());
        looks.say(" · readers ");
        int withheld = map.withheld() == null ? 0 : map.withheld().size();
        List<Option> controls = Arrays.stream(Visual.Control.values())
                .map(c -> new Option(controlWords(c), "", c.name()))
                .toList();
        looks.slot(
                "controls for readers",
                withheld == 0 ? "have all controls" : "have all controls but " + withheld,
                path + "/withheld",
                Kind.SET,
                false,
                false,
                controls);
        looks.say(" · rows they take along hold ");
        looks.choose(
                "rows to take along",
                "all".equals(map.rows()) ? "all columns" : "what the map shows and tells",
                path + "/rows",
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

    private static String controlWords(Visual.Control control) {
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
            case PICTURE -> "picture to take along";
        };
    }
}
