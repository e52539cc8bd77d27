package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import sarnik.data.About;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.Box;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Visual;
import sarnik.visual.bars.Bars;
import sarnik.visual.lines.Lines;
import sarnik.visual.map.Layer;
import sarnik.visual.map.MapVisual;
import sarnik.visual.ring.Ring;

@DisplayName("First pages")
class FirstPageTest {

    private static LoadedDataset dataset(String name, String head, int rows, Row row) {
        Random random = new Random(7);
        String body = IntStream.range(0, rows).mapToObj(n -> row.of(n, random)).collect(Collectors.joining("\n"));
        return new LoadedDataset(1, name, csv(head + "\n" + body), null, Map.of());
    }

    private interface Row {
        String of(int number, Random random);
    }

    /** Tables of several trades, without a place; those with places are the shared fixture's. */
    static Stream<LoadedDataset> tables() {
        return Stream.of(
                dataset(
                        "Readings",
                        "device,read at,temperature,pm10,battery level",
                        300,
                        (n, r) -> "d%d,2026-03-%02dT%02d:00,%d.5,%d,%d"
                                .formatted(n % 7, 1 + n % 28, n % 24, r.nextInt(30), r.nextInt(90), r.nextInt(100))),
                dataset(
                        "Answers",
                        "answer no,age,smokes,region,satisfaction score",
                        200,
                        (n, r) -> "%d,%d,%s,%s,%d"
                                .formatted(
                                        n + 1,
                                        18 + r.nextInt(60),
                                        n % 3 == 0 ? "yes" : "no",
                                        "r" + n % 5,
                                        r.nextInt(5))),
                dataset(
                        "Parcels",
                        "parcel,built,floor area,price per m2,owner code",
                        400,
                        (n, r) -> "%d,%d,%d.5,%d,%d"
                                .formatted(
                                        1000 + n, 1950 + r.nextInt(70), 40 + r.nextInt(200), 900 + r.nextInt(900), n)),
                dataset("Words", "first,second", 50, (n, r) -> "a%d,b%d".formatted(n % 4, n % 9)),
                dataset("One", "town,day,litres", 1, (n, r) -> "Soria,2026-01-01,5"),
                dataset(
                        "Wide",
                        IntStream.range(0, 300).mapToObj(c -> "c" + c).collect(Collectors.joining(",")),
                        30,
                        (n, r) -> IntStream.range(0, 300)
                                .mapToObj(c -> c % 2 == 0 ? "v" + (n + c) % 5 : String.valueOf(r.nextInt(1000)))
                                .collect(Collectors.joining(","))),
                dataset(
                        "Trips",
                        "trip id,line,started,passengers,speed,delay minutes",
                        350,
                        (n, r) -> "%d,L%d,2026-02-%02dT%02d:15,%d,%d,%d"
                                .formatted(
                                        70000 + n,
                                        n % 6,
                                        1 + n % 27,
                                        5 + n % 18,
                                        r.nextInt(80),
                                        r.nextInt(60),
                                        r.nextInt(15))),
                dataset(
                        "Harvest",
                        "farm,crop,year,tonnes,hectares,yield per hectare",
                        260,
                        (n, r) -> "f%d,%s,%d,%d,%d,%d.5"
                                .formatted(
                                        n % 40,
                                        n % 3 == 0 ? "wheat" : "olives",
                                        2015 + n % 10,
                                        r.nextInt(90),
                                        1 + r.nextInt(30),
                                        r.nextInt(8))),
                dataset(
                        "Patients",
                        "patient code,ward,admitted,nights,pulse,diagnosis",
                        500,
                        (n, r) -> "P%05d,w%d,2026-01-%02d,%d,%d,%s"
                                .formatted(n, n % 8, 1 + n % 28, r.nextInt(12), 50 + r.nextInt(70), "d" + n % 9)),
                MapFixture.sales());
    }

    /** What a number is called says whether a sum of it means something, in the languages that are spoken here. */
    @ParameterizedTest
    @CsvSource({
        "temperatura, RATE",
        "preço unitário, RATE",
        "Luftfeuchtigkeit, RATE",
        "taux de remplissage, RATE",
        "edadMedia, RATE",
        "total price, AMOUNT",
        "importe precio, AMOUNT",
        "Gesamt_Preis, AMOUNT",
        "litros, AMOUNT"
    })
    void namesSayWhetherNumbersAreAddedUp(String name, Telling.Meaning meaning) {
        LoadedDataset dataset = new LoadedDataset(9, "Named", csv(name + ",town", "1.5,A", "2.5,B"), null, Map.of());
        assertThat(Telling.likely(dataset, name)).isEqualTo(meaning);
    }

    @Test
    void followWhatPeopleSayOfANumber() {
        String head = "shop,score,day";
        String[] rows = {head, "a,4,2026-01-01", "b,5,2026-01-02", "a,2,2026-02-01"};
        LoadedDataset guessed = new LoadedDataset(1, "Games", csv(rows), null, Map.of());
        assertThat(FirstPage.guesses(guessed)).contains("score is taken for rates or states");
        LoadedDataset said = said(csv(rows), Telling.Meaning.AMOUNT);
        assertThat(measures(page(said), "score")).containsOnly(Summary.SUM);
        assertThat(FirstPage.guesses(said)).as("nothing is guessed any more").isEmpty();
        assertThat(measures(page(said(csv(rows), Telling.Meaning.NAME)), "score"))
                .isEmpty();
        assertThat(Telling.likely(said, "score")).isEqualTo(Telling.Meaning.RATE);
    }

    private static LoadedDataset said(Table table, Telling.Meaning meaning) {
        About about = new About(null, null, null, null, null, Map.of("score", new About.OfColumn("", "", meaning)));
        return new LoadedDataset(
                1, "Games", table, null, Map.of(), about, Map.of(), List.of(), List.of(), set -> Optional.empty());
    }

    /** How a column is summed up on a page. */
    private static List<Summary> measures(Dashboard page, String column) {
        return page.visuals().values().stream()
                .flatMap(visual -> measures(visual).stream())
                .filter(measure -> column.equals(measure.column()))
                .map(Measure::summary)
                .toList();
    }

    private static Dashboard page(LoadedDataset dataset) {
        int[] next = {0};
        return FirstPage.of(dataset, () -> "x" + next[0]++).dashboard();
    }

    @ParameterizedTest
    @MethodSource("tables")
    void stand(LoadedDataset dataset) {
        Dashboard page = page(dataset);
        assertThat(page.title()).endsWith("?");
        assertThat(page.visuals()).isNotEmpty();
        Datasets datasets = id -> Datasets.Found.of(Optional.of(dataset));
        Map<String, Drawing> drawn = new PageDrawer(
                        page, ReaderState.NOTHING, new Sources(datasets), new Answerer(new InMemoryEngine()), Map.of())
                .draw(page.visuals().keySet(), () -> {});
        assertThat(drawn.values()).noneMatch(MisfitDrawing.class::isInstance);
    }

    @ParameterizedTest
    @MethodSource("tables")
    void fillTheSheetWithoutAVisualOnAnother(LoadedDataset dataset) {
        Collection<Visual> visuals = page(dataset).visuals().values();
        TreeSet<Integer> cells = new TreeSet<>();
        int area = 0;
        for (Visual visual : visuals) {
            Box at = visual.at();
            assertThat(at.x() + at.w()).isLessThanOrEqualTo(Dashboard.COLUMNS);
            area += at.w() * at.h();
            for (int y = at.y(); y < at.y() + at.h(); y++)
                for (int x = at.x(); x < at.x() + at.w(); x++) cells.add(y * Dashboard.COLUMNS + x);
        }
        assertThat(cells).as("cells that are covered, each once").hasSize(area);
        int bottom =
                visuals.stream().mapToInt(v -> v.at().y() + v.at().h()).max().orElseThrow();
        assertThat(area).as("no hole").isEqualTo(bottom * Dashboard.COLUMNS);
    }

    /** The rules of the trade: a rate is never summed and never sizes, what names something is never measured. */
    @ParameterizedTest
    @MethodSource("tables")
    void keepTheRulesOfTheTrade(LoadedDataset dataset) {
        for (Visual visual : page(dataset).visuals().values()) {
            for (Measure measure : measures(visual)) {
                if (measure.column() == null || !dataset.table().names().contains(measure.column())) continue;
                if (!dataset.table().column(measure.column()).type().isNumber()) continue;
                assertThat(Telling.meaning(dataset, measure.column()))
                        .as(visual + " " + measure)
                        .isNotEqualTo(Telling.Meaning.NAME);
                if (measure.summary() == Summary.SUM)
                    assertThat(Telling.meaning(dataset, measure.column())).isEqualTo(Telling.Meaning.AMOUNT);
            }
            if (visual instanceof MapVisual map)
                for (Layer layer : map.layers().values())
                    if (layer.size() != null)
                        assertThat(Telling.addsUp(layer.size().measure())).isTrue();
            if (visual instanceof Ring ring)
                assertThat(Telling.addsUp(ring.measure())).isTrue();
        }
    }

    private static List<Measure> measures(Visual visual) {
        List<Measure> measures = new ArrayList<>(ingredients(visual));
        if (visual instanceof MapVisual map)
            for (Layer layer : map.layers().values()) {
                if (layer.size() != null) measures.add(layer.size().measure());
                if (layer.colour() != null && layer.colour().measure() != null)
                    measures.add(layer.colour().measure());
            }
        return measures;
    }

    private static <V extends Visual> List<Measure> ingredients(V visual) {
        return Kinds.ALL.of(visual).ingredients(visual).measures();
    }

    @Test
    void answerWhereHowMuchHowChangedAndWhichMost() {
        Dashboard page = page(MapFixture.sales());
        assertThat(page.visuals().values()).anyMatch(MapVisual.class::isInstance);
        assertThat(page.visuals().values()).anyMatch(Bars.class::isInstance);
        assertThat(page.filters()).isNotEmpty();
        assertThat(page.links().values())
                .as("what is picked on the map narrows the rest")
                .isNotEmpty();
    }

    @Test
    void takeThePeriodFirstAmongTheFilters() {
        LoadedDataset readings = tables().findFirst().orElseThrow();
        Dashboard page = page(readings);
        assertThat(page.visuals().values()).anyMatch(Lines.class::isInstance);
        assertThat(page.filters().values().stream()
                        .filter(f -> f.order() == 1)
                        .findFirst()
                        .orElseThrow()
                        .column())
                .isEqualTo("read at");
        assertThat(page.title()).isEqualTo("Readings: how much, and how has it changed?");
    }

    @Test
    void sayWhatWasGuessedOfTheNumbers() {
        List<LoadedDataset> tables = tables().toList();
        assertThat(FirstPage.guesses(tables.get(2)))
                .isEqualTo(
                        "By their names and values floor area is taken to add up, so summed; price per m2 is taken for "
                                + "rates or states, so averaged; parcel, built and owner code are taken for names, "
                                + "so left out. "
                                + "Each brief can say otherwise.");
        assertThat(FirstPage.guesses(tables.get(3))).as("no numbers").isEmpty();
        assertThat(FirstPage.guesses(tables.get(5))).contains("c1, c3, c5 and 147 more are taken to add up");
    }

    @Test
    void tellWhatNumbersMean() {
        LoadedDataset parcels = tables().skip(2).findFirst().orElseThrow();
        assertThat(Stream.of("parcel", "built", "floor area", "price per m2", "owner code")
                        .map(column -> Telling.meaning(parcels, column)))
                .containsExactly(
                        Telling.Meaning.NAME,
                        Telling.Meaning.NAME,
                        Telling.Meaning.AMOUNT,
                        Telling.Meaning.RATE,
                        Telling.Meaning.NAME);
    }
}
