package sarnik.visual.bars;

import java.util.HashMap;
import java.util.Map;
import sarnik.data.LoadedDataset;
import sarnik.query.Frame;
import sarnik.statistics.Interval;
import sarnik.statistics.RateOf;

/** How sure the rates are that bars show. */
final class RatesOfBars {

    private RatesOfBars() {}

    /**
     * @param interval where a rate may well lie, as it is shown
     * @param unsure whether it rests on too few
     */
    record Sure(Interval interval, boolean unsure) {}

    /**
     * @param frame what was counted and what it could happen to, by key
     * @return by key; empty where it cannot be told what the rates are of
     */
    static Map<String, Sure> of(LoadedDataset.Rate rate, Frame frame) {
        double[] events = frame.values().get(0);
        double[] over = frame.values().get(1);
        RateOf of = rate.guessed(events, over);
        Map<String, Sure> sure = new HashMap<>();
        if (of == null) return sure;
        for (int g = 0; g < frame.size(); g++)
            if (over[g] > 0)
                sure.put(
                        frame.key(0, g),
                        new Sure(of.interval(events[g], over[g]).times(rate.times()), of.isUnsure(events[g], over[g])));
        return sure;
    }
}
