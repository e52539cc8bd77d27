package sarnik.visual.player;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.query.TimeStep;
import sarnik.visual.Box;
import sarnik.visual.Source;
import sarnik.visual.Visual;

/**
 * A control that moves time for a page.
 *
 * @param dataset whose column gives the steps
 * @param column of dates or times
 * @param also columns of other datasets that are played as well, by dataset; null for none
 * @param step what it moves by; null for what suits the column
 * @param mode what is shown of a moment; null for {@link Mode#MOMENT}
 * @param window of a window: how many steps it shows; null for 1
 * @param speed steps a second; null for 2
 * @param repeat whether it begins anew at the end; null for no
 * @param words how the moment is said, with {@code {moment}} in the place of it; null for the moment alone
 * @param measure what the spread behind the handle is of; null for the number of rows
 * @param rule a standing rule of the rows whose spread is drawn; null for none
 */
public record Player(
        String page,
        Box at,
        String title,
        long dataset,
        String column,
        Map<Long, String> also,
        TimeStep step,
        Mode mode,
        Integer window,
        Integer speed,
        Boolean repeat,
        String words,
        Measure measure,
        Rule rule)
        implements Visual {

    /** What is shown of a moment. */
    public enum Mode {
        /** The step alone. */
        MOMENT,
        /** So many steps that end with it. */
        WINDOW,
        /** It and all before it. */
        UP_TO
    }

    Mode shows() {
        return mode == null ? Mode.MOMENT : mode;
    }

    Measure spread() {
        return measure == null ? Measure.ROWS : measure;
    }

    int steps() {
        return shows() == Mode.WINDOW && window != null ? Math.max(1, window) : 1;
    }

    List<Source> sources() {
        List<Source> sources = new ArrayList<>(List.of(new Source(dataset, column)));
        if (also != null) also.forEach((id, name) -> sources.add(new Source(id, name)));
        return sources;
    }
}
