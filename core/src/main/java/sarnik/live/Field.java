package sarnik.live;

import sarnik.table.ColumnType;

/**
 * A column of a feed and where its value stands in a message.
 *
 * @param at a JSON pointer (RFC 6901), see {@link MessageShape}
 * @param name the column's name
 * @param type text, yes/no or a number
 * @param unit as people write it behind a value; null for none
 */
public record Field(String at, String name, ColumnType type, String unit) {

    public Field {
        if (type != ColumnType.TEXT && type != ColumnType.YES_NO && !type.isNumber())
            throw new IllegalArgumentException("A reading holds numbers, text and yes/no, not " + type.words());
    }
}
