package sarnik.app.ground;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.SAXException;
import org.xml.sax.helpers.DefaultHandler;
import sarnik.app.web.RefusedException;

/**
 * What a map service says of itself: the capabilities of OGC WMS 1.1.1 and 1.3.0, and of OGC WMTS 1.0.0. Only what is
 * drawn in Web Mercator can lie under or over a map here.
 */
final class MapService {

    private static final int MOST_LAYERS = 500;
    private static final int PIXELS = 256;
    private static final int NEAREST = 18;
    /** The scale of the zoom 0 in WMTS, whose pixels are 0.28 mm wide. */
    private static final double WORLD_SCALE = 559_082_264.0287178;

    private static final List<String> MERCATOR = List.of("3857", "900913", "102100");

    private MapService() {}

    /**
     * A layer that a service offers.
     *
     * @param name what the service calls it for people
     * @param address the address of a tile of it, with placeholders as {@link TileAddress} has them
     * @param nearest the nearest zoom
     */
    record Offered(String name, String address, int nearest) {}

    /** The address of what a service says of itself. */
    static String capabilities(String address) {
        if (address.toLowerCase(Locale.ROOT).contains("getcapabilities") || address.contains("Capabilities.xml"))
            return address;
        String kind = address.toLowerCase(Locale.ROOT).contains("wmts") ? "WMTS" : "WMS";
        return withQuery(address, "SERVICE=" + kind + "&REQUEST=GetCapabilities");
    }

    private static String withQuery(String address, String query) {
        String base = address.replaceFirst("[?&]+$", "");
        return base + (base.contains("?") ? "&" : "?") + query;
    }

    /**
     * The layers that a service offers in Web Mercator.
     *
     * @param bytes what it says of itself
     * @param asked the address that was asked, for services that do not say theirs
     * @return empty where this says nothing of a service
     * @throws RefusedException when it offers none that can be drawn here
     */
    static Optional<List<Offered>> read(byte[] bytes, String asked) {
        Document document;
        try (InputStream in = new ByteArrayInputStream(bytes)) {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newDefaultNSInstance();
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
            factory.setFeature("http://xml.org/sax/features/external-general-entities", false);
            factory.setFeature("http://xml.org/sax/features/external-parameter-entities", false);
            factory.setExpandEntityReferences(false);
            var builder = factory.newDocumentBuilder();
            // What is no XML is told by the exception; nothing of it belongs into the log.
            builder.setErrorHandler(new DefaultHandler());
            document = builder.parse(in);
        } catch (IOException | SAXException | ParserConfigurationException noXml) {
            return Optional.empty();
        }
        Element root = document.getDocumentElement();
        List<Offered> offered = switch (root.getLocalName() == null ? root.getNodeName() : root.getLocalName()) {
            case "WMS_Capabilities", "WMT_MS_Capabilities" -> new Wms(root, asked).layers();
            case "Capabilities" -> new Wmts(root, asked).layers();
            default -> null;
        };
        if (offered == null) return Optional.empty();
        if (offered.isEmpty())
            throw new RefusedException(
                    HttpStatus.BAD_REQUEST,
                    "This service answers, but offers no layer as PNG or JPEG in Web Mercator (EPSG:3857).");
        return Optional.of(offered);
    }

    // --- WMS -----------------------------------------------------------------------------------------------

    private record Wms(Element root, String asked) {

        List<Offered> layers() {
            Element map = at(root, "Capability", "Request", "GetMap");
            Element top = at(root, "Capability", "Layer");
            if (map == null || top == null) return List.of();
            List<String> formats =
                    children(map, "Format").stream().map(MapService::text).toList();
            Optional<String> format = format(formats);
            if (format.isEmpty()) return List.of();
            Element online = at(map, "DCPType", "HTTP", "Get", "OnlineResource");
            String base = online == null ? "" : link(online);
            List<Offered> offered = new ArrayList<>();
            take(top, false, base.isEmpty() ? asked.replaceFirst("\\?.*", "") : base, format.get(), offered);
            return offered;
        }

        /** Layers lie in layers, and have the systems of those they lie in. */
        private void take(Element layer, boolean mercator, String base, String format, List<Offered> offered) {
            boolean fits = mercator
                    || children(layer, "CRS").stream().anyMatch(c -> isMercator(text(c)))
                    || children(layer, "SRS").stream().anyMatch(c -> isMercator(text(c)));
            String name = child(layer, "Name");
            if (fits && name != null && offered.size() < MOST_LAYERS) {
                boolean old = root.getAttribute("version").startsWith("1.1");
                String title = child(layer, "Title");
                offered.add(new Offered(
                        title == null || title.isBlank() ? name : title,
                        withQuery(
                                base,
                                "SERVICE=WMS&VERSION=" + (old ? "1.1.1" : "1.3.0")
                                        + "&REQUEST=GetMap&LAYERS=" + encoded(name) + "&STYLES=&"
                                        + (old ? "SRS" : "CRS") + "=EPSG:3857&BBOX={bbox}&WIDTH=" + PIXELS + "&HEIGHT="
                                        + PIXELS + "&FORMAT=" + encoded(format)
                                        + (format.equals("image/png") ? "&TRANSPARENT=TRUE" : "")),
                        NEAREST));
            }
            for (Element inner : children(layer, "Layer")) take(inner, fits, base, format, offered);
        }
    }

    // --- WMTS ----------------------------------------------------------------------------------------------

    private record Wmts(Element root, String asked) {

        List<Offered> layers() {
            Element contents = at(root, "Contents");
            if (contents == null) return List.of();
            List<Offered> offered = new ArrayList<>();
            for (Element layer : children(contents, "Layer")) {
                if (offered.size() >= MOST_LAYERS) break;
                Optional<String> format = format(
                        children(layer, "Format").stream().map(MapService::text).toList());
                for (Element link : children(layer, "TileMatrixSetLink")) {
                    Element set = set(contents, child(link, "TileMatrixSet"));
                    if (set == null || format.isEmpty()) continue;
                    List<String> matrices = matrices(set);
                    if (matrices.isEmpty()) continue;
                    offered.add(offer(layer, child(link, "TileMatrixSet"), matrices, format.get()));
                    break;
                }
            }
            return offered;
        }

        private static Element set(Element contents, String name) {
            return children(contents, "TileMatrixSet").stream()
                    .filter(s -> name != null && name.equals(child(s, "Identifier")))
                    .filter(s -> child(s, "SupportedCRS") != null && isMercator(child(s, "SupportedCRS")))
                    .findFirst()
                    .orElse(null);
        }

        /** The names of the matrices by zoom, an empty one where there is none; those of other cuts are none. */
        private static List<String> matrices(Element set) {
            List<String> names = new ArrayList<>(Collections.nCopies(NEAREST + 5, ""));
            for (Element matrix : children(set, "TileMatrix")) {
                double zoom = Math.log(WORLD_SCALE / number(matrix, "ScaleDenominator")) / Math.log(2);
                int z = (int) Math.round(zoom);
                boolean whole = Math.abs(zoom - z) < 0.01 && z >= 0 && z < names.size();
                // The cut of the world that all tiles here have: 256 pixels, two to the power of the zoom each way.
                if (whole
                        && number(matrix, "TileWidth") == PIXELS
                        && number(matrix, "MatrixWidth") == 1L << z
                        && number(matrix, "MatrixHeight") == 1L << z) names.set(z, child(matrix, "Identifier"));
            }
            int last = IntStream.range(0, names.size())
                    .filter(z -> !names.get(z).isEmpty())
                    .max()
                    .orElse(-1);
            return names.subList(0, last + 1);
        }

        private Offered offer(Element layer, String set, List<String> matrices, String format) {
            String name = child(layer, "Identifier");
            String title = child(layer, "Title");
            String style = children(layer, "Style").stream()
                    .filter(s -> !"false".equals(s.getAttribute("isDefault")))
                    .map(s -> child(s, "Identifier"))
                    .filter(s -> s != null)
                    .findFirst()
                    .orElse("");
            String zoom = "{z:" + matrices.stream().map(MapService::encoded).collect(Collectors.joining("|")) + "}";
            Optional<String> template = children(layer, "ResourceURL").stream()
                    .filter(u -> u.getAttribute("resourceType").equals("tile")
                            && u.getAttribute("format").equals(format))
                    .map(u -> u.getAttribute("template"))
                    .findFirst();
            String address = template.map(t -> t.replaceAll("(?i)\\{Layer}", encoded(name))
                            .replaceAll("(?i)\\{style}", encoded(style))
                            .replaceAll("(?i)\\{TileMatrixSet}", encoded(set))
                            .replaceAll(
                                    "(?i)\\{TileMatrix}",
                                    zoom.replace("\\", "\\\\").replace("$", "\\$"))
                            .replaceAll("(?i)\\{TileRow}", "{y}")
                            .replaceAll("(?i)\\{TileCol}", "{x}"))
                    .orElseGet(() -> withQuery(
                            base(),
                            "SERVICE=WMTS&REQUEST=GetTile&VERSION=1.0.0&LAYER=" + encoded(name) + "&STYLE="
                                    + encoded(style) + "&TILEMATRIXSET=" + encoded(set) + "&TILEMATRIX=" + zoom
                                    + "&TILEROW={y}&TILECOL={x}&FORMAT=" + encoded(format)));
            return new Offered(title == null || title.isBlank() ? name : title, address, matrices.size() - 1);
        }

        private String base() {
            Element metadata = at(root, "OperationsMetadata");
            if (metadata != null)
                for (Element operation : children(metadata, "Operation")) {
                    Element get = at(operation, "DCP", "HTTP", "Get");
                    if (operation.getAttribute("name").equals("GetTile") && get != null) return link(get);
                }
            return asked.replaceFirst("\\?.*", "");
        }
    }

    // --- what both have ------------------------------------------------------------------------------------

    private static Optional<String> format(List<String> formats) {
        return List.of("image/png", "image/jpeg").stream()
                .filter(formats::contains)
                .findFirst();
    }

    private static boolean isMercator(String system) {
        return MERCATOR.stream().anyMatch(code -> system.strip().matches("(?i).*(EPSG|ESRI).*[:/]" + code));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private static String link(Element element) {
        String href = element.getAttributeNS("http://www.w3.org/1999/xlink", "href");
        return href.isEmpty() ? element.getAttribute("xlink:href") : href;
    }

    private static Element at(Element from, String... path) {
        Element at = from;
        for (String name : path) {
            at = children(at, name).stream().findFirst().orElse(null);
            if (at == null) return null;
        }
        return at;
    }

    private static List<Element> children(Element of, String name) {
        List<Element> found = new ArrayList<>();
        for (Node n = of.getFirstChild(); n != null; n = n.getNextSibling())
            if (n instanceof Element e && name.equals(e.getLocalName() == null ? e.getNodeName() : e.getLocalName()))
                found.add(e);
        return found;
    }

    private static String child(Element of, String name) {
        return children(of, name).stream().map(MapService::text).findFirst().orElse(null);
    }

    private static String text(Element element) {
        return element.getTextContent().strip();
    }

    private static double number(Element of, String name) {
        try {
            return Double.parseDouble(String.valueOf(child(of, name)));
        } catch (NumberFormatException none) {
            return Double.NaN;
        }
    }
}
