package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Label;
import net.jqwik.api.Property;
import org.assertj.core.groups.Tuple;

@Label("Rows that are worked on column by column while the next ones are read")
class RowBlocksTest {

    /** Rows as a file would give them. */
    private record Rows(List<String> header, List<List<String>> rows) implements RowSource {
        @Override
        public void each(Visitor visitor) {
            long line = 1;
            for (List<String> row : rows) visitor.row(++line, RowSource.cells(row));
        }

        @Override
        public String words() {
            return "rows";
        }
    }

    @Property(tries = 30)
    @Label("reach each column in their order, whatever number there is of them")
    void inOrder(@ForAll long seed) {
        Random random = new Random(seed);
        int columns = 1 + random.nextInt(40);
        int rows = random.nextInt(4) == 0 ? 0 : random.nextInt(60_000);
        List<List<String>> seen = new ArrayList<>();
        for (int i = 0; i < columns; i++) seen.add(new ArrayList<>());
        List<Long> lines = new ArrayList<>();
        AtomicInteger[] busy =
                Stream.generate(AtomicInteger::new).limit(columns).toArray(AtomicInteger[]::new);
        AtomicInteger twice = new AtomicInteger();
        RowBlocks blocks = new RowBlocks(
                columns,
                (column, block) -> {
                    if (busy[column].getAndIncrement() > 0) twice.incrementAndGet();
                    for (int row = 0; row < block.rows(); row++)
                        seen.get(column).add(block.cells(row)[column]);
                    busy[column].decrementAndGet();
                },
                block -> {
                    for (int row = 0; row < block.rows(); row++) lines.add(block.line(row));
                });
        for (int row = 0; row < rows; row++) {
            String cell = "c" + row;
            blocks.add(
                    row * 2L,
                    RowSource.cells(IntStream.range(0, columns)
                            .mapToObj(c -> cell + " " + c)
                            .toList()));
        }
        blocks.flush();
        assertThat(twice.get()).as("a column was worked on by two").isZero();
        assertThat(lines).hasSize(rows);
        for (int row = 0; row < rows; row++) assertThat(lines.get(row)).isEqualTo(row * 2L);
        for (int column : new int[] {0, columns / 2, columns - 1})
            for (int row = 0; row < rows; row++)
                assertThat(seen.get(column).get(row)).isEqualTo("c" + row + " " + column);
    }

    @Example
    @Label("wait for the first block before any other is worked on")
    void firstAlone() {
        AtomicBoolean ended = new AtomicBoolean();
        List<Long> early = Collections.synchronizedList(new ArrayList<>());
        RowBlocks blocks = new RowBlocks(
                5,
                (column, block) -> {
                    if (block.line(0) > 0 && !ended.get()) early.add(block.line(0));
                },
                block -> ended.set(true));
        for (int row = 0; row < 60_000; row++) blocks.add(row, RowSource.cells(List.of("a", "b", "c", "d", "e")));
        blocks.flush();
        assertThat(ended).isTrue();
        assertThat(early).isEmpty();
    }

    @Example
    @Label("stop where the work on a column breaks, with what broke it")
    void breaks() {
        RowBlocks blocks = new RowBlocks(
                3,
                (column, block) -> {
                    if (column == 1 && block.line(0) > 30_000) throw new UnreadableTableException("a column broke");
                },
                block -> {});
        assertThatThrownBy(() -> {
                    for (int row = 0; row < 100_000; row++) blocks.add(row, RowSource.cells(List.of("a", "b", "c")));
                    blocks.flush();
                })
                .isInstanceOf(UnreadableTableException.class)
                .hasMessage("a column broke");
    }

    @Property(tries = 12)
    @Label("tell of what is amiss in the order of the file, as a loop over its rows would")
    void troubles(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        int count = 1000 + random.nextInt(80_000);
        int odd = 200 + random.nextInt(2000);
        List<List<String>> rows = new ArrayList<>();
        List<Tuple> amiss = new ArrayList<>();
        List<String> numbers = new ArrayList<>();
        for (int row = 0; row < count; row++) {
            long line = row + 2;
            String number = Integer.toString(row % 977);
            String word = "w" + row % 13;
            switch (random.nextInt(odd)) {
                case 0 -> {
                    rows.add(List.of("Total", "", number, word));
                    amiss.add(tuple(line, null, "The row is a total of others and is left out."));
                    continue;
                }
                case 1 -> {
                    number = "many";
                    amiss.add(tuple(line, "n", "This is not a whole number; the cell is taken as missing."));
                }
                case 2 -> {
                    rows.add(List.of("t", "x", number));
                    amiss.add(tuple(line, null, "The row has 3 of 4 cells; the rest are taken as missing."));
                    numbers.add(number);
                    continue;
                }
                case 3 -> {
                    word = "w\0" + row % 13;
                    amiss.add(tuple(line, "word", "The cell held a null byte, which is taken out."));
                }
                case 4 -> {
                    rows.add(List.of("t", "x", number, word, "more"));
                    amiss.add(tuple(
                            line, null, "The row has 5 cells where the header has 4; these last ones are left out."));
                    numbers.add(number);
                    continue;
                }
                default -> {
                    // As it should be.
                }
            }
            rows.add(List.of("t" + row % 5, "x", number, word));
            numbers.add(number.equals("many") ? null : number);
        }
        Reading reading = new TableReader().read(new Rows(List.of("town", "x", "n", "word"), rows), Shaping.NONE);
        assertThat(reading.troubles().total()).isEqualTo(amiss.size());
        assertThat(reading.troubles().first())
                .extracting(Troubles.Trouble::line, Troubles.Trouble::column, Troubles.Trouble::why)
                .containsExactlyElementsOf(amiss);
        Column column = reading.table().column("n");
        assertThat(column.type()).isEqualTo(ColumnType.WHOLE);
        assertThat(column.size()).isEqualTo(numbers.size());
        for (int row = 0; row < numbers.size(); row++)
            assertThat(column.text(row)).isEqualTo(numbers.get(row));
    }
}
