package sarnik.app.dataset;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.people.SignedIn;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.PlacingGuess;
import sarnik.place.Watch;
import sarnik.table.CodedColumn;
import sarnik.table.ColumnType;
import sarnik.table.Reading;
import sarnik.table.Table;

/** Guesses how the rows of a file that is being brought in might be placed. */
@Component
class LikelyPlacing {

    /** The share of a column's values that a tie has to fit. */
    private static final double TIED = 0.8;

    private static final int LOOKED_UP = 200;
    private static final int SAMPLED = 500;

    private final DatasetService datasets;
    private final KeyColumns keyColumns;
    private final BoundarySets boundaries;

    LikelyPlacing(DatasetService datasets, KeyColumns keyColumns, BoundarySets boundaries) {
        this.datasets = datasets;
        this.keyColumns = keyColumns;
        this.boundaries = boundaries;
    }

    /**
     * How the rows might be placed: by the file's own shapes, codes of areas, coordinates or names, else by a code
     * that a placed
     * dataset has too; null when nothing fits. Where the shapes are areas, codes of areas that are known come before
     * them.
     */
    Placing of(Reading reading, boolean areas, SignedIn person) {
        Table table = reading.table();
        PlacingGuess guess = new PlacingGuess(Gazetteer.shipped());
        Optional<Placing> own = guess.ownShapes(reading);
        if (own.isPresent() && !areas) return own.get();
        Optional<Placing> said =
                guess.codes(table, boundaries.likely()).or(() -> own).or(() -> guess.guess(table));
        if (said.isPresent() && said.get() instanceof Placing.FromTo) return said.get();
        return tiedEnds(table, person)
                .or(() -> said)
                .or(() -> tie(table, person))
                .orElse(null);
    }

    /** Origin and destination that are both tied to one placed dataset, as the airports of flights are. */
    private Optional<Placing> tiedEnds(Table table, SignedIn person) {
        List<String> ends = PlacingGuess.ends(table).orElse(List.of());
        Map<String, List<String>> samples = samples(table, ends);
        if (samples.size() < 2) return Optional.empty();
        Set<String> all = samples.values().stream().flatMap(List::stream).collect(Collectors.toSet());
        for (KeyColumns.KeyColumn key : keyColumns.keys(person)) {
            Set<String> known = keyColumns.occurring(key, all);
            if (samples.values().stream()
                    .allMatch(s -> s.stream().filter(known::contains).count() > TIED * s.size())) {
                return Optional.of(new Placing.FromTo(
                        new Placing.ByTie(ends.get(0), key.dataset().id(), key.column()),
                        new Placing.ByTie(ends.get(1), key.dataset().id(), key.column())));
            }
        }
        return Optional.empty();
    }

    /** Some of the values of those columns that hold texts. */
    private static Map<String, List<String>> samples(Table table, List<String> columns) {
        Map<String, List<String>> samples = new LinkedHashMap<>();
        for (String name : columns) {
            if (!(table.column(name) instanceof CodedColumn coded)
                    || coded.type() != ColumnType.TEXT
                    || coded.dictionary().isEmpty()) continue;
            List<String> words = coded.dictionary();
            int step = Math.max(1, words.size() / LOOKED_UP);
            samples.put(
                    name,
                    IntStream.iterate(0, i -> i < words.size(), i -> i + step)
                            .mapToObj(words::get)
                            .toList());
        }
        return samples;
    }

    /**
     * The country in which more than half of a table's rows lie; empty where there is none, or they are placed in
     * another way.
     */
    Optional<String> countryOf(Table table, Placing placing) {
        if (placing instanceof Placing.ByTie || placing instanceof Placing.ByArea || placing instanceof Placing.FromTo)
            return Optional.empty();
        Table sample = table.rows() <= SAMPLED
                ? table
                : table.pick(IntStream.range(0, SAMPLED)
                        .map(i -> (int) ((long) i * table.rows() / SAMPLED))
                        .toArray());
        PlacedTable placed = datasets.place(sample, placing, Watch.NONE);
        Map<String, Long> rows = placed.finds().stream()
                .filter(f -> f.match().place() != null
                        && !f.match().place().country().isEmpty())
                .collect(Collectors.groupingBy(
                        f -> f.match().place().country(), Collectors.summingLong(PlacedTable.Find::rows)));
        return rows.entrySet().stream()
                .filter(c -> c.getValue() * 2 > sample.rows())
                .map(Map.Entry::getKey)
                .findFirst();
    }

    /** A tie that most values of a column fit. Looked up in the database, so that no other table has to be loaded. */
    private Optional<Placing> tie(Table table, SignedIn person) {
        Map<String, List<String>> samples = samples(table, table.names());
        if (samples.isEmpty()) return Optional.empty();
        Set<String> all = samples.values().stream().flatMap(List::stream).collect(Collectors.toSet());
        Placing best = null;
        double bestShare = TIED;
        for (KeyColumns.KeyColumn key : keyColumns.keys(person)) {
            Set<String> known = keyColumns.occurring(key, all);
            for (var sample : samples.entrySet()) {
                double share = (double) sample.getValue().stream()
                                .filter(known::contains)
                                .count()
                        / sample.getValue().size();
                if (share > bestShare) {
                    bestShare = share;
                    best = new Placing.ByTie(sample.getKey(), key.dataset().id(), key.column());
                }
            }
        }
        return Optional.ofNullable(best);
    }
}
