package sarnik.app.live;

import java.net.InetAddress;

/** A connection to a broker, which tells of messages and is told once they are safe. */
interface BrokerClient extends AutoCloseable {

    /** Is told what comes. */
    interface Receiver {

        /** @param safe to be called once the message is safe; the broker sends it again if that never happens */
        void arrived(String topic, byte[] message, Runnable safe);

        /** The connection is lost. */
        void lost(String why);
    }

    /** So many messages are on their way at once at most, that are not safe yet. */
    int ON_THEIR_WAY = 1000;

    /** The largest that a broker may send at all, bytes: what is longer than messages may be is told as such. */
    long LARGEST = 16 << 20;

    /** So long a broker keeps what comes while nobody reads, where it does that, in seconds. */
    long KEPT_SECONDS = 86_400;

    int PATIENCE_SECONDS = 10;

    /**
     * Connects and asks for what the broker's topics name, each message at least once.
     *
     * @throws Exception as the client library has it; its message says why
     */
    void open() throws Exception;

    boolean isOpen();

    @Override
    void close();

    /** The client of the version that a broker speaks. */
    static BrokerClient of(Broker broker, String word, InetAddress at, Receiver receiver) {
        // A name is looked up once, so that the connection goes where it was allowed to; an encrypted one checks the
        // name itself.
        String to = broker.isEncrypted()
                ? broker.address()
                : "tcp://" + (at.getHostAddress().contains(":") ? "[" + at.getHostAddress() + "]" : at.getHostAddress())
                        + ":" + broker.port();
        return Broker.FIVE.equals(broker.version())
                ? new Mqtt5(broker, word, to, receiver)
                : new Mqtt3(broker, word, to, receiver);
    }
}
