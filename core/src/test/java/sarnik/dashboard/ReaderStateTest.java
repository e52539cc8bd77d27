package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.Fixture.DASHBOARD;
import static sarnik.dashboard.Fixture.DATASETS;

import java.time.LocalDate;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.StateReader;
import sarnik.state.ReaderState;
import sarnik.state.ReaderState.Part;
import sarnik.state.Value;

class ReaderStateTest {

    private static StateReader.Read read(String text) {
        return StateReader.read(text, DASHBOARD, DATASETS, Kinds.ALL);
    }

    @Test
    void choicesDatesAndPicksAreRead() {
        ReaderState state = read("f.f1=warm,still&f.f2=2026-01-01..2026-02-01&p.v4=open&lang=en")
                .state();
        assertThat(state.get(Part.FILTER, "f1", Value.Choice.class)
                        .orElseThrow()
                        .values())
                .containsExactly("still", "warm");
        assertThat(state.get(Part.FILTER, "f2", Value.Range.class))
                .contains(new Value.Range(LocalDate.of(2026, 1, 1), LocalDate.of(2026, 2, 1)));
        assertThat(state.get(Part.PICK, "v4", Value.Values.class)).contains(new Value.Values(List.of("open")));
    }

    @ParameterizedTest
    @CsvSource({
        "2026-01-01.., 2026-01-01..",
        "..2026-02-01, ..2026-02-01",
        "2026-03-01..2026-01-01, 2026-01-01..2026-03-01"
    })
    void datesMayBeOpenAndAreTurnedAround(String written, String canonical) {
        assertThat(read("f.f2=" + written).state().text()).isEqualTo("f.f2=" + canonical);
    }

    @ParameterizedTest
    @CsvSource({
        "f.f9=x, filter that this dashboard no longer has",
        "p.v9=x, pick on a visual that this dashboard no longer has",
        "p.v3=x, no longer has",
        "f.f2=soon, no date range",
        "f.f2=2026-99-01.., no date range",
        "f.f1=beer, asks for beer",
        "p.v4=gone, asks for gone"
    })
    void whatDoesNotFitIsLeftOutAndSaid(String text, String said) {
        StateReader.Read read = read(text);
        assertThat(read.state()).isEqualTo(ReaderState.NOTHING);
        assertThat(read.misfits()).singleElement().asString().contains(said).endsWith("left out.");
    }

    @Test
    void ofSeveralValuesOnlyTheStrangersAreLeftOut() {
        StateReader.Read read = read("f.f1=beer,still");
        assertThat(read.state().get(Part.FILTER, "f1", Value.Choice.class))
                .contains(new Value.Choice(List.of("still")));
        assertThat(read.misfits()).hasSize(1);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "&&&", "f.", "f.f1=", "=", "f.f1", "%%%", "p.v1=%zz", "x=1&y=2"})
    void nonsenseNeverFails(String text) {
        assertThat(read(text).state().text()).isEmpty();
    }

    @Property(tries = 200)
    void theTextFormIsReadBackAsItWas(@ForAll("values") List<String> values) {
        ReaderState state = ReaderState.NOTHING.with(Part.FILTER, "f1", new Value.Choice(values));
        Datasets any = id -> Datasets.Found.of(DATASETS.ready(id).map(d -> withProducts(d, values)));
        assertThat(StateReader.read(state.text(), DASHBOARD, any, Kinds.ALL).state())
                .isEqualTo(state);
    }

    @Test
    void twoDotsThatCanBeChosenAreAValueLikeOthers() {
        theTextFormIsReadBackAsItWas(List.of(".."));
    }

    @Provide
    Arbitrary<List<String>> values() {
        return Arbitraries.strings()
                .withChars("aé ,&=%+.~'\"<>/|ñ")
                .ofMinLength(1)
                .ofMaxLength(6)
                .list()
                .ofMinSize(1)
                .ofMaxSize(4);
    }

    private static LoadedDataset withProducts(LoadedDataset dataset, List<String> values) {
        var codes = sarnik.table.Codes.of(
                new int[dataset.table().rows()], dataset.table().rows(), values.size());
        var column = new sarnik.table.CodedColumn(sarnik.table.ColumnType.TEXT, codes, values);
        return new LoadedDataset(
                dataset.id(),
                dataset.name(),
                dataset.table().with(java.util.Map.of("product", column)),
                dataset.placing(),
                dataset.places());
    }
}
