package sarnik.formula;

import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import sarnik.formula.Lexer.Word;

/**
 * Reads summaries of rows: {@code SUM(DISTINCT litres)}, {@code CORR(y, x)}, {@code MODE() WITHIN GROUP (ORDER BY n)
 * FILTER (WHERE open)}.
 */
final class Summaries {

    /** Names of all summaries. */
    static final Set<String> NAMES = Set.of(
            "SUM",
            "AVG",
            "COUNT",
            "MIN",
            "MAX",
            "STDDEV_SAMP",
            "VAR_SAMP",
            "STDDEV",
            "VARIANCE",
            "MEDIAN",
            "PERCENTILE_CONT",
            "PERCENTILE_DISC",
            "MODE",
            "CORR",
            "REGR_SLOPE",
            "REGR_INTERCEPT",
            "REGR_R2");

    /** Summaries of two columns: the one that depends, then the one that it depends on. */
    private static final Set<String> OF_TWO = Set.of("CORR", "REGR_SLOPE", "REGR_INTERCEPT", "REGR_R2");

    private static final Set<String> ORDERED = Set.of("PERCENTILE_CONT", "PERCENTILE_DISC", "MODE");
    private static final Map<String, String> OTHER_NAMES = Map.of("STDDEV", "STDDEV_SAMP", "VARIANCE", "VAR_SAMP");

    private final WordCursor words;

    /** Reads the expression that stands next. */
    private final Supplier<Expression> expression;

    Summaries(WordCursor words, Supplier<Expression> expression) {
        this.words = words;
        this.expression = expression;
    }

    /**
     * @param word the name of the summary
     * @param written its name in capitals; the opening bracket follows
     */
    Expression parse(Word word, String written) {
        String function = OTHER_NAMES.getOrDefault(written, written);
        words.take();
        Expression argument = null;
        Expression fraction = null;
        boolean distinct = words.accept("DISTINCT");
        if (words.peek().is("*")) {
            Word star = words.take();
            if (!function.equals("COUNT") || distinct)
                throw new FormulaException(
                        star.from(), star.to(), "Only COUNT counts rows with *. Name a column to sum up.");
            argument = new Expression.Star(star.from(), star.to());
        } else if (!words.peek().is(")")) {
            argument = expression.get();
        }
        Expression beside = null;
        if (argument != null && OF_TWO.contains(function)) {
            words.expect(",", "between the two columns of " + function + "(…, …)");
            beside = expression.get();
        }
        words.expect(")", "at the end of " + function + "(…");
        if (ORDERED.contains(function)) {
            fraction = argument;
            words.expect("WITHIN", "after " + function + "(…), as in WITHIN GROUP (ORDER BY column)");
            words.expect("GROUP", "after WITHIN");
            words.expect("(", "after WITHIN GROUP");
            words.expect("ORDER", "in WITHIN GROUP (ORDER BY column)");
            words.expect("BY", "after ORDER");
            argument = expression.get();
            words.expect(")", "at the end of WITHIN GROUP (…");
        }
        if (function.equals("MEDIAN")) {
            function = "PERCENTILE_CONT";
            fraction = new Expression.Literal(word.from(), word.to(), Kind.DECIMAL, 0.5);
        }
        if (argument == null)
            throw new FormulaException(
                    word.from(), words.end(), written + " needs something to sum up, such as " + written + "(litres).");
        Expression filter = null;
        if (words.accept("FILTER")) {
            words.expect("(", "after FILTER");
            words.expect("WHERE", "in FILTER (WHERE condition)");
            filter = expression.get();
            words.expect(")", "at the end of FILTER (…");
        }
        if (words.accept("OVER")) {
            if (!Windows.SUMMARIES.contains(function) || distinct || filter != null)
                throw new FormulaException(
                        word.from(),
                        words.end(),
                        "OVER stands behind SUM, AVG, COUNT, MIN and MAX, without DISTINCT or FILTER; sum up first, as in "
                                + "SUM(COUNT(DISTINCT day)) OVER ().");
            return new Windows(words, expression).over(word, function, argument, 0);
        }
        return new Expression.Summary(word.from(), words.end(), function, distinct, argument, beside, fraction, filter);
    }
}
