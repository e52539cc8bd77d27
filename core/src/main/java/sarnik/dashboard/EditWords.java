package sarnik.dashboard;

import jakarta.json.JsonArray;
import jakarta.json.JsonObject;
import java.util.Map;

/** Says in words what an edit does, for the history and for undo. */
final class EditWords {

    private static final Map<String, String> PARTS = Map.ofEntries(
            Map.entry("at", "place on the sheet"),
            Map.entry("title", "title"),
            Map.entry("size", "size"),
            Map.entry("colour", "colour"),
            Map.entry("measure", "measure"),
            Map.entry("category", "category"),
            Map.entry("rank", "rank"),
            Map.entry("rule", "rule"),
            Map.entry("opacity", "opacity"),
            Map.entry("kind", "kind of layer"),
            Map.entry("symbol", "symbol"),
            Map.entry("label", "label"),
            Map.entry("tip", "what is told"),
            Map.entry("path", "path"),
            Map.entry("spread", "reach"),
            Map.entry("set", "areas"),
            Map.entry("gather", "gathering"),
            Map.entry("period", "period"),
            Map.entry("border", "border"),
            Map.entry("name", "layer's name"),
            Map.entry("order", "order of layers"),
            Map.entry("hidden", "layer shown or hidden"),
            Map.entry("ground", "ground"),
            Map.entry("start", "start"),
            Map.entry("views", "saved views"),
            Map.entry("together", "moving together"),
            Map.entry("projection", "projection"),
            Map.entry("keyAt", "place of the keys"),
            Map.entry("withheld", "controls"),
            Map.entry("locked", "movement"),
            Map.entry("rows", "rows to take along"),
            Map.entry("layers", "layer"));

    private EditWords() {}

    static String of(JsonArray operations, Dashboard before, Dashboard after) {
        for (var value : operations) {
            JsonObject operation = value.asJsonObject();
            String kind = operation.getString("op");
            if (kind.equals("test")) continue;
            String[] path = operation.getString("path").split("/");
            if (path.length < 2) continue;
            if (path[1].equals("title")) return "the dashboard's title";
            String id = path.length > 2 ? path[2] : "";
            String whole = path.length == 3 ? (kind.equals("remove") ? "taking away " : "adding ") : "";
            switch (path[1]) {
                case "visuals" -> {
                    String name = name(
                            before.visuals().getOrDefault(id, after.visuals().get(id)));
                    return path.length == 3 ? whole + name : part(path) + " of " + name;
                }
                case "filters" -> {
                    Filter filter =
                            before.filters().getOrDefault(id, after.filters().get(id));
                    return path.length == 3
                            ? whole + "the filter " + filter.words()
                            : part(path) + " of the filter " + filter.words();
                }
                case "parameters" -> {
                    Parameter parameter = before.parameters()
                            .getOrDefault(id, after.parameters().get(id));
                    // The first one is added with the place of all, which says nothing.
                    if (parameter != null)
                        return (whole.isEmpty() ? "a part of " : whole) + "the number " + parameter.name();
                }
                case "links" -> {
                    return whole.isEmpty() ? "a link" : whole + "a link";
                }
                default -> {}
            }
        }
        return "a change";
    }

    private static String part(String[] path) {
        // The most telling word of the path: …/layers/l1/colour/classes is about the colour.
        boolean withinLayer = path.length > 5 && path[3].equals("layers");
        for (int i = withinLayer ? 5 : 3; i < path.length; i++)
            if (PARTS.containsKey(path[i])) return "the " + PARTS.get(path[i]);
        return "a part";
    }

    private static String name(Visual visual) {
        if (visual == null) return "a visual";
        String kind = visual instanceof Visual.OfMap
                ? "the map"
                : visual instanceof Visual.OfBars ? "the bars" : "the figure";
        return visual.title() == null || visual.title().isBlank() ? kind : kind + " “" + visual.title() + "”";
    }
}
