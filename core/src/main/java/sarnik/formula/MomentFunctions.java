package sarnik.formula;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.Period;
import java.time.format.TextStyle;
import java.time.temporal.IsoFields;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The functions of dates and times beside those of the standard: those of PostgreSQL that analysts write. */
final class MomentFunctions {

    /** The parts of a template of TO_CHAR and TO_DATE, longer ones before those that they begin with. */
    private static final List<String> PARTS = List.of(
            "YYYY", "IYYY", "HH24", "HH12", "MONTH", "Month", "month", "FMMonth", "FMMM", "FMDD", "MON", "Mon", "mon",
            "DAY", "Day", "day", "DDD", "YY", "MM", "DD", "DY", "Dy", "dy", "HH", "MI", "SS", "IW", "WW", "ID", "AM",
            "PM", "am", "pm", "Q", "D");

    private final Functions functions;
    private final Casts casts = new Casts();

    MomentFunctions(Functions functions) {
        this.functions = functions;
    }

    /** The function; null where it is none of these. */
    Typed call(Expression.Call call, List<Typed> a) {
        return switch (call.function()) {
            case "MAKE_DATE" -> makeDate(call, Functions.count(call, a, 3, 3));
            case "AGE" -> age(call, Functions.count(call, a, 1, 2));
            case "TO_CHAR" -> toChar(call, Functions.count(call, a, 2, 2));
            case "TO_DATE" -> toDate(call, functions.texts(call, Functions.count(call, a, 2, 2)));
            default -> null;
        };
    }

    private Typed makeDate(Expression.Call call, List<Typed> a) {
        List<Typed> parts = new ArrayList<>();
        for (Typed number : functions.numbers(call, a)) {
            Functions.whole(number, "The numbers of MAKE_DATE");
            parts.add(casts.asSmall(number));
        }
        return Functions.strict(
                call,
                Kind.DATE,
                parts,
                v -> {
                    try {
                        long year = (Long) v[0];
                        if (year < 1 || year > 9999) throw new RowError("a date out of range");
                        return (int)
                                LocalDate.of((int) year, Math.toIntExact((Long) v[1]), Math.toIntExact((Long) v[2]))
                                        .toEpochDay();
                    } catch (DateTimeException none) {
                        throw new RowError("a date that there is not");
                    }
                },
                s -> "MAKE_DATE(" + s + ")");
    }

    private Typed moment(Typed value, String where) {
        if (value.kind() == Kind.NOTHING) return new Typed(value.at(), Kind.TIME, value.eval(), "NULL::timestamp");
        if (value.kind() != Kind.DATE && value.kind() != Kind.TIME)
            throw Compiler.unfit(value, where, "a date or a date with time");
        return casts.asTime(value);
    }

    /**
     * Years, months and days between two moments, the way people count an age: from today's midnight where one is
     * given.
     */
    private Typed age(Expression.Call call, List<Typed> a) {
        Typed later = a.size() == 2
                ? moment(a.get(0), "AGE")
                : new Typed(
                        call,
                        Kind.TIME,
                        c -> c.surroundings.today().toEpochDay() * Moments.DAY,
                        "CURRENT_DATE::timestamp");
        Typed earlier = moment(a.get(a.size() - 1), "AGE");
        return Functions.strict(
                call,
                Kind.INTERVAL,
                List.of(later, earlier),
                v -> between((Long) v[0], (Long) v[1]),
                s -> "AGE(" + s + ")");
    }

    private static Interval between(long later, long earlier) {
        if (later < earlier) return between(earlier, later).times(-1);
        LocalDateTime from = Moments.at(earlier);
        LocalDateTime to = Moments.at(later);
        long seconds = to.toLocalTime().toSecondOfDay() - from.toLocalTime().toSecondOfDay();
        LocalDate end = seconds < 0 ? to.toLocalDate().minusDays(1) : to.toLocalDate();
        if (seconds < 0) seconds += Moments.DAY;
        // Days are borrowed from the month in which the earlier moment lies, as PostgreSQL does.
        long months = Period.between(from.toLocalDate().withDayOfMonth(1), end.withDayOfMonth(1))
                .toTotalMonths();
        long days = end.getDayOfMonth() - from.getDayOfMonth();
        if (days < 0) {
            months--;
            days += from.toLocalDate().lengthOfMonth();
        }
        return new Interval(months, days, seconds);
    }

    private static String template(Expression.Call call) {
        if (call.arguments().get(1) instanceof Expression.Literal literal && literal.value() instanceof String text)
            return text;
        throw new FormulaException(
                call.arguments().get(1), call.function() + " takes a template in quotes, such as 'YYYY-MM', second.");
    }

    private static List<String> parts(Expression.Call call, String template) {
        List<String> parts = new ArrayList<>();
        int at = 0;
        while (at < template.length()) {
            int here = at;
            String part = PARTS.stream()
                    .filter(p -> template.startsWith(p, here))
                    .findFirst()
                    .orElse(null);
            if (part == null) {
                if (Character.isLetter(template.charAt(at))) {
                    if (template.charAt(at) == 'T' && at > 0) part = "T";
                    else
                        throw new FormulaException(
                                call.arguments().get(1),
                                "“%s” has no meaning in a template. There is %s."
                                        .formatted(template.substring(at), String.join(", ", PARTS)));
                } else {
                    part = template.substring(at, at + 1);
                }
            }
            parts.add(part);
            at += part.length();
        }
        return parts;
    }

    private Typed toChar(Expression.Call call, List<Typed> a) {
        if (a.get(0).kind().isNumber()) return numberToChar(call, a);
        Typed of = moment(a.get(0), "TO_CHAR");
        List<String> parts = parts(call, template(call));
        return Functions.strict(
                call,
                Kind.TEXT,
                List.of(of, a.get(1)),
                v -> {
                    LocalDateTime at = Moments.at((Long) v[0]);
                    StringBuilder out = new StringBuilder();
                    for (String part : parts) out.append(PARTS.contains(part) ? written(part, at) : part);
                    return out.toString();
                },
                s -> "TO_CHAR(" + s + ")");
    }

    private Typed numberToChar(Expression.Call call, List<Typed> a) {
        NumberTemplate template = NumberTemplate.parse(call.arguments().get(1), template(call));
        boolean whole = a.get(0).kind() == Kind.WHOLE;
        return Functions.strict(
                call,
                Kind.TEXT,
                a,
                v -> template.write(whole ? BigDecimal.valueOf((Long) v[0]) : new BigDecimal((Double) v[0]), whole),
                s -> "TO_CHAR(" + s + ")");
    }

    private static String written(String part, LocalDateTime at) {
        int hour = at.getHour() % 12 == 0 ? 12 : at.getHour() % 12;
        int sunday = at.getDayOfWeek().getValue() % 7 + 1;
        return switch (part.toUpperCase(Locale.ROOT)) {
            case "YYYY" -> "%04d".formatted(at.getYear());
            case "IYYY" -> "%04d".formatted(at.get(IsoFields.WEEK_BASED_YEAR));
            case "YY" -> "%02d".formatted(at.getYear() % 100);
            case "MM" -> "%02d".formatted(at.getMonthValue());
            case "FMMM" -> String.valueOf(at.getMonthValue());
            case "DD" -> "%02d".formatted(at.getDayOfMonth());
            case "FMDD" -> String.valueOf(at.getDayOfMonth());
            case "DDD" -> "%03d".formatted(at.getDayOfYear());
            case "HH24" -> "%02d".formatted(at.getHour());
            case "HH", "HH12" -> "%02d".formatted(hour);
            case "MI" -> "%02d".formatted(at.getMinute());
            case "SS" -> "%02d".formatted(at.getSecond());
            case "IW" -> "%02d".formatted(at.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR));
            case "WW" -> "%02d".formatted((at.getDayOfYear() - 1) / 7 + 1);
            case "Q" -> String.valueOf(at.get(IsoFields.QUARTER_OF_YEAR));
            case "ID" -> String.valueOf(at.getDayOfWeek().getValue());
            case "D" -> String.valueOf(sunday);
            case "AM", "PM" -> cased(part, at.getHour() < 12 ? "AM" : "PM");
            case "FMMONTH" -> at.getMonth().getDisplayName(TextStyle.FULL, Locale.ENGLISH);
            // Whole names are padded to the longest.
            case "MONTH" -> cased(part, "%-9s".formatted(at.getMonth().getDisplayName(TextStyle.FULL, Locale.ENGLISH)));
            case "MON" ->
                cased(
                        part,
                        at.getMonth()
                                .getDisplayName(TextStyle.FULL, Locale.ENGLISH)
                                .substring(0, 3));
            case "DAY" ->
                cased(part, "%-9s".formatted(at.getDayOfWeek().getDisplayName(TextStyle.FULL, Locale.ENGLISH)));
            default ->
                cased(
                        part,
                        at.getDayOfWeek()
                                .getDisplayName(TextStyle.FULL, Locale.ENGLISH)
                                .substring(0, 3));
        };
    }

    /** As the part of the template is written: in capitals, with one, or without. */
    private static String cased(String part, String word) {
        if (part.equals(part.toUpperCase(Locale.ROOT))) return word.toUpperCase(Locale.ROOT);
        return part.equals(part.toLowerCase(Locale.ROOT)) ? word.toLowerCase(Locale.ROOT) : word;
    }

    private static final Map<String, Integer> WIDTHS =
            Map.of("YYYY", 4, "YY", 2, "MM", 2, "DD", 2, "FMMM", 2, "FMDD", 2);

    private Typed toDate(Expression.Call call, List<Typed> a) {
        List<String> parts = parts(call, template(call));
        return Functions.strict(
                call,
                Kind.DATE,
                a,
                v -> {
                    String text = ((String) v[0]).strip();
                    int[] found = {1, 1, 1};
                    int at = 0;
                    for (String part : parts) {
                        String upper = part.toUpperCase(Locale.ROOT);
                        if (WIDTHS.containsKey(upper)) {
                            int to = at;
                            while (to < text.length()
                                    && to - at < WIDTHS.get(upper)
                                    && Character.isDigit(text.charAt(to))) to++;
                            if (to == at) throw new RowError("a text that is no date of this template");
                            int number = Integer.parseInt(text.substring(at, to));
                            found[upper.endsWith("YY") ? 0 : upper.endsWith("MM") ? 1 : 2] =
                                    upper.equals("YY") && number < 100
                                            ? number < 70 ? 2000 + number : 1900 + number
                                            : number;
                            at = to;
                        } else if (upper.equals("MON") || upper.equals("MONTH")) {
                            int month = month(text, at, upper.equals("MONTH"));
                            found[1] = month / 100;
                            at += month % 100;
                        } else if (!PARTS.contains(part)) {
                            if (at < text.length() && !Character.isLetterOrDigit(text.charAt(at))) at++;
                        } else {
                            throw new FormulaException(
                                    call.arguments().get(1),
                                    "TO_DATE reads YYYY, YY, MM, DD, Mon and Month; not “" + part + "”.");
                        }
                    }
                    try {
                        return (int) LocalDate.of(found[0], found[1], found[2]).toEpochDay();
                    } catch (DateTimeException none) {
                        throw new RowError("a date that there is not");
                    }
                },
                s -> "TO_DATE(" + s + ")");
    }

    /** The month that a text names at a place, times 100, and how long its name is. */
    private static int month(String text, int at, boolean whole) {
        for (int m = 1; m <= 12; m++) {
            String name = java.time.Month.of(m).getDisplayName(TextStyle.FULL, Locale.ENGLISH);
            String wanted = whole ? name : name.substring(0, 3);
            if (text.regionMatches(true, at, wanted, 0, wanted.length())) return 100 * m + wanted.length();
        }
        throw new RowError("a text that is no date of this template");
    }
}
