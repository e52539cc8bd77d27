package sarnik.state;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

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

    record Number(double value) implements Value {
        @Override
        public String text() {
            return Texts.plain(value);
        }
    }

    /** What is picked on a visual: a predicate, so that its text is short however many marks it holds. */
    sealed interface Pick extends Value {}

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
            return "~near." + Texts.plain(metres) + "." + Texts.encode(place);
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
            return "~span." + Texts.encode(from) + "_" + Texts.encode(to);
        }
    }
}
