package sarnik.formula;

import sarnik.table.Column;

/**
 * A part of a formula whose types are checked, ready to be computed.
 *
 * @param at where it is written
 * @param kind the type of its values
 * @param eval computes its value
 * @param sql the same for PostgreSQL, in brackets where needed; types are cast so that the answer is the same
 */
record Typed(Expression at, Kind kind, Eval eval, String sql) {

    /** The row or group at hand. */
    static final class Cursor {
        int row;
        Column[] columns;
        /** Sums of the group at hand, for measures. */
        Object[] sums;

        /** What window functions come to for the group at hand, for measures. */
        Object[] windows;

        Surroundings surroundings;
    }

    /** Computes a value; null is a missing one. */
    interface Eval {

        /**
         * @throws RowError when there is no value for this row
         */
        Object at(Cursor cursor);
    }
}
