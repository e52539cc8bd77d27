package sarnik.narrow.search;

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

/** The kind of filter that looks for words in a column of text. */
public final class SearchKind implements FilterKind<Search> {

    private static final int LONGEST = 200;

    private static final int MANY = 30;

    @Override
    public String name() {
        return "search";
    }

    @Override
    public Class<Search> type() {
        return Search.class;
    }

    @Override
    public List<Slot> slots() {
        return FilterKind.columnSlots();
    }

    @Override
    public boolean fits(Column column) {
        return column.type() == ColumnType.TEXT;
    }

    @Override
    public String misfit() {
        return phrase("This column no longer holds text to look in. Choose another in the filter’s brief.");
    }

    @Override
    public FilterOffer offer(Search filter, Column column, FilterScene scene) {
        return FilterOffer.values(name(), filter.words(), List.of(), 0, Map.of());
    }

    @Override
    public Optional<Value> read(Search filter, String text) {
        String words = Texts.decode(text).strip();
        return words.isEmpty() || words.length() > LONGEST ? Optional.empty() : Optional.of(new Value.Words(words));
    }

    @Override
    public String expected() {
        return phrase("words of up to {0} characters", LONGEST);
    }

    @Override
    public List<Condition> conditions(
            Search filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        return List.of(new Condition.Contains(column, ((Value.Words) value).words()));
    }

    @Override
    public String words(Search filter, Value value, FilterScene scene) {
        return phrase("{0} holds “{1}”", filter.words(), ((Value.Words) value).words());
    }

    /** Columns of so many words that nobody looks through their list. */
    @Override
    public List<Beginning> beginnings(LoadedDataset dataset) {
        return FilterKind.choosable(dataset).stream()
                .filter(column -> !column.startsWith("@")
                        && fits(dataset.table().column(column))
                        && ((CodedColumn) dataset.table().column(column))
                                        .dictionary()
                                        .size()
                                >= MANY)
                .map(this::of)
                .toList();
    }

    @Override
    public String offers(String column) {
        return "A search in " + column;
    }

    @Override
    public void brief(Search filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        line.say("The reader may look for words in ");
        line.choose(
                COLUMN,
                ColumnWords.of(filter.column()),
                Choices.columns(dataset, column -> column.type() == ColumnType.TEXT).stream()
                        .filter(o -> !Choices.isPlace((String) o.value()))
                        .toList());
        line.say(" of " + dataset.name() + ", in any case.");
    }
}
