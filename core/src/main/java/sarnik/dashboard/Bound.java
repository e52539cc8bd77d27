package sarnik.dashboard;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.narrow.Filter;
import sarnik.narrow.Narrowing;
import sarnik.narrow.Parameter;
import sarnik.state.ReaderState;
import sarnik.state.Value;
import sarnik.table.Rounded;
import sarnik.visual.Visual;

/** A dashboard with the values of its parameters where they stand in words of its sentences. */
public final class Bound {

    private Bound() {}

    /**
     * The same dashboard where no parameter stands in a sentence. A value that does not fit where it stands is left
     * out.
     */
    public static Dashboard of(Dashboard dashboard, ReaderState state, PartJson json) {
        Map<String, Map<String, Object>> values = new LinkedHashMap<>();
        dashboard.parameters().forEach((id, parameter) -> {
            if (parameter.at() == null || parameter.at().isEmpty()) return;
            Optional<Object> bound = Narrowing.value(state, id, parameter).map(value -> inJson(parameter, value));
            if (bound.isEmpty()) return;
            for (String at : parameter.at()) {
                String[] path = at.split("/", 4);
                values.computeIfAbsent(path[1] + "/" + path[2], k -> new LinkedHashMap<>())
                        .put("/" + path[3], bound.get());
            }
        });
        if (values.isEmpty()) return dashboard;
        Map<String, Visual> visuals = new LinkedHashMap<>(dashboard.visuals());
        Map<String, Filter> filters = new LinkedHashMap<>(dashboard.filters());
        values.forEach((part, at) -> {
            String id = part.substring(part.indexOf('/') + 1);
            if (part.startsWith("visuals/"))
                visuals.computeIfPresent(id, (k, visual) -> set(visual, at, json, json::visual));
            else filters.computeIfPresent(id, (k, filter) -> set(filter, at, json, json::filter));
        });
        return dashboard.with(visuals, filters);
    }

    private static Object inJson(Parameter parameter, Value value) {
        Object bound = parameter.bound(value);
        // A whole number stands where only whole ones may: a count.
        if (bound instanceof Double number && number == Rounded.even(number) && Math.abs(number) < 1e15)
            return number.longValue();
        return bound instanceof Number || bound instanceof Boolean || parameter.kind() == Parameter.Type.WORD
                ? bound
                : bound.toString();
    }

    private interface Reading<T> {
        T read(Map<String, Object> plain);
    }

    private static <T> T set(T part, Map<String, Object> at, PartJson json, Reading<T> reading) {
        Map<String, Object> plain = json.plain(part);
        at.forEach((pointer, value) -> put(plain, pointer.substring(1).split("/"), value));
        try {
            return reading.read(plain);
        } catch (RuntimeException unfit) {
            return part;
        }
    }

    @SuppressWarnings("unchecked")
    private static void put(Map<String, Object> into, String[] path, Object value) {
        Object here = into;
        for (int i = 0; i < path.length; i++) {
            String name = path[i].replace("~1", "/").replace("~0", "~");
            boolean last = i == path.length - 1;
            if (here instanceof Map<?, ?> map) {
                Map<String, Object> object = (Map<String, Object>) map;
                if (last) object.put(name, value);
                else here = object.computeIfAbsent(name, k -> new LinkedHashMap<String, Object>());
            } else if (here instanceof List<?> list && name.matches("\\d+") && Integer.parseInt(name) < list.size()) {
                List<Object> array = (List<Object>) list;
                if (last) array.set(Integer.parseInt(name), value);
                else here = array.get(Integer.parseInt(name));
            } else {
                return;
            }
        }
    }
}
