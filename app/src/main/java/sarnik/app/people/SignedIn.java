package sarnik.app.people;

import java.io.Serializable;
import java.util.Collection;
import java.util.List;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.userdetails.UserDetails;

/** The person of a session. */
public final class SignedIn implements UserDetails, Serializable {

    private static final long serialVersionUID = 2L;

    private final long id;
    private final String signIn;
    private final String name;
    private final String password;
    private final Role role;
    private final boolean closed;

    SignedIn(Person person) {
        id = person.getId();
        signIn = person.getSignIn();
        name = person.getName();
        password = person.getPassword();
        role = person.getRole();
        closed = person.isClosed();
    }

    @Override
    public boolean isEnabled() {
        return !closed;
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
