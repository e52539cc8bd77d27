package sarnik.place;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.ToDoubleFunction;

/**
 * The places that some words may mean, each with how likely it is by these words alone.
 *
 * @param towns distinct; regions and provinces where the words name nothing narrower
 * @param helped what of the columns beside the name fits, in words
 * @param against what of them does not
 * @param fit how the name was found
 * @param scope the share of the world's towns among which the words let one choose, 0 to 1
 * @param around how many names lie as near as those found, anywhere: many where names are short or common
 */
record Candidates(List<Town> towns, List<String> helped, List<String> against, Fit fit, double scope, int around) {

    /** At least this sure, a match is placed; below, it is doubtful. */
    static final double SURE = 0.75;

    /** How a name was found; the better first. */
    enum Fit {
        /** As the name that a place goes by, or its code. */
        MAIN,
        /** As another of its names: an old, foreign or local form. */
        OTHER,
        /** Written out, or with its words in another order. */
        SPELLED,
        ONE_SLIP,
        TWO_SLIPS
    }

    /**
     * The pieces of evidence are not independent of each other; this power keeps their product from saying too much.
     */
    private static final double EVIDENCE = 0.65;

    private static final int RUNNERS_UP = 5;
    /** Two entries of one name nearer than this are taken as one place. */
    private static final double SAME_PLACE_METRES = 6000;
    /** A rival with less than this share of the best one's weight is not worth a word. */
    private static final double WORTH_A_WORD = 0.12;

    /** What stands beside a name is wrong rather than the name: the odds that another place is meant. */
    private static final double AGAINST = 30;

    /**
     * @param weight likelihood beside the other towns, above 0
     * @param how the way in which the name fits, a clause: "the name fits"
     */
    record Town(Place place, double weight, String how) {}

    /** Whether a name of the list is written as it stands, and nothing speaks against it. */
    boolean isWritten() {
        return !towns.isEmpty() && against.isEmpty() && (fit == Fit.MAIN || fit == Fit.OTHER);
    }

    /** Whether a name of the list is a slip away, and nothing speaks against it. */
    boolean isSlip() {
        return !towns.isEmpty() && against.isEmpty() && (fit == Fit.ONE_SLIP || fit == Fit.TWO_SLIPS);
    }

    /**
     * How likely it is that a name lies as near by chance to that of a town which is in no list.
     *
     * @param reach share of the world's towns that lie in the countries of the table
     */
    double byChance(double reach) {
        return 1 - Math.exp(-TableSense.ALIKE * Math.min(scope, reach) * (around + 0.5));
    }

    /** The likeliest town by the words alone and the confidence in it; null where there is none. */
    Match alone() {
        return decide(place -> 1, null, TableSense.USUAL);
    }

    /**
     * Decides.
     *
     * @param context how well a place goes with the rest of the table, above 0; 1 for no matter
     * @param contextWords why the rest of the table speaks for the place taken; null where it has no say
     * @param sense how the table is written, and how much of it the list knows
     */
    Match decide(ToDoubleFunction<Place> context, String contextWords, TableSense sense) {
        if (towns.isEmpty()) return null;
        record Weighed(Town town, double weight) {}
        List<Weighed> weighed = new ArrayList<>(towns.stream()
                .map(t -> new Weighed(t, Math.pow(t.weight() * context.applyAsDouble(t.place()), EVIDENCE)))
                .toList());
        weighed.sort(Comparator.comparingDouble(Weighed::weight)
                .reversed()
                .thenComparing(w -> w.town().place().id()));
        Weighed best = weighed.get(0);
        double all = 0;
        int rivals = 0;
        for (Weighed w : weighed) {
            boolean same = w == best || best.town().place().metresTo(w.town().place()) < SAME_PLACE_METRES;
            if (same) continue;
            all += w.weight();
            if (w.weight() > WORTH_A_WORD * best.weight()) rivals++;
        }
        double unknown = against.isEmpty() ? sense.odds(this) : AGAINST;
        double confidence = best.weight() / (best.weight() * (1 + unknown) + all);
        List<Place> others = weighed.stream()
                .skip(1)
                .limit(RUNNERS_UP)
                .map(w -> w.town().place())
                .toList();
        boolean settled = contextWords != null
                && (alone().state() != Match.State.PLACED
                        || alone().place() != best.town().place());
        return new Match(
                best.town().place(),
                confidence >= SURE && against.isEmpty() ? Match.State.PLACED : Match.State.DOUBTFUL,
                confidence,
                reason(best.town(), rivals, confidence, settled ? contextWords : null),
                others);
    }

    private String reason(Town best, int rivals, double confidence, String contextWords) {
        String kind = best.place().level() == PlaceLevel.TOWN ? "town" : "area";
        if (!against.isEmpty())
            return "%s %s of this name is known, but %s."
                    .formatted(kind.equals("area") ? "An" : "A", kind, String.join(", and ", against));
        List<String> clauses = new ArrayList<>();
        clauses.add(best.how());
        clauses.addAll(helped);
        if (contextWords != null) clauses.add(contextWords);
        String fits = String.join(", ", clauses);
        if (confidence < SURE) {
            if (rivals > 0 && (fit == Fit.MAIN || fit == Fit.OTHER)) {
                return "%d %ss have this name%s, and nothing tells them apart for certain."
                        .formatted(rivals + 1, kind, helped.isEmpty() ? "" : " where " + String.join(" and ", helped));
            }
            if (fit == Fit.ONE_SLIP || fit == Fit.TWO_SLIPS)
                return sentence(fits) + ", but it may as well be a place that is in no list.";
        }
        return sentence(fits) + ".";
    }

    private static String sentence(String words) {
        return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
    }
}
