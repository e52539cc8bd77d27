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

    private long changedBy;
    private Instant changedAt;

    protected StoredKey() {}

    StoredKey(String name, String words, String colour, long changedBy, Instant changedAt) {
        this.name = name;
        this.words = words;
        this.colour = colour;
        this.changedBy = changedBy;
        this.changedAt = changedAt;
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
