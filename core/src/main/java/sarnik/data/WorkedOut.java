package sarnik.data;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleSupplier;
import java.util.function.Supplier;
import sarnik.query.FormulaMeasure;
import sarnik.table.Column;

/**
 * What was worked out of the rows of a version beside its columns: conditions of rules as columns of yes and no, parts
 * of formulas, measures for what readers set. What was asked for last is kept. Safe to share between threads.
 */
public final class WorkedOut {

    private static final int MOST_COLUMNS = 24;

    /** Columns beyond this size in all are let go, all but the newest. */
    private static final long MOST_BYTES = 400_000_000;

    private static final int MOST_SHARES = 24;
    private static final int MOST_MEASURES = 48;
    private static final int MOST_PREVIEWS = 8;

    /** Shares of rows that find a partner, by the ties that were asked about. */
    private final Map<String, Double> shares = recent(MOST_SHARES);

    private final Map<String, Column> columns = recent(MOST_COLUMNS);
    private final Map<String, FormulaMeasure> measures = recent(MOST_MEASURES);
    private final Map<Map<String, FormulaMeasure>, Previews> previews = recent(MOST_PREVIEWS);

    private final Map<FormulaMeasure, Optional<FormulaMeasure.Ratio>> ratios = recent(MOST_MEASURES);

    private static <K, V> Map<K, V> recent(int most) {
        return new LinkedHashMap<>(16, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
                return size() > most;
            }
        };
    }

    /** The column that was worked out under these words, or is now. */
    public Column column(String words, Supplier<? extends Column> work) {
        Column column = known(columns, words, work);
        synchronized (columns) {
            long bytes = columns.values().stream().mapToLong(Column::bytes).sum();
            var oldest = columns.entrySet().iterator();
            while (bytes > MOST_BYTES && columns.size() > 1) {
                bytes -= oldest.next().getValue().bytes();
                oldest.remove();
            }
        }
        return column;
    }

    /** The measure that was made ready under these words, or is now. */
    public FormulaMeasure measure(String words, Supplier<FormulaMeasure> work) {
        return known(measures, words, work);
    }

    /** The two sums that a measure divides, each the same whenever it is asked for; empty where it is no rate. */
    Optional<FormulaMeasure.Ratio> ratio(FormulaMeasure of) {
        return known(ratios, of, of::ratio);
    }

    /** The values over all rows of measures that are offered beside the dataset's own. */
    Previews previews(Map<String, FormulaMeasure> beside) {
        return known(previews, beside, Previews::new);
    }

    /** A share that was worked out under these words, or is now. */
    double share(String tie, DoubleSupplier work) {
        return known(shares, tie, work::getAsDouble);
    }

    private static <K, V> V known(Map<K, V> kept, K key, Supplier<? extends V> work) {
        synchronized (kept) {
            V known = kept.get(key);
            if (known != null) return known;
        }
        // Not within the lock: it takes as long as the rows are many.
        V made = work.get();
        synchronized (kept) {
            V first = kept.putIfAbsent(key, made);
            return first == null ? made : first;
        }
    }
}
