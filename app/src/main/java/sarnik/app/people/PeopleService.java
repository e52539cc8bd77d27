package sarnik.app.people;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.session.SessionInformation;
import org.springframework.security.core.session.SessionRegistry;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.SarnikProperties;
import sarnik.app.web.RefusedException;

/** Looks after people; makes the first ones at the first start. */
@Service
public class PeopleService implements UserDetailsService, SmartInitializingSingleton {

    private static final Logger LOG = LoggerFactory.getLogger(PeopleService.class);
    private static final int LONGEST_NAME = 120;

    private final PersonRepository people;
    private final PasswordEncoder encoder;
    private final SessionRegistry sessions;
    private final TransactionTemplate transaction;
    private final SarnikProperties properties;

    PeopleService(
            PersonRepository people,
            PasswordEncoder encoder,
            SessionRegistry sessions,
            TransactionTemplate transaction,
            SarnikProperties properties) {
        this.sessions = sessions;
        this.transaction = transaction;
        this.people = people;
        this.encoder = encoder;
        this.properties = properties;
    }

    @Override
    @Transactional(readOnly = true)
    public UserDetails loadUserByUsername(String signIn) {
        return people.whoSignsInAs(signIn)
                .map(SignedIn::new)
                .orElseThrow(() -> new UsernameNotFoundException("Nobody signs in as “" + signIn + "”"));
    }

    @Transactional(readOnly = true)
    public List<Person> all() {
        return people.inOrder();
    }

    /** What a person is called. */
    @Transactional(readOnly = true)
    public String nameOf(long id) {
        return people.findById(id).map(Person::getName).orElse("Somebody");
    }

    /** Whether somebody may change or remove what another has made. */
    public boolean mayChange(long owner, boolean shared, SignedIn person) {
        return shared || owner == person.id() || person.role() == Role.STEWARD;
    }

    /**
     * Checks that somebody may change or remove what another has made.
     *
     * @param name what it is called
     * @throws RefusedException with 403 when they may not; the message says whom to ask
     */
    @Transactional(readOnly = true)
    public void checkMayChange(String name, long owner, boolean shared, SignedIn person) {
        if (mayChange(owner, shared, person)) return;
        String whose = nameOf(owner);
        throw new RefusedException(
                HttpStatus.FORBIDDEN,
                "“%s” is %s's, who has not shared it with other authors. Ask %s to, or a steward."
                        .formatted(name, whose, whose));
    }

    /**
     * Adds a person.
     *
     * @throws RefusedException when the sign-in is taken or the password is not fit
     */
    public Person add(String signIn, String name, String password, Role role) {
        String trimmed = signIn == null ? "" : signIn.strip();
        if (!trimmed.matches("[\\p{L}\\p{N}._@-]{2,60}")) {
            throw new RefusedException("A sign-in has 2 to 60 letters, digits, dots, dashes or @, without spaces.");
        }
        String called = name == null || name.isBlank() ? trimmed : name.strip();
        if (called.length() > LONGEST_NAME)
            throw new RefusedException("A name has at most %d characters.".formatted(LONGEST_NAME));
        Passwords.check(password, trimmed, called);
        String hashed = encoder.encode(password);
        try {
            return transaction.execute(t -> {
                if (people.whoSignsInAs(trimmed).isPresent()) throw taken(trimmed);
                return people.saveAndFlush(new Person(trimmed, called, hashed, role));
            });
        } catch (DataIntegrityViolationException atTheSameMoment) {
            throw taken(trimmed);
        }
    }

    private static RefusedException taken(String signIn) {
        return new RefusedException(
                HttpStatus.CONFLICT, "Somebody signs in as “%s” already. Choose another sign-in.".formatted(signIn));
    }

    /**
     * Changes the own password; the person's other sessions are ended.
     *
     * @param session the session that goes on
     * @throws RefusedException when the password typed is not the person's, or the new one is not fit
     */
    void changeOwn(SignedIn who, String now, String next, String session) {
        Person person =
                transaction.execute(t -> people.findById(who.id())).orElseThrow(() -> RefusedException.gone("person"));
        if (now == null || !encoder.matches(now, person.getPassword()))
            throw new RefusedException("The password you typed is not the one you sign in with. Nothing was changed.");
        setPassword(person.getId(), next);
        endSessions(person.getId(), session);
    }

    /** Sets somebody's password; all sessions of that person are ended. */
    Person resetPassword(long id, String next) {
        Person person = setPassword(id, next);
        endSessions(id, null);
        return person;
    }

    private Person setPassword(long id, String next) {
        Person known = needed(id);
        Passwords.check(next, known.getSignIn(), known.getName());
        String hashed = encoder.encode(next);
        return transaction.execute(t -> {
            Person person = people.findWithLockById(id).orElseThrow(() -> RefusedException.gone("person"));
            person.change(hashed);
            return person;
        });
    }

    private Person needed(long id) {
        return transaction.execute(t -> people.findById(id)).orElseThrow(() -> RefusedException.gone("person"));
    }

    /**
     * Lets somebody sign in no more, and ends that person's sessions; what the person has made stays.
     *
     * @throws RefusedException when it is the steward's own, or the last steward
     */
    Person close(long id, SignedIn steward) {
        if (id == steward.id()) throw new RefusedException("You cannot close yourself out. Another steward can.");
        Person closed = transaction.execute(t -> {
            Person person = people.findWithLockById(id).orElseThrow(() -> RefusedException.gone("person"));
            person.close(Clock.systemUTC().instant());
            return person;
        });
        endSessions(id, null);
        return closed;
    }

    /** Lets somebody sign in again. */
    Person reopen(long id) {
        return transaction.execute(t -> {
            Person person = people.findWithLockById(id).orElseThrow(() -> RefusedException.gone("person"));
            person.reopen();
            return person;
        });
    }

    private void endSessions(long person, String but) {
        sessions.getAllPrincipals().stream()
                .filter(p -> p instanceof SignedIn who && who.id() == person)
                .flatMap(p -> sessions.getAllSessions(p, false).stream())
                .filter(s -> !s.getSessionId().equals(but))
                .forEach(SessionInformation::expireNow);
    }

    /** Makes the first people before anybody can ask: a start that fails here makes nobody and serves nothing. */
    @Override
    public void afterSingletonsInstantiated() {
        if (properties.firstPeople().isBlank()) return;
        transaction.executeWithoutResult(t -> {
            if (people.count() > 0) return;
            for (String entry : properties.firstPeople().strip().split("\n")) {
                String[] parts = entry.split(":", 3);
                if (parts.length != 3)
                    throw new IllegalArgumentException("sarnik.first-people needs sign-in:role:password, a line each");
                add(parts[0], parts[0], parts[2], Role.valueOf(parts[1].toUpperCase(Locale.ROOT)));
                LOG.info("Made the {} {}", parts[1], parts[0]);
            }
        });
    }
}
