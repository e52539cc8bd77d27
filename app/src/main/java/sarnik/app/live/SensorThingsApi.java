package sarnik.app.live;

import jakarta.servlet.http.HttpServletRequest;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import sarnik.app.people.SignedIn;

/** Serves the devices of feeds to programs that read OGC SensorThings 1.1. */
@RestController
class SensorThingsApi {

    private final SensorThings things;

    SensorThingsApi(SensorThings things) {
        this.things = things;
    }

    /** The devices of all feeds that this person may see, in the form of OGC SensorThings 1.1 (reading only). */
    @GetMapping(SensorThings.BASE + "/**")
    Object answer(HttpServletRequest request, @AuthenticationPrincipal SignedIn person) {
        String path = URLDecoder.decode(
                request.getRequestURI().substring(SensorThings.BASE.length()), StandardCharsets.UTF_8);
        Map<String, String> asked = new LinkedHashMap<>();
        request.getParameterMap().forEach((name, values) -> asked.put(name, values[0]));
        String base = ServletUriComponentsBuilder.fromCurrentContextPath().toUriString() + SensorThings.BASE;
        return things.answer(path, asked, base, person);
    }
}
