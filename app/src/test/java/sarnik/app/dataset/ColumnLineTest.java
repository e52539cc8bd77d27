package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.TablePlacer;
import sarnik.table.ColumnType;
import sarnik.table.CsvFile;
import sarnik.table.FileChoices;
import sarnik.table.Reading;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;

@DisplayName("What pages say of a table")
class ColumnLineTest {

    @TempDir
    private Path directory;

    private Reading reading(String text) throws IOException {
        return new TableReader()
                .read(
                        CsvFile.open(Files.writeString(directory.resolve("t.csv"), text), FileChoices.NONE),
                        Shaping.NONE);
    }

    private Table table(String text) throws IOException {
        return reading(text).table();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "10,2000 | 10 to 2,000", "2.5,-1.25 | -1.25 to 2.50",
                        "2026-05-31,2024-02-29 | 2024-02-29 to 2026-05-31",
                "2026-05-31T12:30,2026-05-31T08:00 | 2026-05-31T08:00 to 2026-05-31T12:30", "Soria,Burgos | 2 distinct",
                        "yes,no | 2 distinct"
            })
    void aColumnIsSaidByItsRangeOrItsDistinctValues(String values, String holds) throws IOException {
        ColumnLine line = ColumnLine.of(table("v\n" + values.replace(',', '\n') + "\n"), "v");
        assertThat(line.holds()).isEqualTo(holds);
        assertThat(line.filled()).isEqualTo("all filled");
        assertThat(line.set()).isFalse();
    }

    @Test
    void howMuchIsFilledIsNeverRoundedToAllOrNothing() throws IOException {
        assertThat(ColumnLine.of(table("v,w\n" + "1,x\n".repeat(999) + ",x\n"), "v")
                        .filled())
                .isEqualTo("99 % filled");
        assertThat(ColumnLine.of(table("v,w\n" + ",x\n".repeat(999) + "1,x\n"), "v")
                        .filled())
                .isEqualTo("1 % filled");
        ColumnLine empty = ColumnLine.of(reading("v,w\n,x\n"), "v", Map.of("v", ColumnType.TEXT));
        assertThat(empty.filled()).isEqualTo("no value");
        assertThat(empty.set()).isTrue();
        assertThat(ColumnLine.of(reading("v\n" + "1\n".repeat(50) + "x\n"), "v", Map.of())
                        .unread())
                .isEqualTo(1);
    }

    @Test
    void aPreviewGathersPlacesAndListsDoubtsCommonestFirst() throws IOException {
        Table table = table("town,country\nSoria,Spain\nSoria,Spain\nNowhere,Spain\nNowhere,Spain\nNowhere,Spain\nEl "
                + "Espejismo,Spain\n");
        PlacedTable placed =
                new TablePlacer(Gazetteer.shipped()).byName(table, new Placing.ByName("town", null, "country"));
        PlacingPreview preview = PlacingPreview.of(placed);
        assertThat(preview.placed()).isEqualTo(2);
        assertThat(preview.unplaced()).isEqualTo(4);
        assertThat(preview.points()).singleElement().satisfies(p -> {
            assertThat(p.name()).isEqualTo("Soria");
            assertThat(p.rows()).isEqualTo(2);
            assertThat(p.state()).isZero();
        });
        assertThat(preview.doubts())
                .extracting(PlacingPreview.Doubt::words)
                .containsExactly("Nowhere, Spain", "El Espejismo, Spain");
        assertThat(preview.moreDoubts()).isZero();
    }

    @Test
    void aPlaceIsCalledByWhatTellsItFromItsNamesakes() {
        assertThat(PlacingPreview.called(
                        Gazetteer.shipped().search("Soria, Spain", 1).get(0)))
                .isEqualTo("Soria (ES, 39,528 people)");
        assertThat(PlacingPreview.called(
                        Gazetteer.shipped().search("Toledo, Ohio", 1).get(0)))
                .startsWith("Toledo, Ohio (US, ");
    }

    @Test
    void theFirstRowsAreShownAsTextWithoutWhatPlacingAdded() throws IOException {
        Table table = table("town,n\nSoria,1\n,2\nBurgos,3\n");
        Table placed = new TablePlacer(Gazetteer.shipped())
                .byName(table, new Placing.ByName("town", null, null))
                .table();
        assertThat(ShownRows.first(placed, 2)).containsExactly(List.of("Soria", "1"), List.of("", "2"));
    }
}
