package sarnik.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;

/**
 * Stands in for services of the Open Geospatial Consortium: a Web Map Service 1.3.0 at {@code /wms} and a Web Map Tile
 * Service 1.0.0 at {@code /wmts}, both of one made-up layer: how much rain falls in a year.
 */
final class MapServices {

    private static final double HALF = 20_037_508.342789244;
    private static final int MOST_PIXELS = 1024;
    private static final Pattern TILE = Pattern.compile("/wmts/rain/web/Z(\\d{1,2})/(\\d{1,7})/(\\d{1,7})\\.png");

    private MapServices() {}

    static HttpHandler wms() {
        return exchange -> {
            Map<String, String> asked = query(exchange);
            String here = "http://" + exchange.getRequestHeaders().getFirst("Host") + "/wms";
            if (!"GetMap".equalsIgnoreCase(asked.get("REQUEST"))) {
                answer(exchange, 200, "text/xml", wmsSays(here).getBytes(StandardCharsets.UTF_8));
                return;
            }
            try {
                String[] box = asked.get("BBOX").split(",");
                int width = Integer.parseInt(asked.get("WIDTH"));
                int height = Integer.parseInt(asked.get("HEIGHT"));
                if (!"rain".equals(asked.get("LAYERS")) || width > MOST_PIXELS || height > MOST_PIXELS)
                    throw new IllegalArgumentException("no such layer");
                double[] ends = new double[4];
                for (int i = 0; i < 4; i++) ends[i] = Double.parseDouble(box[i]);
                answer(exchange, 200, "image/png", rain(ends, width, height));
            } catch (RuntimeException unfit) {
                answer(
                        exchange,
                        200,
                        "text/xml",
                        ("<ServiceExceptionReport version=\"1.3.0\"><ServiceException>This cannot be drawn"
                                        + "</ServiceException></ServiceExceptionReport>")
                                .getBytes(StandardCharsets.UTF_8));
            }
        };
    }

    static HttpHandler wmts() {
        return exchange -> {
            String here = "http://" + exchange.getRequestHeaders().getFirst("Host") + "/wmts";
            Matcher tile = TILE.matcher(exchange.getRequestURI().getPath());
            if (!tile.matches()) {
                answer(exchange, 200, "application/xml", wmtsSays(here).getBytes(StandardCharsets.UTF_8));
                return;
            }
            // Row before column, as the template below has them.
            double size = 2 * HALF / (1L << Integer.parseInt(tile.group(1)));
            double top = HALF - Long.parseLong(tile.group(2)) * size;
            double left = Long.parseLong(tile.group(3)) * size - HALF;
            answer(exchange, 200, "image/png", rain(new double[] {left, top - size, left + size, top}, 256, 256));
        };
    }

    private static Map<String, String> query(HttpExchange exchange) {
        Map<String, String> asked = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        String query = exchange.getRequestURI().getRawQuery();
        for (String pair : query == null ? new String[0] : query.split("&")) {
            String[] parts = pair.split("=", 2);
            asked.put(parts[0], parts.length < 2 ? "" : URLDecoder.decode(parts[1], StandardCharsets.UTF_8));
        }
        return asked;
    }

    private static void answer(HttpExchange exchange, int status, String type, byte[] bytes) throws IOException {
        try (exchange) {
            exchange.getResponseHeaders().set("Content-Type", type);
            exchange.sendResponseHeaders(status, bytes.length);
            exchange.getResponseBody().write(bytes);
        }
    }

    /** Rain within an extent in metres of Web Mercator: the more, the bluer and the less clear. */
    private static byte[] rain(double[] box, int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        for (int py = 0; py < height; py++) {
            double y = box[3] - (py + 0.5) / height * (box[3] - box[1]);
            for (int px = 0; px < width; px++) {
                double x = box[0] + (px + 0.5) / width * (box[2] - box[0]);
                double wet =
                        (Math.sin(x / 310_000) + Math.cos(y / 240_000) + Math.sin((x + y) / 130_000) / 2 + 2.5) / 5;
                int clear = (int) (40 + 150 * wet);
                image.setRGB(px, py, clear << 24 | (int) (200 * (1 - wet)) << 16 | 120 << 8 | 190);
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static String wmsSays(String here) {
        return """
                <?xml version="1.0" encoding="UTF-8"?>
                <WMS_Capabilities version="1.3.0" xmlns="http://www.opengis.net/wms"
                    xmlns:xlink="http://www.w3.org/1999/xlink">
                  <Service><Name>WMS</Name><Title>Rain, made up</Title></Service>
                  <Capability><Request><GetMap><Format>image/jpeg</Format><Format>image/png</Format><DCPType><HTTP><Get>
                    <OnlineResource xlink:href="%s?"/></Get></HTTP></DCPType></GetMap></Request>
                    <Layer><Title>All</Title><CRS>EPSG:4326</CRS>
                      <Layer><Name>rain</Name><Title>Rain in a year</Title><CRS>EPSG:3857</CRS></Layer>
                      <Layer><Name>old</Name><Title>On another plane only</Title></Layer>
                    </Layer></Capability></WMS_Capabilities>""".formatted(here);
    }

    private static String wmtsSays(String here) {
        StringBuilder matrices = new StringBuilder();
        for (int z = 0; z <= 12; z++)
            matrices.append(String.format(
                    Locale.ROOT,
                    "<TileMatrix><ows:Identifier>Z%d</ows:Identifier><ScaleDenominator>%.6f</ScaleDenominator>"
                            + "<TopLeftCorner>-20037508.3428 20037508.3428</TopLeftCorner><TileWidth>256</TileWidth>"
                            + "<TileHeight>256</TileHeight><MatrixWidth>%d</MatrixWidth>"
                            + "<MatrixHeight>%d</MatrixHeight></TileMatrix>",
                    z,
                    559_082_264.0287178 / (1L << z),
                    1L << z,
                    1L << z));
        return """
                <?xml version="1.0" encoding="UTF-8"?>
                <Capabilities version="1.0.0" xmlns="http://www.opengis.net/wmts/1.0"
                    xmlns:ows="http://www.opengis.net/ows/1.1">
                  <Contents><Layer><ows:Title>Rain in a year, tiled</ows:Title><ows:Identifier>rain</ows:Identifier>
                    <Style isDefault="true"><ows:Identifier>usual</ows:Identifier></Style><Format>image/png</Format>
                    <TileMatrixSetLink><TileMatrixSet>degrees</TileMatrixSet></TileMatrixSetLink>
                    <TileMatrixSetLink><TileMatrixSet>web</TileMatrixSet></TileMatrixSetLink>
                    <ResourceURL format="image/png" resourceType="tile"
                      template="%s/{Layer}/{TileMatrixSet}/{TileMatrix}/{TileRow}/{TileCol}.png"/></Layer>
                  <TileMatrixSet><ows:Identifier>degrees</ows:Identifier>
                    <ows:SupportedCRS>urn:ogc:def:crs:OGC:1.3:CRS84</ows:SupportedCRS></TileMatrixSet>
                  <TileMatrixSet><ows:Identifier>web</ows:Identifier>
                    <ows:SupportedCRS>urn:ogc:def:crs:EPSG::3857</ows:SupportedCRS>%s</TileMatrixSet>
                  </Contents></Capabilities>""".formatted(here, matrices);
    }
}
