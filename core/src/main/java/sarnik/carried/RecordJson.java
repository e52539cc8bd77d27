package sarnik.carried;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.DoubleFunction;
import java.util.function.Function;

/**
 * Records as JSON without reflection, in the form that Jackson gives them on the server: what is left out, how one of
 * several is told by its {@code type}, and how days and numbers are written. It knows only what it is told of each
 * class.
 */
public final class RecordJson {

    /** How a value is read of JSON. */
    @FunctionalInterface
    public interface Type {

        /** @param value null where it is not said */
        Object read(JsonValue value, RecordJson json);
    }

    public static final Type TEXT = (v, json) -> isNone(v) ? null : v.asString();
    public static final Type INT = (v, json) -> isNone(v) ? null : (Object) (int) v.asDouble();
    public static final Type INT_0 = (v, json) -> isNone(v) ? 0 : (int) v.asDouble();
    public static final Type LONG = (v, json) -> isNone(v) ? null : (Object) whole(v);
    public static final Type LONG_0 = (v, json) -> isNone(v) ? 0L : whole(v);
    public static final Type NUMBER = (v, json) -> isNone(v) ? null : (Object) number(v);
    public static final Type NUMBER_0 = (v, json) -> isNone(v) ? 0.0 : number(v);
    public static final Type FLAG = (v, json) -> isNone(v) ? null : (Object) v.asBoolean();
    public static final Type FLAG_0 = (v, json) -> !isNone(v) && v.asBoolean();
    public static final Type DAY = (v, json) -> isNone(v) ? null : LocalDate.parse(v.asString());
    public static final Type ANY = (v, json) -> isNone(v) ? null : plain(v);
    public static final Type NUMBERS = (v, json) -> {
        if (isNone(v)) return null;
        double[] numbers = new double[v.asArray().size()];
        for (int i = 0; i < numbers.length; i++) numbers[i] = number(v.asArray().get(i));
        return numbers;
    };

    private record Written(String type, boolean saidOnly, Function<Object, Object[]> values, String[] names) {}

    private record Read(Function<Object[], Object> make, String[] names, Type[] types) {}

    private final Map<Class<?>, Written> written = new HashMap<>();
    private final Map<Class<?>, Read> read = new HashMap<>();
    private final Map<Class<?>, Map<String, Object>> choices = new HashMap<>();
    private final Map<Class<?>, Map<String, Class<?>>> ones = new HashMap<>();

    private DoubleFunction<String> numbers = Double::toString;

    // --- what it is told -------------------------------------------------------------------------------

    /**
     * How numbers are written.
     *
     * @param numbers of a finite number a number of JSON that is read as the same bits
     */
    public RecordJson numbersBy(DoubleFunction<String> numbers) {
        this.numbers = numbers;
        return this;
    }

    /**
     * How a record is written.
     *
     * @param type what tells it from others that may stand in its place; null where there are none
     * @param saidOnly whether what is null is left out
     */
    public void written(
            Class<?> of, String type, boolean saidOnly, Function<Object, Object[]> values, String... names) {
        written.put(of, new Written(type, saidOnly, values, names));
    }

    /**
     * How a record is read.
     *
     * @param namesAndTypes of its components, in their order
     */
    public void read(Class<?> of, Function<Object[], Object> make, Object... namesAndTypes) {
        String[] names = new String[namesAndTypes.length / 2];
        Type[] types = new Type[names.length];
        for (int i = 0; i < names.length; i++) {
            names[i] = (String) namesAndTypes[2 * i];
            types[i] = (Type) namesAndTypes[2 * i + 1];
        }
        read.put(of, new Read(make, names, types));
    }

    /** The constants of an enumeration. */
    public void choice(Class<?> of, Enum<?>... constants) {
        Map<String, Object> named = new HashMap<>();
        for (Enum<?> constant : constants) named.put(constant.name(), constant);
        choices.put(of, named);
    }

    /** One of the classes that may stand where another is declared. */
    public void one(Class<?> declared, String type, Class<?> of) {
        ones.computeIfAbsent(declared, c -> new HashMap<>()).put(type, of);
    }

    public static Type of(Class<?> type) {
        return (v, json) -> isNone(v) ? null : json.value(v, type);
    }

    public static Type list(Type each) {
        return (v, json) -> {
            if (isNone(v)) return null;
            List<Object> list = new ArrayList<>();
            for (JsonValue one : v.asArray()) list.add(each.read(one, json));
            return list;
        };
    }

    public static Type set(Type each) {
        Type list = list(each);
        return (v, json) -> isNone(v) ? null : new LinkedHashSet<>((List<?>) list.read(v, json));
    }

    public static Type map(Type key, Type each) {
        return (v, json) -> {
            if (isNone(v)) return null;
            Map<Object, Object> map = new LinkedHashMap<>();
            for (JsonObject.Member one : v.asObject())
                map.put(key(key, one.getName(), json), each.read(one.getValue(), json));
            return map;
        };
    }

    private static Object key(Type key, String name, RecordJson json) {
        return key.read(key == LONG || key == INT ? Json.parse(name) : Json.value(name), json);
    }

    // --- reading ---------------------------------------------------------------------------------------

    /**
     * A record of JSON.
     *
     * @throws IllegalArgumentException when the text is not of its form
     */
    public <T> T read(String text, Class<T> type) {
        return type.cast(of(type).read(Json.parse(text), this));
    }

    /** A record of maps, lists, texts and numbers. */
    public <T> T read(Map<String, Object> plain, Class<T> type) {
        return read(write(plain), type);
    }

    /** A part as maps, lists, texts and numbers. */
    @SuppressWarnings("unchecked")
    public Map<String, Object> plain(Object part) {
        return (Map<String, Object>) plain(Json.parse(write(part)));
    }

    private Object value(JsonValue value, Class<?> type) {
        Map<String, Object> constants = choices.get(type);
        if (constants != null) {
            Object constant = constants.get(value.asString());
            if (constant == null) throw new IllegalArgumentException("“" + value.asString() + "” is none of its kind");
            return constant;
        }
        JsonObject object = value.asObject();
        Map<String, Class<?>> several = ones.get(type);
        if (several != null && !read.containsKey(type)) {
            Class<?> one = several.get(object.getString("type", ""));
            if (one == null)
                throw new IllegalArgumentException("“" + object.getString("type", "") + "” is none of its kind");
            return value(value, one);
        }
        Read how = read.get(type);
        if (how == null) throw new IllegalArgumentException("It is not known how " + type.getName() + " is read");
        Object[] values = new Object[how.names.length];
        for (int i = 0; i < values.length; i++) values[i] = how.types[i].read(object.get(how.names[i]), this);
        return how.make.apply(values);
    }

    private static boolean isNone(JsonValue value) {
        return value == null || value.isNull();
    }

    private static long whole(JsonValue value) {
        String text = value.toString();
        return text.indexOf('.') < 0 && text.indexOf('e') < 0 && text.indexOf('E') < 0
                ? Long.parseLong(text)
                : (long) value.asDouble();
    }

    /** What is no number in JSON stands as text, as Jackson has it. */
    private static double number(JsonValue value) {
        return value.isString() ? Double.parseDouble(value.asString()) : value.asDouble();
    }

    private static Object plain(JsonValue value) {
        if (value.isNull()) return null;
        if (value.isString()) return value.asString();
        if (value.isBoolean()) return value.asBoolean();
        if (value.isNumber()) {
            String text = value.toString();
            if (text.indexOf('.') >= 0 || text.indexOf('e') >= 0 || text.indexOf('E') >= 0) return value.asDouble();
            long whole = Long.parseLong(text);
            return whole == (int) whole ? (Object) (int) whole : (Object) whole;
        }
        if (value.isArray()) {
            List<Object> list = new ArrayList<>();
            for (JsonValue one : value.asArray()) list.add(plain(one));
            return list;
        }
        Map<String, Object> map = new LinkedHashMap<>();
        for (JsonObject.Member one : value.asObject()) map.put(one.getName(), plain(one.getValue()));
        return map;
    }

    // --- writing ---------------------------------------------------------------------------------------

    /** Anything made of records, lists, maps, texts and numbers as JSON. */
    public String write(Object value) {
        StringBuilder out = new StringBuilder();
        write(value, out);
        return out.toString();
    }

    private void write(Object value, StringBuilder out) {
        if (value == null) out.append("null");
        else if (value instanceof String text) text(text, out);
        else if (value instanceof Double number) number(number, out);
        else if (value instanceof Number || value instanceof Boolean) out.append(value);
        else if (value instanceof Enum<?> constant) text(constant.name(), out);
        else if (value instanceof LocalDate day) text(day.toString(), out);
        else if (value instanceof Map<?, ?> map) map(map, out);
        else if (value instanceof List<?> || value instanceof Set<?>) each((Iterable<?>) value, out);
        else if (value instanceof double[] numbers) {
            out.append('[');
            for (int i = 0; i < numbers.length; i++) {
                if (i > 0) out.append(',');
                number(numbers[i], out);
            }
            out.append(']');
        } else if (value instanceof int[] numbers) {
            out.append('[');
            for (int i = 0; i < numbers.length; i++) {
                if (i > 0) out.append(',');
                out.append(numbers[i]);
            }
            out.append(']');
        } else if (value instanceof long[] numbers) {
            out.append('[');
            for (int i = 0; i < numbers.length; i++) {
                if (i > 0) out.append(',');
                out.append(numbers[i]);
            }
            out.append(']');
        } else if (value instanceof Object[] several) each(List.of(several), out);
        else record(value, out);
    }

    private void record(Object value, StringBuilder out) {
        Written how = written.get(value.getClass());
        if (how == null)
            throw new IllegalStateException(
                    "It is not known how " + value.getClass().getName() + " is written");
        out.append('{');
        boolean first = true;
        if (how.type != null) {
            out.append("\"type\":");
            text(how.type, out);
            first = false;
        }
        Object[] values = how.values.apply(value);
        for (int i = 0; i < values.length; i++) {
            if (how.saidOnly && values[i] == null) continue;
            if (!first) out.append(',');
            first = false;
            text(how.names[i], out);
            out.append(':');
            write(values[i], out);
        }
        out.append('}');
    }

    private void map(Map<?, ?> map, StringBuilder out) {
        out.append('{');
        boolean first = true;
        for (Map.Entry<?, ?> entry : map.entrySet()) {
            if (!first) out.append(',');
            first = false;
            text(entry.getKey() instanceof Enum<?> e ? e.name() : String.valueOf(entry.getKey()), out);
            out.append(':');
            write(entry.getValue(), out);
        }
        out.append('}');
    }

    private void each(Iterable<?> values, StringBuilder out) {
        out.append('[');
        boolean first = true;
        for (Object value : values) {
            if (!first) out.append(',');
            first = false;
            write(value, out);
        }
        out.append(']');
    }

    private void number(double number, StringBuilder out) {
        if (Double.isNaN(number) || Double.isInfinite(number)) text(String.valueOf(number), out);
        else out.append(numbers.apply(number));
    }

    private static void text(String text, StringBuilder out) {
        out.append('"');
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '"' || c == '\\') out.append('\\').append(c);
            else if (c >= ' ') out.append(c);
            else if (c == '\n') out.append("\\n");
            else out.append("\\u00").append(c < 16 ? "0" : "1").append("0123456789abcdef".charAt(c & 15));
        }
        out.append('"');
    }
}
