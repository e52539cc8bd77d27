package sarnik.standins;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * Stands in for a server of roads: vector tiles at {@code /roads/{z}/{x}/{y}.mvt}, in Web Mercator. The towns are
 * where towns
 * are; the roads between them and the streets in them are made up, the same at every zoom.
 */
final class MadeUpRoads {

    private static final int EXTENT = 4096;
    private static final int MARGIN = 128;
    /** Degrees of longitude and latitude of towns, main ones first. */
    private static final double[][] TOWNS = {
        {-3.70, 40.42},
        {-5.99, 37.39},
        {-0.38, 39.47},
        {2.17, 41.39},
        {-9.14, 38.72},
        {-8.61, 41.15},
        {-2.93, 43.26},
        {-0.88, 41.65},
        {-8.54, 42.88},
        {-4.42, 36.72},
        {-3.70, 42.35},
        {-2.47, 41.76},
        {-5.74, 41.51},
        {-5.66, 40.97},
        {-4.73, 41.65},
        {-4.53, 42.01},
        {-5.57, 42.60},
        {-5.85, 43.36},
        {-3.81, 43.46},
        {-7.56, 43.01},
        {-7.86, 42.34},
        {-6.76, 41.81},
        {-6.37, 39.48},
        {-6.97, 38.88},
        {-7.91, 38.57},
        {-7.43, 39.29},
        {-8.42, 40.21},
        {-7.50, 40.28},
        {-4.02, 39.86},
        {-3.93, 38.99},
        {-2.14, 40.07},
        {-1.86, 38.99},
        {-3.79, 37.77},
        {-4.78, 37.88},
        {-3.60, 37.18},
        {-2.46, 36.84},
        {-1.13, 37.99},
        {-0.48, 38.35},
        {-1.11, 40.35},
        {-0.41, 42.14},
        {0.62, 41.62},
        {-1.64, 42.82},
        {-2.45, 42.47},
        {-2.67, 42.85},
        {-4.70, 40.66},
        {-4.12, 40.95},
        {-3.17, 40.63},
        {-6.95, 37.26},
        {-6.29, 36.53},
        {-7.93, 37.02},
        {-8.80, 39.74},
        {-7.75, 41.30},
        {-6.34, 38.92},
        {-6.53, 42.55},
        {-5.35, 40.03}
    };

    private static final int MAIN = 10;
    /** Roads are bent about this many times, by halving. */
    private static final int BENDS = 6;

    private static final List<String> KINDS = List.of("motorway", "secondary", "tertiary", "street");
    private static final int STREETS_FROM = 9;
    private static final List<Road> ROADS = roads();

    private MadeUpRoads() {}

    /** @param points x and y in turn, the world's width as 1 */
    private record Road(String kind, double[] points, double west, double north, double east, double south) {

        static Road of(String kind, double[] points) {
            double[] box = {1, 1, 0, 0};
            for (int i = 0; i < points.length; i += 2) {
                box = new double[] {
                    Math.min(box[0], points[i]),
                    Math.min(box[1], points[i + 1]),
                    Math.max(box[2], points[i]),
                    Math.max(box[3], points[i + 1])
                };
            }
            return new Road(kind, points, box[0], box[1], box[2], box[3]);
        }
    }

    private static double[] town(int i) {
        double lat = Math.toRadians(TOWNS[i][1]);
        return new double[] {TOWNS[i][0] / 360 + 0.5, 0.5 - Math.log(Math.tan(Math.PI / 4 + lat / 2)) / (2 * Math.PI)};
    }

    private static List<Road> roads() {
        Random random = new Random(20_261);
        List<Road> roads = new ArrayList<>();
        for (int a = 0; a < TOWNS.length; a++) {
            for (int b = a + 1; b < TOWNS.length; b++)
                if (areNeighbours(a, b))
                    roads.add(Road.of(
                            a < MAIN || b < MAIN ? "motorway" : "secondary", bent(town(a), town(b), 0.09, random)));
            streets(town(a), random, roads);
        }
        return roads;
    }

    /** Whether no third town lies in the circle that has the two on opposite ends (Gabriel and Sokal 1969). */
    private static boolean areNeighbours(int a, int b) {
        double[] from = town(a);
        double[] to = town(b);
        for (int c = 0; c < TOWNS.length; c++) {
            if (c == a || c == b) continue;
            double[] other = town(c);
            if (square(from, other) + square(other, to) < square(from, to)) return false;
        }
        return true;
    }

    private static double square(double[] a, double[] b) {
        return (a[0] - b[0]) * (a[0] - b[0]) + (a[1] - b[1]) * (a[1] - b[1]);
    }

    /** A line between two points whose middles are moved aside, again and again, by a share of its length. */
    private static double[] bent(double[] from, double[] to, double share, Random random) {
        List<double[]> points = new ArrayList<>(List.of(from, to));
        double much = share;
        for (int n = 0; n < BENDS; n++) {
            List<double[]> more = new ArrayList<>();
            for (int i = 0; i + 1 < points.size(); i++) {
                double[] a = points.get(i);
                double[] b = points.get(i + 1);
                double aside = (random.nextDouble() * 2 - 1) * much;
                more.add(a);
                more.add(new double[] {
                    (a[0] + b[0]) / 2 - (b[1] - a[1]) * aside, (a[1] + b[1]) / 2 + (b[0] - a[0]) * aside
                });
            }
            more.add(points.get(points.size() - 1));
            points = more;
            much *= 0.9;
        }
        return points.stream().flatMapToDouble(java.util.Arrays::stream).toArray();
    }

    /** Streets of a town: spokes, and rings across them. */
    private static void streets(double[] middle, Random random, List<Road> roads) {
        int spokes = 9 + random.nextInt(4);
        double reach = 6e-5;
        double turn = random.nextDouble();
        for (int s = 0; s < spokes; s++) {
            double angle = (s + turn) * 2 * Math.PI / spokes;
            double[] end = {middle[0] + reach * 1.4 * Math.cos(angle), middle[1] + reach * 1.4 * Math.sin(angle)};
            roads.add(Road.of(s % 3 == 0 ? "tertiary" : "street", bent(middle, end, 0.05, random)));
        }
        for (int ring = 1; ring <= 8; ring++) {
            double[] points = new double[2 * (4 * spokes + 1)];
            for (int i = 0; i <= 4 * spokes; i++) {
                double angle = (i / 4.0 + turn) * 2 * Math.PI / spokes;
                double radius = reach * ring / 8 * (1 + 0.04 * Math.sin(angle * 5 + ring));
                points[2 * i] = middle[0] + radius * Math.cos(angle);
                points[2 * i + 1] = middle[1] + radius * Math.sin(angle);
            }
            roads.add(Road.of(ring % 4 == 0 ? "tertiary" : "street", points));
        }
    }

    /** The tile: one layer of lines, each with its class. */
    static byte[] tile(int z, long x, long y) {
        double size = 1.0 / (1L << z);
        double edge = size * MARGIN / EXTENT;
        Message layer = new Message().text(1, "roads");
        boolean empty = true;
        for (Road road : ROADS) {
            boolean street = KINDS.indexOf(road.kind) > 1;
            if (street && z < STREETS_FROM
                    || road.east < x * size - edge
                    || road.west > (x + 1) * size + edge
                    || road.south < y * size - edge
                    || road.north > (y + 1) * size + edge) continue;
            layer.bytes(2, feature(road, x * size, y * size, size));
            empty = false;
        }
        layer.text(3, "class");
        for (String kind : KINDS) layer.bytes(4, new Message().text(1, kind));
        layer.number(5, EXTENT).number(15, 2);
        return empty ? new byte[0] : new Message().bytes(3, layer).toByteArray();
    }

    private static Message feature(Road road, double west, double north, double size) {
        Message line = new Message();
        int count = road.points.length / 2;
        int lastX = 0;
        int lastY = 0;
        for (int i = 0; i < count; i++) {
            // Commands: move once, then draw a line as often as there are points left.
            if (i == 0) line.varint(1 | 1 << 3);
            if (i == 1) line.varint(2 | (count - 1) << 3);
            int px = (int) Math.round((road.points[2 * i] - west) / size * EXTENT);
            int py = (int) Math.round((road.points[2 * i + 1] - north) / size * EXTENT);
            line.varint(zigzag(px - lastX)).varint(zigzag(py - lastY));
            lastX = px;
            lastY = py;
        }
        return new Message()
                .bytes(2, new Message().varint(0).varint(KINDS.indexOf(road.kind)))
                .number(3, 2)
                .bytes(4, line);
    }

    private static long zigzag(int value) {
        return (long) value << 1 ^ value >> 31;
    }

    /** Bytes in the wire format of Protocol Buffers: whole numbers in sevens of bits, and parts with their length. */
    private static final class Message {

        private final ByteArrayOutputStream out = new ByteArrayOutputStream();

        Message varint(long value) {
            long rest = value & 0xFFFFFFFFL;
            for (; rest >= 0x80; rest >>>= 7) out.write((int) (rest & 0x7F | 0x80));
            out.write((int) rest);
            return this;
        }

        Message number(int field, int value) {
            return varint(field << 3).varint(value);
        }

        Message text(int field, String text) {
            return bytes(field, text.getBytes(StandardCharsets.UTF_8));
        }

        Message bytes(int field, Message part) {
            return bytes(field, part.toByteArray());
        }

        private Message bytes(int field, byte[] bytes) {
            varint(field << 3 | 2).varint(bytes.length);
            out.writeBytes(bytes);
            return this;
        }

        byte[] toByteArray() {
            return out.toByteArray();
        }
    }
}
