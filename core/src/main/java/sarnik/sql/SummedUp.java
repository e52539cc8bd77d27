package sarnik.sql;

import java.math.BigDecimal;
import java.util.List;

/**
 * What a database sums up for a measure, or for a part of one.
 *
 * @param sums its sums as SQL; of two the first is divided by the second
 * @param merge how sums of parts of a group become that of the group
 */
record SummedUp(List<String> sums, Merge merge) {

    /** How what two parts come to becomes what they come to together. */
    enum Merge {
        ADDED,
        LEAST,
        GREATEST,
        /** It cannot be told from the parts. */
        NONE;

        Double of(Double a, Double b) {
            if (a == null || b == null) return a == null ? b : a;
            return switch (this) {
                // As they are written: sums of cents stay cents, whatever the order.
                case ADDED ->
                    Double.isFinite(a) && Double.isFinite(b)
                            ? BigDecimal.valueOf(a).add(BigDecimal.valueOf(b)).doubleValue()
                            : a + b;
                case LEAST -> Math.min(a, b);
                case GREATEST -> Math.max(a, b);
                case NONE -> throw new IllegalStateException("These sums are not put together");
            };
        }
    }

    SummedUp {
        sums = List.copyOf(sums);
    }

    static SummedUp of(String sum, Merge merge) {
        return new SummedUp(List.of(sum), merge);
    }
}
