package dev.oddbeacon.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a caller gets wrong is answered 400 with what to do, never 500, by every subject alike. */
class WrongParametersTest {
    private static TestService service;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        TestRepository repository = TestRepository.create(folder.resolve("tide"))
                .write("a.txt", "low tide\n")
                .commit("Gauge");
        service = TestService.start(Database.shared().create(), folder.resolve("data"))
                .add("tide", repository.path());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    @ParameterizedTest
    @CsvSource({
        "lines, limit, 0",
        "lines, limit, many",
        "lines, limit, 99999999",
        "lines, context, -1",
        "lines, context, 51",
        "lines, reading, tealeaves",
        "lines, case, sometimes",
        "lines, word, perhaps",
        "lines, order, height",
        "lines, only, me",
        "lines, counts, roughly",
        "lines, cursor, x",
        "lines, type, kelp",
        "lines, trait, salty",
        "lines, region, deck",
        "lines, changedAfter, yesterday",
        "lines, changedBefore, 2026-02-31",
        "lines, except, nothing",
        "files, limit, 0",
        "files, reading, tealeaves",
        "files, kind, boat",
        "files, order, height",
        "files, size, huge",
        "files, cursor, x",
        "files, trait, salty",
        "symbols, limit, 0",
        "symbols, reading, tealeaves",
        "symbols, role, captain",
        "symbols, kind, boat",
        "symbols, cursor, x",
        "symbols, region, deck",
        "commits, limit, 0",
        "commits, reading, tealeaves",
        "commits, after, yesterday",
        "commits, before, 2026-13",
        "commits, cursor, x"
    })
    void areRefusedByName(String subject, String parameter, String value) {
        TestService.Answer answer = service.get("/api/v1/search/" + subject, "q", "tide", parameter, value);
        assertThat(answer.status()).as(answer.body()).isEqualTo(400);
        assertThat(answer.json().path("status").asInt()).isEqualTo(400);
        assertThat(answer.detail()).containsAnyOf(parameter, value).endsWith(".");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "near(; 4",
                "tide and; 0",
                "naer(3, tide, gauge); 0",
                "\"open; 0",
                "size(over: big); 0",
                "changed(after: soon); 0",
                "size(); 0"
            })
    void ofAnExpressionAreMarkedWhereTheyStand(String expression, int atLeast) {
        TestService.Answer answer = service.get("/api/v1/search/lines", "reading", "expression", "q", expression);
        assertThat(answer.status()).as(answer.body()).isEqualTo(400);
        assertThat(answer.json().path("mistakes").size()).isPositive();
        assertThat(answer.json().path("mistakes").path(0).path("position").asInt())
                .isBetween(atLeast, expression.length());
        assertThat(answer.json().path("mistakes").path(0).path("message").asString())
                .isNotBlank();
    }

    @Test
    void leaveTheServiceAsItWas() {
        assertThat(service.get("/api/v1/search/lines", "q", "tide", "limit", "0")
                        .status())
                .isEqualTo(400);
        TestService.Answer right = service.get("/api/v1/search/lines", "q", "tide");
        assertThat(right.status()).isEqualTo(200);
        assertThat(right.json().path("counts").path("hits").asInt()).isEqualTo(1);
    }

    @Test
    void areTheSameInAForm() {
        TestService.Answer form =
                service.post("/api/v1/search/lines", "application/x-www-form-urlencoded", "q=tide&order=height");
        assertThat(form.status()).isEqualTo(400);
        assertThat(form.detail())
                .isEqualTo(service.get("/api/v1/search/lines", "q", "tide", "order", "height")
                        .detail());
    }

    @Test
    void whatIsNotThereIsAnswered404() {
        for (String path : List.of(
                "/api/v1/repositories/nothing",
                "/api/v1/repositories/nothing/file?path=a.txt",
                "/api/v1/repositories/tide/file?path=nothing.txt",
                "/api/v1/repositories/tide/outline?path=nothing.txt",
                "/api/v1/repositories/tide/commits/0123456789012345678901234567890123456789",
                "/api/v1/exclusion-sets/nothing",
                "/api/v1/nothing")) {
            TestService.Answer answer = service.get(path);
            assertThat(answer.status()).as(path).isEqualTo(404);
            assertThat(answer.detail()).as(path).isNotBlank();
        }
    }
}
