package sarnik.state;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.query.TimeStep;

/** The text form of values in an address, and back. */
public final class Texts {

    /** Stands for everything. */
    static final String ALL = "*";

    /** Stands before what a pick leaves out. */
    static final String NOT = "!";

    /** So many metres, and a place. The metres may have a point of their own; in older addresses the place may, too. */
    private static final Pattern NEAR = Pattern.compile("(\\d+(?:\\.\\d+)?)\\.(.*)");

    /** Longitude, latitude, metres, and a name. */
    private static final Pattern AROUND = Pattern.compile("~around\\.([-\\d.]+)_([-\\d.]+)_(\\d+(?:\\.\\d+)?)\\.(.*)");

    /** Of a period. */
    private static final int MOST_STEPS = 10_000;

    private Texts() {}

    static String join(List<String> values) {
        return String.join(",", values.stream().map(Texts::encode).toList());
    }

    public static String plain(double number) {
        return new BigDecimal(number)
                .setScale(9, RoundingMode.HALF_EVEN)
                .stripTrailingZeros()
                .toPlainString();
    }

    static String encode(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8)
                .replace("+", "%20")
                .replace("*", "%2A");
    }

    /** What stands behind a point, without one of its own: a number before it may have one. */
    static String behindPoint(String text) {
        return encode(text).replace(".", "%2E");
    }

    /** What stands before or behind a low line, without one of its own. */
    static String beforeLine(String text) {
        return encode(text).replace("_", "%5F");
    }

    /** What a percent-encoded text says; the text itself where it is not well encoded. */
    public static String decode(String text) {
        try {
            return URLDecoder.decode(text, StandardCharsets.UTF_8);
        } catch (IllegalArgumentException broken) {
            return text;
        }
    }

    /** Values with commas between. */
    public static List<String> values(String joined) {
        return Arrays.stream(joined.split(","))
                .filter(v -> !v.isEmpty())
                .map(Texts::decode)
                .distinct()
                .sorted()
                .toList();
    }

    /** Whether a text stands for everything. */
    public static boolean isAll(String text) {
        return text.equals(ALL);
    }

    /**
     * A range of days: {@code 2025-06-01..2026-05-31}, with an end left out for an open one. A month, {@code 2025-06},
     * or a year stands for its first day where it begins a range, and for its last where it ends one; alone it is the
     * range. Empty where the text is none.
     */
    public static Optional<Value.Range> range(String text) {
        String[] ends = decode(text).split("\\.\\.", -1);
        if (ends.length > 2 || ends[0].isEmpty() && ends.length == 1) return Optional.empty();
        try {
            return Optional.of(new Value.Range(first(ends[0]), last(ends[ends.length - 1])));
        } catch (DateTimeException unreadable) {
            return Optional.empty();
        }
    }

    /** Days counted from one: {@code ~last.30.day}, {@code ~this.month}; empty where the text is none. */
    public static Optional<Value.Period> period(String text) {
        String[] parts = decode(text).split("\\.", -1);
        for (Value.Period.Which which : Value.Period.Which.values()) {
            boolean counts = which == Value.Period.Which.LAST;
            if (parts.length != (counts ? 3 : 2)
                    || !parts[0].equals(
                            "~" + which.name().toLowerCase(Locale.ROOT).replace("_", ""))) continue;
            for (TimeStep step : TimeStep.values()) {
                if (step.comesAgain() || step.needsTime() || !step.words().equals(parts[parts.length - 1])) continue;
                try {
                    int count = counts ? Integer.parseInt(parts[1]) : 1;
                    if (count >= 1 && count <= MOST_STEPS) return Optional.of(new Value.Period(which, count, step));
                } catch (NumberFormatException odd) {
                    return Optional.empty();
                }
            }
        }
        return Optional.empty();
    }

    /** A range of numbers; empty where the text is none. */
    public static Optional<Value.Amounts> amounts(String text) {
        String[] ends = decode(text).split("\\.\\.", -1);
        if (ends.length != 2) return Optional.empty();
        try {
            Double from = bound(ends[0]);
            Double to = bound(ends[1]);
            return from == null && to == null ? Optional.empty() : Optional.of(new Value.Amounts(from, to));
        } catch (NumberFormatException unreadable) {
            return Optional.empty();
        }
    }

    private static LocalDate first(String text) {
        if (text.isEmpty()) return null;
        return LocalDate.parse(text.length() == 4 ? text + "-01-01" : text.length() == 7 ? text + "-01" : text);
    }

    private static LocalDate last(String text) {
        LocalDate first = first(text);
        if (first == null) return null;
        return text.length() == 4
                ? first.withDayOfYear(first.lengthOfYear())
                : text.length() == 7 ? first.withDayOfMonth(first.lengthOfMonth()) : first;
    }

    /** What is picked; empty where the text is a predicate that cannot be read. */
    public static Optional<Value.Pick> pick(String text) {
        if (text.startsWith(NOT))
            return pick(text.substring(1))
                    .filter(pick -> !(pick instanceof Value.Not) && !pick.text().isEmpty())
                    .map(Value.Not::new);
        if (!text.startsWith("~")) return Optional.of(new Value.Values(values(text)));
        int dot = text.indexOf('.');
        String rest = text.substring(dot + 1);
        try {
            return switch (dot < 0 ? "" : text.substring(1, dot)) {
                case "class" -> {
                    // Layers have ids of letters and digits; the bounds behind them may have points.
                    String layer = rest.substring(0, rest.indexOf('.'));
                    yield ofClass(layer, decode(rest.substring(layer.length() + 1)));
                }
                case "near" -> {
                    Matcher near = NEAR.matcher(rest);
                    yield near.matches()
                            ? Optional.of(new Value.Near(decode(near.group(2)), number(near.group(1), 0, 2.1e7)))
                            : Optional.empty();
                }
                case "ring" -> ring(rest);
                case "box" -> {
                    List<Double> ends = numbers(rest);
                    yield ends.size() == 4
                            ? Optional.of(new Value.Extent(ends.get(0), ends.get(1), ends.get(2), ends.get(3)))
                            : Optional.empty();
                }
                case "span" -> {
                    String[] ends = rest.split("_", -1);
                    yield ends.length == 2
                            ? Optional.of(new Value.Span(decode(ends[0]), decode(ends[1])))
                            : Optional.empty();
                }
                default -> Optional.empty();
            };
        } catch (NumberFormatException | StringIndexOutOfBoundsException broken) {
            return Optional.empty();
        }
    }

    /** What lies around a point: {@code ~around.-2.46_41.76_5000.Soria}; empty where the text is none. */
    public static Optional<Value.Around> around(String text) {
        Matcher around = AROUND.matcher(text);
        if (!around.matches()) return Optional.empty();
        try {
            return Optional.of(new Value.Around(
                    number(around.group(1), -180, 180),
                    number(around.group(2), -90, 90),
                    number(around.group(3), 0, 2.1e7),
                    decode(around.group(4))));
        } catch (NumberFormatException broken) {
            return Optional.empty();
        }
    }

    private static Optional<Value.Pick> ofClass(String layer, String bounds) {
        if (bounds.equals("none")) return Optional.of(new Value.OfClass(layer, null, null, true));
        String[] ends = bounds.split("_", -1);
        if (ends.length != 2) return Optional.empty();
        return Optional.of(new Value.OfClass(layer, bound(ends[0]), bound(ends[1]), false));
    }

    private static Double bound(String text) {
        return text.isEmpty() ? null : number(text, -Double.MAX_VALUE, Double.MAX_VALUE);
    }

    private static Optional<Value.Pick> ring(String text) {
        List<Double> corners = numbers(text);
        return corners.size() >= 6 && corners.size() % 2 == 0 ? Optional.of(new Value.Ring(corners)) : Optional.empty();
    }

    private static List<Double> numbers(String text) {
        List<Double> numbers = new ArrayList<>();
        for (String one : text.split("_", -1)) numbers.add(number(one, -720, 720));
        return numbers;
    }

    private static double number(String text, double least, double most) {
        double number = Double.parseDouble(text);
        if (!(number >= least && number <= most)) throw new NumberFormatException(text);
        return number;
    }
}
