package sarnik.app.command;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import sarnik.place.Gazetteer;
import sarnik.place.Match;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.PlacingGuess;
import sarnik.place.TablePlacer;
import sarnik.format.TableFile;
import sarnik.table.FileChoices;
import sarnik.table.RowSource;
import sarnik.table.Shaping;
import sarnik.table.TableReader;
import sarnik.table.Table;
import sarnik.table.UnreadableTableException;

/**
 * Places the rows of a CSV file from the command line, without a server: {@code ./sarnik place in.csv --out placed.csv}.
 *
 * <p>Ends with 0 when every row is placed, 1 when some are doubtful or unplaced (the file is written all the same), 2 when
 * nothing could be done.
 */
public final class PlaceCommand {

    static final int ALL_PLACED = 0;
    static final int SOME_NOT = 1;
    static final int NOTHING_DONE = 2;

    /** Columns that are added; where a file has one of the name already, "placed" stands before it. */
    static final List<String> ADDED = List.of("state", "confidence", "place", "code", "longitude", "latitude", "reason");

    private static final String USAGE = """
            usage: ./sarnik place in.csv --out placed.csv [columns]
            Columns are guessed unless they are named:
              --town NAME --province NAME --country NAME   words, one column each
              --where NAME                                 one column of mixed words, such as "Soria, Spain"
              --lat NAME --lon NAME                        degrees; --lat alone where one column holds both
              --code NAME                                  codes of countries, regions, provinces, municipalities
            """;

    private final PrintStream out;
    private final PrintStream err;

    PlaceCommand(PrintStream out, PrintStream err) {
        this.out = out;
        this.err = err;
    }

    public static void main(String[] arguments) {
        System.exit(new PlaceCommand(System.out, System.err).run(arguments));
    }

    private static final class Misuse extends RuntimeException {
        private static final long serialVersionUID = 1L;

        Misuse(String message) {
            super(message);
        }
    }

    int run(String... arguments) {
        try {
            Map<String, String> options = options(arguments);
            Path in = Path.of(needed(options, "in", "Name the file to place."));
            Path target = Path.of(needed(options, "--out", "Name the file to write, with --out placed.csv."));
            RowSource rows = TableFile.open(in, FileChoices.NONE).rows();
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
        } catch (UnreadableTableException | IllegalArgumentException | IOException refused) {
            err.println("sarnik place: " + refused.getMessage());
        }
        return NOTHING_DONE;
    }

    private static Map<String, String> options(String[] arguments) {
        List<String> known = List.of("--out", "--town", "--province", "--country", "--where", "--lat", "--lon", "--code");
        Map<String, String> options = new LinkedHashMap<>();
        for (int i = 0; i < arguments.length; i++) {
            String word = arguments[i];
            if (!word.startsWith("--")) {
                if (options.putIfAbsent("in", word) != null) throw new Misuse("Two files are named, “" + options.get("in") + "” and “" + word + "”; one is placed at a time.");
            } else if (!known.contains(word)) {
                throw new Misuse("There is no option " + word + ".");
            } else if (i + 1 == arguments.length) {
                throw new Misuse(word + " needs a name behind it.");
            } else {
                options.put(word, arguments[++i]);
            }
        }
        return options;
    }

    private static String needed(Map<String, String> options, String name, String sentence) {
        String value = options.get(name);
        if (value == null) throw new Misuse(sentence);
        return value;
    }

    private static Placing recipe(Map<String, String> options, Table table, RowSource rows) throws IOException {
        for (String name : List.of("--town", "--province", "--country", "--where", "--lat", "--lon", "--code")) {
            String column = options.get(name);
            if (column != null && table.find(column).isEmpty()) {
                throw new Misuse("The file has no column “%s”. Its columns are: %s.".formatted(column, String.join(", ", table.names())));
            }
        }
        if (options.containsKey("--code")) return new Placing.ByCode(options.get("--code"));
        if (options.containsKey("--where")) return new Placing.ByWords(options.get("--where"));
        if (options.containsKey("--lat")) return new Placing.ByCoordinates(options.get("--lat"), options.get("--lon"));
        if (options.containsKey("--lon")) throw new Misuse("--lon goes with --lat.");
        if (options.containsKey("--town") || options.containsKey("--province") || options.containsKey("--country")) {
            return new Placing.ByName(options.get("--town"), options.get("--province"), options.get("--country"));
        }
        return new PlacingGuess(Gazetteer.shipped()).guess(new TableReader().read(rows, Shaping.NONE).table())
                .orElseThrow(() -> new Misuse("No column seems to tell where a row is. Name it; the columns are: " + String.join(", ", table.names()) + "."));
    }

    private static void write(Table table, PlacedTable placed, Path target) throws IOException {
        // Written beside its place and moved there: a script never meets half a file.
        Path beside = target.resolveSibling(target.getFileName() + ".part");
        try (CsvWriter writer = CsvWriter.builder().build(beside)) {
            List<String> header = new ArrayList<>(table.names());
            for (String name : ADDED) header.add(table.names().contains(name) ? "placed " + name : name);
            writer.writeRecord(header);
            for (int row = 0; row < table.rows(); row++) {
                List<String> cells = new ArrayList<>(header.size());
                for (String name : table.names()) cells.add(blankForNull(table.column(name).text(row)));
                cells.addAll(added(placed.match(row)));
                writer.writeRecord(cells);
            }
        }
        Files.move(beside, target, StandardCopyOption.REPLACE_EXISTING);
    }

    private static List<String> added(Match match) {
        Place place = match.place();
        return List.of(match.state().name().toLowerCase(Locale.ROOT), String.format(Locale.ROOT, "%.2f", match.confidence()),
                place == null ? "" : place.name(), place == null ? "" : place.id(),
                place == null ? "" : String.valueOf(place.lon()), place == null ? "" : String.valueOf(place.lat()), match.reason());
    }

    private static String blankForNull(String text) {
        return text == null ? "" : text;
    }

    private int say(PlacedTable placed, Placing recipe, Path target) {
        long doubtful = placed.rows(Match.State.DOUBTFUL);
        long unplaced = placed.rows(Match.State.UNPLACED);
        out.printf(Locale.ENGLISH, "%,d rows placed, %,d doubtful, %,d unplaced, by %s; written to %s%n", placed.rows(Match.State.PLACED), doubtful, unplaced, recipe.words(), target);
        return doubtful + unplaced == 0 ? ALL_PLACED : SOME_NOT;
    }
}
