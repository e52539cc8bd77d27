package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sarnik.query.Condition;
import sarnik.query.GroupKey;
import sarnik.query.Stage;
import sarnik.query.TimeStep;
import sarnik.table.Column;
import sarnik.table.Extremes;

/**
 * The span of a column of time that a query is narrowed to, so that it can be compared with one before it.
 *
 * @param column the column
 * @param from the first minute of it
 * @param to the first minute after what there are figures of
 * @param end the first minute after all of it; null where nothing says where it ends
 */
public record Period(String column, LocalDateTime from, LocalDateTime to, LocalDateTime end) {

    /** A week is held against the one so many weeks before, which begins on the same weekday. */
    public static final int WEEKS_A_YEAR = 52;

    private static final int DATE_LETTERS = 10;

    private Period(String column, LocalDateTime from, LocalDateTime to) {
        this(column, from, to, null);
    }

    /**
     * The period that stages narrow a column to. Its figures end with the newest value at the latest: where they go to
     * the 5th, the month before is compared up to its 5th as well.
     *
     * @param values the column as the dataset has it
     * @return empty where nothing says where it begins, or what is kept is no single stretch
     */
    public static Optional<Period> of(String column, Column values, List<Stage> stages) {
        Optional<Extremes> ends = values.extremes();
        if (ends.isEmpty()) return Optional.empty();
        LocalDateTime from = null;
        LocalDateTime newest = after(values.text(ends.get().highest()));
        LocalDateTime end = null;
        for (Stage stage : stages)
            for (Condition condition : stage.conditions()) {
                if (!isOf(column, condition)) continue;
                Optional<Period> one = of(condition);
                if (one.isEmpty()) return Optional.empty();
                if (one.get().from != null && (from == null || one.get().from.isAfter(from))) from = one.get().from;
                if (one.get().to != null && (end == null || one.get().to.isBefore(end))) end = one.get().to;
            }
        LocalDateTime to = end == null || newest.isBefore(end) ? newest : end;
        return from == null || !from.isBefore(to) ? Optional.empty() : Optional.of(new Period(column, from, to, end));
    }

    /** Whether a condition says which stretch of the column is kept; a weekday says none. */
    private static boolean isOf(String column, Condition condition) {
        if (!column.equals(condition.column())) return false;
        if (!(condition instanceof Condition.InGroups groups))
            return condition instanceof Condition.Between || condition instanceof Condition.OneOf;
        return !(groups.key() instanceof GroupKey.Step step && step.step().comesAgain());
    }

    private static Optional<Period> of(Condition condition) {
        if (condition instanceof Condition.Between between)
            return Optional.of(new Period(
                    between.column(),
                    between.from() == null ? null : moment(between.from()),
                    between.to() == null ? null : after(between.to())));
        if (condition instanceof Condition.InGroups in
                && in.key() instanceof GroupKey.Step step
                && step.zone() == null
                && !in.groups().isEmpty()
                && !in.groups().contains(null)) {
            TimeStep by = step.step();
            long[] numbers = in.groups().stream()
                    .mapToLong(by::number)
                    .sorted()
                    .distinct()
                    .toArray();
            if (numbers[numbers.length - 1] - numbers[0] + 1 != numbers.length) return Optional.empty();
            return Optional.of(new Period(in.column(), first(by, numbers[0]), first(by, numbers[0] + numbers.length)));
        }
        if (condition instanceof Condition.OneOf one
                && one.values().size() == 1
                && one.values().get(0) != null)
            return Optional.of(new Period(
                    one.column(),
                    moment(one.values().get(0)),
                    after(one.values().get(0))));
        return Optional.empty();
    }

    private static LocalDateTime first(TimeStep step, long number) {
        return step.needsTime()
                ? moment(step.text(number))
                : step.firstDay(number).atStartOfDay();
    }

    private static LocalDateTime moment(String text) {
        return text.length() == DATE_LETTERS ? LocalDate.parse(text).atStartOfDay() : LocalDateTime.parse(text);
    }

    private static LocalDateTime after(String text) {
        LocalDateTime moment = moment(text);
        return text.length() == DATE_LETTERS
                ? moment.plusDays(1)
                : moment.truncatedTo(ChronoUnit.MINUTES).plusMinutes(1);
    }

    /**
     * The stretch of the same length that ends where this begins, as far as there are figures of this one; whole months
     * go back by months.
     */
    public Period before() {
        ChronoUnit unit = isMonths() ? ChronoUnit.MONTHS : ChronoUnit.MINUTES;
        LocalDateTime until = until();
        long length = unit.between(from, end == null ? to : end);
        LocalDateTime back = until.minusMinutes(1).minus(length, unit).plusMinutes(1);
        boolean whole = end == null || until.equals(end) || back.isAfter(from);
        return new Period(column, from.minus(length, unit), whole ? from : back);
    }

    /** The same to the end of the step that it ends in, as far as it is narrowed to. */
    public Period toEndOf(TimeStep step) {
        LocalDateTime after = first(step, number(step, last()) + 1);
        return new Period(column, from, end != null && end.isBefore(after) ? end : after, end);
    }

    /**
     * The same with so many whole steps before it, as far as there are any.
     *
     * @param values the column as the dataset has it
     */
    public Period longer(TimeStep step, int steps, Column values) {
        long own = number(step, from);
        long least = values.extremes()
                .map(ends -> number(step, moment(values.text(ends.lowest()))))
                .orElse(own);
        return new Period(column, first(step, Math.max(own - steps, Math.min(own, least))), to, end);
    }

    /** The same days a year earlier; of whole months all their days. */
    public Period yearBefore() {
        LocalDateTime until = until();
        boolean month = isDays(until) && until.getDayOfMonth() == 1;
        return new Period(
                column,
                from.minusYears(1),
                month
                        ? until.minusYears(1)
                        : until.minusMinutes(1).minusYears(1).plusMinutes(1));
    }

    /** The same weekdays a year earlier: 52 weeks. */
    public Period weeksBefore() {
        return new Period(column, from.minusWeeks(WEEKS_A_YEAR), to.minusWeeks(WEEKS_A_YEAR));
    }

    /** The day on which figures begin that are missing at its beginning; empty where none are. */
    public Optional<String> lacks(Column values) {
        Optional<Extremes> ends = values.extremes();
        if (ends.isEmpty()) return Optional.empty();
        LocalDateTime begin = moment(values.text(ends.get().lowest()));
        LocalDateTime day = begin.toLocalDate().atStartOfDay();
        if (!day.isAfter(from) || !begin.isBefore(to)) return Optional.empty();
        return Optional.of(StepWords.of(TimeStep.DAY, number(TimeStep.DAY, begin)));
    }

    /** The stages with this period in the place of what they say of its column. */
    public List<Stage> in(List<Stage> stages) {
        List<Stage> other = new ArrayList<>(without(column, stages));
        Condition here = isDays()
                ? new Condition.Between(
                        column,
                        from.toLocalDate().toString(),
                        to.toLocalDate().minusDays(1).toString())
                : new Condition.Between(
                        column, from.toString(), to.minusSeconds(1).toString());
        other.add(new Stage(words(), List.of(here)));
        return other;
    }

    /** The stages without what they say of the stretch of a column that is kept. */
    public static List<Stage> without(String column, List<Stage> stages) {
        List<Stage> other = new ArrayList<>();
        for (Stage stage : stages) {
            List<Condition> kept =
                    stage.conditions().stream().filter(c -> !isOf(column, c)).toList();
            if (kept.size() == stage.conditions().size()) other.add(stage);
            else if (!kept.isEmpty()) other.add(new Stage(stage.words(), kept));
        }
        return other;
    }

    /** Whether it is made of whole months. */
    private boolean isMonths() {
        LocalDateTime after = end == null ? to : end;
        return isDays(from) && isDays(after) && from.getDayOfMonth() == 1 && after.getDayOfMonth() == 1;
    }

    /** Up to when there are figures; months of whose last day there are some are whole. */
    private LocalDateTime until() {
        return end != null && isMonths() && to.isAfter(end.minusDays(1)) ? end : to;
    }

    private boolean isDays() {
        return isDays(from) && isDays(to);
    }

    private static boolean isDays(LocalDateTime moment) {
        return moment.toLocalTime().toSecondOfDay() == 0;
    }

    /** "2026", "May 2026", "3 May 2026 to 12 Jun 2026", "10:00, 3 May 2026 to 11:59, 3 May 2026". */
    public String words() {
        String begin = StepWords.of(step(), number(step(), from));
        return isOne() ? begin : phrase("{0} to {1}", begin, StepWords.of(step(), number(step(), last())));
    }

    /** "in May 2026", "on 3 May 2026", "from 3 May 2026 to 12 Jun 2026". */
    public String within() {
        String begin = StepWords.of(step(), number(step(), from));
        if (!isOne()) return phrase("from {0} to {1}", begin, StepWords.of(step(), number(step(), last())));
        return step() == TimeStep.DAY ? phrase("day|on {0}", begin) : phrase("month or year|in {0}", begin);
    }

    /** The longest step of which it is made of whole ones. */
    private TimeStep step() {
        if (!isDays()) return TimeStep.MINUTE;
        if (from.getDayOfMonth() != 1 || to.getDayOfMonth() != 1) return TimeStep.DAY;
        return from.getMonthValue() == 1 && to.getMonthValue() == 1 ? TimeStep.YEAR : TimeStep.MONTH;
    }

    private LocalDateTime last() {
        return to.minusMinutes(1);
    }

    private boolean isOne() {
        return number(step(), from) == number(step(), last());
    }

    private static long number(TimeStep step, LocalDateTime moment) {
        return step.number(
                moment.toLocalDate().toEpochDay(), moment.toLocalTime().toSecondOfDay() / 60);
    }
}
