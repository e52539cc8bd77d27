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

    /** Until when a word signs this person in that a steward has given out; null for a password of the own. */
    private Instant wordUntil;

    /** The secret of the second factor, base 32; null for none. */
    private String factor;

    /** By what a provider outside knows this person; null for somebody who signs in here only. */
    private String outside;

    /** The newest step of time whose code was taken. */
    private long factorStep;

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
        this.wordUntil = null;
    }

    /** Takes a word that has to be changed. @param hashed @param until it signs in no more after */
    void give(String hashed, Instant until) {
        password = hashed;
        wordUntil = until;
    }

    public String getOutside() {
        return outside;
    }

    /** @param known null for nothing */
    void outside(String known) {
        outside = known;
    }

    Instant getWordUntil() {
        return wordUntil;
    }

    String getFactor() {
        return factor;
    }

    /** @param secret null takes the second factor away */
    void factor(String secret) {
        factor = secret;
        factorStep = 0;
    }

    /** Takes the code of a step of time, each once. @return whether it was not taken before */
    boolean take(long step) {
        if (step <= factorStep) return false;
        factorStep = step;
        return true;
    }

    void close(Instant at) {
        closedAt = at;
    }

    void reopen() {
        closedAt = null;
    }
}
