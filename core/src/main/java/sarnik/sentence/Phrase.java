package sarnik.sentence;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief.Control;
import sarnik.brief.Brief.Option;
import sarnik.dashboard.DocumentJson;
import sarnik.data.ColumnWords;
import sarnik.data.Rule;
import sarnik.data.Telling;
import sarnik.place.PlacedTable;
import sarnik.table.CodedColumn;
import sarnik.table.Column;

/**
 * Words that say one option of one control.
 *
 * @param control what they choose in
 * @param option what they choose
 * @param keys the words
 * @param ending what has to stand behind them; null for nothing
 * @param shortened whether they say less than the option's own words do
 */
record Phrase(Control control, Option option, List<String> keys, Ending ending, boolean shortened) {

    /** What is written behind words that are open: "is at least …". */
    enum Ending {
        NUMBER,
        /** Two numbers or days, with a word between them. */
        SPAN,
        TEXT
    }

    private static final Set<String> MAY_LACK = Set.of("of", "is");

    /**
     * What was found of a phrase in a sentence.
     *
     * @param words how many words of the sentence it takes
     * @param value what is chosen
     */
    record Found(Phrase phrase, int words, Object value) {

        /** The same with the other values that a sentence names behind it: "still or warm". */
        Found orOthers(List<Word> sentence, int at, Vocabulary vocabulary) {
            if (!(value instanceof Rule rule) || rule.values() == null) return this;
            int next = at + words;
            if (next >= sentence.size()
                    || !Set.of("or", "nor").contains(sentence.get(next).key())) return this;
            if (!(vocabulary.dataset().table().column(rule.column()) instanceof CodedColumn coded)) return this;
            String other = null;
            int longest = 0;
            for (String one : coded.dictionary()) {
                int length = length(vocabulary.keys(one), sentence, next + 1);
                if (length <= longest || rule.values().contains(one)) continue;
                longest = length;
                other = one;
            }
            if (other == null) return this;
            List<String> values = new ArrayList<>(rule.values());
            values.add(other);
            Rule both = new Rule(rule.column(), rule.is(), values, null, null, null, null, null, null, rule.and());
            return new Found(phrase, words + 1 + longest, both).orOthers(sentence, at, vocabulary);
        }
    }

    /**
     * Every way to say an option: in its own words, and shorter.
     *
     * @param vocabulary what is known of the dataset's words
     */
    static List<Phrase> of(Control control, Option option, Vocabulary vocabulary) {
        List<Phrase> phrases = new ArrayList<>();
        boolean open = option.text().endsWith("…");
        String text = open ? option.text().substring(0, option.text().length() - 1) : option.text();
        Ending ending = !open ? null : endingOf(option.value());
        if (!open || ending != null) phrases.add(new Phrase(control, option, vocabulary.keys(text), ending, false));
        // The places of a dataset are towns as often as not, and are called so.
        if (PlacedTable.PLACE.equals(option.value()))
            for (String word : List.of("town", "city", "place"))
                phrases.add(shorter(vocabulary, control, option, word));
        measure(option.value()).ifPresent(measure -> {
            String column = (String) measure.get("column");
            if (!option.text().equals(measureWords(measure))) return;
            if (column == null) {
                if ("COUNT".equals(measure.get("summary"))) phrases.add(shorter(vocabulary, control, option, "rows"));
                return;
            }
            if (!List.of("SUM", "AVERAGE").contains(measure.get("summary"))) return;
            String usual = vocabulary.meaning(column) == Telling.Meaning.RATE ? "AVERAGE" : "SUM";
            if (usual.equals(measure.get("summary")))
                phrases.add(shorter(vocabulary, control, option, ColumnWords.of(column)));
        });
        if (option.value() instanceof Rule rule) {
            if (rule.form() == Rule.Is.SQL)
                phrases.add(new Phrase(control, option, vocabulary.keys("this holds"), Ending.TEXT, false));
            if (rule.form() == Rule.Is.LAST)
                phrases.add(shorter(
                        vocabulary,
                        control,
                        option,
                        rule.words().substring(rule.words().indexOf("the last"))));
            if (rule.form() == Rule.Is.ONE_OF && rule.values().size() == 1 && !open)
                phrases.add(shorter(vocabulary, control, option, rule.values().get(0)));
            if (rule.form() == Rule.Is.BETWEEN && open && rule.to() == null) {
                String column = ColumnWords.of(rule.column());
                phrases.add(new Phrase(control, option, vocabulary.keys(column + " is over"), Ending.NUMBER, true));
                phrases.add(new Phrase(control, option, vocabulary.keys(column + " is between"), Ending.SPAN, true));
                phrases.add(new Phrase(control, option, vocabulary.keys(column + " is from"), Ending.SPAN, true));
            }
        }
        vocabulary
                .time()
                .map(time -> " of " + ColumnWords.of(time))
                .filter(option.text()::endsWith)
                .ifPresent(time -> phrases.add(shorter(
                        vocabulary,
                        control,
                        option,
                        option.text().substring(0, option.text().length() - time.length()))));
        phrases.removeIf(phrase -> phrase.keys().isEmpty());
        return phrases;
    }

    private static Phrase shorter(Vocabulary vocabulary, Control control, Option option, String words) {
        return new Phrase(control, option, vocabulary.keys(words), null, true);
    }

    private static String measureWords(Map<String, Object> measure) {
        return ColumnWords.of(DocumentJson.measure(measure));
    }

    private static Ending endingOf(Object value) {
        if (!(value instanceof Rule rule)) return null;
        return switch (rule.form()) {
            case BETWEEN -> rule.from() == null || rule.to() == null ? Ending.NUMBER : Ending.SPAN;
            case CONTAINS -> Ending.TEXT;
            default -> null;
        };
    }

    /** The measure that a value is, or holds. */
    @SuppressWarnings("unchecked")
    static Optional<Map<String, Object>> measure(Object value) {
        if (!(value instanceof Map<?, ?> map)) return Optional.empty();
        if (map.containsKey("summary")) return Optional.of((Map<String, Object>) map);
        return measure(map.get("measure"));
    }

    /**
     * The rule that a sentence states of a column with more values than can be offered one by one: "town is Soria".
     *
     * @param control whose options begin such rules
     */
    static Optional<Found> value(Control control, List<Word> sentence, int at, Vocabulary vocabulary) {
        Found best = null;
        for (Option option : control.options()) {
            if (!(option.value() instanceof Rule rule)
                    || rule.form() != Rule.Is.ONE_OF
                    || !option.text().endsWith("…")) continue;
            Column column = vocabulary.dataset().table().column(rule.column());
            if (!(column instanceof CodedColumn coded)) continue;
            Phrase named =
                    new Phrase(control, option, vocabulary.keys(ColumnWords.of(rule.column()) + " is"), null, false);
            int begun = named.length(sentence, at);
            if (begun == 0) continue;
            for (String value : coded.dictionary()) {
                List<String> keys = vocabulary.keys(value);
                int length = length(keys, sentence, at + begun);
                if (length > 0 && (best == null || begun + length > best.words()))
                    best = new Found(named, begun + length, new Rule(rule.column(), List.of(value)));
            }
        }
        return Optional.ofNullable(best);
    }

    /** What of a sentence this says from a word on; empty where it says something else there. */
    Optional<Found> at(List<Word> sentence, int at) {
        int length = length(sentence, at);
        if (length == 0) return otherNumber(sentence, at);
        if (ending == null) return Optional.of(new Found(this, length, option.value()));
        if (at + length >= sentence.size()) return Optional.empty();
        Word next = sentence.get(at + length);
        Rule rule = (Rule) option.value();
        if (ending == Ending.TEXT)
            return Optional.of(new Found(
                    this,
                    length + 1,
                    (rule.form() == Rule.Is.SQL
                                    ? Rule.sql(next.written())
                                    : Rule.containing(rule.column(), next.written()))
                            .followedBy(rule.and())));
        if (!isBound(next)) return Optional.empty();
        if (ending == Ending.SPAN) {
            int last = at + length + 2;
            if (last >= sentence.size()
                    || !Set.of("and", "to").contains(sentence.get(last - 1).key())
                    || !isBound(sentence.get(last))) return Optional.empty();
            return Optional.of(new Found(
                    this,
                    length + 3,
                    Rule.between(
                                    rule.column(),
                                    next.written(),
                                    sentence.get(last).written())
                            .followedBy(rule.and())));
        }
        return Optional.of(new Found(
                this,
                length + 1,
                (rule.to() == null
                                ? Rule.between(rule.column(), next.written(), null)
                                : Rule.between(rule.column(), null, next.written()))
                        .followedBy(rule.and())));
    }

    private static boolean isBound(Word word) {
        return word.isNumber() || word.written().matches("\\d{4}-\\d\\d-\\d\\d");
    }

    private int length(List<Word> sentence, int at) {
        return length(keys, sentence, at);
    }

    /** How many words of a sentence say these; 0 where it says something else. "of" and "is" may be left out. */
    private static int length(List<String> keys, List<Word> sentence, int at) {
        int read = at;
        for (String key : keys) {
            if (read < sentence.size() && sentence.get(read).key().equals(key)) read++;
            else if (read == at || !MAY_LACK.contains(key)) return 0;
        }
        return read - at;
    }

    /** The same with another number, where an option says one: "the top 7", of which only ten is offered. */
    private Optional<Found> otherNumber(List<Word> sentence, int at) {
        if (shortened || ending != null) return Optional.empty();
        List<Integer> numbers = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) if (Word.isNumber(keys.get(i))) numbers.add(i);
        if (numbers.size() != 1 || at + numbers.get(0) >= sentence.size()) return Optional.empty();
        Word other = sentence.get(at + numbers.get(0));
        if (!other.key().matches("\\d{1,6}")) return Optional.empty();
        List<String> changed = new ArrayList<>(keys);
        String before = changed.set(numbers.get(0), other.key());
        int length = length(changed, sentence, at);
        if (length == 0) return Optional.empty();
        Object value = renumbered(option.value(), before, Integer.parseInt(other.key()));
        return value == null ? Optional.empty() : Optional.of(new Found(this, length, value));
    }

    /** A value in which the one number that is this one is another; null where there are none or several. */
    private static Object renumbered(Object value, String before, int number) {
        if (value instanceof Integer one) return String.valueOf(one).equals(before) ? number : null;
        if (value instanceof Rule rule
                && rule.form() == Rule.Is.LAST
                && String.valueOf(rule.last()).equals(before))
            return new Rule(
                    rule.column(), rule.is(), null, null, null, number, rule.step(), rule.newest(), null, rule.and());
        if (!((value instanceof Record ? DocumentJson.plainValue(value) : value) instanceof Map<?, ?> map)) return null;
        Map<Object, Object> changed = new LinkedHashMap<>(map);
        int found = 0;
        for (Map.Entry<Object, Object> part : changed.entrySet())
            if (part.getValue() instanceof Integer one && String.valueOf(one).equals(before)) {
                part.setValue(number);
                found++;
            }
        return found == 1 ? changed : null;
    }
}
