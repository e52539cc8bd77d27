package sarnik.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Coordinate systems of the register")
class SystemsTest {

    private static final double METRES_A_DEGREE = 111_195;
    private static final Pattern UNIT = Pattern.compile("\\+to_meter=([0-9.eE+-]+)");

    /** A point in degrees of WGS 84 and in a system, as PROJ computes it from the same parameters. */
    private record Reference(int code, double lon, double lat, double x, double y) {}

    private static List<Reference> references() throws IOException {
        List<Reference> all = new ArrayList<>();
        try (var in = new BufferedReader(new InputStreamReader(
                new GZIPInputStream(SystemsTest.class.getResourceAsStream("systems-reference.tsv.gz")),
                StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                String[] c = line.split("\t");
                all.add(new Reference(
                        Integer.parseInt(c[0]),
                        Double.parseDouble(c[1]),
                        Double.parseDouble(c[2]),
                        Double.parseDouble(c[3]),
                        Double.parseDouble(c[4])));
            }
        }
        return all;
    }

    private static double unit(SystemRegister.Entry entry) {
        if (!entry.projected()) return METRES_A_DEGREE;
        Matcher given = UNIT.matcher(entry.parameters());
        if (given.find()) return Double.parseDouble(given.group(1));
        return entry.parameters().contains("+units=us-ft")
                ? 1200.0 / 3937
                : entry.parameters().contains("+units=ft") ? 0.3048 : 1;
    }

    private static double apart(double[] a, double[] b) {
        return Math.hypot(
                (a[1] - b[1]) * METRES_A_DEGREE,
                Math.IEEEremainder(a[0] - b[0], 360) * METRES_A_DEGREE * Math.cos(Math.toRadians(b[1])));
    }

    @Test
    void agreeWithASecondImplementationForwardAndBackWithinAMetre() throws IOException {
        List<String> off = new ArrayList<>();
        int compared = 0;
        for (Reference r : references()) {
            SystemRegister.Entry entry = SystemRegister.shipped().find(r.code).orElseThrow();
            Projection system = Projection.ofEpsg(r.code).orElse(null);
            double[] there = system == null ? null : system.fromDegrees(r.lon, r.lat);
            double[] back = system == null ? null : system.toDegrees(r.x, r.y);
            double wrongThere =
                    there == null ? Double.POSITIVE_INFINITY : Math.hypot(there[0] - r.x, there[1] - r.y) * unit(entry);
            double wrongBack = back == null ? Double.POSITIVE_INFINITY : apart(back, new double[] {r.lon, r.lat});
            if (!(wrongThere <= 1) || !(wrongBack <= 1))
                off.add("%d %s: %.2f m there, %.2f m back, %s"
                        .formatted(r.code, entry.name(), wrongThere, wrongBack, entry.parameters()));
            compared++;
        }
        assertThat(compared).isGreaterThan(10_000);
        assertThat(off).isEmpty();
    }

    /** Degrees, minutes, seconds. */
    private static double degrees(String written) {
        double value = 0;
        String[] parts = written.substring(0, written.length() - 1).split(":");
        for (int i = 0; i < parts.length; i++) value += Double.parseDouble(parts[i]) / Math.pow(60, i);
        return "SW".indexOf(written.charAt(written.length() - 1)) >= 0 ? -value : value;
    }

    /**
     * The worked examples of IOGP's "Coordinate Conversions and Transformations including Formulas" (guidance note
     * 373-7-2), on the system's own datum.
     */
    @ParameterizedTest(name = "EPSG:{0}")
    @CsvSource({
        "27700, 50:30:00N, 0:30:00E, 577274.99, 69740.50", // Transverse Mercator
        "24200, 17:55:55.80N, 76:56:37.26W, 255966.58, 142493.51", // Lambert conic conformal (1SP)
        "3035, 50:00:00N, 5:00:00E, 3962799.45, 2999718.85", // Lambert azimuthal equal area
        "28992, 53:00:00N, 6:00:00E, 196105.283, 557057.739", // oblique stereographic
        "3857, 24:22:54.433N, 100:20:00.000W, -11169055.58, 2800000.00", // popular visualisation
        "32661, 73:00:00N, 44:00:00E, 3320416.75, 632668.43", // polar stereographic (variant A)
        "3032, 75:00:00S, 120:00:00E, 7255380.79, 7053389.56"
    }) // polar stereographic (variant B)
    void comeOutAtThePublishedPoints(int code, String lat, String lon, double x, double y) {
        SystemRegister.Entry entry = SystemRegister.shipped().find(code).orElseThrow();
        var system = new org.locationtech.proj4j.CRSFactory()
                .createFromParameters("x", Projection.asRead(entry.parameters()));
        var there = new org.locationtech.proj4j.BasicCoordinateTransform(system.createGeographic(), system)
                .transform(
                        new org.locationtech.proj4j.ProjCoordinate(degrees(lon), degrees(lat)),
                        new org.locationtech.proj4j.ProjCoordinate());
        assertThat(Math.hypot(there.x - x, there.y - y)).isLessThan(1);
        var back = new org.locationtech.proj4j.BasicCoordinateTransform(system, system.createGeographic())
                .transform(
                        new org.locationtech.proj4j.ProjCoordinate(x, y), new org.locationtech.proj4j.ProjCoordinate());
        assertThat(back.x).isCloseTo(degrees(lon), within(1e-5));
        assertThat(back.y).isCloseTo(degrees(lat), within(1e-5));
    }
}
