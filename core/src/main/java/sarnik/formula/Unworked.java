package sarnik.formula;

import java.util.BitSet;

/** Rows in which a formula has no value because it cannot be worked out there, such as after a division by zero. */
public final class Unworked {

    private final BitSet rows = new BitSet();
    private int first = -1;
    private String why;

    void add(int row, String trouble) {
        rows.set(row);
        if (first >= 0 && first <= row) return;
        first = row;
        why = trouble;
    }

    /** @param others rows of the same table */
    void add(Unworked others) {
        rows.or(others.rows);
        if (!others.isEmpty() && (isEmpty() || others.first < first)) {
            first = others.first;
            why = others.why;
        }
    }

    boolean has(int row) {
        return rows.get(row);
    }

    /** Whether it can be worked out in all rows. */
    public boolean isEmpty() {
        return first < 0;
    }

    /** In how many rows it cannot. */
    public int count() {
        return rows.cardinality();
    }

    /** The first of them, counted from 0; -1 where there is none. */
    public int first() {
        return first;
    }

    /** What is wrong there: "division by zero"; null where there is none. */
    public String why() {
        return why;
    }
}
