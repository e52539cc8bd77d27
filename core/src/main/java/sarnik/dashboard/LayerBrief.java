package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import sarnik.dashboard.Brief.Kind;
import sarnik.dashboard.Brief.Option;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.scale.CircleSizes;
import sarnik.scale.Classes;
import sarnik.scale.ColourScale;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/** Writes the sentence of one layer of a map, and the words about its looks. */
final class LayerBrief {

    private static final int MOST_CATEGORY_VALUES = 20_000;

    private final String at;
    private final Layer layer;
    private final LoadedDataset dataset;
    private final List<Option> measures;
    private final boolean named;
    private final BriefWriter writer;
    private final BriefWriter.Offers offers;
    private final BriefLine line = new BriefLine();

    /**
     * @param at JSON pointer of the layer
     * @param named whether the map has other layers, among which this one stands
     */
    LayerBrief(
            BriefWriter writer,
            BriefWriter.Offers offers,
            String at,
            Layer layer,
            LoadedDataset dataset,
            boolean named) {
        this.writer = writer;
        this.offers = offers;
        this.at = at;
        this.layer = layer;
        this.dataset = dataset;
        this.named = named;
        measures = writer.measures(dataset);
    }

    /** The sentence, and what is folded away about looks. */
    Brief write() {
        kind();
        switch (layer.kind()) {
            case SYMBOLS -> {
                line.say(": one ");
                symbol();
                line.say(" for each ");
                areasOf("place");
                line.say(" of " + dataset.name());
                size(", sized by ", "+ size");
                colour(true);
                gather();
            }
            case AREAS -> {
                line.say(" of ");
                areasOf("the boundary set it is placed by");
                line.say(" in " + dataset.name());
                colour(true);
            }
            case SHAPES -> {
                line.say(" of the rows of " + dataset.name());
                colour(true);
            }
            case DENSITY -> {
                line.say(" of the places of " + dataset.name());
                size(", weighted by ", "+ weight");
                spread();
            }
            case FLOWS -> {
                line.say(" of " + dataset.name() + " from ");
                areasOf("place");
                line.say(" to the next");
                size(", as wide as ", "+ width");
                colour(true);
            }
            case PATHS -> path();
        }
        if (layer.kind() == Layer.Kind.SYMBOLS || layer.isOfShapes()) {
            label();
            tip();
        }
        writer.rule(at, layer.rule(), dataset, line.parts());
        period();
        if (named) {
            line.say(" ");
            line.slot("this layer", "– this layer", at, Kind.REMOVE, true, true, List.of());
        }
        return new Brief(
                line.parts(), new LayerLooks(at, layer, dataset, named).write().parts());
    }

    private void kind() {
        List<Option> kinds = new ArrayList<>();
        for (Layer.Kind kind : Layer.Kind.values())
            if (fits(kind)) kinds.add(new Option(kind.words(), hint(kind), kind.name()));
        line.slot("kind of layer", layer.kind().words(), at + "/kind", Kind.CHOSEN, false, false, kinds);
    }

    private boolean fits(Layer.Kind kind) {
        if (kind == Layer.Kind.FLOWS)
            return dataset.table().find(PlacedTable.ORIGIN).isPresent();
        return kind != Layer.Kind.SHAPES || dataset.ownShapes().isPresent();
    }

    private static String hint(Layer.Kind kind) {
        return switch (kind) {
            case SYMBOLS -> "a mark for each place";
            case AREAS -> "areas filled with colour";
            case SHAPES -> "lines and areas as they were brought in";
            case DENSITY -> "where places lie thick";
            case FLOWS -> "from where to where";
            case PATHS -> "points joined in order";
        };
    }

    private void symbol() {
        Layer.Symbol symbol = layer.symbol();
        List<Option> options = new ArrayList<>();
        for (Layer.Shape shape : Layer.Shape.values())
            options.add(new Option(shape.words(), "", BriefWriter.map("shape", shape.name())));
        for (String category : categories(200))
            options.add(new Option("shape by " + ColumnWords.of(category), "", BriefWriter.map("category", category)));
        String text = symbol == null
                ? "circle"
                : symbol.category() != null
                        ? "shape by " + ColumnWords.of(symbol.category())
                        : symbol.shape() == null ? "circle" : symbol.shape().words();
        line.slot("symbol", text, at + "/symbol", Kind.CHOSEN, false, symbol != null, options);
    }

    private void areasOf(String otherwise) {
        // "Areas of Provinces of Spain", but "one circle for each area of Provinces of Spain".
        String of = layer.kind() == Layer.Kind.AREAS ? "" : "area of ";
        List<Option> sets =
                offers.sets().stream().map(set -> new Option(of + set, "", set)).toList();
        if (sets.isEmpty() && layer.set() == null) line.say(otherwise);
        else
            line.slot(
                    "areas",
                    layer.set() == null ? otherwise : of + layer.set(),
                    at + "/set",
                    Kind.CHOSEN,
                    false,
                    layer.set() != null,
                    sets);
    }

    private void size(String words, String offer) {
        Layer.Size size = layer.size();
        if (size == null) {
            line.say(" ");
            line.slot(
                    "size", offer, at + "/size", Kind.CHOSEN, true, false, BriefWriter.wrapped(measures, this::sized));
            return;
        }
        line.say(words);
        line.slot(
                "size",
                ColumnWords.of(size.measure()),
                at + "/size",
                Kind.CHOSEN,
                false,
                true,
                BriefWriter.wrapped(measures, this::sized));
        offered("reader's choice of size", size.offered(), at + "/size/offered");
    }

    /**
     * A colour by another measure: the scale stays as it was made, but for ends and breaks, which belong to the values.
     */
    private Map<String, Object> coloured(Object measure) {
        Layer.Colour colour = layer.colour();
        if (colour == null || colour.measure() == null)
            return BriefWriter.map("measure", measure, "method", "NATURAL", "classes", 5, "palette", "loch");
        Map<String, Object> changed = BriefWriter.map(
                "measure", measure, "method", method().name(), "classes", classes(), "palette", palette());
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
            changed.put(
                    "offered", colour.offered().stream().map(BriefWriter::value).toList());
        return changed;
    }

    /** A size by another measure; the amount of the largest belongs to the values. */
    private Map<String, Object> sized(Object measure) {
        Layer.Size size = layer.size();
        Map<String, Object> changed = BriefWriter.map(
                "measure",
                measure,
                "rule",
                size == null ? CircleSizes.Rule.AREA.name() : size.rule().name(),
                "radius",
                size == null ? 28 : size.radius());
        if (size != null && size.offered() != null)
            changed.put(
                    "offered", size.offered().stream().map(BriefWriter::value).toList());
        return changed;
    }

    private void colour(boolean withCategories) {
        Layer.Colour colour = layer.colour();
        List<Option> options = new ArrayList<>(BriefWriter.wrapped(measures, this::coloured));
        if (withCategories) {
            for (String category : categories(MOST_CATEGORY_VALUES))
                options.add(new Option(
                        ColumnWords.of(category) + ", each value a colour",
                        "",
                        BriefWriter.map("category", category, "palette", "flags")));
        }
        if (colour == null || (colour.measure() == null && colour.category() == null)) {
            line.say(" ");
            line.slot("colour", "+ colour", at + "/colour", Kind.CHOSEN, true, false, options);
            return;
        }
        line.say(", coloured by ");
        if (colour.category() != null) {
            line.slot("colour", ColumnWords.of(colour.category()), at + "/colour", Kind.CHOSEN, false, true, options);
            return;
        }
        line.slot("colour", ColumnWords.of(colour.measure()), at + "/colour", Kind.CHOSEN, false, true, options);
        if (layer.isOfShapes() || layer.set() != null) {
            line.say(" ");
            line.slot(
                    "base",
                    colour.per() == null ? "+ per" : "per km²",
                    at + "/colour/per",
                    Kind.CHOSEN,
                    colour.per() == null,
                    colour.per() != null,
                    List.of(new Option(
                            "per square kilometre of the area",
                            "so that large areas do not win by being large",
                            "km2")));
        }
        scale(colour);
        offered("reader's choice", colour.offered(), at + "/colour/offered");
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

    private void scale(Layer.Colour colour) {
        if (colour.key() != null) {
            line.say(" on the shared key ");
            sharedKey(colour);
            return;
        }
        line.say(" in ");
        boolean ramp = Boolean.TRUE.equals(colour.ramp());
        if (ramp) {
            line.slot(
                    "steps",
                    "one ramp",
                    at + "/colour/ramp",
                    Kind.CHOSEN,
                    false,
                    false,
                    List.of(new Option("classes", "", false), new Option("one ramp", "colours run on", true)));
        } else {
            List<Option> counts = new ArrayList<>();
            for (int n = 2; n <= 11; n++) counts.add(new Option(BriefWriter.COUNT_WORDS.get(n), "", n));
            int count = colour.breaks() == null ? classes() : colour.breaks().size() + 1;
            if (colour.breaks() == null)
                line.slot(
                        "number of classes",
                        BriefWriter.COUNT_WORDS.get(count),
                        at + "/colour/classes",
                        Kind.CHOSEN,
                        false,
                        false,
                        counts);
            else line.say(BriefWriter.COUNT_WORDS.get(count));
            line.say(" ");
            List<Option> methods = new ArrayList<>();
            for (Classes.Method method : Classes.Method.values())
                methods.add(new Option(method.words(), BriefWriter.hint(method), method.name()));
            if (colour.breaks() == null)
                line.slot(
                        "kind of classes",
                        colour.choice().method().words(),
                        at + "/colour/method",
                        Kind.CHOSEN,
                        false,
                        false,
                        methods);
            line.say(" classes");
        }
        line.say(" ");
        line.slot(
                "breaks and ends",
                colour.breaks() != null ? "with own breaks" : "+ own breaks",
                at + "/colour",
                Kind.SCALE,
                colour.breaks() == null && colour.low() == null && colour.high() == null,
                false,
                List.of());
        line.say(" ");
        centre(colour);
        sharedKey(colour);
    }

    private void centre(Layer.Colour colour) {
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
        writer.parameters()
                .forEach((id, parameter) -> centres.add(new Option(
                        "about the reader's “" + parameter.name() + "”",
                        "now " + NumberWords.full(parameter.value()),
                        centre(ColourScale.About.PARAMETER, null, even, id))));
        line.slot(
                "centre",
                centre == null ? "+ centre" : about(centre),
                at + "/colour/centre",
                Kind.CHOSEN,
                centre == null,
                centre != null,
                centres);
        line.say(" ");
        if (centre == null || centre.about() != ColourScale.About.VALUE) return;
        line.slot(
                "value of the centre",
                NumberWords.full(centre.value() == null ? 0 : centre.value()),
                at + "/colour/centre/value",
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
                        + (writer.parameters().containsKey(centre.parameter())
                                ? writer.parameters().get(centre.parameter()).name()
                                : "number that has gone")
                        + "”";
        };
    }

    private static Map<String, Object> centre(ColourScale.About about, Double value, Boolean even, String parameter) {
        Map<String, Object> centre = BriefWriter.map("about", about.name());
        if (value != null) centre.put("value", value);
        if (even != null) centre.put("even", even);
        if (parameter != null) centre.put("parameter", parameter);
        return centre;
    }

    private void sharedKey(Layer.Colour colour) {
        List<Option> options = offers.keys().stream()
                .map(k -> new Option(k.name(), k.words(), k.name()))
                .toList();
        line.slot(
                "shared key",
                colour.key() == null ? "+ shared key" : "“" + colour.key() + "”",
                at + "/colour/key",
                Kind.SHARED_KEY,
                colour.key() == null,
                colour.key() != null,
                options);
    }

    private void offered(String name, List<Measure> offered, String path) {
        line.say(" ");
        int count = offered == null ? 0 : offered.size();
        line.slot(
                name,
                count == 0
                        ? "+ reader's choice"
                        : "or what the reader chooses of " + BriefWriter.COUNT_WORDS.get(Math.min(11, count)) + " more",
                path,
                Kind.SET,
                count == 0,
                count > 0,
                measures);
    }

    private void gather() {
        line.say(" ");
        boolean gathers = Boolean.TRUE.equals(layer.gather());
        line.slot(
                "crowds",
                gathers ? "gathered where they crowd" : "+ gather",
                at + "/gather",
                Kind.CHOSEN,
                !gathers,
                gathers,
                List.of(new Option("gathered where they crowd", "groups open as one zooms", true)));
    }

    private void spread() {
        line.say(", felt within ");
        Layer.Spread spread = layer.spread() == null ? new Layer.Spread(12, false) : layer.spread();
        List<Option> options = new ArrayList<>();
        for (int pixels : new int[] {8, 12, 20, 32, 48})
            options.add(new Option(
                    pixels + " pixels",
                    "the same on the screen at every zoom",
                    BriefWriter.map("radius", pixels, "metres", false)));
        for (int metres : new int[] {500, 1000, 2000, 5000, 10_000, 25_000, 50_000, 100_000}) {
            options.add(new Option(
                    metres < 1000 ? metres + " m" : metres / 1000 + " km",
                    "the same on the ground",
                    BriefWriter.map("radius", metres, "metres", true)));
        }
        String text = !spread.metres()
                ? NumberWords.full(spread.radius()) + " pixels"
                : spread.radius() < 1000
                        ? NumberWords.full(spread.radius()) + " m"
                        : NumberWords.full(spread.radius() / 1000) + " km";
        line.slot("reach", text, at + "/spread", Kind.CHOSEN, false, false, options);
    }

    private void path() {
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
                            BriefWriter.map("who", w, "by", b)));
                }
            line.say(" ");
            line.slot("order", "+ order", at + "/path", Kind.CHOSEN, true, false, ways);
            return;
        }
        line.say(", one for each ");
        line.slot("who", ColumnWords.of(path.who()), at + "/path/who", Kind.CHOSEN, false, false, options(who));
        line.say(", in order of ");
        line.slot("order", ColumnWords.of(path.by()), at + "/path/by", Kind.CHOSEN, false, false, options(by));
        line.say(path.breakMinutes() == null ? " " : ", ");
        List<Option> minutes = new ArrayList<>();
        for (int m : new int[] {15, 30, 60, 120, 480}) minutes.add(new Option(time(m), "", m));
        line.slot(
                "gap in time",
                path.breakMinutes() == null ? "+ break by time" : "broken after " + time(path.breakMinutes()),
                at + "/path/breakMinutes",
                Kind.CHOSEN,
                path.breakMinutes() == null,
                path.breakMinutes() != null,
                minutes);
        line.say(" ");
        List<Option> metres = new ArrayList<>();
        for (int m : new int[] {1000, 5000, 20_000, 100_000}) metres.add(new Option(m / 1000 + " km", "", m));
        line.slot(
                "gap in distance",
                path.breakMetres() == null
                        ? "+ break by distance"
                        : "or after " + NumberWords.full(path.breakMetres() / 1000) + " km",
                at + "/path/breakMetres",
                Kind.CHOSEN,
                path.breakMetres() == null,
                path.breakMetres() != null,
                metres);
        colour(true);
    }

    private static String time(double minutes) {
        return minutes < 60
                ? NumberWords.full(minutes) + " minutes"
                : NumberWords.full(minutes / 60) + (minutes == 60 ? " hour" : " hours");
    }

    private void label() {
        Layer.Label label = layer.label();
        List<Option> options = new ArrayList<>();
        options.add(new Option("its name", "", BriefWriter.map("column", null)));
        for (Option m : measures)
            options.add(new Option("its name and " + m.text(), m.hint(), BriefWriter.map("measure", m.value())));
        for (String category : categories(MOST_CATEGORY_VALUES))
            options.add(new Option(ColumnWords.of(category), "", BriefWriter.map("column", category)));
        line.say(label == null ? " " : ", labelled with ");
        String text = label == null
                ? "+ label"
                : label.column() != null
                        ? ColumnWords.of(label.column())
                        : label.measure() == null ? "its name" : "its name and " + ColumnWords.of(label.measure());
        line.slot("label", text, at + "/label", Kind.CHOSEN, label == null, label != null, options);
        if (label == null) return;
        line.say(" ");
        line.slot(
                "which labels come first",
                label.priority() == null ? "+ priority" : "first the largest in " + ColumnWords.of(label.priority()),
                at + "/label/priority",
                Kind.CHOSEN,
                label.priority() == null,
                label.priority() != null,
                measures);
    }

    private void tip() {
        Layer.Tip tip = layer.tip();
        int count = tip == null || tip.measures() == null ? 0 : tip.measures().size();
        line.say(count == 0 ? " " : ", ");
        line.slot(
                "told when hovered",
                count == 0
                        ? "+ told"
                        : "telling " + BriefWriter.COUNT_WORDS.get(Math.min(11, count)) + " more "
                                + (count == 1 ? "figure" : "figures"),
                at + "/tip/measures",
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
                "columns told",
                columns == 0 ? "+ columns told" : "and " + String.join(", ", tip.columns()),
                at + "/tip/columns",
                Kind.SET,
                columns == 0,
                columns > 0,
                options(all));
        line.say(" ");
        boolean worded = tip.text() != null && !tip.text().isBlank();
        line.slot(
                "words told",
                worded ? "in own words" : "+ own words",
                at + "/tip/text",
                Kind.TYPED,
                !worded,
                worded,
                List.of(new Option(worded ? tip.text() : template(tip), "", "")));
        line.say(" ");
        line.slot(
                "tiny chart",
                tip.over() == null ? "+ tiny chart" : "with a tiny chart over " + ColumnWords.of(tip.over()),
                at + "/tip/over",
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
        line.slot("period", text, at + "/period", Kind.PERIOD, period == null, period != null, options(dates));
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
