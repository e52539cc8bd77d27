package sarnik.table;

import java.text.DateFormatSymbols;
import java.text.Normalizer;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Dates and times as people and machines write them: ISO 8601 with and without its offset, year, day or month first,
 * with the
 * month's name in ten languages, weeks, quarters and months, with the hour in twelve or twenty-four.
 */
final class WrittenMoment {

    /** Languages in which a month may be named. */
    private static final List<String> LANGUAGES = List.of("en", "es", "pt", "fr", "de", "it", "ca", "gl", "eu", "nl");

    private static final Map<String, Integer> MONTHS = months();

    /** Days of the week; "mar" is one in Spanish, French and Italian, and a month. */
    private static final Set<String> DAYS = days();

    /** Words between the parts of a date, and days of the week that are no months, say nothing. */
    private static final Set<String> BETWEEN = between();

    private static final Pattern CLOCK =
            Pattern.compile("^(.*?\\S)[T ,]+\\s*(\\d{1,2}):(\\d{2})(?::(\\d{2})(?:[.,]\\d{1,"
                    + "9})?)?\\s*([aApP])?(?:\\.?\\s?[mM]\\.?)?\\s*(Z|UTC|GMT|"
                    + "[+-]\\d{2}(?::?\\d{2})?)?(?:\\[[^]]*])?$");
    private static final Pattern HOUR_ALONE = Pattern.compile("^(.*?\\S)[ ,]+(\\d{1,2})\\s?([aApP])\\.?[mM]\\.?$");
    private static final Pattern WEEK = Pattern.compile("(\\d{4})-?W(\\d{1,2})(?:-?([1-7]))?");
    private static final Pattern QUARTER =
            Pattern.compile("(?:[QqTt]([1-4])[ /-]?(\\d{4})|(\\d{4})[ /-]?[QqTt]([1-4]))");
    private static final Pattern HALF = Pattern.compile("(?:[HhSs]([12])[ /-]?(\\d{4})|(\\d{4})[ /-]?[HhSs]([12]))");
    private static final Pattern MONTH_OF_YEAR =
            Pattern.compile("(\\d{4})(?:[-/.]|-?[mM])(\\d{1,2})|(\\d{1,2})[-/.](\\d{4})");

    /** Two digits from here on are years of the century before. */
    private static final int TURN = 70;

    private static final int EARLIEST = 1000;
    private static final int LATEST = 2999;

    /** The parts of a date, in the order in which they are written. */
    enum Order {
        YEAR_FIRST,
        DAY_FIRST,
        MONTH_FIRST,
        /** With the month's name, wherever it stands. */
        NAMED,
        /** Eight digits. */
        COMPACT,
        /** A week, a month, a quarter or a half: its first day. */
        PERIOD
    }

    private WrittenMoment() {}

    /** Days since 1970-01-01, or {@link DateColumn#MISSING} where the text is no date of this order. */
    static int date(String text, Order order) {
        return switch (order) {
            case YEAR_FIRST, DAY_FIRST, MONTH_FIRST -> numbered(text, order);
            case NAMED -> named(text);
            case COMPACT ->
                text.length() == 8 && digits(text, 0, 8) >= 0 && digits(text, 0, 4) >= 1900 && digits(text, 0, 4) < 2100
                        ? day(digits(text, 0, 4), digits(text, 4, 6), digits(text, 6, 8), true)
                        : DateColumn.MISSING;
            case PERIOD -> period(text);
        };
    }

    /**
     * Seconds since 1970-01-01T00:00, in UTC where an offset is written; {@link TimeColumn#MISSING} where the text is
     * no time of this order.
     */
    static long time(String text, Order order) {
        if (text.length() < 8 || text.length() > 60) return TimeColumn.MISSING;
        Matcher clock = CLOCK.matcher(text);
        Matcher hour = clock.matches() ? null : HOUR_ALONE.matcher(text);
        if (hour != null && !hour.matches()) return TimeColumn.MISSING;
        Matcher found = hour == null ? clock : hour;
        int day = date(found.group(1).replaceFirst("[, ]+$", ""), order);
        if (day == DateColumn.MISSING) return TimeColumn.MISSING;
        String half = hour == null ? clock.group(5) : hour.group(3);
        int h = Integer.parseInt(found.group(2));
        if (half != null) {
            if (h < 1 || h > 12) return TimeColumn.MISSING;
            h = h % 12 + (half.equalsIgnoreCase("p") ? 12 : 0);
        }
        int minute = hour == null ? Integer.parseInt(clock.group(3)) : 0;
        int second = hour == null && clock.group(4) != null ? Integer.parseInt(clock.group(4)) : 0;
        if (h > 24 || h == 24 && minute + second > 0 || minute > 59 || second > 60) return TimeColumn.MISSING;
        return day * 86_400L
                + h * 3600L
                + minute * 60L
                + Math.min(59, second)
                - offset(hour == null ? clock.group(6) : null);
    }

    /** Whether a text that is a time is written with its offset from UTC. */
    static boolean hasOffset(String time) {
        int clock = time.indexOf(':');
        return clock >= 0
                && (time.lastIndexOf('+') > clock
                        || time.lastIndexOf('-') > clock
                        || time.endsWith("Z")
                        || time.endsWith("UTC")
                        || time.endsWith("GMT"));
    }

    private static int offset(String written) {
        if (written == null || written.length() < 3 || Character.isLetter(written.charAt(0))) return 0;
        int hours = Integer.parseInt(written.substring(1, 3));
        int minutes = written.length() > 3 ? Integer.parseInt(written.substring(written.length() - 2)) : 0;
        return (written.charAt(0) == '-' ? -1 : 1) * (hours * 3600 + minutes * 60);
    }

    /** Three numbers with one mark between them. */
    private static int numbered(String text, Order order) {
        int length = text.length();
        if (length < 6 || length > 10 || !isDigit(text.charAt(0)) || !isDigit(text.charAt(length - 1)))
            return DateColumn.MISSING;
        int first = 1;
        while (first < length && isDigit(text.charAt(first))) first++;
        if (first == length) return DateColumn.MISSING;
        char mark = text.charAt(first);
        if (mark != '-' && mark != '/' && mark != '.' && mark != ' ') return DateColumn.MISSING;
        int second = text.indexOf(mark, first + 1);
        if (second < 0) return DateColumn.MISSING;
        int a = digits(text, 0, first);
        int b = digits(text, first + 1, second);
        int c = digits(text, second + 1, length);
        if (a < 0 || b < 0 || c < 0) return DateColumn.MISSING;
        boolean full = length - second == 5;
        if (order == Order.YEAR_FIRST)
            return first == 4 && length - second <= 3 ? day(a, b, c, true) : DateColumn.MISSING;
        if (first > 2 || !full && length - second != 3 || order == Order.MONTH_FIRST && mark == '.')
            return DateColumn.MISSING;
        return order == Order.DAY_FIRST ? day(c, b, a, full) : day(c, a, b, full);
    }

    private static int named(String text) {
        if (text.length() < 6 || text.length() > 40) return DateColumn.MISSING;
        int month = 0;
        boolean mayBeDay = false;
        List<String> numbers = new ArrayList<>(3);
        for (String word : folded(text).split("[\\s,./’'-]+")) {
            if (word.isEmpty() || BETWEEN.contains(word)) continue;
            if (Character.isDigit(word.charAt(0))) {
                String number = word.replaceFirst("(st|nd|rd|th|er|º|ª|\\.)$", "");
                if (digits(number, 0, number.length()) < 0) return DateColumn.MISSING;
                numbers.add(number);
            } else if (MONTHS.containsKey(word) && (month == 0 || mayBeDay)) {
                month = MONTHS.get(word);
                mayBeDay = DAYS.contains(word);
            } else if (!DAYS.contains(word)) {
                return DateColumn.MISSING;
            }
        }
        if (month == 0 || numbers.size() != 2) return DateColumn.MISSING;
        String year = numbers.get(0).length() == 4 ? numbers.get(0) : numbers.get(1);
        String day = year.equals(numbers.get(1)) ? numbers.get(0) : numbers.get(1);
        if (day.length() > 2 || year.length() != 4 && year.length() != 2) return DateColumn.MISSING;
        return day(Integer.parseInt(year), month, Integer.parseInt(day), year.length() == 4);
    }

    private static int period(String text) {
        if (text.length() < 6 || text.length() > 20) return DateColumn.MISSING;
        Matcher found = MONTH_OF_YEAR.matcher(text);
        if (found.matches()) {
            boolean yearFirst = found.group(1) != null;
            return day(
                    Integer.parseInt(found.group(yearFirst ? 1 : 4)),
                    Integer.parseInt(found.group(yearFirst ? 2 : 3)),
                    1,
                    true);
        }
        found = WEEK.matcher(text);
        if (found.matches())
            return week(
                    Integer.parseInt(found.group(1)),
                    Integer.parseInt(found.group(2)),
                    found.group(3) == null ? 1 : Integer.parseInt(found.group(3)));
        found = QUARTER.matcher(text);
        if (found.matches()) return day(part(found, 2, 3), 3 * part(found, 1, 4) - 2, 1, true);
        found = HALF.matcher(text);
        if (found.matches()) return day(part(found, 2, 3), 6 * part(found, 1, 4) - 5, 1, true);
        return monthNamed(text);
    }

    private static int part(Matcher found, int one, int other) {
        return Integer.parseInt(found.group(one) != null ? found.group(one) : found.group(other));
    }

    /** Which month of the year the text names without saying of which, 1 to 12; 0 for none. */
    static int monthAlone(String text) {
        return MONTHS.getOrDefault(folded(text).replaceFirst("\\.$", ""), 0);
    }

    private static int monthNamed(String text) {
        int month = 0;
        String year = null;
        for (String word : folded(text).split("[\\s,./’'-]+")) {
            if (word.isEmpty() || BETWEEN.contains(word)) continue;
            if (MONTHS.containsKey(word) && month == 0) month = MONTHS.get(word);
            else if (year == null && (word.length() == 4 || word.length() == 2) && digits(word, 0, word.length()) >= 0)
                year = word;
            else return DateColumn.MISSING;
        }
        return month == 0 || year == null
                ? DateColumn.MISSING
                : day(Integer.parseInt(year), month, 1, year.length() == 4);
    }

    private static int week(int year, int week, int day) {
        try {
            LocalDate fourth = LocalDate.of(year, 1, 4);
            if (week < 1
                    || week
                            > IsoFields.WEEK_OF_WEEK_BASED_YEAR
                                    .rangeRefinedBy(fourth)
                                    .getMaximum()) return DateColumn.MISSING;
            return (int) fourth.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY))
                    .plusWeeks(week - 1L)
                    .plusDays(day - 1L)
                    .toEpochDay();
        } catch (DateTimeException unreadable) {
            return DateColumn.MISSING;
        }
    }

    private static int day(int year, int month, int day, boolean full) {
        int whole = full ? year : year < TURN ? 2000 + year : 1900 + year;
        if (whole < EARLIEST || whole > LATEST || month < 1 || month > 12 || day < 1 || day > 31)
            return DateColumn.MISSING;
        try {
            return (int) LocalDate.of(whole, month, day).toEpochDay();
        } catch (DateTimeException unreadable) {
            return DateColumn.MISSING;
        }
    }

    static int digits(String text, int from, int to) {
        if (to <= from || to - from > 8) return -1;
        int value = 0;
        for (int i = from; i < to; i++) {
            if (!isDigit(text.charAt(i))) return -1;
            value = value * 10 + text.charAt(i) - '0';
        }
        return value;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    private static String folded(String text) {
        return Normalizer.normalize(text, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT);
    }

    private static Map<String, Integer> months() {
        Map<String, Integer> months = new HashMap<>();
        for (String language : LANGUAGES) {
            DateFormatSymbols symbols = DateFormatSymbols.getInstance(new Locale(language));
            for (String[] names : List.of(symbols.getMonths(), symbols.getShortMonths())) {
                for (int m = 0; m < 12; m++)
                    for (String word : folded(names[m]).split("[\\s./’'-]+"))
                        if (word.length() > 2) months.putIfAbsent(word, m + 1);
            }
        }
        // Shorter and longer forms in use beside those of the calendar.
        months.put("sept", 9);
        months.put("setiembre", 9);
        months.put("febr", 2);
        return months;
    }

    private static Set<String> days() {
        Set<String> days = new HashSet<>();
        for (String language : LANGUAGES) {
            DateFormatSymbols symbols = DateFormatSymbols.getInstance(new Locale(language));
            for (String[] names : List.of(symbols.getWeekdays(), symbols.getShortWeekdays()))
                for (String name : names)
                    for (String word : folded(name).split("[\\s./-]+")) if (word.length() > 1) days.add(word);
        }
        return days;
    }

    private static Set<String> between() {
        Set<String> words = new HashSet<>(Set.of("de", "del", "of", "the", "do", "da", "den", "der", "le", "d", "th"));
        words.addAll(DAYS);
        words.removeAll(MONTHS.keySet());
        return words;
    }
}
