package sarnik.app.key;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A shared key as it is stored. */
@Entity
@Table(name = "shared_keys")
class StoredKey {

    @Id
    private String name;

    private String words;

    @JdbcTypeCode(SqlTypes.JSON)
    private String colour;

    private long createdBy;

    /** Whether other authors may change and remove it. */
    private boolean shared;

    private long changedBy;
    private Instant changedAt;

    protected StoredKey() {}

    StoredKey(String name, long createdBy) {
        this.name = name;
        this.createdBy = createdBy;
    }

    void change(String words, String colour, long by, Instant at) {
        this.words = words;
        this.colour = colour;
        this.changedBy = by;
        this.changedAt = at;
    }

    long getCreatedBy() {
        return createdBy;
    }

    boolean isShared() {
        return shared;
    }

    String getName() {
        return name;
    }

    String getWords() {
        return words;
    }

    String getColour() {
        return colour;
    }
}
