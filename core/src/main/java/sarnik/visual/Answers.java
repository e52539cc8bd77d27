package sarnik.visual;

import sarnik.query.Frame;
import sarnik.query.RowPage;

/** The answers to all that plans asked. */
public interface Answers {

    /**
     * @throws sarnik.query.QueryException when the query does not fit its table; asked for by the one that it concerns
     */
    Frame of(Asked asked);

    /**
     * @throws sarnik.query.QueryException when the question does not fit its table
     */
    RowPage rows(AskedRows asked);
}
