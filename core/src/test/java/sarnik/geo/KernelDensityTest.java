package sarnik.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import sarnik.format.BoundaryFiles;

class KernelDensityTest {

    private static final double[] ONE = {1};

    @Test
    void betweenCellsItChangesWithoutSteps() {
        KernelDensity density = new KernelDensity(new double[] {-3.7}, new double[] {40.4}, new double[] {1}, 10_000);
        double most = 0;
        double last = 0;
        double step = 0;
        // A tenth of a cell at a time, across the whole reach.
        for (int i = -700; i <= 700; i++) {
            double now = density.between(new KernelDensity.Coordinates(-3.7 + i * 0.0002, 40.4));
            step = Math.max(step, Math.abs(now - last));
            most = Math.max(most, now);
            last = now;
        }
        assertThat(most).isBetween(0.93 * density.peak(), density.peak());
        assertThat(step).isLessThan(0.04 * density.peak());
    }

    @Test
    void onePointHasTheKernelAboutIt() {
        KernelDensity density = new KernelDensity(new double[] {-3}, new double[] {40}, new double[] {100}, 5000);
        // 3/(πr²) of its weight at its middle, r = 5 km.
        assertThat(density.peak()).isCloseTo(100 * 3 / (Math.PI * 25), within(1e-9));
        assertThat(density.at(new KernelDensity.Coordinates(-3, 40))).isEqualTo(density.peak());
        // 2.5 km to the north: (1 - 1/4)² of it, within a cell's step.
        double half = density.at(new KernelDensity.Coordinates(-3, 40 + 2.5 / 111.195));
        assertThat(half).isCloseTo(density.peak() * 0.5625, within(density.peak() * 0.09));
        assertThat(density.at(new KernelDensity.Coordinates(-3, 40.06)))
                .as("beyond the radius")
                .isZero();
        assertThat(density.at(new KernelDensity.Coordinates(20, 10))).isZero();
    }

    @Test
    void itsVolumeIsTheWeightAtEveryLatitude() {
        for (double lat : new double[] {0, 40, 65}) {
            KernelDensity density = new KernelDensity(new double[] {10}, new double[] {lat}, ONE, 20_000);
            double sum = 0;
            double step = 500;
            for (double north = -21_000; north <= 21_000; north += step) {
                for (double east = -21_000; east <= 21_000; east += step) {
                    double atLat = lat + Math.toDegrees(north / 6_378_137);
                    sum += density.at(new KernelDensity.Coordinates(
                                    10 + Math.toDegrees(east / 6_378_137 / Math.cos(Math.toRadians(lat))), atLat))
                            * step
                            * step
                            / 1e6;
                }
            }
            assertThat(sum).as("at latitude " + lat).isCloseTo(1, within(0.03));
        }
    }

    @Test
    void pointsAddUpAndMissingWeightsCountNothing() {
        double one = new KernelDensity(new double[] {0}, new double[] {0}, ONE, 1000).peak();
        assertThat(new KernelDensity(
                                new double[] {0, 0, 0}, new double[] {0, 0, 0}, new double[] {1, 2, Double.NaN}, 1000)
                        .peak())
                .isCloseTo(3 * one, within(1e-9));
        assertThat(new KernelDensity(new double[0], new double[0], new double[0], 1000).peak())
                .isZero();
        assertThatThrownBy(() -> new KernelDensity(ONE, ONE, ONE, 0)).hasMessageContaining("above 0");
    }

    @Test
    void thePolesAreTakenToLieWhereTheMapEnds() {
        KernelDensity density =
                new KernelDensity(new double[] {0, 0}, new double[] {90, -90}, new double[] {1, 1}, 50_000);
        assertThat(density.peak()).isBetween(1e-5, 1e-2);
    }

    @Test
    void areasHaveTheirSizeOnTheGround() throws ParseException {
        Area degree = new Area(
                "x",
                "x",
                "",
                new WKTReader()
                        .read("POLYGON((0 0, 1 0, 1 1, 0 1, 0 0), (0.4 0.4, 0.6 0.4, 0.6 0.6, 0.4 0.6, 0.4 0.4))"));
        // A degree of latitude is 111.195 km on this sphere; the hole takes a twenty-fifth.
        assertThat(degree.squareKilometres()).isCloseTo(111.195 * 111.195 * 0.96, within(3.0));
        // Instituto Nacional de Estadística: Soria 10,306 km², Bizkaia 2,217 km².
        BoundarySet provinces = BoundaryFiles.shipped(BoundaryFiles.Shipped.PROVINCES);
        assertThat(provinces.find("42").orElseThrow().squareKilometres()).isCloseTo(10306, within(70.0));
        assertThat(provinces.find("48").orElseThrow().squareKilometres()).isCloseTo(2217, within(35.0));
    }
}
