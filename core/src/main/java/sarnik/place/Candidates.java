package sarnik.place;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.ToDoubleFunction;

/**
 * The towns that some words may mean, each with how likely it is by these words alone.
 *
 * @param towns distinct
 * @param helped what of the columns beside the name fits, in words
 * @param against what of them does not
 * @param unknown the share, beside the likeliest town, of none of them being meant
 */
record Candidates(List<Town> towns, List<String> helped, List<String> against, double unknown) {

    /** At least this sure, a match is placed; below, it is doubtful. */
    static final double SURE = 0.75;

    /** The pieces of evidence are not independent of each other; this power keeps their product from saying too much. */
    private static final double EVIDENCE = 0.65;

    private static final int RUNNERS_UP = 5;
    /** Two entries of one name nearer than this are taken as one place. */
    private static final double SAME_PLACE_METRES = 6000;
    /** A rival with less than this share of the best one's weight is not worth a word. */
    private static final double WORTH_A_WORD = 0.12;

    /**
     * @param weight likelihood beside the other towns, above 0
     * @param how the way in which the name fits, a clause: "the name fits"
     */
    record Town(Place place, double weight, String how) {}

    /** The likeliest town by the words alone and the confidence in it; null where there is none. */
    Match alone() {
        return decide(place -> 1, null);
    }

    /**
     * Decides.
     *
     * @param context how well a place goes with the rest of the table, above 0; 1 for no matter
     * @param contextWords why the rest of the table speaks for the place taken; null where it has no say
     */
    Match decide(ToDoubleFunction<Place> context, String contextWords) {
        if (towns.isEmpty()) return null;
        record Weighed(Town town, double weight) {}
        List<Weighed> weighed = new ArrayList<>(towns.stream().map(t -> new Weighed(t, Math.pow(t.weight() * context.applyAsDouble(t.place()), EVIDENCE))).toList());
        weighed.sort(Comparator.comparingDouble(Weighed::weight).reversed().thenComparing(w -> w.town().place().id()));
        Weighed best = weighed.get(0);
        double all = 0;
        int rivals = 0;
        for (Weighed w : weighed) {
            boolean same = w == best || best.town().place().metresTo(w.town().place()) < SAME_PLACE_METRES;
            if (same) continue;
            all += w.weight();
            if (w.weight() > WORTH_A_WORD * best.weight()) rivals++;
        }
        double confidence = best.weight() / (best.weight() * (1 + unknown) + all);
        List<Place> others = weighed.stream().skip(1).limit(RUNNERS_UP).map(w -> w.town().place()).toList();
        boolean settled = contextWords != null && (alone().state() != Match.State.PLACED || alone().place() != best.town().place());
        return new Match(best.town().place(), confidence >= SURE && against.isEmpty() ? Match.State.PLACED : Match.State.DOUBTFUL, confidence,
                reason(best.town(), rivals, confidence, settled ? contextWords : null), others);
    }

    private String reason(Town best, int rivals, double confidence, String contextWords) {
        if (!against.isEmpty()) return "A town of this name is known, but " + String.join(", and ", against) + ".";
        List<String> clauses = new ArrayList<>();
        clauses.add(best.how());
        clauses.addAll(helped);
        if (contextWords != null) clauses.add(contextWords);
        String fits = String.join(", ", clauses);
        if (rivals > 0 && confidence < SURE) {
            return "%d towns have this name%s, and nothing tells them apart for certain."
                    .formatted(rivals + 1, helped.isEmpty() ? "" : " where " + String.join(" and ", helped));
        }
        return fits.substring(0, 1).toUpperCase(Locale.ROOT) + fits.substring(1) + ".";
    }
}
