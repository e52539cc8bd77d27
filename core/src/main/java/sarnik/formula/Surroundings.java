package sarnik.formula;

import java.time.LocalDate;
import java.util.Map;
import java.util.function.IntFunction;

/**
 * What a formula is computed with besides its table.
 *
 * @param parameters values by name: Long, Double, String, Boolean, Integer days for a date, Long seconds for a time
 * @param places by name: longitude and latitude of a row, or null
 * @param areas by the name of a boundary set: the name of the area that holds a longitude and latitude, or null
 * @param today what CURRENT_DATE is
 */
public record Surroundings(
        Map<String, Object> parameters,
        Map<String, IntFunction<double[]>> places,
        Map<String, AreaAt> areas,
        LocalDate today) {

    /** Finds the area of a boundary set that holds a point. */
    public interface AreaAt {

        /**
         * @param lon degrees east
         * @param lat degrees north
         * @return the area's name; null where no area holds the point
         */
        String at(double lon, double lat);
    }

    /** No parameters, no places. */
    public static Surroundings on(LocalDate today) {
        return new Surroundings(Map.of(), Map.of(), Map.of(), today);
    }
}
