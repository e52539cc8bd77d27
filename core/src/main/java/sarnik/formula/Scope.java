package sarnik.formula;

import java.util.LinkedHashMap;
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

    public Scope withPlaces(Set<String> names, Set<String> sets) {
        return new Scope(columns, parameters, names, sets);
    }

    public Scope withParameters(Map<String, Kind> kinds) {
        return new Scope(columns, kinds, places, boundarySets);
    }
}
