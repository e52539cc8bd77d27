package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.stream.LongStream;
import sarnik.table.WholeColumn;

/**
 * Numbers as conditions say them. Whole ones are told apart by all their digits: as a decimal number, which holds 15
 * digits, an order 90071992547409931 would be taken for the ones beside it.
 */
public final class NumberText {

    /** From here on there are no whole numbers in 64 bits. */
    private static final double END = 0x1p63;

    /** The one below stands for what is missing. */
    private static final long LEAST = WholeColumn.MISSING + 1;

    private NumberText() {}

    /** Those of the numbers that a column of whole numbers can hold. @throws QueryException where one is no number */
    public static long[] wholes(List<String> texts) {
        return texts.stream().flatMapToLong(NumberText::whole).toArray();
    }

    private static LongStream whole(String text) {
        try {
            return held(Long.parseLong(text.strip()));
        } catch (NumberFormatException notOfDigitsOnly) {
            double number = number(text);
            return number == Math.rint(number) && Math.abs(number) < END ? held((long) number) : LongStream.empty();
        }
    }

    private static LongStream held(long number) {
        return number == WholeColumn.MISSING ? LongStream.empty() : LongStream.of(number);
    }

    /** The least whole number that is not below a bound. @throws QueryException where that is no number */
    public static long wholeFrom(String bound) {
        try {
            return Math.max(LEAST, Long.parseLong(bound.strip()));
        } catch (NumberFormatException notOfDigitsOnly) {
            return Math.max(LEAST, (long) Math.ceil(number(bound)));
        }
    }

    /** The largest whole number that is not above a bound. @throws QueryException where that is no number */
    public static long wholeUpTo(String bound) {
        try {
            return Math.max(LEAST, Long.parseLong(bound.strip()));
        } catch (NumberFormatException notOfDigitsOnly) {
            return Math.max(LEAST, (long) Math.floor(number(bound)));
        }
    }

    /** @throws QueryException where a text is no number */
    public static double number(String text) {
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException unreadable) {
            throw new QueryException(phrase("“{0}” is not a number", text));
        }
    }
}
