package sarnik.app.audit;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** Something that was done. It never changes. */
@Entity
@Table(name = "acts")
public class Act {

    private static final int MOST_WHO = 60;
    private static final int MOST_WORDS = 400;
    private static final int MOST_ADDRESS = 64;

    /** What kind of thing was done. */
    public enum Kind {
        SIGNED_IN("signed in and out"),
        KEPT_OUT("kept out"),
        PEOPLE("people"),
        RIGHTS("rights"),
        PUBLISHED("published"),
        LINKS("links"),
        MADE("made"),
        REMOVED("taken away"),
        BROUGHT("rows brought in"),
        TAKEN("taken along");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private Instant doneAt;
    private String who;

    @Enumerated(EnumType.STRING)
    private Kind kind;

    private String words;
    private String address;

    protected Act() {}

    Act(Instant doneAt, String who, Kind kind, String words, String address) {
        this.doneAt = doneAt;
        this.who = cut(who, MOST_WHO);
        this.kind = kind;
        this.words = cut(words, MOST_WORDS);
        this.address = cut(address, MOST_ADDRESS);
    }

    private static String cut(String text, int most) {
        String plain = text == null ? "" : text.replace('\u0000', ' ');
        return plain.length() <= most ? plain : plain.substring(0, most - 1) + "…";
    }

    public Instant getDoneAt() {
        return doneAt;
    }

    public String getWho() {
        return who;
    }

    public Kind getKind() {
        return kind;
    }

    public String getWords() {
        return words;
    }

    public String getAddress() {
        return address;
    }
}
