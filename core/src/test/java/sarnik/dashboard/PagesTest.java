package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.brief.Choices;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.visual.Box;
import sarnik.visual.Question;
import sarnik.visual.Visual;
import sarnik.visual.button.Button;
import sarnik.visual.key.KeyVisual;

@DisplayName("Pages of a dashboard")
class PagesTest {

    private static final String AT = "'at': {'x': 0, 'y': %d, 'w': 8, 'h': 4}, 'title': '', ";

    /**
     * Two pages with a ring and a filter each; the first has a key of its ring, the second a button that leads back.
     */
    private static final DashboardDocument TWO = DashboardDocument.parse(("{'schema': 2, 'title': 'Two pages?', "
                    + "'pages': {'p1': {'title': 'All', 'order': 1}, 'p2': {'title': '', 'order': 2, 'hidden': true}}, "
                    + "'filters': {"
                    + "'f1': {'type': 'choice', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': 'product', "
                    + "'title': ''}, "
                    + "'f2': {'type': 'choice', 'page': 'p2', 'order': 1, 'dataset': 1, 'column': 'town', 'title': "
                    + "''}}, "
                    + "'links': {'k1': {'from': 'v1'}, 'k2': {'from': 'v4', 'to': ['v1', 'v5']}}, "
                    + "'visuals': {"
                    + "'v1': {'page': 'p1', " + AT.formatted(0) + KindsTest.RING + ", 'colour': {'category': 'town'}}, "
                    + "'v2': {'page': 'p1', " + AT.formatted(4) + KindsTest.BARS + "}, "
                    + "'v3': {'page': 'p1', " + AT.formatted(8) + "'type': 'key', 'of': 'v1'}, "
                    + "'v4': {'page': 'p2', " + AT.formatted(0) + KindsTest.RING + "}, "
                    + "'v5': {'page': 'p2', " + AT.formatted(4) + KindsTest.FIGURE + "}, "
                    + "'v6': {'page': 'p2', " + AT.formatted(8)
                    + "'type': 'button', 'words': 'Back', 'does': {'kind': 'PAGE', 'page': 'p1'}}}}")
            .replace('\'', '"'));

    private static final Dashboard DASHBOARD = TWO.dashboard();

    private static StateReader.Read read(String address) {
        return StateReader.read(address, DASHBOARD, KindsTest.DATASETS, Kinds.ALL);
    }

    private static Stream<String> showing(String address) {
        return new Narrowing(
                        DASHBOARD,
                        read(address).state(),
                        KindsTest.DATASETS,
                        Kinds.ALL,
                        LocalDate.EPOCH,
                        Fixture.ENGINE)
                .nowShowing().stream().map(Narrowing.Showing::id);
    }

    @Test
    void areLookedAtByTheirAddress() {
        assertThat(read("g.page=p2").state().text()).isEqualTo("g.page=p2");
        assertThat(read("g.page=p1").state().text())
                .as("the first needs no word")
                .isEmpty();
        StateReader.Read gone = read("g.page=p9");
        assertThat(gone.state().text()).isEmpty();
        assertThat(gone.misfits()).singleElement().asString().contains("page that this dashboard no longer has");
    }

    @Test
    void keepLinksAndFiltersToThemselvesUnlessALinkNamesAnother() {
        assertThat(Narrowing.touched(DASHBOARD, Kinds.ALL, "v1")).containsExactlyInAnyOrder("v2", "v3");
        assertThat(Narrowing.touched(DASHBOARD, Kinds.ALL, "v4")).containsExactlyInAnyOrder("v1", "v5");
        assertThat(Narrowing.touched(DASHBOARD, Kinds.ALL, "f2")).containsExactlyInAnyOrder("v4", "v5", "v6");
    }

    @Test
    void sayWhatNarrowsThemAndNotWhatNarrowsOthers() {
        String all = "f.f1=still&f.f2=Soria&p.v1=Soria&p.v4=Zamora";
        assertThat(showing(all)).containsExactly("f1", "v1", "v4");
        assertThat(showing(all + "&g.page=p2")).containsExactly("f2", "v4");
    }

    @Test
    void goWithAllThatStandsOnThem() {
        Removal.Removed removed = Removal.of(DASHBOARD, "p1");
        Dashboard after = TWO.edit(removed.patch()).after().dashboard();
        assertThat(after.pages()).containsOnlyKeys("p2");
        assertThat(after.visuals()).as("the button led nowhere").containsOnlyKeys("v4", "v5");
        assertThat(after.filters()).containsOnlyKeys("f2");
        assertThat(after.links().get("k2").to()).containsExactly("v5");
        assertThat(removed.words()).containsExactly("the 3 visuals on it", "its filter", "the button “Back”", "a link");
        assertThat(TWO.edit(removed.patch()).words()).isEqualTo("taking away the page “All”");
    }

    @Test
    void comeBackWhole() {
        DashboardDocument.Edit edit = TWO.edit(Removal.of(DASHBOARD, "p1").patch());
        assertThat(edit.after().edit(edit.inverse()).after().dashboard()).isEqualTo(DASHBOARD);
    }

    @Test
    void areLeftByAVisualThatIsMoved() {
        DashboardDocument.Edit edit = TWO.edit("[{\"op\": \"replace\", \"path\": \"/visuals/v2\", \"value\": "
                + DocumentJson.write(
                        Proposals.placed(DASHBOARD.visuals().get("v2"), "p2", Proposals.free(DASHBOARD, "p2", 8, 4)))
                + "}]");
        assertThat(edit.after().dashboard().visuals().get("v2").at()).isEqualTo(new Box(8, 0, 8, 4));
        assertThat(edit.words()).isEqualTo("moving the bars to another page");
    }

    @Test
    void areNeverNone() {
        Dashboard one = TWO.edit(Removal.of(DASHBOARD, "p2").patch()).after().dashboard();
        assertThatThrownBy(() -> Removal.of(one, "p1"))
                .isInstanceOf(DashboardException.class)
                .hasMessageContaining("only page");
    }

    @Test
    void areDuplicatedWithWhatIsAboutEachOther() {
        int[] next = {0};
        Remaking.Copy copy = Remaking.copy(DASHBOARD, "p1", () -> "x" + next[0]++);
        Dashboard after = TWO.edit(DocumentJson.write(copy.ops())).after().dashboard();
        assertThat(after.pageIds()).containsExactly("p1", "p2", copy.id());
        assertThat(after.pageName(copy.id())).isEqualTo("All, again");
        Map<Boolean, List<Visual>> visuals = after.visuals().values().stream()
                .collect(Collectors.partitioningBy(v -> v.page().equals(copy.id())));
        assertThat(visuals.get(true)).hasSize(3);
        assertThat(visuals.get(false))
                .containsExactlyInAnyOrderElementsOf(DASHBOARD.visuals().values());
        KeyVisual key = (KeyVisual) visuals.get(true).stream()
                .filter(KeyVisual.class::isInstance)
                .findFirst()
                .orElseThrow();
        assertThat(after.visuals().get(key.of()).page()).isEqualTo(copy.id());
        assertThat(after.filtersOf(copy.id())).hasSize(1);
        assertThat(after.links()).hasSize(3);
        assertThat(TWO.edit(DocumentJson.write(copy.ops())).words()).isEqualTo("adding the page “All, again”");
    }

    @Test
    void areCalledByTheirPlaceUntilTheyHaveATitle() {
        assertThat(DASHBOARD.pageName("p2")).isEqualTo("Page 2");
        BriefWriter writer = new BriefWriter(DASHBOARD, KindsTest.DATASETS, new Choices(new InMemoryEngine()));
        assertThat(writer.write("p2").parts().toString()).contains("The second page", "hidden");
        assertThat(writer.write("v6").parts().toString()).contains("goes to the page “All”");
        assertThat(writer.write("v5").finish().toString()).contains("on the page “Page 2”");
    }

    @Test
    void areAPlaceToAddTo() {
        Proposals proposals = new Proposals(DASHBOARD, "p2", () -> "new");
        Dashboard after = TWO.edit(DocumentJson.write(proposals
                        .answer(Question.HOW_MUCH, KindsTest.SALES)
                        .get(0)
                        .ops()))
                .after()
                .dashboard();
        assertThat(after.visuals().get("vnew").page()).isEqualTo("p2");
        assertThat(after.visuals().get("vnew").at())
                .as("the first page is not in its way")
                .isEqualTo(new Box(8, 0, 5, 4));
        assertThat(after.visuals().values())
                .filteredOn(Button.class::isInstance)
                .hasSize(1);
    }
}
