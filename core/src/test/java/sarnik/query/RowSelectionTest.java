package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.table.TestTables.csv;

import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.Table;

@DisplayName("The rows that stages leave")
class RowSelectionTest {

    private static final Table ROWS = csv(
            "product,litres,day",
            "still,10,2026-01-01",
            "warm,20,2026-01-02",
            "still,,2026-02-01",
            "still,40,2026-03-01");

    private static Stage stage(Condition... conditions) {
        return new Stage("a step", List.of(conditions));
    }

    @Test
    void areAllWithoutAStage() {
        assertThat(RowSelection.of(ROWS, List.of())).containsExactly(0, 1, 2, 3);
    }

    @Test
    void meetAllConditionsOfAllStages() {
        Stage still = stage(new Condition.OneOf("product", List.of("still")));
        assertThat(RowSelection.of(ROWS, List.of(still))).containsExactly(0, 2, 3);
        assertThat(RowSelection.of(
                        ROWS,
                        List.of(
                                still,
                                stage(
                                        new Condition.Filled("litres"),
                                        new Condition.Between("day", "2026-01-15", null)))))
                .containsExactly(3);
        assertThat(RowSelection.of(ROWS, List.of(still, stage(new Condition.OneOf("product", List.of("warm"))))))
                .isEmpty();
    }

    /** The engine counts the same rows at the end of its trail. */
    @Test
    void areAsManyAsTheTrailSays() {
        List<Stage> stages = List.of(
                stage(new Condition.OneOf("product", List.of("still"))),
                stage(new Condition.Between("litres", "5", "40")));
        Frame frame = new InMemoryEngine().answer(ROWS, Query.of(stages, List.of(), List.of(Measure.ROWS)));
        assertThat(RowSelection.of(ROWS, stages)).hasSize((int) frame.trail().rows());
    }

    @Test
    void ofAColumnThatHasGoneAreRefused() {
        assertThatThrownBy(() -> RowSelection.of(ROWS, List.of(stage(new Condition.OneOf("gone", List.of("x"))))))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining("gone");
    }
}
