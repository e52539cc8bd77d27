package sarnik.state;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import sarnik.query.TimeStep;

/** Something that a reader has set: what a filter keeps, what is picked, the value of a parameter. */
public sealed interface Value {

    /** Its text in an address, percent-encoded where it has to be. */
    String text();

    /** Any of these values, ascending. */
    record Choice(List<String> values) implements Value {
        public Choice {
            values = values.stream().distinct().sorted().toList();
        }

        @Override
        public String text() {
            return Texts.join(values);
        }
    }

    /** Both ends included; null for open. */
    record Range(LocalDate from, LocalDate to) implements Value {
        public Range {
            if (from != null && to != null && from.isAfter(to)) {
                LocalDate first = to;
                to = from;
                from = first;
            }
        }

        @Override
        public String text() {
            return (from == null ? "" : from) + ".." + (to == null ? "" : to);
        }
    }

    /** Numbers, both ends included; null for open. */
    record Amounts(Double from, Double to) implements Value {
        public Amounts {
            if (from != null && to != null && from > to) {
                Double first = to;
                to = from;
                from = first;
            }
        }

        @Override
        public String text() {
            return (from == null ? "" : Texts.plain(from)) + ".." + (to == null ? "" : Texts.plain(to));
        }
    }

    /** Everything, where something else holds until the reader says so. */
    record All() implements Value {
        @Override
        public String text() {
            return Texts.ALL;
        }
    }

    /**
     * Steps that a player shows.
     *
     * @param from text of the first; null for all before the last
     * @param to text of the last
     */
    record Moment(String from, String to) implements Value {
        @Override
        public String text() {
            String last = Texts.encode(to);
            return from == null ? ".." + last : from.equals(to) ? last : Texts.encode(from) + ".." + last;
        }
    }

    /** Words that are looked for. */
    record Words(String words) implements Value {
        @Override
        public String text() {
            return Texts.encode(words);
        }
    }

    /**
     * Days that are counted from one day: the last so many steps up to it, or a step of the calendar that it lies in.
     *
     * @param which which of them
     * @param count how many steps, of {@link Which#LAST}; 1 else
     * @param step a day, week, month, quarter or year
     */
    record Period(Which which, int count, TimeStep step) implements Value {

        /** Which days of a step. */
        public enum Which {
            /** So many steps that end with the day. */
            LAST,
            /** The whole step that the day lies in. */
            THIS,
            /** The whole step before that. */
            BEFORE,
            /** The step that the day lies in, up to the day. */
            TO_DATE
        }

        /** The first and the last day, counted from one. */
        public Range on(LocalDate day) {
            LocalDate first = step.firstDay(step.number(day.toEpochDay(), 0));
            return switch (which) {
                case LAST -> new Range(step.plus(day, -count).plusDays(1), day);
                case THIS -> new Range(first, step.plus(first, 1).minusDays(1));
                case BEFORE -> new Range(step.plus(first, -1), first.minusDays(1));
                case TO_DATE -> new Range(first, day);
            };
        }

        /** "the last 30 days", "this month", "last month", "year to date"; the day alone is left to others. */
        public String words() {
            return switch (which) {
                case LAST -> step.last(count);
                case THIS ->
                    phrase(
                            "{0, select, day {this day} week {this week} month {this month} quarter {this quarter} other {this year}}",
                            step.words());
                case BEFORE ->
                    phrase(
                            "{0, select, day {last day} week {last week} month {last month} quarter {last quarter} other {last year}}",
                            step.words());
                case TO_DATE ->
                    phrase(
                            "{0, select, day {day to date} week {week to date} month {month to date} quarter {quarter to date} other {year to date}}",
                            step.words());
            };
        }

        /** Whether it is the day itself that others are counted from. */
        public boolean onTheDay() {
            return which == Which.LAST && count == 1 && step == TimeStep.DAY;
        }

        @Override
        public String text() {
            return "~" + which.name().toLowerCase(Locale.ROOT).replace("_", "")
                    + (which == Which.LAST ? "." + count : "") + "." + step.words();
        }
    }

    record Number(double value) implements Value {
        @Override
        public String text() {
            return Texts.plain(value);
        }
    }

    /** What is picked on a visual: a predicate, so that its text is short however many marks it holds. */
    sealed interface Pick extends Value {}

    /** All marks but those that another pick means. */
    record Not(Pick of) implements Pick {
        @Override
        public String text() {
            return Texts.NOT + of.text();
        }
    }

    /** The marks of these values. */
    record Values(List<String> values) implements Pick {
        public Values {
            values = values.stream().distinct().sorted().toList();
        }

        @Override
        public String text() {
            return Texts.join(values);
        }
    }

    /**
     * The marks whose value lies in a class of a scale: above the low bound, up to the high one.
     *
     * @param layer the layer of a map; empty for a visual without layers
     * @param low null for the lowest class
     * @param high null for the highest class
     * @param missing whether it is those without a value instead
     */
    record OfClass(String layer, Double low, Double high, boolean missing) implements Pick {
        @Override
        public String text() {
            return "~class." + layer + "."
                    + (missing ? "none" : (low == null ? "" : low) + "_" + (high == null ? "" : high));
        }
    }

    /** The places within so many metres of a place. */
    record Near(String place, double metres) implements Pick {
        @Override
        public String text() {
            return "~near." + Texts.plain(metres) + "." + Texts.behindPoint(place);
        }
    }

    /**
     * What lies within so many metres of a point.
     *
     * @param name what the point is called
     */
    record Around(double lon, double lat, double metres, String name) implements Value {
        @Override
        public String text() {
            return "~around." + Texts.plain(lon) + "_" + Texts.plain(lat) + "_" + Texts.plain(metres) + "."
                    + Texts.behindPoint(name);
        }
    }

    /** The places within a ring drawn by hand: longitude and latitude by turns, degrees. */
    record Ring(List<Double> corners) implements Pick {
        public Ring {
            corners = List.copyOf(corners);
        }

        @Override
        public String text() {
            List<String> plain = new ArrayList<>();
            for (double corner : corners) plain.add(Texts.plain(corner));
            return "~ring." + String.join("_", plain);
        }
    }

    /** The places within an extent, degrees. */
    record Extent(double west, double south, double east, double north) implements Pick {
        @Override
        public String text() {
            return "~box." + Texts.plain(west) + "_" + Texts.plain(south) + "_" + Texts.plain(east) + "_"
                    + Texts.plain(north);
        }
    }

    /** The marks between two values along an axis, both included; in the canonical text of the axis' column. */
    record Span(String from, String to) implements Pick {
        @Override
        public String text() {
            return "~span." + Texts.beforeLine(from) + "_" + Texts.beforeLine(to);
        }
    }
}
