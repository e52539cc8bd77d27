package sarnik.place;

import java.util.List;

/**
 * What placing found for one distinct value.
 *
 * @param place the place taken, null when unplaced
 * @param state placed, doubtful or unplaced
 * @param confidence between 0 and 1; how far the words and the columns beside them settle the matter
 * @param reason why, a sentence
 * @param runnersUp other places it might be, likeliest first, at most five
 */
public record Match(Place place, State state, double confidence, String reason, List<Place> runnersUp) {

    public enum State {
        PLACED,
        DOUBTFUL,
        UNPLACED
    }

    public Match {
        runnersUp = List.copyOf(runnersUp);
    }

    static Match unplaced(String reason) {
        return new Match(null, State.UNPLACED, 0, reason, List.of());
    }
}
