package sarnik.query;

import sarnik.table.Rounded;

/** How a measure sums up the values of a group. Missing values take no part, as in SQL. */
public enum Summary {
    SUM("sum"),
    AVERAGE("average"),
    COUNT("count"),
    DISTINCT("distinct count"),
    MINIMUM("minimum"),
    MAXIMUM("maximum"),
    MEDIAN("median"),
    /** The value below which so many of a hundred lie, between values in proportion (PERCENTILE_CONT). */
    PERCENTILE("percentile"),
    /** A formula over groups, which the query knows by the name that stands for its column. */
    FORMULA("formula");

    private final String words;

    Summary(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /**
     * @param at of a percentile which
     */
    public String words(Double at) {
        if (this != PERCENTILE || at == null) return words;
        String number = at == Rounded.even(at) ? String.valueOf(Rounded.up(at)) : String.valueOf(at);
        return number + ending(number) + " percentile";
    }

    private static String ending(String number) {
        if (number.matches(".*1[123]")) return "th";
        return switch (number.charAt(number.length() - 1)) {
            case '1' -> "st";
            case '2' -> "nd";
            case '3' -> "rd";
            default -> "th";
        };
    }

    /** Whether it needs numbers; the counts take any column. */
    public boolean needsNumber() {
        return this != COUNT && this != DISTINCT && this != FORMULA;
    }
}
