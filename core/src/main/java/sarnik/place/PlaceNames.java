package sarnik.place;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** Brings written place names into one form, so that accents, case, marks and articles do not matter. */
final class PlaceNames {

    private static final Set<String> ARTICLES = Set.of(
            "a", "as", "el", "els", "es", "l", "la", "las", "les", "lo", "los", "o", "os", "sa", "the", "ses", "u");

    private PlaceNames() {}

    /**
     * Lower case without accents, marks as single spaces: "L'Hospitalet" → "l hospitalet".
     */
    static String fold(String name) {
        int length = name.length();
        StringBuilder out = new StringBuilder(length);
        boolean gap = false;
        String plain = isAscii(name) ? name : Normalizer.normalize(name, Normalizer.Form.NFD);
        for (int i = 0; i < plain.length(); i++) {
            char c = plain.charAt(i);
            if (c >= 'A' && c <= 'Z') c += 32;
            if (c >= 'a' && c <= 'z' || c >= '0' && c <= '9') {
                if (gap && out.length() > 0) out.append(' ');
                gap = false;
                out.append(c);
            } else if (c < 128) {
                gap = true;
            } else if (Character.getType(c) != Character.NON_SPACING_MARK) {
                if (Character.isLetterOrDigit(c)) {
                    if (gap && out.length() > 0) out.append(' ');
                    gap = false;
                    out.append(spelledOut(Character.toLowerCase(c)));
                } else if (c != '·') {
                    gap = true;
                }
            }
        }
        return out.toString();
    }

    private static String spelledOut(char c) {
        return switch (c) {
            case 'ß' -> "ss";
            case 'æ' -> "ae";
            case 'œ' -> "oe";
            case 'ø' -> "o";
            case 'ł' -> "l";
            case 'đ' -> "d";
            default -> String.valueOf(c);
        };
    }

    private static boolean isAscii(String text) {
        for (int i = 0; i < text.length(); i++) if (text.charAt(i) > 127) return false;
        return true;
    }

    /** A folded name without an article at its start or its end: "coruna la" and "a coruna" → "coruna". */
    static String withoutArticle(String folded) {
        int first = folded.indexOf(' ');
        if (first > 0 && ARTICLES.contains(folded.substring(0, first))) return folded.substring(first + 1);
        int last = folded.lastIndexOf(' ');
        if (last > 0 && ARTICLES.contains(folded.substring(last + 1))) return folded.substring(0, last);
        return folded;
    }

    /** Whether a written word is an article that may stand before or behind a name. */
    static boolean isArticle(String written) {
        return ARTICLES.contains(fold(written));
    }

    /** The names in one written text: "Alacant/Alicante" holds two, "Coruña (A)" and "Coruña, A" one. */
    static List<String> spellings(String written) {
        List<String> all = new ArrayList<>(2);
        all.add(written);
        if (written.indexOf('/') > 0) {
            for (String part : written.split("/")) if (!part.isBlank()) all.add(part.strip());
        }
        int open = written.indexOf('(');
        if (open > 0) all.add(written.substring(0, open).strip());
        return all;
    }

    private static final Map<String, List<String>> ABBREVIATIONS = Map.ofEntries(
            Map.entry("sta", List.of("santa")), Map.entry("sto", List.of("santo")), Map.entry("s", List.of("san", "sao")), Map.entry("st", List.of("sant", "saint")),
            Map.entry("ste", List.of("sainte")), Map.entry("vva", List.of("villanueva")), Map.entry("vfca", List.of("villafranca")), Map.entry("pto", List.of("puerto")),
            Map.entry("ntra", List.of("nuestra")), Map.entry("sra", List.of("senora")), Map.entry("v", List.of("vila", "villa")), Map.entry("vn", List.of("vila nova")),
            Map.entry("fte", List.of("fuente")), Map.entry("gral", List.of("general")), Map.entry("mte", List.of("monte")), Map.entry("cdad", List.of("ciudad")));

    /** Folded forms with usual abbreviations written out: "sta marta" → "santa marta"; empty where there is none. */
    static List<String> writtenOut(String folded) {
        List<String> all = List.of("");
        boolean any = false;
        for (String word : folded.split(" ")) {
            List<String> meant = ABBREVIATIONS.getOrDefault(word, List.of(word));
            any |= ABBREVIATIONS.containsKey(word);
            all = all.stream().flatMap(head -> meant.stream().map(w -> head.isEmpty() ? w : head + " " + w)).limit(6).toList();
        }
        return any ? all : List.of();
    }

    /** The words of a folded name in alphabetical order, for finding swapped ones; articles do not matter. */
    static String bag(String folded) {
        return Arrays.stream(folded.split(" ")).filter(w -> !ARTICLES.contains(w)).sorted().collect(Collectors.joining(" "));
    }
}
