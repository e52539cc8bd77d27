package sarnik.place;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The words of one row that tell where it is; null where the table has no such column, empty where the cell is.
 */
public record Words(String town, String province, String country) {

    /** The words in one line, for lists: "Vitoria, Álava". */
    public String line() {
        StringBuilder line = new StringBuilder();
        for (String word : new String[] {town, province, country}) {
            if (word == null || word.isEmpty()) continue;
            if (line.length() > 0) line.append(", ");
            line.append(word);
        }
        return line.toString();
    }

    /**
     * Tells the words of one text apart: what stands between commas or in brackets, the narrowest first. The last part that
     * names a country is the country, the last of the rest that names a province is the province.
     */
    static Words of(String text, Gazetteer gazetteer) {
        List<String> parts = new ArrayList<>(Arrays.stream(text.replaceAll("[()\\[\\]]", ",").split("\\s*[,;]\\s*|\\s+-\\s+")).map(String::strip).filter(p -> !p.isEmpty()).toList());
        if (parts.isEmpty()) return new Words("", null, null);
        String country = null;
        String province = null;
        if (parts.size() > 1 && gazetteer.country(last(parts)).isPresent()) country = parts.remove(parts.size() - 1);
        if (parts.size() > 1 && !PlaceNames.isArticle(last(parts)) && !gazetteer.regions(last(parts)).isEmpty()) province = parts.remove(parts.size() - 1);
        // A part that names nothing wider belongs to the name: "Coruña, A".
        String name = String.join(", ", parts);
        boolean isTown = gazetteer.towns(name).stream().anyMatch(Gazetteer.Named::main);
        if (!isTown && country == null && province == null && gazetteer.country(name).isPresent()) return new Words(null, null, name);
        if (!isTown && province == null && !gazetteer.regions(name).isEmpty()) return new Words(null, name, country);
        return new Words(name, province, country);
    }

    private static String last(List<String> parts) {
        return parts.get(parts.size() - 1);
    }
}
