package sarnik.app.language;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import sarnik.app.web.PageJson;
import sarnik.language.Language;

/** The languages in which readers are told things; pages know it as {@code spoken}. Safe to share between threads. */
@Component
public final class Languages {

    /** Each with what it calls itself. */
    private static final Map<String, String> NAMES = new TreeMap<>(
            Map.of("en", "English", "es", "Español", "pt", "Português", "fr", "Français", "de", "Deutsch"));

    private final Map<String, Language> languages;
    private final Map<String, String> ofPages;

    Languages(Sentences sentences, PageJson json) {
        languages = NAMES.keySet().stream()
                .collect(Collectors.toMap(
                        Function.identity(),
                        tag -> tag.equals("en")
                                ? Language.ENGLISH
                                : new Language(tag, sentence -> sentences.of(sentence, Locale.forLanguageTag(tag)))));
        ofPages = NAMES.keySet().stream()
                .filter(tag -> !tag.equals("en"))
                .collect(Collectors.toMap(
                        Function.identity(), tag -> json.of(sentences.ofPages(Locale.forLanguageTag(tag)))));
    }

    /** A language and what it calls itself. */
    public record Named(String tag, String name) {}

    /** All of them, by their tags. */
    public List<Named> all() {
        return NAMES.entrySet().stream()
                .map(e -> new Named(e.getKey(), e.getValue()))
                .toList();
    }

    /** @param tag BCP 47, such as {@code pt-BR}; null for none */
    public Optional<Language> of(String tag) {
        if (tag == null || tag.isEmpty()) return Optional.empty();
        return Optional.ofNullable(languages.get(Locale.forLanguageTag(tag).getLanguage()));
    }

    /**
     * The first that somebody wants and that there is.
     *
     * @param wanted the header Accept-Language (RFC 9110); null for none
     */
    public Optional<Language> wanted(String wanted) {
        if (wanted == null || wanted.length() > 500) return Optional.empty();
        try {
            return Locale.LanguageRange.parse(wanted).stream()
                    .filter(range -> range.getWeight() > 0)
                    .flatMap(range -> of(range.getRange()).stream())
                    .findFirst();
        } catch (IllegalArgumentException odd) {
            return Optional.empty();
        }
    }

    // --- for pages, in the language that is spoken -------------------------------------------------------

    public String tag() {
        return Language.spoken().tag();
    }

    public String phrase(String sentence, Object... with) {
        return Language.phrase(sentence, with);
    }

    /** What scripts of a page say, as JSON by the English sentence; null for English. */
    public String ofPages() {
        return ofPages.get(tag());
    }
}
