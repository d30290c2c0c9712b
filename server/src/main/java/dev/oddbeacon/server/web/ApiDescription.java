package dev.oddbeacon.server.web;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What {@code /api/v1/openapi.json} says of the service as a whole. */
@Configuration
public class ApiDescription {
    /** The version of the service, as its package says; "unknown" where it is run from classes. */
    public static String version() {
        return Optional.ofNullable(ApiDescription.class.getPackage().getImplementationVersion())
                .orElse("unknown");
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
