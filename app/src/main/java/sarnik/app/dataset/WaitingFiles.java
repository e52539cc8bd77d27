package sarnik.app.dataset;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Files that wait to be looked over, as they lie in the database: as they were sent, with how they are read. The
 * instance that has read them holds what came of it; when it has ended another reads them again.
 */
@Component
class WaitingFiles {

    private static final int PART_BYTES = 1 << 20;
    private static final TypeReference<List<String>> NAMES = new TypeReference<>() {};

    private final JdbcClient database;
    private final TransactionTemplate transaction;
    private final JsonMapper mapper;

    WaitingFiles(JdbcClient database, TransactionTemplate transaction, JsonMapper mapper) {
        this.database = database;
        this.transaction = transaction;
        this.mapper = mapper;
    }

    /**
     * How files are to be read.
     *
     * @param refreshes the dataset whose newer rows they hold; null for a new dataset
     * @param stays where the rows are that stay there; null where all are in the files
     */
    record Asked(Intake intake, Long refreshes, Stays stays) {}

    /**
     * Files that wait.
     *
     * @param instance which holds what came of reading them
     * @param isWhole whether all of them lies in the database
     * @param isRead whether they had been read once
     */
    record Waiting(String id, UUID instance, List<String> names, Asked asked, boolean isWhole, boolean isRead) {

        /** What people call them. */
        public String words() {
            return String.join(", ", names);
        }
    }

    private JdbcClient.MappedQuerySpec<Waiting> query(JdbcClient.StatementSpec asked) {
        return asked.query((found, row) -> new Waiting(
                found.getString("id"),
                found.getObject("instance", UUID.class),
                mapper.readValue(found.getString("names"), NAMES),
                new Asked(
                        mapper.readValue(found.getString("intake"), Intake.class),
                        found.getObject("refreshes") == null ? null : found.getLong("refreshes"),
                        found.getString("stays") == null
                                ? null
                                : mapper.readValue(found.getString("stays"), Stays.class)),
                found.getBoolean("is_whole"),
                found.getBoolean("is_read")));
    }

    /** What waits of a person. */
    List<Waiting> of(long person) {
        return query(database.sql("SELECT * FROM waiting_files WHERE person = ? ORDER BY used_at")
                        .param(person))
                .list();
    }

    Optional<Waiting> find(String id, long person) {
        return query(database.sql("SELECT * FROM waiting_files WHERE id = ? AND person = ?")
                        .params(id, person))
                .optional();
    }

    /** Which instance holds what came of reading them. */
    Optional<UUID> holder(String id) {
        return database.sql("SELECT instance FROM waiting_files WHERE id = ?")
                .param(id)
                .query(UUID.class)
                .optional();
    }

    void begin(String id, long person, UUID instance, List<String> names, Asked asked) {
        database.sql("""
                INSERT INTO waiting_files (id, person, instance, names, intake, refreshes, stays, used_at)
                VALUES (?, ?, ?, ?::jsonb, ?::jsonb, ?, ?::jsonb, now())""")
                .params(
                        id,
                        person,
                        instance,
                        mapper.writeValueAsString(names),
                        mapper.writeValueAsString(asked.intake()),
                        asked.refreshes(),
                        asked.stays() == null ? null : mapper.writeValueAsString(asked.stays()))
                .update();
    }

    /** Writes files down, as they came, in one transaction. */
    void write(String id, List<Path> files) {
        transaction.executeWithoutResult(t -> {
            for (int file = 0; file < files.size(); file++) write(id, file, files.get(file));
            database.sql("UPDATE waiting_files SET is_whole = true WHERE id = ?")
                    .param(id)
                    .update();
        });
    }

    private void write(String id, int number, Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            int part = 0;
            for (byte[] bytes = in.readNBytes(PART_BYTES); bytes.length > 0; bytes = in.readNBytes(PART_BYTES))
                database.sql("INSERT INTO waiting_parts (waiting, file, part, bytes) VALUES (?, ?, ?, ?)")
                        .params(id, number, part++, bytes)
                        .update();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** Makes a file of what was written down of it. */
    void read(String id, int number, Path into) throws IOException {
        try (OutputStream out = Files.newOutputStream(into)) {
            for (int part = 0; ; part++) {
                Optional<byte[]> bytes = database.sql(
                                "SELECT bytes FROM waiting_parts WHERE waiting = ? AND file = ? AND part = ?")
                        .params(id, number, part)
                        .query(byte[].class)
                        .optional();
                if (bytes.isEmpty()) return;
                out.write(bytes.get());
            }
        }
    }

    /** They were read, in this way. */
    void wasRead(String id, UUID instance, Intake intake) {
        database.sql(
                        "UPDATE waiting_files SET is_read = true, intake = ?::jsonb, used_at = now() WHERE id = ? AND instance = ?")
                .params(mapper.writeValueAsString(intake), id, instance)
                .update();
    }

    /** Somebody looks at them. @return whether they still wait, and this instance holds them */
    boolean use(String id, UUID instance) {
        return database.sql("UPDATE waiting_files SET used_at = now() WHERE id = ? AND instance = ?")
                        .params(id, instance)
                        .update()
                > 0;
    }

    /** Takes them over. @return whether no other instance was faster */
    boolean takeOver(String id, UUID from, UUID to) {
        return database.sql("UPDATE waiting_files SET instance = ?, used_at = now() WHERE id = ? AND instance = ?")
                        .params(to, id, from)
                        .update()
                > 0;
    }

    void remove(String id, UUID instance) {
        database.sql("DELETE FROM waiting_files WHERE id = ? AND instance = ?")
                .params(id, instance)
                .update();
    }

    /** Forgets what nobody has looked at for so long, whose instance may have ended. */
    List<String> forget(Duration unused) {
        return new ArrayList<>(
                database.sql("DELETE FROM waiting_files WHERE used_at < now() - make_interval(secs => ?) RETURNING id")
                        .param(unused.toSeconds())
                        .query(String.class)
                        .list());
    }
}
