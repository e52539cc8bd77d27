package sarnik.app.live;

import java.net.URI;
import java.util.List;
import java.util.UUID;
import sarnik.app.web.RefusedException;

/**
 * A broker that a feed is read from, by MQTT.
 *
 * @param address {@code tcp://HOST:PORT}, or {@code ssl://HOST:PORT} for an encrypted connection
 * @param version of the protocol, 5 or 3.1.1
 * @param topics which messages are read: topics, in which + stands for any level and a # at the end for all below
 * @param user as whom; null for nobody
 * @param client by which the broker knows this feed again, so that it keeps what comes while nobody reads; null to make
 *     one
 */
record Broker(String address, String version, List<String> topics, String user, String client) {

    static final String FIVE = "5";
    static final String THREE = "3.1.1";

    private static final int MOST_TOPICS = 50;
    private static final int LONGEST_TOPIC = 400;

    Broker {
        topics = topics == null ? List.of() : List.copyOf(topics);
    }

    /** @throws RefusedException with a sentence where something is not said as it has to be */
    Broker checked() {
        URI at = uri();
        if (!FIVE.equals(version) && !THREE.equals(version))
            throw new RefusedException("A broker speaks MQTT 5 or 3.1.1.");
        if (topics.isEmpty() || topics.size() > MOST_TOPICS)
            throw new RefusedException("Say which topics are read, %d at most.".formatted(MOST_TOPICS));
        for (String topic : topics) {
            // What stands for any level takes a whole one; what stands for all below ends it (MQTT 5.0, 4.7.1).
            if (topic.isBlank()
                    || topic.length() > LONGEST_TOPIC
                    || !topic.matches("(?:[^#+/]*|\\+)(?:/(?:[^#+/]*|\\+))*(?:/#)?|#"))
                throw new RefusedException(
                        "“%s” is no topic: + stands for one whole level, # for all below and only at the end."
                                .formatted(topic));
        }
        String known = client == null ? "sarnik-" + UUID.randomUUID().toString().substring(0, 13) : client;
        return new Broker(scheme(at) + "://" + at.getHost() + ":" + port(at), version, topics, user, known);
    }

    String host() {
        return uri().getHost();
    }

    int port() {
        return port(uri());
    }

    boolean isEncrypted() {
        return scheme(uri()).equals("ssl");
    }

    private static String scheme(URI at) {
        return at.getScheme().matches("ssl|tls|mqtts") ? "ssl" : "tcp";
    }

    private static int port(URI at) {
        return at.getPort() > 0 ? at.getPort() : scheme(at).equals("ssl") ? 8883 : 1883;
    }

    private URI uri() {
        try {
            URI at = URI.create(address.strip());
            if (at.getHost() != null
                    && at.getUserInfo() == null
                    && String.valueOf(at.getScheme()).matches("tcp|mqtt|ssl|tls|mqtts")) return at;
        } catch (IllegalArgumentException | NullPointerException odd) {
            // said below
        }
        throw new RefusedException(
                "“%s” is no broker's address. Write it such as tcp://broker.example.org:1883, or with ssl:// where the connection is encrypted."
                        .formatted(address));
    }
}
