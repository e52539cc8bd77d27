package sarnik.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;

/**
 * Rows that are sums of others: totals, whose first cell says nothing else, and rows that are likely to be subtotals,
 * whose
 * first cell names what they are the sum of ("Total Soria", "Soria subtotal"). A total is left out unless it is to be
 * kept; a
 * likely subtotal is kept, and said, until somebody decides.
 */
final class TotalRows {

    private static final Set<String> TOTALS = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);

    static {
        TOTALS.addAll(List.of(
                "total",
                "totals",
                "grand total",
                "totales",
                "total general",
                "totais",
                "total geral",
                "gesamt",
                "insgesamt",
                "gesamtsumme",
                "subtotal",
                "sub total",
                "sub-total"));
    }

    private static final String WORD = "(?:sub[- ]?)?(?:total|totals|totales|totais|gesamt|summe)";
    private static final Pattern OF_SOMETHING = Pattern.compile(
            "(?iu)" + WORD + "(?:\\s*[:–—-]\\s*|\\s+)\\S.*|.*\\S(?:\\s*[:–—-]\\s*|\\s+)" + WORD + "\\s*[:.]?");
    private static final int LONGEST = 60;
    private static final int EXAMPLES = 3;

    private final Shaping shaping;
    private final int columns;
    private long leftOut;
    private long likely;
    private final List<String> totals = new ArrayList<>();
    private final List<String> subtotals = new ArrayList<>();

    TotalRows(Shaping shaping, int columns) {
        this.shaping = shaping;
        this.columns = columns;
    }

    /** Whether a row is a sum that is left out. */
    boolean leavesOut(RowSource.Cells cells) {
        if (shaping.totals() && !shaping.subtotals()) return false;
        int first = first(cells);
        if (first < 0) return false;
        String cell = cells.get(first);
        return isPartly(cells) && (saysTotal(cell) ? !shaping.totals() : shaping.subtotals() && saysOfWhat(cell));
    }

    /** Counts a row that may be a sum. @return whether it is left out */
    boolean count(RowSource.Cells cells) {
        int first = first(cells);
        if (first < 0 || !isPartly(cells)) return false;
        String cell = cells.get(first);
        if (saysTotal(cell)) {
            if (!shaping.totals()) leftOut++;
            if (totals.size() < EXAMPLES && !totals.contains(cell.strip())) totals.add(cell.strip());
            return !shaping.totals();
        }
        if (!saysOfWhat(cell)) return false;
        likely++;
        if (subtotals.size() < EXAMPLES) subtotals.add(cell.strip());
        return shaping.subtotals();
    }

    Reading.Sums found() {
        return new Reading.Sums(leftOut, totals, likely, shaping.subtotals(), subtotals);
    }

    /**
     * The first filled cell; -1 where it cannot say that the row is a sum. Looked at for every row: most are settled
     * here.
     */
    private static int first(RowSource.Cells cells) {
        for (int i = 0; i < cells.count(); i++) {
            String cell = cells.get(i);
            if (cell.isEmpty() || cell.isBlank()) continue;
            return cell.length() <= LONGEST && mayBe(cell) ? i : -1;
        }
        return -1;
    }

    private static boolean mayBe(String cell) {
        // The words stand at the start, or behind a blank or a mark.
        boolean start = true;
        for (int i = 0; i + 4 < cell.length(); i++) {
            char c = cell.charAt(i);
            if (start) {
                switch (c) {
                    case 't', 'T' -> {
                        if (cell.regionMatches(true, i, "tota", 0, 4)) return true;
                    }
                    case 'g', 'G' -> {
                        if (cell.regionMatches(true, i, "gesam", 0, 5) || cell.regionMatches(true, i, "grand", 0, 5))
                            return true;
                    }
                    case 's', 'S' -> {
                        if (cell.regionMatches(true, i, "summe", 0, 5) || cell.regionMatches(true, i, "sub", 0, 3))
                            return true;
                    }
                    case 'i', 'I' -> {
                        if (cell.regionMatches(true, i, "insge", 0, 5)) return true;
                    }
                    default -> {
                        // Another word.
                    }
                }
            }
            start = c <= ' ' || c == '-' || c == ':' || c == '–' || c == '—';
        }
        return false;
    }

    private static boolean saysTotal(String cell) {
        return TOTALS.contains(cell.strip().replaceFirst("\\s*[:.]$", ""));
    }

    private static boolean saysOfWhat(String cell) {
        String text = cell.strip();
        return !saysTotal(text) && OF_SOMETHING.matcher(text).matches();
    }

    /** A sum fills not all columns as the other rows do, but more than the one that says so. */
    private boolean isPartly(RowSource.Cells cells) {
        int filled = 0;
        for (int i = 0; i < cells.count(); i++) if (!cells.get(i).isBlank()) filled++;
        return filled > 1 && filled < columns;
    }
}
