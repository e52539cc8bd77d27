package sarnik.query;

/**
 * An order of groups; equal ones stand by key.
 *
 * @param measure index of the measure, or -1 for the key
 */
public record Sort(int measure, boolean descending) {

    public static final Sort BY_KEY = new Sort(-1, false);
}
