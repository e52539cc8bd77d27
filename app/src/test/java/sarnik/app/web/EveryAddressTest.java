package sarnik.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Method;
import java.lang.reflect.Parameter;
import java.lang.reflect.RecordComponent;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.core.JsonPointer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Every address answers whatever is sent to it, and never with a mistake of its own")
class EveryAddressTest {

    /** What stands where something else is expected. */
    private static final List<String> ODD = List.of(
            "null",
            "[]",
            "{}",
            "[null]",
            "{\"x\":null}",
            "\"\"",
            "\"\\u0000\"",
            "\"\\ud800\"",
            "true",
            "-1",
            "1e400",
            "99999999999999999999999999",
            "\"" + "long ".repeat(3000) + "\"",
            "[".repeat(900) + "]".repeat(900),
            "[[null],{\"a\":[null]}]");

    /** So many of them stand in each part, each part going on where the one before ended; {@code -Dsarnik.odd=15} for all. */
    private static final int EACH = Integer.getInteger("sarnik.odd", 5);

    private SarnikClient ana;
    private long dataset;
    private long dashboard;
    private String waiting;
    private String edition;
    private String link;
    private String secret;

    /** What an address has to be asked with besides its body. */
    private String[] headers(String method, String path) throws Exception {
        if (path.startsWith("/api/datasets/") && method.equals("PUT"))
            return new String[] {
                "If-Match",
                ana.get("/api/datasets/" + dataset).headers().firstValue("ETag").orElse("\"1\"")
            };
        if (path.startsWith("/api/dashboards/"))
            return new String[] {
                "If-Match",
                ana.get("/api/dashboards/" + dashboard)
                        .headers()
                        .firstValue("ETag")
                        .orElse("\"1\"")
            };
        return new String[0];
    }

    private String real(String pattern) {
        String path = pattern.startsWith("/api/dashboards") || pattern.startsWith("/dashboards")
                ? pattern.replace("{id}", String.valueOf(dashboard))
                : pattern.contains("bring")
                        ? pattern.replace("{id}", waiting)
                        : pattern.replace("{id}", String.valueOf(dataset));
        return path.replace("{edition}", edition)
                .replace("{bearer}", secret)
                .replace("{secret}", secret)
                .replace("{link}", link)
                .replace("{request}", "1")
                .replace("{turn}", "1")
                .replace("{part}", "v1")
                .replace("{number}", "1")
                .replace("{version}", "1")
                .replace("{revision}", "1")
                .replace("{format}", "csv")
                .replace("{name}", "Nowhere")
                .replace("{band}", "FAR")
                .replaceAll("\\{[xyz]\\}", "0");
    }

    /** Those of the odd that stand in a part: the next ones go on where these end, so that all have their turn. */
    private static List<String> odd(int part) {
        return IntStream.range(part * EACH, (part + 1) * EACH)
                .mapToObj(i -> ODD.get(i % ODD.size()))
                .toList();
    }

    private static List<String> bodies(Class<?> type) {
        List<String> bodies = new ArrayList<>(ODD);
        if (!type.isRecord()) return bodies;
        int part = 0;
        for (RecordComponent component : type.getRecordComponents()) {
            for (String odd : odd(part++)) bodies.add("{\"" + component.getName() + "\":" + odd + "}");
        }
        for (String odd : ODD) {
            List<String> all = new ArrayList<>();
            for (RecordComponent component : type.getRecordComponents())
                all.add("\"" + component.getName() + "\":" + odd);
            bodies.add("{" + String.join(",", all) + "}");
        }
        return bodies;
    }

    @Test
    void noBodyIsAnsweredWithAMistakeOfTheServer(RunningSarnik sarnik) throws Exception {
        ana = sarnik.client("ana");
        dashboard = Samples.dashboard(ana, "Whatever is sent?");
        dataset = ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
        JsonNode taken = ana.read(ana.upload(Samples.sales(), "sales.csv"));
        waiting = taken.get("id").asString();
        String below = "/api/dashboards/" + dashboard;
        edition = ana.json("POST", below + "/editions", Map.of()).get("id").asString();
        JsonNode made = ana.json("POST", below + "/links", Map.of("name", "Whatever", "opensTo", "ANYONE"));
        link = made.get("id").asString();
        secret = made.get("path").asString().substring("/shown/".length());
        Map<String, Class<?>> addresses = new TreeMap<>();
        sarnik.bean(RequestMappingHandlerMapping.class).getHandlerMethods().forEach((info, handler) -> {
            if (!handler.getBeanType().getName().startsWith("sarnik.")) return;
            Class<?> body = bodyOf(handler.getMethod());
            info.getPatternValues()
                    .forEach(path -> info.getMethodsCondition().getMethods().forEach(m -> {
                        if (body != null) addresses.put(m + " " + path, body);
                    }));
        });
        assertThat(addresses).hasSizeGreaterThan(15);
        List<String> mistakes = new ArrayList<>();
        int asked = 0;
        for (var address : addresses.entrySet()) {
            String method = address.getKey().substring(0, address.getKey().indexOf(' '));
            String path = real(address.getKey().substring(address.getKey().indexOf(' ') + 1));
            String type = method.equals("PATCH") ? Samples.JSON_PATCH : "application/json";
            String[] headers = headers(method, path);
            for (String body : bodies(address.getValue())) {
                HttpResponse<String> answer = ana.send(method, path, type, body, headers);
                asked++;
                if (answer.statusCode() == 500)
                    mistakes.add(address.getKey() + " " + body.substring(0, Math.min(90, body.length())) + " → "
                            + answer.body());
                // What was taken has moved the revision on.
                if (answer.statusCode() / 100 == 2) headers = headers(method, path);
            }
        }
        assertThat(asked).isGreaterThan(1000);
        assertThat(mistakes).isEmpty();
    }

    private static Class<?> bodyOf(Method method) {
        for (Parameter parameter : method.getParameters())
            if (parameter.isAnnotationPresent(RequestBody.class)) return parameter.getType();
        return null;
    }

    /** What is taken, in which each part is put wrong in turn. */
    private Map<String, String> taken() {
        return Map.of(
                "POST /api/dashboards/" + dashboard + "/frames",
                "{\"state\":\"p.v1=x&f.f1=still&f.f2=2026-01-01..2026-02-01&h.v1=l1\",\"ids\":[\"v1\",\"v2\"],"
                        + "\"sights\":{\"v1\":{\"zoom\":6,\"west\":-9,\"south\":36,\"east\":3,\"north\":44}},"
                        + "\"known\":[\"x\"]}",
                "POST /api/dashboards/" + dashboard + "/rows",
                "{\"state\":\"\",\"visual\":\"v1\",\"layer\":\"l1\",\"sight\":{\"zoom\":6,\"west\":-9,"
                        + "\"south\":36,\"east\":3,\"north\":44},\"spreadsheet\":true}",
                "POST /api/dashboards/" + dashboard + "/pictures",
                "{\"state\":\"\",\"visual\":\"v1\",\"sight\":{\"zoom\":6,\"west\":-9,\"south\":36,\"east\":3,"
                        + "\"north\":44},\"width\":80,\"height\":80,\"night\":false,\"form\":\"svg\","
                        + "\"ratio\":1,\"ground\":{\"mood\":\"plain\",\"detail\":1}}",
                "POST /api/dashboards/" + dashboard + "/places/others",
                "{\"state\":\"\",\"visual\":\"v1\",\"layer\":\"l1\",\"place\":\"x\",\"metres\":1000,\"count\":3}",
                "PUT /api/datasets/" + dataset + "/about",
                "{\"title\":\"t\",\"source\":\"s\",\"columns\":{\"litres\":{\"unit\":\"L\",\"description\":\"d\"}}}",
                "PUT /api/datasets/" + dataset + "/calculations",
                "{\"formulas\":[{\"name\":\"double\",\"text\":\"litres * "
                        + "2\",\"measure\":false}],\"rules\":[\"litres > 1\"]}",
                "POST /api/bring/" + waiting + "/intake",
                "{\"choices\":{\"delimiter\":\",\",\"headerRows\":1},\"shaping\":{\"types\":{\"day\":\"TEXT\"},"
                        + "\"names\":{\"town\":\"place\"},\"dropped\":[\"litres\"],\"missing\":[\"-\"],"
                        + "\"turn\":{\"columns\":[\"day\"],\"period\":\"p\",\"value\":\"v\"}}}",
                "POST /api/bring/" + waiting + "/placing",
                "{\"type\":\"from-to\",\"from\":{\"type\":\"words\",\"column\":\"town\"},"
                        + "\"to\":{\"type\":\"coordinates\",\"lat\":\"town\",\"lon\":\"litres\",\"epsg\":25830}}",
                "PUT /api/keys/Odd",
                "{\"words\":\"w\",\"colour\":{\"measure\":{\"summary\":\"SUM\",\"column\":\"litres\"},"
                        + "\"method\":\"NATURAL\",\"classes\":3,\"palette\":\"loch\","
                        + "\"centre\":{\"about\":\"NUMBER\",\"number\":3},\"low\":1,\"high\":9,\"breaks\":[2,3]}}",
                "PATCH /api/dashboards/" + dashboard,
                "[{\"op\":\"add\",\"path\":\"/visuals/v2/title\",\"value\":\"x\"},{\"op\":\"test\","
                        + "\"path\":\"/title\",\"value\":\"y\"}]");
    }

    /** The JSON with each of its parts replaced in turn. */
    private static List<String> putWrong(String json) {
        JsonMapper mapper = JsonMapper.builder().build();
        List<String> wrong = new ArrayList<>();
        List<JsonPointer> parts = new ArrayList<>();
        gather(mapper.readTree(json), JsonPointer.empty(), parts);
        for (JsonPointer part : parts) {
            for (String odd : odd(parts.indexOf(part))) {
                JsonNode whole = mapper.readTree(json);
                JsonNode parent = whole.at(part.head());
                if (parent instanceof ObjectNode object)
                    object.set(
                            part.last().getMatchingProperty(),
                            mapper.getNodeFactory().stringNode("@ODD@"));
                else
                    ((ArrayNode) parent)
                            .set(
                                    part.last().getMatchingIndex(),
                                    mapper.getNodeFactory().stringNode("@ODD@"));
                wrong.add(whole.toString().replace("\"@ODD@\"", odd));
            }
        }
        return wrong;
    }

    private static void gather(JsonNode node, JsonPointer at, List<JsonPointer> parts) {
        if (node.isObject())
            node.properties().forEach(p -> gatherPart(p.getValue(), at.appendProperty(p.getKey()), parts));
        else for (int i = 0; i < node.size(); i++) gatherPart(node.get(i), at.appendIndex(i), parts);
    }

    private static void gatherPart(JsonNode node, JsonPointer at, List<JsonPointer> parts) {
        parts.add(at);
        gather(node, at, parts);
    }

    @Test
    void noPartThatIsPutWrongIsAnsweredWithAMistakeOfTheServer(RunningSarnik sarnik) throws Exception {
        ana = sarnik.client("ana");
        dashboard = Samples.dashboard(ana, "Put wrong?");
        dataset = ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
        waiting = ana.read(ana.upload(Samples.sales(), "sales.csv")).get("id").asString();
        List<String> mistakes = new ArrayList<>();
        for (var address : taken().entrySet()) {
            String method = address.getKey().substring(0, address.getKey().indexOf(' '));
            String path = address.getKey().substring(address.getKey().indexOf(' ') + 1);
            String[] headers = headers(method, path);
            for (String body : putWrong(address.getValue())) {
                HttpResponse<String> answer = ana.send(
                        method, path, method.equals("PATCH") ? Samples.JSON_PATCH : "application/json", body, headers);
                if (answer.statusCode() == 500)
                    mistakes.add(address.getKey() + " " + body.substring(0, Math.min(300, body.length())) + " → "
                            + answer.body());
                if (answer.statusCode() / 100 == 2) headers = headers(method, path);
            }
        }
        assertThat(mistakes).isEmpty();
    }

    @Test
    void textsThatCannotBeKeptAreRefusedInForms(RunningSarnik sarnik) throws Exception {
        HttpResponse<String> answer =
                sarnik.client("ana").send("POST", "/dashboards", "application/x-www-form-urlencoded", "title=a%00b");
        assertThat(answer.statusCode()).isEqualTo(400);
        HttpResponse<String> patch =
                sarnik.client("ana").send("POST", "/api/dashboards", "application/json", "{\"title\":\"a\\u0000b\"}");
        assertThat(patch.statusCode()).isEqualTo(400);
        assertThat(patch.body()).contains("a character that cannot be kept");
    }

    @Test
    void anAddressThatCannotBeReadIsToldAsSuch(RunningSarnik sarnik) throws Exception {
        // No client of Java sends such an address.
        try (Socket socket = new Socket("127.0.0.1", URI.create(sarnik.base()).getPort())) {
            socket.getOutputStream()
                    .write(
                            "GET /datasets/%ZZ HTTP/1.1\r\nHost: localhost\r\nAccept: text/html\r\nConnection: close\r\n\r\n"
                                    .getBytes(StandardCharsets.US_ASCII));
            assertThat(new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                    .startsWith("HTTP/1.1 400")
                    .contains("This address cannot be read.")
                    .doesNotContain("Tomcat");
        }
    }

    @Test
    void bodiesAreBounded(RunningSarnik sarnik) throws Exception {
        SarnikClient rui = sarnik.client("rui");
        HttpResponse<String> large = rui.send(
                "POST", "/api/dashboards/1/frames", "application/json", "{\"state\":\"" + "x".repeat(1 << 20) + "\"}");
        assertThat(large.statusCode()).isEqualTo(413);
        HttpResponse<String> state = sarnik.client("ana")
                .send(
                        "POST",
                        "/api/dashboards/" + Samples.dashboard(sarnik.client("ana"), "Bounded?") + "/frames",
                        "application/json",
                        "{\"state\":\"" + "x".repeat(30_000) + "\"}");
        assertThat(state.statusCode()).isEqualTo(400);
        assertThat(state.body()).contains("at most 20,000 characters");
    }

    @Test
    void visualsThatAreAskedForManyTimesAreWorkedOutOnce(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = Samples.dashboard(ana, "Many times?");
        JsonNode frames = ana.json(
                "POST",
                "/api/dashboards/" + id + "/frames",
                Map.of("state", "", "ids", java.util.Collections.nCopies(400, "v1")));
        assertThat(frames.get("drawings").size()).isEqualTo(1);
        assertThat(ana.send(
                                "POST",
                                "/api/dashboards/" + id + "/frames",
                                "application/json",
                                "{\"ids\":[" + "\"v1\",".repeat(600) + "\"v1\"]}")
                        .statusCode())
                .isEqualTo(400);
    }
}
