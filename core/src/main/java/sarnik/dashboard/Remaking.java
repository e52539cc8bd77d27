package sarnik.dashboard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
     * Another of a visual, in the first free place, with links of its own.
     *
     * @param fresh the new visual's id
     * @throws MisfitException when there is no visual of this id
     */
    public static Copy copy(Dashboard dashboard, String id, String fresh) {
        Visual visual = visual(dashboard, id);
        return copy(dashboard, id, fresh, visual.page(), dashboard, true);
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
        Box at = Proposals.free(onto, visual.at().w(), visual.at().h());
        List<Map<String, Object>> ops = new ArrayList<>();
        ops.add(Choices.map("op", "add", "path", "/visuals/" + fresh, "value", Proposals.placed(visual, page, at)));
        dashboard.links().forEach((link, of) -> {
            if (!of.from().equals(id)) return;
            Map<String, Object> own = new LinkedHashMap<>(Choices.map("from", fresh));
            if (of.to() != null && sameParts) own.put("to", of.to());
            ops.add(Choices.map("op", "add", "path", "/links/k" + fresh, "value", own));
        });
        return new Copy(fresh, ops);
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
