package sarnik.place;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
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

    /** A folded name without its blanks, "and" and articles: countries are written with and without them. */
    static String squashed(String name) {
        StringBuilder out = new StringBuilder();
        for (String word : fold(name).split(" "))
            if (!word.equals("and") && !word.equals("the") && !word.equals("y") && !word.equals("e")) out.append(word);
        return out.toString();
    }

    private static final List<String> KINDS_BEFORE = List.of(
            "state of ",
            "province of ",
            "provincia de ",
            "provincia di ",
            "region of ",
            "region de ",
            "departamento de ",
            "distrito de ",
            "county of ",
            "estado de ",
            "comunidad de ");
    private static final List<String> KINDS_BEHIND = List.of(
            " county",
            " province",
            " state",
            " district",
            " region",
            " department",
            " oblast",
            " prefecture",
            " governorate",
            " parish",
            " canton");

    /** The folded forms in which an area's name is looked for: as it stands, and without the word for its kind. */
    static List<String> ofAreas(String folded) {
        List<String> all = new ArrayList<>(2);
        all.add(folded);
        for (String kind : KINDS_BEFORE) if (folded.startsWith(kind)) all.add(folded.substring(kind.length()));
        for (String kind : KINDS_BEHIND)
            if (folded.endsWith(kind)) all.add(folded.substring(0, folded.length() - kind.length()));
        return all;
    }

    private static final Pattern MOJIBAKE = Pattern.compile(
            "[\u00C2\u00C3][\u0080-\u00BF\u0152\u0153\u0160\u0161\u0178\u017D\u017E\u0192\u02C6\u02DC\u2013-\u203A\u20AC\u2122]");

    /**
     * A text whose UTF-8 was read as Latin-1 (or Windows' version of it), as it was meant: "MÃ¡laga" → "Málaga";
     * others as they are.
     */
    static String mended(String text) {
        if (isAscii(text) || !MOJIBAKE.matcher(text).find()) return text;
        for (Charset read : List.of(Charset.forName("windows-1252"), StandardCharsets.ISO_8859_1)) {
            try {
                ByteBuffer bytes = read.newEncoder().encode(CharBuffer.wrap(text));
                return StandardCharsets.UTF_8.newDecoder().decode(bytes).toString();
            } catch (CharacterCodingException other) {
                // Not read in this way.
            }
        }
        return text;
    }

    /**
     * What stands before or behind a name: postcodes of digits, with a country's letters before them, or British and
     * Canadian ones.
     */
    private static final Pattern CODE_BEFORE =
            Pattern.compile("^(?:[A-Z]{1,2}[- ])?\\d{3,7}(?:[- ]\\d{2,4})?[,\\s]+(?=.*\\p{L})");

    private static final Pattern CODE_BEHIND = Pattern.compile(
            "(?<=\\p{L}.{0,200})[,\\s]+(?:(?:[A-Z]{1,2}[- ])?\\d{3,7}(?:[- ]\\d{2,4})?|[A-Z]{1,2}\\d[A-Z\\d]? "
                    + "?\\d[A-Z]{2}|[A-Z]\\d[A-Z] ?\\d[A-Z]\\d)$");

    /** A written name without a postcode before or behind it, mended where it was decoded in a wrong way. */
    static String bare(String written) {
        String name = mended(written).strip();
        name = CODE_BEHIND.matcher(name).replaceFirst("");
        return CODE_BEFORE.matcher(name).replaceFirst("");
    }

    private static final Pattern KIND_BEFORE = Pattern.compile(
            "(?i)^(?:city|town|village|municipality|borough|township|district|county|greater|metropolitan "
                    + "city|ciudad|villa|municipio|ayuntamiento|concello|câmara "
                    + "municipal|município|concelho|cidade|vila|ville|commune|comune|città|stadt|gemeinde|"
                    + "gemeente|gmina|kommune|kommun)(?: autónoma)?(?: of| de la| de los| de| del| do| da| di)? "
                    + "(?=\\p{L})");
    private static final Pattern KIND_BEHIND = Pattern.compile("(?i)(?<=\\p{L}) "
            + "(?:city|town|village|municipality|borough|township|district|county|cdp|metropolitan "
            + "area|metro|urban area|shi|-shi)$");

    /**
     * The names in one written text, the likeliest first: "Alacant/Alicante" holds two, "Coruña (A)" and "Coruña, A"
     * one, "City of
     * Bath" is Bath where nothing is called so as a whole.
     */
    static List<String> spellings(String written) {
        List<String> all = names(written);
        String kindless = KIND_BEHIND
                .matcher(KIND_BEFORE.matcher(written).replaceFirst(""))
                .replaceFirst("");
        if (!kindless.equals(written)) all.add(kindless);
        return all;
    }

    /** The same without taking off what kind of place it is: a city of a country's name is not the country. */
    static List<String> names(String written) {
        List<String> all = new ArrayList<>(2);
        all.add(written);
        if (written.indexOf('/') > 0) {
            for (String part : written.split("/")) if (hasLetter(part)) all.add(part.strip());
        }
        int open = written.indexOf('(');
        if (open > 0) all.add(written.substring(0, open).strip());
        return all;
    }

    private static boolean hasLetter(String text) {
        return text.codePoints().anyMatch(Character::isLetter);
    }

    private static final Map<String, List<String>> ABBREVIATIONS = Map.ofEntries(
            Map.entry("sta", List.of("santa")),
            Map.entry("sto", List.of("santo")),
            Map.entry("s", List.of("san", "sao")),
            Map.entry("st", List.of("sant", "saint")),
            Map.entry("ste", List.of("sainte")),
            Map.entry("vva", List.of("villanueva")),
            Map.entry("vfca", List.of("villafranca")),
            Map.entry("pto", List.of("puerto")),
            Map.entry("ntra", List.of("nuestra")),
            Map.entry("sra", List.of("senora")),
            Map.entry("v", List.of("vila", "villa")),
            Map.entry("vn", List.of("vila nova")),
            Map.entry("fte", List.of("fuente")),
            Map.entry("gral", List.of("general")),
            Map.entry("mte", List.of("monte")),
            Map.entry("cdad", List.of("ciudad")));

    /** Folded forms with usual abbreviations written out: "sta marta" → "santa marta"; empty where there is none. */
    static List<String> writtenOut(String folded) {
        List<String> all = List.of("");
        boolean any = false;
        for (String word : folded.split(" ")) {
            List<String> meant = ABBREVIATIONS.getOrDefault(word, List.of(word));
            any |= ABBREVIATIONS.containsKey(word);
            all = all.stream()
                    .flatMap(head -> meant.stream().map(w -> head.isEmpty() ? w : head + " " + w))
                    .limit(6)
                    .toList();
        }
        return any ? all : List.of();
    }

    /** The words of a folded name in alphabetical order, for finding swapped ones; articles do not matter. */
    static String bag(String folded) {
        return Arrays.stream(folded.split(" "))
                .filter(w -> !ARTICLES.contains(w))
                .sorted()
                .collect(Collectors.joining(" "));
    }
}
