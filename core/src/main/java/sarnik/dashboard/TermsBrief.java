package sarnik.dashboard;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.Words;
import sarnik.narrow.Filter;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterScene;
import sarnik.narrow.Terms;
import sarnik.state.ReaderState;
import sarnik.state.Value;

/** Writes on which terms a filter is turned, and what addresses call a part. */
final class TermsBrief {

    private static final int LONGEST = 40;

    private TermsBrief() {}

    /** How far a filter reaches and what holds before it is turned. */
    static void write(Dashboard dashboard, String id, Filter filter, Datasets datasets, BriefLine line) {
        Terms terms = filter.how();
        BriefLine at = line.about("/terms");
        line.say(" It narrows ");
        at.choose(
                Slot.within("/everywhere", "pages"),
                terms.reachesAllPages() ? "all pages" : "its own page",
                List.of(new Option("its own page", "", false), new Option("all pages", "", true)));
        line.say(" and ");
        at.choose(
                Slot.within("/across", "other datasets"),
                terms.goesAcross()
                        ? "the rows of other datasets that have a partner among what is left"
                        : "of other datasets only what its own column is tied to",
                List.of(
                        new Option(
                                "the rows of other datasets that have a partner among what is left",
                                "through ties, over several datasets where it takes them",
                                true),
                        new Option("of other datasets only what its own column is tied to", "", false)));
        first(filter, datasets, line, at, terms);
        line.say("; ");
        at.choose(
                Slot.within("/required", "whether it has to be chosen"),
                terms.mustBeTurned() ? "nothing is shown before something is chosen" : "nothing has to be chosen",
                List.of(
                        new Option("nothing has to be chosen", "", false),
                        new Option("nothing is shown before something is chosen", "", true)));
        line.say("; it ");
        at.choose(
                Slot.within("/hidden", "where it stands"),
                terms.standsNowhere() ? "is turned by addresses and links alone" : "stands in the strip",
                List.of(
                        new Option("stands in the strip", "or on the sheet, where it was put there", false),
                        new Option("is turned by addresses and links alone", "and stands nowhere", true)));
        under(dashboard, id, filter, line, at, terms);
        name(dashboard, id, filter.words(), line);
        line.say(".");
    }

    private static void first(Filter filter, Datasets datasets, BriefLine line, BriefLine at, Terms terms) {
        FilterKind<Filter> kind = Kinds.ALL.of(filter);
        line.say("; at first it keeps ");
        String words = "everything";
        if (terms.first() != null) {
            Optional<Value> value = kind.read(filter, terms.first());
            words = value.map(v -> kind.words(filter, v, new FilterScene(LocalDate.now(), datasets, null)))
                    .orElse("“" + terms.first() + "”, which it cannot read");
        }
        at.slot(
                Slot.within("/first", "what it keeps at first"),
                words,
                Kind.CHOSEN,
                false,
                terms.first() != null,
                List.of(new Option("what it keeps now", "as it is turned at the moment", Brief.TURNED_NOW)));
    }

    private static void under(
            Dashboard dashboard, String id, Filter filter, BriefLine line, BriefLine at, Terms terms) {
        List<Option> others = dashboard.filtersOf(filter.page()).stream()
                .filter(other -> !other.equals(id))
                .map(other -> new Option(dashboard.filters().get(other).words(), "", other))
                .toList();
        if (others.isEmpty() || Kinds.ALL.of(filter).counted(filter).isEmpty()) return;
        boolean none = terms.dependsOn().isEmpty();
        line.say(none ? ", " : ", and offers only what is left by ");
        at.may(
                Slot.within("/under", "filters it depends on"),
                none
                        ? "+ offers only what others leave"
                        : Words.list(
                                terms.dependsOn().stream()
                                        .filter(dashboard.filters()::containsKey)
                                        .map(other ->
                                                dashboard.filters().get(other).words())
                                        .toList(),
                                "and"),
                Kind.SET,
                none,
                others);
    }

    /** What addresses call a part of the dashboard. */
    static void name(Dashboard dashboard, String id, String words, BriefLine line) {
        String suggested = suggested(dashboard, id, words);
        String name = dashboard.names().get(id);
        line.say(name == null ? ", " : ", called ");
        line.elsewhere(
                "name in addresses",
                "/names/" + id,
                Kind.TYPED,
                name == null ? "+ name in addresses" : "“" + name + "” in addresses",
                name == null,
                name != null,
                List.of(new Option(name == null ? suggested : name, "", name == null ? suggested : name)));
    }

    /** A name that addresses can have, of the words that a part is called by. */
    private static String suggested(Dashboard dashboard, String id, String words) {
        String plain =
                words.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^[-0-9]+|-+$", "");
        String name = plain.isEmpty() ? id : plain.substring(0, Math.min(LONGEST, plain.length()));
        return dashboard.names().containsValue(name) || name.equals(ReaderState.PAGE) ? id : name;
    }
}
