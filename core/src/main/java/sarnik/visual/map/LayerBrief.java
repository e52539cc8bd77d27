package sarnik.visual.map;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.query.Measure;
import sarnik.scale.CircleSizes;
import sarnik.scale.Classes;
import sarnik.scale.ColourScale;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.visual.Colour;

/** Writes the sentence of one layer of a map, and the words about its looks. */
final class LayerBrief {

    private static final int MOST_CATEGORY_VALUES = 20_000;

    private final Layer layer;
    private final LoadedDataset dataset;
    private final List<Option> measures;
    private final boolean named;
    private final Choices choices;
    private final BriefLine line;

    /**
     * @param line begins at the layer's place in the document
     * @param named whether the map has other layers, among which this one stands
     */
    LayerBrief(BriefLine line, Choices choices, Layer layer, LoadedDataset dataset, boolean named) {
        this.line = line;
        this.choices = choices;
        this.layer = layer;
        this.dataset = dataset;
        this.named = named;
        measures = choices.measures(dataset);
    }

    /** Writes the sentence. */
    void write() {
        kind();
        layer.kind().room().sentence(this);
        Choices.rule(line, layer.rule(), dataset);
        period();
        if (named) {
            line.say(" ");
            line.slot(Slot.within("", "this layer"), "– this layer", Kind.REMOVE, true, true, List.of());
        }
    }

    void say(String words) {
        line.say(words);
    }

    void ofDataset(String words) {
        line.say(words + dataset.name());
    }

    private void kind() {
        List<Option> kinds = new ArrayList<>();
        for (Layer.Kind kind : Layer.Kind.values())
            if (kind.hasData() && kind.room().fits(dataset))
                kinds.add(new Option(kind.words(), kind.room().hint(), kind.name()));
        line.slot(
                LayerSlots.at("/kind").named("kind of layer"), layer.kind().words(), Kind.CHOSEN, false, false, kinds);
    }

    void symbol() {
        Layer.Symbol symbol = layer.symbol();
        List<Option> options = new ArrayList<>();
        for (Layer.Shape shape : Layer.Shape.values())
            options.add(new Option(shape.words(), "", symbol("shape", shape.name())));
        for (String category : categories(200))
            options.add(new Option("shape by " + ColumnWords.of(category), "", symbol("category", category)));
        String text = symbol == null
                ? "circle"
                : symbol.category() != null
                        ? "shape by " + ColumnWords.of(symbol.category())
                        : symbol.shape() == null ? "circle" : symbol.shape().words();
        line.slot(LayerSlots.at("/symbol").named("symbol"), text, Kind.CHOSEN, false, symbol != null, options);
    }

    /** The symbol with another shape; towards where it points and what lies on top stay. */
    private Map<String, Object> symbol(String part, Object value) {
        Map<String, Object> now = new LinkedHashMap<>();
        Layer.Symbol symbol = layer.symbol();
        if (symbol != null && symbol.shape() != null)
            now.put("shape", symbol.shape().name());
        if (symbol != null && symbol.category() != null) now.put("category", symbol.category());
        if (symbol != null && symbol.turn() != null) now.put("turn", symbol.turn());
        if (symbol != null && symbol.last() != null) now.put("last", symbol.last());
        if (part.equals("shape")) now.remove("category");
        if (part.equals("category")) now.remove("shape");
        now.put(part, value);
        return now;
    }

    /** Towards where symbols point. */
    void turn() {
        List<String> headings = dataset.columnNames().stream()
                .filter(name -> dataset.table().column(name).type().isNumber() && !name.startsWith("@"))
                .toList();
        String turn = layer.symbol() == null ? null : layer.symbol().turn();
        if (turn == null && headings.isEmpty()) return;
        line.say(" ");
        boolean isNew = layer.symbol() == null;
        line.slot(
                LayerSlots.at(isNew ? "/symbol" : "/symbol/turn").named("heading"),
                turn == null ? "+ heading" : "pointing towards " + ColumnWords.of(turn),
                Kind.CHOSEN,
                turn == null,
                turn != null,
                headings.stream()
                        .map(name -> new Option(
                                "pointing towards " + ColumnWords.of(name),
                                "degrees, clockwise from north",
                                isNew ? symbol("turn", name) : name))
                        .toList());
    }

    /** What lies on top, where colours stand for a category. */
    void onTop() {
        if (layer.colour() == null || layer.colour().category() == null) return;
        line.say(", ");
        boolean last = layer.symbol() != null && layer.symbol().lastOnTop();
        line.choose(
                LayerSlots.at("/symbol").named("what lies on top"),
                last ? "the last of its colours on top" : "the commonest of its colours on top",
                List.of(
                        new Option(
                                "the commonest of its colours on top",
                                "of several in one place or group",
                                symbol("last", false)),
                        new Option(
                                "the last of its colours on top",
                                "the worst, where the order leads from good to bad",
                                symbol("last", true))));
    }

    void areasOf(String otherwise) {
        // "Areas of Provinces of Spain", but "one circle for each area of Provinces of Spain".
        String of = layer.kind() == Layer.Kind.AREAS ? "" : "area of ";
        List<Option> sets = choices.sets().stream()
                .map(set -> new Option(of + set, "", set))
                .toList();
        if (sets.isEmpty() && layer.set() == null) line.say(otherwise);
        else
            line.slot(
                    LayerSlots.at("/set").named("areas"),
                    layer.set() == null ? otherwise : of + layer.set(),
                    Kind.CHOSEN,
                    false,
                    layer.set() != null,
                    sets);
    }

    void size(String words, String offer) {
        Layer.Size size = layer.size();
        if (size == null) {
            line.say(" ");
            line.slot(
                    LayerSlots.at("/size").named("size"),
                    offer,
                    Kind.CHOSEN,
                    true,
                    false,
                    Choices.wrapped(measures, this::sized));
            return;
        }
        line.say(words);
        line.slot(
                LayerSlots.at("/size").named("size"),
                ColumnWords.of(size.measure()),
                Kind.CHOSEN,
                false,
                true,
                Choices.wrapped(measures, this::sized));
        offered("reader's choice of size", size.offered(), "/size/offered");
    }

    /**
     * A colour by another measure: the scale stays as it was made, but for ends and breaks, which belong to the values.
     */
    private Map<String, Object> coloured(Object measure) {
        Colour colour = layer.colour();
        if (colour == null || colour.measure() == null)
            return Choices.map("measure", measure, "method", "NATURAL", "classes", 5, "palette", "loch");
        Map<String, Object> changed =
                Choices.map("measure", measure, "method", method().name(), "classes", classes(), "palette", palette());
        if (colour.centre() != null)
            changed.put(
                    "centre",
                    centre(
                            colour.centre().about(),
                            colour.centre().value(),
                            colour.centre().even(),
                            colour.centre().parameter()));
        if (colour.per() != null) changed.put("per", colour.per());
        if (colour.ramp() != null) changed.put("ramp", colour.ramp());
        if (colour.reversed() != null) changed.put("reversed", colour.reversed());
        if (colour.offered() != null)
            changed.put("offered", colour.offered().stream().map(Choices::value).toList());
        return changed;
    }

    /** A size by another measure; the amount of the largest belongs to the values. */
    private Map<String, Object> sized(Object measure) {
        Layer.Size size = layer.size();
        Map<String, Object> changed = Choices.map(
                "measure",
                measure,
                "rule",
                size == null ? CircleSizes.Rule.AREA.name() : size.rule().name(),
                "radius",
                size == null ? 28 : size.radius());
        if (size != null && size.offered() != null)
            changed.put("offered", size.offered().stream().map(Choices::value).toList());
        return changed;
    }

    void colour() {
        Colour colour = layer.colour();
        List<Option> options = new ArrayList<>(Choices.wrapped(measures, this::coloured));
        for (String category : categories(MOST_CATEGORY_VALUES))
            options.add(new Option(
                    ColumnWords.of(category) + ", each value a colour",
                    "",
                    Choices.map("category", category, "palette", "flags")));
        if (colour == null || (colour.measure() == null && colour.category() == null)) {
            line.say(" ");
            line.slot(LayerSlots.at("/colour").named("colour"), "+ colour", Kind.CHOSEN, true, false, options);
            return;
        }
        line.say(", coloured by ");
        if (colour.category() != null) {
            line.slot(
                    LayerSlots.at("/colour").named("colour"),
                    ColumnWords.of(colour.category()),
                    Kind.CHOSEN,
                    false,
                    true,
                    options);
            return;
        }
        line.slot(
                LayerSlots.at("/colour").named("colour"),
                ColumnWords.of(colour.measure()),
                Kind.CHOSEN,
                false,
                true,
                options);
        boolean areas = layer.isOfShapes() || layer.set() != null;
        if (colour.per() != null || areas && dataset.addsUp(colour.measure())) {
            line.say(" ");
            line.slot(
                    LayerSlots.at("/colour/per").named("base"),
                    colour.per() == null ? "+ per" : "per km²",
                    Kind.CHOSEN,
                    colour.per() == null,
                    colour.per() != null,
                    List.of(new Option(
                            "per square kilometre of the area",
                            "so that large areas do not win by being large",
                            "km2")));
        }
        scale(colour);
        if (layer.isOfShapes() || layer.kind() == Layer.Kind.SYMBOLS) new ChanceBrief(line, layer, dataset).write();
        offered("reader's choice", colour.offered(), "/colour/offered");
    }

    private Classes.Method method() {
        return layer.colour().choice().method();
    }

    private int classes() {
        return layer.colour().choice().classes();
    }

    private String palette() {
        return layer.colour().choice().palette();
    }

    private void scale(Colour colour) {
        if (colour.key() != null) {
            line.say(" on the shared key ");
            sharedKey(colour);
            return;
        }
        line.say(" in ");
        boolean ramp = Boolean.TRUE.equals(colour.ramp());
        if (ramp) {
            line.slot(
                    LayerSlots.at("/colour/ramp").named("steps"),
                    "one ramp",
                    Kind.CHOSEN,
                    false,
                    false,
                    List.of(new Option("classes", "", false), new Option("one ramp", "colours run on", true)));
        } else {
            List<Option> counts = new ArrayList<>();
            for (int n = 2; n <= 11; n++) counts.add(new Option(Choices.count(n), "", n));
            int count = colour.breaks() == null ? classes() : colour.breaks().size() + 1;
            if (colour.breaks() == null)
                line.slot(
                        LayerSlots.at("/colour/classes").named("number of classes"),
                        Choices.count(count),
                        Kind.CHOSEN,
                        false,
                        false,
                        counts);
            else line.say(Choices.count(count));
            line.say(" ");
            List<Option> methods = new ArrayList<>();
            for (Classes.Method method : Classes.Method.values())
                methods.add(new Option(method.words(), hint(method), method.name()));
            if (colour.breaks() == null)
                line.slot(
                        LayerSlots.at("/colour/method").named("kind of classes"),
                        colour.choice().method().words(),
                        Kind.CHOSEN,
                        false,
                        false,
                        methods);
            line.say(" classes");
        }
        line.say(" ");
        line.slot(
                LayerSlots.at("/colour").named("breaks and ends"),
                colour.breaks() != null ? "with own breaks" : "+ own breaks",
                Kind.SCALE,
                colour.breaks() == null && colour.low() == null && colour.high() == null,
                false,
                List.of());
        line.say(" ");
        centre(colour);
        sharedKey(colour);
    }

    private static String hint(Classes.Method method) {
        return switch (method) {
            case NATURAL -> "cuts where the values leave gaps";
            case EQUAL_STEPS -> "each class equally wide";
            case EQUAL_COUNTS -> "each class equally full";
            case ABOUT_THE_MEAN -> "a standard deviation wide, about the mean";
            case ROUND_NUMBERS -> "bounds that are easily read";
            case GEOMETRIC -> "each class a factor wide";
        };
    }

    private void centre(Colour colour) {
        ColourScale.Centre centre = colour.centre();
        Boolean even = centre == null ? null : centre.even();
        List<Option> centres = new ArrayList<>(List.of(
                new Option(
                        "about the mean",
                        "two colours, light in the middle",
                        centre(ColourScale.About.MEAN, null, even, null)),
                new Option("about the median", "", centre(ColourScale.About.MEDIAN, null, even, null)),
                new Option(
                        "about a value",
                        "0, 100 or what you write",
                        centre(ColourScale.About.VALUE, 0.0, even, null))));
        choices.parameters()
                .forEach((id, parameter) -> centres.add(new Option(
                        "about the reader's “" + parameter.name() + "”",
                        "now " + NumberWords.full(parameter.value()),
                        centre(ColourScale.About.PARAMETER, null, even, id))));
        line.slot(
                LayerSlots.at("/colour/centre").named("centre"),
                centre == null ? "+ centre" : about(centre),
                Kind.CHOSEN,
                centre == null,
                centre != null,
                centres);
        line.say(" ");
        if (centre == null || centre.about() != ColourScale.About.VALUE) return;
        line.slot(
                LayerSlots.at("/colour/centre/value").named("value of the centre"),
                NumberWords.full(centre.value() == null ? 0 : centre.value()),
                Kind.NUMBER,
                false,
                false,
                List.of());
        line.say(" ");
    }

    private String about(ColourScale.Centre centre) {
        return switch (centre.about()) {
            case VALUE -> "about";
            case MEAN -> "about the mean";
            case MEDIAN -> "about the median";
            case PARAMETER ->
                "about the reader's “"
                        + (choices.parameters().containsKey(centre.parameter())
                                ? choices.parameters().get(centre.parameter()).name()
                                : "number that has gone")
                        + "”";
        };
    }

    private static Map<String, Object> centre(ColourScale.About about, Double value, Boolean even, String parameter) {
        Map<String, Object> centre = Choices.map("about", about.name());
        if (value != null) centre.put("value", value);
        if (even != null) centre.put("even", even);
        if (parameter != null) centre.put("parameter", parameter);
        return centre;
    }

    private void sharedKey(Colour colour) {
        List<Option> options = choices.keys().stream()
                .map(k -> new Option(k.name(), k.words(), k.name()))
                .toList();
        line.slot(
                LayerSlots.at("/colour/key").named("shared key"),
                colour.key() == null ? "+ shared key" : "“" + colour.key() + "”",
                Kind.SHARED_KEY,
                colour.key() == null,
                colour.key() != null,
                options);
    }

    private void offered(String name, List<Measure> offered, String pointer) {
        line.say(" ");
        int count = offered == null ? 0 : offered.size();
        line.slot(
                LayerSlots.at(pointer).named(name),
                count == 0 ? "+ reader's choice" : "or what the reader chooses of " + Choices.count(count) + " more",
                Kind.SET,
                count == 0,
                count > 0,
                measures);
    }

    void gather() {
        line.say(" ");
        boolean gathers = Boolean.TRUE.equals(layer.gather());
        line.slot(
                LayerSlots.at("/gather").named("crowds"),
                gathers ? "gathered where they crowd" : "+ gather",
                Kind.CHOSEN,
                !gathers,
                gathers,
                List.of(new Option("gathered where they crowd", "groups open as one zooms", true)));
    }

    void spread() {
        line.say(", felt within ");
        Layer.Spread spread = layer.spread() == null ? new Layer.Spread(12, false) : layer.spread();
        List<Option> options = new ArrayList<>();
        for (int pixels : new int[] {8, 12, 20, 32, 48})
            options.add(new Option(
                    pixels + " pixels",
                    "the same on the screen at every zoom",
                    Choices.map("radius", pixels, "metres", false)));
        for (int metres : new int[] {500, 1000, 2000, 5000, 10_000, 25_000, 50_000, 100_000}) {
            options.add(new Option(
                    metres < 1000 ? metres + " m" : metres / 1000 + " km",
                    "the same on the ground",
                    Choices.map("radius", metres, "metres", true)));
        }
        String text = !spread.metres()
                ? NumberWords.full(spread.radius()) + " pixels"
                : spread.radius() < 1000
                        ? NumberWords.full(spread.radius()) + " m"
                        : NumberWords.full(spread.radius() / 1000) + " km";
        line.slot(LayerSlots.at("/spread").named("reach"), text, Kind.CHOSEN, false, false, options);
    }

    void path() {
        line.say(" of " + dataset.name());
        List<String> who = categories(5000);
        List<String> by = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            ColumnType type = dataset.table().column(name).type();
            if (type == ColumnType.TIME || type == ColumnType.DATE || type.isNumber()) by.add(name);
        }
        by.sort(Comparator.comparingInt(name -> dataset.table().column(name).type() == ColumnType.TIME
                ? 0
                : dataset.table().column(name).type() == ColumnType.DATE ? 1 : 2));
        if (who.isEmpty() || by.isEmpty()) {
            line.say(", which needs a column that tells paths apart and one of their order");
            return;
        }
        Layer.Path path = layer.path();
        if (path == null) {
            List<Option> ways = new ArrayList<>();
            for (String w : who)
                for (String b : by.subList(0, Math.min(3, by.size()))) {
                    ways.add(new Option(
                            "one for each " + ColumnWords.of(w) + ", in order of " + ColumnWords.of(b),
                            "",
                            Choices.map("who", w, "by", b)));
                }
            line.say(" ");
            line.slot(LayerSlots.at("/path").named("order"), "+ order", Kind.CHOSEN, true, false, ways);
            return;
        }
        line.say(", one for each ");
        line.slot(
                LayerSlots.at("/path/who").named("who"),
                ColumnWords.of(path.who()),
                Kind.CHOSEN,
                false,
                false,
                options(who));
        line.say(", in order of ");
        line.slot(
                LayerSlots.at("/path/by").named("order"),
                ColumnWords.of(path.by()),
                Kind.CHOSEN,
                false,
                false,
                options(by));
        line.say(path.breakMinutes() == null ? " " : ", ");
        List<Option> minutes = new ArrayList<>();
        for (int m : new int[] {15, 30, 60, 120, 480}) minutes.add(new Option(time(m), "", m));
        line.slot(
                LayerSlots.at("/path/breakMinutes").named("gap in time"),
                path.breakMinutes() == null ? "+ break by time" : "broken after " + time(path.breakMinutes()),
                Kind.CHOSEN,
                path.breakMinutes() == null,
                path.breakMinutes() != null,
                minutes);
        line.say(" ");
        List<Option> metres = new ArrayList<>();
        for (int m : new int[] {1000, 5000, 20_000, 100_000}) metres.add(new Option(m / 1000 + " km", "", m));
        line.slot(
                LayerSlots.at("/path/breakMetres").named("gap in distance"),
                path.breakMetres() == null
                        ? "+ break by distance"
                        : "or after " + NumberWords.full(path.breakMetres() / 1000) + " km",
                Kind.CHOSEN,
                path.breakMetres() == null,
                path.breakMetres() != null,
                metres);
        colour();
    }

    private static String time(double minutes) {
        return minutes < 60
                ? NumberWords.full(minutes) + " minutes"
                : NumberWords.full(minutes / 60) + (minutes == 60 ? " hour" : " hours");
    }

    void label() {
        Layer.Label label = layer.label();
        List<Option> options = new ArrayList<>();
        options.add(new Option("its name", "", Choices.map("column", null)));
        for (Option m : measures)
            options.add(new Option("its name and " + m.text(), m.hint(), Choices.map("measure", m.value())));
        for (String category : categories(MOST_CATEGORY_VALUES))
            options.add(new Option(ColumnWords.of(category), "", Choices.map("column", category)));
        line.say(label == null ? " " : ", labelled with ");
        String text = label == null
                ? "+ label"
                : label.column() != null
                        ? ColumnWords.of(label.column())
                        : label.measure() == null ? "its name" : "its name and " + ColumnWords.of(label.measure());
        line.slot(LayerSlots.at("/label").named("label"), text, Kind.CHOSEN, label == null, label != null, options);
        if (label == null) return;
        line.say(" ");
        line.slot(
                LayerSlots.at("/label/priority").named("which labels come first"),
                label.priority() == null ? "+ priority" : "first the largest in " + ColumnWords.of(label.priority()),
                Kind.CHOSEN,
                label.priority() == null,
                label.priority() != null,
                measures);
    }

    void tip() {
        Layer.Tip tip = layer.tip();
        int count = tip == null || tip.measures() == null ? 0 : tip.measures().size();
        line.say(count == 0 ? " " : ", ");
        line.slot(
                LayerSlots.at("/tip/measures").named("told when hovered"),
                count == 0
                        ? "+ told"
                        : "telling " + Choices.count(count) + " more " + (count == 1 ? "figure" : "figures"),
                Kind.TIP,
                count == 0,
                count > 0,
                measures);
        if (count == 0) return;
        List<Option> over = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            Column column = dataset.table().column(name);
            if (column.type() == ColumnType.DATE
                    || column.type() == ColumnType.TIME
                    || (column instanceof CodedColumn coded
                            && coded.dictionary().size() <= 24)) over.add(new Option(ColumnWords.of(name), "", name));
        }
        line.say(" ");
        int columns = tip.columns() == null ? 0 : tip.columns().size();
        List<String> all =
                dataset.columnNames().stream().filter(n -> !n.startsWith("@")).toList();
        line.slot(
                LayerSlots.at("/tip/columns").named("columns told"),
                columns == 0 ? "+ columns told" : "and " + String.join(", ", tip.columns()),
                Kind.SET,
                columns == 0,
                columns > 0,
                options(all));
        line.say(" ");
        boolean worded = tip.text() != null && !tip.text().isBlank();
        line.slot(
                LayerSlots.at("/tip/text").named("words told"),
                worded ? "in own words" : "+ own words",
                Kind.TYPED,
                !worded,
                worded,
                List.of(new Option(worded ? tip.text() : template(tip), "", "")));
        line.say(" ");
        line.slot(
                LayerSlots.at("/tip/over").named("tiny chart"),
                tip.over() == null ? "+ tiny chart" : "with a tiny chart over " + ColumnWords.of(tip.over()),
                Kind.CHOSEN,
                tip.over() == null,
                tip.over() != null,
                over);
    }

    /** A sentence to begin with: the names that can stand in braces. */
    private static String template(Layer.Tip tip) {
        return "{place}: "
                + String.join(
                        ", ",
                        tip.measures().stream()
                                .map(m -> "{" + ColumnWords.of(m) + "} " + ColumnWords.of(m))
                                .toList());
    }

    private void period() {
        List<String> dates = dataset.columnNames().stream()
                .filter(n -> dataset.table().column(n).type() == ColumnType.DATE
                        || dataset.table().column(n).type() == ColumnType.TIME)
                .toList();
        if (dates.isEmpty() && layer.period() == null) return;
        line.say(" ");
        Layer.Period period = layer.period();
        String text = period == null
                ? "+ period"
                : "for " + ColumnWords.of(period.column()) + (period.from() == null ? "" : " from " + period.from())
                        + (period.to() == null ? "" : " to " + period.to());
        line.slot(
                LayerSlots.at("/period").named("period"),
                text,
                Kind.PERIOD,
                period == null,
                period != null,
                options(dates));
    }

    private List<String> categories(int most) {
        List<String> names = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            if (!name.startsWith("@")
                    && dataset.table().column(name) instanceof CodedColumn coded
                    && !coded.dictionary().isEmpty()
                    && coded.dictionary().size() <= most) names.add(name);
        }
        return names;
    }

    private List<Option> options(List<String> columns) {
        return columns.stream()
                .map(c -> new Option(
                        ColumnWords.of(c), dataset.table().column(c).type().words(), c))
                .toList();
    }
}
