package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.Keys;

/** A setting gets another name in a repository of the demo: looked at, written as a patch, applied, taken back. */
class ReplaceTest extends InBrowser {
    @TempDir
    private Path folder;

    private Path tree;
    private GitFolder git;

    @BeforeEach
    void cloneARepository() throws IOException {
        String location =
                Http.get(Demo.address(), "/api/v1/repositories/shore-ops").text("location");
        tree = folder.resolve("ops");
        GitFolder.create(folder.resolve("any")).git("clone", "-q", location, tree.toString());
        git = GitFolder.create(tree);
    }

    private static Client.Result run(String... arguments) {
        return Client.run(Demo.address(), arguments);
    }

    private Client.Result here(String... arguments) {
        return Client.run(Demo.address(), tree, "", Map.of(), arguments);
    }

    @Test
    void whatWouldChangeIsShownAndChangesNothing() throws IOException {
        Client.Result shown = run("replace", "--word", "--repo", "shore-ops", "TIDEWATCH_URL", "GAUGES_URL");
        assertThat(shown.status()).isZero();
        assertThat(shown.out())
                .contains("shore-ops/deploy/office/production.yaml\n")
                .contains("    -   TIDEWATCH_URL: https://tidewatch.quillhaven.example\n")
                .contains("    +   GAUGES_URL: https://tidewatch.quillhaven.example\n");
        assertThat(shown.err()).contains("would change; --patch writes it");
        assertThat(run("replace", "nothing of the kind", "x").status()).isEqualTo(1);
        assertThat(run("replace", "--regex", "(a)", "$7").err()).contains("no group 7");
        assertThat(run("lines", "GAUGES_URL").status()).isEqualTo(1);
        assertThat(git.git("status", "--porcelain")).isEmpty();
    }

    @Test
    void aPatchIsAppliedByGit() throws IOException {
        String before = run("lines", "--repo", "shore-ops", "TIDEWATCH_URL", "--only", "files", "--limit", "all")
                .out();
        Client.Result written = run("replace", "--repo", "shore-ops", "TIDEWATCH_URL", "GAUGES_URL", "--patch", "-");
        assertThat(written.status()).isZero();
        Path patch = Files.writeString(folder.resolve("ops.patch"), written.out());
        git.git("apply", patch.toString());
        assertThat(new TreeSet<>(git.git("diff", "--name-only").lines().toList()))
                .isEqualTo(new TreeSet<>(before.lines()
                        .map(line -> line.substring("shore-ops/".length()))
                        .toList()));
        assertThat(git.git("grep", "-c", "GAUGES_URL")).isNotEmpty();
        git.git("apply", "-R", patch.toString());
        assertThat(git.git("status", "--porcelain")).isEmpty();
        assertThat(run("replace", "tidewatch.quillhaven.example", "gauges.quillhaven.example", "--patch", "-")
                        .err())
                .contains("Name one with --repo");
        Path zip = folder.resolve("all.zip");
        assertThat(run(
                                "replace",
                                "tidewatch.quillhaven.example",
                                "gauges.quillhaven.example",
                                "--patch",
                                zip.toString())
                        .status())
                .isZero();
        try (ZipFile all = new ZipFile(zip.toFile())) {
            assertThat(all.stream().map(entry -> entry.getName()).toList())
                    .contains("shore-ops.patch", "berth-planner.patch", "deck-signs.patch");
        }
    }

    @Test
    void theConsoleShowsEachMatchAndTakesOutWhatIsNotTicked() {
        go("/?q=TIDEWATCH_URL&repo=shore-ops");
        find("[data-part=replace]").click();
        find("[data-part=with]").sendKeys("GAUGES_URL", Keys.ENTER);
        waitForText("[data-part=amount]", "8 of 8 matches in 8 files");
        Accessibility.assertThatRulesAreFollowed(browser);
        find("[data-file='shore-ops/deploy/office/production.yaml']").click();
        waitForText("[data-part=amount]", "7 of 8 matches");
        assertThat(find("[data-match='shore-ops/deploy/office/rehearsal.yaml:7:3']")
                        .getText())
                .contains("TIDEWATCH_URL: https", "GAUGES_URL: https");
        find("[data-part=take]").click();
        waitForText("[data-part=amount]", "git apply -R takes it back");
    }

    @Test
    void itIsAppliedWhereOneStandsUnlessSomethingThereIsNotCommitted() throws IOException {
        Path file = tree.resolve("deploy/office/production.yaml");
        String before = Files.readString(file);
        Client.Result applied = here(
                "replace",
                "--here",
                "--apply",
                "--under",
                "deploy/office",
                "--leave",
                "shore-ops/deploy/office/rehearsal.yaml",
                "TIDEWATCH_URL",
                "GAUGES_URL");
        assertThat(applied.status()).as(applied.err()).isZero();
        assertThat(Files.readString(file)).isEqualTo(before.replace("TIDEWATCH_URL", "GAUGES_URL"));
        assertThat(git.git("diff", "--name-only")).isEqualTo("deploy/office/production.yaml");
        Client.Result again = here("replace", "--here", "--apply", "TIDEWATCH_URL", "GAUGES_URL");
        assertThat(again.status()).isEqualTo(2);
        assertThat(again.err()).contains("uncommitted changes").contains("deploy/office/production.yaml");
        String takenBack = applied.err().replaceAll("(?s).*git apply -R (\\S+) takes.*", "$1");
        git.git("apply", "-R", takenBack);
        assertThat(Files.readString(file)).isEqualTo(before);
        assertThat(List.of(
                        run("replace", "--apply", "a", "b").status(),
                        here("replace", "--here", "--apply", "not there at all", "b")
                                .status()))
                .containsExactly(2, 1);
    }
}
