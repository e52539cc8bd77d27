package sarnik.visual;

/**
 * The values that a visual's marks stand for.
 *
 * @param dataset id of the dataset
 * @param column whose values they are
 */
public record Source(long dataset, String column) {}
