package dev.oddbeacon.client.output;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.client.ClientMain;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;

/** The manual pages of all commands. */
class ManPageTest {
    private static final List<String> REQUESTS = List.of(".TH ", ".SH ", ".TP", ".nf", ".fi");

    private static Stream<CommandLine> all(CommandLine line) {
        return Stream.concat(
                Stream.of(line), line.getSubcommands().values().stream().flatMap(ManPageTest::all));
    }

    @Test
    void tellWhatHelpTells() {
        all(ClientMain.line()).forEach(line -> {
            CommandSpec command = line.getCommandSpec();
            String page = ManPage.of(line);
            String plain = page.replace("\\-", "-").replace("\\&", "").replace("\\e", "\\");
            assertThat(page.lines().filter(one -> one.startsWith(".") || one.startsWith("'")))
                    .as(command.qualifiedName())
                    .allMatch(one -> REQUESTS.stream().anyMatch(one::startsWith));
            assertThat(plain).startsWith(".TH \"" + command.qualifiedName("-").toUpperCase(Locale.ROOT));
            assertThat(plain).contains("\n.SH \"SYNOPSIS\"\n", "\n.SH \"OPTIONS\"\n");
            command.options()
                    .forEach(option -> assertThat(plain)
                            .as(command.qualifiedName())
                            .contains(option.longestName(), String.join(" ", option.description())));
            Arrays.stream(command.usageMessage().footer())
                    .forEach(one -> assertThat(plain).contains(one));
            assertThat(plain).doesNotContain("${DEFAULT", "${env", "%n");
        });
    }

    @Test
    void areWrittenIntoAFolderTogether(@TempDir Path folder) throws IOException {
        Path pages = folder.resolve("share/man1");
        assertThat(ClientMain.line().execute("man", "--into", pages.toString())).isZero();
        try (Stream<Path> files = Files.list(pages)) {
            assertThat(files.map(file -> file.getFileName().toString()))
                    .contains("oddbeacon.1", "oddbeacon-lines.1", "oddbeacon-searches-check.1")
                    .doesNotContain("oddbeacon-complete.1");
        }
        assertThat(pages.resolve("oddbeacon-searches-check.1"))
                .hasContent(ManPage.of(ClientMain.line()
                        .getSubcommands()
                        .get("searches")
                        .getSubcommands()
                        .get("check")));
        assertThat(ClientMain.line().execute("man", "--into", pages + "/oddbeacon.1"))
                .isEqualTo(2);
    }
}
