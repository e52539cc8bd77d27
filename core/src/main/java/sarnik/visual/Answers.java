package sarnik.visual;

import sarnik.query.Frame;

/** The answers to all that plans asked. */
@FunctionalInterface
public interface Answers {

    /**
     * @throws sarnik.query.QueryException when the query does not fit its table; asked for by the one that it concerns
     */
    Frame of(Asked asked);
}
