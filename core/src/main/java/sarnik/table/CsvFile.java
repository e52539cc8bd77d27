package sarnik.table;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The rows of a CSV file (RFC 4180) or another text file with a delimiter between cells. */
public final class CsvFile implements Grid {

    private static final Pattern LINE = Pattern.compile("line (\\d+)");

    /** Longest cell, in characters; a quote that is never closed runs into it. */
    private static final int LONGEST_CELL = 1 << 20;

    /** Bytes at the end of a file in which its last character is looked for; even, as some characters have two. */
    private static final int END = 4096;

    private final Path file;
    private final CsvForm form;

    private CsvFile(Path file, CsvForm form) {
        this.file = file;
        this.form = form;
    }

    /**
     * @param choices what a person has corrected; the rest is found by looking
     * @throws UnreadableTableException when the file is empty, is not text, or breaks the format's rules
     */
    public static RowSource open(Path file, FileChoices choices) throws IOException {
        CsvForm form = CsvForm.look(file, choices);
        return new GridSource(new CsvFile(file, form), choices, form.words());
    }

    @Override
    public List<List<String>> first(int rows) throws IOException {
        List<List<String>> first = new ArrayList<>();
        try (CsvReader<CsvRecord> reader = open()) {
            for (CsvRecord record : reader) {
                if (first.size() == rows) break;
                first.add(record.getFields());
            }
        } catch (CsvParseException broken) {
            throw unreadable(broken);
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        }
        return first;
    }

    /** Whoever writes decimals with commas parts cells by semicolons. */
    @Override
    public Shaping.DecimalMark usualMark() {
        return switch (form.delimiter()) {
            case ',' -> Shaping.DecimalMark.POINT;
            case ';' -> Shaping.DecimalMark.COMMA;
            default -> null;
        };
    }

    @Override
    public void each(RowSource.Visitor visitor) throws IOException {
        Current current = new Current();
        try (CsvReader<CsvRecord> reader = open()) {
            for (CsvRecord record : reader) {
                current.record = record;
                visitor.row(record.getStartingLineNumber(), current);
            }
            if (current.record != null && isOpen(current.record))
                throw unreadable(String.valueOf(current.record.getStartingLineNumber()));
        } catch (CsvParseException broken) {
            throw unreadable(broken);
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        }
    }

    /**
     * Whether the quote that the last cell of a file begins with is never closed, so that all rows behind it stand in
     * that cell: over a line or a delimiter it goes on within quotes only, and the file does not end with one.
     */
    private boolean isOpen(CsvRecord last) throws IOException {
        String cell = last.getField(last.getFieldCount() - 1);
        if (cell.indexOf('\n') < 0 && cell.indexOf('\r') < 0 && cell.indexOf(form.delimiter()) < 0) return false;
        try (var bytes = Files.newByteChannel(file)) {
            long from = Math.max(0, bytes.size() - END);
            ByteBuffer end = ByteBuffer.allocate((int) (bytes.size() - from));
            bytes.position(from);
            while (end.hasRemaining() && bytes.read(end) >= 0) continue;
            String text = form.charset().decode(end.flip()).toString().strip();
            return !text.isEmpty() && text.charAt(text.length() - 1) != form.quote();
        }
    }

    /** The cells of the record at hand. */
    private static final class Current implements RowSource.Cells {

        private CsvRecord record;

        @Override
        public int count() {
            return record.getFieldCount();
        }

        @Override
        public String get(int index) {
            return record.getField(index);
        }
    }

    private CsvReader<CsvRecord> open() throws IOException {
        // A byte that the charset does not have becomes U+FFFD in its cell: no row is lost over it.
        var in = new BufferedReader(new InputStreamReader(Files.newInputStream(file), form.charset()));
        in.mark(1);
        if (in.read() != '\uFEFF') in.reset();
        return CsvReader.builder()
                .fieldSeparator(form.delimiter())
                .quoteCharacter(form.quote())
                .skipEmptyLines(true)
                .allowExtraFields(true)
                .allowMissingFields(true)
                .maxBufferSize(LONGEST_CELL)
                .ofCsvRecord(in);
    }

    private static UnreadableTableException unreadable(CsvParseException broken) {
        Matcher line = LINE.matcher(String.valueOf(broken.getMessage()));
        return unreadable(line.find() ? line.group(1) : null);
    }

    /** @param line in which the row begins; null where that is not known */
    private static UnreadableTableException unreadable(String line) {
        return new UnreadableTableException("The file breaks off its own rules"
                + (line == null ? "" : " in the row that begins in line " + line)
                + ". A quote that is opened and never closed is the usual cause; mend that line and "
                + "bring the file in again.");
    }
}
