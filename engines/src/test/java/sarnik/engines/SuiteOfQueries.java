package sarnik.engines;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.Kinds;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.Sources;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.formula.Formula;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.SqlDialect;
import sarnik.formula.Unworked;
import sarnik.narrow.StateReader;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.RowPage;
import sarnik.query.RowQuery;
import sarnik.query.RowTrail;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.sql.Engines;
import sarnik.sql.FaceMaker;
import sarnik.sql.SourceColumn;
import sarnik.sql.SqlRunner;
import sarnik.sql.StayingRows;
import sarnik.state.ReaderState;
import sarnik.table.CodedColumn;
import sarnik.table.Table;
import sarnik.visual.unlikely.UnlikelyDrawing;

/** Asks an engine and the one in memory the same, of the same rows. */
final class SuiteOfQueries {

    /** Puts the rows of a table where an engine finds them. */
    interface Store {

        /** @return what stands behind FROM */
        String keep(Table table) throws Exception;
    }

    private final SqlRunner runner;
    private final SqlDialect dialect;
    private final List<SourceColumn.Held> held;
    private final Store store;
    private final List<String> formulas;
    private final Engines engines = new Engines(new InMemoryEngine());

    /**
     * @param held what each column of a table holds there
     * @param formulas measure formulas that it works out
     */
    SuiteOfQueries(
            SqlRunner runner, SqlDialect dialect, List<SourceColumn.Held> held, Store store, List<String> formulas) {
        this.runner = runner;
        this.dialect = dialect;
        this.held = held;
        this.store = store;
        this.formulas = formulas;
    }

    /** The same rows twice: held, and as the face of those that stay. */
    record Both(Table held, Table staying) {}

    Both both(Table table) throws Exception {
        String relation = store.keep(table);
        List<SourceColumn> columns = new ArrayList<>();
        for (int c = 0; c < Generated.NAMES.size(); c++) {
            String name = Generated.NAMES.get(c);
            columns.add(
                    new SourceColumn(name, name, held.get(c), table.column(name).type()));
        }
        FaceMaker.Made made = FaceMaker.look(runner, dialect, "there", relation, columns, List.of(List.of("town")));
        assertThat(made.face().rows()).isEqualTo(table.rows());
        CodedColumn towns = (CodedColumn) made.table().column("town");
        Table face = made.table().with(Map.of("@place", Generated.places(towns), "@zone", Generated.zones(towns)));
        for (Map.Entry<String, String> one : Generated.WORKED.entrySet())
            face = FaceMaker.worked(face, one.getKey(), Generated.formula(one.getValue(), face), Generated.on());
        return new Both(Generated.grown(table), face);
    }

    /** Tables and queries by chance. */
    void groups(long seed, int tables, int queries) throws Exception {
        Random random = new Random(seed);
        for (int t = 0; t < tables; t++) {
            Both both = both(Generated.table(random, t == 0 ? 0 : random.nextInt(400)));
            Map<String, FormulaMeasure> here = Generated.measures(formulas, both.held);
            Map<String, FormulaMeasure> there = Generated.measures(formulas, both.staying);
            List<Query> asked = new ArrayList<>();
            for (int q = 0; q < queries; q++) asked.add(Generated.query(random, formulas));
            List<Frame> expected = engines.answer(
                    both.held, asked.stream().map(q -> q.with(here)).toList());
            List<Frame> found = engines.answer(
                    both.staying, asked.stream().map(q -> q.with(there)).toList());
            for (int q = 0; q < queries; q++)
                compare(found.get(q), expected.get(q), asked.get(q).toString());
        }
    }

    /** Each measure formula, over all rows and by groups. */
    void formulas(long seed) throws Exception {
        Both both = both(Generated.table(new Random(seed), 300));
        List<Measure> all = formulas.stream()
                .map(text -> new Measure(Summary.FORMULA, text))
                .toList();
        for (List<String> groups : List.of(List.<String>of(), List.of("open"))) {
            Query query = Query.of(List.of(), groups, all);
            compare(
                    engines.answer(both.staying, query.with(Generated.measures(formulas, both.staying))),
                    engines.answer(both.held, query.with(Generated.measures(formulas, both.held))),
                    formulas.toString());
        }
    }

    /** In how many rows each formula cannot be worked out: of a measure what it sums up, then alone. */
    void unworked(long seed) throws Exception {
        Both both = both(Generated.table(new Random(seed), 300));
        StayingRows rows = (StayingRows) both.staying.staying();
        Map<String, Long> here = new LinkedHashMap<>();
        Map<String, Long> there = new LinkedHashMap<>();
        for (String text : formulas) {
            Unworked unworked = new Unworked();
            MeasureFormula measure = MeasureFormula.parse(text, Scope.of(both.held));
            measure.parts(both.held, Generated.on(), unworked);
            here.put(text, (long) unworked.count());
            there.put(text, rows.unworked(measure, Generated.on(), both.staying));
        }
        for (String text : Generated.WORKED.values()) {
            Formula formula = Generated.formula(text, both.held);
            here.put(text, (long)
                    formula.compute(both.held, Generated.on()).unworked().count());
            there.put(text, rows.unworked(formula, Generated.on(), both.staying));
        }
        assertThat(there).isEqualTo(here);
        assertThat(here.values()).contains(0L).anyMatch(count -> count > 0 && count < both.held.rows());
    }

    /** What goes over all groups, and what asks about others. */
    void windowsAndOthers(long seed) throws Exception {
        Random random = new Random(seed);
        Both both = both(Generated.table(random, 300));
        Both other = both(Generated.table(random, 40));
        for (String text : Generated.WINDOWS) {
            Query query = Query.by(
                    List.of(new Stage("s", List.of(Generated.condition(random)))),
                    List.of(new GroupKey.Of("open"), new GroupKey.Of("day"), new GroupKey.Of("town")),
                    List.of(new Measure(Summary.FORMULA, text)));
            compare(
                    engines.answer(both.staying, query.with(Generated.measures(List.of(text), both.staying))),
                    engines.answer(both.held, query.with(Generated.measures(List.of(text), both.held))),
                    text);
        }
        Query few = Query.of(
                List.of(new Stage("s", List.of(Generated.condition(random)))), List.of("town"), List.of(Measure.ROWS));
        for (boolean not : new boolean[] {false, true})
            for (Table[] pair : new Table[][] {
                {other.held, other.held},
                {other.staying, other.staying},
                {other.held, other.staying},
                {other.staying, other.held}
            })
                compare(
                        engines.answer(both.staying, among(pair[0], few, not)),
                        engines.answer(both.held, among(pair[1], few, not)),
                        "among others");
        Query newest = Query.of(
                List.of(new Stage(
                        "s",
                        List.of(new Condition.Newest(
                                "at",
                                "town",
                                List.of(new Stage("b", List.of(new Condition.OneOf("open", List.of("yes"))))))))),
                List.of("town"),
                List.of(Measure.ROWS, new Measure(Summary.SUM, "pieces")));
        Frame last = engines.answer(both.staying, newest);
        Frame all = engines.answer(
                both.held,
                Query.by(
                        List.of(new Stage("b", List.of(new Condition.OneOf("open", List.of("yes"))))),
                        List.of(new GroupKey.Of("town"), new GroupKey.Of("at")),
                        List.of(Measure.ROWS, new Measure(Summary.SUM, "pieces"))));
        Map<String, Double> pieces = new HashMap<>();
        for (int g = 0; g < all.size(); g++)
            if (all.key(0, g) != null && all.key(1, g) != null) pieces.put(all.key(0, g), all.value(1, g));
        assertThat(last.size()).isEqualTo(pieces.size());
        for (int g = 0; g < last.size(); g++)
            assertThat(last.value(1, g)).as(last.key(0, g)).isEqualTo(pieces.get(last.key(0, g)));
    }

    private static Query among(Table table, Query few, boolean not) {
        return Query.by(
                List.of(new Stage("those", List.of(new Condition.Among("town", table, few, 0, not)))),
                List.of(new GroupKey.Step("day", TimeStep.WEEK, null)),
                List.of(Measure.ROWS));
    }

    /** Rows as they are: a page of them in an order, and all that are left. */
    void rows(long seed, int pages) throws Exception {
        Random random = new Random(seed);
        Both both = both(Generated.table(random, 300));
        List<String> columns = List.of("at", "town", "open", "pieces", "litres", "day", "@place", "size", "most");
        for (int q = 0; q < pages; q++) {
            RowQuery query = new RowQuery(
                    List.of(new Stage("s", List.of(Generated.condition(random)))),
                    columns,
                    columns.stream()
                            .map(c -> new RowQuery.By(c, !c.equals("at") && random.nextBoolean()))
                            .toList(),
                    q % 3 == 0 ? List.of("ri", "2025-10", "-2").get(q / 3 % 3) : "",
                    random.nextInt(5),
                    20);
            RowPage found = engines.rows(both.staying, query);
            RowPage expected = engines.rows(both.held, query);
            assertThat(found.all()).as(query.toString()).isEqualTo(expected.all());
            assertThat(found.cells())
                    .as(query.toString())
                    .usingRecursiveComparison()
                    .isEqualTo(expected.cells());
            assertThat(engines.taken(both.staying, query.stages(), columns, 1000)
                            .rows()
                            .rows())
                    .isEqualTo(engines.taken(both.held, query.stages(), columns, 1000)
                            .rows()
                            .rows());
        }
    }

    /** Single rows that stand out of those of the same town, as a visual lists them. */
    void unlikelyRows(long seed) throws Exception {
        Both both = both(Generated.withOutliers(new Random(seed), 300));
        for (String column : List.of("pieces", "litres"))
            for (String time : List.of("", "day", "at")) {
                String of = "'category': 'town', 'rows': true, 'measure': {'summary': 'SUM', 'column': '%s'}%s"
                        .formatted(column, time.isEmpty() ? "" : ", 'time': '" + time + "'");
                UnlikelyDrawing expected = drawn(both.held, of);
                assertThat(expected.lines()).as("stand out: %s", of).hasSizeGreaterThan(3);
                assertThat(drawn(both.staying, of))
                        .as(of)
                        .usingRecursiveComparison()
                        .ignoringFields("trail")
                        .isEqualTo(expected);
            }
    }

    private UnlikelyDrawing drawn(Table table, String of) {
        Dashboard dashboard = DashboardDocument.parse(
                        ("{'schema': 2, 'title': 'x', 'pages': {'p': {'title': '', 'order': 1}}, 'filters': {}, 'links': {}, "
                                        + "'visuals': {'v': {'type': 'unlikely', 'page': 'p', 'title': '', 'dataset': 1, "
                                        + "'at': {'x': 0, 'y': 0, 'w': 8, 'h': 6}, %s}}}")
                                .formatted(of)
                                .replace('\'', '"'))
                .dashboard();
        LoadedDataset dataset = new LoadedDataset(1, "Refills", table, null, Map.of());
        Datasets datasets = id -> Datasets.Found.of(Optional.of(dataset));
        ReaderState state = StateReader.read("", dashboard, datasets, Kinds.ALL).state();
        return (UnlikelyDrawing)
                new PageDrawer(dashboard, state, new Sources(datasets), new Answerer(engines), Map.of()).draw("v");
    }

    private static void compare(Frame found, Frame expected, String asked) {
        for (int k = 0; k < expected.keys().size(); k++)
            assertThat(found.keys().get(k))
                    .as("key %d of %s", k, asked)
                    .containsExactly(expected.keys().get(k));
        for (int m = 0; m < expected.values().size(); m++)
            for (int g = 0; g < expected.size(); g++) {
                double wanted = expected.value(m, g);
                if (Double.isNaN(wanted))
                    assertThat(found.value(m, g))
                            .as("%d, %d of %s", m, g, asked)
                            .isNaN();
                else
                    assertThat(found.value(m, g))
                            .as("measure %d, group %d of %s", m, g, asked)
                            .isCloseTo(wanted, within(1e-9 * Math.max(1, Math.abs(wanted))));
            }
        assertThat(found.trail().steps().stream().map(RowTrail.Step::left).toList())
                .as("trail of %s", asked)
                .isEqualTo(expected.trail().steps().stream()
                        .map(RowTrail.Step::left)
                        .toList());
    }
}
