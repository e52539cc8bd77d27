package sarnik.visual.figure;

import sarnik.data.Format;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Sign;
import sarnik.visual.States;
import sarnik.visual.Visual;

/**
 * A key figure.
 *
 * @param against what it is compared with in a second line; null for nothing
 * @param states when it is good and when it is bad; null for no judgement
 * @param over column of time over which a tiny line is drawn; null for none
 * @param sign a small sign beside it; null for none
 * @param format how it is written; null for the usual
 * @param rule a standing rule; null for none
 */
public record Figure(
        String page,
        Box at,
        String title,
        long dataset,
        Measure measure,
        Against against,
        States states,
        String over,
        Sign sign,
        Format format,
        Rule rule)
        implements Visual {

    /**
     * @param kind what it is compared with
     * @param value of a target: the value; null for others
     * @param parameter of a target that the reader sets: id of the parameter; null for others
     * @param time of a period: the column of time it is a period of; null for others
     */
    public record Against(Kind kind, Double value, String parameter, String time) {

        /** What a figure is compared with. */
        public enum Kind {
            TARGET("a target"),
            PARAMETER("the reader's number"),
            /** What it is without what is picked. */
            WHOLE("the whole"),
            /** The stretch of the same length just before. */
            BEFORE("the period before"),
            /** The same days a year earlier. */
            YEAR("the year before");

            private final String words;

            Kind(String words) {
                this.words = words;
            }

            public String words() {
                return words;
            }

            boolean isPeriod() {
                return this == BEFORE || this == YEAR;
            }
        }
    }
}
