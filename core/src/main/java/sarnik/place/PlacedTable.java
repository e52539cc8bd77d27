package sarnik.place;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import sarnik.table.Table;

/**
 * A table whose rows are located. Three columns are added to its own: {@link #PLACE} (place ids), {@link #PROVINCE}
 * and {@link #COUNTRY} (names); they are missing where a row is unplaced.
 *
 * @param table the rows with the added columns
 * @param finds what was found for each distinct set of words, commonest first
 * @param findOfRow for each row the index of its find
 */
public record PlacedTable(Table table, List<Find> finds, int[] findOfRow) {

    /** Names of the added columns; no column of a file starts with @. */
    public static final String PLACE = "@place";

    public static final String PROVINCE = "@province";
    public static final String COUNTRY = "@country";

    public PlacedTable {
        finds = List.copyOf(finds);
    }

    /**
     * One distinct set of words, the rows that carry it and what was found.
     */
    public record Find(Words words, long rows, Match match) {}

    /** What was found for a row. */
    public Match match(int row) {
        return finds.get(findOfRow[row]).match();
    }

    /** Rows in this state. */
    public long rows(Match.State state) {
        return finds.stream().filter(f -> f.match().state() == state).mapToLong(Find::rows).sum();
    }

    /** The places that occur, by id. */
    public Map<String, Place> places() {
        return finds.stream()
                .map(f -> f.match().place())
                .filter(p -> p != null)
                .distinct()
                .collect(Collectors.toMap(Place::id, Function.identity()));
    }
}
