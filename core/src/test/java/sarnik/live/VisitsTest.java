package sarnik.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("Arrivals within areas")
class VisitsTest {

    private static final long MINUTE = 60_000;

    /** A yard from 0 to 1 degrees east, out of which one has to be by a tenth of a degree. */
    private static final Visits.Finder YARD = (lon, lat, known) ->
            "yard".equals(known) ? (lon > -0.1 && lon < 1.1 ? "yard" : null) : lon >= 0 && lon <= 1 ? "yard" : null;

    private static List<Movement.Position> way(double... lons) {
        List<Movement.Position> way = new ArrayList<>();
        for (int i = 0; i < lons.length; i++) way.add(new Movement.Position(i * MINUTE, lons[i], 40));
        return way;
    }

    @Test
    void entersAndLeaves() {
        assertThat(Visits.of(way(-1, 0.2, 0.8, 2), YARD, 5 * MINUTE))
                .containsExactly(new Visits.Visit("yard", MINUTE, 2 * MINUTE, 3 * MINUTE, 0.2, 40));
    }

    @Test
    void isThereStillAndTremblesAtTheEdge() {
        assertThat(Visits.of(way(-1, 0.01, -0.05, 0.02, -0.09), YARD, 5 * MINUTE))
                .containsExactly(new Visits.Visit("yard", MINUTE, 4 * MINUTE, null, 0.01, 40));
        assertThat(Visits.of(way(-1, -0.05, -0.09), YARD, 5 * MINUTE))
                .as("never in")
                .isEmpty();
    }

    @Test
    void nobodyKnowsWhereItWasInAHole() {
        List<Movement.Position> way = List.of(
                new Movement.Position(0, 0.5, 40),
                new Movement.Position(MINUTE, 0.5, 40),
                new Movement.Position(60 * MINUTE, 0.5, 40));
        assertThat(Visits.of(way, YARD, 5 * MINUTE))
                .containsExactly(
                        new Visits.Visit("yard", 0, MINUTE, null, 0.5, 40),
                        new Visits.Visit("yard", 60 * MINUTE, 60 * MINUTE, null, 0.5, 40));
    }

    @Test
    void goesFromOneAreaStraightIntoTheNext() {
        Visits.Finder tiles = (lon, lat, known) -> lon < 0 ? null : String.valueOf((int) lon);
        assertThat(Visits.of(way(0.5, 1.5, 1.6, 2.5), tiles, 5 * MINUTE))
                .extracting(Visits.Visit::area, Visits.Visit::entered, Visits.Visit::left)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("0", 0L, MINUTE),
                        org.assertj.core.groups.Tuple.tuple("1", MINUTE, 3 * MINUTE),
                        org.assertj.core.groups.Tuple.tuple("2", 3 * MINUTE, null));
    }

    /** Without edges and holes, each position lies in the visit that a plain look at it says, and in no other. */
    @Test
    void holdsEachPositionOnceOnMadeUpWays() {
        Random chance = new Random(11);
        for (int world = 0; world < 200; world++) {
            double[] lons = new double[60];
            double at = 0;
            for (int i = 0; i < lons.length; i++) lons[i] = at += chance.nextGaussian() * 0.4;
            Visits.Finder tiles = (lon, lat, known) ->
                    Math.floorMod((long) Math.floor(lon), 2) == 0 ? "even " + (long) Math.floor(lon) : null;
            List<Movement.Position> way = way(lons);
            List<Visits.Visit> visits = Visits.of(way, tiles, 5 * MINUTE);
            for (Movement.Position p : way) {
                String said = tiles.at(p.lon(), p.lat(), null);
                assertThat(visits.stream()
                                .filter(v -> v.entered() <= p.millis() && p.millis() <= v.last())
                                .map(Visits.Visit::area)
                                .toList())
                        .isEqualTo(said == null ? List.of() : List.of(said));
            }
        }
    }
}
