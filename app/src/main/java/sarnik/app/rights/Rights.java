package sarnik.app.rights;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.LongFunction;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.Groups;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/**
 * Who may do what with dashboards and datasets. Owners and stewards may everything; others what was given to them, to a
 * group of theirs, to all analysts or to everybody. Who only reads by role never composes, whatever was given.
 */
@Service
public class Rights {

    private static final int MOST_GRANTS = 500;
    private static final int MOST_REQUESTS = 50;
    private static final int LONGEST_WORDS = 400;

    private final GrantRepository grants;
    private final RightRequestRepository requests;
    private final PeopleService people;
    private final Groups groups;

    Rights(GrantRepository grants, RightRequestRepository requests, PeopleService people, Groups groups) {
        this.grants = grants;
        this.requests = requests;
        this.people = people;
        this.groups = groups;
    }

    /** A thing that has an owner. */
    public record Owned(Thing thing, long id, String name, long owner) {}

    /** Whether somebody may do something with a thing. */
    @Transactional(readOnly = true)
    public boolean may(SignedIn person, Owned of, May what) {
        if (what != May.READ && !person.isAuthor()) return false;
        if (isOver(person, of.owner())) return true;
        Set<Long> mine = groups.of(person.id());
        return grants.findByThingAndThingId(of.thing(), of.id()).stream()
                .anyMatch(g -> g.getMay().holds(what) && meets(g.who(), person, mine));
    }

    /** What somebody may do with the things of a kind that are another's, by id. */
    @Transactional(readOnly = true)
    public Held held(Thing thing, SignedIn person) {
        Set<Long> mine = groups.of(person.id());
        Map<Long, May> given = new HashMap<>();
        for (Grant grant : grants.findByThing(thing))
            if (meets(grant.who(), person, mine))
                given.merge(grant.getThingId(), grant.getMay(), (a, b) -> a.holds(b) ? a : b);
        return new Held(person, given);
    }

    /**
     * What somebody may do with all things of a kind.
     *
     * @param given what was given to the person, by id of the thing
     */
    public record Held(SignedIn person, Map<Long, May> given) {
        public boolean may(long id, long owner, May what) {
            if (what != May.READ && !person.isAuthor()) return false;
            May known = given.get(id);
            return isOver(person, owner) || known != null && known.holds(what);
        }
    }

    private static boolean isOver(SignedIn person, long owner) {
        return person.role() == Role.STEWARD || person.id() == owner;
    }

    private static boolean meets(Who who, SignedIn person, Set<Long> groups) {
        return switch (who.kind()) {
            case PERSON -> who.id() == person.id();
            case GROUP -> groups.contains(who.id());
            case ANALYSTS -> person.isAuthor();
            case EVERYBODY -> true;
        };
    }

    /** Whether somebody is one of those named. */
    @Transactional(readOnly = true)
    public boolean isOne(SignedIn person, List<Who> named) {
        Set<Long> mine = groups.of(person.id());
        return named.stream().anyMatch(who -> meets(who, person, mine));
    }

    /**
     * Checks that somebody may do something with a thing.
     *
     * @throws RefusedException with 403 when they may not, and with 404 when they may not even know of it
     */
    @Transactional(readOnly = true)
    public void check(SignedIn person, Owned of, May what) {
        if (may(person, of, what)) return;
        if (!may(person, of, May.READ)) throw RefusedException.gone(of.thing().words());
        String whose = people.nameOf(of.owner());
        throw new RefusedException(
                HttpStatus.FORBIDDEN,
                "“%s” is %s's, who has not let you %s. Ask %s to, or a steward."
                        .formatted(of.name(), whose, what.words(), whose));
    }

    /** Somebody who may do something with a thing. */
    public record Given(Who who, String name, May may) {}

    /** To whom a thing is given. */
    @Transactional(readOnly = true)
    public List<Given> given(Thing thing, long id) {
        return grants.findByThingAndThingId(thing, id).stream()
                .map(g -> new Given(g.who(), nameOf(g.who()), g.getMay()))
                .sorted((a, b) -> a.who().kind() == b.who().kind()
                        ? a.name().compareToIgnoreCase(b.name())
                        : b.who().kind().compareTo(a.who().kind()))
                .toList();
    }

    /** What somebody, or some, are called. */
    @Transactional(readOnly = true)
    public String nameOf(Who who) {
        return switch (who.kind()) {
            case PERSON -> people.nameOf(who.id());
            case GROUP -> groups.nameOf(who.id());
            case ANALYSTS -> "all analysts";
            case EVERYBODY -> "everybody who can sign in";
        };
    }

    /** Whether a thing is given to some, at least so far. */
    @Transactional(readOnly = true)
    public boolean isGiven(Thing thing, long id, Who who, May may) {
        return grants.findByThingAndThingIdAndWhoAndWhoId(thing, id, who.kind(), who.id())
                .filter(g -> g.getMay().holds(may))
                .isPresent();
    }

    /**
     * Gives a right, or takes it back. Whether that is the giver's to do has been asked before.
     *
     * @param may null takes all back
     */
    @Transactional
    public void give(Thing thing, long id, Who who, May may) {
        var known = grants.findByThingAndThingIdAndWhoAndWhoId(thing, id, who.kind(), who.id());
        if (may == null) {
            known.ifPresent(grants::delete);
            return;
        }
        if (who.kind() == Who.Kind.PERSON && people.find(who.id()).isEmpty()) throw RefusedException.gone("person");
        if (who.kind() == Who.Kind.GROUP && !groups.isThere(who.id())) throw RefusedException.gone("group");
        if (known.isEmpty() && grants.findByThingAndThingId(thing, id).size() >= MOST_GRANTS)
            throw new RefusedException("It is given to %d already. Make a group of people.".formatted(MOST_GRANTS));
        Grant grant = known.orElseGet(() -> new Grant(thing, id, who));
        grant.give(may);
        grants.save(grant);
        if (who.kind() == Who.Kind.PERSON)
            requests.findByThingAndThingIdAndPersonId(thing, id, who.id())
                    .filter(r -> may.holds(r.getMay()))
                    .ifPresent(requests::delete);
    }

    /** Forgets what was given of a thing that is taken away. */
    @Transactional
    public void forget(Thing thing, long id) {
        grants.deleteByThingAndThingId(thing, id);
        requests.deleteByThingAndThingId(thing, id);
    }

    /** Asks for a right; asking again takes the place of what was asked before. */
    @Transactional
    public void ask(SignedIn person, Owned of, May may, String words) {
        if (may == null) throw new RefusedException("Say what you ask for: READ, COMPOSE or HAND_ON.");
        if (may(person, of, may)) throw new RefusedException("You may %s already.".formatted(may.words()));
        String said = words == null ? "" : words.strip();
        if (said.length() > LONGEST_WORDS)
            throw new RefusedException("A request has up to %d characters.".formatted(LONGEST_WORDS));
        RightRequest request = requests.findByThingAndThingIdAndPersonId(of.thing(), of.id(), person.id())
                .orElseGet(() -> new RightRequest(of.thing(), of.id(), person.id()));
        if (request.getId() == null && requests.countByPersonId(person.id()) >= MOST_REQUESTS)
            throw new RefusedException("%d requests of yours wait already.".formatted(MOST_REQUESTS));
        request.ask(may, said, Instant.now());
        requests.save(request);
    }

    /**
     * A request that waits.
     *
     * @param of what it is about
     */
    public record Asked(long id, Owned of, long person, String name, May may, String words) {
        public String sentence() {
            return "%s asks to %s: the %s “%s”%s"
                    .formatted(
                            name,
                            may.words(),
                            of.thing().words(),
                            of.name(),
                            words.isEmpty() ? "." : ". “" + words + "”");
        }
    }

    /**
     * The requests that somebody can answer.
     *
     * @param dashboards finds a dashboard by its id; null where it has gone
     * @param datasets finds a dataset by its id; null where it has gone
     */
    @Transactional(readOnly = true)
    public List<Asked> toAnswer(SignedIn person, LongFunction<Owned> dashboards, LongFunction<Owned> datasets) {
        if (!person.isAuthor()) return List.of();
        return requests.findAllByOrderByAskedAt().stream()
                .map(r -> {
                    Owned of = (r.getThing() == Thing.DASHBOARD ? dashboards : datasets).apply(r.getThingId());
                    return of == null
                            ? null
                            : new Asked(
                                    r.getId(),
                                    of,
                                    r.getPersonId(),
                                    people.nameOf(r.getPersonId()),
                                    r.getMay(),
                                    r.getWords());
                })
                .filter(asked -> asked != null && may(person, asked.of(), May.HAND_ON))
                .toList();
    }

    /** Answers a request: gives what was asked for, or not. */
    @Transactional
    public void answer(
            long id, boolean given, SignedIn person, LongFunction<Owned> dashboards, LongFunction<Owned> datasets) {
        Asked asked = toAnswer(person, dashboards, datasets).stream()
                .filter(a -> a.id() == id)
                .findFirst()
                .orElseThrow(() -> RefusedException.gone("request"));
        requests.deleteById(id);
        if (given) give(asked.of().thing(), asked.of().id(), Who.person(asked.person()), asked.may());
    }
}
