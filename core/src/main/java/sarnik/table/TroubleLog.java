package sarnik.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Gathers troubles while a file is read. */
final class TroubleLog {

    private static final int SHOWN = 80;
    private final List<Troubles.Trouble> first = new ArrayList<>();
    private final Map<String, Long> unread = new HashMap<>();
    private long total;

    /** A cell that does not fit the type of its column. */
    void addUnread(long line, String column, String text, String type) {
        unread.merge(column, 1L, Long::sum);
        add(line, column, text, "This is not a " + type + "; the cell is taken as missing.");
    }

    void add(long line, String column, String text, String why) {
        total++;
        if (first.size() < Troubles.KEPT) {
            String shown = text.length() <= SHOWN ? text : text.substring(0, SHOWN - 1) + "…";
            first.add(new Troubles.Trouble(line, column, shown, why));
        }
    }

    /** Adds those of a later part of the file. */
    void addAll(TroubleLog later) {
        total += later.total;
        later.unread.forEach((column, count) -> unread.merge(column, count, Long::sum));
        first.addAll(later.first.subList(0, Math.min(later.first.size(), Troubles.KEPT - first.size())));
    }

    Troubles troubles() {
        return new Troubles(first, total, unread);
    }
}
