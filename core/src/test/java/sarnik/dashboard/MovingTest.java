package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static sarnik.dashboard.KindsTest.BARS;
import static sarnik.dashboard.KindsTest.FIGURE;
import static sarnik.dashboard.KindsTest.LINES;
import static sarnik.dashboard.KindsTest.LIST;
import static sarnik.dashboard.KindsTest.RING;
import static sarnik.dashboard.KindsTest.SALES;
import static sarnik.dashboard.KindsTest.TABLE;
import static sarnik.dashboard.KindsTest.document;
import static sarnik.table.TestTables.csv;

import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.state.ReaderState;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.list.ListDrawing;
import sarnik.visual.list.Listing;

@DisplayName("A dashboard onto another dataset, a visual on another dashboard")
class MovingTest {

    private static final LoadedDataset OTHER = new LoadedDataset(
            7,
            "Other sales",
            csv("Town,kind,Day,moment,litres,money,size", "Faro,flat,2026-01-01,2026-01-01T08:00,7,1,2"),
            null,
            Map.of());

    @Test
    void columnsAreMatchedByNameWhereTheyHoldTheSameKindOfValues() {
        assertThat(Moving.used(document(BARS, TABLE, LINES, LIST), SALES, OTHER))
                .extracting(Moving.Used::name, Moving.Used::to)
                .containsExactlyInAnyOrder(
                        tuple("town", "Town"), tuple("litres", "litres"), tuple("product", null), tuple("day", "Day"));
        assertThat(Moving.used(document(TABLE), SALES, OTHER))
                .filteredOn(u -> u.name().equals("product"))
                .singleElement()
                .satisfies(u -> assertThat(u.fitting()).containsExactly("Town", "kind"));
    }

    @Test
    void whatNamesAColumnNamesTheOtherAndWordsOfPeopleStay() {
        DashboardDocument document = document(
                LIST.replace("'pick'", "'title': 'town', 'pick'").replace("'title': '', ", ""),
                FIGURE + ", 'rule': {'column': 'town', 'values': ['town']}");
        DashboardDocument moved =
                Moving.onto(document, 1, 7, Map.of("town", "Town", "day", "Day", "litres", "litres"), "Elsewhere?");
        assertThat(moved.dashboard().title()).isEqualTo("Elsewhere?");
        Listing list = (Listing) moved.dashboard().visuals().get("v1");
        assertThat(list.dataset()).isEqualTo(7);
        assertThat(list.pick()).isEqualTo("Town");
        assertThat(list.text()).isEqualTo("{Town}: {litres:0.0 l}");
        assertThat(list.below()).isEqualTo("{Day:month} {gone}");
        assertThat(moved.dashboard().filters().get("f1").column()).isEqualTo("Day");
        assertThat(moved.json()).contains("\"values\":[\"town\"]");
        Datasets datasets = id -> new Datasets.Found.Ready(OTHER);
        ListDrawing drawn = (ListDrawing)
                Drawers.of(moved.dashboard(), ReaderState.NOTHING, datasets).draw("v1");
        assertThat(drawn.lines().get(0).text()).isEqualTo("Faro: 7.0 l");
    }

    @Test
    void whatNothingStandsForIsSaidByItsVisual() {
        DashboardDocument moved = Moving.onto(document(TABLE, FIGURE), 1, 7, Map.of("town", "Town"), "x");
        Datasets datasets = id -> new Datasets.Found.Ready(OTHER);
        PageDrawer drawer = Drawers.of(moved.dashboard(), ReaderState.NOTHING, datasets);
        assertThat(((MisfitDrawing) drawer.draw("v1")).why()).contains("no column “product”");
        assertThat(((FigureDrawing) drawer.draw("v2")).full()).isEqualTo("7");
    }

    @Test
    void aVisualIsPutOnAnotherDashboardWithItsLinksAndNumbers() {
        Dashboard from = document(RING, FIGURE + ", 'against': {'kind': 'PARAMETER', 'parameter': 'n1'}")
                .dashboard();
        DashboardDocument empty = DashboardDocument.empty("Other?");
        DashboardDocument ring = empty.edit(DocumentJson.write(Moving.copied(from, "v1", empty.dashboard(), "vx")))
                .after();
        assertThat(ring.dashboard().visuals()).containsOnlyKeys("vx");
        assertThat(ring.dashboard().links().values())
                .singleElement()
                .extracting("from")
                .isEqualTo("vx");
        DashboardDocument figure = ring.edit(DocumentJson.write(Moving.copied(from, "v2", ring.dashboard(), "vy")))
                .after();
        assertThat(figure.dashboard().parameters()).containsOnlyKeys("n1");
        assertThat(figure.dashboard().visuals().get("vy").at().y()).isNotNegative();
    }

    @Test
    void whatIsAboutAnotherPartStaysBesideIt() {
        Dashboard from = document(RING, "'type': 'key', 'of': 'v1'").dashboard();
        assertThatThrownBy(() -> Moving.copied(from, "v2", from, "vx"))
                .isInstanceOf(MisfitException.class)
                .hasMessageContaining("stays beside that");
    }
}
