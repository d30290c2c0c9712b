package dev.oddbeacon.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.boot.env.YamlPropertySourceLoader;
import org.springframework.core.env.MapPropertySource;
import org.springframework.core.env.StandardEnvironment;
import org.springframework.core.env.SystemEnvironmentPropertySource;
import org.springframework.core.io.ClassPathResource;

/** Settings from a file, the environment and the command line. */
class SettingsTest {
    @TempDir
    Path folder;

    /** What the service would start with. */
    private Settings settings(String file, Map<String, Object> environment, Map<String, Object> options)
            throws IOException {
        Path path = Files.writeString(folder.resolve("settings.yaml"), file);
        StandardEnvironment sources = new StandardEnvironment();
        sources.getPropertySources()
                .replace(
                        StandardEnvironment.SYSTEM_ENVIRONMENT_PROPERTY_SOURCE_NAME,
                        new SystemEnvironmentPropertySource(
                                StandardEnvironment.SYSTEM_ENVIRONMENT_PROPERTY_SOURCE_NAME, environment));
        Map<String, Object> all = new HashMap<>(options);
        all.put("oddbeacon.settings", path.toString());
        sources.getPropertySources().addFirst(new MapPropertySource("options", all));
        new YamlPropertySourceLoader()
                .load("defaults", new ClassPathResource("application.yaml"))
                .forEach(sources.getPropertySources()::addLast);
        SettingsFile.addTo(sources);
        return SettingsCheck.settings(sources);
    }

    @Test
    void optionsWinOverTheEnvironmentAndThatOverTheFile() throws IOException {
        Settings settings = settings(
                """
                oddbeacon:
                  search-time: 3s
                  job-time: 4m
                  stall-time: 1m
                  names: [search.quillhaven.example]
                """,
                Map.of("ODDBEACON_JOBTIME", "5m", "ODDBEACON_STALLTIME", "2m"),
                Map.of("oddbeacon.stall-time", "3m"));
        assertThat(settings.searchTime()).isEqualTo(Duration.ofSeconds(3));
        assertThat(settings.jobTime()).isEqualTo(Duration.ofMinutes(5));
        assertThat(settings.stallTime()).isEqualTo(Duration.ofMinutes(3));
        assertThat(settings.names()).containsExactly("search.quillhaven.example");
        assertThat(settings.sessions().idle()).as("the default").isEqualTo(Duration.ofHours(8));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            oddbeacon: {serach-time: 3s}                    | There is no setting oddbeacon.serach-time
            oddbeacon: {serach-time: 3s}                    | line 1). The nearest is oddbeacon.search-time
            oddbeacon: {search-time: soon}                  | oddbeacon.search-time cannot be "soon"
            oddbeacon: {search-time: soon}                  | a duration such as 90s
            oddbeacon: {search-time: 0s}                    | A duration must be longer than nothing
            oddbeacon: {largest-file: big}                  | a size such as 500MB
            oddbeacon: {port: many}                         | a whole number
            oddbeacon: {port: 70000}                        | Take a number from 0 to 65535
            oddbeacon: {accounts: maybe}                    | true or false
            oddbeacon: {quotas: {requests: 0}}              | oddbeacon.quotas.requests must be 1 or more
            oddbeacon: {tls: {certificate: a.pem}}          | TLS needs two PEM files
            oddbeacon: [                                    | is not YAML
            oddbeacon: {issuer: {address: "https://id.example"}} | nobody signs in
            oddbeacon: {accounts: true, issuer: {address: "http://id.example"}} | Give the https address
            oddbeacon: {accounts: true, issuer: {address: "https://id.example"}} | set oddbeacon.issuer.client and oddbeacon.issuer.secret
            spring: {datasource: {url: x}}                  | There is no setting spring.datasource.url
            """)
    void whatIsWrongIsSaid(String file, String said) {
        assertThatThrownBy(() -> settings(file, Map.of(), Map.of()))
                .isInstanceOf(CannotStartException.class)
                .hasMessageContaining(said);
    }

    @Test
    void everySettingIsDescribed() throws IOException {
        String page = Files.readString(Path.of("../docs/settings.md"));
        assertThat(SettingsCheck.names()).allSatisfy(name -> assertThat(page).contains("| `" + name + "` |"));
    }
}
