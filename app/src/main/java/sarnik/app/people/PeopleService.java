package sarnik.app.people;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
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

    /** Letters of a word that is given out, without those that are taken for each other. */
    private static final String LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";

    private static final int WORD_LETTERS = 16;
    private static final Duration WORD_LASTS = Duration.ofDays(1);
    private static final SecureRandom CHANCE = new SecureRandom();

    private final PersonRepository people;
    private final PasswordEncoder encoder;
    private final Sessions sessions;
    private final TransactionTemplate transaction;
    private final SarnikProperties properties;

    PeopleService(
            PersonRepository people,
            PasswordEncoder encoder,
            Sessions sessions,
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

    /** Somebody, as signed in. */
    @Transactional(readOnly = true)
    public Optional<SignedIn> find(long id) {
        return people.findById(id).map(SignedIn::new);
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

    /** Whom a provider outside knows so. */
    @Transactional(readOnly = true)
    Optional<Person> knownOutside(String known) {
        return people.findByOutside(known);
    }

    /** Lets somebody in as a reader whom a provider outside vouches for. */
    Person admit(String name, String known) {
        String base = name.replaceAll("[^\\p{L}\\p{N}._@-]+", ".").replaceAll("^\\.|\\.$", "");
        String signIn = base.length() < 2 ? "reader" : base.substring(0, Math.min(50, base.length()));
        // Nobody knows this password: this person signs in by the provider only, until a steward gives a word out.
        String password = encoder.encode(java.util.UUID.randomUUID() + "-" + java.util.UUID.randomUUID());
        return transaction.execute(t -> {
            String free = signIn;
            for (int n = 2; people.whoSignsInAs(free).isPresent(); n++) free = signIn + "." + n;
            Person person = new Person(
                    free, name.length() > LONGEST_NAME ? name.substring(0, LONGEST_NAME) : name, password, Role.READER);
            person.outside(known);
            return people.saveAndFlush(person);
        });
    }

    /**
     * Says by what a provider outside knows somebody.
     *
     * @param known empty for nothing
     * @throws RefusedException when somebody else is known so
     */
    Person knowOutside(long id, String known) {
        String clean = known == null || known.isBlank() ? null : known.strip();
        if (clean != null && clean.length() > 200) throw new RefusedException("That is longer than 200 characters.");
        try {
            return transaction.execute(t -> {
                Person person = people.findWithLockById(id).orElseThrow(() -> RefusedException.gone("person"));
                person.outside(clean);
                return people.saveAndFlush(person);
            });
        } catch (DataIntegrityViolationException another) {
            throw new RefusedException(HttpStatus.CONFLICT, "Somebody else is known as “%s” already.".formatted(clean));
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
        Person person = needed(who.id());
        if (!isPasswordOf(who, now))
            throw new RefusedException("The password you typed is not the one you sign in with. Nothing was changed.");
        setPassword(person.getId(), next);
        sessions.endAll(person.getId(), session);
    }

    /**
     * Gives somebody a word that signs them in once, within a day; then they have to choose a password. All sessions of
     * that person are ended.
     *
     * @return the word, which is told once
     */
    String giveWord(long id) {
        StringBuilder word = new StringBuilder();
        for (int i = 0; i < WORD_LETTERS; i++)
            word.append(i > 0 && i % 4 == 0 ? "-" : "").append(LETTERS.charAt(CHANCE.nextInt(LETTERS.length())));
        String hashed = encoder.encode(word);
        transaction.executeWithoutResult(t -> people.findWithLockById(id)
                .orElseThrow(() -> RefusedException.gone("person"))
                .give(hashed, Clock.systemUTC().instant().plus(WORD_LASTS)));
        sessions.endAll(id, null);
        return word.toString();
    }

    /** Whether what somebody types is the own password. */
    boolean isPasswordOf(SignedIn who, String typed) {
        return typed != null && encoder.matches(typed, needed(who.id()).getPassword());
    }

    /** Sets the own password of somebody who has signed in with a word that was given out. */
    void chooseOwn(SignedIn who, String next, String session) {
        if (!who.hasGivenWord()) throw new RefusedException("You have a password of your own already.");
        setPassword(who.id(), next);
        sessions.endAll(who.id(), session);
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
        sessions.endAll(id, null);
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
