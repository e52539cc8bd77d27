package sarnik.visual;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.query.RowTrail;

@DisplayName("The trail of a visual's rows")
class TrailTest {

    private static Trail trail(long all, long left, long... without) {
        List<RowTrail.Step> steps = new ArrayList<>();
        steps.add(new RowTrail.Step("All rows", all, RowTrail.Unit.ROWS));
        steps.add(new RowTrail.Step("Picked: Soria", left, RowTrail.Unit.ROWS));
        for (int i = 0; i < without.length; i++)
            steps.add(new RowTrail.Step(
                    "Not in the figures: no value of “" + "ab".charAt(i) + "”", without[i], RowTrail.Unit.WITHOUT));
        steps.add(new RowTrail.Step("Grouped by town", 3, RowTrail.Unit.GROUPS));
        return Trail.of(new RowTrail(steps));
    }

    @Test
    void tellsManyThatAreNotInTheFigures() {
        assertThat(trail(1000, 200, 62).lacking()).isEqualTo("Not in the figures: no value of “a”, 31 % of the rows.");
        assertThat(trail(200, 200, 20).lacking()).as("a tenth").contains("10 % of the rows");
        assertThat(trail(200, 200, 200, 5).lacking())
                .isEqualTo("Not in the figures: no value of “a”, 100 % of the rows.");
        assertThat(trail(200, 200, 50, 100).lacking())
                .isEqualTo("Not in the figures: no value of “a”, 25 % of the rows. "
                        + "Not in the figures: no value of “b”, 50 % of the rows.");
    }

    @Test
    void tellsNothingOfFew() {
        assertThat(trail(1000, 200, 19).lacking()).isNull();
        assertThat(trail(1000, 200).lacking()).isNull();
        assertThat(Trail.none("The map has no layer yet.").lacking()).isNull();
    }

    @Test
    void saysWhatTookTheLastRow() {
        assertThat(trail(1000, 0).empty()).isEqualTo("No row is left after this step: Picked: Soria.");
        assertThat(trail(1000, 0).lacking()).isNull();
        assertThat(trail(0, 0).empty()).contains("All rows");
        assertThat(trail(1000, 2).empty()).isNull();
    }
}
