package sarnik.data;

import java.time.LocalDate;
import java.util.Map;
import java.util.TreeMap;
import sarnik.formula.Kind;

/**
 * What readers have set, as formulas know it.
 *
 * @param kinds the types of parameters, by the name that stands behind a colon
 * @param values their values: numbers, texts, yes and no, days since 1970-01-01
 */
record Settings(Map<String, Kind> kinds, Map<String, Object> values) {

    /**
     * @param parameters values by the name that stands behind a colon: numbers, texts, yes and no, days
     */
    static Settings of(Map<String, Object> parameters) {
        Map<String, Object> values = new TreeMap<>();
        Map<String, Kind> kinds = new TreeMap<>();
        parameters.forEach((name, value) -> {
            kinds.put(name, kind(value));
            values.put(name, value instanceof LocalDate day ? (Object) (int) day.toEpochDay() : value);
        });
        return new Settings(kinds, values);
    }

    private static Kind kind(Object value) {
        if (value instanceof Boolean) return Kind.YES_NO;
        if (value instanceof LocalDate) return Kind.DATE;
        return value instanceof String ? Kind.TEXT : Kind.DECIMAL;
    }

    /** Those values that a formula names. */
    Map<String, Object> named(String formula) {
        Map<String, Object> named = new TreeMap<>(values);
        named.keySet().removeIf(name -> !names(formula, name));
        return named;
    }

    /** Whether a formula names a parameter. */
    static boolean names(String formula, String parameter) {
        int at = formula.indexOf(":" + parameter);
        while (at >= 0) {
            int end = at + 1 + parameter.length();
            if (end == formula.length()
                    || !Character.isLetterOrDigit(formula.charAt(end)) && formula.charAt(end) != '_') return true;
            at = formula.indexOf(":" + parameter, end);
        }
        return false;
    }
}
