package sarnik.dashboard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.brief.Choices;
import sarnik.data.Datasets;
import sarnik.data.MisfitException;
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
        Box at = Proposals.free(dashboard, visual.at().w(), visual.at().h());
        List<Map<String, Object>> ops = new ArrayList<>();
        ops.add(Choices.map(
                "op", "add", "path", "/visuals/" + fresh, "value", Proposals.placed(visual, visual.page(), at)));
        dashboard.links().forEach((link, of) -> {
            if (!of.from().equals(id)) return;
            Map<String, Object> own = new LinkedHashMap<>(Choices.map("from", fresh));
            if (of.to() != null) own.put("to", of.to());
            ops.add(Choices.map("op", "add", "path", "/links/k" + fresh, "value", own));
        });
        return new Copy(fresh, ops);
    }

    private static Visual visual(Dashboard dashboard, String id) {
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) throw new MisfitException("This visual has been taken away from the dashboard.");
        return visual;
    }
}
