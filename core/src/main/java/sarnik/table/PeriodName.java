package sarnik.table;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The name of a column that holds the values of one period: "2023", "Jan 2023", "Litres · 2023", "litres 2023", "pop2023".
 *
 * @param measure what is measured; empty where the name is the period only
 * @param period as it is written
 */
record PeriodName(String measure, String period) {

    /** Fewer such columns are not worth a sentence. */
    private static final int FEWEST = 3;

    /** A year, a quarter, a half or a month. */
    private static final Pattern PERIOD = Pattern.compile(
            "(19|20)\\d\\d([-/ ]?([qQtThHsS][1-4]|0[1-9]|1[0-2])|[-/ ][1-9])?|(0[1-9]|1[0-2])[-/](19|20)\\d\\d");

    /** A year that reaches into the next. */
    private static final Pattern SEASON = Pattern.compile("((?:19|20)\\d\\d)[-/]((?:19|20)?\\d\\d)");

    /** Letters right before a year, as programs write names that may not begin with a digit. */
    private static final Pattern ATTACHED = Pattern.compile("(\\p{L}+)((?:19|20)\\d\\d)");

    /** Such letters that only say that a year follows. */
    private static final Set<String> YEAR = Set.of("y", "yr", "year", "fy", "cy", "x", "a", "an", "ano", "año", "jahr");

    /** The parts of a name of a column; null where it names no period. */
    static PeriodName of(String name) {
        int part = name.lastIndexOf(TurnedSource.PART);
        if (part >= 0) {
            String last = TurnedSource.lastPart(name);
            return isPeriod(last) ? new PeriodName(name.substring(0, part), last) : null;
        }
        if (isPeriod(name)) return new PeriodName("", name);
        Matcher attached = ATTACHED.matcher(name);
        if (attached.matches())
            return new PeriodName(
                    YEAR.contains(attached.group(1).toLowerCase(Locale.ROOT)) ? "" : attached.group(1),
                    attached.group(2));
        // The longest period there is: "litres Jan 2023" is of a month.
        for (int i = 1; i < name.length() - 3; i++) {
            if (!isBetween(name.charAt(i))) continue;
            String period = trimmed(name.substring(i + 1));
            String measure = trimmed(name.substring(0, i));
            if (isMeasure(measure) && isPeriod(period)) return new PeriodName(measure, period);
        }
        for (int i = name.length() - 2; i > 3; i--) {
            if (!isBetween(name.charAt(i))) continue;
            String period = trimmed(name.substring(0, i));
            String measure = trimmed(name.substring(i + 1));
            if (isMeasure(measure) && isPeriod(period)) return new PeriodName(measure, period);
        }
        return null;
    }

    /**
     * Columns that could be turned into rows: at least three that are named by periods, each of whose measures has at least
     * two of them.
     */
    static List<String> among(List<String> columns) {
        Map<String, Set<String>> periods = new LinkedHashMap<>();
        Map<String, PeriodName> parts = new LinkedHashMap<>();
        for (String column : columns) {
            PeriodName name = of(column);
            if (name == null) continue;
            // One that says the same as another would stand for it.
            if (periods.computeIfAbsent(name.measure, measure -> new LinkedHashSet<>())
                    .add(name.period)) parts.put(column, name);
        }
        List<String> found = new ArrayList<>();
        parts.forEach((column, name) -> {
            if (periods.get(name.measure).size() > 1) found.add(column);
        });
        return found.size() < FEWEST ? List.of() : found;
    }

    private static boolean isMeasure(String text) {
        return text.chars().anyMatch(Character::isLetter);
    }

    private static boolean isBetween(char c) {
        return c == ' ' || c == '_' || c == '-' || c == '(' || c == '[' || c == ',' || c == ':' || c == '.';
    }

    private static String trimmed(String part) {
        return part.replaceAll("^[\\s_(\\[,:.-]+|[\\s_)\\],:.-]+$", "");
    }

    private static boolean isPeriod(String text) {
        if (PERIOD.matcher(text).matches()) return true;
        Matcher season = SEASON.matcher(text);
        if (season.matches()) {
            int next = Integer.parseInt(season.group(1)) + 1;
            return Integer.parseInt(season.group(2)) == (season.group(2).length() == 4 ? next : next % 100);
        }
        return CellForm.DATE_PERIOD.fits(text) && text.matches(".*(19|20)\\d\\d.*")
                || CellForm.DATE_ISO.fits(text)
                || text.matches(".*(19|20)\\d\\d") && CellForm.DATE_DAY_FIRST.fits(text);
    }
}
