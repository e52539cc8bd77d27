package sarnik.sql;

import java.time.Instant;
import java.util.List;

/**
 * What a database answers.
 *
 * @param rows for each row its values: String, Long or Double as the statement says, null for missing
 * @param at when it was asked
 */
public record SqlRows(List<Object[]> rows, Instant at) {}
