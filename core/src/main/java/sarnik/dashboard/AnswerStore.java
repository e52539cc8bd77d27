package sarnik.dashboard;

import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.WeakHashMap;
import sarnik.language.Language;
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

    /** A question, and the language in which the steps of its answer's trail are told. */
    private record Told(Query query, Language language) {}

    private record Kept(Map<Told, Frame> of, Told told, long weight) {}

    private final long room;
    private final Map<Table, Map<Told, Frame>> frames = Collections.synchronizedMap(new WeakHashMap<>());
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
        Map<Told, Frame> of = frames.get(table);
        return of == null ? null : of.get(new Told(query, Language.spoken()));
    }

    void keep(Table table, Query query, Frame frame) {
        // Rows that stay elsewhere change there; whoever asks them says how long an answer holds.
        if (table.staying() != null) return;
        long weight =
                16 + (long) frame.size() * (frame.keys().size() + frame.values().size());
        // What holds numbers of all rows for one setting of a reader is not worth its room.
        if (weight > room / 8 || query.formulas().values().stream().anyMatch(FormulaMeasure::isPassing)) return;
        Map<Told, Frame> of = frames.computeIfAbsent(table, t -> Collections.synchronizedMap(new HashMap<>()));
        Told told = new Told(query, Language.spoken());
        if (of.putIfAbsent(told, frame) != null) return;
        synchronized (order) {
            order.add(new Kept(of, told, weight));
            held += weight;
            while (held > room) {
                Kept oldest = order.remove();
                oldest.of.remove(oldest.told);
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
