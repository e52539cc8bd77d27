package sarnik.narrow.choice;

import java.util.List;
import java.util.Optional;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Words;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.query.Condition;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;

/** The kind of filter that keeps some of the values of a column. */
public final class ChoiceKind implements FilterKind<Choice> {

    /** The most values that a reader can be asked to choose from. */
    public static final int MOST = 1000;

    @Override
    public String name() {
        return "choice";
    }

    @Override
    public Class<Choice> type() {
        return Choice.class;
    }

    @Override
    public List<Slot> slots() {
        return SHARED;
    }

    @Override
    public boolean fits(Column column) {
        return column instanceof CodedColumn;
    }

    @Override
    public String misfit() {
        return "This column no longer holds text to choose from. Choose another in the filter's brief.";
    }

    @Override
    public FilterOffer offer(Choice filter, Column column) {
        List<String> sorted =
                ((CodedColumn) column).dictionary().stream().sorted().toList();
        int shown = Math.min(MOST, sorted.size());
        return new FilterOffer(
                name(), filter.words(), sorted.subList(0, shown), sorted.size() - shown, null, null, null);
    }

    @Override
    public Optional<Value> read(String text) {
        return Optional.of(new Value.Choice(Texts.values(text)));
    }

    @Override
    public String expected() {
        return "values";
    }

    @Override
    public Condition condition(Choice filter, Value value, String column) {
        return new Condition.OneOf(column, ((Value.Choice) value).values());
    }

    @Override
    public String words(Choice filter, Value value) {
        return filter.words() + " is " + Words.list(((Value.Choice) value).values(), "or");
    }

    @Override
    public String offers(String column) {
        return "Values of " + column;
    }

    @Override
    public void brief(Choice filter, BriefLine line, LoadedDataset dataset) {
        line.say("The reader may choose values of ");
        line.choose(
                SHARED.get(3),
                ColumnWords.of(filter.column()),
                Choices.categories(dataset).stream()
                        .filter(o -> !Choices.isPlace((String) o.value()))
                        .toList());
        line.say(" in " + dataset.name() + ".");
    }
}
