package sarnik.data;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.format.BoundaryFiles;
import sarnik.geo.IndexedSet;
import sarnik.place.Gazetteer;
import sarnik.place.Place;
import sarnik.place.PlaceLevel;

@DisplayName("Places put together")
class RolledUpTest {

    private static final String PROVINCES = "Provinces of Spain";
    private static final IndexedSet SET = new IndexedSet(BoundaryFiles.shipped(BoundaryFiles.Shipped.PROVINCES));
    private static final Boundaries BOUNDARIES = name -> name.equals(PROVINCES) ? Optional.of(SET) : Optional.empty();

    private static Map<String, Place> towns(int count) {
        return Gazetteer.shipped().townsOf("ES").stream().limit(count).collect(Collectors.toMap(Place::id, p -> p));
    }

    private static Place point(String id, double lon, double lat) {
        return new Place(id, PlaceLevel.POINT, id, "", "", "", false, lon, lat, 0);
    }

    /** Scattered points over Spain, the same every time. */
    private static Map<String, Place> points(int count) {
        Random random = new Random(3);
        Map<String, Place> points = new HashMap<>();
        for (int i = 0; i < count; i++)
            points.put("p" + i, point("p" + i, -9 + 13 * random.nextDouble(), 36 + 8 * random.nextDouble()));
        return points;
    }

    @Nested
    @DisplayName("by area")
    class ByArea {

        /** The gazetteer knows the province of each town by another way than the boundary set does. */
        @Test
        void lieWhereTheGazetteerSaysToo() {
            Map<String, Place> towns = towns(400);
            RolledUp.Groups groups = new RolledUp(BOUNDARIES).groups(RolledUp.column(PROVINCES), towns);
            long same = towns.values().stream()
                    .filter(t -> groups.of().containsKey(t.id()))
                    .filter(t -> groups.places()
                            .get(groups.of().get(t.id()))
                            .name()
                            .contains(Gazetteer.shipped()
                                    .provinceOf(t)
                                    .orElseThrow()
                                    .name()))
                    .count();
            assertThat(groups.of().size()).as("a few lie in the drawn sea").isGreaterThan(385);
            assertThat((double) same / groups.of().size())
                    .as("names in two languages differ now and then")
                    .isGreaterThan(0.9);
        }

        @Test
        void thatAreAreasOfTheSetAreThemselves() {
            Place soria = new Place("a" + PROVINCES + "/42", PlaceLevel.AREA, "Soria", "", "", "", false, 0, 0, 0);
            RolledUp.Groups groups =
                    new RolledUp(BOUNDARIES).groups(RolledUp.column(PROVINCES), Map.of(soria.id(), soria));
            assertThat(groups.of()).containsEntry(soria.id(), soria.id());
            assertThat(groups.places()).containsValue(soria);
        }

        @Test
        void thatLieInNoAreaAreInNoGroup() {
            RolledUp.Groups groups =
                    new RolledUp(BOUNDARIES).groups(RolledUp.column(PROVINCES), Map.of("sea", point("sea", -20, 40)));
            assertThat(groups.of()).isEmpty();
        }

        @Test
        void ofASetThatHasGoneAreRefusedWithASentence() {
            assertThatThrownBy(() -> new RolledUp(BOUNDARIES).groups(RolledUp.column("Parishes"), towns(3)))
                    .isInstanceOf(MisfitException.class)
                    .hasMessageContaining("“Parishes” has gone");
        }
    }

    @Nested
    @DisplayName("by cell")
    class ByCell {

        @ParameterizedTest(name = "at zoom {0}")
        @ValueSource(ints = {1, 4, 7, 10, 14})
        void eachPlaceIsInOneGroupThatCountsIt(int zoom) {
            Map<String, Place> points = points(2000);
            RolledUp.Groups groups = new RolledUp(BOUNDARIES).groups(RolledUp.cells(zoom), points);
            assertThat(groups.of().keySet()).isEqualTo(points.keySet());
            Map<String, Long> members =
                    groups.of().values().stream().collect(Collectors.groupingBy(g -> g, Collectors.counting()));
            members.forEach((group, count) -> {
                Place place = groups.places().get(group);
                if (count > 1)
                    assertThat(place.population())
                            .as("members of %s", place.name())
                            .isEqualTo(count);
                else assertThat(points).as("one alone stays itself").containsKey(group);
            });
        }

        @Test
        void groupsLieInTheMiddleOfTheirPlaces() {
            Map<String, Place> two = Map.of("a", point("a", -3.001, 40.001), "b", point("b", -3.003, 40.003));
            Place group = new RolledUp(BOUNDARIES)
                    .groups(RolledUp.cells(3), two)
                    .places()
                    .values()
                    .iterator()
                    .next();
            assertThat(group.lon()).isCloseTo(-3.002, within(1e-9));
            assertThat(group.lat()).isCloseTo(40.002, within(1e-9));
        }

        @Test
        void groupsOpenAsOneComesNearer() {
            Map<String, Place> points = points(2000);
            RolledUp rolled = new RolledUp(BOUNDARIES);
            int before = 0;
            for (int zoom = 2; zoom <= 12; zoom += 2) {
                int now = Set.copyOf(
                                rolled.groups(RolledUp.cells(zoom), points).of().values())
                        .size();
                assertThat(now).as("at zoom %d", zoom).isGreaterThanOrEqualTo(before);
                before = now;
            }
        }

        @Test
        void onlyAFewZoomsAreKept() {
            Map<String, Place> points = points(50);
            RolledUp rolled = new RolledUp(BOUNDARIES);
            for (int zoom = 1; zoom <= 14; zoom++) {
                rolled.groups(RolledUp.cells(zoom), points);
                assertThat(rolled.held()).isLessThanOrEqualTo(RolledUp.MOST_CELLS);
            }
            rolled.groups(RolledUp.column(PROVINCES), points);
            for (int zoom = 1; zoom <= 14; zoom++) rolled.groups(RolledUp.cells(zoom), points);
            assertThat(rolled.held())
                    .as("areas stay")
                    .isLessThanOrEqualTo(RolledUp.MOST_CELLS + 1)
                    .isGreaterThan(1);
        }

        @Test
        void thePolesHaveACellToo() {
            assertThat(new RolledUp(BOUNDARIES)
                            .groups(RolledUp.cells(5), Map.of("n", point("n", 0, 90), "s", point("s", 180, -90)))
                            .of())
                    .hasSize(2);
        }
    }

    @Nested
    @DisplayName("as a sheet")
    class AsASheet {

        @Test
        void haveATagThatChangesWithWhatTheyAre() {
            Map<String, Place> points = points(5);
            String tag = PlaceSheet.of(points.values(), BOUNDARIES).tag();
            assertThat(PlaceSheet.of(new HashMap<>(points).values(), BOUNDARIES).tag())
                    .isEqualTo(tag);
            Map<String, Place> moved = new HashMap<>(points);
            moved.put("p3", point("p3", 1, 42));
            assertThat(PlaceSheet.of(moved.values(), BOUNDARIES).tag()).isNotEqualTo(tag);
        }

        @Test
        void areInOneOrderAndFoundByTheirNumber() {
            PlaceSheet sheet = PlaceSheet.of(points(20).values(), BOUNDARIES);
            assertThat(sheet.ids()).isSorted();
            for (int i = 0; i < sheet.ids().size(); i++)
                assertThat(sheet.index()).containsEntry(sheet.ids().get(i), i);
        }
    }
}
