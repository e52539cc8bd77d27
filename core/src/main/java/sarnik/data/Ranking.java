package sarnik.data;

import sarnik.query.Rank;

/**
 * Which groups are kept.
 *
 * @param end the most or the least
 * @param count how many
 * @param held true for "of all" (ranked before links narrow), false for "of what is picked"
 */
public record Ranking(Rank.End end, int count, boolean held) {}
