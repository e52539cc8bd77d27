package sarnik.app.rights;

/**
 * To whom something is given.
 *
 * @param kind a person, a group, or all of a kind
 * @param id the person's or the group's; 0 for the others, and where none is said
 */
public record Who(Kind kind, Long id) {

    /** All who bring data in and compose. */
    public static final Who ANALYSTS = new Who(Kind.ANALYSTS, 0L);

    /** All who can sign in. */
    public static final Who EVERYBODY = new Who(Kind.EVERYBODY, 0L);

    /** Of which kind. */
    public enum Kind {
        PERSON,
        GROUP,
        ANALYSTS,
        EVERYBODY
    }

    public Who {
        if (kind == null) throw new IllegalArgumentException("Say to whom it is given.");
        if (kind == Kind.ANALYSTS || kind == Kind.EVERYBODY || id == null) id = 0L;
    }

    public static Who person(long id) {
        return new Who(Kind.PERSON, id);
    }

    public static Who group(long id) {
        return new Who(Kind.GROUP, id);
    }
}
