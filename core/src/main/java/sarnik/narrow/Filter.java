package sarnik.narrow;

import sarnik.data.ColumnWords;

/** A control with which a reader narrows the rows of a page. Each kind is a record in a room of its own. */
public interface Filter {

    /** Id of the page whose rows it narrows. */
    String page();

    /** Its place in the strip. */
    int order();

    /** Id of the dataset whose rows it narrows first; others follow it through ties. */
    long dataset();

    /** The column that it is about; null for one that is about whole rows. */
    String column();

    /** The words before the control; empty for the column's name. */
    String title();

    /** How far it reaches and what holds before it is turned; null where nothing is said. */
    Terms terms();

    /** The same, of which nothing is said where nothing is. */
    default Terms how() {
        return terms() == null ? Terms.NOTHING : terms();
    }

    /** The words before the control. */
    default String words() {
        if (title() != null && !title().isEmpty()) return title();
        return column() == null ? "" : ColumnWords.of(column());
    }
}
