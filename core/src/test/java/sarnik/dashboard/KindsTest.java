package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.table.TestTables.csv;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.language.Language;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.scale.NumberWords;
import sarnik.state.ReaderState;
import sarnik.statistics.Interval;
import sarnik.statistics.Rates;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Question;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.funnel.FunnelDrawing;
import sarnik.visual.lines.LinesDrawing;
import sarnik.visual.ring.RingDrawing;
import sarnik.visual.scatter.ScatterDrawing;
import sarnik.visual.words.WordsDrawing;

@DisplayName("The kinds of visual")
class KindsTest {

    /** Sales over three months with a month missing, and the same months a year before. */
    static final LoadedDataset SALES = new LoadedDataset(
            1,
            "Sales",
            csv(
                    "town,product,day,at,litres,euros,weight",
                    "Soria,still,2025-01-10,2026-01-05T08:15,10,2,1",
                    "Soria,still,2025-04-10,2026-01-05T09:00,5,1,2",
                    "Soria,still,2026-01-10,2026-01-06T08:30,20,4,3",
                    "Soria,warm,2026-02-10,2026-01-06T23:59,30,6,4",
                    "Zamora,still,2026-02-11,2026-01-11T08:00,40,8,5",
                    "Zamora,warm,2026-04-01,2026-01-11T12:00,60,12,6",
                    "Burgos,,2026-04-02,,,3,7",
                    "Benavente,warm,2026-04-03,2026-01-12T08:00,100,-5,8"),
            null,
            Map.of());

    static final Datasets DATASETS = id -> Datasets.Found.of(Optional.ofNullable(id == 1 ? SALES : null));

    static final String LINES = "'type': 'lines', 'dataset': 1, 'time': 'day', 'step': 'MONTH', "
            + "'measures': [{'summary': 'SUM', 'column': 'litres'}]";
    static final String RING =
            "'type': 'ring', 'dataset': 1, 'category': 'town', " + "'measure': {'summary': 'SUM', 'column': 'litres'}";
    static final String SCATTER = "'type': 'scatter', 'dataset': 1, 'category': 'town', "
            + "'across': {'summary': 'SUM', 'column': 'litres'}, 'up': {'summary': 'SUM', 'column': 'weight'}";
    static final String FUNNEL = "'type': 'funnel', 'dataset': 1, 'category': 'town', "
            + "'events': {'summary': 'COUNT'}, 'over': {'summary': 'SUM', 'column': 'litres'}";
    static final String GRID = "'type': 'grid', 'dataset': 1, 'down': {'column': 'at', 'step': 'WEEKDAY'}, "
            + "'across': {'column': 'at', 'step': 'HOUR_OF_DAY'}, 'measure': {'summary': 'SUM', 'column': 'litres'}";
    static final String TABLE = "'type': 'table', 'dataset': 1, 'categories': ['town', 'product'], "
            + "'measures': [{'summary': 'SUM', 'column': 'litres'}, {'summary': 'COUNT'}]";
    static final String BARS =
            "'type': 'bars', 'dataset': 1, 'category': 'town', " + "'measure': {'summary': 'SUM', 'column': 'litres'}";
    static final String FIGURE = "'type': 'figure', 'dataset': 1, 'measure': {'summary': 'SUM', 'column': 'litres'}";
    static final String WORDS = "'type': 'words', 'text': 'Sold **{sum of litres}**.', 'dataset': 1, "
            + "'figures': [{'summary': 'SUM', 'column': 'litres'}]";

    static final String NOTED =
            BARS + ", 'pinned': [{'at': 'Soria', 'text': 'Closed in May'}, {'at': 'Gone', 'text': 'x'}]";
    static final String LIST =
            "'type': 'list', 'dataset': 1, 'text': '{town}: {litres:0.0 l}', 'below': '{day:month} {gone}', "
                    + "'pick': 'town', 'order': {'by': 'litres', 'down': true}, "
                    + "'mark': {'of': 'litres', 'limits': {'good': 50, 'bad': 10}}";
    static final String EACH = "'type': 'list', 'dataset': 1, 'each': 'town', 'text': '{town}', "
            + "'below': '{sum of litres} of {number of rows}', "
            + "'figures': [{'summary': 'SUM', 'column': 'litres'}, {'summary': 'COUNT'}]";
    static final String PLAYER = "'type': 'player', 'dataset': 1, 'column': 'day', 'step': 'MONTH'";
    static final String DETAILS = "'type': 'details', 'dataset': 1, 'by': 'town', "
            + "'figures': [{'summary': 'SUM', 'column': 'litres'}], 'over': 'day'";

    static DashboardDocument document(String... visuals) {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < visuals.length; i++)
            all.append(i == 0 ? "" : ",")
                    .append("'v%d': {'page': 'p1', 'at': {'x': 0, 'y': %d, 'w': 8, 'h': 6}, 'title': '', %s}"
                            .formatted(i + 1, i * 6, visuals[i]));
        return DashboardDocument.parse(("{'schema': 2, 'title': 'x', 'pages': {'p1': {'title': '', 'order': 1}}, "
                        + "'filters': {'f1': {'type': 'dates', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': "
                        + "'day'}}, "
                        + "'links': {'k1': {'from': 'v1'}}, "
                        + "'parameters': {'n1': {'name': 'Wanted', 'order': 1, 'value': 50}}, 'visuals': {" + all
                        + "}}")
                .replace('\'', '"'));
    }

    static <D extends Drawing> D draw(Class<D> type, String state, String... visuals) {
        Dashboard dashboard = document(visuals).dashboard();
        Drawing drawing = Drawers.of(
                        dashboard,
                        StateReader.read(state, dashboard, DATASETS, Kinds.ALL).state(),
                        DATASETS)
                .draw("v" + visuals.length);
        if (!type.isInstance(drawing) && drawing instanceof MisfitDrawing misfit)
            throw new AssertionError("A misfit: " + misfit.why());
        return type.cast(drawing);
    }

    static String misfit(String visual) {
        return draw(MisfitDrawing.class, "", visual).why();
    }

    @Nested
    @DisplayName("Funnels")
    class OfFunnels {

        /** Forty towns of which one in ten has a tap that is broken, and one has far more. */
        private static final LoadedDataset TAPS = taps();

        private static LoadedDataset taps() {
            StringBuilder rows = new StringBuilder("town,broken,people\n");
            for (int town = 0; town < 40; town++) {
                int people = 100 * (town + 1);
                rows.append(
                        "T%02d,%d,%d\n".formatted(town, town == 30 ? people / 4 : people / 10 + town % 3 - 1, people));
            }
            rows.append("None,3,0\nUnread,,500\n");
            return new LoadedDataset(1, "Taps", csv(rows.toString()), null, Map.of());
        }

        private FunnelDrawing drawn(String more) {
            Dashboard dashboard = document(
                            "'type': 'funnel', 'dataset': 1, 'category': 'town', 'events': {'summary': 'SUM', "
                                    + "'column': 'broken'}, 'over': {'summary': 'SUM', 'column': 'people'}" + more)
                    .dashboard();
            Drawing drawing = Drawers.of(dashboard, ReaderState.NOTHING, id -> Datasets.Found.of(Optional.of(TAPS)))
                    .draw("v1");
            if (drawing instanceof MisfitDrawing misfit) throw new AssertionError(misfit.why());
            return (FunnelDrawing) drawing;
        }

        @Test
        void tellWhatLiesBeyondChance() {
            FunnelDrawing drawn = drawn("");
            assertThat(drawn.dots()).hasSize(40);
            assertThat(drawn.dots().stream().filter(dot -> dot.beyond() == 2))
                    .singleElement()
                    .satisfies(dot -> {
                        assertThat(dot.key()).isEqualTo("T30");
                        assertThat(dot.named()).isTrue();
                        assertThat(dot.texts().get(0)).isEqualTo("25");
                        Interval interval = Rates.poisson(775, 3100, 0.95).times(100);
                        assertThat(dot.texts().get(1))
                                .isEqualTo(NumberWords.brief(interval.low()) + " to "
                                        + NumberWords.brief(interval.high()));
                    });
            assertThat(drawn.up().words()).isEqualTo("sum of broken for 100 of sum of people");
            assertThat(drawn.dots().get(39).unsure()).as("of nine events").isTrue();
            assertThat(drawn.dots().get(0).unsure()).isFalse();
            assertThat(drawn.notes())
                    .anyMatch(n ->
                            n.startsWith("1 of 40 lie beyond the inner limits, where chance alone would put about 2"))
                    .anyMatch(n -> n.contains("Taken for events"))
                    .anyMatch(n -> n.startsWith("1 has nothing that it could happen to"))
                    .anyMatch(n -> n.startsWith("1 has no number of what is counted"))
                    .anyMatch(n -> n.contains("drawn hollow"));
            // The more they rest on, the closer together the limits.
            FunnelDrawing.Limit inner = drawn.limits().get(0);
            assertThat(inner.high()[60] - inner.low()[60]).isLessThan(inner.high()[20] - inner.low()[20]);
            assertThat(drawn.limits().get(1).high()[30]).isGreaterThan(inner.high()[30]);
        }

        @Test
        void areOfASharesOrOfEventsAsIsSaid() {
            FunnelDrawing share = drawn(", 'of': 'SHARE'");
            assertThat(share.dots().get(0).texts().get(0)).endsWith(" %");
            assertThat(share.notes()).noneMatch(n -> n.contains("Taken for"));
            FunnelDrawing thousand = drawn(", 'per': 1000, 'smooth': true");
            assertThat(thousand.up().words()).contains("for 1,000 of");
            assertThat(thousand.dots().get(39).texts().get(0)).isEqualTo("90");
            assertThat(thousand.notes()).anyMatch(n -> n.contains("Marshall 1991"));
            assertThat(misfit(FUNNEL.replace("'SUM', 'column': 'litres'", "'AVERAGE', 'column': 'litres'")))
                    .contains("is neither");
            assertThat(misfit(FUNNEL.replace("{'summary': 'COUNT'}", "{'summary': 'SUM', 'column': 'litres'}")
                                    .replace(
                                            "'over': {'summary': 'SUM', 'column': 'litres'}",
                                            "'over': {'summary': 'COUNT'}")
                            + ", 'of': 'SHARE'"))
                    .contains("is no share of it");
        }
    }

    @Nested
    @DisplayName("Rings")
    class OfRings {

        @Test
        void addUpToTheWhole() {
            RingDrawing drawn = draw(RingDrawing.class, "", RING);
            assertThat(drawn.wholeFull()).isEqualTo("265");
            assertThat(drawn.parts())
                    .extracting(RingDrawing.Part::label)
                    .containsExactly("Benavente", "Zamora", "Soria");
            assertThat(drawn.parts().stream()
                            .mapToDouble(RingDrawing.Part::share)
                            .sum())
                    .isCloseTo(1, within(1e-12));
        }

        @Test
        void putTheSmallestTogether() {
            RingDrawing drawn = draw(RingDrawing.class, "", RING + ", 'parts': 2");
            assertThat(drawn.parts()).extracting(RingDrawing.Part::label).containsExactly("Benavente", "2 others");
            assertThat(drawn.parts().get(1).key()).isNull();
            assertThat(drawn.parts().get(1).full()).isEqualTo("165");
        }

        @Test
        void haveNoRoomForLessThanNothingNorForMeans() {
            assertThat(misfit(RING.replace("'litres'", "'euros'")))
                    .contains("below zero")
                    .contains("bars");
            assertThat(misfit(RING.replace("'SUM'", "'AVERAGE'"))).contains("have to add up");
        }

        @Test
        void wearTheColoursThatOtherVisualsWear() {
            String warm = draw(RingDrawing.class, "", RING.replace("'town'", "'product'")).parts().stream()
                    .filter(p -> "warm".equals(p.key()))
                    .findFirst()
                    .orElseThrow()
                    .colour();
            assertThat(draw(LinesDrawing.class, "", LINES + ", 'category': 'product'")
                            .lines())
                    .filteredOn(l -> l.label().equals("warm"))
                    .extracting(LinesDrawing.Line::colour)
                    .containsExactly(warm);
        }
    }

    @Nested
    @DisplayName("Scatters")
    class OfScatters {

        @Test
        void leaveOutWhatLacksAFigureAndSaySo() {
            ScatterDrawing drawn = draw(ScatterDrawing.class, "", SCATTER);
            assertThat(drawn.dots().keys()).containsExactlyInAnyOrder("Soria", "Zamora", "Benavente");
            assertThat(drawn.notes()).singleElement().asString().contains("1 has no figure");
        }

        @Test
        void haveALineOfLeastSquares() {
            ScatterDrawing drawn = draw(ScatterDrawing.class, "", SCATTER + ", 'line': true");
            // Points (65, 10), (100, 11), (100, 8): by hand.
            double mean = 265 / 3.0;
            double slope = ((65 - mean) * 10 + 2 * (100 - mean) * 9.5)
                    / (Math.pow(65 - mean, 2) + 2 * Math.pow(100 - mean, 2));
            double[] from = drawn.fit().from();
            double[] to = drawn.fit().to();
            double rise = (to[1] - from[1]) * (drawn.up().high() - drawn.up().low());
            double run =
                    (to[0] - from[0]) * (drawn.across().high() - drawn.across().low());
            assertThat(rise / run).isCloseTo(slope, within(1e-5));
            assertThat(drawn.fit().words()).startsWith("r = -0.19").contains("3 marks");
        }

        @Test
        void areCutAtBoundsOfTheAuthorsOrTheReadersOwn() {
            ScatterDrawing plain = draw(ScatterDrawing.class, "", SCATTER + ", 'quarters': 'MEDIAN'");
            ScatterDrawing own =
                    draw(ScatterDrawing.class, "", SCATTER + ", 'quarters': 'OWN', 'bounds': {'across': 1000000}");
            assertThat(own.cut()[0]).as("beyond the axis it lies at its end").isEqualTo(1);
            assertThat(own.cut()[1]).as("of the other the median").isEqualTo(plain.cut()[1]);
        }

        @Test
        void areCutInQuarters() {
            ScatterDrawing drawn = draw(ScatterDrawing.class, "", SCATTER + ", 'quarters': 'MEDIAN'");
            assertThat(drawn.across().low()
                            + drawn.cut()[0]
                                    * (drawn.across().high() - drawn.across().low()))
                    .isCloseTo(100, within(1e-9));
            assertThat(drawn.quarters()).hasSize(4).contains("much litres, little weight");
        }
    }

    @Nested
    @DisplayName("Bars")
    class OfBars {

        @Test
        void ofTheMostAndTheLeastStandApartWithTheOthersBetween() {
            BarsDrawing drawn = draw(
                    BarsDrawing.class,
                    "",
                    BARS + ", 'rank': {'end': 'BOTH', 'count': 1, 'held': false, 'others': true}");
            assertThat(drawn.bars()).extracting(BarsDrawing.Bar::label).containsExactly("Benavente", "others", "Soria");
            assertThat(drawn.bars()).extracting(BarsDrawing.Bar::after).containsExactly(false, true, true);
            assertThat(drawn.bars().get(1).full()).isEqualTo("100");
        }

        @Test
        void ofStepsOfTimeComeInTheirOrder() {
            BarsDrawing drawn = draw(BarsDrawing.class, "", BARS.replace("'town'", "'day'") + ", 'step': 'QUARTER'");
            assertThat(drawn.bars())
                    .extracting(BarsDrawing.Bar::label)
                    .containsExactly("2025 Q1", "2025 Q2", "2026 Q1", "2026 Q2");
        }

        @Test
        void ofClassesOfANumberArePickedByTheClass() {
            String histogram = BARS.replace("'town'", "'weight'").replace("'SUM', 'column': 'litres'", "'COUNT'")
                    + ", 'classes': 4";
            BarsDrawing drawn = draw(BarsDrawing.class, "", histogram);
            assertThat(drawn.bars()).extracting(BarsDrawing.Bar::label).startsWith("below 2", "2 – 4");
            assertThat(drawn.bars()).extracting(BarsDrawing.Bar::full).containsExactly("1", "2", "2", "2", "1");
            assertThat(draw(FigureDrawing.class, "p.v1=1", histogram, FIGURE).full())
                    .isEqualTo("25");
        }

        @ParameterizedTest
        @CsvSource({"STACKED, 0.0, 0.65", "SHARES, 0.0, 1.0", "GROUPED, 0.0, 0.35"})
        void inPartsFillWhatTheirLayoutSays(String layout, double from, double to) {
            BarsDrawing drawn = draw(BarsDrawing.class, "", BARS + ", 'series': 'product', 'layout': '" + layout + "'");
            BarsDrawing.Bar soria = drawn.bars().stream()
                    .filter(b -> b.label().equals("Soria"))
                    .findFirst()
                    .orElseThrow();
            assertThat(soria.parts()).hasSize(2);
            assertThat(soria.parts().stream()
                            .mapToDouble(BarsDrawing.Part::start)
                            .min())
                    .hasValue(from);
            assertThat(soria.parts().stream()
                            .mapToDouble(BarsDrawing.Part::end)
                            .max()
                            .orElse(0))
                    .isCloseTo(to, within(1e-9));
        }

        @Test
        void standInLineOnTheDecimal() {
            BarsDrawing drawn = draw(
                    BarsDrawing.class, "", BARS.replace("'SUM', 'column': 'litres'", "'AVERAGE', 'column': 'weight'"));
            assertThat(drawn.bars()).extracting(BarsDrawing.Bar::text).containsExactly("8.00", "7.00", "5.50", "2.50");
        }

        @Test
        void asSharesOfAllAddUpWhateverIsKept() {
            String share = BARS.replace("'column': 'litres'}", "'column': 'litres', 'over': {'kind': 'SHARE'}}");
            BarsDrawing drawn =
                    draw(BarsDrawing.class, "", share + ", 'rank': {'end': 'TOP', 'count': 1, 'held': false}");
            assertThat(drawn.bars())
                    .singleElement()
                    .extracting(BarsDrawing.Bar::full)
                    .isEqualTo("37.74 %");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                quoteCharacter = '~',
                value = {
                    "'SUM', 'column': 'litres'|1|100 165",
                    "'SUM', 'column': 'litres', 'over': {'kind': 'SHARE'}|1|37.74 % 62.26 %",
                    "'SUM', 'column': 'litres', 'over': {'kind': 'SHARE'}|2|37.74 % 37.74 % 24.53 %",
                    "'SUM', 'column': 'litres', 'over': {'kind': 'RANK'}|1|1",
                    "'SUM', 'column': 'litres', 'over': {'kind': 'RUNNING'}|1|265",
                    "'SUM', 'column': 'litres', 'over': {'kind': 'RANK'}|2|1 1",
                    "'SUM', 'column': 'litres'|9|100 100 65",
                    "'COUNT'|9|4 2 1 1",
                    "'COUNT'|2|4 2 2"
                })
        void ofTheOthersAreOnTheSameScaleOrThereIsNone(String measure, int count, String figures) {
            String bars = BARS.replace("'SUM', 'column': 'litres'", measure)
                    + ", 'rank': {'end': 'TOP', 'count': %d, 'held': false, 'others': true}".formatted(count);
            assertThat(draw(BarsDrawing.class, "", bars).bars().stream()
                            .map(BarsDrawing.Bar::full)
                            .collect(Collectors.joining(" ")))
                    .isEqualTo(figures);
        }

        @Test
        void haveNoOthersBesideSharesOfWhatARankThatIsHeldKeeps() {
            String bars = BARS.replace("'column': 'litres'}", "'column': 'litres', 'over': {'kind': 'SHARE'}}")
                    + ", 'rank': {'end': 'TOP', 'count': 1, 'held': true, 'others': true}";
            assertThat(draw(BarsDrawing.class, "", bars).bars())
                    .extracting(BarsDrawing.Bar::label)
                    .containsExactly("Benavente");
        }

        /** The change from a town to the next in the alphabet says nothing, nor does a share of a sum of means. */
        @ParameterizedTest
        @CsvSource({"town, SUM, 2", "town, AVERAGE, 1", "day, SUM, 10", "day, AVERAGE, 8", "weight, COUNT, 10"})
        void offerWhatIsWorkedOutOverAllWhereItMeansSomething(String column, String summary, int offers) {
            String bars = BARS.replace("'town'", "'" + column + "'").replace("'SUM'", "'" + summary + "'");
            Brief brief = new BriefWriter(document(bars).dashboard(), DATASETS, new Choices(new InMemoryEngine()))
                    .write("v1");
            assertThat(brief.parts())
                    .filteredOn(Brief.Control.class::isInstance)
                    .extracting(Brief.Control.class::cast)
                    .filteredOn(control -> control.name().equals("worked out over all"))
                    .singleElement()
                    .satisfies(control -> assertThat(control.options()).hasSize(offers));
        }

        @Test
        void callTheOthersAndWhatIsMissingInTheLanguageThatIsSpoken() {
            String bars = BARS + ", 'series': 'product', 'rank': {'end': 'TOP', 'count': 1, 'held': false, 'others': "
                    + "true}, 'layout': 'SHARES'";
            Language spanish = new Language("es", Map.of("others", "otros", "share", "proporción")::get);
            BarsDrawing drawn = Language.in(spanish, () -> draw(BarsDrawing.class, "", bars));
            assertThat(drawn.bars()).extracting(BarsDrawing.Bar::label).containsExactly("Benavente", "otros");
            assertThat(drawn.axis().words()).isEqualTo("proporción");
        }

        @Test
        void ofWhatDoesNotAddUpStandSideBySide() {
            String mean = BARS.replace("'SUM'", "'AVERAGE'") + ", 'series': 'product'";
            for (String layout : List.of("", ", 'layout': 'SHARES'", ", 'layout': 'STACKED'")) {
                BarsDrawing drawn = draw(BarsDrawing.class, "", mean + layout);
                assertThat(drawn.layout()).isEqualTo("grouped");
                assertThat(drawn.notes()).singleElement().asString().contains("does not add up");
            }
            assertThat(draw(BarsDrawing.class, "", mean + ", 'layout': 'BACK'").layout())
                    .isEqualTo("back");
            assertThat(draw(BarsDrawing.class, "", BARS + ", 'series': 'product'")
                            .notes())
                    .isEmpty();
        }

        @Test
        void inPartsAreOfTheMeasureAsItIs() {
            String share = BARS.replace("'column': 'litres'}", "'column': 'litres', 'over': {'kind': 'SHARE'}}");
            BarsDrawing drawn = draw(BarsDrawing.class, "", share + ", 'series': 'product'");
            assertThat(drawn.bars().get(0).full()).isEqualTo("100");
            assertThat(drawn.bars().get(0).parts())
                    .extracting(BarsDrawing.Part::text)
                    .doesNotContain("10,000 %")
                    .contains("100");
            assertThat(drawn.notes()).singleElement().asString().contains("as it is");
        }

        @Test
        void asSharesSayWhereThereIsLessThanNothing() {
            BarsDrawing drawn = draw(
                    BarsDrawing.class,
                    "",
                    BARS.replace("'litres'", "'euros'") + ", 'series': 'product', 'layout': 'SHARES'");
            assertThat(drawn.notes()).containsExactly("Parts below zero are drawn by their size.");
        }
    }

    @Nested
    @DisplayName("Words")
    class OfWords {

        private List<WordsDrawing.Node> blocks(String text) {
            return draw(WordsDrawing.class, "", WORDS.replace("Sold **{sum of litres}**.", text))
                    .blocks();
        }

        @Test
        void holdFiguresThatFollow() {
            WordsDrawing drawn = draw(WordsDrawing.class, "p.v1=Soria", RING, WORDS);
            WordsDrawing.Node strong = drawn.blocks().get(0).parts().get(1);
            assertThat(strong.kind()).isEqualTo("strong");
            assertThat(strong.parts().get(0)).extracting("kind", "text").containsExactly("figure", "65");
        }

        @Test
        void keepNamesInBracesThatNobodyKnows() {
            assertThat(blocks("A {gone} thing").get(0).parts())
                    .extracting(WordsDrawing.Node::text)
                    .containsExactly("A ", "{gone}", " thing");
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "<script>alert(1)</script>",
                    "[a](javascript:alert(1))",
                    "<img src=x onerror=alert(1)>",
                    "![x](javascript:1)",
                    "[b](data:text/html,x)"
                })
        void neverCarryMarkupOrLinksThatRun(String text) {
            assertThat(all(blocks(text)))
                    .allSatisfy(node -> assertThat(node.kind()).isNotEqualTo("link"))
                    .allSatisfy(node -> assertThat(node.href()).isNull());
        }

        private static Stream<WordsDrawing.Node> nodes(WordsDrawing.Node node) {
            return Stream.concat(Stream.of(node), node.parts().stream().flatMap(n -> nodes(n)));
        }

        private List<WordsDrawing.Node> all(List<WordsDrawing.Node> blocks) {
            return blocks.stream().flatMap(n -> nodes(n)).toList();
        }
    }

    // --- what holds for all --------------------------------------------------------------------------

    static Stream<String> all() {
        return Stream.of(
                LINES, RING, SCATTER, FUNNEL, GRID, TABLE, BARS, FIGURE, WORDS, LIST, EACH, DETAILS, NOTED, PLAYER);
    }

    @ParameterizedTest
    @MethodSource("all")
    void ofAllEveryOptionOfEverySlotMakesADocumentThatHoldsAndCanBeTakenBack(String visual) {
        DashboardDocument document = document(visual);
        Choices choices = new Choices(new InMemoryEngine());
        Brief brief = new BriefWriter(document.dashboard(), DATASETS, choices).write("v1");
        assertThat(brief.text()).isNotBlank().doesNotContain("null");
        Stream.concat(brief.parts().stream(), brief.finish().stream())
                .filter(Brief.Control.class::isInstance)
                .map(Brief.Control.class::cast)
                .forEach(slot -> {
                    for (Brief.Option option : slot.options()) {
                        Object value = slot.kind() == Brief.Kind.SET ? List.of(option.value()) : option.value();
                        String patch =
                                DocumentJson.write(List.of(Map.of("op", "add", "path", slot.path(), "value", value)));
                        DashboardDocument.Edit edit = document.edit(patch);
                        assertThat(edit.words())
                                .as(patch)
                                .doesNotContain("null")
                                .isNotEqualTo("a change");
                        assertThat(new BriefWriter(edit.after().dashboard(), DATASETS, choices)
                                        .write("v1")
                                        .text())
                                .isNotBlank();
                        assertThat(edit.after().edit(edit.inverse()).after().dashboard())
                                .as(patch)
                                .isEqualTo(document.dashboard());
                    }
                });
    }

    @ParameterizedTest
    @MethodSource("all")
    void ofAllADatasetThatHasGoneIsSaidAndTheRestStands(String visual) {
        Dashboard dashboard = document(visual.replace("'dataset': 1", "'dataset': 99"), FIGURE)
                .dashboard();
        Map<String, Drawing> drawn =
                Drawers.of(dashboard, ReaderState.NOTHING, DATASETS).draw(List.of("v1", "v2"), () -> {});
        assertThat(drawn.get("v1")).isInstanceOf(MisfitDrawing.class);
        assertThat(((MisfitDrawing) drawn.get("v1")).why()).contains("has gone").endsWith(".");
        assertThat(drawn.get("v2")).isInstanceOf(FigureDrawing.class);
    }

    @ParameterizedTest
    @MethodSource("all")
    void ofAllAColumnThatHasGoneIsSaidAndTheRestStands(String visual) {
        for (String column : SALES.columnNames()) {
            if (!visual.contains("'" + column + "'")) continue;
            Dashboard dashboard = document(visual.replaceAll("'" + column + "'(?! *:)", "'gone'"), FIGURE)
                    .dashboard();
            Map<String, Drawing> drawn =
                    Drawers.of(dashboard, ReaderState.NOTHING, DATASETS).draw(List.of("v1", "v2"), () -> {});
            if (drawn.get("v1") instanceof MisfitDrawing misfit)
                assertThat(misfit.why()).contains("gone").endsWith(".");
            assertThat(drawn.get("v2")).isInstanceOf(FigureDrawing.class);
        }
    }

    @Test
    void aTableWithTinyLinesOfAColumnThatHasGoneSaysSo() {
        String gone = TABLE.replace("'town'", "'gone'") + ", 'over': 'day'";
        assertThat(draw(MisfitDrawing.class, "", gone).why()).contains("“gone”");
    }

    @ParameterizedTest
    @MethodSource("all")
    void ofAllWithoutAnyRowLeftSaysSo(String visual) {
        Drawing drawn = draw(Drawing.class, "f.f1=2030-01-01..", visual);
        assertThat(drawn).isNotInstanceOf(MisfitDrawing.class);
    }

    @ParameterizedTest
    @MethodSource("all")
    void ofAllBecomeAnotherThatCanBeDrawnOrSayThatTheyCannot(String visual) {
        Dashboard dashboard = document(visual).dashboard();
        var from = dashboard.visuals().get("v1");
        var ingredients = Kinds.ALL.of(from).ingredients(from);
        for (var kind : Kinds.ALL.visuals()) {
            kind.become(ingredients, "p1", from.at(), "", DATASETS).ifPresent(become -> {
                String json = DocumentJson.write(Proposals.placed(become.visual(), "p1", from.at()));
                Dashboard after = document(visual)
                        .edit("[{\"op\":\"replace\",\"path\":\"/visuals/v1\",\"value\":" + json + "}]")
                        .after()
                        .dashboard();
                Drawing drawn = Drawers.of(after, ReaderState.NOTHING, DATASETS).draw("v1");
                if (drawn instanceof MisfitDrawing misfit)
                    assertThat(misfit.why()).endsWith(".");
                else assertThat(drawn).isInstanceOf(kind.drawing());
            });
        }
    }

    @Test
    void thereIsAtLeastOneOfEachQuestion() {
        assertThat(Arrays.stream(Question.values())
                        .map(q -> new Proposals(document(FIGURE).dashboard(), "p1", () -> "x").answer(q, SALES)))
                .filteredOn(List::isEmpty)
                .hasSize(1);
    }
}
