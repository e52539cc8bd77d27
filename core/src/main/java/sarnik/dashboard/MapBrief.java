package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.dashboard.Brief.Kind;
import sarnik.dashboard.Brief.Option;
import sarnik.dashboard.Brief.Part;
import sarnik.dashboard.Brief.Slot;
import sarnik.dashboard.Brief.Words;
import sarnik.scale.NumberWords;

/** Writes the brief of a map: a sentence for each layer, and one about the map as a whole. */
final class MapBrief {

    private final BriefWriter writer;
    private final BriefWriter.Offers offers;
    private final List<Part> parts = new ArrayList<>();
    private final List<Part> finish = new ArrayList<>();

    MapBrief(BriefWriter writer, BriefWriter.Offers offers) {
        this.writer = writer;
        this.offers = offers;
    }

    Brief write(String path, Visual.OfMap map, Datasets datasets) {
        say("A map");
        boolean first = true;
        List<Map.Entry<String, Layer>> layers = map.layers().entrySet().stream().sorted(Map.Entry.comparingByValue(Comparator.comparingInt(Layer::order).reversed())).toList();
        for (Map.Entry<String, Layer> entry : layers) {
            say(first ? layers.size() > 1 ? ", on top " : " of " : ";\nbelow it ");
            first = false;
            String at = path + "/layers/" + entry.getKey();
            LoadedDataset dataset = datasets.find(entry.getValue().dataset()).orElse(null);
            if (dataset == null) {
                say("a layer whose dataset has gone ");
                slot("dataset", "+ dataset", at + "/dataset", Kind.CHOSEN, true, false, offers.datasets().entrySet().stream().map(d -> new Option(d.getValue(), "", d.getKey())).toList());
                continue;
            }
            Brief layer = new LayerBrief(writer, offers, at, entry.getValue(), dataset, layers.size() > 1).write();
            parts.addAll(layer.parts());
            finish.addAll(layer.finish());
        }
        say(". ");
        addLayer(path, layers);
        ground(path, map);
        movement(path, map);
        return new Brief(List.copyOf(parts), List.copyOf(finish));
    }

    private void addLayer(String path, List<Map.Entry<String, Layer>> layers) {
        int order = layers.stream().mapToInt(l -> l.getValue().order()).max().orElse(0) + 1;
        String id = "l" + (layers.stream().map(l -> l.getKey().replaceAll("\\D", "")).filter(d -> !d.isEmpty() && d.length() < 6).mapToInt(Integer::parseInt).max().orElse(0) + 1);
        List<Option> options = offers.datasets().entrySet().stream()
                .map(d -> new Option("places of " + d.getValue(), "", BriefWriter.map("kind", "SYMBOLS", "order", order, "dataset", d.getKey(), "opacity", 0.75)))
                .toList();
        if (!options.isEmpty()) slot("layer", "+ layer", path + "/layers/" + id, Kind.CHOSEN, true, false, options);
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
        finish("\nGround: ");
        Visual.Ground ground = map.ground() == null ? new Visual.Ground("paper", 2) : map.ground();
        List<Option> moods = new ArrayList<>();
        MOODS.forEach((mood, words) -> moods.add(new Option(words, "", BriefWriter.map("mood", mood, "detail", ground.detail()))));
        for (String source : offers.grounds()) moods.add(new Option("pictures of " + source, "", BriefWriter.map("mood", "source:" + source, "detail", ground.detail())));
        String now = ground.mood().startsWith("source:") ? "pictures of " + ground.mood().substring(7) : MOODS.getOrDefault(ground.mood(), "paper");
        finishSlot("ground", now, path + "/ground", moods);
        finish(" with ");
        List<Option> details = new ArrayList<>();
        List<String> words = List.of("little", "some", "much");
        for (int d = 1; d <= 3; d++) details.add(new Option(words.get(d - 1) + " detail", "", BriefWriter.map("mood", ground.mood(), "detail", d)));
        finishSlot("detail of the ground", words.get(ground.detail() - 1) + " detail", path + "/ground", details);
        finish(" · projection ");
        finishSlot("projection", "equal-area".equals(map.projection()) ? "equal-area" : "Web Mercator", path + "/projection",
                List.of(new Option("Web Mercator", "directions are true", "mercator"), new Option("equal-area", "areas are true", "equal-area")));
        finish(" · keys ");
        String keyAt = map.keyAt() == null ? "in" : map.keyAt();
        finishSlot("place of the keys", Map.of("in", "in the map", "beside", "beside it", "none", "nowhere").get(keyAt), path + "/keyAt",
                List.of(new Option("in the map", "", "in"), new Option("beside it", "", "beside"), new Option("nowhere", "", "none")));
    }

    private void movement(String path, Visual.OfMap map) {
        finish(" · starts ");
        finish.add(new Slot("start", map.start() == null ? "fitted to what it shows" : "where it was put", path + "/start", Kind.EXTENT, false, map.start() != null, List.of()));
        finish(" · ");
        boolean locked = Boolean.TRUE.equals(map.locked());
        finishSlot("movement", locked ? "stays put" : "can be moved", path + "/locked", List.of(new Option("can be moved", "", false), new Option("stays put", "", true)));
        finish(" · ");
        Visual.Bounds bounds = map.bounds();
        List<Option> limits = new ArrayList<>();
        for (double[] ends : new double[][] {{2, 8}, {4, 10}, {5, 12}, {6, 16}}) limits.add(new Option(zooms(ends[0], ends[1]), "", BriefWriter.map("farthest", ends[0], "nearest", ends[1])));
        finish.add(new Slot("limits of zoom", bounds == null ? "+ limits of zoom" : zooms(bounds.farthest(), bounds.nearest()), path + "/bounds", Kind.CHOSEN, bounds == null, bounds != null, limits));
        finish(" · ");
        finish.add(new Slot("maps that move together", map.together() == null || map.together().isBlank() ? "+ moves with others" : "moves with all maps of “" + map.together() + "”",
                path + "/together", Kind.TYPED, map.together() == null || map.together().isBlank(), map.together() != null, List.of(new Option(map.together() == null ? "" : map.together(), "", ""))));
        finish(" · ");
        finish.add(new Slot("saved view", "+ saved view", path + "/views", Kind.SAVED_VIEW, true, false, List.of()));
        finish(" · readers ");
        int withheld = map.withheld() == null ? 0 : map.withheld().size();
        List<Option> controls = Arrays.stream(Visual.Control.values()).map(c -> new Option(controlWords(c), "", c.name())).toList();
        finish.add(new Slot("controls for readers", withheld == 0 ? "have all controls" : "have all controls but " + withheld, path + "/withheld", Kind.SET, false, false, controls));
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
            case COORDINATES -> "degrees at the pointer";
            case FULL -> "full screen";
            case NEAR -> "nearby and alike";
            case PICTURE -> "picture to take along";
        };
    }

    // --- small words ------------------------------------------------------------------------------------

    private void say(String words) {
        parts.add(new Words(words));
    }

    private void finish(String words) {
        finish.add(new Words(words));
    }

    private void slot(String name, String text, String path, Kind kind, boolean empty, boolean removable, List<Option> options) {
        parts.add(new Slot(name, text, path, kind, empty, removable, options));
    }

    private void finishSlot(String name, String text, String path, List<Option> options) {
        finish.add(new Slot(name, text, path, Kind.CHOSEN, false, false, options));
    }
}
