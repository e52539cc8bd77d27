package sarnik.table;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * Reads a CSV file (RFC 4180, header in its first line) into a table.
 *
 * <p>The file is read twice: once to see how every column is written, once to fill arrays of the right kind and size.
 * So a guess rests on the whole column, and memory stays near the size of the arrays. No row is dropped: a cell that
 * does not fit its column becomes missing and is reported.
 *
 * <pre>{@code
 * CsvReading reading = new CsvTableReader().read(Path.of("refills.csv"), Map.of("phone", ColumnType.TEXT));
 * reading.table().rows();
 * reading.troubles().first();
 * }</pre>
 */
public final class CsvTableReader {

    /** More columns than this are refused: PostgreSQL's own limit is 1,600. */
    public static final int MOST_COLUMNS = 1000;

    /** Longest cell, in characters; a quote that is never closed runs into it. */
    private static final int LONGEST_CELL = 1 << 20;

    /**
     * @param file the file
     * @param types the types that are not to be guessed, by column name as {@link Table#names()} gives it
     * @throws UnreadableTableException when the file holds no table; the message says why and how to mend it
     * @throws IOException when the file cannot be read from disk
     */
    public CsvReading read(Path file, Map<String, ColumnType> types) throws IOException {
        return read(file, types::get);
    }

    /** Reads every column as text, so that each cell stays as it was written but for blanks around it. */
    public CsvReading readAsText(Path file) throws IOException {
        return read(file, column -> ColumnType.TEXT);
    }

    private CsvReading read(Path file, Function<String, ColumnType> types) throws IOException {
        CsvForm form = CsvForm.look(file);
        TroubleLog troubles = new TroubleLog();
        try {
            Survey survey = survey(file, form, troubles);
            List<ColumnBuilder> builders = new ArrayList<>();
            for (int i = 0; i < survey.names.size(); i++) {
                ColumnType type = types.apply(survey.names.get(i));
                FormGuess guess = survey.guesses.get(i);
                builders.add(new ColumnBuilder(type == null ? guess.form() : guess.formOf(type), survey.rows));
            }
            fill(file, form, survey.names, builders, troubles);
            Map<String, Column> columns = new LinkedHashMap<>();
            for (int i = 0; i < builders.size(); i++) {
                columns.put(survey.names.get(i), builders.get(i).build());
            }
            return new CsvReading(new Table(columns), form, troubles.troubles());
        } catch (CsvParseException broken) {
            throw new UnreadableTableException("The file breaks off its own rules: " + reason(broken)
                    + " A quote that is opened and never closed is the usual cause; mend that line and bring the file in"
                    + " again.");
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        }
    }

    private record Survey(List<String> names, List<FormGuess> guesses, int rows) {}

    private Survey survey(Path file, CsvForm form, TroubleLog troubles) throws IOException {
        try (CsvReader<CsvRecord> reader = open(file, form)) {
            var records = reader.iterator();
            if (!records.hasNext()) {
                throw new UnreadableTableException("The file holds nothing but empty lines. Choose the file that holds the"
                        + " rows, with the column names in its first line.");
            }
            List<String> names = names(records.next(), troubles);
            List<FormGuess> guesses = new ArrayList<>();
            names.forEach(name -> guesses.add(new FormGuess()));
            int rows = 0;
            while (records.hasNext()) {
                CsvRecord record = records.next();
                rows++;
                for (int i = 0; i < Math.min(names.size(), record.getFieldCount()); i++) {
                    String cell = record.getField(i).strip();
                    if (!cell.isEmpty()) guesses.get(i).see(cell);
                }
            }
            if (rows == 0) {
                throw new UnreadableTableException("The file has a header of %s but no row below it. Choose a file with rows."
                        .formatted(names.size() == 1 ? "one column" : names.size() + " columns"));
            }
            return new Survey(names, guesses, rows);
        }
    }

    private void fill(Path file, CsvForm form, List<String> names, List<ColumnBuilder> builders, TroubleLog troubles)
            throws IOException {
        try (CsvReader<CsvRecord> reader = open(file, form)) {
            boolean header = true;
            for (CsvRecord record : reader) {
                if (header) {
                    header = false;
                    continue;
                }
                long line = record.getStartingLineNumber();
                int fields = record.getFieldCount();
                for (int i = 0; i < builders.size(); i++) {
                    String cell = i < fields ? clean(record.getField(i).strip(), line, names.get(i), troubles) : "";
                    if (!builders.get(i).add(cell)) {
                        troubles.add(line, names.get(i), cell,
                                "This is not a " + builders.get(i).type().words() + "; the cell is taken as missing.");
                    }
                }
                if (fields < builders.size()) {
                    troubles.add(line, null, String.join(" · ", record.getFields()),
                            "The row has %d of %d cells; the rest are taken as missing.".formatted(fields, builders.size()));
                } else if (fields > builders.size()) {
                    troubles.add(line, null,
                            String.join(" · ", record.getFields().subList(builders.size(), fields)),
                            "The row has %d cells where the header has %d; these last ones are left out."
                                    .formatted(fields, builders.size()));
                }
            }
        }
    }

    private static String clean(String cell, long line, String column, TroubleLog troubles) {
        if (cell.indexOf('\0') < 0) return cell;
        String cleaned = cell.replace("\0", "");
        troubles.add(line, column, cleaned, "The cell held a null byte, which is taken out.");
        return cleaned;
    }

    private static List<String> names(CsvRecord header, TroubleLog troubles) {
        if (header.getFieldCount() > MOST_COLUMNS) {
            throw new UnreadableTableException("The header has %,d columns; up to %,d can be brought in. Leave out the columns"
                            .formatted(header.getFieldCount(), MOST_COLUMNS)
                    + " that are not needed, or turn repeated columns into rows.");
        }
        List<String> names = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (int i = 0; i < header.getFieldCount(); i++) {
            String written = header.getField(i).strip();
            // Names that start with @ are kept for the columns that placing adds.
            String name = written.replace("\0", "").replaceFirst("^@+", "");
            if (name.length() > 120) name = name.substring(0, 120);
            if (name.isEmpty()) name = "column " + (i + 1);
            String unique = name;
            for (int n = 2; !taken.add(unique); n++) unique = name + " " + n;
            if (!unique.equals(written)) {
                troubles.add(1, unique, written,
                        written.isEmpty()
                                ? "The header has no name here; the column is called “" + unique + "”."
                                : "The name is taken or cannot be used as it stands; the column is called “" + unique + "”.");
            }
            names.add(unique);
        }
        return names;
    }

    private static CsvReader<CsvRecord> open(Path file, CsvForm form) throws IOException {
        // A byte that the charset does not have becomes U+FFFD in its cell: no row is lost over it.
        var in = new BufferedReader(new InputStreamReader(Files.newInputStream(file), form.charset()));
        in.mark(1);
        if (in.read() != '\uFEFF') in.reset();
        return CsvReader.builder()
                .fieldSeparator(form.delimiter())
                .skipEmptyLines(true)
                .allowExtraFields(true)
                .allowMissingFields(true)
                .maxBufferSize(LONGEST_CELL)
                .ofCsvRecord(in);
    }

    private static String reason(CsvParseException broken) {
        String message = broken.getCause() != null && broken.getCause().getMessage() != null
                ? broken.getCause().getMessage()
                : broken.getMessage();
        return message == null ? "" : message.endsWith(".") ? message : message + ".";
    }
}
