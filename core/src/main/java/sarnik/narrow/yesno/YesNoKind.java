package sarnik.narrow.yesno;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.query.Condition;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/** The kind of filter that is a switch. */
public final class YesNoKind implements FilterKind<YesNo> {

    @Override
    public String name() {
        return "yesno";
    }

    @Override
    public Class<YesNo> type() {
        return YesNo.class;
    }

    @Override
    public List<Slot> slots() {
        return FilterKind.columnSlots();
    }

    @Override
    public boolean fits(Column column) {
        return column.type() == ColumnType.YES_NO;
    }

    @Override
    public String misfit() {
        return phrase("This column no longer holds yes and no. Choose another in the filter’s brief.");
    }

    @Override
    public FilterOffer offer(YesNo filter, Column column, FilterScene scene) {
        return FilterOffer.values(name(), filter.words(), List.of("yes", "no"), 0, Map.of());
    }

    @Override
    public Optional<Value> read(YesNo filter, String text) {
        List<String> values = Texts.values(text);
        return values.size() == 1 && CodedColumn.NO_YES.contains(values.get(0))
                ? Optional.of(new Value.Choice(values))
                : Optional.empty();
    }

    @Override
    public String expected() {
        return phrase("yes or no");
    }

    @Override
    public List<Condition> conditions(
            YesNo filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        return List.of(new Condition.OneOf(column, ((Value.Choice) value).values()));
    }

    @Override
    public String words(YesNo filter, Value value, FilterScene scene) {
        return phrase(
                "{0}: {1, select, yes {yes} other {no}}",
                filter.words(), ((Value.Choice) value).values().get(0));
    }

    @Override
    public Optional<String> counted(YesNo filter) {
        return Optional.of(filter.column());
    }

    @Override
    public String offers(String column) {
        return "A switch: " + column + ", yes, no or both";
    }

    @Override
    public void brief(YesNo filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        line.say("The reader may turn between the rows with yes, with no, and both, in ");
        line.choose(
                COLUMN,
                ColumnWords.of(filter.column()),
                Choices.columns(dataset, column -> column.type() == ColumnType.YES_NO));
        line.say(" of " + dataset.name() + ".");
    }
}
