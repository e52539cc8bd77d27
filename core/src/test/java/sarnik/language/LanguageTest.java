package sarnik.language;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static sarnik.language.Language.phrase;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.RowTrail;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.ColumnType;
import sarnik.table.Table;
import sarnik.visual.Trail;

class LanguageTest {

    private static final Path SOURCES = Path.of("src/main/java/sarnik");

    /** Rooms in which only authors read what is said. */
    private static final Pattern COMPOSING = Pattern.compile(
            "(?:format|formula|sql|geo|live|place|brief|sentence|wiring|carried|picture|table|dashboard|language)/.*"
                    + "|.*(?:Brief|Slots|SqlText|LayerLooks|LayerSlots|Question|Palette|DayPhrases|TypedWords|TieGraph)\\.java"
                    // What is thrown or kept under and nobody reads; what only authors are told.
                    + "|visual/map/Chance\\.java|statistics/(?:LocalClusters|Rates|RateOf)\\.java|query/Over\\.java|data/(?:ColumnWords|Calculations|RowsWithout|ViewerRule|OwnShapes|Telling)\\.java");

    /** Methods whose sentences make up what authors read: briefs, proposals, what there is to choose. */
    private static final Set<String> COMPOSED = Set.of(
            "brief",
            "proposals",
            "slots",
            "offers",
            "beginnings",
            "looks",
            "proposal",
            "asked",
            "called",
            "toString",
            "sentence",
            "become",
            "write",
            "edgeWords",
            "bound",
            "rankWords",
            "left",
            "against",
            "againstRows",
            "hint",
            "where",
            "groups");

    /** Names under which something is kept, what authors choose from in a brief, and units that are so everywhere. */
    private static final Map<String, Set<String>> NOT_SAID = Map.of(
            "NewestKind", Set.of("newest of ", " by ", " after "),
            "Plan", Set.of("@part ", " of "),
            "SheetFormula", Set.of("part ", " of ", " from ", " to ", "rows of "),
            "Summary", Set.of(" percentile"),
            "MapKind", Set.of(" in "),
            "FigureKind", Set.of(" by "),
            "PlayerKind",
                    Set.of(
                            "each ",
                            " alone",
                            "all up to it",
                            "+ of another dataset as well",
                            " and ",
                            " of ",
                            "a dataset that has gone"),
            "PlaceTeller", Set.of(" km"),
            "Density", Set.of(" km", " m"),
            "Aligned", Set.of(" k", " M", " G"));

    private static final SpokenSentences READ = new SpokenSentences(COMPOSED)
            .read(SOURCES, f -> COMPOSING.matcher(f.toString()).matches());

    private static Map<String, String> sentences(String tag) {
        Properties all = new Properties();
        try (InputStream in = Language.class.getResourceAsStream("core_" + tag + ".xml")) {
            all.loadFromXML(in);
        } catch (IOException unreadable) {
            throw new AssertionError(unreadable);
        }
        Map<String, String> sentences = new HashMap<>();
        all.forEach((english, own) -> sentences.put((String) english, (String) own));
        return sentences;
    }

    private static Language language(String tag) {
        return new Language(tag, sentences(tag)::get);
    }

    @ParameterizedTest
    @ValueSource(strings = {"es", "pt", "fr", "de"})
    void everySentenceThatIsSaidHasItsOwnInEachLanguageAndNoOtherDoes(String tag) {
        Set<String> said = new TreeSet<>(READ.spoken());
        assertThat(said).hasSizeGreaterThan(400).contains("There is no row.", "short month|Sept", "sum of {0}");
        assertThat(sentences(tag).keySet()).containsExactlyInAnyOrderElementsOf(said);
        sentences(tag).forEach((english, own) -> {
            assertThat(own).as(english).isNotBlank().doesNotContain("'");
            assertThat(holes(english)).as("%s: %s", english, own).containsAll(holes(own));
            Object[] with = {3, 1, "b", "c", "d"};
            assertThat(Sentence.filled(own, language(tag), with)).as(own).doesNotContain("{", "}", "plural");
        });
    }

    private static Set<String> holes(String sentence) {
        Set<String> holes = new TreeSet<>();
        Matcher hole = Pattern.compile("\\{(\\d)[,}]").matcher(sentence);
        while (hole.find()) holes.add(hole.group(1));
        return holes;
    }

    /** What is written in the code as a piece of a sentence is told to readers only through {@link Language#phrase}. */
    @Test
    void noSentenceForReadersIsLeftOutOfTheFiles() {
        assertThat(READ.silent().stream()
                        .filter(found -> !NOT_SAID.getOrDefault(found.substring(0, found.indexOf(".java")), Set.of())
                                .contains(found.substring(found.indexOf(' ') + 1)))
                        .toList())
                .isEmpty();
    }

    @Test
    void theScanFindsASentenceThatIsNotSpoken(@org.junit.jupiter.api.io.TempDir Path place) throws IOException {
        java.nio.file.Files.writeString(
                place.resolve("Odd.java"),
                "class Odd { String a(int n) { return \"all of \" + n; } String brief() { return \"one of them\"; }"
                        + " String b() { return phrase(\"there is {0}\", 1); } }");
        SpokenSentences odd = new SpokenSentences(COMPOSED).read(place, f -> false);
        assertThat(odd.silent()).singleElement().asString().endsWith("all of ");
        assertThat(odd.spoken()).containsExactly("there is {0}");
    }

    @Test
    void formsOfWordsFollowTheLanguage() {
        List<String> rows = new ArrayList<>();
        for (String tag : List.of("es", "pt", "fr", "de"))
            for (int n : new int[] {0, 1, 2}) rows.add(Language.in(language(tag), () -> TimeStep.WEEK.last(n)));
        assertThat(rows)
                .containsExactly(
                        "las últimas 0 semanas",
                        "la última semana",
                        "las últimas 2 semanas",
                        "a última semana",
                        "a última semana",
                        "as últimas 2 semanas",
                        "la dernière semaine",
                        "la dernière semaine",
                        "les 2 dernières semaines",
                        "die letzten 0 Wochen",
                        "die letzte Woche",
                        "die letzten 2 Wochen");
        assertThat(Sentence.filled("{0, plural, =0 {none} one {# row} other {# rows}}, {1}", Language.ENGLISH, 0, "x"))
                .isEqualTo("none, x");
        assertThat(Sentence.filled("{0, select, a {of {1}} other {# {1}}}", Language.ENGLISH, "b", 1234))
                .isEqualTo("# 1,234");
        assertThatThrownBy(() -> Sentence.filled("{1}", Language.ENGLISH, "a"))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Sentence.filled("{0, plural, one {a", Language.ENGLISH, 1))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void numbersAndDaysAreWrittenAsTheLanguageDoes() {
        List<String> written = new ArrayList<>();
        for (String tag : List.of("en", "es", "pt", "fr", "de")) {
            Language language = tag.equals("en") ? Language.ENGLISH : language(tag);
            written.add(Language.in(
                    language,
                    () -> String.join(
                            " | ",
                            NumberWords.full(1234),
                            NumberWords.full(1234567.8),
                            NumberWords.full(12.34),
                            NumberWords.brief(45_600),
                            Language.day(LocalDate.of(2026, 3, 1)),
                            Language.shortly(LocalDate.of(2026, 3, 1)),
                            phrase("{0} and {1} more", "a", 12_000))));
        }
        assertThat(written)
                .containsExactly(
                        "1,234 | 1,234,568 | 12.34 | 45.6 k | 1 March 2026 | 1 Mar 2026 | a and 12,000 more",
                        "1234 | 1.234.568 | 12,34 | 45,6 k | 1 de marzo de 2026 | 1 mar 2026 | a y 12.000 más",
                        "1.234 | 1.234.568 | 12,34 | 45,6 k | 1 de março de 2026 | 1 mar. 2026 | a e mais 12.000",
                        "1\u202f234 | 1\u202f234\u202f568 | 12,34 | 45,6 k | 1 mars 2026 | 1 mars 2026 | a et "
                                + "12\u202f000 de plus",
                        "1.234 | 1.234.568 | 12,34 | 45,6 k | 1. März 2026 | 1. März 2026 | a und 12.000 weitere");
        assertThat(Language.in(language("de"), () -> new Measure(Summary.PERCENTILE, "litres", 2.5, null).words()))
                .isEqualTo("2,5. Perzentil von litres");
    }

    /** Whatever the sentence around them, columns that placing adds are put in words. */
    @Test
    void trailsNameWhatPlacingAdds() {
        int[] codes = {0, 1, 0};
        CodedColumn places = new CodedColumn(ColumnType.TEXT, Codes.of(codes, codes.length, 2), List.of("a", "b"));
        Table table = new Table(Map.of("@place", places, "@area Provinces of Spain from", places, "product", places));
        Query query = Query.of(
                        List.of(),
                        List.of("@place", "@area Provinces of Spain from", "product"),
                        List.of(new Measure(Summary.DISTINCT, "@place")))
                .ranked(new Rank(0, Rank.End.TOP, 1, false));
        List<String> told = Language.in(
                language("de"),
                () -> Trail.of(new InMemoryEngine().answer(table, query).trail()).steps().stream()
                        .map(RowTrail.Step::words)
                        .toList());
        assertThat(told)
                .containsExactly(
                        "Alle Zeilen",
                        "Gruppiert nach Ort, Gebiet aus Provinces of Spain, Herkunft und product",
                        "Nur die obersten 1 nach Anzahl verschiedener Ort");
    }

    @Test
    void aLanguageIsSpokenWithinAnAnswerOnly() {
        assertThat(Language.spoken()).isSameAs(Language.ENGLISH);
        assertThatThrownBy(() -> Language.speak(language("fr"))).isInstanceOf(IllegalStateException.class);
        String said = Language.in(language("es"), () -> {
            String before = phrase("There is no row.");
            String within = Language.in(language("de"), () -> phrase("There is no row."));
            Language.speak(language("fr"));
            return before + within + phrase("There is no row.");
        });
        assertThat(said).isEqualTo("No hay ninguna fila.Es gibt keine Zeile.Il n’y a aucune ligne.");
        assertThatThrownBy(() -> Language.in(language("es"), () -> {
                    throw new IllegalStateException("broken");
                }))
                .hasMessage("broken");
        assertThat(phrase("There is no row.")).isEqualTo("There is no row.");
    }
}
