package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("Columns and tables")
class ColumnTest {

    @Test
    void missingValuesHaveNoText() {
        List<Column> columns = List.of(
                new WholeColumn(new long[] {WholeColumn.MISSING}),
                new DecimalColumn(new double[] {Double.NaN}),
                new DateColumn(new int[] {DateColumn.MISSING}),
                new TimeColumn(new long[] {TimeColumn.MISSING}),
                new CodedColumn(ColumnType.TEXT, Codes.of(new int[] {-1}, 1, 0), List.of()));
        assertThat(columns).allSatisfy(c -> {
            assertThat(c.isMissing(0)).isTrue();
            assertThat(c.text(0)).isNull();
            assertThat(c.size()).isEqualTo(1);
        });
    }

    @Test
    void valuesHaveACanonicalText() {
        assertThat(new DateColumn(new int[] {0}).text(0)).isEqualTo("1970-01-01");
        assertThat(new TimeColumn(new long[] {86_400 + 3_600}).text(0)).isEqualTo("1970-01-02T01:00");
        assertThat(new CodedColumn(ColumnType.YES_NO, Codes.of(new int[] {1, 0}, 2, 2), CodedColumn.NO_YES).text(0))
                .isEqualTo("yes");
    }

    @Test
    void codesTakeTheNarrowestArray() {
        int[] codes = IntStream.range(0, 100).toArray();
        assertThat(Codes.of(codes, 100, 127)).isInstanceOf(Codes.Bytes.class);
        assertThat(Codes.of(codes, 100, 128)).isInstanceOf(Codes.Shorts.class);
        assertThat(Codes.of(codes, 100, 32_768)).isInstanceOf(Codes.Ints.class);
        for (int size : new int[] {127, 128, 32_768})
            assertThat(Codes.of(codes, 100, size).get(99)).isEqualTo(99);
    }

    @Test
    void columnsOfATableAreOfOneLength() {
        assertThatThrownBy(
                        () -> new Table(Map.of("a", new WholeColumn(new long[2]), "b", new WholeColumn(new long[3]))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("rows");
    }

    @Test
    void aColumnThatIsAddedReplacesOneOfItsName() {
        Table table = new Table(Map.of("a", new WholeColumn(new long[] {1})));
        Table more = table.with(Map.of("a", new WholeColumn(new long[] {2})));
        assertThat(more.column("a").text(0)).isEqualTo("2");
        assertThat(table.column("a").text(0)).as("the first table stays").isEqualTo("1");
        assertThatThrownBy(() -> table.column("b")).hasMessageContaining("“b”");
    }

    @Test
    void aCodedColumnHoldsTextOrYesNoOnly() {
        assertThatThrownBy(() -> new CodedColumn(ColumnType.DATE, Codes.of(new int[0], 0, 0), List.of()))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void extremesAreTheFirstRowsOfTheSmallestAndTheLargestValue() {
        assertThat(Extremes.of(new WholeColumn(new long[] {WholeColumn.MISSING, 5, -2, 9, 9, -2})))
                .contains(new Extremes(2, 3));
        assertThat(Extremes.of(new DecimalColumn(new double[] {Double.NaN, 0.5})))
                .contains(new Extremes(1, 1));
        assertThat(Extremes.of(new DateColumn(new int[] {3, 1, 2}))).contains(new Extremes(1, 0));
        assertThat(Extremes.of(new TimeColumn(new long[] {TimeColumn.MISSING}))).isEmpty();
        assertThatThrownBy(() -> Extremes.of(
                        new CodedColumn(ColumnType.TEXT, Codes.of(new int[] {0, 1}, 2, 2), List.of("a", "b"))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("no order");
    }
}
