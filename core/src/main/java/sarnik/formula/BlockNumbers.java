package sarnik.formula;

/**
 * Numbers worked out for the rows that are asked for, block by block, instead of being held for all rows. Safe to share
 * between threads: each opens its own.
 */
public interface BlockNumbers {

    /** Rows that are asked for at once, at most. */
    int MOST = 2048;

    /** Works them out for one thread. */
    Reading open();

    /** Works numbers out; used by one thread. */
    interface Reading {

        /**
         * @param rows numbers of rows
         * @param count how many of them, up to {@link #MOST}
         * @param into takes the number of each row; NaN where it is missing or cannot be worked out
         */
        void fill(int[] rows, int count, double[] into);
    }
}
