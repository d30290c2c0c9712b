package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** A shell that completes, with the script that the client prints for it. */
class CompletionTest {
    /** What bash offers for the last of the words. */
    private static List<String> offered(String... words) throws IOException, InterruptedException {
        String script = "eval \"$(./oddbeacon completion bash)\"\n"
                + "COMP_WORDS=(./oddbeacon \"$@\"); COMP_CWORD=$#\n"
                + "_oddbeacon ./oddbeacon\nprintf '%s\\n' \"${COMPREPLY[@]}\"";
        List<String> command = new ArrayList<>(List.of("bash", "-c", script, "bash"));
        command.addAll(Arrays.asList(words));
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(Launched.HOME.toFile()).redirectErrorStream(true);
        Launched.environment(builder.environment());
        builder.environment().put("ODDBEACON_URL", Demo.address());
        Process process = builder.start();
        process.getOutputStream().close();
        String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        process.waitFor();
        return out.lines().filter(line -> !line.isEmpty()).toList();
    }

    @Test
    void offersCommandsOptionsAndNamesOfTheService() throws IOException, InterruptedException {
        assertThat(offered("com")).containsExactlyInAnyOrder("commits", "completion");
        assertThat(offered("lines", "--not-")).containsExactly("--not-under", "--not-trait", "--not-region");
        assertThat(offered("lines", "--repo", "be")).containsExactly("berth-planner");
        assertThat(offered("lines", "--order", "")).containsExactly("relevance", "path", "recent");
        assertThat(offered("lines", "--type", "pyth")).containsExactly("python");
        assertThat(offered("searches", "show", "depths")).containsExactly("depths-in-feet");
        assertThat(offered("worklists", "show", "asks")).containsExactly("asks-tidewatch");
        assertThat(offered("show", "tide")).containsExactly("tidewatch:");
        assertThat(offered("completion", "")).containsExactly("bash", "zsh", "fish");
        assertThat(offered("lines", "no such text")).isEmpty();
    }

    @Test
    void offersNothingAndSaysNothingWhereNoServiceAnswers() {
        Client.Result gone = Client.run("http://127.0.0.1:9", "complete", "--", "lines", "--repo", "be");
        assertThat(gone.out()).isEmpty();
        assertThat(gone.err()).isEmpty();
    }

    @Test
    void hasAScriptForEachShell() {
        Stream.of("bash", "zsh", "fish")
                .forEach(shell -> assertThat(
                                Client.run(Demo.address(), "completion", shell).out())
                        .contains("complete --"));
        assertThat(Client.run(Demo.address(), "completion", "korn").status()).isEqualTo(2);
    }
}
