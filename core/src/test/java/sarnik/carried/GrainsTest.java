package sarnik.carried;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.carried.GrainUses.Grain;
import sarnik.carried.GrainUses.Uses;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryException;
import sarnik.query.RowQuery;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

@DisplayName("Rows put together at the finest grain that is asked for")
class GrainsTest {

    private static final InMemoryEngine ENGINE = new InMemoryEngine();
    private static final int ROWS = Grains.ROWS_AS_THEY_ARE + 20_000;
    private static final int START = (int) LocalDate.of(2025, 11, 20).toEpochDay();

    private static Table table(Random random) {
        List<String> kiosks =
                IntStream.range(0, 30).mapToObj(i -> "K" + (i * 7 % 30)).toList();
        Map<String, Column> columns = new LinkedHashMap<>();
        int[] kiosk = random.ints(ROWS, -1, 30).toArray();
        columns.put("kiosk", new CodedColumn(ColumnType.TEXT, Codes.of(kiosk, ROWS, 30), kiosks));
        columns.put(
                "size",
                new WholeColumn(random.ints(ROWS, 0, 3)
                        .mapToLong(i -> i == 0 ? WholeColumn.MISSING : 5L * i)
                        .toArray()));
        columns.put("day", new DateColumn(random.ints(ROWS, START, START + 50).toArray()));
        columns.put(
                "when",
                new TimeColumn(random.ints(ROWS, 0, 40 * 86_400)
                        .mapToLong(s -> START * 86_400L + s)
                        .toArray()));
        columns.put(
                "litres",
                new DecimalColumn(random.ints(ROWS, -200, 9000)
                        .mapToDouble(v -> v % 11 == 0 ? Double.NaN : v / 100.0)
                        .toArray()));
        columns.put(
                "pieces",
                new WholeColumn(random.ints(ROWS, 0, 40)
                        .mapToLong(v -> v == 3 ? WholeColumn.MISSING : v)
                        .toArray()));
        columns.put(
                "price",
                new DecimalColumn(
                        random.ints(ROWS, 0, 700).mapToDouble(v -> v / 1000.0).toArray()));
        return new Table(columns);
    }

    private static final Uses USES = new Uses(
            Map.of("litres", true, "pieces", false, "price", false), Map.of("when", Grain.DAY, "day", Grain.MONTH));

    private static Query query(Random random, Map<String, FormulaMeasure> formulas) {
        List<Stage> stages = new ArrayList<>();
        if (random.nextBoolean())
            stages.add(new Stage("some", List.of(new Condition.OneOf("kiosk", List.of("K7", "K0", "K13", "nowhere")))));
        if (random.nextInt(3) == 0) stages.add(new Stage("sized", List.of(new Condition.Between("size", "5", null))));
        if (random.nextInt(4) == 0)
            stages.add(new Stage("unsized", List.of(new Condition.Not(new Condition.Between("size", "10", "10")))));
        List<GroupKey> all = List.of(
                new GroupKey.Of("kiosk"),
                new GroupKey.Of("size"),
                new GroupKey.Step("day", random.nextBoolean() ? TimeStep.MONTH : TimeStep.YEAR, null),
                new GroupKey.Step("when", random.nextBoolean() ? TimeStep.WEEK : TimeStep.WEEKDAY, null));
        List<GroupKey> keys = all.stream().filter(key -> random.nextInt(3) == 0).toList();
        List<Measure> measures = new ArrayList<>(List.of(
                Measure.ROWS,
                new Measure(Summary.SUM, "litres"),
                new Measure(Summary.COUNT, "litres"),
                new Measure(Summary.AVERAGE, "litres"),
                new Measure(Summary.MINIMUM, "litres"),
                new Measure(Summary.MAXIMUM, "litres"),
                new Measure(Summary.SUM, "pieces"),
                new Measure(Summary.AVERAGE, "price"),
                new Measure(Summary.SUM, "price"),
                new Measure(Summary.DISTINCT, "kiosk"),
                new Measure(Summary.SUM, "size"),
                new Measure(Summary.COUNT, "kiosk"),
                new Measure(Summary.MEDIAN, "size"),
                new Measure(Summary.PERCENTILE, "size", 80.0, null),
                new Measure(Summary.FORMULA, "a piece")));
        Query query = Query.by(stages, keys, measures).with(formulas);
        return random.nextBoolean() ? query.filled() : query;
    }

    private static Map<String, FormulaMeasure> formulas(Table table) {
        MeasureFormula formula = MeasureFormula.parse(
                "sum(litres) / sum(pieces) + max(litres) - count(distinct kiosk)", Scope.of(table));
        return Map.of("a piece", FormulaMeasure.of(formula, table, Surroundings.on(LocalDate.EPOCH)));
    }

    private static void assertSame(Frame there, Frame here) {
        assertThat(there.keys()).usingRecursiveComparison().isEqualTo(here.keys());
        for (int m = 0; m < here.values().size(); m++)
            assertThat(there.values().get(m))
                    .as("measure %d", m)
                    .isEqualTo(here.values().get(m));
        assertThat(there.trail()).isEqualTo(here.trail());
    }

    @Test
    void answerBitForBitWhatTheRowsAnswer() {
        for (int n = 0; n < 3; n++) {
            Random random = new Random(n);
            Table rows = table(random);
            Table sums = Grains.of(rows, USES).orElseThrow();
            assertThat(sums.rows()).isLessThan(31 * 3 * 3 * 40 + 1);
            assertThat(sums.weight()).isEqualTo(ROWS);
            Table carried = CarriedFileTest.carried(sums);
            for (int q = 0; q < 40; q++) {
                long seed = random.nextLong();
                Frame here = ENGINE.answer(rows, query(new Random(seed), formulas(rows)));
                assertSame(ENGINE.answer(sums, query(new Random(seed), formulas(sums))), here);
                assertSame(ENGINE.answer(carried, query(new Random(seed), formulas(carried))), here);
            }
        }
    }

    @Test
    void keepTheOrderOfWordsAndWhatIsCommonest() {
        Table rows = table(new Random(9));
        CodedColumn here = (CodedColumn) rows.column("kiosk");
        CodedColumn there = (CodedColumn)
                CarriedFileTest.carried(Grains.of(rows, USES).orElseThrow()).column("kiosk");
        assertThat(there.dictionary()).isEqualTo(here.dictionary());
        assertThat(there.commonest()).isEqualTo(here.commonest());
    }

    @Test
    void refuseWhatSumsDoNotTell() {
        Table sums = Grains.of(table(new Random(1)), USES).orElseThrow();
        List<Query> unknown = List.of(
                Query.of(List.of(), List.of("litres"), List.of(Measure.ROWS)),
                Query.of(List.of(), List.of(), List.of(new Measure(Summary.MEDIAN, "litres"))),
                Query.of(List.of(), List.of(), List.of(new Measure(Summary.DISTINCT, "litres"))),
                Query.of(
                        List.of(new Stage("", List.of(new Condition.Between("litres", "1", "2")))),
                        List.of(),
                        List.of(Measure.ROWS)));
        for (Query query : unknown)
            assertThatThrownBy(() -> ENGINE.answer(sums, query))
                    .isInstanceOf(QueryException.class)
                    .hasMessageContaining("Only sums of “litres” were taken along");
        assertThatThrownBy(() -> ENGINE.rows(sums, new RowQuery(List.of(), List.of("kiosk"), List.of(), "", 0, 10)))
                .hasMessage("Only sums were taken along, not single rows");
    }

    @Test
    void areLeftAsTheyAreWhereThatSavesLittle() {
        Table rows = table(new Random(2));
        assertThat(Grains.of(rows, new Uses(Map.of(), Map.of()))).isEmpty();
        assertThat(Grains.of(rows.only(List.of("kiosk")).pick(new int[] {1, 2, 3}), USES))
                .isEmpty();
        assertThat(Grains.of(rows, null)).isEmpty();
    }

    // --- what is asked for -----------------------------------------------------------------------------

    private static Dashboard dashboard(String visuals, String filters) {
        return DashboardDocument.parse("""
                {"schema": 2, "title": "Which?", "pages": {"p1": {"title": "", "order": 1}},
                 "visuals": {%s}, "filters": {%s}, "links": {}}
                """.formatted(visuals, filters)).dashboard();
    }

    private static String figure(String id, String measure) {
        return """
                "%s": {"type": "figure", "page": "p1", "at": {"x": 0, "y": 0, "w": 4, "h": 4}, "title": "", "dataset": 1, "measure": %s}""".formatted(id, measure);
    }

    @Test
    void areFoundInTheDocument() {
        Table rows = table(new Random(3));
        String lines = """
                "v9": {"type": "lines", "page": "p1", "at": {"x": 0, "y": 4, "w": 8, "h": 6}, "title": "", "dataset": 1, "time": "when", "step": "WEEK", "measures": [{"summary": "SUM", "column": "price"}]}""";
        String sum = figure("v1", "{\"summary\": \"SUM\", \"column\": \"litres\"}")
                .replace("\"title\": \"\"", "\"title\": \"How many litres?\"");
        String most = figure("v2", "{\"summary\": \"MAXIMUM\", \"column\": \"pieces\"}");
        Uses uses =
                new GrainUses(dashboard(String.join(",", lines, sum, most), "")).of(rows, Set.of("kiosk"), Map.of());
        assertThat(uses.summed())
                .containsOnly(
                        Map.entry("litres", false),
                        Map.entry("price", false),
                        Map.entry("pieces", true),
                        Map.entry("size", false));
        assertThat(uses.steps()).containsOnly(Map.entry("when", Grain.WEEK));

        String months = lines.replace("v9", "v8").replace("WEEK", "QUARTER");
        uses = new GrainUses(dashboard(String.join(",", lines, months), "")).of(rows, Set.of(), Map.of());
        assertThat(uses.steps()).as("months begin within weeks").containsOnly(Map.entry("when", Grain.DAY));

        String braces = sum.replace("How many litres?", "{litres} in all");
        uses = new GrainUses(dashboard(braces, "")).of(rows, Set.of(), Map.of());
        assertThat(uses.summed()).as("asked for by its name").doesNotContainKey("litres");

        String filter = """
                "f1": {"type": "numbers", "page": "p1", "order": 1, "dataset": 1, "column": "litres", "title": ""},
                "f2": {"type": "newest", "page": "p1", "order": 2, "dataset": 1, "column": "when", "title": ""}""";
        uses = new GrainUses(dashboard(String.join(",", lines, sum), filter)).of(rows, Set.of(), Map.of());
        assertThat(uses.summed()).as("a filter asks for the values").doesNotContainKey("litres");
        assertThat(uses.steps()).as("the newest is a moment").isEmpty();

        String last = sum.replace(
                "\"dataset\": 1",
                "\"dataset\": 1, \"rule\": {\"column\": \"when\", \"is\": \"LAST\", \"last\": 3, \"step\": \"MONTH\", \"newest\": true}");
        uses = new GrainUses(dashboard(last, "")).of(rows, Set.of(), Map.of());
        assertThat(uses.steps()).as("the last months begin with a day").containsOnly(Map.entry("when", Grain.DAY));
        uses = new GrainUses(dashboard(last.replace("MONTH", "HOUR"), "")).of(rows, Set.of(), Map.of());
        assertThat(uses.steps())
                .as("the last hours are counted back from a moment")
                .isEmpty();
        String unlikely = lines.replace("lines", "unlikely")
                .replace("\"measures\": [", "\"category\": \"kiosk\", \"measure\": ")
                .replace("]}", "}");
        uses = new GrainUses(dashboard(unlikely, "")).of(rows, Set.of(), Map.of());
        assertThat(uses.steps())
                .as("whether a week is over is told by a day")
                .containsOnly(Map.entry("when", Grain.DAY));

        String local = lines.replace("\"step\"", "\"zone\": \"Asia/Kathmandu\", \"step\"");
        uses = new GrainUses(dashboard(local, "")).of(rows, Set.of(), Map.of());
        assertThat(uses.steps()).containsOnly(Map.entry("when", Grain.QUARTER_OF_AN_HOUR));

        MeasureFormula formula = MeasureFormula.parse("min(litres) + sum(pieces * 2)", Scope.of(rows));
        uses = new GrainUses(dashboard(sum, ""))
                .of(
                        rows,
                        Set.of(),
                        Map.of(formula, FormulaMeasure.of(formula, rows, Surroundings.on(LocalDate.EPOCH))));
        assertThat(uses.summed()).containsEntry("litres", true).doesNotContainKey("pieces");
    }

    @Test
    void areNotPutTogetherWhereTheOrderOfAddingShows() {
        double[] thirds = IntStream.range(0, ROWS).mapToDouble(i -> i / 3.0).toArray();
        Table rows = table(new Random(4)).with(Map.of("litres", new DecimalColumn(thirds)));
        String sum = figure("v1", "{\"summary\": \"SUM\", \"column\": \"litres\"}");
        assertThat(new GrainUses(dashboard(sum, "")).of(rows, Set.of(), Map.of()))
                .isNull();
        MeasureFormula formula = MeasureFormula.parse("sum(price / 3)", Scope.of(rows));
        assertThat(new GrainUses(dashboard("", ""))
                        .of(
                                rows,
                                Set.of(),
                                Map.of(formula, FormulaMeasure.of(formula, rows, Surroundings.on(LocalDate.EPOCH)))))
                .isNull();
    }
}
