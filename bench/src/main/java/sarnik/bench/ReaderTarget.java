package sarnik.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import sarnik.format.TableFile;
import sarnik.table.FileChoices;
import sarnik.table.Shaping;
import sarnik.table.TableReader;
import sarnik.table.UnreadableTableException;

/** What a fuzzer tries: whatever bytes a file holds, they are rows or a sentence for people. */
public final class ReaderTarget {

    private static final int SHORTEST_SENTENCE = 20;

    private static final Path FILE = file();

    private ReaderTarget() {}

    private static Path file() {
        try {
            Path memory = Path.of("/dev/shm");
            Path file = Files.isWritable(memory)
                    ? Files.createTempFile(memory, "sarnik-fuzz", ".table")
                    : Files.createTempFile("sarnik-fuzz", ".table");
            file.toFile().deleteOnExit();
            return file;
        } catch (IOException full) {
            throw new IllegalStateException("no file can be made to be read", full);
        }
    }

    /**
     * Reads bytes as a file.
     *
     * @throws IllegalStateException where they give a table without rows, or a sentence nobody can use; whatever else
     *     is thrown is a finding as well
     */
    public static void fuzzerTestOneInput(byte[] bytes) throws IOException {
        Files.write(FILE, bytes);
        try {
            TableFile file = TableFile.open(FILE, FileChoices.NONE);
            if (new TableReader().read(file.rows(), Shaping.NONE).table().rows() <= 0)
                throw new IllegalStateException("a table without rows");
        } catch (UnreadableTableException refused) {
            String sentence = String.valueOf(refused.getMessage());
            if (sentence.length() < SHORTEST_SENTENCE || sentence.contains("Exception") || sentence.contains("sarnik."))
                throw new IllegalStateException("no sentence for people: " + sentence, refused);
        }
    }
}
