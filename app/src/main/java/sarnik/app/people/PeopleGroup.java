package sarnik.app.people;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.Table;
import java.util.Set;
import java.util.TreeSet;

/** Some people under one name, to whom something can be given at once. */
@Entity
@Table(name = "people_groups")
class PeopleGroup {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    @ElementCollection(fetch = FetchType.EAGER)
    @CollectionTable(name = "people_group_members", joinColumns = @JoinColumn(name = "group_id"))
    @Column(name = "person_id")
    private Set<Long> members = new TreeSet<>();

    protected PeopleGroup() {}

    PeopleGroup(String name) {
        this.name = name;
    }

    Long getId() {
        return id;
    }

    String getName() {
        return name;
    }

    Set<Long> getMembers() {
        return members;
    }
}
