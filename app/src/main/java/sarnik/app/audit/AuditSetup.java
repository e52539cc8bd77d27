package sarnik.app.audit;

import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Has what is done recorded. */
@Configuration(proxyBeanMethods = false)
class AuditSetup implements WebMvcConfigurer {

    private final ActRecorder recorder;

    AuditSetup(ActRecorder recorder) {
        this.recorder = recorder;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(recorder);
    }
}
