package sarnik.scale;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;

/**
 * How the values of a measure are read: as numbers, as dates (days since 1970-01-01) or as date-times (seconds since
 * then).
 */
public enum ValueWords {
    NUMBER {
        @Override
        public String full(double value) {
            return NumberWords.full(value);
        }

        @Override
        public String brief(double value) {
            return NumberWords.brief(value);
        }
    },
    DATE {
        @Override
        public String full(double value) {
            return Double.isFinite(value)
                    ? LocalDate.ofEpochDay((long) Math.floor(value)).toString()
                    : "–";
        }
    },
    TIME {
        @Override
        public String full(double value) {
            return Double.isFinite(value)
                    ? LocalDateTime.ofEpochSecond((long) Math.floor(value), 0, ZoneOffset.UTC)
                            .toString()
                    : "–";
        }
    };

    /**
     * The whole value: numbers as {@link NumberWords#full}, dates and date-times as ISO 8601 has them.
     *
     * @return the text, "–" for a missing value
     */
    public abstract String full(double value);

    /** As short as it can be said: numbers as {@link NumberWords#brief}, all else as it stands. */
    public String brief(double value) {
        return full(value);
    }

    /** Whether values are amounts, which have a zero, can be added up and have a size. */
    public boolean isAmount() {
        return this == NUMBER;
    }
}
