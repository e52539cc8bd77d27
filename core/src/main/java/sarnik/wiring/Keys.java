package sarnik.wiring;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.dashboard.DocumentJson;
import sarnik.query.Measure;
import sarnik.visual.Visual;

/** The shared keys that visuals wear, as their documents say. */
final class Keys {

    private Keys() {}

    /**
     * A key that is worn.
     *
     * @param dataset id of the dataset whose measure it colours; null where none is said
     * @param measure what it colours; null for a category
     */
    record Worn(String key, Long dataset, Measure measure) {}

    /** Names of the keys that a visual wears. */
    static Set<String> worn(Visual visual) {
        Set<String> names = new LinkedHashSet<>();
        all(visual).forEach(worn -> names.add(worn.key()));
        return names;
    }

    static List<Worn> all(Visual visual) {
        List<Worn> worn = new ArrayList<>();
        walk(DocumentJson.plain(visual), null, worn);
        return worn;
    }

    private static void walk(Object at, Long dataset, List<Worn> worn) {
        if (at instanceof List<?> list) list.forEach(one -> walk(one, dataset, worn));
        if (!(at instanceof Map<?, ?> map)) return;
        Long own = map.get("dataset") instanceof Number id ? (Long) id.longValue() : dataset;
        if (map.get("key") instanceof String key && map.containsKey("measure"))
            worn.add(new Worn(key, own, measure(map.get("measure"))));
        map.values().forEach(value -> walk(value, own, worn));
    }

    @SuppressWarnings("unchecked")
    private static Measure measure(Object plain) {
        return plain instanceof Map<?, ?> map ? DocumentJson.measure((Map<String, Object>) map) : null;
    }
}
