package sarnik.app;

import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.data.jpa.repository.query.QueryEnhancerFactories;
import org.springframework.data.jpa.repository.query.QueryEnhancerFactory;
import org.springframework.data.jpa.repository.support.JpaRepositoryFactoryBean;

/**
 * How the queries that stand in repositories are taken in at a start. They are parsed once, by Hibernate, which also
 * says what is wrong with them. Parsed by the repositories as well, so that orders and pages could be added, which none
 * asks for, they took a tenth of each start.
 */
@Configuration(proxyBeanMethods = false)
class QuerySetup {

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
