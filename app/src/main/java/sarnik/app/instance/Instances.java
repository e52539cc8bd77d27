package sarnik.app.instance;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.web.server.servlet.context.ServletWebServerInitializedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * The instances of the application that run on one database. Each says every two seconds that it is there; one that has
 * not for a while has ended, whichever way. What they say is told by the database's clock, so that theirs need not
 * agree.
 */
@Component
public class Instances implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Instances.class);
    private static final int SAID_MILLIS = 2_000;

    /** One that has been silent for so long has ended, seconds. */
    private static final int SILENT_SECONDS = 10;

    private final UUID own = UUID.randomUUID();
    private final JdbcClient database;
    private final String named;
    private final FileChannel directory;
    private volatile String address;
    private volatile boolean hasOthers;

    /**
     * @param named where the others reach this one; empty for its port on this machine
     * @param work where it writes files that no other may touch
     * @throws IllegalStateException where another instance writes there
     */
    Instances(
            JdbcClient database,
            @Value("${sarnik.address:}") String named,
            @Value("${sarnik.work-directory}") Path work)
            throws IOException {
        this.database = database;
        this.named = named.strip();
        this.directory = taken(work);
    }

    /** Lets nobody else work in a directory for as long as the file in it is open. */
    private static FileChannel taken(Path work) throws IOException {
        Files.createDirectories(work);
        FileChannel file =
                FileChannel.open(work.resolve("in-use"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        FileLock lock = null;
        try {
            lock = file.tryLock();
        } catch (OverlappingFileLockException here) {
            LOG.debug("It is used by this very process", here);
        }
        if (lock != null) return file;
        file.close();
        throw new IllegalStateException(
                "Another instance of Sarnik works in %s. Give this one a directory of its own in SARNIK_WORK."
                        .formatted(work));
    }

    /** This one. It has another id each time it is started. */
    public UUID own() {
        return own;
    }

    /** Whether others are there besides this one, as far as is known. */
    public boolean hasOthers() {
        return hasOthers;
    }

    /**
     * Where another instance is reached.
     *
     * @return its address, such as {@code http://10.0.0.7:8080}; empty for this one and for one that has ended
     */
    public Optional<String> addressOf(UUID other) {
        if (other.equals(own)) return Optional.empty();
        return database.sql("SELECT address FROM instances WHERE id = ? AND seen_at > now() - make_interval(secs => ?)")
                .params(other, SILENT_SECONDS)
                .query(String.class)
                .optional();
    }

    /** Whether an instance is this one, or another that has not ended. */
    public boolean isThere(UUID instance) {
        return instance.equals(own) || addressOf(instance).isPresent();
    }

    /** Takes one for ended that listens no more. Where it does live, it says so again soon. */
    void ended(UUID instance) {
        database.sql("DELETE FROM instances WHERE id = ?").param(instance).update();
    }

    @EventListener
    void open(ServletWebServerInitializedEvent server) {
        address =
                named.isEmpty() ? "http://127.0.0.1:" + server.getWebServer().getPort() : named.replaceFirst("/+$", "");
        say();
    }

    @Scheduled(fixedDelay = SAID_MILLIS)
    void say() {
        if (address == null) return;
        try {
            database.sql("""
                    INSERT INTO instances (id, address, seen_at) VALUES (?, ?, now())
                    ON CONFLICT (id) DO UPDATE SET seen_at = now()""").params(own, address).update();
            database.sql("DELETE FROM instances WHERE seen_at < now() - interval '1 hour'")
                    .update();
            hasOthers = database.sql("""
                    SELECT count(*) FROM instances WHERE id <> ? AND seen_at > now() - make_interval(secs => ?)""")
                            .params(own, SILENT_SECONDS)
                            .query(Long.class)
                            .single()
                    > 0;
        } catch (DataAccessException away) {
            LOG.debug("The database is away; the others take this instance for ended until it is back", away);
        }
    }

    /** Says that it ends, so that nobody waits for it. */
    @Override
    public void close() throws IOException {
        address = null;
        directory.close();
        try {
            ended(own);
        } catch (DataAccessException away) {
            LOG.debug("Could not say that this instance ends; the others see it soon", away);
        }
    }
}
