package sarnik.app.web;

import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Writes values as JSON that can stand inside a page's data element. */
@Component
public class PageJson {

    private final JsonMapper mapper;

    PageJson(JsonMapper mapper) {
        this.mapper = mapper;
    }

    /** JSON without any character that could end the element it stands in. */
    public String of(Object value) {
        return mapper.writeValueAsString(value)
                .replace("<", "\\u003c")
                .replace(">", "\\u003e")
                .replace("&", "\\u0026");
    }
}
