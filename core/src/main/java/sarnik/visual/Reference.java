package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import sarnik.language.Language;
import sarnik.table.Sums;

/**
 * A line or a band that figures are compared with.
 *
 * @param kind what it stands at
 * @param value where it is a target: the value; of a band the lower end; null for others
 * @param parameter where the reader sets it: id of the parameter; null for others
 * @param name what it is called; null for a name made of its kind
 * @param to of a band the upper end; null for others
 */
public record Reference(Kind kind, Double value, String parameter, String name, Double to) {

    /** What it stands at. */
    public enum Kind {
        TARGET("target"),
        MEAN("mean"),
        MEDIAN("median"),
        PARAMETER("the reader's number"),
        /** From one value to another. */
        BAND("band");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** What it is called in the language that is spoken. */
        String said() {
            return switch (this) {
                case TARGET -> Language.phrase("target");
                case MEAN -> Language.phrase("mean");
                case MEDIAN -> Language.phrase("median");
                case PARAMETER -> Language.phrase("the reader’s number");
                case BAND -> Language.phrase("band");
            };
        }
    }

    /** JSON Schema of a list of them. */
    public static final String SCHEMA =
            "{\"type\": [\"array\", \"null\"], \"maxItems\": 6, \"items\": {\"type\": \"object\", "
                    + "\"additionalProperties\": false, \"required\": [\"kind\"], \"properties\": {\"kind\": "
                    + "{\"enum\": [\"TARGET\", "
                    + "\"MEAN\", \"MEDIAN\", \"PARAMETER\", \"BAND\"]}, \"to\": {\"type\": [\"number\", "
                    + "\"null\"]}, \"value\": {\"type\": [\"number\", \"null\"]}, "
                    + "\"parameter\": {\"type\": [\"string\", \"null\"], \"maxLength\": 31}, \"name\": "
                    + "{\"$ref\": \"#/$defs/words\"}}}}";

    /**
     * Where it is drawn.
     *
     * @param to of a band its other end; null for a line
     */
    public record Drawn(double value, Double to, String text) {

        /** All that an axis has to hold. */
        public DoubleStream ends() {
            return to == null ? DoubleStream.of(value) : DoubleStream.of(value, to);
        }

        /** The same in shares of an axis. */
        public Drawn on(Axis axis) {
            return new Drawn(axis.at(value), to == null ? null : axis.at(to), text);
        }
    }

    /** Those of some references that have a value. */
    public static List<Drawn> drawn(List<Reference> references, double[] values, Scene scene, Written written) {
        if (references == null) return List.of();
        return references.stream()
                .flatMap(r -> r
                        .at(values, scene)
                        .map(v -> new Drawn(v, r.to, phrase("line, value|{0} {1}", r.called(), r.ends(v, written))))
                        .stream())
                .toList();
    }

    private String ends(double value, Written written) {
        return to == null ? written.full(value) : phrase("{0} to {1}", written.full(value), written.full(to));
    }

    private String called() {
        return name == null || name.isBlank() ? kind.said() : name;
    }

    private Optional<Double> at(double[] values, Scene scene) {
        double[] known = Arrays.stream(values).filter(Double::isFinite).sorted().toArray();
        return switch (kind) {
            case TARGET -> Optional.ofNullable(value);
            case BAND -> to == null ? Optional.empty() : Optional.ofNullable(value);
            case PARAMETER -> Optional.ofNullable(parameter).flatMap(scene::number);
            case MEAN -> known.length == 0 ? Optional.empty() : Optional.of(Sums.mean(known));
            case MEDIAN ->
                known.length == 0
                        ? Optional.empty()
                        : Optional.of((known[(known.length - 1) / 2] + known[known.length / 2]) / 2);
        };
    }

    /** Whether one of some references stands at a parameter. */
    public static boolean uses(List<Reference> references, String parameter) {
        return references != null && references.stream().anyMatch(r -> parameter.equals(r.parameter()));
    }
}
