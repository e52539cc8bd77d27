package sarnik.app.share;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.people.Groups;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.rights.Who;
import sarnik.app.web.RefusedException;

/** Gives rights on dashboards and datasets, takes them back, and hears requests for them. */
@RestController
class RightsApi {

    private static final Map<String, Thing> KINDS = Map.of("dashboards", Thing.DASHBOARD, "datasets", Thing.DATASET);

    private final Things things;
    private final Rights rights;
    private final PeopleService people;
    private final Groups groups;

    RightsApi(Things things, Rights rights, PeopleService people, Groups groups) {
        this.things = things;
        this.rights = rights;
        this.people = people;
        this.groups = groups;
    }

    /** Somebody to whom something can be given. */
    record Candidate(Who who, String name) {}

    /**
     * Who may do what with a thing.
     *
     * @param owner the owner's name
     * @param candidates to whom it could be given besides
     */
    record Sheet(String owner, List<Rights.Given> given, List<Candidate> candidates) {}

    /** A right to be given; null as what it is takes all back. */
    record Give(Who who, May may) {}

    @GetMapping("/api/dashboards/{id}/grants")
    Sheet ofDashboard(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        return sheet(things.needed(Thing.DASHBOARD, id, May.HAND_ON, person));
    }

    @GetMapping("/api/datasets/{id}/grants")
    Sheet ofDataset(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        return sheet(things.needed(Thing.DATASET, id, May.HAND_ON, person));
    }

    private Sheet sheet(Rights.Owned of) {
        List<Rights.Given> given = rights.given(of.thing(), of.id());
        List<Candidate> candidates = new ArrayList<>();
        candidates.add(new Candidate(Who.EVERYBODY, rights.nameOf(Who.EVERYBODY)));
        candidates.add(new Candidate(Who.ANALYSTS, rights.nameOf(Who.ANALYSTS)));
        groups.all().forEach(g -> candidates.add(new Candidate(Who.group(g.id()), g.name())));
        people.all().stream()
                .filter(p -> p.getId() != of.owner() && !p.isClosed())
                .forEach(p -> candidates.add(new Candidate(Who.person(p.getId()), p.getName())));
        candidates.removeIf(c -> given.stream().anyMatch(g -> g.who().equals(c.who())));
        return new Sheet(people.nameOf(of.owner()), given, candidates);
    }

    @PutMapping("/api/dashboards/{id}/grants")
    Sheet giveDashboard(@PathVariable long id, @RequestBody Give give, @AuthenticationPrincipal SignedIn person) {
        return give(things.needed(Thing.DASHBOARD, id, May.HAND_ON, person), give);
    }

    @PutMapping("/api/datasets/{id}/grants")
    Sheet giveDataset(@PathVariable long id, @RequestBody Give give, @AuthenticationPrincipal SignedIn person) {
        return give(things.needed(Thing.DATASET, id, May.HAND_ON, person), give);
    }

    private Sheet give(Rights.Owned of, Give give) {
        if (give.who() == null) throw new RefusedException("Say to whom it is given.");
        rights.give(of.thing(), of.id(), give.who(), give.may());
        return sheet(of);
    }

    /**
     * A request for a right.
     *
     * @param kind dashboards or datasets
     * @param words why; may be empty
     */
    record Ask(String kind, long id, May may, String words) {}

    /** Asks for a right. Whether there is such a thing is not told by the answer. */
    @PostMapping("/api/requests")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void ask(@RequestBody Ask ask, @AuthenticationPrincipal SignedIn person) {
        Thing thing = ask.kind() == null ? null : KINDS.get(ask.kind());
        if (thing == null) throw new RefusedException("Say what is asked for: dashboards or datasets.");
        Rights.Owned of = things.find(thing, ask.id());
        if (of != null) rights.ask(person, of, ask.may(), ask.words());
    }

    /** The requests that this person can answer. */
    @GetMapping("/api/requests")
    List<Rights.Asked> toAnswer(@AuthenticationPrincipal SignedIn person) {
        return rights.toAnswer(person, id -> things.find(Thing.DASHBOARD, id), id -> things.find(Thing.DATASET, id));
    }

    @PostMapping("/api/requests/{request}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void answer(@PathVariable long request, @RequestBody boolean given, @AuthenticationPrincipal SignedIn person) {
        rights.answer(
                request, given, person, id -> things.find(Thing.DASHBOARD, id), id -> things.find(Thing.DATASET, id));
    }
}
