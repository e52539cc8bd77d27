package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.geo.Area;
import sarnik.narrow.StateReader;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.InMemoryEngine;
import sarnik.scale.NumberWords;
import sarnik.statistics.AgeStandardised;
import sarnik.statistics.Interval;
import sarnik.statistics.Rates;
import sarnik.statistics.StandardPopulation;
import sarnik.table.TestTables;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;
import sarnik.visual.table.TableDrawing;

@DisplayName("How far rates on a map can be trusted")
class TrustTest {

    private static final List<Area> PROVINCES = MapFixture.SET.set().areas();

    /**
     * Old people have four times the cases; the second half of the provinces is older, and those far in the north have
     * more.
     */
    private static final LoadedDataset CASES = cases(9, -1);

    /** The same, but it is not known how many cases the old people of one province had. */
    private static final int UNKNOWN = 7;

    private static final LoadedDataset LOST = cases(10, UNKNOWN);

    private static LoadedDataset cases(long id, int unknown) {
        StringBuilder rows = new StringBuilder("province,age,cases,people\n");
        for (int p = 0; p < PROVINCES.size(); p++) {
            int people = p == 3 ? 900 : 20_000 + 1000 * p;
            int old = p < 26 ? people / 5 : people / 2;
            double rate = PROVINCES.get(p).inside()[1] > 42 ? 0.006 : 0.002;
            rows.append("%s,0-64,%d,%d\n"
                    .formatted(PROVINCES.get(p).code(), Math.round((people - old) * rate), people - old));
            rows.append("%s,65+,%s,%d\n"
                    .formatted(PROVINCES.get(p).code(), p == unknown ? "" : Math.round(old * rate * 4), old));
        }
        Placing.ByArea by = new Placing.ByArea("province", MapFixture.PROVINCES);
        PlacedTable placed =
                MapFixture.PLACER.byArea(TestTables.csv(rows.toString()), "province", MapFixture.SET.set());
        Calculations.Applied applied = new Calculations(
                        List.of(
                                new Calculations.Item("rate", "SUM(cases) * 10000.0 / SUM(people)", true),
                                new Calculations.Item("turned", "100000 * (1.0 / SUM(people)) * SUM(cases)", true),
                                new Calculations.Item(
                                        "old", "COUNT(*) FILTER (WHERE age = '65+') * 1.0 / COUNT(*)", true),
                                new Calculations.Item("litres a head", "SUM(cases) * 1.0 / SUM(people)", true),
                                new Calculations.Item("no rate", "SUM(cases) + SUM(people)", true)),
                        List.of())
                .apply(placed.table(), Scope.of(placed.table()), Surroundings.on(LocalDate.of(2026, 5, 31)));
        assertThat(applied.troubles()).isEmpty();
        return new LoadedDataset(
                id,
                "Cases",
                applied.table(),
                by,
                placed.places(),
                About.NONE,
                applied.measures(),
                List.of(),
                List.of(),
                MapFixture.BOUNDARIES);
    }

    private static final Datasets DATASETS = new Datasets() {
        @Override
        public Found find(long id) {
            return Found.of(id == 9 ? Optional.of(CASES) : id == 10 ? Optional.of(LOST) : Optional.empty());
        }

        @Override
        public Boundaries boundaries() {
            return MapFixture.BOUNDARIES;
        }
    };

    private static String layer(String measure, String more) {
        return ("'kind': 'AREAS', 'dataset': 9, 'colour': {'measure': {'summary': 'FORMULA', 'column': '%s'}, "
                        + "'classes': 4, "
                        + "'method': 'EQUAL_COUNTS', 'palette': 'rust'}%s")
                .formatted(measure, more)
                .replace('\'', '"');
    }

    private static LayerDrawn.OfAreas drawn(String measure, String more) {
        return areas(layer(measure, more));
    }

    private static LayerDrawn.OfAreas areas(String of) {
        LayerDrawn layer = map(of).layers().get(0);
        if (layer instanceof LayerDrawn.OfAreas areas) return areas;
        throw new AssertionError(layer.head().notes());
    }

    private static MapDrawing map(String layer) {
        Dashboard dashboard = MapFixture.map(layer);
        return (MapDrawing) Drawers.of(
                        dashboard,
                        StateReader.read("", dashboard, DATASETS, Kinds.ALL).state(),
                        DATASETS)
                .draw("v1");
    }

    /** The mark of a province; provinces are drawn in the order of their ids. */
    private static int mark(LayerDrawn.OfAreas areas, int province) {
        String id = "a" + MapFixture.PROVINCES + "/" + PROVINCES.get(province).code();
        List<String> ids = CASES.sheet(PlacedTable.PLACE).ids();
        return IntStream.range(0, areas.at().length)
                .filter(i -> ids.get(areas.at()[i]).equals(id))
                .findFirst()
                .orElseThrow();
    }

    private static double[] counted(int p) {
        int people = p == 3 ? 900 : 20_000 + 1000 * p;
        int old = p < 26 ? people / 5 : people / 2;
        double rate = PROVINCES.get(p).inside()[1] > 42 ? 0.006 : 0.002;
        return new double[] {Math.round((people - old) * rate), Math.round(old * rate * 4), people - old, old};
    }

    @Test
    void rateOfFewIsMarkedAndEachHasAnInterval() {
        LayerDrawn.OfAreas areas = drawn("rate", "");
        double[] few = counted(3);
        assertThat(few[0] + few[1]).isLessThan(20);
        assertThat(areas.trust().unsure()).containsExactly(mark(areas, 3));
        assertThat(areas.key().unsure()).isEqualTo(1);
        assertThat(areas.key().unsureWords()).isEqualTo("fewer than 20 counted");
        assertThat(areas.key().hints()).anyMatch(h -> h.startsWith("Taken for a rate of what is counted"));
        double[] of = counted(10);
        Interval interval = Rates.poisson(of[0] + of[1], of[2] + of[3], 0.95).times(10_000);
        int tenth = mark(areas, 10);
        assertThat(areas.trust().lows()[tenth]).isEqualTo(NumberWords.shown(interval.low()));
        assertThat(areas.trust().highs()[tenth]).isEqualTo(NumberWords.shown(interval.high()));
        assertThat(areas.values()[tenth]).isBetween(interval.low(), interval.high());
        // Written in another order it is the same rate.
        assertThat(drawn("turned", "").trust().lows()[tenth])
                .isCloseTo(areas.trust().lows()[tenth] * 10, within(0.02));
    }

    @Test
    void nothingIsSaidOfWhatMayBeNoRate() {
        assertThat(drawn("litres a head", "").trust())
                .as("nothing says that these are events")
                .isNull();
        assertThat(drawn("no rate", "").trust()).isNull();
        assertThat(drawn("rate", ", 'chance': {'of': 'NONE'}").trust()).isNull();
        LayerDrawn.OfAreas said = drawn("litres a head", ", 'chance': {'of': 'EVENTS'}");
        assertThat(said.trust().unsure()).hasSize(1);
        assertThat(said.key().hints()).noneMatch(h -> h.startsWith("Taken for"));
        assertThat(map(layer("no rate", ", 'chance': {'toward': true}"))
                        .layers()
                        .get(0)
                        .head()
                        .notes())
                .anyMatch(n -> n.contains("is no sum divided by another"));
    }

    @Test
    void shareOfRowsHasTheScoreInterval() {
        LayerDrawn.OfAreas areas = drawn("old", "");
        Interval interval = Rates.wilson(1, 2, 0.95);
        assertThat(areas.trust().lows()[0]).isEqualTo(NumberWords.shown(interval.low()));
        assertThat(areas.trust().unsure()).as("each has two rows").hasSize(areas.at().length);
        assertThat(areas.key().unsureWords()).isEqualTo("of too few to be sure");
    }

    @Test
    void isDrawnTowardTheWhole() {
        LayerDrawn.OfAreas plain = drawn("rate", "");
        LayerDrawn.OfAreas toward = drawn("rate", ", 'chance': {'toward': true}");
        int few = mark(plain, 3);
        double mean = 10_000
                * IntStream.range(0, PROVINCES.size())
                        .mapToDouble(p -> counted(p)[0] + counted(p)[1])
                        .sum()
                / IntStream.range(0, PROVINCES.size())
                        .mapToDouble(p -> counted(p)[2] + counted(p)[3])
                        .sum();
        assertThat(Math.abs(toward.values()[few] - mean)).isLessThan(Math.abs(plain.values()[few] - mean));
        assertThat(toward.key().colourWords()).endsWith("drawn toward the whole");
        double[] events = IntStream.range(0, PROVINCES.size())
                .mapToDouble(p -> counted(p)[0] + counted(p)[1])
                .toArray();
        double[] over = IntStream.range(0, PROVINCES.size())
                .mapToDouble(p -> counted(p)[2] + counted(p)[3])
                .toArray();
        assertThat(toward.values()[few]).isEqualTo(NumberWords.shown(Rates.smoothed(events, over)[3] * 10_000));
    }

    @Test
    void isComparableWhereAgesAreMadeAlike() {
        LayerDrawn.OfAreas areas = drawn("rate", ", 'chance': {'ages': {'band': 'age', 'like': 'EUROPE_2013'}}");
        double[] weights = StandardPopulation.EUROPE_2013.weights(new int[] {0, 65});
        for (int p : new int[] {3, 10, 40}) {
            double[] of = counted(p);
            AgeStandardised.Standardised made =
                    AgeStandardised.direct(new double[] {of[0], of[1]}, new double[] {of[2], of[3]}, weights, 0.95);
            assertThat(areas.values()[mark(areas, p)]).isEqualTo(NumberWords.shown(made.rate() * 10_000));
            assertThat(areas.trust().highs()[mark(areas, p)])
                    .isEqualTo(NumberWords.shown(made.interval().high() * 10_000));
        }
        assertThat(areas.key().colourWords()).contains("European standard of 2013");
        // What is expected of its own ages: provinces of one rate by age are alike, however old they are.
        LayerDrawn.OfAreas expected = drawn("rate", ", 'chance': {'ages': {'band': 'age', 'like': 'EXPECTED'}}");
        List<Integer> south = IntStream.range(0, PROVINCES.size())
                .filter(p -> p > 4 && PROVINCES.get(p).inside()[1] <= 42)
                .boxed()
                .toList();
        double[] alike = south.stream()
                .mapToDouble(p -> expected.values()[mark(expected, p)])
                .toArray();
        double[] crude = south.stream()
                .mapToDouble(p -> drawn("rate", "").values()[mark(expected, p)])
                .toArray();
        assertThat(spread(alike)).isLessThan(1.1);
        assertThat(spread(crude)).isGreaterThan(1.5);
    }

    /** People of whom it is not known how many fell ill would make all others look ill. */
    @Test
    void whatIsExpectedIsOfThoseOfWhomBothAreKnown() {
        LayerDrawn.OfAreas areas = areas(layer("rate", ", 'chance': {'ages': {'band': 'age', 'like': 'EXPECTED'}}")
                .replace("\"dataset\": 9", "\"dataset\": 10"));
        double[] all = new double[4];
        for (int p = 0; p < PROVINCES.size(); p++)
            for (int i = 0; i < 4; i++) if (p != UNKNOWN || i % 2 == 0) all[i] += counted(p)[i];
        double[] own = counted(20);
        double expected = own[2] * all[0] / all[2] + own[3] * all[1] / all[3];
        double rate = (own[0] + own[1]) / expected * (all[0] + all[1]) / (all[2] + all[3]);
        assertThat(areas.values()[mark(areas, 20)]).isEqualTo(NumberWords.shown(rate * 10_000));
        assertThat(areas.values()[mark(areas, UNKNOWN)]).isNaN();
    }

    private static double spread(double[] values) {
        return Arrays.stream(values).max().orElseThrow()
                / Arrays.stream(values).min().orElseThrow();
    }

    @Test
    void saysWhereAgesCannotBeMadeAlike() {
        assertThat(map(layer("rate", ", 'chance': {'ages': {'band': 'gone', 'like': 'EUROPE_2013'}}"))
                        .layers()
                        .get(0)
                        .head()
                        .notes())
                .anyMatch(n -> n.contains("column of ages “gone” has gone"));
        assertThat(map(layer("rate", ", 'chance': {'ages': {'band': 'people', 'like': 'EUROPE_2013'}}"))
                        .layers()
                        .get(0)
                        .head()
                        .notes())
                .anyMatch(n -> n.contains("cannot be told apart by age"));
    }

    /** Of rates that are made comparable in age, since the ages are not spread alike. */
    private static LayerDrawn.OfAreas clusters(String how) {
        return drawn(
                "rate", ", 'chance': {'ages': {'band': 'age', 'like': 'EXPECTED'}, 'clusters': {%s}}".formatted(how));
    }

    @Test
    void clustersAreWhereHighOnesTouchHighOnes() {
        LayerDrawn.OfAreas found = clusters("'by': 'TOGETHER'");
        assertThat(found.key().colours().get(4).text()).startsWith("high together, of 100 found at most 1");
        // All that touch Cantabria are high, and it is.
        int north = mark(found, index("Cantabria"));
        assertThat(found.classes()[north]).isGreaterThanOrEqualTo(3);
        assertThat(found.classes()[mark(found, index("Cádiz"))]).isLessThanOrEqualTo(2);
        assertThat(found.key().colours().stream().mapToInt(c -> c.count()).sum())
                .isEqualTo(found.at().length);
        assertThat(found.head().notes())
                .anyMatch(n -> n.contains("those that touch")
                        && n.contains("up to 9,999 times")
                        && n.contains("does not say"));
        assertThat(found.trust().falses()[north]).isLessThanOrEqualTo(0.05);
        assertThat(found.values()[north])
                .as("the value itself is told")
                .isEqualTo(drawn("rate", ", 'chance': {'ages': {'band': 'age', 'like': 'EXPECTED'}}")
                        .values()[north]);
        // An island has nothing to be compared with, and that is no "no more than chance".
        assertThat(found.key().colours()).anyMatch(c -> c.text().equals("no neighbour to compare with"));
        LayerDrawn.OfAreas near = clusters("'by': 'BESIDE', 'near': {'nearest': 5}");
        assertThat(near.head().notes()).anyMatch(n -> n.contains("the nearest 5"));
        assertThat(near.classes()[north]).isEqualTo(4);
        assertThat(clusters("'by': 'TOGETHER'").classes())
                .as("the same each time")
                .isEqualTo(found.classes());
    }

    private static int index(String name) {
        return PROVINCES.stream().map(Area::name).toList().indexOf(name);
    }

    @Test
    void briefSaysWhatWasGuessedAndLetsItBeChanged() {
        DashboardDocument document = MapFixture.document(layer("rate", ""));
        Brief brief = new BriefWriter(document.dashboard(), DATASETS, new Choices(new InMemoryEngine())).write("v1");
        String words = brief.parts().stream()
                .map(part -> part instanceof Brief.Control control ? control.text() : String.valueOf(part))
                .reduce("", String::concat);
        assertThat(words).contains("taken as events, of which each may have several (guessed)");
        assertThat(MapFixture.options(brief, "/visuals/v1/layers/l1/chance"))
                .contains(
                        "no rate, so nothing is marked",
                        "drawn toward the whole",
                        "ages alike as Europe’s standard of 2013",
                        "high and low ones together");
    }

    @Test
    void barsOfRatesSayHowSureTheyAre() {
        Dashboard dashboard = DashboardDocument.parse(
                        "{'schema': 2, 'title': 'x', 'pages': {'p1': {'title': '', 'order': 1}}, 'filters': {}, 'links': {}, 'visuals': {'v1': {'type': 'bars', "
                                .concat("'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 8, 'h': 6}, 'title': '', "
                                        + "'dataset': 9, 'category': '@place', ")
                                .concat("'measure': {'summary': 'FORMULA', 'column': 'rate'}}}}")
                                .replace('\'', '"'))
                .dashboard();
        Drawing drawing = Drawers.of(
                        dashboard,
                        StateReader.read("", dashboard, DATASETS, Kinds.ALL).state(),
                        DATASETS)
                .draw("v1");
        if (drawing instanceof MisfitDrawing misfit) throw new AssertionError(misfit.why());
        BarsDrawing bars = (BarsDrawing) drawing;
        assertThat(bars.bars().stream().filter(b -> b.sure().unsure()))
                .singleElement()
                .satisfies(
                        bar -> assertThat(bar.label()).contains(PROVINCES.get(3).name()));
        assertThat(bars.bars()).allSatisfy(bar -> {
            assertThat(bar.sure().low()).isLessThanOrEqualTo(bar.end());
            assertThat(bar.sure().high()).isGreaterThanOrEqualTo(bar.end());
        });
        assertThat(bars.notes()).containsExactly("Hatched bars rest on too few to be sure.");
    }

    private static FigureDrawing figure(String measure, String rule) {
        return (FigureDrawing) visual("'type': 'figure', 'measure': {'summary': 'FORMULA', 'column': '%s'}, 'rule': %s"
                .formatted(measure, rule));
    }

    /** @param parts what the visual says besides where it stands and what it is of */
    private static Drawing visual(String parts) {
        Dashboard dashboard = DashboardDocument.parse(
                        ("{'schema': 2, 'title': 'x', 'pages': {'p1': {'title': '', 'order': 1}}, 'filters': {}, "
                                        + "'links': {}, 'visuals': {'v1': {"
                                        + "'page': 'p1', 'at': {'x': 0, 'y': 0, 'w': 8, 'h': 6}, 'title': '', "
                                        + "'dataset': 9, %s}}}")
                                .formatted(parts)
                                .replace('\'', '"'))
                .dashboard();
        Drawing drawing = Drawers.of(
                        dashboard,
                        StateReader.read("", dashboard, DATASETS, Kinds.ALL).state(),
                        DATASETS)
                .draw("v1");
        if (drawing instanceof MisfitDrawing misfit) throw new AssertionError(misfit.why());
        return drawing;
    }

    @Test
    void aTableOfRatesSaysHowSureEachIs() {
        TableDrawing table =
                (TableDrawing) visual("'type': 'table', 'categories': ['province'], 'measures': [{'summary': 'COUNT'}, "
                        + "{'summary': 'FORMULA', 'column': 'rate'}], 'totals': true");
        assertThat(table.rows()).allSatisfy(row -> {
            assertThat(row.sure().subList(0, 2))
                    .as("words and counts are no rates")
                    .containsOnlyNulls();
            assertThat(row.sure().get(2).words()).startsWith("may well lie from ");
        });
        assertThat(table.rows().stream().filter(row -> row.sure().get(2).unsure()))
                .singleElement()
                .satisfies(
                        row -> assertThat(row.key()).isEqualTo(PROVINCES.get(3).code()));
        assertThat(table.total().sure()).isNull();
        TableDrawing counts = (TableDrawing)
                visual("'type': 'table', 'categories': ['province'], 'measures': [{'summary': 'COUNT'}]");
        assertThat(counts.rows()).allSatisfy(row -> assertThat(row.sure()).isNull());
    }

    @Test
    void aFigureOfARateSaysHowSureItIs() {
        FigureDrawing all = figure("rate", "null");
        assertThat(all.sure()).matches("may well lie from [0-9.]+ to [0-9.]+ \\(95 %\\)");
        assertThat(all.unsure()).isFalse();
        FigureDrawing few = figure(
                "rate",
                "{'column': 'province', 'values': ['%s']}"
                        .formatted(PROVINCES.get(3).code()));
        long cases = Math.round(720 * 0.002) + Math.round(180 * 0.002 * 4);
        Interval expected = Rates.poisson(cases, 900, 0.95).times(10_000);
        assertThat(few.sure())
                .contains("from " + NumberWords.brief(expected.low()))
                .endsWith("of too few to be sure");
        assertThat(few.unsure()).isTrue();
        assertThat(figure("no rate", "null").sure()).as("no rate").isNull();
        assertThat(figure("litres a head", "null").sure())
                .as("nothing speaks for what it is of")
                .isNull();
    }
}
