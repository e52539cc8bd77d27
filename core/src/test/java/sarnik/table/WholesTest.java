package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.stream.IntStream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Label;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;

@Label("Numbers in the narrowest array")
class WholesTest {

    /** Values about the ends of all widths, and missing ones. */
    @Provide
    Arbitrary<long[]> numbers() {
        Arbitrary<Long> edges = Arbitraries.of(
                Wholes.MISSING,
                0L,
                -1L,
                127L,
                -127L,
                -128L,
                128L,
                32_767L,
                -32_767L,
                -32_768L,
                32_768L,
                (long) Integer.MAX_VALUE,
                Integer.MIN_VALUE + 1L,
                (long) Integer.MIN_VALUE,
                Integer.MAX_VALUE + 1L,
                Long.MAX_VALUE,
                Long.MIN_VALUE + 1);
        Arbitrary<Long> narrow = Arbitraries.longs().between(-100, 100);
        return Arbitraries.of(narrow, edges, Arbitraries.oneOf(narrow, edges), Arbitraries.longs())
                .flatMap(of -> of.array(long[].class).ofMaxSize(60));
    }

    @Property
    @Label("give back what was put in, however they are held")
    void giveBack(@ForAll("numbers") long[] numbers) {
        Wholes held = Wholes.of(numbers.clone());
        assertThat(held.size()).isEqualTo(numbers.length);
        assertThat(held.all()).containsExactly(numbers);
        double[] read = new double[numbers.length];
        held.read(IntStream.range(0, numbers.length).toArray(), numbers.length, read);
        for (int row = 0; row < numbers.length; row++) {
            assertThat(held.get(row)).isEqualTo(numbers[row]);
            if (numbers[row] == Wholes.MISSING) assertThat(read[row]).isNaN();
            else assertThat(read[row]).isEqualTo((double) numbers[row]);
        }
    }

    @Property
    @Label("are kept within bounds as a loop over them keeps them")
    void within(@ForAll("numbers") long[] numbers, @ForAll("numbers") long[] bounds) {
        long low = bounds.length > 0 ? bounds[0] : Long.MIN_VALUE;
        long high = bounds.length > 1 ? bounds[1] : Long.MAX_VALUE;
        int[] expected = IntStream.range(0, numbers.length)
                .filter(row -> numbers[row] != Wholes.MISSING && numbers[row] >= low && numbers[row] <= high)
                .toArray();
        Wholes held = Wholes.of(numbers.clone());
        int[] selection = new int[numbers.length + 1];
        int kept = held.keepRange(0, numbers.length, selection, low, high);
        assertThat(Arrays.copyOf(selection, kept)).containsExactly(expected);
        int[] every = IntStream.range(0, numbers.length).toArray();
        assertThat(Arrays.copyOf(every, held.keep(every, every.length, low, high)))
                .containsExactly(expected);
    }

    @Example
    @Label("take one, two, four or eight bytes each")
    void widths() {
        assertThat(Wholes.of(new long[] {127, -127, Wholes.MISSING}).bytes()).isEqualTo(3);
        assertThat(Wholes.of(new long[] {128, 0}).bytes()).isEqualTo(4);
        assertThat(Wholes.of(new long[] {-128, 0}).bytes()).isEqualTo(4);
        assertThat(Wholes.of(new long[] {40_000}).bytes()).isEqualTo(4);
        assertThat(Wholes.of(new long[] {Integer.MIN_VALUE}).bytes()).isEqualTo(8);
        assertThat(Wholes.of(new int[] {20_000, Integer.MIN_VALUE}).bytes()).isEqualTo(4);
        assertThat(Wholes.of(new int[] {40_000, Integer.MIN_VALUE}).bytes()).isEqualTo(8);
    }

    @Example
    @Label("dates, times, whole numbers and cents take less than before, and say the same")
    void columns() {
        DateColumn dates = new DateColumn(new int[] {20_454, DateColumn.MISSING, -1, 32_768});
        assertThat(new DateColumn(new int[] {20_454, DateColumn.MISSING}).bytes())
                .isEqualTo(4);
        assertThat(dates.text(0)).isEqualTo("2026-01-01");
        assertThat(dates.isMissing(1)).isTrue();
        assertThat(dates.day(1)).isEqualTo(DateColumn.MISSING);
        assertThat(dates.text(2)).isEqualTo("1969-12-31");
        assertThat(dates.text(3)).isEqualTo("2059-09-19");
        TimeColumn times = new TimeColumn(new long[] {1_767_225_600, TimeColumn.MISSING});
        assertThat(times.bytes()).isEqualTo(8);
        assertThat(times.text(0)).isEqualTo("2026-01-01T00:00");
        assertThat(times.isMissing(1)).isTrue();
        WholeColumn wholes = new WholeColumn(new long[] {5, WholeColumn.MISSING});
        assertThat(wholes.bytes()).isEqualTo(2);
        assertThat(wholes.text(1)).isNull();
        DecimalColumn cents = new DecimalColumn(new double[] {12.34, Double.NaN, -0.05, 300.1}).narrow();
        assertThat(cents.bytes()).isEqualTo(8);
        assertThat(cents.unit()).isEqualTo(100);
        assertThat(cents.all()).containsExactly(12.34, Double.NaN, -0.05, 300.1);
        assertThat(cents.text(2)).isEqualTo("-0.05");
        assertThat(cents.isMissing(1)).isTrue();
    }

    @Property
    @Label("decimals come back bit for bit, whether they are held as steps or as they are")
    void decimals(@ForAll double[] any, @ForAll int[] cents) {
        double[] values = new double[any.length + cents.length];
        for (int i = 0; i < any.length; i++) values[i] = Double.isFinite(any[i]) ? any[i] : Double.NaN;
        for (int i = 0; i < cents.length; i++) values[any.length + i] = cents[i] / 100.0;
        same(values);
        same(Arrays.copyOfRange(values, any.length, values.length));
    }

    private static void same(double[] values) {
        DecimalColumn narrow = new DecimalColumn(values.clone()).narrow();
        double[] read = new double[values.length];
        narrow.read(IntStream.range(0, values.length).toArray(), values.length, read);
        for (int row = 0; row < values.length; row++) {
            assertThat(Double.doubleToLongBits(narrow.get(row))).isEqualTo(Double.doubleToLongBits(values[row]));
            assertThat(Double.doubleToLongBits(read[row])).isEqualTo(Double.doubleToLongBits(values[row]));
        }
    }

    @Example
    @Label("a nought below zero and what has too many digits stay as they are")
    void notSteps() {
        assertThat(new DecimalColumn(new double[] {-0.0, 1.5}).narrow().steps()).isNull();
        assertThat(new DecimalColumn(new double[] {1 / 3.0}).narrow().steps()).isNull();
        assertThat(new DecimalColumn(new double[] {3e9}).narrow().steps()).isNull();
        assertThat(new DecimalColumn(new double[] {2e9}).narrow().bytes()).isEqualTo(4);
    }
}
