package sarnik.narrow.threshold;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.narrow.numbers.NumbersKind;
import sarnik.place.PlacedTable;
import sarnik.query.Condition;
import sarnik.query.GroupKey;
import sarnik.query.Having;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.scale.NumberWords;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;

/** The kind of filter under or over whose bound rows fall away, one by one or group by group. */
public final class ThresholdKind implements FilterKind<Threshold> {

    private static final Slot MEASURE =
            Slot.at("/measure", "measure", "{\"anyOf\": [{\"type\": \"null\"}, {\"$ref\": \"#/$defs/measure\"}]}");
    private static final Slot MOST = Slot.at("/most", "which side", "{\"type\": [\"boolean\", \"null\"]}");

    @Override
    public String name() {
        return "threshold";
    }

    @Override
    public Class<Threshold> type() {
        return Threshold.class;
    }

    @Override
    public List<Slot> slots() {
        List<Slot> slots = new ArrayList<>(SHARED);
        slots.addAll(List.of(COLUMN, MEASURE, MOST));
        return slots;
    }

    @Override
    public Set<String> measures(Threshold filter) {
        return filter.measure() == null || filter.measure().column() == null
                ? Set.of()
                : Set.of(filter.measure().column());
    }

    @Override
    public boolean fits(Column column) {
        return column.type().isNumber() || column instanceof CodedColumn;
    }

    @Override
    public String misfit() {
        return phrase("This column no longer holds numbers or words. Choose another in the filter’s brief.");
    }

    @Override
    public FilterOffer offer(Threshold filter, Column column, FilterScene scene) {
        Map<String, Object> said = Choices.map("most", filter.isMost());
        if (filter.measure() == null) return NumbersKind.spread(name(), filter, column, said);
        LoadedDataset dataset = scene.of(filter).orElseThrow();
        double[] values = dataset.answer(scene.engine(), groups(filter, filter.column(), List.copyOf(dataset.rules())))
                .values()
                .get(0);
        return NumbersKind.spread(name(), filter, values, said);
    }

    private static Query groups(Threshold filter, String column, List<Stage> stages) {
        return Query.by(stages, List.of(new GroupKey.Of(column)), List.of(filter.measure()))
                .filled();
    }

    @Override
    public Optional<Value> read(Threshold filter, String text) {
        try {
            double bound = Double.parseDouble(Texts.decode(text));
            return Double.isFinite(bound) ? Optional.of(new Value.Number(bound)) : Optional.empty();
        } catch (NumberFormatException odd) {
            return Optional.empty();
        }
    }

    @Override
    public String expected() {
        return phrase("number");
    }

    @Override
    public List<Condition> conditions(
            Threshold filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        double bound = ((Value.Number) value).value();
        Double low = filter.isMost() ? null : bound;
        Double high = filter.isMost() ? bound : null;
        if (filter.measure() == null)
            return List.of(new Condition.Between(
                    column, low == null ? null : Texts.plain(low), high == null ? null : Texts.plain(high)));
        Having kept = new Having(0, low, true, high, true, false, words(filter, value, scene));
        Query groups = groups(filter, column, scene.before()).having(kept).with(dataset.measures());
        return List.of(new Condition.Among(column, dataset.table(), groups, 0, false));
    }

    /** Of groups, the ones that stay are its own dataset's. */
    @Override
    public boolean isOfColumn(Threshold filter) {
        return filter.measure() == null;
    }

    @Override
    public boolean restsOnOthers() {
        return true;
    }

    @Override
    public String words(Threshold filter, Value value, FilterScene scene) {
        String bound = NumberWords.full(((Value.Number) value).value());
        return filter.isMost()
                ? phrase("{0} at most {1}", filter.words(), bound)
                : phrase("{0} at least {1}", filter.words(), bound);
    }

    /** A bound of each number that adds up or is a rate; and one under which places fall away as a whole. */
    @Override
    public List<Beginning> beginnings(LoadedDataset dataset) {
        List<Beginning> beginnings = new ArrayList<>(FilterKind.choosable(dataset).stream()
                .filter(column -> dataset.table().column(column).type().isNumber())
                .map(this::of)
                .toList());
        String grouping = dataset.isPlaced() ? PlacedTable.PLACE : null;
        if (grouping != null && dataset.table().find(grouping).isPresent()) {
            Measure measure = Telling.amount(dataset);
            Map<String, Object> says = Choices.map("column", grouping);
            says.put("measure", Choices.value(measure));
            says.put("title", ColumnWords.of(measure));
            beginnings.add(
                    new Beginning("A bound for " + ColumnWords.of(measure) + ", under which places fall away", says));
        }
        return beginnings;
    }

    @Override
    public String offers(String column) {
        return "A bound for " + column + ", under which rows fall away";
    }

    @Override
    public void brief(Threshold filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        line.say("The reader moves a bound ");
        line.choose(
                MOST,
                filter.isMost() ? "over" : "under",
                List.of(
                        new Option("under", "what lies over it stays", false),
                        new Option("over", "what lies under it stays", true)));
        line.say(" which ");
        boolean groups = filter.measure() != null;
        line.choose(
                COLUMN,
                groups ? "each " + ColumnWords.of(filter.column()) : "rows by " + ColumnWords.of(filter.column()),
                Choices.columns(
                        dataset,
                        groups
                                ? CodedColumn.class::isInstance
                                : column -> column.type().isNumber()));
        line.say(groups ? " falls away, by " : " fall away");
        if (groups) line.choose(MEASURE, ColumnWords.of(filter.measure()), choices.measures(dataset));
        line.say(", in " + dataset.name() + ".");
    }
}
