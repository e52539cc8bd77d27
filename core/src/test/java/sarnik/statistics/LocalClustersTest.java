package sarnik.statistics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("More than chance")
class LocalClustersTest {

    /** Squares in rows of so many, next to those at their sides. */
    private static Neighbours grid(int width, int height) {
        int[][] of = new int[width * height][];
        for (int p = 0; p < of.length; p++) {
            int x = p % width;
            int y = p / width;
            List<Integer> near = new ArrayList<>();
            if (y > 0) near.add(p - width);
            if (x > 0) near.add(p - 1);
            if (x < width - 1) near.add(p + 1);
            if (y < height - 1) near.add(p + width);
            of[p] = near.stream().mapToInt(Integer::intValue).toArray();
        }
        return new Neighbours(of);
    }

    /**
     * Worked by hand: of 0, 0, 0, 0, 6 in a row the mean is 1.2, the deviation 2.4; the last two sum to 6 where 2.4 are
     * usual.
     */
    @Test
    void hotSpotsAreThoseOfTheFormula() {
        LocalClusters.Found[] found = LocalClusters.hotSpots(new double[] {0, 0, 0, 0, 6}, grid(5, 1), 0, 1);
        assertThat(found[4].value()).isCloseTo((6 - 2.4) / (2.4 * Math.sqrt((5 * 2 - 4) / 4.0)), within(1e-12));
        assertThat(found[3].value()).isCloseTo((6 - 3.6) / (2.4 * Math.sqrt((5 * 3 - 9) / 4.0)), within(1e-12));
        assertThat(found[0].kind()).isEqualTo(LocalClusters.Kind.LOW);
        assertThat(found[4].chance()).isCloseTo(Rates.chanceOf(found[4].value()), within(1e-12));
    }

    /** The mean of all local values is Moran's I (Anselin 1995): −1 on a chessboard, near 1 where halves lie apart. */
    @Test
    void theMeanOfLocalValuesIsTheWholes() {
        double[] chessboard =
                IntStream.range(0, 64).mapToDouble(p -> (p % 8 + p / 8) % 2).toArray();
        LocalClusters.Found[] board = LocalClusters.alike(chessboard, grid(8, 8), 9, 1);
        assertThat(Arrays.stream(board)
                        .mapToDouble(LocalClusters.Found::value)
                        .average()
                        .orElse(0))
                .isCloseTo(-1, within(1e-12));
        assertThat(board[0].kind()).isEqualTo(LocalClusters.Kind.LOW_ALONE);
        assertThat(board[1].kind()).isEqualTo(LocalClusters.Kind.HIGH_ALONE);
        double[] halves = IntStream.range(0, 64).mapToDouble(p -> p / 32).toArray();
        LocalClusters.Found[] apart = LocalClusters.alike(halves, grid(8, 8), 999, 1);
        assertThat(apart[0].value()).isEqualTo(1);
        assertThat(apart[0].kind()).isEqualTo(LocalClusters.Kind.LOW);
        assertThat(apart[63].kind()).isEqualTo(LocalClusters.Kind.HIGH);
    }

    /** Against all ways to put the other values elsewhere. */
    @Test
    void chancesAreThoseOfAllWaysToPutValuesElsewhere() {
        double[] values = {9, 7, 1, 4, 2, 8, 3, 0};
        int[][] of = {{1, 5}, {0}, {3}, {2}, {5}, {4}, {7}, {6}};
        double sum = values[1] + values[5];
        int above = 0;
        int below = 0;
        int all = 0;
        for (int a = 1; a < 8; a++)
            for (int b = a + 1; b < 8; b++, all++) {
                if (values[a] + values[b] >= sum) above++;
                if (values[a] + values[b] <= sum) below++;
            }
        double exact = Math.min(1, 2.0 * Math.min(above, below) / all);
        LocalClusters.Found[] found = LocalClusters.alike(values, new Neighbours(of), 100_000, 3);
        assertThat(found[0].chance()).isCloseTo(exact, within(0.01));
        assertThat(LocalClusters.hotSpots(values, new Neighbours(of), 100_000, 3)[0].chance())
                .isCloseTo(exact, within(0.01));
        assertThat(LocalClusters.alike(values, new Neighbours(of), 999, 3))
                .as("the same seed says the same")
                .isEqualTo(LocalClusters.alike(values, new Neighbours(of), 999, 3));
    }

    /** In values that lie by chance nearly nothing is found; what is put there is. */
    @Test
    void findsWhatIsThereAndNothingElse() {
        Random chance = new Random(8);
        double[] values =
                IntStream.range(0, 900).mapToDouble(p -> chance.nextGaussian()).toArray();
        assertThat(found(LocalClusters.hotSpots(values, grid(30, 30), 9999, 5))).isEmpty();
        for (int p : new int[] {404, 405, 406, 434, 435, 436, 464, 465, 466}) values[p] += 6;
        List<Integer> found = found(LocalClusters.hotSpots(values, grid(30, 30), 9999, 5));
        assertThat(found).contains(435, 405, 434, 436, 465);
        assertThat(found).allMatch(p -> Math.abs(p % 30 - 15) <= 2 && Math.abs(p / 30 - 14) <= 2);
    }

    private static List<Integer> found(LocalClusters.Found[] all) {
        return IntStream.range(0, all.length)
                .filter(p -> all[p].kind(0.05) == LocalClusters.Kind.HIGH)
                .boxed()
                .toList();
    }

    @Test
    void saysNothingWhereNothingIsKnown() {
        double[] values = {1, Double.NaN, 3, 4, 9};
        LocalClusters.Found[] found =
                LocalClusters.hotSpots(values, new Neighbours(new int[][] {{1}, {0, 2}, {1, 3}, {2}, {}}), 99, 1);
        assertThat(found[0].kind()).as("its only neighbour has no value").isEqualTo(LocalClusters.Kind.UNKNOWN);
        assertThat(found[1].kind(0.05)).isEqualTo(LocalClusters.Kind.UNKNOWN);
        assertThat(found[4].kind()).isEqualTo(LocalClusters.Kind.UNKNOWN);
        assertThat(found[2].kind()).isNotEqualTo(LocalClusters.Kind.UNKNOWN);
        assertThat(LocalClusters.alike(new double[] {2, 2, 2}, grid(3, 1), 99, 1))
                .allMatch(f -> f.kind() == LocalClusters.Kind.UNKNOWN);
        assertThatThrownBy(() -> LocalClusters.alike(values, grid(3, 1), 9, 1)).hasMessageContaining("5 values for 3");
    }

    /** Tenths add up to other doubles in another order: what is the same in whole numbers is the same in them. */
    @ParameterizedTest
    @ValueSource(doubles = {0.1, 0.7, 1e-6, 1e9})
    void sumsThatAreTheSameAreAsFarOutWhateverTheUnit(double unit) {
        Random chance = new Random(4);
        double[] whole =
                IntStream.range(0, 64).mapToDouble(p -> chance.nextInt(4)).toArray();
        double[] scaled = Arrays.stream(whole).map(v -> v * unit).toArray();
        LocalClusters.Found[] hot = LocalClusters.hotSpots(whole, grid(8, 8), 999, 2);
        LocalClusters.Found[] alike = LocalClusters.alike(whole, grid(8, 8), 999, 2);
        LocalClusters.Found[] hotScaled = LocalClusters.hotSpots(scaled, grid(8, 8), 999, 2);
        LocalClusters.Found[] alikeScaled = LocalClusters.alike(scaled, grid(8, 8), 999, 2);
        for (int p = 0; p < whole.length; p++) {
            assertThat(hotScaled[p].chance()).isEqualTo(hot[p].chance());
            assertThat(alikeScaled[p].chance()).isEqualTo(alike[p].chance());
            assertThat(hotScaled[p].value()).isCloseTo(hot[p].value(), within(1e-9));
        }
    }

    @Test
    void valuesThatAreFarFromNoughtAreToldByWhatPartsThem() {
        double[] values = {0, 3, 1, 4, 2, 8, 3, 0, 5};
        double[] far = Arrays.stream(values).map(v -> v + 1e9).toArray();
        LocalClusters.Found[] near = LocalClusters.hotSpots(values, grid(3, 3), 0, 1);
        LocalClusters.Found[] found = LocalClusters.hotSpots(far, grid(3, 3), 0, 1);
        for (int p = 0; p < values.length; p++) assertThat(found[p].value()).isCloseTo(near[p].value(), within(1e-6));
        double[] same = new double[9];
        Arrays.fill(same, 0.1);
        assertThat(LocalClusters.hotSpots(same, grid(3, 3), 99, 1))
                .allMatch(f -> f.kind() == LocalClusters.Kind.UNKNOWN);
    }

    /** Benjamini and Hochberg 1995, section 3.1: of fifteen looks four are found at 0.05. */
    @Test
    void falseDiscoveriesAreHeldDownAsPublished() {
        double[] chances = {
            0.0001, 0.0004, 0.0019, 0.0095, 0.0201, 0.0278, 0.0298, 0.0344, 0.0459, 0.3240, 0.4262, 0.5719, 0.6528,
            0.7590, 1
        };
        double[] adjusted = FalseDiscovery.adjusted(chances);
        assertThat(Arrays.stream(adjusted).filter(q -> q <= 0.05).count()).isEqualTo(4);
        assertThat(adjusted[0]).isCloseTo(0.0015, within(1e-12));
        assertThat(adjusted).isSorted();
        assertThat(FalseDiscovery.adjusted(new double[] {0.04, Double.NaN, 0.01}))
                .containsExactly(0.04, Double.NaN, 0.02);
    }

    // --- neighbours -----------------------------------------------------------------------------------

    private static double[] chance(int seed, int count, double most) {
        Random random = new Random(seed);
        return IntStream.range(0, count)
                .mapToDouble(i -> (2 * random.nextDouble() - 1) * most)
                .toArray();
    }

    private static double km(double lon, double lat, double otherLon, double otherLat) {
        double a = Math.toRadians(lat);
        double b = Math.toRadians(otherLat);
        double cos = Math.sin(a) * Math.sin(b) + Math.cos(a) * Math.cos(b) * Math.cos(Math.toRadians(lon - otherLon));
        return 6371.0088 * Math.acos(Math.max(-1, Math.min(1, cos)));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3})
    void areThoseOfALookAtAll(int seed) {
        double[] lon = chance(seed, 300, 180);
        double[] lat = chance(seed + 50, 300, 90);
        Neighbours near = Neighbours.within(lon, lat, 1500);
        Neighbours nearest = Neighbours.nearest(lon, lat, 5);
        for (int p = 0; p < 300; p++) {
            int at = p;
            assertThat(near.of()[p])
                    .containsExactly(IntStream.range(0, 300)
                            .filter(o -> o != at && km(lon[at], lat[at], lon[o], lat[o]) <= 1500)
                            .toArray());
            assertThat(nearest.of()[p])
                    .containsExactly(IntStream.range(0, 300)
                            .filter(o -> o != at)
                            .boxed()
                            .sorted(java.util.Comparator.comparingDouble(o -> km(lon[at], lat[at], lon[o], lat[o])))
                            .limit(5)
                            .mapToInt(Integer::intValue)
                            .sorted()
                            .toArray());
        }
    }

    @Test
    void ofFewAndOfTheSamePlace() {
        double[] same = {1, 1, 1, 1};
        assertThat(Neighbours.nearest(same, same, 2).of()).isDeepEqualTo(new int[][] {{1, 2}, {0, 2}, {0, 1}, {0, 1}});
        assertThat(Neighbours.nearest(new double[] {1}, new double[] {1}, 3).of()[0])
                .isEmpty();
        Neighbours alone = Neighbours.within(new double[] {0, 90}, new double[] {0, 0}, 10);
        assertThat(alone.alone()).isEqualTo(2);
        assertThat(grid(3, 3).mean()).isCloseTo(24 / 9.0, within(1e-12));
        assertThat(grid(3, 1).among(new int[] {1, 2}).of()).isDeepEqualTo(new int[][] {{1}, {0}});
    }
}
