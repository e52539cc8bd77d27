package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;
import sarnik.geo.Area;
import sarnik.geo.IndexedSet;
import sarnik.language.Language;
import sarnik.place.AreaMatcher;
import sarnik.place.Place;
import sarnik.place.PlaceLevel;
import sarnik.place.PlacedTable;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.ColumnType;
import sarnik.table.Sums;
import sarnik.table.Table;

/**
 * The places of a dataset put together: into the areas that hold them, into cells of a grid, or into provinces. Each
 * way is
 * worked out when it is first asked for and kept as a column beside {@link PlacedTable#PLACE}, so that any measure can
 * be
 * asked of the groups: a median of a province is the median of its rows, not of its towns' medians. Safe to share
 * between threads.
 */
public final class RolledUp {

    /** Width of a cell, pixels at its zoom. */
    public static final int CELL = 56;

    /** How many zooms' cells are kept. */
    public static final int MOST_CELLS = 4;

    private static final String AREAS = "@area ";
    private static final String CELLS = "@cell ";
    private static final String PROVINCES = "@provinces";
    private static final String FROM = " from";

    private final Boundaries boundaries;
    private final Map<String, Groups> kept = new ConcurrentHashMap<>();
    private final Map<String, CodedColumn> columns = new ConcurrentHashMap<>();
    private final Map<String, PlaceSheet> sheets = new ConcurrentHashMap<>();
    /** Tables with some of these columns, by what they were before and the column: one table for equal rows. */
    private final Map<Table, Map<String, Table>> grown = Collections.synchronizedMap(new WeakHashMap<>());

    private final Map<String, Map<String, List<String>>> touching = new ConcurrentHashMap<>();

    private volatile Optional<OwnShapes> own;

    RolledUp(Boundaries boundaries) {
        this.boundaries = boundaries;
    }

    /**
     * @param of the group of each place, by the place's id
     * @param places the groups as places
     */
    record Groups(Map<String, String> of, Map<String, Place> places) {}

    /** The column of the areas of a boundary set. */
    public static String column(String set) {
        return AREAS + set;
    }

    /** The boundary set of whose areas it is the column; empty for others. */
    public static Optional<String> set(String column) {
        return column.startsWith(AREAS) && !column.endsWith(FROM)
                ? Optional.of(column.substring(AREAS.length()))
                : Optional.empty();
    }

    /** The same grouping for where rows come from. */
    public static String from(String column) {
        return column.equals(PlacedTable.PLACE) ? PlacedTable.ORIGIN : column + FROM;
    }

    /** The column of the cells of a zoom. */
    public static String cells(int zoom) {
        return CELLS + zoom;
    }

    public static boolean isCells(String column) {
        return column.startsWith(CELLS);
    }

    /** The areas of a boundary set; none where it has gone. */
    List<Area> areas(String set) {
        return boundaries.find(set).map(i -> i.set().areas()).orElse(List.of());
    }

    /** The shapes that the rows brought along. */
    Optional<OwnShapes> ownShapes(Table table, Map<String, Place> places) {
        Optional<OwnShapes> known = own;
        if (known == null) {
            // Where rows stay elsewhere, what stands in a row of their face does not belong together.
            known = table.staying() == null ? OwnShapes.of(table, places) : Optional.empty();
            own = known;
        }
        return known;
    }

    /** By the id of an area of a boundary set the ids of those that touch it; empty where the set has gone. */
    Optional<Map<String, List<String>>> touching(String set) {
        return boundaries
                .find(set)
                .map(found -> touching.computeIfAbsent(set, s -> {
                    List<String> ids = found.set().areas().stream()
                            .map(area -> "a" + set + "/" + area.code())
                            .toList();
                    int[][] of = found.touching().of();
                    Map<String, List<String>> near = new HashMap<>();
                    for (int a = 0; a < of.length; a++)
                        near.put(
                                ids.get(a),
                                Arrays.stream(of[a]).mapToObj(ids::get).toList());
                    return near;
                }));
    }

    Optional<String> credit(String set) {
        return boundaries.find(set).map(i -> i.set().credit());
    }

    /** The column of the provinces that places lie in. */
    public static String provinces() {
        return PROVINCES;
    }

    /**
     * The groups behind a column of this class.
     *
     * @throws MisfitException when the boundary set has gone
     */
    Groups groups(String column, Map<String, Place> places) {
        if (isCells(column) && !kept.containsKey(spoken(column))) forgetCells();
        String plain = column.endsWith(FROM) ? column.substring(0, column.length() - FROM.length()) : column;
        return kept.computeIfAbsent(spoken(plain), c -> {
            if (plain.startsWith(AREAS)) return byArea(plain.substring(AREAS.length()), places);
            if (plain.startsWith(CELLS)) return byCell(Integer.parseInt(plain.substring(CELLS.length())), places);
            return byProvince(places);
        });
    }

    /** What groups are kept by: those around a place are called something in each language. */
    private static String spoken(String column) {
        return isCells(column) ? column + " " + Language.spoken() : column;
    }

    /** Cells of many zooms of a million places would fill the memory: those of a few zooms are kept. */
    private void forgetCells() {
        if (kept.keySet().stream().filter(RolledUp::isCells).count() < MOST_CELLS) return;
        for (Map<String, ?> of : List.of(kept, columns, sheets)) of.keySet().removeIf(RolledUp::isCells);
        grown.clear();
    }

    /** How many groupings are kept. */
    int held() {
        return kept.size();
    }

    /** Whether it is the name of one of these columns. */
    public static boolean isOne(String column) {
        return column.startsWith(AREAS) || column.startsWith(CELLS) || column.startsWith(PROVINCES);
    }

    /** A table with one of these columns beside its own; the same table where the column is an ordinary one. */
    Table with(String column, Table table, Map<String, Place> places) {
        if (!isOne(column) || table.find(column).isPresent()) return table;
        String source = column.endsWith(FROM) ? PlacedTable.ORIGIN : PlacedTable.PLACE;
        CodedColumn of =
                columns.computeIfAbsent(column, c -> grouped((CodedColumn) table.column(source), groups(c, places)));
        return grown.computeIfAbsent(table, t -> new ConcurrentHashMap<>())
                .computeIfAbsent(column, c -> table.with(Map.of(c, of)));
    }

    private static CodedColumn grouped(CodedColumn before, Groups groups) {
        Map<String, Integer> numbers = new LinkedHashMap<>();
        int[] to = before.dictionary().stream()
                .mapToInt(id -> {
                    String group = groups.of().get(id);
                    if (group == null) return -1;
                    Integer known = numbers.putIfAbsent(group, numbers.size());
                    return known == null ? numbers.size() - 1 : known;
                })
                .toArray();
        int[] codes = new int[before.size()];
        for (int row = 0; row < codes.length; row++) {
            int code = before.codes().get(row);
            codes[row] = code < 0 ? -1 : to[code];
        }
        return new CodedColumn(
                ColumnType.TEXT, Codes.of(codes, codes.length, numbers.size()), List.copyOf(numbers.keySet()));
    }

    /** The places of a column as the browser keeps them. */
    PlaceSheet sheet(String column, Map<String, Place> places) {
        return sheets.computeIfAbsent(
                column + " " + Language.spoken(), c -> PlaceSheet.of(places.values(), boundaries));
    }

    private Groups byArea(String set, Map<String, Place> places) {
        IndexedSet indexed = boundaries
                .find(set)
                .orElseThrow(() -> new MisfitException(phrase(
                        "The boundary set “{0}” has gone. Choose another in the layer’s brief, or bring it in again.",
                        set)));
        Map<String, String> of = new HashMap<>();
        Map<String, Place> groups = new HashMap<>();
        Map<String, Area> byCode = indexed.set().byCode();
        for (Place place : places.values()) {
            boolean itself = place.level() == PlaceLevel.AREA && place.id().equals("a" + set + "/" + place.areaCode());
            Optional<Area> area =
                    itself ? Optional.ofNullable(byCode.get(place.areaCode())) : indexed.at(place.lon(), place.lat());
            area.ifPresent(a -> {
                Place group = itself ? place : AreaMatcher.place(set, a);
                groups.putIfAbsent(group.id(), group);
                of.put(place.id(), group.id());
            });
        }
        return new Groups(of, groups);
    }

    /** A cell with one place is that place; one with several lies in their middle. */
    private static Groups byCell(int zoom, Map<String, Place> places) {
        double cells = 256 * Math.pow(2, zoom) / CELL;
        Map<Long, List<Place>> members = new HashMap<>();
        for (Place place : places.values()) {
            long x = (long) Math.floor((place.lon() / 360 + 0.5) * cells);
            double lat = Math.toRadians(Math.max(-85, Math.min(85, place.lat())));
            long y = (long) Math.floor((0.5 - Math.log(Math.tan(Math.PI / 4 + lat / 2)) / (2 * Math.PI)) * cells);
            members.computeIfAbsent(x << 32 | y, k -> new ArrayList<>()).add(place);
        }
        Map<String, String> of = new HashMap<>();
        Map<String, Place> groups = new HashMap<>();
        members.forEach((cell, inside) -> {
            Place group = inside.get(0);
            if (inside.size() > 1) {
                double lon = Sums.mean(inside.stream().mapToDouble(Place::lon).toArray());
                double lat = Sums.mean(inside.stream().mapToDouble(Place::lat).toArray());
                Place largest = inside.stream()
                        .max(Comparator.comparingLong(Place::population).thenComparing(Place::id))
                        .orElseThrow();
                group = new Place(
                        "c" + zoom + "/" + (cell >> 32) + "/" + (int) (long) cell,
                        PlaceLevel.POINT,
                        phrase("{0} places around {1}", inside.size(), largest.said()),
                        largest.country(),
                        largest.region(),
                        largest.province(),
                        false,
                        lon,
                        lat,
                        inside.size());
            }
            groups.put(group.id(), group);
            for (Place place : inside) of.put(place.id(), group.id());
        });
        return new Groups(of, groups);
    }

    private Groups byProvince(Map<String, Place> places) {
        Map<String, String> of = new HashMap<>();
        Map<String, Place> groups = new HashMap<>();
        for (Place place : places.values()) {
            Place group = boundaries.provinceOf(place).orElse(place);
            groups.put(group.id(), group);
            of.put(place.id(), group.id());
        }
        return new Groups(of, groups);
    }
}
