package sarnik.sql;

import java.util.List;

/** Asks a database. Safe to share between threads. */
public interface SqlRunner {

    /**
     * Asks several questions, as many at once as the database is asked.
     *
     * @return an answer for each, in their order
     * @throws sarnik.query.QueryException when one cannot be answered; the message says why, for people
     */
    List<SqlRows> ask(List<SqlStatement> statements);

    /** Asks one question. */
    default SqlRows ask(SqlStatement statement) {
        return ask(List.of(statement)).get(0);
    }
}
