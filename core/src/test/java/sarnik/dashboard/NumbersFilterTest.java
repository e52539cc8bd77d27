package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Question;
import sarnik.visual.figure.FigureDrawing;

@DisplayName("A filter by a range of numbers")
class NumbersFilterTest {

    private static final LoadedDataset SALES = new LoadedDataset(
            1,
            "Sales",
            csv("town,litres,shop id", "Soria,10,1", "Soria,20.5,2", "Zamora,30,3", "Burgos,-4,4", "Burgos,,5"),
            null,
            Map.of());
    private static final Datasets DATASETS = id -> Datasets.Found.of(Optional.of(SALES));

    private static DashboardDocument document(String column) {
        return DashboardDocument.parse(("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}}, "
                        + "'filters': {'f1': {'type': 'numbers', 'page': 'p1', 'order': 1, 'dataset': 1, 'column': '"
                        + column + "', 'title': 'Litres'}}, 'links': {}, 'visuals': {'v1': {'page': 'p1', "
                        + "'at': {'x': 0, 'y': 0, 'w': 6, 'h': 4}, 'title': '', 'type': 'figure', 'dataset': 1, "
                        + "'measure': {'summary': 'COUNT'}}}}")
                .replace('\'', '"'));
    }

    private static final Dashboard DASHBOARD = document("litres").dashboard();

    private static StateReader.Read read(String state) {
        return StateReader.read(state, DASHBOARD, DATASETS, Kinds.ALL);
    }

    private static String rows(String state) {
        var drawing = new PageDrawer(
                        DASHBOARD,
                        read(state).state(),
                        new Sources(DATASETS),
                        new Answerer(new InMemoryEngine()),
                        Map.of())
                .draw("v1");
        assertThat(drawing).isNotInstanceOf(MisfitDrawing.class);
        return ((FigureDrawing) drawing).text();
    }

    @ParameterizedTest
    @CsvSource({"'', 5", "f.f1=10..30, 3", "f.f1=20.5.., 2", "f.f1=..0, 1", "f.f1=30..10, 3", "f.f1=100..200, 0"})
    void keepsBothEndsAndWhatLiesBetween(String state, String rows) {
        assertThat(rows(state)).isEqualTo(rows);
    }

    @ParameterizedTest
    @CsvSource({"f.f1=30..10, f.f1=10..30", "f.f1=1e2.., f.f1=100..", "f.f1=..-0.50, f.f1=..-0.5"})
    void isWrittenInOneWay(String written, String canonical) {
        assertThat(read(written).state().text()).isEqualTo(canonical);
    }

    @ParameterizedTest
    @CsvSource({"f.f1=..", "f.f1=a..b", "f.f1=NaN..1", "f.f1=1..Infinity", "f.f1=5"})
    void whatIsNoRangeIsSaid(String written) {
        assertThat(read(written).state().text()).isEmpty();
        assertThat(read(written).misfits()).singleElement().asString().contains("range of numbers");
    }

    @Test
    void saysWhatItKeeps() {
        List<Narrowing.Showing> showing = new Narrowing(
                        DASHBOARD, read("f.f1=10..20.5").state(), DATASETS, Kinds.ALL, LocalDate.EPOCH, Fixture.ENGINE)
                .nowShowing();
        assertThat(showing)
                .singleElement()
                .satisfies(one -> assertThat(one.words()).isEqualTo("Litres from 10 to 20.50"));
    }

    @Test
    void offersTheSpreadOfTheValues() {
        FilterOffer offer = FilterOffer.of(DASHBOARD.filters().get("f1"), Fixture.scene(DATASETS), Kinds.ALL);
        assertThat(offer.from()).isEqualTo("-4");
        assertThat(offer.to()).isEqualTo("30");
        assertThat(offer.spread()).hasSize(24).startsWith(100).endsWith(100);
        assertThat(offer.spread().stream().filter(share -> share > 0)).hasSize(4);
        assertThat(FilterOffer.of(document("town").dashboard().filters().get("f1"), Fixture.scene(DATASETS), Kinds.ALL)
                        .misfit())
                .contains("no longer holds numbers");
    }

    @Test
    void isProposedForWhatIsMeasuredAndNotForNames() {
        Dashboard empty = DashboardDocument.empty("T").dashboard();
        assertThat(new Proposals(empty, "p1", () -> "1")
                        .answer(Question.LET_CHOOSE, SALES).stream().map(Proposals.Added::words))
                .contains("A range of litres")
                .doesNotContain("A range of shop id");
    }
}
