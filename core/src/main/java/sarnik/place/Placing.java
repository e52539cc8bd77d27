package sarnik.place;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** The recipe that says how a dataset's rows are located. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({
    @JsonSubTypes.Type(Placing.ByName.class),
    @JsonSubTypes.Type(Placing.ByTie.class),
    @JsonSubTypes.Type(Placing.ByCoordinates.class),
    @JsonSubTypes.Type(Placing.ByThing.class),
    @JsonSubTypes.Type(Placing.ByWords.class),
    @JsonSubTypes.Type(Placing.ByCode.class),
    @JsonSubTypes.Type(Placing.ByArea.class),
    @JsonSubTypes.Type(Placing.FromTo.class)
})
public sealed interface Placing {

    /** What rows are placed by, as people read it. */
    default String words() {
        if (this instanceof ByName n)
            return Stream.of(n.town(), n.province(), n.country())
                    .filter(Objects::nonNull)
                    .collect(Collectors.joining(", "));
        if (this instanceof ByCoordinates c)
            return c.lon() == null
                    ? "the coordinates in " + c.lat()
                    : "the coordinates in " + c.lat() + " and " + c.lon();
        if (this instanceof ByThing t) return "where each " + t.thing() + " is";
        if (this instanceof ByWords w) return "the words in " + w.column();
        if (this instanceof ByCode c) return "the code in " + c.column();
        if (this instanceof FromTo f) return "from " + f.from().words() + " to " + f.to().words();
        if (this instanceof ByArea a) return a.column() + " in " + a.set();
        return "a tie of " + ((ByTie) this).column() + " to " + ((ByTie) this).equals();
    }

    /** The columns that say where a row is. */
    default List<String> columns() {
        Stream<String> columns;
        if (this instanceof ByName n) columns = Stream.of(n.town(), n.province(), n.country());
        else if (this instanceof ByCoordinates c) columns = Stream.of(c.lat(), c.lon());
        else if (this instanceof ByThing t) columns = Stream.of(t.thing(), t.name(), t.lat(), t.lon());
        else if (this instanceof ByWords w) columns = Stream.of(w.column());
        else if (this instanceof ByCode c) columns = Stream.of(c.column());
        else if (this instanceof ByTie t) columns = Stream.of(t.column());
        else if (this instanceof ByArea a) columns = Stream.of(a.column());
        else {
            FromTo f = (FromTo) this;
            columns = Stream.concat(f.to().columns().stream(), f.from().columns().stream());
        }
        return columns.filter(Objects::nonNull).distinct().toList();
    }

    /** The recipes of which this one is made: those of origin and destination, else itself. */
    default Stream<Placing> ends() {
        return this instanceof FromTo f ? Stream.of(f.from(), f.to()) : Stream.of(this);
    }

    /** The ties that it needs. */
    default Stream<ByTie> ties() {
        return ends().filter(ByTie.class::isInstance).map(ByTie.class::cast);
    }

    /**
     * By names. Columns that are null do not take part; the narrowest given is what is placed, the wider ones help.
     */
    @JsonTypeName("name")
    record ByName(String town, String province, String country) implements Placing {

        @JsonIgnore
        public boolean isEmpty() {
            return town == null && province == null && country == null;
        }
    }

    /**
     * By a tie to another placed dataset: a row lies where the row with an equal value lies there.
     *
     * @param column column of this dataset
     * @param dataset the other dataset
     * @param equals column of the other dataset, whose values are unique
     */
    @JsonTypeName("tie")
    record ByTie(String column, long dataset, String equals) implements Placing {}

    /**
     * By coordinates.
     *
     * @param lat column of latitudes or northings, or of both numbers in one text
     * @param lon column of longitudes or eastings; null where {@code lat} holds both
     * @param epsg the projected system of the EPSG register that they are in; null for degrees (WGS 84)
     * @param alike other systems that the numbers fit as well, as long as nobody has said which it is; null where it
     *     is known
     */
    @JsonTypeName("coordinates")
    record ByCoordinates(String lat, String lon, Integer epsg, List<Integer> alike) implements Placing {

        public ByCoordinates {
            if (alike != null && (alike.isEmpty() || alike.contains(null))) alike = null;
        }

        /** In a system that is known. */
        public ByCoordinates(String lat, String lon, Integer epsg) {
            this(lat, lon, epsg, null);
        }

        /** In degrees. */
        public ByCoordinates(String lat, String lon) {
            this(lat, lon, null, null);
        }
    }

    /**
     * By things that say where they are, such as devices: each is a place of its own, wherever it goes.
     *
     * @param thing column that tells them apart
     * @param name column of what they are called; null for what tells them apart
     * @param lat column of latitudes, degrees (WGS 84)
     * @param lon column of longitudes
     */
    @JsonTypeName("thing")
    record ByThing(String thing, String name, String lat, String lon) implements Placing {}

    /** By one column of mixed words, such as "Soria, Spain" or "Zamora (Zamora)". */
    @JsonTypeName("words")
    record ByWords(String column) implements Placing {}

    /**
     * By codes: countries (ISO 3166-1 alpha-2, alpha-3), regions and provinces (ISO 3166-2, Spain's two digits),
     * Spanish
     * municipalities (five digits). Lost leading zeros are put back.
     */
    @JsonTypeName("code")
    record ByCode(String column) implements Placing {}

    /**
     * From one place to another: a row lies at its destination, and comes from its origin. Each may be placed in any
     * other way.
     *
     * @param from how the origin is placed
     * @param to how the destination is placed
     */
    @JsonTypeName("from-to")
    record FromTo(Placing from, Placing to) implements Placing {}

    /**
     * By the areas of a boundary set: a row lies in the area whose code or name its value is.
     *
     * @param column column of codes or names
     * @param set name of the boundary set
     */
    @JsonTypeName("area")
    record ByArea(String column, String set) implements Placing {}
}
