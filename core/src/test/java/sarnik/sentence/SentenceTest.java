package sarnik.sentence;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.brief.Brief.Control;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.Choices;
import sarnik.dashboard.BriefWriter;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.Kinds;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.query.InMemoryEngine;
import sarnik.sentence.SentenceReader.Next;
import sarnik.sentence.SentenceReader.Read;
import sarnik.visual.Question;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

@DisplayName("The typed sentence of a visual")
class SentenceTest {

    private static final LoadedDataset SALES = new LoadedDataset(
            1,
            "Sales",
            csv(
                    "town,product,state,day,litres,takings,litres per person",
                    "Soria,still,final,2026-01-10,20,4,0.5",
                    "Soria,warm,final,2026-02-10,30,6,0.75",
                    "Zamora,still,draft,2026-02-11,40,8,0.25",
                    "Burgos,sparkling,final,2026-04-02,5,3,0.5",
                    "San Esteban,warm,draft,2026-04-03,100,-5,1.5"),
            null,
            Map.of());
    private static final Datasets DATASETS = id -> Datasets.Found.of(Optional.ofNullable(id == 1 ? SALES : null));
    private static final Dashboard EMPTY =
            DashboardDocument.empty("What sells?").dashboard();
    private static final Choices CHOICES = new Choices(new InMemoryEngine());

    private static Read read(String sentence) {
        return new SentenceReader(EMPTY, DATASETS, CHOICES, SALES).read(sentence);
    }

    private static List<String> next(String sentence) {
        return read(sentence).next().stream().map(Next::words).toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "bars of litres by town, the top ten, only where product is still"
                        + "| Bars: the top ten of town in Sales by sum of litres, ranked of what is picked, only "
                        + "where product is still.",
                "bars of the average of takings by product | Bars: all values of product in Sales by average of "
                        + "takings.",
                "litres per person by town, bars | Bars: all values of town in Sales by average of litres per person.",
                "bars top 7 of town by litres"
                        + "| Bars: the top seven of town in Sales by sum of litres, ranked of what is picked.",
                "bars of litres by town where still or warm"
                        + "| Bars: all values of town in Sales by sum of litres, only where product is still or warm.",
                "bars of litres by town where product is still and state is not draft"
                        + "| Bars: all values of town in Sales by sum of litres, only where product is still and "
                        + "state is not draft.",
                "bars of litres by town where litres between 10 and 40"
                        + "| Bars: all values of town in Sales by sum of litres, only where litres is at least 10 "
                        + "at most 40.",
                "bars of litres by town, only where town contains \"San\""
                        + "| Bars: all values of town in Sales by sum of litres, only where town contains “San”.",
                "bars of mean litres by town | Bars: all values of town in Sales by average of litres.",
                "bars of total takings by product | Bars: all values of product in Sales by sum of takings.",
                "bars of max litres by town, with the mean | Bars: all values of town in Sales by maximum of litres "
                        + "with mean.",
                "lines of litres by month, one for each product"
                        + "| Lines of sum of litres in Sales by month of day, one for each product, the top eight.",
                "ring of takings by product | A ring of sum of takings in Sales, a part for each product, up to "
                        + "eight parts.",
                "table of litres, takings and rows by town"
                        + "| A table of sum of litres and sum of takings and number of rows in Sales, a row for "
                        + "each town, by sum of litres, the most first.",
                "scatter of litres against takings for each town"
                        + "| A scatter: one dot for each town in Sales, sum of litres against sum of takings.",
                "figure of takings in the last 30 days"
                        + "| One figure: the sum of takings in Sales, only where day is in the last 30 days.",
            })
    void isReadInTheWordsOfTheTrade(String sentence, String brief) {
        Read read = read(sentence);
        assertThat(read.words()).isEqualTo(brief);
        assertThat(read.unread()).isEmpty();
    }

    @Test
    void namesItsVisual() {
        Visual visual = read("bars of litres by town titled “Where does it sell?”")
                .proposal()
                .visual();
        assertThat(visual.title()).isEqualTo("Where does it sell?");
    }

    @Test
    void isShownAsWhateverSaysAllOfIt() {
        Read read = read("litres by month ");
        assertThat(read.words()).startsWith("Lines of sum of litres in Sales by month of day");
        assertThat(read.guessed()).contains("shown as: lines");
        assertThat(read("takings by product ").words()).startsWith("Bars");
        assertThat(read("takings ").proposal())
                .as("too little to say what it shall be")
                .isNull();
    }

    @Test
    void saysWhatItGuessedAndWhatItDidNotUnderstand() {
        Read read = read("bars of bananas by town");
        assertThat(read.unread()).containsExactly("bananas");
        assertThat(read.guessed()).containsExactly("measure: sum of litres");
        assertThat(read("bars of litres by town").guessed()).isEmpty();
        // A second measure has no place in bars, and "not" is not passed over.
        assertThat(read("bars of litres and takings by town ").unread()).containsExactly("takings");
        assertThat(read("bars of litres by town not still ").unread()).contains("not");
        assertThat(read("bars of litres by town without still ").unread()).contains("without");
        assertThat(read("bars of litres by town from 2025 ").unread()).containsExactly("2025");
        assertThat(read("quux of litres by town").proposal()).isNull();
    }

    /** Tables of one row, and without a number: what can be said is read, what cannot is said. */
    @Test
    void ofTablesThatHoldLittle() {
        LoadedDataset one = new LoadedDataset(1, "One", csv("town,day,litres", "Soria,2026-01-01,5"), null, Map.of());
        LoadedDataset texts = new LoadedDataset(1, "Texts", csv("first,second", "a,b", "a,c", "d,b"), null, Map.of());
        assertThat(of(one).read("lines of litres by day").words()).startsWith("Lines of sum of litres in One");
        Read bars = of(one).read("bars of litres by town");
        assertThat(bars.proposal()).isNull();
        assertThat(bars.words()).isEqualTo("Nothing of One can be shown as bars.");
        assertThat(of(texts).read("bars by second").words())
                .isEqualTo("Bars: all values of second in Texts by number of rows.");
        assertThat(of(texts).read("lines by day").words()).isEqualTo("Nothing of Texts can be shown as lines.");
    }

    private static SentenceReader of(LoadedDataset dataset) {
        return new SentenceReader(EMPTY, id -> Datasets.Found.of(Optional.of(dataset)), CHOICES, dataset);
    }

    @Test
    void meetsSlipsWithTheNearestWord() {
        Read read = read("brs of litrs by porduct, the top tne ");
        assertThat(read.proposal()).as("too short to be told from others").isNull();
        read = read("lnies of litrs by month, one for each porduct ");
        assertThat(read.words()).startsWith("Lines of sum of litres in Sales by month of day, one for each product");
        assertThat(read.slips()).extracting(SentenceReader.Slip::written).containsExactly("lnies", "litrs", "porduct");
        assertThat(read.unread()).isEmpty();
    }

    @Test
    void asksWhereWordsMeanTwoThings() {
        LoadedDataset two = new LoadedDataset(
                1,
                "Two",
                csv("town,first,second,litres", "Soria,open,open,1", "Zamora,shut,open,2", "B,open,shut,3"),
                null,
                Map.of());
        Datasets datasets = id -> Datasets.Found.of(Optional.of(two));
        Read read = new SentenceReader(EMPTY, datasets, CHOICES, two).read("bars of litres by town only where open");
        assertThat(read.words()).contains("only where first is open");
        assertThat(read.doubts()).singleElement().satisfies(doubt -> {
            assertThat(doubt.written()).isEqualTo("open");
            assertThat(doubt.otherwise()).extracting(Next::words).containsExactly("only where second is open");
            assertThat(new SentenceReader(EMPTY, datasets, CHOICES, two)
                            .read(doubt.otherwise().get(0).sentence())
                            .words())
                    .contains("only where second is open");
        });
    }

    @Test
    void isCompletedByWhatFitsNextAndNothingElse() {
        assertThat(next("")).contains("bars", "lines", "table").doesNotContain("map");
        assertThat(next("ba")).containsExactly("bars");
        assertThat(next("bars of litres by ")).containsExactly("town", "product", "state");
        assertThat(next("bars of litres by to")).containsExactly("town");
        assertThat(next("bars of litres by town, only where pro")).allMatch(words -> words.startsWith("product "));
        assertThat(next("lines of litres by mon")).containsExactly("month");
        assertThat(next("bars of litres by town")).contains("only where town is Soria");
    }

    /** Whatever is offered can be read, and is then no longer unread. */
    @ParameterizedTest
    @ValueSource(
            strings = {"bars of litres by ", "bars of litres by town ", "lines of ", "ring of litres by ", "table of "})
    void whatIsOfferedIsRead(String begun) {
        for (Next next : read(begun).next()) {
            if (next.words().endsWith("contains") || next.words().matches(".*(at least|at most)")) continue;
            Read read = read(next.sentence());
            assertThat(read.unread()).as(next.sentence()).isEmpty();
            assertThat(read.words())
                    .as(next.sentence())
                    .isNotEqualTo(read(begun).words() + "?");
        }
    }

    private static final Set<Kind> SPOKEN = Set.of(Kind.CHOSEN, Kind.SET, Kind.TIP);

    /** Every brief that can be written is read back to the same visual. */
    @Test
    void isReadBackToWhatWasWritten() {
        BriefWriter writer = new BriefWriter(EMPTY, DATASETS, CHOICES);
        SentenceReader reader = new SentenceReader(EMPTY, DATASETS, CHOICES, SALES);
        Random random = new Random(8);
        Set<String> read = new TreeSet<>();
        List<String> wrong = new ArrayList<>();
        for (VisualKind<?> kind : Kinds.ALL.visuals()) {
            List<Draft> starts = new ArrayList<>();
            for (Question question : Question.values())
                kind.proposals(question, SALES, EMPTY.parts())
                        .forEach(proposal -> Draft.of(proposal.visual(), writer)
                                .map(Draft::bare)
                                .ifPresent(starts::add));
            if (starts.isEmpty()) continue;
            for (int round = 0; round < 40; round++) {
                Draft draft = starts.get(random.nextInt(starts.size()));
                int[] from = {0};
                for (int step = random.nextInt(6); step > 0; step--) draft = changed(draft, from, random);
                String brief = draft.brief().text();
                Read again = reader.read(brief);
                // What goes without saying may be said in the record: the two have the same sentence then.
                boolean same = again.proposal() != null
                        && (again.proposal().visual().equals(draft.visual())
                                || again.words().equals(brief));
                if (same) read.add(kind.name());
                else wrong.add(brief + "\n    read as " + again.words());
            }
        }
        assertThat(read).contains("bars", "lines", "ring", "scatter", "grid", "table", "list", "details", "figure");
        assertThat(wrong).isEmpty();
    }

    /** The same with one more thing chosen that can be said, behind what was chosen before. */
    private static Draft changed(Draft draft, int[] from, Random random) {
        List<Control> controls = draft.controls().stream()
                .filter(control ->
                        SPOKEN.contains(control.kind()) && !control.options().isEmpty())
                .toList();
        if (from[0] >= controls.size()) return draft;
        from[0] += random.nextInt(controls.size() - from[0]);
        Control control = controls.get(from[0]);
        Option option = control.options().get(random.nextInt(control.options().size()));
        // A note's own words are typed on the sheet; what is still open says nothing yet.
        if (option.value() == null
                || control.name().equals("notes")
                || option.text().endsWith("…")) return draft;
        Draft changed =
                draft.with(control, option.value(), random.nextBoolean()).orElse(draft);
        // What names a column that has gone, or is a group without columns, is not said in words.
        return changed.brief().text().matches(".*(has gone|:;|: *,|; :\\.).*") ? draft : changed;
    }
}
