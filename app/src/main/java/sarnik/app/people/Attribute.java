package sarnik.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** Something known of a person, or of all in a group, that rules on rows can name. */
@Entity
@Table(name = "attributes")
class Attribute {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private Long personId;
    private Long groupId;
    private String name;
    private String value;

    protected Attribute() {}

    Attribute(Long personId, Long groupId, String name, String value) {
        this.personId = personId;
        this.groupId = groupId;
        this.name = name;
        this.value = value;
    }

    Long getPersonId() {
        return personId;
    }

    Long getGroupId() {
        return groupId;
    }

    String getName() {
        return name;
    }

    String getValue() {
        return value;
    }
}
