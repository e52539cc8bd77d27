package sarnik.app.web;

import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import sarnik.dashboard.DocumentJson;

/** Teaches the application's mapper how documents and drawings are written. */
@Configuration(proxyBeanMethods = false)
class DocumentMapping {

    @Bean
    JsonMapperBuilderCustomizer kinds() {
        return DocumentJson::with;
    }
}
