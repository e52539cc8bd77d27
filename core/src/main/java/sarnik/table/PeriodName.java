package sarnik.table;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The name of a column that holds the values of one period: "2023", "Jan 2023", "Litres · 2023", "litres 2023", "pop2023",
 * or "Jan" and "Q1", which do not say of which year they are.
 *
 * @param measure what is measured; empty where the name is the period only
 * @param period as it is written
 */
record PeriodName(String measure, String period) {

    /** Fewer such columns are not worth a sentence. */
    private static final int FEWEST = 3;

    /** A year, a quarter, a half or a month. */
    private static final Pattern PERIOD = Pattern.compile(
            "(19|20)\\d\\d([-/ ]?([qQtThHsS][1-4]|0[1-9]|1[0-2])|[-/ ][1-9]|[mM](0[1-9]|1[0-2]))?|(0[1-9]|1[0-2])[-/](19|20)\\d\\d");

    /** A month of a year without its century; with a blank between them it might be a day. */
    private static final Pattern SHORT_YEAR = Pattern.compile("\\p{L}{3,}\\.?[-/'’]\\d\\d");

    /** Marks that lead to notes, and letters for what is provisional, estimated or revised, behind a period. */
    private static final Pattern FLAGGED = Pattern.compile("(.*\\d)(\\s?[*†‡§¹²³⁴]{1,3}|\\s?\\(\\d\\)|[epr])");

    /** A quarter of a year that is not said: the columns of a year have four of them. */
    private static final Pattern QUARTER = Pattern.compile("[qQ][1-4]");

    /** A year that reaches into the next. */
    private static final Pattern SEASON = Pattern.compile("((?:19|20)\\d\\d)[-/]((?:19|20)?\\d\\d)");

    /** Letters right before a year, as programs write names that may not begin with a digit. */
    private static final Pattern ATTACHED = Pattern.compile("(\\p{L}+)((?:19|20)\\d\\d)");

    /** Such letters that only say that a year follows. */
    private static final Set<String> YEAR = Set.of("y", "yr", "year", "fy", "cy", "x", "a", "an", "ano", "año", "jahr");

    /** The parts of a name of a column; null where it names no period. */
    static PeriodName of(String name) {
        PeriodName dated = of(name, PeriodName::isPeriod);
        if (dated != null) return dated;
        PeriodName found = of(name, PeriodName::isWithoutYear);
        if (found == null) {
            if (name.contains(TurnedSource.PART)) return below(name);
            Matcher flagged = FLAGGED.matcher(name);
            return flagged.matches() ? of(flagged.group(1), PeriodName::isPeriod) : null;
        }
        if (!name.contains(TurnedSource.PART)) return found;
        // Months below a year that stands over all of them.
        String above = TurnedSource.lastPart(found.measure);
        if (!CellForm.isYear(above)) return found;
        int rest = found.measure.lastIndexOf(TurnedSource.PART);
        return new PeriodName(rest < 0 ? "" : found.measure.substring(0, rest), inYear(found.period, above));
    }

    /** What is measured below a period that stands over several measures; null where none does. */
    private static PeriodName below(String name) {
        int part = name.lastIndexOf(TurnedSource.PART);
        PeriodName above = of(name.substring(0, part), PeriodName::isPeriod);
        String own = name.substring(part + TurnedSource.PART.length());
        if (above == null || !isMeasure(own)) return null;
        return new PeriodName(above.measure.isEmpty() ? own : above.measure + TurnedSource.PART + own, above.period);
    }

    private static PeriodName of(String name, Predicate<String> isPeriod) {
        int part = name.lastIndexOf(TurnedSource.PART);
        if (part >= 0) {
            String last = TurnedSource.lastPart(name);
            return isPeriod.test(last) ? new PeriodName(name.substring(0, part), last) : null;
        }
        if (isPeriod.test(name)) return new PeriodName("", name);
        Matcher attached = ATTACHED.matcher(name);
        if (attached.matches())
            return new PeriodName(
                    YEAR.contains(attached.group(1).toLowerCase(Locale.ROOT)) ? "" : attached.group(1),
                    attached.group(2));
        // The longest period there is: "litres Jan 2023" is of a month.
        for (int i = 1; i < name.length() - 2; i++) {
            if (!isBetween(name.charAt(i))) continue;
            String period = trimmed(name.substring(i + 1));
            String measure = trimmed(name.substring(0, i));
            if (isMeasure(measure) && isPeriod.test(period)) return new PeriodName(measure, period);
        }
        for (int i = name.length() - 2; i > 1; i--) {
            if (!isBetween(name.charAt(i))) continue;
            String period = trimmed(name.substring(0, i));
            String measure = trimmed(name.substring(i + 1));
            if (isMeasure(measure) && isPeriod.test(period)) return new PeriodName(measure, period);
        }
        return null;
    }

    /** Whether it says of which year it is. */
    boolean isDated() {
        return !isWithoutYear(period);
    }

    /** The period in a year: "Jan 2023", "2023-Q1"; as it is written where either is empty or it says so itself. */
    static String inYear(String period, String year) {
        if (year.isEmpty() || !isWithoutYear(period)) return period;
        return QUARTER.matcher(period).matches() ? year + "-" + period : period + " " + year;
    }

    /**
     * Columns that could be turned into rows: at least three that are named by periods, each of whose measures has at least
     * two of them. Those that do not say of which year they are only where no others do, and where they are three months or
     * the four quarters.
     */
    static List<String> among(List<String> columns) {
        List<String> dated = among(columns, true);
        return dated.isEmpty() ? among(columns, false) : dated;
    }

    private static List<String> among(List<String> columns, boolean isDated) {
        Map<String, Set<String>> periods = new LinkedHashMap<>();
        Map<String, PeriodName> parts = new LinkedHashMap<>();
        for (String column : columns) {
            PeriodName name = of(column);
            if (name == null || name.isDated() != isDated) continue;
            // One that says the same as another would stand for it.
            if (periods.computeIfAbsent(name.measure, measure -> new LinkedHashSet<>())
                    .add(name.period)) parts.put(column, name);
        }
        List<String> found = new ArrayList<>();
        parts.forEach((column, name) -> {
            Set<String> all = periods.get(name.measure);
            if (isDated ? all.size() > 1 : isOfAYear(all)) found.add(column);
        });
        return found.size() < FEWEST ? List.of() : found;
    }

    /** Whether periods are some months of a year, each once, or its quarters. */
    private static boolean isOfAYear(Set<String> periods) {
        long months = periods.stream()
                .mapToInt(WrittenMoment::monthAlone)
                .filter(month -> month > 0)
                .distinct()
                .count();
        return months == 0 ? periods.size() == 4 : months == periods.size() && months >= FEWEST;
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

    private static boolean isWithoutYear(String text) {
        return WrittenMoment.monthAlone(text) > 0 || QUARTER.matcher(text).matches();
    }

    private static boolean isPeriod(String text) {
        if (PERIOD.matcher(text).matches()) return true;
        Matcher season = SEASON.matcher(text);
        if (season.matches()) {
            int next = Integer.parseInt(season.group(1)) + 1;
            return Integer.parseInt(season.group(2)) == (season.group(2).length() == 4 ? next : next % 100);
        }
        return CellForm.DATE_PERIOD.fits(text)
                        && (text.matches(".*(19|20)\\d\\d.*")
                                || SHORT_YEAR.matcher(text).matches())
                || CellForm.DATE_ISO.fits(text)
                || text.matches(".*(19|20)\\d\\d") && CellForm.DATE_DAY_FIRST.fits(text);
    }
}
