package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.table.TestTables.csv;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sarnik.table.Table;

@DisplayName("The engine")
class InMemoryEngineTest {

    private final QueryEngine engine = new InMemoryEngine();
    private final Table refills = csv(
            "town,product,litres,pieces,day,open",
            "Soria,still,10,1,2026-01-01,yes",
            "Soria,warm,20.5,2,2026-01-02,no",
            "Zamora,still,5,,2026-01-02,yes",
            "Zamora,still,,4,2026-02-01,",
            ",warm,7,5,,yes",
            "Ávila,still,20.5,6,2026-03-01,no");

    private Frame ask(List<Stage> stages, List<String> groupBy, Measure... measures) {
        return engine.answer(refills, Query.of(stages, groupBy, List.of(measures)));
    }

    private static Stage only(Condition... conditions) {
        return new Stage("a stage", List.of(conditions));
    }

    @Nested
    @DisplayName("sums up")
    class Measures {

        @Test
        void everyKindOfMeasureLeavesMissingValuesOut() {
            Frame frame = ask(
                    List.of(),
                    List.of(),
                    new Measure(Summary.SUM, "litres"),
                    new Measure(Summary.AVERAGE, "litres"),
                    new Measure(Summary.COUNT, "litres"),
                    new Measure(Summary.MINIMUM, "litres"),
                    new Measure(Summary.MAXIMUM, "litres"),
                    new Measure(Summary.DISTINCT, "litres"),
                    Measure.ROWS);
            double[] expected = {63, 12.6, 5, 5, 20.5, 4, 6};
            for (int m = 0; m < expected.length; m++)
                assertThat(frame.value(m, 0)).isEqualTo(expected[m]);
        }

        @Test
        void countsTakeColumnsOfAnyKind() {
            Frame frame = ask(
                    List.of(),
                    List.of(),
                    new Measure(Summary.COUNT, "town"),
                    new Measure(Summary.DISTINCT, "town"),
                    new Measure(Summary.DISTINCT, "day"),
                    new Measure(Summary.COUNT, "open"),
                    new Measure(Summary.DISTINCT, "open"));
            assertThat(frame.values()).extracting(v -> v[0]).containsExactly(5.0, 3.0, 4.0, 5.0, 2.0);
        }

        @Test
        void aGroupWithoutValuesHasNoSumButACountOfZero() {
            Frame frame = ask(
                    List.of(only(new Condition.OneOf("day", List.of("2026-02-01")))),
                    List.of("town"),
                    new Measure(Summary.SUM, "litres"),
                    new Measure(Summary.COUNT, "litres"));
            assertThat(frame.value(0, 0)).isNaN();
            assertThat(frame.value(1, 0)).isZero();
        }

        @Test
        void withoutGroupsThereIsAlwaysOneEntry() {
            Frame frame = ask(
                    List.of(only(new Condition.OneOf("town", List.of()))),
                    List.of(),
                    Measure.ROWS,
                    new Measure(Summary.SUM, "litres"));
            assertThat(frame.size()).isEqualTo(1);
            assertThat(frame.value(0, 0)).isZero();
            assertThat(frame.value(1, 0)).isNaN();
        }
    }

    @Nested
    @DisplayName("groups")
    class Groups {

        @Test
        void missingKeysMakeAGroupOfTheirOwnLast() {
            Frame frame = ask(List.of(), List.of("town"), Measure.ROWS);
            assertThat(frame.keys().get(0)).containsExactly("Soria", "Zamora", "Ávila", null);
            assertThat(frame.values().get(0)).containsExactly(2, 2, 1, 1);
        }

        @Test
        void orAreLeftOutAsAStepOfTheTrail() {
            Frame frame = engine.answer(
                    refills,
                    new Query(
                            List.of(),
                            List.of("town"),
                            Query.Missing.LEFT_OUT,
                            List.of(Measure.ROWS),
                            Optional.empty(),
                            Sort.BY_KEY,
                            10));
            assertThat(frame.keys().get(0)).containsExactly("Soria", "Zamora", "Ávila");
            assertThat(frame.trail().steps()).extracting(RowTrail.Step::left).containsExactly(6L, 5L, 3L);
        }

        @Test
        void bySeveralColumnsOfAnyKind() {
            Frame frame = ask(List.of(), List.of("open", "day"), Measure.ROWS);
            List<String> keys = new java.util.ArrayList<>();
            for (int g = 0; g < frame.size(); g++) keys.add(frame.key(0, g) + " " + frame.key(1, g));
            assertThat(keys)
                    .containsExactly(
                            "no 2026-01-02",
                            "no 2026-03-01",
                            "yes 2026-01-01",
                            "yes 2026-01-02",
                            "yes null",
                            "null 2026-02-01");
        }

        @Test
        void byNumbersTooInTheirOrder() {
            assertThat(ask(List.of(), List.of("litres"), Measure.ROWS).keys().get(0))
                    .containsExactly("5.0", "7.0", "10.0", "20.5", null);
            assertThat(ask(List.of(), List.of("pieces"), Measure.ROWS).keys().get(0))
                    .containsExactly("1", "2", "4", "5", "6", null);
        }
    }

    @Nested
    @DisplayName("narrows")
    class Conditions {

        private long rows(Condition condition) {
            return (long) ask(List.of(only(condition)), List.of(), Measure.ROWS).value(0, 0);
        }

        @Test
        void boundsAreIncludedAndMissingValuesNever() {
            assertThat(rows(new Condition.Between("litres", "7", "20.5"))).isEqualTo(4);
            assertThat(rows(new Condition.Between("litres", null, null))).isEqualTo(5);
            assertThat(rows(new Condition.Between("day", "2026-01-02", "2026-02-01")))
                    .isEqualTo(3);
            assertThat(rows(new Condition.Between("pieces", null, "2.9"))).isEqualTo(2);
            assertThat(rows(new Condition.Filled("town"))).isEqualTo(5);
            assertThat(rows(new Condition.Filled("open"))).isEqualTo(5);
        }

        @Test
        void oneOfTakesValuesInTheirCanonicalText() {
            assertThat(rows(new Condition.OneOf("town", List.of("Soria", "Ávila", "Atlantis"))))
                    .isEqualTo(3);
            assertThat(rows(new Condition.OneOf("open", List.of("no")))).isEqualTo(2);
            assertThat(rows(new Condition.OneOf("litres", List.of("20.5", "5"))))
                    .isEqualTo(3);
            assertThat(rows(new Condition.OneOf("pieces", List.of("4")))).isEqualTo(1);
            assertThat(rows(new Condition.OneOf("day", List.of("2026-01-02")))).isEqualTo(2);
        }

        @Test
        void aDayOfATimeColumnReachesToItsEnd() {
            Table readings = csv("at,v", "2026-01-01T00:00,1", "2026-01-01T23:59:59,2", "2026-01-02T00:00,3");
            Frame frame = engine.answer(
                    readings,
                    Query.of(
                            List.of(only(new Condition.Between("at", "2026-01-01", "2026-01-01"))),
                            List.of(),
                            List.of(Measure.ROWS)));
            assertThat(frame.value(0, 0)).isEqualTo(2);
        }

        @Test
        void theTrailCountsWhatEachStageLeaves() {
            Frame frame = ask(
                    List.of(
                            only(new Condition.OneOf("product", List.of("still"))),
                            only(new Condition.Filled("litres"))),
                    List.of("town"),
                    Measure.ROWS);
            assertThat(frame.trail().steps()).extracting(RowTrail.Step::left).containsExactly(6L, 4L, 3L, 3L);
            assertThat(frame.trail().rows()).isEqualTo(3);
        }

        @Test
        void whatDoesNotFitIsSaidInASentence() {
            assertThatThrownBy(() -> rows(new Condition.Between("town", "a", "b")))
                    .isInstanceOf(QueryException.class)
                    .hasMessageContaining("“town” holds text");
            assertThatThrownBy(() -> rows(new Condition.Between("litres", "many", null)))
                    .hasMessageContaining("“many” is not a number");
            assertThatThrownBy(() -> rows(new Condition.Between("day", "soon", null)))
                    .hasMessageContaining("“soon” is not a date");
            assertThatThrownBy(() -> rows(new Condition.Filled("colour"))).hasMessageContaining("no column “colour”");
            assertThatThrownBy(() -> ask(List.of(), List.of(), new Measure(Summary.SUM, "town")))
                    .hasMessageContaining("needs numbers");
        }
    }

    @Nested
    @DisplayName("ranks and sorts")
    class Order {

        private String[] ranked(Rank rank, Sort sort) {
            return engine.answer(
                            refills,
                            new Query(
                                    List.of(),
                                    List.of("town"),
                                    Query.Missing.KEPT,
                                    List.of(new Measure(Summary.MAXIMUM, "litres")),
                                    Optional.of(rank),
                                    sort,
                                    10))
                    .keys()
                    .get(0);
        }

        @Test
        void cutTiesFallByKey() {
            assertThat(ranked(new Rank(0, Rank.End.TOP, 1, false), new Sort(0, true)))
                    .containsExactly("Soria");
        }

        @Test
        void keptTiesStay() {
            assertThat(ranked(new Rank(0, Rank.End.TOP, 1, true), new Sort(0, true)))
                    .containsExactly("Soria", "Ávila");
        }

        @Test
        void theBottomIsTheSmallest() {
            assertThat(ranked(new Rank(0, Rank.End.BOTTOM, 2, false), new Sort(0, false)))
                    .containsExactly("Zamora", null);
        }

        @Test
        void missingMeasuresStandLastEitherWay() {
            for (boolean descending : new boolean[] {true, false}) {
                Frame frame = engine.answer(
                        refills,
                        new Query(
                                List.of(only(
                                        new Condition.OneOf("town", List.of("Zamora", "Soria")),
                                        new Condition.Between("day", "2026-01-01", "2026-02-01"))),
                                List.of("day"),
                                Query.Missing.KEPT,
                                List.of(new Measure(Summary.SUM, "litres")),
                                Optional.empty(),
                                new Sort(0, descending),
                                10));
                assertThat(frame.keys().get(0)[2]).isEqualTo("2026-02-01");
            }
        }

        @Test
        void theLimitCutsAfterSortingAndIsAStep() {
            Frame frame = engine.answer(
                    refills,
                    new Query(
                            List.of(),
                            List.of("town"),
                            Query.Missing.KEPT,
                            List.of(Measure.ROWS),
                            Optional.empty(),
                            new Sort(-1, true),
                            2));
            assertThat(frame.size()).isEqualTo(2);
            assertThat(frame.trail().steps().get(2).words()).isEqualTo("Only the first 2");
        }
    }

    @Test
    void aRankOfAMeasureThatIsNotThereIsRefused() {
        assertThatThrownBy(() -> new Query(
                        List.of(),
                        List.of(),
                        Query.Missing.KEPT,
                        List.of(Measure.ROWS),
                        Optional.of(new Rank(3, Rank.End.TOP, 1, false)),
                        Sort.BY_KEY,
                        1))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
