package sarnik.carried;

import java.io.IOException;
import java.lang.reflect.Modifier;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.lang.reflect.WildcardType;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import sarnik.dashboard.DocumentJson;
import sarnik.dashboard.Kinds;
import tools.jackson.databind.BeanProperty;
import tools.jackson.databind.JavaType;
import tools.jackson.databind.introspect.AnnotatedClassResolver;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.jsonFormatVisitors.JsonFormatVisitorWrapper;
import tools.jackson.databind.jsonFormatVisitors.JsonObjectFormatVisitor;
import tools.jackson.databind.jsontype.NamedType;
import tools.jackson.databind.ser.BeanPropertyWriter;

/**
 * Writes the class {@code sarnik.browser.Records}: how each record of documents and drawings is made of JSON and
 * written as JSON where there is no reflection, in the compiled core. What Jackson does on the server is asked of
 * Jackson itself, so that both write the same. Part of the build; never runs in the application.
 */
public final class RecordsSource {

    private final JsonMapper mapper = DocumentJson.with(JsonMapper.builder()).build();
    private final Set<Class<?>> written = new LinkedHashSet<>();
    private final Set<Class<?>> read = new LinkedHashSet<>();
    private final Map<Class<?>, Map<String, Class<?>>> typed = new LinkedHashMap<>();

    private RecordsSource() {}

    /**
     * @param args the folder of generated sources; then names of classes that are read, each with a minus before it
     *     where it is only written
     */
    public static void main(String[] args) throws IOException, ClassNotFoundException {
        RecordsSource source = new RecordsSource();
        Kinds.ALL.visuals().forEach(kind -> source.writes(kind.drawing()));
        for (String name : Arrays.copyOfRange(args, 1, args.length)) {
            if (name.startsWith("-")) source.writes(Class.forName(name.substring(1)));
            else source.reads(Class.forName(name));
        }
        Path file = Path.of(args[0], "sarnik", "browser", "Records.java");
        Files.createDirectories(file.getParent());
        Files.writeString(file, source.text());
    }

    // --- what there is ---------------------------------------------------------------------------------

    private void reads(Type type) {
        eachOf(type, this::readsClass);
    }

    private void readsClass(Class<?> of) {
        if (!isOurs(of) || !read.add(of)) return;
        subtypes(of).values().forEach(this::readsClass);
        writesClass(of);
        if (of.isRecord()) for (RecordComponent component : of.getRecordComponents()) reads(component.getGenericType());
    }

    private void writes(Type type) {
        eachOf(type, this::writesClass);
    }

    private void writesClass(Class<?> of) {
        if (!isOurs(of) || !written.add(of)) return;
        subtypes(of).values().forEach(this::writesClass);
        if (of.isSealed()) for (Class<?> sub : of.getPermittedSubclasses()) writesClass(sub);
        if (of.isRecord()) for (BeanPropertyWriter property : properties(of)) writes(generic(of, property));
    }

    private static boolean isOurs(Class<?> of) {
        return of.getName().startsWith("sarnik.");
    }

    private static void eachOf(Type type, java.util.function.Consumer<Class<?>> take) {
        if (type instanceof Class<?> of) {
            if (of.isArray()) eachOf(of.getComponentType(), take);
            else take.accept(of);
        } else if (type instanceof ParameterizedType parameterized) {
            eachOf(parameterized.getRawType(), take);
            for (Type argument : parameterized.getActualTypeArguments()) eachOf(argument, take);
        } else if (type instanceof WildcardType wildcard) {
            eachOf(wildcard.getUpperBounds()[0], take);
        }
    }

    /** The classes that may stand where one is declared, by the names that JSON tells them from each other by. */
    private Map<String, Class<?>> subtypes(Class<?> of) {
        if (of.isRecord() || of.isEnum()) return Map.of();
        return typed.computeIfAbsent(of, c -> {
            Map<String, Class<?>> names = new TreeMap<>();
            var config = mapper.deserializationConfig();
            var annotated = AnnotatedClassResolver.resolve(config, mapper.constructType(c), config);
            Collection<NamedType> found =
                    config.getSubtypeResolver().collectAndResolveSubtypesByTypeId(config, annotated);
            for (NamedType one : found)
                if (one.hasName() && one.getType().isRecord()) names.put(one.getName(), one.getType());
            return names;
        });
    }

    private List<BeanPropertyWriter> properties(Class<?> of) {
        List<BeanPropertyWriter> found = new ArrayList<>();
        mapper.acceptJsonFormatVisitor(of, new JsonFormatVisitorWrapper.Base() {
            @Override
            public JsonObjectFormatVisitor expectObjectFormat(JavaType type) {
                return new JsonObjectFormatVisitor.Base(getContext()) {
                    @Override
                    public void property(BeanProperty property) {
                        found.add((BeanPropertyWriter) property);
                    }

                    @Override
                    public void optionalProperty(BeanProperty property) {
                        property(property);
                    }
                };
            }
        });
        return found;
    }

    private static Type generic(Class<?> of, BeanPropertyWriter property) {
        try {
            return of.getMethod(accessor(of, property)).getGenericReturnType();
        } catch (NoSuchMethodException impossible) {
            throw new IllegalStateException(of + " has no accessor of " + property.getName(), impossible);
        }
    }

    /** The method that gives a property: that of the component, or a getter. */
    private static String accessor(Class<?> of, BeanPropertyWriter property) {
        if (Arrays.stream(of.getRecordComponents()).anyMatch(c -> c.getName().equals(property.getName())))
            return property.getName();
        return property.getMember().getName();
    }

    // --- as source -------------------------------------------------------------------------------------

    private String text() {
        List<Class<?>> records = sorted(written.stream().filter(Class::isRecord).toList());
        List<Class<?>> enums = sorted(written.stream().filter(Class::isEnum).toList());
        StringBuilder text = new StringBuilder("package sarnik.browser;\n\n"
                + "import static sarnik.carried.RecordJson.*;\n\nimport java.util.*;\nimport sarnik.carried.RecordJson;\n\n"
                + "/** Written by RecordsSource; not to be changed by hand. */\n"
                + "@SuppressWarnings({\"unchecked\", \"rawtypes\"})\npublic final class Records {\n\n"
                + "    private Records() {}\n\n    public static RecordJson json() {\n"
                + "        RecordJson json = new RecordJson();\n");
        for (int i = 0; i < records.size(); i++) text.append("        r%d(json);\n".formatted(i));
        for (Class<?> one : enums)
            text.append("        json.choice(%1$s.class, %1$s.values());\n".formatted(name(one)));
        typed.forEach((of, names) -> names.forEach((name, sub) -> {
            if (read.contains(sub))
                text.append("        json.one(%s.class, \"%s\", %s.class);\n".formatted(name(of), name, name(sub)));
        }));
        text.append("        return json;\n    }\n");
        for (int i = 0; i < records.size(); i++)
            text.append(
                    "\n    private static void r%d(RecordJson json) {\n%s    }\n".formatted(i, record(records.get(i))));
        return text.append("}\n").toString();
    }

    private static List<Class<?>> sorted(Collection<Class<?>> classes) {
        List<Class<?>> sorted = new ArrayList<>(classes);
        sorted.sort(Comparator.comparing(Class::getName));
        return sorted;
    }

    private static String name(Class<?> of) {
        if (!Modifier.isPublic(of.getModifiers()))
            throw new IllegalStateException(of.getName() + " travels as JSON and has to be public");
        return of.getCanonicalName();
    }

    private String record(Class<?> of) {
        String name = name(of);
        List<BeanPropertyWriter> properties = properties(of);
        Set<String> names = new TreeSet<>();
        for (Map<String, Class<?>> one : typed.values())
            one.forEach((said, sub) -> {
                if (sub == of) names.add(said);
            });
        if (names.size() > 1) throw new IllegalStateException(of + " has the names " + names);
        StringBuilder text =
                new StringBuilder("        json.written(%s.class, %s, %s, it -> {\n            %s of = (%s) it;\n"
                        .formatted(
                                name,
                                names.isEmpty()
                                        ? "null"
                                        : "\"" + names.iterator().next() + "\"",
                                properties.stream().anyMatch(BeanPropertyWriter::willSuppressNulls),
                                name,
                                name));
        text.append("            return new Object[] {%s};\n        }, %s);\n"
                .formatted(
                        properties.stream()
                                .map(p -> "of." + accessor(of, p) + "()")
                                .collect(Collectors.joining(", ")),
                        properties.isEmpty()
                                ? "new String[0]"
                                : properties.stream()
                                        .map(p -> "\"" + p.getName() + "\"")
                                        .collect(Collectors.joining(", "))));
        if (!read.contains(of)) return text.toString();
        RecordComponent[] components = of.getRecordComponents();
        List<String> types = new ArrayList<>();
        List<String> given = new ArrayList<>();
        for (int i = 0; i < components.length; i++) {
            Class<?> raw = components[i].getType();
            types.add("\"" + components[i].getName() + "\", " + type(components[i].getGenericType()));
            given.add("(" + (raw.isPrimitive() ? boxed(raw) : name2(raw)) + ") v[" + i + "]");
        }
        text.append("        json.read(%s.class, v -> new %s(%s)%s);\n"
                .formatted(
                        name,
                        name,
                        String.join(", ", given),
                        types.isEmpty() ? "" : ",\n            " + String.join(",\n            ", types)));
        return text.toString();
    }

    private static String name2(Class<?> of) {
        return of.isArray() || !isOurs(of) ? of.getCanonicalName() : name(of);
    }

    private static String boxed(Class<?> primitive) {
        return Map.of(
                        int.class, "Integer",
                        long.class, "Long",
                        double.class, "Double",
                        boolean.class, "Boolean")
                .get(primitive);
    }

    /** How a value of a type is read. */
    private static String type(Type type) {
        if (type instanceof WildcardType wildcard) return type(wildcard.getUpperBounds()[0]);
        if (type instanceof ParameterizedType of) {
            Type[] arguments = of.getActualTypeArguments();
            Class<?> raw = (Class<?>) of.getRawType();
            if (raw == List.class || raw == Collection.class) return "list(" + type(arguments[0]) + ")";
            if (raw == Set.class) return "set(" + type(arguments[0]) + ")";
            if (raw == Map.class) return "map(" + type(arguments[0]) + ", " + type(arguments[1]) + ")";
        }
        if (type == String.class) return "TEXT";
        if (type == int.class) return "INT_0";
        if (type == Integer.class) return "INT";
        if (type == long.class) return "LONG_0";
        if (type == Long.class) return "LONG";
        if (type == double.class) return "NUMBER_0";
        if (type == Double.class) return "NUMBER";
        if (type == boolean.class) return "FLAG_0";
        if (type == Boolean.class) return "FLAG";
        if (type == LocalDate.class) return "DAY";
        if (type == Object.class) return "ANY";
        if (type == double[].class) return "NUMBERS";
        if (type instanceof Class<?> of && isOurs(of)) return "of(" + name(of) + ".class)";
        throw new IllegalStateException("It is not known how " + type + " is read");
    }
}
