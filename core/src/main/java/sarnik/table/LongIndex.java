package sarnik.table;

import java.util.Arrays;

/**
 * Numbers distinct longs (not negative) in the order in which they are first met. Open addressing with linear probing,
 * at most half full.
 */
public final class LongIndex {

    private long[] slots = new long[1 << 10];
    private int[] numbers = new int[1 << 10];
    private long[] keys = new long[1 << 9];
    private int size;

    public LongIndex() {
        Arrays.fill(slots, -1);
    }

    public int size() {
        return size;
    }

    public long key(int number) {
        return keys[number];
    }

    /** The number of this key, a new one if it was not met before. */
    public int number(long key) {
        int mask = slots.length - 1;
        int slot = slot(key, mask);
        while (slots[slot] != key) {
            if (slots[slot] < 0) return add(key, slot);
            slot = slot + 1 & mask;
        }
        return numbers[slot];
    }

    private int add(long key, int slot) {
        slots[slot] = key;
        numbers[slot] = size;
        if (size == keys.length) keys = Arrays.copyOf(keys, size * 2);
        keys[size++] = key;
        if (size * 2 > slots.length) rehash();
        return size - 1;
    }

    private void rehash() {
        slots = new long[slots.length * 2];
        numbers = new int[slots.length];
        Arrays.fill(slots, -1);
        int mask = slots.length - 1;
        for (int n = 0; n < size; n++) {
            int slot = slot(keys[n], mask);
            while (slots[slot] >= 0) slot = slot + 1 & mask;
            slots[slot] = keys[n];
            numbers[slot] = n;
        }
    }

    /** Fibonacci hashing (Knuth, The Art of Computer Programming, volume 3, section 6.4). */
    private static int slot(long key, int mask) {
        return (int) (key * 0x9E3779B97F4A7C15L >>> 32) & mask;
    }
}
