package sarnik.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;

/** The Sarnik server. */
@SpringBootApplication
@ConfigurationPropertiesScan
public class SarnikApplication {

    public static void main(String[] args) {
        SpringApplication.run(SarnikApplication.class, args);
    }
}
