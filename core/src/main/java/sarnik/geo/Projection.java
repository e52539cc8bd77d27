package sarnik.geo;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.proj4j.BasicCoordinateTransform;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.CoordinateReferenceSystem;
import org.locationtech.proj4j.Proj4jException;
import org.locationtech.proj4j.ProjCoordinate;

/**
 * A coordinate system on the ground, by its EPSG code or its description, and the way between it and degrees (WGS 84).
 * Safe to share between threads: each conversion uses objects of its own.
 */
public final class Projection {

    /** Degrees (WGS 84), longitude first. */
    public static final Projection DEGREES = new Projection("EPSG:4326", null, null);

    /** A system of which nothing is known: no point of it has a place. */
    public static final Projection UNSAID = new Projection("a system that is not said", null, null);

    private static final Map<Integer, Optional<Projection>> KNOWN = new ConcurrentHashMap<>();

    private final String name;
    private final CoordinateReferenceSystem system;
    private final SystemRegister.Entry entry;

    private Projection(String name, CoordinateReferenceSystem system, SystemRegister.Entry entry) {
        this.name = name;
        this.system = system;
        this.entry = entry;
    }

    /**
     * @param epsg a code of the EPSG dataset, such as 25830
     * @return empty where the register that ships has no such code
     */
    public static Optional<Projection> ofEpsg(int epsg) {
        if (epsg == 4326 || epsg == 4979) return Optional.of(DEGREES);
        // What web maps were called before they had a code.
        int code = epsg == 900913 || epsg == 102100 || epsg == 102113 || epsg == 3785 ? 3857 : epsg;
        return KNOWN.computeIfAbsent(
                code, c -> SystemRegister.shipped().find(c).flatMap(e -> of("EPSG:" + c, e.parameters(), e)));
    }

    /**
     * Reads a description in well-known text, as it lies beside a shapefile or in a GeoPackage.
     *
     * @return empty where the description is of a kind that is not read; nothing of it is guessed
     */
    public static Optional<Projection> ofDescription(String text) {
        return SystemDescription.read(text);
    }

    /** A system in the words of PROJ. */
    static Optional<Projection> ofParameters(String name, String parameters) {
        return of(name, parameters, null);
    }

    private static Optional<Projection> of(String name, String parameters, SystemRegister.Entry entry) {
        try {
            return Optional.of(new Projection(
                    name, new CRSFactory().createFromParameters(name, asRead(parameters) + " +no_defs"), entry));
        } catch (Proj4jException | NumberFormatException | NullPointerException unread) {
            return Optional.empty();
        }
    }

    private static final Pattern FLATTENED = Pattern.compile("\\+a=([0-9.]+) \\+rf=([0-9.]+)");

    /** Ellipsoids that the library does not know by name (EPSG dataset 7011, 1025). */
    private static final Map<String, String> UNKNOWN =
            Map.of("+ellps=clrk80ign", "+a=6378249.2 +b=6356515", "+ellps=GSK2011", "+a=6378136.5 +rf=298.2564151");

    /**
     * A stereographic system of a pole, whose latitude of true scale is the pole where it says none; the library would
     * take the equator.
     */
    private static final Pattern POLAR =
            Pattern.compile("\\+proj=stere (?!.*\\+lat_ts=).*\\+lat_0=(-?90)(?:\\.0*)?(?= |$)");

    /**
     * Parameters as the library reads them: the second half axis for the inverse flattening, the latitude of true
     * scale of a pole.
     */
    static String asRead(String given) {
        String parameters = given;
        for (var unknown : UNKNOWN.entrySet())
            parameters = parameters.replaceFirst(
                    Pattern.quote(unknown.getKey()) + "(?= |$)", Matcher.quoteReplacement(unknown.getValue()));
        Matcher polar = POLAR.matcher(parameters);
        if (polar.find()) parameters += " +lat_ts=" + polar.group(1);
        Matcher flattened = FLATTENED.matcher(parameters);
        if (!flattened.find()) return parameters;
        double axis = Double.parseDouble(flattened.group(1));
        return flattened.replaceFirst(
                "+a=" + flattened.group(1) + " +b=" + axis * (1 - 1 / Double.parseDouble(flattened.group(2))));
    }

    public String name() {
        return name;
    }

    /** What people call it. */
    public String words() {
        return entry == null ? isDegrees() ? "degrees (WGS 84)" : name : entry.name() + " (" + name + ")";
    }

    /** How far off its datum may lie, metres; NaN where that is not said. */
    public double accuracy() {
        return entry == null ? isDegrees() ? 0 : Double.NaN : entry.accuracy();
    }

    /** Whether its coordinates are those of WGS 84 as they stand. */
    public boolean isDegrees() {
        return this == DEGREES;
    }

    /**
     * @param x easting in the system's unit, or degrees east
     * @param y northing in the system's unit, or degrees north
     * @return longitude and latitude in degrees, or null where the point lies outside what the system can show
     */
    public double[] toDegrees(double x, double y) {
        if (system == null) return isDegrees() ? new double[] {x, y} : null;
        ProjCoordinate out = transformed(system, Wgs84.SYSTEM, x, y);
        return out != null && Math.abs(out.x) <= 180 && Math.abs(out.y) <= 90 ? new double[] {out.x, out.y} : null;
    }

    /**
     * @param lon degrees east
     * @param lat degrees north
     * @return easting and northing in the system's unit, or null where the point lies outside what the system can show
     */
    public double[] fromDegrees(double lon, double lat) {
        if (system == null) return isDegrees() ? new double[] {lon, lat} : null;
        ProjCoordinate out = transformed(Wgs84.SYSTEM, system, lon, lat);
        return out == null ? null : new double[] {out.x, out.y};
    }

    private static ProjCoordinate transformed(
            CoordinateReferenceSystem from, CoordinateReferenceSystem to, double x, double y) {
        try {
            ProjCoordinate out = new ProjCoordinate();
            new BasicCoordinateTransform(from, to).transform(new ProjCoordinate(x, y), out);
            return Double.isFinite(out.x) && Double.isFinite(out.y) ? out : null;
        } catch (Proj4jException | IllegalStateException outside) {
            return null;
        }
    }

    private static final class Wgs84 {
        private static final CoordinateReferenceSystem SYSTEM =
                new CRSFactory().createFromParameters("WGS 84", "+proj=longlat +datum=WGS84 +no_defs");
    }
}
