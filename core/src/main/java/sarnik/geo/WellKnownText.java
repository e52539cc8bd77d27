package sarnik.geo;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * A node of well-known text: a keyword with texts, numbers and further nodes in brackets (OGC 01-009; ISO 19162 has
 * the same
 * shape). What it means is not judged here.
 */
record WellKnownText(String keyword, List<String> values, List<WellKnownText> parts) {

    private static final int DEEPEST = 40;

    /** The tree of a text; empty where it has not this shape. */
    static Optional<WellKnownText> parse(String text) {
        try {
            Reading reading = new Reading(text);
            WellKnownText root = reading.node(0);
            return reading.isAtEnd() ? Optional.of(root) : Optional.empty();
        } catch (IllegalArgumentException odd) {
            return Optional.empty();
        }
    }

    /** The first value: mostly the name. */
    String name() {
        return values.isEmpty() ? "" : values.get(0);
    }

    /** The first part with one of these keywords. */
    Optional<WellKnownText> part(String... keywords) {
        for (WellKnownText part : parts)
            for (String keyword : keywords) if (part.keyword.equals(keyword)) return Optional.of(part);
        return Optional.empty();
    }

    /** The n-th value as a number; empty where there is none. */
    Optional<Double> number(int n) {
        try {
            return n < values.size() ? Optional.of(Double.parseDouble(values.get(n))) : Optional.empty();
        } catch (NumberFormatException text) {
            return Optional.empty();
        }
    }

    private static final class Reading {

        private final String text;
        private int at;

        Reading(String text) {
            this.text = text;
        }

        boolean isAtEnd() {
            blanks();
            return at == text.length();
        }

        private void blanks() {
            while (at < text.length() && (Character.isWhitespace(text.charAt(at)) || text.charAt(at) == '\uFEFF')) at++;
        }

        private char next() {
            blanks();
            if (at >= text.length()) throw new IllegalArgumentException("it ends too soon");
            return text.charAt(at);
        }

        WellKnownText node(int depth) {
            if (depth > DEEPEST) throw new IllegalArgumentException("it is nested too deeply");
            String keyword = word().toUpperCase(Locale.ROOT);
            char open = next();
            if (keyword.isEmpty() || open != '[' && open != '(')
                throw new IllegalArgumentException("a bracket is missing");
            char close = open == '[' ? ']' : ')';
            at++;
            List<String> values = new ArrayList<>();
            List<WellKnownText> parts = new ArrayList<>();
            while (next() != close) {
                if (text.charAt(at) == ',') at++;
                else if (text.charAt(at) == '"') values.add(quoted());
                else value(values, parts, depth);
            }
            at++;
            return new WellKnownText(keyword, values, parts);
        }

        private void value(List<String> values, List<WellKnownText> parts, int depth) {
            int before = at;
            String word = word();
            if (word.isEmpty()) throw new IllegalArgumentException("a sign that does not belong there");
            if (at < text.length() && (next() == '[' || next() == '(')) {
                at = before;
                parts.add(node(depth + 1));
            } else {
                values.add(word);
            }
        }

        private String word() {
            blanks();
            int from = at;
            while (at < text.length()
                    && (Character.isLetterOrDigit(text.charAt(at)) || "_.+-".indexOf(text.charAt(at)) >= 0)) at++;
            return text.substring(from, at);
        }

        /** Within quotation marks two of them stand for one. */
        private String quoted() {
            StringBuilder out = new StringBuilder();
            for (at++; at < text.length(); at++) {
                if (text.charAt(at) != '"') out.append(text.charAt(at));
                else if (at + 1 < text.length() && text.charAt(at + 1) == '"') out.append(text.charAt(at++));
                else {
                    at++;
                    return out.toString();
                }
            }
            throw new IllegalArgumentException("a quotation mark is missing");
        }
    }
}
