package sarnik.app.dataset;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.AsyncHandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;

/**
 * Asks, before anything about a dataset is answered, whether the person may: a few addresses are open to those who may
 * read it, all others to those who may change it. What comes new is closed until it is named here.
 */
@Component
class DatasetGate implements AsyncHandlerInterceptor, WebMvcConfigurer {

    private static final Set<String> READ = Set.of(
            "GET /datasets/{id}",
            "GET /datasets/{id}/rows.{format}",
            "GET /api/datasets/{id}",
            "GET /api/datasets/{id}/rows",
            "GET /api/datasets/{id}/placing");

    private final Descriptions descriptions;

    DatasetGate(Descriptions descriptions) {
        this.descriptions = descriptions;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/datasets/**", "/api/datasets/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        if (request.getDispatcherType() != DispatcherType.REQUEST) return true;
        String pattern = String.valueOf(request.getAttribute(HandlerMapping.BEST_MATCHING_PATTERN_ATTRIBUTE));
        Object id = request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE) instanceof Map<?, ?> parts
                ? parts.get("id")
                : null;
        // What is no number is refused by whoever reads it.
        if (id == null || !id.toString().matches("\\d{1,18}")) return true;
        SignedIn person = SignedIn.of(request);
        if (person != null) {
            May what = READ.contains(request.getMethod() + " " + pattern) ? May.READ : May.COMPOSE;
            descriptions.check(Long.parseLong(id.toString()), what, person);
        }
        return true;
    }
}
