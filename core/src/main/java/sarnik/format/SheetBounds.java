package sarnik.format;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import sarnik.table.UnreadableTableException;

/**
 * Looks at the references of a workbook's cells before a row is made of them: a sheet has up to 1,048,576 rows and 16,384
 * columns (A to XFD), and a cell that names one beyond would have a row made that fills the memory.
 */
final class SheetBounds {

    private static final int MOST_COLUMNS = 16_384;
    private static final int MOST_ROWS = 1_048_576;

    private SheetBounds() {}

    /** @throws UnreadableTableException when a cell lies outside what a sheet has */
    static void check(Path file) throws IOException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (Archive archive = Archive.open(file)) {
            for (String name : archive.ending(".xml")) {
                if (!name.contains("worksheets/")) continue;
                try (InputStream in = archive.read(name)) {
                    check(factory.createXMLStreamReader(in));
                } catch (XMLStreamException broken) {
                    throw new UnreadableTableException("The workbook is broken inside and cannot be read. Open it, save it again as XLSX, and bring that in.");
                }
            }
        }
    }

    private static void check(XMLStreamReader xml) throws XMLStreamException {
        while (xml.hasNext()) {
            if (xml.next() != XMLStreamConstants.START_ELEMENT) continue;
            String name = xml.getLocalName();
            if (name.equals("c")) cell(xml.getAttributeValue(null, "r"));
            else if (name.equals("row")) row(xml.getAttributeValue(null, "r"));
        }
    }

    private static void row(String number) {
        if (number == null) return;
        long row = 0;
        for (int i = 0; i < number.length() && row <= MOST_ROWS; i++) row = row * 10 + Math.max(0, Math.min(9, number.charAt(i) - '0'));
        if (row > MOST_ROWS) throw outside(number);
    }

    private static void cell(String reference) {
        if (reference == null) return;
        int column = 0;
        int i = 0;
        while (i < reference.length() && Character.isLetter(reference.charAt(i)) && column <= MOST_COLUMNS) column = column * 26 + Character.toUpperCase(reference.charAt(i++)) - 'A' + 1;
        if (column > MOST_COLUMNS || column < 0) throw outside(reference);
        row(reference.substring(i));
    }

    private static UnreadableTableException outside(String reference) {
        return new UnreadableTableException("The workbook names a cell “%s”, which no sheet has. It is broken: open it, save it again as XLSX, and bring that in.".formatted(reference.substring(0, Math.min(20, reference.length()))));
    }
}
