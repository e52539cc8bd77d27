package sarnik.standins;

import com.sun.net.httpserver.HttpHandler;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Stands in for a service of OGC API – Features 1.0 at {@code /features}: two collections, wells as points and
 * districts
 * as areas, handed out page by page.
 */
final class Features {

    private static final int WELLS = 57;
    private static final int DISTRICTS = 4;
    private static final int PAGE = 10;
    private static final Pattern ITEMS = Pattern.compile("/features/collections/(wells|districts)/items");
    private static final Pattern COLLECTION = Pattern.compile("/features/collections/(wells|districts)");

    private Features() {}

    static HttpHandler service() {
        return exchange -> {
            String host = "http://" + exchange.getRequestHeaders().getFirst("Host");
            String path = exchange.getRequestURI().getPath().replaceFirst("/$", "");
            String query = String.valueOf(exchange.getRequestURI().getQuery());
            Matcher items = ITEMS.matcher(path);
            Matcher collection = COLLECTION.matcher(path);
            String body = null;
            if (path.equals("/features")) body = landing(host);
            else if (path.equals("/features/collections"))
                body = "{\"links\":[],\"collections\":[" + collection(host, "wells") + ","
                        + collection(host, "districts") + "]}";
            else if (collection.matches()) body = collection(host, collection.group(1));
            else if (items.matches())
                body = items(host, items.group(1), number(query, "offset"), number(query, "limit"));
            byte[] bytes = String.valueOf(body).getBytes(StandardCharsets.UTF_8);
            try (exchange) {
                exchange.getResponseHeaders().set("Content-Type", "application/geo+json");
                exchange.sendResponseHeaders(body == null ? 404 : 200, bytes.length);
                exchange.getResponseBody().write(bytes);
            }
        };
    }

    private static int number(String query, String name) {
        Matcher found = Pattern.compile("(?:^|&)" + name + "=(\\d{1,6})").matcher(query);
        return found.find() ? Integer.parseInt(found.group(1)) : 0;
    }

    private static String landing(String host) {
        return "{\"title\":\"Made up\",\"links\":[" + link("conformance", host + "/features/conformance") + ","
                + link("data", host + "/features/collections") + "]}";
    }

    private static String link(String rel, String href) {
        return "{\"rel\":\"%s\",\"type\":\"application/json\",\"href\":\"%s\"}".formatted(rel, href);
    }

    private static String collection(String host, String name) {
        return ("{\"id\":\"%s\",\"title\":\"%s\",\"links\":[{\"rel\":\"items\",\"type\":\"application/geo+json\","
                        + "\"href\":\"%s\"}]}")
                .formatted(
                        name,
                        name.equals("wells") ? "Wells" : "Districts",
                        host + "/features/collections/" + name + "/items");
    }

    private static String items(String host, String name, int offset, int limit) {
        int all = name.equals("wells") ? WELLS : DISTRICTS;
        int end = Math.min(all, offset + (limit <= 0 ? PAGE : Math.min(limit, 2 * PAGE)));
        StringBuilder text =
                new StringBuilder("{\"type\":\"FeatureCollection\",\"numberMatched\":" + all + ",\"features\":[");
        for (int i = offset; i < end; i++)
            text.append(i == offset ? "" : ",").append(name.equals("wells") ? well(i) : district(i));
        text.append("],\"links\":[");
        if (end < all)
            text.append(link(
                    "next",
                    host + "/features/collections/" + name + "/items?offset=" + end + "&limit=" + (end - offset)));
        return text.append("]}").toString();
    }

    private static String well(int i) {
        Random random = new Random(i);
        return String.format(
                Locale.ROOT,
                "{\"type\":\"Feature\",\"id\":%d,\"geometry\":{\"type\":\"Point\",\"coordinates\":[%.5f,%.5f]},"
                        + "\"properties\":{\"well\":\"W-%03d\",\"depth\":%d}}",
                i,
                -6 + 5 * random.nextDouble(),
                38 + 4 * random.nextDouble(),
                i,
                20 + random.nextInt(180));
    }

    private static String district(int i) {
        double west = -6 + i;
        return String.format(
                Locale.ROOT,
                "{\"type\":\"Feature\",\"id\":%3$d,\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[%1$.1f,"
                        + "40],[%2$.1f,40],"
                        + "[%2$.1f,41],[%1$.1f,41],[%1$.1f,40]]]},\"properties\":{\"district\":\"D-%3$d\","
                        + "\"people\":%4$d}}",
                west,
                west + 1,
                i,
                1000 * (i + 1));
    }
}
