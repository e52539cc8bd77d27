package sarnik.place;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonSubTypes;

/** The recipe that says how a dataset's rows are located. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({@JsonSubTypes.Type(Placing.ByName.class), @JsonSubTypes.Type(Placing.ByTie.class)})
public sealed interface Placing {

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
}
