package sarnik.demo;

import java.time.LocalDate;
import java.util.List;
import java.util.Random;

/**
 * The network's refills, day by day: more in summer and at weekends, more where a kiosk has pull. The last three weeks
 * are partly provisional.
 */
public final class Refills {

    public static final List<String> PRODUCTS = List.of("still", "sparkling", "warm", "mineral");
    public static final List<String> STATES = List.of("final", "provisional");

    static final LocalDate FIRST_DAY = LocalDate.of(2024, 6, 1);
    static final LocalDate LAST_DAY = LocalDate.of(2026, 5, 31);

    /** Rows of the dataset that ships. */
    public static final int SHIPPED_ROWS = 650_000;

    private static final double[] PRICES = {0.18, 0.26, 0.30, 0.35};
    private static final double WARM_SEASON = 0.55;

    private final List<Kiosk> kiosks;
    private final double[] kioskSums;

    public Refills(DemoNetwork network) {
        kiosks = network.kiosks();
        kioskSums = Draw.sums(kiosks.stream().mapToDouble(Kiosk::pull).toArray());
    }

    /** Takes one refill. */
    @FunctionalInterface
    public interface Taker {
        /**
         * @param kiosk index of the kiosk in the network
         * @param day days since 1970-01-01
         * @param product index in {@link #PRODUCTS}
         * @param litres litres, two decimals
         * @param takings euros, two decimals
         * @param state index in {@link #STATES}
         */
        void take(int kiosk, int day, int product, double litres, double takings, int state);
    }

    public String town(int kiosk) {
        return kiosks.get(kiosk).town();
    }

    public int kiosks() {
        return kiosks.size();
    }

    /**
     * Makes refills in the order of their days; the same ones for the same seed and number.
     *
     * @param rows how many
     */
    public void make(int rows, Taker taker) {
        Random random = new Random(DemoNetwork.SEED + 1);
        int days = (int) (LAST_DAY.toEpochDay() - FIRST_DAY.toEpochDay()) + 1;
        double[] dayWeights = new double[days];
        for (int d = 0; d < days; d++) dayWeights[d] = season(FIRST_DAY.plusDays(d));
        double[] daySums = Draw.sums(dayWeights);
        int made = 0;
        for (int d = 0; d < days; d++) {
            int until = (int) Math.round(rows * daySums[d] / daySums[days - 1]);
            int day = (int) FIRST_DAY.toEpochDay() + d;
            double[] mix = Draw.sums(new double[] {5, 2, 2.4 - 1.9 * warmth(FIRST_DAY.plusDays(d)), 0.9});
            for (; made < until; made++) refill(day, days - d, mix, random, taker);
        }
    }

    private void refill(int day, int daysToEnd, double[] mix, Random random, Taker taker) {
        int kiosk = Draw.index(kioskSums, random.nextDouble() * kioskSums[kioskSums.length - 1]);
        int product = Draw.index(mix, random.nextDouble() * mix[mix.length - 1]);
        double litres = cents(Math.min(400, 18 * Math.exp(0.6 * random.nextGaussian()) * (kiosk % 7 == 0 ? 1.6 : 1)));
        int state = daysToEnd <= 21 && random.nextInt(3) > 0 ? 1 : 0;
        taker.take(kiosk, day, product, litres, cents(litres * PRICES[product]), state);
    }

    private static double cents(double value) {
        return Math.round(value * 100) / 100.0;
    }

    private static double season(LocalDate day) {
        double weekend = day.getDayOfWeek().getValue() >= 6 ? 1.25 : 1;
        return weekend * (1 + WARM_SEASON * (2 * warmth(day) - 1));
    }

    /** 0 in mid-January, 1 in mid-July. */
    private static double warmth(LocalDate day) {
        return 0.5 - 0.5 * Math.cos(2 * Math.PI * (day.getDayOfYear() - 15) / 365.0);
    }
}
