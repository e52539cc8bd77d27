package sarnik.table;

/** Rows that stay where they are, in a database, and are asked there. */
public interface Staying {

    /** How many rows there were when they were last counted. */
    long rows();

    /** What the database that holds them is called. */
    String where();
}
