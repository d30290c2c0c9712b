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

    @Test
    void aSymbolIsRenamedWithItsFileWhereOneStands() throws IOException {
        Path planner = folder.resolve("planner");
        git.git(
                "clone",
                "-q",
                Http.get(Demo.address(), "/api/v1/repositories/berth-planner").text("location"),
                planner.toString());
        GitFolder there = GitFolder.create(planner);
        Client.Result shown = run("replace", "--symbol", "--in", "both", "BerthPlanner", "QuayPlanner");
        assertThat(shown.out())
                .contains("BerthPlanner.java  becomes src/main/java/quillhaven/berth/plan/QuayPlanner.java\n")
                .contains("    +             QuayPlanner planner = new QuayPlanner(");
        assertThat(shown.err()).contains("ll 5 uses are surely of it").contains("1 file renamed");
        Client.Result applied = Client.run(
                Demo.address(),
                planner,
                "",
                Map.of(),
                "replace",
                "--symbol",
                "--in",
                "both",
                "--here",
                "--apply",
                "BerthPlanner",
                "QuayPlanner");
        assertThat(applied.status()).as(applied.err()).isZero();
        assertThat(planner.resolve("src/main/java/quillhaven/berth/plan/QuayPlanner.java"))
                .content()
                .contains("public final class QuayPlanner {");
        there.git("apply", "-R", applied.err().replaceAll("(?s).*git apply -R (\\S+) takes.*", "$1"));
        assertThat(there.git("status", "--porcelain")).isEmpty();
        assertThat(run("replace", "--mentions", "a", "b").err()).contains("goes with --symbol");
    }

    @Test
    void linesAreEditedInOnesEditor() throws IOException {
        Path editor = Files.writeString(
                folder.resolve("edit.sh"),
                "#!/bin/sh\nsed -i -e 's/office:7: .*/&  # the office/' -e '/rehearsal/d' \"$2\"\n");
        assertThat(editor.toFile().setExecutable(true)).isTrue();
        Map<String, String> settings = Map.of("VISUAL", editor.toString());
        String[] command = {"replace", "--here", "--under", "deploy/office", "TIDEWATCH_URL", "--edit", "--apply"};
        Client.Result unchanged = Client.run(Demo.address(), tree, "", settings, command);
        assertThat(unchanged.status()).isEqualTo(1);
        assertThat(unchanged.err()).contains("No line was changed");
        Files.writeString(
                editor, "#!/bin/sh\nsed -i -e 's/TIDEWATCH_URL: .*/GAUGES: here/' -e '/rehearsal/d' \"$2\"\n");
        Client.Result applied = Client.run(Demo.address(), tree, "", settings, command);
        assertThat(applied.status()).as(applied.err()).isZero();
        assertThat(git.git("diff", "--name-only")).isEqualTo("deploy/office/production.yaml");
        assertThat(tree.resolve("deploy/office/production.yaml")).content().contains("\n  GAUGES: here\n");
        Files.writeString(editor, "#!/bin/sh\necho nonsense >> \"$2\"\n");
        Client.Result wrong = Client.run(Demo.address(), tree, "", settings, command);
        assertThat(wrong.err())
                .contains("does not begin with the place that it had")
                .contains("Nothing was changed");
        assertThat(run("replace", "--edit", "a").err()).contains("--patch");
    }

    @Test
    void aCallThatRetiresIsReplacedInFourRepositories() throws IOException {
        assertThat(run("searches", "show", "depths-in-feet").out()).contains("becomes depth_metres");
        Path zip = folder.resolve("metres.zip");
        assertThat(run("replace", "--saved", "depths-in-feet", "--patch", zip.toString())
                        .status())
                .isZero();
        int matches = 0;
        try (ZipFile all = new ZipFile(zip.toFile())) {
            for (var patch : all.stream().toList()) {
                String repository = patch.getName().replace(".patch", "");
                Path clone = folder.resolve(repository);
                git.git(
                        "clone",
                        "-q",
                        Http.get(Demo.address(), "/api/v1/repositories/" + repository)
                                .text("location"),
                        clone.toString());
                Path file = folder.resolve(patch.getName());
                Files.write(file, all.getInputStream(patch).readAllBytes());
                GitFolder there = GitFolder.create(clone);
                there.git("apply", file.toString());
                assertThat(there.git("grep", "-c", "depth_metres")).isNotEmpty();
                matches += (int) there.git("diff", "-U0")
                        .lines()
                        .filter(line -> line.startsWith("+ ")
                                || line.startsWith("+#")
                                || line.startsWith("+/")
                                || line.startsWith("+d"))
                        .count();
            }
            assertThat(all.size()).isEqualTo(4);
        }
        assertThat(matches).isEqualTo(5);
        assertThat(run("worklists", "show", "depths-in-feet", "--owner", "@quillhaven/gauges")
                        .out())
                .contains("shore-ops/checks/gauges.sh:10")
                .doesNotContain("passenger-app");
    }

    @Test
    void theConsoleShowsASymbolAndEditsALine() {
        go("/symbols?q=BerthPlanner&reading=plain&role=any");
        find("[data-part=replace]").click();
        find("[data-part=with]").sendKeys("QuayPlanner", Keys.ENTER);
        waitForText("[data-part=symbol]", "ll 5 uses are surely of it");
        find("[data-match='berth-planner/src/main/java/quillhaven/berth/Main.java:13:30'] [data-part=edit-line]")
                .click();
        find("[data-part=line]").sendKeys(" // one");
        Accessibility.assertThatRulesAreFollowed(browser);
        find("[data-part=take]").click();
        waitForText("[data-part=amount]", "git apply -R takes it back");
    }
}
