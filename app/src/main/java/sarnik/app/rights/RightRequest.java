package sarnik.app.rights;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** Somebody asks for a right. */
@Entity
@Table(name = "right_requests")
class RightRequest {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Enumerated(EnumType.STRING)
    private Thing thing;

    private long thingId;
    private long personId;

    @Enumerated(EnumType.STRING)
    private May may;

    private String words;
    private Instant askedAt;

    protected RightRequest() {}

    RightRequest(Thing thing, long thingId, long personId) {
        this.thing = thing;
        this.thingId = thingId;
        this.personId = personId;
    }

    void ask(May may, String words, Instant at) {
        this.may = may;
        this.words = words;
        this.askedAt = at;
    }

    Long getId() {
        return id;
    }

    Thing getThing() {
        return thing;
    }

    long getThingId() {
        return thingId;
    }

    long getPersonId() {
        return personId;
    }

    May getMay() {
        return may;
    }

    String getWords() {
        return words;
    }
}
