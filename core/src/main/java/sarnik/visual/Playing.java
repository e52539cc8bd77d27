package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import sarnik.query.Condition;
import sarnik.query.TimeStep;
import sarnik.state.Value;

/**
 * How time is played.
 *
 * @param columns the columns of dates or times that are played, one for each dataset that has its own; columns that are
 *     tied to one of them follow it
 * @param step what the player moves by
 * @param upTo whether all that came before is shown as well
 */
public record Playing(List<Source> columns, TimeStep step, boolean upTo) {

    private static final int SECONDS = 19;

    public Playing {
        columns = List.copyOf(columns);
    }

    /**
     * The moment that a text says: {@code 2026-05}, {@code 2026-W10..2026-W12} or {@code ..2026-05}; empty for none.
     */
    public Optional<Value.Moment> read(String text) {
        String[] ends = text.split("\\.\\.", -1);
        if (ends.length > 2) return Optional.empty();
        String from = ends.length == 2 && ends[0].isEmpty() ? null : ends[0];
        String to = ends[ends.length - 1];
        try {
            // What is written otherwise than the steps are is none of them.
            long last = step.number(to);
            if (!step.text(last).equals(to)) return Optional.empty();
            if (from == null) return Optional.of(new Value.Moment(null, to));
            long first = step.number(from);
            return step.text(first).equals(from) && first <= last
                    ? Optional.of(new Value.Moment(from, to))
                    : Optional.empty();
        } catch (RuntimeException odd) {
            return Optional.empty();
        }
    }

    /** The condition that rows of a moment meet, on a column of dates or of times. */
    public Condition during(Value.Moment moment, String column) {
        return new Condition.Between(
                column,
                moment.from() == null ? null : begin(step.number(moment.from())),
                end(step.number(moment.to())));
    }

    private String begin(long number) {
        String text = step.text(number);
        return step.needsTime() ? text : step.firstDay(number).toString();
    }

    private String end(long number) {
        if (step.needsTime()) {
            String text = step.text(number);
            // The last second of the minute or hour.
            return step == TimeStep.MINUTE ? text + ":59" : text.substring(0, SECONDS - 6) + ":59:59";
        }
        LocalDate next = step.firstDay(number + 1);
        return next.minusDays(1).toString();
    }

    /** A moment in words: "week 21, 2026", "from May 2026 to July 2026", "up to May 2026". */
    public String words(Value.Moment moment) {
        String to = StepWords.of(step, moment.to());
        if (moment.from() == null) return phrase("up to {0}", to);
        return moment.from().equals(moment.to())
                ? to
                : phrase("from {0} to {1}", StepWords.of(step, moment.from()), to);
    }
}
