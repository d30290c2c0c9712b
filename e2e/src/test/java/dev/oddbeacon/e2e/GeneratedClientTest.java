package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.annotation.Generated;
import java.io.ByteArrayOutputStream;
import java.io.File;
import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** A program needs no more than the description of the interface: a client that is generated from it compiles, and searches. */
class GeneratedClientTest {
    private static final Path GENERATOR = Path.of("target/generator/client-generator.jar");

    private static final String PROGRAM = """
            import made.ApiClient;
            import made.api.LinesApi;
            import made.model.LinesAnswer;

            public class Searches {
                public static void main(String[] arguments) throws Exception {
                    ApiClient client = new ApiClient();
                    client.updateBaseUri(arguments[0]);
                    LinesAnswer answer = new LinesApi(client)
                            .getSearchLines(LinesApi.APIGetSearchLinesRequest.newBuilder()
                                    .q(arguments[1])
                                    .order("path")
                                    .build());
                    answer.getFiles().forEach(file -> file.getExcerpts().forEach(excerpt -> excerpt.getLines().stream()
                            .filter(line -> !line.getMatches().isEmpty())
                            .forEach(line -> System.out.println(file.getRepository() + ":" + file.getPath() + ":" + line.getNumber()))));
                }
            }
            """;

    @TempDir
    Path folder;

    @Test
    void compilesAndSearches() throws IOException, InterruptedException, URISyntaxException {
        Path document = Files.write(
                folder.resolve("openapi.json"),
                Http.get(Demo.address(), "/api/v1/openapi.json").response().body());
        Path sources = folder.resolve("client");
        run(
                "-jar",
                GENERATOR.toString(),
                "generate",
                "--input-spec",
                document.toString(),
                "--generator-name",
                "java",
                "--library",
                "native",
                "--output",
                sources.toString(),
                "--global-property",
                "apiTests=false,modelTests=false,apiDocs=false,modelDocs=false",
                "--additional-properties",
                "openApiNullable=false,useJakartaEe=true,useSingleRequestParameter=true"
                        + ",invokerPackage=made,apiPackage=made.api,modelPackage=made.model");

        List<String> compiled = new ArrayList<>();
        try (Stream<Path> all = Files.walk(sources.resolve("src/main/java"))) {
            all.filter(Files::isRegularFile).map(Path::toString).forEach(compiled::add);
        }
        compiled.add(Files.writeString(folder.resolve("Searches.java"), PROGRAM).toString());
        Path annotations = Path.of(Generated.class
                .getProtectionDomain()
                .getCodeSource()
                .getLocation()
                .toURI());
        String libraries =
                GENERATOR.toAbsolutePath() + File.pathSeparator + annotations; // it holds what its clients use
        Path classes = folder.resolve("classes");
        List<String> options = new ArrayList<>(List.of("-nowarn", "-d", classes.toString(), "-cp", libraries));
        options.addAll(compiled);
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        int mistakes = ToolProvider.getSystemJavaCompiler().run(null, said, said, options.toArray(String[]::new));
        assertThat(mistakes).as(said.toString(StandardCharsets.UTF_8)).isZero();

        String found = run("-cp", classes + File.pathSeparator + libraries, "Searches", Demo.address(), "tide gauge");
        List<String> hits = new ArrayList<>();
        JsonNode answer = Http.get(Demo.address(), "/api/v1/search/lines", "q", "tide gauge", "order", "path")
                .json();
        for (JsonNode file : answer.path("files")) {
            for (JsonNode excerpt : file.path("excerpts")) {
                for (JsonNode line : excerpt.path("lines")) {
                    if (!line.path("matches").isEmpty()) {
                        hits.add(String.join(
                                ":",
                                file.path("repository").asString(),
                                file.path("path").asString(),
                                line.path("number").asString()));
                    }
                }
            }
        }
        assertThat(found.lines().toList()).isNotEmpty().isEqualTo(hits);
    }

    private String run(String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(
                List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString()));
        command.addAll(List.of(arguments));
        Path printed = folder.resolve("printed");
        Path complaints = folder.resolve("complaints");
        Process process = new ProcessBuilder(command)
                .redirectOutput(printed.toFile())
                .redirectError(complaints.toFile())
                .start();
        assertThat(process.waitFor()).as(Files.readString(complaints)).isZero();
        return Files.readString(printed);
    }
}
