package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/**
 * What is told to readers about a dataset.
 *
 * @param title what it is; empty for none, as all texts here
 * @param source who gathered it
 * @param credit the line that its licence asks for
 * @param licence under which it may be used
 * @param period which time it covers, in words
 * @param columns by name: what a column holds and in which unit
 */
public record About(
        String title, String source, String credit, String licence, String period, Map<String, OfColumn> columns) {

    public static final About NONE = new About(null, null, null, null, null, null);

    private static final int LONGEST = 2000;

    /**
     * @param unit the unit of its numbers, such as "L" or "€"; empty for none
     * @param description what it holds
     * @param meaning what its numbers are; null to have it guessed
     */
    public record OfColumn(String unit, String description, Telling.Meaning meaning) {

        /** A column of whose numbers it is not said what they are. */
        public OfColumn(String unit, String description) {
            this(unit, description, null);
        }

        public OfColumn {
            unit = clean(unit);
            description = clean(description);
        }
    }

    public About {
        title = clean(title);
        source = clean(source);
        credit = clean(credit);
        licence = clean(licence);
        period = clean(period);
        columns = columns == null ? Map.of() : Map.copyOf(columns);
    }

    private static String clean(String text) {
        String stripped = text == null ? "" : text.strip();
        return stripped.length() > LONGEST ? stripped.substring(0, LONGEST) : stripped;
    }

    /** Whether nothing is told. */
    public boolean isEmpty() {
        return (title + source + credit + licence + period).isEmpty() && columns.isEmpty();
    }

    /** The unit of a column's numbers; empty where none is told. */
    public String unit(String column) {
        return columns.containsKey(column) ? columns.get(column).unit() : "";
    }

    /**
     * The same with the units that numbers have now, where what is told is what they had before.
     *
     * @param before units by the column's name
     * @param now the same
     */
    public About withUnits(Map<String, String> before, Map<String, String> now) {
        Map<String, OfColumn> told = new HashMap<>(columns);
        told.replaceAll((name, column) -> column.unit.equals(before.get(name))
                ? new OfColumn(now.get(name), column.description, column.meaning)
                : column);
        return new About(title, source, credit, licence, period, told);
    }

    /** What the numbers of a column are said to be; empty where that is left to be guessed. */
    public Optional<Telling.Meaning> meaning(String column) {
        return Optional.ofNullable(columns.get(column)).map(OfColumn::meaning);
    }

    /** Source, credit, licence and period in one line, as far as they are told. */
    public String line() {
        StringBuilder line = new StringBuilder();
        for (String part : new String[] {
            title,
            source.isEmpty() ? "" : phrase("source: {0}", source),
            credit,
            licence.isEmpty() ? "" : phrase("licence: {0}", licence),
            period
        }) {
            if (!part.isEmpty()) line.append(line.isEmpty() ? "" : "; ").append(part);
        }
        return line.toString();
    }
}
