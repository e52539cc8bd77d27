package sarnik.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** A word with which somebody signs in once who has lost the second factor. */
@Entity
@Table(name = "rescue_words")
class RescueWord {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long personId;
    private String hash;

    protected RescueWord() {}

    RescueWord(long personId, String hash) {
        this.personId = personId;
        this.hash = hash;
    }

    String getHash() {
        return hash;
    }
}
