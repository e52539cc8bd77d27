package sarnik.place;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * Places words by name. The narrowest word given is looked up, the wider ones beside it tell namesakes apart; where
 * nothing tells them apart the match is doubtful.
 *
 * <p>Each town of the name has a weight: how the name fits times a power of its people. The confidence is the likeliest
 * town's share of all weights and of the chance that none is meant. A name that is not found, or that fits no column beside
 * it, is looked for among abbreviations, swapped words and slips of the pen. The constants were set on generated tables
 * whose truth is known; {@code ConfidenceTest} holds them to it on others.
 */
public final class NamePlacer {

    private static final int RUNNERS_UP = 5;
    /** How often a name that is in the list as written is still not the place meant, beside the likeliest. */
    private static final double NOT_MEANT = 0.004;
    /** The same for a name that places bear only beside their main one: old, foreign and local forms. */
    private static final double OTHER_NOT_MEANT = 0.3;

    private static final String NAME_FITS = "the name fits";
    /** The same where a column beside it speaks against every town of the name. */
    private static final double AGAINST = 4;

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
        Match match = candidates(words).alone();
        return match == null ? Match.unplaced("No town is called “" + words.town() + "”.") : match;
    }

    /** The towns that the words may mean; none where no name comes near. */
    Candidates candidates(Words words) {
        List<Candidates.Town> exact = new ArrayList<>();
        for (Gazetteer.Named named : gazetteer.towns(words.town())) {
            exact.add(new Candidates.Town(named.place(), nameWeight(named) * people(named.place()), nameWords(named)));
        }
        boolean main = exact.stream().anyMatch(t -> t.how().startsWith(NAME_FITS));
        Candidates asWritten = beside(words, exact, exact.isEmpty() ? 0 : main ? NOT_MEANT : OTHER_NOT_MEANT);
        if (!exact.isEmpty() && asWritten.against().isEmpty()) return asWritten;
        List<Candidates.Town> nearly = new ArrayList<>();
        double unknown = 0;
        for (Gazetteer.Nearly near : gazetteer.nearlyTowns(words.town())) {
            Place place = near.named().place();
            nearly.add(new Candidates.Town(place, slipWeight(near.slip()) * nameWeight(near.named()) * people(place),
                    "not written so, but " + near.slip().words() + " “" + place.name() + "”"));
            unknown = unknown == 0 ? slipUnknown(near.slip()) : Math.min(unknown, slipUnknown(near.slip()));
        }
        Candidates bySlip = beside(words, nearly, unknown);
        if (exact.isEmpty()) return bySlip;
        return !nearly.isEmpty() && bySlip.against().isEmpty() && !bySlip.helped().isEmpty() ? bySlip : asWritten;
    }

    /** Weighs towns by the columns beside the name: those that fit all of them, or all with what speaks against them. */
    private Candidates beside(Words words, List<Candidates.Town> towns, double unknown) {
        List<String> helped = new ArrayList<>(2);
        List<String> against = new ArrayList<>(2);
        List<Candidates.Town> fitting = towns;
        Optional<String> country = country(words);
        if (country.isPresent()) {
            fitting = keep(fitting, t -> t.country().equals(country.get()), "the country fits", "“" + words.country() + "” has no town of this name", helped, against);
        } else if (isFilled(words.country())) {
            against.add("“" + words.country() + "” is not a country that is known");
        }
        if (isFilled(words.province())) {
            List<Place> provinces = gazetteer.regions(words.province());
            if (provinces.isEmpty()) provinces = gazetteer.nearlyRegions(words.province());
            List<Place> areas = provinces;
            if (areas.isEmpty()) against.add("“" + words.province() + "” is not a province that is known");
            else fitting = keep(fitting, t -> liesIn(t, areas), "the province fits", "“" + words.province() + "” has no town of this name", helped, against);
        }
        return new Candidates(fitting, helped, against, against.isEmpty() ? unknown : AGAINST);
    }

    private static List<Candidates.Town> keep(List<Candidates.Town> towns, Predicate<Place> fits, String helps, String speaksAgainst,
            List<String> helped, List<String> against) {
        List<Candidates.Town> inside = towns.stream().filter(t -> fits.test(t.place())).toList();
        if (inside.isEmpty()) {
            against.add(speaksAgainst);
            return towns;
        }
        helped.add(helps);
        return inside;
    }

    private static double people(Place place) {
        return Math.pow(place.population() + 300.0, 0.35) * (place.seat() ? 1.2 : 1);
    }

    private static double nameWeight(Gazetteer.Named named) {
        return (named.main() ? 1 : 0.35) * (named.whole() ? 1 : 0.8);
    }

    private static String nameWords(Gazetteer.Named named) {
        String words = named.main() ? NAME_FITS : "another name of " + named.place().name() + " fits";
        return named.whole() ? words : words + " but for its article";
    }

    private static double slipWeight(Gazetteer.Slip slip) {
        return switch (slip) {
            case ABBREVIATED, SWAPPED -> 1;
            case ONE_SLIP -> 0.1;
            case TWO_SLIPS -> 0.01;
        };
    }

    private static double slipUnknown(Gazetteer.Slip slip) {
        return switch (slip) {
            case ABBREVIATED, SWAPPED -> 0.01;
            case ONE_SLIP -> 0.025;
            case TWO_SLIPS -> 3;
        };
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
