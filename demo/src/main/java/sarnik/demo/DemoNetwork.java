package sarnik.demo;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Predicate;
import sarnik.place.Gazetteer;
import sarnik.place.Place;

/**
 * Aljibe, an invented network of drinking-water refill kiosks in Spain and Portugal. The places are real so that
 * placing
 * is real; everything else is made up. The same seed gives the same network on every machine.
 *
 * <p>Oddities, on purpose:
 *
 * <ul>
 *   <li>namesakes: towns whose name occurs in several provinces or countries are not avoided;
 *   <li>one province is spelled three ways ({@link #ALAVA});
 *   <li>phone numbers start with zeros, so they are text;
 *   <li>one town sells about fifty times what others sell ({@link #OUTLIER});
 *   <li>some kiosks never sold anything;
 *   <li>two kiosks stand in towns that exist nowhere, one row has no town.
 * </ul>
 */
public final class DemoNetwork {

    /** The seed of the demo that ships. */
    public static final long SEED = 20_260_531;

    static final List<String> ALAVA = List.of("Álava", "Araba", "Alava");
    static final String OUTLIER = "Benidorm";

    private static final List<String> MODELS = List.of("A1", "A2", "B1", "B1 solar");
    private static final double NO_SALES = 0.03;

    private final List<Kiosk> kiosks = new ArrayList<>();
    private final Random random;

    /**
     * @param seed seed of all chance
     * @param towns number of distinct towns, the larger part in Spain
     * @param kioskCount number of kiosks, at least one a town
     */
    public DemoNetwork(long seed, int towns, int kioskCount) {
        random = new Random(seed);
        List<Place> chosen = new ArrayList<>(choose("ES", towns * 3 / 4));
        chosen.addAll(choose("PT", towns - towns * 3 / 4));
        double[] upTo = new double[chosen.size()];
        double all = 0;
        for (int i = 0; i < upTo.length; i++) {
            all += Math.sqrt(chosen.get(i).population() + 100.0);
            upTo[i] = all;
        }
        for (int k = 0; k < kioskCount; k++) {
            Place town = k < chosen.size() ? chosen.get(k) : chosen.get(Draw.index(upTo, random.nextDouble() * all));
            kiosks.add(kiosk(k, town));
        }
        strange();
    }

    /** The network that ships: 900 kiosks in 620 towns. */
    public static DemoNetwork shipped() {
        return new DemoNetwork(SEED, 620, 900);
    }

    List<Kiosk> kiosks() {
        return kiosks;
    }

    /** The largest towns and some of the others, largest first. */
    private List<Place> choose(String country, int count) {
        List<Place> all = Gazetteer.shipped().townsOf(country);
        Predicate<Place> mustBeIn = p -> p.name().equals(OUTLIER) || p.name().startsWith("Vitoria");
        List<Place> chosen = new ArrayList<>(all.subList(0, Math.min(count / 2, all.size())));
        for (Place place : all) if (mustBeIn.test(place) && !chosen.contains(place)) chosen.add(place);
        List<Place> rest = new ArrayList<>(all.subList(Math.min(count / 2, all.size()), all.size()));
        rest.removeAll(chosen);
        while (chosen.size() < count && !rest.isEmpty()) {
            // Towards the larger ones: the square of a uniform number is small more often.
            double at = random.nextDouble();
            chosen.add(rest.remove((int) (at * at * rest.size())));
        }
        return chosen;
    }

    private Kiosk kiosk(int number, Place town) {
        String province = Gazetteer.shipped().provinceOf(town).map(Place::name).orElse("");
        if (ALAVA.contains(province)) province = ALAVA.get(random.nextInt(ALAVA.size()));
        boolean located = random.nextInt(3) == 0;
        double size = Math.pow(Math.max(town.population(), 300) / 20_000.0, 0.35);
        double pull = random.nextDouble() < NO_SALES ? 0 : size * Math.exp(0.5 * random.nextGaussian());
        if (town.name().equals(OUTLIER)) pull = 60;
        return new Kiosk(
                "K%04d".formatted(number + 1),
                town.name() + " "
                        + List.of("plaza", "mercado", "parque", "estación", "norte", "sur")
                                .get(random.nextInt(6)),
                town.name(),
                province,
                town.country().equals("ES") ? "Spain" : "Portugal",
                located ? town.lon() + 0.004 * random.nextGaussian() : Double.NaN,
                located ? town.lat() + 0.003 * random.nextGaussian() : Double.NaN,
                MODELS.get(random.nextInt(MODELS.size())),
                LocalDate.of(2019, 1, 7).plusDays(random.nextInt(5 * 365)),
                pull == 0
                        ? (random.nextBoolean() ? "planned" : "closed")
                        : random.nextInt(25) == 0 ? "in repair" : "open",
                List.of("yes", "yes", "no", "unknown").get(random.nextInt(4)),
                "0%08d".formatted(random.nextInt(100_000_000)),
                pull);
    }

    private void strange() {
        replaceTown(17, "Villaseca del Espejismo", kiosks.get(17).province());
        replaceTown(118, "Fontenova da Miragem", kiosks.get(118).province());
        replaceTown(301, "", kiosks.get(301).province());
    }

    private void replaceTown(int index, String town, String province) {
        if (index >= kiosks.size()) return;
        Kiosk k = kiosks.get(index);
        kiosks.set(
                index,
                new Kiosk(
                        k.code(),
                        k.name(),
                        town,
                        province,
                        k.country(),
                        Double.NaN,
                        Double.NaN,
                        k.model(),
                        k.opened(),
                        k.status(),
                        k.access(),
                        k.phone(),
                        k.pull()));
    }
}
