package sarnik.visual.map;

import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Choices;
import sarnik.brief.Slot;

/** What can be said of a layer of a map, each declared once; pointers begin at the layer. */
final class LayerSlots {

    private static final List<Slot> WHOLE = List.of(
            Slot.at(
                    "/kind",
                    "kind of layer",
                    "{\"enum\": [\"SYMBOLS\", \"AREAS\", \"SHAPES\", \"DENSITY\", \"FLOWS\", \"PATHS\", "
                            + "\"OUTLINES\", \"PICTURES\", null]}"),
            Slot.at("/order", "order of layers", "{\"type\": \"integer\"}").needed(),
            Slot.at("/dataset", "dataset", "{\"type\": \"integer\"}"),
            Slot.at("/name", "layer's name", "{\"$ref\": \"#/$defs/words\"}"),
            Slot.at("/hidden", "layer shown or hidden", "{\"type\": [\"boolean\", \"null\"]}"),
            Slot.at(
                    "/size",
                    "size",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": "
                            + "[\"measure\", \"rule\", \"radius\"], \"properties\": {\"measure\": {\"$ref\": "
                            + "\"#/$defs/measure\"}, \"rule\": {\"enum\": [\"AREA\", \"FLANNERY\", \"STEPPED\"]}, "
                            + "\"radius\": {\"type\": \"number\", \"minimum\": 4, \"maximum\": 120}, \"largest\": "
                            + "{\"type\": [\"number\", \"null\"], \"exclusiveMinimum\": 0}, \"offered\": "
                            + "{\"type\": [\"array\", \"null\"], \"items\": {\"$ref\": \"#/$defs/measure\"}, "
                            + "\"maxItems\": 12}}}"),
            Slot.at("/colour", "colour", "{\"$ref\": \"#/$defs/colour\"}"),
            Slot.at(
                    "/symbol",
                    "symbol",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"properties\": "
                            + "{\"shape\": {\"enum\": [\"CIRCLE\", \"SQUARE\", \"DIAMOND\", \"TRIANGLE\", "
                            + "\"STAR\", \"DROP\", \"RING\", \"CROSS\", null]}, \"turn\": {\"type\": [\"string\", \"null\"], \"maxLength\": 200}, "
                            + "\"last\": {\"type\": [\"boolean\", \"null\"]}, \"category\": {\"type\": "
                            + "[\"string\", \"null\"], \"maxLength\": 200}}}"),
            Slot.at("/gather", "gathering", "{\"type\": [\"boolean\", \"null\"]}"),
            Slot.at("/set", "areas", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}"),
            Slot.at(
                    "/spread",
                    "reach",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": "
                            + "[\"radius\", \"metres\"], \"properties\": {\"radius\": {\"type\": \"number\", "
                            + "\"exclusiveMinimum\": 0, \"maximum\": 1000000}, \"metres\": {\"type\": "
                            + "\"boolean\"}}}"),
            Slot.at(
                    "/path",
                    "path",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": "
                            + "[\"who\", \"by\"], \"properties\": {\"who\": {\"$ref\": \"#/$defs/column\"}, "
                            + "\"by\": {\"$ref\": \"#/$defs/column\"}, \"breakMinutes\": {\"type\": [\"number\", "
                            + "\"null\"], \"exclusiveMinimum\": 0}, \"breakMetres\": {\"type\": [\"number\", "
                            + "\"null\"], \"exclusiveMinimum\": 0}}}"),
            Slot.at(
                    "/label",
                    "label",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"properties\": "
                            + "{\"column\": {\"type\": [\"string\", \"null\"], \"maxLength\": 200}, \"measure\": "
                            + "{\"anyOf\": [{\"type\": \"null\"}, {\"$ref\": \"#/$defs/measure\"}]}, \"priority\": "
                            + "{\"anyOf\": [{\"type\": \"null\"}, {\"$ref\": \"#/$defs/measure\"}]}}}"),
            Slot.at(
                    "/tip",
                    "what is told",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"properties\": "
                            + "{\"measures\": {\"type\": [\"array\", \"null\"], \"items\": {\"$ref\": "
                            + "\"#/$defs/measure\"}, \"maxItems\": 12}, \"columns\": {\"type\": [\"array\", "
                            + "\"null\"], \"items\": {\"$ref\": \"#/$defs/column\"}, \"maxItems\": 12}, \"over\": "
                            + "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}, \"text\": {\"type\": "
                            + "[\"string\", \"null\"], \"maxLength\": 1000}}}"),
            Slot.at("/border", "border", "{\"type\": [\"number\", \"null\"], \"minimum\": 0, \"maximum\": 6}"),
            Slot.at("/opacity", "opacity", "{\"type\": \"number\", \"minimum\": 0.1, \"maximum\": 1}")
                    .needed(),
            Slot.at(
                    "/period",
                    "period",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": "
                            + "[\"column\"], \"properties\": {\"column\": {\"$ref\": \"#/$defs/column\"}, "
                            + "\"from\": {\"type\": [\"string\", \"null\"], \"format\": \"date\", \"pattern\": "
                            + "\"^\\\\d{4}-\\\\d{2}-\\\\d{2}$\"}, \"to\": {\"type\": [\"string\", \"null\"], "
                            + "\"format\": \"date\", \"pattern\": \"^\\\\d{4}-\\\\d{2}-\\\\d{2}$\"}}}"),
            Slot.at(
                    "/chance",
                    "more than chance",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"properties\": {\"of\": "
                            + "{\"enum\": [\"EVENTS\", \"SHARE\", \"NONE\", null]}, \"toward\": {\"type\": "
                            + "[\"boolean\", \"null\"]}, \"ages\": {\"type\": [\"object\", \"null\"], "
                            + "\"additionalProperties\": false, \"required\": [\"band\", \"like\"], \"properties\": "
                            + "{\"band\": {\"$ref\": \"#/$defs/column\"}, \"like\": {\"enum\": [\"EUROPE_2013\", "
                            + "\"WORLD_2000\", \"TOGETHER\", \"EXPECTED\"]}}}, \"clusters\": {\"type\": "
                            + "[\"object\", \"null\"], \"additionalProperties\": false, \"required\": [\"by\"], "
                            + "\"properties\": {\"by\": {\"enum\": [\"TOGETHER\", \"BESIDE\"]}, \"near\": "
                            + "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"properties\": "
                            + "{\"km\": {\"type\": [\"number\", \"null\"], \"exclusiveMinimum\": 0, \"maximum\": "
                            + "20000}, \"nearest\": {\"type\": [\"integer\", \"null\"], \"minimum\": 1, "
                            + "\"maximum\": 100}}}}}}}"),
            Choices.RULE);

    /** Slots within those, which say what may stand there. */
    private static final List<Slot> WITHIN = List.of(
            Slot.within("/colour/per", "per"),
            Slot.within("/colour/ramp", "ramp"),
            Slot.within("/colour/classes", "classes"),
            Slot.within("/colour/method", "method"),
            Slot.within("/colour/centre", "centre"),
            Slot.within("/colour/centre/value", "value"),
            Slot.within("/colour/centre/even", "even"),
            Slot.within("/colour/key", "key"),
            Slot.within("/colour/offered", "offered"),
            Slot.within("/colour/reversed", "reversed"),
            Slot.within("/colour/palette", "palette"),
            Slot.within("/colour/domain", "domain"),
            Slot.within("/size/offered", "offered"),
            Slot.within("/size/radius", "radius"),
            Slot.within("/size/largest", "largest"),
            Slot.within("/size/rule", "rule"),
            Slot.within("/symbol/turn", "turn"),
            Slot.within("/path/who", "who"),
            Slot.within("/path/by", "by"),
            Slot.within("/path/breakMinutes", "breakMinutes"),
            Slot.within("/path/breakMetres", "breakMetres"),
            Slot.within("/label/priority", "priority"),
            Slot.within("/tip/measures", "measures"),
            Slot.within("/tip/columns", "columns"),
            Slot.within("/tip/text", "text"),
            Slot.within("/tip/over", "over"));

    private LayerSlots() {}

    /** All of them, as a map has them. */
    static List<Slot> all() {
        List<Slot> all = new ArrayList<>();
        for (List<Slot> some : List.of(WHOLE, WITHIN))
            for (Slot slot : some)
                all.add(new Slot(
                        "/layers/*" + slot.pointer(), slot.name(), slot.edit(), slot.schema(), slot.required()));
        return all;
    }

    /** The slot that stands there. */
    static Slot at(String pointer) {
        for (List<Slot> some : List.of(WHOLE, WITHIN))
            for (Slot slot : some) if (slot.pointer().equals(pointer)) return slot;
        throw new IllegalArgumentException(pointer + " is no slot of a layer");
    }
}
