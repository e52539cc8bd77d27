package sarnik.geo;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What a description in well-known text says of a coordinate system. It is read in this order: the code that it gives;
 * a system
 * of the register that is called so, or is made the same way, where both agree on the ground; its own parameters with
 * the shift
 * of its datum. What is not known (a method, a parameter, a datum) makes it unread: nothing is guessed.
 */
final class SystemDescription {

    /** Systems that agree within this are the same, metres. */
    private static final double SAME = 1;

    private static final double DEGREES_A_METRE = 1 / 111_195.0;

    private static final Map<String, String> METHODS = Map.ofEntries(
            Map.entry("transversemercator", "tmerc"),
            Map.entry("gausskruger", "tmerc"),
            Map.entry("lambertconformalconic", "lcc"),
            Map.entry("lambertconformalconic1sp", "lcc"),
            Map.entry("lambertconformalconic2sp", "lcc"),
            Map.entry("lambertconicconformal1sp", "lcc"),
            Map.entry("lambertconicconformal2sp", "lcc"),
            Map.entry("albers", "aea"),
            Map.entry("albersconicequalarea", "aea"),
            Map.entry("albersequalarea", "aea"),
            Map.entry("lambertazimuthalequalarea", "laea"),
            Map.entry("mercator", "merc"),
            Map.entry("mercator1sp", "merc"),
            Map.entry("mercator2sp", "merc"),
            Map.entry("mercatorvarianta", "merc"),
            Map.entry("mercatorvariantb", "merc"),
            Map.entry("obliquestereographic", "sterea"),
            Map.entry("doublestereographic", "sterea"),
            Map.entry("polarstereographic", "stere"),
            Map.entry("polarstereographicvarianta", "stere"),
            Map.entry("polarstereographicvariantb", "stere"),
            Map.entry("stereographicnorthpole", "stere"),
            Map.entry("stereographicsouthpole", "stere"),
            Map.entry("stereographic", "stere"),
            Map.entry("cassini", "cass"),
            Map.entry("cassinisoldner", "cass"),
            Map.entry("polyconic", "poly"),
            Map.entry("americanpolyconic", "poly"),
            Map.entry("cylindricalequalarea", "cea"),
            Map.entry("lambertcylindricalequalarea", "cea"),
            Map.entry("equidistantconic", "eqdc"),
            Map.entry("azimuthalequidistant", "aeqd"),
            Map.entry("newzealandmapgrid", "nzmg"),
            Map.entry("sinusoidal", "sinu"),
            Map.entry("mollweide", "moll"));

    /** Degrees of meridians that are counted from; files differ in the unit in which they give them. */
    private static final Map<String, Double> MERIDIANS = Map.ofEntries(
            Map.entry("greenwich", 0.0),
            Map.entry("referencemeridian", 0.0),
            Map.entry("paris", 2.337229166666667),
            Map.entry("lisbon", -9.131906111111112),
            Map.entry("bogota", -74.08091666666667),
            Map.entry("madrid", -3.687938888888889),
            Map.entry("rome", 12.45233333333333),
            Map.entry("bern", 7.439583333333333),
            Map.entry("jakarta", 106.8077194444444),
            Map.entry("ferro", -17.66666666666667),
            Map.entry("brussels", 4.367975),
            Map.entry("stockholm", 18.05827777777778),
            Map.entry("athens", 23.7163375),
            Map.entry("oslo", 10.72291666666667));

    private final WellKnownText root;

    private SystemDescription(WellKnownText root) {
        this.root = root;
    }

    /** The system that a text describes; empty where it is not read. */
    static Optional<Projection> read(String text) {
        return WellKnownText.parse(text).map(SystemDescription::new).flatMap(SystemDescription::projection);
    }

    private Optional<Projection> projection() {
        return switch (root.keyword()) {
            case "COMPD_CS", "COMPOUNDCRS" ->
                root.parts().stream().findFirst().map(SystemDescription::new).flatMap(SystemDescription::projection);
            case "BOUNDCRS" ->
                root.part("SOURCECRS")
                        .flatMap(s -> s.parts().stream().findFirst())
                        .map(SystemDescription::new)
                        .flatMap(SystemDescription::projection);
            case "PROJCS", "PROJCRS", "PROJECTEDCRS" -> byCode().or(this::projected);
            case "GEOGCS", "GEOGCRS", "GEOGRAPHICCRS", "GEODCRS", "GEODETICCRS" ->
                byCode().or(() -> geographic(root).flatMap(e -> Projection.ofEpsg(e.code())));
            default -> Optional.empty();
        };
    }

    private Optional<Projection> byCode() {
        return root.part("AUTHORITY", "ID")
                .filter(id -> id.name().equalsIgnoreCase("EPSG"))
                .flatMap(id -> id.number(1))
                .flatMap(code -> Projection.ofEpsg(code.intValue()));
    }

    /** The system of degrees of the register that a description means: by code, by name, by its datum. */
    private static Optional<SystemRegister.Entry> geographic(WellKnownText base) {
        SystemRegister register = SystemRegister.shipped();
        Optional<SystemRegister.Entry> byCode = base.part("AUTHORITY", "ID")
                .filter(id -> id.name().equalsIgnoreCase("EPSG"))
                .flatMap(id -> id.number(1))
                .flatMap(code -> register.find(code.intValue()));
        Optional<WellKnownText> datum = base.part("DATUM", "ENSEMBLE", "GEODETICDATUM", "TRF");
        return byCode.filter(e -> !e.projected())
                .or(() -> register.named(base.name()).filter(e -> !e.projected()))
                .or(() -> datum.flatMap(d -> register.onDatum(d.name())))
                .filter(e -> isOfItsSize(base, e));
    }

    /** Whether the ellipsoid that is described is that of the system: a name alone is not believed. */
    private static boolean isOfItsSize(WellKnownText base, SystemRegister.Entry entry) {
        double[] described = ellipsoid(base);
        double[] known = Ellipsoids.of(entry.parameters());
        return described == null
                || known == null
                || Math.abs(described[0] - known[0]) < 1 && Math.abs(described[1] - known[1]) < 1;
    }

    /** Half axes, metres; null where none is described. */
    private static double[] ellipsoid(WellKnownText base) {
        Optional<WellKnownText> spheroid =
                base.part("DATUM", "ENSEMBLE", "GEODETICDATUM", "TRF").flatMap(d -> d.part("SPHEROID", "ELLIPSOID"));
        Optional<Double> axis = spheroid.flatMap(s -> s.number(1));
        Optional<Double> inverse = spheroid.flatMap(s -> s.number(2));
        if (axis.isEmpty() || inverse.isEmpty()) return null;
        // An inverse flattening of 0 means a sphere.
        return new double[] {axis.get(), inverse.get() == 0 ? axis.get() : axis.get() * (1 - 1 / inverse.get())};
    }

    private Optional<Projection> projected() {
        WellKnownText base = root.part("GEOGCS", "BASEGEOGCRS", "BASEGEODCRS").orElse(null);
        if (base == null) return Optional.empty();
        Optional<String> grid = grid(base);
        if (grid.isEmpty()) return Optional.empty();
        if (grid.get().startsWith("EPSG:"))
            return Projection.ofEpsg(Integer.parseInt(grid.get().substring(5)));
        double[] size = ellipsoid(base);
        if (size == null) return Optional.empty();
        String bare = grid.get() + " +a=" + size[0] + " +b=" + size[1];
        Optional<Projection> alone = Projection.ofParameters("as described", bare + " +towgs84=0,0,0");
        if (alone.isEmpty()) return Optional.empty();
        Optional<SystemRegister.Entry> known = geographic(base);
        Optional<SystemRegister.Entry> same = SystemRegister.shipped()
                .named(root.name())
                .filter(e -> e.projected() && agrees(alone.get(), e))
                .or(() -> SystemRegister.shipped().projected().stream()
                        .filter(e -> known.isPresent() && isOnDatumOf(e, known.get()) && agrees(alone.get(), e))
                        .findFirst());
        if (same.isPresent()) return Projection.ofEpsg(same.get().code());
        return shift(base, known)
                .flatMap(shift -> Projection.ofParameters("as described", bare + " +towgs84=" + shift));
    }

    private static boolean isOnDatumOf(SystemRegister.Entry projected, SystemRegister.Entry base) {
        return projected.name().startsWith(base.name() + " / ");
    }

    /** The shift that the description gives itself, else that of its datum. */
    private static Optional<String> shift(WellKnownText base, Optional<SystemRegister.Entry> known) {
        Optional<WellKnownText> own = base.part("DATUM").flatMap(d -> d.part("TOWGS84"));
        if (own.isPresent()
                && (own.get().values().size() == 3 || own.get().values().size() == 7))
            return Optional.of(String.join(",", own.get().values()));
        return known.map(e -> e.parameters().replaceFirst(".*\\+towgs84=([^ ]+).*", "$1"));
    }

    /** Whether a described grid, its datum left aside, is that of a registered system. */
    private static boolean agrees(Projection alone, SystemRegister.Entry entry) {
        Optional<Projection> other = Projection.ofParameters(
                entry.name(), entry.parameters().replaceAll("\\+(towgs84|nadgrids)=[^ ]+", "") + " +towgs84=0,0,0");
        if (other.isEmpty()) return false;
        double wide = entry.west() <= entry.east() ? entry.east() - entry.west() : entry.east() - entry.west() + 360;
        for (double share : new double[] {0.3, 0.5, 0.8}) {
            double lon = entry.west() + wide * share;
            double lat = entry.south() + (entry.north() - entry.south()) * share;
            double[] there = other.get().fromDegrees(lon > 180 ? lon - 360 : lon, lat);
            if (there == null) return false;
            double[] back = alone.toDegrees(there[0], there[1]);
            if (back == null
                    || Math.abs(back[1] - lat) > SAME * DEGREES_A_METRE
                    || Math.abs(Math.IEEEremainder(back[0] - lon, 360)) * Math.cos(Math.toRadians(lat))
                            > SAME * DEGREES_A_METRE) return false;
        }
        return true;
    }

    /**
     * The projection with its numbers, in the words of PROJ; {@code EPSG:} and a code where it is a system by itself.
     */
    private Optional<String> grid(WellKnownText base) {
        WellKnownText conversion = root.part("CONVERSION").orElse(root);
        String method = conversion
                .part("PROJECTION", "METHOD")
                .map(m -> plain(m.name()))
                .orElse("");
        double angle = base.part("UNIT", "ANGLEUNIT")
                .flatMap(u -> u.number(1))
                .map(Math::toDegrees)
                .orElse(1.0);
        double metres = root.part("UNIT", "LENGTHUNIT")
                .or(() -> root.part("CS").flatMap(c -> root.part("LENGTHUNIT")))
                .flatMap(u -> u.number(1))
                .orElse(1.0);
        Map<String, Double> numbers = new HashMap<>();
        for (WellKnownText part : conversion.parts()) {
            if (!part.keyword().equals("PARAMETER")) continue;
            Optional<Double> value = part.number(1);
            if (value.isEmpty()) return Optional.empty();
            // A unit of its own goes before that of the whole (ISO 19162).
            Optional<Double> own =
                    part.part("ANGLEUNIT", "LENGTHUNIT", "SCALEUNIT").flatMap(u -> u.number(1));
            boolean isAngle = part.part("ANGLEUNIT").isPresent();
            numbers.put(
                    plain(part.name()),
                    own.isEmpty()
                            ? value.get()
                            : isAngle
                                    ? Math.toDegrees(value.get() * own.get()) / angle
                                    : part.part("LENGTHUNIT").isPresent()
                                            ? value.get() * own.get() / metres
                                            : value.get() * own.get());
        }
        boolean sphere =
                method.equals("mercatorauxiliarysphere") || method.equals("popularvisualisationpseudomercator");
        if (sphere)
            return numbers.values().stream().allMatch(v -> v == 0 || v == 1)
                    ? Optional.of("EPSG:3857")
                    : Optional.empty();
        String proj = METHODS.get(method);
        if (proj == null) return Optional.empty();
        Set<String> unread = new HashSet<>(numbers.keySet());
        StringBuilder text = new StringBuilder("+proj=" + proj);
        Double latOrigin = take(
                numbers,
                unread,
                "latitudeoforigin",
                "latitudeofcenter",
                "latitudeofnaturalorigin",
                "latitudeoffalseorigin",
                "latitudeofprojectioncentre");
        Double lonOrigin = take(
                numbers,
                unread,
                "centralmeridian",
                "longitudeofcenter",
                "longitudeoforigin",
                "longitudeofnaturalorigin",
                "longitudeoffalseorigin",
                "longitudeofprojectioncentre");
        Double first = take(
                numbers, unread, "standardparallel1", "latitudeof1ststandardparallel", "latitudeofstandardparallel");
        Double second = take(numbers, unread, "standardparallel2", "latitudeof2ndstandardparallel");
        Double scale = take(numbers, unread, "scalefactor", "scalefactoratnaturalorigin");
        Double east = take(numbers, unread, "falseeasting", "eastingatfalseorigin");
        Double north = take(numbers, unread, "falsenorthing", "northingatfalseorigin");
        if (unread.stream().anyMatch(n -> numbers.get(n) != 0)) return Optional.empty();
        if (proj.equals("stere")) latOrigin = pole(method, latOrigin, first);
        if (proj.equals("lcc") && first == null) first = latOrigin;
        if (proj.equals("lcc") && latOrigin == null) latOrigin = first;
        boolean atTrueScale = proj.equals("merc") || proj.equals("cea") || proj.equals("stere");
        degrees(text, "lat_0", proj.equals("merc") ? null : latOrigin, angle);
        degrees(text, "lon_0", lonOrigin, angle);
        degrees(text, atTrueScale ? "lat_ts" : "lat_1", first, angle);
        degrees(text, "lat_2", second, angle);
        if (scale != null) text.append(" +k_0=").append(scale);
        // False origins are given in the system's unit; proj wants metres.
        if (east != null) text.append(" +x_0=").append(east * metres);
        if (north != null) text.append(" +y_0=").append(north * metres);
        text.append(" +to_meter=").append(metres);
        Optional<WellKnownText> meridian = base.part("PRIMEM", "PRIMEMERIDIAN");
        if (meridian.isPresent()) {
            Double known = MERIDIANS.get(plain(meridian.get().name()));
            double degrees = known != null ? known : meridian.get().number(1).orElse(0.0) * angle;
            if (degrees != 0) text.append(" +pm=").append(degrees);
        }
        return Optional.of(text.toString());
    }

    /** The pole about which a polar grid lies: its standard parallel, or its name, says which. */
    private static Double pole(String method, Double latOrigin, Double parallel) {
        if (method.equals("stereographicnorthpole")) return 90.0;
        if (method.equals("stereographicsouthpole")) return -90.0;
        if (!method.startsWith("polarstereographic")) return latOrigin;
        double side = parallel != null ? parallel : latOrigin == null ? 90 : latOrigin;
        return side < 0 ? -90.0 : 90.0;
    }

    private static Double take(Map<String, Double> numbers, Set<String> unread, String... names) {
        Double found = null;
        for (String name : names) {
            if (!numbers.containsKey(name)) continue;
            unread.remove(name);
            if (found == null) found = numbers.get(name);
        }
        return found;
    }

    private static void degrees(StringBuilder text, String key, Double value, double angle) {
        if (value != null) text.append(" +").append(key).append('=').append(value * angle);
    }

    private static String plain(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
    }
}
