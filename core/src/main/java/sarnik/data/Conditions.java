package sarnik.data;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.DoubleSupplier;
import java.util.function.Supplier;
import sarnik.table.Column;

/**
 * The conditions of rules that were worked out for the rows of a version, as columns of yes and no. The last few asked
 * for are kept. Safe to share between threads.
 */
public final class Conditions {

    private static final int MOST = 24;

    /** Shares of rows that find a partner, by the ties that were asked about. */
    private final Map<String, Double> shares = new LinkedHashMap<>();

    private final Map<String, Column> kept = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Column> eldest) {
            return size() > MOST;
        }
    };

    /** What was worked out under these words, or is now. */
    public Column of(String condition, Supplier<Column> work) {
        synchronized (kept) {
            Column known = kept.get(condition);
            if (known != null) return known;
        }
        // Not within the lock: it takes as long as the rows are many.
        Column made = work.get();
        synchronized (kept) {
            Column first = kept.putIfAbsent(condition, made);
            return first == null ? made : first;
        }
    }

    /** A share that was worked out under these words, or is now. */
    double share(String tie, DoubleSupplier work) {
        synchronized (shares) {
            Double known = shares.get(tie);
            if (known != null) return known;
        }
        double made = work.getAsDouble();
        synchronized (shares) {
            if (shares.size() >= MOST) shares.clear();
            shares.put(tie, made);
        }
        return made;
    }
}
