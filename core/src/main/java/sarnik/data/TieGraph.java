package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Condition;
import sarnik.query.GroupKey;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.Segments;
import sarnik.query.Stage;
import sarnik.query.TimeStep;
import sarnik.sql.Engines;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/**
 * How rows of one dataset follow those of another: through ties, the ties that datasets are placed by, and places that
 * both have, over as many datasets as it takes. The way with the fewest of them is taken; of several equally short ones
 * ties go before places, and those that were said first before later ones.
 */
public final class TieGraph {

    private final Map<Long, LoadedDataset> datasets = new HashMap<>();
    private final Map<Long, List<Hop>> hops = new HashMap<>();

    /**
     * A tie as it is gone along.
     *
     * @param from id of the one dataset
     * @param column its column
     * @param to id of the other
     * @param equals the other's column that means the same
     * @param step the step of time that they share; null for others
     * @param set the boundary set whose areas the places of the one are, and in whose areas those of the other lie;
     *     null for others
     */
    public record Hop(long from, String column, long to, String equals, TimeStep step, String set) {

        /** A tie of equal values. */
        public Hop(long from, String column, long to, String equals) {
            this(from, column, to, equals, null, null);
        }

        private Hop back() {
            return new Hop(to, equals, from, column, step, set);
        }

        /** Whether values are equal on both sides. */
        public boolean isEqual() {
            return step == null && set == null;
        }

        /** What ties: "the same place", "day = day", "the same week of day and week". */
        public String words() {
            if (set != null) return phrase("the same area of {0}", set);
            if (column.equals(PlacedTable.PLACE)) return phrase("the same place");
            if (step != null)
                return phrase(
                        "the same {0} of {1} and {2}", step.said(), ColumnWords.of(column), ColumnWords.of(equals));
            return ColumnWords.of(column) + " = " + ColumnWords.of(equals);
        }
    }

    /**
     * @param ids the datasets of a dashboard; those that they are tied to are found from them
     */
    public TieGraph(Collection<Long> ids, Datasets all) {
        Deque<Long> open = new ArrayDeque<>(ids);
        Set<Long> seen = new LinkedHashSet<>();
        while (!open.isEmpty()) {
            long id = open.poll();
            if (!seen.add(id)) continue;
            all.ready(id).ifPresent(dataset -> {
                datasets.put(id, dataset);
                for (Hop hop : ties(dataset)) open.add(hop.to());
            });
        }
        for (long id : seen)
            if (datasets.containsKey(id)) for (Hop hop : ties(datasets.get(id))) if (fits(hop)) both(hop);
        for (long one : seen)
            for (long other : seen) if (one < other && isPlaced(one) && isPlaced(other)) places(one, other);
    }

    /** Places are the same, or those of the one are areas that hold those of the other. */
    private void places(long one, long other) {
        String mine = areal(datasets.get(one));
        String theirs = areal(datasets.get(other));
        if (Objects.equals(mine, theirs)) {
            both(new Hop(one, PlacedTable.PLACE, other, PlacedTable.PLACE));
            return;
        }
        if (mine != null && theirs != null) return;
        String set = mine == null ? theirs : mine;
        if (!datasets.get(one).areasOf(set).isEmpty())
            both(new Hop(one, PlacedTable.PLACE, other, PlacedTable.PLACE, null, set));
    }

    /** The boundary set of which all places of a dataset are areas; null where they are others. */
    private static String areal(LoadedDataset dataset) {
        String first = dataset.places().keySet().stream().findFirst().orElse("");
        int slash = first.indexOf('/');
        if (!first.startsWith("a") || slash < 0) return null;
        String common = first.substring(0, slash + 1);
        return dataset.places().keySet().stream().allMatch(id -> id.startsWith(common))
                ? first.substring(1, slash)
                : null;
    }

    private static List<Hop> ties(LoadedDataset dataset) {
        List<Hop> ties = new ArrayList<>();
        if (dataset.placing() instanceof Placing.ByTie tie)
            ties.add(new Hop(dataset.id(), tie.column(), tie.dataset(), tie.equals()));
        for (Tie tie : dataset.ties())
            ties.add(new Hop(dataset.id(), tie.column(), tie.dataset(), tie.equals(), tie.step(), null));
        return ties;
    }

    private boolean fits(Hop hop) {
        return has(hop.from(), hop.column())
                && has(hop.to(), hop.equals())
                && (hop.step() == null || isTime(hop.from(), hop.column()) && isTime(hop.to(), hop.equals()));
    }

    private boolean isTime(long id, String column) {
        ColumnType type = datasets.get(id).table().column(column).type();
        return type == ColumnType.DATE || type == ColumnType.TIME;
    }

    private boolean has(long id, String column) {
        return datasets.containsKey(id) && datasets.get(id).table().find(column).isPresent();
    }

    private boolean isPlaced(long id) {
        return has(id, PlacedTable.PLACE);
    }

    private void both(Hop hop) {
        for (Hop one : List.of(hop, hop.back()))
            hops.computeIfAbsent(one.from(), k -> new ArrayList<>()).add(one);
    }

    /** The ties that lead away from a dataset. */
    public List<Hop> from(long dataset) {
        return hops.getOrDefault(dataset, List.of());
    }

    /** What tells a column, and all that mean the same as it does, from others. */
    public String meaning(long dataset, String column) {
        if (column.startsWith("@")) return column;
        String least = named(dataset, column);
        Deque<Hop> open = new ArrayDeque<>(List.of(new Hop(dataset, column, dataset, column)));
        Set<String> seen = new HashSet<>();
        while (!open.isEmpty()) {
            Hop at = open.poll();
            String name = named(at.to(), at.equals());
            if (!seen.add(name)) continue;
            if (name.compareTo(least) < 0) least = name;
            for (Hop hop : from(at.to())) if (hop.isEqual() && hop.column().equals(at.equals())) open.add(hop);
        }
        return least;
    }

    private static String named(long dataset, String column) {
        return dataset + "." + column;
    }

    /** The shortest way from one dataset to another; empty where none leads there. */
    public Optional<List<Hop>> way(long from, long to) {
        if (from == to) return Optional.of(List.of());
        Map<Long, Hop> by = new HashMap<>();
        Deque<Long> open = new ArrayDeque<>(List.of(from));
        Set<Long> seen = new HashSet<>(Set.of(from));
        while (!open.isEmpty()) {
            for (Hop hop : from(open.poll())) {
                if (!seen.add(hop.to())) continue;
                by.put(hop.to(), hop);
                open.add(hop.to());
            }
        }
        if (!by.containsKey(to)) return Optional.empty();
        List<Hop> way = new ArrayList<>();
        for (long at = to; at != from; at = by.get(at).from()) way.add(0, by.get(at));
        return Optional.of(way);
    }

    /**
     * What narrows the rows at the end of a way as its beginning is narrowed: those rows that have a partner that is
     * left.
     *
     * @param way at least one tie
     * @param stages of the dataset where it begins
     */
    public Condition carried(List<Hop> way, List<Stage> stages) {
        List<Stage> left = stages;
        Condition condition = null;
        for (Hop hop : way) {
            condition = carried(hop, left);
            List<Stage> next = new ArrayList<>(datasets.get(hop.to()).rules());
            next.add(new Stage("those", List.of(condition)));
            left = next;
        }
        return Objects.requireNonNull(condition, "a way has a tie at least");
    }

    private Condition carried(Hop hop, List<Stage> left) {
        LoadedDataset from = datasets.get(hop.from());
        LoadedDataset to = datasets.get(hop.to());
        GroupKey key = new GroupKey.Of(hop.column());
        if (hop.step() != null) key = new GroupKey.Step(hop.column(), hop.step(), null);
        Condition.Through through = hop.set() == null ? null : through(from, to);
        Query keys = Query.by(left, List.of(key), List.of(Measure.ROWS)).filled();
        return new Condition.Among(hop.equals(), from.table(), keys, 0, false, hop.step(), through);
    }

    /**
     * What places of one dataset stand for in another: the places that areas hold, or the areas that hold places; null
     * where both have the same kind of places.
     *
     * @throws MisfitException when the boundary set of the areas has gone, once it is asked
     */
    public static Condition.Through through(LoadedDataset from, LoadedDataset to) {
        String theirs = areal(from);
        String mine = areal(to);
        if (Objects.equals(theirs, mine) || theirs != null && mine != null) return null;
        return theirs != null ? new Held(to, null) : new Held(from, mine);
    }

    /**
     * Places that areas hold, or the areas that hold places.
     *
     * @param of the dataset whose places they are
     * @param set the boundary set of the areas that are meant; null where the places are
     */
    private record Held(LoadedDataset of, String set) implements Condition.Through {

        @Override
        public List<String> values(List<String> keys) {
            return set == null ? of.meant(keys) : of.holding(set, keys);
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Held held && held.of.table() == of.table() && Objects.equals(held.set, set);
        }

        @Override
        public int hashCode() {
            return 31 * System.identityHashCode(of.table()) + Objects.hashCode(set);
        }
    }

    /**
     * The way in words, with how many rows find a partner at all: "by way of code = kiosk of Refills (98 % of rows of
     * Kiosks have a partner)".
     */
    public String words(List<Hop> way) {
        String words = "";
        for (Hop hop : way) {
            LoadedDataset to = datasets.get(hop.to());
            LoadedDataset from = datasets.get(hop.from());
            String step = !hop.isEqual() || hop.column().equals(PlacedTable.PLACE)
                    ? phrase("{0} in {1}", hop.words(), from.name())
                    : phrase(
                            "{0} = {1} of {2}",
                            ColumnWords.of(hop.equals()), ColumnWords.of(hop.column()), from.name());
            double share = partners(hop);
            step += share == 1
                    ? phrase(" (all rows of {0} have a partner)", to.name())
                    : share < 0.01
                            ? phrase(" (under 1 % of rows of {0} have a partner)", to.name())
                            : phrase(" ({0} % of rows of {1} have a partner)", (int) (share * 100), to.name());
            words = words.isEmpty() ? phrase("by way of {0}", step) : phrase("{0}, then {1}", words, step);
        }
        return words;
    }

    /** The share of rows at the end of a tie that have a partner at its beginning, 0 to 1. */
    public double partners(Hop hop) {
        LoadedDataset to = datasets.get(hop.to());
        Column theirs = datasets.get(hop.from()).table().column(hop.column());
        return to.worked().share(hop + " " + System.identityHashCode(theirs), () -> {
            // Of rows that stay elsewhere only their words are here, not how many rows have each.
            if (!hop.isEqual()
                    || to.table().staying() != null
                    || datasets.get(hop.from()).table().staying() != null) return partners(hop, to);
            Set<String> known = values(theirs);
            Column mine = to.table().column(hop.equals());
            if (mine.size() == 0) return 1;
            long found = 0;
            long all = 0;
            for (int row = 0; row < mine.size(); row++) all += mine.weight(row);
            if (mine instanceof CodedColumn coded) {
                boolean[] has = new boolean[coded.dictionary().size()];
                for (int code = 0; code < has.length; code++)
                    has[code] = known.contains(coded.dictionary().get(code));
                for (int row = 0; row < coded.size(); row++) {
                    int code = coded.codes().get(row);
                    if (code >= 0 && has[code]) found += mine.weight(row);
                }
            } else {
                for (int row = 0; row < mine.size(); row++)
                    if (!mine.isMissing(row) && known.contains(mine.text(row))) found += mine.weight(row);
            }
            return (double) found / all;
        });
    }

    private double partners(Hop hop, LoadedDataset to) {
        if (to.table().rows() == 0) return 1;
        QueryEngine engine = new Engines(new InMemoryEngine(Segments.PLAIN));
        Stage those = new Stage("those", List.of(carried(hop, List.of())));
        return to.answer(engine, Query.of(List.of(those), List.of(), List.of(Measure.ROWS)))
                        .value(0, 0)
                / to.table().weight();
    }

    private static Set<String> values(Column column) {
        if (column instanceof CodedColumn coded) return new HashSet<>(coded.dictionary());
        Set<String> values = new HashSet<>();
        for (int row = 0; row < column.size(); row++) if (!column.isMissing(row)) values.add(column.text(row));
        return values;
    }
}
