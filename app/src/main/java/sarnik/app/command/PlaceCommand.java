package sarnik.app.command;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStreamWriter;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import sarnik.format.TableFile;
import sarnik.place.Gazetteer;
import sarnik.place.Match;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.PlacingGuess;
import sarnik.place.TablePlacer;
import sarnik.table.Column;
import sarnik.table.FileChoices;
import sarnik.table.Reading;
import sarnik.table.RowSource;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;
import sarnik.table.TextRows;
import sarnik.table.UnreadableTableException;

/**
 * Places the rows of a CSV file from the command line, without a server: {@code ./sarnik place in.csv --out
 * placed.csv}.
 *
 * <p>Ends with 0 when every row is placed, 1 when some are doubtful or unplaced (the file is written all the same), 2
 * when
 * nothing could be done. Nothing else ends with these.
 */
public final class PlaceCommand {

    static final int ALL_PLACED = 0;
    static final int SOME_NOT = 1;
    static final int NOTHING_DONE = 2;

    /**
     * Columns that are added; where a file has one of the name already, "placed" stands before it. Of rows that go
     * from one place to
     * another they are the destination's, and the origin's follow under the same names behind "origin".
     */
    static final List<String> ADDED =
            List.of("state", "confidence", "place", "level", "code", "longitude", "latitude", "reason");

    private static final String STREAM = "-";

    /** Rows, spread over the file, by which it is guessed what columns are. */
    private static final int LOOKED_AT = 200_000;

    private static final String USAGE = """
            usage: ./sarnik place in.csv --out placed.csv [columns]
            - stands for standard input, and for standard output. Columns are guessed unless they are named, in one of these ways:
              --town NAME --province NAME --country NAME   words, one column each
              --where NAME                                 one column of mixed words, such as "Soria, Spain"
              --lat NAME --lon NAME                        degrees; --lat alone where one column holds both
              --from NAME --to NAME                        a journey: origin and destination, each in one column of mixed words
              --code NAME                                  codes of countries, regions, provinces, municipalities, and those that
                                                           this command writes
            --out=FILE means the same as --out FILE. Ends with 0 when all rows are placed, with 1 when some are doubtful or
            unplaced (they are written all the same), with 2 when nothing was done.
            """;

    /** The ways of naming columns: options of two of them contradict each other. */
    private static final List<Set<String>> WAYS = List.of(
            Set.of("--town", "--province", "--country"),
            Set.of("--where"),
            Set.of("--lat", "--lon"),
            Set.of("--from", "--to"),
            Set.of("--code"));

    private final InputStream in;
    private final PrintStream out;
    private final PrintStream err;

    PlaceCommand(InputStream in, PrintStream out, PrintStream err) {
        this.in = in;
        this.out = out;
        this.err = err;
    }

    public static void main(String[] arguments) {
        int code = NOTHING_DONE;
        try {
            code = new PlaceCommand(System.in, System.out, System.err).run(arguments);
        } catch (OutOfMemoryError full) {
            System.err.println(
                    "sarnik place: the file needs more memory than there is. Nothing was written. Give it more, "
                            + "such as SARNIK_MEMORY=6g, or split the file.");
        } catch (RuntimeException | Error mistake) {
            System.err.println("sarnik place: a mistake of the program, nothing was written: " + mistake);
        }
        // Whatever happened, the exit code has one meaning.
        System.exit(code);
    }

    private static final class Misuse extends RuntimeException {
        private static final long serialVersionUID = 1L;

        Misuse(String message) {
            super(message);
        }
    }

    int run(String... arguments) {
        if (List.of(arguments).contains("--help") || List.of(arguments).contains("-h")) {
            out.print(USAGE);
            return ALL_PLACED;
        }
        Path taken = null;
        try {
            Map<String, String> options = options(arguments);
            String source = needed(options, "in", "Name the file to place, or - for standard input.");
            String target = needed(
                    options, "--out", "Name the file to write, with --out placed.csv, or --out - for standard output.");
            checkTarget(target);
            if (source.equals(STREAM))
                Files.copy(in, taken = Files.createTempFile("place", ".csv"), StandardCopyOption.REPLACE_EXISTING);
            else if (Files.isDirectory(Path.of(source))) throw new Misuse(source + " is a directory. Name a file.");
            RowSource rows = TableFile.open(taken == null ? Path.of(source) : taken, FileChoices.NONE)
                    .rows();
            Table table = new TableReader().readAsText(rows);
            Placing recipe = recipe(options, table, rows);
            PlacedTable placed = new TablePlacer(Gazetteer.shipped()).by(table, recipe);
            write(table, placed, target);
            return say(placed, recipe, target);
        } catch (Misuse misuse) {
            err.println("sarnik place: " + misuse.getMessage());
            err.print(USAGE);
        } catch (NoSuchFileException missing) {
            err.println("sarnik place: there is no file " + missing.getFile() + ".");
        } catch (AccessDeniedException denied) {
            err.println("sarnik place: " + denied.getFile() + " may not be read or written by you.");
        } catch (UnreadableTableException | IllegalArgumentException | IOException refused) {
            err.println("sarnik place: " + refused.getMessage());
        } finally {
            if (taken != null) taken.toFile().delete();
        }
        return NOTHING_DONE;
    }

    private static Map<String, String> options(String[] arguments) {
        Set<String> known = new TreeSet<>(Set.of("--out"));
        WAYS.forEach(known::addAll);
        Map<String, String> options = new LinkedHashMap<>();
        for (int i = 0; i < arguments.length; i++) {
            String word = arguments[i];
            if (!word.startsWith("--")) {
                if (word.startsWith("-") && word.length() > 1) throw new Misuse("There is no option " + word + ".");
                if (options.putIfAbsent("in", word) != null)
                    throw new Misuse("Two files are named, “" + options.get("in") + "” and “" + word
                            + "”; one is placed at a time.");
                continue;
            }
            int equals = word.indexOf('=');
            String name = equals < 0 ? word : word.substring(0, equals);
            if (!known.contains(name)) throw new Misuse("There is no option " + name + ".");
            if (equals < 0 && i + 1 == arguments.length) throw new Misuse(word + " needs a name behind it.");
            String value = equals < 0 ? arguments[++i] : word.substring(equals + 1);
            if (value.isEmpty()) throw new Misuse(name + " needs a name behind it.");
            if (options.putIfAbsent(name, value) != null) throw new Misuse(name + " is said twice.");
        }
        List<String> ways = WAYS.stream()
                .filter(way -> way.stream().anyMatch(options::containsKey))
                .map(way -> way.stream()
                        .filter(options::containsKey)
                        .sorted()
                        .findFirst()
                        .orElseThrow())
                .toList();
        if (ways.size() > 1)
            throw new Misuse(
                    "%s and %s contradict each other: a row is placed in one way.".formatted(ways.get(0), ways.get(1)));
        return options;
    }

    /** Looks at what is to be written before anything is read: only a plain file is replaced. */
    private static void checkTarget(String target) {
        if (target.equals(STREAM)) return;
        Path path = Path.of(target);
        if (Files.isDirectory(path)) throw new Misuse(target + " is a directory. Name a file in it.");
        Path folder = path.toAbsolutePath().getParent();
        if (folder != null && !Files.isDirectory(folder))
            throw new Misuse("There is no folder " + folder + " to write into.");
    }

    private static String needed(Map<String, String> options, String name, String sentence) {
        String value = options.get(name);
        if (value == null) throw new Misuse(sentence);
        return value;
    }

    private static Placing recipe(Map<String, String> options, Table table, RowSource rows) throws IOException {
        for (String name :
                List.of("--town", "--province", "--country", "--where", "--lat", "--lon", "--from", "--to", "--code")) {
            String column = options.get(name);
            if (column != null && table.find(column).isEmpty()) {
                throw new Misuse("The file has no column “%s”. Its columns are: %s."
                        .formatted(column, String.join(", ", table.names())));
            }
        }
        if (options.containsKey("--code")) return new Placing.ByCode(options.get("--code"));
        if (options.containsKey("--where")) return new Placing.ByWords(options.get("--where"));
        if (options.containsKey("--lat")) return new Placing.ByCoordinates(options.get("--lat"), options.get("--lon"));
        if (options.containsKey("--from") && options.containsKey("--to"))
            return new Placing.FromTo(
                    new Placing.ByWords(options.get("--from")), new Placing.ByWords(options.get("--to")));
        if (options.containsKey("--from") || options.containsKey("--to"))
            throw new Misuse("--from and --to go together.");
        if (options.containsKey("--lon")) throw new Misuse("--lon goes with --lat.");
        if (options.containsKey("--town") || options.containsKey("--province") || options.containsKey("--country")) {
            return new Placing.ByName(options.get("--town"), options.get("--province"), options.get("--country"));
        }
        PlacingGuess guess = new PlacingGuess(Gazetteer.shipped());
        Reading reading = new TableReader().read(new TextRows(table, rows, LOOKED_AT), Shaping.NONE);
        return guess.ownShapes(reading)
                .or(() -> guess.guess(reading.table()))
                .orElseThrow(() -> new Misuse("No column seems to tell where a row is. Name it; the columns are: "
                        + String.join(", ", table.names()) + "."));
    }

    private void write(Table table, PlacedTable placed, String target) throws IOException {
        if (target.equals(STREAM)) {
            CsvWriter writer = CsvWriter.builder().build(new OutputStreamWriter(out, StandardCharsets.UTF_8));
            write(table, placed, writer);
            writer.flush();
            return;
        }
        Path path = Path.of(target);
        if (Files.exists(path)) path = path.toRealPath();
        if (Files.exists(path) && !Files.isRegularFile(path)) {
            // A device or a pipe is written to as it is: it must not be replaced by a file.
            try (CsvWriter writer = CsvWriter.builder()
                    .build(new OutputStreamWriter(
                            Files.newOutputStream(path, StandardOpenOption.WRITE), StandardCharsets.UTF_8))) {
                write(table, placed, writer);
            }
            return;
        }
        // Written beside its place and moved there: a script never meets half a file.
        Path beside = Files.createTempFile(path.toAbsolutePath().getParent(), "." + path.getFileName(), ".part");
        try {
            try (CsvWriter writer = CsvWriter.builder().build(beside)) {
                write(table, placed, writer);
            }
            Files.setPosixFilePermissions(
                    beside,
                    Files.exists(path)
                            ? Files.getPosixFilePermissions(path)
                            : PosixFilePermissions.fromString("rw-r--r--"));
            Files.move(beside, path, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(beside);
        }
    }

    private static void write(Table table, PlacedTable placed, CsvWriter writer) {
        List<String> header = new ArrayList<>(table.names());
        addHeader(header, "", table);
        if (placed.origin() != null) addHeader(header, "origin ", table);
        writer.writeRecord(header);
        List<Column> columns = table.names().stream().map(table::column).toList();
        // What is said of a find is the same in all of its rows.
        List<List<String>> said =
                placed.finds().stream().map(find -> added(find.match())).toList();
        PlacedTable origin = placed.origin();
        List<List<String>> saidOfOrigin = origin == null
                ? List.of()
                : origin.finds().stream().map(find -> added(find.match())).toList();
        String[] cells = new String[header.size()];
        for (int row = 0; row < table.rows(); row++) {
            int at = 0;
            for (Column column : columns) cells[at++] = blankForNull(column.text(row));
            for (String more : said.get(placed.findOfRow()[row])) cells[at++] = more;
            if (origin != null) for (String more : saidOfOrigin.get(origin.findOfRow()[row])) cells[at++] = more;
            writer.writeRecord(cells);
        }
    }

    private static void addHeader(List<String> header, String of, Table table) {
        for (String name : ADDED) header.add(table.names().contains(of + name) ? "placed " + of + name : of + name);
    }

    private static List<String> added(Match match) {
        Place place = match.place();
        return List.of(
                match.state().name().toLowerCase(Locale.ROOT),
                String.format(Locale.ROOT, "%.2f", match.confidence()),
                place == null ? "" : place.name(),
                place == null ? "" : place.level().name().toLowerCase(Locale.ROOT),
                place == null ? "" : place.id(),
                place == null ? "" : String.valueOf(place.lon()),
                place == null ? "" : String.valueOf(place.lat()),
                match.reason());
    }

    private static String blankForNull(String text) {
        return text == null ? "" : text;
    }

    private int say(PlacedTable placed, Placing recipe, String target) {
        long doubtful = placed.rows(Match.State.DOUBTFUL);
        long unplaced = placed.rows(Match.State.UNPLACED);
        boolean stream = target.equals(STREAM);
        (stream ? err : out)
                .printf(
                        Locale.ENGLISH,
                        "%,d %s placed, %,d doubtful, %,d unplaced, by %s; written to %s%n",
                        placed.rows(Match.State.PLACED),
                        placed.rows(Match.State.PLACED) == 1 ? "row" : "rows",
                        doubtful,
                        unplaced,
                        recipe.words(),
                        stream ? "standard output" : target);
        return doubtful + unplaced == 0 ? ALL_PLACED : SOME_NOT;
    }
}
