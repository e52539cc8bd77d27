package sarnik.app.outside;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.springframework.stereotype.Service;
import sarnik.app.database.DatabaseRows;
import sarnik.app.web.RefusedException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Tables that lie at an address: a file, a collection of OGC API – Features, of which all pages are put together as one
 * GeoJSON, or rows of a database.
 */
@Service
public class RemoteTables {

    private static final int MOST_PAGES = 2000;
    /** All pages together have to come within this. */
    private static final Duration WHOLE = Duration.ofMinutes(5);

    private static final int MOST_HOPS = 4;
    private static final long LARGEST = 256L << 20;
    /** What a description of a service may be large. */
    private static final long LARGEST_DESCRIPTION = 4L << 20;

    private static final long LARGEST_PAGE = 64L << 20;
    private static final Pattern NEXT = Pattern.compile("\"rel\"\\s*:\\s*\"next\"");
    private static final int NAMED = 12;

    private final RemoteFiles files;
    private final DatabaseRows databases;
    private final JsonMapper json;

    RemoteTables(RemoteFiles files, DatabaseRows databases, JsonMapper json) {
        this.files = files;
        this.databases = databases;
        this.json = json;
    }

    /**
     * Fetches a table.
     *
     * @param file where it is written
     * @return what the file may be called
     * @throws RefusedException when the address is not allowed, does not answer, or is a service of which one
     *     collection
     *     has to be chosen
     */
    public String fetch(String address, Path file) {
        if (DatabaseRows.isOne(address)) return databases.fetch(address, file);
        files.fetch(address, file);
        String at = address;
        try {
            for (int hop = 0; hop < MOST_HOPS; hop++) {
                JsonNode described = described(file);
                if (described == null) break;
                String next = onTo(described, at);
                if (next == null) break;
                at = next;
                files.fetch(at, file);
            }
            return gathered(at, file) ? nameOf(at) : lastOf(at);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /**
     * Checks that an address may be asked.
     *
     * @throws RefusedException when it may not; the message says why
     */
    public void check(String address) {
        if (DatabaseRows.isOne(address)) databases.check(address);
        else files.checked(address);
    }

    /** What a small JSON file says; null where it is none. */
    private JsonNode described(Path file) throws IOException {
        if (Files.size(file) > LARGEST_DESCRIPTION || !isJson(file)) return null;
        return read(file);
    }

    private static boolean isJson(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return new String(in.readNBytes(200), StandardCharsets.UTF_8)
                    .replace("\uFEFF", "")
                    .stripLeading()
                    .startsWith("{");
        }
    }

    private JsonNode read(Path file) {
        try {
            JsonNode node = json.readTree(file.toFile());
            return node.isObject() ? node : null;
        } catch (JacksonException noJson) {
            return null;
        }
    }

    /**
     * Where the description of a service leads on: from its beginning to its collections, from a collection to its
     * features; null where it is none.
     */
    private static String onTo(JsonNode described, String at) {
        if (described.path("type").asString("").equals("FeatureCollection")) return null;
        JsonNode collections = described.path("collections");
        if (collections.isArray()) {
            if (collections.size() == 1) return wholly(link(collections.get(0), "items", at));
            if (collections.isEmpty()) return null;
            throw new RefusedException("This service offers %,d collections; give the address of one of them: %s."
                    .formatted(
                            collections.size(),
                            StreamSupport.stream(collections.spliterator(), false)
                                    .limit(NAMED)
                                    .map(c -> "%s (%s)"
                                            .formatted(
                                                    c.path("title")
                                                            .asString(
                                                                    c.path("id").asString("")),
                                                    link(c, "items", at)))
                                    .collect(Collectors.joining(", "))));
        }
        String items = link(described, "items", at);
        return items != null ? wholly(items) : link(described, "data", at);
    }

    /** The features' address with as many on a page as services give. */
    private static String wholly(String items) {
        if (items == null || items.matches(".*[?&]limit=.*")) return items;
        return items + (items.contains("?") ? "&" : "?") + "limit=1000";
    }

    /** The address of a link of this relation, of GeoJSON or JSON where there are several; null for none. */
    private static String link(JsonNode of, String relation, String at) {
        List<JsonNode> links = StreamSupport.stream(of.path("links").spliterator(), false)
                .filter(l -> l.path("rel").asString("").replaceFirst(".*/", "").equals(relation))
                .toList();
        return links.stream()
                .filter(l -> l.path("type").asString("").contains("json"))
                .findFirst()
                .or(() -> links.stream().findFirst())
                .map(l -> l.path("href").asString(""))
                .filter(href -> !href.isEmpty())
                .map(href -> resolved(at, href))
                .orElse(null);
    }

    private static String resolved(String at, String href) {
        try {
            return URI.create(at).resolve(href).toString();
        } catch (IllegalArgumentException odd) {
            throw new RefusedException("The service leads on to “" + href + "”, which is no address.");
        }
    }

    /** Puts the pages that follow into the file. */
    private boolean gathered(String first, Path file) throws IOException {
        if (!isJson(file)) return false;
        if (Files.size(file) > LARGEST_PAGE) {
            // It is not read as a whole here; that rows would be missing is not passed over.
            if (endsWithNext(file))
                throw new RefusedException(
                        ("A page of the collection is larger than %d MB. Ask for smaller ones, as with limit=1000 in "
                                        + "the address.")
                                .formatted(LARGEST_PAGE >> 20));
            return false;
        }
        JsonNode page = read(file);
        String next = page == null || !page.path("features").isArray() ? null : link(page, "next", first);
        if (next == null) return false;
        Path whole = Files.createTempFile(file.toAbsolutePath().getParent(), "features", ".part");
        Path one = Files.createTempFile(file.toAbsolutePath().getParent(), "features", ".page");
        try {
            Set<String> seen = new HashSet<>(Set.of(first));
            long deadline = System.nanoTime() + WHOLE.toNanos();
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(whole), 1 << 16)) {
                out.write("{\"type\":\"FeatureCollection\",\"features\":[".getBytes(StandardCharsets.UTF_8));
                long count = write(page, out, 0);
                while (next != null) {
                    if (!seen.add(next) || seen.size() > MOST_PAGES || Files.size(whole) > LARGEST)
                        throw new RefusedException(
                                ("The collection goes on beyond %,d features, more than are fetched at once. Ask for "
                                                + "fewer, as with bbox=… or another limit in the address.")
                                        .formatted(count));
                    if (System.nanoTime() > deadline)
                        throw new RefusedException(
                                ("The pages of the collection come too slowly: %,d features within %d minutes. "
                                                + "Ask for fewer, "
                                                + "as with bbox=… in the address.")
                                        .formatted(count, WHOLE.toMinutes()));
                    files.fetch(next, one);
                    page = read(one);
                    if (page == null || !page.path("features").isArray())
                        throw new RefusedException("A page of the collection is no GeoJSON: " + next);
                    count = write(page, out, count);
                    next = page.path("features").isEmpty() ? null : link(page, "next", next);
                }
                out.write("]}".getBytes(StandardCharsets.UTF_8));
            }
            Files.move(whole, file, StandardCopyOption.REPLACE_EXISTING);
            return true;
        } finally {
            Files.deleteIfExists(whole);
            Files.deleteIfExists(one);
        }
    }

    private static boolean endsWithNext(Path file) throws IOException {
        int length = 1 << 16;
        try (RandomAccessFile raw = new RandomAccessFile(file.toFile(), "r")) {
            byte[] ends = new byte[2 * length];
            raw.readFully(ends, 0, length);
            raw.seek(raw.length() - length);
            raw.readFully(ends, length, length);
            return NEXT.matcher(new String(ends, StandardCharsets.ISO_8859_1)).find();
        }
    }

    private long write(JsonNode page, OutputStream out, long before) throws IOException {
        long count = before;
        for (JsonNode feature : page.path("features")) {
            if (count++ > 0) out.write(',');
            out.write(json.writeValueAsBytes(feature));
        }
        return count;
    }

    private static String nameOf(String items) {
        String path = items.replaceFirst("[?#].*", "").replaceFirst("/items/?$", "");
        return path.substring(path.lastIndexOf('/') + 1) + ".geojson";
    }

    private static String lastOf(String address) {
        String path = address.replaceFirst("[?#].*", "");
        String last = path.substring(path.lastIndexOf('/') + 1);
        if (last.equals("items")) return nameOf(address);
        return last.isEmpty() || last.toLowerCase(Locale.ROOT).matches("[a-z]*") ? "table from an address" : last;
    }
}
