package sarnik.visual;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import sarnik.data.LoadedDataset;
import sarnik.query.Query;

/**
 * How a visual is drawn: the queries that it needs, all known before any is asked, and what is drawn of their answers.
 * Drawing asks nothing, keeps nothing and reads no clock.
 */
public final class Plan {

    private final List<Asked> asked = new ArrayList<>();
    private Function<Answers, Drawing> draw;

    /** A visual that needs no query. */
    public static Plan of(Drawing drawing) {
        return new Plan().drawn(answers -> drawing);
    }

    /** Puts a query on the list. */
    public Asked ask(LoadedDataset dataset, Query query) {
        Asked one = new Asked(dataset, query);
        asked.add(one);
        return one;
    }

    /** Says what is drawn of the answers. */
    public Plan drawn(Function<Answers, Drawing> how) {
        draw = how;
        return this;
    }

    /** All queries. */
    public List<Asked> asked() {
        return List.copyOf(asked);
    }

    public Drawing draw(Answers answers) {
        return draw.apply(answers);
    }
}
