package sarnik.app.dashboard;

/**
 * What may be taken along of a dashboard.
 *
 * @param rows figures and rows as a file, and by copying
 * @param pictures pictures of visuals
 * @param prints pages on paper
 */
public record Takes(boolean rows, boolean pictures, boolean prints) {

    public static final Takes ALL = new Takes(true, true, true);

    /** What both let be taken. */
    public Takes and(Takes other) {
        return new Takes(rows && other.rows, pictures && other.pictures, prints && other.prints);
    }
}
