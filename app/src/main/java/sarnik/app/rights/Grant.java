package sarnik.app.rights;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** Somebody may do something with a thing. */
@Entity
@Table(name = "grants")
class Grant {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @Enumerated(EnumType.STRING)
    private Thing thing;

    private long thingId;

    @Enumerated(EnumType.STRING)
    private Who.Kind who;

    private long whoId;

    @Enumerated(EnumType.STRING)
    private May may;

    protected Grant() {}

    Grant(Thing thing, long thingId, Who who) {
        this.thing = thing;
        this.thingId = thingId;
        this.who = who.kind();
        this.whoId = who.id();
    }

    Who who() {
        return new Who(who, whoId);
    }

    long getThingId() {
        return thingId;
    }

    May getMay() {
        return may;
    }

    void give(May may) {
        this.may = may;
    }
}
