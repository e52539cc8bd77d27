package sarnik.visual.map;

import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Slot;
import sarnik.visual.Slots;

/** What can be said of a map, each declared once. */
final class MapSlots {

    private static final List<Slot> OWN = List.of(
            Slot.at(
                            "/layers",
                            "layer",
                            "{\"type\": \"object\", \"maxProperties\": 20, \"propertyNames\": {\"$ref\": "
                                    + "\"#/$defs/id\"}, \"additionalProperties\": \"*\"}")
                    .needed(),
            Slot.at(
                    "/ground",
                    "ground",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": "
                            + "[\"mood\", \"detail\"], \"properties\": {\"mood\": {\"type\": \"string\", "
                            + "\"pattern\": \"^(paper|outline|tinted|plain|source:.{1,120})$\"}, \"detail\": "
                            + "{\"type\": \"integer\", \"minimum\": 1, \"maximum\": 3}}}"),
            Slot.at("/start", "start", "{\"$ref\": \"#/$defs/extent\"}"),
            Slot.at(
                    "/views",
                    "saved views",
                    "{\"type\": [\"object\", \"null\"], \"maxProperties\": 30, \"propertyNames\": "
                            + "{\"$ref\": \"#/$defs/id\"}, \"additionalProperties\": {\"type\": \"object\", "
                            + "\"additionalProperties\": false, \"required\": [\"name\", \"extent\", \"order\"], "
                            + "\"properties\": {\"name\": {\"type\": \"string\", \"minLength\": 1, \"maxLength\": "
                            + "80}, \"extent\": {\"$ref\": \"#/$defs/extent\"}, \"order\": {\"type\": "
                            + "\"integer\"}}}}"),
            Slot.at(
                    "/bounds",
                    "limits of zoom",
                    "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": "
                            + "[\"farthest\", \"nearest\"], \"properties\": {\"farthest\": {\"type\": \"number\", "
                            + "\"minimum\": 0, \"maximum\": 18}, \"nearest\": {\"type\": \"number\", \"minimum\": "
                            + "1, \"maximum\": 18}}}"),
            Slot.at("/together", "moving together", "{\"type\": [\"string\", \"null\"], \"maxLength\": 60}"),
            Slot.at("/projection", "projection", "{\"enum\": [\"mercator\", \"equal-area\", null]}"),
            Slot.at("/keyAt", "place of the keys", "{\"enum\": [\"in\", \"beside\", \"none\", null]}"),
            Slot.at(
                    "/withheld",
                    "controls",
                    "{\"type\": [\"array\", \"null\"], \"items\": {\"enum\": [\"ZOOM\", \"HOME\", "
                            + "\"SEARCH\", \"GROUND\", \"LAYERS\", \"SCALE\", \"NORTH\", \"COORDINATES\", "
                            + "\"FULL\", \"FOLLOW\", \"NEAR\", \"HERE\", \"PICTURE\"]}, \"uniqueItems\": true}"),
            Slot.at("/locked", "movement", "{\"type\": [\"boolean\", \"null\"]}"),
            Slots.PINNED,
            Slot.at("/insets", "far-off parts", "{\"type\": [\"boolean\", \"null\"]}"),
            Slot.at("/rows", "rows to take along", "{\"enum\": [\"all\", \"shown\", null]}"));

    /** Those of the map and of its layers. */
    static final List<Slot> ALL = all();

    private MapSlots() {}

    private static List<Slot> all() {
        List<Slot> all = new ArrayList<>(OWN);
        all.addAll(LayerSlots.all());
        return List.copyOf(all);
    }

    /** The slot that stands there. */
    static Slot at(String pointer) {
        return OWN.stream()
                .filter(slot -> slot.pointer().equals(pointer))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(pointer + " is no slot of a map"));
    }
}
