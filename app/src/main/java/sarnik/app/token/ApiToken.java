package sarnik.app.token;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.Set;
import java.util.stream.Collectors;

/** By which a program acts for a person. */
@Entity
@Table(name = "api_tokens")
class ApiToken {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long personId;
    private String name;
    private String hash;
    private String scopes;
    private Instant endsAt;
    private Instant madeAt;
    private Instant lastUsedAt;

    protected ApiToken() {}

    ApiToken(long personId, String name, String hash, Set<Scope> scopes, Instant endsAt, Instant madeAt) {
        this.personId = personId;
        this.name = name;
        this.hash = hash;
        this.scopes = scopes.stream().map(Scope::name).collect(Collectors.joining(" "));
        this.endsAt = endsAt;
        this.madeAt = madeAt;
    }

    Long getId() {
        return id;
    }

    long getPersonId() {
        return personId;
    }

    String getName() {
        return name;
    }

    Set<Scope> scopes() {
        return Arrays.stream(scopes.split(" "))
                .map(Scope::valueOf)
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(Scope.class)));
    }

    Instant getEndsAt() {
        return endsAt;
    }

    Instant getMadeAt() {
        return madeAt;
    }

    Instant getLastUsedAt() {
        return lastUsedAt;
    }

    void used(Instant at) {
        lastUsedAt = at;
    }
}
