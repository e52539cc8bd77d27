package sarnik.app.ground;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.Optional;
import java.util.zip.GZIPInputStream;
import sarnik.app.web.RefusedException;

/**
 * Reads tiles out of a PMTiles archive, version 3, by fetching only the parts that are needed (the open specification
 * "PMTiles
 * version 3"): a header of 127 bytes, a root directory, leaf directories, and the tiles in the order of a Hilbert
 * curve.
 * Safe to share between threads.
 */
final class Pmtiles {

    private static final int HEADER = 127;
    private static final int MOST_DIRECTORY = 8 << 20;
    private static final int MOST_TILE = 2 << 20;
    private static final int MOST_DEPTH = 4;
    private static final int NOT_COMPRESSED = 1;
    private static final int GZIP = 2;
    private static final int VECTOR_TILES = 1;

    private final Part archive;
    private final ByteBuffer header;
    private final Directory root;

    /** Fetches a part of the archive. */
    interface Part {
        byte[] bytes(long from, int length);
    }

    /** Runs of tiles: the first number of each, how many follow, where they lie. A run of 0 is a directory. */
    private record Directory(long[] ids, long[] runs, long[] lengths, long[] offsets) {}

    /**
     * @throws RefusedException when it is no such archive
     */
    Pmtiles(Part archive) {
        this.archive = archive;
        byte[] bytes = archive.bytes(0, HEADER);
        header = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        if (bytes.length < HEADER
                || !new String(bytes, 0, 7, java.nio.charset.StandardCharsets.US_ASCII).equals("PMTiles")
                || bytes[7] != 3) {
            throw new RefusedException("The address leads to something that is no PMTiles archive of version 3.");
        }
        root = directory(header.getLong(8), header.getLong(16));
    }

    /** Whether its tiles hold shapes, not pixels. */
    boolean isShapes() {
        return header.get(99) == VECTOR_TILES;
    }

    /** The zoom farthest out that there are tiles of. */
    int farthest() {
        return header.get(100);
    }

    /** The nearest zoom that there are tiles of. */
    int nearest() {
        return header.get(101);
    }

    /** The tile; empty where the archive has none. */
    Optional<byte[]> tile(int z, int x, int y) {
        long id = number(z, x, y);
        Directory directory = root;
        for (int depth = 0; depth < MOST_DEPTH; depth++) {
            int at = Arrays.binarySearch(directory.ids, id);
            if (at < 0) at = -at - 2;
            if (at < 0) return Optional.empty();
            if (directory.runs[at] == 0) {
                directory = directory(header.getLong(40) + directory.offsets[at], directory.lengths[at]);
                continue;
            }
            if (id >= directory.ids[at] + directory.runs[at]) return Optional.empty();
            if (directory.lengths[at] <= 0 || directory.lengths[at] > MOST_TILE) throw broken();
            return Optional.of(unpacked(
                    part(header.getLong(56) + directory.offsets[at], (int) directory.lengths[at]),
                    header.get(98),
                    MOST_TILE));
        }
        throw broken();
    }

    /** A tile's place on the Hilbert curve, after all tiles of the zooms farther out. */
    static long number(int z, int x, int y) {
        long before = ((1L << (2 * z)) - 1) / 3;
        long d = 0;
        for (long s = (1L << z) / 2; s > 0; s /= 2) {
            long rx = (x & s) > 0 ? 1 : 0;
            long ry = (y & s) > 0 ? 1 : 0;
            d += s * s * ((3 * rx) ^ ry);
            if (ry == 0) {
                if (rx == 1) {
                    x = (int) (s - 1 - x);
                    y = (int) (s - 1 - y);
                }
                int swap = x;
                x = y;
                y = swap;
            }
        }
        return before + d;
    }

    private Directory directory(long offset, long length) {
        if (length <= 0 || length > MOST_DIRECTORY) throw broken();
        ByteBuffer bytes = ByteBuffer.wrap(unpacked(part(offset, (int) length), header.get(97), MOST_DIRECTORY));
        try {
            int count = (int) varint(bytes);
            // Each entry takes four bytes at least, so what a damaged count asks for is bounded by what was sent.
            if (count < 0 || count > bytes.remaining() / 4) throw broken();
            Directory directory = new Directory(new long[count], new long[count], new long[count], new long[count]);
            long id = 0;
            for (int i = 0; i < count; i++) directory.ids[i] = id += varint(bytes);
            for (int i = 0; i < count; i++) directory.runs[i] = varint(bytes);
            for (int i = 0; i < count; i++) directory.lengths[i] = varint(bytes);
            for (int i = 0; i < count; i++) {
                long value = varint(bytes);
                directory.offsets[i] =
                        value == 0 && i > 0 ? directory.offsets[i - 1] + directory.lengths[i - 1] : value - 1;
            }
            return directory;
        } catch (java.nio.BufferUnderflowException cut) {
            throw broken();
        }
    }

    private byte[] part(long from, int length) {
        if (from < 0) throw broken();
        return archive.bytes(from, length);
    }

    private static long varint(ByteBuffer bytes) {
        long value = 0;
        for (int shift = 0; shift < 64; shift += 7) {
            byte b = bytes.get();
            value |= (long) (b & 0x7F) << shift;
            if (b >= 0) return value;
        }
        throw broken();
    }

    private static byte[] unpacked(byte[] bytes, int compression, int most) {
        if (compression == NOT_COMPRESSED || compression == 0) return bytes;
        if (compression != GZIP)
            throw new RefusedException(
                    "The archive is packed in a way that Sarnik does not read; gzip or none is needed.");
        try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(bytes))) {
            byte[] unpacked = in.readNBytes(most + 1);
            if (unpacked.length > most) throw broken();
            return unpacked;
        } catch (IOException damaged) {
            throw broken();
        }
    }

    private static RefusedException broken() {
        return new RefusedException("The PMTiles archive is damaged.");
    }
}
