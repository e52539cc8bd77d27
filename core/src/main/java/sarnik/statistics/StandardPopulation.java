package sarnik.statistics;

import static sarnik.language.Language.phrase;

import java.util.List;

/**
 * A population that is agreed on, by whose ages rates are made comparable.
 *
 * @param name what it is called
 * @param source where it is published
 * @param bands its age bands, from the youngest on
 */
public record StandardPopulation(String name, String source, List<Band> bands) {

    /**
     * @param from the first year of age in it
     * @param weight people of it, of the whole in whatever unit
     */
    public record Band(int from, double weight) {}

    /** The European Standard Population of 2013. */
    public static final StandardPopulation EUROPE_2013 = new StandardPopulation(
            "European Standard Population 2013",
            "Eurostat, Revision of the European Standard Population, Methodologies and Working papers, 2013",
            bands(
                    new int[] {0, 1, 5, 10, 15, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85, 90, 95},
                    1000,
                    4000,
                    5500,
                    5500,
                    5500,
                    6000,
                    6000,
                    6500,
                    7000,
                    7000,
                    7000,
                    7000,
                    6500,
                    6000,
                    5500,
                    5000,
                    4000,
                    2500,
                    1500,
                    800,
                    200));

    /** The standard of the World Health Organization, of the mean world population of 2000 to 2025. */
    public static final StandardPopulation WORLD_2000 = new StandardPopulation(
            "WHO World Standard Population 2000–2025",
            "Ahmad, Boschi-Pinto, Lopez, Murray, Lozano, Inoue 2001, Age standardization of rates: a new WHO standard, GPE"
                    + " Discussion Paper 31",
            bands(
                    new int[] {0, 5, 10, 15, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85},
                    8.86,
                    8.69,
                    8.60,
                    8.47,
                    8.22,
                    7.93,
                    7.61,
                    7.15,
                    6.59,
                    6.04,
                    5.37,
                    4.55,
                    3.72,
                    2.96,
                    2.21,
                    1.52,
                    0.91,
                    0.63));

    public static final List<StandardPopulation> ALL = List.of(EUROPE_2013, WORLD_2000);

    private static List<Band> bands(int[] from, double... weights) {
        Band[] bands = new Band[from.length];
        for (int b = 0; b < bands.length; b++) bands[b] = new Band(from[b], weights[b]);
        return List.of(bands);
    }

    public double whole() {
        return bands.stream().mapToDouble(Band::weight).sum();
    }

    /**
     * Its weights in coarser bands.
     *
     * @param from the first years of bands, ascending; each band ends where the next begins, the last has no end
     * @return the weight of each, of the whole in the same unit
     * @throws IllegalArgumentException where a band begins within one of its own: it cannot be told how many lie on
     *     either side; the message says which bands it has
     */
    public double[] weights(int[] from) {
        double[] weights = new double[from.length];
        if (from.length == 0 || from[0] > 0)
            throw new IllegalArgumentException(phrase("The first age band has to begin at 0 years."));
        for (int b = 1; b < from.length; b++) {
            int begin = from[b];
            if (bands.stream().noneMatch(band -> band.from() == begin))
                throw new IllegalArgumentException(phrase(
                        "An age band begins at {0} years; {1} has bands that begin at {2}.",
                        begin,
                        name,
                        String.join(
                                ", ",
                                bands.stream()
                                        .map(band -> Integer.toString(band.from()))
                                        .toList())));
        }
        for (Band band : bands) {
            int in = 0;
            while (in + 1 < from.length && from[in + 1] <= band.from()) in++;
            weights[in] += band.weight();
        }
        return weights;
    }
}
