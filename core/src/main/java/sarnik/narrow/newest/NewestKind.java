package sarnik.narrow.newest;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.query.Condition;
import sarnik.query.RowSelection;
import sarnik.query.Stage;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.TimeColumn;
import sarnik.visual.Known;

/** The kind of filter that keeps the newest row, or the newest of each device. */
public final class NewestKind implements FilterKind<Newest> {

    private static final String ON = "on";

    private static final Slot BY = Slot.at("/by", "of each", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");

    @Override
    public String name() {
        return "newest";
    }

    @Override
    public Class<Newest> type() {
        return Newest.class;
    }

    @Override
    public List<Slot> slots() {
        List<Slot> slots = new ArrayList<>(SHARED);
        slots.addAll(List.of(COLUMN, BY));
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
    public FilterOffer offer(Newest filter, Column column, FilterScene scene) {
        return FilterOffer.values(
                name(),
                filter.words(),
                List.of(ON),
                0,
                Map.of(
                        "words",
                        filter.by() == null
                                ? phrase("only the newest")
                                : phrase("only the newest of each {0}", ColumnWords.of(filter.by()))));
    }

    @Override
    public Optional<Value> read(Newest filter, String text) {
        return text.equals(ON) ? Optional.of(new Value.Choice(List.of(ON))) : Optional.empty();
    }

    @Override
    public String expected() {
        return phrase("“on”");
    }

    @Override
    public Known known(Newest filter, List<String> values, FilterScene scene) {
        return new Known(values, "");
    }

    @Override
    public List<Condition> conditions(
            Newest filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        List<Stage> before = scene.engine().resolved(scene.before());
        if (dataset.table().staying() != null)
            return List.of(new Condition.Newest(column, named(filter, dataset), before));
        String words = "newest of " + column + " by " + filter.by() + " after " + before;
        return List.of(new Condition.Holds(
                words, dataset.worked().column(words, () -> newest(filter, column, dataset, before))));
    }

    /** The column whose values each have their newest; null for the newest of all. */
    private static String named(Newest filter, LoadedDataset dataset) {
        if (filter.by() != null && dataset.table().find(filter.by()).isEmpty())
            throw new MisfitException(
                    phrase("There is no column “{0}” any more, of which the newest is kept", filter.by()));
        return filter.by();
    }

    /** For each row whether it is newest; of several that are equally new all are. */
    private static Column newest(Newest filter, String column, LoadedDataset dataset, List<Stage> before) {
        Column times = dataset.table().column(column);
        Column devices = filter.by() == null
                ? null
                : dataset.table()
                        .find(filter.by())
                        .orElseThrow(() -> new MisfitException(
                                phrase("There is no column “{0}” any more, of which the newest is kept", filter.by())));
        if (devices != null && !(devices instanceof CodedColumn))
            throw new MisfitException(phrase(
                    "“{0}” holds {1}; the newest is kept of what has a name or a code",
                    filter.by(), devices.type().said()));
        CodedColumn coded = (CodedColumn) devices;
        int[] rows = RowSelection.of(dataset.table(), before);
        long[] newest = new long[coded == null ? 1 : coded.dictionary().size()];
        Arrays.fill(newest, Long.MIN_VALUE);
        for (int row : rows) {
            int device = coded == null ? 0 : coded.codes().get(row);
            if (device >= 0 && !times.isMissing(row)) newest[device] = Math.max(newest[device], moment(times, row));
        }
        int[] is = new int[times.size()];
        for (int row : rows) {
            int device = coded == null ? 0 : coded.codes().get(row);
            if (device >= 0 && !times.isMissing(row) && moment(times, row) == newest[device]) is[row] = 1;
        }
        return new CodedColumn(
                ColumnType.YES_NO, Codes.of(is, is.length, CodedColumn.NO_YES.size()), CodedColumn.NO_YES);
    }

    private static long moment(Column times, int row) {
        return times instanceof DateColumn dates ? dates.day(row) : ((TimeColumn) times).second(row);
    }

    @Override
    public boolean isOfColumn(Newest filter) {
        return false;
    }

    @Override
    public boolean restsOnOthers() {
        return true;
    }

    @Override
    public String words(Newest filter, Value value, FilterScene scene) {
        String by = ColumnWords.of(filter.column());
        return filter.by() == null
                ? phrase("Only the newest, by {0}", by)
                : phrase("Only the newest of each {0}, by {1}", ColumnWords.of(filter.by()), by);
    }

    @Override
    public String offers(String column) {
        return "Only the newest by " + column + ", on or off";
    }

    @Override
    public void brief(Newest filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        line.say("The reader may keep to the newest by ");
        line.choose(COLUMN, ColumnWords.of(filter.column()), Choices.times(dataset));
        line.say(filter.by() == null ? " " : ", of each ");
        line.may(
                BY,
                filter.by() == null ? "+ of each" : ColumnWords.of(filter.by()),
                filter.by() == null,
                Choices.categories(dataset));
        line.say(" in " + dataset.name() + ", of what the other filters leave.");
    }
}
