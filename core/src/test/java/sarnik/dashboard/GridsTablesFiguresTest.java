package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.KindsTest.FIGURE;
import static sarnik.dashboard.KindsTest.GRID;
import static sarnik.dashboard.KindsTest.LINES;
import static sarnik.dashboard.KindsTest.RING;
import static sarnik.dashboard.KindsTest.TABLE;
import static sarnik.dashboard.KindsTest.document;
import static sarnik.dashboard.KindsTest.draw;
import static sarnik.dashboard.KindsTest.misfit;
import static sarnik.table.TestTables.csv;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.StateReader;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.state.ReaderState;
import sarnik.visual.Sight;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.grid.GridDrawing;
import sarnik.visual.lines.LinesDrawing;
import sarnik.visual.table.TableDrawing;

@DisplayName("Grids, tables and figures")
class GridsTablesFiguresTest {

    @Nested
    @DisplayName("Grids")
    class OfGrids {

        @Test
        void showAllHoursAndDaysOfTheWeekAndNoDataAsNone() {
            GridDrawing drawn = draw(GridDrawing.class, "", GRID);
            assertThat(drawn.across()).hasSize(24);
            assertThat(drawn.down())
                    .extracting(GridDrawing.Head::label)
                    .startsWith("Mon", "Tue")
                    .endsWith("Sun")
                    .hasSize(7);
            // 5 and 12 January 2026 were Mondays: 10 and 100 litres between 8 and 9.
            assertThat(drawn.texts().get(8)).isEqualTo("110");
            assertThat(drawn.classes()[8]).isNotNegative();
            assertThat(drawn.texts().get(7)).isEqualTo("–");
            assertThat(drawn.classes()[7]).isEqualTo(-1);
        }

        @Test
        void readTheClockOfATimeZone() {
            GridDrawing drawn =
                    draw(GridDrawing.class, "", GRID.replace("'WEEKDAY'", "'WEEKDAY', 'zone': 'Europe/Madrid'"));
            // One minute before midnight of UTC on a Tuesday is Wednesday in Madrid; both sides read one clock.
            assertThat(drawn.texts().get(2 * 24)).isEqualTo("30");
        }

        @Test
        void readTheClockOfEachPlaceAndPickByIt() {
            PlacedTable placed = MapFixture.PLACER.byName(
                    csv(
                            "town,province,at,litres",
                            "Soria,Soria,2026-01-05T08:15,1",
                            "Las Palmas,Las Palmas,2026-01-05T08:15,10",
                            "Arucas,Las Palmas,2026-07-05T23:30,100"),
                    new Placing.ByName("town", "province", null));
            LoadedDataset spots = new LoadedDataset(1, "Spots", placed.table(), null, placed.places());
            Datasets datasets = id -> Datasets.Found.of(Optional.of(spots));
            String own = GRID.replace("'WEEKDAY'", "'HOUR_OF_DAY', 'zone': '@zone'")
                    .replace("'column': 'at', 'step': 'HOUR_OF_DAY'}, 'measure'", "'column': 'town'}, 'measure'");
            Dashboard dashboard = document(
                            own,
                            FIGURE,
                            LINES.replace("'day', 'step': 'MONTH'", "'at', 'step': 'HOUR', 'zone': '@zone'"))
                    .dashboard();
            GridDrawing drawn = (GridDrawing)
                    Drawers.of(dashboard, ReaderState.NOTHING, datasets).draw("v1");
            List<String> towns =
                    drawn.across().stream().map(GridDrawing.Head::label).toList();
            // Winter: an hour after UTC in Soria, with UTC on the islands; summer: an hour after UTC there.
            assertThat(drawn.texts().get(9 * 3 + towns.indexOf("Soria"))).isEqualTo("1");
            assertThat(drawn.texts().get(8 * 3 + towns.indexOf("Las Palmas"))).isEqualTo("10");
            assertThat(drawn.texts().get(towns.indexOf("Arucas")))
                    .as("half past midnight")
                    .isEqualTo("100");
            ReaderState picked =
                    StateReader.read("p.v1=08", dashboard, datasets, Kinds.ALL).state();
            assertThat(((FigureDrawing) Drawers.of(dashboard, picked, datasets).draw("v2")).full())
                    .isEqualTo("10");
            assertThat(((LinesDrawing) Drawers.of(dashboard, ReaderState.NOTHING, datasets)
                                    .draw("v3"))
                            .steps())
                    .startsWith("2026-01-05T08:00", "2026-01-05T09:00")
                    .endsWith("2026-07-06T00:00");
        }

        @Test
        void pickAWeekday() {
            FigureDrawing drawn = draw(FigureDrawing.class, "p.v1=1", GRID, FIGURE);
            assertThat(drawn.full()).isEqualTo("115");
            assertThat(drawn.trail().steps()).extracting("words").contains("Picked: Mon");
        }

        @Test
        void keepTheirColoursWhenSomethingElseIsPicked() {
            GridDrawing whole = draw(GridDrawing.class, "", RING, GRID);
            GridDrawing picked = draw(GridDrawing.class, "p.v1=Soria", RING, GRID);
            assertThat(picked.key().breaks()).containsExactly(whole.key().breaks());
            GridDrawing shown = draw(
                    GridDrawing.class,
                    "p.v1=Soria",
                    RING,
                    GRID + ", 'colour': {'measure': {'summary': 'SUM', 'column': 'litres'}, 'domain': 'shown'}");
            assertThat(shown.key().high()).isEqualTo(30);
        }

        @Test
        void thatCannotBeCrossedSaySo() {
            assertThat(misfit(GRID.replace("'at', 'step': 'HOUR_OF_DAY'", "'day', 'step': 'HOUR_OF_DAY'")))
                    .contains("holds days, which have no hour of the day");
            assertThat(misfit(GRID.replace("'WEEKDAY'", "'WEEKDAY', 'zone': 'Mars/Base'")))
                    .contains("no time zone");
        }
    }

    @Nested
    @DisplayName("Tables")
    class OfTables {

        @Test
        void areOrderedByTheFirstFigureWithATotalBelow() {
            TableDrawing drawn = draw(TableDrawing.class, "", TABLE + ", 'totals': true");
            assertThat(drawn.rows())
                    .extracting(r -> String.join(" ", r.cells()))
                    .startsWith("Benavente warm 100 1");
            assertThat(drawn.rows().get(drawn.rows().size() - 1).cells().get(2)).isEqualTo("–");
            assertThat(drawn.total().cells()).containsExactly("all", "", "265", "8");
        }

        @Test
        void haveNoSubtotalOfWhatIsWorkedOutOverAllRows() {
            String share = TABLE.replace(
                    "{'summary': 'COUNT'}", "{'summary': 'SUM', 'column': 'litres', 'over': {'kind': 'SHARE'}}");
            TableDrawing drawn = draw(TableDrawing.class, "", share + ", 'subtotals': true");
            assertThat(drawn.rows())
                    .filteredOn(TableDrawing.Row::sub)
                    .isNotEmpty()
                    .allSatisfy(row -> assertThat(row.cells().get(3)).isEmpty());
            assertThat(drawn.rows().get(0).cells().get(3)).endsWith("%");
        }

        @Test
        void putSubtotalsBehindWhatBelongsTogether() {
            TableDrawing drawn = draw(TableDrawing.class, "", TABLE + ", 'subtotals': true");
            List<String> lines =
                    drawn.rows().stream().map(r -> String.join(" ", r.cells())).toList();
            int soria = lines.indexOf("all of Soria  65 4");
            assertThat(soria).isGreaterThan(1);
            assertThat(lines.subList(soria - 2, soria)).allMatch(l -> l.startsWith("Soria "));
        }

        @Test
        void areOrderedSearchedAndTurnedByTheReader() {
            Dashboard dashboard = document(TABLE).dashboard();
            PageDrawer drawer = new PageDrawer(
                    dashboard,
                    ReaderState.NOTHING,
                    new Sources(KindsTest.DATASETS),
                    Drawers.ANSWERER,
                    Map.of("v1", new Sight(0, 0, 0, 0, 0, 1, 0, false, List.of(new Sight.Then(2, false)), "o", null)));
            TableDrawing drawn = (TableDrawing) drawer.draw("v1");
            assertThat(drawn.all()).isEqualTo(5);
            assertThat(drawn.rows())
                    .extracting(TableDrawing.Row::key)
                    .containsExactly("Soria", "Soria", "Zamora", "Zamora");
            assertThat(drawn.rows())
                    .extracting(r -> r.cells().get(2))
                    .as("the least first of equal towns")
                    .containsExactly("30", "35", "40", "60");
            assertThat(drawn.heads().get(0).sorted()).isEqualTo("up");
        }

        @Test
        void sayWhatIsGoodAndDrawEachRowOverTime() {
            TableDrawing drawn = draw(
                    TableDrawing.class,
                    "",
                    TABLE
                            + ", 'totals': true, 'over': 'day', 'looks': [{'measure': {'summary': 'SUM', 'column': "
                            + "'litres'}, 'states': {'good': 100, 'bad': 35}}, "
                            + "{'measure': {'summary': 'MEDIAN', 'column': 'litres'}, 'states': {'good': 1, 'bad': "
                            + "0}}]");
            assertThat(drawn.rows())
                    .extracting(r -> r.cells().get(2) + " " + r.states().get(2))
                    .containsExactly("100 good", "60 watch", "40 watch", "35 bad", "30 bad", "– null");
            assertThat(drawn.total().states().get(2)).isEqualTo("good");
            assertThat(drawn.rows().get(3).states().get(3)).isNull();
            // From January 2025 to April 2026; Soria has still in three of the months.
            assertThat(drawn.lineWords()).isEqualTo("litres by month, Jan 2025 to Apr 2026");
            assertThat(drawn.rows().get(3).line())
                    .hasSize(16)
                    .filteredOn(v -> !v.isNaN())
                    .hasSize(3)
                    .contains(0.0, 1.0);
            assertThat(drawn.total().line()).isNull();
        }

        @Test
        void tintOnlyFiguresThatThereAre() {
            TableDrawing drawn = draw(TableDrawing.class, "", TABLE + ", 'heat': true");
            assertThat(drawn.rows().get(0).tints().get(2)).startsWith("#");
            assertThat(drawn.rows().get(drawn.rows().size() - 1).tints().get(2)).isNull();
        }
    }

    @Nested
    @DisplayName("Figures")
    class OfFigures {

        @ParameterizedTest
        @CsvSource({"100, 50, good", "400, 300, bad", "300, 200, watch", "200, 300, watch", "300, 400, good"})
        void areGoodWatchOrBadEitherWayAround(double good, double bad, String state) {
            assertThat(draw(
                                    FigureDrawing.class,
                                    "",
                                    FIGURE + ", 'states': {'good': %s, 'bad': %s}".formatted(good, bad))
                            .state())
                    .isEqualTo(state);
        }

        /** Where it stands beside another, the difference is of the values. */
        @Test
        void areTheirValueBesideWhatIsWrittenOfIt() {
            FigureDrawing drawn = draw(FigureDrawing.class, "", FIGURE);
            assertThat(drawn.value()).isEqualTo(265);
            assertThat(drawn.percent()).isFalse();
            String share = FIGURE.replace("'column': 'litres'}", "'column': 'litres'}, 'format': {'percent': true}");
            assertThat(draw(FigureDrawing.class, "", share)).satisfies(percent -> {
                assertThat(percent.value()).isEqualTo(265);
                assertThat(percent.percent()).isTrue();
            });
            assertThat(draw(
                                    FigureDrawing.class,
                                    "",
                                    FIGURE.replace("SUM", "AVERAGE")
                                            + ", 'rule': {'column': 'town', 'values': ['nowhere']}")
                            .value())
                    .isNull();
        }

        @Test
        void areComparedWithATargetAndWithTheWhole() {
            assertThat(draw(FigureDrawing.class, "", FIGURE + ", 'against': {'kind': 'TARGET', 'value': 250}")
                            .against())
                    .isEqualTo("6 % above the target of 250");
            String share = FIGURE.replace("'column': 'litres'}", "'column': 'litres'}, 'format': {'percent': true}");
            assertThat(draw(FigureDrawing.class, "", share + ", 'against': {'kind': 'TARGET', 'value': 250}")
                            .against())
                    .isEqualTo("1,500 points above the target of 25,000 %");
            assertThat(draw(FigureDrawing.class, "", FIGURE + ", 'against': {'kind': 'TARGET', 'value': -100}")
                            .against())
                    .isEqualTo("365 above the target of -100");
            assertThat(draw(FigureDrawing.class, "p.v1=Zamora", RING, FIGURE + ", 'against': {'kind': 'WHOLE'}")
                            .against())
                    .isEqualTo("38 % of 265 in all");
            String mean = FIGURE.replace("'SUM'", "'AVERAGE'") + ", 'against': {'kind': 'WHOLE'}";
            assertThat(draw(FigureDrawing.class, "p.v1=Zamora", RING, mean).against())
                    .isEqualTo("32 % more than 37.86 of all together");
            assertThat(draw(FigureDrawing.class, "", RING, mean).against())
                    .isEqualTo("the same as 37.86 of all together");
            String distinct = FIGURE.replace("'SUM', 'column': 'litres'", "'DISTINCT', 'column': 'town'")
                    + ", 'against': {'kind': 'WHOLE'}";
            assertThat(draw(FigureDrawing.class, "p.v1=Zamora", RING, distinct).against())
                    .isEqualTo("25 % of 4 in all");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "2026-02-01..2026-02-28 | BEFORE | 250 % more than 20 in Jan 2026",
                    "2026-02-10..2026-02-10 | BEFORE | no figure for 9 Feb 2026",
                    "2026-01-01..2026-04-30 | YEAR | 2,400 % more than 10 from 1 Jan 2025 to 3 Apr 2025, whose "
                            + "figures begin only 10 Jan 2025",
                    "2026-01-10..2026-02-28 | YEAR | 800 % more than 10 from 10 Jan 2025 to 28 Feb 2025",
                    "2026-01-05..2026-02-28 | YEAR | 800 % more than 10 from 5 Jan 2025 to 28 Feb 2025, whose "
                            + "figures begin only 10 Jan 2025",
                    "2026-04-01.. | BEFORE | no figure for 29 Mar 2026 to 31 Mar 2026",
                    "2026-04-01..2026-04-30 | BEFORE | no figure for 1 Mar 2026 to 3 Mar 2026",
                    "2026-03-30..2026-04-05 | BEFORE | no figure for 23 Mar 2026 to 27 Mar 2026",
                    "2026-01-01..2026-12-31 | BEFORE | 2,400 % more than 10 from 1 Jan 2025 to 3 Apr 2025, whose "
                            + "figures begin only 10 Jan 2025",
                    "2024-02-01..2024-02-28 | YEAR | no figure for Feb 2023",
                    "2025-02-01..2025-02-28 | YEAR | no figure for Feb 2024",
                    "2026-02-10..2026-02-28 | BEFORE | no figure for 22 Jan 2026 to 9 Feb 2026",
                    "..2026-02-28 | YEAR | nothing to compare with: what is shown is not narrowed to one stretch of day"
                })
        void areComparedWithAnEarlierPeriod(String period, String kind, String expected) {
            String against = FIGURE + ", 'against': {'kind': '%s', 'time': 'day'}".formatted(kind);
            assertThat(draw(FigureDrawing.class, "f.f1=" + period, against).against())
                    .isEqualTo(expected);
        }

        @Test
        void areComparedWithTheMonthBeforeThatIsPickedOnALine() {
            FigureDrawing drawn = draw(
                    FigureDrawing.class,
                    "p.v1=~span.2026-02-01_2026-02-28",
                    LINES,
                    FIGURE + ", 'against': {'kind': 'BEFORE', 'time': 'day'}, 'sign': 'DROP'");
            assertThat(drawn.against()).isEqualTo("250 % more than 20 in Jan 2026");
            assertThat(drawn.sign()).startsWith("M");
        }

        @Test
        void haveATinyLineWithItsGap() {
            FigureDrawing drawn = draw(FigureDrawing.class, "f.f1=2026-01-01..2026-04-30", FIGURE + ", 'over': 'day'");
            assertThat(drawn.line()).isNotEmpty().anyMatch(v -> v.isNaN());
            assertThat(drawn.lineWords()).startsWith("by month, Jan 2026");
        }
    }
}
