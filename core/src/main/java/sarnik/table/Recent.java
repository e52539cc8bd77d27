package sarnik.table;

/**
 * Texts that were met lately, each with a number that was worked out of it: columns repeat themselves, and working a
 * value out
 * takes longer than finding it again. Of two texts that fall on one slot the later one stays. Where hardly anything is
 * met again
 * nothing is kept any more.
 */
final class Recent {

    private static final int SLOTS = 1024;

    /** After so many texts it is looked at whether keeping them is worth it: one in four has to be found again. */
    private static final int TRIED = 8192;

    private final String[] texts = new String[SLOTS];
    private final long[] numbers = new long[SLOTS];
    private int asked;
    private int found;
    private boolean worthIt = true;

    /** The slot of a text, to be asked {@link #holds} of; -1 where nothing is kept. */
    int slot(String text) {
        if (!worthIt) return -1;
        if (++asked == TRIED) {
            worthIt = found * 4 >= TRIED;
            asked = 0;
            found = 0;
            if (!worthIt) return -1;
        }
        int hash = text.hashCode();
        return (hash ^ hash >>> 10 ^ hash >>> 20) & SLOTS - 1;
    }

    boolean holds(int slot, String text) {
        if (slot < 0 || !text.equals(texts[slot])) return false;
        found++;
        return true;
    }

    long number(int slot) {
        return numbers[slot];
    }

    void keep(int slot, String text, long number) {
        if (slot < 0) return;
        texts[slot] = text;
        numbers[slot] = number;
    }
}
