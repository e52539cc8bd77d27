package sarnik.table;

import java.util.ArrayList;
import java.util.List;

/** Gathers troubles while a file is read. */
final class TroubleLog {

    private static final int SHOWN = 80;
    private final List<Troubles.Trouble> first = new ArrayList<>();
    private long total;

    void add(long line, String column, String text, String why) {
        total++;
        if (first.size() < Troubles.KEPT) {
            String shown = text.length() <= SHOWN ? text : text.substring(0, SHOWN - 1) + "…";
            first.add(new Troubles.Trouble(line, column, shown, why));
        }
    }

    Troubles troubles() {
        return new Troubles(first, total);
    }
}
