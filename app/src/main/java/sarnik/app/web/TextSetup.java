package sarnik.app.web;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.format.FormatterRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.JacksonModule;
import tools.jackson.databind.KeyDeserializer;
import tools.jackson.databind.deser.std.StdScalarDeserializer;
import tools.jackson.databind.module.SimpleModule;

/**
 * Looks at every text that comes in, in JSON and in forms: those that cannot be kept are refused before anything is
 * done.
 */
@Configuration(proxyBeanMethods = false)
class TextSetup implements WebMvcConfigurer {

    @Bean
    JacksonModule texts() {
        return new SimpleModule("texts")
                .addDeserializer(String.class, new StdScalarDeserializer<>(String.class) {
                    @Override
                    public String deserialize(JsonParser parser, DeserializationContext context) {
                        return UnfitTextException.checked(parser.getValueAsString());
                    }
                })
                .addKeyDeserializer(String.class, new KeyDeserializer() {
                    @Override
                    public Object deserializeKey(String key, DeserializationContext context) {
                        return UnfitTextException.checked(key);
                    }
                });
    }

    @Override
    public void addFormatters(FormatterRegistry registry) {
        registry.addConverter(String.class, String.class, UnfitTextException::checked);
    }
}
