package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static sarnik.dashboard.KindsTest.BARS;
import static sarnik.dashboard.KindsTest.DATASETS;
import static sarnik.dashboard.KindsTest.FIGURE;
import static sarnik.dashboard.KindsTest.LINES;
import static sarnik.dashboard.KindsTest.document;
import static sarnik.dashboard.KindsTest.draw;
import static sarnik.dashboard.KindsTest.misfit;

import java.util.Arrays;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.brief.Choices;
import sarnik.query.InMemoryEngine;
import sarnik.scale.NumberWords;
import sarnik.visual.Note;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.lines.LinesDrawing;

/** Lines over time, of the sales of the other kinds. */
@DisplayName("Lines")
class LinesKindTest {

    @Test
    void haveAGapWhereAStepHasNoRow() {
        LinesDrawing drawn = draw(LinesDrawing.class, "f.f1=2026-01-01..", LINES);
        assertThat(drawn.steps()).containsExactly("2026-01", "2026-02", "2026-03", "2026-04");
        assertThat(drawn.lines().get(0).values()).containsExactly(20, 70, Double.NaN, 160);
        assertThat(drawn.lines().get(0).texts()).containsExactly("20", "70", "–", "160");
        assertThat(drawn.from().get(1)).isEqualTo("2026-02-01");
        assertThat(drawn.to().get(1)).isEqualTo("2026-02-28");
    }

    @Test
    void haveABandThatTheAxisHolds() {
        LinesDrawing drawn = draw(
                LinesDrawing.class,
                "",
                LINES
                        + ", 'references': [{'kind': 'BAND', 'value': 400, 'to': 300, 'name': 'usual'}, "
                        + "{'kind': 'BAND', 'value': 1}]");
        assertThat(drawn.references()).singleElement().satisfies(band -> {
            assertThat(band.text()).isEqualTo("usual 400 to 300");
            assertThat(band.to()).isEqualTo(300);
        });
        assertThat(drawn.axis().high()).isGreaterThanOrEqualTo(400);
    }

    @Test
    void ofTheYearBeforeLookBeyondTheFilterOfDays() {
        LinesDrawing drawn = draw(LinesDrawing.class, "f.f1=2026-01-01..", LINES + ", 'before': true");
        assertThat(drawn.lines()).extracting(LinesDrawing.Line::ghost).containsExactly(true, false);
        assertThat(drawn.lines().get(0).values()).containsExactly(10, Double.NaN, Double.NaN, 5);
    }

    /** Of 2025 ten litres in January and five in April; of a running total that began earlier there would be more. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "RUNNING | 2026-01-01..2026-04-30 | 10 - - 15 | 20 90 - 250",
                "RUNNING | 2026-02-01.. | - - 5 | 70 - 230",
                "RUNNING | 2026-04-01..2026-04-10 | 5 | 160",
                "RUNNING | 2026-04-01..2026-04-09 | - | 160",
                "SHARE | 2026-02-01.. | - - 1 | 0.30434782608695654 - 0.6956521739130435",
                "RANK | 2026-01-01.. | 1 - - 2 | 3 2 - 1",
                "RUNNING | | - - - - - - - - - - - - 10 - - 15 | 10 - - 15 - - - - - - - - 35 105 - 265"
            })
    void ofTheYearBeforeAreOfTheSameStretchAlone(String over, String period, String before, String now) {
        String lines =
                LINES.replace("'column': 'litres'}", "'column': 'litres', 'over': {'kind': '%s'}}".formatted(over));
        LinesDrawing drawn =
                draw(LinesDrawing.class, period == null ? "" : "f.f1=" + period, lines + ", 'before': true");
        assertThat(drawn.lines().get(0).values()).containsExactly(numbers(before));
        assertThat(drawn.lines().get(1).values()).containsExactly(numbers(now));
    }

    private double[] numbers(String words) {
        return Arrays.stream((words == null ? "-" : words).split(" "))
                .mapToDouble(word -> word.equals("-") ? Double.NaN : Double.parseDouble(word))
                .toArray();
    }

    /** Of 2025 January has 10 and April 5; of 2026 20, 70, nothing and 160. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "'DIFFERENCE', 'steps': 12|2026-01-01..|10 - - 155",
                "'DIFFERENCE', 'steps': 12|2026-04-01..2026-04-02|55",
                "'DIFFERENCE'|2026-02-01..|50 - -",
                "'MOVING', 'steps': 3|2026-02-01..|45 - 115",
                "'MOVING', 'steps': 400|2026-04-01..|53",
                "'RUNNING'|2026-02-01..|70 - 230"
            })
    void lookBackToBeforeWhatIsKept(String over, String period, String now) {
        String lines = LINES.replace("'column': 'litres'}", "'column': 'litres', 'over': {'kind': " + over + "}}");
        LinesDrawing drawn = draw(LinesDrawing.class, "f.f1=" + period, lines);
        assertThat(drawn.lines().get(0).values()).containsExactly(numbers(now));
        assertThat(drawn.notes().stream().anyMatch(n -> n.contains("looks back")))
                .isEqualTo(!over.contains("RUNNING"));
        BarsDrawing bars = draw(
                BarsDrawing.class,
                "f.f1=" + period,
                BARS.replace("'town'", "'day'")
                                .replace("'column': 'litres'}", "'column': 'litres', 'over': {'kind': " + over + "}}")
                        + ", 'step': 'MONTH'");
        assertThat(bars.bars())
                .extracting(BarsDrawing.Bar::full)
                .containsExactly(Arrays.stream(numbers(now.replace(" - ", " ").replace("- -", "-")))
                        .mapToObj(v -> Double.isNaN(v) ? "–" : NumberWords.full(v))
                        .toArray(String[]::new));
    }

    @ParameterizedTest
    @CsvSource({"SHARE, 100 %", "RUNNING, 2000 % $", "RANK, 1", "MOVING, 1250 % $", "DIFFERENCE, 1000 points $"})
    void areWrittenAsWhatIsWorkedOutOfThem(String over, String text) {
        String lines = LINES.replace(
                "'column': 'litres'}", "'column': 'litres', 'over': {'kind': '%s', 'steps': 12}}".formatted(over));
        LinesDrawing drawn = draw(
                LinesDrawing.class,
                "f.f1=2026-01-01..2026-01-31",
                lines + ", 'format': {'percent': true, 'after': '$'}");
        assertThat(drawn.lines().get(0).texts().get(0).replace(",", "")).startsWith(text);
    }

    @Test
    void ofARunningTotalHaveNoYearBeforeWhereWhatIsShownIsNoSingleStretch() {
        String running = LINES.replace("'column': 'litres'}", "'column': 'litres', 'over': {'kind': 'RUNNING'}}");
        LinesDrawing drawn = draw(LinesDrawing.class, "f.f1=..2026-02-28", running + ", 'before': true");
        assertThat(drawn.lines()).extracting(LinesDrawing.Line::ghost).containsExactly(false);
        assertThat(drawn.notes()).anyMatch(note -> note.contains("no single stretch of time"));
    }

    @Test
    void ofTheYearBeforeStackOnEachOtherAndNotUnderThoseOfNow() {
        LinesDrawing drawn = draw(
                LinesDrawing.class,
                "f.f1=2026-01-01..",
                LINES.replace("'column': 'litres'}", "'column': 'litres'}, {'summary': 'SUM', 'column': 'weight'}")
                        + ", 'before': true, 'style': 'STACKED'");
        assertThat(drawn.lines()).extracting(LinesDrawing.Line::ghost).containsExactly(true, false, true, false);
        assertThat(drawn.lines().get(0).values()).containsExactly(10, 0, 0, 5);
        assertThat(drawn.lines().get(1).values()).containsExactly(20, 70, 0, 160);
        assertThat(drawn.lines().get(2).values()).containsExactly(11, 0, 0, 7);
        assertThat(drawn.lines().get(3).values()).containsExactly(23, 79, 0, 181);
    }

    /** Of 2026 the months have 20, 70 and 160; those of a year before take no part, nor do parts for themselves. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                ", 'before': true|83.333333",
                "|83.333333",
                ", 'category': 'product'|62.5",
                ", 'category': 'product', 'style': 'STACKED'|62.5"
            })
    void haveTheMeanOfWhatIsMeasuredNow(String more, double mean) {
        LinesDrawing drawn = draw(
                LinesDrawing.class,
                "f.f1=2026-01-01..",
                LINES + (more == null ? "" : more) + ", 'references': [{'kind': 'MEAN'}]");
        assertThat(drawn.references().get(0).value()).isCloseTo(mean, within(1e-6));
    }

    @ParameterizedTest
    @CsvSource({"AVERAGE, false", "MEDIAN, false", "DISTINCT, false", "COUNT, true"})
    void areStackedOnlyWhereTheyAddUp(String summary, boolean stacked) {
        LinesDrawing drawn = draw(
                LinesDrawing.class,
                "",
                LINES.replace("'SUM'", "'%s'".formatted(summary)) + ", 'category': 'product', 'style': 'STACKED'");
        assertThat(drawn.style()).isEqualTo(stacked ? "stacked" : "lines");
        assertThat(drawn.notes().stream().anyMatch(n -> n.contains("does not add up")))
                .isEqualTo(!stacked);
    }

    @Test
    void ofACategoryAreNamedAndStackOnEachOther() {
        LinesDrawing drawn =
                draw(LinesDrawing.class, "f.f1=2026-01-01..", LINES + ", 'category': 'product', 'style': 'STACKED'");
        assertThat(drawn.lines()).extracting(LinesDrawing.Line::label).containsExactly("warm", "still");
        assertThat(drawn.lines().get(0).values()).containsExactly(0, 30, 0, 160);
        assertThat(drawn.lines().get(1).bases()).containsExactly(0, 30, 0, 160);
        assertThat(drawn.lines().get(1).values()).containsExactly(20, 70, 0, 160);
        assertThat(drawn.axis().low()).isZero();
    }

    @Test
    void runOnAndChangeAsTheirMeasureSays() {
        String running = LINES.replace("'column': 'litres'}", "'column': 'litres', 'over': {'kind': 'RUNNING'}}");
        assertThat(draw(LinesDrawing.class, "f.f1=2026-01-01..", running)
                        .lines()
                        .get(0)
                        .values())
                .containsExactly(20, 90, Double.NaN, 250);
    }

    @Test
    void carryNotesThatArePinnedToAStep() {
        String noted = LINES + ", 'pinned': [{'at': '2026-02', 'text': 'Two kiosks opened'}]";
        assertThat(draw(LinesDrawing.class, "", noted).pinned())
                .containsExactly(new Note("2026-02", "Two kiosks opened"));
        String brief = new BriefWriter(document(noted).dashboard(), DATASETS, new Choices(new InMemoryEngine()))
                .write("v1")
                .text();
        assertThat(brief).contains("with a note at Feb 2026 “Two kiosks opened”");
        assertThat(draw(BarsDrawing.class, "", BARS + ", 'pinned': [{'at': 'Soria', 'text': 'x'}]")
                        .pinned())
                .hasSize(1);
    }

    @Test
    void withOnePointSaySo() {
        LinesDrawing drawn = draw(LinesDrawing.class, "f.f1=2026-01-01..2026-01-31", LINES);
        assertThat(drawn.lines().get(0).values()).containsExactly(20);
        assertThat(drawn.notes()).singleElement().asString().contains("a point and no line");
    }

    @Test
    void withoutARowAreEmptyAndSayWhy() {
        LinesDrawing drawn = draw(LinesDrawing.class, "f.f1=2030-01-01..", LINES);
        assertThat(drawn.steps()).isEmpty();
        assertThat(drawn.trail().empty()).contains("No row is left");
    }

    @Test
    void pickASpanThatNarrowsOthers() {
        FigureDrawing drawn = draw(FigureDrawing.class, "p.v1=~span.2026-02-01_2026-02-28", LINES, FIGURE);
        assertThat(drawn.full()).isEqualTo("70");
        assertThat(drawn.trail().steps())
                .extracting("words")
                .contains("Picked: day from 1 February 2026 to 28 February 2026");
    }

    @Test
    void haveReferencesAtTheMeanATargetAndTheReadersNumber() {
        LinesDrawing drawn = draw(
                LinesDrawing.class,
                "v.n1=80&f.f1=2026-01-01..",
                LINES + ", 'references': [{'kind': 'MEAN'}, {'kind': 'TARGET', 'value': 200}, "
                        + "{'kind': 'PARAMETER', 'parameter': 'n1', 'name': 'Wanted'}]");
        assertThat(drawn.references()).extracting("text").containsExactly("mean 83.33", "target 200", "Wanted 80");
        assertThat(drawn.axis().high()).isGreaterThanOrEqualTo(200);
    }

    @Test
    void thatCannotBeDrawnSayWhatToMend() {
        assertThat(misfit(LINES.replace("'day'", "'town'"))).contains("holds text and no dates");
        assertThat(misfit(LINES.replace("'MONTH'", "'HOUR'"))).contains("Choose a longer step");
        assertThat(misfit(LINES.replace("'day'", "'gone'"))).contains("no column “gone”");
    }
}
