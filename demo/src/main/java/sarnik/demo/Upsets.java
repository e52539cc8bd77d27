package sarnik.demo;

import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import sarnik.format.BoundaryFiles;
import sarnik.geo.Area;

/**
 * Upset stomachs by municipality and age, all made up: small places have few people and many old ones, and about one
 * spot more wells and more upset stomachs.
 */
final class Upsets {

    private static final Map<String, String> PROVINCES = Map.of("09", "Burgos", "26", "La Rioja", "42", "Soria");
    private static final Map<String, Integer> CAPITALS = Map.of("09059", 172_000, "26089", 150_000, "42173", 39_000);

    /** The middle of the spot, and how far it reaches, degrees. */
    private static final double[] SPOT = {-2.55, 42.05};

    private static final double REACH = 0.42;

    private static final String[] AGES = {"0–14", "15–34", "35–49", "50–64", "65–79", "80 and over"};
    private static final double[] RATES = {0.022, 0.008, 0.007, 0.009, 0.016, 0.034};
    private static final double[] YOUNG = {0.15, 0.22, 0.23, 0.20, 0.14, 0.06};
    private static final double[] OLD = {0.06, 0.12, 0.15, 0.23, 0.26, 0.18};

    private Upsets() {}

    static void write(Path file) throws IOException {
        Random random = new Random(DemoNetwork.SEED + 21);
        List<Area> areas = BoundaryFiles.shipped(BoundaryFiles.Shipped.MUNICIPALITIES).areas().stream()
                .filter(area -> area.code().length() == 5
                        && PROVINCES.containsKey(area.code().substring(0, 2)))
                .sorted(java.util.Comparator.comparing(Area::code))
                .toList();
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("municipality,province,size,water,age,cases,people\n");
            for (Area area : areas) {
                int people = CAPITALS.getOrDefault(area.code(), (int)
                        (40 * Math.exp(1.25 * Math.abs(random.nextGaussian()) + random.nextDouble() * 1.6)));
                double[] at = area.inside();
                double away = Math.hypot((at[0] - SPOT[0]) * Math.cos(Math.toRadians(at[1])), at[1] - SPOT[1]);
                boolean isNear = away < REACH;
                boolean well = people < 6000 && random.nextDouble() < (isNear ? 0.75 : 0.2);
                double local = (well ? 1.6 : 1) * (isNear ? 1.7 : 0.85) * (0.85 + 0.3 * random.nextDouble());
                double old = people > 20_000 ? 0.1 : Math.min(1, 0.3 + 200.0 / people + 0.2 * random.nextDouble());
                for (int a = 0; a < AGES.length; a++) {
                    long in = Math.round(people * (YOUNG[a] + old * (OLD[a] - YOUNG[a])));
                    out.write(String.format(
                            Locale.ROOT,
                            "%s,%s,%s,%s,%s,%d,%d%n",
                            area.code(),
                            PROVINCES.get(area.code().substring(0, 2)),
                            people < 500 ? "village" : people < 5000 ? "small town" : "town",
                            well ? "well" : "mains",
                            AGES[a],
                            events(random, in * RATES[a] * local),
                            in));
                }
            }
        }
    }

    /** A number of events that happen by themselves (Knuth 1969; a normal distribution where there are many). */
    private static long events(Random random, double expected) {
        if (expected > 60) return Math.max(0, Math.round(expected + Math.sqrt(expected) * random.nextGaussian()));
        double end = Math.exp(-expected);
        long count = -1;
        for (double product = 1; product > end; product *= random.nextDouble()) count++;
        return count;
    }
}
