package sarnik.dashboard;

import jakarta.json.JsonArray;
import jakarta.json.JsonObject;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import sarnik.brief.Slot;
import sarnik.data.SheetFormula;
import sarnik.narrow.Filter;
import sarnik.narrow.Parameter;
import sarnik.visual.Slots;
import sarnik.visual.Visual;

/** Says in words what an edit does, for the history and for undo. */
final class EditWords {

    private EditWords() {}

    static String of(JsonArray operations, Dashboard before, Dashboard after) {
        String page = ofPage(operations, before, after, true);
        if (page != null) return page;
        String several = ofSeveral(operations, after);
        if (several != null) return several;
        page = ofPage(operations, before, after, false);
        if (page != null) return page;
        for (var value : operations) {
            JsonObject operation = value.asJsonObject();
            String kind = operation.getString("op");
            if (kind.equals("test")) continue;
            String[] path = operation.getString("path").split("/");
            if (path.length < 2) continue;
            if (path[1].equals("title")) return "the dashboard's title";
            if (path[1].equals("theme") || path[1].equals("own")) return "the theme";
            if (path[1].equals("language")) return "the language in which it is handed over";
            if (path[1].equals("texts")) return "its texts in other languages";
            String id = path.length > 2 ? path[2] : "";
            String whole = path.length == 3 ? (kind.equals("remove") ? "taking away " : "adding ") : "";
            switch (path[1]) {
                case "visuals" -> {
                    Visual visual =
                            before.visuals().getOrDefault(id, after.visuals().get(id));
                    if (visual == null) return whole + "a visual";
                    if (path.length == 3
                            && kind.equals("replace")
                            && before.visuals().containsKey(id))
                        return made(visual, after.visuals().get(id));
                    if (path.length == 3) return whole + name(visual);
                    List<Slot> slots = Kinds.ALL.of(visual).slots();
                    return "the " + part(Stream.concat(Stream.of(Slots.AT, Slots.TITLE), slots.stream()), path) + " of "
                            + name(visual);
                }
                case "filters" -> {
                    Filter filter =
                            before.filters().getOrDefault(id, after.filters().get(id));
                    if (filter == null) return whole + "a filter";
                    return path.length == 3
                            ? whole + "the filter " + filter.words()
                            : "the " + part(Kinds.ALL.of(filter).slots().stream(), path) + " of the filter "
                                    + filter.words();
                }
                case "parameters" -> {
                    Parameter parameter = before.parameters()
                            .getOrDefault(id, after.parameters().get(id));
                    // The first one is added with the place of all, which says nothing.
                    if (parameter != null)
                        return (whole.isEmpty() ? "a part of " : whole) + "the number " + parameter.name();
                }
                case "formulas" -> {
                    SheetFormula formula =
                            before.formulas().getOrDefault(id, after.formulas().get(id));
                    if (formula != null)
                        return (whole.isEmpty() ? "a part of " : whole) + "the formula " + formula.name();
                }
                case "names" -> {
                    return "what addresses call a part";
                }
                case "links" -> {
                    return whole.isEmpty() ? "a link" : whole + "a link";
                }
                default -> {}
            }
        }
        return "a change";
    }

    /**
     * What is done to a page; null where none is concerned.
     *
     * @param whole whether it is to come or go with all that stands on it, instead of changing
     */
    private static String ofPage(JsonArray operations, Dashboard before, Dashboard after, boolean whole) {
        for (var value : operations) {
            String kind = value.asJsonObject().getString("op");
            String[] path = value.asJsonObject().getString("path").split("/");
            if (kind.equals("test") || path.length < 3 || !path[1].equals("pages")) continue;
            if (whole != (path.length == 3)) continue;
            Dashboard of = after.pages().containsKey(path[2]) ? after : before;
            String name = of.pages().containsKey(path[2]) ? "the page “" + of.pageName(path[2]) + "”" : "a page";
            if (path.length == 3) return (kind.equals("remove") ? "taking away " : "adding ") + name;
            return switch (path[3]) {
                case "title" -> "the title of " + name;
                case "order" -> "the order of the pages";
                case "size" -> "the size of " + name;
                case "phone" -> "how " + name + " stands on a phone";
                case "under" -> "under which page " + name + " stands";
                default -> "whether " + name + " is shown";
            };
        }
        return null;
    }

    /** What is done to several visuals at once, or to what holds them together; null where it is something else. */
    private static String ofSeveral(JsonArray operations, Dashboard after) {
        Set<String> moved = new LinkedHashSet<>();
        Set<String> dressed = new LinkedHashSet<>();
        Set<String> added = new LinkedHashSet<>();
        Set<String> removed = new LinkedHashSet<>();
        boolean grouped = false;
        boolean ungrouped = false;
        for (var value : operations) {
            String kind = value.asJsonObject().getString("op");
            String[] path = value.asJsonObject().getString("path").split("/");
            if (kind.equals("test") || path.length < 3) continue;
            if (path[1].equals("groups")) {
                grouped |= kind.equals("add");
                ungrouped |= kind.equals("remove");
            } else if (path[1].equals("finishes")) {
                dressed.add(path[2]);
            } else if (path[1].equals("visuals")) {
                if (path.length > 3 && path[3].equals("at")) moved.add(path[2]);
                else if (path.length == 3 && kind.equals("add")) added.add(path[2]);
                else if (path.length == 3 && kind.equals("remove")) removed.add(path[2]);
                else return null;
            }
        }
        if (removed.size() > 1) return "taking away " + removed.size() + " visuals";
        if (!removed.isEmpty()) return null;
        if (added.size() > 1) return "adding " + added.size() + " visuals";
        if (!added.isEmpty()) return null;
        if (moved.size() > 1) return "the places of " + moved.size() + " visuals";
        if (grouped) return "grouping visuals";
        if (ungrouped) return "taking a group apart";
        if (dressed.size() > 1) return "the finish of " + dressed.size() + " visuals";
        if (dressed.isEmpty()) return null;
        String id = dressed.iterator().next();
        if (after.visuals().containsKey(id))
            return "the finish of " + name(after.visuals().get(id));
        return after.pages().containsKey(id)
                ? "the finish of the page “" + after.pageName(id) + "”"
                : "the finish of all pages";
    }

    /** A visual in the place of another of the same id. */
    private static String made(Visual before, Visual after) {
        if (after == null || before.getClass().equals(after.getClass()))
            return after == null || before.page().equals(after.page())
                    ? "a part of " + name(before)
                    : "moving " + name(before) + " to another page";
        return "showing " + name(before) + " as " + Kinds.ALL.of(after).called();
    }

    /** The words of the slot that stands nearest to a path and has some. */
    private static String part(Stream<Slot> slots, String[] path) {
        List<Slot> known = slots.filter(s -> s.edit() != null).toList();
        for (int length = path.length; length > 3; length--) {
            String[] pointer = Arrays.copyOfRange(path, 3, length);
            for (Slot slot : known) if (fits(slot.pointer().split("/"), pointer)) return slot.edit();
        }
        return "part";
    }

    private static boolean fits(String[] declared, String[] pointer) {
        if (declared.length != pointer.length + 1) return false;
        for (int i = 0; i < pointer.length; i++)
            if (!declared[i + 1].equals("*") && !declared[i + 1].equals(pointer[i])) return false;
        return true;
    }

    private static String name(Visual visual) {
        String kind = Kinds.ALL.of(visual).called();
        return visual.title() == null || visual.title().isBlank() ? kind : kind + " “" + visual.title() + "”";
    }
}
