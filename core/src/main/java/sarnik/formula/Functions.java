package sarnik.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import sarnik.geo.GreatCircle;
import sarnik.table.Rounded;

/** The functions that a formula may call. */
final class Functions {

    /** Names of all functions, for completion and suggestions. */
    static final Set<String> NAMES = new TreeSet<>(List.of(
            "ABS",
            "CEIL",
            "CEILING",
            "FLOOR",
            "ROUND",
            "SQRT",
            "LN",
            "LOG10",
            "POWER",
            "MOD",
            "GREATEST",
            "LEAST",
            "COALESCE",
            "NULLIF",
            "UPPER",
            "LOWER",
            "TRIM",
            "SUBSTRING",
            "POSITION",
            "CHAR_LENGTH",
            "REPLACE",
            "EXTRACT",
            "DATE_TRUNC",
            "CAST",
            "CASE",
            "CURRENT_DATE",
            "DISTANCE",
            "BEARING",
            "WITHIN",
            "LON",
            "LAT",
            "POINT",
            "LENGTH",
            "LEFT",
            "RIGHT",
            "LPAD",
            "RPAD",
            "LTRIM",
            "RTRIM",
            "BTRIM",
            "INITCAP",
            "REVERSE",
            "STRPOS",
            "STARTS_WITH",
            "CONCAT",
            "CONCAT_WS",
            "SPLIT_PART",
            "REGEXP_REPLACE",
            "MAKE_DATE",
            "AGE",
            "TO_CHAR",
            "TO_DATE",
            "DATE_PART",
            "LOG",
            "EXP",
            "SIGN",
            "TRUNC",
            "PI",
            "DEGREES",
            "RADIANS",
            "WIDTH_BUCKET"));

    private final Compiler compiler;
    private final Casts casts = new Casts();

    Functions(Compiler compiler) {
        this.compiler = compiler;
    }

    Typed call(Expression.Call call) {
        List<Typed> a = new ArrayList<>();
        call.arguments().forEach(argument -> a.add(compiler.compile(argument)));
        return switch (call.function()) {
            case "ABS" -> abs(call, count(call, a, 1, 1));
            case "CEIL", "CEILING" -> decimal(call, count(call, a, 1, 1), "CEIL", args -> Math.ceil(args[0]));
            case "FLOOR" -> decimal(call, count(call, a, 1, 1), "FLOOR", args -> Math.floor(args[0]));
            case "SQRT" ->
                decimal(call, count(call, a, 1, 1), "SQRT", args -> {
                    if (args[0] < 0) throw new RowError("the square root of a negative number");
                    return Math.sqrt(args[0]);
                });
            case "LN" -> decimal(call, count(call, a, 1, 1), "LN", args -> Math.log(positive(args[0])));
            case "LOG" ->
                a.size() == 2
                        ? logarithm(call, a)
                        : decimal(call, count(call, a, 1, 2), "LOG", args -> Math.log10(positive(args[0])));
            case "EXP" -> decimal(call, count(call, a, 1, 1), "EXP", args -> Numbers.inRange(Math.exp(args[0]), true));
            case "SIGN" -> decimal(call, count(call, a, 1, 1), "SIGN", args -> Math.signum(args[0]));
            case "TRUNC" ->
                decimal(
                        call,
                        count(call, a, 1, 1),
                        "TRUNC",
                        args -> args[0] < 0 ? Math.ceil(args[0]) : Math.floor(args[0]));
            case "DEGREES" -> decimal(call, count(call, a, 1, 1), "DEGREES", args -> args[0] / (Math.PI / 180));
            case "RADIANS" -> decimal(call, count(call, a, 1, 1), "RADIANS", args -> args[0] * (Math.PI / 180));
            case "PI" -> decimal(call, count(call, a, 0, 0), "PI", args -> Math.PI);
            case "LOG10" -> decimal(call, count(call, a, 1, 1), "LOG10", args -> Math.log10(positive(args[0])));
            case "POWER" -> decimal(call, count(call, a, 2, 2), "POWER", args -> Numbers.power(args[0], args[1]));
            case "ROUND" -> round(call, count(call, a, 1, 2));
            case "WIDTH_BUCKET" -> bucket(call, numbers(call, count(call, a, 4, 4)));
            case "MOD" -> mod(call, count(call, a, 2, 2));
            case "GREATEST", "LEAST" -> extreme(call, count(call, a, 1, 50));
            case "COALESCE" -> coalesce(call, count(call, a, 1, 50));
            case "NULLIF" -> nullIf(call, count(call, a, 2, 2));
            case "UPPER" ->
                strict(
                        call,
                        Kind.TEXT,
                        texts(call, count(call, a, 1, 1)),
                        v -> Texts.bounded(((String) v[0]).toUpperCase(Locale.ROOT)),
                        s -> "UPPER(" + s + " COLLATE \"und-x-icu\") COLLATE \"C\"");
            case "LOWER" ->
                strict(
                        call,
                        Kind.TEXT,
                        texts(call, count(call, a, 1, 1)),
                        v -> Texts.bounded(((String) v[0]).toLowerCase(Locale.ROOT)),
                        s -> "LOWER(" + s + " COLLATE \"und-x-icu\") COLLATE \"C\"");
            case "CHAR_LENGTH", "CHARACTER_LENGTH" ->
                strict(
                        call,
                        Kind.WHOLE,
                        texts(call, count(call, a, 1, 1)),
                        v -> (long) Texts.length((String) v[0]),
                        s -> "CHAR_LENGTH(" + s + ")::bigint");
            case "REPLACE" ->
                strict(
                        call,
                        Kind.TEXT,
                        texts(call, count(call, a, 3, 3)),
                        v -> Texts.replace((String) v[0], (String) v[1], (String) v[2]),
                        s -> "REPLACE(" + s + ")");
            case "POSITION" ->
                strict(
                        call,
                        Kind.WHOLE,
                        texts(call, a),
                        v -> Texts.position((String) v[0], (String) v[1]),
                        s -> "STRPOS(" + a.get(1).sql() + ", " + a.get(0).sql() + ")::bigint");
            case "SUBSTRING" -> substring(call, count(call, a, 2, 3));
            case "DATE_TRUNC" -> truncate(call, count(call, a, 2, 2));
            case "CURRENT_DATE" ->
                new Typed(call, Kind.DATE, c -> (int) c.surroundings.today().toEpochDay(), "CURRENT_DATE");
            case "POINT" -> point(call, count(call, a, 2, 2));
            case "LON" -> ordinate(call, count(call, a, 0, 1), 0);
            case "LAT" -> ordinate(call, count(call, a, 0, 1), 1);
            case "BEARING" -> bearing(call, count(call, a, 2, 2));
            case "DISTANCE" -> distance(call, count(call, a, 2, 2));
            case "WITHIN" -> within(call, count(call, a, 2, 2));
            default -> further(call, a);
        };
    }

    private Typed further(Expression.Call call, List<Typed> a) {
        Typed known = new TextFunctions(this).call(call, a);
        if (known == null) known = new MomentFunctions(this).call(call, a);
        if (known != null) return known;
        String advice = CommonNames.advice(call.function());
        throw new FormulaException(
                call.from(),
                call.from() + call.function().length(),
                "There is no function “" + call.function() + "”."
                        + (advice.isEmpty() ? Nearest.suggestion(call.function(), NAMES) : advice));
    }

    private Typed logarithm(Expression.Call call, List<Typed> arguments) {
        List<Typed> both =
                numbers(call, arguments).stream().map(casts::asDecimal).toList();
        return strict(
                call,
                Kind.DECIMAL,
                both,
                v -> {
                    double base = positive((Double) v[0]);
                    if (base == 1) throw new RowError("division by zero");
                    return Math.log(positive((Double) v[1])) / Math.log(base);
                },
                s -> "(LN(" + both.get(1).sql() + ") / LN(" + both.get(0).sql() + "))");
    }

    /**
     * The direction in which a place lies from another, degrees from north over east, on the great circle between them.
     */
    private Typed bearing(Expression.Call call, List<Typed> arguments) {
        arguments.forEach(a -> place(a, "BEARING"));
        return strict(
                call,
                Kind.DECIMAL,
                arguments,
                v -> {
                    double[] from = (double[]) v[0];
                    double[] to = (double[]) v[1];
                    double phi = Math.toRadians(from[1]);
                    double other = Math.toRadians(to[1]);
                    double apart = Math.toRadians(to[0] - from[0]);
                    double angle = Math.toDegrees(Math.atan2(
                            Math.sin(apart) * Math.cos(other),
                            Math.cos(phi) * Math.sin(other) - Math.sin(phi) * Math.cos(other) * Math.cos(apart)));
                    return (angle + 360) % 360;
                },
                s -> "NULL");
    }

    static List<Typed> count(Expression.Call call, List<Typed> arguments, int least, int most) {
        if (arguments.size() >= least && arguments.size() <= most) return arguments;
        String wanted =
                least == most ? least == 1 ? "one value" : least + " values" : "%d to %d values".formatted(least, most);
        throw new FormulaException(
                call, "%s takes %s in its brackets, not %d.".formatted(call.function(), wanted, arguments.size()));
    }

    interface Compute {
        Object of(Object[] values);
    }

    private interface OfDecimals {
        double of(double[] values);
    }

    interface Sql {
        String of(String arguments);
    }

    /** A function that has no value as soon as an argument has none. */
    static Typed strict(Expression at, Kind kind, List<Typed> arguments, Compute compute, Sql sql) {
        Typed[] all = arguments.toArray(Typed[]::new);
        return new Typed(
                at,
                kind,
                c -> {
                    Object[] values = new Object[all.length];
                    boolean missing = false;
                    // All are computed, so that what is wrong in a later one is noticed beside a missing one.
                    for (int i = 0; i < all.length; i++) {
                        values[i] = all[i].eval().at(c);
                        missing |= values[i] == null;
                    }
                    return missing ? null : compute.of(values);
                },
                "(" + sql.of(arguments.stream().map(Typed::sql).collect(Collectors.joining(", "))) + ")");
    }

    List<Typed> texts(Expression.Call call, List<Typed> arguments) {
        return arguments.stream()
                .map(a -> Compiler.text(a, call.function()))
                .map(a -> a.kind() == Kind.NOTHING ? new Typed(a.at(), Kind.TEXT, a.eval(), "NULL::text") : a)
                .toList();
    }

    List<Typed> numbers(Expression.Call call, List<Typed> arguments) {
        List<Typed> numbers = new ArrayList<>();
        for (Typed a : arguments) {
            if (a.kind() == Kind.NOTHING) numbers.add(new Typed(a.at(), Kind.WHOLE, a.eval(), "NULL::bigint"));
            else if (a.kind().isNumber()) numbers.add(a);
            else throw Compiler.unfit(a, call.function(), "a number");
        }
        return numbers;
    }

    private Typed decimal(Expression.Call call, List<Typed> arguments, String name, OfDecimals compute) {
        List<Typed> decimals =
                numbers(call, arguments).stream().map(casts::asDecimal).toList();
        return strict(
                call,
                Kind.DECIMAL,
                decimals,
                v -> {
                    double[] values = new double[v.length];
                    for (int i = 0; i < v.length; i++) values[i] = (Double) v[i];
                    return compute.of(values);
                },
                s -> name + "(" + s + ")");
    }

    private static double positive(double value) {
        if (value <= 0) throw new RowError("the logarithm of a number that is not above zero");
        return value;
    }

    private Typed abs(Expression.Call call, List<Typed> arguments) {
        List<Typed> number = numbers(call, arguments);
        Kind kind = number.get(0).kind();
        return strict(
                call,
                kind,
                number,
                v -> kind == Kind.DECIMAL
                        ? (Object) Math.abs((Double) v[0])
                        : (Object) ((Long) v[0] < 0 ? Numbers.whole("-", 0, (Long) v[0]) : (Long) v[0]),
                s -> "ABS(" + s + ")");
    }

    private Typed round(Expression.Call call, List<Typed> arguments) {
        if (arguments.size() == 1) return decimal(call, arguments, "ROUND", args -> Rounded.even(args[0]));
        List<Typed> both = numbers(call, arguments);
        whole(both.get(1), "The places of ROUND");
        Typed value = casts.asDecimal(both.get(0));
        Typed places = casts.asSmall(both.get(1));
        return strict(
                call,
                Kind.DECIMAL,
                List.of(value, places),
                v -> Numbers.round((Double) v[0], ((Long) v[1]).intValue()),
                s -> "ROUND((" + value.sql() + ")::numeric, " + places.sql() + ")::double precision");
    }

    static void whole(Typed value, String what) {
        if (value.kind() != Kind.WHOLE)
            throw new FormulaException(
                    value.at(),
                    what + " have to be a whole number; this is " + value.kind().words() + ".");
    }

    private Typed mod(Expression.Call call, List<Typed> arguments) {
        List<Typed> both = numbers(call, arguments);
        both.forEach(v -> whole(v, "The numbers of MOD"));
        return strict(
                call,
                Kind.WHOLE,
                both,
                v -> {
                    if ((Long) v[1] == 0) throw new RowError("division by zero");
                    return (Long) v[0] % (Long) v[1];
                },
                s -> "MOD(" + s + ")");
    }

    /**
     * Which of so many equally wide steps between two ends a number falls into: 0 before the first, one more than all
     * behind the last.
     */
    private Typed bucket(Expression.Call call, List<Typed> numbers) {
        whole(numbers.get(3), "The steps of WIDTH_BUCKET");
        List<Typed> all = List.of(
                casts.asDecimal(numbers.get(0)),
                casts.asDecimal(numbers.get(1)),
                casts.asDecimal(numbers.get(2)),
                casts.asSmall(numbers.get(3)));
        return strict(
                call,
                Kind.WHOLE,
                all,
                v -> Numbers.bucket((Double) v[0], (Double) v[1], (Double) v[2], (Long) v[3]),
                s -> "WIDTH_BUCKET(" + s + ")::bigint");
    }

    private Typed extreme(Expression.Call call, List<Typed> arguments) {
        List<Typed> same = casts.toOneKind(casts.momentsFromText(arguments), "The values of " + call.function());
        Operators.comparable(same.get(0), call.function());
        Kind kind = same.get(0).kind();
        int sign = call.function().equals("GREATEST") ? 1 : -1;
        String sql = call.function() + "("
                + same.stream()
                        .map(t -> t.sql() + (kind == Kind.TEXT ? " COLLATE \"C\"" : ""))
                        .collect(Collectors.joining(", "))
                + ")";
        return new Typed(
                call,
                kind,
                c -> {
                    Object best = null;
                    for (Typed each : same) {
                        Object value = each.eval().at(c);
                        if (value != null && (best == null || sign * Operators.compare(kind, value, best) > 0))
                            best = value;
                    }
                    return best;
                },
                sql);
    }

    private Typed coalesce(Expression.Call call, List<Typed> arguments) {
        List<Typed> same = casts.toOneKind(casts.momentsFromText(arguments), "The values of COALESCE");
        return new Typed(
                call,
                same.get(0).kind(),
                c -> {
                    for (Typed each : same) {
                        Object value = each.eval().at(c);
                        if (value != null) return value;
                    }
                    return null;
                },
                "COALESCE(" + same.stream().map(Typed::sql).collect(Collectors.joining(", ")) + ")");
    }

    private Typed nullIf(Expression.Call call, List<Typed> arguments) {
        List<Typed> same = casts.toOneKind(casts.momentsFromText(arguments), "The two values of NULLIF");
        Operators.comparable(same.get(0), "NULLIF");
        Kind kind = same.get(0).kind();
        return new Typed(
                call,
                kind,
                c -> {
                    Object value = same.get(0).eval().at(c);
                    Object other = same.get(1).eval().at(c);
                    return value != null && other != null && Operators.compare(kind, value, other) == 0 ? null : value;
                },
                "NULLIF(" + same.get(0).sql() + ", " + same.get(1).sql() + ")");
    }

    private Typed substring(Expression.Call call, List<Typed> arguments) {
        Typed text = texts(call, arguments.subList(0, 1)).get(0);
        List<Typed> rest = numbers(call, arguments.subList(1, arguments.size()));
        rest.forEach(v -> whole(v, "The positions of SUBSTRING"));
        List<Typed> all = new ArrayList<>(List.of(text));
        rest.forEach(r -> all.add(casts.asSmall(r)));
        return strict(
                call,
                Kind.TEXT,
                all,
                v -> Texts.substring((String) v[0], (Long) v[1], v.length == 3 ? (Long) v[2] : null),
                s -> "SUBSTRING(" + s + ")");
    }

    Typed trim(Expression.Trim trim) {
        Typed text = Compiler.text(compiler.compile(trim.text()), "TRIM");
        Typed characters =
                trim.characters() == null ? null : Compiler.text(compiler.compile(trim.characters()), "TRIM");
        List<Typed> all = characters == null ? List.of(text) : List.of(text, characters);
        String sql = "TRIM(" + trim.side() + " " + (characters == null ? "" : characters.sql()) + " FROM " + text.sql()
                + ")";
        return strict(
                trim,
                Kind.TEXT,
                all,
                v -> Texts.trim(trim.side(), v.length == 2 ? (String) v[1] : " ", (String) v[0]),
                s -> sql);
    }

    Typed extract(Expression.Extract extract) {
        Typed of = compiler.compile(extract.of());
        Set<String> fields = new TreeSet<>(of.kind() == Kind.INTERVAL ? Moments.OF_INTERVALS : Moments.OF_DATES);
        if (of.kind() == Kind.TIME) fields.addAll(Moments.OF_TIMES);
        if (of.kind() != Kind.DATE && of.kind() != Kind.TIME && of.kind() != Kind.INTERVAL)
            throw Compiler.unfit(of, "EXTRACT", "a date, a date with time or an interval");
        String field = extract.field();
        if (!fields.contains(field)) {
            throw new FormulaException(
                    extract,
                    "%s has no %s. It has %s."
                            .formatted(of.kind().words().replaceFirst("^a", "A"), field, String.join(", ", fields)));
        }
        String sql = "EXTRACT(" + field + " FROM " + of.sql() + ")::double precision";
        if (of.kind() == Kind.INTERVAL)
            return strict(extract, Kind.DECIMAL, List.of(of), v -> Moments.extract(field, (Interval) v[0]), s -> sql);
        return strict(
                extract, Kind.DECIMAL, List.of(casts.asTime(of)), v -> Moments.extract(field, (Long) v[0]), s -> sql);
    }

    private Typed truncate(Expression.Call call, List<Typed> arguments) {
        if (!(call.arguments().get(0) instanceof Expression.Literal literal)
                || !Moments.TRUNCATED.contains(String.valueOf(literal.value()).toLowerCase(Locale.ROOT))) {
            throw new FormulaException(
                    call.arguments().get(0),
                    "DATE_TRUNC takes one of %s, in quotes, first."
                            .formatted(String.join(", ", new TreeSet<>(Moments.TRUNCATED))));
        }
        String field = String.valueOf(literal.value()).toLowerCase(Locale.ROOT);
        Typed of = arguments.get(1);
        if (of.kind() != Kind.DATE && of.kind() != Kind.TIME)
            throw Compiler.unfit(of, "DATE_TRUNC", "a date or a date with time");
        boolean date = of.kind() == Kind.DATE;
        String sql = "DATE_TRUNC('" + field + "', (" + of.sql() + ")::timestamp)" + (date ? "::date" : "");
        return strict(
                call,
                of.kind(),
                List.of(casts.asTime(of)),
                v -> {
                    long cut = Moments.truncate(field, (Long) v[0]);
                    return date ? (Object) (int) Math.floorDiv(cut, Moments.DAY) : (Object) cut;
                },
                s -> sql);
    }

    private Typed point(Expression.Call call, List<Typed> arguments) {
        List<Typed> both =
                numbers(call, arguments).stream().map(casts::asDecimal).toList();
        return strict(
                call,
                Kind.PLACE,
                both,
                v -> {
                    double[] at = {(Double) v[0], (Double) v[1]};
                    if (Math.abs(at[0]) > 180 || Math.abs(at[1]) > 90) throw new RowError("degrees out of range");
                    return at;
                },
                s -> "NULL");
    }

    private Typed rowPlace(Expression.Call call) {
        if (!compiler.scope().places().contains(Scope.PLACE))
            throw new FormulaException(
                    call, call.function() + "() is the position of a row; the rows of this dataset have no place.");
        return compiler.compile(new Expression.Name(call.from(), call.to(), Scope.PLACE, false));
    }

    private static Typed place(Typed found, String where) {
        if (found.kind() != Kind.PLACE && found.kind() != Kind.NOTHING)
            throw Compiler.unfit(found, where, "a place, such as place or point(lon, lat)");
        return found;
    }

    private Typed ordinate(Expression.Call call, List<Typed> arguments, int which) {
        Typed place = arguments.isEmpty() ? rowPlace(call) : place(arguments.get(0), call.function());
        return strict(call, Kind.DECIMAL, List.of(place), v -> ((double[]) v[0])[which], s -> "NULL");
    }

    private Typed distance(Expression.Call call, List<Typed> arguments) {
        arguments.forEach(a -> place(a, "DISTANCE"));
        return strict(call, Kind.DECIMAL, arguments, v -> metres((double[]) v[0], (double[]) v[1]), s -> "NULL");
    }

    private static double metres(double[] a, double[] b) {
        return GreatCircle.metres(a[0], a[1], b[0], b[1]);
    }

    private Typed within(Expression.Call call, List<Typed> arguments) {
        Typed place = place(arguments.get(0), "WITHIN");
        if (!(call.arguments().get(1) instanceof Expression.Literal literal)
                || !(literal.value() instanceof String name)) {
            throw new FormulaException(
                    call.arguments().get(1), "WITHIN takes the name of a boundary set, in quotes, second.");
        }
        if (!compiler.scope().boundarySets().contains(name)) {
            throw new FormulaException(
                    literal,
                    "There is no boundary set “" + name + "”."
                            + Nearest.suggestion(name, compiler.scope().boundarySets()));
        }
        return new Typed(
                call,
                Kind.TEXT,
                c -> {
                    double[] at = (double[]) place.eval().at(c);
                    return at == null ? null : c.surroundings.areas().get(name).at(at[0], at[1]);
                },
                "NULL");
    }
}
