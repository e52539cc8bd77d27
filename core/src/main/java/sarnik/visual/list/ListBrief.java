package sarnik.visual.list;

import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Words;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.visual.States;

/** Writes the sentence of a list. */
final class ListBrief {

    /** Values of a column that are offered to be good or bad. */
    private static final int MOST_VALUES = 12;

    private final Listing list;
    private final LoadedDataset dataset;
    private final Choices choices;

    ListBrief(Listing list, LoadedDataset dataset, Choices choices) {
        this.list = list;
        this.dataset = dataset;
        this.choices = choices;
    }

    void write(BriefLine line) {
        line.say("A list with a line for each ");
        List<Option> each = new ArrayList<>(Choices.categories(dataset));
        line.slot(
                ListKind.EACH,
                list.each() == null ? "row" : ColumnWords.of(list.each()),
                Kind.CHOSEN,
                false,
                list.each() != null,
                each);
        line.say(" of " + dataset.name() + ", saying ");
        text(line, ListKind.TEXT, list.text(), false);
        line.say(" and below it ");
        text(line, ListKind.BELOW, list.below(), true);
        if (list.each() != null) {
            line.say(", with the figures ");
            line.slot(
                    ListKind.FIGURES,
                    String.join(
                            ", ",
                            ListKind.figures(list).stream().map(ColumnWords::of).toList()),
                    Kind.SET,
                    false,
                    false,
                    choices.measures(dataset));
        }
        order(line);
        mark(line);
        if (list.each() == null) rows(line);
        Choices.rule(line, list.rule(), dataset);
        line.say(".");
    }

    private void text(BriefLine line, Slot slot, String text, boolean removable) {
        boolean empty = text == null || text.isBlank();
        List<Option> options = new ArrayList<>();
        options.add(new Option(empty ? "" : text, "", empty ? "" : text));
        for (String field : fields()) options.add(new Option("{" + field + "}", "", "{" + field + "}"));
        line.slot(
                slot, empty ? "+ words" : "“" + shortened(text) + "”", Kind.TEXT, empty, removable && !empty, options);
    }

    private static String shortened(String text) {
        return text.length() <= 60 ? text : text.substring(0, 59) + "…";
    }

    /** What can stand in braces. */
    private List<String> fields() {
        if (list.each() == null)
            return dataset.columnNames().stream().map(ColumnWords::of).toList();
        List<String> fields = new ArrayList<>(List.of(ColumnWords.of(list.each())));
        ListKind.figures(list).forEach(m -> fields.add(ColumnWords.of(m)));
        return fields;
    }

    /** What lines can be ordered and judged by: names of columns, or words of figures. */
    private List<String> bys() {
        if (list.each() == null) return dataset.columnNames();
        List<String> bys = new ArrayList<>(
                ListKind.figures(list).stream().map(ColumnWords::of).toList());
        bys.add(list.each());
        return bys;
    }

    private void order(BriefLine line) {
        List<Option> orders = new ArrayList<>();
        for (String by : bys())
            for (boolean down : new boolean[] {true, false})
                orders.add(new Option(words(new Listing.By(by, down)), "", new Listing.By(by, down)));
        Listing.By order = list.order();
        line.say(order == null ? " " : ", ");
        line.may(ListKind.ORDER, order == null ? "+ order" : words(order), order == null, orders);
    }

    private String words(Listing.By order) {
        Column column = dataset.table().find(order.by()).orElse(null);
        String end = column instanceof CodedColumn
                ? order.down() ? "from Z to A" : "from A to Z"
                : column != null && Choices.isTime(column)
                        ? order.down() ? "the latest first" : "the earliest first"
                        : order.down() ? "the most first" : "the least first";
        return "by " + ColumnWords.of(order.by()) + ", " + end;
    }

    private void mark(BriefLine line) {
        Listing.Mark mark = list.mark();
        if (mark == null) {
            line.say(" ");
            line.may(ListKind.MARK, "+ good and bad", true, marks());
            return;
        }
        line.say(", judged by ");
        line.may(ListKind.MARK, ColumnWords.of(mark.of()), false, marks());
        if (mark.limits() != null) {
            line.say(", good from ");
            number(line, "/mark/limits/good", "where good begins", mark.limits().good());
            line.say(" and bad from ");
            number(line, "/mark/limits/bad", "where bad begins", mark.limits().bad());
            return;
        }
        values(line, mark, "good", mark.good());
        values(line, mark, "bad", mark.bad());
    }

    private static void number(BriefLine line, String pointer, String name, double value) {
        line.slot(Slot.within(pointer, name), NumberWords.full(value), Kind.NUMBER, false, false, List.of());
    }

    private void values(BriefLine line, Listing.Mark mark, String state, List<String> values) {
        boolean empty = values == null || values.isEmpty();
        List<Option> options = dataset.table().find(mark.of()).orElse(null) instanceof CodedColumn coded
                ? coded.dictionary().stream()
                        .limit(MOST_VALUES)
                        .map(v -> new Option(v, "", v))
                        .toList()
                : List.of();
        line.say(empty ? " " : ", " + state + " if ");
        line.slot(
                Slot.within("/mark/" + state, "what is " + state),
                empty ? "+ " + state : Words.list(values, "or"),
                Kind.SET,
                empty,
                !empty,
                options);
    }

    private List<Option> marks() {
        List<Option> marks = new ArrayList<>();
        for (String by : bys()) {
            Column column = dataset.table().find(by).orElse(null);
            if (column instanceof CodedColumn coded) {
                if (coded.dictionary().size() <= MOST_VALUES)
                    marks.add(new Option(ColumnWords.of(by), "", new Listing.Mark(by, null, List.of(), List.of())));
            } else if (column == null || column.type().isNumber()) {
                marks.add(new Option(ColumnWords.of(by), "", new Listing.Mark(by, new States(100, 50), null, null)));
            }
        }
        return marks;
    }

    private void rows(BriefLine line) {
        line.say(list.pick() == null ? " " : ", a pick takes its ");
        line.may(
                ListKind.PICK,
                list.pick() == null ? "+ pick" : ColumnWords.of(list.pick()),
                list.pick() == null,
                Choices.categories(dataset));
        line.say(list.opened() == null ? " " : ", opened it shows ");
        List<Option> columns = Choices.columns(dataset, c -> true);
        line.slot(
                ListKind.OPENED,
                list.opened() == null ? "+ what an opened line shows" : Words.list(list.opened(), "and"),
                Kind.SET,
                list.opened() == null,
                list.opened() != null,
                columns);
    }
}
