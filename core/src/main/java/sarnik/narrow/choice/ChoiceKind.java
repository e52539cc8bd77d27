package sarnik.narrow.choice;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Words;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.query.Condition;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;

/** The kind of filter that keeps some of the values of a column. */
public final class ChoiceKind implements FilterKind<Choice> {

    /** So many values are sent with a page; more are found by searching. */
    public static final int MOST = 1000;

    /** Values that an author can put in an order. */
    private static final int MOST_ORDERED = 300;

    private static final Slot ONE = Slot.at("/one", "how many", "{\"type\": [\"boolean\", \"null\"]}");
    private static final Slot ALL = Slot.at("/all", "word for all of them", "{\"$ref\": \"#/$defs/words\"}");
    private static final Slot SEQUENCE = Slot.at(
            "/sequence",
            "order of the values",
            "{\"type\": [\"array\", \"null\"], \"items\": {\"type\": \"string\"}, \"maxItems\": 300}");
    private static final Slot MOST_FIRST =
            Slot.at("/most", "order of the others", "{\"type\": [\"boolean\", \"null\"]}");

    @Override
    public String name() {
        return "choice";
    }

    @Override
    public Class<Choice> type() {
        return Choice.class;
    }

    @Override
    public List<Slot> slots() {
        List<Slot> slots = new ArrayList<>(SHARED);
        slots.addAll(List.of(COLUMN, ONE, ALL, SEQUENCE, MOST_FIRST));
        return slots;
    }

    @Override
    public boolean fits(Column column) {
        return column instanceof CodedColumn;
    }

    @Override
    public String misfit() {
        return phrase("This column no longer holds text to choose from. Choose another in the filter’s brief.");
    }

    @Override
    public FilterOffer offer(Choice filter, Column column, FilterScene scene) {
        List<String> sorted =
                ((CodedColumn) column).dictionary().stream().sorted().toList();
        List<String> own = filter.sequence() == null ? List.of() : filter.sequence();
        List<String> inOrder =
                new ArrayList<>(own.stream().filter(sorted::contains).toList());
        for (String value : sorted) {
            if (inOrder.size() == MOST) break;
            if (!own.contains(value)) inOrder.add(value);
        }
        return FilterOffer.values(
                name(),
                filter.words(),
                inOrder,
                sorted.size() - inOrder.size(),
                Choices.map(
                        "all",
                        filter.all() == null || filter.all().isBlank() ? phrase("values|all") : filter.all(),
                        "one",
                        Boolean.TRUE.equals(filter.one()),
                        "most",
                        Boolean.TRUE.equals(filter.most()),
                        "own",
                        own));
    }

    @Override
    public Optional<Value> read(Choice filter, String text) {
        List<String> values = Texts.values(text);
        return values.isEmpty() || Boolean.TRUE.equals(filter.one()) && values.size() > 1
                ? Optional.empty()
                : Optional.of(new Value.Choice(values));
    }

    @Override
    public String expected() {
        return phrase("value that can be chosen");
    }

    @Override
    public List<Condition> conditions(
            Choice filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        return List.of(new Condition.OneOf(column, ((Value.Choice) value).values()));
    }

    @Override
    public String words(Choice filter, Value value, FilterScene scene) {
        return phrase("{0} is {1}", filter.words(), Words.list(((Value.Choice) value).values(), "or"));
    }

    @Override
    public Optional<String> counted(Choice filter) {
        return Optional.of(filter.column());
    }

    @Override
    public String offers(String column) {
        return "Values of " + column;
    }

    @Override
    public void brief(Choice filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        line.say("The reader may choose ");
        line.choose(
                ONE,
                Boolean.TRUE.equals(filter.one()) ? "one value" : "values",
                List.of(new Option("values", "any number of them", false), new Option("one value", "at a time", true)));
        line.say(" of ");
        line.choose(
                COLUMN,
                ColumnWords.of(filter.column()),
                Choices.categories(dataset).stream()
                        .filter(o -> !Choices.isPlace((String) o.value()))
                        .toList());
        line.say(" in " + dataset.name() + ", ");
        line.choose(
                MOST_FIRST,
                Boolean.TRUE.equals(filter.most()) ? "those with most rows first" : "by the alphabet",
                List.of(
                        new Option("by the alphabet", "", false),
                        new Option("those with most rows first", "counted as the others leave them", true)));
        if (dataset.table().find(filter.column()).orElse(null) instanceof CodedColumn coded) {
            boolean none = filter.sequence() == null || filter.sequence().isEmpty();
            line.say(none ? " " : ", before them in this order ");
            line.may(
                    SEQUENCE,
                    none ? "+ some before all others" : Words.list(filter.sequence(), "then"),
                    Kind.ORDER,
                    none,
                    coded.dictionary().stream()
                            .sorted()
                            .limit(MOST_ORDERED)
                            .map(v -> new Option(v, "", v))
                            .toList());
        }
        boolean plain = filter.all() == null || filter.all().isBlank();
        line.say("; nothing chosen is called ");
        line.slot(
                ALL,
                plain ? "“all”" : "“" + filter.all() + "”",
                Kind.TYPED,
                false,
                !plain,
                List.of(new Option(plain ? "all" : filter.all(), "", plain ? "all" : filter.all())));
        line.say(".");
    }
}
