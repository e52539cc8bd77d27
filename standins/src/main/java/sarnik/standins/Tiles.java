package sarnik.standins;

import com.sun.net.httpserver.HttpHandler;
import java.io.IOException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Answers for tiles at {@code …/{z}/{x}/{y}.ENDING}: zoom, column from the west, row from the north, in Web Mercator.
 */
final class Tiles {

    static final int DEEPEST = 18;

    private Tiles() {}

    /** Makes a tile. */
    interface Maker {
        byte[] tile(int z, long x, long y) throws IOException;
    }

    static HttpHandler of(String ending, String type, Maker maker) {
        Pattern address = Pattern.compile("/[a-z]+/(\\d{1,2})/(\\d{1,7})/(\\d{1,7})\\." + ending);
        return exchange -> {
            try (exchange) {
                Matcher tile = address.matcher(exchange.getRequestURI().getPath());
                int z = tile.matches() ? Integer.parseInt(tile.group(1)) : -1;
                if (z < 0
                        || z > DEEPEST
                        || Long.parseLong(tile.group(2)) >= 1L << z
                        || Long.parseLong(tile.group(3)) >= 1L << z) {
                    exchange.sendResponseHeaders(404, -1);
                    return;
                }
                byte[] bytes = maker.tile(z, Long.parseLong(tile.group(2)), Long.parseLong(tile.group(3)));
                exchange.getResponseHeaders().set("Content-Type", type);
                // A length of 0 would mean one that is not known; -1 means no body.
                exchange.sendResponseHeaders(200, bytes.length == 0 ? -1 : bytes.length);
                if (bytes.length > 0) exchange.getResponseBody().write(bytes);
            }
        };
    }
}
