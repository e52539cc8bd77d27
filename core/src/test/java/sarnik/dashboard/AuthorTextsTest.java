package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import org.junit.jupiter.api.Test;

class AuthorTextsTest {

    private static DashboardDocument document(String texts) {
        return DashboardDocument.parse("""
                {"schema":2,"title":"Where?","pages":{"p1":{"title":"First / one","order":1}},
                 "visuals":{
                   "v1":{"type":"words","page":"p1","at":{"x":0,"y":0,"w":6,"h":4},"title":"Words","text":"Read {litres}."},
                   "v2":{"type":"map","page":"p1","at":{"x":6,"y":0,"w":6,"h":4},"title":"","layers":{"l1":{"order":1,"dataset":1,"opacity":1,"name":"Wells"}}},
                   "v3":{"type":"button","page":"p1","at":{"x":0,"y":4,"w":6,"h":4},"title":"Back","words":"To the start","does":{"kind":"CLEAR"}}},
                 "filters":{"f1":{"type":"choice","page":"p1","order":1,"dataset":1,"column":"product","title":"Product","all":"any of them"}},
                 "links":{}%s}""".formatted(texts));
    }

    @Test
    void whatItsAuthorHasWrittenIsFoundWithWhereItStands() {
        DashboardDocument document = document("");
        assertThat(AuthorTexts.of(document))
                .containsExactlyInAnyOrderEntriesOf(Map.of(
                        "/title", "Where?",
                        "/pages/p1/title", "First / one",
                        "/visuals/v1/title", "Words",
                        "/visuals/v1/text", "Read {litres}.",
                        "/visuals/v2/layers/l1/name", "Wells",
                        "/visuals/v3/title", "Back",
                        "/visuals/v3/words", "To the start",
                        "/filters/f1/title", "Product",
                        "/filters/f1/all", "any of them"));
        assertThat(AuthorTexts.where("/title", document.dashboard())).isEqualTo("the dashboard");
        assertThat(AuthorTexts.where("/visuals/v1/text", document.dashboard())).isEqualTo("the words, text");
        assertThat(AuthorTexts.where("/filters/f1/title", document.dashboard())).isEqualTo("the filter Product");
    }

    @Test
    void textsStandInTheirLanguageAsLongAsTheyStandForWhatIsWritten() {
        DashboardDocument document = document("""
                ,"language":"es","texts":{"es":{
                   "/title":{"of":"Where?","text":"¿Dónde?"},
                   "/pages/p1/title":{"of":"Another one","text":"Ya no"},
                   "/visuals/v1/text":{"of":"Read {litres}.","text":"Lea {litres}."},
                   "/visuals/v9/title":{"of":"Gone","text":"Ida"},
                   "/visuals/v3/words":{"of":"To the start","text":" "},
                   "/schema":{"of":"2","text":"3"}}}""");
        assertThat(document.dashboard().language()).isEqualTo("es");
        Dashboard spanish = AuthorTexts.in("es", document).dashboard();
        assertThat(spanish.title()).isEqualTo("¿Dónde?");
        assertThat(spanish.pages().get("p1").title()).isEqualTo("First / one");
        assertThat(AuthorTexts.of(AuthorTexts.in("es", document)))
                .containsEntry("/visuals/v1/text", "Lea {litres}.")
                .containsEntry("/visuals/v3/words", "To the start");
        assertThat(spanish.schema()).isEqualTo(2);
        assertThat(AuthorTexts.in("de", document)).isSameAs(document);
        // A document of before has none.
        assertThat(document("").dashboard().texts()).isEmpty();
    }

    @Test
    void aLanguageThatThereIsNotIsNotKept() {
        assertThatThrownBy(() -> document(",\"language\":\"tlh\"")).isInstanceOf(DashboardException.class);
        assertThatThrownBy(() -> document(",\"texts\":{\"xx\":{}}")).isInstanceOf(DashboardException.class);
        assertThatThrownBy(() -> document(",\"texts\":{\"es\":{\"/title\":{\"text\":\"x\"}}}"))
                .isInstanceOf(DashboardException.class);
    }
}
