package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import sarnik.dashboard.Brief.Kind;
import sarnik.dashboard.Brief.Option;
import sarnik.scale.CircleSizes;
import sarnik.scale.NumberWords;
import sarnik.scale.Palette;

/** Writes the words about a layer's looks: its name, its place in the pile, palette, sizes, border and opacity. */
final class LayerLooks {

    private final BriefLine looks = new BriefLine();
    private final String at;
    private final Layer layer;
    private final LoadedDataset dataset;
    private final boolean named;

    /**
     * @param at JSON pointer of the layer
     * @param named whether the map has other layers, among which this one stands
     */
    LayerLooks(String at, Layer layer, LoadedDataset dataset, boolean named) {
        this.at = at;
        this.layer = layer;
        this.dataset = dataset;
        this.named = named;
    }

    /** The words about looks. */
    BriefLine write() {
        looks.say("\n"
                + (layer.name() == null || layer.name().isBlank()
                        ? "Layer " + LayerRows.nameOf(layer, dataset)
                        : "Layer “" + layer.name() + "”")
                + ": ");
        boolean nameless = layer.name() == null || layer.name().isBlank();
        looks.slot(
                "layer's name",
                nameless ? "+ name" : "another name",
                at + "/name",
                Kind.TYPED,
                nameless,
                !nameless,
                List.of(new Option(nameless ? "" : layer.name(), "", "")));
        looks.say(" · ");
        looks.choose(
                "whether it is shown",
                layer.startsHidden() ? "hidden at first" : "shown",
                at + "/hidden",
                List.of(new Option("shown", "", false), new Option("hidden at first", "readers can show it", true)));
        if (named) {
            looks.say(" · place in the pile ");
            List<Option> orders = new ArrayList<>();
            for (int o = 1; o <= 9; o++) orders.add(new Option(String.valueOf(o), o == 1 ? "lowest" : "", o));
            looks.choose("place in the pile", String.valueOf(layer.order()), at + "/order", orders);
        }
        boolean coloured = layer.colour() != null
                && (layer.colour().measure() != null || layer.colour().category() != null);
        if (layer.kind() == Layer.Kind.DENSITY)
            paletteSlot(
                    layer.colour() == null ? "rust" : palette(),
                    at + (layer.colour() == null ? "/colour" : "/colour/palette"),
                    Palette.Kind.SEQUENTIAL,
                    layer.colour() == null);
        else if (coloured && layer.colour().key() == null) {
            Palette.Kind kind = layer.colour().category() != null
                    ? Palette.Kind.CATEGORICAL
                    : layer.colour().centre() != null ? Palette.Kind.DIVERGING : Palette.Kind.SEQUENTIAL;
            paletteSlot(palette(), at + "/colour/palette", kind, false);
            if (layer.colour().category() == null) {
                looks.say(" · ");
                boolean reversed = Boolean.TRUE.equals(layer.colour().reversed());
                looks.choose(
                        "direction of the palette",
                        reversed ? "from deep to light" : "from light to deep",
                        at + "/colour/reversed",
                        List.of(
                                new Option("from light to deep", "", false),
                                new Option("from deep to light", "", true)));
                looks.say(" · ");
                boolean ramp = Boolean.TRUE.equals(layer.colour().ramp());
                looks.choose(
                        "steps",
                        ramp ? "one ramp" : "classes",
                        at + "/colour/ramp",
                        List.of(new Option("classes", "", false), new Option("one ramp", "colours run on", true)));
                if (layer.colour().centre() != null) {
                    looks.say(" · ");
                    boolean even = Boolean.TRUE.equals(layer.colour().centre().even());
                    looks.choose(
                            "range of the sides",
                            even ? "equally deep at equal distance" : "each side in full",
                            at + "/colour/centre/even",
                            List.of(
                                    new Option(
                                            "each side in full", "the farthest value of either side is deepest", false),
                                    new Option(
                                            "equally deep at equal distance", "the shorter side stays lighter", true)));
                }
            }
        } else if (!coloured && layer.kind() != Layer.Kind.PATHS) oneColour();
        if (layer.size() != null && layer.kind() != Layer.Kind.DENSITY) sizeLooks();
        if (layer.kind() == Layer.Kind.SYMBOLS || layer.isOfShapes()) {
            looks.say(" · border ");
            List<Option> borders = new ArrayList<>();
            for (double width : new double[] {0, 0.4, 0.8, 1.5, 2.5})
                borders.add(new Option(width == 0 ? "none" : NumberWords.full(width) + " pixels", "", width));
            double width = layer.border() == null ? 0.8 : layer.border();
            looks.choose("border", width == 0 ? "none" : NumberWords.full(width) + " pixels", at + "/border", borders);
        }
        looks.say(" · opacity ");
        List<Option> opacities = new ArrayList<>();
        for (int percent : new int[] {25, 40, 60, 75, 90, 100})
            opacities.add(new Option(percent + " %", "", percent / 100.0));
        looks.choose("opacity", Math.round(layer.opacity() * 100) + " %", at + "/opacity", opacities);
        return looks;
    }

    private void paletteSlot(String now, String path, Palette.Kind kind, boolean whole) {
        looks.say(" · palette ");
        List<Option> palettes = new ArrayList<>();
        Function<String, Object> value = name -> whole ? BriefWriter.map("palette", name) : name;
        for (String name : Palette.names(kind))
            palettes.add(new Option(
                    name,
                    String.join(" ", Palette.ALL.get(name).colours(kind == Palette.Kind.CATEGORICAL ? 8 : 6)),
                    value.apply(name)));
        looks.slot("palette", now, path, whole ? Kind.CHOSEN : Kind.PALETTE, false, false, palettes);
    }

    /** The colour of marks that stand for nothing by it: the middle one of a palette, or an own one. */
    private void oneColour() {
        looks.say(" · colour ");
        List<Option> colours = new ArrayList<>();
        for (String name : Palette.names(Palette.Kind.SEQUENTIAL))
            colours.add(new Option(name, Palette.ALL.get(name).colours(3).get(1), BriefWriter.map("palette", name)));
        for (String hex : Palette.ALL.get("flags").colours(8))
            colours.add(new Option(hex, hex, BriefWriter.map("palette", hex)));
        looks.choose("colour of all", layer.colour() == null ? "loch" : palette(), at + "/colour", colours);
    }

    private void sizeLooks() {
        boolean flow = layer.kind() == Layer.Kind.FLOWS;
        looks.say(flow ? " · widest " : " · largest ");
        List<Option> radii = new ArrayList<>();
        for (int radius : new int[] {12, 20, 28, 36, 48})
            radii.add(new Option((flow ? radius / 2 : radius) + " pixels", "", radius));
        looks.choose(
                "largest size",
                NumberWords.full(flow ? layer.size().radius() / 2 : layer.size().radius()) + " pixels",
                at + "/size/radius",
                radii);
        looks.say(" · stands for ");
        looks.slot(
                "amount of the largest",
                layer.size().largest() == null
                        ? "the largest there is"
                        : NumberWords.full(layer.size().largest()),
                at + "/size/largest",
                Kind.NUMBER,
                false,
                layer.size().largest() != null,
                List.of());
        if (flow) return;
        looks.say(" · they grow ");
        looks.choose(
                "growth",
                growth(layer.size().rule()),
                at + "/size/rule",
                Arrays.stream(CircleSizes.Rule.values())
                        .map(r -> new Option(
                                growth(r), r == CircleSizes.Rule.FLANNERY ? "after Flannery 1971" : "", r.name()))
                        .toList());
    }

    private static String growth(CircleSizes.Rule rule) {
        return switch (rule) {
            case AREA -> "with their area";
            case FLANNERY -> "as the eye sees them";
            case STEPPED -> "in five steps";
        };
    }

    private String palette() {
        return layer.colour().choice().palette();
    }
}
