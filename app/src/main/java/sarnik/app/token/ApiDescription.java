package sarnik.app.token;

import com.fasterxml.jackson.databind.JavaType;
import com.fasterxml.jackson.databind.type.TypeFactory;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverters;
import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.PathItem;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.IntegerSchema;
import io.swagger.v3.oas.models.media.JsonSchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.parameters.Parameter;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springdoc.core.customizers.PropertyCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.ResponseEntity;
import sarnik.app.dashboard.Reading;
import sarnik.app.people.SignedIn;
import sarnik.app.work.Jobs;
import tools.jackson.databind.JsonNode;

/**
 * The description of the JSON interface for programs: OpenAPI 3.1, made of the code and its comments. What is added
 * here is what all addresses share: how a program says who it is, how a refusal looks, and where an answer may take
 * longer.
 */
@Configuration(proxyBeanMethods = false)
class ApiDescription {

    static final String ADDRESS = "/api/openapi";

    private static final Pattern VARIABLE = Pattern.compile("\\{(\\w+)}");
    private static final Set<String> NUMBERS =
            Set.of("id", "edition", "number", "link", "view", "request", "version", "revision");
    private static final String PROBLEM = "application/problem+json";

    /** How a refusal looks (RFC 9457). */
    record Problem(String title, int status, String detail, String instance) {}

    static {
        // Who asks, and what they are shown, is no part of a request.
        SpringDocUtils.getConfig()
                .addRequestWrapperToIgnore(SignedIn.class, Reading.class)
                .replaceWithSchema(JsonNode.class, new Schema<>().description("any JSON"));
    }

    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info()
                        .title("Sarnik")
                        .version("1")
                        .description("What a program may do with Sarnik, as far as its person and its token may."
                                + " A tour by curl is in docs/programs.md."))
                .components(new Components()
                        .addSecuritySchemes(
                                "token",
                                new SecurityScheme()
                                        .type(SecurityScheme.Type.HTTP)
                                        .scheme("bearer")
                                        .description("made on one's own page; its scopes say what it may do")))
                .addSecurityItem(new SecurityRequirement().addList("token"));
    }

    /** Work that may take longer than a moment answers with its result, or with a job under which it is asked for. */
    @Bean
    OperationCustomizer whatTakesLonger() {
        return (operation, handler) -> {
            if (!ResponseEntity.class.equals(handler.getMethod().getReturnType())
                    || !handler.getMethod().getGenericReturnType().getTypeName().endsWith("<java.lang.Object>"))
                return operation;
            operation
                    .getResponses()
                    .addApiResponse("202", json("It goes on: ask for the job under /api/jobs/{id}.", "Going"));
            return operation;
        };
    }

    /**
     * What is left out of an answer, or sent as null, is what may be null in the code: all but numbers, yes/no and
     * lists.
     */
    @Bean
    PropertyCustomizer whatMayBeMissing() {
        return (property, type) -> {
            JavaType java = TypeFactory.defaultInstance().constructType(type.getType());
            if (java.isPrimitive() || java.isContainerType()) return property;
            if (property.get$ref() != null) {
                Schema<?> either = new JsonSchema();
                either.addAnyOfItem(new JsonSchema().$ref(property.get$ref()));
                either.addAnyOfItem(new JsonSchema().types(Set.of("null")));
                return either;
            }
            if (property.getTypes() != null) property.addType("null");
            return property;
        };
    }

    private static ApiResponse json(String words, String schema) {
        return answer(words, org.springframework.http.MediaType.APPLICATION_JSON_VALUE, schema);
    }

    private static ApiResponse answer(String words, String type, String schema) {
        return new ApiResponse()
                .description(words)
                .content(new Content()
                        .addMediaType(
                                type, new MediaType().schema(new Schema<>().$ref("#/components/schemas/" + schema))));
    }

    @Bean
    OpenApiCustomizer whatAllShare() {
        return described -> {
            for (Class<?> shared : List.of(Problem.class, Jobs.Going.class))
                ModelConverters.getInstance(true)
                        .resolveAsResolvedSchema(new AnnotatedType(shared))
                        .referencedSchemas
                        .forEach(described.getComponents()::addSchemas);
            described
                    .getPaths()
                    .forEach((path, item) ->
                            item.readOperationsMap().forEach((method, operation) -> complete(path, method, operation)));
            described
                    .getComponents()
                    .setSchemas(new TreeMap<>(described.getComponents().getSchemas()));
        };
    }

    private static void complete(String path, PathItem.HttpMethod method, Operation operation) {
        operation.setTags(List.of(path.split("/")[2]));
        Matcher variables = VARIABLE.matcher(path);
        while (variables.find()) {
            String name = variables.group(1);
            boolean isSaid = operation.getParameters() != null
                    && operation.getParameters().stream()
                            .anyMatch(
                                    p -> "path".equals(p.getIn()) && p.getName().equals(name));
            if (isSaid) continue;
            boolean counts = NUMBERS.contains(name);
            operation.addParametersItem(new Parameter()
                    .in("path")
                    .name(name)
                    .required(true)
                    .schema(counts ? new IntegerSchema().format("int64") : new StringSchema()));
        }
        Scope scope = Scope.of(method.name(), path);
        if (path.startsWith("/api/shown/")) operation.setSecurity(List.of());
        else operation.addExtension("x-scope", scope.name());
        operation
                .getResponses()
                .addApiResponse(
                        "default",
                        answer("It is refused; the detail is a sentence that says why.", PROBLEM, "Problem"));
    }
}
