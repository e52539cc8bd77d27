package sarnik.format;

import com.github.luben.zstd.ZstdInputStream;
import io.airlift.compress.lz4.Lz4Decompressor;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.util.zip.GZIPInputStream;
import org.apache.parquet.bytes.BytesInput;
import org.apache.parquet.compression.CompressionCodecFactory;
import org.apache.parquet.hadoop.metadata.CompressionCodecName;
import org.xerial.snappy.Snappy;
import sarnik.table.UnreadableTableException;

/** Unpacks the pages of Parquet files, each up to a bound: a page that says it is larger would fill the memory. */
final class ParquetCodecs implements CompressionCodecFactory {

    private static final int MOST_BYTES = 256 << 20;

    private interface Unpacking {
        byte[] of(byte[] packed, int size) throws IOException;
    }

    @Override
    public BytesInputDecompressor getDecompressor(CompressionCodecName codec) {
        return new Bounded(
                switch (codec) {
                    case UNCOMPRESSED -> (packed, size) -> packed;
                    case SNAPPY ->
                        (packed, size) ->
                                Snappy.uncompressedLength(packed) > size ? broken() : Snappy.uncompress(packed);
                    case GZIP -> (packed, size) -> whole(new GZIPInputStream(new ByteArrayInputStream(packed)), size);
                    case ZSTD -> (packed, size) -> whole(new ZstdInputStream(new ByteArrayInputStream(packed)), size);
                    case LZ4_RAW ->
                        (packed, size) -> {
                            byte[] plain = new byte[size];
                            return new Lz4Decompressor().decompress(packed, 0, packed.length, plain, 0, size) == size
                                    ? plain
                                    : broken();
                        };
                    default ->
                        throw new UnreadableTableException(
                                ("The Parquet file is packed by %s, which is not read. Save it packed by Snappy, "
                                                + "Gzip or Zstandard, or not at all.")
                                        .formatted(codec));
                });
    }

    private static byte[] whole(InputStream in, int size) throws IOException {
        try (in) {
            return in.readNBytes(size);
        }
    }

    private static byte[] broken() throws IOException {
        throw new IOException("a page is longer than it says");
    }

    /** One way of unpacking, within the bound. */
    private record Bounded(Unpacking unpacking) implements BytesInputDecompressor {

        private byte[] unpacked(byte[] packed, int size) throws IOException {
            if (size < 0 || size > MOST_BYTES)
                throw new UnreadableTableException(
                        "A page of the Parquet file would be %,d MB. It is not taken.".formatted(size >> 20));
            byte[] plain = unpacking.of(packed, size);
            return plain.length == size ? plain : broken();
        }

        @Override
        public BytesInput decompress(BytesInput bytes, int size) throws IOException {
            return BytesInput.from(unpacked(bytes.toByteArray(), size));
        }

        @Override
        public void decompress(ByteBuffer packed, int packedSize, ByteBuffer plain, int size) throws IOException {
            byte[] bytes = new byte[packedSize];
            packed.get(bytes);
            plain.put(unpacked(bytes, size));
        }

        @Override
        public void release() {
            // Nothing is held.
        }
    }

    @Override
    public BytesInputCompressor getCompressor(CompressionCodecName codec) {
        throw new UnsupportedOperationException("Parquet files are only read.");
    }

    @Override
    public void release() {
        // Nothing is held.
    }
}
