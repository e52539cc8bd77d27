package sarnik.app.testing;

import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import sarnik.demo.SarnikClient;
import sarnik.place.Gazetteer;
import sarnik.place.Place;
import tools.jackson.databind.JsonNode;

/** Datasets for maps of every kind, and dashboards of one map, made through the interface. */
public final class MapSamples {

    private final SarnikClient author;

    /** Sixty towns with litres and a product. */
    public final long towns;
    /** All provinces by code with a rate, of which two are missing. */
    public final long provinces;
    /** From three depots to twenty towns. */
    public final long sent;
    /** Two vans, stop by stop. */
    public final long rounds;

    public MapSamples(SarnikClient author) throws IOException, InterruptedException {
        this.author = author;
        List<Place> places = Gazetteer.shipped().townsOf("ES").subList(0, 60);
        String[] products = {"still", "sparkling", "warm"};
        towns = author.bring(
                RunningSarnik.file(
                        "map-towns.csv",
                        IntStream.range(0, 60)
                                .mapToObj(i -> "%s,%s,Spain,%s,%d,2026-%02d-01"
                                        .formatted(
                                                places.get(i).name(),
                                                province(places.get(i)),
                                                products[i % 3],
                                                5 + i * 37 % 101 * (i % 7 + 1),
                                                1 + i % 3))
                                .collect(Collectors.joining("\n", "town,province,country,product,litres,day\n", "\n"))),
                "Map towns");
        provinces = author.bring(
                RunningSarnik.file(
                        "map-provinces.csv",
                        IntStream.rangeClosed(1, 52)
                                .mapToObj(i ->
                                        "%02d,%s".formatted(i, i == 16 || i == 44 ? "" : String.valueOf(i * 53 % 97)))
                                .collect(Collectors.joining("\n", "province,rate\n", "\n"))),
                "Map provinces",
                Map.of("shaping", Map.of("types", Map.of("province", "TEXT", "rate", "WHOLE"))),
                Map.of("type", "area", "column", "province", "set", "Provinces of Spain"));
        String[] depots = {"Soria, Spain", "Zamora, Spain", "Albacete, Spain"};
        sent = author.bring(
                RunningSarnik.file(
                        "map-sent.csv",
                        IntStream.range(0, 60)
                                .mapToObj(i -> "\"%s\",\"%s, Spain\",%d"
                                        .formatted(
                                                depots[i % 3], places.get(i / 3).name(), 1 + i * 29 % 83))
                                .collect(Collectors.joining("\n", "depot,destination,pieces\n", "\n"))),
                "Map sent",
                Map.of("shaping", Map.of()),
                Map.of(
                        "type",
                        "from-to",
                        "from",
                        Map.of("type", "words", "column", "depot"),
                        "to",
                        Map.of("type", "words", "column", "destination")));
        rounds = author.bring(
                RunningSarnik.file(
                        "map-rounds.csv",
                        IntStream.range(0, 24)
                                .mapToObj(i -> String.format(
                                        Locale.ROOT,
                                        "Van %d,2026-05-18T%02d:00,%.3f,%.3f",
                                        1 + i / 12,
                                        8 + i % 12,
                                        40 + Math.sin(i * 0.7) + i / 12,
                                        -5 + i % 12 * 0.35))
                                .collect(Collectors.joining("\n", "van,stop time,latitude,longitude\n", "\n"))),
                "Map rounds");
    }

    private static String province(Place town) {
        return Gazetteer.shipped().provinceOf(town).map(Place::name).orElse("");
    }

    /**
     * Composes a dashboard and opens it to readers.
     *
     * @param visuals visuals by id as JSON, such as {@code "v1": {...}}
     * @return its id
     */
    public long dashboard(String title, String visuals) throws IOException, InterruptedException {
        return dashboard(title, visuals, "");
    }

    /** The same. @param more operations of a JSON Patch, each after a comma; may be empty */
    public long dashboard(String title, String visuals, String more) throws IOException, InterruptedException {
        JsonNode made = author.json("POST", "/api/dashboards", Map.of("title", title));
        long id = made.get("id").asLong();
        String patch = ("[{\"op\":\"replace\",\"path\":\"/visuals\",\"value\":{%s}},{\"op\":\"add\","
                        + "\"path\":\"/links/k1\",\"value\":{\"from\":\"v1\"}}%s]")
                .formatted(visuals, more);
        author.read(author.send(
                "PATCH",
                "/api/dashboards/" + id,
                Samples.JSON_PATCH,
                patch,
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        author.publish(id);
        return id;
    }

    /**
     * A map as JSON. @param layers as JSON, each without its order @param more other members, such as {@code "ground":
     * {...}}; may be empty
     */
    public static String map(String id, int x, int w, String more, String... layers) {
        String all = IntStream.range(0, layers.length)
                .mapToObj(i -> "\"l%d\":{\"order\":%d,\"opacity\":0.85,%s}".formatted(i + 1, i + 1, layers[i]))
                .collect(Collectors.joining(","));
        return ("\"%s\":{\"type\":\"map\",\"page\":\"p1\",\"at\":{\"x\":%d,\"y\":0,\"w\":%d,\"h\":12},"
                        + "\"title\":\"Map\",\"layers\":{%s}%s}")
                .formatted(id, x, w, all, more.isEmpty() ? "" : "," + more);
    }

    /** A figure beside it. */
    public static String figure(long dataset, String column) {
        return ("\"v9\":{\"type\":\"figure\",\"page\":\"p1\",\"at\":{\"x\":18,\"y\":0,\"w\":6,\"h\":4},"
                        + "\"title\":\"Sum\",\"dataset\":%d,\"measure\":{\"summary\":\"SUM\",\"column\":\"%s\"}}")
                .formatted(dataset, column);
    }

    /** A sum as a measure. */
    public static String sum(String column) {
        return "\"measure\":{\"summary\":\"SUM\",\"column\":\"" + column + "\"}";
    }
}
