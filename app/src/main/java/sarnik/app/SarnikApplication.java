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
        // Other instances close what rests for 20 seconds (server.tomcat.connection-timeout): what were sent to them at
        // that moment would be lost.
        System.setProperty("jdk.httpclient.keepalive.timeout", "10");
        SpringApplication.run(SarnikApplication.class, args);
    }
}
