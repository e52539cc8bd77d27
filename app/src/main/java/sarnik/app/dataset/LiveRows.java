package sarnik.app.dataset;

import java.util.Set;
import java.util.function.Consumer;
import sarnik.table.Table;

/** Rows that come by themselves, from feeds. */
public interface LiveRows {

    /** Goes up when newer rows are at hand, a second apart at least. */
    long tick(Live live);

    /** How many rows there are. */
    long rows(Live live);

    /** The rows as they are now. */
    Table table(Live live);

    /**
     * Tells when newer rows are at hand, a second apart at least.
     *
     * @param newer is told the ids of all feeds that have some; what takes long there holds up others
     */
    void watch(Consumer<Set<Long>> newer);
}
