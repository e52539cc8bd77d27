package sarnik.query;

/** How a measure sums up the values of a group. Missing values take no part, as in SQL. */
public enum Summary {
    SUM("sum"),
    AVERAGE("average"),
    COUNT("count"),
    DISTINCT("distinct count"),
    MINIMUM("minimum"),
    MAXIMUM("maximum"),
    MEDIAN("median"),
    /** A formula over groups, which the query knows by the name that stands for its column. */
    FORMULA("formula");

    private final String words;

    Summary(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Whether it needs numbers; the counts take any column. */
    public boolean needsNumber() {
        return this != COUNT && this != DISTINCT && this != FORMULA;
    }
}
