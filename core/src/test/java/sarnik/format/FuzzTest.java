package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import sarnik.table.FileChoices;
import sarnik.table.Shaping;
import sarnik.table.TableReader;
import sarnik.table.UnreadableTableException;

@DisplayName("A damaged file gives rows or a sentence, never anything else:")
class FuzzTest {

    /** How many mutations a format; {@code -Dfuzz.rounds=20000} for a long run. */
    private static final int ROUNDS = Integer.getInteger("fuzz.rounds", 500);

    @TempDir
    Path directory;

    static Stream<String> formats() {
        return files().keySet().stream();
    }

    private static Map<String, byte[]> files() {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("CSV", SampleFiles.written(TableFormat.CSV));
        files.put("XLSX", SampleFiles.workbook());
        files.put("GeoJSON", SampleFiles.bytes(SampleFiles.GEOJSON));
        files.put("TopoJSON", SampleFiles.bytes(SampleFiles.TOPOJSON));
        files.put("JSON lines", SampleFiles.bytes(SampleFiles.LINES));
        files.put("shapefile", SampleFiles.shapefileOfAreas());
        files.put("GeoPackage", SampleFiles.written(TableFormat.GEOPACKAGE));
        files.put("KML", SampleFiles.bytes(SampleFiles.KML));
        files.put("GPX", SampleFiles.bytes(SampleFiles.GPX));
        for (String made : List.of(
                "sheetjs.xls",
                "gdal.ods",
                "sheetjs.fods",
                "pyarrow-snappy.parquet",
                "pyarrow-gzip.parquet",
                "pyarrow-zstd.parquet",
                "pyarrow-lz4.parquet",
                "geoparquet.parquet",
                "gdal.kmz")) files.put(made, made(made));
        return files;
    }

    /** A small file of another maker's program. */
    private static byte[] made(String name) {
        try {
            return Files.readAllBytes(Path.of("src/test/resources/sarnik/format/second", name));
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    @ParameterizedTest
    @MethodSource("formats")
    void cutOffSwappedAndRandomBytes(String format) throws IOException {
        byte[] whole = files().get(format);
        Random random = new Random(format.hashCode());
        int refused = 0;
        for (int round = 0; round < ROUNDS; round++) {
            byte[] damaged = switch (round % 4) {
                case 0 -> Arrays.copyOf(whole, random.nextInt(whole.length));
                case 1 -> changed(whole, 1 + random.nextInt(4), random);
                case 2 -> changed(whole, 1 + whole.length / 20, random);
                // The first bytes say one format, the rest is noise.
                default -> noise(whole, random);
            };
            try {
                TableFile file = TableFile.open(Files.write(directory.resolve("f"), damaged), FileChoices.NONE);
                assertThat(new TableReader()
                                .read(file.rows(), Shaping.NONE)
                                .table()
                                .rows())
                        .isPositive();
            } catch (UnreadableTableException sentence) {
                refused++;
                assertThat(sentence.getMessage())
                        .hasSizeGreaterThan(20)
                        .doesNotContain("Exception")
                        .doesNotContain("sarnik.");
            }
        }
        assertThat(refused).as("damage is noticed").isPositive();
    }

    private static byte[] changed(byte[] whole, int bytes, Random random) {
        byte[] damaged = whole.clone();
        for (int i = 0; i < bytes; i++) damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(256);
        return damaged;
    }

    private static byte[] noise(byte[] whole, Random random) {
        byte[] noise = new byte[Math.max(64, whole.length / 2)];
        random.nextBytes(noise);
        System.arraycopy(whole, 0, noise, 0, Math.min(20, whole.length));
        return noise;
    }
}
