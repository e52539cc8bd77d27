package sarnik.formula;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.table.Table;

/**
 * What a formula may name.
 *
 * @param columns types of the columns, by name
 * @param parameters types of the parameters, by name without the colon
 * @param places names of the row's places, such as {@code place}; none where rows have no place
 * @param boundarySets names of the boundary sets for {@code within}
 */
public record Scope(
        Map<String, Kind> columns, Map<String, Kind> parameters, Set<String> places, Set<String> boundarySets) {

    /** The place of a row that has one. */
    public static final String PLACE = "place";

    /** What parameters begin with that stand for whoever looks, such as {@code :viewer.province}. */
    public static final String VIEWER = "viewer";

    /** The columns of a table, without those that placing adds and without places. */
    public static Scope of(Table table) {
        Map<String, Kind> columns = new LinkedHashMap<>();
        for (String name : table.names())
            if (!name.startsWith("@"))
                columns.put(name, Kind.of(table.column(name).type()));
        return new Scope(columns, Map.of(), Set.of(), Set.of());
    }

    /**
     * The column that a name means; names without quotes do not mind case where only one column fits. Null for none.
     */
    String column(Expression.Name name) {
        if (columns.containsKey(name.name())) return name.name();
        List<String> alike = columns.keySet().stream()
                .filter(c -> c.equalsIgnoreCase(name.name()))
                .toList();
        return !name.quoted() && alike.size() == 1 ? alike.get(0) : null;
    }

    public Scope withPlaces(Set<String> names, Set<String> sets) {
        return new Scope(columns, parameters, names, sets);
    }

    public Scope withParameters(Map<String, Kind> kinds) {
        return new Scope(columns, kinds, places, boundarySets);
    }
}
