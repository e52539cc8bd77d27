package sarnik.app.language;

import org.springframework.context.annotation.Configuration;
import org.thymeleaf.spring6.view.ThymeleafViewResolver;

/** Lets pages say what they say in the language that is spoken: they know it as {@code words}. */
@Configuration(proxyBeanMethods = false)
class SpokenPages {

    SpokenPages(ThymeleafViewResolver pages, Languages words) {
        pages.addStaticVariable("words", words);
    }
}
