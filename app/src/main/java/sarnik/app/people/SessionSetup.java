package sarnik.app.people;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.ObjectInputFilter;
import java.io.ObjectInputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.convert.support.GenericConversionService;
import org.springframework.core.serializer.support.SerializingConverter;

/** How what a session holds is written into the database and read again. */
@Configuration(proxyBeanMethods = false)
class SessionSetup {

    private static final Logger LOG = LoggerFactory.getLogger(SessionSetup.class);

    /** Nothing else is made of what is read (JEP 290). */
    private static final ObjectInputFilter ONLY = ObjectInputFilter.Config.createFilter(
            "java.**;jakarta.servlet.**;org.springframework.**;com.nimbusds.**;sarnik.app.people.*;!*");

    /** By this name the store of sessions looks for it. */
    @Bean
    GenericConversionService springSessionConversionService() {
        GenericConversionService conversion = new GenericConversionService();
        conversion.addConverter(Object.class, byte[].class, new SerializingConverter());
        conversion.addConverter(byte[].class, Object.class, SessionSetup::read);
        return conversion;
    }

    /** What an older version has written and this one cannot read counts as not there: its person signs in anew. */
    private static Object read(byte[] bytes) {
        try (ObjectInputStream in = new ObjectInputStream(new ByteArrayInputStream(bytes))) {
            in.setObjectInputFilter(ONLY);
            return in.readObject();
        } catch (IOException | ClassNotFoundException | RuntimeException another) {
            LOG.info("A part of a session could not be read: {}", another.toString());
            return null;
        }
    }
}
