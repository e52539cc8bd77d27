package sarnik.app.boundary;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.function.Supplier;
import java.util.zip.GZIPOutputStream;
import org.locationtech.jts.geom.Geometry;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import sarnik.app.SarnikProperties;
import sarnik.geo.Area;
import sarnik.geo.AreaBytes;
import sarnik.geo.BoundarySet;
import sarnik.geo.ShapeBand;
import tools.jackson.databind.json.JsonMapper;

/**
 * Shapes as they are sent: simplified for a band of zooms, as JSON, compressed. Simplifying a set of thousands of
 * areas takes
 * seconds, so what came of it is kept on disk under the hash of the areas themselves, and in memory once it has been
 * asked for.
 */
@Component
class ShapeStore {

    private static final Logger LOG = LoggerFactory.getLogger(ShapeStore.class);

    /** Changes with the form in which shapes are sent. */
    private static final String FORM = "1";

    private static final long MOST_BYTES = 64L << 20;

    private final Path directory;
    private final JsonMapper mapper;
    private final Cache<String, byte[]> held = Caffeine.newBuilder()
            .maximumWeight(MOST_BYTES)
            .weigher((String tag, byte[] bytes) -> bytes.length)
            .build();

    ShapeStore(SarnikProperties properties, JsonMapper mapper) {
        this.directory = properties.workDirectory().resolve("shapes");
        this.mapper = mapper;
    }

    /** An area's shape as the browser draws it: rings of whole numbers, see {@link ShapeBand#rings}. */
    private record Drawn(
            String code,
            String name,
            String parent,
            List<int[]> rings,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) List<int[]> lines) {}

    private record Sheet(int scale, List<Drawn> areas) {}

    /** What tells the shapes of a set from all others: the hash of its areas. */
    static String contentOf(BoundarySet set) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(AreaBytes.write(set.areas())))
                    .substring(0, 20);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /**
     * The shapes of a set for a band, as compressed JSON (gzip).
     *
     * @param tag tells them from all others: made of {@link #contentOf} and the band
     * @param set asked for where they have to be made
     * @param dots whether what is too small for the band stays as a dot
     */
    byte[] compressed(String tag, Supplier<BoundarySet> set, ShapeBand band, boolean dots) {
        return held.get(tag, t -> {
            Path file = directory.resolve(t + "-" + FORM + ".json.gz");
            try {
                return Files.readAllBytes(file);
            } catch (NoSuchFileException first) {
                byte[] made = made(set.get(), band, dots);
                keep(file, made);
                return made;
            } catch (IOException unread) {
                LOG.warn("The shapes in {} could not be read and are made anew", file, unread);
                return made(set.get(), band, dots);
            }
        });
    }

    private byte[] made(BoundarySet set, ShapeBand band, boolean dots) {
        List<Geometry> simplified = band.simplify(set);
        List<Drawn> areas = new ArrayList<>();
        for (int i = 0; i < simplified.size(); i++) {
            Area area = set.areas().get(i);
            List<int[]> rings = band.rings(simplified.get(i));
            List<int[]> lines = band.lines(simplified.get(i));
            if (dots && rings.isEmpty() && lines.isEmpty()) lines = List.of(band.dot(area.inside()));
            areas.add(new Drawn(area.code(), area.name(), area.parent(), rings, lines));
        }
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(bytes)) {
            mapper.writeValue(out, new Sheet(band.scale(), areas));
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }

    /**
     * Written beside its place and moved there, so that another never meets half a file. What cannot be kept is made
     * again.
     */
    private void keep(Path file, byte[] made) {
        try {
            Files.createDirectories(directory);
            Path beside = Files.createTempFile(directory, "shapes", ".part");
            Files.write(beside, made);
            Files.move(beside, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException full) {
            LOG.warn("Shapes could not be kept in {}", directory, full);
        }
    }
}
