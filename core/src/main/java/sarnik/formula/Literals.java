package sarnik.formula;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.formula.Lexer.Word;

/** Reads what stands for itself in a formula: numbers, dates, times and intervals (ISO/IEC 9075-2, 5.3). */
final class Literals {

    private static final Pattern SPAN = Pattern.compile(
            "([-+]?\\d{1,9})\\s*(year|month|mon|week|day|hour|minute|min|second|sec)s?", Pattern.CASE_INSENSITIVE);
    private static final Pattern SPANS =
            Pattern.compile("\\s*(?:" + SPAN.pattern() + "\\s*)+", Pattern.CASE_INSENSITIVE);

    private Literals() {}

    /**
     * A text with its units in it, as PostgreSQL takes it: {@code INTERVAL '1 month'}, {@code INTERVAL '2 years 3
     * days'}.
     */
    private static Expression spans(Word word, Word value, boolean minus) {
        Matcher each = SPAN.matcher(value.text());
        Interval sum = new Interval(0, 0, 0);
        while (each.find()) sum = sum.plus(of(Long.parseLong(each.group(1)), each.group(2)));
        return new Expression.Literal(word.from(), value.to(), Kind.INTERVAL, minus ? sum.times(-1) : sum);
    }

    private static Interval of(long amount, String unit) {
        return switch (unit.toUpperCase(Locale.ROOT)) {
            case "YEAR" -> new Interval(amount * 12, 0, 0);
            case "MONTH", "MON" -> new Interval(amount, 0, 0);
            case "WEEK" -> new Interval(0, amount * 7, 0);
            case "DAY" -> new Interval(0, amount, 0);
            case "HOUR" -> new Interval(0, 0, amount * 3600);
            case "MINUTE", "MIN" -> new Interval(0, 0, amount * 60);
            case "SECOND", "SEC" -> new Interval(0, 0, amount);
            default -> null;
        };
    }

    /** A whole number, or a decimal one where it has a point or is too large. */
    static Expression number(Word word) {
        if (word.text().matches("[0-9]+")) {
            try {
                return new Expression.Literal(word.from(), word.to(), Kind.WHOLE, Long.parseLong(word.text()));
            } catch (NumberFormatException large) {
                // Larger than a whole number can be: taken as a decimal one.
            }
        }
        double value = Double.parseDouble(word.text());
        if (!Double.isFinite(value))
            throw new FormulaException(word.from(), word.to(), "The number " + word.text() + " is too large.");
        return new Expression.Literal(word.from(), word.to(), Kind.DECIMAL, value);
    }

    /** DATE or TIMESTAMP and a text. */
    static Expression moment(Word word, Word value, String kind) {
        try {
            if (kind.equals("DATE"))
                return new Expression.Literal(word.from(), value.to(), Kind.DATE, (int)
                        LocalDate.parse(value.text().strip()).toEpochDay());
            String iso = value.text().strip().replaceFirst(" +", "T");
            return new Expression.Literal(
                    word.from(),
                    value.to(),
                    Kind.TIME,
                    LocalDateTime.parse(iso.contains("T") ? iso : iso + "T00:00")
                            .toEpochSecond(ZoneOffset.UTC));
        } catch (DateTimeException unread) {
            throw new FormulaException(
                    value.from(),
                    value.to(),
                    "“%s” is no %s. Write it like %s."
                            .formatted(
                                    value.text(),
                                    kind.equals("DATE") ? "date" : "date with time",
                                    kind.equals("DATE") ? "DATE '2026-05-31'" : "TIMESTAMP '2026-05-31 07:30:00'"));
        }
    }

    /** INTERVAL, perhaps a sign, a text and a unit. */
    static Expression interval(Word word, WordCursor words) {
        boolean minus = words.accept("-");
        Word value = words.take();
        Matcher spans = SPANS.matcher(value.text());
        if (spans.matches()) return spans(word, value, minus);
        long amount;
        try {
            amount = Math.multiplyExact(Long.parseLong(value.text().strip()), minus ? -1 : 1);
            if (Math.abs(amount) > 1_000_000_000L) throw new NumberFormatException();
        } catch (NumberFormatException | ArithmeticException unread) {
            throw new FormulaException(
                    value.from(),
                    value.to(),
                    "“%s” is no whole number. Write an interval like INTERVAL '3' MONTH.".formatted(value.text()));
        }
        Word unit = words.take();
        Interval interval = of(amount, unit.upper());
        if (interval == null) {
            throw new FormulaException(
                    unit.from(),
                    unit.to(),
                    "After the number of an interval stands YEAR, MONTH, DAY, HOUR, MINUTE or SECOND, not "
                            + WordCursor.named(unit) + ".");
        }
        return new Expression.Literal(word.from(), unit.to(), Kind.INTERVAL, interval);
    }
}
