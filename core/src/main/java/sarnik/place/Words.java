package sarnik.place;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.regex.Pattern;

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
     * The words as they are looked for: text that was decoded in a wrong way is mended, and what stands around a name
     * is taken off.
     */
    Words read() {
        return new Words(
                town == null ? null : PlaceNames.bare(town),
                province == null ? null : PlaceNames.mended(province),
                country == null ? null : PlaceNames.mended(country));
    }

    /** An area is meant rather than a town of its name where it has so many times more people. */
    private static final int LARGER = 25;

    private static final Pattern BETWEEN = Pattern.compile("\\s*[,;|\\n]\\s*|:\\s+|\\s+[-–—/>]\\s+");

    /**
     * Tells the words of one text apart: what stands between commas, dashes or in brackets, the narrowest first or the
     * widest
     * first, whichever fits the places that are known. A part that names a country is the country, one that names a
     * region the
     * province; letters that are the code of both are what fits the town.
     */
    static Words of(String text, Gazetteer gazetteer) {
        // What names no place as a whole is not taken apart: a list of letters as JSON writes it would give names of
        // places.
        if (NoPlace.is(text)) return new Words(text.strip(), null, null);
        List<String> parts = new ArrayList<>();
        for (String part : BETWEEN.split(PlaceNames.mended(text).replaceAll("[()\\[\\]]", ","))) {
            String bare = PlaceNames.bare(part);
            if (!bare.isEmpty() && bare.codePoints().anyMatch(Character::isLetter)) parts.add(bare);
        }
        if (parts.isEmpty()) return new Words(text.strip(), null, null);
        if (parts.size() == 1) {
            List<String> apart = apart(parts.get(0), gazetteer);
            if (apart.isEmpty()) return alone(parts.get(0), null, gazetteer);
            parts = apart;
        }
        Words best = null;
        int most = Integer.MIN_VALUE;
        List<String> turned = new ArrayList<>(parts);
        Collections.reverse(turned);
        for (List<String> order : List.of(parts, turned)) {
            for (Words words : readings(order, gazetteer)) {
                int fit = fit(words, gazetteer);
                if (fit <= most) continue;
                most = fit;
                best = words;
            }
        }
        return best;
    }

    /**
     * A name and what stands behind it without a mark between: "Sydney NSW", "Paris France"; empty where it is one
     * name, or none.
     */
    private static List<String> apart(String text, Gazetteer gazetteer) {
        if (!gazetteer.towns(text).isEmpty()
                || gazetteer.country(text).isPresent()
                || !gazetteer.regions(text).isEmpty()) return List.of();
        for (int at = text.indexOf(' '); at > 0; at = text.indexOf(' ', at + 1)) {
            String town = text.substring(0, at);
            String wider = text.substring(at + 1).strip();
            if (!gazetteer.towns(town).isEmpty()
                    && (isProvince(wider, gazetteer) || gazetteer.country(wider).isPresent()))
                return new ArrayList<>(List.of(town, wider));
        }
        return List.of();
    }

    /** The ways to read parts of which the narrowest comes first; those that tell more apart come first. */
    private static List<Words> readings(List<String> parts, Gazetteer gazetteer) {
        List<Words> all = new ArrayList<>();
        int last = parts.size() - 1;
        boolean country = gazetteer.country(parts.get(last)).isPresent();
        if (country && last > 1 && isProvince(parts.get(last - 1), gazetteer))
            all.add(new Words(name(parts, last - 1), parts.get(last - 1), parts.get(last)));
        if (country) all.add(alone(name(parts, last), parts.get(last), gazetteer));
        if (isProvince(parts.get(last), gazetteer)) all.add(new Words(name(parts, last), parts.get(last), null));
        all.add(alone(name(parts, last + 1), null, gazetteer));
        return all;
    }

    private static boolean isProvince(String part, Gazetteer gazetteer) {
        return !PlaceNames.isArticle(part) && !gazetteer.regions(part).isEmpty();
    }

    /** Parts that name nothing wider belong to the name: "Coruña, A". */
    private static String name(List<String> parts, int count) {
        return String.join(", ", parts.subList(0, count));
    }

    private static Words alone(String name, String country, Gazetteer gazetteer) {
        String code = country == null ? null : gazetteer.country(country).orElse(null);
        List<Gazetteer.Named> towns = gazetteer.towns(name).stream()
                .filter(n -> code == null || n.place().country().equals(code))
                .toList();
        boolean main = towns.stream().anyMatch(Gazetteer.Named::main);
        long town = towns.stream()
                .filter(n -> n.main() || !main)
                .mapToLong(n -> n.place().population() + 1)
                .max()
                .orElse(0);
        if (country == null && !gazetteer.isCountryCode(name)) {
            long people = gazetteer
                    .country(name)
                    .flatMap(gazetteer::area)
                    .map(Place::population)
                    .orElse(-1L);
            if (people >= 0 && people > LARGER * town) return new Words(null, null, name);
        }
        long people = gazetteer.regions(name).stream()
                .mapToLong(Place::population)
                .max()
                .orElse(-1);
        return people >= 0 && people > LARGER * town ? new Words(null, name, country) : new Words(name, null, country);
    }

    /**
     * How well a reading fits what is known: a town of the name in the province and the country that stand beside it
     * is best.
     */
    private static int fit(Words words, Gazetteer gazetteer) {
        if (words.town == null) return words.province == null ? 0 : 2;
        List<Place> towns =
                gazetteer.towns(words.town).stream().map(Gazetteer.Named::place).toList();
        int fit = towns.isEmpty() ? 0 : 2;
        List<Place> provinces = words.province == null ? List.of() : gazetteer.regions(words.province);
        if (!provinces.isEmpty())
            fit += towns.isEmpty()
                    ? 1
                    : towns.stream().anyMatch(t -> provinces.stream().anyMatch(p -> Gazetteer.holds(p, t))) ? 3 : -1;
        String country =
                words.country == null ? null : gazetteer.country(words.country).orElse(null);
        if (country != null)
            fit += towns.isEmpty()
                    ? 1
                    : towns.stream().anyMatch(t -> t.country().equals(country)) ? 2 : -2;
        return fit;
    }
}
