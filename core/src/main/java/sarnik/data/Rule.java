package sarnik.data;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.formula.Formula;
import sarnik.formula.FormulaException;
import sarnik.formula.Kind;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.query.Condition;
import sarnik.query.Stage;
import sarnik.query.TimeStep;
import sarnik.sql.StayingRows;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Extremes;
import sarnik.table.TimeColumn;

/**
 * A standing rule of a visual, a layer or a part of one: which rows it always keeps to.
 *
 * @param column the column it is about; null for an SQL condition
 * @param is what has to hold; null for {@link Is#ONE_OF}
 * @param values of one of and none of: the values
 * @param from of between: the least, null for no bound. Numbers, dates and times in canonical text form
 * @param to of between: the greatest, null for no bound
 * @param last of last: how many steps
 * @param step of last: what is counted
 * @param newest of last: whether the steps are counted back from the newest row, instead of from today; null for no
 * @param text of contains: what is looked for in any case; of SQL: the condition
 * @param and another rule that has to hold as well; null for none
 */
public record Rule(
        String column,
        Is is,
        List<String> values,
        String from,
        String to,
        Integer last,
        TimeStep step,
        Boolean newest,
        String text,
        Rule and) {

    /** What has to hold. */
    public enum Is {
        ONE_OF,
        NONE_OF,
        BETWEEN,
        CONTAINS,
        MISSING,
        FILLED,
        LAST,
        SQL
    }

    /** A rule that the column has one of these values. */
    public Rule(String column, List<String> values) {
        this(column, Is.ONE_OF, values, null, null, null, null, null, null, null);
    }

    /** A rule of a form that needs no more than its column. */
    public static Rule of(String column, Is is) {
        return new Rule(column, is, null, null, null, null, null, null, null, null);
    }

    public static Rule between(String column, String from, String to) {
        return new Rule(column, Is.BETWEEN, null, from, to, null, null, null, null, null);
    }

    public static Rule containing(String column, String text) {
        return new Rule(column, Is.CONTAINS, null, null, null, null, null, null, text, null);
    }

    /** The last steps of a column of time. */
    public static Rule last(String column, int count, TimeStep step, boolean newest) {
        return new Rule(column, Is.LAST, null, null, null, count, step, newest ? true : null, null, null);
    }

    public static Rule sql(String text) {
        return new Rule(null, Is.SQL, null, null, null, null, null, null, text, null);
    }

    /** The same, and another that has to hold as well. */
    public Rule followedBy(Rule other) {
        return new Rule(column, is, values, from, to, last, step, newest, text, other);
    }

    /** What has to hold. */
    public Is form() {
        return is == null ? Is.ONE_OF : is;
    }

    /** Whether its SQL names this parameter. */
    public boolean names(String parameter) {
        return form() == Is.SQL && text != null && Settings.names(text, parameter)
                || and != null && and.names(parameter);
    }

    /**
     * The stages of the query that it and those behind it are.
     *
     * @param parameters values by the name that stands behind a colon: numbers, texts, yes and no, days
     * @throws MisfitException when it does not fit the dataset
     */
    public List<Stage> stages(LoadedDataset dataset, LocalDate today, Map<String, Object> parameters) {
        List<Stage> stages = new ArrayList<>();
        for (Rule rule = this; rule != null; rule = rule.and)
            stages.add(new Stage(
                    phrase("Always only where {0}", rule.words(rule.span(dataset, today))),
                    List.of(rule.condition(dataset, today, parameters))));
        return stages;
    }

    /** This rule alone in words: "product is still or warm". */
    public String words() {
        return words(null);
    }

    private String words(LocalDate[] span) {
        String name = column == null ? "" : ColumnWords.of(column);
        return switch (form()) {
            case ONE_OF -> phrase("{0} is {1}", name, Words.list(values, "or"));
            case NONE_OF -> phrase("{0} is neither missing nor {1}", name, Words.list(values, "nor"));
            case BETWEEN ->
                from == null && to == null
                        ? phrase("{0} is there", name)
                        : from == null
                                ? phrase("{0} is at most {1}", name, to)
                                : to == null
                                        ? phrase("{0} is at least {1}", name, from)
                                        : phrase("{0} is from {1} to {2}", name, from, to);
            case CONTAINS -> phrase("{0} contains “{1}”", name, text);
            case MISSING -> phrase("{0} is missing", name);
            case FILLED -> phrase("{0} is not missing", name);
            case LAST ->
                span == null
                        ? phrase("{0} is in {1}", name, lastWords())
                        : phrase("{0} is in {1}, {2} to {3}", name, lastWords(), span[0], span[1]);
            case SQL -> text.strip();
        };
    }

    private String lastWords() {
        String steps = step.last(last);
        return Boolean.TRUE.equals(newest) ? phrase("{0} up to the newest", steps) : steps;
    }

    private Condition condition(LoadedDataset dataset, LocalDate today, Map<String, Object> parameters) {
        return switch (form()) {
            case ONE_OF -> new Condition.OneOf(column, values);
            case NONE_OF -> new Condition.NoneOf(column, values);
            case BETWEEN -> new Condition.Between(column, from, to);
            case CONTAINS -> new Condition.Contains(column, text);
            case MISSING -> new Condition.Missing(column);
            case FILLED -> new Condition.Filled(column);
            case LAST -> {
                if (step.needsTime()) yield lastOfClock(dataset);
                LocalDate[] span = span(dataset, today);
                yield new Condition.Between(column, span[0].toString(), span[1].toString());
            }
            case SQL -> holds(dataset, today, parameters);
        };
    }

    /**
     * The last minutes or hours, which are counted back from the newest row: a day has no time of its own to end at.
     */
    private Condition lastOfClock(LoadedDataset dataset) {
        Column of = dataset.table()
                .find(column)
                .orElseThrow(() -> new MisfitException(phrase("There is no column “{0}” any more", column)));
        if (!(of instanceof TimeColumn times))
            throw new MisfitException(phrase(
                    "“{0}” holds {1}, which has no last minutes or hours",
                    column, of.type().said()));
        if (!Boolean.TRUE.equals(newest))
            throw new MisfitException(phrase("The last minutes and hours are those up to the newest"));
        Optional<Extremes> ends = times.extremes();
        if (ends.isEmpty()) return new Condition.Filled(column);
        LocalDateTime end = LocalDateTime.parse(times.text(ends.get().highest()));
        LocalDateTime begin = step == TimeStep.HOUR ? end.minusHours(last) : end.minusMinutes(last);
        // As of days: what lies just so long back is of the stretch before.
        return new Condition.Between(column, begin.plusSeconds(1).toString(), end.toString());
    }

    /** The first and the last day of a relative period; null for other forms, and for minutes and hours. */
    private LocalDate[] span(LoadedDataset dataset, LocalDate today) {
        if (form() != Is.LAST || step.needsTime() && !step.comesAgain()) return null;
        Column of = dataset.table()
                .find(column)
                .orElseThrow(() -> new MisfitException(phrase("There is no column “{0}” any more", column)));
        if (of.type() != ColumnType.DATE && of.type() != ColumnType.TIME)
            throw new MisfitException(phrase(
                    "“{0}” holds {1}, which has no last days", column, of.type().said()));
        LocalDate end = today;
        if (Boolean.TRUE.equals(newest)) {
            Optional<Extremes> ends = of.extremes();
            if (ends.isPresent())
                end = LocalDate.parse(of.text(ends.get().highest()).substring(0, 10));
        }
        if (step.comesAgain() || step.needsTime())
            throw new MisfitException(phrase("The last of a period are days, weeks, months, quarters or years"));
        LocalDate begin = step.plus(end, -last);
        return new LocalDate[] {begin.plusDays(1), end};
    }

    private Condition holds(LoadedDataset dataset, LocalDate today, Map<String, Object> parameters) {
        Settings set = Settings.of(parameters);
        try {
            Formula formula = Formula.parse(text, Scope.of(dataset.table()).withParameters(set.kinds()));
            if (formula.kind() != Kind.YES_NO)
                throw new MisfitException(phrase(
                        "The rule “{0}” is no condition but {1}. A condition reads like litres > 10",
                        text.strip(), formula.kind().words()));
            // Only what its parameters are now makes it another condition.
            Map<String, Object> named = set.named(text);
            Surroundings on = Surroundings.on(today);
            if (dataset.table().staying() instanceof StayingRows rows) {
                Surroundings with = new Surroundings(named, on.places(), on.areas(), today);
                rows.check(formula, with, dataset.table());
                return new Condition.Meets(text + named, formula, List.of(with));
            }
            Column column = dataset.worked()
                    .column(
                            text + named + today,
                            () -> formula.compute(
                                            dataset.table(), new Surroundings(named, on.places(), on.areas(), today))
                                    .column());
            return new Condition.Holds(text + named, column);
        } catch (FormulaException unfit) {
            throw new MisfitException(phrase("The rule “{0}” does not fit: {1}", text.strip(), unfit.getMessage()));
        }
    }
}
