package sarnik.formula;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.LongStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TestTables;
import sarnik.table.WholeColumn;

@DisplayName("Numbers worked out in blocks")
class BlockNumbersTest {

    /** Fewer will do where each change of the code is tried. */
    private static final int EXPRESSIONS = Integer.getInteger("formula.expressions", 400);

    private static final LocalDate TODAY = LocalDate.of(2026, 5, 31);
    private static final Map<String, Kind> KINDS =
            Map.of("p", Kind.DECIMAL, "none", Kind.DECIMAL, "word", Kind.TEXT, "on", Kind.YES_NO, "day", Kind.DATE);

    private final Table table = rows(3000);
    private final Scope scope = Scope.of(table).withParameters(KINDS);

    /** Rows with gaps, zeros, and numbers that are out of range when they are multiplied. */
    private static Table rows(int count) {
        Random random = new Random(7);
        String[] lines = new String[count + 1];
        lines[0] = "town,litres,price,people,day,open";
        String[] towns = {"Soria", "Zamora", "Ávila", ""};
        String[] amounts = {"", "0", "1.5", "-2.25", "12.75", "1e200", "-1e-200", "3"};
        for (int row = 1; row <= count; row++)
            lines[row] = String.join(
                    ",",
                    towns[random.nextInt(towns.length)],
                    amounts[random.nextInt(amounts.length)],
                    amounts[random.nextInt(amounts.length)],
                    random.nextInt(5) == 0 ? "" : String.valueOf(random.nextInt(4)),
                    random.nextInt(6) == 0 ? "" : "2026-01-%02d".formatted(1 + random.nextInt(28)),
                    List.of("yes", "no", "").get(random.nextInt(3)));
        return TestTables.csv(lines);
    }

    private static Surroundings with(double p) {
        Surroundings plain = Surroundings.on(TODAY);
        Map<String, Object> values = new HashMap<>();
        values.put("p", p);
        values.put("none", null);
        values.put("word", p > 1 ? "Soria" : "Zamora");
        values.put("on", p > 1);
        values.put("day", (int) LocalDate.of(2026, 1, 14).toEpochDay());
        return new Surroundings(values, plain.places(), plain.areas(), TODAY);
    }

    private static double[] numbers(Column of) {
        return of instanceof DecimalColumn decimal
                ? decimal.all()
                : LongStream.of(((WholeColumn) of).values().all())
                        .mapToDouble(v -> v == WholeColumn.MISSING ? Double.NaN : v)
                        .toArray();
    }

    /** What a summary gets of each row, held for all and worked out in blocks. */
    private void same(String summary, double p) {
        MeasureFormula formula = MeasureFormula.parse(summary, scope);
        double[] held = numbers(formula.parts(table, with(p)).get(0).values());
        MeasureFormula.Part part =
                formula.parts(table, with(p), (words, work) -> work.get()).get(0);
        BlockNumbers.Reading reading = part.blocks().open();
        int[] rows = new int[BlockNumbers.MOST];
        double[] into = new double[BlockNumbers.MOST];
        for (int start = 0; start < held.length; start += 700) {
            int count = 0;
            // Not every row: those that other conditions leave.
            for (int row = start; row < Math.min(held.length, start + 700); row++)
                if (row % 3 != 1) rows[count++] = row;
            reading.fill(rows, count, into);
            for (int i = 0; i < count; i++)
                if (Double.isNaN(held[rows[i]]) ? !Double.isNaN(into[i]) : held[rows[i]] != into[i])
                    assertThat(into[i])
                            .as("%s, :p = %s, row %d", summary, p, rows[i])
                            .isEqualTo(held[rows[i]]);
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "SUM(litres * (price + :p))",
                "SUM(litres / (price - :p))",
                "SUM(CASE WHEN town = 'Soria' THEN litres * :p ELSE litres END)",
                "SUM(CASE WHEN litres / price > :p THEN 1.5 WHEN open THEN people * :p END)",
                "SUM(CASE town WHEN :word THEN litres ELSE 0.5 END)",
                "AVG(litres) FILTER (WHERE price > :p AND open)",
                "COUNT(*) FILTER (WHERE day >= :day OR litres * 1e300 * price > :p)",
                "SUM(COALESCE(litres / price, :p))",
                "MAX(GREATEST(litres, price * :p, 0.0))",
                "MIN(LEAST(litres, :p, :none))",
                "SUM(NULLIF(litres, :p) + ABS(price))",
                "SUM(POWER(1 + :p / 100, 2) * litres)",
                "SUM(ROUND(litres * :p, 1))",
                "SUM(CASE WHEN price BETWEEN :p AND 5 THEN litres END)",
                "SUM(CASE WHEN NOT open OR :on THEN -litres ELSE +price END)",
                "SUM(CASE WHEN litres IS NULL THEN :p WHEN (price / litres > 1) IS UNKNOWN THEN 2.5 ELSE 1 END)",
                "SUM(CASE WHEN open IS FALSE THEN people ELSE :p END)",
                "MAX(day) FILTER (WHERE litres < :p)",
                "SUM(people * 2 + :p)",
                "SUM(CASE WHEN town IN ('Soria', :word) THEN litres WHEN town LIKE 'Á%' THEN :p END)",
                "COUNT(town) FILTER (WHERE litres > :p)"
            })
    void areThoseOfEachRow(String summary) {
        if (summary.startsWith("COUNT(town)")) {
            MeasureFormula formula = MeasureFormula.parse(summary, scope);
            assertThat(formula.parts(table, with(2), (words, work) -> work.get())
                            .get(0)
                            .values())
                    .as("texts are held")
                    .isNotNull();
            return;
        }
        for (double p : new double[] {0, 1.5, -2.25, 1e200}) same(summary, p);
    }

    @Test
    void areThoseOfEachRowForAnyExpression() {
        Random random = new Random(20261127);
        for (int n = 0; n < EXPRESSIONS; n++) same("SUM(" + number(random, 4) + ")", random.nextInt(5) - 1.5);
    }

    private static String number(Random random, int depth) {
        if (depth == 0)
            return List.of("litres", "price", "people", ":p", "1.5", "0.0", ":none")
                    .get(random.nextInt(7));
        String a = number(random, depth - 1);
        String b = number(random, depth - 1);
        return switch (random.nextInt(9)) {
            case 0 -> "(" + a + " + 1.0 * " + b + ")";
            case 1 -> "(" + a + " - 0.5 * " + b + ")";
            case 2 -> "(1.0 * " + a + " * " + b + ")";
            case 3 -> "(1.0 * " + a + " / " + b + ")";
            case 4 -> "CASE WHEN " + condition(random, depth - 1) + " THEN 1.0 * " + a + " ELSE 1.0 * " + b + " END";
            case 5 -> "COALESCE(1.0 * " + a + ", 1.0 * " + b + ")";
            case 6 -> "GREATEST(1.0 * " + a + ", 1.0 * " + b + ")";
            case 7 -> "NULLIF(1.0 * " + a + ", 1.0 * " + b + ")";
            default -> "-(1.0 * " + a + ")";
        };
    }

    private static String condition(Random random, int depth) {
        String left = "1.0 * " + number(random, depth);
        String right = "1.0 * " + number(random, depth);
        String compared = left + List.of(" < ", " >= ", " = ", " <> ").get(random.nextInt(4)) + right;
        return switch (random.nextInt(6)) {
            case 0 -> "(" + compared + ") AND " + condition(random, 0);
            case 1 -> "(" + compared + ") OR open";
            case 2 -> "NOT (" + compared + ")";
            case 3 -> "(" + compared + ") IS NOT TRUE";
            case 4 -> "town = :word AND " + compared;
            default -> compared;
        };
    }

    @Test
    void areWorkedOutOnceWhereNoParameterChangesThem() {
        AtomicInteger works = new AtomicInteger();
        Map<String, DecimalColumn> kept = new HashMap<>();
        MeasureFormula formula = MeasureFormula.parse("SUM(ROUND(litres * price, 1) * :p)", scope);
        for (double p : new double[] {1, 2, 3})
            formula.parts(
                    table,
                    with(p),
                    (words, work) -> kept.computeIfAbsent(words, w -> {
                        works.incrementAndGet();
                        return work.get();
                    }));
        assertThat(works).hasValue(1);
    }
}
