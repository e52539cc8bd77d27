package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("The nearest town")
class TownIndexTest {

    private static Place town(String id, double lon, double lat) {
        return new Place(id, PlaceLevel.TOWN, id, "", "", "", false, lon, lat, 0);
    }

    @Test
    void isTheOneThatALookAtAllOfThemFinds() {
        Random random = new Random(7);
        List<Place> towns = new ArrayList<>();
        for (int i = 0; i < 2000; i++)
            towns.add(town(
                    "t" + i, random.nextDouble() * 360 - 180, Math.toDegrees(Math.asin(random.nextDouble() * 2 - 1))));
        TownIndex index = new TownIndex(towns);
        for (int i = 0; i < 2000; i++) {
            Place point = town("p", random.nextDouble() * 360 - 180, random.nextDouble() * 180 - 90);
            double within = 20_000 + random.nextInt(2_000_000);
            Optional<Place> expected = towns.stream()
                    .min(Comparator.comparingDouble(point::metresTo))
                    .filter(t -> point.metresTo(t) <= within);
            assertThat(index.nearest(point.lon(), point.lat(), within).map(Place::id))
                    .isEqualTo(expected.map(Place::id));
        }
    }

    @Test
    void isFoundAcrossTheDateLineAndAtThePole() {
        TownIndex index =
                new TownIndex(List.of(town("east", 179.9, 10), town("far", 170, 10), town("north", 90, 89.9)));
        assertThat(index.nearest(-179.9, 10, 100_000)).map(Place::id).contains("east");
        assertThat(index.nearest(-90, 89.95, 50_000)).map(Place::id).contains("north");
        assertThat(index.nearest(0, 0, 1_000_000)).isEmpty();
        assertThat(new TownIndex(List.of()).nearest(0, 0, 1e9)).isEmpty();
    }

    @Test
    void onlyWhatIsFoundBecomesAPlace() {
        double[] lon = {0, 10, 20, 30};
        List<Integer> made = new ArrayList<>();
        TownIndex index = new TownIndex(new int[] {1, 2, 3}, i -> lon[i], i -> 0, i -> {
            made.add(i);
            return town("t" + i, lon[i], 0);
        });
        assertThat(index.nearest(21, 0, 500_000)).map(Place::id).contains("t2");
        assertThat(index.nearest(0, 0, 500_000)).isEmpty();
        assertThat(made).containsExactly(2);
    }
}
