package sarnik.narrow.dates;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.language.Language;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.query.Condition;
import sarnik.query.TimeStep;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.state.Value.Period.Which;
import sarnik.table.Column;
import sarnik.table.Extremes;

/** The kind of filter that keeps a range of days. */
public final class DatesKind implements FilterKind<Dates> {

    private static final Slot END = Slot.at("/end", "which end", "{\"enum\": [\"BOTH\", \"SINCE\", \"UNTIL\", null]}");
    private static final Slot NEWEST = Slot.at("/newest", "counted from", "{\"type\": [\"boolean\", \"null\"]}");

    /** The periods that are offered; any other of the kind can stand in an address. */
    private static final List<Value.Period> PERIODS = List.of(
            new Value.Period(Which.LAST, 1, TimeStep.DAY),
            new Value.Period(Which.LAST, 7, TimeStep.DAY),
            new Value.Period(Which.LAST, 30, TimeStep.DAY),
            new Value.Period(Which.LAST, 90, TimeStep.DAY),
            new Value.Period(Which.THIS, 1, TimeStep.MONTH),
            new Value.Period(Which.BEFORE, 1, TimeStep.MONTH),
            new Value.Period(Which.THIS, 1, TimeStep.QUARTER),
            new Value.Period(Which.BEFORE, 1, TimeStep.QUARTER),
            new Value.Period(Which.THIS, 1, TimeStep.YEAR),
            new Value.Period(Which.BEFORE, 1, TimeStep.YEAR),
            new Value.Period(Which.LAST, 12, TimeStep.MONTH),
            new Value.Period(Which.TO_DATE, 1, TimeStep.YEAR));

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
        List<Slot> slots = new ArrayList<>(SHARED);
        slots.addAll(List.of(COLUMN, END, NEWEST));
        return slots;
    }

    @Override
    public boolean fits(Column column) {
        return Choices.isTime(column);
    }

    @Override
    public String misfit() {
        return phrase("This column no longer holds dates. Choose another in the filter’s brief.");
    }

    @Override
    public FilterOffer offer(Dates filter, Column column, FilterScene scene) {
        Optional<Extremes> ends = column.extremes();
        LocalDate counted = counted(filter, scene);
        return FilterOffer.range(
                name(),
                filter.words(),
                ends.map(e -> day(column, e.lowest())).orElse(null),
                ends.map(e -> day(column, e.highest())).orElse(null),
                List.of(),
                Choices.map(
                        "counted",
                        counted.toString(),
                        "countedWords",
                        phrase("counted from {0}", countedWords(filter, counted)),
                        "end",
                        filter.ends().name(),
                        "periods",
                        PERIODS.stream()
                                .map(period -> said(filter, period, counted))
                                .toList()));
    }

    private static Object said(Dates filter, Value.Period period, LocalDate counted) {
        Value.Range range = period.on(counted);
        return Choices.map(
                "text",
                period.text(),
                "words",
                words(filter, period),
                "from",
                range.from().toString(),
                "to",
                range.to().toString());
    }

    private static String words(Dates filter, Value.Period period) {
        if (period.onTheDay()) return Boolean.TRUE.equals(filter.newest()) ? phrase("the newest day") : phrase("today");
        return period.words();
    }

    private static String day(Column column, int row) {
        return column.text(row).substring(0, 10);
    }

    /** The day that relative periods are counted from. */
    private static LocalDate counted(Dates filter, FilterScene scene) {
        if (!Boolean.TRUE.equals(filter.newest())) return scene.today();
        return scene.of(filter)
                .flatMap(dataset -> dataset.table().find(filter.column()))
                .filter(Choices::isTime)
                .flatMap(column -> column.extremes().map(ends -> LocalDate.parse(day(column, ends.highest()))))
                .orElse(scene.today());
    }

    private static String countedWords(Dates filter, LocalDate counted) {
        return Boolean.TRUE.equals(filter.newest())
                ? phrase("the newest day, {0}", Language.day(counted))
                : phrase("today, {0}", Language.day(counted));
    }

    @Override
    public Optional<Value> read(Dates filter, String text) {
        Optional<Value.Period> period = Texts.period(text);
        if (period.isPresent()) return period.map(p -> (Value) p);
        // The end that is chosen stands alone: a month is where it begins, or ends.
        boolean alone = filter.ends() != Dates.End.BOTH && !text.contains("..");
        String whole = alone ? filter.ends() == Dates.End.SINCE ? text + ".." : ".." + text : text;
        return Texts.range(whole).map(range -> (Value) range);
    }

    @Override
    public String expected() {
        return phrase("date range");
    }

    private static Value.Range range(Dates filter, Value value, FilterScene scene) {
        return value instanceof Value.Period period ? period.on(counted(filter, scene)) : (Value.Range) value;
    }

    @Override
    public List<Condition> conditions(
            Dates filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        Value.Range range = range(filter, value, scene);
        return List.of(new Condition.Between(column, text(range.from()), text(range.to())));
    }

    private static String text(LocalDate date) {
        return date == null ? null : date.toString();
    }

    @Override
    public String words(Dates filter, Value value, FilterScene scene) {
        Value.Range range = range(filter, value, scene);
        if (range.from() == null) return phrase("day|{0} up to {1}", filter.words(), Language.day(range.to()));
        if (range.to() == null) return phrase("day|{0} from {1}", filter.words(), Language.day(range.from()));
        String from = Language.day(range.from());
        String to = Language.day(range.to());
        if (!(value instanceof Value.Period period)) return phrase("day|{0} from {1} to {2}", filter.words(), from, to);
        return phrase(
                "{0} in {1} counted from {2} (from {3} to {4})",
                filter.words(), words(filter, period), countedWords(filter, counted(filter, scene)), from, to);
    }

    @Override
    public String offers(String column) {
        return "A range of " + column;
    }

    @Override
    public void brief(Dates filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        line.say("The reader may choose ");
        line.choose(
                END,
                filter.ends() == Dates.End.BOTH
                        ? "a range"
                        : filter.ends() == Dates.End.SINCE ? "the first day" : "the last day",
                List.of(
                        new Option("a range", "from, to, and periods such as the last 30 days", "BOTH"),
                        new Option("the first day", "everything since", "SINCE"),
                        new Option("the last day", "everything until", "UNTIL")));
        line.say(" of ");
        line.choose(COLUMN, ColumnWords.of(filter.column()), Choices.times(dataset));
        line.say(" in " + dataset.name() + "; periods are counted from ");
        line.choose(
                NEWEST,
                Boolean.TRUE.equals(filter.newest()) ? "the newest day there is" : "today",
                List.of(
                        new Option("today", "", false),
                        new Option("the newest day there is", "for tables that end before today", true)));
        line.say(".");
    }
}
