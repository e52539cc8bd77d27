package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Map;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/** Hands the reading that an address asks for to whoever answers it. */
@Configuration(proxyBeanMethods = false)
class ReadingDoors implements WebMvcConfigurer, HandlerMethodArgumentResolver {

    private final List<ReadingDoor> doors;

    ReadingDoors(List<ReadingDoor> doors) {
        this.doors = doors;
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(this);
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return parameter.getParameterType() == Reading.class;
    }

    @Override
    public Reading resolveArgument(
            MethodParameter parameter,
            ModelAndViewContainer container,
            NativeWebRequest web,
            WebDataBinderFactory binders) {
        HttpServletRequest request = web.getNativeRequest(HttpServletRequest.class);
        Map<?, ?> parts = (Map<?, ?>) request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
        for (ReadingDoor door : doors)
            if (parts.get(door.variable()) instanceof String value) return door.open(value, request);
        throw new IllegalStateException("No door opens " + request.getRequestURI());
    }

    static long number(String value, String what) {
        if (!value.matches("\\d{1,18}")) throw RefusedException.gone(what);
        return Long.parseLong(value);
    }

    /** Dashboards as those who are signed in find them. */
    @Component
    static class OfDashboards implements ReadingDoor {
        private final Readings readings;

        OfDashboards(Readings readings) {
            this.readings = readings;
        }

        @Override
        public String variable() {
            return "id";
        }

        @Override
        public Reading open(String value, HttpServletRequest request) {
            return readings.of(number(value, "dashboard"), SignedIn.of(request));
        }
    }

    /** Editions, by their id. */
    @Component
    static class OfEditions implements ReadingDoor {
        private final Readings readings;

        OfEditions(Readings readings) {
            this.readings = readings;
        }

        @Override
        public String variable() {
            return "edition";
        }

        @Override
        public Reading open(String value, HttpServletRequest request) {
            return readings.edition(number(value, "edition"), SignedIn.of(request));
        }
    }

    /** Versions of drafts, by their id. */
    @Component
    static class OfVersions implements ReadingDoor {
        private final Readings readings;

        OfVersions(Readings readings) {
            this.readings = readings;
        }

        @Override
        public String variable() {
            return "version";
        }

        @Override
        public Reading open(String value, HttpServletRequest request) {
            return readings.version(number(value, "version"), SignedIn.of(request));
        }
    }
}
