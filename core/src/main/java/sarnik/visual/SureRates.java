package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.data.LoadedDataset;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.statistics.Interval;
import sarnik.statistics.RateOf;

/** How sure the rates are that a visual shows. */
public final class SureRates {

    private SureRates() {}

    /**
     * @param interval where a rate may well lie, as it is shown
     * @param unsure whether it rests on too few
     */
    public record Sure(Interval interval, boolean unsure) {}

    /** Where a rate may well lie, and whether that rests on too few; null where it is not known. */
    public static String words(Sure sure, Written written) {
        if (sure == null || !sure.interval().isKnown()) return null;
        String low = written.brief(sure.interval().low());
        String high = written.brief(sure.interval().high());
        return sure.unsure()
                ? phrase("may well lie from {0} to {1} (95 %), of too few to be sure", low, high)
                : phrase("may well lie from {0} to {1} (95 %)", low, high);
    }

    /** The two sums that a measure divides, where it can be guessed what the rate is of. */
    public static Optional<LoadedDataset.Rate> rate(LoadedDataset dataset, Measure measure) {
        return dataset.rate(measure).filter(LoadedDataset.Rate::mayBeGuessed);
    }

    /**
     * @param frame what was counted and what it could happen to, by group
     * @return one for each group, null where nothing is known of it; none where it cannot be told what the rates are of
     */
    public static List<Sure> of(LoadedDataset.Rate rate, Frame frame) {
        double[] events = frame.values().get(0);
        double[] over = frame.values().get(1);
        RateOf of = rate.guessed(events, over);
        List<Sure> sure = new ArrayList<>();
        if (of == null) return sure;
        for (int g = 0; g < frame.size(); g++)
            sure.add(
                    over[g] > 0
                            ? new Sure(
                                    of.interval(events[g], over[g]).times(rate.times()),
                                    of.isUnsure(events[g], over[g]))
                            : null);
        return sure;
    }

    /** The same by the first key of each group. */
    public static Map<String, Sure> byKey(LoadedDataset.Rate rate, Frame frame) {
        Map<String, Sure> sure = new HashMap<>();
        List<Sure> all = of(rate, frame);
        for (int g = 0; g < all.size(); g++) if (all.get(g) != null) sure.put(frame.key(0, g), all.get(g));
        return sure;
    }
}
