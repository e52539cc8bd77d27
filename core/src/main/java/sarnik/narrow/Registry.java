package sarnik.narrow;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/** The kinds that there are. It is made in one place, which names them all. */
public final class Registry {

    private final Map<Class<?>, VisualKind<?>> visuals = new LinkedHashMap<>();
    private final Map<Class<?>, FilterKind<?>> filters = new LinkedHashMap<>();

    public Registry(List<VisualKind<?>> visuals, List<FilterKind<?>> filters) {
        visuals.forEach(kind -> this.visuals.put(kind.type(), kind));
        filters.forEach(kind -> this.filters.put(kind.type(), kind));
    }

    /** All kinds of visual, in the order in which they are offered. */
    public List<VisualKind<?>> visuals() {
        return List.copyOf(visuals.values());
    }

    public List<FilterKind<?>> filters() {
        return List.copyOf(filters.values());
    }

    /** The kind of this name. */
    public Optional<VisualKind<?>> visual(String name) {
        return visuals().stream().filter(k -> k.name().equals(name)).findFirst();
    }

    /** The kind of a visual, which takes it. */
    @SuppressWarnings("unchecked")
    public <V extends Visual> VisualKind<V> of(V visual) {
        // The map pairs each class with the kind that takes it.
        return (VisualKind<V>) visuals.get(visual.getClass());
    }

    @SuppressWarnings("unchecked")
    public <F extends Filter> FilterKind<F> of(F filter) {
        return (FilterKind<F>) filters.get(filter.getClass());
    }
}
