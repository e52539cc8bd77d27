package sarnik.standins;

import java.nio.file.Path;
import org.apache.activemq.artemis.core.config.Configuration;
import org.apache.activemq.artemis.core.config.impl.ConfigurationImpl;
import org.apache.activemq.artemis.core.server.JournalType;
import org.apache.activemq.artemis.core.server.embedded.EmbeddedActiveMQ;

/** A broker on loopback that speaks MQTT 3.1.1 and 5. It keeps what it has not handed over for those it knows. */
public final class MessageBroker implements AutoCloseable {

    private static final int WAITING_BYTES = 32 << 20;

    private final EmbeddedActiveMQ server = new EmbeddedActiveMQ();
    private final int port;

    private MessageBroker(int port) {
        this.port = port;
    }

    /**
     * Starts it.
     *
     * @param folder where it keeps what is to outlast a restart; null to keep nothing
     * @throws IllegalStateException when it does not start
     */
    public static MessageBroker start(int port, Path folder) {
        MessageBroker broker = new MessageBroker(port);
        try {
            Configuration said = new ConfigurationImpl()
                    .setPersistenceEnabled(folder != null)
                    .setSecurityEnabled(false)
                    .setJMXManagementEnabled(false)
                    .setGlobalMaxSize(WAITING_BYTES)
                    .setScheduledThreadPoolMaxSize(2)
                    .setThreadPoolMaxSize(8)
                    .addAcceptorConfiguration("mqtt", "tcp://127.0.0.1:" + port + "?protocols=MQTT");
            if (folder != null)
                said.setJournalType(JournalType.NIO)
                        .setJournalDirectory(folder.resolve("journal").toString())
                        .setBindingsDirectory(folder.resolve("bindings").toString())
                        .setLargeMessagesDirectory(folder.resolve("large").toString())
                        .setPagingDirectory(folder.resolve("paging").toString());
            broker.server.setConfiguration(said);
            broker.server.start();
            return broker;
        } catch (Exception failed) {
            throw new IllegalStateException("The broker does not start", failed);
        }
    }

    /** Its address. */
    public String address() {
        return "tcp://127.0.0.1:" + port;
    }

    @Override
    public void close() {
        try {
            server.stop();
        } catch (Exception failed) {
            throw new IllegalStateException("The broker does not stop", failed);
        }
    }
}
