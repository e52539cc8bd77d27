package sarnik.query;

import static sarnik.language.Language.phrase;

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
     * @param zone the time zone whose clock is read, where date-times are those of UTC, such as Europe/Madrid; the name
     *     of a column that says the zone of each row, which begins with @; null to read them as they are
     */
    record Step(String column, TimeStep step, String zone) implements GroupKey {

        /** The column that says the zone of each row; null where it is the same for all. */
        public String zoneColumn() {
            return zone != null && zone.startsWith("@") ? zone : null;
        }

        @Override
        public String words() {
            if (zone == null) return phrase("{0} of {1}", step.said(), column);
            return zoneColumn() == null
                    ? phrase("{0} of {1} in {2}", step.said(), column, zone)
                    : phrase("{0} of {1} in each row’s own time zone", step.said(), column);
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
            return phrase("classes of {0}", column);
        }
    }

    /** Columns as they are. */
    static List<GroupKey> of(List<String> columns) {
        return columns.stream().map(c -> (GroupKey) new Of(c)).toList();
    }
}
