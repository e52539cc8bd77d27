package sarnik.app.language;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;
import java.util.TreeMap;
import org.springframework.context.support.ReloadableResourceBundleMessageSource;
import org.springframework.stereotype.Component;

/**
 * The sentences of each language by the English ones: those that figures and drawings come with, and those of pages.
 * What is put in stands in them as ICU writes it, so they are given as they are.
 */
@Component("messageSource")
public class Sentences extends ReloadableResourceBundleMessageSource {

    private static final String CORE = "classpath:sarnik/language/core";
    private static final String PAGES = "classpath:sarnik/language/pages";
    private static final String PLACES = "classpath:sarnik/language/places";

    Sentences() {
        setBasenames(CORE, PAGES, PLACES);
        setDefaultEncoding(StandardCharsets.UTF_8.name());
        setFallbackToSystemLocale(false);
        setCacheSeconds(-1);
    }

    /** @return null where there is none */
    String of(String sentence, Locale locale) {
        return resolveCodeWithoutArguments(sentence, locale);
    }

    /** Those of pages, by the English ones. */
    public Map<String, String> ofPages(Locale locale) {
        return all(PAGES, locale);
    }

    /** Those that figures and drawings come with, by the English ones. */
    public Map<String, String> ofCore(Locale locale) {
        return all(CORE, locale);
    }

    /** What places are called, by their ids. */
    public Map<String, String> ofPlaces(Locale locale) {
        return all(PLACES, locale);
    }

    private Map<String, String> all(String basename, Locale locale) {
        Properties properties =
                getProperties(basename + "_" + locale.getLanguage()).getProperties();
        Map<String, String> all = new TreeMap<>();
        if (properties != null) properties.forEach((english, own) -> all.put((String) english, (String) own));
        return all;
    }
}
