package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.language.Languages;
import sarnik.app.language.Sentences;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import sarnik.language.Language;

@DisplayName("In the reader's language")
class LanguagesPagesTest extends BrowserTest {

    private static long dashboard;
    private static String link;

    @BeforeEach
    void aPublishedDashboard() throws Exception {
        if (dashboard != 0) return;
        SarnikClient ana = sarnik.client("ana");
        dashboard = Samples.dashboard(ana, "Read in five languages?");
        ana.publish(dashboard);
        link = ana.json(
                        "POST",
                        "/api/dashboards/" + dashboard + "/links",
                        Map.of("name", "In any language", "opensTo", "ANYONE"))
                .get("path")
                .asString();
    }

    /** All that is read, heard or hovered on a page. */
    private static final String TEXTS = """
            () => {
              const texts = [];
              const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
              while (walk.nextNode()) {
                const { parentElement: within, data } = walk.currentNode;
                if (!within.closest('script, style, noscript, #language, [data-dashboard]')) texts.push(data.trim());
              }
              for (const name of ['title', 'aria-label', 'placeholder'])
                for (const one of document.querySelectorAll(`[${name}]`)) texts.push(one.getAttribute(name).trim());
              return texts.filter(Boolean);
            }""";

    /** Sentences that a language says otherwise, none of which may be left in English. */
    private List<String> english(Page page, String tag) {
        Sentences sentences = sarnik.bean(Sentences.class);
        Map<String, String> own = new HashMap<>(sentences.ofCore(Locale.forLanguageTag(tag)));
        own.putAll(sentences.ofPages(Locale.forLanguageTag(tag)));
        List<String> known = own.entrySet().stream()
                .filter(e -> !e.getKey().contains("{") && !e.getValue().equals(e.getKey()))
                .map(e -> e.getKey().replaceFirst("^[^|]*\\\\|", ""))
                .filter(words -> words.length() > 3 && !own.containsValue(words))
                .toList();
        List<String> left = new ArrayList<>();
        for (Object text : (List<?>) page.evaluate(TEXTS)) if (known.contains(text)) left.add((String) text);
        return left;
    }

    @Test
    void aReaderSeesAllInTheLanguageOfTheBrowserAndMayChooseAnother() throws Exception {
        Page page = stranger("es-MX");
        page.navigate(link);
        drawn(page);
        assertThat(page.getAttribute("html", "lang")).isEqualTo("es");
        assertThat(page.textContent("#showing")).contains("Ahora se muestra todo");
        page.click(".bar[data-key] >> nth=0");
        waitForText(page.locator("#showing"), "Elegido: ");
        page.click("[data-filter-part=f1-choose]");
        page.click(".popup label >> nth=0");
        waitForText(page.locator("#showing"), "Product es still");
        page.keyboard().press("Escape");
        page.click(".visual-bars [aria-label='¿Qué filas son estas?']");
        assertThat(page.textContent(".sheet-dialog")).contains("Todas las filas", "quita");
        assertThat(english(page, "es")).isEmpty();
        page.keyboard().press("Escape");
        String state = page.url();

        // Chosen by the reader: kept for other pages, and what was chosen stays.
        page.selectOption("#language", "de");
        page.waitForURL(url -> url.contains("language=de"));
        drawn(page);
        assertThat(page.textContent("#showing")).contains("Product ist still", "Gewählt: ");
        assertThat(page.url()).startsWith(state);
        assertThat(english(page, "de")).isEmpty();
        page.navigate(link);
        drawn(page);
        assertThat(page.textContent("#showing")).contains("Gezeigt wird alles");
        page.context().close();
    }

    @Test
    void homeIsInTheLanguageOfWhoeverReadsAndInEnglishForWhoeverComposes() throws Exception {
        Page reader = page("rui", "de-DE");
        assertThat(reader.textContent("h1")).isEqualTo("Übersichten");
        assertThat(english(reader, "de")).isEmpty();
        reader.selectOption("#language", "fr");
        reader.waitForURL(url -> url.contains("language=fr"));
        assertThat(reader.textContent("h1")).isEqualTo("Tableaux de bord");
        reader.context().close();
        Page author = page("ana", "de-DE");
        assertThat(author.textContent("h1")).isEqualTo("Dashboards");
        author.context().close();
    }

    @Test
    void scriptsFillSentencesAsTheCoreDoes() throws Exception {
        Page page = stranger("fr-FR");
        page.navigate(link);
        drawn(page);
        List<String> differing = new ArrayList<>();
        int compared = 0;
        for (Languages.Named named : sarnik.bean(Languages.class).all()) {
            Language language = sarnik.bean(Languages.class).of(named.tag()).orElseThrow();
            page.navigate(link + "?language=" + named.tag());
            drawn(page);
            List<List<Object>> asked = new ArrayList<>();
            List<String> core = new ArrayList<>();
            for (String sentence :
                    sarnik.bean(Sentences.class).ofPages(Locale.GERMAN).keySet())
                for (Object first : List.of(0, 1, 2, 1234, 56_789)) {
                    Object[] with = {first, 7, "c", "d"};
                    asked.add(List.of(sentence, Arrays.asList(with)));
                    core.add(Language.in(language, () -> Language.phrase(sentence, with)));
                }
            List<?> script = (List<?>) page.evaluate("""
                    async asked => {
                      const { phrase } = await import('/js/language.js');
                      return asked.map(([sentence, put]) => phrase(sentence, ...put));
                    }""", asked);
            compared += core.size();
            for (int i = 0; i < core.size(); i++)
                if (!core.get(i).equals(script.get(i))) differing.add(core.get(i) + " | " + script.get(i));
        }
        assertThat(differing).isEmpty();
        assertThat(compared).isGreaterThan(5000);
        page.context().close();
    }

    @Test
    void theAuthorHandsItOverInALanguageWithTextsOfItAndComposesInEnglish() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long own = Samples.dashboard(ana, "Where is water sold?");
        long revision =
                ana.read(ana.get("/api/dashboards/" + own)).get("revision").asLong();
        ana.read(ana.send(
                "PATCH", "/api/dashboards/" + own, Samples.JSON_PATCH, """
                [{"op":"add","path":"/language","value":"pt"},
                 {"op":"add","path":"/texts","value":{"pt":{
                   "/title":{"of":"Where is water sold?","text":"Onde se vende água?"},
                   "/visuals/v3/title":{"of":"No longer so","text":"Já não"}}}}]""", "If-Match", "\"" + revision + "\""));
        ana.publish(own);
        String there = ana.json(
                        "POST",
                        "/api/dashboards/" + own + "/links",
                        Map.of("name", "In Portuguese", "opensTo", "ANYONE"))
                .get("path")
                .asString();
        Page page = stranger("fr-FR");
        page.navigate(there);
        drawn(page);
        assertThat(page.textContent("#sheet-title")).isEqualTo("Onde se vende água?");
        assertThat(page.title()).contains("Onde se vende água?");
        assertThat(page.textContent("#showing")).contains("Agora mostra-se tudo");
        assertThat(page.locator("text=Já não").count())
                .as("a text of what reads otherwise by now")
                .isZero();
        page.selectOption("#language", "fr");
        page.waitForURL(url -> url.contains("language=fr"));
        drawn(page);
        assertThat(page.textContent("#sheet-title")).isEqualTo("Where is water sold?");
        assertThat(page.textContent("#showing")).contains("Tout est affiché maintenant");
        page.context().close();

        Page author = page("ana", "de-DE");
        author.navigate("/dashboards/" + own + "/compose");
        drawn(author);
        assertThat(author.title()).contains("Where is water sold?");
        assertThat(author.textContent("#showing")).contains("Now showing everything");
        author.navigate("/dashboards/" + own);
        drawn(author);
        assertThat(author.textContent("#showing")).contains("Agora mostra-se tudo");
        author.context().close();
    }
}
