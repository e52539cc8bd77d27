package sarnik.app.people;

import java.util.List;
import java.util.Locale;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.SarnikProperties;
import sarnik.app.web.RefusedException;

/** Looks after people; makes the first ones at the first start. */
@Service
public class PeopleService implements UserDetailsService, ApplicationRunner {

    private static final Logger LOG = LoggerFactory.getLogger(PeopleService.class);
    private static final int SHORTEST_PASSWORD = 10;

    private final PersonRepository people;
    private final PasswordEncoder encoder;
    private final SarnikProperties properties;

    PeopleService(PersonRepository people, PasswordEncoder encoder, SarnikProperties properties) {
        this.people = people;
        this.encoder = encoder;
        this.properties = properties;
    }

    @Override
    @Transactional(readOnly = true)
    public UserDetails loadUserByUsername(String signIn) {
        return people.whoSignsInAs(signIn).map(SignedIn::new)
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
        throw new RefusedException(HttpStatus.FORBIDDEN, "“%s” is %s's, who has not shared it with other authors. Ask %s to, or a steward.".formatted(name, whose, whose));
    }

    /**
     * Adds a person.
     *
     * @throws RefusedException when the sign-in is taken or the password is too short
     */
    @Transactional
    public Person add(String signIn, String name, String password, Role role) {
        String trimmed = signIn == null ? "" : signIn.strip();
        if (!trimmed.matches("[\\p{L}\\p{N}._@-]{2,60}")) {
            throw new RefusedException("A sign-in has 2 to 60 letters, digits, dots, dashes or @, without spaces.");
        }
        if (password == null || password.length() < SHORTEST_PASSWORD) {
            throw new RefusedException("The password is too short: it needs at least %d characters.".formatted(SHORTEST_PASSWORD));
        }
        if (people.whoSignsInAs(trimmed).isPresent()) {
            throw new RefusedException("Somebody signs in as “%s” already. Choose another sign-in.".formatted(trimmed));
        }
        return people.save(new Person(trimmed, name == null || name.isBlank() ? trimmed : name.strip(), encoder.encode(password), role));
    }

    @Override
    @Transactional
    public void run(ApplicationArguments arguments) {
        if (people.count() > 0 || properties.firstPeople().isBlank()) return;
        for (String entry : properties.firstPeople().strip().split("\n")) {
            String[] parts = entry.split(":", 3);
            if (parts.length != 3) throw new IllegalArgumentException("sarnik.first-people needs sign-in:role:password, a line each");
            add(parts[0], parts[0], parts[2], Role.valueOf(parts[1].toUpperCase(Locale.ROOT)));
            LOG.info("Made the {} {}", parts[1], parts[0]);
        }
    }
}
