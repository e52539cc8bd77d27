package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.data.LoadedDataset;
import sarnik.scale.NumberWords;
import sarnik.statistics.Neighbours;

/**
 * Which of some places are neighbours.
 *
 * @param words which those are, in words
 */
public record Nearby(Neighbours neighbours, String words) {

    private static final int USUAL_NEAREST = 6;

    /**
     * @param ids of the places
     * @param lon degrees
     * @param lat degrees
     * @param set the boundary set of which they are areas; null for none
     * @param km those within so many kilometres; null for others
     * @param nearest so many of the nearest; null for those that touch, and the nearest six where nothing can touch
     */
    public static Nearby of(
            LoadedDataset dataset,
            List<String> ids,
            double[] lon,
            double[] lat,
            String set,
            Double km,
            Integer nearest) {
        if (km != null)
            return new Nearby(Neighbours.within(lon, lat, km), phrase("those within {0} km", NumberWords.full(km)));
        Optional<Neighbours> touching = nearest == null
                ? Optional.ofNullable(set).flatMap(dataset::touching).map(of -> touching(of, ids))
                : Optional.empty();
        if (touching.isPresent()) return new Nearby(touching.get(), phrase("those that touch"));
        int count = nearest == null ? USUAL_NEAREST : nearest;
        return new Nearby(Neighbours.nearest(lon, lat, count), phrase("the nearest {0}", count));
    }

    private static Neighbours touching(Map<String, List<String>> of, List<String> ids) {
        Map<String, Integer> numbers = new HashMap<>();
        for (int p = 0; p < ids.size(); p++) numbers.put(ids.get(p), p);
        int[][] near = new int[ids.size()][];
        for (int p = 0; p < near.length; p++)
            near[p] = of.getOrDefault(ids.get(p), List.of()).stream()
                    .filter(numbers::containsKey)
                    .mapToInt(numbers::get)
                    .sorted()
                    .toArray();
        return new Neighbours(near);
    }
}
