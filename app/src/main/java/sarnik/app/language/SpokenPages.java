package sarnik.app.language;

import org.springframework.context.annotation.Configuration;
import org.thymeleaf.spring6.view.ThymeleafViewResolver;

/** Lets pages say what they say in the language that is spoken: they know it as {@code spoken}. */
@Configuration(proxyBeanMethods = false)
class SpokenPages {

    SpokenPages(ThymeleafViewResolver pages, Languages languages) {
        pages.addStaticVariable("spoken", languages);
    }
}
