package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/** Sums and numbers of rows in one number, against adding each up on its own. */
class PackedSumsTest {

    private static final int[] DICTIONARIES = {3, 100, 300, 40_000};
    private static final int[] LARGEST = {100, 30_000, 33_000_000};

    @Property(tries = 60)
    void sumsAndRowsAreThoseAddedUpOneByOne(@ForAll long seed) {
        Random random = new Random(seed);
        int codes = DICTIONARIES[random.nextInt(4)];
        int largest = LARGEST[random.nextInt(3)];
        int rows = 1 + random.nextInt(5000);
        int[] keys =
                IntStream.range(0, rows).map(i -> random.nextInt(codes + 1) - 1).toArray();
        long[] values = random.longs(rows, -largest, largest + 1).toArray();
        PackedSums packed = PackedSums.of(Codes.of(keys, rows, codes), new WholeColumn(values), 1, codes + 1);
        int half = random.nextInt(rows + 1);
        packed.add(0, half);
        packed.add(half, rows);
        int[] counts = new int[codes + 1];
        long[] sums = new long[codes + 1];
        for (int i = 0; i < rows; i++) {
            int group = keys[i] < 0 ? codes : keys[i];
            counts[group]++;
            sums[group] += values[i];
        }
        assertThat(IntStream.rangeClosed(0, codes).map(packed::rows).toArray()).containsExactly(counts);
        assertThat(IntStream.rangeClosed(0, codes).mapToLong(packed::sum).toArray())
                .containsExactly(sums);
    }

    @Test
    void aSegmentOfTheLargestNumbersFits() {
        int rows = PackedSums.ROWS;
        for (long largest : new long[] {(1 << 25) - 1, -(1 << 25) + 1}) {
            long[] values = new long[rows];
            Arrays.fill(values, largest);
            PackedSums packed = PackedSums.of(Codes.of(new int[rows], rows, 1), new WholeColumn(values), 1, 2);
            packed.add(0, rows);
            assertThat(packed.sum(0)).isEqualTo(rows * largest);
            assertThat(packed.rows(0)).isEqualTo(rows);
            assertThat(packed.sum(1)).isZero();
            assertThat(packed.rows(1)).isZero();
        }
    }

    /** Where another query asks for many groups, a segment has more rows than fit. */
    @Test
    void aSegmentOfManyMoreRowsIsUnpackedOnTheWay() {
        int rows = RowBlocks.BLOCK;
        long[] values = new long[rows];
        Arrays.fill(values, (1 << 25) - 1);
        Table table = new Table(Map.of(
                "town", new CodedColumn(ColumnType.TEXT, Codes.of(new int[rows], rows, 1), List.of("Soria")),
                "n", new WholeColumn(values)));
        Query query = Query.of(List.of(), List.of("town"), List.of(new Measure(Summary.SUM, "n"), Measure.ROWS));
        Plan plan = new Plan(table, List.of(query), key -> KeyCoder.of(table, key), true);
        Partial partial = new Partial(plan);
        int[] selection = IntStream.range(0, rows).toArray();
        for (int block = 0; block < 1000; block++) partial.add(selection, rows);
        partial.unpack();
        assertThat(partial.values(Measure.ROWS, new int[] {0})).containsExactly(1000.0 * rows);
        assertThat(partial.values(query.measures().get(0), new int[] {0}))
                .containsExactly(1000.0 * rows * ((1 << 25) - 1));
    }

    /** Blocks of which all rows are left are taken in another way than those with gaps; both have to come together. */
    @Test
    void blocksWithGapsComeToTheSameSums() {
        Random random = new Random(3);
        int rows = RowBlocks.BLOCK;
        int[] towns = IntStream.range(0, rows).map(i -> random.nextInt(3)).toArray();
        long[] values = random.longs(rows, -50, 50).toArray();
        Table table = new Table(Map.of(
                "town", new CodedColumn(ColumnType.TEXT, Codes.of(towns, rows, 3), List.of("Soria", "Lugo", "Faro")),
                "n", new WholeColumn(values)));
        Query query = Query.of(List.of(), List.of("town"), List.of(new Measure(Summary.SUM, "n"), Measure.ROWS));
        Partial partial = new Partial(new Plan(table, List.of(query), key -> KeyCoder.of(table, key), true));
        double[] sums = new double[4];
        double[] counts = new double[4];
        for (int[] selection : List.of(
                IntStream.range(0, rows).toArray(),
                IntStream.range(0, rows).filter(i -> i % 3 > 0).toArray(),
                IntStream.range(7, 900).toArray(),
                new int[] {5, 7},
                new int[] {8},
                new int[0])) {
            int[] block = Arrays.copyOf(selection, rows);
            partial.add(block, selection.length);
            for (int row : selection) {
                sums[towns[row]] += values[row];
                counts[towns[row]]++;
            }
        }
        partial.unpack();
        partial.unpack();
        int[] groups = partial.present();
        assertThat(groups).containsExactly(0, 1, 2);
        assertThat(partial.values(new Measure(Summary.SUM, "n"), groups)).isEqualTo(Arrays.copyOf(sums, 3));
        assertThat(partial.values(Measure.ROWS, groups)).isEqualTo(Arrays.copyOf(counts, 3));
    }

    @Test
    void whatDoesNotFitIsNotPacked() {
        Codes codes = Codes.of(new int[2], 2, 1);
        assertThat(PackedSums.of(codes, new WholeColumn(new long[] {1, 1 << 25}), 1, 2))
                .isNull();
        assertThat(PackedSums.of(codes, new WholeColumn(new long[] {-(1 << 25), 1}), 1, 2))
                .isNull();
        assertThat(PackedSums.of(codes, new DecimalColumn(new double[] {0.25, 1}), 100, 2))
                .as("not held in steps")
                .isNull();
        assertThat(PackedSums.of(codes, new DecimalColumn(new double[] {0.25, 1}).narrow(), 0, 2))
                .as("not added up in steps")
                .isNull();
        assertThat(PackedSums.of(codes, new DecimalColumn(new double[] {0.25, 1}).narrow(), 100, 2))
                .isNotNull();
    }

    /** With fast whole numbers and without, all rows and some: the same answers, to the last bit. */
    @Property(tries = 40)
    void anAnswerIsTheSamePackedAndNot(@ForAll long seed) {
        Random random = new Random(seed);
        int rows = 1 + random.nextInt(9000);
        int towns = DICTIONARIES[random.nextInt(3)];
        int[] codes = IntStream.range(0, rows)
                .map(i -> random.nextInt(towns + 1) - random.nextInt(2))
                .map(c -> Math.min(c, towns - 1))
                .toArray();
        List<String> names = IntStream.range(0, towns).mapToObj(i -> "t" + i).toList();
        Table table = new Table(Map.of(
                "town", new CodedColumn(ColumnType.TEXT, Codes.of(codes, rows, towns), names),
                "cents",
                        new DecimalColumn(IntStream.range(0, rows)
                                        .mapToDouble(i -> (random.nextInt(20_000) - 9000) / 100.0)
                                        .toArray())
                                .narrow(),
                "people", new WholeColumn(random.longs(rows, 0, 50).toArray()),
                "day",
                        new WholeColumn(
                                IntStream.range(0, rows).mapToLong(i -> i / 7).toArray())));
        Query query = new Query(
                random.nextBoolean()
                        ? List.of()
                        : List.of(new Stage(
                                "some", List.of(new Condition.Between("day", "100", "" + random.nextInt(1200))))),
                List.of("town"),
                random.nextBoolean() ? Query.Missing.KEPT : Query.Missing.LEFT_OUT,
                List.of(
                        new Measure(Summary.SUM, "cents"),
                        Measure.ROWS,
                        new Measure(Summary.AVERAGE, "people"),
                        new Measure(Summary.COUNT, "people")),
                Optional.empty(),
                new Sort(0, true),
                Integer.MAX_VALUE);
        Frame packed = new InMemoryEngine().answer(table, query);
        Frame plain = new InMemoryEngine(Segments.PLAIN).answer(table, query);
        assertThat(packed.keys().get(0)).containsExactly(plain.keys().get(0));
        for (int m = 0; m < 4; m++)
            assertThat(packed.values().get(m)).containsExactly(plain.values().get(m));
        assertThat(packed.trail()).isEqualTo(plain.trail());
    }
}
