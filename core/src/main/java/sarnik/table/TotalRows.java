package sarnik.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Rows that are sums of others: totals, whose first cell says nothing else, rows that are likely to be subtotals, whose
 * first cell names what they are the sum of ("Total Soria", "Soria subtotal"), rows that are likely to sum the others
 * up in another way ("Average", "Max" before nothing but numbers), and whole rows of which a cell says so ("Total" in
 * a column of sexes). A total is left out unless it is to be kept; the others are kept, and said, until somebody decides.
 */
final class TotalRows {

    private static final Set<String> TOTALS = TableReader.caseless(
            "total",
            "totals",
            "grand total",
            "totales",
            "total general",
            "totais",
            "total geral",
            "totaux",
            "total général",
            "gesamt",
            "insgesamt",
            "gesamtsumme",
            "gesamtergebnis",
            "summe",
            "zwischensumme",
            "teilsumme",
            "teilergebnis",
            "subtotal",
            "subtotals",
            "subtotales",
            "subtotais",
            "sub total",
            "sub-total",
            "sous-total",
            "sous total",
            "sous-totaux");

    /** Words for the sum of a category, which are no sign of a total of all. */
    private static final Set<String> OF_A_CATEGORY = TableReader.caseless(
            "total nacional",
            "both sexes",
            "all sexes",
            "all ages",
            "ambos sexos",
            "todas las edades",
            "ambos os sexos",
            "todas as idades",
            "les deux sexes",
            "tous les âges",
            "tous âges",
            "beide geschlechter",
            "alle altersgruppen");

    static {
        OF_A_CATEGORY.addAll(TOTALS);
    }

    /** Words for what is worked out from other rows, which stand before nothing but numbers then. */
    private static final Set<String> STATISTICS = TableReader.caseless(
            "sum",
            "sums",
            "average",
            "averages",
            "avg",
            "mean",
            "median",
            "minimum",
            "maximum",
            "min",
            "max",
            "count",
            "range",
            "variance",
            "stdev",
            "st dev",
            "st. dev",
            "std dev",
            "std. dev",
            "standard deviation",
            "overall average",
            "overall mean",
            "weighted average",
            "suma",
            "promedio",
            "promedio general",
            "media",
            "media general",
            "mediana",
            "mínimo",
            "máximo",
            "minimo",
            "maximo",
            "recuento",
            "varianza",
            "desviación estándar",
            "desviación típica",
            "soma",
            "média",
            "média geral",
            "contagem",
            "variância",
            "desvio padrão",
            "desvio-padrão",
            "somme",
            "moyenne",
            "moyenne générale",
            "médiane",
            "écart-type",
            "écart type",
            "durchschnitt",
            "mittelwert",
            "mittel",
            "anzahl",
            "varianz",
            "standardabweichung");

    /** How the words for a sum begin, by their first three letters: most cells are settled by them. */
    private static final boolean[] BEGINNINGS = new boolean[1 << 15];

    /** The same of the words for what is worked out from other rows. */
    private static final boolean[] STATISTICS_BEGIN = new boolean[1 << 15];

    private static final int LONGEST_OF_A_CATEGORY = longest(OF_A_CATEGORY, BEGINNINGS);
    private static final int LONGEST_STATISTIC = longest(STATISTICS, STATISTICS_BEGIN);

    /** How long the longest of some words may stand in a cell, a mark and a blank around it. */
    private static int longest(Set<String> words, boolean[] beginnings) {
        for (String word : words) beginnings[beginning(word, 0)] = true;
        return words.stream().mapToInt(String::length).max().orElse(0) + 3;
    }

    private static final String WORD =
            "(?:sub[- ]?|sous[- ]|zwischen|teil)?(?:total|totals|totales|totais|totaux|gesamt|summe)";
    private static final Pattern OF_SOMETHING = Pattern.compile(
            "(?iu)" + WORD + "(?:\\s*[:–—-]\\s*|\\s+)\\S.*|.*\\S(?:\\s*[:–—-]\\s*|\\s+)" + WORD + "\\s*[:.]?");
    private static final int LONGEST = 60;
    private static final int SHORTEST_OF_A_CATEGORY = 5;
    private static final int EXAMPLES = 3;

    /** What a row is the sum of, or whether it sums others up in another way. */
    private enum Sum {
        NONE,
        OF_ALL,
        OF_SOME,
        STATISTIC,
        OF_A_CATEGORY
    }

    private final Shaping shaping;
    private final List<String> columns;
    private long rows;
    private long leftOut;
    private long likely;
    private long summingUp;

    /** Whether some of those have gaps, as below a group, or the table ends with one: else they may be of anything. */
    private boolean standsBelow;

    private boolean isLast;
    private long within;
    private final List<String> totals = new ArrayList<>();
    private final List<String> subtotals = new ArrayList<>();
    private final List<String> statistics = new ArrayList<>();
    private final List<Reading.OfACategory> categories = new ArrayList<>();

    /** @param columns names of the columns, as the cells of a row stand */
    TotalRows(Shaping shaping, List<String> columns) {
        this.shaping = shaping;
        this.columns = columns;
    }

    /** Whether a row is a sum that is left out. */
    boolean leavesOut(RowSource.Cells cells) {
        if (shaping.totals()
                && !shaping.subtotals()
                && !shaping.categoryTotals()
                && !shaping.rows().noStatistics()) return false;
        return isLeftOut(of(cells));
    }

    private boolean isLeftOut(Sum sum) {
        return switch (sum) {
            case NONE -> false;
            case OF_ALL -> !shaping.totals();
            case OF_SOME -> shaping.subtotals();
            case STATISTIC -> shaping.rows().noStatistics();
            case OF_A_CATEGORY -> shaping.categoryTotals();
        };
    }

    /** Whether a row is no sum of others, as far as its words say. */
    boolean isNone(RowSource.Cells cells) {
        return of(cells) == Sum.NONE;
    }

    private Sum of(RowSource.Cells cells) {
        int first = first(cells);
        if (first >= 0 && isPartly(cells)) {
            if (saysTotal(cells.get(first))) return Sum.OF_ALL;
            if (saysOfWhat(cells.get(first))) return Sum.OF_SOME;
        }
        if (first >= 0 && isStatistic(cells, first)) return Sum.STATISTIC;
        return category(cells) < 0 ? Sum.NONE : Sum.OF_A_CATEGORY;
    }

    /** Counts a row that may be a sum. @return whether it is left out */
    boolean count(RowSource.Cells cells) {
        rows++;
        Sum sum = of(cells);
        switch (sum) {
            case NONE -> {
                isLast = false;
                return false;
            }
            case OF_ALL -> {
                if (!shaping.totals()) leftOut++;
                example(cells, totals);
            }
            case OF_SOME -> {
                likely++;
                example(cells, subtotals);
            }
            case STATISTIC -> {
                summingUp++;
                isLast = true;
                standsBelow |= isPartly(cells);
                example(cells, statistics);
            }
            case OF_A_CATEGORY -> {
                within++;
                int at = category(cells);
                var says = new Reading.OfACategory(CellText.strip(cells.get(at)), columns.get(at));
                if (categories.size() < EXAMPLES && !categories.contains(says)) categories.add(says);
            }
        }
        return isLeftOut(sum);
    }

    private static void example(RowSource.Cells cells, List<String> examples) {
        String says = CellText.strip(cells.get(first(cells)));
        if (examples.size() < EXAMPLES && !examples.contains(says)) examples.add(says);
    }

    Reading.Sums found() {
        // Where most rows are so, the table is one of statistics.
        boolean areBelow = shaping.rows().noStatistics() || (standsBelow || isLast) && summingUp * 2 <= rows;
        return new Reading.Sums(
                leftOut,
                totals,
                likely,
                shaping.subtotals(),
                subtotals,
                within,
                shaping.categoryTotals(),
                categories,
                areBelow ? summingUp : 0,
                shaping.rows().noStatistics(),
                areBelow ? statistics : List.of());
    }

    /** The first cell that says that the row is the sum of a category; -1 for none. */
    private int category(RowSource.Cells cells) {
        int count = Math.min(cells.count(), columns.size());
        for (int i = 0; i < count; i++) {
            String cell = cells.get(i);
            if (cell.length() < SHORTEST_OF_A_CATEGORY || cell.length() > LONGEST_OF_A_CATEGORY) continue;
            String text = cell.charAt(0) <= ' ' || cell.charAt(0) >= 0x80 ? CellText.strip(cell) : cell;
            if (text.length() >= SHORTEST_OF_A_CATEGORY
                    && BEGINNINGS[beginning(text, 0)]
                    && OF_A_CATEGORY.contains(withoutMark(text))) return i;
        }
        return -1;
    }

    /** Three letters of a text as a number below 32,768, whatever their case. */
    private static int beginning(String text, int at) {
        return (text.charAt(at) & 31) << 10 | (text.charAt(at + 1) & 31) << 5 | text.charAt(at + 2) & 31;
    }

    /**
     * The first filled cell; -1 where it cannot say that the row is a sum. Looked at for every row: most are settled
     * here.
     */
    private static int first(RowSource.Cells cells) {
        for (int i = 0; i < cells.count(); i++) {
            String cell = cells.get(i);
            if (cell.isEmpty() || CellText.isBlank(cell)) continue;
            return cell.length() <= LONGEST && (mayBe(cell) || mayBeStatistic(cell)) ? i : -1;
        }
        return -1;
    }

    private static boolean mayBe(String cell) {
        // The words stand at the start, or behind a blank or a mark.
        boolean start = true;
        for (int i = 0; i + 4 < cell.length(); i++) {
            char c = cell.charAt(i);
            if (start && BEGINNINGS[beginning(cell, i)]) return true;
            start = c <= ' ' || c == '\u00A0' || c == '-' || c == ':' || c == '–' || c == '—';
        }
        return false;
    }

    private static boolean mayBeStatistic(String cell) {
        return cell.length() > 2
                && cell.length() <= LONGEST_STATISTIC
                && (cell.charAt(0) <= ' ' || cell.charAt(0) == '\u00A0' || STATISTICS_BEGIN[beginning(cell, 0)]);
    }

    /** Whether a row has nothing but numbers beside a word for what is worked out from other rows. */
    private boolean isStatistic(RowSource.Cells cells, int first) {
        if (!mayBeStatistic(cells.get(first)) || !STATISTICS.contains(withoutMark(cells.get(first)))) return false;
        boolean any = false;
        for (int i = first + 1; i < cells.count(); i++) {
            String cell = CellText.strip(cells.get(i));
            if (cell.isEmpty() || TableReader.meansMissing(cell) || isOfPeriods(i)) continue;
            if (!CellForm.isAnyNumber(cell)) return false;
            any = true;
        }
        return any;
    }

    /** Whether a column has the names of those that were turned into rows. */
    private boolean isOfPeriods(int column) {
        return shaping.turn() != null
                && column < columns.size()
                && columns.get(column).equals(shaping.turn().period());
    }

    private static boolean saysTotal(String cell) {
        return TOTALS.contains(withoutMark(cell));
    }

    private static String withoutMark(String cell) {
        return CellText.strip(cell).replaceFirst("\\s*[:.]+$", "");
    }

    private static boolean saysOfWhat(String cell) {
        String text = CellText.strip(cell);
        return !saysTotal(text) && OF_SOMETHING.matcher(text).matches();
    }

    /** A sum fills not all columns as the other rows do, but more than the one that says so. */
    private boolean isPartly(RowSource.Cells cells) {
        int filled = 0;
        for (int i = 0; i < cells.count(); i++) if (!CellText.isBlank(cells.get(i))) filled++;
        return filled > 1 && filled < columns.size();
    }
}
