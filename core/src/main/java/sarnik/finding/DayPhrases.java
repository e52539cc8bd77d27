package sarnik.finding;

import static sarnik.language.Language.phrase;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.Month;
import java.time.YearMonth;
import java.time.format.TextStyle;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.language.Language;
import sarnik.query.TimeStep;
import sarnik.state.Value;
import sarnik.state.Value.Period.Which;

/** Days as people write them: "since June", "May 2025 to July 2025", "last 30 days", "until 3 March". */
final class DayPhrases {

    /** The most words that a phrase has. */
    static final int LONGEST = 14;

    private static final Pattern LAST = Pattern.compile("(?:the )?last (\\d{1,4}) (day|week|month|quarter|year)s?");
    private static final Pattern STEP = Pattern.compile("(?:the )?(this|last) (week|month|quarter|year)");
    private static final Pattern DATE = Pattern.compile("(\\d{4})-(\\d{2})-(\\d{2})");
    private static final Pattern MONTH = Pattern.compile("(\\d{4})-(\\d{2})");
    private static final Pattern YEAR = Pattern.compile("(1[89]|20)\\d{2}");
    private static final Pattern NAMED = Pattern.compile("(?:(\\d{1,2}) )?([a-z]{3,9})(?: (\\d{4}))?");

    /** A shorter name is too near to others for a slip to be forgiven. */
    private static final int SHORTEST = 4;

    private DayPhrases() {}

    /**
     * What a phrase says.
     *
     * @param value a range of days or a period
     * @param guessed what had to be guessed, such as the year of a month; empty where nothing had to
     */
    record Said(Value value, String guessed) {}

    /**
     * @param words in lower case, blanks between
     * @param counted the day that "last" and months without a year count from
     */
    static Optional<Said> read(String words, LocalDate counted) {
        Matcher last = LAST.matcher(words);
        if (last.matches())
            return Optional.of(new Said(
                    new Value.Period(
                            Which.LAST,
                            Math.max(1, Integer.parseInt(last.group(1))),
                            TimeStep.valueOf(last.group(2).toUpperCase(Locale.ROOT))),
                    ""));
        Matcher step = STEP.matcher(words);
        if (step.matches())
            return Optional.of(new Said(
                    new Value.Period(
                            step.group(1).equals("this") ? Which.THIS : Which.BEFORE,
                            1,
                            TimeStep.valueOf(step.group(2).toUpperCase(Locale.ROOT))),
                    ""));
        if (words.equals("today")) return Optional.of(new Said(new Value.Period(Which.LAST, 1, TimeStep.DAY), ""));
        if (words.equals("year to date"))
            return Optional.of(new Said(new Value.Period(Which.TO_DATE, 1, TimeStep.YEAR), ""));
        for (String since : List.of("since ", "from ", "after "))
            if (words.startsWith(since) && !words.contains(" to "))
                return stretch(words.substring(since.length()), counted)
                        .map(s -> new Said(
                                new Value.Range(since.equals("after ") ? s.to.plusDays(1) : s.from, null), s.guessed));
        for (String until : List.of("until ", "till ", "up to ", "before "))
            if (words.startsWith(until))
                return stretch(words.substring(until.length()), counted)
                        .map(s -> new Said(
                                new Value.Range(null, until.equals("before ") ? s.from.minusDays(1) : s.to),
                                s.guessed));
        String plain = words.startsWith("from ") ? words.substring("from ".length()) : words;
        String[] ends = plain.startsWith("between ")
                ? plain.substring("between ".length()).split(" and ", 2)
                : plain.split(" to ", 2);
        if (ends.length == 2) {
            Optional<Stretch> from = stretch(ends[0], counted);
            Optional<Stretch> to = stretch(ends[1], counted);
            if (from.isEmpty() || to.isEmpty()) return Optional.empty();
            Stretch first = from.get();
            Stretch end = to.get();
            // "February to November" in March: neither may be of a year in which they would stand the wrong way round.
            if (first.from.isAfter(end.to) && !first.guessed.isEmpty()) first = first.years(-1);
            else if (first.from.isAfter(end.to) && !end.guessed.isEmpty()) end = end.years(1);
            String guessed = first.guessed.isEmpty() || end.guessed.isEmpty()
                    ? first.guessed + end.guessed
                    : phrase("{0} to {1}", first.guessed, end.guessed);
            return Optional.of(new Said(new Value.Range(first.from, end.to), guessed));
        }
        // A number alone is no year that anybody would mean by it, but for one like 2025.
        return stretch(words.startsWith("in ") ? words.substring("in ".length()) : words, counted)
                .map(s -> new Said(new Value.Range(s.from, s.to), s.guessed));
    }

    /** A day or a month whose year may be guessed, or a year. */
    private record Stretch(LocalDate from, LocalDate to, String guessed) {

        /** The same so many years later, where the year is guessed. */
        Stretch years(int count) {
            LocalDate first = from.plusYears(count);
            YearMonth month = YearMonth.from(first);
            return new Stretch(first, from.equals(to) ? first : month.atEndOfMonth(), guess(month));
        }
    }

    private static String guess(YearMonth month) {
        return phrase("month, year|{0} {1}", Language.month(month.getMonthValue()), String.valueOf(month.getYear()));
    }

    private static Optional<Stretch> stretch(String words, LocalDate counted) {
        try {
            Matcher date = DATE.matcher(words);
            if (date.matches()) return Optional.of(day(LocalDate.parse(words), ""));
            Matcher month = MONTH.matcher(words);
            if (month.matches()) return Optional.of(month(YearMonth.parse(words), ""));
            if (YEAR.matcher(words).matches()) {
                int year = Integer.parseInt(words);
                return Optional.of(new Stretch(LocalDate.of(year, 1, 1), LocalDate.of(year, 12, 31), ""));
            }
            Matcher named = NAMED.matcher(words);
            Optional<Month> of = named.matches() ? month(named.group(2)) : Optional.empty();
            if (of.isEmpty()) return Optional.empty();
            boolean said = named.group(3) != null;
            YearMonth at = said
                    ? YearMonth.of(Integer.parseInt(named.group(3)), of.get())
                    : YearMonth.of(
                            of.get().getValue() > counted.getMonthValue() ? counted.getYear() - 1 : counted.getYear(),
                            of.get());
            String guessed = said ? "" : guess(at);
            return Optional.of(
                    named.group(1) == null
                            ? month(at, guessed)
                            : day(at.atDay(Integer.parseInt(named.group(1))), guessed));
        } catch (DateTimeException none) {
            return Optional.empty();
        }
    }

    private static Stretch day(LocalDate day, String guessed) {
        return new Stretch(day, day, guessed);
    }

    private static Stretch month(YearMonth month, String guessed) {
        return new Stretch(month.atDay(1), month.atEndOfMonth(), guessed);
    }

    private static Optional<Month> month(String name) {
        for (Month month : Month.values()) {
            String whole = month.getDisplayName(TextStyle.FULL, Locale.ENGLISH).toLowerCase(Locale.ROOT);
            if (whole.equals(name)
                    || whole.substring(0, 3).equals(name)
                    || name.equals("sept") && month == Month.SEPTEMBER) return Optional.of(month);
        }
        // One slip is forgiven in a name of which none other is as near.
        if (name.length() < SHORTEST) return Optional.empty();
        List<Month> near = Arrays.stream(Month.values())
                .filter(month -> Finder.slips(
                                name,
                                month.getDisplayName(TextStyle.FULL, Locale.ENGLISH)
                                        .toLowerCase(Locale.ROOT),
                                1)
                        <= 1)
                .toList();
        return near.size() == 1 ? Optional.of(near.get(0)) : Optional.empty();
    }
}
