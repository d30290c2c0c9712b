package dev.oddbeacon.server.backup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.stream.Stream;
import javax.sql.DataSource;
import org.eclipse.jgit.util.FileUtils;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class BackupTest {
    @TempDir
    private Path folder;

    private final List<String> database = Database.shared().create();

    private static DataSource source(List<String> database) {
        return new DriverManagerDataSource(
                value(database, "url"), value(database, "user"), value(database, "password"));
    }

    private static String value(List<String> database, String setting) {
        String start = "--oddbeacon.database." + setting + "=";
        return database.stream()
                .filter(option -> option.startsWith(start))
                .map(option -> option.substring(start.length()))
                .findFirst()
                .orElseThrow();
    }

    private static Path backup(List<String> database, Path data, Path into) throws IOException, SQLException {
        try (Connection connection = source(database).getConnection()) {
            return Backup.write(connection, data, into).folder();
        }
    }

    private static void execute(List<String> database, String... statements) throws SQLException {
        try (Connection connection = source(database).getConnection();
                Statement statement = connection.createStatement()) {
            for (String one : statements) {
                statement.execute(one);
            }
        }
    }

    private TestRepository repository(String name) throws IOException {
        return TestRepository.create(folder.resolve(name))
                .write("log.txt", "high water at " + name + "\n")
                .commit("Start");
    }

    /** A backup of a service that has everything a backup can hold; the service is gone after it. */
    private Path everything() throws IOException, SQLException {
        Path data = folder.resolve("data");
        try (TestService service = TestService.start(database, data)) {
            service.add("pier", repository("pier").path(), "ours", "Überfahrt");
            Path lost = repository("lost").path();
            service.add("lost", lost);
            assertThat(service.put(
                                    "/api/v1/exclusion-sets/noise",
                                    "{\"description\":\"Noise – 潮\",\"patterns\":\"*.tmp\",\"byDefault\":true}")
                            .status())
                    .isLessThan(300);
            FileUtils.delete(lost.toFile(), FileUtils.RECURSIVE);
            service.post("/api/v1/repositories/lost/refresh", "application/json", "");
            Waiting.until(() -> state(service, "lost").equals("failed"));
            return backup(database, data, folder.resolve("backups"));
        }
    }

    private static String state(TestService service, String repository) {
        return service.get("/api/v1/repositories/" + repository)
                .json()
                .path("state")
                .asString();
    }

    @Test
    void whatIsRestoredIsFetchedIndexedAndSearchableWithoutAnythingElse() throws Exception {
        Path backup = everything();
        FileUtils.delete(folder.resolve("data").toFile(), FileUtils.RECURSIVE);
        List<String> empty = Database.shared().create();
        Path data = Files.createDirectory(folder.resolve("other"));
        About about = Restore.read(source(empty), data, backup);
        assertThat(about.rows()).containsEntry("repository", 2L).doesNotContainKeys("segment", "branch", "job");
        try (TestService service = TestService.start(empty, data)) {
            service.awaitReady("pier");
            assertThat(service.get("/api/v1/search/lines", "q", "high water", "label", "Überfahrt")
                            .json()
                            .path("counts")
                            .path("hits")
                            .asInt())
                    .isEqualTo(1);
            JsonNode set = service.get("/api/v1/exclusion-sets").json().path(0);
            assertThat(set.path("description").asString()).isEqualTo("Noise – 潮");
            Waiting.until(() -> state(service, "lost").equals("failed"));
        }
    }

    @Test
    void whatCannotBeFetchedFromIsInItAsABundle() throws Exception {
        Path bundle = everything().resolve("mirrors/lost.bundle");
        Path clone = folder.resolve("clone");
        Process git = new ProcessBuilder("git", "clone", "-q", "--mirror", bundle.toString(), clone.toString())
                .inheritIO()
                .start();
        assertThat(git.waitFor()).isZero();
        Process show = new ProcessBuilder("git", "--git-dir=" + clone, "grep", "-h", "high", "refs/heads/main").start();
        assertThat(new String(show.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .isEqualTo("high water at lost\n");
    }

    @Test
    void theKeyOfCredentialsComesWithIt() throws Exception {
        Path backup = everything();
        byte[] key = Files.readAllBytes(folder.resolve("data/secret-key"));
        Path data = Files.createDirectory(folder.resolve("other"));
        Restore.read(source(Database.shared().create()), data, backup);
        assertThat(data.resolve("secret-key")).hasBinaryContent(key);
    }

    @Test
    void nothingUnfinishedIsLeftBesideIt() throws Exception {
        Path backup = everything();
        try (Stream<Path> all = Files.list(backup.getParent())) {
            assertThat(all).containsExactly(backup);
        }
    }

    /** Tables as they were before some migrations, with what people had in them. */
    @ParameterizedTest
    @ValueSource(strings = {"1", "3", "6", "9", "11", "13"})
    void oneOfAnEarlierVersionIsBroughtUpToDate(String schema) throws Exception {
        Flyway.configure().dataSource(source(database)).target(schema).load().migrate();
        execute(
                database,
                "insert into repository (id, name, title, location, state, created) values (7, 'pier', 'The pier', '"
                        + repository("pier").path() + "', 'READY', now())",
                "insert into repository_label values (7, 0, 'ours')");
        Path backup = backup(database, folder, folder.resolve("backups"));
        List<String> empty = Database.shared().create();
        Path data = Files.createDirectory(folder.resolve("other"));
        Restore.read(source(empty), data, backup);
        try (TestService service = TestService.start(empty, data)) {
            service.awaitReady("pier");
            assertThat(service.get("/api/v1/repositories/pier")
                            .json()
                            .path("labels")
                            .path(0)
                            .asString())
                    .isEqualTo("ours");
        }
    }

    @Nested
    class Refused {
        private final List<String> empty = Database.shared().create();
        private Path backup;

        private void make() throws Exception {
            Flyway.configure().dataSource(source(database)).load().migrate();
            execute(
                    database,
                    "insert into repository (name, title, location, state, created) values ('pier', '', '/x', 'READY', now())");
            backup = backup(database, folder, folder.resolve("backups"));
        }

        private void refuses(String why) throws SQLException {
            assertThatThrownBy(() -> Restore.read(source(empty), folder, backup))
                    .isInstanceOf(CannotRestoreException.class)
                    .hasMessageContaining(why);
            try (Connection connection = source(empty).getConnection()) {
                assertThat(Tables.all(connection)).as("nothing was changed").isEmpty();
            }
        }

        private void change(String what, String into) throws IOException {
            Path about = backup.resolve(About.FILE);
            String text = Files.readString(about);
            assertThat(text).contains(what);
            Files.writeString(about, text.replace(what, into));
        }

        @Test
        void isAFolderThatIsNoBackup() throws Exception {
            backup = folder;
            refuses("is no backup");
        }

        @Test
        void isOneOfWhichAFileWasChanged() throws Exception {
            make();
            Path file = backup.resolve("records/repository.jsonl.gz");
            byte[] bytes = Files.readAllBytes(file);
            bytes[bytes.length / 2] ^= 1;
            Files.write(file, bytes);
            refuses("repository.jsonl.gz of this backup is missing or not as it was written");
        }

        @Test
        void isOneOfWhichAFileIsMissing() throws Exception {
            make();
            Files.delete(backup.resolve("records/account.jsonl.gz"));
            refuses("account.jsonl.gz of this backup is missing");
        }

        @Test
        void isOneOfALaterVersion() throws Exception {
            make();
            try (Connection connection = source(database).getConnection()) {
                change("\"schema\" : \"" + Tables.schema(connection), "\"schema\" : \"999");
            }
            refuses("made by a later version");
        }

        @Test
        void isOneWithFewerRowsThanItSays() throws Exception {
            make();
            change("\"repository\" : 1", "\"repository\" : 2");
            refuses("1 of the 2 rows of repository");
        }

        @Test
        void isOneThatNamesAFileOutsideOfIt() throws Exception {
            make();
            change("records/account.jsonl.gz", "../../outside");
            refuses("is missing");
        }

        @Test
        void isAPlaceThatHasRecords() throws Exception {
            make();
            assertThatThrownBy(() -> Restore.read(source(database), folder, backup))
                    .isInstanceOf(CannotRestoreException.class)
                    .hasMessageContaining("records already");
            assertThat(JsonMapper.shared()
                            .readTree(backup.resolve(About.FILE).toFile())
                            .path("rows")
                            .path("repository")
                            .asInt())
                    .isEqualTo(1);
        }
    }
}
