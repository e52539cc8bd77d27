package sarnik.statistics;

import org.apache.commons.statistics.distribution.ChiSquaredDistribution;

/** Rates as they would be if ages were spread alike everywhere. */
public final class AgeStandardised {

    private AgeStandardised() {}

    /**
     * @param rate events for each of the exposure
     * @param interval of it
     */
    public record Standardised(double rate, Interval interval) {}

    /**
     * The directly standardised rate: the rates of the age bands, weighted as a standard population is spread. Its
     * interval is the gamma interval of Fay and Feuer 1997, Statistics in Medicine 16:791–801.
     *
     * @param events by age band, 0 or more
     * @param exposure people by age band, above 0 wherever the standard has any
     * @param standard the weights of the bands, in any unit
     * @return NaN and unknown where a band has nobody: what would happen to them cannot be told
     */
    public static Standardised direct(double[] events, double[] exposure, double[] standard, double confidence) {
        double whole = 0;
        for (double weight : standard) whole += weight;
        double rate = 0;
        double variance = 0;
        double largest = 0;
        for (int b = 0; b < events.length; b++) {
            if (standard[b] == 0) continue;
            if (!(exposure[b] > 0) || !(events[b] >= 0)) return new Standardised(Double.NaN, Interval.UNKNOWN);
            double weight = standard[b] / whole / exposure[b];
            rate += weight * events[b];
            variance += weight * weight * events[b];
            largest = Math.max(largest, weight);
        }
        double tail = (1 - confidence) / 2;
        double low = rate == 0
                ? 0
                : variance
                        / (2 * rate)
                        * ChiSquaredDistribution.of(2 * rate * rate / variance).inverseCumulativeProbability(tail);
        double more = rate + largest;
        double moreVariance = variance + largest * largest;
        double high = moreVariance
                / (2 * more)
                * ChiSquaredDistribution.of(2 * more * more / moreVariance).inverseSurvivalProbability(tail);
        return new Standardised(rate, new Interval(low, high));
    }

    /**
     * The indirectly standardised ratio: events over what there would be if each age band had the rate of the standard;
     * with Garwood's interval of the events.
     *
     * @param events of all ages together
     * @param exposure people by age band
     * @param rates of the standard by age band, events for each of the exposure
     * @return 1 where there are as many as the standard has; NaN where none are expected
     */
    public static Standardised indirect(double events, double[] exposure, double[] rates, double confidence) {
        double expected = 0;
        for (int b = 0; b < exposure.length; b++) {
            if (!(exposure[b] >= 0) || !(rates[b] >= 0)) return new Standardised(Double.NaN, Interval.UNKNOWN);
            expected += exposure[b] * rates[b];
        }
        if (!(expected > 0)) return new Standardised(Double.NaN, Interval.UNKNOWN);
        return new Standardised(events / expected, Rates.poisson(events, expected, confidence));
    }
}
