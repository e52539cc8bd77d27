package sarnik.app.database;

import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.data.jpa.repository.query.QueryEnhancerFactories;
import org.springframework.data.jpa.repository.query.QueryEnhancerFactory;
import org.springframework.data.jpa.repository.support.JpaRepositoryFactoryBean;

/** How the program and its database come together. */
@Configuration(proxyBeanMethods = false)
class DatabaseSetup {

    @Bean
    @ConfigurationProperties("spring.datasource.hikari")
    OwnConnections dataSource(DataSourceProperties properties) {
        return properties
                .initializeDataSourceBuilder()
                .type(OwnConnections.class)
                .build();
    }

    /**
     * The queries that stand in repositories are parsed once, by Hibernate, which also says what is wrong with them.
     * Parsed by the repositories as well, so that orders and pages could be added, which none asks for, they took a
     * tenth of each start.
     */
    @Bean
    static BeanPostProcessor parsedOnce() {
        QueryEnhancerFactory asWritten = QueryEnhancerFactories.fallback();
        return new BeanPostProcessor() {
            @Override
            public Object postProcessBeforeInitialization(Object bean, String name) {
                if (bean instanceof JpaRepositoryFactoryBean<?, ?, ?> repository)
                    repository.setQueryEnhancerSelectorSource(query -> asWritten);
                return bean;
            }
        };
    }
}
