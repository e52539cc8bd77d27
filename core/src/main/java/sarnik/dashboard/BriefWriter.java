package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.MisfitException;
import sarnik.data.SheetFormula;
import sarnik.narrow.Filter;
import sarnik.narrow.Parameter;
import sarnik.visual.Box;
import sarnik.visual.Slots;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/** Writes the briefs of visuals, filters and parameters, with the options that fit each slot. */
public final class BriefWriter {

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final Choices choices;

    /**
     * @param choices what there is to choose from besides columns; the dashboard's own parameters are added
     */
    public BriefWriter(Dashboard dashboard, Datasets datasets, Choices choices) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        Map<String, Choices.Number> numbers = new LinkedHashMap<>();
        dashboard.parameters().forEach((id, p) -> {
            if (p.kind() == Parameter.Type.NUMBER) numbers.put(id, new Choices.Number(p.name(), p.value()));
        });
        this.choices = choices.with(numbers, dashboard.parts());
    }

    /**
     * The brief of a visual, filter or parameter.
     *
     * @throws MisfitException when there is none of this id, or its dataset has gone
     */
    public Brief write(String id) {
        Filter filter = dashboard.filters().get(id);
        if (filter != null) return filter(id, filter);
        Parameter parameter = dashboard.parameters().get(id);
        if (parameter != null) return ParameterBrief.write(dashboard, id, parameter);
        SheetFormula formula = dashboard.formulas().get(id);
        if (formula != null) return FormulaBrief.write(dashboard, datasets, choices, id, formula);
        if (dashboard.pages().containsKey(id)) return page(id);
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) throw new MisfitException("This part has been taken away from the dashboard.");
        return visual(id, visual);
    }

    /**
     * The sentence of a visual that is not on the dashboard yet; pointers begin at the visual itself.
     *
     * @throws MisfitException when it does not fit its data
     */
    public <V extends Visual> Brief draft(V visual) {
        BriefLine line = new BriefLine("");
        Kinds.ALL.of(visual).brief(visual, line, new BriefLine(""), choices, datasets);
        return new Brief(line.parts(), List.of());
    }

    private <V extends Visual> Brief visual(String id, V visual) {
        VisualKind<V> kind = Kinds.ALL.of(visual);
        BriefLine line = new BriefLine("/visuals/" + id);
        BriefLine looks = new BriefLine("/visuals/" + id);
        title(looks, visual.title());
        if (dashboard.pages().size() > 1) standsOn(id, visual, looks);
        kind.brief(visual, line, looks, choices, datasets);
        FinishBrief.visual(dashboard, id, looks);
        if (kind.picks(visual).isPresent()) new LinkBrief(dashboard, datasets, choices, id).write(line);
        if (kind.picks(visual).isPresent()) TermsBrief.name(dashboard, id, kind.words(visual), looks);
        return new Brief(turned(line.parts()), turned(looks.parts()));
    }

    /** The same parts; a word that readers turn says by which parameter. */
    private List<Brief.Part> turned(List<Brief.Part> parts) {
        Map<String, String> by = new LinkedHashMap<>();
        dashboard.parameters().values().forEach(parameter -> {
            if (parameter.at() != null) parameter.at().forEach(at -> by.put(at, parameter.name()));
        });
        if (by.isEmpty()) return parts;
        return parts.stream()
                .map(part -> part instanceof Brief.Control of && by.containsKey(of.path())
                        ? new Brief.Control(
                                of.name(),
                                of.text() + " (readers turn it: “" + by.get(of.path()) + "”)",
                                of.path(),
                                of.kind(),
                                of.empty(),
                                of.removable(),
                                of.options())
                        : part)
                .toList();
    }

    /** The page on which a visual stands; on another it takes the first free place that is large enough. */
    private void standsOn(String id, Visual visual, BriefLine looks) {
        List<Option> options = new ArrayList<>();
        for (String page : dashboard.pageIds()) {
            Box at = page.equals(visual.page())
                    ? visual.at()
                    : Proposals.free(
                            dashboard, page, visual.at().w(), visual.at().h());
            options.add(new Option(
                    "on the page “" + dashboard.pageName(page) + "”", "", Proposals.placed(visual, page, at)));
        }
        looks.say(", ");
        looks.elsewhere(
                "page",
                "/visuals/" + id,
                "on the page “" + dashboard.pageName(visual.page()) + "”",
                false,
                false,
                options);
        looks.say(", ");
    }

    private Brief filter(String id, Filter filter) {
        BriefLine line = new BriefLine("/filters/" + id);
        BriefLine looks = new BriefLine("/filters/" + id);
        Kinds.ALL.of(filter).brief(filter, line, datasets.get(filter.dataset()), choices);
        title(looks, filter.title());
        TermsBrief.write(dashboard, id, filter, datasets, looks);
        return new Brief(line.parts(), looks.parts());
    }

    private Brief page(String id) {
        Dashboard.Page page = dashboard.pages().get(id);
        BriefLine line = new BriefLine("/pages/" + id);
        boolean empty = page.title() == null || page.title().isBlank();
        line.say(dashboard.pages().size() == 1 ? "The only page, " : "The %s page, ".formatted(ordinal(id)));
        line.slot(
                Slot.within("/title", "title"),
                empty ? "+ title" : "called “" + page.title() + "”",
                Kind.TYPED,
                empty,
                false,
                List.of(new Option(empty ? "" : page.title(), "", empty ? "" : page.title())));
        line.say(", ");
        line.slot(
                Slot.within("/hidden", "who finds it"),
                page.isHidden() ? "hidden, found by a button or an address" : "shown to readers",
                Kind.CHOSEN,
                false,
                false,
                List.of(
                        new Option("shown to readers", "in the row of pages", false),
                        new Option("hidden, found by a button or an address", "not in the row of pages", true)));
        under(id, page, line);
        line.say(". ");
        FinishBrief.size(page, id, line);
        BriefLine looks = new BriefLine("/pages/" + id);
        theme(looks);
        looks.say(" On this page visuals stand on ");
        FinishBrief.page(dashboard, id, looks);
        if (dashboard.pages().size() > 1) {
            looks.say("; on all pages, where nothing else is said, on ");
            FinishBrief.page(dashboard, Dashboard.ALL_PAGES, looks);
        }
        looks.say(".");
        return new Brief(line.parts(), looks.parts());
    }

    /** The page under which another's title stands: one that does not stand under another itself. */
    private void under(String id, Dashboard.Page page, BriefLine line) {
        boolean holds = dashboard.pageIds().stream().anyMatch(other -> id.equals(dashboard.above(other)));
        List<Option> above = dashboard.pageIds().stream()
                .filter(other -> !other.equals(id) && dashboard.above(other) == null)
                .map(other -> new Option("under “" + dashboard.pageName(other) + "”", "", other))
                .toList();
        if (holds || above.isEmpty()) return;
        line.say(page.under() == null ? " " : ", ");
        line.may(
                Slot.within("/under", "page above"),
                page.under() == null ? "+ under another page" : "under “" + dashboard.pageName(page.under()) + "”",
                page.under() == null,
                above);
    }

    private void theme(BriefLine looks) {
        Theme theme = dashboard.theme() == null ? Theme.FIELD : dashboard.theme();
        looks.say(
                dashboard.pages().size() == 1
                        ? "The page wears the colours of a "
                        : "All pages wear the colours of a ");
        looks.elsewhere(
                "theme",
                "/theme",
                theme.words(),
                false,
                false,
                Arrays.stream(Theme.values())
                        .map(one -> new Option(one.words(), one.hint(), one.name()))
                        .toList());
        looks.say(dashboard.own() == null ? " " : ", but for ");
        OwnTheme own = dashboard.own() == null ? OwnTheme.BEGINNING : dashboard.own();
        looks.elsewhere(
                "own colours",
                "/own",
                Kind.COLOURS,
                dashboard.own() == null ? "+ colours of your own" : "colours of your own",
                dashboard.own() == null,
                dashboard.own() != null,
                List.of(new Option("", "", own)));
        looks.say(", by day and by night.");
    }

    private String ordinal(String page) {
        int place = dashboard.pageIds().indexOf(page) + 1;
        List<String> words = List.of("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth");
        if (place <= words.size()) return words.get(place - 1);
        String end = place % 100 >= 11 && place % 100 <= 13
                ? "th"
                : List.of("th", "st", "nd", "rd", "th", "th", "th", "th", "th", "th")
                        .get(place % 10);
        return place + end;
    }

    private static void title(BriefLine looks, String title) {
        boolean empty = title == null || title.isBlank();
        looks.slot(
                Slots.TITLE,
                empty ? "+ title" : "titled “" + title + "”",
                Kind.TYPED,
                empty,
                false,
                List.of(new Option(empty ? "" : title, "", empty ? "" : title)));
    }
}
