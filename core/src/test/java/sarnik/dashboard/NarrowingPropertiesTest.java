package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.StateReader;
import sarnik.query.RowTrail;
import sarnik.state.ReaderState;
import sarnik.visual.Drawing;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;

/** What holds of narrowing whatever is picked, on tables and picks made by chance. */
class NarrowingPropertiesTest {

    private static final List<String> TOWNS = List.of("a", "b", "c", "d", "e");
    private static final List<String> KINDS = List.of("x", "y", "z");

    private static LoadedDataset dataset(int seed) {
        Random random = new Random(seed);
        return new LoadedDataset(
                1,
                "Rows",
                csv(Stream.concat(
                                Stream.of("town,kind,size,day,n"),
                                IntStream.range(0, 60)
                                        .mapToObj(i -> "%s,%s,%s,2026-01-%02d,%d"
                                                .formatted(
                                                        TOWNS.get(random.nextInt(5)),
                                                        KINDS.get(random.nextInt(3)),
                                                        "s" + random.nextInt(2),
                                                        1 + random.nextInt(28),
                                                        random.nextInt(100))))
                        .toArray(String[]::new)),
                null,
                Map.of());
    }

    private static final Dashboard DASHBOARD = DashboardDocument.parse(("{'schema': 2, 'title': 'x', "
                            + "'pages': {'p1': {'title': '', 'order': 1}}, "
                            + "'filters': {'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, "
                            + "'column': 'size'}, "
                            + "'f2': {'type': 'dates', 'page': 'p1', 'order': 2, 'dataset': 1, 'column': 'day'}}, "
                            + "'links': {'k1': {'from': 'v1'}, 'k2': {'from': 'v2'}}, 'visuals': {"
                            + bars("v1", "town") + "," + bars("v2", "kind")
                            + ",'v3': {'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 8, 'h': 6}, 'type': 'figure', "
                            + "'dataset': 1, "
                            + "'measure': {'summary': 'COUNT'}}}}")
                    .replace('\'', '"'))
            .dashboard();

    private static String bars(String id, String category) {
        return "'%s': {'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 8, 'h': 6}, 'type': 'bars', 'dataset': 1, 'category': '%s', 'measure': {'summary': 'SUM', 'column': 'n'}}"
                .formatted(id, category);
    }

    private static Drawing draw(int seed, String state, String id) {
        LoadedDataset rows = dataset(seed);
        Datasets datasets = d -> Datasets.Found.of(Optional.of(rows));
        ReaderState read =
                StateReader.read(state, DASHBOARD, datasets, Kinds.ALL).state();
        return Drawers.of(DASHBOARD, read, datasets).draw(id);
    }

    private static String picks(Random random, String part, List<String> values) {
        List<String> some = new ArrayList<>(values);
        Collections.shuffle(some, random);
        return part + "=" + String.join(",", some.subList(0, 1 + random.nextInt(some.size())));
    }

    @Property(tries = 100)
    void theOrderInWhichPicksStandDoesNotMatter(@ForAll @IntRange(max = 10_000) int seed) {
        Random random = new Random(seed);
        String towns = picks(random, "p.v1", TOWNS);
        String kinds = picks(random, "p.v2", KINDS);
        FigureDrawing one = (FigureDrawing) draw(seed, towns + "&" + kinds, "v3");
        FigureDrawing other = (FigureDrawing) draw(seed, kinds + "&" + towns, "v3");
        assertThat(one).isEqualTo(other);
    }

    @Property(tries = 100)
    void aPickNeverChangesThePickersOwnFigures(@ForAll @IntRange(max = 10_000) int seed) {
        Random random = new Random(seed);
        BarsDrawing before = (BarsDrawing) draw(seed, "", "v1");
        BarsDrawing after = (BarsDrawing) draw(seed, picks(random, "p.v1", TOWNS), "v1");
        assertThat(after.bars()).isEqualTo(before.bars());
    }

    @Property(tries = 100)
    void theTrailsLastCountIsTheFiguresCount(@ForAll @IntRange(max = 10_000) int seed) {
        Random random = new Random(seed);
        String state = picks(random, "p.v1", TOWNS) + "&" + picks(random, "f.f1", List.of("s0", "s1"))
                + "&f.f2=2026-01-%02d..".formatted(1 + random.nextInt(28));
        FigureDrawing drawn = (FigureDrawing) draw(seed, state, "v3");
        List<RowTrail.Step> steps = drawn.trail().steps();
        assertThat(String.valueOf(steps.get(steps.size() - 1).left())).isEqualTo(drawn.full());
        // Each step takes rows away or none, and never brings one back.
        for (int i = 1; i < steps.size(); i++)
            assertThat(steps.get(i).left()).isLessThanOrEqualTo(steps.get(i - 1).left());
    }

    @Property(tries = 100)
    void aWiderFilterNeverShowsFewerRows(
            @ForAll @IntRange(max = 10_000) int seed,
            @ForAll @IntRange(min = 1, max = 28) int from,
            @ForAll @IntRange(min = 1, max = 28) int to) {
        int low = Math.min(from, to);
        int high = Math.max(from, to);
        FigureDrawing narrow = (FigureDrawing) draw(seed, "f.f2=2026-01-%02d..2026-01-%02d".formatted(low, high), "v3");
        FigureDrawing wide = (FigureDrawing) draw(
                seed, "f.f2=2026-01-%02d..2026-01-%02d".formatted(Math.max(1, low - 1), Math.min(28, high + 1)), "v3");
        assertThat(Integer.parseInt(wide.full())).isGreaterThanOrEqualTo(Integer.parseInt(narrow.full()));
    }
}
