package sarnik.formula;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.ColumnValues;
import sarnik.table.Table;

/**
 * Answers of PostgreSQL 15, written down by the application's test of formulas, which asks it and compares them each
 * time. The file has the columns first: name, type, values. Then formulas: words, SQL, answers; or that it refused.
 */
@DisplayName("A formula gives the answer that was written down")
class RecordedAnswersTest {

    private static final String MISSING = "–";

    private final Map<String, ColumnValues> values = new LinkedHashMap<>();
    private final List<String[]> formulas = new ArrayList<>();
    private Table table;

    @BeforeEach
    void read() throws IOException {
        String text;
        try (InputStream in = getClass().getResourceAsStream("postgres.tsv")) {
            text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        for (String line : text.split("\n")) {
            String[] parts = line.split("\t", -1);
            if (Arrays.stream(ColumnType.values()).noneMatch(type -> type.name().equals(parts[1]))) formulas.add(parts);
            else {
                ColumnType type = ColumnType.valueOf(parts[1]);
                ColumnValues of = new ColumnValues(type, parts.length - 2);
                for (int row = 2; row < parts.length; row++) of.add(value(type, parts[row]));
                values.put(parts[0], of);
            }
        }
        Map<String, Column> columns = new LinkedHashMap<>();
        values.forEach((name, of) -> columns.put(name, of.build()));
        table = new Table(columns);
    }

    private static Object value(ColumnType type, String text) {
        if (text.equals(MISSING)) return null;
        return switch (type) {
            case WHOLE -> Long.valueOf(text);
            case DECIMAL -> Double.valueOf(text);
            case TEXT -> text;
            case DATE -> (int) LocalDate.parse(text).toEpochDay();
            case TIME -> LocalDateTime.parse(text).toEpochSecond(ZoneOffset.UTC);
            case YES_NO -> text.equals("yes");
        };
    }

    @Test
    void toEachFormulaInEachRow() {
        assertThat(formulas).hasSizeGreaterThan(500);
        SoftAssertions all = new SoftAssertions();
        for (String[] line : formulas) {
            Formula formula = Formula.parse(line[0], Scope.of(table));
            Formula.Computed computed = formula.compute(table, Surroundings.on(LocalDate.of(2026, 5, 31)));
            all.assertThat(formula.sql()).as(line[0]).isEqualTo(line[1]);
            if (line[2].equals("refused")) {
                all.assertThat(computed.unworked().count()).as(line[0]).isPositive();
                continue;
            }
            all.assertThat(computed.unworked().count()).as(line[0]).isZero();
            for (int row = 0; row < table.rows(); row++)
                all.assertThat(same(formula.kind(), computed.column().text(row), line[2 + row]))
                        .as(
                                "%s in row %d: %s, written down is %s",
                                line[0], row, computed.column().text(row), line[2 + row])
                        .isTrue();
        }
        all.assertAll();
    }

    private static boolean same(Kind kind, String ours, String theirs) {
        if (ours == null || theirs.equals(MISSING)) return ours == null && theirs.equals(MISSING);
        if (kind != Kind.DECIMAL) return ours.equals(theirs);
        double a = Double.parseDouble(ours);
        double b = Double.parseDouble(theirs);
        return Math.abs(a - b) <= 1e-9 * Math.max(1e-9, Math.max(Math.abs(a), Math.abs(b)));
    }
}
