package sarnik.formula;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import sarnik.formula.Lexer.Sort;
import sarnik.formula.Lexer.Word;

/**
 * Reads the SQL value expressions (ISO/IEC 9075-2, 6) that formulas are made of, by recursive descent; precedence as
 * PostgreSQL documents it.
 */
final class Parser {

    private static final int LONGEST = 10_000;
    private static final int DEEPEST = 120;
    private static final Set<String> SUMMARIES = Set.of("SUM", "AVG", "COUNT", "MIN", "MAX", "STDDEV_SAMP", "VAR_SAMP", "PERCENTILE_CONT", "PERCENTILE_DISC", "MODE");
    private static final Set<String> ORDERED = Set.of("PERCENTILE_CONT", "PERCENTILE_DISC", "MODE");
    private static final Set<String> COMPARISONS = Set.of("=", "<>", "!=", "<", "<=", ">", ">=");
    private static final Set<String> RESERVED = Set.of("AND", "OR", "NOT", "CASE", "WHEN", "THEN", "ELSE", "END", "IS", "IN", "LIKE", "BETWEEN", "FROM", "FOR", "FILTER", "WITHIN", "ESCAPE", "AS");

    private final List<Word> words;
    private int at;
    private int depth;

    private Parser(String text) {
        this.words = Lexer.words(text);
    }

    static Expression parse(String text) {
        if (text.length() > LONGEST) throw new FormulaException(0, text.length(), "The formula is longer than %,d characters. Cut it into several.".formatted(LONGEST));
        Parser parser = new Parser(text);
        if (parser.peek().sort() == Sort.END) throw new FormulaException(0, 0, "Write a formula, such as litres * 2.");
        Expression whole = parser.or();
        Word rest = parser.peek();
        if (rest.sort() != Sort.END) throw new FormulaException(rest.from(), rest.to(), "The formula could end before “%s”. An operator or a comma is missing, or a bracket too many.".formatted(rest.text()));
        return whole;
    }

    private Word peek() {
        return words.get(at);
    }

    private Word take() {
        return words.get(at++);
    }

    private boolean accept(String keyword) {
        if (!peek().is(keyword)) return false;
        at++;
        return true;
    }

    private Word expect(String keyword, String why) {
        if (peek().is(keyword)) return take();
        Word found = peek();
        throw new FormulaException(found.from(), Math.max(found.to(), found.from()), "%s is expected %s, not %s.".formatted(keyword, why, named(found)));
    }

    private static String named(Word word) {
        return word.sort() == Sort.END ? "the end of the formula" : "“" + word.text() + "”";
    }

    private int end() {
        return at == 0 ? 0 : words.get(at - 1).to();
    }

    private Expression or() {
        if (++depth > DEEPEST) throw new FormulaException(peek().from(), peek().to(), "The formula's brackets stand inside each other too deeply.");
        Expression left = and();
        while (accept("OR")) {
            Expression right = and();
            left = new Expression.Binary(left.from(), end(), "OR", left, right);
        }
        depth--;
        return left;
    }

    private Expression and() {
        Expression left = not();
        while (accept("AND")) {
            Expression right = not();
            left = new Expression.Binary(left.from(), end(), "AND", left, right);
        }
        return left;
    }

    private Expression not() {
        if (!peek().is("NOT")) return is();
        int from = take().from();
        if (++depth > DEEPEST) throw new FormulaException(from, from + 3, "The formula's NOTs stand inside each other too deeply.");
        Expression of = not();
        depth--;
        return new Expression.Unary(from, end(), "NOT", of);
    }

    private Expression is() {
        Expression left = comparison();
        while (accept("IS")) {
            boolean not = accept("NOT");
            if (accept("DISTINCT")) {
                expect("FROM", "after IS DISTINCT");
                Expression right = comparison();
                left = new Expression.Distinct(left.from(), end(), left, right, not);
                continue;
            }
            Word test = take();
            if (!Set.of("NULL", "TRUE", "FALSE", "UNKNOWN").contains(test.upper())) {
                throw new FormulaException(test.from(), test.to(), "After IS stands NULL, TRUE, FALSE, UNKNOWN or DISTINCT FROM, not " + named(test) + ".");
            }
            left = new Expression.Is(left.from(), end(), left, test.upper(), not);
        }
        return left;
    }

    private Expression comparison() {
        Expression left = range();
        if (COMPARISONS.contains(peek().text()) && peek().sort() == Sort.SIGN) {
            String operator = take().text();
            Expression right = range();
            if (COMPARISONS.contains(peek().text()) && peek().sort() == Sort.SIGN) {
                throw new FormulaException(peek().from(), peek().to(), "Two comparisons in a row have no meaning. Write them apart with AND, or use BETWEEN.");
            }
            return new Expression.Binary(left.from(), end(), operator.equals("!=") ? "<>" : operator, left, right);
        }
        return left;
    }

    /** BETWEEN, IN and LIKE. */
    private Expression range() {
        Expression left = concatenation();
        int before = at;
        boolean not = accept("NOT");
        if (accept("BETWEEN")) {
            Expression low = concatenation();
            expect("AND", "between the two ends of BETWEEN");
            Expression high = concatenation();
            return new Expression.Between(left.from(), end(), left, low, high, not);
        }
        if (accept("IN")) {
            expect("(", "after IN");
            List<Expression> values = list("IN");
            return new Expression.In(left.from(), end(), left, values, not);
        }
        if (accept("LIKE")) {
            Expression pattern = concatenation();
            Expression escape = accept("ESCAPE") ? concatenation() : null;
            return new Expression.Like(left.from(), end(), left, pattern, escape, not);
        }
        if (not) at = before;
        return left;
    }

    private Expression concatenation() {
        Expression left = sum();
        while (accept("||")) {
            Expression right = sum();
            left = new Expression.Binary(left.from(), end(), "||", left, right);
        }
        return left;
    }

    private Expression sum() {
        Expression left = product();
        while (peek().is("+") || peek().is("-")) {
            String operator = take().text();
            Expression right = product();
            left = new Expression.Binary(left.from(), end(), operator, left, right);
        }
        return left;
    }

    private Expression product() {
        Expression left = signed();
        while (peek().is("*") || peek().is("/")) {
            String operator = take().text();
            Expression right = signed();
            left = new Expression.Binary(left.from(), end(), operator, left, right);
        }
        return left;
    }

    private Expression signed() {
        if (!peek().is("-") && !peek().is("+")) return primary();
        Word sign = take();
        if (++depth > DEEPEST) throw new FormulaException(sign.from(), sign.to(), "Too many signs in a row.");
        Expression of = signed();
        depth--;
        return new Expression.Unary(sign.from(), end(), sign.text(), of);
    }

    private Expression primary() {
        Word word = take();
        switch (word.sort()) {
            case NUMBER -> {
                return number(word);
            }
            case STRING -> {
                return new Expression.Literal(word.from(), word.to(), Kind.TEXT, word.text());
            }
            case PARAMETER -> {
                return new Expression.Parameter(word.from(), word.to(), word.text());
            }
            case QUOTED_NAME -> {
                return new Expression.Name(word.from(), word.to(), word.text(), true);
            }
            case SIGN -> {
                if (word.is("(")) {
                    Expression inside = or();
                    expect(")", "at the end of what “(” opened");
                    return inside;
                }
            }
            case NAME -> {
                return named(word, word.upper());
            }
            default -> {}
        }
        throw new FormulaException(word.from(), word.to(), "A column, a number, a text or a function is expected here, not " + named(word) + ".");
    }

    private static Expression number(Word word) {
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

    private Expression named(Word word, String upper) {
        switch (upper) {
            case "TRUE", "FALSE" -> {
                return new Expression.Literal(word.from(), word.to(), Kind.YES_NO, upper.equals("TRUE"));
            }
            case "NULL" -> {
                return new Expression.Literal(word.from(), word.to(), Kind.NOTHING, null);
            }
            case "CASE" -> {
                return caseOf(word);
            }
            case "CAST" -> {
                return cast(word);
            }
            case "CURRENT_DATE" -> {
                return new Expression.Call(word.from(), word.to(), upper, List.of());
            }
            case "DATE", "TIMESTAMP" -> {
                if (peek().sort() == Sort.STRING) return moment(word, upper);
            }
            case "INTERVAL" -> {
                if (peek().sort() == Sort.STRING || peek().is("-")) return interval(word);
            }
            default -> {}
        }
        if (peek().is("(")) {
            if (upper.equals("EXTRACT")) return extract(word);
            if (upper.equals("TRIM")) return trim(word);
            if (upper.equals("SUBSTRING")) return substring(word);
            if (upper.equals("POSITION")) return position(word);
            if (SUMMARIES.contains(upper)) return summary(word, upper);
            take();
            List<Expression> arguments = list(upper);
            return new Expression.Call(word.from(), end(), upper, arguments);
        }
        if (RESERVED.contains(upper)) {
            throw new FormulaException(word.from(), word.to(), "“%s” cannot stand here. If it is a column, write it in double quotes.".formatted(word.text()));
        }
        return new Expression.Name(word.from(), word.to(), word.text(), false);
    }

    /** What stands in brackets, after the opening one. */
    private List<Expression> list(String of) {
        List<Expression> values = new ArrayList<>();
        if (accept(")")) return values;
        do {
            values.add(or());
            if (values.size() > 1000) throw new FormulaException(peek().from(), peek().to(), "The list has more than 1,000 values.");
        } while (accept(","));
        expect(")", "at the end of " + of + "(…");
        return values;
    }

    private Expression caseOf(Word word) {
        Expression subject = peek().is("WHEN") ? null : or();
        List<Expression.When> whens = new ArrayList<>();
        while (accept("WHEN")) {
            Expression condition = or();
            expect("THEN", "after the condition of WHEN");
            whens.add(new Expression.When(condition, or()));
        }
        if (whens.isEmpty()) throw new FormulaException(peek().from(), peek().to(), "After CASE stands WHEN, a condition, THEN and a value.");
        Expression otherwise = accept("ELSE") ? or() : null;
        expect("END", "at the end of CASE");
        return new Expression.Case(word.from(), end(), subject, whens, otherwise);
    }

    private Expression cast(Word word) {
        expect("(", "after CAST");
        Expression of = or();
        expect("AS", "in CAST(… AS type)");
        int from = peek().from();
        StringBuilder type = new StringBuilder();
        while (peek().sort() == Sort.NAME) type.append(type.isEmpty() ? "" : " ").append(take().upper());
        expect(")", "at the end of CAST(…");
        return new Expression.Cast(word.from(), end(), of, type.toString(), from);
    }

    private Expression moment(Word word, String kind) {
        Word value = take();
        try {
            if (kind.equals("DATE")) return new Expression.Literal(word.from(), value.to(), Kind.DATE, (int) LocalDate.parse(value.text().strip()).toEpochDay());
            String iso = value.text().strip().replaceFirst(" +", "T");
            return new Expression.Literal(word.from(), value.to(), Kind.TIME, LocalDateTime.parse(iso.contains("T") ? iso : iso + "T00:00").toEpochSecond(ZoneOffset.UTC));
        } catch (DateTimeException unread) {
            throw new FormulaException(value.from(), value.to(), "“%s” is no %s. Write it like %s.".formatted(value.text(), kind.equals("DATE") ? "date" : "date with time",
                    kind.equals("DATE") ? "DATE '2026-05-31'" : "TIMESTAMP '2026-05-31 07:30:00'"));
        }
    }

    private Expression interval(Word word) {
        boolean minus = accept("-");
        Word value = take();
        long amount;
        try {
            amount = Math.multiplyExact(Long.parseLong(value.text().strip()), minus ? -1 : 1);
            if (Math.abs(amount) > 1_000_000_000L) throw new NumberFormatException();
        } catch (NumberFormatException | ArithmeticException unread) {
            throw new FormulaException(value.from(), value.to(), "“%s” is no whole number. Write an interval like INTERVAL '3' MONTH.".formatted(value.text()));
        }
        Word unit = take();
        Interval interval = switch (unit.upper()) {
            case "YEAR" -> new Interval(amount * 12, 0, 0);
            case "MONTH" -> new Interval(amount, 0, 0);
            case "DAY" -> new Interval(0, amount, 0);
            case "HOUR" -> new Interval(0, 0, amount * 3600);
            case "MINUTE" -> new Interval(0, 0, amount * 60);
            case "SECOND" -> new Interval(0, 0, amount);
            default -> throw new FormulaException(unit.from(), unit.to(), "After the number of an interval stands YEAR, MONTH, DAY, HOUR, MINUTE or SECOND, not " + named(unit) + ".");
        };
        return new Expression.Literal(word.from(), unit.to(), Kind.INTERVAL, interval);
    }

    private Expression extract(Word word) {
        take();
        Word field = take();
        expect("FROM", "in EXTRACT(field FROM …");
        Expression of = or();
        expect(")", "at the end of EXTRACT(…");
        return new Expression.Extract(word.from(), end(), field.upper(), of);
    }

    private Expression trim(Word word) {
        take();
        String side = peek().is("BOTH") || peek().is("LEADING") || peek().is("TRAILING") ? take().upper() : null;
        Expression first = side != null && peek().is("FROM") ? null : or();
        Expression characters = null;
        Expression of = first;
        if (accept("FROM")) {
            characters = first;
            of = or();
        } else if (side != null) {
            throw new FormulaException(peek().from(), peek().to(), "FROM is expected in TRIM(" + side + " … FROM text).");
        }
        expect(")", "at the end of TRIM(…");
        return new Expression.Trim(word.from(), end(), side == null ? "BOTH" : side, characters, of);
    }

    private Expression substring(Word word) {
        take();
        List<Expression> arguments = new ArrayList<>();
        arguments.add(or());
        if (accept("FROM")) {
            arguments.add(or());
            if (accept("FOR")) arguments.add(or());
        } else {
            while (accept(",")) arguments.add(or());
        }
        expect(")", "at the end of SUBSTRING(…");
        return new Expression.Call(word.from(), end(), "SUBSTRING", arguments);
    }

    private Expression position(Word word) {
        take();
        Expression part = concatenation();
        expect("IN", "in POSITION(part IN text)");
        Expression whole = or();
        expect(")", "at the end of POSITION(…");
        return new Expression.Call(word.from(), end(), "POSITION", List.of(part, whole));
    }

    private Expression summary(Word word, String function) {
        take();
        Expression argument = null;
        Expression fraction = null;
        boolean distinct = accept("DISTINCT");
        if (peek().is("*")) {
            Word star = take();
            if (!function.equals("COUNT") || distinct) throw new FormulaException(star.from(), star.to(), "Only COUNT counts rows with *. Name a column to sum up.");
            argument = new Expression.Star(star.from(), star.to());
        } else if (!peek().is(")")) {
            argument = or();
        }
        expect(")", "at the end of " + function + "(…");
        if (ORDERED.contains(function)) {
            fraction = argument;
            expect("WITHIN", "after " + function + "(…), as in WITHIN GROUP (ORDER BY column)");
            expect("GROUP", "after WITHIN");
            expect("(", "after WITHIN GROUP");
            expect("ORDER", "in WITHIN GROUP (ORDER BY column)");
            expect("BY", "after ORDER");
            argument = or();
            expect(")", "at the end of WITHIN GROUP (…");
        }
        if (argument == null) throw new FormulaException(word.from(), end(), function + " needs something to sum up, such as " + function + "(litres).");
        Expression filter = null;
        if (accept("FILTER")) {
            expect("(", "after FILTER");
            expect("WHERE", "in FILTER (WHERE condition)");
            filter = or();
            expect(")", "at the end of FILTER (…");
        }
        return new Expression.Summary(word.from(), end(), function, distinct, argument, fraction, filter);
    }
}
