package sarnik.trino;

import static io.trino.testing.TestingSession.testSessionBuilder;

import io.trino.plugin.memory.MemoryPlugin;
import io.trino.testing.DistributedQueryRunner;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;

/**
 * A cluster of Trino on loopback: three nodes in one process, with a catalogue of tables held in memory and one of
 * files.
 *
 * <pre>java -cp … sarnik.trino.TrinoCluster ADDRESS_FILE DIRECTORY [PORT [STATEMENT …]]</pre>
 *
 * It writes the host and port that it answers on into a file once it does and has run the statements, and ends when its
 * input does or it is told to.
 */
public final class TrinoCluster {

    private static final int NODES = 3;

    private TrinoCluster() {}

    /**
     * @param args the file that the address is written into; the directory whose files can be asked; the port, 0 for
     *     any; statements to be run first
     */
    public static void main(String[] args) throws Exception {
        PrintStream said = System.out;
        DistributedQueryRunner cluster = DistributedQueryRunner.builder(testSessionBuilder()
                        .setCatalog("memory")
                        .setSchema("default")
                        .build())
                .setNodeCount(NODES)
                .setCoordinatorProperties(Map.of("http-server.http.port", args.length > 2 ? args[2] : "0"))
                .setExtraProperties(Map.of("query.max-length", "100000000"))
                .build();
        cluster.installPlugin(new MemoryPlugin());
        cluster.createCatalog("memory", "memory", Map.of("memory.max-data-per-node", "2GB"));
        cluster.installPlugin(new FilesPlugin());
        cluster.createCatalog("files", "files", Map.of("directory", args[1]));
        for (int s = 3; s < args.length; s++) cluster.execute(args[s]);
        Path address = Path.of(args[0]);
        Path part = address.resolveSibling(address.getFileName() + ".part");
        Files.writeString(part, cluster.getCoordinator().getBaseUrl().getAuthority());
        Files.move(part, address);
        said.println("Trino answers on " + cluster.getCoordinator().getBaseUrl());
        waitForEnd();
        cluster.close();
        System.exit(0);
    }

    private static void waitForEnd() throws IOException {
        while (System.in.read() >= 0) {
            // Whoever has started it ends it by closing its input.
        }
    }
}
