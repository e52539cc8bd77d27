package sarnik.geo;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.zip.GZIPInputStream;

/**
 * The coordinate systems that ship: those of the EPSG dataset (version 10.076, IOGP) whose way to degrees is known,
 * each with
 * the shift of its datum that is best for its own area. Made by {@code tools/geodata/epsg.mjs}, which leaves out what
 * cannot be
 * computed as the register says. Immutable; safe to share between threads.
 */
public final class SystemRegister {

    /**
     * A system of the register.
     *
     * @param projected false where its coordinates are degrees
     * @param other what some files call it; empty for none
     * @param parameters in the words of PROJ, with the shift to WGS 84
     * @param accuracy of that shift, metres; NaN where it is not said
     * @param west degrees; its own area, which may go around beyond 180 degrees, where it is greater than {@code east}
     * @param area its own area in words
     */
    public record Entry(
            int code,
            boolean projected,
            String name,
            String other,
            String parameters,
            double accuracy,
            double west,
            double south,
            double east,
            double north,
            String area,
            List<String> datums) {

        /** Whether a point lies in the system's own area. */
        public boolean holds(double lon, double lat) {
            return lat >= south
                    && lat <= north
                    && (west <= east ? lon >= west && lon <= east : lon >= west || lon <= east);
        }

        /** How large its own area is, square degrees; only to compare. */
        public double size() {
            return (north - south) * (west <= east ? east - west : east - west + 360);
        }
    }

    private final Map<Integer, Entry> byCode = new HashMap<>();
    private final Map<String, Entry> byName = new HashMap<>();
    private final Map<String, Entry> byDatum = new HashMap<>();
    private final List<Entry> projected = new ArrayList<>();

    private SystemRegister() {
        try (var in = SystemRegister.class.getResourceAsStream("systems.tsv.gz")) {
            if (in == null) throw new IOException("The list of coordinate systems is missing from the class path");
            var lines = new BufferedReader(new InputStreamReader(new GZIPInputStream(in), StandardCharsets.UTF_8));
            for (String line = lines.readLine(); line != null; line = lines.readLine()) take(line.split("\t", -1));
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    private void take(String[] cells) {
        Entry entry = new Entry(
                Integer.parseInt(cells[0]),
                cells[1].equals("P"),
                cells[2],
                cells[3],
                cells[4],
                cells[5].isEmpty() ? Double.NaN : Double.parseDouble(cells[5]),
                Double.parseDouble(cells[6]),
                Double.parseDouble(cells[7]),
                Double.parseDouble(cells[8]),
                Double.parseDouble(cells[9]),
                cells[10],
                List.of(cells[11].split("\\|")));
        byCode.put(entry.code, entry);
        byName.putIfAbsent(plain(entry.name), entry);
        if (!entry.other.isEmpty()) byName.putIfAbsent(plain(entry.other), entry);
        if (entry.projected) projected.add(entry);
        else entry.datums.forEach(d -> byDatum.putIfAbsent(plain(d), entry));
    }

    private static final class Holder {
        private static final SystemRegister SHIPPED = new SystemRegister();
    }

    /** The register that ships; read on first use. */
    public static SystemRegister shipped() {
        return Holder.SHIPPED;
    }

    /** The system of a code of the EPSG dataset. */
    public Optional<Entry> find(int code) {
        return Optional.ofNullable(byCode.get(code));
    }

    /** The system that is called so, whatever stands between its letters and digits. */
    Optional<Entry> named(String name) {
        return Optional.ofNullable(byName.get(plain(name)));
    }

    /** The system of degrees on a datum of this name. */
    Optional<Entry> onDatum(String datum) {
        String plain = plain(datum);
        Entry found = byDatum.get(plain);
        return Optional.ofNullable(found == null && plain.startsWith("d") ? byDatum.get(plain.substring(1)) : found);
    }

    /** All projected systems. */
    public List<Entry> projected() {
        return projected;
    }

    private static String plain(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
    }
}
