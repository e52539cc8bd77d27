package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleFunction;
import sarnik.data.Format;
import sarnik.data.LoadedDataset;
import sarnik.language.Language;
import sarnik.query.Measure;
import sarnik.scale.Aligned;
import sarnik.scale.NumberWords;
import sarnik.scale.ValueWords;
import sarnik.table.Rounded;

/**
 * How the figures of a measure are written.
 *
 * @param read what they are: numbers, dates or date-times
 * @param format what the author says of them; null for the usual
 * @param share whether they are shares
 * @param change whether they are changes, which are told in points where what changes is written per cent
 */
public record Written(ValueWords read, Format format, boolean share, boolean change) {

    public Written(ValueWords read, Format format, boolean share) {
        this(read, format, share, false);
    }

    /** The figures of a measure of a dataset. */
    public static Written of(LoadedDataset dataset, Measure measure, Format format) {
        if (measure.over() == null) return new Written(dataset.read(measure), format, false);
        return switch (measure.over().kind()) {
            case SHARE -> new Written(dataset.read(measure), format, true);
            case DIFFERENCE -> new Written(ValueWords.NUMBER, format, false, true);
            // A place by size has neither a unit nor parts of a hundred.
            case RANK -> new Written(ValueWords.NUMBER, null, false);
            case RUNNING, MOVING -> new Written(ValueWords.NUMBER, format, false);
        };
    }

    /** Whether they are written per cent. */
    public boolean isPercent() {
        return format != null && format.percent() != null ? format.percent() : share;
    }

    /** As short as it can be said. */
    public String brief(double value) {
        return around(value, whole() ? NumberWords.full(scaled(value)) : NumberWords.brief(scaled(value)), read::brief);
    }

    /** Whole. */
    public String full(double value) {
        return around(value, NumberWords.full(scaled(value)), read::full);
    }

    /** How far two figures are apart; of those written per cent in points. */
    public String apart(double one, double other) {
        double difference = Math.abs(one - other);
        return isPercent()
                ? phrase("{0} points", NumberWords.full(Rounded.up(difference * 1e4) / 1e2))
                : full(difference);
    }

    private boolean whole() {
        return format != null && Boolean.TRUE.equals(format.whole());
    }

    private double scaled(double value) {
        return isPercent() ? value * 100 : value;
    }

    private String around(double value, String usual, DoubleFunction<String> other) {
        if (!read.isAmount()) return other.apply(value);
        if (!Double.isFinite(value)) return "–";
        String text =
                format != null && format.decimals() != null ? Aligned.written(scaled(value), format.decimals()) : usual;
        return dressed(text);
    }

    private String dressed(String text) {
        // In files what stands beside a figure would keep programs from reading it.
        if (Language.spoken().isForFiles()) return isPercent() ? text + "%" : text;
        String before = format == null || format.before() == null ? "" : format.before();
        String after =
                format == null || format.after() == null || format.after().isEmpty() ? "" : " " + format.after();
        String figure = !isPercent() ? text : change ? phrase("{0} points", text) : text + " %";
        return before + figure + after;
    }

    /** Figures that stand below each other, in line on the decimal point. */
    public List<String> column(double[] values) {
        if (!read.isAmount() || whole() || format != null && format.decimals() != null)
            return Arrays.stream(values).mapToObj(this::brief).toList();
        List<String> texts =
                Aligned.brief(Arrays.stream(values).map(this::scaled).toArray());
        return texts.stream().map(t -> t.equals("–") ? t : dressed(t)).toList();
    }

    /** Marks of an axis, a step apart. */
    List<String> marks(double[] values, double step) {
        if (!read.isAmount()) return Arrays.stream(values).mapToObj(this::brief).toList();
        return Aligned.marks(Arrays.stream(values).map(this::scaled).toArray(), scaled(step)).stream()
                .map(this::dressed)
                .toList();
    }

    /** Whole figures that stand below each other, with as many decimals each. */
    public List<String> whole(double[] values) {
        if (!read.isAmount() || format != null && format.decimals() != null)
            return Arrays.stream(values).mapToObj(this::full).toList();
        int decimals = Arrays.stream(values)
                .filter(Double::isFinite)
                .mapToInt(v -> decimals(NumberWords.full(scaled(v))))
                .max()
                .orElse(0);
        return Arrays.stream(values)
                .mapToObj(v -> Double.isFinite(v) ? dressed(Aligned.written(scaled(v), decimals)) : "–")
                .toList();
    }

    private static int decimals(String text) {
        int point = text.indexOf(Language.spoken().decimal());
        return point < 0 ? 0 : text.length() - point - 1;
    }
}
