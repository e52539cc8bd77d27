package sarnik.query;

import sarnik.language.Language;
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

    /** What it is called in the language that is spoken. */
    public String said() {
        return switch (this) {
            case SUM -> Language.phrase("sum");
            case AVERAGE -> Language.phrase("average");
            case COUNT -> Language.phrase("count");
            case DISTINCT -> Language.phrase("distinct count");
            case MINIMUM -> Language.phrase("minimum");
            case MAXIMUM -> Language.phrase("maximum");
            case MEDIAN -> Language.phrase("median");
            case PERCENTILE -> Language.phrase("percentile");
            case FORMULA -> Language.phrase("formula");
        };
    }

    /**
     * What it makes of something: "sum of litres".
     *
     * @param at of a percentile which
     */
    public String said(Double at, String of) {
        return switch (this) {
            case SUM -> Language.phrase("sum of {0}", of);
            case AVERAGE -> Language.phrase("average of {0}", of);
            case COUNT -> Language.phrase("count of {0}", of);
            case DISTINCT -> Language.phrase("distinct count of {0}", of);
            case MINIMUM -> Language.phrase("minimum of {0}", of);
            case MAXIMUM -> Language.phrase("maximum of {0}", of);
            case MEDIAN -> Language.phrase("median of {0}", of);
            case PERCENTILE -> {
                if (at == null) yield Language.phrase("percentile of {0}", of);
                String number = at == Rounded.even(at) ? String.valueOf(Rounded.up(at)) : String.valueOf(at);
                yield Language.phrase(
                        "{0}{1} percentile of {2}", Language.spoken().written(number), ending(number), of);
            }
            case FORMULA -> of;
        };
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
