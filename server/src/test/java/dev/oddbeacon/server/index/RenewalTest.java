package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.segment.SectionReader;
import dev.oddbeacon.core.segment.SectionWriter;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;

/** A new version of the program searches what an earlier one wrote, writes it anew meanwhile, and can be taken back. */
class RenewalTest {
    @TempDir
    Path folder;

    private List<String> database;
    private Path data;
    private TestRepository tide;

    @BeforeEach
    void lay() throws IOException {
        database = Database.shared().create();
        data = folder.resolve("data");
        tide = TestRepository.create(folder.resolve("tide"))
                .write("Gauge.java", "class Gauge { int level() { return 3; } }\n")
                .write("tools/read", "#!/bin/sh\nread_gauge() {\n  echo level\n}\n")
                .write("notes.txt", "the level\n")
                .commit("Gauge");
    }

    private TestService start() {
        return TestService.start(database, data);
    }

    private List<Path> files(String ending) {
        try (Stream<Path> files = Files.list(data.resolve("index"))) {
            return files.filter(file -> file.toString().endsWith(ending)).toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** As versions wrote it that did not say of which version it is. */
    private static void makeEarlier(Path file, String magic, int sections) throws IOException {
        Path earlier = file.resolveSibling("earlier");
        try (SectionReader now = new SectionReader(file, magic);
                SectionWriter out = new SectionWriter(earlier, magic, sections)) {
            assertThat(now.has(sections + 1)).isTrue();
            for (int kind = 1; kind <= sections; kind++) {
                byte[] bytes = now.section(kind).toArray(ValueLayout.JAVA_BYTE);
                out.bytes(bytes, bytes.length);
                out.endSection(kind);
            }
            out.finish();
        }
        Files.move(earlier, file, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    }

    private static String magic(Path file) throws IOException {
        return new String(Arrays.copyOf(Files.readAllBytes(file), 8), StandardCharsets.US_ASCII);
    }

    private static void makeLater(Path file) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        System.arraycopy("99".getBytes(StandardCharsets.US_ASCII), 0, bytes, 6, 2);
        Files.write(file, bytes);
    }

    private static boolean isAllOfNow(TestService service) {
        View view = service.bean(CurrentView.class).acquire();
        try {
            return view.outdated().isEmpty()
                    && view.segments().stream()
                            .noneMatch(segment -> segment.about().isOutdated());
        } finally {
            view.release();
        }
    }

    private static List<String> answers(TestService service) {
        return Stream.of(
                        service.get("/api/v1/search/lines", "q", "level"),
                        service.get("/api/v1/search/symbols", "q", "gauge"),
                        service.get("/api/v1/search/files", "q", "e"))
                .map(answer -> {
                    assertThat(answer.status()).as(answer.body()).isEqualTo(200);
                    return answer.json().path("files") + " " + answer.json().path("symbols");
                })
                .toList();
    }

    @Test
    void whatAnEarlierVersionWroteIsSearchedAndWrittenAnewMeanwhile() throws IOException {
        List<String> before;
        try (TestService service = start().add("tide", tide.path())) {
            before = answers(service);
            assertThat(before.getFirst()).contains("Gauge.java", "tools/read", "notes.txt");
            assertThat(before.get(1)).contains("read_gauge");
        }
        for (Path segment : files(".segment")) {
            makeEarlier(segment, magic(segment), 17);
            try (SegmentReader earlier = new SegmentReader(segment)) {
                assertThat(earlier.about().isOutdated()).isTrue();
            }
        }
        for (Path snapshot : files(".snapshot")) {
            makeEarlier(snapshot, magic(snapshot), 4);
            try (SnapshotReader earlier = new SnapshotReader(snapshot)) {
                assertThat(earlier.about().isOutdated()).isTrue();
            }
        }
        Files.move(tide.path(), folder.resolve("away")); // nothing is fetched for it
        List<Path> earlier = Stream.concat(files(".segment").stream(), files(".snapshot").stream())
                .toList();
        try (TestService service = start()) {
            assertThat(answers(service)).isEqualTo(before);
            Waiting.until(() -> isAllOfNow(service));
            assertThat(answers(service)).isEqualTo(before);
            Waiting.until(() -> earlier.stream().noneMatch(Files::exists));
        }
    }

    @Test
    void whatALaterVersionWroteIsReadAnewAndItsRecordsStay() throws IOException {
        List<String> before;
        try (TestService service = start().add("tide", tide.path())) {
            before = answers(service);
            JdbcTemplate records = service.bean(JdbcTemplate.class);
            records.update(
                    "insert into flyway_schema_history (installed_rank, version, description, type, script, checksum,"
                            + " installed_by, execution_time, success) values (9999, '9999', 'later', 'SQL', 'V9999__later.sql', 1,"
                            + " 'somebody', 1, 1)");
            records.execute("alter table repository add column later int");
            records.execute("create table later (id int)");
        }
        for (String kind : List.of(".segment", ".snapshot", ".history")) {
            for (Path file : files(kind)) {
                makeLater(file);
            }
        }
        try (TestService service = start()) {
            service.awaitReady("tide");
            Waiting.until(() -> answers(service).equals(before));
            assertThat(service.get("/api/v1/search/commits", "q", "Gauge").body())
                    .contains("Gauge");
            assertThat(service.bean(JdbcTemplate.class).queryForList("select * from later"))
                    .isEmpty();
        }
    }
}
