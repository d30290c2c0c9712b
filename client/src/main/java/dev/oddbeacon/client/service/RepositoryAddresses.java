package dev.oddbeacon.client.service;

import dev.oddbeacon.api.RepositoryInfo;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.util.Optional;

/** Where repositories lie, as addresses. */
public record RepositoryAddresses(Service service) {
    /** Empty if nobody is told, or it is no address. */
    public Optional<String> of(String repository) {
        String location = service.get(
                        Service.path("repositories", repository), new Service.Parameters(), RepositoryInfo.class)
                .location();
        if (location == null) {
            return Optional.empty();
        }
        if (location.startsWith("/")) {
            return Optional.of(Path.of(location).toUri().toString());
        }
        try {
            return Optional.of(new URI(location)).filter(URI::isAbsolute).map(URI::toString);
        } catch (URISyntaxException e) {
            return Optional.empty(); // of ssh, written short
        }
    }
}
