package sarnik.app.token;

import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Base64;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.secret.Hashes;
import sarnik.app.web.DayWords;
import sarnik.app.web.RefusedException;

/** Looks after the tokens by which programs act for people. */
@Service
public class Tokens {

    private static final String BEGINNING = "sarnik_";
    private static final int BYTES = 32;
    private static final int MOST = 40;
    private static final int LONGEST_NAME = 80;
    private static final int MOST_DAYS = 366;
    private static final Duration NOTED = Duration.ofMinutes(1);
    private static final SecureRandom CHANCE = new SecureRandom();

    private final ApiTokenRepository tokens;
    private final PeopleService people;

    Tokens(ApiTokenRepository tokens, PeopleService people) {
        this.tokens = tokens;
        this.people = people;
    }

    /** A token as its person sees it. */
    public record Listed(long id, String name, String scopes, String ends, boolean open, String lastUsed) {}

    @Transactional(readOnly = true)
    List<Listed> of(SignedIn person) {
        return tokens.findByPersonIdOrderByMadeAtDesc(person.id()).stream()
                .map(t -> new Listed(
                        t.getId(),
                        t.getName(),
                        t.scopes().stream().map(Scope::words).collect(Collectors.joining("; ")),
                        DayWords.of(t.getEndsAt()),
                        Instant.now().isBefore(t.getEndsAt()),
                        t.getLastUsedAt() == null ? "never" : DayWords.of(t.getLastUsedAt())))
                .toList();
    }

    /**
     * Makes a token.
     *
     * @param ends the last day on which it is taken, of UTC
     * @return the token, which is told once
     */
    @Transactional
    String make(SignedIn person, String name, Set<Scope> scopes, LocalDate ends) {
        String called = name == null ? "" : name.strip();
        if (called.isEmpty() || called.length() > LONGEST_NAME)
            throw new RefusedException("A token's name has 1 to %d characters.".formatted(LONGEST_NAME));
        if (scopes.isEmpty()) throw new RefusedException("Say what a program may do with it.");
        LocalDate today = LocalDate.now(ZoneOffset.UTC);
        if (ends == null || ends.isBefore(today) || ends.isAfter(today.plusDays(MOST_DAYS)))
            throw new RefusedException(
                    "A token ends within a year: write the last day, such as %s.".formatted(today.plusMonths(3)));
        if (tokens.findByPersonIdOrderByMadeAtDesc(person.id()).size() >= MOST)
            throw new RefusedException("You have %d tokens. Take old ones away first.".formatted(MOST));
        byte[] chance = new byte[BYTES];
        CHANCE.nextBytes(chance);
        String token = BEGINNING + Base64.getUrlEncoder().withoutPadding().encodeToString(chance);
        tokens.save(new ApiToken(
                person.id(),
                called,
                Hashes.of(token),
                scopes.isEmpty() ? scopes : EnumSet.copyOf(scopes),
                ends.plusDays(1).atStartOfDay(ZoneOffset.UTC).toInstant(),
                Instant.now()));
        return token;
    }

    /** Takes a token away; it opens nothing from now on. */
    @Transactional
    void remove(SignedIn person, long id) {
        tokens.delete(tokens.findById(id)
                .filter(t -> t.getPersonId() == person.id())
                .orElseThrow(() -> RefusedException.gone("token")));
    }

    /** Whose program asks, and what it may do. */
    record Bearer(SignedIn person, Set<Scope> scopes) {}

    /** Who a token stands for; empty where it is none, has ended, or its person may not sign in. */
    @Transactional
    public Optional<Bearer> bearer(String token) {
        if (!token.startsWith(BEGINNING)) return Optional.empty();
        Instant now = Instant.now();
        return tokens.findByHash(Hashes.of(token))
                .filter(t -> now.isBefore(t.getEndsAt()))
                .flatMap(t -> {
                    if (t.getLastUsedAt() == null
                            || t.getLastUsedAt().plus(NOTED).isBefore(now)) t.used(now);
                    return people.find(t.getPersonId())
                            .filter(SignedIn::isEnabled)
                            .map(person -> new Bearer(person, t.scopes()));
                });
    }
}
