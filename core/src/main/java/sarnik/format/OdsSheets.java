package sarnik.format;

import com.fasterxml.aalto.stax.InputFactoryImpl;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import sarnik.table.UnreadableTableException;

/**
 * The sheets of a spreadsheet of the OpenDocument format (ISO/IEC 26300, OASIS ODF 1.3 part 3, chapter 9), packed or
 * as one XML
 * file. Read as a stream. Values are those that were stored when it was saved; repeated cells and rows are repeated.
 */
final class OdsSheets implements Sheets {

    private static final String OFFICE = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
    private static final String TABLE = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
    private static final String TEXT = "urn:oasis:names:tc:opendocument:xmlns:text:1.0";
    private static final String STYLE = "urn:oasis:names:tc:opendocument:xmlns:style:1.0";
    private static final String SPREADSHEET = "application/vnd.oasis.opendocument.spreadsheet";

    /** Cells that come of repetitions, at most: a few signs could make billions. */
    private static final long MOST_REPEATED = 50_000_000;

    /** A moment with parts of a second and, as some write it, a zone that sheets do not have. */
    private static final Pattern MOMENT = Pattern.compile("(T\\d\\d:\\d\\d:\\d\\d)(\\.\\d+)?Z?$");

    private static final int MOST_BLANKS = 10_000;

    /** Opens the part that holds the sheets. */
    interface Opening {
        InputStream open() throws IOException;
    }

    private final Opening opening;
    private Map<String, List<Merged>> sheets;

    OdsSheets(Opening opening) {
        this.opening = opening;
    }

    /** What an archive says of its contents (ODF 1.3 part 2, 3.3); empty where it is no OpenDocument file. */
    static String said(Archive archive) throws IOException {
        var found = archive.find("mimetype");
        if (found.isEmpty()) return "";
        try (InputStream in = found.get()) {
            String type = new String(in.readNBytes(120), StandardCharsets.US_ASCII).strip();
            return type.startsWith("application/vnd.oasis.opendocument.") ? type : "";
        }
    }

    /**
     * @throws UnreadableTableException when the archive is a document of another kind, or is protected
     */
    static OdsSheets of(Path file, Archive archive, String said) throws IOException {
        if (!said.startsWith(SPREADSHEET))
            throw new UnreadableTableException(
                    "The file is an OpenDocument file, but no spreadsheet. Save its table as ODS, XLSX or CSV "
                            + "and bring that in.");
        var manifest = archive.find("META-INF/manifest.xml");
        if (manifest.isPresent()) {
            try (InputStream in = manifest.get()) {
                if (new String(in.readNBytes(1 << 20), StandardCharsets.UTF_8).contains("encryption-data"))
                    throw new UnreadableTableException(PROTECTED);
            }
        }
        return new OdsSheets(() -> Archive.reading(file, "content.xml"));
    }

    @Override
    public String format() {
        return "ODS";
    }

    @Override
    public List<String> names() throws IOException {
        return List.copyOf(survey().keySet());
    }

    @Override
    public List<Merged> merged(String sheet) throws IOException {
        return survey().getOrDefault(sheet, List.of());
    }

    /** The sheets in their order, each with its merged cells; the file is gone through once for all. */
    private Map<String, List<Merged>> survey() throws IOException {
        if (sheets == null) {
            Reading reading = new Reading(null, (number, cells, hidden) -> true);
            reading.run();
            sheets = reading.merged;
        }
        return sheets;
    }

    @Override
    public void each(String sheet, Rows rows) throws IOException {
        new Reading(sheet, rows).run();
    }

    /** One going through the file: of one sheet, or of all. */
    private final class Reading {

        private final String sheet;
        private final Rows rows;
        private final Map<String, List<Merged>> merged = new LinkedHashMap<>();
        private final Set<String> hidden = new HashSet<>();
        private XMLStreamReader xml;
        private long repeated;

        /** @param sheet null for all */
        Reading(String sheet, Rows rows) {
            this.sheet = sheet;
            this.rows = rows;
        }

        void run() throws IOException {
            XMLInputFactory factory = new InputFactoryImpl();
            factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
            factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
            factory.setProperty(XMLInputFactory.IS_COALESCING, true);
            try (InputStream in = opening.open()) {
                xml = factory.createXMLStreamReader(in);
                String style = null;
                boolean more = true;
                while (more && xml.hasNext()) {
                    if (xml.next() != XMLStreamConstants.START_ELEMENT) continue;
                    if (is(STYLE, "style")) style = xml.getAttributeValue(STYLE, "name");
                    else if (is(STYLE, "table-properties") && "false".equals(xml.getAttributeValue(TABLE, "display")))
                        hidden.add(style);
                    else if (is(TABLE, "table")) more = table();
                }
            } catch (XMLStreamException | FileNotFoundException broken) {
                throw new UnreadableTableException(
                        "The workbook is broken inside and cannot be read. Open it, save it again as ODS, and "
                                + "bring that in.");
            }
        }

        private boolean is(String space, String name) {
            return xml.getLocalName().equals(name) && space.equals(xml.getNamespaceURI());
        }

        /** @return whether more sheets are wanted */
        private boolean table() throws XMLStreamException {
            String name = xml.getAttributeValue(TABLE, "name");
            boolean seen = name != null && !hidden.contains(xml.getAttributeValue(TABLE, "style-name"));
            boolean wanted = seen && (sheet == null || name.equals(sheet));
            List<Merged> spans = new ArrayList<>();
            if (seen) merged.putIfAbsent(name, spans);
            int number = 1;
            // Within a group that is folded, at this depth; 0 for none.
            int folded = 0;
            // Rows may lie in groups, and a table may lie within a cell.
            for (int depth = 1; depth > 0; ) {
                int event = xml.next();
                if (event == XMLStreamConstants.END_ELEMENT) {
                    if (depth-- == folded) folded = 0;
                } else if (event == XMLStreamConstants.START_ELEMENT && wanted && is(TABLE, "table-row")) {
                    int times = times("number-rows-repeated", MOST_ROWS);
                    boolean unseen = folded > 0 || !isSeen(xml.getAttributeValue(TABLE, "visibility"));
                    List<String> cells = row(number, spans);
                    if (!cells.isEmpty()) {
                        count((long) cells.size() * (times - 1));
                        for (int i = 0; i < times && number + i <= MOST_ROWS; i++)
                            if (!rows.row(number + i, cells, unseen)) return false;
                    }
                    number += Math.min(times, MOST_ROWS);
                    if (number > MOST_ROWS) wanted = false;
                } else if (event == XMLStreamConstants.START_ELEMENT) {
                    depth++;
                    if (folded == 0
                            && is(TABLE, "table-row-group")
                            && "false".equals(xml.getAttributeValue(TABLE, "display"))) folded = depth;
                }
            }
            return !wanted || sheet == null;
        }

        /** Whether a row is shown (ODF 1.3 part 3, 19.749): it is neither put away nor filtered out. */
        private static boolean isSeen(String visibility) {
            return !"collapse".equals(visibility) && !"filter".equals(visibility);
        }

        private int times(String attribute, int most) {
            String times = xml.getAttributeValue(TABLE, attribute);
            if (times == null) return 1;
            try {
                return Math.max(1, Math.min(most, Integer.parseInt(times.strip())));
            } catch (NumberFormatException unread) {
                return 1;
            }
        }

        private void count(long cells) {
            repeated += cells;
            if (repeated > MOST_REPEATED)
                throw new UnreadableTableException(
                        "The workbook repeats cells more than %,d times. It is not taken.".formatted(MOST_REPEATED));
        }

        /** The cells of the row that begins here, without empty ones at its end. */
        private List<String> row(int number, List<Merged> spans) throws XMLStreamException {
            List<String> cells = new ArrayList<>();
            int empty = 0;
            for (int depth = 1; depth > 0; ) {
                int event = xml.next();
                if (event == XMLStreamConstants.END_ELEMENT) depth--;
                if (event != XMLStreamConstants.START_ELEMENT) continue;
                if (!is(TABLE, "table-cell") && !is(TABLE, "covered-table-cell")) {
                    depth++;
                    continue;
                }
                int column = cells.size() + empty;
                int over = times("number-rows-spanned", MOST_ROWS);
                int times = Math.min(
                        times("number-columns-repeated", MOST_COLUMNS), MOST_COLUMNS - Math.min(MOST_COLUMNS, column));
                String text = cell();
                if (over > 1)
                    spans.add(new Merged(number, (int) Math.min(MOST_ROWS, (long) number + over - 1), column + 1));
                if (text.isEmpty()) {
                    empty += times;
                } else {
                    for (; empty > 0; empty--) cells.add("");
                    count(times - 1);
                    for (int i = 0; i < times; i++) cells.add(text);
                }
            }
            return cells;
        }

        /** The value of the cell that begins here, else its text (ODF 1.3 part 3, 19.387). */
        private String cell() throws XMLStreamException {
            String type = xml.getAttributeValue(OFFICE, "value-type");
            String value = xml.getAttributeValue(OFFICE, "value");
            String date = xml.getAttributeValue(OFFICE, "date-value");
            String time = xml.getAttributeValue(OFFICE, "time-value");
            String truth = xml.getAttributeValue(OFFICE, "boolean-value");
            String string = xml.getAttributeValue(OFFICE, "string-value");
            String text = text();
            if (type == null) return "";
            return switch (type) {
                case "float", "percentage", "currency" -> value == null ? text : SheetCells.number(value, null, false);
                case "date" ->
                    date == null
                            ? text
                            : MOMENT.matcher(date).replaceFirst("$1").replaceFirst("T00:00:00$", "");
                case "time" -> time == null ? text : timeOfDay(time, text);
                case "boolean" -> truth == null ? text : truth;
                default -> string == null ? text : string;
            };
        }

        /** What the cell shows: its paragraphs, without notes that hang at it. */
        private String text() throws XMLStreamException {
            StringBuilder text = null;
            int note = 0;
            for (int depth = 1; depth > 0; ) {
                int event = xml.next();
                if (event == XMLStreamConstants.END_ELEMENT) {
                    depth--;
                    if (note > depth) note = 0;
                } else if (event == XMLStreamConstants.START_ELEMENT) {
                    depth++;
                    if (note == 0 && (is(OFFICE, "annotation") || is(TABLE, "table"))) note = depth;
                    if (note > 0) continue;
                    if (is(TEXT, "p")) {
                        if (text == null) text = new StringBuilder();
                        else text.append('\n');
                    } else if (text != null && is(TEXT, "s")) {
                        text.append(" ".repeat(blanks(xml.getAttributeValue(TEXT, "c"))));
                    } else if (text != null && (is(TEXT, "tab") || is(TEXT, "line-break"))) {
                        text.append(is(TEXT, "tab") ? '\t' : '\n');
                    }
                } else if (text != null
                        && note == 0
                        && (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA)) {
                    collapsed(text, xml.getText());
                }
            }
            return text == null ? "" : text.toString();
        }
    }

    /**
     * Adds text of the file, in which blanks and ends of lines in a row are one blank, and none at a paragraph's start
     * (ODF 1.3 part 3, 6.1.2).
     */
    private static void collapsed(StringBuilder text, String written) {
        for (int i = 0; i < written.length(); i++) {
            char c = written.charAt(i);
            boolean blank = c == ' ' || c == '\t' || c == '\n' || c == '\r';
            if (!blank) text.append(c);
            else if (text.length() > 0 && !Character.isWhitespace(text.charAt(text.length() - 1))) text.append(' ');
        }
    }

    private static int blanks(String count) {
        return count != null && count.matches("\\d{1,5}") ? Math.min(MOST_BLANKS, Integer.parseInt(count)) : 1;
    }

    /** "PT10H30M00S" as a time of the day; longer durations stay as they are shown. */
    private static String timeOfDay(String duration, String shown) {
        try {
            long seconds = Duration.parse(duration).getSeconds();
            return seconds >= 0 && seconds < 86_400
                    ? LocalTime.ofSecondOfDay(seconds).toString()
                    : shown;
        } catch (DateTimeException unread) {
            return shown;
        }
    }
}
