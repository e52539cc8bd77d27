package sarnik.format;

import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import sarnik.table.UnreadableTableException;

/**
 * A ZIP archive that has been looked over: no entry leads out of it, and all of it unpacked stays within bounds, found
 * by
 * unpacking it once without keeping it.
 */
final class Archive implements AutoCloseable {

    private static final int MOST_ENTRIES = 5_000;
    private static final long ALWAYS_FINE = 64L << 20;
    private static final long MOST_BYTES = 4L << 30;
    private static final int MOST_GROWTH = 150;

    private final ZipFile zip;

    private Archive(ZipFile zip) {
        this.zip = zip;
    }

    /**
     * @throws UnreadableTableException when the archive is broken or does not keep within bounds
     */
    static Archive open(Path file) throws IOException {
        ZipFile zip;
        try {
            zip = new ZipFile(file.toFile());
        } catch (ZipException | EOFException broken) {
            throw new UnreadableTableException(
                    "The archive is broken or cut off, so it cannot be unpacked. Save or download the file again.");
        }
        try {
            check(zip, Files.size(file));
            return new Archive(zip);
        } catch (ZipException | EOFException | IllegalArgumentException broken) {
            zip.close();
            throw new UnreadableTableException(
                    "The archive is broken inside, so it cannot be unpacked. Save or download the file again.");
        } catch (RuntimeException | IOException refused) {
            zip.close();
            throw refused;
        }
    }

    /** Opens an archive that {@link #open} has looked through a moment ago. */
    static Archive again(Path file) throws IOException {
        return new Archive(new ZipFile(file.toFile()));
    }

    /** Opens one file of an archive that {@link #open} has looked through; the archive is closed with it. */
    static InputStream reading(Path file, String name) throws IOException {
        Archive archive = again(file);
        try {
            InputStream in = archive.read(name);
            return new FilterInputStream(in) {
                @Override
                public void close() throws IOException {
                    super.close();
                    archive.close();
                }
            };
        } catch (RuntimeException | IOException lacking) {
            archive.close();
            throw lacking;
        }
    }

    private static void check(ZipFile zip, long packed) throws IOException {
        if (zip.size() > MOST_ENTRIES)
            throw new UnreadableTableException(
                    "The archive holds %,d files; up to %,d are taken.".formatted(zip.size(), MOST_ENTRIES));
        long most = Math.min(MOST_BYTES, Math.max(ALWAYS_FINE, packed * MOST_GROWTH));
        long bytes = 0;
        byte[] buffer = new byte[1 << 16];
        for (var entries = zip.entries(); entries.hasMoreElements(); ) {
            ZipEntry entry = entries.nextElement();
            String name = entry.getName().replace('\\', '/');
            if (name.startsWith("/")
                    || name.matches("[A-Za-z]:.*")
                    || List.of(name.split("/")).contains("..")) {
                throw new UnreadableTableException(
                        "The archive holds a file named “%s”, which leads out of it. It is not taken."
                                .formatted(shortened(name)));
            }
            try (InputStream in = zip.getInputStream(entry)) {
                for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                    bytes += n;
                    if (bytes > most) {
                        throw new UnreadableTableException(
                                "Unpacked, the archive would be more than %,d MB, from %,d kB. It is not taken."
                                        .formatted(most >> 20, packed >> 10));
                    }
                }
            }
        }
    }

    private static String shortened(String name) {
        return name.length() <= 60 ? name : name.substring(0, 59) + "…";
    }

    /** Names of all files in the archive. */
    List<String> names() {
        List<String> names = new ArrayList<>();
        zip.stream().filter(e -> !e.isDirectory()).forEach(e -> names.add(e.getName()));
        return names;
    }

    /** The names of files with this ending, in any case, in the order of their names. */
    List<String> ending(String ending) {
        return names().stream()
                .filter(n -> n.toLowerCase(Locale.ROOT).endsWith(ending) && !n.startsWith("__MACOSX"))
                .sorted()
                .toList();
    }

    Optional<InputStream> find(String name) throws IOException {
        for (String each : names())
            if (each.equalsIgnoreCase(name)) return Optional.of(zip.getInputStream(zip.getEntry(each)));
        return Optional.empty();
    }

    InputStream read(String name) throws IOException {
        return find(name).orElseThrow(() -> new UnreadableTableException("The archive lacks “" + name + "”."));
    }

    @Override
    public void close() throws IOException {
        zip.close();
    }
}
