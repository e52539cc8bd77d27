package sarnik.app.ground;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.outside.RemoteFiles;
import sarnik.app.people.SignedIn;
import sarnik.app.uses.Uses;
import sarnik.app.web.RefusedException;
import sarnik.picture.GroundTile;

/**
 * Pictures of the ground from the sources that a steward has added. The server fetches them for its readers, so that no
 * reader's browser talks to anyone else, and keeps them for a while. Vector tiles are drawn here, in Sarnik's own
 * looks.
 */
@Service
public class Pictures {

    private static final int LARGEST = 2 << 20;
    /** Services of whole countries say much of themselves. */
    private static final int LARGEST_CAPABILITIES = 16 << 20;

    /** Tiles of shapes are drawn with twice as many pixels as they take up, so that they are sharp on any screen. */
    private static final int DRAWN = 512;

    private static final String SHAPES = "application/vnd.shapes";
    private static final int NEAREST = 22;
    private static final long KEPT = 64L << 20;
    /** Madrid, in widths of the world from the west and the north of Web Mercator. */
    private static final double HOME_X = 0.4897;

    private static final double HOME_Y = 0.3769;
    private static final int MOST_LOOKED_FOR = 14;

    private final PictureSourceRepository sources;
    private final TransactionTemplate transaction;
    private final RemoteFiles files;
    private final Uses uses;
    private final Cache<String, Picture> kept = Caffeine.newBuilder()
            .maximumWeight(KEPT)
            .weigher((String k, Picture p) -> p.bytes.length + 200)
            .expireAfterWrite(Duration.ofHours(6))
            .build();
    private final Cache<String, Pmtiles> archives = Caffeine.newBuilder()
            .maximumSize(20)
            .expireAfterWrite(Duration.ofHours(1))
            .build();

    /** A tile. */
    public record Picture(String type, byte[] bytes) {}

    /**
     * How shapes are drawn.
     *
     * @param night in which colours
     * @param detail 1 to 3: little, some, much
     */
    record Looks(boolean night, int detail) {}

    Pictures(PictureSourceRepository sources, TransactionTemplate transaction, RemoteFiles files, Uses uses) {
        this.uses = uses;
        this.sources = sources;
        this.transaction = transaction;
        this.files = files;
    }

    /** All sources, by name. */
    public List<PictureSource> all() {
        return transaction.execute(t -> sources.findAllByOrderByName());
    }

    /**
     * A tile of a source as a picture.
     *
     * @param z zoom; x, y column from the west, row from the north
     * @throws RefusedException when there is no such source or tile, or it does not answer with what it should
     */
    Picture tile(String name, int z, int x, int y, Looks looks) {
        PictureSource source = transaction
                .execute(t -> sources.findById(name))
                .orElseThrow(() -> RefusedException.gone("source of pictures"));
        if (z < 0 || z > Math.min(NEAREST, source.getNearest()) || x < 0 || y < 0 || x >= 1 << z || y >= 1 << z)
            throw RefusedException.gone("tile");
        Picture asGiven = kept(source, z, x, y);
        return source.isShapes()
                ? kept.get(key(source, z, x, y) + " " + looks, k -> drawn(asGiven, z, looks, source.getName()))
                : asGiven;
    }

    /** A tile of a source as a browser is answered; see {@link #tile}. */
    public ResponseEntity<byte[]> answer(String name, int z, int x, int y, boolean night, int detail) {
        Picture picture = tile(name, z, x, y, new Looks(night, Math.max(1, Math.min(3, detail))));
        return ResponseEntity.ok()
                .cacheControl(CacheControl.maxAge(Duration.ofHours(6)).cachePrivate())
                .contentType(MediaType.parseMediaType(picture.type()))
                .body(picture.bytes());
    }

    /** A tile as the source gives it; empty where it has none there. */
    Optional<byte[]> raw(PictureSource source, int z, int x, int y) {
        try {
            return Optional.of(kept(source, z, x, y).bytes);
        } catch (RefusedException refused) {
            if (refused.status() == HttpStatus.NOT_FOUND) return Optional.empty();
            throw refused;
        }
    }

    private Picture kept(PictureSource source, int z, int x, int y) {
        return kept.get(key(source, z, x, y), k -> fetch(source.getName(), source.getAddress(), z, x, y));
    }

    private static String key(PictureSource source, int z, int x, int y) {
        return source.getAddress() + " " + z + "/" + x + "/" + y;
    }

    private static Picture drawn(Picture shapes, int z, Looks looks, String source) {
        return new Picture(
                "image/png",
                GroundTile.drawn(shapes.bytes, z, looks.detail, looks.night, DRAWN)
                        .orElseThrow(() -> odd(source)));
    }

    private Picture fetch(String name, String address, int z, int x, int y) {
        byte[] bytes;
        if (isArchive(address)) {
            bytes = archive(address).tile(z, x, y).orElseThrow(() -> RefusedException.gone("tile"));
        } else {
            bytes = files.bytes(TileAddress.of(address, z, x, y), LARGEST);
        }
        return new Picture(type(bytes, name), bytes);
    }

    /**
     * The first tile that there is from the whole world inwards, where Sarnik is at home: a source need not have all
     * zooms.
     */
    private Picture first(String name, String address, int nearest) {
        RefusedException none = null;
        for (int z = 0; z <= Math.min(nearest, MOST_LOOKED_FOR); z++) {
            try {
                return fetch(name, address, z, (int) (HOME_X * (1 << z)), (int) (HOME_Y * (1 << z)));
            } catch (RefusedException refused) {
                if (refused.status() != HttpStatus.NOT_FOUND) throw refused;
                if (none == null) none = refused;
            }
        }
        throw none;
    }

    private Pmtiles archive(String address) {
        return archives.get(address, a -> new Pmtiles((from, length) -> files.bytes(a, from, length)));
    }

    static boolean isArchive(String address) {
        return address.toLowerCase(java.util.Locale.ROOT)
                .replaceFirst("[?#].*", "")
                .endsWith(".pmtiles");
    }

    /** What the first bytes say it is: only pictures and shapes are handed on, whatever the source calls them. */
    private static String type(byte[] bytes, String source) {
        if (starts(bytes, 0x89, 'P', 'N', 'G')) return "image/png";
        if (starts(bytes, 0xFF, 0xD8, 0xFF)) return "image/jpeg";
        if (starts(bytes, 'R', 'I', 'F', 'F') && bytes.length > 12 && bytes[8] == 'W' && bytes[9] == 'E')
            return "image/webp";
        if (GroundTile.isShapes(bytes)) return SHAPES;
        throw odd(source);
    }

    private static RefusedException odd(String source) {
        return new RefusedException(
                HttpStatus.BAD_GATEWAY,
                "“" + source + "” answers with something that is no picture (PNG, JPEG or WebP) and no vector tile.");
    }

    private static boolean starts(byte[] bytes, int... with) {
        if (bytes.length < with.length) return false;
        for (int i = 0; i < with.length; i++) if ((bytes[i] & 0xFF) != with[i]) return false;
        return true;
    }

    /**
     * What a map service offers.
     *
     * @param address of the service, or of what it says of itself
     * @return empty where the address is that of tiles or of an archive, or says nothing of a service
     * @throws RefusedException when it does not answer, or offers nothing that can be drawn here
     */
    Optional<List<MapService.Offered>> offered(String address) {
        String at = address == null ? "" : address.strip();
        if (at.isEmpty() || isArchive(at) || TileAddress.isOne(at)) return Optional.empty();
        String asked = MapService.capabilities(at);
        return MapService.read(files.bytes(asked, LARGEST_CAPABILITIES), asked);
    }

    /**
     * Adds a source, once a tile has been fetched to see that it answers.
     *
     * @throws RefusedException when the address is unfit or does not answer with a picture or a vector tile, or when
     *     readers see maps on a source of this name that comes from elsewhere
     */
    void add(String name, String address, String credit, int nearest, SignedIn person) {
        String clean = name == null ? "" : name.strip();
        String at = address == null ? "" : address.strip();
        if (clean.isEmpty() || clean.length() > 120 || clean.contains("/"))
            throw new RefusedException("A source's name has 1 to 120 characters, without /.");
        if (!isArchive(at) && !TileAddress.isOne(at)) {
            throw new RefusedException(
                    "The address has to hold {z}, {x} and {y} where a tile's zoom, column and row stand, lead to an "
                            + "archive that ends in .pmtiles, or be that of a map service (WMS, WMTS).");
        }
        int near = Math.max(0, Math.min(NEAREST, nearest));
        boolean shapes;
        if (isArchive(at) && archive(at).farthest() > 0) {
            // There is no tile of the whole world to look at; the archive says what it holds.
            shapes = archive(at).isShapes();
        } else {
            shapes = first(clean, at, near).type.equals(SHAPES);
        }
        if (isArchive(at)) near = Math.min(near, archive(at).nearest());
        if (sources.findById(clean).filter(s -> !s.getAddress().equals(at)).isPresent())
            uses.refuseWhereUsed("The ground “%s” as it is".formatted(clean), uses.ofPublishedGround(clean));
        PictureSource source = new PictureSource(
                clean,
                at,
                credit == null ? "" : credit.strip(),
                near,
                shapes,
                person.id(),
                Clock.systemUTC().instant());
        transaction.executeWithoutResult(t -> sources.save(source));
    }

    /**
     * Takes a source away; drafts of maps that stand on it stand on paper from then on, and say so.
     *
     * @throws RefusedException when readers see maps on it: what is published does not change
     */
    void remove(String name) {
        uses.refuseWhereUsed("The ground “%s”".formatted(name), uses.ofPublishedGround(name));
        transaction.executeWithoutResult(t -> sources.deleteById(name));
    }
}
