package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

class HttpTest {
    private static Http.Answer lines(String... parameters) {
        return Http.get(Demo.address(), "/api/v1/search/lines", parameters);
    }

    @Nested
    class Searching {
        @Test
        void answersWithCountsFacetsAndExcerpts() {
            Http.Answer answer = lines("q", "surge threshold", "context", "1", "counts", "exact");
            assertThat(answer.status()).isEqualTo(200);
            JsonNode counts = answer.json().path("counts");
            assertThat(counts.path("exact").asBoolean()).isTrue();
            assertThat(counts.path("repositories").asInt()).isEqualTo(2);
            assertThat(answer.json().path("index").path("complete").asBoolean()).isTrue();
            JsonNode facets = answer.json().path("facets").path("repository");
            assertThat(facets.get(0).path("hits").asLong()
                            + facets.get(1).path("hits").asLong())
                    .isEqualTo(counts.path("hits").asLong());
            JsonNode lines =
                    answer.json().path("files").get(0).path("excerpts").get(0).path("lines");
            assertThat(lines.size()).isBetween(2, 3);
        }

        @Test
        void pagesToTheEndWithoutLosingOrRepeatingAHit() {
            List<String> whole =
                    hits(lines("q", "t", "limit", "1000", "context", "0").json());
            List<String> paged = new ArrayList<>();
            JsonNode page = lines("q", "t", "limit", "37", "context", "0").json();
            paged.addAll(hits(page));
            while (!page.path("next").isNull() && paged.size() < 1_000) {
                page = lines(
                                "q",
                                "t",
                                "limit",
                                "37",
                                "context",
                                "0",
                                "cursor",
                                page.path("next").asString())
                        .json();
                paged.addAll(hits(page));
            }
            assertThat(paged.subList(0, 999)).isEqualTo(whole.subList(0, 999));
        }

        private List<String> hits(JsonNode answer) {
            List<String> hits = new ArrayList<>();
            for (JsonNode file : answer.path("files")) {
                for (JsonNode excerpt : file.path("excerpts")) {
                    for (JsonNode line : excerpt.path("lines")) {
                        hits.add(file.path("repository").asString() + "/"
                                + file.path("path").asString() + ":"
                                + line.path("number").asInt());
                    }
                }
            }
            return hits;
        }

        @Test
        void takesTheEndOfAnExpressionForGrantedWhileItIsTyped() {
            JsonNode typed = lines("q", "tide and (surge or", "reading", "expression", "typing", "true")
                    .json();
            assertThat(typed.path("query").path("expression").asString()).isEqualTo("tide surge");
            assertThat(typed.path("query").path("unfinished").path("unfinished").asBoolean())
                    .isTrue();
            Http.Answer finished = lines("q", "tide and (surge or", "reading", "expression");
            assertThat(finished.status()).isEqualTo(400);
            assertThat(finished.json().path("mistakes").get(0).path("position").asInt())
                    .isEqualTo(16);
        }

        @Test
        void ordersByRelevanceAndSaysWhy() {
            JsonNode files = lines("q", "mooring buffer", "order", "relevance", "case", "ignore")
                    .json()
                    .path("files");
            int before = Integer.MAX_VALUE;
            for (JsonNode file : files) {
                int points = file.path("relevance").path("points").asInt();
                assertThat(points).isLessThanOrEqualTo(before);
                before = points;
            }
            assertThat(files.get(0).path("relevance").path("reasons").get(0).asString())
                    .contains("(+");
        }

        @Test
        void pagesThroughEveryOrderWithoutLosingOrRepeatingAFile() {
            for (String order : List.of("path", "relevance", "recent")) {
                List<String> found = new ArrayList<>();
                JsonNode page = lines("q", "tide", "order", order, "only", "files", "limit", "7")
                        .json();
                while (true) {
                    page.path("files")
                            .forEach(file -> found.add(file.path("repository").asString() + "/"
                                    + file.path("path").asString()));
                    if (page.path("next").isNull()) {
                        break;
                    }
                    page = lines(
                                    "q",
                                    "tide",
                                    "order",
                                    order,
                                    "only",
                                    "files",
                                    "limit",
                                    "7",
                                    "cursor",
                                    page.path("next").asString())
                            .json();
                }
                assertThat(found)
                        .as(order)
                        .doesNotHaveDuplicates()
                        .hasSize(lines("q", "tide", "only", "counts")
                                .json()
                                .path("counts")
                                .path("files")
                                .asInt());
            }
        }

        @Test
        void offersSecondLooksThatFindSomething() {
            JsonNode answer = Http.get(
                            Demo.address(),
                            "/api/v1/search/lines/second-looks",
                            "q",
                            "SURGE THRESHOLD",
                            "case",
                            "match")
                    .json();
            assertThat(answer.path("looks"))
                    .isNotEmpty()
                    .allMatch(look ->
                            look.path("hits").asInt() + look.path("files").asInt() > 0);
            JsonNode wider = Http.get(
                            Demo.address(),
                            "/api/v1/search/lines/second-looks",
                            "q",
                            "surge threshold",
                            "repo",
                            "fare-gate")
                    .json()
                    .path("looks");
            assertThat(wider.get(0).path("change").asString()).isEqualTo("in all repositories");
            assertThat(wider.get(0).path("scope").path("repo").isEmpty()).isTrue();
        }

        @Test
        void findsTextOverSeveralLines() {
            Http.Answer answer = lines("q", "uint16_t crc = 0xFFFF;\r\n\twhile (length--) {\n", "context", "0");
            JsonNode lines =
                    answer.json().path("files").get(0).path("excerpts").get(0).path("lines");
            assertThat(lines.size()).isEqualTo(2);
            assertThat(lines.get(1).path("matches").get(0).path("end").asInt())
                    .isEqualTo("\twhile (length--) {".length());
        }

        @Test
        void cutsVeryLongLinesAroundTheirMatches() {
            JsonNode line = lines("q", "g.mooring=f7")
                    .json()
                    .path("files")
                    .get(0)
                    .path("excerpts")
                    .get(0)
                    .path("lines")
                    .get(0);
            assertThat(line.path("text").asString().length()).isLessThanOrEqualTo(2_000);
            int start = line.path("matches").get(0).path("start").asInt()
                    - line.path("textStart").asInt();
            assertThat(line.path("text").asString().substring(start)).startsWith("g.mooring=f7");
        }

        @Test
        void survivesWhatWouldExplodeABacktrackingMatcher() {
            assertThat(lines("q", "(a*)*b", "reading", "regex").status()).isEqualTo(200);
            assertThat(lines("q", "(x+x+)+y", "reading", "regex")
                            .json()
                            .path("tookMillis")
                            .asDouble())
                    .isLessThan(5_000);
            Http.Answer large = lines("q", "(.{1000}){1000}", "reading", "regex");
            assertThat(large.status()).isEqualTo(400);
            assertThat(large.text("detail")).contains("smaller counts");
        }
    }

    @Nested
    class Mistakes {
        @Test
        void areProblemsThatSayWhatToDo() {
            assertThat(lines("q", "").text("detail")).contains("Give at least one character");
            Http.Answer lookahead = lines("q", "ab(?=c)", "reading", "regex");
            assertThat(lookahead.status()).isEqualTo(400);
            assertThat(lookahead.json().path("position").asInt()).isEqualTo(2);
            assertThat(lookahead.response().headers().firstValue("Content-Type"))
                    .hasValue("application/problem+json");
            assertThat(lines("q", "x", "limit", "5000").text("detail")).contains("from 1 to 1000");
            assertThat(lines("q", "x", "reading", "odd").text("detail")).contains("plain, regex");
            assertThat(lines("q", "x", "cursor", "rubbish").status()).isEqualTo(400);
            assertThat(lines("q", "x", "word", "5").text("detail")).contains("it must be true or false");
            assertThat(lines("q", "x", "cursor", "zzzz-0-0").status()).isEqualTo(400);
            assertThat(lines("q", "x", "cursor", "l-1-1-0-0-1").text("detail"))
                    .as("of another process")
                    .contains("Search again from the start");
            assertThat(lines("q", "x", "branch", "nobranch").status()).isEqualTo(400);
            assertThat(lines("q", "x", "limit", "many").text("detail")).contains("limit is \"many\"");
            assertThat(lines("reading", "plain").text("detail")).contains("The parameter q is missing");
        }

        @Test
        void whatNobodyCanMeanIsRefusedOrAnsweredWithinSeconds() {
            long start = System.nanoTime();
            assertThat(lines("q", ".{1000}{1000}", "reading", "regex").text("detail"))
                    .contains("Two repetitions follow each other");
            assertThat(lines("q", "(.{1000}){1000}", "reading", "regex").text("detail"))
                    .contains("multiply");
            assertThat(lines("q", "(a*)*b", "reading", "regex").status()).isEqualTo(200);
            assertThat(lines("q", "(?i)[\\x{10}-\\x{FFFF}]+z", "reading", "regex")
                            .status())
                    .isEqualTo(200);
            assertThat(lines("q", "a ".repeat(1_000), "reading", "expression").text("detail"))
                    .contains("more than 250 clauses");
            assertThat(lines("q", "(".repeat(5_000) + "a" + ")".repeat(4_999), "reading", "expression")
                            .text("detail"))
                    .contains("more than 100 deep");
            assertThat(lines("q", "not (not (a or not b))", "reading", "expression")
                            .status())
                    .isEqualTo(200);
            assertThat(lines("q", "\0", "reading", "plain").status()).isEqualTo(200);
            assertThat(lines("q", "x*", "reading", "regex", "only", "counts")
                            .json()
                            .path("counts")
                            .path("exact")
                            .asBoolean())
                    .isTrue();
            assertThat(Duration.ofNanos(System.nanoTime() - start))
                    .as("nine answers, none of which may grow with what is asked")
                    .isLessThan(Duration.ofSeconds(20));
        }

        @Test
        void tenThousandCharactersAreTakenButNotMore() {
            assertThat(lines("q", "ü".repeat(10_000)).status()).isEqualTo(200);
            assertThat(lines("q", "u".repeat(10_001)).text("detail")).contains("at most 10000");
        }

        @Test
        void pathsDoNotClimbOut() {
            for (String path : List.of("../../../etc/passwd", "/etc/passwd", "..", "a/../../b", "")) {
                assertThat(Http.get(Demo.address(), "/api/v1/repositories/fare-gate/file", "path", path)
                                .status())
                        .as(path)
                        .isEqualTo(404);
                assertThat(Http.get(Demo.address(), "/api/v1/repositories/fare-gate/raw", "path", path, "rev", "v1.0")
                                .status())
                        .as(path)
                        .isEqualTo(404);
            }
            assertThat(Http.get(Demo.address(), "/api/v1/repositories/nobody/file", "path", "x")
                            .status())
                    .isEqualTo(404);
        }
    }

    @Nested
    class Safety {
        @Test
        void refusesForeignHostsAndWritesFromForeignPages() throws IOException {
            assertThat(rawStatus("evil.example")).contains("403");
            assertThat(rawStatus("localhost")).contains("200");
            String body = "{\"name\":\"x\",\"location\":\"/tmp\"}";
            assertThat(Http.post(Demo.address(), "/api/v1/repositories", body, "Origin", "https://evil.example")
                            .status())
                    .isEqualTo(403);
        }

        private String rawStatus(String host) throws IOException {
            try (Socket socket =
                    new Socket("127.0.0.1", URI.create(Demo.address()).getPort())) {
                socket.getOutputStream()
                        .write(("GET /api/v1/status HTTP/1.1\r\nHost: " + host + "\r\nConnection: close\r\n\r\n")
                                .getBytes(StandardCharsets.US_ASCII));
                return new String(socket.getInputStream().readNBytes(15), StandardCharsets.US_ASCII);
            }
        }

        @Test
        void showsImagesAndNothingElseOfARepository() {
            Http.Answer image =
                    Http.get(Demo.address(), "/api/v1/repositories/passenger-app/raw", "path", "public/beacon.png");
            assertThat(image.response().headers().firstValue("Content-Type")).hasValue("image/png");
            assertThat(image.response()
                            .headers()
                            .firstValue("Content-Security-Policy")
                            .orElseThrow())
                    .contains("sandbox");
            Http.Answer script =
                    Http.get(Demo.address(), "/api/v1/repositories/deck-signs/raw", "path", "preview/sign.js");
            assertThat(script.response()
                            .headers()
                            .firstValue("Content-Disposition")
                            .orElseThrow())
                    .startsWith("attachment");
        }

        @Test
        void setsAContentSecurityPolicyForTheConsole() {
            assertThat(Http.get(Demo.address(), "/")
                            .response()
                            .headers()
                            .firstValue("Content-Security-Policy")
                            .orElseThrow())
                    .contains("script-src 'self'");
        }
    }

    @Nested
    class Files {
        @Test
        void areShownAsTextWithTheirEncodingAndRevision() {
            Http.Answer old =
                    Http.get(Demo.address(), "/api/v1/repositories/deck-signs/file", "path", "texts/skerry-lodge.txt");
            assertThat(old.text("encoding")).isEqualTo("ISO-8859-1");
            assertThat(old.text("text")).contains("Señal de prueba");
            assertThat(old.json().path("lines").asInt()).isEqualTo(5);
            Http.Answer before = Http.get(
                    Demo.address(),
                    "/api/v1/repositories/fare-gate/file",
                    "path",
                    "internal/ticket/ticket.go",
                    "rev",
                    "v1.0");
            assertThat(before.text("text")).contains("now.After(t.Expiry)");
            assertThat(before.text("commit")).hasSize(40);
            Http.Answer link =
                    Http.get(Demo.address(), "/api/v1/repositories/shore-ops/file", "path", "runbooks/current.md");
            assertThat(link.text("skipped")).contains("a link");
            assertThat(link.json().path("text").isNull()).isTrue();
        }

        @Test
        void areFoundByFragmentsOfTheirPath() {
            JsonNode files = Http.get(Demo.address(), "/api/v1/search/files", "q", "main tide client")
                    .json()
                    .path("files");
            assertThat(files.size()).isEqualTo(1);
            assertThat(files.get(0).path("path").asString()).endsWith("tide/TidewatchClient.java");
            assertThat(files.get(0).path("matches").size()).isEqualTo(3);
            assertThat(Http.get(Demo.address(), "/api/v1/search/files", "repo", "fare-gate")
                            .json()
                            .path("counts")
                            .path("files")
                            .asInt())
                    .isEqualTo(21);
        }
    }

    @Test
    void tellsChangesAsTheyHappen() throws Exception {
        try (Socket socket = new Socket("127.0.0.1", URI.create(Demo.address()).getPort())) {
            socket.setSoTimeout(20_000);
            socket.getOutputStream()
                    .write("GET /api/v1/events HTTP/1.1\r\nHost: localhost\r\n\r\n"
                            .getBytes(StandardCharsets.US_ASCII));
            BufferedReader events =
                    new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8));
            for (String line = events.readLine(); !line.contains("listening"); line = events.readLine()) {
                assertThat(line).isNotNull();
            }
            assertThat(Http.post(Demo.address(), "/api/v1/repositories/deck-signs/refresh", "")
                            .status())
                    .isEqualTo(202);
            List<String> states = new ArrayList<>();
            while (!states.contains("ready")) {
                String line = events.readLine();
                if (line.startsWith("data:") && line.contains("\"name\":\"deck-signs\"")) {
                    states.add(line.replaceFirst(".*\"state\":\"(\\w+)\".*", "$1"));
                }
            }
            assertThat(states).contains("indexing").startsWith("waiting");
        }
    }

    @Test
    void describesItselfAndItsHealth() {
        JsonNode document = Http.get(Demo.address(), "/api/v1/openapi.json").json();
        assertThat(document.path("info").path("title").asString()).isEqualTo("Odd Beacon");
        assertThat(document.path("info").path("version").asString())
                .isEqualTo(Http.get(Demo.address(), "/api/v1/status").text("version"))
                .matches("\\d+\\.\\d+\\.\\d+");
        JsonNode paths = document.path("paths");
        assertThat(paths.propertyNames())
                .contains(
                        "/api/v1/search/lines",
                        "/api/v1/search/files",
                        "/api/v1/repositories",
                        "/api/v1/repositories/{name}/file",
                        "/api/v1/repositories/{name}/skipped",
                        "/api/v1/events",
                        "/api/v1/status");
        assertThat(Http.get(Demo.address(), "/actuator/health").response().statusCode())
                .isEqualTo(200);
        assertThat(Http.get(Demo.address(), "/actuator/metrics").response().statusCode())
                .isEqualTo(200);
        assertThat(Http.get(Demo.address(), "/api/v1/metrics").response().statusCode())
                .isEqualTo(200);
    }
}
