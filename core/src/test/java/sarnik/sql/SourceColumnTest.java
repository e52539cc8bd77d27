package sarnik.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.formula.PostgresDialect;
import sarnik.formula.TrinoDialect;
import sarnik.table.ColumnType;

@DisplayName("Columns of tables that stay")
class SourceColumnTest {

    @ParameterizedTest(name = "{0} as {1}")
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "TEXT|TEXT|NULLIF(TRIM(\"c\"), '')|NULLIF(TRIM(\"c\"), '')",
                "WHOLE|WHOLE|CAST(\"c\" AS bigint)|CAST(\"c\" AS bigint)",
                "WHOLE|TEXT|CAST(\"c\" AS text)|CAST(\"c\" AS varchar)",
                "EXACT|DECIMAL|NULLIF(\"c\", 'NaN')|\"c\"",
                "FLOAT|DECIMAL|(CASE WHEN \"c\" > '-Infinity' AND \"c\" < 'Infinity' THEN \"c\" "
                        + "END)|IF(IS_FINITE(\"c\"), \"c\")",
                "DATE|DATE|\"c\"|\"c\"",
                "MOMENT|TIME|DATE_TRUNC('second', (\"c\" AT TIME ZONE 'UTC'))|DATE_TRUNC('second', "
                        + "CAST(AT_TIMEZONE(\"c\", 'UTC') AS timestamp(6)))",
                "TIME|DATE|CAST(\"c\" AS date)|CAST(\"c\" AS date)",
                "YES_NO|TEXT|(CASE WHEN \"c\" THEN 'yes' WHEN NOT \"c\" THEN 'no' END)|(CASE WHEN \"c\" THEN 'yes' "
                        + "WHEN NOT \"c\" THEN 'no' END)",
                "TEXT|WHOLE|(CASE WHEN \"c\" ~ '^\\s*[-+]?\\d{1,18}\\s*$' THEN CAST(BTRIM(\"c\") AS bigint) "
                        + "END)|TRY_CAST(TRIM(\"c\") AS bigint)"
            })
    void areReadAsTheirTypeSays(SourceColumn.Held held, ColumnType type, String postgres, String trino) {
        SourceColumn column = new SourceColumn("name", "c", held, type);
        assertThat(column.exact(PostgresDialect.INSTANCE)).isEqualTo(postgres);
        assertThat(column.exact(TrinoDialect.INSTANCE)).isEqualTo(trino);
    }

    @Test
    void ofWhichNoTextIsBlankAreAskedByTheirIndex() {
        SourceColumn column = new SourceColumn("name", "c", SourceColumn.Held.TEXT, ColumnType.TEXT);
        assertThat(column.clean(true).exact(PostgresDialect.INSTANCE)).isEqualTo("CAST(\"c\" AS text)");
        assertThat(column.unclean(PostgresDialect.INSTANCE)).isEqualTo("\"c\" = '' OR \"c\" <> TRIM(\"c\")");
    }

    @ParameterizedTest(name = "{0} as {1}")
    @CsvSource({"DATE, WHOLE", "EXACT, WHOLE", "YES_NO, DECIMAL", "OTHER, DATE", "MOMENT, YES_NO", "FLOAT, DATE"})
    void areNotReadAsWhatTheyAreNot(SourceColumn.Held held, ColumnType type) {
        assertThatThrownBy(() -> new SourceColumn("name", "c", held, type))
                .hasMessageContaining("“name” holds something there that is not read as");
    }
}
