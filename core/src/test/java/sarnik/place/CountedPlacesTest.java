package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("Places of rows that stand for others")
class CountedPlacesTest {

    private static final TablePlacer PLACER = new TablePlacer(Gazetteer.shipped());

    private final Table words =
            TestTables.csv("town,province\nSoria,Soria\nZamora,Zamora\nNowhere at all,Burgos\nSoria,Soria\n");

    @Test
    void countAsManyRowsAsTheyStandForAndTheCommonestComesFirst() {
        PlacedTable placed = PLACER.byName(words, new Placing.ByName("town", "province", null));
        assertThat(placed.finds().get(0).words().town()).as("twice here").isEqualTo("Soria");
        long[] counts = {5, 1_000, 20, 7};
        PlacedTable counted = placed.counted(counts);
        assertThat(counted.finds().stream().map(f -> f.words().town()))
                .containsExactly("Zamora", "Nowhere at all", "Soria");
        assertThat(counted.finds().stream().map(PlacedTable.Find::rows)).containsExactly(1_000L, 20L, 12L);
        for (Match.State state : Match.State.values()) {
            long rows = 0;
            for (int row = 0; row < counts.length; row++) if (placed.match(row).state() == state) rows += counts[row];
            assertThat(counted.rows(state)).as(state.name()).isEqualTo(rows);
        }
        for (int row = 0; row < words.rows(); row++)
            assertThat(counted.match(row)).as("row %d lies where it lay", row).isEqualTo(placed.match(row));
        assertThat(counted.places().keySet()).isEqualTo(placed.places().keySet());
    }

    @Test
    void areSaidByTheColumnsOfTheirPlacing() {
        assertThat(new Placing.ByName("town", null, "country").columns()).containsExactly("town", "country");
        assertThat(new Placing.ByCoordinates("lat", "lon").columns()).containsExactly("lat", "lon");
        assertThat(new Placing.ByTie("kiosk", 7, "code").columns()).containsExactly("kiosk");
        assertThat(new Placing.ByThing("device", "name", "lat", "lon").columns())
                .containsExactly("device", "name", "lat", "lon");
        Placing both = new Placing.FromTo(new Placing.ByWords("from"), new Placing.ByCode("to"));
        assertThat(both.columns()).as("the destination first").isEqualTo(List.of("to", "from"));
        assertThat(new Placing.ByArea("province", "Provinces").columns()).containsExactly("province");
    }
}
