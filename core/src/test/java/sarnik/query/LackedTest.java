package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

@DisplayName("Rows that lack what is summed up")
class LackedTest {

    private static final double NONE = Double.NaN;

    /** Rows 1, 2 and 5 are of Soria, 3 and 4 of Lugo, 6 of no town. */
    private static final Table TABLE = new Table(new LinkedHashMap<>(Map.of(
            "town",
            new CodedColumn(ColumnType.TEXT, new Codes.Bytes(new byte[] {0, 0, 1, 1, 0, -1}), List.of("Soria", "Lugo")),
            "litres",
            new DecimalColumn(new double[] {20, NONE, 40, 20, NONE, NONE}),
            "people",
            new WholeColumn(new long[] {1, 2, 3, 4, 5, 6}),
            "takings",
            new DecimalColumn(new double[] {2, 4, NONE, 8, 10, 12}))));

    private static FormulaMeasure formula(String text, boolean often) {
        MeasureFormula formula = MeasureFormula.parse(text, Scope.of(TABLE));
        Surroundings on = Surroundings.on(LocalDate.of(2026, 11, 30));
        return often
                ? FormulaMeasure.of(formula, TABLE, on, (words, work) -> work.get())
                : FormulaMeasure.of(formula, TABLE, on);
    }

    private static List<String> said(Query query) {
        return new InMemoryEngine()
                .answer(TABLE, query).trail().steps().stream()
                        .filter(step -> step.unit() == RowTrail.Unit.WITHOUT)
                        .map(step -> step.words() + " – " + step.left())
                        .toList();
    }

    private static List<String> said(List<Stage> stages, Query.Missing missing, Measure... measures) {
        Query query = Query.of(stages, List.of("town"), List.of(measures));
        return said(missing == Query.Missing.LEFT_OUT ? query.filled() : query);
    }

    @Test
    void areToldOfEachColumnThatIsSummedUp() {
        assertThat(said(
                        List.of(),
                        Query.Missing.KEPT,
                        new Measure(Summary.SUM, "litres"),
                        new Measure(Summary.AVERAGE, "litres"),
                        new Measure(Summary.MEDIAN, "takings"),
                        new Measure(Summary.MAXIMUM, "people"),
                        Measure.ROWS))
                .containsExactly(
                        "Not in the figures: no value of “litres” – 3",
                        "Not in the figures: no value of “takings” – 1");
    }

    @Test
    void areThoseThatNarrowingAndGroupingLeave() {
        List<Stage> few = List.of(new Stage("few", List.of(new Condition.Between("people", "2", "6"))));
        Measure litres = new Measure(Summary.SUM, "litres");
        assertThat(said(few, Query.Missing.KEPT, litres))
                .containsExactly("Not in the figures: no value of “litres” – 3");
        assertThat(said(few, Query.Missing.LEFT_OUT, litres))
                .containsExactly("Not in the figures: no value of “litres” – 2");
        List<Stage> whole = List.of(new Stage("whole", List.of(new Condition.Between("people", "3", "4"))));
        assertThat(said(whole, Query.Missing.KEPT, litres)).isEmpty();
    }

    @Test
    void areNotToldOfWhatIsCounted() {
        assertThat(said(
                        List.of(),
                        Query.Missing.KEPT,
                        new Measure(Summary.COUNT, "litres"),
                        new Measure(Summary.DISTINCT, "litres")))
                .isEmpty();
    }

    /** A division by zero in rows 1 and 4, no litres in 2, 5 and 6, no takings in 3. */
    @Test
    void areToldOfTheParts() {
        for (boolean often : new boolean[] {false, true}) {
            Query query = new Query(
                            List.of(),
                            List.of(),
                            Query.Missing.KEPT,
                            List.of(new Measure(Summary.FORMULA, "odd"), new Measure(Summary.FORMULA, "rate")),
                            Optional.empty(),
                            new Sort(0, true),
                            10)
                    .with(Map.of(
                            "odd", formula("SUM(people / (litres - 20)) + COUNT(takings)", often),
                            "rate", formula("SUM(takings) / SUM(people) + SUM(takings + litres)", often)));
            assertThat(said(query))
                    .containsExactly(
                            "Not in the figures: a part of “odd” has no value – 5",
                            "Not in the figures: no value of “takings” – 1",
                            "Not in the figures: a part of “rate” has no value – 4");
        }
    }

    @Test
    void areToldByTheNameOfTheFormulaThatWhatIsSummedUpIsOf() {
        Query query = Query.of(List.of(), List.of(), List.of(new Measure(Summary.FORMULA, "@above:odd")))
                .with(Map.of("@above:odd", formula("SUM(people / litres)", false)));
        assertThat(said(query)).containsExactly("Not in the figures: a part of “odd” has no value – 3");
    }

    @Test
    void areNotToldWhereTheFormulaChoosesTheRows() {
        Query query = Query.of(List.of(), List.of(), List.of(new Measure(Summary.FORMULA, "some")))
                .with(Map.of("some", formula("SUM(litres) FILTER (WHERE town = 'Soria') / COUNT(*)", false)));
        assertThat(said(query)).isEmpty();
    }

    @Test
    void areNotTakenForRowsThatAreLeft() {
        RowTrail trail = new InMemoryEngine()
                .answer(TABLE, Query.of(List.of(), List.of("town"), List.of(new Measure(Summary.SUM, "litres"))))
                .trail();
        assertThat(trail.rows()).isEqualTo(6);
        assertThat(trail.steps())
                .extracting(RowTrail.Step::unit)
                .containsExactly(RowTrail.Unit.ROWS, RowTrail.Unit.WITHOUT, RowTrail.Unit.GROUPS);
    }
}
