package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("Measures that compare")
class ComparisonsTest {

    private static final InMemoryEngine ENGINE = new InMemoryEngine();
    private static final String NAME = "compared";
    private static final List<String> TOWNS = List.of("Soria", "Zamora", "Burgos", "Lugo");

    private final Table table = rows(600);
    private final Map<String, double[]> numbers = Map.of("litres", numbers("litres"), "people", numbers("people"));
    private final Map<String, FormulaMeasure> formulas = Map.of(
            "each",
            FormulaMeasure.of(
                    MeasureFormula.parse("SUM(litres) / COUNT(*)", Scope.of(table)),
                    table,
                    Surroundings.on(LocalDate.EPOCH)),
            "along",
            FormulaMeasure.of(
                    MeasureFormula.parse("SUM(SUM(litres)) OVER ()", Scope.of(table)),
                    table,
                    Surroundings.on(LocalDate.EPOCH)));

    private static Table rows(int count) {
        Random random = new Random(3);
        String[] lines = new String[count + 1];
        lines[0] = "town,half,state,litres,people";
        for (int i = 1; i <= count; i++)
            lines[i] = "%s,%s,%s,%s,%d"
                    .formatted(
                            TOWNS.get(Math.min(3, random.nextInt(5))),
                            List.of("first", "second", "neither").get(random.nextInt(3)),
                            random.nextBoolean() ? "final" : "draft",
                            random.nextInt(9) == 0
                                    ? ""
                                    : String.valueOf(Math.round(random.nextGaussian() * 900 + 4000) / 100.0),
                            random.nextInt(50));
        return TestTables.csv(lines);
    }

    private double[] numbers(String column) {
        return IntStream.range(0, table.rows())
                .mapToDouble(row -> table.column(column).isMissing(row)
                        ? Double.NaN
                        : Double.parseDouble(table.column(column).text(row)))
                .toArray();
    }

    private boolean is(int row, String column, String value) {
        return value.equals(table.column(column).text(row));
    }

    private Comparisons.Side side(String half) {
        List<Stage> stages = List.of(new Stage("", List.of(new Condition.OneOf("half", List.of(half)))));
        return new Comparisons.Side(stages, Comparisons.rows(table, stages));
    }

    /** By town, of final rows only. */
    private Map<String, Double> asked(FormulaMeasure measure) {
        Query query = Query.of(
                        List.of(new Stage("final", List.of(new Condition.OneOf("state", List.of("final"))))),
                        List.of("town"),
                        List.of(new Measure(Summary.FORMULA, NAME)))
                .with(Map.of(NAME, measure));
        Frame frame = ENGINE.answer(table, query);
        return IntStream.range(0, frame.size())
                .boxed()
                .collect(Collectors.toMap(g -> frame.key(0, g), g -> frame.value(0, g)));
    }

    /** The numbers of a town's final rows of a half that a measure is of, those that are there. */
    private double[] side(Measure measure, String town, String half) {
        double[] all = numbers.get("people".equals(measure.column()) ? "people" : "litres");
        return IntStream.range(0, table.rows())
                .filter(row -> is(row, "town", town) && is(row, "half", half) && is(row, "state", "final"))
                .mapToDouble(row -> all[row])
                .filter(v -> !Double.isNaN(v))
                .toArray();
    }

    private long rows(String town, String half) {
        return IntStream.range(0, table.rows())
                .filter(row -> is(row, "town", town) && is(row, "half", half) && is(row, "state", "final"))
                .count();
    }

    private static double plain(Measure measure, double[] values, long rows) {
        double[] sorted = Arrays.stream(values).sorted().toArray();
        return switch (measure.summary()) {
            case COUNT -> measure.column() == null ? rows : values.length;
            case SUM -> Arrays.stream(values).sum();
            case AVERAGE -> Arrays.stream(values).average().orElseThrow();
            case MINIMUM -> sorted[0];
            case MAXIMUM -> sorted[sorted.length - 1];
            case DISTINCT -> Arrays.stream(values).distinct().count();
            case FORMULA -> Arrays.stream(values).sum() / rows;
            default ->
                sorted.length % 2 == 1
                        ? sorted[sorted.length / 2]
                        : (sorted[sorted.length / 2 - 1] + sorted[sorted.length / 2]) / 2;
        };
    }

    private static double variance(Measure measure, double[] values, long rows) {
        double mean = Arrays.stream(values).average().orElseThrow();
        return switch (measure.summary()) {
            case COUNT -> rows;
            case SUM -> Arrays.stream(values).map(v -> v * v).sum();
            default ->
                Arrays.stream(values).map(v -> (v - mean) * (v - mean)).sum() / (values.length - 1) / values.length;
        };
    }

    static List<Measure> measures() {
        return List.of(
                Measure.ROWS,
                new Measure(Summary.COUNT, "litres"),
                new Measure(Summary.SUM, "litres"),
                new Measure(Summary.AVERAGE, "litres"),
                new Measure(Summary.MINIMUM, "litres"),
                new Measure(Summary.MAXIMUM, "litres"),
                new Measure(Summary.MEDIAN, "litres"),
                new Measure(Summary.DISTINCT, "litres"),
                new Measure(Summary.SUM, "people"),
                new Measure(Summary.MEDIAN, "people"),
                new Measure(Summary.FORMULA, "each"));
    }

    @ParameterizedTest
    @MethodSource("measures")
    void giveTheChangeOfAnyMeasureBetweenTwoSides(Measure measure) {
        for (Comparisons.As as : List.of(Comparisons.As.AMOUNT, Comparisons.As.PERCENT)) {
            Map<String, Double> asked =
                    asked(Comparisons.change(measure, table, formulas, side("first"), side("second"), as));
            for (String town : TOWNS) {
                double before = plain(measure, side(measure, town, "first"), rows(town, "first"));
                double after = plain(measure, side(measure, town, "second"), rows(town, "second"));
                double change = as == Comparisons.As.AMOUNT ? after - before : (after - before) * 100 / before;
                assertThat(asked.get(town)).as("%s %s", town, as).isCloseTo(change, within(1e-9));
            }
        }
    }

    @ParameterizedTest
    @CsvSource({"COUNT, ", "SUM, litres", "AVERAGE, litres", "SUM, people", "AVERAGE, people"})
    void giveItInStandardErrorsWhereTheyAreKnown(Summary summary, String column) {
        Measure measure = new Measure(summary, column);
        Map<String, Double> asked = asked(
                Comparisons.change(measure, table, formulas, side("first"), side("second"), Comparisons.As.ERRORS));
        for (String town : TOWNS) {
            double[] first = side(measure, town, "first");
            double[] second = side(measure, town, "second");
            double change = plain(measure, second, rows(town, "second")) - plain(measure, first, rows(town, "first"));
            double spread =
                    variance(measure, first, rows(town, "first")) + variance(measure, second, rows(town, "second"));
            assertThat(asked.get(town)).isCloseTo(change / Math.sqrt(spread), within(1e-9));
        }
    }

    @Test
    void knowNoStandardErrorOfTooFewRows() {
        Table few = TestTables.csv(
                "town,half,litres,zero",
                "Soria,first,1,0",
                "Soria,second,2,0",
                "Soria,second,4,0",
                "Zamora,first,1,0",
                "Zamora,first,3,0",
                "Zamora,second,5,0",
                "Zamora,second,9,0");
        List<Comparisons.Side> sides = Stream.of("first", "second")
                .map(half -> List.of(new Stage("", List.of(new Condition.OneOf("half", List.of(half))))))
                .map(stages -> new Comparisons.Side(stages, Comparisons.rows(few, stages)))
                .toList();
        Query query = Query.of(List.of(), List.of("town"), List.of(new Measure(Summary.FORMULA, NAME)));
        Frame average = ENGINE.answer(
                few,
                query.with(Map.of(
                        NAME,
                        Comparisons.change(
                                new Measure(Summary.AVERAGE, "litres"),
                                few,
                                Map.of(),
                                sides.get(0),
                                sides.get(1),
                                Comparisons.As.ERRORS))));
        assertThat(average.value(0, 0)).as("one row at first").isNaN();
        assertThat(average.value(0, 1)).isCloseTo(5 / Math.sqrt(2.0 / 2 + 8.0 / 2), within(1e-12));
        Frame sum = ENGINE.answer(
                few,
                query.with(Map.of(
                        NAME,
                        Comparisons.change(
                                new Measure(Summary.SUM, "zero"),
                                few,
                                Map.of(),
                                sides.get(0),
                                sides.get(1),
                                Comparisons.As.ERRORS))));
        assertThat(sum.values().get(0)).as("nothing varies").containsOnly(Double.NaN);
    }

    @Test
    void doNotMakeStandardErrorsUp() {
        assertThatThrownBy(() -> Comparisons.change(
                        new Measure(Summary.MEDIAN, "litres"),
                        table,
                        formulas,
                        side("first"),
                        side("second"),
                        Comparisons.As.ERRORS))
                .hasMessageContaining("Standard errors are known for numbers of rows, sums and averages");
    }

    @Test
    void areMissingWhereOneSideIs() {
        Comparisons.Side none = side("nowhere");
        assertThat(asked(Comparisons.change(
                                new Measure(Summary.SUM, "litres"),
                                table,
                                formulas,
                                none,
                                side("second"),
                                Comparisons.As.AMOUNT))
                        .values())
                .allMatch(v -> v.isNaN());
        assertThat(asked(Comparisons.change(
                                Measure.ROWS, table, formulas, none, side("second"), Comparisons.As.PERCENT))
                        .values())
                .as("per cent of nothing")
                .allMatch(v -> v.isNaN());
    }

    @ParameterizedTest
    @CsvSource({
        "FORMULA, along, goes over all groups",
        "FORMULA, gone, There is no measure",
        "SUM, town, needs numbers",
        "SUM, gone, There is no column"
    })
    void sayWhatCannotBeCompared(Summary summary, String column, String why) {
        assertThatThrownBy(() -> Comparisons.parts(new Measure(summary, column), table, formulas))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining(why);
    }

    @Test
    void countAFigureOfAKeyOnceForEachGroup() {
        Map<String, Double> people = Map.of("Soria", 40.0, "Zamora", 60.0, "Burgos", 0.0, "Nowhere", 999.0);
        Measure sum = new Measure(Summary.SUM, "litres");
        Map<String, Double> by = asked(Comparisons.reference(sum, table, formulas, "town", people, 1000));
        for (String town : List.of("Soria", "Zamora")) {
            double[] all = IntStream.range(0, table.rows())
                    .filter(row -> is(row, "town", town) && is(row, "state", "final"))
                    .mapToDouble(row -> numbers.get("litres")[row])
                    .filter(v -> !Double.isNaN(v))
                    .toArray();
            assertThat(by.get(town)).isCloseTo(Arrays.stream(all).sum() * 1000 / people.get(town), within(1e-6));
        }
        assertThat(by.get("Burgos")).as("for nobody").isNaN();
        assertThat(by.get("Lugo")).as("nothing is known of it").isNaN();

        Map<String, Double> halved =
                asked(Comparisons.reference(new Measure(Summary.MEDIAN, "people"), table, formulas, "town", people, 1));
        double[] ofSoria = IntStream.range(0, table.rows())
                .filter(row -> is(row, "town", "Soria") && is(row, "state", "final"))
                .mapToDouble(row -> numbers.get("people")[row])
                .toArray();
        assertThat(halved.get("Soria"))
                .isEqualTo(plain(new Measure(Summary.MEDIAN, "people"), ofSoria, ofSoria.length) / 40);

        FormulaMeasure figure = Comparisons.reference(null, table, formulas, "town", people, 1);
        Frame all = ENGINE.answer(
                table,
                Query.of(List.of(), List.of(), List.of(new Measure(Summary.FORMULA, NAME)))
                        .with(Map.of(NAME, figure)));
        assertThat(all.value(0, 0)).as("those of the towns that occur").isEqualTo(100);
        Frame bySeveral = ENGINE.answer(
                table,
                Query.of(List.of(), List.of("half", "people"), List.of(new Measure(Summary.FORMULA, NAME)))
                        .with(Map.of(NAME, figure)));
        for (int g = 0; g < bySeveral.size(); g++) {
            String half = bySeveral.key(0, g);
            String number = bySeveral.key(1, g);
            double known = TOWNS.stream()
                    .filter(town -> IntStream.range(0, table.rows())
                            .anyMatch(row -> is(row, "town", town)
                                    && is(row, "half", half)
                                    && table.column("people").text(row).equals(number)))
                    .filter(people::containsKey)
                    .mapToDouble(people::get)
                    .sum();
            double value = bySeveral.value(0, g);
            assertThat(Double.isNaN(value) ? 0 : value).isEqualTo(known);
        }
    }
}
