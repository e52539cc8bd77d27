package sarnik.visual;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import sarnik.data.LoadedDataset;
import sarnik.query.Query;
import sarnik.query.RowQuery;

/**
 * How a visual is drawn: the queries that it needs, all known before any is asked, and what is drawn of their answers.
 * Drawing asks nothing, keeps nothing and reads no clock.
 */
public final class Plan {

    private final List<Asked> asked = new ArrayList<>();
    private final List<AskedRows> rows = new ArrayList<>();
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

    /** Puts a question for rows on the list. */
    public AskedRows askRows(LoadedDataset dataset, RowQuery query) {
        AskedRows one = new AskedRows(dataset, query);
        rows.add(one);
        return one;
    }

    /** Says what is drawn of the answers. */
    public Plan drawn(Function<Answers, Drawing> how) {
        draw = how;
        return this;
    }

    /** The same queries, of whose drawing something else is made. */
    public Plan then(UnaryOperator<Drawing> made) {
        Plan plan = new Plan();
        plan.asked.addAll(asked);
        plan.rows.addAll(rows);
        return plan.drawn(answers -> made.apply(draw(answers)));
    }

    /** All queries. */
    public List<Asked> asked() {
        return List.copyOf(asked);
    }

    /** All questions for rows. */
    public List<AskedRows> askedRows() {
        return List.copyOf(rows);
    }

    public Drawing draw(Answers answers) {
        return draw.apply(answers);
    }
}
