package sarnik.data;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.formula.Formula;
import sarnik.formula.FormulaException;
import sarnik.formula.Kind;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.formula.Unworked;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.QueryException;
import sarnik.query.Stage;
import sarnik.sql.FaceMaker;
import sarnik.sql.StayingRows;
import sarnik.table.Table;

/**
 * What is calculated over a dataset's rows, and which of them always take part.
 *
 * @param formulas columns and measures, in their order; one may use those columns that stand before it
 * @param rules standing rules: conditions that a row has to meet, such as {@code state = 'final'}
 */
public record Calculations(List<Item> formulas, List<String> rules) {

    public static final Calculations NONE = new Calculations(List.of(), List.of());

    /** How the names of columns begin that say whether a row meets a rule. */
    public static final String RULE = "@rule ";

    private static final int MOST = 60;

    /**
     * A named formula.
     *
     * @param name what the column or measure is called
     * @param text the formula
     * @param measure true for a measure of groups, false for a column of rows
     */
    public record Item(String name, String text, boolean measure) {
        public Item {
            if (text == null) text = "";
        }
    }

    public Calculations {
        formulas = formulas == null ? List.of() : List.copyOf(formulas);
        rules = rules == null ? List.of() : List.copyOf(rules);
        if (formulas.size() + rules.size() > MOST)
            throw new IllegalArgumentException("A dataset can have up to " + MOST + " formulas and rules");
    }

    /**
     * Something that does not work, or not in all rows.
     *
     * @param of the formula's name, or the rule's text
     * @param words a sentence
     * @param from the first character that is meant, -1 where none is
     * @param to the character after it
     * @param some whether it works, but not in all rows
     */
    public record Trouble(String of, String words, int from, int to, boolean some) {}

    /**
     * Calculations made for a table.
     *
     * @param table the table with the columns that were calculated
     * @param measures measure formulas by name
     * @param rules the standing rules, each a stage of every query; those that do not work name a column that is not
     *     there, so that nothing is answered without them
     * @param troubles what does not work; it is left out, and nothing else is touched
     */
    public record Applied(
            Table table, Map<String, FormulaMeasure> measures, List<Stage> rules, List<Trouble> troubles) {}

    /** Makes all calculations. */
    public Applied apply(Table table, Scope scope, Surroundings surroundings) {
        Table grown = table;
        Map<String, Kind> columns = new LinkedHashMap<>(scope.columns());
        Map<String, FormulaMeasure> measures = new LinkedHashMap<>();
        List<Trouble> troubles = new ArrayList<>();
        for (Item item : formulas) {
            Scope known = new Scope(columns, scope.parameters(), scope.places(), scope.boundarySets());
            try {
                checkName(item.name(), columns.keySet(), measures.keySet());
                if (item.measure()) {
                    MeasureFormula formula = MeasureFormula.parse(item.text(), known);
                    Unworked unworked = new Unworked();
                    FormulaMeasure measure = FormulaMeasure.of(formula, grown, surroundings, unworked);
                    if (grown.staying() instanceof StayingRows rows) rows.check(measure, grown);
                    measures.put(item.name(), measure);
                    troubles.addAll(some(item.name(), RowsWithout.words(formula, grown, surroundings, unworked)));
                } else {
                    Formula formula = Formula.parse(item.text(), known);
                    Grown more = Grown.of(grown, item.name(), formula, surroundings, false);
                    grown = more.table;
                    columns.put(item.name(), formula.kind());
                    troubles.addAll(some(item.name(), more.without));
                }
            } catch (FormulaException | QueryException | IllegalArgumentException unfit) {
                troubles.add(trouble(String.valueOf(item.name()), unfit));
            }
        }
        List<Stage> stages = new ArrayList<>();
        Scope all = new Scope(columns, scope.parameters(), scope.places(), scope.boundarySets());
        for (String rule : rules) {
            String name = RULE + (stages.size() + 1);
            try {
                Formula formula = Formula.parse(rule, all);
                if (formula.kind() != Kind.YES_NO) throw unfitRule(formula.kind());
                Grown more = Grown.of(grown, name, formula, surroundings, true);
                grown = more.table;
                troubles.addAll(some(rule, more.without));
            } catch (FormulaException | IllegalArgumentException unfit) {
                troubles.add(trouble(rule, unfit));
            }
            stages.add(new Stage(rule.strip(), List.of(new Condition.OneOf(name, List.of("yes")))));
        }
        return new Applied(grown, measures, stages, troubles);
    }

    /**
     * The standing rules that would not work.
     *
     * @param scope what they could name
     */
    public List<String> rulesAmiss(Scope scope) {
        Map<String, Kind> columns = new LinkedHashMap<>(scope.columns());
        for (Item item : formulas)
            if (!item.measure()) kind(item.text(), columns, scope).ifPresent(kind -> columns.put(item.name(), kind));
        return rules.stream()
                .filter(rule -> kind(rule, columns, scope).orElse(null) != Kind.YES_NO)
                .toList();
    }

    private static Optional<Kind> kind(String text, Map<String, Kind> columns, Scope scope) {
        try {
            return Optional.of(
                    Formula.parse(text, new Scope(columns, scope.parameters(), scope.places(), scope.boundarySets()))
                            .kind());
        } catch (FormulaException | IllegalArgumentException unfit) {
            return Optional.empty();
        }
    }

    /**
     * A table with a column that is worked out of others.
     *
     * @param without what is said of the rows in which it cannot be; empty where there is none
     */
    private record Grown(Table table, Optional<String> without) {

        static Grown of(Table table, String name, Formula formula, Surroundings on, boolean isRule) {
            if (table.staying() instanceof StayingRows rows) {
                Table grown = isRule
                        ? FaceMaker.condition(table, name, formula, on)
                        : FaceMaker.worked(table, name, formula, on);
                return new Grown(grown, RowsWithout.words(() -> rows.unworked(formula, on, table)));
            }
            Formula.Computed computed = formula.compute(table, on);
            return new Grown(table.with(Map.of(name, computed.column())), RowsWithout.words(computed.unworked()));
        }
    }

    private static Trouble trouble(String of, RuntimeException unfit) {
        return unfit instanceof FormulaException formula
                ? new Trouble(of, formula.getMessage(), formula.from(), formula.to(), false)
                : new Trouble(of, unfit.getMessage(), -1, -1, false);
    }

    private static List<Trouble> some(String of, Optional<String> without) {
        return without.stream()
                .map(words -> new Trouble(of, words, -1, -1, true))
                .toList();
    }

    private static IllegalArgumentException unfitRule(Kind kind) {
        return new IllegalArgumentException(
                "A standing rule is a condition, such as state = 'final'; this is %s.".formatted(kind.words()));
    }

    private static void checkName(String name, Set<String> columns, Set<String> measures) {
        if (name == null || name.isBlank() || name.length() > 120 || name.startsWith("@")) {
            throw new IllegalArgumentException(
                    "A formula is called by a name of 1 to 120 characters that does not begin with @.");
        }
        Set<String> taken = new LinkedHashSet<>(columns);
        taken.addAll(measures);
        if (taken.contains(name))
            throw new IllegalArgumentException("“" + name + "” is taken: there is a column or a formula of that name.");
    }
}
