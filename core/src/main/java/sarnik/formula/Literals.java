package sarnik.formula;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import sarnik.formula.Lexer.Word;

/** Reads what stands for itself in a formula: numbers, dates, times and intervals (ISO/IEC 9075-2, 5.3). */
final class Literals {

    private Literals() {}

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
        if (!Double.isFinite(value)) throw new FormulaException(word.from(), word.to(), "The number " + word.text() + " is too large.");
        return new Expression.Literal(word.from(), word.to(), Kind.DECIMAL, value);
    }

    /** DATE or TIMESTAMP and a text. */
    static Expression moment(Word word, Word value, String kind) {
        try {
            if (kind.equals("DATE")) return new Expression.Literal(word.from(), value.to(), Kind.DATE, (int) LocalDate.parse(value.text().strip()).toEpochDay());
            String iso = value.text().strip().replaceFirst(" +", "T");
            return new Expression.Literal(word.from(), value.to(), Kind.TIME, LocalDateTime.parse(iso.contains("T") ? iso : iso + "T00:00").toEpochSecond(ZoneOffset.UTC));
        } catch (DateTimeException unread) {
            throw new FormulaException(value.from(), value.to(), "“%s” is no %s. Write it like %s.".formatted(value.text(), kind.equals("DATE") ? "date" : "date with time",
                    kind.equals("DATE") ? "DATE '2026-05-31'" : "TIMESTAMP '2026-05-31 07:30:00'"));
        }
    }

    /** INTERVAL, perhaps a sign, a text and a unit. */
    static Expression interval(Word word, WordCursor words) {
        boolean minus = words.accept("-");
        Word value = words.take();
        long amount;
        try {
            amount = Math.multiplyExact(Long.parseLong(value.text().strip()), minus ? -1 : 1);
            if (Math.abs(amount) > 1_000_000_000L) throw new NumberFormatException();
        } catch (NumberFormatException | ArithmeticException unread) {
            throw new FormulaException(value.from(), value.to(), "“%s” is no whole number. Write an interval like INTERVAL '3' MONTH.".formatted(value.text()));
        }
        Word unit = words.take();
        Interval interval = switch (unit.upper()) {
            case "YEAR" -> new Interval(amount * 12, 0, 0);
            case "MONTH" -> new Interval(amount, 0, 0);
            case "DAY" -> new Interval(0, amount, 0);
            case "HOUR" -> new Interval(0, 0, amount * 3600);
            case "MINUTE" -> new Interval(0, 0, amount * 60);
            case "SECOND" -> new Interval(0, 0, amount);
            default -> throw new FormulaException(unit.from(), unit.to(), "After the number of an interval stands YEAR, MONTH, DAY, HOUR, MINUTE or SECOND, not " + WordCursor.named(unit) + ".");
        };
        return new Expression.Literal(word.from(), unit.to(), Kind.INTERVAL, interval);
    }
}
