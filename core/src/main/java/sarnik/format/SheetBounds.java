package sarnik.format;

import com.fasterxml.aalto.stax.InputFactoryImpl;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import sarnik.table.UnreadableTableException;

/**
 * Looks at the references of a workbook's cells before a row is made of them: a sheet has up to 1,048,576 rows and
 * 16,384
 * columns (A to XFD), and a cell that names one beyond would have a row made that fills the memory. On the way the
 * cells that are
 * merged over several rows are found: they stand below all others.
 */
final class SheetBounds {

    private static final int MOST_MERGED = 200_000;
    private static final Pattern RANGE = Pattern.compile("([A-Z]{1,3})(\\d{1,7}):([A-Z]{1,3})(\\d{1,7})");

    private SheetBounds() {}

    /**
     * @return the merged cells of each sheet, by the name of its part of the file
     * @throws UnreadableTableException when a cell lies outside what a sheet has
     */
    static Map<String, List<Sheets.Merged>> check(Path file) throws IOException {
        Map<String, List<Sheets.Merged>> merged = new HashMap<>();
        // The one that the reader of workbooks uses: several times as fast as the platform's own.
        XMLInputFactory factory = new InputFactoryImpl();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (Archive archive = Archive.again(file)) {
            for (String name : archive.ending(".xml")) {
                if (!name.contains("worksheets/")) continue;
                try (InputStream in = archive.read(name)) {
                    if (SheetScan.isPlain(in)) continue;
                }
                try (InputStream in = archive.read(name)) {
                    merged.put(name.substring(name.lastIndexOf('/') + 1), check(factory.createXMLStreamReader(in)));
                } catch (XMLStreamException broken) {
                    throw new UnreadableTableException(
                            "The workbook is broken inside and cannot be read. Open it, save it again as XLSX, "
                                    + "and bring that in.");
                }
            }
        }
        return merged;
    }

    private static List<Sheets.Merged> check(XMLStreamReader xml) throws XMLStreamException {
        List<Sheets.Merged> merged = new ArrayList<>();
        while (xml.hasNext()) {
            if (xml.next() != XMLStreamConstants.START_ELEMENT) continue;
            String name = xml.getLocalName();
            if (name.equals("c")) cell(xml.getAttributeValue(null, "r"));
            else if (name.equals("row")) row(xml.getAttributeValue(null, "r"));
            else if (name.equals("mergeCell")) merged(xml.getAttributeValue(null, "ref"), merged);
        }
        return merged;
    }

    private static void merged(String reference, List<Sheets.Merged> merged) {
        Matcher range = reference == null ? null : RANGE.matcher(reference);
        if (range == null || !range.matches() || merged.size() >= MOST_MERGED) return;
        cell(range.group(1) + range.group(2));
        cell(range.group(3) + range.group(4));
        int first = Integer.parseInt(range.group(2));
        int last = Integer.parseInt(range.group(4));
        if (last > first) merged.add(new Sheets.Merged(first, last, SheetGrid.column(range.group(1))));
    }

    private static void row(String number) {
        if (number == null) return;
        long row = 0;
        for (int i = 0; i < number.length() && row <= Sheets.MOST_ROWS; i++)
            row = row * 10 + Math.max(0, Math.min(9, number.charAt(i) - '0'));
        if (row > Sheets.MOST_ROWS) throw outside(number);
    }

    private static void cell(String reference) {
        if (reference == null) return;
        int column = 0;
        int i = 0;
        while (i < reference.length() && Character.isLetter(reference.charAt(i)) && column <= Sheets.MOST_COLUMNS)
            column = column * 26 + Character.toUpperCase(reference.charAt(i++)) - 'A' + 1;
        if (column > Sheets.MOST_COLUMNS || column < 0) throw outside(reference);
        row(reference.substring(i));
    }

    private static UnreadableTableException outside(String reference) {
        return new UnreadableTableException(
                ("The workbook names a cell “%s”, which no sheet has. It is broken: open it, save it again as "
                                + "XLSX, and bring that in.")
                        .formatted(reference.substring(0, Math.min(20, reference.length()))));
    }
}
