package sarnik.sql;

import sarnik.formula.Kind;
import sarnik.formula.SqlDialect;
import sarnik.table.ColumnType;

/**
 * A column of a table that stays in its database, and how it is read here.
 *
 * @param name what it is called here
 * @param at what it is called there
 * @param held what it holds there
 * @param type what it is taken for here
 * @param clean of texts whether none is blank or has spaces around it there, so that an index of the database can be
 *     used
 */
public record SourceColumn(String name, String at, Held held, ColumnType type, boolean clean) {

    /** One of which it is not known yet whether its texts are clean. */
    public SourceColumn(String name, String at, Held held, ColumnType type) {
        this(name, at, held, type, false);
    }

    /** The same with what was found of its texts. */
    SourceColumn clean(boolean found) {
        return new SourceColumn(name, at, held, type, found);
    }

    /** Whether a text is blank or has spaces around it, as SQL; null where it holds no texts. */
    String unclean(SqlDialect dialect) {
        String raw = raw(dialect);
        return type == ColumnType.TEXT && held == Held.TEXT ? raw + " = '' OR " + raw + " <> TRIM(" + raw + ")" : null;
    }

    /** What a column of a database holds. */
    public enum Held {
        TEXT(ColumnType.TEXT),
        WHOLE(ColumnType.WHOLE),
        /** Decimal numbers with all their digits. */
        EXACT(ColumnType.DECIMAL),
        /** Floating-point numbers of 64 bits. */
        FLOAT(ColumnType.DECIMAL),
        /** Floating-point numbers of 32 bits. */
        SHORT_FLOAT(ColumnType.DECIMAL),
        DATE(ColumnType.DATE),
        /** Date-times without a zone. */
        TIME(ColumnType.TIME),
        /** Moments, which are read as date-times of UTC. */
        MOMENT(ColumnType.TIME),
        YES_NO(ColumnType.YES_NO),
        /** Anything else, read as the text that it is written as. */
        OTHER(ColumnType.TEXT);

        private final ColumnType usual;

        Held(ColumnType usual) {
            this.usual = usual;
        }

        /** What it is taken for where nobody says otherwise. */
        public ColumnType usual() {
            return usual;
        }

        /** Whether it can be taken for values of a type. */
        public boolean fits(ColumnType type) {
            return switch (this) {
                case TEXT -> true;
                case WHOLE, EXACT, FLOAT, SHORT_FLOAT ->
                    type == ColumnType.TEXT || type == ColumnType.DECIMAL || type == ColumnType.WHOLE && this == WHOLE;
                case DATE, TIME, MOMENT ->
                    type == ColumnType.TEXT || type == ColumnType.DATE || type == ColumnType.TIME;
                case YES_NO -> type == ColumnType.YES_NO || type == ColumnType.TEXT;
                case OTHER -> type == ColumnType.TEXT;
            };
        }
    }

    public SourceColumn {
        if (!held.fits(type))
            throw new IllegalArgumentException(
                    "“%s” holds something there that is not read as %s".formatted(name, type.words()));
    }

    /** Its values as SQL; decimal numbers as the database sums them up, with all their digits. */
    public String exact(SqlDialect dialect) {
        String raw = raw(dialect);
        return switch (type) {
            case TEXT -> text(dialect, raw);
            case WHOLE -> held == Held.TEXT ? dialect.read(raw, Kind.WHOLE) : dialect.cast(raw, Kind.WHOLE);
            case DECIMAL ->
                switch (held) {
                    case TEXT -> dialect.read(raw, Kind.DECIMAL);
                    case FLOAT -> dialect.finite(raw);
                    case SHORT_FLOAT -> dialect.shortFloat(raw);
                    case EXACT -> dialect.digits(raw);
                    default -> raw;
                };
            case DATE ->
                held == Held.TEXT
                        ? dialect.read(raw, Kind.DATE)
                        : held == Held.DATE ? raw : dialect.cast(time(dialect, raw), Kind.DATE);
            case TIME ->
                "DATE_TRUNC('second', " + (held == Held.TEXT ? dialect.read(raw, Kind.TIME) : time(dialect, raw)) + ")";
            case YES_NO -> held == Held.TEXT ? dialect.read(raw, Kind.YES_NO) : raw;
        };
    }

    /** The column itself, as an index of the database knows it; null where its values are made of it first. */
    String plain(SqlDialect dialect) {
        return type == ColumnType.TIME && (held == Held.TIME || held == Held.MOMENT) ? raw(dialect) : null;
    }

    private String raw(SqlDialect dialect) {
        return dialect.quoted(at);
    }

    private String time(SqlDialect dialect, String raw) {
        return switch (held) {
            case MOMENT -> dialect.utc(raw);
            case DATE -> dialect.cast(raw, Kind.TIME);
            default -> raw;
        };
    }

    private String text(SqlDialect dialect, String raw) {
        return switch (held) {
            // What is blank is missing, as in files.
            case TEXT -> clean ? dialect.cast(raw, Kind.TEXT) : "NULLIF(TRIM(" + raw + "), '')";
            case OTHER -> "NULLIF(TRIM(" + dialect.cast(raw, Kind.TEXT) + "), '')";
            case WHOLE, EXACT, FLOAT, SHORT_FLOAT -> dialect.cast(raw, Kind.TEXT);
            case DATE -> dialect.written(raw, Kind.DATE);
            case TIME, MOMENT -> dialect.written(time(dialect, raw), Kind.TIME);
            case YES_NO -> "(CASE WHEN " + raw + " THEN 'yes' WHEN NOT " + raw + " THEN 'no' END)";
        };
    }
}
