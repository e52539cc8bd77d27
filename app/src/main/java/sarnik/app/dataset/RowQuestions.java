package sarnik.app.dataset;

import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import sarnik.place.Placing;
import sarnik.table.Reading;
import sarnik.table.Shaping;

/**
 * What the look page asks of the rows of a file that may be meant in another way than they stand.
 *
 * @param found rows and cells of that kind
 * @param merged columns with numbers in merged cells that would be added up once for each of their rows
 * @param mergedOnce those of which only the first cell holds
 * @param repeated columns of numbers that stand beside each of the periods that have become rows, as the file names them: a
 *     sum counts them once for each
 */
record RowQuestions(
        Reading.Rows found, List<Reading.Merged> merged, List<Reading.Merged> mergedOnce, List<String> repeated) {

    static RowQuestions of(BringIn bringIn) {
        Reading reading = bringIn.reading();
        Set<String> degrees = degrees(bringIn);
        List<Reading.Merged> merged = reading.rows().merged().stream()
                .filter(column -> !degrees.contains(column.column()))
                .toList();
        return new RowQuestions(
                reading.rows(),
                merged.stream().filter(column -> !column.once()).toList(),
                merged.stream().filter(Reading.Merged::once).toList(),
                repeated(bringIn, degrees));
    }

    /** Columns of coordinates as the file names them: nobody adds those up. */
    private static Set<String> degrees(BringIn bringIn) {
        Set<String> names = new HashSet<>(bringIn.reading().position());
        if (bringIn.guess() instanceof Placing.ByCoordinates by)
            Stream.of(by.lat(), by.lon()).filter(Objects::nonNull).forEach(names::add);
        Set<String> degrees = new HashSet<>();
        names.forEach(name -> degrees.add(bringIn.reading().source().get(name)));
        return degrees;
    }

    private static List<String> repeated(BringIn bringIn, Set<String> degrees) {
        Shaping.Turn turn = bringIn.intake().shaping().turn();
        if (turn == null) return List.of();
        Reading reading = bringIn.reading();
        int period = reading.columns().indexOf(turn.period());
        return reading.source().entrySet().stream()
                .filter(column -> reading.columns().indexOf(column.getValue()) < period
                        && reading.table().column(column.getKey()).type().isNumber()
                        && !degrees.contains(column.getValue())
                        && !column.getValue().equals(turn.year()))
                .map(Map.Entry::getValue)
                .toList();
    }

    /** All columns that are filled down once those with gaps are, too. */
    public Set<String> downs() {
        return both(found.filledDown().keySet(), found.gaps().keySet());
    }

    /** All columns of whose merged numbers the first holds once all that are found do so. */
    public Set<String> onces() {
        return both(names(mergedOnce), names(merged));
    }

    private static List<String> names(List<Reading.Merged> columns) {
        return columns.stream().map(Reading.Merged::column).toList();
    }

    private static Set<String> both(Collection<String> some, Collection<String> more) {
        Set<String> all = new LinkedHashSet<>(some);
        all.addAll(more);
        return all;
    }
}
