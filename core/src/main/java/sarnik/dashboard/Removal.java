package sarnik.dashboard;

import jakarta.json.Json;
import jakarta.json.JsonArrayBuilder;
import jakarta.json.JsonObjectBuilder;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.narrow.Link;
import sarnik.visual.Visual;

/** The edit that takes a part of a dashboard away, with what rests on it. */
public final class Removal {

    /**
     * @param patch JSON Patch (RFC 6902)
     * @param words what goes along with it, each in a few words; empty where nothing does
     */
    public record Removed(String patch, List<String> words) {}

    private Removal() {}

    /**
     * Takes a visual, a filter or a parameter away: with it the visuals that are about it, the links that start at it or lead to nothing but it, and
     * whatever is set by it.
     *
     * @throws DashboardException when there is none of this id
     */
    public static Removed of(Dashboard dashboard, String id) {
        String kind = dashboard.visuals().containsKey(id)
                ? "visuals"
                : dashboard.filters().containsKey(id)
                        ? "filters"
                        : dashboard.parameters().containsKey(id) ? "parameters" : null;
        if (kind == null)
            throw new DashboardException(
                    DashboardException.Kind.OVERTAKEN, "This part has been taken away from the dashboard already.");
        JsonArrayBuilder patch = Json.createArrayBuilder();
        List<String> words = new ArrayList<>();
        patch.add(remove("/" + kind + "/" + id));
        if (kind.equals("parameters")) {
            for (Map.Entry<String, Visual> visual : dashboard.visuals().entrySet()) {
                List<String> places = Kinds.ALL
                        .of(visual.getValue())
                        .places(visual.getValue(), id)
                        .toList();
                for (String place : places) patch.add(remove("/visuals/" + visual.getKey() + place));
                if (!places.isEmpty())
                    words.add("what is set by it in "
                            + Kinds.ALL.of(visual.getValue()).words(visual.getValue()));
            }
        }
        Set<String> gone = new LinkedHashSet<>(List.of(id));
        dashboard.visuals().forEach((other, visual) -> {
            if (!dependsOn(visual).contains(id)) return;
            gone.add(other);
            patch.add(remove("/visuals/" + other));
            words.add(Kinds.ALL.of(visual).words(visual));
        });
        int links = 0;
        for (Map.Entry<String, Link> entry : dashboard.links().entrySet()) {
            Link link = entry.getValue();
            if (gone.contains(link.from()) || link.to() != null && gone.containsAll(link.to())) {
                patch.add(remove("/links/" + entry.getKey()));
                links++;
            } else if (link.to() != null && link.to().stream().anyMatch(gone::contains)) {
                patch.add(Json.createObjectBuilder()
                        .add("op", "replace")
                        .add("path", "/links/" + entry.getKey() + "/to")
                        .add(
                                "value",
                                Json.createArrayBuilder(link.to().stream()
                                        .filter(t -> !gone.contains(t))
                                        .toList())));
            }
        }
        if (links > 0) words.add(links == 1 ? "a link" : links + " links");
        return new Removed(patch.build().toString(), words);
    }

    private static <V extends Visual> Set<String> dependsOn(V visual) {
        return Kinds.ALL.of(visual).dependsOn(visual);
    }

    private static JsonObjectBuilder remove(String path) {
        return Json.createObjectBuilder().add("op", "remove").add("path", path);
    }
}
