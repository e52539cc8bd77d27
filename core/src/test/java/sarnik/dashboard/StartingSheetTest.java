package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sarnik.visual.Box;
import sarnik.visual.Visual;

@DisplayName("Sheets to start from")
class StartingSheetTest {

    private static int fresh;

    private static DashboardDocument made(StartingSheet sheet, DashboardDocument onto, List<String> bare) {
        StartingSheet.Made made = sheet.made(onto.dashboard(), "p1", Fixture.REFILLS, () -> "n" + fresh++);
        bare.addAll(made.bare());
        return onto.edit(DocumentJson.write(made.ops())).after();
    }

    @ParameterizedTest
    @EnumSource(StartingSheet.class)
    void areFilledWithWhatAnswersTheirQuestions(StartingSheet sheet) {
        List<String> bare = new ArrayList<>();
        DashboardDocument page = made(sheet, DashboardDocument.empty("Where?"), bare);
        assertThat(bare).isEmpty();
        assertThat(page.dashboard().visuals()).hasSize(sheet.places().size());
        List<Box> boxes =
                page.dashboard().visuals().values().stream().map(Visual::at).toList();
        assertThat(boxes)
                .containsExactlyInAnyOrderElementsOf(
                        sheet.places().stream().map(StartingSheet.Place::at).toList());
        for (int i = 0; i < boxes.size(); i++)
            for (int j = 0; j < i; j++)
                assertThat(Proposals.overlap(boxes.get(i), boxes.get(j))).isFalse();
        // A second one stands below the first.
        DashboardDocument twice = made(sheet, page, new ArrayList<>());
        assertThat(twice.dashboard().visuals()).hasSize(2 * sheet.places().size());
    }

    @Test
    void twoMapsShowTwoThings() {
        DashboardDocument page = made(StartingSheet.TWO_MAPS, DashboardDocument.empty("Where?"), new ArrayList<>());
        assertThat(page.dashboard().visuals().values().stream()
                        .filter(visual -> Kinds.ALL.of(visual).name().equals("map"))
                        .map(visual -> DocumentJson.plain(visual).get("layers"))
                        .distinct())
                .hasSize(2);
    }

    @Test
    void aWatchWallFillsTheWindowInLargeLetters() {
        DashboardDocument page = made(StartingSheet.WATCH_WALL, DashboardDocument.empty("Now?"), new ArrayList<>());
        assertThat(page.dashboard().pages().get("p1").size().fit()).isEqualTo(Dashboard.Fit.WINDOW);
        String any = page.dashboard().visuals().keySet().iterator().next();
        assertThat(page.dashboard().finishOf(any).lettering()).isEqualTo(Finish.Lettering.LARGE);
    }

    @Test
    void whatNothingAnswersIsSaid() {
        StartingSheet.Made made = StartingSheet.TWO_MAPS.made(
                DashboardDocument.empty("x").dashboard(), "p1", KindsTest.SALES, () -> "n" + fresh++);
        assertThat(made.bare()).containsExactly("“Where?”");
        assertThat(made.ops()).isNotEmpty();
        assertThatThrownBy(() -> StartingSheet.of("none")).hasMessageContaining("no sheet to start from");
        assertThat(StartingSheet.of("watch_wall")).isEqualTo(StartingSheet.WATCH_WALL);
    }
}
