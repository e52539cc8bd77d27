package sarnik.app.token;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("The description of the interface for programs")
class ApiDescriptionTest {

    private static final Pattern BLOCK = Pattern.compile("```sh\\n(.*?)```", Pattern.DOTALL);
    private static final Pattern REFERENCE = Pattern.compile("#/components/schemas/([^\"]+)");

    private static JsonNode description(RunningSarnik sarnik) throws Exception {
        HttpResponse<String> answer = sarnik.client("ana").get(ApiDescription.ADDRESS);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return Samples.parse(answer.body());
    }

    @Test
    void namesEveryAddressThatTheServerAnswersAndNoOther(RunningSarnik sarnik) throws Exception {
        Set<String> served = new TreeSet<>();
        sarnik.bean(RequestMappingHandlerMapping.class).getHandlerMethods().forEach((info, handler) -> {
            if (!handler.getBeanType().getName().startsWith("sarnik.")) return;
            for (String path : info.getPatternValues())
                if (path.startsWith("/api/"))
                    info.getMethodsCondition().getMethods().forEach(method -> served.add(method + " " + path));
        });
        JsonNode described = description(sarnik);
        assertThat(described.get("openapi").asString()).startsWith("3.1");
        Set<String> said = new TreeSet<>();
        List<String> lacking = new ArrayList<>();
        for (Map.Entry<String, JsonNode> path : described.get("paths").properties())
            for (Map.Entry<String, JsonNode> operation : path.getValue().properties()) {
                String address = operation.getKey().toUpperCase(java.util.Locale.ROOT) + " " + path.getKey();
                said.add(address);
                Matcher variables = Pattern.compile("\\{(\\w+)}").matcher(path.getKey());
                Set<String> parameters = new TreeSet<>();
                operation
                        .getValue()
                        .path("parameters")
                        .forEach(p -> parameters.add(
                                p.get("in").asString() + " " + p.get("name").asString()));
                while (variables.find())
                    if (!parameters.contains("path " + variables.group(1)))
                        lacking.add(address + " does not say " + variables.group(1));
                if (parameters.stream().anyMatch(p -> p.endsWith(" person") || p.endsWith(" reading")))
                    lacking.add(address + " asks for who asks: " + parameters);
                if (operation.getValue().at("/responses/default").isMissingNode())
                    lacking.add(address + " does not say how it refuses");
            }
        assertThat(said).containsExactlyElementsOf(served);
        assertThat(lacking).isEmpty();
    }

    @Test
    void refersToNothingThatIsNotThere(RunningSarnik sarnik) throws Exception {
        JsonNode described = description(sarnik);
        Matcher references = REFERENCE.matcher(described.toString());
        Set<String> unknown = new TreeSet<>();
        while (references.find())
            if (!described.get("components").get("schemas").has(references.group(1))) unknown.add(references.group(1));
        assertThat(unknown).isEmpty();
        assertThat(described.at("/paths/~1api~1dashboards~1first/post/summary").asString("")
                        + described
                                .at("/paths/~1api~1dashboards~1first/post/description")
                                .asString(""))
                .as("words come from the code's comments")
                .contains("Makes a dashboard of a dataset by itself");
    }

    /** What an address answers is of the form that its description says. */
    @Test
    void saysHowAnswersLook(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "As it is described?");
        JsonNode described = description(sarnik);
        String below = "/api/dashboards/" + dashboard;
        Map<String, HttpResponse<String>> answers = Map.of(
                "get /api/dashboards",
                ana.get("/api/dashboards"),
                "get /api/datasets",
                ana.get("/api/datasets"),
                "post /api/dashboards/{id}/editions",
                ana.send("POST", below + "/editions", "application/json", "{}"),
                "get /api/dashboards/{id}/editions",
                ana.get(below + "/editions"),
                "post /api/dashboards/{id}/links",
                ana.send("POST", below + "/links", "application/json", "{\"name\":\"x\",\"opensTo\":\"ANYONE\"}"),
                "get /api/dashboards/{id}/grants",
                ana.get(below + "/grants"),
                "get /api/requests",
                ana.get("/api/requests"));
        for (var answer : answers.entrySet()) {
            String[] address = answer.getKey().split(" ");
            assertThat(answer.getValue().statusCode()).as(answer.getKey()).isBetween(200, 201);
            JsonNode operation = described.get("paths").get(address[1]).get(address[0]);
            JsonNode response = operation
                    .get("responses")
                    .get(String.valueOf(answer.getValue().statusCode()));
            assertThat(response)
                    .as("%s says %s", answer.getKey(), operation.get("responses"))
                    .isNotNull();
            assertThat(response.get("content"))
                    .as("%s says %s", answer.getKey(), response)
                    .isNotNull();
            ObjectNode schema =
                    (ObjectNode) response.get("content").iterator().next().get("schema");
            schema.set("components", described.get("components"));
            assertThat(SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                            .getSchema(schema.toString(), InputFormat.JSON)
                            .validate(answer.getValue().body(), InputFormat.JSON))
                    .as("%s: %s", answer.getKey(), answer.getValue().body())
                    .isEmpty();
        }
    }

    @Test
    void theTourOfTheDocsRuns(RunningSarnik sarnik) throws Exception {
        StringBuilder script = new StringBuilder("set -eu\n");
        Matcher blocks = BLOCK.matcher(Files.readString(Path.of("../docs/programs.md")));
        while (blocks.find()) script.append(blocks.group(1));
        Path place = Files.createTempDirectory("sarnik-tour");
        Path said = place.resolve("said");
        ProcessBuilder bash = new ProcessBuilder("bash", "-c", script.toString())
                .directory(place.toFile())
                .redirectErrorStream(true)
                .redirectOutput(said.toFile());
        bash.environment().put("SARNIK", sarnik.base());
        bash.environment()
                .put(
                        "TOKEN",
                        TokensTest.make(
                                sarnik.client("ana"),
                                "name=tour&scope=READ&scope=BRING&scope=COMPOSE&scope=HAND_ON&ends="
                                        + LocalDate.now()));
        Process running = bash.start();
        assertThat(running.waitFor(2, TimeUnit.MINUTES)).isTrue();
        assertThat(running.exitValue()).as(Files.readString(said)).isZero();
        assertThat(Files.readAllBytes(place.resolve("map.png"))).startsWith(0x89, 'P', 'N', 'G');
        assertThat(Samples.parse(Files.readString(place.resolve("wells.geojson")))
                        .get("features"))
                .hasSize(4);
        assertThat(Samples.parse(Files.readString(place.resolve("shown.json"))).has("document"))
                .isTrue();
        assertThat(Files.readString(said)).contains("\"lat\"").endsWith("4\n1\n2\n");
    }
}
