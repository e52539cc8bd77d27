package sarnik.place;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.IntStream;
import sarnik.geo.BoundarySet;
import sarnik.geo.Projection;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/** Places the rows of a table; the work is done once for each distinct set of words. */
public final class TablePlacer {

    /** A place takes its time from a town this near, metres. */
    private static final double SAME_CLOCK = 100_000;

    private final Gazetteer gazetteer;
    private final Decisions decisions;
    private final Land land;
    private final Watch watch;

    public TablePlacer(Gazetteer gazetteer) {
        this(gazetteer, Decisions.NONE);
    }

    /**
     * @param decisions what holds whatever is found
     */
    public TablePlacer(Gazetteer gazetteer, Decisions decisions) {
        this(gazetteer, decisions, Land.EVERYWHERE, Watch.NONE);
    }

    /**
     * @param decisions what holds whatever is found
     * @param land tells rows whose coordinates lie in the sea
     * @param watch told how far it has come; what it throws stops the placing
     */
    public TablePlacer(Gazetteer gazetteer, Decisions decisions, Land land, Watch watch) {
        this.watch = watch;
        this.gazetteer = gazetteer;
        this.decisions = decisions;
        this.land = land;
    }

    /**
     * Places by names.
     *
     * @throws IllegalArgumentException when the recipe names no column, or one that the table does not have
     */
    public PlacedTable byName(Table table, Placing.ByName recipe) {
        if (recipe.isEmpty()) throw new IllegalArgumentException("No column is named that tells where a row is");
        CodedColumn[] columns = {
            coded(table, recipe.town()), coded(table, recipe.province()), coded(table, recipe.country())
        };
        return place(
                table,
                columns,
                new JointPlacer(new NamePlacer(gazetteer), watch)::place,
                row -> new Words(text(columns[0], row), text(columns[1], row), text(columns[2], row)));
    }

    /**
     * Places by coordinates, in degrees or a projected system.
     *
     * @throws IllegalArgumentException when the recipe names a column that the table does not have
     */
    public PlacedTable byCoordinates(Table table, Placing.ByCoordinates recipe) {
        if (recipe.lat() == null) throw new IllegalArgumentException("No column is named that tells where a row is");
        CodedColumn[] columns = recipe.lon() == null
                ? new CodedColumn[] {coded(table, recipe.lat())}
                : new CodedColumn[] {coded(table, recipe.lat()), coded(table, recipe.lon()), null};
        Projection projection = recipe.epsg() == null
                ? Projection.DEGREES
                : Projection.ofEpsg(recipe.epsg())
                        .orElseThrow(() -> new IllegalArgumentException(
                                "The EPSG register that ships has no system " + recipe.epsg()));
        List<Projection> alike = recipe.alike() == null
                ? List.of()
                : recipe.alike().stream()
                        .flatMap(code -> Projection.ofEpsg(code).stream())
                        .toList();
        return place(
                table,
                columns,
                new CoordinatePlacer(gazetteer, projection, alike, land, watch)::place,
                row -> new Words(text(columns[0], row), recipe.lon() == null ? null : text(columns[1], row), null));
    }

    /**
     * Places things where they say that they are.
     *
     * @throws IllegalArgumentException when the recipe names a column that the table does not have
     */
    public PlacedTable byThing(Table table, Placing.ByThing recipe) {
        CodedColumn[] columns = {coded(table, recipe.thing()), coded(table, recipe.lat()), coded(table, recipe.lon())};
        Map<String, String> names = new HashMap<>();
        if (recipe.name() != null) {
            Column called = table.column(recipe.name());
            for (int row = 0; row < table.rows(); row++)
                if (!called.isMissing(row)) names.put(text(columns[0], row), called.text(row));
        }
        ThingPlacer placer = new ThingPlacer(gazetteer, names);
        return place(
                table,
                columns,
                all -> all.stream().map(placer::place).toList(),
                row -> new Words(text(columns[0], row), text(columns[1], row), text(columns[2], row)));
    }

    /**
     * Places by one column of mixed words.
     *
     * @throws IllegalArgumentException when the table has no such column
     */
    public PlacedTable byWords(Table table, Placing.ByWords recipe) {
        CodedColumn column = needed(table, recipe.column());
        return place(
                table,
                new CodedColumn[] {column},
                all -> new JointPlacer(new NamePlacer(gazetteer), watch)
                        .place(all.stream()
                                .map(w -> Words.of(w.town(), gazetteer))
                                .toList()),
                row -> new Words(text(column, row), null, null));
    }

    /**
     * Places by codes.
     *
     * @throws IllegalArgumentException when the table has no such column
     */
    public PlacedTable byCode(Table table, Placing.ByCode recipe) {
        CodedColumn column = needed(table, recipe.column());
        return place(
                table,
                new CodedColumn[] {column},
                all -> all.stream().map(w -> code(w.town())).toList(),
                row -> new Words(text(column, row), null, null));
    }

    /**
     * Places by the areas of a boundary set.
     *
     * @throws IllegalArgumentException when the table has no such column
     */
    public PlacedTable byArea(Table table, String column, BoundarySet set) {
        CodedColumn values = needed(table, column);
        AreaMatcher matcher = new AreaMatcher(set);
        return place(
                table,
                new CodedColumn[] {values},
                all -> all.stream().map(w -> matcher.match(w.town())).toList(),
                row -> new Words(text(values, row), null, null));
    }

    private Match code(String code) {
        if (code.isEmpty()) return Match.unplaced("The code is missing.");
        // Ids of places are codes too: what was written with them is read again.
        Optional<Place> exact = gazetteer.byCode(code).or(() -> Decisions.place(code, gazetteer));
        if (exact.isPresent()) return new Match(exact.get(), Match.State.PLACED, 0.99, "The code fits.", List.of());
        boolean digits = code.matches("[0-9]+");
        Optional<Place> mended =
                digits && (code.length() == 1 || code.length() == 4) ? gazetteer.byCode("0" + code) : Optional.empty();
        return mended.map(p ->
                        new Match(p, Match.State.PLACED, 0.95, "The code fits with its lost leading zero.", List.of()))
                .orElseGet(() -> Match.unplaced("No place has the code “" + code + "”."));
    }

    /**
     * Places by any recipe but a tie, which needs the other table.
     *
     * @throws IllegalArgumentException when the recipe does not fit the table
     */
    public PlacedTable by(Table table, Placing recipe) {
        if (recipe == null) throw new IllegalArgumentException("A part of how rows are placed is missing");
        if (recipe instanceof Placing.ByName names) return byName(table, names);
        if (recipe instanceof Placing.ByCoordinates coordinates) return byCoordinates(table, coordinates);
        if (recipe instanceof Placing.ByThing thing) return byThing(table, thing);
        if (recipe instanceof Placing.ByWords words) return byWords(table, words);
        if (recipe instanceof Placing.ByCode code) return byCode(table, code);
        if (recipe instanceof Placing.FromTo both) return by(table, both.to()).from(by(table, both.from()));
        throw new IllegalArgumentException("This placing needs the table or the boundary set it leads to");
    }

    /**
     * Places by equal values in another placed table.
     *
     * @param other the other table, placed
     * @throws IllegalArgumentException when a column is missing
     */
    public PlacedTable byTie(Table table, String column, PlacedTable other, String equals) {
        Column theirs = other.table().column(equals);
        Column places = other.table().column(PlacedTable.PLACE);
        Map<String, String> placeOf = new HashMap<>();
        Map<String, Boolean> present = new HashMap<>();
        for (int row = 0; row < theirs.size(); row++) {
            String key = theirs.text(row);
            if (key == null) continue;
            present.put(key, true);
            String place = places.text(row);
            if (place != null) placeOf.put(key, place);
        }
        CodedColumn mine = needed(table, column);
        Map<String, Place> found = other.places();
        return place(
                table,
                new CodedColumn[] {mine},
                all -> all.stream()
                        .map(words -> {
                            String key = words.town();
                            if (key.isEmpty()) return Match.unplaced("The value is missing.");
                            Place place = found.get(placeOf.get(key));
                            if (place != null)
                                return new Match(place, Match.State.PLACED, 0.99, "The tied row lies here.", List.of());
                            return Match.unplaced(
                                    present.containsKey(key)
                                            ? "The tied row “" + key + "” is itself unplaced."
                                            : "No row over there has “" + key + "”.");
                        })
                        .toList(),
                row -> new Words(text(mine, row), null, null));
    }

    /** Finds the distinct words of the rows, has them matched together, and spreads what was found over the rows. */
    private PlacedTable place(
            Table table,
            CodedColumn[] columns,
            Function<List<Words>, List<Match>> match,
            Function<Integer, Words> words) {
        int rows = table.rows();
        int[] keyOfRow = new int[rows];
        List<int[]> firsts = new ArrayList<>();
        Map<Object, int[]> keys = new HashMap<>();
        for (int row = 0; row < rows; row++) {
            Object key = key(columns, row);
            int[] entry = keys.get(key);
            if (entry == null) {
                entry = new int[] {firsts.size(), row, 0};
                keys.put(key, entry);
                firsts.add(entry);
            }
            entry[2]++;
            keyOfRow[row] = entry[0];
        }
        List<Words> distinct =
                firsts.stream().map(entry -> words.apply(entry[1])).toList();
        List<Match> matches = decisions.over(distinct, match.apply(distinct));
        List<PlacedTable.Find> finds = new ArrayList<>(firsts.size());
        for (int i = 0; i < distinct.size(); i++)
            finds.add(new PlacedTable.Find(distinct.get(i), firsts.get(i)[2], matches.get(i)));

        Map<String, Column> added = added(rows, keyOfRow, finds);
        if (table.names().stream().anyMatch(name -> table.column(name).type() == ColumnType.TIME))
            added.put(PlacedTable.ZONE, spread(rows, keyOfRow, finds, this::zone));
        Table placed = table.with(added);
        Integer[] order = IntStream.range(0, finds.size())
                .boxed()
                .sorted(Comparator.comparingLong(i -> -finds.get(i).rows()))
                .toArray(Integer[]::new);
        int[] rank = new int[order.length];
        for (int i = 0; i < order.length; i++) rank[order[i]] = i;
        int[] findOfRow = IntStream.of(keyOfRow).map(k -> rank[k]).toArray();
        return new PlacedTable(placed, Arrays.stream(order).map(finds::get).toList(), findOfRow);
    }

    /** The time zone of a place, or that of the town beside it; null where neither has one. */
    private String zone(Place place) {
        TimeZones zones = TimeZones.shipped();
        return zones.of(place)
                .or(() -> gazetteer
                        .nearestTown(place.lon(), place.lat(), SAME_CLOCK)
                        .flatMap(zones::of))
                .orElse(null);
    }

    private Map<String, Column> added(int rows, int[] keyOfRow, List<PlacedTable.Find> finds) {
        Map<String, Column> added = new LinkedHashMap<>();
        added.put(PlacedTable.PLACE, spread(rows, keyOfRow, finds, Place::id));
        added.put(
                PlacedTable.PROVINCE,
                spread(
                        rows,
                        keyOfRow,
                        finds,
                        p -> gazetteer.provinceOf(p).map(Place::name).orElse(null)));
        added.put(
                PlacedTable.COUNTRY,
                spread(
                        rows,
                        keyOfRow,
                        finds,
                        p -> gazetteer.area(p.country()).map(Place::name).orElse(null)));
        return added;
    }

    /** A text column with a value a find, spread over the rows that carry it. */
    private static Column spread(
            int rows, int[] keyOfRow, List<PlacedTable.Find> finds, Function<Place, String> value) {
        Map<String, Integer> codes = new LinkedHashMap<>();
        int[] codeOfKey = new int[finds.size()];
        for (int key = 0; key < codeOfKey.length; key++) {
            Place place = finds.get(key).match().place();
            String text = place == null ? null : value.apply(place);
            if (text == null) codeOfKey[key] = -1;
            else {
                codes.putIfAbsent(text, codes.size());
                codeOfKey[key] = codes.get(text);
            }
        }
        int[] column = new int[rows];
        for (int row = 0; row < rows; row++) column[row] = codeOfKey[keyOfRow[row]];
        return new CodedColumn(ColumnType.TEXT, Codes.of(column, rows, codes.size()), List.copyOf(codes.keySet()));
    }

    private static Object key(CodedColumn[] columns, int row) {
        long low = columns[0] == null ? -1 : columns[0].codes().get(row);
        if (columns.length == 1) return low;
        long middle = columns[1] == null ? -1 : columns[1].codes().get(row);
        long high = columns[2] == null ? -1 : columns[2].codes().get(row);
        // Three codes below 2^21 fit one key; larger dictionaries fall back to a list.
        if (low < 1 << 20 && middle < 1 << 20 && high < 1 << 20)
            return (low + 1) | (middle + 1) << 21 | (high + 1) << 42;
        return List.of(low, middle, high);
    }

    private static String text(CodedColumn column, int row) {
        if (column == null) return null;
        String text = column.text(row);
        return text == null ? "" : text;
    }

    private static CodedColumn coded(Table table, String name) {
        if (name == null) return null;
        Column column = table.column(name);
        return column instanceof CodedColumn coded ? coded : asText(column);
    }

    private static CodedColumn needed(Table table, String name) {
        if (name == null) throw new IllegalArgumentException("No column is named that tells where a row is");
        return coded(table, name);
    }

    /** Codes that were read as numbers (a statistical code, say) are words here. */
    private static CodedColumn asText(Column column) {
        Map<String, Integer> codes = new LinkedHashMap<>();
        int[] values = new int[column.size()];
        for (int row = 0; row < values.length; row++) {
            String text = column.text(row);
            if (text == null) values[row] = -1;
            else {
                codes.putIfAbsent(text, codes.size());
                values[row] = codes.get(text);
            }
        }
        return new CodedColumn(
                ColumnType.TEXT, Codes.of(values, values.length, codes.size()), List.copyOf(codes.keySet()));
    }
}
