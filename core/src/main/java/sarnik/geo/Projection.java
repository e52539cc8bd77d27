package sarnik.geo;

import java.util.HashMap;
import java.util.Locale;
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
 * A coordinate system on the ground, by its EPSG code or its description, and the way from it to degrees (WGS 84).
 * Safe to share between threads: each conversion uses objects of its own.
 */
public final class Projection {

    /** Degrees, longitude first. */
    public static final Projection DEGREES = new Projection("EPSG:4326", null);

    private static final Map<Integer, Optional<Projection>> KNOWN = new ConcurrentHashMap<>();
    private static final Pattern PART = Pattern.compile("PARAMETER\\s*\\[\\s*\"([^\"]+)\"\\s*,\\s*([-+0-9.eE]+)");
    private static final Pattern SPHEROID = Pattern.compile("SPHEROID\\s*\\[\\s*\"[^\"]*\"\\s*,\\s*([0-9.eE]+)\\s*,\\s*([0-9.eE]+)");
    private static final Pattern METHOD = Pattern.compile("PROJECTION\\s*\\[\\s*\"([^\"]+)\"");
    private static final Pattern UNIT = Pattern.compile("UNIT\\s*\\[\\s*\"[^\"]*\"\\s*,\\s*([0-9.eE]+)[^\\[]*\\]\\s*(?:,\\s*AUTHORITY\\s*\\[[^\\]]*\\]\\s*)?\\]\\s*$");
    private static final Pattern AUTHORITY = Pattern.compile("AUTHORITY\\s*\\[\\s*\"EPSG\"\\s*,\\s*\"?(\\d+)\"?\\s*\\]\\s*\\]\\s*$");

    private final String name;
    private final CoordinateReferenceSystem system;

    private Projection(String name, CoordinateReferenceSystem system) {
        this.name = name;
        this.system = system;
    }

    /**
     * @param epsg a code of the EPSG register, such as 25830
     * @return empty where the register that ships has no such code
     */
    public static Optional<Projection> ofEpsg(int epsg) {
        if (epsg == 4326 || epsg == 4979) return Optional.of(DEGREES);
        return KNOWN.computeIfAbsent(epsg, code -> {
            try {
                return Optional.of(new Projection("EPSG:" + code, new CRSFactory().createFromName("EPSG:" + code)));
            } catch (Proj4jException unknown) {
                return Optional.empty();
            }
        });
    }

    /**
     * Reads the description that lies beside a shapefile (well-known text 1, OGC 01-009).
     *
     * @return empty where the description is of a kind that is not read
     */
    public static Optional<Projection> ofDescription(String text) {
        String wkt = text.strip();
        Matcher authority = AUTHORITY.matcher(wkt);
        if (authority.find()) {
            Optional<Projection> known = ofEpsg(Integer.parseInt(authority.group(1)));
            if (known.isPresent()) return known;
        }
        Matcher spheroid = SPHEROID.matcher(wkt);
        if (!spheroid.find()) return Optional.empty();
        if (wkt.startsWith("GEOGCS")) return Optional.of(DEGREES);
        Matcher method = METHOD.matcher(wkt);
        if (!method.find()) return Optional.empty();
        Optional<String> proj = method(method.group(1).toLowerCase(Locale.ROOT));
        if (proj.isEmpty()) return Optional.empty();
        Map<String, String> values = new HashMap<>();
        Matcher part = PART.matcher(wkt);
        while (part.find()) values.put(part.group(1).toLowerCase(Locale.ROOT), part.group(2));
        Matcher unit = UNIT.matcher(wkt);
        String toMetre = unit.find() ? unit.group(1) : "1";
        StringBuilder parameters = new StringBuilder(proj.get());
        add(parameters, "lat_0", values, "latitude_of_origin", "latitude_of_center");
        add(parameters, "lon_0", values, "central_meridian", "longitude_of_center");
        add(parameters, "lat_1", values, "standard_parallel_1");
        add(parameters, "lat_2", values, "standard_parallel_2");
        add(parameters, "k_0", values, "scale_factor");
        add(parameters, "x_0", values, "false_easting");
        add(parameters, "y_0", values, "false_northing");
        double axis = Double.parseDouble(spheroid.group(1));
        double inverseFlattening = Double.parseDouble(spheroid.group(2));
        // An inverse flattening of 0 means a sphere.
        double shortAxis = inverseFlattening == 0 ? axis : axis * (1 - 1 / inverseFlattening);
        parameters.append(" +a=").append(axis).append(" +b=").append(shortAxis);
        parameters.append(" +to_meter=").append(toMetre).append(" +towgs84=0,0,0 +no_defs");
        try {
            return Optional.of(new Projection("as described", new CRSFactory().createFromParameters("as described", parameters.toString())));
        } catch (Proj4jException | NumberFormatException unread) {
            return Optional.empty();
        }
    }

    private static Optional<String> method(String name) {
        return Optional.ofNullable(switch (name) {
            case "transverse_mercator", "gauss_kruger" -> "+proj=tmerc";
            case "lambert_conformal_conic", "lambert_conformal_conic_2sp", "lambert_conformal_conic_1sp" -> "+proj=lcc";
            case "lambert_azimuthal_equal_area" -> "+proj=laea";
            case "albers", "albers_conic_equal_area" -> "+proj=aea";
            case "mercator", "mercator_1sp", "mercator_2sp" -> "+proj=merc";
            case "mercator_auxiliary_sphere", "popular_visualisation_pseudo_mercator" -> "+proj=merc +nadgrids=@null";
            default -> null;
        });
    }

    private static void add(StringBuilder parameters, String key, Map<String, String> values, String... names) {
        for (String n : names) {
            if (!values.containsKey(n)) continue;
            // False origins are given in the system's unit, proj wants metres; both are metres in what is read here.
            parameters.append(" +").append(key).append('=').append(values.get(n));
            return;
        }
    }

    public String name() {
        return name;
    }

    public boolean isDegrees() {
        return system == null;
    }

    /**
     * @param x easting in the system's unit, or degrees east
     * @param y northing in the system's unit, or degrees north
     * @return longitude and latitude in degrees, or null where the point lies outside what the system can show
     */
    public double[] toDegrees(double x, double y) {
        if (system == null) return new double[] {x, y};
        try {
            ProjCoordinate out = new ProjCoordinate();
            new BasicCoordinateTransform(system, wgs84()).transform(new ProjCoordinate(x, y), out);
            boolean fits = Double.isFinite(out.x) && Double.isFinite(out.y) && Math.abs(out.x) <= 180 && Math.abs(out.y) <= 90;
            return fits ? new double[] {out.x, out.y} : null;
        } catch (Proj4jException | IllegalStateException outside) {
            return null;
        }
    }

    private static CoordinateReferenceSystem wgs84() {
        return Wgs84.SYSTEM;
    }

    private static final class Wgs84 {
        private static final CoordinateReferenceSystem SYSTEM =
                new CRSFactory().createFromParameters("WGS 84", "+proj=longlat +datum=WGS84 +no_defs");
    }
}
