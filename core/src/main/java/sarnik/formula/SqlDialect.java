package sarnik.formula;

import java.util.List;

/**
 * How a database writes what the others write otherwise. All of them give the same values, as far as they can; what one
 * cannot do it refuses ({@link #lacks}).
 */
public interface SqlDialect {

    /** What the database is called. */
    String name();

    /** A name as it stands in SQL. */
    default String quoted(String name) {
        return "\"" + name.replace("\"", "\"\"") + "\"";
    }

    /** The type of values of a kind; null for kinds that no database has. */
    String type(Kind kind);

    /** A text as it stands in SQL. */
    default String text(String value) {
        if (value.indexOf('\0') >= 0) throw new IllegalArgumentException("No text of a database holds the character 0");
        return "'" + value.replace("'", "''") + "'";
    }

    /**
     * A value as it stands in SQL.
     *
     * @param value as {@link Surroundings#parameters} has it; null for a missing one
     */
    String literal(Kind kind, Object value);

    /** A value as one of another kind, which it can always be. */
    default String cast(String sql, Kind to) {
        return "CAST(" + sql + " AS " + type(to) + ")";
    }

    /** A date and a number of days later. */
    String plusDays(String date, String days);

    /** How many days lie between two dates. */
    String daysBetween(String later, String earlier);

    /** Days from 1970-01-01 to a date. */
    default String day(String date) {
        return daysBetween(date, "DATE '1970-01-01'");
    }

    /** Whole seconds from 1970-01-01T00:00 to a date-time. */
    String second(String time);

    /** A date-time moved by months, days and seconds. */
    String moved(String time, long months, long days, long seconds);

    /**
     * A part of a date-time as a whole number: YEAR, QUARTER, MONTH, WEEK, DAY, DOW (0 is Sunday), ISODOW, DOY, HOUR,
     * MINUTE.
     */
    String part(String field, String time);

    /** The local date-time that a clock shows which reads a zone at a date-time of UTC. */
    String inZone(String time, String zone);

    /** A moment as a date-time of UTC. */
    String utc(String moment);

    /** A date-time of UTC as a moment. */
    String moment(String time);

    /** A floating-point number; missing where it is none or has no end. */
    String finite(String number);

    /** A floating-point number of 32 bits as the decimal one that it is written as. */
    String shortFloat(String number);

    /** An exact number; missing where it is none. */
    String digits(String number);

    /** A text in small letters, as all scripts have them. */
    String lower(String text);

    /** A text in capitals, as all scripts have them. */
    String upper(String text);

    /** How texts are marked so that they stand in the order of their characters. */
    String byCharacter(String text);

    /** A number rounded to a whole one, halves to the even one. */
    String rounded(String number);

    /** A number rounded to places behind its point. */
    String rounded(String number, String places);

    /** A number without what is behind its point. */
    String truncated(String number);

    /** The logarithm to the base of ten. */
    String logarithm(String number);

    /** Which of so many equally wide steps between two ends a number falls into. */
    String bucket(String number, String from, String to, String steps);

    /**
     * A text without some characters at its ends.
     *
     * @param side BOTH, LEADING or TRAILING
     * @param characters null for spaces
     * @return null where the database cannot take such characters away
     */
    String trimmed(String side, String characters, String text);

    /** Whether a text has a part that a pattern fits. */
    String fits(String text, String pattern, boolean anyCase);

    /** The greatest or the least of some values, missing ones left out. */
    String extreme(boolean greatest, List<String> values);

    /** Texts that mean yes, and those that mean no, in small letters; see {@link Texts#yesNo}. */
    List<String> YES = List.of("t", "tr", "tru", "true", "y", "ye", "yes", "on", "1");

    List<String> NO = List.of("f", "fa", "fal", "fals", "false", "n", "no", "of", "off", "0");

    /** A text read as a value of a kind; missing where it is none. */
    String read(String text, Kind as);

    /** A value written as a text, as CAST writes it; null where the database writes such values otherwise. */
    String written(String value, Kind of);

    /**
     * The value below which so many of one lie, between values in proportion.
     *
     * @param where which rows take part; null for all
     */
    String percentile(double fraction, String values, String where);

    /** The value at which so many of one are reached. */
    String percentileOfValues(double fraction, String values, String where);

    /** The commonest value, of several the least; null where the database cannot say. */
    String mode(String values, String where);

    /** What stands behind a summary of which only some rows take part; null for all. */
    static String only(String where) {
        return where == null ? "" : " FILTER (WHERE " + where + ")";
    }

    /** All different texts, put together with {@link #BETWEEN}. */
    String gathered(String text);

    /** Stands between gathered texts. */
    char BETWEEN = '\u001f';

    /** Functions whose names and meanings are those of formulas. */
    boolean knows(String function);

    /**
     * Rows of texts and numbers as a relation.
     *
     * @param columns for each column its values, all texts (String) or all numbers (Long, Double); none is missing
     * @param names the columns' names
     */
    String rows(List<List<?>> columns, List<String> names);

    /** What is thrown for what the database has no word for. */
    default FormulaException lacks(int from, int to, String what) {
        return new FormulaException(
                from,
                to,
                "%s cannot be worked out where the rows are: %s has no such thing. Bring the rows in, or write it otherwise."
                        .formatted(what, name()));
    }
}
