package sarnik.data;

import sarnik.query.Rank;

/**
 * Which groups are kept.
 *
 * @param end the most or the least
 * @param count how many
 * @param held true for "of all" (ranked before links narrow), false for "of what is picked"
 * @param others whether what is left out is summed up as one; null for no
 */
public record Ranking(Rank.End end, int count, boolean held, Boolean others) {

    public Ranking(Rank.End end, int count, boolean held) {
        this(end, count, held, null);
    }
}
