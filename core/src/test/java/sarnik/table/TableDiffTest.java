package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class TableDiffTest {

    @Test
    void rowsWithAKeyAreSameChangedAddedOrGone() {
        TableDiff diff =
                TableDiff.of(csv("code,n", "K1,1", "K2,2", "K3,3"), csv("code,n", "K2,2", "K3,4", "K9,9", "K8,8"));
        assertThat(diff).isEqualTo(new TableDiff(1, 1, 2, 1, "code", List.of(), List.of()));
    }

    @Test
    void withoutAKeyRowsAreComparedWholeAndCounted() {
        TableDiff diff = TableDiff.of(csv("a,b", "x,1", "x,1", "y,2"), csv("a,b", "x,1", "y,3", "y,2", "x,1", "x,1"));
        assertThat(diff).isEqualTo(new TableDiff(3, 0, 2, 0, null, List.of(), List.of()));
    }

    @Test
    void columnsThatCameOrWentAreNamedAndTakeNoPart() {
        TableDiff diff = TableDiff.of(csv("code,n,old", "K1,1,x"), csv("code,new,n", "K1,y,1"));
        assertThat(diff.newColumns()).containsExactly("new");
        assertThat(diff.goneColumns()).containsExactly("old");
        assertThat(diff.same()).isEqualTo(1);
    }

    @Test
    void aColumnWithGapsOrRepeatsIsNoKey() {
        assertThat(TableDiff.of(csv("a,b", "x,1", ",2"), csv("a,b", "x,1", "y,2"))
                        .key())
                .isNull();
        assertThat(TableDiff.of(csv("a,b", "x,1", "x,2"), csv("a,b", "x,1", "y,2"))
                        .key())
                .isNull();
    }

    @Property(tries = 100)
    void theCountsAddUpToTheRowsOfBothTables(@ForAll long seed) {
        Random random = new Random(seed);
        Table before = any(random);
        Table after = any(random);
        TableDiff diff = TableDiff.of(before, after);
        assertThat(diff.same() + diff.changed() + diff.gone()).isEqualTo(before.rows());
        assertThat(diff.same() + diff.changed() + diff.added()).isEqualTo(after.rows());
        assertThat(TableDiff.of(before, before).same()).isEqualTo(before.rows());
    }

    private static Table any(Random random) {
        List<String> lines = new ArrayList<>(List.of("a,b,c"));
        for (int i = 1 + random.nextInt(30); i > 0; i--)
            lines.add("t" + random.nextInt(5) + "," + random.nextInt(3) + ",u" + random.nextInt(2));
        return csv(lines.toArray(String[]::new));
    }

    @Test
    void rowsThatStandInAnotherTableAreFoundAsOftenAsTheyOccur() {
        Table before = TestTables.csv("a,b", "x,1", "x,1", "y,2");
        Table after = TestTables.csv("b,a", "1,x", "1,x", "1,x", "2,y", "3,z");
        assertThat(TableDiff.rowsNotIn(before, after)).containsExactly(2, 4);
        assertThat(TableDiff.rowsNotIn(after, before)).isEmpty();
    }

    @Test
    void partnersAreCountedOnBothSidesOfATie() {
        ValueMatch match = ValueMatch.of(
                TestTables.csv("v,w", "x,1", "x,1", "q,1", ",1").column("v"),
                TestTables.csv("u,w", "x,1", "y,1").column("u"));
        assertThat(match).isEqualTo(new ValueMatch(2, 4, 1, 2));
    }
}
