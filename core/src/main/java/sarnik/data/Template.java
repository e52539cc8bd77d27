package sarnik.data;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A text with fields in braces, such as {@code "{town}: {litres:0.0 l}"}. Behind a colon stands how a field is written.
 *
 * @param parts words and fields in reading order
 */
public record Template(List<Part> parts) {

    private static final Pattern BRACES = Pattern.compile("\\{([^{}]{1,200})\\}");

    public sealed interface Part {}

    public record Literal(String text) implements Part {}

    /**
     * @param name what stands there
     * @param form how it is written; null for the usual
     * @param written the field as it stands in the text, braces and all
     */
    public record Field(String name, String form, String written) implements Part {

        /** Whether it goes by this name, in any case. */
        public boolean is(String other) {
            return name.equalsIgnoreCase(other);
        }
    }

    public Template {
        parts = List.copyOf(parts);
    }

    public static Template of(String text) {
        List<Part> parts = new ArrayList<>();
        Matcher braces = BRACES.matcher(text);
        int from = 0;
        while (braces.find()) {
            if (braces.start() > from) parts.add(new Literal(text.substring(from, braces.start())));
            String inside = braces.group(1);
            int colon = inside.lastIndexOf(':');
            parts.add(
                    colon < 0
                            ? new Field(inside.strip(), null, braces.group())
                            : new Field(
                                    inside.substring(0, colon).strip(),
                                    inside.substring(colon + 1).strip(),
                                    braces.group()));
            from = braces.end();
        }
        if (from < text.length()) parts.add(new Literal(text.substring(from)));
        return new Template(parts);
    }

    public List<Field> fields() {
        return parts.stream()
                .filter(Field.class::isInstance)
                .map(Field.class::cast)
                .toList();
    }

    /**
     * The text with its fields filled.
     *
     * @param value what stands for a field; null where there is nothing of this name, and then it stays as it is, so
     *     that a slip is seen
     */
    public String filled(Function<Field, String> value) {
        StringBuilder text = new StringBuilder();
        for (Part part : parts) {
            if (part instanceof Literal literal) text.append(literal.text());
            else if (part instanceof Field field) {
                String found = value.apply(field);
                text.append(found == null ? field.written() : found);
            }
        }
        return text.toString();
    }
}
