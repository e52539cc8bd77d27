package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/** Answers over rows that are cut into segments, against the same written out with plain collections. */
@DisplayName("What segments add up to")
class SegmentsTest {

    private static final int ROWS = 300_000;
    private static final List<Measure> MEASURES = List.of(
            Measure.ROWS,
            new Measure(Summary.COUNT, "litres"),
            new Measure(Summary.SUM, "litres"),
            new Measure(Summary.AVERAGE, "litres"),
            new Measure(Summary.MINIMUM, "litres"),
            new Measure(Summary.MAXIMUM, "litres"),
            new Measure(Summary.MEDIAN, "litres"),
            new Measure(Summary.DISTINCT, "kiosk"),
            new Measure(Summary.COUNT, "kiosk"));

    private final int[] towns;
    private final int[] kiosks;
    private final double[] litres = new double[ROWS];
    private final long[] pieces = new long[ROWS];
    private final int[] weights = new int[ROWS];

    SegmentsTest() {
        Random random = new Random(11);
        // Towns come one after the other, so that each segment knows other groups than the one before.
        towns = IntStream.range(0, ROWS)
                .map(i -> random.nextInt(40) == 0 ? -1 : (int) (i * 280L / ROWS) + random.nextInt(20))
                .toArray();
        kiosks = IntStream.range(0, ROWS).map(i -> random.nextInt(400) - 1).toArray();
        for (int i = 0; i < ROWS; i++) {
            litres[i] = random.nextInt(9) == 0 ? Double.NaN : random.nextInt(4000) / 4.0 - 100;
            pieces[i] = random.nextInt(7) == 0 ? WholeColumn.MISSING : random.nextInt(60);
            weights[i] = 1 + random.nextInt(3);
        }
    }

    private Table table(boolean weighted) {
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("town", column("town ", towns, 300));
        columns.put("kiosk", column("kiosk ", kiosks, 400));
        columns.put("litres", new DecimalColumn(litres));
        columns.put("pieces", new WholeColumn(pieces));
        if (weighted) columns.replaceAll((name, column) -> column.weighted(weights));
        return new Table(columns);
    }

    private static Column column(String word, int[] codes, int values) {
        return new CodedColumn(
                ColumnType.TEXT,
                Codes.of(codes, codes.length, values),
                IntStream.range(0, values).mapToObj(i -> word + i).toList());
    }

    /** What a group comes to, row by row. */
    private static final class Group {
        int rows;
        int withKiosk;
        final List<Double> litres = new ArrayList<>();
        final Set<Integer> kiosks = new HashSet<>();

        double[] figures() {
            double[] sorted =
                    litres.stream().mapToDouble(Double::doubleValue).sorted().toArray();
            double sum = Arrays.stream(sorted).sum();
            int middle = sorted.length / 2;
            boolean none = sorted.length == 0;
            return new double[] {
                rows,
                sorted.length,
                none ? Double.NaN : sum,
                none ? Double.NaN : sum / sorted.length,
                none ? Double.NaN : sorted[0],
                none ? Double.NaN : sorted[sorted.length - 1],
                none ? Double.NaN : sorted.length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2,
                kiosks.size(),
                withKiosk
            };
        }
    }

    private void isAsWrittenOut(List<String> keys, boolean weighted, boolean filled) {
        Map<String, Group> expected = new HashMap<>();
        long lacking = 0;
        for (int i = 0; i < ROWS; i++) {
            if (pieces[i] == WholeColumn.MISSING || pieces[i] < 3) continue;
            int times = weighted ? weights[i] : 1;
            boolean isLacking = keys.contains("town") && towns[i] < 0 || keys.contains("kiosk") && kiosks[i] < 0;
            if (filled && isLacking) {
                lacking += times;
                continue;
            }
            StringBuilder key = new StringBuilder();
            if (keys.contains("town")) key.append(towns[i] < 0 ? null : "town " + towns[i]);
            if (keys.contains("kiosk")) key.append(kiosks[i] < 0 ? null : "kiosk " + kiosks[i]);
            Group group = expected.computeIfAbsent(key.toString(), k -> new Group());
            group.rows += times;
            for (int time = 0; time < times; time++) if (!Double.isNaN(litres[i])) group.litres.add(litres[i]);
            if (kiosks[i] >= 0) {
                group.kiosks.add(kiosks[i]);
                group.withKiosk += times;
            }
        }
        Query query = Query.of(
                List.of(new Stage("some", List.of(new Condition.Between("pieces", "3", null)))), keys, MEASURES);
        Frame frame = new InMemoryEngine().answer(table(weighted), filled ? query.filled() : query);
        assertThat(frame.size()).isEqualTo(expected.size());
        for (int g = 0; g < frame.size(); g++) {
            StringBuilder key = new StringBuilder();
            for (int k = 0; k < keys.size(); k++) key.append(frame.key(k, g));
            double[] figures = expected.get(key.toString()).figures();
            for (int m = 0; m < figures.length; m++) {
                if (Double.isNaN(figures[m]))
                    assertThat(frame.value(m, g)).as(key + " " + m).isNaN();
                else assertThat(frame.value(m, g)).as(key + " " + m).isCloseTo(figures[m], within(1e-7));
            }
        }
        if (filled) assertThat(lacking).isPositive();
        long counted = expected.values().stream().mapToLong(group -> group.rows).sum();
        long having = expected.values().stream()
                .mapToLong(group -> group.litres.size())
                .sum();
        List<RowTrail.Step> steps = frame.trail().steps();
        assertThat(frame.trail().rows()).isEqualTo(counted);
        assertThat(steps.get(1).left()).isEqualTo(counted + lacking);
        assertThat(steps.stream()
                        .filter(step -> step.unit() == RowTrail.Unit.WITHOUT)
                        .map(RowTrail.Step::left))
                .containsExactly(counted - having);
    }

    @Test
    void forAFewGroups() {
        isAsWrittenOut(List.of("town"), false, false);
    }

    @Test
    void forAFewGroupsWithoutRowsThatLackTheKey() {
        isAsWrittenOut(List.of("kiosk"), false, true);
    }

    @Test
    void forManyGroups() {
        isAsWrittenOut(List.of("town", "kiosk"), false, false);
    }

    @Test
    void forManyGroupsWithoutRowsThatLackAKey() {
        isAsWrittenOut(List.of("town", "kiosk"), false, true);
    }

    @Test
    void forAllRows() {
        isAsWrittenOut(List.of(), false, false);
    }

    @Test
    void whereARowStandsForSeveral() {
        isAsWrittenOut(List.of("town"), true, true);
        isAsWrittenOut(List.of("town", "kiosk"), true, false);
        isAsWrittenOut(List.of(), true, false);
    }
}
