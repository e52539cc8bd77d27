package sarnik.place;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Places the rows of one table together: those that are sure by their own words tell in which countries and where the
 * table
 * lies, and that tells the namesakes of the others apart.
 */
final class JointPlacer {

    /** A match by its own words at least this sure speaks for others. */
    private static final double SPEAKS = 0.9;
    /** With fewer sure places than this, a table has no say. */
    private static final int FEWEST = 3;
    /** At this distance from the nearest sure place, a place has about a third of the pull of one beside it, metres. */
    private static final double REACH = 60_000;

    private static final double FAR = 0.05;

    /** Farther sure places are not felt, metres. */
    private static final double FELT = 200_000;

    /** A country with less than this share of the sure rows is none of the table's. */
    private static final double HARDLY = 0.03;

    /**
     * Sure rows that a country is lent, so that one seen once is not taken for granted and one never seen not ruled
     * out.
     */
    private static final double LENT = 0.4;

    private final NamePlacer placer;

    private final Watch watch;

    JointPlacer(NamePlacer placer) {
        this(placer, Watch.NONE);
    }

    /**
     * @param watch told how far it has come
     */
    JointPlacer(NamePlacer placer, Watch watch) {
        this.placer = placer;
        this.watch = watch;
    }

    /**
     * @param words the distinct words of a table
     * @return a match for each
     */
    List<Match> place(List<Words> words) {
        List<Words> read = words.stream().map(Words::read).toList();
        List<Candidates> candidates = watch.each(words.size(), i -> placer.candidates(read.get(i)));
        List<Match> alone = IntStream.range(0, words.size())
                .parallel()
                .mapToObj(i -> candidates.get(i) == null
                        ? placer.place(read.get(i))
                        : candidates.get(i).alone())
                .toList();
        List<Place> sure = new ArrayList<>();
        for (Match match : alone) {
            if (match != null
                    && match.place() != null
                    && match.state() == Match.State.PLACED
                    && match.confidence() >= SPEAKS) sure.add(match.place());
        }
        Context context = sure.size() < FEWEST ? null : new Context(sure);
        TableSense sense = TableSense.of(candidates, context == null ? 1 : context.reach(placer));
        return IntStream.range(0, words.size())
                .parallel()
                .mapToObj(i -> {
                    Match own = alone.get(i);
                    if (own == null) return NamePlacer.notFound(read.get(i));
                    Candidates found = candidates.get(i);
                    if (found == null) return own;
                    if (context == null || found.towns().size() < 2) return found.decide(place -> 1, null, sense);
                    return found.decide(
                            place -> context.pull(place, own.place()), "the rest of the table lies near", sense);
                })
                .toList();
    }

    /** Where the sure places of a table lie. */
    private static final class Context {

        private final Map<String, Double> countries = new HashMap<>();
        /** Each sure place once. */
        private final TownIndex near;

        /** How many sure rows lie in a place. */
        private final Map<Place, Integer> witnesses = new IdentityHashMap<>();

        private final double all;

        Context(List<Place> sure) {
            for (Place place : sure) {
                countries.merge(place.country(), 1.0, Double::sum);
                witnesses.merge(place, 1, Integer::sum);
            }
            all = sure.size();
            near = new TownIndex(List.copyOf(witnesses.keySet()));
        }

        /**
         * The share of the world's towns that lie in the countries of the table; those that are hardly seen do not
         * count.
         */
        double reach(NamePlacer placer) {
            return Math.min(
                    1,
                    countries.entrySet().stream()
                            .filter(c -> c.getValue() >= HARDLY * all)
                            .mapToDouble(c -> placer.shareOf(c.getKey()))
                            .sum());
        }

        /**
         * How well a place goes with the table.
         *
         * @param itself what the row was taken for by its own words; a row is no witness for itself
         */
        double pull(Place place, Place itself) {
            double share = (countries.getOrDefault(place.country(), 0.0) + LENT) / (all + LENT);
            Place itselfAlone = witnesses.getOrDefault(itself, 0) == 1 ? itself : null;
            double nearest = near.nearest(place.lon(), place.lat(), FELT, itselfAlone)
                    .map(place::metresTo)
                    .orElse(Double.POSITIVE_INFINITY);
            return share * (FAR + (1 - FAR) * Math.exp(-nearest / REACH));
        }
    }
}
