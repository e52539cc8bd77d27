package sarnik.formula;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The functions of texts beside those of the standard: those of PostgreSQL that analysts write. Patterns are matched
 * in a time
 * that grows with the text alone (RE2, R. Cox 2007), the leftmost longest match first, as POSIX has it.
 */
final class TextFunctions {

    /** Patterns are few and stand on every row: each is read once. */
    private static final Map<String, Pattern> PATTERNS = new ConcurrentHashMap<>();

    private static final int MOST_PATTERNS = 500;
    private static final int LONGEST_PATTERN = 1000;

    private final Functions functions;
    private final Casts casts = new Casts();

    TextFunctions(Functions functions) {
        this.functions = functions;
    }

    /** The function; null where it is none of these. */
    Typed call(Expression.Call call, List<Typed> a) {
        return switch (call.function()) {
            case "LENGTH" ->
                Functions.strict(
                        call,
                        Kind.WHOLE,
                        functions.texts(call, Functions.count(call, a, 1, 1)),
                        v -> (long) Texts.length((String) v[0]),
                        s -> "CHAR_LENGTH(" + s + ")::bigint");
            case "LEFT", "RIGHT" -> side(call, Functions.count(call, a, 2, 2));
            case "LPAD", "RPAD" -> pad(call, Functions.count(call, a, 2, 3));
            case "LTRIM", "RTRIM", "BTRIM" -> trim(call, Functions.count(call, a, 1, 2));
            case "INITCAP" ->
                Functions.strict(
                        call,
                        Kind.TEXT,
                        functions.texts(call, Functions.count(call, a, 1, 1)),
                        v -> initcap((String) v[0]),
                        s -> "INITCAP(" + s + " COLLATE \"und-x-icu\") COLLATE \"C\"");
            case "REVERSE" ->
                Functions.strict(
                        call,
                        Kind.TEXT,
                        functions.texts(call, Functions.count(call, a, 1, 1)),
                        v -> new StringBuilder((String) v[0]).reverse().toString(),
                        s -> "REVERSE(" + s + ")");
            case "STRPOS" ->
                Functions.strict(
                        call,
                        Kind.WHOLE,
                        functions.texts(call, Functions.count(call, a, 2, 2)),
                        v -> Texts.position((String) v[1], (String) v[0]),
                        s -> "STRPOS(" + s + ")::bigint");
            case "STARTS_WITH" ->
                Functions.strict(
                        call,
                        Kind.YES_NO,
                        functions.texts(call, Functions.count(call, a, 2, 2)),
                        v -> ((String) v[0]).startsWith((String) v[1]),
                        s -> "STARTS_WITH(" + s + ")");
            case "CONCAT" -> concat(call, Functions.count(call, a, 1, 50), null);
            case "CONCAT_WS" ->
                concat(
                        call,
                        Functions.count(call, a, 2, 50).subList(1, a.size()),
                        functions.texts(call, a.subList(0, 1)).get(0));
            case "SPLIT_PART" -> splitPart(call, Functions.count(call, a, 3, 3));
            case "REGEXP_REPLACE" -> replace(call, functions.texts(call, Functions.count(call, a, 3, 4)));
            default -> null;
        };
    }

    private Typed small(Expression.Call call, Typed value) {
        Typed number = functions.numbers(call, List.of(value)).get(0);
        Functions.whole(number, "The number of " + call.function());
        return casts.asSmall(number);
    }

    private Typed side(Expression.Call call, List<Typed> a) {
        Typed text = functions.texts(call, a.subList(0, 1)).get(0);
        return Functions.strict(
                call,
                Kind.TEXT,
                List.of(text, small(call, a.get(1))),
                v -> {
                    String of = (String) v[0];
                    int length = Texts.length(of);
                    long count = (Long) v[1];
                    long kept = Math.max(0, Math.min(length, count < 0 ? length + count : count));
                    return call.function().equals("LEFT")
                            ? of.substring(0, of.offsetByCodePoints(0, (int) kept))
                            : of.substring(of.offsetByCodePoints(0, (int) (length - kept)));
                },
                s -> call.function() + "(" + s + ")");
    }

    private Typed pad(Expression.Call call, List<Typed> a) {
        List<Typed> all =
                new ArrayList<>(List.of(functions.texts(call, a.subList(0, 1)).get(0), small(call, a.get(1))));
        if (a.size() == 3) all.add(functions.texts(call, a.subList(2, 3)).get(0));
        boolean left = call.function().equals("LPAD");
        return Functions.strict(
                call,
                Kind.TEXT,
                all,
                v -> {
                    String of = (String) v[0];
                    long wanted = Math.max(0, (Long) v[1]);
                    if (wanted > 100_000) throw new RowError("a text of more than 100,000 characters");
                    int[] fill =
                            (v.length == 3 ? (String) v[2] : " ").codePoints().toArray();
                    int length = Texts.length(of);
                    if (length >= wanted) return of.substring(0, of.offsetByCodePoints(0, (int) wanted));
                    StringBuilder more = new StringBuilder();
                    for (int i = 0; fill.length > 0 && i < wanted - length; i++)
                        more.appendCodePoint(fill[i % fill.length]);
                    return left ? more + of : of + more;
                },
                s -> call.function() + "(" + s + ")");
    }

    private Typed trim(Expression.Call call, List<Typed> a) {
        String side =
                call.function().equals("LTRIM") ? "LEADING" : call.function().equals("RTRIM") ? "TRAILING" : "BOTH";
        return Functions.strict(
                call,
                Kind.TEXT,
                functions.texts(call, a),
                v -> Texts.trim(side, v.length == 2 ? (String) v[1] : " ", (String) v[0]),
                s -> call.function() + "(" + s + ")");
    }

    private static String initcap(String text) {
        StringBuilder out = new StringBuilder();
        boolean inside = false;
        for (int c : text.codePoints().toArray()) {
            boolean letter = Character.isLetterOrDigit(c);
            String one = new String(Character.toChars(c));
            out.append(!letter ? one : inside ? one.toLowerCase(Locale.ROOT) : one.toUpperCase(Locale.ROOT));
            inside = letter;
        }
        return Texts.bounded(out.toString());
    }

    /** Missing values are passed over, and what is no text is written as one. */
    private Typed concat(Expression.Call call, List<Typed> values, Typed between) {
        List<Typed> texts = values.stream()
                .map(v -> v.kind() == Kind.NOTHING
                        ? new Typed(v.at(), Kind.TEXT, v.eval(), "NULL::text")
                        : casts.asText(v, call.function()))
                .toList();
        List<String> sqls = new ArrayList<>();
        if (between != null) sqls.add(between.sql());
        texts.forEach(t -> sqls.add(t.sql()));
        return new Typed(
                call,
                Kind.TEXT,
                c -> {
                    Object mark = between == null ? "" : between.eval().at(c);
                    List<String> there = new ArrayList<>();
                    for (Typed text : texts) {
                        Object value = text.eval().at(c);
                        if (value != null) there.add((String) value);
                    }
                    return mark == null ? null : Texts.bounded(String.join((String) mark, there));
                },
                call.function() + "(" + String.join(", ", sqls) + ")");
    }

    private Typed splitPart(Expression.Call call, List<Typed> a) {
        List<Typed> texts = functions.texts(call, a.subList(0, 2));
        return Functions.strict(
                call,
                Kind.TEXT,
                List.of(texts.get(0), texts.get(1), small(call, a.get(2))),
                v -> {
                    String text = (String) v[0];
                    String mark = (String) v[1];
                    long number = (Long) v[2];
                    if (number == 0) throw new RowError("part 0, which there is not");
                    List<String> parts = new ArrayList<>();
                    int from = 0;
                    for (int at = mark.isEmpty() ? -1 : text.indexOf(mark); at >= 0; at = text.indexOf(mark, from)) {
                        parts.add(text.substring(from, at));
                        from = at + mark.length();
                    }
                    parts.add(text.substring(from));
                    long wanted = number > 0 ? number - 1 : parts.size() + number;
                    return wanted < 0 || wanted >= parts.size() ? "" : parts.get((int) wanted);
                },
                s -> "SPLIT_PART(" + s + ")");
    }

    private Typed replace(Expression.Call call, List<Typed> a) {
        return Functions.strict(
                call,
                Kind.TEXT,
                a,
                v -> {
                    String flags = v.length == 4 ? (String) v[3] : "";
                    if (!flags.matches("[gi]*")) throw new RowError("flags other than g and i");
                    Matcher matcher =
                            pattern((String) v[1], flags.indexOf('i') >= 0).matcher((String) v[0]);
                    String with = replacement((String) v[2], matcher.groupCount());
                    return Texts.bounded(
                            flags.indexOf('g') >= 0 ? matcher.replaceAll(with) : matcher.replaceFirst(with));
                },
                s -> a.size() < 4
                        ? "REGEXP_REPLACE(" + s + ")"
                        : "REGEXP_REPLACE(" + a.get(0).sql() + Compiler.ANY_CASE + ", "
                                + a.get(1).sql() + Compiler.ANY_CASE + ", "
                                + a.get(2).sql() + Compiler.ANY_CASE + ", "
                                + a.get(3).sql() + ") COLLATE \"C\"");
    }

    /** Backslashes lead to groups in PostgreSQL, dollars do here. */
    private static String replacement(String written, int groups) {
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < written.length(); i++) {
            char c = written.charAt(i);
            char next = c == '\\' && i + 1 < written.length() ? written.charAt(i + 1) : 0;
            if (next >= '1' && next <= '9' || next == '&') {
                // A group that the pattern does not have gives nothing.
                if (next == '&' || next - '0' <= groups) out.append('$').append(next == '&' ? '0' : next);
                i++;
            } else if (next == '\\') {
                out.append("\\\\");
                i++;
            } else if (c == '$' || c == '\\') {
                out.append('\\').append(c);
            } else {
                out.append(c);
            }
        }
        return out.toString();
    }

    private static Pattern pattern(String written, boolean anyCase) {
        if (written.length() > LONGEST_PATTERN) throw new RowError("a pattern of more than 1,000 characters");
        if (PATTERNS.size() > MOST_PATTERNS) PATTERNS.clear();
        try {
            return PATTERNS.computeIfAbsent(
                    (anyCase ? "i" : "c") + written,
                    p -> Pattern.compile(
                            written,
                            Pattern.LONGEST_MATCH | Pattern.DOTALL | (anyCase ? Pattern.CASE_INSENSITIVE : 0)));
        } catch (PatternSyntaxException unread) {
            throw new RowError("a pattern that cannot be read");
        }
    }

    /** Whether a text has a part that matches: {@code ~}, {@code ~*} and their negations. */
    static Typed matches(Expression.Binary b, Typed left, Typed right) {
        boolean anyCase = b.operator().endsWith("*");
        boolean not = b.operator().startsWith("!");
        return Functions.strict(
                b,
                Kind.YES_NO,
                List.of(Compiler.text(left, b.operator()), Compiler.text(right, b.operator())),
                v -> pattern((String) v[1], anyCase).matcher((String) v[0]).find() != not,
                s -> anyCase
                        ? left.sql() + Compiler.ANY_CASE + " " + b.operator() + " " + right.sql() + Compiler.ANY_CASE
                        : left.sql() + " " + b.operator() + " " + right.sql());
    }
}
