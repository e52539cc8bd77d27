package sarnik.app.dataset;

import java.util.List;
import sarnik.app.database.DatabaseRows;
import sarnik.sql.SourceColumn;

/**
 * Where the rows of a dataset are that stay in a database elsewhere.
 *
 * @param database the number of the database
 * @param of the table, view or query there
 * @param columns its columns, and how each is read
 * @param keep an answer holds for so many seconds
 */
record Stays(long database, String of, List<SourceColumn> columns, int keep) {

    /** Where nobody says otherwise. */
    static final int USUAL_KEEP = 60;

    static final int LONGEST_KEEP = 86_400;

    Stays {
        columns = List.copyOf(columns);
    }

    DatabaseRows.StayingAt at() {
        return new DatabaseRows.StayingAt(database, of);
    }

    /** The same with answers that hold for another time. */
    Stays keeping(int seconds) {
        return new Stays(database, of, columns, seconds);
    }
}
