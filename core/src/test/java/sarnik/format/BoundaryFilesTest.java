package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Geometry;
import sarnik.format.BoundaryFiles.Shipped;
import sarnik.geo.Area;
import sarnik.geo.AreaFinder;
import sarnik.geo.BoundaryCheck;
import sarnik.geo.BoundarySet;
import sarnik.geo.ShapeBand;
import sarnik.place.Gazetteer;
import sarnik.place.Match;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.PlacingGuess;
import sarnik.place.TablePlacer;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("The boundary sets that ship")
class BoundaryFilesTest {

    /** Twelve municipalities are smaller than the grid on which their source is drawn, and have no shape there. */
    @ParameterizedTest
    @CsvSource({"COUNTRIES, 241", "COMMUNITIES, 19", "PROVINCES, 52", "MUNICIPALITIES, 8119"})
    void haveAllTheirAreas(Shipped which, int areas) {
        BoundarySet set = BoundaryFiles.shipped(which);
        assertThat(set.areas()).hasSize(areas);
        assertThat(new HashSet<>(set.areas().stream().map(Area::code).toList()))
                .as("codes are unique")
                .hasSize(areas);
    }

    @ParameterizedTest
    @EnumSource(
            value = Shipped.class,
            names = {"COMMUNITIES", "PROVINCES"})
    void standUpToTheCheck(Shipped which) {
        BoundaryCheck check = BoundaryCheck.of(BoundaryFiles.shipped(which).areas());
        assertThat(check.areas()).hasSameSizeAs(BoundaryFiles.shipped(which).areas());
    }

    @ParameterizedTest(name = "{1} {2} lies in {3}")
    @CsvSource({
        "PROVINCES, -2.46883, 41.76401, Soria",
        "PROVINCES, -15.43, 28.10, Las Palmas",
        "COUNTRIES, -8.61, 41.15, Portugal",
        "COMMUNITIES, -5.66, 40.97, Castilla y León",
        "MUNICIPALITIES, -1.10646, 40.3456, Teruel",
        "PROVINCES, -8.61, 41.15,",
        "COUNTRIES, -30, 40,"
    })
    void holdThePointsThatTheyShould(Shipped which, double lon, double lat, String name) {
        BoundarySet set = BoundaryFiles.shipped(which);
        int found = new AreaFinder(set).at(lon, lat);
        assertThat(found < 0 ? null : set.areas().get(found).name()).isEqualTo(name);
    }

    @Test
    void keepTheirSharedEdgesWhenSimplified() {
        BoundarySet set = BoundaryFiles.shipped(Shipped.PROVINCES);
        List<Geometry> wide = ShapeBand.WIDE.simplify(set);
        long before =
                set.areas().stream().mapToLong(a -> a.shape().getNumPoints()).sum();
        assertThat(wide.stream().mapToLong(Geometry::getNumPoints).sum()).isLessThan(before / 2);
        // The source itself overlaps in a few slivers; simplifying adds none.
        List<Geometry> close = set.areas().stream().map(Area::shape).toList();
        assertThat(overlap(wide)).isLessThanOrEqualTo(overlap(close) + 1e-4);
        // Cut each by itself, as a comparison: neighbours then overlap a thousand times as much.
        List<Geometry> apart = close.stream()
                .map(s -> org.locationtech.jts.simplify.TopologyPreservingSimplifier.simplify(s, 0.02))
                .toList();
        assertThat(overlap(apart)).isGreaterThan(100 * (overlap(wide) + 1e-5));
    }

    /** Square degrees that more than one area covers. */
    private static double overlap(List<Geometry> shapes) {
        double area = 0;
        for (int i = 0; i < shapes.size(); i++) {
            for (int j = i + 1; j < shapes.size(); j++) {
                if (shapes.get(i).getEnvelopeInternal().intersects(shapes.get(j).getEnvelopeInternal()))
                    area += shapes.get(i).intersection(shapes.get(j)).getArea();
            }
        }
        return area;
    }

    @Test
    void placeRowsByCodeByNameAndWithLostZeros() {
        Table table = TestTables.csv("where,n", "42,1", "8,2", "Alicante,3", "ZAMORA,4", "Nowhere,5", ",6");
        PlacedTable placed =
                new TablePlacer(Gazetteer.shipped()).byArea(table, "where", BoundaryFiles.shipped(Shipped.PROVINCES));
        assertThat(java.util.stream.IntStream.range(0, 6)
                        .mapToObj(r -> placed.match(r).place() == null
                                ? null
                                : placed.match(r).place().name()))
                .containsExactly("Soria", "Barcelona", "Alacant/Alicante", "Zamora", null, null);
        assertThat(placed.match(1).reason()).contains("leading zero");
        assertThat(placed.match(4).reason()).contains("Nowhere").contains("Provinces of Spain");
        assertThat(placed.match(4).state()).isEqualTo(Match.State.UNPLACED);
        assertThat(new Placing.ByArea("where", "Provinces of Spain").words()).isEqualTo("where in Provinces of Spain");
    }

    @Test
    void areGuessedFromColumnsOfCodes() {
        PlacingGuess guess = new PlacingGuess(Gazetteer.shipped());
        List<BoundarySet> sets =
                List.of(BoundaryFiles.shipped(Shipped.PROVINCES), BoundaryFiles.shipped(Shipped.MUNICIPALITIES));
        assertThat(guess.codes(TestTables.csv("provincia,n", "01,1", "2,1", "03,1", "49,1", "42,1"), sets))
                .contains(new Placing.ByArea("provincia", "Provinces of Spain"));
        assertThat(guess.codes(TestTables.csv("ine,n", "08019,1", "28079,1", "42173,1", "49275,1", "44216,1"), sets))
                .contains(new Placing.ByArea("ine", "Municipalities of Spain"));
        assertThat(guess.codes(
                        TestTables.csv("phone,n", "0975123,1", "0975124,1", "0975125,1", "0975126,1", "0975127,1"),
                        sets))
                .isEmpty();
        assertThat(guess.codes(TestTables.csv("n,m", "1,1", "2,1", "3,1", "4,1", "5,1"), sets))
                .as("numbers are no codes")
                .isEmpty();
    }

    @Test
    void leaveNamesThatSeveralAreasHaveInDoubt() {
        Table table = TestTables.csv("town", "Teruel", "Mieres");
        PlacedTable placed = new TablePlacer(Gazetteer.shipped())
                .byArea(table, "town", BoundaryFiles.shipped(Shipped.MUNICIPALITIES));
        assertThat(placed.match(0).state()).isEqualTo(Match.State.PLACED);
        assertThat(placed.match(1).state()).as("one in Asturias, one in Girona").isEqualTo(Match.State.DOUBTFUL);
    }
}
