package dev.oddbeacon.server.symbols;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Symbols over HTTP, across two repositories: found by name, told apart, and followed from code. */
class SymbolsOverHttpTest {
    private static TestService service;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        TestRepository berths = TestRepository.create(folder.resolve("berths"))
                .write("src/Berth.java", """
                        package quay;

                        /** A place to lie at. */
                        public class Berth implements Place {
                            private int depth;

                            public int depth() {
                                return depth;
                            }
                        }
                        """)
                .write("src/Place.java", """
                        package quay;

                        public interface Place {
                            int depth();
                        }
                        """)
                .write("test/BerthTest.java", """
                        package quay;

                        class BerthTest {
                            void isDeep() {
                                check(new Berth().depth());
                            }
                        }
                        """)
                .commit("Berths");
        TestRepository signs = TestRepository.create(folder.resolve("signs"))
                .write("sign.c", "int depth(void)\n{\n\treturn 7;\n}\n")
                .write("README.md", "# Depth of signs\n")
                .commit("Signs");
        service = TestService.start(Database.shared().create(), folder.resolve("data"))
                .add("berths", berths.path())
                .add("signs", signs.path());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static JsonNode get(String path, String... parameters) {
        TestService.Answer answer = service.get("/api/v1" + path, parameters);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return answer.json();
    }

    private static List<String> found(String... parameters) {
        List<String> found = new ArrayList<>();
        get("/search/symbols", parameters)
                .path("symbols")
                .forEach(symbol -> found.add(symbol.path("kind").asString("use") + " "
                        + symbol.path("path").asString() + ":"
                        + symbol.path("line").asInt()));
        return found;
    }

    @Nested
    class CallsOfSomething {
        @Test
        void leadFromEndToEnd() {
            JsonNode callers = get("/calls", "symbol", "Berth.depth");
            assertThat(callers.path("of")).hasSize(2); // the method, and the field of its name
            JsonNode end = callers.path("ends").path(0);
            assertThat(end.path("declaration").path("name").asString()).isEqualTo("depth");
            String test = "berths/test/BerthTest.java:4:10";
            assertThat(callers.path("ends").path(1).path("at").asString()).isEqualTo(test);
            assertThat(callers.path("ends")
                            .path(1)
                            .path("sites")
                            .path(0)
                            .path("text")
                            .asString())
                    .isEqualTo("check(new Berth().depth());");
            assertThat(callers.path("ends").path(1).path("certainty").asString())
                    .isEqualTo("sure");

            JsonNode callees = get("/calls", "of", test, "direction", "callees");
            assertThat(callees.path("of").path(0).path("name").asString()).isEqualTo("isDeep");
            List<String> names = new ArrayList<>();
            callees.path("ends")
                    .forEach(one ->
                            names.add(one.path("declaration").path("name").asString()));
            assertThat(names).containsExactly("Berth", "depth");
        }

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "/calls | 400 | Say whose calls are asked for",
                    "/calls?symbol=depth&of=a/b:1:1 | 400 | not both",
                    "/calls?symbol=Harbour.lost | 404 | Nothing that is indexed declares Harbour.lost",
                    "/calls?symbol=depth&direction=up | 400 | direction",
                    "/calls?of=berths/src/Berth.java | 400 | REPOSITORY/PATH:LINE:COLUMN",
                    "/calls?of=berths/src/Berth.java:3:1 | 404 | No name of a symbol stands at",
                    "/calls?of=lost/src/Berth.java:3:1 | 404 | There is no file",
                })
        void areRefusedWithWhatToDo(String path, int status, String said) {
            TestService.Answer answer = service.get("/api/v1" + path);
            assertThat(answer.status()).isEqualTo(status);
            assertThat(answer.body()).contains(said);
        }
    }

    @Nested
    class ASearch {
        @Test
        void findsDeclarationsUsesOrBoth() {
            assertThat(found("q", "depth", "reading", "plain"))
                    .containsExactlyInAnyOrder(
                            "field src/Berth.java:5",
                            "method src/Berth.java:7",
                            "method src/Place.java:4",
                            "function sign.c:1");
            assertThat(found("q", "depth", "reading", "plain", "role", "use"))
                    .containsExactlyInAnyOrder("use src/Berth.java:8", "use test/BerthTest.java:5");
            assertThat(found("q", "depth", "reading", "plain", "role", "any")).hasSize(6);
        }

        @ParameterizedTest
        @CsvSource({
            "Berth.depth, fragments, 2",
            "de pth, fragments, 5",
            "BT, fragments, 1",
            "B*, glob, 2",
            "^is, regex, 1",
            "nothing, plain, 0",
        })
        void readsNamesInManyWays(String text, String reading, int count) {
            assertThat(found("q", text, "reading", reading)).hasSize(count);
        }

        @Test
        void isNarrowedByKindAndScope() {
            assertThat(found("q", "depth", "reading", "plain", "kind", "method"))
                    .hasSize(2);
            assertThat(found("q", "depth", "reading", "plain", "repo", "signs")).containsExactly("function sign.c:1");
            assertThat(found("q", "depth", "reading", "plain", "type", "java", "notUnder", "src/Place.java"))
                    .containsExactlyInAnyOrder("field src/Berth.java:5", "method src/Berth.java:7");
        }

        @Test
        void countsWhatItFindsByProperty() {
            JsonNode answer = get("/search/symbols", "q", "depth", "reading", "plain", "counts", "exact");
            assertThat(answer.path("counts").path("symbols").asInt()).isEqualTo(4);
            assertThat(answer.path("counts").path("files").asInt()).isEqualTo(3);
            Map<String, Integer> kinds = new TreeMap<>();
            answer.path("facets")
                    .path("kind")
                    .forEach(facet -> kinds.put(
                            facet.path("value").asString(), facet.path("hits").asInt()));
            assertThat(kinds).isEqualTo(Map.of("field", 1, "function", 1, "method", 2));
        }
    }

    @Nested
    class AFile {
        @Test
        void hasAnOutlineWithContainers() {
            List<String> told = new ArrayList<>();
            get("/repositories/berths/outline", "path", "src/Berth.java")
                    .path("symbols")
                    .forEach(symbol -> told.add(symbol.path("depth").asInt() + " "
                            + symbol.path("kind").asString() + " "
                            + symbol.path("name").asString() + " "
                            + symbol.path("line").asInt() + "-"
                            + symbol.path("endLine").asInt()));
            assertThat(told)
                    .containsExactly(
                            "0 namespace quay 1-1", "1 class Berth 4-10", "2 field depth 5-5", "2 method depth 7-9");
        }

        @Test
        void hasCounterparts() {
            assertThat(get("/repositories/berths/counterparts", "path", "src/Berth.java")
                            .toString())
                    .contains("test/BerthTest.java");
            assertThat(get("/repositories/berths/counterparts", "path", "test/BerthTest.java")
                            .toString())
                    .contains("src/Berth.java");
        }

        @Test
        void thatIsNotThereIsSaidSo() {
            TestService.Answer answer = service.get("/api/v1/repositories/berths/outline", "path", "src/Ship.java");
            assertThat(answer.status()).isEqualTo(404);
            assertThat(answer.detail()).contains("src/Ship.java");
        }
    }

    @Nested
    class ANameInCode {
        @Test
        void leadsToItsDeclarations() {
            JsonNode at =
                    get("/repositories/berths/symbol", "path", "test/BerthTest.java", "line", "5", "column", "23");
            assertThat(at.toString()).contains("src/Berth.java");
        }

        @Test
        void isNoneBetweenWords() {
            TestService.Answer answer = service.get(
                    "/api/v1/repositories/berths/symbol", "path", "src/Berth.java", "line", "2", "column", "1");
            assertThat(answer.status()).isEqualTo(404);
            assertThat(answer.detail()).endsWith(".");
        }
    }
}
