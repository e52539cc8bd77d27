package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.dashboard.Fixture.DASHBOARD;
import static sarnik.dashboard.Fixture.DATASETS;
import static sarnik.dashboard.Fixture.ENGINE;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.state.ReaderState;
import sarnik.visual.Box;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Question;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;
import tools.jackson.databind.json.JsonMapper;

@DisplayName("Briefs and proposals")
class BriefTest {

    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private final BriefWriter writer = new BriefWriter(DASHBOARD, DATASETS, new Choices(ENGINE));

    private static Stream<Brief.Control> slots(Brief brief) {
        return Stream.concat(brief.parts().stream(), brief.finish().stream())
                .filter(Brief.Control.class::isInstance)
                .map(Brief.Control.class::cast);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "v1 | A map of symbols: one circle for each place of Refills, sized by sum of litres, coloured "
                        + "by average of litres in two natural classes. When a place is picked here, every other "
                        + "visual is narrowed.",
                "v2 | Bars: the top two of place in Refills by sum of litres, ranked of what is picked. When a "
                        + "place is picked here, the map and the figure sum of litres are narrowed.",
                "v3 | One figure: the sum of litres in Refills.",
                "v4 | Bars: all values of status in Kiosks by number of rows.",
                "f1 | The reader may choose values of product in Refills, by the alphabet; nothing chosen is called "
                        + "“all”.",
                "f2 | The reader may choose a range of day in Refills; periods are counted from today."
            })
    void eachPartIsOneSentence(String id, String sentence) {
        assertThat(writer.write(id).text()).isEqualTo(sentence);
    }

    @Test
    void whatHasGoneIsSaid() {
        assertThatThrownBy(() -> writer.write("v77"))
                .isInstanceOf(MisfitException.class)
                .hasMessageContaining("taken away");
    }

    @Test
    void numberSlotsOfferOnlyNumbersEachWithItsValue() {
        Brief.Control measure = slots(writer.write("v3"))
                .filter(s -> s.name().equals("measure"))
                .findFirst()
                .orElseThrow();
        assertThat(measure.options())
                .extracting(Brief.Option::text)
                .contains("number of rows", "sum of litres", "distinct count of kiosk")
                .doesNotContain("sum of product", "sum of kiosk");
        assertThat(measure.options())
                .filteredOn(o -> o.text().equals("sum of litres"))
                .extracting(Brief.Option::hint)
                .containsExactly("1.17 k");
    }

    @ParameterizedTest
    @CsvSource({"v1", "v2", "v3", "v4", "f1", "f2"})
    void everyOptionOfEverySlotMakesADocumentThatHolds(String id) {
        DashboardDocument document = DashboardDocument.parse(Fixture.DOCUMENT);
        assertThat(slots(writer.write(id))
                        .filter(s -> s.kind() != Brief.Kind.TIP
                                && s.kind() != Brief.Kind.SHARED_KEY
                                && s.kind() != Brief.Kind.PERIOD))
                .isNotEmpty()
                .allSatisfy(slot -> {
                    for (Brief.Option option : slot.options()) {
                        String patch = MAPPER.writeValueAsString(
                                List.of(Map.of("op", "add", "path", slot.path(), "value", valueOf(slot, option))));
                        Dashboard after = document.edit(patch).after().dashboard();
                        assertThat(new BriefWriter(after, DATASETS, new Choices(ENGINE))
                                        .write(id)
                                        .text())
                                .as("%s set to %s", slot.name(), option.text())
                                .isNotBlank();
                        if (after.visuals().containsKey(id)) {
                            Drawing drawing = Drawers.of(after, ReaderState.NOTHING, DATASETS)
                                    .draw(id);
                            assertThat(drawing).as(option.text()).isNotInstanceOf(MisfitDrawing.class);
                            // A kind of layer may ask for more; it says what.
                            if (drawing instanceof MapDrawing map
                                    && !slot.name().equals("kind of layer"))
                                assertThat(map.layers())
                                        .as(option.text())
                                        .noneMatch(l -> l instanceof LayerDrawn.OfNothing
                                                && !l.head().hidden());
                        }
                    }
                    if (slot.removable()) document.edit("[{\"op\":\"remove\",\"path\":\"" + slot.path() + "\"}]");
                });
    }

    /** What an option sets: where several can be chosen, a list of it; of what is told when hovered, its measures. */
    private static Object valueOf(Brief.Control slot, Brief.Option option) {
        if (slot.kind() == Brief.Kind.SET || slot.kind() == Brief.Kind.ORDER) return List.of(option.value());
        return option.value();
    }

    @Nested
    @DisplayName("Proposals")
    class OfQuestions {

        private int next;

        @ParameterizedTest
        @EnumSource(Question.class)
        void eachQuestionHasAnswersThatCanBeAddedAndDrawn(Question question) {
            DashboardDocument document = DashboardDocument.parse(Fixture.DOCUMENT);
            List<Proposals.Added> proposals =
                    new Proposals(DASHBOARD, "p1", () -> "x" + next++).answer(question, Fixture.REFILLS);
            assertThat(proposals).isNotEmpty().allSatisfy(proposal -> {
                Dashboard after = document.edit(MAPPER.writeValueAsString(proposal.ops()))
                        .after()
                        .dashboard();
                if (question == Question.LET_CHOOSE && !after.visuals().containsKey(proposal.id()))
                    assertThat(after.filters().containsKey(proposal.id())
                                    || after.parameters().containsKey(proposal.id())
                                    || after.formulas().containsKey(proposal.id()))
                            .isTrue();
                else
                    assertThat(Drawers.of(after, ReaderState.NOTHING, DATASETS).draw(proposal.id()))
                            .isNotInstanceOf(MisfitDrawing.class);
                assertThat(proposal.words()).isNotBlank();
            });
        }

        @Test
        void whereNeedsAPlace() {
            LoadedDataset unplaced =
                    new LoadedDataset(9, "Plain", sarnik.table.TestTables.csv("a,b", "x,1"), null, Map.of());
            assertThat(new Proposals(DASHBOARD, "p1", () -> "y").answer(Question.WHERE, unplaced))
                    .isEmpty();
        }

        @Test
        void newVisualsStandWhereThereIsRoom() {
            Proposals.Added figure = new Proposals(DASHBOARD, "p1", () -> "z")
                    .answer(Question.HOW_MUCH, Fixture.REFILLS)
                    .get(0);
            Dashboard after = DashboardDocument.parse(Fixture.DOCUMENT)
                    .edit(MAPPER.writeValueAsString(figure.ops()))
                    .after()
                    .dashboard();
            Box at = after.visuals().get(figure.id()).at();
            assertThat(DASHBOARD.visuals().values())
                    .allSatisfy(v -> assertThat(at.x() >= v.at().x() + v.at().w()
                                    || v.at().x() >= at.x() + at.w()
                                    || at.y() >= v.at().y() + v.at().h()
                                    || v.at().y() >= at.y() + at.h())
                            .isTrue());
        }
    }
}
