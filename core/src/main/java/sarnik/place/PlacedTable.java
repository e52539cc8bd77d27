package sarnik.place;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import sarnik.table.Table;

/**
 * A table whose rows are located. Three columns are added to its own: {@link #PLACE} (place ids), {@link #PROVINCE}
 * and {@link #COUNTRY} (names); they are missing where a row is unplaced.
 *
 * @param table the rows with the added columns
 * @param finds what was found for each distinct set of words, commonest first
 * @param findOfRow for each row the index of its find
 * @param origin the same rows placed where they come from; null where they come from nowhere
 */
public record PlacedTable(Table table, List<Find> finds, int[] findOfRow, PlacedTable origin) {

    /** Names of the added columns; no column of a file starts with @. */
    public static final String PLACE = "@place";

    public static final String PROVINCE = "@province";
    public static final String COUNTRY = "@country";

    /** IANA's name of the time zone; only where the table holds times of the day. */
    public static final String ZONE = "@zone";

    /** The place ids of origins, for rows that come from somewhere. */
    public static final String ORIGIN = "@origin";

    public PlacedTable {
        finds = List.copyOf(finds);
    }

    /** Rows that come from nowhere. */
    public PlacedTable(Table table, List<Find> finds, int[] findOfRow) {
        this(table, finds, findOfRow, null);
    }

    /** These rows as destinations, and another placing of the same rows as their origins. */
    public PlacedTable from(PlacedTable origins) {
        return new PlacedTable(
                table.with(java.util.Map.of(ORIGIN, origins.table.column(PLACE))), finds, findOfRow, origins);
    }

    /**
     * Some of its rows. What was found for others only is left out.
     *
     * @param picked row numbers, in the order in which they are wanted
     */
    public PlacedTable pick(int[] picked) {
        int[] fresh = new int[finds.size()];
        java.util.Arrays.fill(fresh, -1);
        long[] counts = new long[finds.size()];
        List<Integer> kept = new java.util.ArrayList<>();
        int[] findOfPicked = new int[picked.length];
        for (int i = 0; i < picked.length; i++) {
            int find = findOfRow[picked[i]];
            if (fresh[find] < 0) {
                fresh[find] = kept.size();
                kept.add(find);
            }
            findOfPicked[i] = fresh[find];
            counts[fresh[find]]++;
        }
        List<Find> left = IntStream.range(0, kept.size())
                .mapToObj(i -> {
                    Find find = finds.get(kept.get(i));
                    return new Find(find.words(), counts[i], find.match());
                })
                .toList();
        return new PlacedTable(table.pick(picked), left, findOfPicked, origin == null ? null : origin.pick(picked));
    }

    /**
     * The same with other numbers of rows, which stand for more than are here; the commonest comes first again.
     *
     * @param counts how many rows each row stands for
     */
    public PlacedTable counted(long[] counts) {
        long[] rows = new long[finds.size()];
        for (int row = 0; row < findOfRow.length; row++) rows[findOfRow[row]] += counts[row];
        int[] order = IntStream.range(0, rows.length)
                .boxed()
                .sorted(java.util.Comparator.comparingLong(find -> -rows[find]))
                .mapToInt(find -> find)
                .toArray();
        int[] place = new int[order.length];
        for (int i = 0; i < order.length; i++) place[order[i]] = i;
        return new PlacedTable(
                table,
                IntStream.of(order)
                        .mapToObj(f -> new Find(
                                finds.get(f).words(), rows[f], finds.get(f).match()))
                        .toList(),
                IntStream.of(findOfRow).map(f -> place[f]).toArray(),
                origin);
    }

    /** What was found for destinations and for origins. */
    public List<Find> allFinds() {
        return origin == null
                ? finds
                : Stream.concat(finds.stream(), origin.finds.stream()).toList();
    }

    /**
     * One distinct set of words, the rows that carry it and what was found.
     */
    public record Find(Words words, long rows, Match match) {}

    /** What was found for a row. */
    public Match match(int row) {
        return finds.get(findOfRow[row]).match();
    }

    /** Longitude and latitude of a row, degrees; null where it has no place. */
    public double[] position(int row) {
        Place place = match(row).place();
        return place == null ? null : new double[] {place.lon(), place.lat()};
    }

    /** Rows in this state. */
    public long rows(Match.State state) {
        // Of a row from one place to another the worse end counts.
        if (origin != null)
            return IntStream.range(0, findOfRow.length)
                    .filter(row -> worse(match(row).state(), origin.match(row).state()) == state)
                    .count();
        return finds.stream()
                .filter(f -> f.match().state() == state)
                .mapToLong(Find::rows)
                .sum();
    }

    /**
     * What holds for many rows alike, said once for the table instead of at each row; empty where there is nothing to
     * say.
     */
    public List<String> remarks() {
        Map<String, Long> rows = allFinds().stream()
                .collect(Collectors.groupingBy(f -> f.match().reason(), Collectors.summingLong(Find::rows)));
        List<String> remarks = new java.util.ArrayList<>();
        if (rows.containsKey(CoordinatePlacer.TURNED))
            remarks.add("Latitude and longitude stand the other way round in this table; they were turned.");
        Long far = rows.get(CoordinatePlacer.FAR);
        if (far != null) remarks.add("Of %,d rows no town lies within 100 km.".formatted(far));
        Long sea = rows.get(CoordinatePlacer.AT_SEA);
        if (sea != null) remarks.add("%,d rows lie in the sea.".formatted(sea));
        return remarks;
    }

    private static Match.State worse(Match.State a, Match.State b) {
        return a.compareTo(b) > 0 ? a : b;
    }

    /**
     * What the finds and places take in memory beside the table, bytes, with room for a grouping of the rows (a number
     * a row).
     * A find holds its words, a match and a place: about 400 bytes in all.
     */
    public long bytes() {
        return 400L * finds.size() + 8L * findOfRow.length + (origin == null ? 0 : origin.bytes());
    }

    /** The places that occur, by id. */
    public Map<String, Place> places() {
        return allFinds().stream()
                .map(f -> f.match().place())
                .filter(p -> p != null)
                .distinct()
                .collect(Collectors.toMap(Place::id, Function.identity()));
    }
}
