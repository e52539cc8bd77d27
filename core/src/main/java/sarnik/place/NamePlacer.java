package sarnik.place;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import sarnik.place.Candidates.Fit;

/**
 * Places words by name. The narrowest word given is looked up, the wider ones beside it tell namesakes apart; where
 * nothing tells them apart the match is doubtful.
 *
 * <p>Each place of the name has a weight: how the name fits times a power of its people. The confidence is the
 * likeliest
 * place's share of all weights and of the chance that none is meant ({@link TableSense}). A name that is not found, or
 * that
 * fits no column beside it, is looked for among abbreviations, swapped words and slips of the pen. The constants were
 * set on
 * generated tables whose truth is known; {@code ConfidenceTest} holds them to it on others.
 */
public final class NamePlacer {

    private static final String NAME_FITS = "the name fits";

    /** Where no column tells, a place of any country may be meant. */
    private static final double WORLD = 1;

    private final Gazetteer gazetteer;

    public NamePlacer(Gazetteer gazetteer) {
        this.gazetteer = gazetteer;
    }

    /** Finds the place that the words mean. Never null. */
    public Match place(Words words) {
        Words read = words.read();
        Candidates found = candidates(read);
        if (found != null) {
            Match match = found.alone();
            return match == null ? notFound(read) : match;
        }
        // A row whose town or province is missing is not placed by its country: that would look as sure as the others.
        return read.town() == null && read.province() == null && isFilled(read.country())
                ? country(read.country())
                : notFound(read);
    }

    /** The share of all towns that lie in a country. */
    double shareOf(String country) {
        return gazetteer.shareOf(country);
    }

    /** Why nothing is found. */
    static Match notFound(Words words) {
        if (isFilled(words.town()))
            return Match.unplaced(
                    NoPlace.is(words.town())
                            ? "“" + words.town() + "” names no place."
                            : "No town is called “" + words.town() + "”.");
        if (words.town() != null) return Match.unplaced("The town is missing.");
        if (isFilled(words.province()))
            return Match.unplaced(
                    NoPlace.is(words.province())
                            ? "“" + words.province() + "” names no place."
                            : "No province is called “" + words.province() + "”.");
        if (words.province() != null) return Match.unplaced("The province is missing.");
        return Match.unplaced("There are no words to go by.");
    }

    private Match country(String written) {
        if (NoPlace.is(written)) return Match.unplaced("“" + written + "” names no place.");
        Optional<Place> place = gazetteer.country(written).flatMap(gazetteer::area);
        return place.map(p -> new Match(p, Match.State.PLACED, 0.99, "The name or code of a country.", List.of()))
                .orElseGet(() -> Match.unplaced("No country is called “" + written + "”."));
    }

    /**
     * The places that the words may mean, none where no name comes near; null where they name no town and no province.
     *
     * @param words as {@link Words#read} reads them
     */
    Candidates candidates(Words words) {
        if (isFilled(words.town())) return NoPlace.is(words.town()) ? none() : towns(words);
        if (words.town() == null && isFilled(words.province()))
            return NoPlace.is(words.province()) ? none() : areas(words);
        return null;
    }

    private static Candidates none() {
        return new Candidates(List.of(), List.of(), List.of(), Fit.MAIN, WORLD, 0);
    }

    // --- towns ---------------------------------------------------------------------------------------

    private Candidates towns(Words words) {
        List<Candidates.Town> exact = new ArrayList<>();
        for (Gazetteer.Named named : gazetteer.towns(words.town()))
            exact.add(new Candidates.Town(named.place(), nameWeight(named) * people(named), nameWords(named)));
        boolean main = exact.stream().anyMatch(NamePlacer::isMain);
        Candidates asWritten = beside(words, exact, main ? Fit.MAIN : Fit.OTHER, 0);
        if (!exact.isEmpty() && asWritten.against().isEmpty()) return asWritten;
        List<Candidates.Town> nearly = new ArrayList<>();
        Fit fit = Fit.TWO_SLIPS;
        int around = 0;
        for (Gazetteer.Nearly near : gazetteer.nearlyTowns(words.town())) {
            Fit one = fit(near.slip());
            nearly.add(new Candidates.Town(
                    near.named().place(),
                    slipWeight(one) * nameWeight(near.named()) * people(near.named()),
                    slipWords(near)));
            if (one.ordinal() > fit.ordinal()) continue;
            around = one == fit ? around + 1 : 1;
            fit = one;
        }
        Candidates bySlip = beside(words, nearly, fit, around);
        if (exact.isEmpty()) return withoutWorse(bySlip);
        return !nearly.isEmpty()
                        && bySlip.against().isEmpty()
                        && !bySlip.helped().isEmpty()
                ? withoutWorse(bySlip)
                : asWritten;
    }

    /** The fit is that of the best of what is left by the columns beside. */
    private static Candidates withoutWorse(Candidates found) {
        if (found.towns().isEmpty()) return found;
        Fit best = Fit.TWO_SLIPS;
        for (Candidates.Town town : found.towns()) {
            Fit fit = town.how().contains(Gazetteer.Slip.TWO_SLIPS.words())
                    ? Fit.TWO_SLIPS
                    : town.how().contains(Gazetteer.Slip.ONE_SLIP.words()) ? Fit.ONE_SLIP : Fit.SPELLED;
            if (fit.ordinal() < best.ordinal()) best = fit;
        }
        return new Candidates(found.towns(), found.helped(), found.against(), best, found.scope(), found.around());
    }

    /** Whether a town goes by the name that was looked for. */
    static boolean isMain(Candidates.Town town) {
        return town.how().startsWith(NAME_FITS);
    }

    private static Fit fit(Gazetteer.Slip slip) {
        return switch (slip) {
            case ABBREVIATED, SWAPPED -> Fit.SPELLED;
            case ONE_SLIP -> Fit.ONE_SLIP;
            case TWO_SLIPS -> Fit.TWO_SLIPS;
        };
    }

    /**
     * Weighs towns by the columns beside the name: those that fit all of them, or all with what speaks against them.
     */
    private Candidates beside(Words words, List<Candidates.Town> towns, Fit fit, int around) {
        List<String> helped = new ArrayList<>(2);
        List<String> against = new ArrayList<>(2);
        List<Candidates.Town> fitting = towns;
        double scope = WORLD;
        if (isFilled(words.country())) {
            Optional<String> country = gazetteer.country(words.country());
            // Letters of a region that are the code of a country too mean the country only where no region fits.
            List<Place> regions = country.isPresent() && gazetteer.isCountryCode(words.country())
                    ? gazetteer.regions(words.country())
                    : List.of();
            List<Candidates.Town> inside =
                    towns.stream().filter(t -> liesIn(t.place(), regions)).toList();
            if (!inside.isEmpty()) {
                List<Candidates.Town> both = towns.stream()
                        .filter(t -> inside.contains(t) || t.place().country().equals(country.get()))
                        .toList();
                fitting = both;
                helped.add(both.size() > inside.size() ? "the country or the region fits" : "the region fits");
                scope = gazetteer.shareOf(regions);
            } else if (country.isPresent()) {
                fitting = keep(
                        fitting,
                        t -> t.country().equals(country.get()),
                        "the country fits",
                        "“" + words.country() + "” has no town of this name",
                        helped,
                        against);
                scope = gazetteer.shareOf(country.get());
            } else if (!NoPlace.is(words.country())) {
                against.add("“" + words.country() + "” is not a country that is known");
            }
        }
        if (isFilled(words.province()) && !NoPlace.is(words.province())) {
            List<Place> provinces = gazetteer.regions(words.province());
            if (provinces.isEmpty()) provinces = gazetteer.nearlyRegions(words.province());
            List<Place> areas = provinces;
            if (areas.isEmpty()) {
                against.add("“" + words.province() + "” is not a province that is known");
            } else {
                fitting = keep(
                        fitting,
                        t -> liesIn(t, areas),
                        "the province fits",
                        "“" + words.province() + "” has no town of this name",
                        helped,
                        against);
                scope = Math.min(scope, gazetteer.shareOf(areas));
                // Of several areas of one name the one with more people is likelier meant, as of towns.
                if (areas.size() > 1)
                    fitting = fitting.stream()
                            .map(t -> new Candidates.Town(
                                    t.place(), t.weight() * weightOfArea(areas, t.place()), t.how()))
                            .toList();
            }
        }
        return new Candidates(fitting, helped, against, fit, scope, around);
    }

    private static List<Candidates.Town> keep(
            List<Candidates.Town> towns,
            Predicate<Place> fits,
            String helps,
            String speaksAgainst,
            List<String> helped,
            List<String> against) {
        List<Candidates.Town> inside =
                towns.stream().filter(t -> fits.test(t.place())).toList();
        if (inside.isEmpty()) {
            against.add(speaksAgainst);
            return towns;
        }
        helped.add(helps);
        return inside;
    }

    private static double people(Gazetteer.Named named) {
        return Math.pow(named.place().population() + 300.0, 0.35)
                * (named.place().seat() ? 1.2 : 1)
                * (named.lesser() ? 0.3 : 1);
    }

    private static double nameWeight(Gazetteer.Named named) {
        return (named.main() ? 1 : 0.35) * (named.whole() ? 1 : 0.8);
    }

    private static String nameWords(Gazetteer.Named named) {
        String words =
                named.main() ? NAME_FITS : "another name of " + named.place().name() + " fits";
        return named.whole() ? words : words + " but for its article";
    }

    private static String slipWords(Gazetteer.Nearly near) {
        Place place = near.named().place();
        boolean itself = near.named().main();
        return "not written so, but " + near.slip().words() + " “" + (itself ? place.name() : near.name()) + "”"
                + (itself ? "" : ", another name of " + place.name());
    }

    private static double slipWeight(Fit fit) {
        return switch (fit) {
            case ONE_SLIP -> 0.1;
            case TWO_SLIPS -> 0.01;
            default -> 1;
        };
    }

    private static double weightOfArea(List<Place> areas, Place town) {
        return Math.pow(
                1000.0
                        + areas.stream()
                                .filter(a -> Gazetteer.holds(a, town))
                                .mapToLong(Place::population)
                                .max()
                                .orElse(0),
                0.2);
    }

    private static boolean liesIn(Place town, List<Place> areas) {
        for (Place area : areas) if (Gazetteer.holds(area, town)) return true;
        return false;
    }

    // --- regions and provinces ---------------------------------------------------------------------------

    private Candidates areas(Words words) {
        List<Place> found = gazetteer.regions(words.province());
        boolean slip = found.isEmpty();
        if (slip) found = gazetteer.nearlyRegions(words.province());
        List<Candidates.Town> areas = found.stream()
                .map(p -> new Candidates.Town(
                        p,
                        Math.pow(p.population() + 300.0, 0.35)
                                * (isProvinceLevel(p) ? 1 : p.country().equals("ES") ? 0.02 : 0.1),
                        slip
                                ? "not written so, but one letter off “" + p.name() + "”"
                                : "the name or code of a province"))
                .toList();
        List<String> helped = new ArrayList<>(1);
        List<String> against = new ArrayList<>(1);
        double scope = WORLD;
        Optional<String> country = isFilled(words.country()) ? gazetteer.country(words.country()) : Optional.empty();
        if (country.isPresent()) {
            areas = keep(
                    areas,
                    p -> p.country().equals(country.get()),
                    "the country fits",
                    "not in “" + words.country() + "”",
                    helped,
                    against);
            scope = gazetteer.shareOf(country.get());
        }
        return new Candidates(areas, helped, against, slip ? Fit.ONE_SLIP : Fit.MAIN, scope, slip ? found.size() : 0);
    }

    /** Spain's provinces are second-level areas; elsewhere the first level is what people call province or district. */
    private static boolean isProvinceLevel(Place place) {
        return place.country().equals("ES") == (place.level() == PlaceLevel.PROVINCE);
    }

    private static boolean isFilled(String word) {
        return word != null && !word.isBlank();
    }
}
