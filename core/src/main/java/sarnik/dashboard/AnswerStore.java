package sarnik.dashboard;

import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.WeakHashMap;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.Query;
import sarnik.table.Table;

/**
 * Keeps answers by the rows that were asked and the question. Rows are a version of a dataset, which never changes, so
 * nothing has to be forgotten but for want of room: the oldest go first, and all of a version go with it. Safe to share
 * between threads.
 */
public final class AnswerStore {

    /** Keeps nothing. */
    static final AnswerStore NOTHING = new AnswerStore(0);

    private record Kept(Map<Query, Frame> of, Query query, long weight) {}

    private final long room;
    private final Map<Table, Map<Query, Frame>> frames = Collections.synchronizedMap(new WeakHashMap<>());
    private final Deque<Kept> order = new ArrayDeque<>();
    private long held;

    /**
     * @param room how many cells of answers are kept
     */
    public AnswerStore(long room) {
        this.room = room;
    }

    Frame find(Table table, Query query) {
        if (room == 0) return null;
        Map<Query, Frame> of = frames.get(table);
        return of == null ? null : of.get(query);
    }

    void keep(Table table, Query query, Frame frame) {
        long weight =
                16 + (long) frame.size() * (frame.keys().size() + frame.values().size());
        // What holds numbers of all rows for one setting of a reader is not worth its room.
        if (weight > room / 8 || query.formulas().values().stream().anyMatch(FormulaMeasure::isPassing)) return;
        Map<Query, Frame> of = frames.computeIfAbsent(table, t -> Collections.synchronizedMap(new HashMap<>()));
        if (of.putIfAbsent(query, frame) != null) return;
        synchronized (order) {
            order.add(new Kept(of, query, weight));
            held += weight;
            while (held > room) {
                Kept oldest = order.remove();
                oldest.of.remove(oldest.query);
                held -= oldest.weight;
            }
        }
    }

    /** How many cells are kept. */
    long held() {
        synchronized (order) {
            return held;
        }
    }
}
