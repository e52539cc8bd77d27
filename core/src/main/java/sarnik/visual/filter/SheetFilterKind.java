package sarnik.visual.filter;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Set;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Parts;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.VisualKind;

/** The kind of visual in which the reader chooses: a filter or a number that stands on the sheet. */
public final class SheetFilterKind implements VisualKind<SheetFilter> {

    private static final Slot CONTROL = Slot.at("/control", "filter", "{\"type\": \"string\", \"maxLength\": 31}")
            .needed();

    @Override
    public String name() {
        return "filter";
    }

    @Override
    public Class<SheetFilter> type() {
        return SheetFilter.class;
    }

    @Override
    public Class<SheetFilterDrawing> drawing() {
        return SheetFilterDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 2h8L6 5.5V9L4 8V5.5z";
    }

    @Override
    public List<Slot> slots() {
        return List.of(CONTROL);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(SheetFilter.class);
    }

    @Override
    public String words(SheetFilter filter) {
        return phrase("the filter on the sheet");
    }

    @Override
    public Set<Long> datasets(SheetFilter filter) {
        return Set.of();
    }

    @Override
    public Set<String> dependsOn(SheetFilter filter) {
        return Set.of(filter.control());
    }

    @Override
    public Set<String> holds(SheetFilter filter) {
        return Set.of(filter.control());
    }

    @Override
    public Plan plan(SheetFilter filter, Scene scene) {
        return Plan.of(new SheetFilterDrawing(filter.title() == null ? "" : filter.title(), filter.control()));
    }

    @Override
    public void brief(SheetFilter filter, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        line.say("The filter ");
        line.choose(
                CONTROL,
                "“" + choices.parts().nameOf(filter.control()) + "”",
                choices.parts().controls().stream()
                        .filter(c -> !c.keyed() || c.id().equals(filter.control()))
                        .map(c -> new Option(c.words(), "", c.id()))
                        .toList());
        line.say(" on the sheet instead of in the strip.");
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset, Parts parts) {
        if (question != Question.LET_CHOOSE) return List.of();
        return parts.controls().stream()
                .filter(c -> !c.keyed())
                .map(c -> new Proposal(
                        "“" + c.words() + "” on the sheet", new SheetFilter(null, null, c.words(), c.id()), 6, 2))
                .toList();
    }
}
