package sarnik.format;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.lang.ref.Cleaner;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.ZipException;
import sarnik.table.UnreadableTableException;

/** A file that was packed, unpacked beside the system's other temporary files for as long as its rows are in use. */
final class Unpacked {

    private static final Cleaner CLEANER = Cleaner.create();
    private static final long ALWAYS_FINE = 64L << 20;
    private static final long MOST_BYTES = 4L << 30;
    private static final int MOST_GROWTH = 150;

    private Unpacked() {}

    /**
     * Unpacks a file.
     *
     * @param packed its size as it was sent, bytes: what grows beyond all measure is no table
     */
    static Path of(InputStream in, long packed) throws IOException {
        long most = Math.min(MOST_BYTES, Math.max(ALWAYS_FINE, packed * MOST_GROWTH));
        Path file = Files.createTempFile("sarnik", ".unpacked");
        file.toFile().deleteOnExit();
        try (in;
                OutputStream out = Files.newOutputStream(file)) {
            byte[] buffer = new byte[1 << 16];
            long bytes = 0;
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                bytes += n;
                if (bytes > most)
                    throw new UnreadableTableException(
                            "Unpacked, the file would be more than %,d MB, from %,d kB. It is not taken."
                                    .formatted(most >> 20, packed >> 10));
                out.write(buffer, 0, n);
            }
            return file;
        } catch (ZipException | EOFException broken) {
            Files.deleteIfExists(file);
            throw new UnreadableTableException(
                    "The packed file is broken or cut off, so it cannot be unpacked. Save or download it again.");
        } catch (RuntimeException | IOException refused) {
            Files.deleteIfExists(file);
            throw refused;
        }
    }

    /** Lets a file go once nobody holds what reads it any more. */
    static void goesWith(Object reader, Path file) {
        CLEANER.register(reader, () -> {
            try {
                Files.deleteIfExists(file);
            } catch (IOException left) {
                // It goes when the program ends.
            }
        });
    }
}
