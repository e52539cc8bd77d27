package sarnik.data;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;
import sarnik.table.Column;

/**
 * The conditions of rules that were worked out for the rows of a version, as columns of yes and no. The last few asked
 * for are kept. Safe to share between threads.
 */
public final class Conditions {

    private static final int MOST = 24;

    private final Map<String, Column> kept = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Column> eldest) {
            return size() > MOST;
        }
    };

    Column of(String condition, Supplier<Column> work) {
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
}
