package sarnik.place;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Places words by name. The narrowest word given is looked up, the wider ones beside it tell namesakes apart; where
 * nothing tells them apart the match is doubtful.
 *
 * <p>Confidence is a first estimate: 0.97 for one place whose name and surroundings fit, less for names without their
 * article, for other names than the main one, and for every rival that fits as well.
 */
public final class NamePlacer {

    private static final int RUNNERS_UP = 5;
    /** Two entries of one name in one province nearer than this are taken as one place. */
    private static final double SAME_PLACE_METRES = 6000;

    private final Gazetteer gazetteer;

    public NamePlacer(Gazetteer gazetteer) {
        this.gazetteer = gazetteer;
    }

    /** Finds the place that the words mean. Never null. */
    public Match place(Words words) {
        if (isFilled(words.town())) return town(words);
        if (words.town() != null) return Match.unplaced("The town is missing.");
        if (isFilled(words.province())) return province(words);
        if (words.province() != null) return Match.unplaced("The province is missing.");
        if (isFilled(words.country())) return country(words.country());
        return Match.unplaced("There are no words to go by.");
    }

    private Match country(String written) {
        Optional<Place> place = gazetteer.country(written).flatMap(gazetteer::area);
        return place.map(p -> new Match(p, Match.State.PLACED, 0.99, "The name or code of a country.", List.of()))
                .orElseGet(() -> Match.unplaced("No country is called “" + written + "”."));
    }

    private Match province(Words words) {
        List<Place> found = gazetteer.regions(words.province());
        if (found.isEmpty()) return Match.unplaced("No province is called “" + words.province() + "”.");
        Optional<String> country = country(words);
        List<Place> fitting = found.stream()
                .filter(p -> country.isEmpty() || p.country().equals(country.get()))
                .sorted(Comparator.comparingInt((Place p) -> isProvinceLevel(p) ? 0 : 1)
                        .thenComparing(Comparator.comparingLong(Place::population).reversed()))
                .toList();
        if (fitting.isEmpty()) {
            return new Match(found.get(0), Match.State.DOUBTFUL, 0.3,
                    "There is such a province, but not in “" + words.country() + "”.", rest(found));
        }
        long rivals = fitting.stream().filter(p -> isProvinceLevel(p) && !p.equals(fitting.get(0))).count();
        if (rivals > 0 && isProvinceLevel(fitting.get(0))) {
            return new Match(fitting.get(0), Match.State.DOUBTFUL, 1.0 / (1 + rivals),
                    "%d provinces have this name and nothing tells them apart.".formatted(rivals + 1), rest(fitting));
        }
        return new Match(fitting.get(0), Match.State.PLACED, 0.97, "The name or code of a province.", rest(fitting));
    }

    /** Spain's provinces are second-level areas; elsewhere the first level is what people call province or district. */
    private static boolean isProvinceLevel(Place place) {
        return place.country().equals("ES") == (place.level() == PlaceLevel.PROVINCE);
    }

    private Match town(Words words) {
        List<Gazetteer.Named> found = gazetteer.towns(words.town());
        if (found.isEmpty()) return Match.unplaced("No town is called “" + words.town() + "”.");
        Optional<String> country = country(words);
        List<Place> provinces = isFilled(words.province()) ? gazetteer.regions(words.province()) : List.of();

        List<Gazetteer.Named> fitting = found;
        List<String> helped = new ArrayList<>(2);
        List<String> against = new ArrayList<>(2);
        if (country.isPresent()) {
            List<Gazetteer.Named> inside =
                    fitting.stream().filter(n -> n.place().country().equals(country.get())).toList();
            if (inside.isEmpty()) against.add("“" + words.country() + "” has no town of this name");
            else {
                fitting = inside;
                helped.add("the country fits");
            }
        } else if (isFilled(words.country())) {
            against.add("“" + words.country() + "” is not a country that is known");
        }
        if (!provinces.isEmpty()) {
            List<Gazetteer.Named> inside =
                    fitting.stream().filter(n -> liesIn(n.place(), provinces)).toList();
            if (inside.isEmpty()) against.add("“" + words.province() + "” has no town of this name");
            else {
                fitting = inside;
                helped.add("the province fits");
            }
        } else if (isFilled(words.province())) {
            against.add("“" + words.province() + "” is not a province that is known");
        }
        return choose(fitting, helped, against);
    }

    private Match choose(List<Gazetteer.Named> fitting, List<String> helped, List<String> against) {
        List<Gazetteer.Named> ordered = fitting.size() == 1
                ? fitting
                : fitting.stream()
                        .sorted(Comparator.comparingInt(NamePlacer::nameRank)
                                .thenComparingInt(n -> n.place().seat() ? 0 : 1)
                                .thenComparing(n -> -n.place().population())
                                .thenComparing(n -> n.place().id()))
                        .toList();
        Gazetteer.Named best = ordered.get(0);
        List<Place> rivals = ordered.stream()
                .skip(1)
                .filter(n -> nameRank(n) == nameRank(best))
                .map(Gazetteer.Named::place)
                .filter(p -> best.place().metresTo(p) > SAME_PLACE_METRES)
                .toList();
        List<Place> others = ordered.stream().skip(1).limit(RUNNERS_UP).map(Gazetteer.Named::place).toList();
        double sure = 0.97 - 0.03 * nameRank(best);
        if (!against.isEmpty()) {
            return new Match(best.place(), Match.State.DOUBTFUL, 0.35 / (1 + rivals.size()),
                    "A town of this name is known, but " + String.join(", and ", against) + ".", others);
        }
        if (!rivals.isEmpty()) {
            return new Match(best.place(), Match.State.DOUBTFUL, sure / (1 + rivals.size()),
                    "%d towns have this name%s, and nothing beside it tells them apart."
                            .formatted(rivals.size() + 1, helped.isEmpty() ? "" : " where " + String.join(" and ", helped)),
                    others);
        }
        String reason = best.main() ? "The name fits" : "Another name of " + best.place().name() + " fits";
        if (!best.whole()) reason += " but for its article";
        return new Match(best.place(), Match.State.PLACED, sure,
                reason + (helped.isEmpty() ? "." : ", " + String.join(", ", helped) + "."), others);
    }

    /** 0 for the main name as written, 1 without its article, 2 and 3 for another name of the place. */
    private static int nameRank(Gazetteer.Named named) {
        return (named.main() ? 0 : 2) + (named.whole() ? 0 : 1);
    }

    private static boolean liesIn(Place town, List<Place> areas) {
        for (Place area : areas) {
            if (area.level() == PlaceLevel.PROVINCE ? area.province().equals(town.province()) : area.region().equals(town.region())) {
                return true;
            }
        }
        return false;
    }

    private Optional<String> country(Words words) {
        return isFilled(words.country()) ? gazetteer.country(words.country()) : Optional.empty();
    }

    private static boolean isFilled(String word) {
        return word != null && !word.isBlank();
    }

    private static List<Place> rest(List<Place> all) {
        return all.stream().skip(1).limit(RUNNERS_UP).toList();
    }
}
