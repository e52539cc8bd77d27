package sarnik.narrow.dates;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.query.Condition;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.Column;
import sarnik.table.Extremes;

/** The kind of filter that keeps a range of days. */
public final class DatesKind implements FilterKind<Dates> {

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.ENGLISH);

    @Override
    public String name() {
        return "dates";
    }

    @Override
    public Class<Dates> type() {
        return Dates.class;
    }

    @Override
    public List<Slot> slots() {
        return SHARED;
    }

    @Override
    public boolean fits(Column column) {
        return Choices.isTime(column);
    }

    @Override
    public String misfit() {
        return "This column no longer holds dates. Choose another in the filter's brief.";
    }

    @Override
    public FilterOffer offer(Dates filter, Column column) {
        Optional<Extremes> ends = column.extremes();
        return new FilterOffer(
                name(),
                filter.words(),
                List.of(),
                0,
                ends.map(e -> day(column, e.lowest())).orElse(null),
                ends.map(e -> day(column, e.highest())).orElse(null),
                null);
    }

    private static String day(Column column, int row) {
        return column.text(row).substring(0, 10);
    }

    @Override
    public Optional<Value> read(String text) {
        return Texts.range(text).map(range -> (Value) range);
    }

    @Override
    public String expected() {
        return "date range";
    }

    @Override
    public Condition condition(Dates filter, Value value, String column) {
        Value.Range range = (Value.Range) value;
        return new Condition.Between(column, text(range.from()), text(range.to()));
    }

    private static String text(LocalDate date) {
        return date == null ? null : date.toString();
    }

    @Override
    public String words(Dates filter, Value value) {
        Value.Range range = (Value.Range) value;
        if (range.from() == null) return filter.words() + " up to " + DAY.format(range.to());
        if (range.to() == null) return filter.words() + " from " + DAY.format(range.from());
        return "%s from %s to %s".formatted(filter.words(), DAY.format(range.from()), DAY.format(range.to()));
    }

    @Override
    public String offers(String column) {
        return "A range of " + column;
    }

    @Override
    public void brief(Dates filter, BriefLine line, LoadedDataset dataset) {
        line.say("The reader may choose a range of ");
        line.choose(SHARED.get(3), ColumnWords.of(filter.column()), Choices.times(dataset));
        line.say(" in " + dataset.name() + ".");
    }
}
