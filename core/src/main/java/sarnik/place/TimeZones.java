package sarnik.place;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;

/**
 * The time zones of places (IANA's names, such as Europe/Madrid), from GeoNames. What ships says a country's zone,
 * those of regions and provinces that have another, and those of towns that have yet another.
 */
final class TimeZones {

    private static final TimeZones SHIPPED = read();

    private final Map<String, String> zones;

    private TimeZones(Map<String, String> zones) {
        this.zones = zones;
    }

    static TimeZones shipped() {
        return SHIPPED;
    }

    /** The zone of a place; empty where its country is not known, as at sea. */
    Optional<String> of(Place place) {
        return Stream.of(place.id(), place.province(), place.region(), place.country())
                .map(zones::get)
                .filter(zone -> zone != null)
                .findFirst();
    }

    /** All of them. */
    SortedSet<String> all() {
        return new TreeSet<>(zones.values());
    }

    private static TimeZones read() {
        try (var in = TimeZones.class.getResourceAsStream("zones.tsv.gz")) {
            if (in == null) throw new IOException("The time zones of places are missing from the class path");
            Map<String, String> zones = new HashMap<>();
            new BufferedReader(new InputStreamReader(new GZIPInputStream(in), StandardCharsets.UTF_8))
                    .lines()
                    .map(line -> line.split("\t"))
                    .forEach(cells -> zones.put(cells[0], cells[1]));
            return new TimeZones(zones);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }
}
