package sarnik.data;

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
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.table.CodedColumn;
import sarnik.table.Column;

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
     */
    public record Hop(long from, String column, long to, String equals) {

        private Hop back() {
            return new Hop(to, equals, from, column);
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
            for (long other : seen)
                if (one < other && isPlaced(one) && isPlaced(other))
                    both(new Hop(one, PlacedTable.PLACE, other, PlacedTable.PLACE));
    }

    private static List<Hop> ties(LoadedDataset dataset) {
        List<Hop> ties = new ArrayList<>();
        if (dataset.placing() instanceof Placing.ByTie tie)
            ties.add(new Hop(dataset.id(), tie.column(), tie.dataset(), tie.equals()));
        for (Tie tie : dataset.ties()) ties.add(new Hop(dataset.id(), tie.column(), tie.dataset(), tie.equals()));
        return ties;
    }

    private boolean fits(Hop hop) {
        return has(hop.from(), hop.column()) && has(hop.to(), hop.equals());
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
            for (Hop hop : from(at.to())) if (hop.column().equals(at.equals())) open.add(hop);
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
            LoadedDataset from = datasets.get(hop.from());
            Query keys = Query.by(left, List.of(new GroupKey.Of(hop.column())), List.of(Measure.ROWS))
                    .filled();
            condition = new Condition.Among(hop.equals(), from.table(), keys, 0, false);
            List<Stage> next = new ArrayList<>(datasets.get(hop.to()).rules());
            next.add(new Stage("those", List.of(condition)));
            left = next;
        }
        return Objects.requireNonNull(condition, "a way has a tie at least");
    }

    /** The way in words, with how many rows find a partner at all: "by way of code = kiosk of Refills (98 % of rows of Kiosks have a partner)". */
    public String words(List<Hop> way) {
        StringBuilder words = new StringBuilder();
        for (Hop hop : way) {
            words.append(words.length() == 0 ? "by way of " : ", then ");
            LoadedDataset to = datasets.get(hop.to());
            LoadedDataset from = datasets.get(hop.from());
            if (hop.column().equals(PlacedTable.PLACE))
                words.append("the same place in ").append(from.name());
            else
                words.append(ColumnWords.of(hop.equals()))
                        .append(" = ")
                        .append(ColumnWords.of(hop.column()))
                        .append(" of ")
                        .append(from.name());
            double share = partners(hop);
            words.append(" (")
                    .append(share == 1 ? "all" : share < 0.01 ? "under 1 %" : (int) (share * 100) + " %")
                    .append(share == 1 ? " rows of " : " of rows of ")
                    .append(to.name())
                    .append(" have a partner)");
        }
        return words.toString();
    }

    /** The share of rows at the end of a tie that have a partner at its beginning, 0 to 1. */
    public double partners(Hop hop) {
        LoadedDataset to = datasets.get(hop.to());
        Column theirs = datasets.get(hop.from()).table().column(hop.column());
        return to.worked().share(hop + " " + System.identityHashCode(theirs), () -> {
            Set<String> known = values(theirs);
            Column mine = to.table().column(hop.equals());
            if (mine.size() == 0) return 1;
            long found = 0;
            if (mine instanceof CodedColumn coded) {
                boolean[] has = new boolean[coded.dictionary().size()];
                for (int code = 0; code < has.length; code++)
                    has[code] = known.contains(coded.dictionary().get(code));
                for (int row = 0; row < coded.size(); row++) {
                    int code = coded.codes().get(row);
                    if (code >= 0 && has[code]) found++;
                }
            } else {
                for (int row = 0; row < mine.size(); row++)
                    if (!mine.isMissing(row) && known.contains(mine.text(row))) found++;
            }
            return (double) found / mine.size();
        });
    }

    private static Set<String> values(Column column) {
        if (column instanceof CodedColumn coded) return new HashSet<>(coded.dictionary());
        Set<String> values = new HashSet<>();
        for (int row = 0; row < column.size(); row++) if (!column.isMissing(row)) values.add(column.text(row));
        return values;
    }
}
