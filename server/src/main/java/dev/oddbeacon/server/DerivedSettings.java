package dev.oddbeacon.server;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.MapPropertySource;

/** What the libraries beneath are told, where it follows from settings of our own. */
final class DerivedSettings {
    private DerivedSettings() {}

    static void addTo(ConfigurableEnvironment environment, Settings settings) {
        Map<String, Object> derived = new HashMap<>();
        if (!settings.tls().certificate().isEmpty()) {
            derived.put("server.ssl.bundle", "web");
            derived.put("spring.ssl.bundle.pem.web.reload-on-update", "true");
            derived.put(
                    "spring.ssl.bundle.pem.web.keystore.certificate",
                    file(settings.tls().certificate()));
            derived.put(
                    "spring.ssl.bundle.pem.web.keystore.private-key",
                    file(settings.tls().key()));
        }
        if (!settings.proxies().isEmpty()) {
            derived.put("server.forward-headers-strategy", "native");
            derived.put(
                    "server.tomcat.remoteip.internal-proxies", // an expression, in which a dot is any character
                    settings.proxies().stream()
                            .map(proxy -> proxy.replace(".", "[.]"))
                            .collect(Collectors.joining("|")));
        }
        if (settings.log().format() == Settings.Log.Format.JSON) {
            derived.put("logging.structured.format.console", JsonLogLines.class.getName());
        }
        environment.getPropertySources().addLast(new MapPropertySource("derived", derived));
    }

    private static String file(String path) {
        return "file:" + Path.of(path).toAbsolutePath();
    }
}
