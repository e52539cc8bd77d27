package sarnik.query;

import java.util.List;

/** What rows are grouped by. */
public sealed interface GroupKey {

    String column();

    /** It as people read it. */
    String words();

    /** The values of a column as they are. */
    record Of(String column) implements GroupKey {
        @Override
        public String words() {
            return column;
        }
    }

    /**
     * The steps of time that dates or date-times lie in; keys are the texts of {@link TimeStep#text}.
     *
     * @param zone the time zone whose clock is read, where date-times are those of UTC, such as Europe/Madrid; null to
     *     read them as they are
     */
    record Step(String column, TimeStep step, String zone) implements GroupKey {
        @Override
        public String words() {
            return step.words() + " of " + column + (zone == null ? "" : " in " + zone);
        }
    }

    /**
     * The classes that numbers lie in; keys are the numbers of the classes, from 0.
     *
     * @param breaks ascending; a value that is a break belongs to the class above it, as with histograms
     */
    record Classes(String column, List<Double> breaks) implements GroupKey {
        public Classes {
            breaks = List.copyOf(breaks);
        }

        @Override
        public String words() {
            return "classes of " + column;
        }
    }

    /** Columns as they are. */
    static List<GroupKey> of(List<String> columns) {
        return columns.stream().map(c -> (GroupKey) new Of(c)).toList();
    }
}
