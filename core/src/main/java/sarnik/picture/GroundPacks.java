package sarnik.picture;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.StreamSupport;
import javax.imageio.ImageIO;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The data of the shipped ground, as the browser has it: one region in detail, the world around it, rivers, and a
 * relief.
 *
 * @param near the region in detail
 * @param world all the world
 * @param rivers great, middling and small ones; of the region only
 * @param relief the world in degrees, west to east and north to south, shaded
 */
public record GroundPacks(Pack near, Pack world, List<List<LineString>> rivers, BufferedImage relief) {

    private static final GeometryFactory GEOMETRY = new GeometryFactory();
    private static final int DEGREES_OF_RIVERS = 3;
    /** How far land spreads over the sea of the relief, in its pixels. */
    private static final int SHORE = 6;

    /**
     * @param box what the pack covers, degrees; null for the world
     * @param land polygons
     * @param borders of countries
     * @param provinces borders within countries
     */
    record Pack(Envelope box, Geometry land, List<LineString> borders, List<LineString> provinces, List<Town> towns) {}

    record Town(double lon, double lat, String name, int people) {}

    /**
     * Reads the packs.
     *
     * @throws IOException when one cannot be read
     */
    public static GroundPacks read(InputStream near, InputStream world, InputStream rivers, InputStream relief)
            throws IOException {
        JsonMapper mapper = JsonMapper.shared();
        List<List<LineString>> byDegree = new ArrayList<>();
        for (int d = 0; d < DEGREES_OF_RIVERS; d++) byDegree.add(new ArrayList<>());
        for (JsonNode river : mapper.readTree(rivers).get("lines"))
            byDegree.get(river.get(0).asInt() - 1).add(line(river.get(1)));
        return new GroundPacks(
                pack(mapper.readTree(near)), pack(mapper.readTree(world)), byDegree, dry(ImageIO.read(relief)));
    }

    /**
     * The relief without its sea: land spreads over what is bluer than it is red, so that coasts and islands are not
     * tinted like water.
     */
    private static BufferedImage dry(BufferedImage relief) {
        int width = relief.getWidth();
        int height = relief.getHeight();
        BufferedImage dry = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        boolean[] wet = new boolean[width * height];
        for (int p = 0; p < wet.length; p++) {
            int rgb = relief.getRGB(p % width, p / width);
            dry.setRGB(p % width, p / width, rgb);
            wet[p] = (rgb & 0xFF) > (rgb >> 16 & 0xFF) + 6;
        }
        for (int pass = 0; pass < SHORE; pass++) {
            boolean[] before = wet.clone();
            for (int p = width + 1; p < wet.length - width - 1; p++) {
                if (!before[p]) continue;
                int[] near = IntStream.of(p - 1, p + 1, p - width, p + width)
                        .filter(n -> !before[n])
                        .toArray();
                if (near.length == 0) continue;
                int mean = 0;
                for (int shift = 16; shift >= 0; shift -= 8) {
                    int channel = shift;
                    mean |= (int) IntStream.of(near)
                                    .map(n -> dry.getRGB(n % width, n / width) >> channel & 0xFF)
                                    .average()
                                    .orElse(0)
                            << shift;
                }
                dry.setRGB(p % width, p / width, mean);
                wet[p] = false;
            }
        }
        return dry;
    }

    private static Pack pack(JsonNode pack) {
        JsonNode box = pack.get("box");
        List<Polygon> land = new ArrayList<>();
        for (JsonNode polygon : pack.get("land")) {
            List<LinearRing> rings = StreamSupport.stream(polygon.spliterator(), false)
                    .map(GroundPacks::ring)
                    .toList();
            land.add(GEOMETRY.createPolygon(
                    rings.get(0), rings.subList(1, rings.size()).toArray(LinearRing[]::new)));
        }
        List<Town> towns = StreamSupport.stream(pack.get("towns").spliterator(), false)
                .map(t -> new Town(
                        t.get(0).asDouble(),
                        t.get(1).asDouble(),
                        t.get(2).asString(),
                        t.get(3).asInt()))
                .toList();
        return new Pack(
                box == null || box.isNull()
                        ? null
                        : new Envelope(
                                box.get(0).asDouble(),
                                box.get(2).asDouble(),
                                box.get(1).asDouble(),
                                box.get(3).asDouble()),
                GEOMETRY.createMultiPolygon(land.toArray(Polygon[]::new)),
                lines(pack.get("borders")),
                lines(pack.get("provinces")),
                towns);
    }

    private static List<LineString> lines(JsonNode lines) {
        return StreamSupport.stream(lines.spliterator(), false)
                .map(GroundPacks::line)
                .toList();
    }

    private static LineString line(JsonNode line) {
        return GEOMETRY.createLineString(coordinates(line).toArray(Coordinate[]::new));
    }

    private static LinearRing ring(JsonNode ring) {
        List<Coordinate> corners = coordinates(ring);
        if (!corners.get(0).equals2D(corners.get(corners.size() - 1))) corners.add(corners.get(0));
        return GEOMETRY.createLinearRing(corners.toArray(Coordinate[]::new));
    }

    private static List<Coordinate> coordinates(JsonNode points) {
        List<Coordinate> all = new ArrayList<>();
        for (JsonNode point : points)
            all.add(new Coordinate(point.get(0).asDouble(), point.get(1).asDouble()));
        return all;
    }
}
