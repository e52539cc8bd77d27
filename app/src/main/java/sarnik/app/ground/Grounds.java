package sarnik.app.ground;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Locale;
import java.util.Optional;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;
import sarnik.app.web.RefusedException;
import sarnik.picture.Ground;
import sarnik.picture.GroundPacks;
import sarnik.picture.Plane;
import sarnik.visual.map.MapVisual;

/** What lies under maps that are drawn here: the packs that the browser has too, read once, and tiles of sources. */
@Component
public class Grounds {

    private static final String SOURCE = "source:";
    private static final MapVisual.Ground USUAL = new MapVisual.Ground("paper", 2);
    /** A source that has failed this often is not asked again for the same picture. */
    private static final int MOST_FAILURES = 3;

    private final Pictures pictures;
    private GroundPacks packs;

    Grounds(Pictures pictures) {
        this.pictures = pictures;
    }

    /**
     * The ground of a map.
     *
     * @param chosen null for the usual one; a source that has gone gives way to it as well
     */
    public Ground of(MapVisual.Ground chosen) {
        MapVisual.Ground ground = usual(chosen);
        int detail = Math.max(1, Math.min(3, ground.detail()));
        if (!ground.mood().startsWith(SOURCE)) return new Ground(mood(ground.mood()), detail, packs(), null);
        return source(ground)
                .map(source -> new Ground(Ground.Mood.TILES, detail, packs(), new Asked(source)))
                .orElseGet(() -> new Ground(Ground.Mood.PAPER, detail, packs(), null));
    }

    /**
     * The plane that a map lies on; an equal-area one about the middle of its start, to whole tens of degrees, as
     * map.js has it.
     */
    public static Plane planeOf(MapVisual map) {
        if (!"equal-area".equals(map.projection())) return new Plane.Mercator();
        if (map.start() == null) return new Plane.EqualArea(0, 40);
        return new Plane.EqualArea(
                tens((map.start().west() + map.start().east()) / 2),
                tens((map.start().south() + map.start().north()) / 2));
    }

    private static double tens(double degrees) {
        return Math.round(degrees / 10) * 10.0;
    }

    /** What is to be said of it. */
    public String creditOf(MapVisual.Ground chosen) {
        String shipped = "Natural Earth · GeoNames · GSHHG";
        MapVisual.Ground ground = usual(chosen);
        if (ground.mood().equals("plain")) return "";
        // Names, and what a source leaves clear, are of the shipped ground.
        return source(ground)
                .map(PictureSource::getCredit)
                .filter(c -> !c.isBlank())
                .map(c -> shipped + " · " + c)
                .orElse(shipped);
    }

    private static MapVisual.Ground usual(MapVisual.Ground chosen) {
        return chosen == null || chosen.mood() == null ? USUAL : chosen;
    }

    private static Ground.Mood mood(String name) {
        return switch (name.toLowerCase(Locale.ROOT)) {
            case "outline" -> Ground.Mood.OUTLINE;
            case "tinted" -> Ground.Mood.TINTED;
            case "plain" -> Ground.Mood.PLAIN;
            default -> Ground.Mood.PAPER;
        };
    }

    /** The tiles of a source, for one picture; empty where it has been taken away. */
    public Optional<Ground.Tiles> tilesOf(String name) {
        return source(name).map(Asked::new);
    }

    private Optional<PictureSource> source(MapVisual.Ground ground) {
        return ground.mood().startsWith(SOURCE) ? source(ground.mood().substring(SOURCE.length())) : Optional.empty();
    }

    private Optional<PictureSource> source(String name) {
        return pictures.all().stream().filter(s -> s.getName().equals(name)).findFirst();
    }

    private synchronized GroundPacks packs() {
        if (packs != null) return packs;
        try (InputStream near = open("iberia.json");
                InputStream world = open("world.json");
                InputStream rivers = open("rivers.json");
                InputStream relief = open("relief.jpg")) {
            return packs = GroundPacks.read(near, world, rivers, relief);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    private static InputStream open(String name) throws IOException {
        return new ClassPathResource("static/ground/" + name).getInputStream();
    }

    /** The tiles of a source, for one picture. */
    private final class Asked implements Ground.Tiles {

        private final PictureSource source;
        private int failures;

        Asked(PictureSource source) {
            this.source = source;
        }

        @Override
        public Optional<byte[]> tile(int z, int x, int y) {
            if (failures >= MOST_FAILURES) return Optional.empty();
            try {
                return pictures.raw(source, z, x, y);
            } catch (RefusedException silent) {
                failures++;
                return Optional.empty();
            }
        }

        @Override
        public int nearest() {
            return source.getNearest();
        }
    }
}
