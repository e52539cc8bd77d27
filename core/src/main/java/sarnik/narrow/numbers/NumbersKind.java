package sarnik.narrow.numbers;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.query.Condition;
import sarnik.scale.NumberWords;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Extremes;
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
        return SHARED;
    }

    @Override
    public boolean fits(Column column) {
        return column.type().isNumber();
    }

    @Override
    public String misfit() {
        return "This column no longer holds numbers. Choose another in the filter's brief.";
    }

    @Override
    public FilterOffer offer(Numbers filter, Column column) {
        Optional<Extremes> ends = column.extremes();
        return new FilterOffer(
                name(),
                filter.words(),
                List.of(),
                0,
                ends.map(e -> Texts.plain(number(column, e.lowest()))).orElse(null),
                ends.map(e -> Texts.plain(number(column, e.highest()))).orElse(null),
                null,
                ends.map(e -> spread(column, e)).orElse(List.of()));
    }

    /** How many values lie in each of as many equal steps, as shares of the most. */
    private static List<Integer> spread(Column column, Extremes ends) {
        double low = number(column, ends.lowest());
        double step = (number(column, ends.highest()) - low) / BARS;
        int[] counts = new int[BARS];
        for (int row = 0; row < column.size(); row++) {
            double value = number(column, row);
            if (Double.isNaN(value)) continue;
            counts[step == 0 ? 0 : Math.min(BARS - 1, (int) ((value - low) / step))]++;
        }
        int most = 1;
        for (int count : counts) most = Math.max(most, count);
        List<Integer> shares = new ArrayList<>();
        for (int count : counts) shares.add((int) Math.ceil((double) TALLEST * count / most));
        return shares;
    }

    private static double number(Column column, int row) {
        if (column.isMissing(row)) return Double.NaN;
        if (column instanceof WholeColumn whole) return whole.values()[row];
        return column instanceof DecimalColumn decimals ? decimals.values()[row] : Double.NaN;
    }

    @Override
    public Optional<Value> read(String text) {
        return Texts.amounts(text).map(amounts -> (Value) amounts);
    }

    @Override
    public String expected() {
        return "range of numbers";
    }

    @Override
    public Condition condition(Numbers filter, Value value, String column) {
        Value.Amounts range = (Value.Amounts) value;
        return new Condition.Between(column, text(range.from()), text(range.to()));
    }

    private static String text(Double bound) {
        return bound == null ? null : Texts.plain(bound);
    }

    @Override
    public String words(Numbers filter, Value value) {
        Value.Amounts range = (Value.Amounts) value;
        if (range.from() == null) return filter.words() + " up to " + NumberWords.full(range.to());
        if (range.to() == null) return filter.words() + " from " + NumberWords.full(range.from());
        return "%s from %s to %s"
                .formatted(filter.words(), NumberWords.full(range.from()), NumberWords.full(range.to()));
    }

    @Override
    public String offers(String column) {
        return "A range of " + column;
    }

    @Override
    public void brief(Numbers filter, BriefLine line, LoadedDataset dataset) {
        line.say("The reader may choose a range of ");
        line.choose(
                SHARED.get(3),
                ColumnWords.of(filter.column()),
                Choices.columns(dataset, column -> column.type().isNumber()));
        line.say(" in " + dataset.name() + ".");
    }
}
