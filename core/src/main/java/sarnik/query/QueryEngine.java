package sarnik.query;

import sarnik.table.Table;

/** Answers queries. */
public interface QueryEngine {

    /**
     * @return one entry a group; without grouping columns always exactly one
     * @throws QueryException when a column is missing or a condition or measure does not fit its type
     */
    Frame answer(Table table, Query query);
}
