package sarnik.app.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.springframework.http.HttpHeaders;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;
import sarnik.app.web.DayWords;

/**
 * The sessions that are open: whose, from where, and ended on somebody's word. They lie in the database, so they
 * outlast the program, and all instances know of them.
 */
@Component
class Sessions {

    private static final int LONGEST_BROWSER = 80;
    private static final String FROM = Sessions.class.getName() + ".from";
    private static final String BY = Sessions.class.getName() + ".by";

    /** After so long without being used a session ends. */
    static final Duration RESTING = Duration.ofHours(8);

    /** After so long a session ends, however much it is used. */
    static final Duration LONGEST = Duration.ofDays(7);

    private final FindByIndexNameSessionRepository<? extends Session> stored;
    private final JdbcClient database;

    Sessions(FindByIndexNameSessionRepository<? extends Session> stored, JdbcClient database) {
        this.stored = stored;
        this.database = database;
    }

    /**
     * A session.
     *
     * @param key names it, without being what its cookie holds
     * @param own whether it is the one that asks
     */
    public record Open(String key, String browser, String address, String begun, String lastUsed, boolean own) {}

    /** Notes whose a session is, and where it was begun. */
    void begin(HttpServletRequest request, long person) {
        String agent = request.getHeader(HttpHeaders.USER_AGENT);
        HttpSession session = request.getSession();
        session.setMaxInactiveInterval((int) RESTING.toSeconds());
        session.setAttribute(FROM, request.getRemoteAddr());
        session.setAttribute(BY, browser(agent == null ? "" : agent));
        // By the number: what somebody signs in as may change.
        session.setAttribute(FindByIndexNameSessionRepository.PRINCIPAL_NAME_INDEX_NAME, String.valueOf(person));
    }

    /** A browser and its system, as far as they say. */
    private static String browser(String agent) {
        String[] browsers = {"Edg", "Edge", "Firefox", "Firefox", "Chrom", "Chromium", "Safari", "Safari"};
        String[] systems = {
            "Android",
            "Android",
            "iPhone",
            "an iPhone",
            "iPad",
            "an iPad",
            "Windows",
            "Windows",
            "Mac OS",
            "macOS",
            "Linux",
            "Linux"
        };
        String words = first(agent, browsers, "a program") + " on " + first(agent, systems, "an unknown system");
        return words.substring(0, Math.min(LONGEST_BROWSER, words.length()));
    }

    private static String first(String agent, String[] known, String otherwise) {
        for (int i = 0; i < known.length; i += 2) if (agent.contains(known[i])) return known[i + 1];
        return otherwise;
    }

    /** The open sessions of a person, the newest first. @param own the session that asks */
    List<Open> of(long person, String own) {
        return sessions(person).stream()
                .sorted(Comparator.comparing((Session s) -> s.getLastAccessedTime())
                        .reversed())
                .map(s -> new Open(
                        key(s.getId()),
                        s.getAttributeOrDefault(BY, "a browser"),
                        s.getAttributeOrDefault(FROM, ""),
                        DayWords.of(s.getCreationTime()),
                        DayWords.of(s.getLastAccessedTime()),
                        s.getId().equals(own)))
                .toList();
    }

    /** One by one: of many at once the store takes some apart wrongly where the database gives them in another order. */
    private List<Session> sessions(long person) {
        return ids(person).stream()
                .map(stored::findById)
                .filter(s -> s != null && !s.isExpired())
                .<Session>map(s -> s)
                .toList();
    }

    private List<String> ids(long person) {
        return database.sql("SELECT session_id FROM sessions WHERE principal_name = ?")
                .param(String.valueOf(person))
                .query(String.class)
                .list();
    }

    private static String key(String session) {
        return Integer.toHexString(session.hashCode());
    }

    /** Ends one session of a person. */
    void end(long person, String key) {
        ids(person).stream().filter(id -> key(id).equals(key)).forEach(stored::deleteById);
    }

    @Scheduled(fixedDelay = 1, timeUnit = TimeUnit.MINUTES)
    void endThoseTooLong() {
        endThoseTooLong(Instant.now());
    }

    /** Ends the sessions that were begun too long ago. */
    void endThoseTooLong(Instant now) {
        database.sql("DELETE FROM sessions WHERE creation_time < ?")
                .param(now.minus(LONGEST).toEpochMilli())
                .update();
    }

    /** Ends all sessions of a person. @param but goes on; null for none */
    void endAll(long person, String but) {
        database.sql("DELETE FROM sessions WHERE principal_name = ? AND session_id IS DISTINCT FROM ?")
                .params(String.valueOf(person), but)
                .update();
    }
}
