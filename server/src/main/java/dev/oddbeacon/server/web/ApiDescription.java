package dev.oddbeacon.server.web;

import io.swagger.v3.core.jackson.ModelResolver;
import io.swagger.v3.core.jackson.TypeNameResolver;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import java.util.Locale;
import java.util.Optional;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.providers.ObjectMapperProvider;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import tools.jackson.databind.JsonNode;

/** What {@code /api/v1/openapi.json} says of the service as a whole. */
@Configuration
public class ApiDescription {
    private static final String CONTROLLER = "-controller";
    private static final String PREFIX = "/api/v1/";

    /** The version of the service, as its package says; "unknown" where it is run from classes. */
    public static String version() {
        return Optional.ofNullable(ApiDescription.class.getPackage().getImplementationVersion())
                .orElse("unknown");
    }

    static {
        SpringDocUtils.getConfig()
                .replaceWithClass(JsonNode.class, Object.class)
                .replaceWithClass(SseEmitter.class, String.class)
                .replaceWithClass(StreamingResponseBody.class, String.class);
    }

    /**
     * Names of schemas: a record that stands in another is named with it, {@code LinesAnswerCounts}, since several have a
     * record of one name.
     */
    @Bean
    ModelResolver schemas(ObjectMapperProvider mappers) {
        return new ModelResolver(mappers.jsonMapper(), new TypeNameResolver() {
            @Override
            protected String getNameOfClass(Class<?> type) {
                return type.isMemberClass()
                        ? getNameOfClass(type.getEnclosingClass()) + type.getSimpleName()
                        : type.getSimpleName();
            }
        });
    }

    /**
     * Names of operations that are the same in every build, as programs that are made from the document call them: the
     * method and the path. By themselves they would be those of methods, numbered where several have one.
     */
    @Bean
    OpenApiCustomizer names() {
        return document -> document.getPaths()
                .forEach((path, item) -> item.readOperationsMap().forEach((method, operation) -> {
                    operation.setOperationId(operationId(method.name(), path));
                    operation.setTags(operation.getTags().stream()
                            .map(tag -> tag.endsWith(CONTROLLER)
                                    ? tag.substring(0, tag.length() - CONTROLLER.length())
                                    : tag)
                            .toList());
                }));
    }

    /** {@code GET /api/v1/repositories/{name}/log} is {@code getRepositoriesByNameLog}. */
    static String operationId(String method, String path) {
        StringBuilder id = new StringBuilder(method.toLowerCase(Locale.ROOT));
        boolean begins = true;
        for (int i = path.startsWith(PREFIX) ? PREFIX.length() : 0; i < path.length(); i++) {
            char letter = path.charAt(i);
            if (letter == '{') {
                id.append("By");
            }
            if (!Character.isLetterOrDigit(letter)) {
                begins = true;
            } else {
                id.append(begins ? Character.toUpperCase(letter) : letter);
                begins = false;
            }
        }
        return id.toString();
    }

    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info()
                        .title("Odd Beacon")
                        .version(version())
                        .description(
                                "Code search for a team. Within a major version of the service, paths, parameters and"
                                        + " fields are added here, and none is taken away or given another meaning."));
    }
}
