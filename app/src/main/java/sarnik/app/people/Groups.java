package sarnik.app.people;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.web.RefusedException;

/** Looks after groups of people, and after what is known of people and groups for rules on rows. */
@Service
public class Groups {

    private static final int LONGEST_NAME = 80;
    private static final int MOST_ATTRIBUTES = 60;
    private static final int LONGEST_VALUE = 200;

    private final PeopleGroupRepository groups;
    private final AttributeRepository attributes;
    private final PersonRepository people;

    Groups(PeopleGroupRepository groups, AttributeRepository attributes, PersonRepository people) {
        this.groups = groups;
        this.attributes = attributes;
        this.people = people;
    }

    /** A group as lists show it. */
    public record Listed(long id, String name, Set<Long> members) {}

    /** All groups, by name. */
    @Transactional(readOnly = true)
    public List<Listed> all() {
        return groups.inOrder().stream()
                .map(g -> new Listed(g.getId(), g.getName(), Set.copyOf(g.getMembers())))
                .toList();
    }

    /** The groups that a person is in. */
    @Transactional(readOnly = true)
    public Set<Long> of(long person) {
        return groups.of(person);
    }

    @Transactional(readOnly = true)
    public String nameOf(long id) {
        return groups.findById(id).map(PeopleGroup::getName).orElse("a group that has gone");
    }

    @Transactional(readOnly = true)
    public boolean isThere(long id) {
        return groups.existsById(id);
    }

    @Transactional
    Listed make(String name) {
        String clean = name == null ? "" : name.strip();
        if (clean.isEmpty() || clean.length() > LONGEST_NAME)
            throw new RefusedException("A group's name has 1 to %d characters.".formatted(LONGEST_NAME));
        if (groups.called(clean).isPresent())
            throw new RefusedException("There is a group called “%s” already.".formatted(clean));
        PeopleGroup made = groups.save(new PeopleGroup(clean));
        return new Listed(made.getId(), made.getName(), Set.of());
    }

    /** Takes a group away; what was given to it is given to nobody. */
    @Transactional
    void remove(long id) {
        groups.delete(needed(id));
    }

    /** Puts somebody into a group, or takes somebody out. */
    @Transactional
    void member(long id, long person, boolean in) {
        PeopleGroup group = needed(id);
        if (!people.existsById(person)) throw RefusedException.gone("person");
        if (in) group.getMembers().add(person);
        else group.getMembers().remove(person);
    }

    private PeopleGroup needed(long id) {
        return groups.findById(id).orElseThrow(() -> RefusedException.gone("group"));
    }

    /**
     * What rules on rows may name of a person: the own attributes and those of the groups, each with all its values;
     * besides {@code sign_in}, {@code name} and {@code group}.
     */
    @Transactional(readOnly = true)
    public Map<String, List<String>> attributesOf(SignedIn person) {
        Map<String, List<String>> all = new LinkedHashMap<>();
        for (Attribute attribute : attributes.of(person.id()))
            all.computeIfAbsent(attribute.getName(), n -> new ArrayList<>()).add(attribute.getValue());
        all.put("sign_in", List.of(person.getUsername()));
        all.put("name", List.of(person.name()));
        List<String> mine =
                groups.of(person.id()).stream().map(this::nameOf).sorted().toList();
        if (!mine.isEmpty()) all.put("group", mine);
        return all;
    }

    /** Somebody who looks. */
    @Transactional(readOnly = true)
    public Viewer viewer(SignedIn person) {
        return new Viewer(person, attributesOf(person));
    }

    /** The attributes of all people and groups in words: “province: Soria; province: Burgos”, by their id. */
    record Worded(Map<Long, String> people, Map<Long, String> groups) {}

    @Transactional(readOnly = true)
    Worded worded() {
        Worded all = new Worded(new LinkedHashMap<>(), new LinkedHashMap<>());
        for (Attribute a : attributes.inOrder()) {
            String words = a.getName() + ": " + a.getValue();
            if (a.getPersonId() != null) all.people.merge(a.getPersonId(), words, (x, y) -> x + "; " + y);
            else all.groups.merge(a.getGroupId(), words, (x, y) -> x + "; " + y);
        }
        return all;
    }

    /**
     * Sets what is known of a person or a group.
     *
     * @param words such as “province: Soria; province: Burgos”; empty for nothing
     * @throws RefusedException when they cannot be read; nothing is changed then
     */
    @Transactional
    void describe(Long person, Long group, String words) {
        if (person != null && !people.existsById(person)) throw RefusedException.gone("person");
        if (group != null) needed(group);
        List<Attribute> read = new ArrayList<>();
        for (String part : (words == null ? "" : words).split(";")) {
            if (part.isBlank()) continue;
            int colon = part.indexOf(':');
            String name = colon < 0 ? "" : part.substring(0, colon).strip();
            String value = colon < 0 ? "" : part.substring(colon + 1).strip();
            if (!name.matches("[a-z][a-z0-9_]{0,39}") || value.isEmpty() || value.length() > LONGEST_VALUE)
                throw new RefusedException(
                        ("“%s” cannot be read. Write a name of small letters, a colon and a value, such as "
                                        + "province: Soria, with semicolons in between. Nothing was changed.")
                                .formatted(part.strip()));
            read.add(new Attribute(person, group, name, value));
        }
        if (read.size() > MOST_ATTRIBUTES)
            throw new RefusedException("Up to %d values are kept.".formatted(MOST_ATTRIBUTES));
        if (person != null) attributes.deleteByPersonId(person);
        else attributes.deleteByGroupId(group);
        attributes.flush();
        attributes.saveAll(read);
    }
}
