package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SubmoduleLocationsTest {
    private static SubmoduleLocations of(String file, String superproject) {
        return new SubmoduleLocations(file.getBytes(StandardCharsets.UTF_8), superproject);
    }

    private static String told(String url, String superproject) {
        return of("[submodule \"x\"]\n\tpath = vendor/x\n\turl = " + url + "\n", superproject)
                .of("vendor/x")
                .orElseThrow();
    }

    /** Git itself works out where a relative location leads when it initialises the submodule. */
    @ParameterizedTest
    @CsvSource({
        "../tide.git, https://git.quillhaven.example/maps/harbour.git",
        "../../crew/tide, https://git.quillhaven.example/maps/harbour.git",
        "./tide, https://git.quillhaven.example/maps/harbour",
        "../tide.git, git@git.quillhaven.example:maps/harbour.git",
        "../../tide.git, git@git.quillhaven.example:maps/harbour.git",
        "../tide, /srv/git/harbour",
        "../../other/tide, /srv/git/harbour/",
        "https://elsewhere.example/tide.git, /srv/git/harbour",
        "/srv/tide, git@git.quillhaven.example:maps/harbour.git"
    })
    void leadWhereGitSays(String url, String superproject, @TempDir Path folder) throws Exception {
        git(folder, "init", "-q", ".");
        git(folder, "remote", "add", "origin", superproject);
        git(folder, "config", "-f", ".gitmodules", "submodule.x.path", "vendor/x");
        git(folder, "config", "-f", ".gitmodules", "submodule.x.url", url);
        git(folder, "update-index", "--add", "--cacheinfo", "160000," + "1".repeat(40) + ",vendor/x");
        git(folder, "submodule", "init", "-q");
        assertThat(told(url, superproject))
                .isEqualTo(git(folder, "config", "submodule.x.url").strip());
    }

    private static String git(Path folder, String... arguments) throws IOException, InterruptedException {
        String[] command = new String[arguments.length + 1];
        command[0] = "git";
        System.arraycopy(arguments, 0, command, 1, arguments.length);
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(out).isZero();
        return out;
    }

    @Test
    void thatGoFurtherUpThanThereIsStayAsTheyAre() {
        assertThat(told("../../../../../tide", "https://git.quillhaven.example/maps/harbour"))
                .isEqualTo("../../../../../tide");
    }

    @Test
    void ofAFileThatCannotBeReadAreNotKnown() {
        assertThat(of("[submodule \"x\"\n\tpath = vendor/x\n", "/srv/git/harbour")
                        .of("vendor/x"))
                .isEmpty();
    }

    @Test
    void withoutAPathOrALocationAreNotKnown() {
        assertThat(of("[submodule \"x\"]\n\tpath = vendor/x\n", "/srv/git/harbour")
                        .of("vendor/x"))
                .isEmpty();
    }
}
