package sarnik.visual.list;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Template;
import sarnik.language.Language;
import sarnik.query.RowPage;
import sarnik.query.RowQuery;
import sarnik.visual.AskedRows;
import sarnik.visual.Fields;
import sarnik.visual.Plan;
import sarnik.visual.Scene;
import sarnik.visual.Trail;

/** The lines of a list of rows. */
final class RowLines {

    /** Lines that are sent at once. */
    static final int PAGE = 60;

    private final Listing list;
    private final Scene scene;
    private final LoadedDataset dataset;
    private final Fields fields;
    private final List<String> columns;

    RowLines(Listing list, Scene scene) {
        this.list = list;
        this.scene = scene;
        this.dataset = scene.dataset(list.dataset());
        this.fields = new Fields(dataset);
        // All are asked for: a search looks at what an opened row shows.
        Set<String> all = new LinkedHashSet<>(shown());
        all.addAll(dataset.columnNames());
        if (list.pick() != null) all.add(list.pick());
        if (list.mark() != null) all.add(list.mark().of());
        this.columns = List.copyOf(all);
    }

    private List<String> shown() {
        return list.opened() == null
                ? dataset.columnNames().stream().filter(c -> !c.startsWith("@")).toList()
                : list.opened();
    }

    Plan plan() {
        Plan plan = new Plan();
        int from = scene.sight().from() == null
                ? 0
                : Math.max(0, Math.min(scene.sight().from(), RowQuery.MOST));
        List<RowQuery.By> order = list.order() == null
                ? List.of()
                : List.of(new RowQuery.By(list.order().by(), list.order().down()));
        AskedRows asked = plan.askRows(
                dataset,
                new RowQuery(
                        scene.shown(dataset, list.rule()),
                        columns,
                        order,
                        scene.sight().find(),
                        from,
                        scene.sight().rows(PAGE)));
        return plan.drawn(answers -> {
            RowPage page = answers.rows(asked);
            Set<String> unknown = new LinkedHashSet<>();
            Template text = Template.of(list.text());
            Template below = list.below() == null ? null : Template.of(list.below());
            List<ListDrawing.Line> lines = new ArrayList<>();
            for (int r = 0; r < page.size(); r++) lines.add(line(page, r, text, below, unknown));
            return new ListDrawing(
                    Scene.titleOf(list, dataset.name()),
                    lines,
                    from,
                    page.all(),
                    PAGE,
                    phrase("row"),
                    notes(unknown),
                    Trail.of(page.trail()));
        });
    }

    private ListDrawing.Line line(RowPage page, int row, Template text, Template below, Set<String> unknown) {
        List<ListDrawing.Entry> record = new ArrayList<>();
        for (String column : shown())
            record.add(
                    new ListDrawing.Entry(ColumnWords.of(column), fields.value(column, cell(page, row, column), null)));
        return new ListDrawing.Line(
                list.pick() == null ? null : cell(page, row, list.pick()),
                filled(text, page, row, unknown),
                below == null ? null : filled(below, page, row, unknown),
                list.mark() == null ? null : state(cell(page, row, list.mark().of())),
                record);
    }

    private String state(String text) {
        double value = Double.NaN;
        if (text != null && dataset.table().column(list.mark().of()).type().isNumber())
            value = Double.parseDouble(text);
        return list.mark().of(text, value);
    }

    private String filled(Template template, RowPage page, int row, Set<String> unknown) {
        return template.filled(field -> {
            String value = fields.column(field)
                    .map(c -> fields.value(c, cell(page, row, c), field.form()))
                    .orElse(null);
            if (value == null) unknown.add(field.written());
            return value;
        });
    }

    private String cell(RowPage page, int row, String column) {
        return page.cell(row, columns.indexOf(column));
    }

    private List<String> notes(Set<String> unknown) {
        return unknown.isEmpty()
                ? List.of()
                : List.of(phrase(
                        "{0} names no column of {1}, or not a way to write it.",
                        Language.all(List.copyOf(unknown)), dataset.name()));
    }
}
