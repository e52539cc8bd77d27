package sarnik.dashboard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import sarnik.brief.Choices;
import sarnik.data.Datasets;
import sarnik.data.MisfitException;
import sarnik.narrow.Narrowing;
import sarnik.visual.Box;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/** Edits that make something of a visual: another kind that shows the same, or another of the same kind. */
public final class Remaking {

    /**
     * A visual as another kind.
     *
     * @param kind what it would be
     * @param sign a small picture of it in a square of ten, as an SVG path
     * @param ops JSON Patch operations that make it that
     * @param left what is not taken over, in words; empty where all is
     */
    public record Other(String kind, String sign, List<Map<String, Object>> ops, List<String> left) {}

    /**
     * Another of the same.
     *
     * @param id the id it will have
     * @param ops JSON Patch operations that add it
     */
    public record Copy(String id, List<Map<String, Object>> ops) {}

    private Remaking() {}

    /**
     * The other kinds that can show what a visual shows.
     *
     * @throws MisfitException when there is no visual of this id
     */
    public static List<Other> others(Dashboard dashboard, String id, Datasets datasets) {
        Visual visual = visual(dashboard, id);
        return others(dashboard, id, visual, datasets);
    }

    private static <V extends Visual> List<Other> others(Dashboard dashboard, String id, V visual, Datasets datasets) {
        VisualKind<V> own = Kinds.ALL.of(visual);
        List<Other> others = new ArrayList<>();
        for (VisualKind<?> kind : Kinds.ALL.visuals()) {
            if (kind == own) continue;
            kind.become(own.ingredients(visual), visual.page(), visual.at(), visual.title(), datasets)
                    .ifPresent(become -> others.add(
                            new Other(kind.name(), kind.sign(), ops(dashboard, id, become.visual()), become.left())));
        }
        return others;
    }

    private static <V extends Visual> List<Map<String, Object>> ops(Dashboard dashboard, String id, V made) {
        List<Map<String, Object>> ops = new ArrayList<>();
        ops.add(Choices.map(
                "op", "replace", "path", "/visuals/" + id, "value", Proposals.placed(made, made.page(), made.at())));
        // What cannot be picked on leads nowhere.
        if (Kinds.ALL.of(made).picks(made).isEmpty())
            dashboard.links().forEach((link, of) -> {
                if (of.from().equals(id)) ops.add(Choices.map("op", "remove", "path", "/links/" + link));
            });
        return ops;
    }

    /**
     * Another of a visual, in the first free place, with links of its own; or of a page.
     *
     * @param ids gives a fresh suffix for an id: lower-case letters and digits
     * @throws MisfitException when there is neither of this id
     */
    public static Copy copy(Dashboard dashboard, String id, Supplier<String> ids) {
        if (dashboard.pages().containsKey(id)) return copyOfPage(dashboard, id, ids);
        Visual visual = visual(dashboard, id);
        return copy(dashboard, id, "v" + ids.get(), visual.page(), dashboard, true);
    }

    /**
     * The same visual on the first page of another dashboard. Links that led to parts of its own lead to all there.
     *
     * @throws MisfitException when it is about another part of its own dashboard
     */
    static Copy copy(Dashboard dashboard, String id, String fresh, Dashboard other) {
        Visual visual = visual(dashboard, id);
        if (!dependsOn(visual).isEmpty())
            throw new MisfitException("This is about another part of its dashboard, so it stays beside that.");
        return copy(dashboard, id, fresh, other.firstPage(), other, false);
    }

    private static Copy copy(
            Dashboard dashboard, String id, String fresh, String page, Dashboard onto, boolean sameParts) {
        Visual visual = visual(dashboard, id);
        Box at = Proposals.free(onto, page, visual.at().w(), visual.at().h());
        List<Map<String, Object>> ops = new ArrayList<>();
        ops.add(Choices.map("op", "add", "path", "/visuals/" + fresh, "value", Proposals.placed(visual, page, at)));
        dashboard.links().forEach((link, of) -> {
            if (!of.from().equals(id)) return;
            Map<String, Object> own = DocumentJson.plain(of);
            own.put("from", fresh);
            // What belongs to its own dashboard alone is not there on another.
            if (!sameParts) {
                if (of.part() != null) return;
                own.remove("to");
            }
            ops.add(Choices.map("op", "add", "path", "/links/k" + fresh + links(ops), "value", own));
        });
        if (dashboard.finishes().containsKey(id))
            ops.add(Proposals.add("/finishes/" + fresh, DocumentJson.plain(dashboard.finish(id))));
        return new Copy(fresh, ops);
    }

    /** What tells the id of a further link from those that an edit adds already; nothing for the first. */
    private static String links(List<Map<String, Object>> ops) {
        long others = ops.stream()
                .filter(op -> op.get("path").toString().startsWith("/links/"))
                .count();
        return others == 0 ? "" : "x" + others;
    }

    /**
     * Another of a page, with everything on it, behind all others. What on it is about another part of it is about that
     * part's copy; a link that led beyond the page leads there still.
     *
     * @param page id of the page
     * @param ids gives a fresh suffix for an id: lower-case letters and digits
     */
    static Copy copyOfPage(Dashboard dashboard, String page, Supplier<String> ids) {
        Dashboard.Page of = dashboard.pages().get(page);
        Map<String, String> fresh = new LinkedHashMap<>();
        fresh.put(page, "p" + ids.get());
        dashboard.visuals().forEach((id, visual) -> {
            if (visual.page().equals(page)) fresh.put(id, "v" + ids.get());
        });
        dashboard.filtersOn(page).forEach(id -> fresh.put(id, "f" + ids.get()));
        int last = dashboard.pages().values().stream()
                .mapToInt(Dashboard.Page::order)
                .max()
                .orElse(0);
        List<Map<String, Object>> ops = new ArrayList<>();
        Map<String, Object> made = renamed(DocumentJson.plain(of), fresh.keySet(), fresh);
        made.put("title", dashboard.pageName(page) + ", again");
        made.put("order", last + 1);
        ops.add(Proposals.add("/pages/" + fresh.get(page), made));
        dashboard
                .filtersOf(page)
                .forEach(id -> ops.add(Proposals.add(
                        "/filters/" + fresh.get(id),
                        renamed(DocumentJson.plain(dashboard.filters().get(id)), Set.of(page), fresh))));
        copyVisuals(dashboard, fresh, Map.of(), ops);
        return new Copy(fresh.get(page), ops);
    }

    /**
     * Another of each of several visuals of one page, arranged alike in the first place that is free. What is about one
     * of them is about its copy then, and links among them lead to copies.
     *
     * @param ids gives a fresh suffix for an id: lower-case letters and digits
     * @return the ids of the copies, as one text with commas between them
     * @throws MisfitException when one of them has gone
     */
    public static Copy copies(Dashboard dashboard, List<String> visuals, Supplier<String> ids) {
        Map<String, String> fresh = new LinkedHashMap<>();
        for (String id : visuals) {
            visual(dashboard, id);
            fresh.put(id, "v" + ids.get());
        }
        List<Box> boxes = fresh.keySet().stream()
                .map(id -> dashboard.visuals().get(id).at())
                .toList();
        int left = boxes.stream().mapToInt(Box::x).min().orElseThrow();
        int top = boxes.stream().mapToInt(Box::y).min().orElseThrow();
        int wide = boxes.stream().mapToInt(b -> b.x() + b.w()).max().orElseThrow() - left;
        int high = boxes.stream().mapToInt(b -> b.y() + b.h()).max().orElseThrow() - top;
        Box place = Proposals.free(dashboard, visual(dashboard, visuals.get(0)).page(), wide, high);
        Map<String, Box> at = new LinkedHashMap<>();
        fresh.keySet().forEach(id -> {
            Box box = dashboard.visuals().get(id).at();
            at.put(id, new Box(box.x() - left + place.x(), box.y() - top + place.y(), box.w(), box.h()));
        });
        List<Map<String, Object>> ops = new ArrayList<>();
        copyVisuals(dashboard, fresh, at, ops);
        return new Copy(String.join(",", fresh.values()), ops);
    }

    /**
     * Adds the copies of visuals, with their links, groups and finish.
     *
     * @param fresh the copies' ids, by the ids of what is copied; other parts that are copied along are among them
     * @param at boxes of the copies that do not stand where the first stands
     */
    private static void copyVisuals(
            Dashboard dashboard, Map<String, String> fresh, Map<String, Box> at, List<Map<String, Object>> ops) {
        dashboard.visuals().forEach((id, visual) -> {
            if (!fresh.containsKey(id)) return;
            Set<String> named = new LinkedHashSet<>(dependsOn(visual));
            named.add(visual.page());
            Map<String, Object> plain = DocumentJson.plain(visual);
            plain.put("at", DocumentJson.plain(at.getOrDefault(id, visual.at())));
            ops.add(Proposals.add("/visuals/" + fresh.get(id), renamed(plain, named, fresh)));
        });
        dashboard.links().forEach((id, link) -> {
            if (!fresh.containsKey(link.from())) return;
            Map<String, Object> own = DocumentJson.plain(link);
            own.put("from", fresh.get(link.from()));
            if (link.to() != null)
                own.put(
                        "to",
                        link.to().stream().map(to -> fresh.getOrDefault(to, to)).toList());
            if (link.part() != null) own.put("part", fresh.getOrDefault(link.part(), link.part()));
            ops.add(Proposals.add("/links/k" + fresh.get(link.from()) + links(ops), own));
        });
        dashboard.finishes().forEach((id, finish) -> {
            if (fresh.containsKey(id)) ops.add(Proposals.add("/finishes/" + fresh.get(id), DocumentJson.plain(finish)));
        });
        dashboard.groups().forEach((id, group) -> {
            List<String> copied = group.visuals().stream()
                    .filter(fresh::containsKey)
                    .map(fresh::get)
                    .toList();
            if (copied.size() < 2) return;
            Map<String, Object> own = DocumentJson.plain(group);
            own.put("visuals", copied);
            ops.add(Proposals.add("/groups/g" + copied.get(0), own));
        });
    }

    /** A part of a document in which ids that it names stand for their copies. */
    private static Map<String, Object> renamed(Map<String, Object> part, Set<String> named, Map<String, String> fresh) {
        Map<String, Object> made = new LinkedHashMap<>();
        part.forEach((name, value) -> made.put(name, renamed(value, named, fresh)));
        return made;
    }

    @SuppressWarnings("unchecked")
    private static Object renamed(Object value, Set<String> named, Map<String, String> fresh) {
        if (value instanceof Map<?, ?> map) return renamed((Map<String, Object>) map, named, fresh);
        if (value instanceof List<?> list)
            return list.stream().map(one -> renamed(one, named, fresh)).toList();
        return value instanceof String text && named.contains(text) ? fresh.getOrDefault(text, text) : value;
    }

    /** Whether a visual changes with a number that readers set. */
    static boolean follows(Dashboard dashboard, String id, String number) {
        return Narrowing.touched(dashboard, Kinds.ALL, number).contains(id);
    }

    private static <V extends Visual> Set<String> dependsOn(V visual) {
        return Kinds.ALL.of(visual).dependsOn(visual);
    }

    private static Visual visual(Dashboard dashboard, String id) {
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) throw new MisfitException("This visual has been taken away from the dashboard.");
        return visual;
    }
}
