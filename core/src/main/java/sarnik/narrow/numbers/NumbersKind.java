package sarnik.narrow.numbers;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.narrow.Filter;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.query.Condition;
import sarnik.scale.NumberWords;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.WholeColumn;

/** The kind of filter that keeps a range of numbers. */
public final class NumbersKind implements FilterKind<Numbers> {

    /** Bars of the spread of the values. */
    private static final int BARS = 24;

    /** The tallest bar. */
    private static final int TALLEST = 100;

    @Override
    public String name() {
        return "numbers";
    }

    @Override
    public Class<Numbers> type() {
        return Numbers.class;
    }

    @Override
    public List<Slot> slots() {
        return FilterKind.columnSlots();
    }

    @Override
    public boolean fits(Column column) {
        return column.type().isNumber();
    }

    @Override
    public String misfit() {
        return phrase("This column no longer holds numbers. Choose another in the filter’s brief.");
    }

    @Override
    public FilterOffer offer(Numbers filter, Column column, FilterScene scene) {
        return spread(name(), filter, column, Map.of());
    }

    /** The offer of a range of the numbers of a column, over how they are spread. */
    public static FilterOffer spread(String kind, Filter filter, Column column, Map<String, Object> said) {
        double[] values = new double[column.size()];
        for (int row = 0; row < values.length; row++) values[row] = number(column, row);
        return spread(kind, filter, values, column.weights(), said);
    }

    /** The same of any numbers. @param values NaN for none */
    public static FilterOffer spread(String kind, Filter filter, double[] values, Map<String, Object> said) {
        return spread(kind, filter, values, null, said);
    }

    private static FilterOffer spread(
            String kind, Filter filter, double[] values, int[] weights, Map<String, Object> said) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (double value : values) {
            if (Double.isNaN(value) || Double.isInfinite(value)) continue;
            low = Math.min(low, value);
            high = Math.max(high, value);
        }
        if (low > high) return FilterOffer.range(kind, filter.words(), null, null, List.of(), said);
        double step = (high - low) / BARS;
        int[] counts = new int[BARS];
        for (int row = 0; row < values.length; row++)
            if (values[row] >= low && values[row] <= high)
                counts[step == 0 ? 0 : Math.min(BARS - 1, (int) ((values[row] - low) / step))] +=
                        weights == null ? 1 : weights[row];
        int most = 1;
        for (int count : counts) most = Math.max(most, count);
        List<Integer> shares = new ArrayList<>();
        for (int count : counts) shares.add((int) Math.ceil((double) TALLEST * count / most));
        return FilterOffer.range(kind, filter.words(), Texts.plain(low), Texts.plain(high), shares, said);
    }

    private static double number(Column column, int row) {
        if (column.isMissing(row)) return Double.NaN;
        if (column instanceof WholeColumn whole) return whole.get(row);
        return column instanceof DecimalColumn decimals ? decimals.get(row) : Double.NaN;
    }

    @Override
    public Optional<Value> read(Numbers filter, String text) {
        return Texts.amounts(text).map(amounts -> (Value) amounts);
    }

    @Override
    public String expected() {
        return phrase("range of numbers");
    }

    @Override
    public List<Condition> conditions(
            Numbers filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        Value.Amounts range = (Value.Amounts) value;
        return List.of(new Condition.Between(column, text(range.from()), text(range.to())));
    }

    private static String text(Double bound) {
        return bound == null ? null : Texts.plain(bound);
    }

    @Override
    public String words(Numbers filter, Value value, FilterScene scene) {
        Value.Amounts range = (Value.Amounts) value;
        if (range.from() == null) return phrase("{0} up to {1}", filter.words(), NumberWords.full(range.to()));
        if (range.to() == null) return phrase("number|{0} from {1}", filter.words(), NumberWords.full(range.from()));
        return phrase(
                "{0} from {1} to {2}", filter.words(), NumberWords.full(range.from()), NumberWords.full(range.to()));
    }

    @Override
    public String offers(String column) {
        return "A range of " + column;
    }

    @Override
    public void brief(Numbers filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        line.say("The reader may choose a range of ");
        line.choose(
                COLUMN,
                ColumnWords.of(filter.column()),
                Choices.columns(dataset, column -> column.type().isNumber()));
        line.say(" in " + dataset.name() + ".");
    }
}
