package sarnik.geo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import sarnik.format.BoundaryFiles;

@DisplayName("Areas that touch")
class TouchingTest {

    private static final GeometryFactory MAKES = new GeometryFactory();

    private static Area box(String code, double west, double south, double east, double north) {
        return new Area(code, code, "", MAKES.toGeometry(new Envelope(west, east, south, north)));
    }

    private static Set<String> near(List<Area> areas, String code) {
        int[][] of = new Touching(areas).of();
        int at = areas.stream().map(Area::code).toList().indexOf(code);
        return Arrays.stream(of[at]).mapToObj(n -> areas.get(n).code()).collect(Collectors.toSet());
    }

    @Test
    void touchAlongABorderAtACornerAndInside() {
        List<Area> grid = new ArrayList<>();
        for (int x = 0; x < 3; x++) for (int y = 0; y < 3; y++) grid.add(box(x + "" + y, x, y, x + 1, y + 1));
        assertThat(near(grid, "11")).hasSize(8);
        assertThat(near(grid, "00")).containsExactlyInAnyOrder("01", "10", "11");
        List<Area> odd = List.of(
                box("wide", 0, 0, 4, 1),
                // No corner of either lies on one of the other's.
                box("above", 1, 1, 2, 2),
                box("overlaps", 3, 0.5, 5, 1.5),
                box("inside", 0.2, 0.2, 0.4, 0.4),
                box("apart", 0, 3, 1, 4));
        assertThat(near(odd, "wide")).contains("above", "overlaps").doesNotContain("apart");
        assertThat(near(odd, "apart")).isEmpty();
    }

    @Test
    void touchAcrossAGapOfLessThanAMetre() {
        assertThat(near(List.of(box("a", 0, 0, 1, 1), box("b", 1 + 6e-6, 0.3, 2, 0.7)), "a"))
                .containsExactly("b");
        assertThat(near(List.of(box("a", 0, 0, 1, 1), box("b", 1 + 1e-4, 0.3, 2, 0.7)), "a"))
                .isEmpty();
    }

    /** Soria has borders with La Rioja, Zaragoza, Guadalajara, Segovia and Burgos; islands have none. */
    @Test
    void areTheProvincesThatLieNextToEachOther() {
        List<Area> provinces =
                BoundaryFiles.shipped(BoundaryFiles.Shipped.PROVINCES).areas();
        int[][] of = new Touching(provinces).of();
        List<String> names = provinces.stream().map(Area::name).toList();
        int soria = names.indexOf("Soria");
        assertThat(Arrays.stream(of[soria]).mapToObj(names::get))
                .contains("Burgos", "Segovia", "Guadalajara", "Zaragoza")
                .hasSize(5);
        for (int a = 0; a < of.length; a++)
            for (int other : of[a]) assertThat(of[other]).as("both ways").contains(a);
        assertThat(Arrays.stream(of).filter(near -> near.length == 0)).isNotEmpty();
    }
}
