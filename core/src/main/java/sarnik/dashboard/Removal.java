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
     * Takes a visual, a filter, a parameter or a page away: with it the visuals that are about it, the links that start
     * at it or lead to nothing but it, and whatever is set by it.
     *
     * @throws DashboardException when there is none of this id
     */
    public static Removed of(Dashboard dashboard, String id) {
        return of(dashboard, List.of(id));
    }

    /** The same for several, of which pages are taken away one at a time. */
    public static Removed of(Dashboard dashboard, List<String> ids) {
        if (ids.size() == 1 && dashboard.pages().containsKey(ids.get(0))) return page(dashboard, ids.get(0));
        JsonArrayBuilder patch = Json.createArrayBuilder();
        List<String> words = new ArrayList<>();
        for (String id : ids) {
            patch.add(remove("/" + kind(dashboard, id) + "/" + id));
            if (dashboard.parameters().containsKey(id)) setBy(dashboard, id, patch, words);
        }
        rest(dashboard, new LinkedHashSet<>(ids), patch, words);
        return new Removed(patch.build().toString(), words);
    }

    private static String kind(Dashboard dashboard, String id) {
        if (dashboard.visuals().containsKey(id)) return "visuals";
        if (dashboard.filters().containsKey(id)) return "filters";
        if (dashboard.parameters().containsKey(id)) return "parameters";
        if (dashboard.formulas().containsKey(id)) return "formulas";
        throw new DashboardException(
                DashboardException.Kind.OVERTAKEN, "This part has been taken away from the dashboard already.");
    }

    private static void setBy(Dashboard dashboard, String number, JsonArrayBuilder patch, List<String> words) {
        for (Map.Entry<String, Visual> visual : dashboard.visuals().entrySet()) {
            List<String> places = Kinds.ALL
                    .of(visual.getValue())
                    .places(visual.getValue(), number)
                    .toList();
            for (String place : places) patch.add(remove("/visuals/" + visual.getKey() + place));
            if (!places.isEmpty())
                words.add("what is set by it in "
                        + Kinds.ALL.of(visual.getValue()).words(visual.getValue()));
        }
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
        List<String> filters = dashboard.filtersOn(id);
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
        for (Map.Entry<String, Dashboard.Page> other : dashboard.pages().entrySet())
            if (id.equals(other.getValue().under())) patch.add(remove("/pages/" + other.getKey() + "/under"));
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
        arranged(dashboard, gone, patch);
        turned(dashboard, gone, patch);
        int links = 0;
        for (Map.Entry<String, Link> entry : dashboard.links().entrySet()) {
            Link link = entry.getValue();
            if (gone.contains(link.from())
                    || gone.contains(link.part())
                    || link.to() != null && !link.to().isEmpty() && gone.containsAll(link.to())) {
                patch.add(remove("/links/" + entry.getKey()));
                links++;
            } else if (link.to() != null && link.to().stream().anyMatch(gone::contains)) {
                patch.add(replaced(
                        "/links/" + entry.getKey() + "/to",
                        link.to().stream().filter(t -> !gone.contains(t)).toList()));
            }
        }
        if (links > 0) words.add(links == 1 ? "a link" : links + " links");
    }

    /** What filters and parameters say of parts that go, and what addresses call those. */
    private static void turned(Dashboard dashboard, Set<String> gone, JsonArrayBuilder patch) {
        for (String id : dashboard.names().keySet()) if (gone.contains(id)) patch.add(remove("/names/" + id));
        dashboard.filters().forEach((id, filter) -> {
            if (gone.contains(id)) return;
            List<String> under = filter.how().dependsOn();
            List<String> left =
                    under.stream().filter(other -> !gone.contains(other)).toList();
            if (left.size() < under.size()) patch.add(replaced("/filters/" + id + "/terms/under", left));
        });
        dashboard.parameters().forEach((id, parameter) -> {
            if (gone.contains(id) || parameter.at() == null) return;
            List<String> left = parameter.at().stream()
                    .filter(at -> !gone.contains(at.split("/")[2]))
                    .toList();
            if (left.size() < parameter.at().size()) patch.add(replaced("/parameters/" + id + "/at", left));
        });
    }

    /** How parts that go were dressed, grouped, and placed on phones. */
    private static void arranged(Dashboard dashboard, Set<String> gone, JsonArrayBuilder patch) {
        for (String id : dashboard.finishes().keySet()) if (gone.contains(id)) patch.add(remove("/finishes/" + id));
        dashboard.groups().forEach((id, group) -> {
            List<String> left =
                    group.visuals().stream().filter(v -> !gone.contains(v)).toList();
            if (group.by() != null && gone.contains(group.by())) patch.add(remove("/groups/" + id + "/by"));
            if (left.size() == group.visuals().size()) return;
            if (left.size() < 2) patch.add(remove("/groups/" + id));
            else patch.add(replaced("/groups/" + id + "/visuals", left));
        });
        dashboard.pages().forEach((id, page) -> {
            if (page.phone() == null || gone.contains(id)) return;
            // From the end, so that what is left keeps its number until it is its turn.
            for (int i = page.phone().size() - 1; i >= 0; i--)
                if (gone.contains(page.phone().get(i).visual())) patch.add(remove("/pages/" + id + "/phone/" + i));
        });
    }

    private static JsonObjectBuilder replaced(String path, List<String> ids) {
        return Json.createObjectBuilder()
                .add("op", "replace")
                .add("path", path)
                .add("value", Json.createArrayBuilder(ids));
    }

    private static <V extends Visual> Set<String> dependsOn(V visual) {
        return Kinds.ALL.of(visual).dependsOn(visual);
    }

    private static JsonObjectBuilder remove(String path) {
        return Json.createObjectBuilder().add("op", "remove").add("path", path);
    }
}
