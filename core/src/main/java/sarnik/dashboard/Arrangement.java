package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.ToIntFunction;
import sarnik.brief.Choices;
import sarnik.data.MisfitException;
import sarnik.visual.Box;

/**
 * Edits that arrange several visuals of one page. None of them ever covers another: whatever would be covered moves
 * down until it is not.
 */
public final class Arrangement {

    /** What can be done with several visuals. */
    public enum Act {
        /** Their left edges in one line, that of the leftmost. */
        LEFT,
        RIGHT,
        TOP,
        BOTTOM,
        /** As many bare cells between each and the next, from left to right. */
        ACROSS,
        /** The same from top to bottom. */
        DOWN,
        /** As large as the one that was chosen first. */
        SAME_SIZE,
        /** By some cells, all of them alike. */
        MOVE,
        /** Belong together from now on. */
        GROUP,
        /** In one place, of which one is shown at a time. */
        SWAP,
        /** Each for itself again. */
        UNGROUP,
        /** Kept from readers. */
        HIDE,
        SHOW
    }

    private Arrangement() {}

    /**
     * @param ids of the visuals, the one chosen first before the others; each brings those it is grouped with
     * @param across by how many cells to the right, for {@link Act#MOVE}
     * @param down by how many cells down
     * @param fresh gives a fresh suffix for an id
     * @return JSON Patch operations; none where all is so already
     * @throws MisfitException when one of them has gone, they stand on several pages, or it cannot be done with them
     */
    public static List<Map<String, Object>> of(
            Dashboard dashboard, List<String> ids, Act act, int across, int down, Supplier<String> fresh) {
        Set<String> chosen = new LinkedHashSet<>();
        for (String id : ids) {
            if (!dashboard.visuals().containsKey(id))
                throw new MisfitException("One of these has been taken away from the dashboard. Choose them anew.");
            chosen.add(id);
        }
        if (act != Act.UNGROUP) for (String id : ids) chosen.addAll(dashboard.together(id));
        if (chosen.stream()
                        .map(id -> dashboard.visuals().get(id).page())
                        .distinct()
                        .count()
                != 1) throw new MisfitException("These stand on several pages. Choose what stands on one.");
        return switch (act) {
            case GROUP -> grouped(dashboard, chosen, "g" + fresh.get());
            case SWAP -> swapped(dashboard, chosen, "g" + fresh.get());
            case UNGROUP -> ungrouped(dashboard, chosen);
            case HIDE, SHOW -> hidden(dashboard, chosen, act == Act.HIDE);
            default -> moved(dashboard, placed(dashboard, chosen, act, across, down));
        };
    }

    // --- places ------------------------------------------------------------------------------------

    private static Map<String, Box> placed(Dashboard dashboard, Set<String> chosen, Act act, int across, int down) {
        Map<String, Box> boxes = new LinkedHashMap<>();
        chosen.forEach(id -> boxes.put(id, dashboard.visuals().get(id).at()));
        int left = least(boxes, Box::x);
        int right = -least(boxes, box -> -box.x() - box.w());
        int top = least(boxes, Box::y);
        int bottom = -least(boxes, box -> -box.y() - box.h());
        Box first = boxes.values().iterator().next();
        switch (act) {
            case LEFT -> boxes.replaceAll((id, box) -> at(box, left, box.y()));
            case RIGHT -> boxes.replaceAll((id, box) -> at(box, right - box.w(), box.y()));
            case TOP -> boxes.replaceAll((id, box) -> at(box, box.x(), top));
            case BOTTOM -> boxes.replaceAll((id, box) -> at(box, box.x(), bottom - box.h()));
            case SAME_SIZE ->
                boxes.replaceAll((id, box) ->
                        new Box(Math.min(box.x(), Dashboard.COLUMNS - first.w()), box.y(), first.w(), first.h()));
            case ACROSS -> spread(boxes, true);
            case DOWN -> spread(boxes, false);
            default -> {
                int dx = Math.max(-left, Math.min(Dashboard.COLUMNS - right, across));
                int dy = Math.max(-top, down);
                boxes.replaceAll((id, box) -> at(box, box.x() + dx, box.y() + dy));
            }
        }
        return boxes;
    }

    private static Box at(Box box, int x, int y) {
        return new Box(x, y, box.w(), box.h());
    }

    private static int least(Map<String, Box> boxes, ToIntFunction<Box> edge) {
        return boxes.values().stream().mapToInt(edge).min().orElseThrow();
    }

    /** The first and the last stay where they are, unless there is no room between them. */
    private static void spread(Map<String, Box> boxes, boolean across) {
        ToIntFunction<Box> start = across ? Box::x : Box::y;
        ToIntFunction<Box> length = across ? Box::w : Box::h;
        if (boxes.size() < 3)
            throw new MisfitException("Two have one gap between them, which is even already. Choose three or more.");
        List<String> order = boxes.keySet().stream()
                .sorted(Comparator.comparingInt(id -> start.applyAsInt(boxes.get(id))))
                .toList();
        int begin = least(boxes, start);
        int end = -least(boxes, box -> -start.applyAsInt(box) - length.applyAsInt(box));
        int filled = boxes.values().stream().mapToInt(length).sum();
        if (across && filled > Dashboard.COLUMNS)
            throw new MisfitException(
                    "Side by side these are %d columns wide, and the sheet has %d. Make them narrower, or spread them down."
                            .formatted(filled, Dashboard.COLUMNS));
        if (filled > end - begin) {
            begin = across ? Math.min(begin, Dashboard.COLUMNS - filled) : begin;
            end = begin + filled;
        }
        double gap = (end - begin - filled) / (boxes.size() - 1.0);
        double before = begin;
        for (String id : order) {
            Box box = boxes.get(id);
            int to = (int) Math.round(before);
            boxes.put(id, across ? at(box, to, box.y()) : at(box, box.x(), to));
            before += length.applyAsInt(box) + gap;
        }
    }

    /** The edits that put these where they shall stand, and what they would cover below them. */
    private static List<Map<String, Object>> moved(Dashboard dashboard, Map<String, Box> wanted) {
        String page = dashboard.visuals().get(wanted.keySet().iterator().next()).page();
        Map<String, Box> settled = settled(dashboard, page, wanted);
        List<Map<String, Object>> ops = new ArrayList<>();
        settled.forEach((id, box) -> {
            if (!box.equals(dashboard.visuals().get(id).at()))
                ops.add(Choices.map(
                        "op", "replace", "path", "/visuals/" + id + "/at", "value", DocumentJson.plain(box)));
        });
        return ops;
    }

    /**
     * Every visual of a page with some of them elsewhere: these first, each of the others as high as it stood if free.
     */
    static Map<String, Box> settled(Dashboard dashboard, String page, Map<String, Box> wanted) {
        Map<String, Box> settled = new LinkedHashMap<>();
        wanted.entrySet().stream()
                .sorted(Map.Entry.comparingByValue(
                        Comparator.comparingInt(Box::y).thenComparingInt(Box::x)))
                .forEach(one -> settle(dashboard, one.getKey(), one.getValue(), settled));
        for (String id : dashboard.readingOrder(page))
            settle(dashboard, id, dashboard.visuals().get(id).at(), settled);
        return settled;
    }

    /** Puts a visual in the first free place, and with it those that share its place. */
    private static void settle(Dashboard dashboard, String id, Box box, Map<String, Box> settled) {
        if (settled.containsKey(id)) return;
        Box free = free(box, settled);
        for (String one : dashboard.inOnePlace(id)) settled.put(one, free);
    }

    private static Box free(Box box, Map<String, Box> taken) {
        for (int y = box.y(); ; y++) {
            Box here = at(box, box.x(), y);
            if (taken.values().stream().noneMatch(other -> Proposals.overlap(other, here))) return here;
        }
    }

    // --- groups ------------------------------------------------------------------------------------

    private static List<Map<String, Object>> grouped(Dashboard dashboard, Set<String> chosen, String fresh) {
        if (chosen.size() < 2) throw new MisfitException("A group needs two visuals or more. Choose another as well.");
        List<Map<String, Object>> ops = apart(dashboard, chosen);
        ops.add(Proposals.add("/groups/" + fresh, Choices.map("visuals", List.copyOf(chosen))));
        return ops;
    }

    /** The group of those that stand in the place of the one that was chosen first. */
    private static List<Map<String, Object>> swapped(Dashboard dashboard, Set<String> chosen, String fresh) {
        if (chosen.size() < 2) throw new MisfitException("To swap takes two visuals or more. Choose another as well.");
        List<Map<String, Object>> ops = apart(dashboard, chosen);
        Object place = DocumentJson.plain(
                dashboard.visuals().get(chosen.iterator().next()).at());
        for (String id : chosen)
            ops.add(Choices.map("op", "replace", "path", "/visuals/" + id + "/at", "value", place));
        ops.add(Proposals.add("/groups/" + fresh, Choices.map("visuals", List.copyOf(chosen), "swap", true)));
        return ops;
    }

    /** Each for itself; those that shared a place stand below each other. */
    private static List<Map<String, Object>> ungrouped(Dashboard dashboard, Set<String> chosen) {
        Set<String> all = new LinkedHashSet<>();
        for (String id : chosen) all.addAll(dashboard.together(id));
        List<Map<String, Object>> ops = apart(dashboard, all);
        boolean shared = dashboard.groups().values().stream()
                .anyMatch(group -> group.swaps() && group.visuals().stream().anyMatch(all::contains));
        if (shared) {
            Map<String, Box> boxes = new LinkedHashMap<>();
            all.forEach(id -> boxes.put(id, dashboard.visuals().get(id).at()));
            ops.addAll(moved(dashboard.ungrouped(), boxes));
        }
        return ops;
    }

    private static List<Map<String, Object>> apart(Dashboard dashboard, Set<String> chosen) {
        List<Map<String, Object>> ops = new ArrayList<>();
        dashboard.groups().forEach((id, group) -> {
            if (group.visuals().stream().anyMatch(chosen::contains))
                ops.add(Choices.map("op", "remove", "path", "/groups/" + id));
        });
        return ops;
    }

    private static List<Map<String, Object>> hidden(Dashboard dashboard, Set<String> chosen, boolean hidden) {
        List<Map<String, Object>> ops = new ArrayList<>();
        for (String id : chosen) {
            if (dashboard.finish(id).isHidden() == hidden) continue;
            ops.add(Proposals.add("/finishes/" + id + "/hidden", hidden));
        }
        return ops;
    }
}
