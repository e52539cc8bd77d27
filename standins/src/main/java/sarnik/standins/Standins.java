package sarnik.standins;

import java.io.IOException;
import java.nio.file.Path;

/**
 * Starts the simulated outside services of the demo: {@code Standins PORT [FOLDER [GATEWAY]]}. A broker is at the port
 * after that one, a receiver of mail at the one after. Runs until it is stopped.
 */
public final class Standins {

    private static final long STEP_MILLIS = 7_000;

    private Standins() {}

    public static void main(String[] arguments) throws IOException {
        int port = Integer.parseInt(arguments[0]);
        Mailbox mailbox = Mailbox.start(port + 2);
        RemoteTable table = RemoteTable.start(
                port,
                () -> System.currentTimeMillis() / STEP_MILLIS % 1_000_000,
                arguments.length > 1 ? Path.of(arguments[1]) : null,
                mailbox);
        System.out.println("A table that changes: http://127.0.0.1:" + table.port() + "/stock.csv");
        System.out.println("Aerial pictures, made up: http://127.0.0.1:" + table.port() + "/aerial/{z}/{x}/{y}.png");
        System.out.println(
                "Roads as vector tiles, made up: http://127.0.0.1:" + table.port() + "/roads/{z}/{x}/{y}.mvt");
        System.out.println("Rain as a map service, made up: http://127.0.0.1:" + table.port() + "/wms and /wmts");
        System.out.println(
                "A newspaper that shows a dashboard: http://127.0.0.1:" + table.port() + "/news?frame=ADDRESS");
        System.out.println("Wells and districts as features, made up: http://127.0.0.1:" + table.port() + "/features");
        System.out.println("Mail is taken on port " + mailbox.port() + " and shown at http://127.0.0.1:" + table.port()
                + "/mails, with what is sent to http://127.0.0.1:" + table.port() + "/hook");
        MessageBroker broker = MessageBroker.start(port + 1, null);
        System.out.println("A broker that speaks MQTT: " + broker.address());
        if (arguments.length > 2) {
            Gateway.start(Path.of(arguments[2]));
            System.out.println("Probes and vans, made up, send readings to the feeds that " + arguments[2] + " names");
        }
        System.out.println("Files of a folder, as from any web server: http://127.0.0.1:" + table.port() + "/files/");
    }
}
