package sarnik.narrow;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import sarnik.scale.NumberWords;
import sarnik.state.Value;

/**
 * A named value that the reader, an address or a link sets, and that drives formulas, rules, scales and words of
 * sentences.
 *
 * @param order its place in the strip, behind the filters
 * @param value of a number: what it is until the reader sets it; 0 for other types
 * @param low the least it can be; null for no bound
 * @param high the most it can be; null for no bound
 * @param type null for a number
 * @param first of other types: what it is until the reader sets it; of a word: the number of the one that is chosen,
 *     from 0
 * @param options what can be chosen: the texts of a list; of a word, what stands in its place. Null for anything
 * @param control how it is turned; null for what its type usually has
 * @param step of a number: by how much it is turned; null for any
 * @param at JSON pointers of what in the document takes its value, such as {@code /visuals/v1/measure}; null for
 *     nothing
 */
public record Parameter(
        String name,
        int order,
        double value,
        Double low,
        Double high,
        Type type,
        String first,
        List<Option> options,
        Control control,
        Double step,
        List<String> at) {

    /** What kind of value it has. */
    public enum Type {
        NUMBER,
        TEXT,
        DATE,
        YES_NO,
        /** A word of a sentence: a measure, a column, a count, or whatever else can stand there. */
        WORD,
        /** A place, by its name. */
        PLACE
    }

    /** How it is turned. */
    public enum Control {
        TYPED,
        LIST,
        SLIDER,
        STEPS,
        SWITCH
    }

    /**
     * Something that can be chosen.
     *
     * @param words what is read
     * @param value what stands in the document then, of a word; null for the words themselves
     */
    public record Option(String words, Object value) {}

    /** A number. */
    public Parameter(String name, int order, double value, Double low, Double high) {
        this(name, order, value, low, high, null, null, null, null, null, null);
    }

    public Type kind() {
        return type == null ? Type.NUMBER : type;
    }

    /** Whether its number can have this value. */
    public boolean allows(double value) {
        return Double.isFinite(value) && (low == null || value >= low) && (high == null || value <= high);
    }

    /** What can be chosen; nothing where anything can be. */
    public List<Option> choices() {
        return options == null ? List.of() : options;
    }

    /**
     * What a text sets it to; empty where it cannot be that.
     *
     * @param text not encoded
     */
    public Optional<Value> read(String text) {
        return switch (kind()) {
            case NUMBER -> {
                try {
                    double number = Double.parseDouble(text);
                    yield allows(number) ? Optional.of(new Value.Number(number)) : Optional.empty();
                } catch (NumberFormatException odd) {
                    yield Optional.empty();
                }
            }
            case WORD -> number(text).map(n -> (Value) new Value.Number(n));
            case YES_NO -> text.equals("yes") || text.equals("no") ? words(text) : Optional.empty();
            case DATE -> {
                try {
                    yield words(LocalDate.parse(text).toString());
                } catch (DateTimeException odd) {
                    yield Optional.empty();
                }
            }
            default ->
                choices().isEmpty()
                                || choices().stream().anyMatch(o -> o.words().equals(text))
                        ? words(text)
                        : Optional.empty();
        };
    }

    private static Optional<Value> words(String text) {
        return text.isBlank() ? Optional.empty() : Optional.of(new Value.Words(text));
    }

    /** The number of a choice that a text names, by the number or by the words. */
    private Optional<Integer> number(String text) {
        for (int i = 0; i < choices().size(); i++)
            if (text.equals(String.valueOf(i)) || text.equals(choices().get(i).words())) return Optional.of(i);
        return Optional.empty();
    }

    /** What it is until the reader sets it; empty where that is nothing. */
    public Optional<Value> begins() {
        if (kind() == Type.NUMBER) return Optional.of(new Value.Number(value));
        Optional<Value> said = first == null ? Optional.empty() : read(first);
        return said.isEmpty() && kind() == Type.WORD && !choices().isEmpty() ? Optional.of(new Value.Number(0)) : said;
    }

    /** As formulas and rules know it: a number, a text, yes or no, a day; of a word, what stands for it. */
    public Object bound(Value set) {
        return switch (kind()) {
            case NUMBER -> ((Value.Number) set).value();
            case WORD -> {
                Option option = choices().get((int) ((Value.Number) set).value());
                yield option.value() == null ? option.words() : option.value();
            }
            case YES_NO -> ((Value.Words) set).words().equals("yes");
            case DATE -> LocalDate.parse(((Value.Words) set).words());
            default -> ((Value.Words) set).words();
        };
    }

    /** What it is set to, in words. */
    public String words(Value set) {
        if (kind() == Type.WORD)
            return choices().get((int) ((Value.Number) set).value()).words();
        return set instanceof Value.Number number ? NumberWords.full(number.value()) : ((Value.Words) set).words();
    }
}
