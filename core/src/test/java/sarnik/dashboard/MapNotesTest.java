package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.dashboard.MapFixture.options;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.place.Place;
import sarnik.query.InMemoryEngine;
import sarnik.state.ReaderState;
import sarnik.visual.Note;
import sarnik.visual.map.MapDrawing;

@DisplayName("Notes on a map")
class MapNotesTest {

    private static final Place SORIA = MapFixture.sales().places().values().stream()
            .filter(p -> p.name().equals("Soria"))
            .findFirst()
            .orElseThrow();

    private static DashboardDocument noted() {
        return MapFixture.document("\"dataset\": 1")
                .edit(DocumentJson.write(List.of(Map.of(
                        "op",
                        "add",
                        "path",
                        "/visuals/v1/pinned",
                        "value",
                        List.of(new Note(SORIA.id(), "Closed in May"), new Note("gone", "x"))))))
                .after();
    }

    @Test
    void standBesideTheirPlaceAndAreLeftOutWhereItHasGone() {
        MapDrawing map = (MapDrawing) Drawers.of(noted().dashboard(), ReaderState.NOTHING, MapFixture.DATASETS)
                .draw("v1");
        assertThat(map.pinned()).singleElement().satisfies(note -> {
            assertThat(note.place()).isEqualTo("Soria");
            assertThat(note.lon()).isCloseTo(-2.47, within(0.05));
            assertThat(note.lat()).isCloseTo(41.76, within(0.05));
            assertThat(note.text()).isEqualTo("Closed in May");
        });
    }

    @Test
    void areAddedMovedAndWordedFromTheBrief() {
        Choices choices = new Choices(new InMemoryEngine());
        Brief first = new BriefWriter(MapFixture.map("\"dataset\": 1"), MapFixture.DATASETS, choices).write("v1");
        assertThat(options(first, "/visuals/v1/pinned")).containsExactly("at Benavente", "at Soria", "at Zamora");
        Brief brief = new BriefWriter(noted().dashboard(), MapFixture.DATASETS, choices).write("v1");
        assertThat(brief.text()).contains("with notes at Soria “Closed in May” and at gone “x”");
        assertThat(options(brief, "/visuals/v1/pinned/0/at")).contains("Zamora");
    }
}
