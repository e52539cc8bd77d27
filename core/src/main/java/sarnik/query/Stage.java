package sarnik.query;

import java.util.List;

/**
 * Conditions that take rows away together; a step of the row trail.
 *
 * @param words what the stage does, as people read it
 * @param conditions all of which a row has to meet
 */
public record Stage(String words, List<Condition> conditions) {
    public Stage {
        conditions = List.copyOf(conditions);
    }
}
