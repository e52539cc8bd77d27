package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;

/** Writes how visuals and pages are dressed, and how large a page is. */
final class FinishBrief {

    private static final List<Integer> WIDTHS = List.of(1024, 1280, 1600, 1920);

    private final Dashboard dashboard;
    private final BriefLine line;
    private final String id;

    private FinishBrief(Dashboard dashboard, BriefLine line, String id) {
        this.dashboard = dashboard;
        this.line = line;
        this.id = id;
    }

    /** How a visual is dressed. */
    static void visual(Dashboard dashboard, String id, BriefLine looks) {
        FinishBrief brief = new FinishBrief(dashboard, looks, id);
        looks.say(". On ");
        brief.worn(dashboard.finishOf(id));
        looks.say(", ");
        boolean hidden = dashboard.finish(id).isHidden();
        looks.elsewhere(
                "who sees it",
                "/finishes/" + id + "/hidden",
                hidden ? "hidden from readers" : "shown to readers",
                false,
                false,
                List.of(new Option("shown to readers", "", false), new Option("hidden from readers", "", true)));
        looks.say(".");
    }

    /** How all visuals of a page are dressed, or those of all pages. */
    static void page(Dashboard dashboard, String id, BriefLine looks) {
        Finish shown = dashboard.finish(id);
        if (!id.equals(Dashboard.ALL_PAGES)) shown = shown.over(dashboard.finish(Dashboard.ALL_PAGES));
        new FinishBrief(dashboard, looks, id).worn(shown.over(Finish.USUAL));
    }

    private void worn(Finish shown) {
        Finish own = dashboard.finish(id);
        slot("ground", shown, own, Finish::ground, Finish.Ground.values());
        line.say(" within ");
        slot("border", shown, own, Finish::border, Finish.Border.values());
        line.say(" with ");
        slot("corners", shown, own, Finish::corners, Finish.Corners.values());
        line.say(" and ");
        slot("shadow", shown, own, Finish::shadow, Finish.Shadow.values());
        line.say(", ");
        slot("space", shown, own, Finish::space, Finish.Space.values());
        line.say(" inside, ");
        slot("heading", shown, own, Finish::heading, Finish.Heading.values());
        line.say(", in ");
        slot("lettering", shown, own, Finish::lettering, Finish.Lettering.values());
    }

    private <E extends Enum<E> & Finish.Worded> void slot(
            String name, Finish shown, Finish own, Function<Finish, E> part, E[] all) {
        line.elsewhere(
                name,
                "/finishes/" + id + "/" + name,
                part.apply(shown).words(),
                false,
                part.apply(own) != null,
                Arrays.stream(all)
                        .map(one -> new Option(one.words(), "", one.name()))
                        .toList());
    }

    /** How large a page is. */
    static void size(Dashboard.Page page, String id, BriefLine line) {
        Dashboard.Size size = page.size() == null ? new Dashboard.Size(Dashboard.Fit.WIDTH, null, null) : page.size();
        boolean trimmed = Boolean.TRUE.equals(size.trimmed());
        List<Option> fits = new ArrayList<>();
        fits.add(option(Dashboard.Fit.WIDTH, null, trimmed, "as long as what stands on it"));
        fits.add(option(Dashboard.Fit.WINDOW, null, trimmed, "nothing is scrolled"));
        for (int width : WIDTHS) fits.add(option(Dashboard.Fit.FIXED, width, trimmed, "the same everywhere"));
        String path = "/pages/" + id + "/size";
        line.say("It fills ");
        line.elsewhere("size", path, words(size.fit(), size.width()), false, page.size() != null, fits);
        line.say(", ");
        line.elsewhere(
                "bare cells around it",
                path,
                trimmed ? "trimmed to what stands on it" : "bare cells and all",
                false,
                false,
                List.of(
                        new Option("bare cells and all", "", value(size.fit(), size.width(), false)),
                        new Option("trimmed to what stands on it", "", value(size.fit(), size.width(), true))));
        line.say(".");
    }

    private static Option option(Dashboard.Fit fit, Integer width, boolean trimmed, String hint) {
        return new Option(words(fit, width), hint, value(fit, width, trimmed));
    }

    private static Object value(Dashboard.Fit fit, Integer width, boolean trimmed) {
        var value = Choices.map("fit", fit.name());
        if (width != null) value.put("width", width);
        if (trimmed) value.put("trimmed", true);
        return value;
    }

    private static String words(Dashboard.Fit fit, Integer width) {
        return switch (fit) {
            case WIDTH -> "the width of the window";
            case WINDOW -> "the whole window";
            case FIXED -> "a width of " + (width == null ? 1280 : width) + " pixels";
        };
    }
}
