package sarnik.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** Somebody who can sign in. */
@Entity
@Table(name = "people")
public class Person {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String signIn;
    private String name;
    private String password;

    @Enumerated(EnumType.STRING)
    private Role role;

    /** Since when this person may not sign in any more; null for somebody who may. */
    private Instant closedAt;

    protected Person() {}

    /**
     * @param password hashed
     */
    public Person(String signIn, String name, String password, Role role) {
        this.signIn = signIn;
        this.name = name;
        this.password = password;
        this.role = role;
    }

    public Long getId() {
        return id;
    }

    public String getSignIn() {
        return signIn;
    }

    public String getName() {
        return name;
    }

    String getPassword() {
        return password;
    }

    public Role getRole() {
        return role;
    }

    public boolean isClosed() {
        return closedAt != null;
    }

    /** @param password hashed */
    void change(String password) {
        this.password = password;
    }

    void close(Instant at) {
        closedAt = at;
    }

    void reopen() {
        closedAt = null;
    }
}
