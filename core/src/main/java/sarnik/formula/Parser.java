package sarnik.formula;

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
    private static final Set<String> COMPARISONS = Set.of("=", "<>", "!=", "<", "<=", ">", ">=");
    private static final Set<String> PATTERNS = Set.of("~", "~*", "!~", "!~*");
    private static final Set<String> RESERVED = Set.of(
            "AND", "OR", "NOT", "CASE", "WHEN", "THEN", "ELSE", "END", "IS", "IN", "LIKE", "ILIKE", "BETWEEN", "FROM",
            "FOR", "FILTER", "WITHIN", "ESCAPE", "AS");

    private final WordCursor words;
    private int depth;

    private Parser(String text) {
        words = new WordCursor(Lexer.words(text));
    }

    static Expression parse(String text) {
        if (text.length() > LONGEST)
            throw new FormulaException(
                    0,
                    text.length(),
                    "The formula is longer than %,d characters. Cut it into several.".formatted(LONGEST));
        Parser parser = new Parser(text);
        if (parser.words.peek().sort() == Sort.END)
            throw new FormulaException(0, 0, "Write a formula, such as litres * 2.");
        Expression whole = parser.or();
        Word rest = parser.words.peek();
        if (rest.sort() != Sort.END)
            throw new FormulaException(
                    rest.from(),
                    rest.to(),
                    "The formula could end before “%s”. An operator or a comma is missing, or a bracket too many."
                            .formatted(rest.text()));
        return whole;
    }

    private Expression or() {
        if (++depth > DEEPEST)
            throw new FormulaException(
                    words.peek().from(),
                    words.peek().to(),
                    "The formula's brackets stand inside each other too deeply.");
        Expression left = and();
        while (words.accept("OR")) {
            Expression right = and();
            left = new Expression.Binary(left.from(), words.end(), "OR", left, right);
        }
        depth--;
        return left;
    }

    private Expression and() {
        Expression left = not();
        while (words.accept("AND")) {
            Expression right = not();
            left = new Expression.Binary(left.from(), words.end(), "AND", left, right);
        }
        return left;
    }

    private Expression not() {
        if (!words.peek().is("NOT")) return is();
        int from = words.take().from();
        if (++depth > DEEPEST)
            throw new FormulaException(from, from + 3, "The formula's NOTs stand inside each other too deeply.");
        Expression of = not();
        depth--;
        return new Expression.Unary(from, words.end(), "NOT", of);
    }

    private Expression is() {
        Expression left = comparison();
        while (words.accept("IS")) {
            boolean not = words.accept("NOT");
            if (words.accept("DISTINCT")) {
                words.expect("FROM", "after IS DISTINCT");
                Expression right = comparison();
                left = new Expression.Distinct(left.from(), words.end(), left, right, not);
                continue;
            }
            Word test = words.take();
            if (!Set.of("NULL", "TRUE", "FALSE", "UNKNOWN").contains(test.upper())) {
                throw new FormulaException(
                        test.from(),
                        test.to(),
                        "After IS stands NULL, TRUE, FALSE, UNKNOWN or DISTINCT FROM, not " + WordCursor.named(test)
                                + ".");
            }
            left = new Expression.Is(left.from(), words.end(), left, test.upper(), not);
        }
        return left;
    }

    private Expression comparison() {
        Expression left = range();
        if (COMPARISONS.contains(words.peek().text()) && words.peek().sort() == Sort.SIGN) {
            String operator = words.take().text();
            Expression right = range();
            if (COMPARISONS.contains(words.peek().text()) && words.peek().sort() == Sort.SIGN) {
                throw new FormulaException(
                        words.peek().from(),
                        words.peek().to(),
                        "Two comparisons in a row have no meaning. Write them apart with AND, or use BETWEEN.");
            }
            return new Expression.Binary(
                    left.from(), words.end(), operator.equals("!=") ? "<>" : operator, left, right);
        }
        return left;
    }

    /** BETWEEN, IN and LIKE. */
    private Expression range() {
        Expression left = concatenation();
        int before = words.place();
        boolean not = words.accept("NOT");
        if (words.accept("BETWEEN")) {
            Expression low = concatenation();
            words.expect("AND", "between the two ends of BETWEEN");
            Expression high = concatenation();
            return new Expression.Between(left.from(), words.end(), left, low, high, not);
        }
        if (words.accept("IN")) {
            words.expect("(", "after IN");
            List<Expression> values = list("IN");
            return new Expression.In(left.from(), words.end(), left, values, not);
        }
        boolean anyCase = words.peek().is("ILIKE");
        if (anyCase || words.peek().is("LIKE")) {
            words.take();
            Expression pattern = concatenation();
            Expression escape = words.accept("ESCAPE") ? concatenation() : null;
            return new Expression.Like(left.from(), words.end(), left, pattern, escape, not, anyCase);
        }
        if (!not && PATTERNS.contains(words.peek().text()) && words.peek().sort() == Sort.SIGN) {
            String operator = words.take().text();
            Expression right = concatenation();
            return new Expression.Binary(left.from(), words.end(), operator, left, right);
        }
        if (not) words.back(before);
        return left;
    }

    private Expression concatenation() {
        Expression left = sum();
        while (words.accept("||")) {
            Expression right = sum();
            left = new Expression.Binary(left.from(), words.end(), "||", left, right);
        }
        return left;
    }

    private Expression sum() {
        Expression left = product();
        while (words.peek().is("+") || words.peek().is("-")) {
            String operator = words.take().text();
            Expression right = product();
            left = new Expression.Binary(left.from(), words.end(), operator, left, right);
        }
        return left;
    }

    private Expression product() {
        Expression left = signed();
        while (words.peek().is("*") || words.peek().is("/") || words.peek().is("%")) {
            String operator = words.take().text();
            Expression right = signed();
            left = operator.equals("%")
                    ? new Expression.Call(left.from(), words.end(), "MOD", List.of(left, right))
                    : new Expression.Binary(left.from(), words.end(), operator, left, right);
        }
        return left;
    }

    /** A value, and behind it perhaps the types that it is cast to. */
    private Expression castBehind() {
        Expression of = primary();
        while (words.accept("::")) {
            int from = words.peek().from();
            String type = typeName();
            of = new Expression.Cast(of.from(), words.end(), of, type, from);
        }
        return of;
    }

    /** A type's name: one word, or two of those that have two, and the digits of a decimal one. */
    private String typeName() {
        StringBuilder type = new StringBuilder();
        if (words.peek().sort() == Sort.NAME) type.append(words.take().upper());
        if (type.toString().equals("DOUBLE") && words.peek().is("PRECISION")
                || type.toString().equals("CHARACTER") && words.peek().is("VARYING"))
            type.append(' ').append(words.take().upper());
        if (type.toString().matches("NUMERIC|DECIMAL|VARCHAR|CHARACTER VARYING") && words.accept("(")) {
            type.append('(').append(words.take().text());
            if (words.accept(",")) type.append(',').append(words.take().text());
            words.expect(")", "at the end of the type");
            type.append(')');
        }
        return type.toString();
    }

    private Expression signed() {
        if (!words.peek().is("-") && !words.peek().is("+")) return castBehind();
        Word sign = words.take();
        if (++depth > DEEPEST) throw new FormulaException(sign.from(), sign.to(), "Too many signs in a row.");
        Expression of = signed();
        depth--;
        return new Expression.Unary(sign.from(), words.end(), sign.text(), of);
    }

    private Expression primary() {
        Word word = words.take();
        switch (word.sort()) {
            case NUMBER -> {
                return Literals.number(word);
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
                    words.expect(")", "at the end of what “(” opened");
                    return inside;
                }
            }
            case NAME -> {
                return named(word, word.upper());
            }
            default -> {}
        }
        throw new FormulaException(
                word.from(),
                word.to(),
                "A column, a number, a text or a function is expected here, not " + WordCursor.named(word) + ".");
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
                if (words.peek().sort() == Sort.STRING) return Literals.moment(word, words.take(), upper);
            }
            case "INTERVAL" -> {
                if (words.peek().sort() == Sort.STRING || words.peek().is("-")) return Literals.interval(word, words);
            }
            default -> {}
        }
        if (words.peek().is("(")) {
            if (upper.equals("EXTRACT")) return extract(word);
            if (upper.equals("TRIM")) return trim(word);
            if (upper.equals("SUBSTRING")) return substring(word);
            if (upper.equals("POSITION")) return position(word);
            if (Summaries.NAMES.contains(upper)) return new Summaries(words, this::or).parse(word, upper);
            if (Windows.NAMES.contains(upper)) return new Windows(words, this::or).parse(word, upper);
            words.take();
            List<Expression> arguments = list(upper);
            if (upper.equals("DATE_PART")
                    && arguments.size() == 2
                    && arguments.get(0) instanceof Expression.Literal field
                    && field.value() instanceof String name) {
                return new Expression.Extract(
                        word.from(), words.end(), name.toUpperCase(java.util.Locale.ROOT), arguments.get(1));
            }
            return new Expression.Call(word.from(), words.end(), upper, arguments);
        }
        if (RESERVED.contains(upper)) {
            throw new FormulaException(
                    word.from(),
                    word.to(),
                    "“%s” cannot stand here. If it is a column, write it in double quotes.".formatted(word.text()));
        }
        return new Expression.Name(word.from(), word.to(), word.text(), false);
    }

    /** What stands in brackets, after the opening one. */
    private List<Expression> list(String of) {
        List<Expression> values = new ArrayList<>();
        if (words.accept(")")) return values;
        do {
            values.add(or());
            if (values.size() > 1000)
                throw new FormulaException(
                        words.peek().from(), words.peek().to(), "The list has more than 1,000 values.");
        } while (words.accept(","));
        words.expect(")", "at the end of " + of + "(…");
        return values;
    }

    private Expression caseOf(Word word) {
        Expression subject = words.peek().is("WHEN") ? null : or();
        List<Expression.When> whens = new ArrayList<>();
        while (words.accept("WHEN")) {
            Expression condition = or();
            words.expect("THEN", "after the condition of WHEN");
            whens.add(new Expression.When(condition, or()));
        }
        if (whens.isEmpty())
            throw new FormulaException(
                    words.peek().from(), words.peek().to(), "After CASE stands WHEN, a condition, THEN and a value.");
        Expression otherwise = words.accept("ELSE") ? or() : null;
        words.expect("END", "at the end of CASE");
        return new Expression.Case(word.from(), words.end(), subject, whens, otherwise);
    }

    private Expression cast(Word word) {
        words.expect("(", "after CAST");
        Expression of = or();
        words.expect("AS", "in CAST(… AS type)");
        int from = words.peek().from();
        String type = typeName();
        words.expect(")", "at the end of CAST(…");
        return new Expression.Cast(word.from(), words.end(), of, type, from);
    }

    private Expression extract(Word word) {
        words.take();
        Word field = words.take();
        words.expect("FROM", "in EXTRACT(field FROM …");
        Expression of = or();
        words.expect(")", "at the end of EXTRACT(…");
        return new Expression.Extract(word.from(), words.end(), field.upper(), of);
    }

    private Expression trim(Word word) {
        words.take();
        String side = words.peek().is("BOTH")
                        || words.peek().is("LEADING")
                        || words.peek().is("TRAILING")
                ? words.take().upper()
                : null;
        Expression first = side != null && words.peek().is("FROM") ? null : or();
        Expression characters = null;
        Expression of = first;
        if (words.accept("FROM")) {
            characters = first;
            of = or();
        } else if (side != null) {
            throw new FormulaException(
                    words.peek().from(), words.peek().to(), "FROM is expected in TRIM(" + side + " … FROM text).");
        }
        words.expect(")", "at the end of TRIM(…");
        return new Expression.Trim(word.from(), words.end(), side == null ? "BOTH" : side, characters, of);
    }

    private Expression substring(Word word) {
        words.take();
        List<Expression> arguments = new ArrayList<>();
        arguments.add(or());
        if (words.accept("FROM")) {
            arguments.add(or());
            if (words.accept("FOR")) arguments.add(or());
        } else {
            while (words.accept(",")) arguments.add(or());
        }
        words.expect(")", "at the end of SUBSTRING(…");
        return new Expression.Call(word.from(), words.end(), "SUBSTRING", arguments);
    }

    private Expression position(Word word) {
        words.take();
        Expression part = concatenation();
        words.expect("IN", "in POSITION(part IN text)");
        Expression whole = or();
        words.expect(")", "at the end of POSITION(…");
        return new Expression.Call(word.from(), words.end(), "POSITION", List.of(part, whole));
    }
}
