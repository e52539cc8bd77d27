package sarnik.app.live;

import org.eclipse.paho.client.mqttv3.IMqttDeliveryToken;
import org.eclipse.paho.client.mqttv3.IMqttToken;
import org.eclipse.paho.client.mqttv3.MqttAsyncClient;
import org.eclipse.paho.client.mqttv3.MqttCallback;
import org.eclipse.paho.client.mqttv3.MqttConnectOptions;
import org.eclipse.paho.client.mqttv3.MqttException;
import org.eclipse.paho.client.mqttv3.MqttMessage;
import org.eclipse.paho.client.mqttv3.persist.MemoryPersistence;

/** A broker that speaks MQTT 3.1.1. */
final class Mqtt3 implements BrokerClient, MqttCallback {

    private static final int REFUSED = 0x80;

    private final Broker broker;
    private final String word;
    private final String to;
    private final Receiver receiver;
    private MqttAsyncClient client;

    Mqtt3(Broker broker, String word, String to, Receiver receiver) {
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
        MqttConnectOptions options = new MqttConnectOptions();
        options.setMqttVersion(MqttConnectOptions.MQTT_VERSION_3_1_1);
        options.setAutomaticReconnect(false);
        options.setCleanSession(false);
        options.setMaxInflight(ON_THEIR_WAY);
        options.setConnectionTimeout(PATIENCE_SECONDS);
        options.setKeepAliveInterval(20);
        if (broker.user() != null) options.setUserName(broker.user());
        if (word != null) options.setPassword(word.toCharArray());
        client.connect(options).waitForCompletion(PATIENCE_SECONDS * 1000L);
        for (String topic : broker.topics()) {
            IMqttToken asked = client.subscribe(topic, 1);
            asked.waitForCompletion(PATIENCE_SECONDS * 1000L);
            for (int granted : asked.getGrantedQos())
                if (granted == REFUSED) throw new MqttException(MqttException.REASON_CODE_SUBSCRIBE_FAILED);
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
            client.disconnectForcibly(0, 500);
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
    public void connectionLost(Throwable cause) {
        receiver.lost(cause == null ? "it ended the connection" : Subscription.words(cause));
    }

    @Override
    public void deliveryComplete(IMqttDeliveryToken token) {
        // Nothing is published.
    }
}
