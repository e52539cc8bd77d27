package sarnik.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import sarnik.formula.Lexer.Word;

/**
 * Reads window functions (ISO/IEC 9075-2, 6.10) of a measure: {@code SUM(litres) / SUM(SUM(litres)) OVER ()},
 * {@code RANK() OVER (PARTITION BY province ORDER BY SUM(litres) DESC)}.
 */
final class Windows {

    /** Functions that are of windows only. */
    static final Set<String> NAMES = Set.of("RANK", "DENSE_RANK", "ROW_NUMBER", "LAG", "LEAD");

    /** Summaries that may be of a window as well. */
    static final Set<String> SUMMARIES = Set.of("SUM", "AVG", "COUNT", "MIN", "MAX");

    /** Rows of a frame to either side: each row goes through its own. */
    private static final int MOST_ROWS = 10_000;

    private static final Set<String> OF_NEIGHBOURS = Set.of("LAG", "LEAD");
    private static final Set<String> IN_ORDER = Set.of("RANK", "DENSE_RANK", "ROW_NUMBER", "LAG", "LEAD");

    private final WordCursor words;
    private final Supplier<Expression> expression;

    Windows(WordCursor words, Supplier<Expression> expression) {
        this.words = words;
        this.expression = expression;
    }

    /** Reads a function of windows only; its name is at hand, the opening bracket follows. */
    Expression parse(Word word, String function) {
        words.take();
        Expression argument = null;
        int steps = 1;
        if (OF_NEIGHBOURS.contains(function)) {
            argument = expression.get();
            if (words.accept(",")) steps = whole("how many steps away", 100_000);
        }
        words.expect(")", "at the end of " + function + "(…");
        words.expect("OVER", "after " + function + "(…), as in OVER (ORDER BY day)");
        return over(word, function, argument, steps);
    }

    /** Reads the window behind OVER. */
    Expression over(Word word, String function, Expression argument, int steps) {
        words.expect("(", "after OVER");
        List<Expression.Name> partition = new ArrayList<>();
        if (words.accept("PARTITION")) {
            words.expect("BY", "after PARTITION");
            do partition.add(name());
            while (words.accept(","));
        }
        List<Expression.By> order = new ArrayList<>();
        if (words.accept("ORDER")) {
            words.expect("BY", "after ORDER");
            do order.add(by());
            while (words.accept(","));
        }
        if (order.isEmpty() && IN_ORDER.contains(function))
            throw new FormulaException(
                    word.from(), words.end(), function + " goes along an order, as in OVER (ORDER BY day).");
        Expression.Frame frame = words.accept("ROWS") ? frame(order) : null;
        words.expect(")", "at the end of OVER (…");
        if (frame != null && IN_ORDER.contains(function))
            throw new FormulaException(word.from(), words.end(), function + " takes no ROWS.");
        return new Expression.Window(word.from(), words.end(), function, argument, steps, partition, order, frame);
    }

    private Expression.Name name() {
        Expression found = expression.get();
        if (found instanceof Expression.Name name) return name;
        throw new FormulaException(found, "PARTITION BY names a column that the groups are made by.");
    }

    private Expression.By by() {
        Expression found = expression.get();
        boolean down = words.accept("DESC");
        if (!down) words.accept("ASC");
        if (words.accept("NULLS")) words.expect("LAST", "after NULLS: what is missing stands last");
        return new Expression.By(found, down);
    }

    private Expression.Frame frame(List<Expression.By> order) {
        if (order.isEmpty())
            throw new FormulaException(
                    words.peek().from(),
                    words.peek().to(),
                    "ROWS needs an order, as in ORDER BY day ROWS 6 PRECEDING.");
        if (!words.accept("BETWEEN")) return new Expression.Frame(edge("PRECEDING"), 0);
        int from = words.peek().is("CURRENT") ? current() : edge("PRECEDING");
        words.expect("AND", "in ROWS BETWEEN … AND …");
        int to = words.peek().is("CURRENT") ? current() : edge("FOLLOWING");
        return new Expression.Frame(from, to);
    }

    private int current() {
        words.take();
        words.expect("ROW", "after CURRENT");
        return 0;
    }

    private int edge(String side) {
        int steps = words.accept("UNBOUNDED") ? Integer.MAX_VALUE : whole("a number of rows", MOST_ROWS);
        words.expect(side, "in the frame of a window");
        return steps;
    }

    private int whole(String what, int most) {
        Expression found = expression.get();
        if (found instanceof Expression.Literal literal
                && literal.value() instanceof Long number
                && number >= 0
                && number <= most) return number.intValue();
        throw new FormulaException(found, "Here stands %s, a whole number up to %,d.".formatted(what, most));
    }
}
