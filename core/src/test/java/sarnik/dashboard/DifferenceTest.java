package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.brief.Choices;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.table.TestTables;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.difference.DifferenceDrawing;
import sarnik.visual.difference.DifferenceDrawing.Line;
import sarnik.visual.figure.FigureDrawing;

@DisplayName("What makes the difference")
class DifferenceTest {

    /**
     * Town A sells warm water more often and at more litres each; channels are alike everywhere. Region goes with the
     * town.
     */
    private static final LoadedDataset SALES = sales();

    private static LoadedDataset sales() {
        StringBuilder rows = new StringBuilder("town,region,product,channel,litres,broken,taps\n");
        for (int i = 0; i < 400; i++) {
            boolean inA = i % 4 == 0;
            boolean warm = inA ? i % 8 == 0 : i % 5 == 0;
            rows.append("%s,%s,%s,%s,%d,%d,%d\n"
                    .formatted(
                            inA ? "A" : "B" + i % 4,
                            inA ? "north" : "south",
                            warm ? "warm" : "still",
                            i % 3 == 0 ? "kiosk" : "shop",
                            warm ? inA ? 40 : 30 : 10,
                            inA && warm ? 3 : 1,
                            100));
        }
        Calculations.Applied applied = new Calculations(
                        List.of(
                                new Calculations.Item("rate", "SUM(broken) * 1000.0 / SUM(taps)", true),
                                new Calculations.Item(
                                        "mid", "PERCENTILE_CONT(0.5) WITHIN GROUP (ORDER BY litres)", true)),
                        List.of())
                .apply(
                        TestTables.csv(rows.toString()),
                        Scope.of(TestTables.csv(rows.toString())),
                        Surroundings.on(LocalDate.of(2026, 5, 31)));
        assertThat(applied.troubles()).isEmpty();
        return new LoadedDataset(
                1,
                "Sales",
                applied.table(),
                null,
                Map.of(),
                About.NONE,
                applied.measures(),
                List.of(),
                List.of(),
                Boundaries.NONE);
    }

    private static final Datasets DATASETS = id -> Datasets.Found.of(Optional.of(SALES));

    private static Dashboard dashboard(String measure, String columns) {
        return DashboardDocument.parse(
                        ("{'schema': 2, 'title': 'x', 'pages': {'p1': {'title': '', 'order': 1}}, 'filters': {}, "
                                        + "'links': {'k1': {'from': 'v1'}, 'k2': {'from': 'v2'}}, 'visuals': {"
                                        + "'v1': {'type': 'bars', 'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 8, 'h': "
                                        + "6}, 'title': '', 'dataset': 1, 'category': 'town', 'measure': "
                                        + "{'summary': 'COUNT'}},"
                                        + "'v2': {'type': 'difference', 'page': 'p1', 'at': {'x': 8, 'y': 0, 'w': "
                                        + "8, 'h': 6}, 'title': '', 'dataset': 1, 'measure': %s, 'columns': "
                                        + "%s},"
                                        + "'v3': {'type': 'figure', 'page': 'p1', 'at': {'x': 16, 'y': 0, 'w': 8, "
                                        + "'h': 6}, 'title': '', 'dataset': 1, 'measure': {'summary': "
                                        + "'SUM', 'column': 'litres'}}}}")
                                .formatted(measure, columns)
                                .replace('\'', '"'))
                .dashboard();
    }

    private static Drawing draw(String visual, String state, String measure, String columns) {
        Dashboard dashboard = dashboard(measure, columns);
        return Drawers.of(
                        dashboard,
                        StateReader.read(state, dashboard, DATASETS, Kinds.ALL).state(),
                        DATASETS)
                .draw(visual);
    }

    private static DifferenceDrawing drawn(String state, String measure) {
        Drawing drawing = draw("v2", state, measure, "['product', 'channel', 'region', 'town']");
        if (drawing instanceof MisfitDrawing misfit) throw new AssertionError(misfit.why());
        return (DifferenceDrawing) drawing;
    }

    private static final String AVERAGE = "{'summary': 'AVERAGE', 'column': 'litres'}";
    private static final String RATE = "{'summary': 'FORMULA', 'column': 'rate'}";

    private static double mean(boolean inA) {
        double sum = 0;
        int count = 0;
        for (int i = 0; i < 400; i++) {
            if ((i % 4 == 0) != inA) continue;
            boolean warm = inA ? i % 8 == 0 : i % 5 == 0;
            sum += warm ? inA ? 40 : 30 : 10;
            count++;
        }
        return sum / count;
    }

    @Test
    void partsOfAColumnAddUpToTheWholeDifference() {
        DifferenceDrawing drawn = drawn("p.v1=A", AVERAGE);
        assertThat(drawn.head())
                .isEqualTo("average of litres: 25 of what is picked, 14 of the rest, a difference of +11.");
        assertThat(mean(true)).isEqualTo(25);
        assertThat(mean(false)).isEqualTo(14);
        assertThat(drawn.lines().subList(0, 2)).extracting(Line::text).containsExactlyInAnyOrder("warm", "still");
        Line first = line(drawn, "warm");
        assertThat(first.key()).isEqualTo("product: warm");
        assertThat(first.part()).isCloseTo(1, within(1e-9));
        // Kitagawa by hand: shares 0.5 and 0.2, values 40 and 30, the mean of both wholes 19.5.
        double warm = (0.5 - 0.2) * (35 - 19.5) + (40 - 30) * 0.35;
        double still = (0.5 - 0.8) * (10 - 19.5);
        assertThat(warm + still).isCloseTo(11, within(1e-9));
        // Of its size alone, 0.35 of all, it would bring 3.85.
        assertThat(first.own()).isEqualTo("+4.30");
        assertThat(first.figures()).containsExactly("+8.15", "40", "30", "50 %", "20 %");
        assertThat(drawn.lines())
                .extracting(Line::own)
                .as("in line on their points")
                .allMatch(own -> own.matches("[+−]\\d\\.\\d\\d"));
        Line second = line(drawn, "still");
        assertThat(second.part()).isCloseTo(-1, within(1e-9));
        assertThat(second.figures().get(0)).isEqualTo("+2.85");
        assertThat(drawn.lines())
                .filteredOn(l -> l.column().equals("channel"))
                .allSatisfy(l -> assertThat(Math.abs(l.part()))
                        .as("alike everywhere, however much of it there is")
                        .isLessThan(0.3));
        assertThat(drawn.notes())
                .anyMatch(n -> n.equals("Left out, for it tells nothing but what is picked: region and town."));
    }

    private static Line line(DifferenceDrawing drawn, String text) {
        return drawn.lines().stream()
                .filter(l -> l.text().equals(text))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void sharesAreComparedOfSums() {
        DifferenceDrawing drawn = drawn("p.v1=A", "{'summary': 'COUNT'}");
        Line warm = line(drawn, "warm");
        assertThat(warm.own()).isEqualTo("+30.0 points");
        assertThat(warm.figures().subList(0, 2)).containsExactly("50 %", "20 %");
        assertThat(warm.chance()).isFalse();
        assertThat(drawn.lines().stream().filter(l -> l.column().equals("channel")))
                .as("a third everywhere")
                .isNotEmpty()
                .allMatch(Line::chance);
        assertThat(drawn.notes()).anyMatch(n -> n.contains("false finds held to 5 of 100"));
    }

    @Test
    void ratesAreTakenApartByWhatTheyWereCountedOf() {
        DifferenceDrawing drawn = drawn("p.v1=A", RATE);
        assertThat(drawn.head()).startsWith("rate: 20 of what is picked, 10 of the rest, a difference of +10");
        Line warm = line(drawn, "warm");
        assertThat(warm.chance()).isFalse();
        assertThat(warm.figures().get(1)).isEqualTo("30");
        assertThat(drawn.numbers()).extracting(DifferenceDrawing.Number::text).anyMatch(t -> t.contains("litres"));
    }

    @Test
    void asksForAPickAndSaysWhatDoesNotAddUp() {
        DifferenceDrawing drawn = drawn("", AVERAGE);
        assertThat(drawn.lines()).isEmpty();
        assertThat(drawn.head()).isEmpty();
        assertThat(drawn.notes())
                .containsExactly(
                        "Pick a place, a bar or a stretch of time: what parts it from the rest is shown here.");
        assertThat(draw("v2", "p.v1=A", "{'summary': 'FORMULA', 'column': 'mid'}", "['product']"))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class, m -> assertThat(m.why()).contains("does not add up over groups"));
        assertThat(((DifferenceDrawing) draw("v2", "p.v1=A", AVERAGE, "['gone']")).notes())
                .anyMatch(n -> n.startsWith("None of its columns is there"));
    }

    @Test
    void itsLinesArePickedWhateverTheirColumn() {
        FigureDrawing all = (FigureDrawing) draw("v3", "", AVERAGE, "['product', 'channel']");
        FigureDrawing warm = (FigureDrawing) draw("v3", "p.v2=product%3A%20warm", AVERAGE, "['product', 'channel']");
        FigureDrawing kiosk = (FigureDrawing) draw("v3", "p.v2=channel%3A%20kiosk", AVERAGE, "['product', 'channel']");
        assertThat(all.full()).isEqualTo("6,700");
        assertThat(warm.full()).isEqualTo("3,800");
        assertThat(kiosk.full()).isNotEqualTo(all.full()).isNotEqualTo(warm.full());
        assertThat(draw("v2", "p.v2=product%3A%20warm&p.v1=A", AVERAGE, "['product', 'channel']"))
                .as("it is not narrowed by its own pick")
                .isInstanceOfSatisfying(
                        DifferenceDrawing.class,
                        d -> assertThat(d.lines()).extracting(Line::text).contains("warm"));
    }

    @Test
    void briefOffersOnlyWhatAddsUp() {
        var brief = new BriefWriter(dashboard(AVERAGE, "['product']"), DATASETS, new Choices(new InMemoryEngine()))
                .write("v2");
        assertThat(MapFixture.options(brief, "/visuals/v2/measure"))
                .contains("sum of litres", "average of litres", "rate")
                .doesNotContain("mid", "median of litres");
    }
}
