package sarnik.table;

import java.io.IOException;
import java.util.List;

/** Rows of cells of which some, at the top, may be names of columns: a text file or a sheet. */
public interface Grid {

    /** Shows all rows that are not empty, the header among them. */
    void each(RowSource.Visitor visitor) throws IOException;

    /** The first rows that are not empty. */
    List<List<String>> first(int rows) throws IOException;
}
