package sarnik.place;

import java.util.Collection;

/**
 * How a table is written and how much of it the gazetteer knows: what makes a slip of the pen likelier than a place
 * that is in
 * no list, and the other way round. Found from the table itself: of the names that are in no list, those that are
 * slips lie a
 * letter off a name that is known, and others do so only by chance.
 *
 * @param slips share of the names that are slips of the pen
 * @param missing share of the names that are in no list
 * @param reach share of the world's towns that lie in the countries of the table; 1 where that is not known
 */
record TableSense(double slips, double missing, double reach) {

    /** Of a table of which nothing is known: as many slips and missing places as there are in tables on the whole. */
    static final TableSense USUAL = new TableSense(0.05, 0.03, 1);

    /**
     * Names of one country are more alike than names of the world: so many times more of them lie close to each other.
     */
    static final double ALIKE = 1.5;

    /** The weight of what is usual, in names. */
    private static final double LENT = 20;

    /** How often a name that is in the list as written is still not the place meant, beside the likeliest. */
    private static final double NOT_MEANT = 0.003;

    /** The same for another name than the main one: old, foreign and local forms. */
    private static final double OTHER_NOT_MEANT = 0.25;

    /** How often a place that is in no list has a namesake that is, among all the towns of the world. */
    private static final double NAMESAKES = 0.35;

    /** A second slip in a name is so much rarer than the first. */
    private static final double SECOND_SLIP = 0.12;

    private static final double SPELLED_OTHERWISE = 0.01;

    /**
     * The sense of a table.
     *
     * @param names what was found for its names one by one
     * @param reach share of the world's towns that lie in its countries
     */
    static TableSense of(Collection<Candidates> names, double reach) {
        int count = 0;
        int near = 0;
        int unwritten = 0;
        double chance = 0;
        for (Candidates found : names) {
            if (found == null) continue;
            count++;
            if (found.isWritten()
                    || found.fit() == Candidates.Fit.SPELLED && found.against().isEmpty()) continue;
            unwritten++;
            if (found.isSlip()) near++;
            chance += found.isSlip() ? found.byChance(reach) : 0.2;
        }
        double byChance = unwritten == 0 ? 0 : Math.min(0.95, chance / unwritten);
        double slips = Math.max(0, Math.min(unwritten, (near - byChance * unwritten) / (1 - byChance)));
        return new TableSense(
                (slips + LENT * USUAL.slips) / (count + LENT),
                (unwritten - slips + LENT * USUAL.missing) / (count + LENT),
                reach);
    }

    /** The odds, beside the likeliest place, that none of those found is meant. */
    double odds(Candidates found) {
        double scope = Math.min(found.scope(), reach);
        double namesake = missing * NAMESAKES * Math.sqrt(scope);
        return switch (found.fit()) {
            case MAIN -> NOT_MEANT + namesake;
            case OTHER -> NOT_MEANT + OTHER_NOT_MEANT * Math.pow(scope, 0.3) + 6 * namesake;
            case SPELLED -> SPELLED_OTHERWISE + 2 * namesake;
            case ONE_SLIP -> 0.01 + missing / slips * found.byChance(reach);
            case TWO_SLIPS -> 0.05 + missing / (slips * SECOND_SLIP) * found.byChance(reach);
        };
    }
}
