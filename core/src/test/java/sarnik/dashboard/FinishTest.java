package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.query.InMemoryEngine;

@DisplayName("How visuals, pages and dashboards are dressed")
class FinishTest {

    private static final DashboardDocument PAGE = DashboardDocument.parse(
            ("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': 'One', 'order': 1}, 'p2': {'title': 'Two', "
                            + "'order': 2},"
                            + " 'p3': {'title': 'Three', 'order': 3}}, "
                            + "'filters': {}, 'links': {}, 'visuals': {'v1': {'page': 'p1', "
                            + "'at': {'x': 0, 'y': 0, 'w': 6, 'h': 4}, 'title': '', " + KindsTest.FIGURE + "}}}")
                    .replace('\'', '"'));

    private static DashboardDocument edited(String patch) {
        return PAGE.edit(patch.replace('\'', '"')).after();
    }

    private static Brief brief(DashboardDocument document, String id) {
        return new BriefWriter(document.dashboard(), KindsTest.DATASETS, new Choices(new InMemoryEngine())).write(id);
    }

    private static String looks(DashboardDocument document, String id) {
        return new Brief(brief(document, id).finish(), List.of()).text();
    }

    @Test
    void isSaidOfAVisualBeforeItsPageAndOfAPageBeforeAll() {
        DashboardDocument dressed =
                edited("[{'op': 'add', 'path': '/finishes', 'value': {'all': {'border': 'STRONG', 'space': 'WIDE', "
                        + "'ground': 'TINT'}, "
                        + "'p1': {'border': 'NONE', 'space': 'TIGHT'}, 'v1': {'border': 'DOUBLE'}}}]");
        Finish worn = dressed.dashboard().finishOf("v1");
        assertThat(worn.border()).isEqualTo(Finish.Border.DOUBLE);
        assertThat(worn.space()).isEqualTo(Finish.Space.TIGHT);
        assertThat(worn.ground()).isEqualTo(Finish.Ground.TINT);
        assertThat(worn.corners()).isEqualTo(Finish.Corners.SQUARE);
        assertThat(looks(dressed, "v1"))
                .contains("On a tint within a double line with square corners and no shadow, little space inside");
        assertThat(looks(dressed, "p1")).contains("within no line", "on all pages", "a strong line");
    }

    @Test
    void anOlderDashboardIsDressedAsAFieldSheet() {
        assertThat(PAGE.dashboard().finishOf("v1")).isEqualTo(Finish.USUAL);
        assertThat(looks(PAGE, "v1")).contains("On the sheet’s ground within a fine line", "shown to readers");
    }

    @Test
    void aPageHasASizeAndStandsUnderAnother() {
        DashboardDocument sized = edited(
                "[{'op': 'add', 'path': '/pages/p1/size', 'value': {'fit': 'FIXED', 'width': 1600, 'trimmed': true}}, "
                        + "{'op': 'add', 'path': '/pages/p3/under', 'value': 'p1'}]");
        assertThat(brief(sized, "p1").text())
                .contains("It fills a width of 1600 pixels, trimmed to what stands on it.");
        assertThat(brief(sized, "p3").text()).contains("under “One”");
        assertThat(sized.dashboard().pageIds()).containsExactly("p1", "p3", "p2");
        // A page on which others lean leans on none, and none leans on itself.
        String both = "[{'op': 'add', 'path': '/pages/p3/under', 'value': 'p1'}, "
                + "{'op': 'add', 'path': '/pages/p1/under', 'value': 'p2'}]";
        assertThatThrownBy(() -> edited(both)).hasMessageContaining("cannot stand under that page");
        assertThatThrownBy(() -> edited("[{'op': 'add', 'path': '/pages/p1/under', 'value': 'p1'}]"))
                .hasMessageContaining("cannot stand under");
        DashboardDocument without =
                sized.edit(Removal.of(sized.dashboard(), "p1").patch()).after();
        assertThat(without.dashboard().pageIds()).containsExactly("p2", "p3");
        assertThat(without.dashboard().above("p3")).isNull();
    }

    @Test
    void ownColoursWithTooLittleContrastAreRefusedInWords() {
        String pale = "[{'op': 'add', 'path': '/own', 'value': {'paper': '#FFFFFF', 'ink': '#999999', "
                + "'deed': '#1F5F66', 'picked': '#A9461F'}}]";
        assertThatThrownBy(() -> edited(pale))
                .isInstanceOf(DashboardException.class)
                .hasMessage("The ink is hard to read on the paper: its contrast is 2.8, and has to be 4.5. Take a "
                        + "darker one.");
        assertThatThrownBy(() -> edited(pale.replace("#999999", "grey")))
                .hasMessageContaining("would not fit its form");
        DashboardDocument dressed = edited(pale.replace("#999999", "#202020"));
        assertThat(looks(dressed, "p1")).contains("but for colours of your own");
        assertThat(dressed.dashboard().own().colours()).containsEntry("paper", "#FFFFFF");
    }

    /** Whatever four colours can be kept, all that is made of them can be read, by day and by night. */
    @Test
    void whatIsMadeOfOwnColoursCanBeRead() {
        Random random = new Random(5);
        int kept = 0;
        for (int i = 0; i < 4000; i++) {
            OwnTheme own = new OwnTheme(any(random), any(random), any(random), any(random));
            if (own.trouble() != null) continue;
            kept++;
            for (Map<String, String> colours : List.of(own.colours(), own.nightColours()))
                for (String name : List.of("ink", "faint", "loch", "rust", "lichen", "sun", "town"))
                    assertThat(OwnTheme.contrast(rgb(colours.get(name)), rgb(colours.get("paper"))))
                            .as("%s of %s", name, own)
                            .isGreaterThanOrEqualTo(OwnTheme.READABLE);
            assertThat(colours(own)).isEqualTo(colours(OwnTheme.BEGINNING));
        }
        assertThat(kept).isGreaterThan(30);
        assertThat(OwnTheme.BEGINNING.trouble()).isNull();
    }

    private static Set<String> colours(OwnTheme own) {
        return own.colours().keySet();
    }

    private static String any(Random random) {
        return "#%06X".formatted(random.nextInt(0x1000000));
    }

    private static int rgb(String hex) {
        return Integer.parseInt(hex.substring(1, 7), 16);
    }
}
