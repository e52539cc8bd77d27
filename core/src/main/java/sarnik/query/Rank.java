package sarnik.query;

import sarnik.language.Language;

/**
 * Keeps the first or last groups by a measure. Groups whose measure is missing are never kept.
 *
 * @param measure index of the measure in the query
 * @param end whether the largest or the smallest are kept
 * @param count how many, at least 1
 * @param keepTies whether groups equal to the last one kept stay too; cut ties fall by key
 */
public record Rank(int measure, End end, int count, boolean keepTies) {

    public enum End {
        TOP("top"),
        BOTTOM("bottom"),
        /** So many of each end. */
        BOTH("top and bottom");

        private final String words;

        End(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What it keeps, in the language that is spoken. @param by what the measure is called */
    String said(String by) {
        return switch (end) {
            case TOP -> Language.phrase("Only the top {0} by {1}", count, by);
            case BOTTOM -> Language.phrase("Only the bottom {0} by {1}", count, by);
            case BOTH -> Language.phrase("Only the top and bottom {0} by {1}", count, by);
        };
    }

    public Rank {
        if (count < 1) throw new IllegalArgumentException("A rank keeps at least one group, not " + count);
    }
}
