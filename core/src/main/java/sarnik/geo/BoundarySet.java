package sarnik.geo;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Areas of one level, such as the provinces of a country. Immutable; safe to share between threads.
 *
 * @param name what the set is called; formulas and placings know it by this name
 * @param level country, region, province, municipality, or a word of one's own
 * @param credit the line that its licence asks for; may be empty
 * @param areas its areas; codes are unique
 */
public record BoundarySet(String name, String level, String credit, List<Area> areas) {

    public BoundarySet {
        areas = List.copyOf(areas);
    }

    /** The same areas, to be held for long: their corners take less than half of what they take while shapes are made. */
    public BoundarySet compact() {
        return new BoundarySet(
                name,
                level,
                credit,
                areas.stream()
                        .map(a -> new Area(
                                a.code(), a.name(), a.parent(), CompactCorners.SHAPES.createGeometry(a.shape())))
                        .toList());
    }

    /** Areas by code. */
    public Map<String, Area> byCode() {
        Map<String, Area> codes = new HashMap<>();
        areas.forEach(a -> codes.put(a.code(), a));
        return codes;
    }

    public Optional<Area> find(String code) {
        return areas.stream().filter(a -> a.code().equals(code)).findFirst();
    }

    /** The areas whose codes are not among these. */
    public List<Area> without(java.util.Set<String> codes) {
        List<Area> rest = new ArrayList<>();
        for (Area area : areas) if (!codes.contains(area.code())) rest.add(area);
        return rest;
    }
}
