package sarnik.visual;

import java.util.Arrays;
import java.util.List;
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
                .orElseThrow(() -> new MisfitException("There is no column “" + over + "” any more"));
        if (!Choices.isTime(column))
            throw new MisfitException("“" + over + "” holds no dates any more, so there is no line over it");
        return StepWords.stepFor(column);
    }

    /** Heights from 0 to 1, NaN where a step has no value. */
    public static List<Double> heights(Frame frame, int measure, TimeStep step) {
        if (frame.size() == 0) return List.of();
        long first = step.number(frame.key(0, 0));
        int count = (int) Math.min(MOST_POINTS, step.number(frame.key(0, frame.size() - 1)) - first + 1);
        double[] values = new double[count];
        Arrays.fill(values, Double.NaN);
        for (int g = 0; g < frame.size(); g++) {
            long at = step.number(frame.key(0, g)) - first;
            if (at < count) values[(int) at] = frame.value(measure, g);
        }
        double low = Arrays.stream(values).filter(Double::isFinite).min().orElse(0);
        double high = Arrays.stream(values).filter(Double::isFinite).max().orElse(1);
        double span = high > low ? high - low : 1;
        return Arrays.stream(values).mapToObj(v -> (v - low) / span).toList();
    }

    /** "by month, Jan 2026 to Mar 2026". */
    public static String words(Frame frame, TimeStep step) {
        if (frame.size() == 0) return "by " + step.words();
        return "by " + step.words() + ", " + StepWords.of(step, frame.key(0, 0)) + " to "
                + StepWords.of(step, frame.key(0, frame.size() - 1));
    }
}
