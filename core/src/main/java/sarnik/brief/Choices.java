package sarnik.brief;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import sarnik.brief.Brief.Option;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Rule;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.query.QueryEngine;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/**
 * What fits the slots of sentences.
 *
 * @param engine works out the tiny previews of measures
 * @param sets names of boundary sets
 * @param keys shared keys
 * @param grounds names of the sources of pictures
 * @param datasets names of all placed datasets by id
 * @param parameters the numbers that readers set, by id
 * @param parts what of the dashboard another part can be about
 * @param dashboards titles of the dashboards that a link can go to, by id
 */
public record Choices(
        QueryEngine engine,
        List<String> sets,
        List<Named> keys,
        List<String> grounds,
        Map<Long, String> datasets,
        Map<String, Number> parameters,
        Parts parts,
        Map<Long, String> dashboards) {

    private static final List<String> COUNT_WORDS =
            List.of("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven");

    /** The rule of a visual, a layer or a filter. */
    public static final Slot RULE = Slot.at("/rule", "rule", "{\"$ref\": \"#/$defs/rule\"}");

    /** Something with a name, and what it is of. */
    public record Named(String name, String words) {}

    /** A number that readers set: its name and what it is at first. */
    public record Number(String name, double value) {}

    public Choices(QueryEngine engine) {
        this(engine, List.of(), List.of(), List.of(), Map.of(), Map.of(), Parts.NONE, Map.of());
    }

    /** The same with the numbers and the parts of a dashboard. */
    public Choices with(Map<String, Number> numbers, Parts of) {
        return new Choices(engine, sets, keys, grounds, datasets, numbers, of, dashboards);
    }

    /** The same with dashboards that links can go to. */
    public Choices with(Map<Long, String> titles) {
        return new Choices(engine, sets, keys, grounds, datasets, parameters, parts, titles);
    }

    /** "five", or 15 as it is. */
    public static String count(int count) {
        return count < COUNT_WORDS.size() ? COUNT_WORDS.get(count) : String.valueOf(count);
    }

    /** All measures of a dataset, each with its value over all rows. */
    public List<Option> measures(LoadedDataset dataset) {
        return dataset.previews().of(dataset, engine).stream()
                .map(p -> new Option(ColumnWords.of(p.measure()), p.words(), value(p.measure())))
                .toList();
    }

    /** Those measures that a test passes. */
    public List<Option> measures(LoadedDataset dataset, Predicate<Measure> fits) {
        return dataset.previews().of(dataset, engine).stream()
                .filter(p -> fits.test(p.measure()))
                .map(p -> new Option(ColumnWords.of(p.measure()), p.words(), value(p.measure())))
                .toList();
    }

    /** The columns that a test passes, each with what it holds. */
    public static List<Option> columns(LoadedDataset dataset, Predicate<Column> fits) {
        List<Option> options = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            Column column = dataset.table().column(name);
            if (fits.test(column)) options.add(new Option(ColumnWords.of(name), preview(column), name));
        }
        return options;
    }

    /** Columns of text, yes/no and places. */
    public static List<Option> categories(LoadedDataset dataset) {
        return columns(dataset, CodedColumn.class::isInstance);
    }

    /** Columns of dates and date-times. */
    public static List<Option> times(LoadedDataset dataset) {
        return columns(dataset, Choices::isTime);
    }

    public static boolean isTime(Column column) {
        return column.type() == ColumnType.DATE || column.type() == ColumnType.TIME;
    }

    /** What a column holds, in a few words. */
    public static String preview(Column column) {
        if (column instanceof CodedColumn coded) {
            int count = coded.dictionary().size();
            if (count > 4) return "%,d values".formatted(count);
            return String.join(", ", coded.dictionary());
        }
        return column.type().words();
    }

    /** Writes the slots of a rule and of those that have to hold as well. */
    public static void rule(BriefLine line, Rule rule, LoadedDataset dataset) {
        new RuleBrief(line, dataset).write(RULE, rule);
    }

    /** Writes which rows are meant: "where day is from … to …". */
    public static void side(BriefLine line, Slot slot, Rule rule, LoadedDataset dataset) {
        new RuleBrief(line, dataset).side(slot, rule);
    }

    /** A measure as a document has it. */
    public static Map<String, Object> value(Measure measure) {
        Map<String, Object> value = new HashMap<>();
        value.put("summary", measure.summary().name());
        if (measure.column() != null) value.put("column", measure.column());
        if (measure.at() != null) value.put("at", measure.at());
        if (measure.over() != null) value.put("over", measure.over());
        return value;
    }

    /** Options that set something around what each was. */
    public static List<Option> wrapped(List<Option> options, UnaryOperator<Object> wrap) {
        return options.stream()
                .map(o -> new Option(o.text(), o.hint(), wrap.apply(o.value())))
                .toList();
    }

    /** A part of a document. */
    public static Map<String, Object> map(Object... entries) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < entries.length; i += 2) map.put((String) entries[i], entries[i + 1]);
        return map;
    }

    /** Whether a column is the place itself, which filters leave to the map. */
    public static boolean isPlace(String column) {
        return column.equals(PlacedTable.PLACE);
    }
}
