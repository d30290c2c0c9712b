package dev.oddbeacon.client.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import com.sun.net.httpserver.HttpServer;
import dev.oddbeacon.api.Problem;
import dev.oddbeacon.client.StandIn;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import picocli.CommandLine;

/** How the client speaks to the service, and what it makes of answers that are none. */
class ServiceTest {
    private static StandIn standIn;

    @BeforeAll
    static void start() throws IOException {
        standIn = new StandIn();
    }

    @AfterAll
    static void stop() {
        standIn.close();
    }

    private static Service at(String url) {
        Service service = new Service();
        new CommandLine(CommandLine.Model.CommandSpec.wrapWithoutInspection(new Object())
                        .addMixin("service", CommandLine.Model.CommandSpec.forAnnotatedObject(service)))
                .parseArgs("--url", url);
        return service;
    }

    private static ServiceProblem problem(String url, String path) {
        return catchThrowableOfType(ServiceProblem.class, () -> at(url).get(path, new Service.Parameters(), Map.class));
    }

    /** Something else than the service, which answers everything alike. */
    private static ServiceProblem problemWith(int status, String body) throws IOException {
        HttpServer other = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        other.createContext("/", exchange -> {
            exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        other.start();
        try {
            return problem("http://127.0.0.1:" + other.getAddress().getPort(), "/api/v1/status");
        } finally {
            other.stop(0);
        }
    }

    @Nested
    class ARequest {
        @Test
        void hasItsParametersInOrderAndEncoded() {
            Service.Parameters parameters = new Service.Parameters()
                    .add("q", "a b&c=d+é")
                    .addGiven("rev", "")
                    .addGiven("path", null)
                    .addAll("type", List.of("java", "c++"));
            assertThat(parameters.toString()).isEqualTo("?q=a+b%26c%3Dd%2B%C3%A9&type=java&type=c%2B%2B");
            assertThat(new Service.Parameters().toString()).isEmpty();
        }

        @Test
        void hasNamesOfConstantsInSmallLetters() {
            assertThat(new Service.Parameters()
                            .add("state", Thread.State.TIMED_WAITING)
                            .toString())
                    .isEqualTo("?state=timed_waiting");
        }

        @Test
        void keepsTheSlashesOfItsPartsApart() {
            assertThat(Service.path("repositories", "odd/name here"))
                    .isEqualTo("/api/v1/repositories/odd%2Fname%20here");
        }

        @ParameterizedTest
        @CsvSource({"10, GET", "7_000, GET", "9_000, POST"})
        void thatIsTooLongForAnAddressGoesAsAForm(String length, String method) {
            String text = "x".repeat(Integer.parseInt(length.replace("_", "")));
            standIn.answers(
                    "search/lines",
                    request -> Map.of("length", request.parameter("q").length()));
            Map<?, ?> answer = at(standIn.url())
                    .search(Service.path("search", "lines"), new Service.Parameters().add("q", text), Map.class);
            assertThat(answer.get("length")).isEqualTo(text.length());
            assertThat(standIn.requests().getLast().method()).isEqualTo(method);
        }

        @Test
        void takesAnAddressWithASlashAtItsEnd() {
            standIn.answers("status", _ -> Map.of("repositories", 7));
            Map<?, ?> answer = at(standIn.url() + "/").get(Service.path("status"), new Service.Parameters(), Map.class);
            assertThat(answer.get("repositories")).isEqualTo(7);
        }
    }

    @Nested
    class AProblem {
        @ParameterizedTest
        @CsvSource({"400, 2", "404, 1", "409, 2", "410, 2", "500, 3", "503, 3"})
        void isToldInTheServicesWordsAndEndsWithItsStatus(int status, int exit) {
            standIn.answers("refused", _ -> {
                throw new StandIn.Refusal(status, "The tide is too low. Come back later.");
            });
            ServiceProblem problem = problem(standIn.url(), "/api/v1/refused");
            assertThat(problem).hasMessage("The tide is too low. Come back later.");
            assertThat(problem.exitStatus()).isEqualTo(exit);
        }

        @Test
        void bringsTheMistakesOfTheText() {
            Problem.Mistake mistake = new Problem.Mistake("A ) is missing.", 3, 1, "a(b)", true);
            standIn.answers("refused", _ -> {
                throw new StandIn.Refusal(400, "Wrong.", mistake);
            });
            assertThat(problem(standIn.url(), "/api/v1/refused").mistakes()).containsExactly(mistake);
        }

        @Test
        void ofAnotherProgramIsToldApart() throws IOException {
            ServiceProblem problem = problemWith(404, "<html>not found</html>");
            assertThat(problem).hasMessageContaining("is not Odd Beacon (status 404)");
            assertThat(problem.exitStatus()).isEqualTo(ExitStatus.FAILED);
        }

        @Test
        void withoutABodyIsToldByItsStatus() throws IOException {
            assertThat(problemWith(502, "")).hasMessage("The service answered with status 502.");
        }

        @Test
        void isAnAnswerThatIsNoJson() throws IOException {
            ServiceProblem problem = problemWith(200, "<html>welcome</html>");
            assertThat(problem).hasMessageContaining("could not be asked");
            assertThat(problem.exitStatus()).isEqualTo(ExitStatus.FAILED);
        }

        @Test
        void isToldWithWhatToDoWhenNothingAnswers() throws IOException {
            int port;
            try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
                port = free.getLocalPort();
            }
            ServiceProblem problem = problem("http://127.0.0.1:" + port, "/api/v1/status");
            assertThat(problem).hasMessageContaining("No service answers at").hasMessageContaining("--url");
            assertThat(problem.exitStatus()).isEqualTo(ExitStatus.FAILED);
        }

        @ParameterizedTest
        @ValueSource(strings = {"tidewatch", "127.0.0.1:7420", "ftp://127.0.0.1", "http://a b"})
        void isAnAddressThatIsNone(String url) {
            ServiceProblem problem = problem(url, "/api/v1/status");
            assertThat(problem).hasMessageContaining("is not the address of a service");
            assertThat(problem.exitStatus()).isEqualTo(ExitStatus.WRONG);
        }
    }
}
