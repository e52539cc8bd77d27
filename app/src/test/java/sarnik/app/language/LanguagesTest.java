package sarnik.app.language;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@ExtendWith(RunningSarnik.class)
@DisplayName("Languages")
class LanguagesTest {

    private static final JsonMapper JSON = new JsonMapper();
    private static final Path SCRIPTS = Path.of("src/main/resources/static/js");
    private static final Path CARRIED = Path.of("web/carried");
    private static final Path TEMPLATES = Path.of("src/main/resources/templates");
    private static final Path SOURCES = Path.of("src/main/java");

    /** Pages that readers see. */
    private static final List<String> READ = List.of(
            "shown.html",
            "carried.html",
            "locked.html",
            "beside.html",
            "error.html",
            "sign-in.html",
            "sign-in-password.html",
            "sign-in-code.html");

    private static final Pattern IN_SCRIPTS = Pattern.compile("\\bphrase\\(\\s*'((?:[^'\\\\]|\\\\.)*)'");
    private static final Pattern IN_PAGES = Pattern.compile("spoken\\.phrase\\('([^']*)'");
    private static final Pattern IN_JAVA = Pattern.compile("\\bphrase\\(\\s*\"((?:[^\"\\\\]|\\\\.)*)\"");

    private static void gather(Path folder, String ending, Pattern said, Set<String> into) {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.filter(f -> f.toString().endsWith(ending)).toList()) {
                Matcher found = said.matcher(Files.readString(file));
                while (found.find()) into.add(found.group(1).replace("\\'", "'"));
            }
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private static Set<String> said() {
        Set<String> said = new TreeSet<>(List.of("{0} and {1}", "{0} or {1}"));
        gather(SCRIPTS, ".js", IN_SCRIPTS, said);
        gather(CARRIED, ".js", IN_SCRIPTS, said);
        gather(TEMPLATES, ".html", IN_PAGES, said);
        gather(SOURCES, ".java", IN_JAVA, said);
        return said;
    }

    @ParameterizedTest
    @ValueSource(strings = {"es", "pt", "fr", "de"})
    void everySentenceOfPagesScriptsAndRefusalsHasItsOwnInEachLanguageAndNoOtherDoes(String tag, RunningSarnik sarnik) {
        Set<String> said = said();
        assertThat(said).hasSizeGreaterThan(320).contains("Now showing everything", "Sign in", "Show it");
        Sentences sentences = sarnik.bean(Sentences.class);
        Map<String, String> own = sentences.ofPages(Locale.forLanguageTag(tag));
        assertThat(own.keySet()).containsExactlyInAnyOrderElementsOf(said);
        assertThat(own.values()).allSatisfy(sentence -> assertThat(sentence).isNotBlank());
        // What both sides say they say alike.
        Map<String, String> core = sentences.ofCore(Locale.forLanguageTag(tag));
        own.forEach((english, words) -> {
            if (core.containsKey(english)) assertThat(words).as(english).isEqualTo(core.get(english));
        });
    }

    /**
     * In a page for readers every text comes through {@code spoken}; what stands between tags is for those who edit it.
     */
    @Test
    void noTextOfAPageForReadersIsLeftOutOfTheFiles() throws IOException {
        List<String> left = new ArrayList<>();
        Pattern text = Pattern.compile("<([a-z]+\\d?)([^>]*)>([^<]*\\p{L}{2,}[^<]*)<");
        Pattern attribute = Pattern.compile("\\s(?:title|aria-label|placeholder|alt)=\"[^\"]+\"");
        for (String page : READ) {
            String html = Files.readString(TEMPLATES.resolve(page));
            Matcher found = text.matcher(html);
            while (found.find())
                if (!found.group(2).contains("th:text") && !found.group(1).matches("title|script|style|button"))
                    if (!found.group(3).strip().equals("Sarnik"))
                        left.add(page + ": " + found.group(3).strip());
            Matcher named = attribute.matcher(html);
            while (named.find()) left.add(page + ":" + named.group());
        }
        assertThat(left).isEmpty();
    }

    private static JsonNode frames(SarnikClient client, long dashboard, String language, String state)
            throws Exception {
        return JSON.readTree(client.send(
                        "POST",
                        "/api/dashboards/" + dashboard + "/frames",
                        "application/json",
                        JSON.writeValueAsString(Map.of("state", state)),
                        "Accept-Language",
                        language)
                .body());
    }

    @Test
    void eachQuestionIsAnsweredInTheLanguageItAsksForAndWhatIsKeptIsNotMixedUp(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "In which language?");
        for (int turn = 0; turn < 2; turn++) {
            assertThat(showing(frames(ana, dashboard, "de-AT,de;q=0.9,en;q=0.1", "f.f1=still")))
                    .isEqualTo("Product ist still");
            assertThat(showing(frames(ana, dashboard, "xx, es;q=0.5", "f.f1=still")))
                    .isEqualTo("Product es still");
            assertThat(showing(frames(ana, dashboard, "zh", "f.f1=still"))).isEqualTo("Product is still");
            assertThat(showing(frames(ana, dashboard, ";;q=x", "f.f1=still"))).isEqualTo("Product is still");
            assertThat(trail(frames(ana, dashboard, "fr", "")))
                    .contains("Toutes les lignes")
                    .anySatisfy(step -> assertThat(step).startsWith("Groupées par "))
                    .doesNotContain("All rows");
            assertThat(trail(frames(ana, dashboard, "en", "")))
                    .contains("All rows")
                    .doesNotContain("Toutes les lignes");
        }
        assertThat(frames(ana, dashboard, "pt", "f.f1=unheard")
                        .get("misfits")
                        .get(0)
                        .asString())
                .isEqualTo("O endereço pede unheard, que Sales não tem em product; fica de fora.");
    }

    @Test
    void countriesAreCalledAsTheReaderCallsThemAndFoundByEitherName(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dataset = ana.bring(
                RunningSarnik.file("lands.csv", "country,litres\nGermany,10\nSpain,20\nFrance,5\nGermany,7\n"),
                "Lands");
        JsonNode made = ana.json("POST", "/api/dashboards", Map.of("title", "In which land?"));
        long dashboard = made.get("id").asLong();
        String patch = """
                [{"op":"add","path":"/visuals/v1","value":{"type":"bars","page":"p1","at":{"x":0,"y":0,"w":12,"h":6},"title":"Lands",
                   "dataset":%1$d,"category":"@place","measure":{"summary":"SUM","column":"litres"}}},
                 {"op":"add","path":"/links/k1","value":{"from":"v1"}}]
                """.formatted(dataset);
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                patch,
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        for (int turn = 0; turn < 2; turn++) {
            assertThat(bars(frames(ana, dashboard, "es", ""))).containsExactly("España", "Alemania", "Francia");
            assertThat(bars(frames(ana, dashboard, "en", ""))).containsExactly("Spain", "Germany", "France");
            assertThat(bars(frames(ana, dashboard, "de", ""))).containsExactly("Spanien", "Deutschland", "Frankreich");
        }
        for (String words : List.of("Alemania", "Germany")) {
            JsonNode found = JSON.readTree(ana.send(
                            "POST",
                            "/api/dashboards/" + dashboard + "/narrowings",
                            "application/json",
                            JSON.writeValueAsString(Map.of("state", "", "words", words)),
                            "Accept-Language",
                            "es")
                    .body());
            assertThat(showing(frames(ana, dashboard, "es", found.get("state").asString())))
                    .contains("Alemania");
        }
    }

    private static List<String> bars(JsonNode frames) {
        List<String> names = new ArrayList<>();
        frames.get("drawings")
                .get("v1")
                .get("bars")
                .forEach(b -> names.add(b.get("label").asString()));
        return names;
    }

    private static String showing(JsonNode frames) {
        return frames.get("showing").get(0).get("words").asString();
    }

    private static List<String> trail(JsonNode frames) {
        List<String> steps = new ArrayList<>();
        frames.get("drawings")
                .forEach(drawing -> drawing.path("trail")
                        .path("steps")
                        .forEach(s -> steps.add(s.get("words").asString())));
        return steps;
    }

    @ParameterizedTest
    @CsvSource({
        "es, Este enlace no lleva a ninguna parte. Puede que se copiara en parte o que se quitara; pregunte a quien "
                + "se lo dio.",
        "de, 'Dieser Link führt nirgendwohin. Vielleicht wurde er nur zum Teil kopiert oder weggenommen; fragen Sie "
                + "den, der ihn Ihnen gab.'"
    })
    void aRefusalIsTold(String tag, String sentence, RunningSarnik sarnik) throws Exception {
        String address = "/shown/nothing-of-this-kind-is-here";
        assertThat(asked(sarnik, "/api" + address, tag)).contains(sentence);
        assertThat(asked(sarnik, address, tag)).contains(sentence, "lang=\"" + tag + "\"");
        assertThat(asked(sarnik, address + "?language=en", tag)).contains("This link leads nowhere.");
    }

    private static String asked(RunningSarnik sarnik, String address, String tag) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(sarnik.base() + address))
                .header("Accept-Language", tag)
                .header("Accept", address.startsWith("/api/") ? "application/json" : "text/html")
                .build();
        return HttpClient.newHttpClient()
                .send(request, HttpResponse.BodyHandlers.ofString())
                .body();
    }
}
