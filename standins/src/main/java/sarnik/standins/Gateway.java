package sarnik.standins;

import java.io.IOException;
import java.io.Reader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Properties;
import java.util.Random;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.eclipse.paho.mqttv5.client.MqttAsyncClient;
import org.eclipse.paho.mqttv5.client.MqttConnectionOptions;
import org.eclipse.paho.mqttv5.client.persist.MemoryPersistence;
import org.eclipse.paho.mqttv5.common.MqttException;

/**
 * The gateway of the demo network's devices, made up: probes that measure the water of kiosks, and vans on their
 * rounds. What probes say goes to a broker, by MQTT, each under a topic of its own; where vans are goes to an address,
 * with the token of a feed. What a device says depends on the moment only, so the same moment gives the same reading.
 */
public final class Gateway implements AutoCloseable {

    public static final int PROBES = 120;
    public static final int VANS = 6;

    private static final int PROBE_SECONDS = 10;
    private static final int VAN_SECONDS = 2;
    private static final long DAY = 86_400;
    private static final int IN_FLIGHT = 100;
    private static final long PATIENCE_MILLIS = 5_000;

    /** Depots from which vans set out, degrees east and north. */
    private static final double[][] DEPOTS = {
        {-2.46883, 41.76401},
        {-5.74456, 41.50633},
        {-3.70184, 42.35022},
        {-6.37224, 39.47649},
        {-1.10646, 40.3456},
        {-7.90746, 38.56667}
    };

    private final HttpClient http =
            HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(3)).build();
    private final ScheduledExecutorService clock = Executors.newScheduledThreadPool(2, work -> {
        Thread thread = new Thread(work, "gateway");
        thread.setDaemon(true);
        return thread;
    });
    private final Path settings;
    private long saidAt;
    private MqttAsyncClient broker;

    private Gateway(Path settings) {
        this.settings = settings;
    }

    /**
     * Starts sending once somebody has said where to.
     *
     * @param settings a file of properties: {@code probes} and {@code vans}, where to, a broker's address ({@code
     *     tcp://}) or that of a feed, for which {@code probes.token} and {@code vans.token} are said; looked at before
     *     each sending
     */
    public static Gateway start(Path settings) {
        Gateway gateway = new Gateway(settings);
        gateway.clock.scheduleAtFixedRate(() -> gateway.send("probes"), 1, PROBE_SECONDS, TimeUnit.SECONDS);
        gateway.clock.scheduleAtFixedRate(() -> gateway.send("vans"), 1, VAN_SECONDS, TimeUnit.SECONDS);
        return gateway;
    }

    @Override
    public void close() {
        clock.shutdownNow();
    }

    private void send(String what) {
        try {
            if (!Files.exists(settings)) return;
            Properties said = new Properties();
            try (Reader reader = Files.newBufferedReader(settings)) {
                said.load(reader);
            }
            if (said.getProperty(what) == null) return;
            long second = Instant.now().getEpochSecond();
            if (said.getProperty(what).startsWith("tcp:")) {
                publish(said.getProperty(what), what, second);
                return;
            }
            HttpResponse<String> answer = http.send(
                    HttpRequest.newBuilder(URI.create(said.getProperty(what)))
                            .timeout(Duration.ofSeconds(20))
                            .header("Content-Type", "application/json")
                            .header("Authorization", "Bearer " + said.getProperty(what + ".token"))
                            .POST(HttpRequest.BodyPublishers.ofString(
                                    what.equals("probes") ? probes(second) : vans(second)))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            if (answer.statusCode() != 200) say(what + " are not taken: " + answer.statusCode() + " " + answer.body());
        } catch (IOException | IllegalArgumentException | MqttException away) {
            say(what + " cannot be sent: " + away);
        } catch (InterruptedException closing) {
            Thread.currentThread().interrupt();
        }
    }

    /** Publishes what each device says under a topic of its own, such as {@code aljibe/probes/P001}. */
    private synchronized void publish(String address, String what, long second) throws MqttException {
        if (broker == null || !broker.isConnected()) {
            if (broker != null) broker.close(true);
            broker = new MqttAsyncClient(
                    address, "gateway-" + ProcessHandle.current().pid(), new MemoryPersistence());
            MqttConnectionOptions options = new MqttConnectionOptions();
            options.setReceiveMaximum(IN_FLIGHT);
            broker.connect(options).waitForCompletion(PATIENCE_MILLIS);
        }
        for (int device = 1; device <= (what.equals("probes") ? PROBES : VANS); device++) {
            if (what.equals("probes") && isSilent(device, second)) continue;
            String topic = what.equals("probes") ? "aljibe/probes/P%03d".formatted(device) : "aljibe/vans/" + device;
            String message = what.equals("probes") ? probe(device, second) : position(device - 1, second);
            broker.publish(topic, message.getBytes(StandardCharsets.UTF_8), 1, false)
                    .waitForCompletion(PATIENCE_MILLIS);
        }
    }

    /** Once a minute at most, so that a log does not grow while nobody is there. */
    private synchronized void say(String words) {
        long now = System.currentTimeMillis();
        if (now - saidAt < 60_000) return;
        saidAt = now;
        System.out.println(words);
    }

    // --- probes ----------------------------------------------------------------------------------------

    /** What all probes say at a moment, as a gateway sends it: JSON. */
    public static String probes(long second) {
        StringBuilder json = new StringBuilder("{\"gateway\":\"aljibe-1\",\"readings\":[");
        boolean first = true;
        for (int probe = 1; probe <= PROBES; probe++) {
            if (isSilent(probe, second)) continue;
            if (!first) json.append(',');
            first = false;
            json.append(probe(probe, second));
        }
        return json.append("]}").toString();
    }

    /** One probe in forty has no power for some hours of the day. */
    static boolean isSilent(int probe, long second) {
        return probe % 40 == 7 && (second / 3600 + probe) % 6 < 4;
    }

    static String probe(int probe, long second) {
        Random own = new Random(probe);
        double level = own.nextDouble();
        double hour = second % DAY / 3600.0;
        double temperature =
                12 + 4 * level + 1.5 * Math.sin((hour - 9) / 24 * 2 * Math.PI) + tremble(probe, second, 1) * 0.1;
        // From time to time mud comes along with the water, for some minutes.
        double phase = (second / 60.0 + probe * 37) % 240;
        double mud = probe % 9 == 4 && phase < 25 ? 6 * Math.sin(phase / 25 * Math.PI) : 0;
        double turbidity = Math.max(0.05, 0.3 + 0.3 * level + mud + tremble(probe, second, 2) * 0.04);
        double chlorine =
                Math.max(0, 0.45 - 0.12 * level - (probe % 23 == 5 ? 0.22 : 0) + tremble(probe, second, 3) * 0.01);
        double battery = 100 - (second / DAY * 3 + probe * 13) % 90 - hour / 24 * 3;
        return String.format(
                Locale.ROOT,
                "{\"probe\":\"P%03d\",\"time\":\"%s\",\"water\":{\"temperature_c\":%.2f,\"turbidity_ntu\":%.2f,"
                        + "\"chlorine_mgl\":%.3f},\"battery_pct\":%.0f}",
                probe,
                Instant.ofEpochSecond(second),
                temperature,
                turbidity,
                chlorine,
                battery);
    }

    private static double tremble(int device, long second, int what) {
        return new Random(device * 1_000_003L + second / PROBE_SECONDS * 31 + what * 7919L).nextGaussian();
    }

    // --- vans ------------------------------------------------------------------------------------------

    /** Where all vans are at a moment: JSON. */
    public static String vans(long second) {
        StringBuilder json = new StringBuilder("[");
        for (int van = 0; van < VANS; van++) json.append(van == 0 ? "" : ",").append(position(van, second));
        return json.append("]").toString();
    }

    private static String position(int van, long second) {
        double[] at = van(van, second);
        double[] before = van(van, second - VAN_SECONDS);
        double km = Math.hypot((at[0] - before[0]) * 85, (at[1] - before[1]) * 111);
        return String.format(
                Locale.ROOT,
                "{\"van\":\"Van %d\",\"t\":%d,\"pos\":{\"lat\":%.5f,\"lon\":%.5f},\"speed_kmh\":%.0f}",
                van + 1,
                second,
                at[1],
                at[0],
                km / VAN_SECONDS * 3600);
    }

    /**
     * Where a van is: it goes from stop to stop around its depot, a quarter of an hour each, and stands for a third of
     * it.
     */
    static double[] van(int van, long second) {
        long leg = Math.floorDiv(second + van * 131L, 900);
        double part = Math.min(1, Math.floorMod(second + van * 131L, 900) / 600.0);
        double[] from = stop(van, leg);
        double[] to = stop(van, leg + 1);
        // Begins and ends slowly; roads bend.
        double smooth = part * part * (3 - 2 * part);
        double bend = Math.sin(part * Math.PI) * 0.012 * (leg % 2 == 0 ? 1 : -1);
        return new double[] {
            from[0] + (to[0] - from[0]) * smooth - (to[1] - from[1]) * bend * 8,
            from[1] + (to[1] - from[1]) * smooth + (to[0] - from[0]) * bend * 8
        };
    }

    private static double[] stop(int van, long leg) {
        long ofDay = Math.floorMod(leg, 40);
        double[] depot = DEPOTS[van];
        // Every fourth time it fetches what it needs for the next rounds.
        if (ofDay % 4 == 0) return depot;
        Random chance = new Random(van * 7919L + ofDay);
        double away = 0.05 + 0.12 * chance.nextDouble();
        double angle = ofDay * 0.7 + chance.nextDouble() * 0.6;
        return new double[] {depot[0] + away * Math.cos(angle) * 1.3, depot[1] + away * Math.sin(angle)};
    }
}
