package sarnik.app.people;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import org.springframework.context.event.EventListener;
import org.springframework.http.HttpHeaders;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.security.core.session.SessionDestroyedEvent;
import org.springframework.security.core.session.SessionInformation;
import org.springframework.security.core.session.SessionRegistry;
import org.springframework.stereotype.Component;
import sarnik.app.web.DayWords;

/** The sessions that are open: whose, from where, and ended on somebody's word. */
@Component
class Sessions {

    private static final int LONGEST_BROWSER = 80;

    /** After so long a session ends, however much it is used. */
    static final Duration LONGEST = Duration.ofDays(7);

    private final SessionRegistry registry;
    private final Map<String, Begun> begun = new ConcurrentHashMap<>();

    private record Begun(Instant at, String address, String browser) {}

    Sessions(SessionRegistry registry) {
        this.registry = registry;
    }

    /**
     * A session.
     *
     * @param key names it, without being what its cookie holds
     * @param own whether it is the one that asks
     */
    public record Open(String key, String browser, String address, String begun, String lastUsed, boolean own) {}

    /** Notes where a session was begun. */
    void begin(HttpServletRequest request) {
        String agent = request.getHeader(HttpHeaders.USER_AGENT);
        begun.put(
                request.getSession().getId(),
                new Begun(Instant.now(), request.getRemoteAddr(), browser(agent == null ? "" : agent)));
    }

    @EventListener
    void ended(SessionDestroyedEvent event) {
        begun.remove(event.getId());
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
                .sorted(Comparator.comparing(SessionInformation::getLastRequest).reversed())
                .map(s -> {
                    Begun at = begun.get(s.getSessionId());
                    return new Open(
                            key(s.getSessionId()),
                            at == null ? "a browser" : at.browser,
                            at == null ? "" : at.address,
                            at == null ? "" : DayWords.of(at.at),
                            DayWords.of(s.getLastRequest().toInstant()),
                            s.getSessionId().equals(own));
                })
                .toList();
    }

    private List<SessionInformation> sessions(long person) {
        return registry.getAllPrincipals().stream()
                .filter(p -> p instanceof SignedIn who && who.id() == person)
                .flatMap(p -> registry.getAllSessions(p, false).stream())
                .toList();
    }

    private static String key(String session) {
        return Integer.toHexString(session.hashCode());
    }

    /** Ends one session of a person. */
    void end(long person, String key) {
        sessions(person).stream().filter(s -> key(s.getSessionId()).equals(key)).forEach(SessionInformation::expireNow);
    }

    @Scheduled(fixedDelay = 1, timeUnit = TimeUnit.MINUTES)
    void endThoseTooLong() {
        endThoseTooLong(Instant.now());
    }

    /** Ends the sessions that were begun too long ago. */
    void endThoseTooLong(Instant now) {
        registry.getAllPrincipals().stream()
                .flatMap(person -> registry.getAllSessions(person, false).stream())
                .filter(session -> {
                    Begun of = begun.get(session.getSessionId());
                    return of != null && isTooLong(of.at, now);
                })
                .forEach(SessionInformation::expireNow);
    }

    static boolean isTooLong(Instant begun, Instant now) {
        return begun.plus(LONGEST).isBefore(now);
    }

    /** Ends all sessions of a person. @param but goes on; null for none */
    void endAll(long person, String but) {
        sessions(person).stream().filter(s -> !s.getSessionId().equals(but)).forEach(SessionInformation::expireNow);
    }
}
