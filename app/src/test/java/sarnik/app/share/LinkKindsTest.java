package sarnik.app.share;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Every address below a link, for every kind of link and everybody")
class LinkKindsTest {

    private static final String JSON = "application/json";
    private static final String NOBODY = "nobody signed in";

    /** Who is let in by each kind of link; all others are kept out. */
    private static final Map<String, Set<String>> OPEN = Map.of(
            "anyone", Set.of(NOBODY, "rui", "berta", "ana", "marta"),
            "signed in", Set.of("rui", "berta", "ana", "marta"),
            "named", Set.of("rui"),
            "ended", Set.of(),
            "with a password", Set.of());

    private static JsonNode link(SarnikClient ana, long dashboard, Map<String, ?> more) throws Exception {
        Map<String, Object> wanted = new HashMap<>(more);
        wanted.put("name", "A kind of link");
        return ana.json("POST", "/api/dashboards/" + dashboard + "/links", wanted);
    }

    private static Map<String, String> links(RunningSarnik sarnik, SarnikClient ana) throws Exception {
        long dashboard = Samples.dashboard(ana, "By every kind of link?");
        ana.publish(dashboard);
        Map<String, JsonNode> made = new LinkedHashMap<>();
        made.put("anyone", link(ana, dashboard, Map.of("opensTo", "ANYONE")));
        made.put("signed in", link(ana, dashboard, Map.of("opensTo", "SIGNED_IN")));
        made.put(
                "named",
                link(
                        ana,
                        dashboard,
                        Map.of(
                                "opensTo",
                                "NAMED",
                                "named",
                                List.of(Map.of(
                                        "kind",
                                        "PERSON",
                                        "id",
                                        sarnik.person("rui").id())))));
        made.put("ended", link(ana, dashboard, Map.of("opensTo", "ANYONE")));
        made.put(
                "with a password",
                link(ana, dashboard, Map.of("opensTo", "ANYONE", "password", "a long word of theirs")));
        ana.send(
                "POST",
                "/api/dashboards/" + dashboard + "/links/"
                        + made.get("ended").get("id").asLong() + "/end",
                JSON,
                "");
        Map<String, String> secrets = new LinkedHashMap<>();
        made.forEach((kind, of) -> secrets.put(kind, of.get("path").asString().substring("/shown/".length())));
        return secrets;
    }

    private static Set<String> addresses(RunningSarnik sarnik) {
        Set<String> addresses = new TreeSet<>();
        sarnik.bean(RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, handler) -> info.getPatternValues().stream()
                        .filter(path -> path.startsWith("/api/shown/{bearer}"))
                        .forEach(path -> info.getMethodsCondition()
                                .getMethods()
                                .forEach(method -> addresses.add(method + " " + path))));
        return addresses;
    }

    private static HttpResponse<String> ask(SarnikClient client, String address, String secret) throws Exception {
        String method = address.substring(0, address.indexOf(' '));
        String path = address.substring(address.indexOf(' ') + 1)
                        .replace("{bearer}", secret)
                        .replace("{name}", "Nowhere")
                        .replace("{band}", "FAR")
                        .replace("{visual}", "v1")
                        .replace("{layer}", "l1")
                        .replace("{file}", "0".repeat(64))
                        .replaceAll("\\{[xyz]\\}", "0")
                + (address.endsWith("/places") ? "?name=Soria" : "");
        return method.equals("GET") ? client.get(path) : client.send(method, path, JSON, "{}");
    }

    /** Whether the link itself is refused, whatever else is wrong with what is asked. */
    private static boolean isKeptOut(HttpResponse<String> answer) {
        return Set.of(401, 403, 404, 410).contains(answer.statusCode())
                && answer.body().matches("(?s).*\\b[Ll]ink\\b.*");
    }

    @Test
    void letsInWhomItIsForAndNobodyElse(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        Map<String, String> secrets = links(sarnik, ana);
        Set<String> addresses = addresses(sarnik);
        assertThat(addresses).hasSizeGreaterThan(10);
        List<String> wrong = new ArrayList<>();
        for (String who : List.of(NOBODY, "rui", "berta", "ana", "marta")) {
            SarnikClient client = who.equals(NOBODY) ? new SarnikClient(sarnik.base()) : sarnik.client(who);
            for (Map.Entry<String, String> link : secrets.entrySet())
                for (String address : addresses) {
                    HttpResponse<String> answer = ask(client, address, link.getValue());
                    boolean open = OPEN.get(link.getKey()).contains(who);
                    if (isKeptOut(answer) == open)
                        wrong.add("%s by the link %s, %s: %d %s"
                                .formatted(address, link.getKey(), who, answer.statusCode(), answer.body()));
                }
        }
        assertThat(wrong).isEmpty();
    }
}
