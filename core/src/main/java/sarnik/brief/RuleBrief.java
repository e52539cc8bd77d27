package sarnik.brief;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Rule;
import sarnik.data.Words;
import sarnik.query.TimeStep;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Extremes;

/** Writes the slots of rules: which rows are kept to, and which other condition has to hold as well. */
final class RuleBrief {

    /** Up to so many values each is offered by itself. */
    private static final int MOST_VALUES = 12;
    /** Values that are offered to be one of. */
    private static final int MOST_LISTED = 300;
    /** Rules that can stand behind each other. */
    private static final int MOST_RULES = 8;

    private static final List<Object[]> LASTS = List.of(
            new Object[] {7, TimeStep.DAY},
            new Object[] {30, TimeStep.DAY},
            new Object[] {90, TimeStep.DAY},
            new Object[] {12, TimeStep.MONTH},
            new Object[] {24, TimeStep.MONTH});

    private static final List<Object[]> LASTS_OF_CLOCK = List.of(
            new Object[] {15, TimeStep.MINUTE},
            new Object[] {60, TimeStep.MINUTE},
            new Object[] {6, TimeStep.HOUR},
            new Object[] {24, TimeStep.HOUR});

    private final BriefLine line;
    private final LoadedDataset dataset;

    RuleBrief(BriefLine line, LoadedDataset dataset) {
        this.line = line;
        this.dataset = dataset;
    }

    void write(Slot slot, Rule rule) {
        write(line, slot, rule, 1);
    }

    /** As one of two sides that are compared. */
    void side(Slot slot, Rule rule) {
        line.say(" where ");
        form(line, slot, rule);
        write(line.about(slot.pointer()), Slot.within("/and", "further rule"), rule.and(), 2);
    }

    private void write(BriefLine at, Slot slot, Rule rule, int depth) {
        if (rule == null) {
            if (depth > MOST_RULES) return;
            List<Option> options = beginnings();
            if (options.isEmpty()) return;
            at.say(" ");
            at.may(slot, depth == 1 ? "+ rule" : "+ and", true, options);
            return;
        }
        at.say(depth == 1 ? ", only where " : " and ");
        form(at, slot, rule);
        write(at.about(slot.pointer()), Slot.within("/and", "further rule"), rule.and(), depth + 1);
    }

    /** The column and what has to hold, then what it is held against. */
    private void form(BriefLine at, Slot slot, Rule rule) {
        BriefLine within = at.about(slot.pointer());
        Optional<Column> column =
                rule.column() == null ? Optional.empty() : dataset.table().find(rule.column());
        List<Option> forms =
                column.map(c -> kept(forms(rule.column(), c), rule.and())).orElseGet(this::beginnings);
        String name = rule.column() == null ? "" : ColumnWords.of(rule.column()) + " ";
        switch (rule.form()) {
            case ONE_OF, NONE_OF -> {
                at.may(slot, name + (rule.form() == Rule.Is.ONE_OF ? "is" : "is not"), false, forms);
                at.say(" ");
                within.slot(
                        Slot.within("/values", "values"),
                        Words.list(rule.values(), "or"),
                        Kind.SET,
                        false,
                        false,
                        column.map(RuleBrief::values).orElse(List.of()));
            }
            case BETWEEN -> {
                at.may(slot, name + "is", false, forms);
                if (column.isPresent() && Choices.isTime(column.get())) {
                    bound(within, "/from", " from ", rule.from(), Kind.TYPED);
                    bound(within, "/to", " to ", rule.to(), Kind.TYPED);
                } else {
                    bound(within, "/from", " at least ", rule.from(), Kind.NUMBER);
                    bound(within, "/to", " at most ", rule.to(), Kind.NUMBER);
                }
            }
            case CONTAINS -> {
                at.may(slot, name + "contains", false, forms);
                at.say(" ");
                typed(within, "words looked for", rule.text());
            }
            case SQL -> {
                at.may(slot, "this holds:", false, beginnings());
                at.say(" ");
                typed(within, "condition", rule.text());
            }
            default -> at.may(slot, rule.words(), false, forms);
        }
    }

    private static void typed(BriefLine within, String name, String text) {
        within.slot(
                Slot.within("/text", name),
                text.isEmpty() ? "+ words" : "“" + text + "”",
                Kind.TYPED,
                text.isEmpty(),
                false,
                List.of(new Option(text, "", "")));
    }

    private static void bound(BriefLine within, String pointer, String words, String bound, Kind kind) {
        within.say(bound == null ? " " : words);
        within.slot(
                Slot.within(pointer, words.strip()),
                bound == null ? "+" + words.stripTrailing() : bound,
                kind,
                bound == null,
                bound != null,
                kind == Kind.TYPED
                        ? List.of(new Option(bound == null ? "" : bound, "such as 2026-05-31", ""))
                        : List.of());
    }

    private static List<Option> values(Column column) {
        if (column instanceof CodedColumn coded)
            return coded.dictionary().stream()
                    .limit(MOST_LISTED)
                    .map(v -> new Option(v, "", v))
                    .toList();
        return List.of();
    }

    /** Another form goes on with what stands behind. */
    private static List<Option> kept(List<Option> options, Rule and) {
        if (and == null) return options;
        return options.stream()
                .map(o -> new Option(o.text(), o.hint(), ((Rule) o.value()).followedBy(and)))
                .toList();
    }

    /** Every way in which a rule can begin. */
    private List<Option> beginnings() {
        List<Option> options = new ArrayList<>();
        for (String name : dataset.columnNames())
            options.addAll(forms(name, dataset.table().column(name)));
        options.add(new Option("a condition in SQL", "such as litres > 10 AND state = 'final'", Rule.sql("1 = 1")));
        return options;
    }

    private static List<Option> forms(String name, Column column) {
        List<Option> forms = new ArrayList<>();
        if (column instanceof CodedColumn coded) ofWords(forms, name, coded);
        else ofAmounts(forms, name, column);
        if (!name.startsWith("@")) {
            forms.add(option(Rule.of(name, Rule.Is.MISSING), "missing"));
            forms.add(option(Rule.of(name, Rule.Is.FILLED), "there"));
        }
        return forms;
    }

    private static void ofWords(List<Option> forms, String name, CodedColumn column) {
        List<String> values = column.dictionary();
        if (values.isEmpty()) return;
        if (values.size() <= MOST_VALUES) {
            for (String value : values) forms.add(option(new Rule(name, List.of(value)), ""));
            for (String value : values)
                forms.add(new Option(
                        ColumnWords.of(name) + " is not " + value,
                        "",
                        new Rule(name, Rule.Is.NONE_OF, List.of(value), null, null, null, null, null, null, null)));
        }
        // Places are known by codes, in which nobody looks for words.
        if (name.startsWith("@")) return;
        if (values.size() > MOST_VALUES)
            forms.add(new Option(
                    ColumnWords.of(name) + " is one of …",
                    values.size() + " values",
                    new Rule(name, values.subList(0, 1))));
        forms.add(new Option(ColumnWords.of(name) + " contains …", "words in any case", Rule.containing(name, "")));
    }

    private static void ofAmounts(List<Option> forms, String name, Column column) {
        Optional<Extremes> ends = column.extremes();
        if (ends.isEmpty()) return;
        String low = column.text(ends.get().lowest());
        String high = column.text(ends.get().highest());
        if (Choices.isTime(column)) {
            for (boolean newest : new boolean[] {false, true})
                for (Object[] last : LASTS)
                    forms.add(option(
                            Rule.last(name, (Integer) last[0], (TimeStep) last[1], newest),
                            newest ? "counted back from " + high.substring(0, 10) : "counted back from today"));
            if (column.type() == ColumnType.TIME)
                for (Object[] last : LASTS_OF_CLOCK)
                    forms.add(option(
                            Rule.last(name, (Integer) last[0], (TimeStep) last[1], true),
                            "counted back from " + high.replace('T', ' ')));
            forms.add(new Option(
                    ColumnWords.of(name) + " is from … to …",
                    low.substring(0, 10) + " to " + high.substring(0, 10),
                    Rule.between(name, low.substring(0, 10), high.substring(0, 10))));
            return;
        }
        String spread =
                NumberWords.brief(Double.parseDouble(low)) + " to " + NumberWords.brief(Double.parseDouble(high));
        forms.add(new Option(ColumnWords.of(name) + " is at least …", spread, Rule.between(name, low, null)));
        forms.add(new Option(ColumnWords.of(name) + " is at most …", spread, Rule.between(name, null, high)));
    }

    private static Option option(Rule rule, String hint) {
        return new Option(rule.words(), hint, rule);
    }
}
