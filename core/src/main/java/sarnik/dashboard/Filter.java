package sarnik.dashboard;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;

/** A control with which a reader narrows the rows of a page. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({@JsonSubTypes.Type(Filter.Choice.class), @JsonSubTypes.Type(Filter.Dates.class)})
public sealed interface Filter {

    String page();

    /** Its place in the strip. */
    int order();

    long dataset();

    String column();

    /** The words before the control; empty for the column's name. */
    String title();

    /** The words before the control. */
    default String words() {
        return title() == null || title().isEmpty() ? ColumnWords.of(column()) : title();
    }

    /** Any of the values of a text or yes/no column. */
    @JsonTypeName("choice")
    record Choice(String page, int order, long dataset, String column, String title) implements Filter {}

    /** A range of a date or time column. */
    @JsonTypeName("dates")
    record Dates(String page, int order, long dataset, String column, String title) implements Filter {}
}
