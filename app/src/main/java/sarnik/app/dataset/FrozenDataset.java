package sarnik.app.dataset;

import java.util.List;
import sarnik.data.About;
import sarnik.data.Calculations;
import sarnik.data.Tie;
import sarnik.place.Placing;
import sarnik.place.Words;

/**
 * A dataset as it was at one moment: a version of its rows, and what was said about it.
 *
 * @param version the version's id
 * @param number the version's number, as people know it
 * @param decided the number of the newest decision about its placing
 * @param decisions what was decided about its placing
 */
public record FrozenDataset(
        long dataset,
        long version,
        int number,
        String name,
        Placing placing,
        About about,
        List<Tie> ties,
        Calculations calculations,
        long decided,
        List<Decided> decisions) {

    /**
     * A decision.
     *
     * @param place a place's id; null where the rows are left out
     */
    public record Decided(Words words, String place) {}
}
