package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.LongSummaryStatistics;
import java.util.Map;
import sarnik.brief.Choices;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.query.Frame;
import sarnik.query.TimeStep;
import sarnik.table.Column;

/** A tiny line over time: heights without an axis. */
public final class TinyLine {

    private static final int MOST_POINTS = 400;

    private TinyLine() {}

    /**
     * The step of time that a tiny line over a column has.
     *
     * @throws MisfitException when the column has gone or holds no dates
     */
    public static TimeStep step(LoadedDataset dataset, String over) {
        Column column = dataset.table()
                .find(over)
                .orElseThrow(() -> new MisfitException(phrase("There is no column “{0}” any more", over)));
        if (!Choices.isTime(column))
            throw new MisfitException(phrase("“{0}” holds no dates any more, so there is no line over it", over));
        return StepWords.stepFor(column);
    }

    /** Heights from 0 to 1, NaN where a step has no value. */
    public static List<Double> heights(Frame frame, int measure, TimeStep step) {
        if (frame.size() == 0) return List.of();
        Map<Long, Double> values = new HashMap<>();
        for (int g = 0; g < frame.size(); g++) values.put(step.number(frame.key(0, g)), frame.value(measure, g));
        return heights(values, step.number(frame.key(0, 0)), step.number(frame.key(0, frame.size() - 1)));
    }

    /**
     * Heights from 0 to 1, NaN where a step has no value.
     *
     * @param of the value of each step, by its number
     * @param first number of the first step
     * @param last number of the last
     */
    public static List<Double> heights(Map<Long, Double> of, long first, long last) {
        double[] values = new double[(int) Math.min(MOST_POINTS, last - first + 1)];
        for (int i = 0; i < values.length; i++) values[i] = of.getOrDefault(first + i, Double.NaN);
        double low = Arrays.stream(values).filter(Double::isFinite).min().orElse(0);
        double high = Arrays.stream(values).filter(Double::isFinite).max().orElse(1);
        double span = high > low ? high - low : 1;
        return Arrays.stream(values).mapToObj(v -> (v - low) / span).toList();
    }

    /** "by month, Jan 2026 to Mar 2026". */
    public static String words(Frame frame, TimeStep step) {
        return words(frame, 0, step);
    }

    /**
     * "by month, Jan 2026 to Mar 2026".
     *
     * @param key which key of the frame the steps are
     */
    public static String words(Frame frame, int key, TimeStep step) {
        if (frame.size() == 0) return phrase("by {0}", step.said());
        LongSummaryStatistics ends =
                Arrays.stream(frame.keys().get(key)).mapToLong(step::number).summaryStatistics();
        return phrase(
                "by {0}, {1} to {2}",
                step.said(), StepWords.of(step, ends.getMin()), StepWords.of(step, ends.getMax()));
    }
}
