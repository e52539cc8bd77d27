package sarnik.narrow;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Rule;
import sarnik.data.Telling;
import sarnik.query.Condition;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.visual.Known;
import sarnik.visual.Source;

/**
 * A kind of filter. Everything about it stands in its own room; nothing outside it and the registry names it.
 *
 * @param <F> its record in the document
 */
public interface FilterKind<F extends Filter> {

    /** The column that a filter is about. */
    Slot COLUMN = Slot.at("/column", "column", "{\"$ref\": \"#/$defs/column\"}").needed();

    /** What all filters say of themselves, but for their column. */
    List<Slot> SHARED = List.of(
            Slot.at("/page", "page", "{\"$ref\": \"#/$defs/id\"}").needed(),
            Slot.at("/order", "place in the strip", "{\"type\": \"integer\"}").needed(),
            Slot.at("/dataset", "dataset", "{\"type\": \"integer\"}").needed(),
            Slot.at("/title", "title", "{\"$ref\": \"#/$defs/words\"}"),
            Slot.at("/terms", "terms", "{\"$ref\": \"#/$defs/terms\"}"));

    /** What a filter says that has no more than its column. */
    static List<Slot> columnSlots() {
        List<Slot> slots = new ArrayList<>(SHARED);
        slots.add(COLUMN);
        return slots;
    }

    /** What it is called in documents and in the browser: {@code choice}. */
    String name();

    Class<F> type();

    /** Records of its own in the document, of which only what is said is written. */
    default List<Class<?>> said() {
        return List.of();
    }

    /** What can be said of it, each declared once. */
    List<Slot> slots();

    /** Whether it can be about a column. */
    boolean fits(Column column);

    /** Why it cannot be about a column that has changed: a sentence. */
    String misfit();

    /**
     * What the reader can choose from.
     *
     * @param column its column, which fits; null for a kind that is about whole rows
     * @throws sarnik.data.MisfitException when it no longer fits its data in another way
     */
    FilterOffer offer(F filter, Column column, FilterScene scene);

    /** What an address says of it; empty where that cannot be read. */
    Optional<Value> read(F filter, String text);

    /** What an address should have held: "date range". */
    String expected();

    /** Which of some values there are to choose from. Those that there are not are left out of an address, and said. */
    default Known known(F filter, List<String> values, FilterScene scene) {
        return Known.of(Optional.of(new Source(filter.dataset(), filter.column())), values, scene.datasets());
    }

    /**
     * The conditions that rows meet.
     *
     * @param column the column of the rows: its own, or one that means the same; null for one that is about whole rows
     * @param dataset whose rows they are
     */
    List<Condition> conditions(F filter, Value value, String column, LoadedDataset dataset, FilterScene scene);

    /** Whether a column of another dataset that means the same can stand for its own. */
    default boolean isOfColumn(F filter) {
        return true;
    }

    /** Whether it is worked out of the rows that all other filters leave. */
    default boolean restsOnOthers() {
        return false;
    }

    /** Rules of the author's that it turns on. */
    default List<Rule> rules(F filter) {
        return List.of();
    }

    /** Names of the measure formulas that it goes by. */
    default Set<String> measures(F filter) {
        return Set.of();
    }

    /** What was chosen, in words: "Product is still or warm". */
    String words(F filter, Value value, FilterScene scene);

    /** The values that are counted for the reader to choose from; empty where none are. */
    default Optional<String> counted(F filter) {
        return Optional.empty();
    }

    /** What adding one for a column is called. */
    String offers(String column);

    /**
     * A filter that could be added.
     *
     * @param words what adding it is called
     * @param says what it says beside what all say
     */
    record Beginning(String words, Map<String, Object> says) {}

    /** The filters of this kind that could be added for a dataset: one for each column that it can well be about. */
    default List<Beginning> beginnings(LoadedDataset dataset) {
        return choosable(dataset).stream()
                .filter(column -> fits(dataset.table().column(column)))
                .map(this::of)
                .toList();
    }

    /** One for a column. */
    default Beginning of(String column) {
        return new Beginning(offers(ColumnWords.of(column)), Choices.map("column", column));
    }

    /** The columns that readers are let choose by, in their order. */
    static List<String> choosable(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> !Choices.isPlace(name))
                .filter(name -> !(dataset.table().column(name) instanceof CodedColumn coded)
                        || coded.dictionary().size() > 1)
                .filter(name -> !dataset.table().column(name).type().isNumber()
                        || Telling.meaning(dataset, name) != Telling.Meaning.NAME)
                .toList();
    }

    /** Writes its sentence. */
    void brief(F filter, BriefLine line, LoadedDataset dataset, Choices choices);
}
