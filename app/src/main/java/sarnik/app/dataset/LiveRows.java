package sarnik.app.dataset;

import sarnik.table.Table;

/** Rows that come by themselves, from feeds. */
public interface LiveRows {

    /** Goes up when newer rows are at hand, a second apart at least. */
    long tick(Live live);

    /** How many rows there are. */
    long rows(Live live);

    /** The rows as they are now. */
    Table table(Live live);
}
