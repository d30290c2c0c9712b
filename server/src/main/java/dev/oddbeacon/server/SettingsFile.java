package dev.oddbeacon.server;

import dev.oddbeacon.core.text.EditDistance;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import org.springframework.boot.env.YamlPropertySourceLoader;
import org.springframework.boot.origin.Origin;
import org.springframework.boot.origin.OriginLookup;
import org.springframework.boot.origin.TextResourceOrigin;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.EnumerablePropertySource;
import org.springframework.core.env.PropertySource;
import org.springframework.core.env.StandardEnvironment;
import org.springframework.core.io.FileSystemResource;
import org.yaml.snakeyaml.error.YAMLException;

/**
 * A file of settings in YAML, named by {@code oddbeacon.settings}. Options of the command line and variables of the
 * environment win over it. A name that is none refuses the whole file: nobody should believe in a setting that has no
 * effect.
 */
final class SettingsFile {
    private SettingsFile() {}

    static void addTo(ConfigurableEnvironment environment) {
        String name = environment.getProperty("oddbeacon.settings", "");
        if (name.isEmpty()) {
            return;
        }
        Path file = Path.of(name).toAbsolutePath();
        if (!Files.isReadable(file)) {
            throw new CannotStartException("The file of settings " + file + " cannot be read.");
        }
        List<PropertySource<?>> sources;
        try {
            sources = new YamlPropertySourceLoader().load("settings", new FileSystemResource(file));
        } catch (YAMLException e) {
            throw new CannotStartException("The file of settings " + file + " is not YAML: "
                    + String.join(
                            " ",
                            e.getMessage().strip().lines().map(String::strip).toList()));
        } catch (IOException e) {
            throw new CannotStartException("The file of settings " + file + " cannot be read: " + e.getMessage());
        }
        for (PropertySource<?> source : sources) {
            check(file, (EnumerablePropertySource<?>) source);
            environment
                    .getPropertySources()
                    .addAfter(StandardEnvironment.SYSTEM_ENVIRONMENT_PROPERTY_SOURCE_NAME, source);
        }
    }

    private static void check(Path file, EnumerablePropertySource<?> source) {
        List<String> known = SettingsCheck.names();
        for (String name : source.getPropertyNames()) {
            String setting = name.contains("[") ? name.substring(0, name.indexOf('[')) : name;
            if (!known.contains(setting)) {
                String nearest = known.stream()
                        .min(Comparator.comparingInt(other -> EditDistance.of(setting, other)))
                        .orElseThrow();
                throw new CannotStartException("There is no setting " + setting + " (" + place(file, source, name)
                        + "). The nearest is " + nearest + "; docs/settings.md lists all.");
            }
        }
    }

    private static String place(Path file, PropertySource<?> source, String name) {
        Origin origin = OriginLookup.getOrigin(source, name);
        return origin instanceof TextResourceOrigin text && text.getLocation() != null
                ? file + ", line " + (text.getLocation().getLine() + 1)
                : file.toString();
    }
}
