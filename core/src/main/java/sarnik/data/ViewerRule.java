package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import sarnik.formula.Formula;
import sarnik.formula.FormulaException;
import sarnik.formula.FormulaWords;
import sarnik.formula.Kind;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.language.Language;
import sarnik.query.Condition;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/**
 * Which rows of a dataset somebody may see: a condition that may name what is known of whoever looks, such as {@code
 * province = :viewer.province}. Where several values are known under a name, a row is seen that meets the condition for
 * one of them; where none is known under a name that the condition has, no row is seen.
 *
 * @param text the condition, in the language of formulas
 */
public record ViewerRule(String text) {

    /** Of combinations of values; more would be worked out for each row. */
    private static final int MOST_WAYS = 1000;

    private static final int LONGEST = 2000;

    private static final Pattern NAMED = Pattern.compile(":" + Scope.VIEWER + "\\.([A-Za-z_][A-Za-z0-9_]*)");

    public ViewerRule {
        if (text == null || text.isBlank() || text.length() > LONGEST)
            throw new IllegalArgumentException("A rule on rows has 1 to %,d characters.".formatted(LONGEST));
        text = text.strip();
    }

    /** What it names of whoever looks, in order of the alphabet. */
    public Set<String> named() {
        Set<String> names = new TreeSet<>();
        Matcher found = NAMED.matcher(text);
        while (found.find()) names.add(found.group(1));
        return names;
    }

    /** Those of some values that it names; what else is known of a viewer makes no other rows of it. */
    public Map<String, List<String>> named(Map<String, List<String>> known) {
        Map<String, List<String>> named = new TreeMap<>();
        for (String name : named()) if (known.containsKey(name)) named.put(name, known.get(name));
        return named;
    }

    /**
     * Checks that it can be asked of a table.
     *
     * @param scope what it may name besides
     * @throws FormulaException when it cannot; the message says why
     * @throws IllegalArgumentException when it is no condition
     */
    public void check(Scope scope) {
        parsed(scope);
    }

    private Formula parsed(Scope scope) {
        Map<String, Kind> kinds = new LinkedHashMap<>();
        named().forEach(name -> kinds.put(Scope.VIEWER + "." + name, Kind.TEXT));
        Formula formula = Formula.parse(text, scope.withParameters(kinds));
        if (formula.kind() != Kind.YES_NO)
            throw new IllegalArgumentException(
                    "A rule on rows is a condition, such as province = :viewer.province; this is %s."
                            .formatted(formula.kind().words()));
        return formula;
    }

    /**
     * The rows that are seen.
     *
     * @param known what is known of whoever looks: values by name
     * @param surroundings what the condition is worked out with besides
     * @return a bit for each row
     * @throws FormulaException when it does not fit the table
     */
    public BitSet rows(Table table, Scope scope, Surroundings surroundings, Map<String, List<String>> known) {
        Formula formula = parsed(scope);
        BitSet seen = new BitSet(table.rows());
        for (Surroundings way : ways(known, surroundings)) {
            Column holds = formula.compute(table, way).column();
            for (int row = 0; row < table.rows(); row++) if ("yes".equals(holds.text(row))) seen.set(row);
        }
        return seen;
    }

    /**
     * The same as a condition, for rows that stay elsewhere.
     *
     * @throws FormulaException when it does not fit the table
     */
    public Condition condition(Scope scope, Surroundings surroundings, Map<String, List<String>> known) {
        return new Condition.Meets(text + named(known), parsed(scope), ways(known, surroundings));
    }

    private List<Surroundings> ways(Map<String, List<String>> known, Surroundings on) {
        return ways(known).stream()
                .map(way -> new Surroundings(way, on.places(), on.areas(), on.today()))
                .toList();
    }

    private List<Map<String, Object>> ways(Map<String, List<String>> known) {
        List<Map<String, Object>> ways = List.of(Map.of());
        for (String name : named()) {
            List<Map<String, Object>> more = new ArrayList<>();
            for (Map<String, Object> way : ways)
                for (String value : known.getOrDefault(name, List.of())) {
                    Map<String, Object> with = new LinkedHashMap<>(way);
                    with.put(Scope.VIEWER + "." + name, value);
                    more.add(with);
                }
            ways = more;
            if (ways.size() > MOST_WAYS)
                throw new IllegalArgumentException(
                        "The values of a viewer stand for more than %,d combinations.".formatted(MOST_WAYS));
        }
        return ways;
    }

    /** This condition with what it names put in its place, as viewers are told it. */
    public String words(Map<String, List<String>> known) {
        Matcher found = NAMED.matcher(text);
        StringBuilder words = new StringBuilder();
        while (found.find()) {
            List<String> values = known.getOrDefault(found.group(1), List.of());
            String put = values.isEmpty()
                    ? phrase("(nothing is known)")
                    : Language.any(values.stream().map(ViewerRule::quoted).toList());
            found.appendReplacement(words, Matcher.quoteReplacement(put));
        }
        return found.appendTail(words).toString();
    }

    /**
     * A condition that a column has one of some values.
     *
     * @param type of the column
     * @param values in canonical text form
     */
    public static ViewerRule oneOf(String column, ColumnType type, List<String> values) {
        String name = FormulaWords.asName(column);
        return new ViewerRule(values.stream()
                .map(value -> switch (type) {
                    case TEXT -> quoted(value);
                    case DATE -> "DATE " + quoted(value);
                    case TIME -> "TIMESTAMP " + quoted(value);
                    case YES_NO -> "yes".equals(value) ? "TRUE" : "FALSE";
                    case WHOLE, DECIMAL -> value.strip();
                })
                .collect(Collectors.joining(", ", name + " IN (", ")")));
    }

    private static String quoted(String value) {
        return "'" + value.replace("'", "''") + "'";
    }
}
