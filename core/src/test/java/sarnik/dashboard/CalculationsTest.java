package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.time.LocalDate;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.formula.Kind;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.query.Frame;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Summary;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("Calculations over a table")
class CalculationsTest {

    private final Table table = TestTables.csv(
            "town,litres,people,state",
            "Soria,10,40,final",
            "Soria,20,40,draft",
            "Zamora,6,3,final",
            "Zamora,,3,final");

    private static Calculations.Item column(String name, String text) {
        return new Calculations.Item(name, text, false);
    }

    private static Calculations.Item measure(String name, String text) {
        return new Calculations.Item(name, text, true);
    }

    private Calculations.Applied apply(List<Calculations.Item> items, String... rules) {
        return new Calculations(items, List.of(rules))
                .apply(table, Scope.of(table), Surroundings.on(LocalDate.of(2026, 5, 31)));
    }

    @Test
    void growTheTableColumnByColumn() {
        Calculations.Applied applied = apply(List.of(column("twice", "litres * 2"), column("more", "twice + 1")));
        assertThat(applied.table().names()).containsExactly("town", "litres", "people", "state", "twice", "more");
        assertThat(applied.table().column("more").text(1)).isEqualTo("41");
        assertThat(applied.table().column("more").isMissing(3)).isTrue();
        assertThat(applied.troubles()).isEmpty();
    }

    @Test
    void sumGroupsUpUnderTheirRules() {
        Calculations.Applied applied = apply(
                List.of(measure("a head", "SUM(litres) / SUM(people) FILTER (WHERE litres IS NOT NULL)")),
                "state = 'final'");
        Query query = Query.of(
                        applied.rules(), List.of("town"), List.of(new Measure(Summary.FORMULA, "a head"), Measure.ROWS))
                .with(applied.measures());
        Frame frame = new InMemoryEngine().answer(applied.table(), query);
        assertThat(frame.keys().get(0)).containsExactly("Soria", "Zamora");
        assertThat(frame.values().get(0)).containsExactly(0.25, 2);
        assertThat(frame.trail().steps().get(1).words()).isEqualTo("state = 'final'");
        assertThat(frame.trail().steps().get(1).left()).isEqualTo(3);
    }

    @Test
    void leaveOutWhatDoesNotWorkAndTouchNothingElse() {
        Calculations.Applied applied = apply(
                List.of(column("odd", "height * 2"), column("fine", "litres + 1"), column("after", "odd + 1")),
                "people > 3",
                "height > 1",
                "litres");
        assertThat(applied.table().names()).contains("fine").doesNotContain("odd", "after");
        assertThat(applied.table().names()).contains("@rule 1").doesNotContain("@rule 2", "@rule 3");
        assertThat(applied.troubles())
                .extracting(Calculations.Trouble::of)
                .containsExactly("odd", "after", "height > 1", "litres");
        assertThat(applied.troubles().get(0))
                .satisfies(t -> assertThat(List.of(t.from(), t.to())).containsExactly(0, 6));
        assertThat(applied.troubles().get(3).words()).contains("A standing rule is a condition");
    }

    @Test
    void answerNothingWithoutARuleThatDoesNotWork() {
        Calculations.Applied applied = apply(List.of(), "people > 3", "height > 1");
        LoadedDataset dataset = new LoadedDataset(
                1,
                "Towns",
                applied.table(),
                null,
                Map.of(),
                About.NONE,
                Map.of(),
                applied.rules(),
                List.of(),
                Boundaries.NONE);
        assertThatThrownBy(dataset::rules)
                .isInstanceOf(MisfitException.class)
                .hasMessageStartingWith("“Towns” always shows only rows where height > 1, which does not work");
        assertThat(dataset.previews().of(dataset, new InMemoryEngine()))
                .as("what can be measured is offered, without figures")
                .isNotEmpty()
                .allSatisfy(preview -> assertThat(preview.words()).isEmpty());
    }

    @Test
    void tellWhichRulesWouldNotWork() {
        Calculations calculations = new Calculations(
                List.of(column("double", "litres * 2"), measure("all", "SUM(litres)")),
                List.of("double > 3", "people > 1", "litres"));
        Scope scope = Scope.of(apply(List.of()).table());
        assertThat(calculations.rulesAmiss(scope)).containsExactly("litres");
        Map<String, Kind> fewer = new HashMap<>(scope.columns());
        fewer.remove("litres");
        assertThat(calculations.rulesAmiss(new Scope(fewer, Map.of(), Set.of(), Set.of())))
                .containsExactly("double > 3", "litres");
    }

    @Test
    void sayInHowManyRowsThereIsNoValue() {
        Calculations.Applied applied = apply(List.of(column("share", "litres / (people - 3)")));
        assertThat(applied.troubles())
                .singleElement()
                .satisfies(
                        t -> assertThat(t.words()).isEqualTo("1 row has no value: division by zero, first in row 3."));
        assertThat(applied.table().column("share").text(0)).isEqualTo("0");
    }

    @Test
    void sayOfMeasuresAndRulesInHowManyRowsTheyCannotBeWorkedOut() {
        Calculations.Applied applied = apply(
                List.of(
                        measure("all", "SUM(litres / (people - 3))"),
                        measure("others", "SUM(litres / (people - 3)) FILTER (WHERE people <> 3)"),
                        measure("chosen", "COUNT(*) FILTER (WHERE 1 / (people - 3) >= 0)"),
                        measure("twice", "SUM(1 / (people - 3)) + AVG(2 / (people - 3))"),
                        measure("plain", "SUM(litres)")),
                "1 / (people - 3) >= 0");
        String once = "1 row has no value: division by zero, first in row 3.";
        String twice = "2 rows have no value: division by zero, first in row 3.";
        assertThat(applied.troubles())
                .extracting(Calculations.Trouble::of, Calculations.Trouble::words, Calculations.Trouble::some)
                .containsExactly(
                        tuple("all", once, true),
                        tuple("chosen", twice, true),
                        tuple("twice", twice, true),
                        tuple("1 / (people - 3) >= 0", twice, true));
        assertThat(applied.measures()).hasSize(5);
        assertThat(applied.rules()).hasSize(1);
    }

    @Test
    void needNamesThatAreFree() {
        Calculations.Applied applied = apply(List.of(
                column("town", "1"), measure("m", "COUNT(*)"), column("m", "1"), column(" ", "1"), column("@x", "1")));
        assertThat(applied.troubles())
                .hasSize(4)
                .extracting(Calculations.Trouble::words)
                .allMatch(w -> w.contains("is taken") || w.contains("a name of 1 to 120"));
        assertThatThrownBy(() -> new Calculations(Collections.nCopies(61, column("x", "1")), List.of()))
                .hasMessageContaining("60");
    }

    @Test
    void areNothingByDefault() {
        assertThat(new Calculations(null, null)).isEqualTo(Calculations.NONE);
        assertThat(apply(List.of()).table().names()).isEqualTo(table.names());
    }

    @Test
    void whatIsToldOfADatasetIsOneLine() {
        About about =
                new About(" Refills ", "Aljibe", null, "CC0", "", Map.of("litres", new About.OfColumn(" L ", null)));
        assertThat(about.line()).isEqualTo("Refills; source: Aljibe; licence: CC0");
        assertThat(about.unit("litres")).isEqualTo("L");
        assertThat(about.unit("people")).isEmpty();
        assertThat(about.isEmpty()).isFalse();
        assertThat(About.NONE.isEmpty()).isTrue();
        assertThat(About.NONE.line()).isEmpty();
    }
}
