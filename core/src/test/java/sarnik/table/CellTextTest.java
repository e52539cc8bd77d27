package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.texts;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("What cannot be seen in a cell")
class CellTextTest {

    @TempDir
    Path directory;

    private Table read(Shaping shaping, String text) throws IOException {
        return new TableReader()
                .read(CsvFile.open(Files.writeString(directory.resolve("t.csv"), text), FileChoices.NONE), shaping)
                .table();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "San Juan",
                " San Juan\u00A0",
                "San\u00A0Juan",
                "San  Juan",
                "San \u00A0 Juan",
                "San\tJuan",
                "\u200BSan Juan\u2060",
                "\uFEFFSan Juan",
                "S\u00ADan Juan",
                "\u200ESan\u202FJuan\u200F"
            })
    void makesNoOtherWord(String written) {
        assertThat(CellText.plain(CellText.strip(written))).isEqualTo("San Juan");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "a",
                "Cádiz",
                "a\nb",
                "می\u200Cخواهم",
                "👨\u200D👩\u200D👧",
                "北京市",
                "naïve – “word”…",
                "Đà Nẵng",
                "\u212B"
            })
    void isAllThatIsTakenOut(String written) {
        assertThat(CellText.plain(CellText.strip(written))).isEqualTo(written);
    }

    @Test
    void accentsStandWithTheirLetters() {
        assertThat(CellText.plain("Ca\u0301diz")).isEqualTo("Cádiz");
        assertThat(CellText.plain("E\u0323\u0302")).isEqualTo("\u1EC6");
    }

    @ParameterizedTest
    @ValueSource(strings = {"\u00A0", " \u200B ", "\uFEFF", "\u3000", "\u202F\u2007"})
    void aloneIsNothing(String written) {
        assertThat(CellText.isBlank(written)).isTrue();
    }

    private static final String ODD = """
            town\u00A0,n,day,at,none
            Soria\u00A0,12\u00A0,2021-01-05\u00A0,"1/5/2021, 3:04\u202FPM",\u00A0
            Soria,\u00A013,\uFEFF2021-01-06,"1/25/2021, 3:04 PM",
            Ca\u0301diz,1\u00A0400,2021-01-07,"1/26/2021, 11:04\u202FAM",\u200B
            Cádiz,15,2021-01-08,"1/27/2021, 3:04 PM",
            Total\u00A0,\u00A0,,,
            """;

    @Test
    void splitsNoCategoryAndMakesNoNumberOrDateAText() throws IOException {
        Table table = read(Shaping.NONE, ODD);
        assertThat(table.names()).containsExactly("town", "n", "day", "at", "none");
        assertThat(texts(table, "town").subList(0, 4)).containsExactly("Soria", "Soria", "Cádiz", "Cádiz");
        assertThat(((CodedColumn) table.column("town")).dictionary()).hasSizeLessThanOrEqualTo(3);
        assertThat(texts(table, "n").subList(0, 4)).containsExactly("12.0", "13.0", "1400.0", "15.0");
        assertThat(texts(table, "day").subList(0, 2)).containsExactly("2021-01-05", "2021-01-06");
        assertThat(texts(table, "at").get(0)).isEqualTo("2021-01-05T15:04");
        assertThat(texts(table, "none")).containsOnlyNulls();
    }

    @Test
    void isReadAsBeforeInTablesThatWereBroughtInBefore() throws IOException {
        Shaping before = Shaping.NONE.withRows(null);
        assertThat(before.rows().tidy()).isFalse();
        Table table = read(before, ODD);
        assertThat(table.names()).contains("town\u00A0");
        assertThat(texts(table, "town\u00A0").subList(0, 2)).containsExactly("Soria\u00A0", "Soria");
    }
}
