package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;

/**
 * A question about measures by steps of time. What they look back to before the stretch that is kept is asked for
 * besides: else the change to a year before would be known of no month of the year that is kept, and a moving average
 * would begin with few steps.
 */
public final class AlongTime {

    private final Asked kept;
    /** The measures that look back, over a longer stretch; null where none does. */
    private final Asked longer;

    /** Which measures look back. */
    private final List<Integer> back = new ArrayList<>();

    /**
     * @param plan takes what is asked
     * @param query whose last key may be a step of time
     * @param stretch that its stages keep of that time; empty where there is none, or nothing is known of it
     */
    public AlongTime(Plan plan, LoadedDataset dataset, Query query, Optional<Period> stretch) {
        kept = plan.ask(dataset, query);
        List<GroupKey> keys = query.groupBy();
        boolean steps = stretch.isPresent()
                && keys.get(keys.size() - 1) instanceof GroupKey.Step time
                && !time.step().comesAgain();
        for (int m = 0; steps && m < query.measures().size(); m++)
            if (looksBack(query.measures().get(m)) > 0) back.add(m);
        if (back.isEmpty()) {
            longer = null;
            return;
        }
        GroupKey.Step time = (GroupKey.Step) keys.get(keys.size() - 1);
        List<Measure> measures = back.stream().map(query.measures()::get).toList();
        int most = measures.stream().mapToInt(AlongTime::looksBack).max().orElse(0);
        Period from = stretch.get().longer(time.step(), most, dataset.table().column(time.column()));
        longer = plan.ask(
                dataset, Query.by(from.in(query.stages()), keys, measures).filled());
    }

    private static int looksBack(Measure measure) {
        return measure.over() == null ? 0 : measure.over().looksBack();
    }

    /** What is not as one would expect, behind what is there already. */
    public void note(List<String> notes) {
        for (int m : back)
            notes.add(phrase(
                    "“{0}” looks back to before what is kept.",
                    ColumnWords.brief(kept.query().measures().get(m))));
    }

    /** The answer, of the steps that are kept. */
    public Frame of(Answers answers) {
        Frame frame = answers.of(kept);
        if (longer == null) return frame;
        Frame all = answers.of(longer);
        Map<List<String>, Integer> groups = new HashMap<>();
        for (int g = 0; g < all.size(); g++) groups.put(key(all, g), g);
        List<double[]> values = new ArrayList<>(frame.values());
        for (int m = 0; m < back.size(); m++) {
            double[] of = values.get(back.get(m)).clone();
            for (int g = 0; g < of.length; g++) {
                Integer there = groups.get(key(frame, g));
                if (there != null) of[g] = all.value(m, there);
            }
            values.set(back.get(m), of);
        }
        return new Frame(frame.keys(), values, frame.trail());
    }

    private static List<String> key(Frame frame, int group) {
        String[] key = new String[frame.keys().size()];
        for (int k = 0; k < key.length; k++) key[k] = frame.key(k, group);
        return Arrays.asList(key);
    }
}
