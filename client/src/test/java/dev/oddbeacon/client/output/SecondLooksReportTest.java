package dev.oddbeacon.client.output;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.api.SecondLooks.Look;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Second looks as commands to copy: a shell reads from them what was meant. */
class SecondLooksReportTest {
    private static final String[] PIECES = {"tide", "'", "\"", " ", "$HOME", "`id`", "\\", "-", "*", "é", "&", "\n", "!"
    };

    private static Look look(String text, boolean word, Map<String, List<String>> scope) {
        return new Look("otherwise", text, "regex", "ignore", word, scope, 3, 2, true);
    }

    /** The words that a shell makes of commands, one after the other. */
    @SuppressWarnings("OrphanedFormatString") // the shell's printf takes it
    private static List<String> words(List<String> commands) throws IOException, InterruptedException {
        StringBuilder script =
                new StringBuilder("oddbeacon() { printf '%s\\0' oddbeacon \"$@\"; printf '\\001\\0'; }\n");
        commands.forEach(command -> script.append(command).append('\n'));
        Process shell = new ProcessBuilder("sh").redirectErrorStream(true).start();
        try (var in = shell.getOutputStream()) {
            in.write(script.toString().getBytes(StandardCharsets.UTF_8));
        }
        String output = new String(shell.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(shell.waitFor()).as(output).isZero();
        return Arrays.asList(output.split("\001\0"));
    }

    @Test
    void nameTheOptionsThatAreNotUsual() {
        assertThat(SecondLooksReport.command(
                        look("low tide", true, Map.of("repo", List.of("fare-gate", "tide*"))), Optional.empty()))
                .isEqualTo("oddbeacon lines --regex --case ignore --word --repo fare-gate --repo 'tide*' 'low tide'");
    }

    @Test
    void areReadByAShellAsTheyWereMeant() throws Exception {
        Random random = new Random(11);
        List<String> commands = new ArrayList<>();
        List<String> meant = new ArrayList<>();
        for (int i = 0; i < 300; i++) {
            StringBuilder text = new StringBuilder("x");
            for (int k = random.nextInt(5); k >= 0; k--) {
                text.append(PIECES[random.nextInt(PIECES.length)]);
            }
            String under = PIECES[random.nextInt(PIECES.length)];
            commands.add(SecondLooksReport.command(
                    look(text.toString(), false, Map.of("under", List.of(under))), Optional.empty()));
            meant.add(String.join(
                    "\0", "oddbeacon", "lines", "--regex", "--case", "ignore", "--under", under, text.toString(), ""));
        }
        assertThat(words(commands)).isEqualTo(meant);
    }

    @Test
    void keepATextThatLooksLikeAnOptionFromBeingOne() {
        assertThat(SecondLooksReport.command(look("--depth", false, Map.of()), Optional.empty()))
                .endsWith(" -- '--depth'");
    }

    @Test
    void theFolderThatOneStandsInIsNamedAsItWas() {
        Look look = look("low tide", false, Map.of("repo", List.of("tide"), "type", List.of("java")));
        assertThat(SecondLooksReport.command(look, Optional.of(Set.of(ScopePart.REPO))))
                .isEqualTo("oddbeacon lines --regex --case ignore --here --type java 'low tide'");
    }
}
