package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.geo.Area;
import sarnik.narrow.StateReader;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.table.TestTables;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.unlikely.UnlikelyDrawing;

@DisplayName("Values that stand out")
class UnlikelyListTest {

    /**
     * Thirty months of three kiosks; B sells ten times as much in one of them, C nothing in another; the last month has
     * begun.
     */
    private static final LoadedDataset REFILLS = refills();

    private static LoadedDataset refills() {
        StringBuilder rows = new StringBuilder("kiosk,day,litres\n");
        LocalDate first = LocalDate.of(2024, 1, 1);
        for (int m = 0; m < 30; m++)
            for (int k = 0; k < 3; k++) {
                if (k == 2 && m == 20) continue;
                int litres = 100 + 7 * ((m * 5 + k) % 4) + (k == 1 && m == 25 ? 900 : 0);
                rows.append("%s,%s,%d\n"
                        .formatted((char) ('A' + k), first.plusMonths(m).plusDays(14), litres));
                rows.append("%s,%s,%d\n"
                        .formatted((char) ('A' + k), first.plusMonths(m + 1).minusDays(1), litres));
            }
        rows.append("A,%s,1\n".formatted(first.plusMonths(30)));
        return new LoadedDataset(1, "Refills", TestTables.csv(rows.toString()), null, Map.of());
    }

    /** Provinces with one that has far more than those around it. */
    private static final LoadedDataset PLACED = placed();

    private static LoadedDataset placed() {
        StringBuilder rows = new StringBuilder("province,cases\n");
        List<Area> areas = MapFixture.SET.set().areas();
        for (int p = 0; p < areas.size(); p++)
            rows.append("%s,%d\n"
                    .formatted(areas.get(p).code(), areas.get(p).name().equals("Soria") ? 900 : 100 + 3 * (p % 5)));
        Placing.ByArea by = new Placing.ByArea("province", MapFixture.PROVINCES);
        PlacedTable placed =
                MapFixture.PLACER.byArea(TestTables.csv(rows.toString()), "province", MapFixture.SET.set());
        return MapFixture.dataset(2, "Placed", placed, by);
    }

    /** Days that stand for none, as some programs write them, far from all others. */
    private static final LoadedDataset FAR = new LoadedDataset(
            3,
            "Far",
            TestTables.csv("kiosk,day,litres\nA,1000-01-01,5\nA,2999-12-31,5\nA,2026-01-01,6\nB,2026-01-02,7\n"),
            null,
            Map.of());

    /** Litres of each hour of five days and a bit; the last of the hours has begun. */
    private static final LoadedDataset HOURLY = hourly();

    private static LoadedDataset hourly() {
        StringBuilder rows = new StringBuilder("kiosk,at,litres\n");
        LocalDateTime first = LocalDateTime.of(2026, 6, 26, 0, 0);
        for (int h = 0; h <= 5 * 24 + 14; h++) {
            String at = first.plusHours(h).plusMinutes(5).toString();
            rows.append("A,%s,%d\n".formatted(at, h == 5 * 24 + 14 ? 3 : 100 + h % 4));
        }
        return new LoadedDataset(4, "Hourly", TestTables.csv(rows.toString()), null, Map.of());
    }

    private static final Datasets DATASETS =
            id -> Datasets.Found.of(Optional.of(id == 1 ? REFILLS : id == 2 ? PLACED : id == 3 ? FAR : HOURLY));

    private static Drawing draw(String state, String of) {
        return draw(state, of, LocalDate.EPOCH);
    }

    private static Drawing draw(String state, String of, LocalDate today) {
        Dashboard dashboard = DashboardDocument.parse(
                        ("{'schema': 2, 'title': 'x', 'pages': {'p1': {'title': '', 'order': 1}}, 'filters': {'f1': "
                                        + "{'type': 'dates', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': 'day'}}, "
                                        + "'links': {}, "
                                        + "'visuals': {'v1': {'type': 'unlikely', 'page': 'p1', 'at': {'x': 0, 'y': "
                                        + "0, 'w': 8, 'h': 6}, 'title': '', %s}}}")
                                .formatted(of)
                                .replace('\'', '"'))
                .dashboard();
        return Drawers.of(
                        dashboard,
                        StateReader.read(state, dashboard, DATASETS, Kinds.ALL).state(),
                        new Sources(DATASETS, key -> Optional.empty(), today))
                .draw("v1");
    }

    private static UnlikelyDrawing drawn(String state, String of) {
        Drawing drawing = draw(state, of);
        if (drawing instanceof MisfitDrawing misfit) throw new AssertionError(misfit.why());
        return (UnlikelyDrawing) drawing;
    }

    private static final String HISTORY =
            "'dataset': 1, 'category': 'kiosk', 'measure': {'summary': 'SUM', 'column': 'litres'}, 'time': 'day', "
                    + "'step': 'MONTH'";
    private static final String NEIGHBOURS =
            "'dataset': 2, 'category': '@place', 'measure': {'summary': 'SUM', 'column': 'cases'}";

    @Test
    void standOutOfTheirOwnHistory() {
        UnlikelyDrawing drawn = drawn("", HISTORY);
        assertThat(drawn.lines()).extracting(UnlikelyDrawing.Line::key).contains("B", "C");
        UnlikelyDrawing.Line b = drawn.lines().get(0);
        assertThat(b.key()).isEqualTo("B");
        assertThat(b.when()).isEqualTo("Feb 2026");
        assertThat(b.up()).isTrue();
        assertThat(b.why()).startsWith("2,0").contains("of 25 months before").contains("deviations away");
        assertThat(b.series()[b.at()]).isEqualTo(1);
        UnlikelyDrawing.Line c = drawn.lines().stream()
                .filter(l -> l.key().equals("C"))
                .findFirst()
                .orElseThrow();
        assertThat(c.value()).as("nothing sold is nought, and stands out").isEqualTo("0");
        assertThat(c.when()).isEqualTo("Sept 2025");
        assertThat(c.up()).isFalse();
        assertThat(drawn.lines()).noneMatch(l -> l.when().equals("Jul 2026"));
        assertThat(drawn.notes()).anyMatch(n -> n.equals("Jul 2026 is not over yet and is left out."));
        assertThat(drawn.notes()).anyMatch(n -> n.contains("hardly any would"));
    }

    /** Less is known of what is not over than of others, and that is no news. */
    @ParameterizedTest
    @CsvSource({
        // Today is the newest day: more of it comes.
        "DAY, 2026-07-01, 1 Jul 2026 is not over yet",
        "MONTH, 2026-07-31, Jul 2026 is not over yet",
        "HOUR, 1970-01-01, '14:00, 1 Jul may not be over yet'",
        // The day after, all is there that comes.
        "DAY, 2026-07-02, ''"
    })
    void whatIsNotOverIsLeftOut(String step, LocalDate today, String note) {
        String hourly = HISTORY.replace("'dataset': 1", "'dataset': 4")
                .replace("'day'", "'at'")
                .replace("MONTH", step);
        UnlikelyDrawing drawn = (UnlikelyDrawing) draw("", hourly, today);
        assertThat(drawn.notes().stream().filter(n -> n.contains("left out")).toList())
                .isEqualTo(note.isEmpty() ? List.of() : List.of(note + " and is left out."));
        assertThat(drawn.lines()).isEmpty();
    }

    @Test
    void aFilterKeepsWhatIsListedAndNotWhatIsUsual() {
        UnlikelyDrawing drawn = drawn("f.f1=2026-02-01..2026-02-28", HISTORY);
        assertThat(drawn.lines()).singleElement().satisfies(line -> {
            assertThat(line.key()).isEqualTo("B");
            assertThat(line.why()).contains("of 25 months before");
        });
        assertThat(drawn.looked()).isEqualTo(3);
    }

    @Test
    void standOutOfTheirNeighbours() {
        UnlikelyDrawing drawn = drawn("", NEIGHBOURS);
        assertThat(drawn.lines().get(0).text()).contains("Soria");
        assertThat(drawn.lines().get(0).why()).startsWith("900; its 5 neighbours have 1");
        assertThat(drawn.lines().get(0).when()).isNull();
        assertThat(drawn.notes()).anyMatch(n -> n.contains("those that touch"));
        assertThat(drawn("", NEIGHBOURS + ", 'nearest': 8").notes()).anyMatch(n -> n.contains("the nearest 8"));
        assertThat(drawn(
                                "",
                                NEIGHBOURS
                                        .replace("'@place'", "'province'")
                                        .replace("'dataset': 2", "'dataset': 2, 'count': 1")
                                        .replace("'province'", "'@place'"))
                        .lines())
                .hasSize(1);
    }

    private static final String ROWS =
            "'dataset': 1, 'category': 'kiosk', 'measure': {'summary': 'SUM', 'column': 'litres'}, 'rows': true";

    @Test
    void standOutOfOtherRowsOfTheSame() {
        UnlikelyDrawing drawn = drawn("", ROWS);
        assertThat(drawn.lines()).hasSize(2);
        UnlikelyDrawing.Line b = drawn.lines().get(0);
        assertThat(b.key()).isEqualTo("B");
        assertThat(b.value()).isEqualTo("1,014");
        assertThat(b.why())
                .as("both rows of that month are one line")
                .startsWith("2 rows with 1,014 on 15 Feb 2026 to 28 Feb 2026; of 60 rows, 10")
                .contains("was usual.")
                .endsWith("deviations away.");
        assertThat(b.up()).isTrue();
        assertThat(b.at()).isEqualTo(1000);
        UnlikelyDrawing.Line a = drawn.lines().get(1);
        assertThat(a.key()).isEqualTo("A");
        // The middle of 61 rows is 107, and of what they are away from it 7.
        assertThat(a.why()).isEqualTo("1 on 1 Jul 2026; of 61 rows, 96.62 to 117.4 was usual. 10.2 deviations away.");
        assertThat(a.up()).isFalse();
        assertThat(drawn.looked()).isEqualTo(60 + 61 + 58);
        assertThat(drawn.notes()).anyMatch(n -> n.startsWith("3 of 179 stand out by 3.5 deviations"));
        assertThat(drawn.title()).isEqualTo("Unlikely values of litres by kiosk");
        // Narrowed to where it is usual, nothing is.
        assertThat(drawn("f.f1=2026-02-01..2026-02-28", ROWS).lines()).isEmpty();
    }

    @Test
    void rowsHaveNoNumberOfRowsOfTheirOwn() {
        String counted = ROWS.replace("{'summary': 'SUM', 'column': 'litres'}", "{'summary': 'COUNT'}");
        assertThat(draw("", counted))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class, m -> assertThat(m.why()).contains("no number of rows of their own"));
        assertThat(draw("", ROWS + ", 'time': 'gone'"))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class, m -> assertThat(m.why()).contains("no column of dates"));
    }

    @Test
    void saySoWhereNothingCanBeCompared() {
        assertThat(draw("", NEIGHBOURS.replace("@place", "province")))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class, m -> assertThat(m.why()).contains("has no places"));
        assertThat(draw("", HISTORY.replace("'time': 'day'", "'time': 'gone'")))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class, m -> assertThat(m.why()).contains("no column of dates"));
        assertThat(draw("", HISTORY.replace("MONTH", "HOUR")))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class, m -> assertThat(m.why()).contains("longer step"));
    }

    @Test
    void saySoWhereDaysStandFarOff() {
        String far = HISTORY.replace("'dataset': 1", "'dataset': 3");
        assertThat(draw("", far.replace("MONTH", "DAY")))
                .isInstanceOfSatisfying(
                        MisfitDrawing.class,
                        m -> assertThat(m.why()).startsWith("730,485 values are more than can be looked at"));
        assertThat(draw("", far)).isInstanceOf(UnlikelyDrawing.class);
    }
}
