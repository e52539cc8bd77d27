package sarnik.narrow;

import sarnik.data.ColumnWords;

/** A control with which a reader narrows the rows of a page. Each kind is a record in a room of its own. */
public interface Filter {

    /** Id of the page whose rows it narrows. */
    String page();

    /** Its place in the strip. */
    int order();

    /** Id of the dataset whose column it is about. */
    long dataset();

    String column();

    /** The words before the control; empty for the column's name. */
    String title();

    /** The words before the control. */
    default String words() {
        return title() == null || title().isEmpty() ? ColumnWords.of(column()) : title();
    }
}
