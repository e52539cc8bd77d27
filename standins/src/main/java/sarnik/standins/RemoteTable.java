package sarnik.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Random;
import java.util.concurrent.Executors;
import java.util.function.LongSupplier;

/**
 * A made-up table at an address that changes by itself: the stock of cartridges in the depots of the demo network, one
 * step
 * every few seconds. {@code /stock.csv} and {@code /stock.geojson} give it as it is at the moment. The same step gives
 * the
 * same bytes.
 */
public final class RemoteTable implements AutoCloseable {

    private record Depot(String code, String town, String province, String country, double lon, double lat) {}

    private static final Depot[] DEPOTS = {
        new Depot("DP-01", "Soria", "Soria", "Spain", -2.46883, 41.76401),
                new Depot("DP-02", "Zamora", "Zamora", "Spain", -5.74456, 41.50633),
        new Depot("DP-03", "Burgos", "Burgos", "Spain", -3.70184, 42.35022),
                new Depot("DP-04", "Cáceres", "Cáceres", "Spain", -6.37224, 39.47649),
        new Depot("DP-05", "Teruel", "Teruel", "Spain", -1.10646, 40.3456),
                new Depot("DP-06", "Lugo", "Lugo", "Spain", -7.55602, 43.00992),
        new Depot("DP-07", "Évora", "Évora", "Portugal", -7.90746, 38.56667),
                new Depot("DP-08", "Bragança", "Bragança", "Portugal", -6.75719, 41.8061)
    };

    private static final int FULL = 240;
    private static final int THREADS = 3;

    private final HttpServer server;
    private final LongSupplier step;

    private RemoteTable(HttpServer server, LongSupplier step) {
        this.server = server;
        this.step = step;
    }

    /**
     * Starts serving on loopback.
     *
     * @param port 0 for any that is free
     * @param step the step that the table has come to
     */
    public static RemoteTable start(int port, LongSupplier step) throws IOException {
        return start(port, step, null);
    }

    /**
     * The same.
     *
     * @param files a folder whose files are given out below {@code /files/}; null for none
     */
    public static RemoteTable start(int port, LongSupplier step, Path files) throws IOException {
        return start(port, step, files, null);
    }

    /**
     * The same.
     *
     * @param mailbox whose mails are shown at {@code /mails}, and whose web hook is {@code /hook}; null for none
     */
    public static RemoteTable start(int port, LongSupplier step, Path files, Mailbox mailbox) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 16);
        RemoteTable table = new RemoteTable(server, step);
        server.createContext(
                "/stock.csv", exchange -> answer(exchange, "text/csv; charset=utf-8", csv(table.step.getAsLong())));
        server.createContext(
                "/stock.geojson",
                exchange -> answer(exchange, "application/geo+json", geoJson(table.step.getAsLong())));
        // The tiles live at the same port: one host for a steward to allow.
        server.createContext("/aerial/", Tiles.of("png", "image/png", AerialPictures::picture));
        server.createContext("/roads/", Tiles.of("mvt", "application/x-protobuf", MadeUpRoads::tile));
        server.createContext("/wms", MapServices.wms());
        server.createContext("/wmts", MapServices.wmts());
        server.createContext("/features", Features.service());
        server.createContext("/news", NewsSite.page());
        if (mailbox != null) {
            server.createContext("/mails", mailbox.page());
            server.createContext("/hook", mailbox.hook());
        }
        if (files != null) server.createContext("/files/", FileSite.of(files));
        server.setExecutor(Executors.newFixedThreadPool(THREADS, run -> {
            Thread thread = new Thread(run, "stand-in");
            thread.setDaemon(true);
            return thread;
        }));
        server.start();
        return table;
    }

    /** The port it listens on. */
    public int port() {
        return server.getAddress().getPort();
    }

    private static void answer(HttpExchange exchange, String type, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().set("Content-Type", type);
        exchange.sendResponseHeaders(200, bytes.length);
        try (var out = exchange.getResponseBody()) {
            out.write(bytes);
        }
    }

    /** The table at a step as CSV (RFC 4180). */
    static String csv(long step) {
        StringBuilder text = new StringBuilder("depot,town,province,country,cartridges,on the way,counted\r\n");
        for (Depot depot : DEPOTS) {
            text.append(depot.code)
                    .append(',')
                    .append(depot.town)
                    .append(',')
                    .append(depot.province)
                    .append(',')
                    .append(depot.country)
                    .append(',')
                    .append(cartridges(depot, step))
                    .append(',')
                    .append(onTheWay(depot, step))
                    .append(',')
                    .append(step)
                    .append("\r\n");
        }
        return text.toString();
    }

    /** The same as GeoJSON (RFC 7946). */
    static String geoJson(long step) {
        StringBuilder text = new StringBuilder("{\"type\":\"FeatureCollection\",\"features\":[");
        for (int i = 0; i < DEPOTS.length; i++) {
            Depot depot = DEPOTS[i];
            text.append(i == 0 ? "" : ",")
                    .append("{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\",\"coordinates\":[")
                    .append(depot.lon)
                    .append(',')
                    .append(depot.lat)
                    .append("]},\"properties\":{\"depot\":\"")
                    .append(depot.code)
                    .append("\",\"town\":\"")
                    .append(depot.town)
                    .append("\",\"cartridges\":")
                    .append(cartridges(depot, step))
                    .append(",\"counted\":")
                    .append(step)
                    .append("}}");
        }
        return text.append("]}").toString();
    }

    /** Stock falls by a few a step and is filled up again when it is low. */
    private static int cartridges(Depot depot, long step) {
        Random random = new Random(depot.code.hashCode());
        int fall = 3 + random.nextInt(9);
        int begun = random.nextInt(FULL);
        return (int) (FULL - (begun + step * fall) % FULL);
    }

    private static int onTheWay(Depot depot, long step) {
        return cartridges(depot, step) < FULL / 5 ? FULL : 0;
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
