package sarnik.place;

import java.util.List;
import sarnik.place.GeneratedTables.Judged;
import sarnik.place.GeneratedTables.Kind;

/**
 * How well placing knows itself on tables of countries and kinds of dirt that its constants were not set on.
 *
 * @param names how many names were judged
 * @param placed the share that is called placed
 * @param right the share of those that is right
 * @param calibrationError the expected calibration error: by how much confidence is off, on the mean
 */
public record HeldOut(int names, double placed, double right, double calibrationError) {

    /** Makes the tables and judges them; the same each time. */
    public static HeldOut judge() {
        List<Judged> judged = GeneratedTables.judge(Kind.HELD_OUT, 20261126);
        return new HeldOut(
                judged.size(),
                GeneratedTables.placed(judged).count() / (double) judged.size(),
                GeneratedTables.right(judged),
                GeneratedTables.calibrationError(judged));
    }
}
