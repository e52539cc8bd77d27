package sarnik.visual.table;

import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.query.Measure;
import sarnik.visual.Slots;
import sarnik.visual.States;

/** The sentence of a table. */
record TableBrief(TableVisual table, LoadedDataset dataset) {

    void write(BriefLine line, BriefLine looks, Choices choices) {
        line.say("A table of ");
        line.slot(
                TableKind.MEASURES,
                String.join(
                        " and ", table.measures().stream().map(ColumnWords::of).toList()),
                Kind.SET,
                false,
                false,
                choices.measures(dataset));
        line.say(" in " + dataset.name() + ", a row for each ");
        line.slot(
                TableKind.CATEGORIES,
                String.join(
                        " and ",
                        table.categories().stream().map(ColumnWords::of).toList()),
                Kind.SET,
                false,
                false,
                Choices.categories(dataset));
        line.say(", ");
        List<Option> orders = new ArrayList<>();
        List<String> names = new ArrayList<>();
        table.categories().forEach(c -> names.add(ColumnWords.of(c)));
        table.measures().forEach(m -> names.add(ColumnWords.of(m)));
        for (int c = 0; c < names.size(); c++) {
            orders.add(new Option("by " + names.get(c) + ", the most first", "", List.of(new TableVisual.By(c, true))));
            orders.add(
                    new Option("by " + names.get(c) + ", the least first", "", List.of(new TableVisual.By(c, false))));
        }
        TableVisual.By by = table.order() == null || table.order().isEmpty()
                ? new TableVisual.By(table.categories().size(), true)
                : table.order().get(0);
        line.may(
                TableKind.ORDER,
                "by " + (by.column() < names.size() ? names.get(by.column()) : "a column that has gone") + ", the "
                        + (by.down() ? "most" : "least") + " first",
                table.order() == null,
                orders);
        line.say(" ");
        List<Option> counts = new ArrayList<>();
        for (int n : new int[] {5, 10, 20, 50, 100}) counts.add(new Option("the first " + Choices.count(n), "", n));
        line.may(
                TableKind.FIRST,
                table.first() == null ? "+ first rows only" : "the first " + Choices.count(table.first()),
                table.first() == null,
                counts);
        flag(line, TableKind.TOTALS, table.totals(), "+ total", "with a total");
        if (table.categories().size() > 1)
            flag(line, TableKind.SUBTOTALS, table.subtotals(), "+ subtotals", "with subtotals");
        flag(line, TableKind.HEAT, table.heat(), "+ tints", "tinted by size");
        line.say(table.over() == null ? " " : ", with ");
        line.may(
                TableKind.OVER,
                table.over() == null ? "+ tiny lines" : "tiny lines over " + ColumnWords.of(table.over()),
                table.over() == null,
                Choices.times(dataset));
        looks(line);
        Choices.rule(line, table.rule(), dataset);
        line.say(".");
        Slots.format(looks, table.format());
    }

    private static void flag(BriefLine line, Slot slot, Boolean on, String offer, String words) {
        boolean set = Boolean.TRUE.equals(on);
        line.say(" ");
        line.may(slot, set ? words : offer, !set, List.of(new Option(words, "", true)));
    }

    /** Which figures are good and which are bad. */
    private void looks(BriefLine line) {
        List<TableVisual.Look> set = table.looks() == null ? List.of() : table.looks();
        for (int i = 0; i < set.size(); i++) {
            TableVisual.Look look = set.get(i);
            if (!table.measures().contains(look.measure())) continue;
            line.say(", " + ColumnWords.brief(look.measure()));
            Slots.states(line, "/looks/" + i + "/states", look.states());
        }
        List<Option> more = new ArrayList<>();
        for (Measure measure : table.measures()) {
            if (set.stream().anyMatch(l -> l.measure().equals(measure))) continue;
            String name = ColumnWords.of(measure);
            more.add(new Option(
                    name + ": more is better", "good from 100, bad up to 50", with(set, measure, new States(100, 50))));
            more.add(new Option(
                    name + ": less is better", "good up to 50, bad from 100", with(set, measure, new States(50, 100))));
        }
        line.say(" ");
        line.slot(TableKind.LOOKS, "+ good and bad", Kind.CHOSEN, true, !set.isEmpty(), more);
    }

    private static List<TableVisual.Look> with(List<TableVisual.Look> looks, Measure measure, States states) {
        List<TableVisual.Look> more = new ArrayList<>(looks);
        more.add(new TableVisual.Look(measure, states));
        return more;
    }
}
