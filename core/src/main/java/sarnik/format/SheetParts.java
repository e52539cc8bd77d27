package sarnik.format;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** Which part of a workbook's file holds which sheet (ISO/IEC 29500-2, relationships). */
final class SheetParts {

    private SheetParts() {}

    /** The name of each sheet's part without its folder, by the sheet's name; empty where the workbook does not say. */
    static Map<String, String> of(Path file) throws IOException {
        Map<String, String> parts = new HashMap<>();
        try (Archive archive = Archive.again(file)) {
            Map<String, String> targets =
                    attributes(archive, "xl/_rels/workbook.xml.rels", "Relationship", "Id", "Target");
            attributes(archive, "xl/workbook.xml", "sheet", "name", "id").forEach((sheet, id) -> {
                String target = targets.get(id);
                if (target != null) parts.put(sheet, target.substring(target.lastIndexOf('/') + 1));
            });
        } catch (XMLStreamException unread) {
            parts.clear();
        }
        return parts;
    }

    private static Map<String, String> attributes(
            Archive archive, String part, String element, String key, String value)
            throws IOException, XMLStreamException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        Map<String, String> found = new HashMap<>();
        var opened = archive.find(part);
        if (opened.isEmpty()) return found;
        try (InputStream in = opened.get()) {
            XMLStreamReader xml = factory.createXMLStreamReader(in);
            while (xml.hasNext()) {
                if (xml.next() == XMLStreamConstants.START_ELEMENT
                        && xml.getLocalName().equals(element)) found.put(named(xml, key), named(xml, value));
            }
        }
        return found;
    }

    /** An attribute by its own name, whatever stands before it. */
    private static String named(XMLStreamReader xml, String name) {
        String found = "";
        // "r:id" is the one that leads to a part; a plain "sheetId" is a number.
        for (int i = 0; i < xml.getAttributeCount(); i++)
            if (xml.getAttributeLocalName(i).equals(name)) found = xml.getAttributeValue(i);
        return found;
    }
}
