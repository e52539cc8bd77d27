package sarnik.table;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/** Tables for tests, written as the CSV that a person would write. */
public final class TestTables {

    private TestTables() {}

    public static Table csv(String... lines) {
        return read(String.join("\n", lines)).table();
    }

    /** Rows whose columns have these types, whatever they hold. */
    public static Table csv(Map<String, ColumnType> types, List<String> lines) {
        return read(String.join("\n", lines).getBytes(StandardCharsets.UTF_8), types)
                .table();
    }

    /** What stands in a column, row by row; null where it is missing. */
    static List<String> texts(Table table, String column) {
        return IntStream.range(0, table.rows())
                .mapToObj(table.column(column)::text)
                .toList();
    }

    static Reading read(String text) {
        return read(text, StandardCharsets.UTF_8, Map.of());
    }

    static Reading read(String text, Charset charset, Map<String, ColumnType> types) {
        return read(text.getBytes(charset), types);
    }

    static Reading read(byte[] bytes, Map<String, ColumnType> types) {
        try {
            Path file = Files.createTempFile("sarnik-test", ".csv");
            try {
                Files.write(file, bytes);
                return new TableReader().read(CsvFile.open(file, FileChoices.NONE), Shaping.ofTypes(types));
            } finally {
                Files.delete(file);
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
