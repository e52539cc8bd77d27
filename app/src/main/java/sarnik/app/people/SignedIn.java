package sarnik.app.people;

import jakarta.servlet.http.HttpServletRequest;
import java.io.Serializable;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.userdetails.UserDetails;

/** The person of a session. */
public class SignedIn implements UserDetails, Serializable {

    private static final long serialVersionUID = 3L;

    private final long id;
    private final String signIn;
    private final String name;
    private final String password;
    private final Role role;
    private final boolean closed;
    private final Instant wordUntil;
    private final boolean factor;

    SignedIn(Person person) {
        id = person.getId();
        signIn = person.getSignIn();
        name = person.getName();
        password = person.getPassword();
        role = person.getRole();
        closed = person.isClosed();
        wordUntil = person.getWordUntil();
        factor = person.getFactor() != null;
    }

    /** Who has sent a request; null for somebody who has not signed in. */
    public static SignedIn of(HttpServletRequest request) {
        return request.getUserPrincipal() instanceof Authentication signed
                        && signed.getPrincipal() instanceof SignedIn person
                ? person
                : null;
    }

    @Override
    public boolean isEnabled() {
        return !closed;
    }

    /** A word that was given out is good for a while only. */
    @Override
    public boolean isCredentialsNonExpired() {
        return wordUntil == null || Instant.now().isBefore(wordUntil);
    }

    /** Whether the password has to be changed before anything else is done. */
    boolean hasGivenWord() {
        return wordUntil != null;
    }

    /** Whether a code is asked for besides the password. */
    boolean hasFactor() {
        return factor;
    }

    /** One person is the same in all sessions. */
    @Override
    public boolean equals(Object other) {
        return other instanceof SignedIn signedIn && signedIn.id == id;
    }

    @Override
    public int hashCode() {
        return Long.hashCode(id);
    }

    public long id() {
        return id;
    }

    public String name() {
        return name;
    }

    public Role role() {
        return role;
    }

    /** Whether this person may bring data in and compose. */
    public boolean isAuthor() {
        return role != Role.READER;
    }

    @Override
    public Collection<? extends GrantedAuthority> getAuthorities() {
        return List.of(new SimpleGrantedAuthority("ROLE_" + role));
    }

    @Override
    public String getPassword() {
        return password;
    }

    @Override
    public String getUsername() {
        return signIn;
    }
}
