package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.brief.Choices;
import sarnik.sentence.SentenceReader;
import sarnik.sentence.SentenceReader.Next;
import sarnik.visual.Question;

@DisplayName("The typed sentence of a map")
class MapSentenceTest {

    private static final SentenceReader READER = new SentenceReader(
            DashboardDocument.empty("Where?").dashboard(),
            Fixture.DATASETS,
            new Choices(Fixture.ENGINE),
            Fixture.REFILLS);

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "map of litres | A map of symbols: one circle for each place of Refills, sized by sum of litres.",
                "a map coloured by the average of litres, sized by rows"
                        + "| A map of symbols: one circle for each place of Refills, sized by number of rows, "
                        + "coloured by average of litres in five natural classes.",
                "map of litres only where kiosk is K2"
                        + "| A map of symbols: one circle for each place of Refills, sized by sum of litres, only "
                        + "where kiosk is K2.",
                "litres by place | A map of symbols: one circle for each place of Refills, sized by sum of litres.",
            })
    void isReadInTheWordsOfTheTrade(String sentence, String brief) {
        SentenceReader.Read read = READER.read(sentence);
        assertThat(read.words()).isEqualTo(brief);
        assertThat(read.unread()).isEmpty();
    }

    @Test
    void asksWhetherAnAmountSizesOrColours() {
        assertThat(READER.read("map of litres").doubts()).singleElement().satisfies(doubt -> {
            assertThat(doubt.read()).isEqualTo("size: sum of litres");
            assertThat(doubt.otherwise()).extracting(Next::words).containsExactly("coloured by sum of litres");
            assertThat(READER.read(doubt.otherwise().get(0).sentence()).words())
                    .contains("coloured by sum of litres")
                    .doesNotContain("sized");
        });
        assertThat(READER.read("map sized by litres").doubts()).isEmpty();
    }

    @Test
    void ofEveryProposalIsReadBack() {
        Dashboard empty = DashboardDocument.empty("Where?").dashboard();
        BriefWriter writer = new BriefWriter(empty, Fixture.DATASETS, new Choices(Fixture.ENGINE));
        List<String> briefs = new Proposals(empty, "p1", () -> "1")
                .visuals(Question.WHERE, Fixture.REFILLS).stream()
                        .map(proposal -> writer.draft(proposal.visual()).text())
                        .toList();
        assertThat(briefs).hasSizeGreaterThan(1);
        for (String brief : briefs) assertThat(READER.read(brief).words()).isEqualTo(brief);
    }
}
