package sarnik.visual;

import java.util.List;
import sarnik.query.Condition;
import sarnik.query.GroupKey;
import sarnik.query.TimeStep;

/**
 * How picked rows are told from others, whatever the column is called where they are told.
 */
public sealed interface Picked {

    /** The condition that rows of a dataset meet. */
    Condition on(String column);

    /** Any of these values. */
    record OneOf(List<String> values) implements Picked {
        @Override
        public Condition on(String column) {
            return new Condition.OneOf(column, values);
        }
    }

    /** The keys of the groups that a query answers with. */
    record Among(Asked asked, int key) implements Picked {
        @Override
        public Condition on(String column) {
            return new Condition.Among(column, asked.dataset().table(), asked.query(), key, false);
        }
    }

    /** A range, both ends included, null for open; in canonical text. */
    record Between(String from, String to) implements Picked {
        @Override
        public Condition on(String column) {
            return new Condition.Between(column, from, to);
        }
    }

    /**
     * Steps of time: Mondays, the hours after noon.
     *
     * @param zone whose clock is read; null to read times as they are
     */
    record InGroups(TimeStep step, String zone, List<String> groups) implements Picked {
        @Override
        public Condition on(String column) {
            return new Condition.InGroups(new GroupKey.Step(column, step, zone), groups);
        }
    }

    /** Classes of numbers, by their numbers from 0. */
    record InClasses(List<Double> breaks, List<String> groups) implements Picked {
        @Override
        public Condition on(String column) {
            return new Condition.InGroups(new GroupKey.Classes(column, breaks), groups);
        }
    }

    /** Values of a column of its own, whichever is asked for: of a visual whose marks are of several columns. */
    record In(String own, List<String> values) implements Picked {
        @Override
        public Condition on(String column) {
            return new Condition.OneOf(own, values);
        }
    }

    static Picked values(List<String> values) {
        return new OneOf(values);
    }
}
