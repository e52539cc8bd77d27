package sarnik.app.live;

import java.nio.charset.StandardCharsets;
import org.eclipse.paho.mqttv5.client.IMqttToken;
import org.eclipse.paho.mqttv5.client.MqttAsyncClient;
import org.eclipse.paho.mqttv5.client.MqttCallback;
import org.eclipse.paho.mqttv5.client.MqttConnectionOptions;
import org.eclipse.paho.mqttv5.client.MqttDisconnectResponse;
import org.eclipse.paho.mqttv5.client.persist.MemoryPersistence;
import org.eclipse.paho.mqttv5.common.MqttException;
import org.eclipse.paho.mqttv5.common.MqttMessage;
import org.eclipse.paho.mqttv5.common.packet.MqttProperties;

/** A broker that speaks MQTT 5. */
final class Mqtt5 implements BrokerClient, MqttCallback {

    private final Broker broker;
    private final String word;
    private final String to;
    private final Receiver receiver;
    private MqttAsyncClient client;

    Mqtt5(Broker broker, String word, String to, Receiver receiver) {
        this.broker = broker;
        this.word = word;
        this.to = to;
        this.receiver = receiver;
    }

    @Override
    public void open() throws MqttException {
        client = new MqttAsyncClient(to, broker.client(), new MemoryPersistence());
        client.setManualAcks(true);
        client.setCallback(this);
        MqttConnectionOptions options = new MqttConnectionOptions();
        options.setAutomaticReconnect(false);
        options.setCleanStart(false);
        options.setSessionExpiryInterval(KEPT_SECONDS);
        options.setReceiveMaximum(ON_THEIR_WAY);
        options.setMaximumPacketSize(LARGEST);
        options.setConnectionTimeout(PATIENCE_SECONDS);
        options.setKeepAliveInterval(20);
        if (broker.user() != null) options.setUserName(broker.user());
        if (word != null) options.setPassword(word.getBytes(StandardCharsets.UTF_8));
        client.connect(options).waitForCompletion(PATIENCE_SECONDS * 1000L);
        for (String topic : broker.topics()) {
            IMqttToken asked = client.subscribe(topic, 1);
            asked.waitForCompletion(PATIENCE_SECONDS * 1000L);
            for (int code : asked.getReasonCodes()) if (code >= 0x80) throw new MqttException(code);
        }
    }

    @Override
    public boolean isOpen() {
        return client != null && client.isConnected();
    }

    @Override
    public void close() {
        if (client == null) return;
        try {
            client.disconnectForcibly(0, 500, 0, new MqttProperties());
        } catch (MqttException | RuntimeException gone) {
            // It is closed next.
        }
        try {
            client.close(true);
        } catch (MqttException | RuntimeException gone) {
            // There is nothing left of it.
        }
    }

    @Override
    public void messageArrived(String topic, MqttMessage message) {
        MqttAsyncClient of = client;
        receiver.arrived(topic, message.getPayload(), () -> {
            try {
                if (message.getQos() > 0) of.messageArrivedComplete(message.getId(), message.getQos());
            } catch (MqttException lost) {
                // The broker sends it again; it is known then.
            }
        });
    }

    @Override
    public void disconnected(MqttDisconnectResponse response) {
        Throwable cause = response.getException();
        receiver.lost(
                response.getReasonString() != null
                        ? response.getReasonString()
                        : cause == null ? "it ended the connection" : Subscription.words(cause));
    }

    @Override
    public void mqttErrorOccurred(MqttException failed) {
        // What ends the connection is told as that.
    }

    @Override
    public void deliveryComplete(IMqttToken token) {
        // Nothing is published.
    }

    @Override
    public void connectComplete(boolean again, String server) {
        // Asked for what is wanted in open.
    }

    @Override
    public void authPacketArrived(int reason, MqttProperties properties) {
        // Names and passwords only.
    }
}
