package sarnik.visual.map;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.data.LoadedDataset;
import sarnik.scale.CircleSizes;
import sarnik.scale.NumberWords;
import sarnik.scale.Palette;
import sarnik.table.Rounded;

/** Writes the words about a layer's looks: its name, its place in the pile, palette, sizes, border and opacity. */
final class LayerLooks {

    private final BriefLine looks;
    private final Layer layer;
    private final LoadedDataset dataset;
    private final boolean named;

    /**
     * @param looks begins at the layer's place in the document
     * @param dataset its rows; null for a kind that draws no data
     * @param named whether the map has other layers, among which this one stands
     */
    LayerLooks(BriefLine looks, Layer layer, LoadedDataset dataset, boolean named) {
        this.looks = looks;
        this.layer = layer;
        this.dataset = dataset;
        this.named = named;
    }

    /** The words about looks. */
    void write() {
        looks.say("\n"
                + (layer.name() == null || layer.name().isBlank()
                        ? "Layer "
                                + (dataset == null ? layer.kind().bare().name(layer) : LayerRows.nameOf(layer, dataset))
                        : "Layer “" + layer.name() + "”")
                + ": ");
        boolean nameless = layer.name() == null || layer.name().isBlank();
        looks.slot(
                LayerSlots.at("/name").named("layer's name"),
                nameless ? "+ name" : "another name",
                Kind.TYPED,
                nameless,
                !nameless,
                List.of(new Option(nameless ? "" : layer.name(), "", "")));
        looks.say(" · ");
        looks.choose(
                LayerSlots.at("/hidden").named("whether it is shown"),
                layer.startsHidden() ? "hidden at first" : "shown",
                List.of(new Option("shown", "", false), new Option("hidden at first", "readers can show it", true)));
        if (named) {
            looks.say(" · place in the pile ");
            List<Option> orders = new ArrayList<>();
            for (int o = 1; o <= 9; o++) orders.add(new Option(String.valueOf(o), o == 1 ? "lowest" : "", o));
            looks.choose(LayerSlots.at("/order").named("place in the pile"), String.valueOf(layer.order()), orders);
        }
        if (layer.kind().hasData()) colours();
        if (layer.kind() == Layer.Kind.SYMBOLS || layer.kind() == Layer.Kind.OUTLINES || layer.isOfShapes()) {
            looks.say(" · border ");
            List<Option> borders = new ArrayList<>();
            for (double width : new double[] {0, 0.4, 0.8, 1.5, 2.5})
                borders.add(new Option(width == 0 ? "none" : NumberWords.full(width) + " pixels", "", width));
            double width = layer.borderOrUsual();
            looks.choose(
                    LayerSlots.at("/border").named("border"),
                    width == 0 ? "none" : NumberWords.full(width) + " pixels",
                    borders);
        }
        looks.say(" · opacity ");
        List<Option> opacities = new ArrayList<>();
        for (int percent : new int[] {25, 40, 60, 75, 90, 100})
            opacities.add(new Option(percent + " %", "", percent / 100.0));
        looks.choose(LayerSlots.at("/opacity").named("opacity"), Rounded.up(layer.opacity() * 100) + " %", opacities);
    }

    private void colours() {
        boolean coloured = layer.colour() != null
                && (layer.colour().measure() != null || layer.colour().category() != null);
        if (layer.kind() == Layer.Kind.DENSITY)
            paletteSlot(
                    layer.colour() == null ? "rust" : palette(),
                    layer.colour() == null ? "/colour" : "/colour/palette",
                    Palette.Kind.SEQUENTIAL,
                    layer.colour() == null);
        else if (coloured && layer.colour().key() == null) {
            Palette.Kind kind = layer.colour().category() != null
                    ? Palette.Kind.CATEGORICAL
                    : layer.colour().centre() != null ? Palette.Kind.DIVERGING : Palette.Kind.SEQUENTIAL;
            paletteSlot(palette(), "/colour/palette", kind, false);
            if (layer.colour().category() == null) {
                looks.say(" · ");
                boolean reversed = Boolean.TRUE.equals(layer.colour().reversed());
                looks.choose(
                        LayerSlots.at("/colour/reversed").named("direction of the palette"),
                        reversed ? "from deep to light" : "from light to deep",
                        List.of(
                                new Option("from light to deep", "", false),
                                new Option("from deep to light", "", true)));
                looks.say(" · ");
                boolean ramp = Boolean.TRUE.equals(layer.colour().ramp());
                looks.choose(
                        LayerSlots.at("/colour/ramp").named("steps"),
                        ramp ? "one ramp" : "classes",
                        List.of(new Option("classes", "", false), new Option("one ramp", "colours run on", true)));
                looks.say(" · scale ");
                boolean held = !"shown".equals(layer.colour().domain());
                looks.choose(
                        LayerSlots.at("/colour/domain").named("what the scale is cut from"),
                        held ? "held on the whole" : "of what is shown",
                        List.of(
                                new Option("held on the whole", "a pick leaves the colours as they are", "held"),
                                new Option("of what is shown", "a pick cuts the scale anew", "shown")));
                if (layer.colour().centre() != null) {
                    looks.say(" · ");
                    boolean even = Boolean.TRUE.equals(layer.colour().centre().even());
                    looks.choose(
                            LayerSlots.at("/colour/centre/even").named("range of the sides"),
                            even ? "equally deep at equal distance" : "each side in full",
                            List.of(
                                    new Option(
                                            "each side in full", "the farthest value of either side is deepest", false),
                                    new Option(
                                            "equally deep at equal distance", "the shorter side stays lighter", true)));
                }
            }
        } else if (!coloured && layer.kind() != Layer.Kind.PATHS) oneColour();
        if (layer.size() != null && layer.kind() != Layer.Kind.DENSITY) sizeLooks();
    }

    private void paletteSlot(String now, String pointer, Palette.Kind kind, boolean whole) {
        looks.say(" · palette ");
        List<Option> palettes = new ArrayList<>();
        Function<String, Object> value = name -> whole ? Choices.map("palette", name) : name;
        for (String name : Palette.names(kind))
            palettes.add(new Option(
                    name,
                    String.join(" ", Palette.ALL.get(name).colours(kind == Palette.Kind.CATEGORICAL ? 8 : 6)),
                    value.apply(name)));
        looks.slot(
                LayerSlots.at(pointer).named("palette"),
                now,
                whole ? Kind.CHOSEN : Kind.PALETTE,
                false,
                false,
                palettes);
    }

    /** The colour of marks that stand for nothing by it: the middle one of a palette, or an own one. */
    private void oneColour() {
        looks.say(" · colour ");
        List<Option> colours = new ArrayList<>();
        for (String name : Palette.names(Palette.Kind.SEQUENTIAL))
            colours.add(new Option(name, Palette.ALL.get(name).colours(3).get(1), Choices.map("palette", name)));
        for (String hex : Palette.ALL.get("flags").colours(8))
            colours.add(new Option(hex, hex, Choices.map("palette", hex)));
        looks.choose(
                LayerSlots.at("/colour").named("colour of all"), layer.colour() == null ? "loch" : palette(), colours);
    }

    private void sizeLooks() {
        boolean flow = layer.kind() == Layer.Kind.FLOWS;
        looks.say(flow ? " · widest " : " · largest ");
        List<Option> radii = new ArrayList<>();
        for (int radius : new int[] {12, 20, 28, 36, 48})
            radii.add(new Option((flow ? radius / 2 : radius) + " pixels", "", radius));
        looks.choose(
                LayerSlots.at("/size/radius").named("largest size"),
                NumberWords.full(flow ? layer.size().radius() / 2 : layer.size().radius()) + " pixels",
                radii);
        looks.say(" · stands for ");
        looks.slot(
                LayerSlots.at("/size/largest").named("amount of the largest"),
                layer.size().largest() == null
                        ? "the largest there is"
                        : NumberWords.full(layer.size().largest()),
                Kind.NUMBER,
                false,
                layer.size().largest() != null,
                List.of());
        if (flow) return;
        looks.say(" · they grow ");
        looks.choose(
                LayerSlots.at("/size/rule").named("growth"),
                growth(layer.size().rule()),
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
