package sarnik.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The Sarnik server. */
@SpringBootApplication
@ConfigurationPropertiesScan
@EnableScheduling
public class SarnikApplication {

    public static void main(String[] args) {
        SpringApplication.run(SarnikApplication.class, args);
    }
}
