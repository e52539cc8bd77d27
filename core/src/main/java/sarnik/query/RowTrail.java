package sarnik.query;

import java.util.List;

/**
 * The steps by which the rows of a frame came about.
 *
 * @param steps in order; the first counts all rows
 */
public record RowTrail(List<Step> steps) {

    public RowTrail {
        steps = List.copyOf(steps);
    }

    /**
     * @param words what happened
     * @param left what is left after it
     * @param unit what is counted
     */
    public record Step(String words, long left, Unit unit) {}

    public enum Unit {
        ROWS,
        GROUPS,
        /** Rows that lack what is summed up; they are among those of the steps before. */
        WITHOUT
    }

    /** Behind the name of a column that placing adds, so that it can be put in words in any sentence. */
    public static final char END_OF_NAME = '\u2060';

    /** The words of a key or measure, with the end of its column's name marked where placing adds it. */
    static String named(String words, String column) {
        return column == null || !column.startsWith("@") ? words : words.replace(column, column + END_OF_NAME);
    }

    /** Rows that reached the grouping. */
    public long rows() {
        return steps.stream()
                .filter(s -> s.unit() == Unit.ROWS)
                .reduce((a, b) -> b)
                .map(Step::left)
                .orElse(0L);
    }
}
