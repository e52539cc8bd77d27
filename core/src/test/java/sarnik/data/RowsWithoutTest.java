package sarnik.data;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.formula.Formula;
import sarnik.formula.Scope;
import sarnik.formula.Unworked;
import sarnik.query.QueryException;

@DisplayName("Rows without a value")
class RowsWithoutTest {

    @Test
    void areToldOnlyWhereThereAreSome() {
        assertThat(RowsWithout.words(new Unworked())).isEmpty();
        assertThat(RowsWithout.words(() -> 0)).isEmpty();
        assertThat(RowsWithout.words(() -> 1))
                .hasValueSatisfying(
                        words -> assertThat(words).startsWith("1 row has no value: a part of it cannot be worked out"));
        assertThat(RowsWithout.words(() -> 1200))
                .hasValueSatisfying(words -> assertThat(words).startsWith("1,200 rows have no value: "));
    }

    @Test
    void thatCouldNotBeCountedAreNotTakenForNone() {
        assertThat(RowsWithout.words(() -> {
                    throw new QueryException("The database does not answer");
                }))
                .hasValue("In how many rows it has no value could not be counted: The database does not answer");
        assertThat(RowsWithout.words(() -> {
                    Formula.parse("litrs + 1", new Scope(Map.of(), Map.of(), Set.of(), Set.of()));
                    return 0;
                }))
                .hasValueSatisfying(words -> assertThat(words).contains("could not be counted: There is no column"));
    }
}
