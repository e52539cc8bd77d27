package sarnik.app.ground;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.web.RefusedException;

@DisplayName("A PMTiles archive")
class PmtilesTest {

    /** Numbers of tiles as the specification's own table gives them. */
    @ParameterizedTest(name = "{0}/{1}/{2} is {3}")
    @CsvSource({
        "0, 0, 0, 0",
        "1, 0, 0, 1",
        "1, 0, 1, 2",
        "1, 1, 1, 3",
        "1, 1, 0, 4",
        "2, 0, 0, 5",
        "12, 3423, 1763, 19078479"
    })
    void numbersItsTilesAlongACurve(int z, int x, int y, long number) {
        assertThat(Pmtiles.number(z, x, y)).isEqualTo(number);
    }

    private static void varint(ByteArrayOutputStream out, long value) {
        for (; value >= 0x80; value >>>= 7) out.write((int) (value & 0x7F | 0x80));
        out.write((int) value);
    }

    /** A directory of runs {first number, how many, length, offset}. */
    private static byte[] directory(boolean zipped, long[]... runs) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        varint(out, runs.length);
        long last = 0;
        for (long[] run : runs) {
            varint(out, run[0] - last);
            last = run[0];
        }
        for (long[] run : runs) varint(out, run[1]);
        for (long[] run : runs) varint(out, run[2]);
        for (int i = 0; i < runs.length; i++)
            varint(out, i > 0 && runs[i][3] == runs[i - 1][3] + runs[i - 1][2] ? 0 : runs[i][3] + 1);
        if (!zipped) return out.toByteArray();
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream zip = new GZIPOutputStream(packed)) {
            zip.write(out.toByteArray());
        }
        return packed.toByteArray();
    }

    /** An archive: tile 0 is "world", tiles 1 to 3 are "west" once, tile 4 stands in a leaf and is "leaf". */
    private static byte[] archive(boolean zipped, int tileType) throws IOException {
        byte[] leaf = directory(zipped, new long[] {4, 1, 4, 9});
        return archive(
                zipped,
                tileType,
                "worldwestleaf".getBytes(StandardCharsets.US_ASCII),
                leaf,
                new long[] {0, 1, 5, 0},
                new long[] {1, 3, 4, 5},
                new long[] {4, 0, leaf.length, 0});
    }

    /** An archive of one tile, that of the whole world. */
    static byte[] archiveOf(byte[] tile) throws IOException {
        return archive(false, 2, tile, new byte[0], new long[] {0, 1, tile.length, 0});
    }

    /** An archive of shapes with one tile, 1/0/0: it has none of the whole world. */
    static byte[] archiveOfShapes(byte[] tile) throws IOException {
        byte[] archive = archive(false, 1, tile, new byte[0], new long[] {1, 1, tile.length, 0});
        archive[100] = 1;
        archive[101] = 1;
        return archive;
    }

    private static byte[] archive(boolean zipped, int tileType, byte[] tiles, byte[] leaf, long[]... runs)
            throws IOException {
        byte[] root = directory(zipped, runs);
        ByteBuffer header = ByteBuffer.allocate(127).order(ByteOrder.LITTLE_ENDIAN);
        header.put("PMTiles".getBytes(StandardCharsets.US_ASCII)).put((byte) 3);
        header.putLong(127)
                .putLong(root.length)
                .putLong(0)
                .putLong(0)
                .putLong(127 + root.length)
                .putLong(leaf.length)
                .putLong(127 + root.length + leaf.length)
                .putLong(tiles.length);
        header.put(97, (byte) (zipped ? 2 : 1)).put(98, (byte) 1).put(99, (byte) tileType);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (byte[] part : new byte[][] {header.array(), root, leaf, tiles}) out.write(part);
        return out.toByteArray();
    }

    private static Pmtiles open(byte[] archive) {
        return new Pmtiles((from, length) -> Arrays.copyOfRange(
                archive, (int) Math.min(archive.length, from), (int) Math.min(archive.length, from + length)));
    }

    @ParameterizedTest
    @CsvSource({"true", "false"})
    void givesATileByItselfInARunAndInALeaf(boolean zipped) throws IOException {
        Pmtiles tiles = open(archive(zipped, 2));
        assertThat(tiles.tile(0, 0, 0))
                .hasValueSatisfying(
                        t -> assertThat(t).asString(StandardCharsets.US_ASCII).isEqualTo("world"));
        for (int[] xy : new int[][] {{0, 0}, {0, 1}, {1, 1}})
            assertThat(tiles.tile(1, xy[0], xy[1]))
                    .hasValueSatisfying(t ->
                            assertThat(t).asString(StandardCharsets.US_ASCII).isEqualTo("west"));
        assertThat(tiles.tile(1, 1, 0))
                .hasValueSatisfying(
                        t -> assertThat(t).asString(StandardCharsets.US_ASCII).isEqualTo("leaf"));
        assertThat(tiles.tile(2, 3, 3)).isEmpty();
    }

    @Test
    void saysWhetherItHoldsShapesAndIsRefusedWhereItIsNone() throws IOException {
        assertThat(open(archive(false, 1)).isShapes()).isTrue();
        assertThat(open(archive(false, 2)).isShapes()).isFalse();
        assertThatThrownBy(() -> open("no archive".getBytes(StandardCharsets.UTF_8)))
                .hasMessageContaining("no PMTiles archive");
    }

    /** Bounded fuzz: whatever bytes come, a tile, nothing, or a sentence. */
    @Test
    void thatIsDamagedNeverFailsWithoutASentence() throws IOException {
        Random random = new Random(9);
        byte[] whole = archive(false, 2);
        for (int turn = 0; turn < 3000; turn++) {
            byte[] damaged =
                    random.nextInt(4) == 0 ? Arrays.copyOf(whole, random.nextInt(whole.length)) : whole.clone();
            for (int i = 0; i < 3 && damaged.length > 8; i++)
                damaged[8 + random.nextInt(damaged.length - 8)] = (byte) random.nextInt();
            try {
                open(damaged).tile(1, random.nextInt(2), random.nextInt(2));
            } catch (RefusedException said) {
                assertThat(said.getMessage()).endsWith(".");
            }
        }
    }
}
