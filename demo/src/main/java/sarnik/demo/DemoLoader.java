package sarnik.demo;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** Brings the demo network into a running, empty Sarnik through the same interfaces as a user's browser. */
public final class DemoLoader {

    private final SarnikClient client;
    private final Path directory;

    /**
     * @param client signed in as an author
     * @param directory where the files are written
     */
    public DemoLoader(SarnikClient client, Path directory) {
        this.client = client;
        this.directory = directory;
    }

    /**
     * Usage: {@code DemoLoader ADDRESS SIGN-IN PASSWORD DIRECTORY [ROWS]}. Says what it does, a line a step.
     */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        SarnikClient client = new SarnikClient(arguments[0]);
        if (!client.signIn(arguments[1], arguments[2])) {
            System.err.println("The demo data cannot be loaded: “" + arguments[1] + "” cannot sign in. './sarnik reset' starts afresh.");
            System.exit(1);
        }
        int rows = arguments.length > 4 ? Integer.parseInt(arguments[4]) : Refills.SHIPPED_ROWS;
        new DemoLoader(client, Path.of(arguments[3])).load(rows);
    }

    /**
     * @return the dashboard's id
     */
    public long load(int refills) throws IOException, InterruptedException {
        Files.createDirectories(directory);
        DemoNetwork network = DemoNetwork.shipped();
        say("  writing the kiosks and %,d refills", refills);
        DemoFiles.kiosks(network, directory.resolve("kiosks.csv"));
        DemoFiles.refills(network, refills, directory.resolve("refills.csv"));
        say("  bringing the kiosks in");
        client.bring(directory.resolve("kiosks.csv"), "Kiosks");
        say("  bringing the refills in");
        long sales = client.bring(directory.resolve("refills.csv"), "Refills");
        say("  composing “Where do refills sell?”");
        return compose("Where do refills sell?", "where-do-refills-sell.json", Map.of("REFILLS", sales));
    }

    private long compose(String title, String resource, Map<String, Long> datasets) throws IOException, InterruptedException {
        JsonNode made = client.json("POST", "/api/dashboards", Map.of("title", title));
        long id = made.get("id").asLong();
        client.read(client.send("PATCH", "/api/dashboards/" + id, "application/json-patch+json", patch(resource, datasets),
                "If-Match", "\"" + made.get("revision").asLong() + "\""));
        client.json("PUT", "/api/dashboards/" + id + "/open", true);
        return id;
    }

    private static String patch(String resource, Map<String, Long> datasets) throws IOException {
        try (InputStream in = DemoLoader.class.getResourceAsStream(resource)) {
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            for (var dataset : datasets.entrySet()) text = text.replace("\"" + dataset.getKey() + "\"", dataset.getValue().toString());
            return text;
        }
    }

    private static void say(String words, Object... values) {
        System.out.println(words.formatted(values));
    }
}
