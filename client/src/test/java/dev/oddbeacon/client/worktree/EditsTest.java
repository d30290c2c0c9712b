package dev.oddbeacon.client.worktree;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What Git says has changed. */
class EditsTest {
    @TempDir
    Path folder;

    private String git(String... arguments) throws IOException {
        List<String> command = new ArrayList<>(List.of(
                "git", "-c", "user.name=Test", "-c", "user.email=test@quillhaven.example", "-C", folder.toString()));
        command.addAll(List.of(arguments));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            assertThat(process.waitFor()).as(out).isZero();
        } catch (InterruptedException e) {
            throw new IOException(e);
        }
        return out.strip();
    }

    private void write(String path, String text) throws IOException {
        Files.createDirectories(folder.resolve(path).getParent());
        Files.writeString(folder.resolve(path), text);
    }

    private String start;

    @BeforeEach
    void makeARepository() throws IOException {
        git("init", "-q", "-b", "main");
        write("pier.txt", "pier\n");
        write("ünder/tide [1].txt", "tide\n");
        write("gone.txt", "gone\n");
        write(".gitignore", "*.log\n");
        git("add", "-A");
        git("commit", "-q", "-m", "Start");
        start = git("rev-parse", "HEAD");
    }

    @Test
    void areNoneOfATreeThatIsAsItWas() {
        Edits edits = Edits.since(folder, start, false);
        assertThat(edits.isEmpty()).isTrue();
        assertThat(edits.isIndexed()).isTrue();
    }

    @Test
    void areWhatWasEditedAddedCommittedAndRemoved() throws IOException {
        write("pier.txt", "pier, edited\n");
        git("commit", "-q", "-a", "-m", "Edit");
        write("ünder/tide [1].txt", "tide, edited\n");
        write("new/file.txt", "new\n");
        write("new/staged.txt", "staged\n");
        git("add", "new/staged.txt");
        write("run.log", "ignored\n");
        Files.delete(folder.resolve("gone.txt"));
        Files.createSymbolicLink(folder.resolve("link.txt"), Path.of("/etc/hostname"));
        Edits edits = Edits.since(folder, start, false);
        assertThat(edits.present()).containsExactly("new/file.txt", "new/staged.txt", "pier.txt", "ünder/tide [1].txt");
        assertThat(edits.gone()).containsExactly("gone.txt");
        assertThat(Edits.since(folder, start, true).present()).contains("run.log");
    }

    @Test
    void areSinceTheOwnCommitWhereTheIndexedOneIsMissing() throws IOException {
        write("pier.txt", "pier, edited\n");
        Edits edits = Edits.since(folder, "1".repeat(40), false);
        assertThat(edits.isIndexed()).isFalse();
        assertThat(edits.since()).isEqualTo(start);
        assertThat(edits.present()).containsExactly("pier.txt");
    }

    @Test
    void ofARepositoryWithoutACommitAreRefused() throws IOException {
        Path empty = Files.createDirectories(folder.resolve("empty"));
        git("init", "-q", empty.toString());
        assertThatThrownBy(() -> Edits.since(empty, start, false))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("has no commit yet");
    }
}
