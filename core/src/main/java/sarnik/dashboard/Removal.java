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
     * Takes a visual, a filter, a parameter or a page away: with it the visuals that are about it, the links that start at it or lead to nothing but it, and
     * whatever is set by it.
     *
     * @throws DashboardException when there is none of this id
     */
    public static Removed of(Dashboard dashboard, String id) {
        if (dashboard.pages().containsKey(id)) return page(dashboard, id);
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
        rest(dashboard, Set.of(id), patch, words);
        return new Removed(patch.build().toString(), words);
    }

    /** A page goes with everything that stands on it. */
    private static Removed page(Dashboard dashboard, String id) {
        if (dashboard.pages().size() == 1)
            throw new DashboardException(
                    DashboardException.Kind.MALFORMED,
                    "This is the only page, and a dashboard needs one. Take away what stands on it instead.");
        JsonArrayBuilder patch = Json.createArrayBuilder();
        List<String> words = new ArrayList<>();
        Set<String> going = new LinkedHashSet<>(List.of(id));
        List<String> filters = dashboard.filtersOf(id);
        for (String filter : filters) {
            patch.add(remove("/filters/" + filter));
            going.add(filter);
        }
        dashboard.visuals().forEach((other, visual) -> {
            if (!visual.page().equals(id)) return;
            patch.add(remove("/visuals/" + other));
            going.add(other);
        });
        int visuals = going.size() - filters.size() - 1;
        if (visuals > 0) words.add(visuals == 1 ? "what stands on it" : "the " + visuals + " visuals on it");
        if (!filters.isEmpty()) words.add(filters.size() == 1 ? "its filter" : "its " + filters.size() + " filters");
        rest(dashboard, going, patch, words);
        // Last, so that no visual stands on a page that has gone.
        patch.add(remove("/pages/" + id));
        return new Removed(patch.build().toString(), words);
    }

    /** What cannot stand without the parts that go. */
    private static void rest(Dashboard dashboard, Set<String> going, JsonArrayBuilder patch, List<String> words) {
        Set<String> gone = new LinkedHashSet<>(going);
        dashboard.visuals().forEach((other, visual) -> {
            if (gone.contains(other) || dependsOn(visual).stream().noneMatch(going::contains)) return;
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
    }

    private static <V extends Visual> Set<String> dependsOn(V visual) {
        return Kinds.ALL.of(visual).dependsOn(visual);
    }

    private static JsonObjectBuilder remove(String path) {
        return Json.createObjectBuilder().add("op", "remove").add("path", path);
    }
}
