package sarnik.picture;

import com.google.protobuf.CodedInputStream;
import com.google.protobuf.InvalidProtocolBufferException;
import com.google.protobuf.WireFormat;
import java.awt.geom.Path2D;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Shapes of a square of the world, read from a vector tile (the open specification of vector tiles, version 2.1).
 * Points are left
 * out: names are written by those who draw.
 *
 * @param layers in the order of the tile
 */
record VectorTile(List<Layer> layers) {

    private static final int DEFAULT_EXTENT = 4096;
    private static final int LAYER = 3 << 3 | WireFormat.WIRETYPE_LENGTH_DELIMITED;
    private static final int LINES = 2;
    private static final int AREAS = 3;
    private static final int MOVE = 1;
    private static final int LINE = 2;
    private static final int CLOSE = 7;

    /**
     * @param extent width of the tile in the units of the shapes
     */
    record Layer(String name, int extent, List<Feature> features) {}

    /**
     * @param area whether it is filled, else a line
     * @param attributes text and numbers as text
     * @param shape from the upper left corner of the tile
     */
    record Feature(boolean area, Map<String, String> attributes, Path2D shape) {}

    /**
     * Real tiles have some ten layers of some thousand features; each beyond takes memory and time for nothing that is
     * seen.
     */
    private static final int MOST_LAYERS = 200;

    private static final int MOST_FEATURES = 100_000;

    /**
     * Reads a tile that is not compressed.
     *
     * @throws IOException when it is no vector tile
     */
    static VectorTile read(byte[] bytes) throws IOException {
        List<Layer> layers = new ArrayList<>();
        CodedInputStream in = CodedInputStream.newInstance(bytes);
        for (int tag = in.readTag(); tag != 0; tag = in.readTag()) {
            // Strict, since this also tells vector tiles from other bytes.
            if (tag != LAYER) throw new IOException("no vector tile");
            if (layers.size() == MOST_LAYERS) throw new IOException("more layers than a tile has");
            layers.add(layer(part(in)));
        }
        return new VectorTile(layers);
    }

    private static CodedInputStream part(CodedInputStream in) throws IOException {
        return CodedInputStream.newInstance(in.readByteArray());
    }

    private static Layer layer(CodedInputStream in) throws IOException {
        String name = null;
        int extent = DEFAULT_EXTENT;
        List<String> keys = new ArrayList<>();
        List<String> values = new ArrayList<>();
        List<CodedInputStream> features = new ArrayList<>();
        for (int tag = in.readTag(); tag != 0; tag = in.readTag()) {
            switch (WireFormat.getTagFieldNumber(tag)) {
                case 1 -> name = in.readString();
                case 2 -> {
                    if (features.size() == MOST_FEATURES)
                        throw new InvalidProtocolBufferException("more features than a tile has");
                    features.add(part(in));
                }
                case 3 -> keys.add(in.readString());
                case 4 -> values.add(value(part(in)));
                case 5 -> extent = in.readUInt32();
                default -> in.skipField(tag);
            }
        }
        if (name == null || extent <= 0) throw new InvalidProtocolBufferException("a layer without a name or extent");
        List<Feature> read = new ArrayList<>();
        for (CodedInputStream feature : features) feature(feature, keys, values, read);
        return new Layer(name, extent, read);
    }

    private static String value(CodedInputStream in) throws IOException {
        String value = "";
        for (int tag = in.readTag(); tag != 0; tag = in.readTag()) {
            switch (WireFormat.getTagFieldNumber(tag)) {
                case 1 -> value = in.readString();
                case 2 -> value = String.valueOf(in.readFloat());
                case 3 -> value = String.valueOf(in.readDouble());
                case 4, 5 -> value = String.valueOf(in.readInt64());
                case 6 -> value = String.valueOf(in.readSInt64());
                case 7 -> value = String.valueOf(in.readBool());
                default -> in.skipField(tag);
            }
        }
        return value;
    }

    private static void feature(CodedInputStream in, List<String> keys, List<String> values, List<Feature> to)
            throws IOException {
        int type = 0;
        Map<String, String> attributes = new HashMap<>();
        Path2D shape = null;
        for (int tag = in.readTag(); tag != 0; tag = in.readTag()) {
            switch (WireFormat.getTagFieldNumber(tag)) {
                case 2 -> {
                    CodedInputStream tags = part(in);
                    while (!tags.isAtEnd())
                        attributes.put(keys.get(index(tags, keys)), values.get(index(tags, values)));
                }
                case 3 -> type = in.readEnum();
                case 4 -> shape = shape(part(in));
                default -> in.skipField(tag);
            }
        }
        if (shape != null && (type == LINES || type == AREAS)) to.add(new Feature(type == AREAS, attributes, shape));
    }

    private static int index(CodedInputStream in, List<String> of) throws IOException {
        int index = in.readUInt32();
        if (index < 0 || index >= of.size()) throw new InvalidProtocolBufferException("an attribute that is not there");
        return index;
    }

    /** Commands with how often each holds, and steps from point to point. */
    private static Path2D shape(CodedInputStream in) throws IOException {
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        long x = 0;
        long y = 0;
        while (!in.isAtEnd()) {
            int command = in.readUInt32();
            if ((command & 7) == CLOSE) {
                if (path.getCurrentPoint() != null) path.closePath();
                continue;
            }
            boolean moves = (command & 7) == MOVE;
            if (!moves && ((command & 7) != LINE || path.getCurrentPoint() == null))
                throw new InvalidProtocolBufferException("an odd command");
            for (int n = command >>> 3; n > 0; n--) {
                x += in.readSInt32();
                y += in.readSInt32();
                if (moves) path.moveTo(x, y);
                else path.lineTo(x, y);
            }
        }
        return path;
    }
}
