package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.MapFixture.options;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.brief.Parts;
import sarnik.query.InMemoryEngine;
import sarnik.visual.map.LayerDrawn;

@DisplayName("Layers without data")
class BareLayersTest {

    private static final String OUTLINES = "\"kind\": \"OUTLINES\", \"set\": \"Provinces of Spain\"";
    private static final String PICTURES = "\"kind\": \"PICTURES\", \"set\": \"Aerial\"";
    private static final Choices CHOICES = new Choices(
            new InMemoryEngine(),
            List.of(MapFixture.PROVINCES),
            List.of(),
            List.of("Aerial"),
            Map.of(),
            Map.of(),
            Parts.NONE,
            Map.of());

    @Test
    void areDrawnAmongOthersAndCredited() {
        MapFixture.Drawn drawn = MapFixture.draw(PICTURES, OUTLINES + ", \"label\": {}", "\"dataset\": 1");
        assertThat(drawn.map().layers().get(0)).isInstanceOfSatisfying(LayerDrawn.OfPictures.class, pictures -> {
            assertThat(pictures.source()).isEqualTo("Aerial");
            assertThat(pictures.head().name()).isEqualTo("Aerial");
        });
        assertThat(drawn.map().layers().get(1))
                .isInstanceOfSatisfying(
                        LayerDrawn.OfOutlines.class,
                        outlines -> assertThat(outlines.named()).isTrue());
        assertThat(drawn.map().credits()).anyMatch(c -> c.contains("Instituto Geográfico Nacional"));
        assertThat(drawn.map().trail().steps().get(0).words()).isEqualTo("All rows");
    }

    @Test
    void restOnNoDatasetAndAMapOfThemAloneHasATitle() {
        Dashboard dashboard = MapFixture.map(OUTLINES);
        var map = dashboard.visuals().get("v1");
        assertThat(Kinds.ALL.of(map).datasets(map)).isEmpty();
        assertThat(MapFixture.draw(OUTLINES).map().title()).isEqualTo("Provinces of Spain");
        assertThat(MapFixture.draw(OUTLINES).map().trail().empty()).isNull();
    }

    @Test
    void thatHaveGoneAreSaidAndTheRestStands() {
        MapFixture.Drawn drawn = MapFixture.draw(
                OUTLINES.replace("Provinces of Spain", "Old ones"), "\"kind\": \"OUTLINES\"", "\"dataset\": 1");
        assertThat(drawn.map().layers().get(0).head().notes())
                .singleElement()
                .asString()
                .contains("“Old ones” has been taken away");
        assertThat(drawn.map().layers().get(1).head().notes())
                .singleElement()
                .asString()
                .contains("No boundary set is chosen");
        assertThat(drawn.map().layers().get(2)).isInstanceOf(LayerDrawn.OfSymbols.class);
    }

    @Test
    void haveASentenceAndAreAddedFromTheMapsOwn() {
        DashboardDocument document = MapFixture.document(OUTLINES, PICTURES);
        Brief brief = new BriefWriter(document.dashboard(), MapFixture.DATASETS, CHOICES).write("v1");
        assertThat(brief.text()).contains("on top pictures of Aerial").contains("outlines of Provinces of Spain");
        assertThat(options(brief, "/visuals/v1/layers/l3"))
                .contains("outlines of Provinces of Spain", "pictures of Aerial");
        assertThat(options(brief, "/visuals/v1/layers/l1/label")).containsExactly("their names");
        DashboardDocument named = document.edit(
                        "[{\"op\": \"add\", \"path\": \"/visuals/v1/layers/l1/label\", \"value\": {}}]")
                .after();
        assertThat(new BriefWriter(named.dashboard(), MapFixture.DATASETS, CHOICES)
                        .write("v1")
                        .text())
                .contains("outlines of Provinces of Spain with their names");
        assertThat(MapFixture.draw("h.v1=l1", Map.of(), Map.of(), OUTLINES)
                        .map()
                        .layers()
                        .get(0))
                .as("hidden by the reader")
                .isInstanceOf(LayerDrawn.OfNothing.class);
    }
}
