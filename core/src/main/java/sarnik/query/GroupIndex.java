package sarnik.query;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import sarnik.table.LongIndex;

/**
 * Numbers groups by the codes of their keys, in the order in which they are first met. Codes that together do not fit a
 * number are numbered one after the other: what the keys before come to has a number, which makes the next one with the
 * codes that follow.
 */
final class GroupIndex {

    /**
     * Keys that follow each other, whose codes fit a number with the number of all before.
     *
     * @param first the first of these keys
     * @param end after the last
     * @param space how many different codes they have together
     */
    private record Link(int first, int end, long space, LongIndex numbers) {}

    private final KeyCoder[] coders;
    private final List<Link> links = new ArrayList<>();

    /** @param coders one for each key */
    GroupIndex(KeyCoder[] coders) {
        this.coders = coders;
        int first = 0;
        long space = 1;
        long most = Long.MAX_VALUE;
        for (int c = 0; c < coders.length; c++) {
            if (space > most / coders[c].size()) {
                links.add(new Link(first, c, space, new LongIndex()));
                first = c;
                space = 1;
                most = Long.MAX_VALUE / Integer.MAX_VALUE;
            }
            space *= coders[c].size();
        }
        links.add(new Link(first, coders.length, space, new LongIndex()));
    }

    /** How many groups are numbered. */
    int size() {
        return links.get(links.size() - 1).numbers.size();
    }

    /**
     * The groups of some rows.
     *
     * @param groups filled with their numbers
     * @param keys room for as many
     */
    void number(int[] groups, long[] keys, int[] selection, int count) {
        for (Link link : links) {
            if (link.first == 0) Arrays.fill(keys, 0, count, 0);
            else for (int i = 0; i < count; i++) keys[i] = groups[i] * link.space;
            add(coders, link.first, link.end, keys, selection, count);
            for (int i = 0; i < count; i++) groups[i] = link.numbers.number(keys[i]);
        }
    }

    /** Adds to the keys of rows what the codes of some of the grouping keys come to, those of the last counting one. */
    static void add(KeyCoder[] coders, int first, int end, long[] keys, int[] selection, int count) {
        long factor = 1;
        for (int c = end - 1; c >= first; c--) {
            coders[c].addTo(keys, selection, count, factor);
            factor *= coders[c].size();
        }
    }

    /** The code that one grouping key has in a group. */
    int code(int group, int key) {
        int number = group;
        for (int l = links.size() - 1; ; l--) {
            Link link = links.get(l);
            long codes = link.numbers.key(number);
            if (key >= link.first) return code(coders, link.end, codes, key);
            number = (int) (codes / link.space);
        }
    }

    /** The code of one key among those that were added up. */
    static int code(KeyCoder[] coders, int end, long codes, int key) {
        long left = codes;
        for (int c = end - 1; c > key; c--) left /= coders[c].size();
        return (int) (left % coders[key].size());
    }

    /** The number here of each group of another index of the same keys. */
    int[] numbersOf(GroupIndex other) {
        int[] before = {0};
        for (int l = 0; l < links.size(); l++) {
            long space = links.get(l).space;
            LongIndex there = other.links.get(l).numbers;
            int[] here = new int[there.size()];
            for (int n = 0; n < here.length; n++) {
                long codes = there.key(n);
                here[n] = links.get(l).numbers.number(before[(int) (codes / space)] * space + codes % space);
            }
            before = here;
        }
        return before;
    }
}
