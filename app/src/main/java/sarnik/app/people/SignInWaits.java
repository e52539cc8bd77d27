package sarnik.app.people;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Timestamp;
import java.time.Duration;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * How long somebody has to wait who has typed a wrong password too often: nothing at first, then twice as long with
 * every
 * further try, up to a quarter of an hour. Counted for a name from one address, for a name from anywhere, and for an
 * address
 * whatever the name; the latter two bear more, so that one person's mistakes hardly hold another up. A wait is not
 * spent on
 * checking passwords. All instances count together.
 */
@Component
public class SignInWaits {

    private static final int OF_BOTH = 5;
    private static final int OF_NAME = 30;
    private static final int OF_ADDRESS = 100;
    private static final long LONGEST = Duration.ofMinutes(15).toMillis();

    /** What was tried so long ago is forgotten. */
    private static final long KEPT = Duration.ofHours(1).toMillis();

    private final LongSupplier clock;
    private final JdbcClient database;

    @Autowired
    SignInWaits(JdbcClient database) {
        this(database, System::currentTimeMillis);
    }

    SignInWaits(JdbcClient database, LongSupplier clock) {
        this.database = database;
        this.clock = clock;
    }

    private static String both(String name, String address) {
        return hash("b " + clean(name) + " " + address);
    }

    private static String name(String name) {
        return hash("n " + clean(name));
    }

    private static String address(String address) {
        return hash("a " + address);
    }

    /** What somebody types as a name may be a password: it is not kept as it is. */
    private static String hash(String who) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(who.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException unheardOf) {
            throw new IllegalStateException(unheardOf);
        }
    }

    private static String clean(String name) {
        String folded = name == null ? "" : name.strip().toLowerCase(Locale.ROOT);
        return folded.substring(0, Math.min(100, folded.length()));
    }

    /** Seconds that are still to be waited; 0 where a try is taken. */
    public long seconds(String name, String address) {
        long left = Math.max(
                left(both(name, address), OF_BOTH),
                Math.max(left(name(name), OF_NAME), left(address(address), OF_ADDRESS)));
        return (left + 999) / 1000;
    }

    private long left(String who, int free) {
        long now = clock.getAsLong();
        return database.sql("SELECT wrong, tried_at FROM wrong_tries WHERE who = ?")
                .param(who)
                .query((found, row) -> {
                    long tried = found.getTimestamp(2).getTime();
                    int wrong = found.getInt(1);
                    // A clock that was set back makes nobody wait for longer.
                    return wrong < free || Math.abs(now - tried) > KEPT
                            ? 0
                            : Math.min(wait(wrong, free), tried + wait(wrong, free) - now);
                })
                .optional()
                .orElse(0L);
    }

    private static long wait(int wrong, int free) {
        return wrong < free ? 0 : Math.min(LONGEST, 1000L << Math.min(20, wrong - free));
    }

    /** Counts a wrong try. */
    public void wrong(String name, String address) {
        Timestamp now = new Timestamp(clock.getAsLong());
        for (String who : List.of(both(name, address), name(name), address(address)))
            database.sql("""
                    INSERT INTO wrong_tries AS t (who, wrong, tried_at) VALUES (:who, 1, :now)
                    ON CONFLICT (who) DO UPDATE SET tried_at = :now,
                      wrong = CASE WHEN t.tried_at < :before THEN 1 ELSE t.wrong + 1 END""")
                    .param("who", who)
                    .param("now", now)
                    .param("before", new Timestamp(now.getTime() - KEPT))
                    .update();
    }

    /** Forgets the wrong tries of somebody who has signed in. */
    public void right(String name, String address) {
        for (String who : List.of(both(name, address), name(name)))
            database.sql("DELETE FROM wrong_tries WHERE who = ?").param(who).update();
    }

    @Scheduled(fixedDelay = 1, timeUnit = TimeUnit.HOURS)
    void forget() {
        database.sql("DELETE FROM wrong_tries WHERE tried_at < ?")
                .param(new Timestamp(clock.getAsLong() - KEPT))
                .update();
    }
}
