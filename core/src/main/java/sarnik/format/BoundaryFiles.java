package sarnik.format;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import org.locationtech.jts.geom.Polygonal;
import sarnik.geo.Area;
import sarnik.geo.BoundaryCheck;
import sarnik.geo.BoundarySet;

/** Boundary sets from files: those that ship with Sarnik, and the features of a file that was brought in. */
public final class BoundaryFiles {

    /** The sets that ship. */
    public enum Shipped {
        COUNTRIES("Countries", "country", "countries", "countries", "Natural Earth"),
        REGIONS("Regions of the world", "region", "regions", "regions", "Natural Earth"),
        COMMUNITIES(
                "Communities of Spain", "region", "spain", "communities", "Instituto Geográfico Nacional, CC BY 4.0"),
        PROVINCES("Provinces of Spain", "province", "spain", "provinces", "Instituto Geográfico Nacional, CC BY 4.0"),
        MUNICIPALITIES(
                "Municipalities of Spain",
                "municipality",
                "spain",
                "municipalities",
                "Instituto Geográfico Nacional, CC BY 4.0");

        private final String title;
        private final String level;
        private final String file;
        private final String layer;
        private final String credit;

        Shipped(String title, String level, String file, String layer, String credit) {
            this.title = title;
            this.level = level;
            this.file = file;
            this.layer = layer;
            this.credit = credit;
        }

        /** The set's name. */
        public String title() {
            return title;
        }

        public String level() {
            return level;
        }

        public String credit() {
            return credit;
        }
    }

    private static final Map<Shipped, BoundarySet> READ = new EnumMap<>(Shipped.class);

    private BoundaryFiles() {}

    /** A set that ships; read once and shared. */
    public static BoundarySet shipped(Shipped which) {
        synchronized (READ) {
            return READ.computeIfAbsent(which, set -> read(set).compact());
        }
    }

    private static BoundarySet read(Shipped which) {
        try (InputStream in = new GZIPInputStream(BoundarySet.class.getResourceAsStream(which.file + ".json.gz"))) {
            List<Area> areas = areas(new TopoJsonFile(in, which.layer), "code", "name", null);
            // Natural Earth draws a few territories that ISO gives no code; they go by their names.
            List<Area> coded = areas.stream()
                    .map(a -> a.code().isEmpty() ? new Area(a.name(), a.name(), "", a.shape()) : a)
                    .toList();
            return new BoundarySet(
                    which.title,
                    which.level,
                    which.credit,
                    BoundaryCheck.of(coded).areas().stream()
                            .map(a -> which == Shipped.MUNICIPALITIES
                                    ? new Area(a.code(), a.name(), a.code().substring(0, 2), a.shape())
                                    : a)
                            .toList());
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    /**
     * The features of a file that are areas.
     *
     * @param code property that holds codes
     * @param name property that holds names; null for none
     * @param parent property that holds the codes of wider areas; null for none
     */
    public static List<Area> areas(FeatureSource features, String code, String name, String parent) throws IOException {
        List<Area> areas = new ArrayList<>();
        features.each(feature -> {
            if (feature.shape() != null && !(feature.shape() instanceof Polygonal)) return;
            areas.add(new Area(text(feature, code), text(feature, name), text(feature, parent), feature.shape()));
        });
        return areas;
    }

    private static String text(Feature feature, String property) {
        String text = property == null ? null : feature.properties().get(property);
        return text == null ? "" : text.strip();
    }
}
