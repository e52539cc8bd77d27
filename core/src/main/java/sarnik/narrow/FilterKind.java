package sarnik.narrow;

import java.util.List;
import java.util.Optional;
import sarnik.brief.BriefLine;
import sarnik.brief.Slot;
import sarnik.data.LoadedDataset;
import sarnik.query.Condition;
import sarnik.state.Value;
import sarnik.table.Column;

/**
 * A kind of filter. Everything about it stands in its own room; nothing outside it and the registry names it.
 *
 * @param <F> its record in the document
 */
public interface FilterKind<F extends Filter> {

    /** What all filters say of themselves. */
    List<Slot> SHARED = List.of(
            Slot.at("/page", "page", "{\"$ref\": \"#/$defs/id\"}").needed(),
            Slot.at("/order", "place in the strip", "{\"type\": \"integer\"}").needed(),
            Slot.at("/dataset", "dataset", "{\"type\": \"integer\"}").needed(),
            Slot.at("/column", "column", "{\"$ref\": \"#/$defs/column\"}").needed(),
            Slot.at("/title", "title", "{\"$ref\": \"#/$defs/words\"}"));

    /** What it is called in documents and in the browser: {@code choice}. */
    String name();

    Class<F> type();

    /** What can be said of it, each declared once. */
    List<Slot> slots();

    /** Whether it can be about a column. */
    boolean fits(Column column);

    /** Why it cannot be about a column that has changed: a sentence. */
    String misfit();

    /** What the reader can choose from in a column that fits. */
    FilterOffer offer(F filter, Column column);

    /** What an address says of it; empty where that cannot be read. */
    Optional<Value> read(String text);

    /** What an address should have held: "date range". */
    String expected();

    /** The condition that rows meet. */
    Condition condition(F filter, Value value, String column);

    /** What was chosen, in words: "Product is still or warm". */
    String words(F filter, Value value);

    /** What adding one for a column is called. */
    String offers(String column);

    /** Writes its sentence. */
    void brief(F filter, BriefLine line, LoadedDataset dataset);
}
