package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.git.Mirror;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.TestRepository;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Which branches and tags are indexed, held against what Git itself lists. */
class TargetsTest {
    @TempDir
    static Path folder;

    private static TestRepository repository;

    @BeforeAll
    static void make() throws IOException {
        repository =
                TestRepository.create(folder.resolve("r")).write("a.txt", "0").commit("0");
        for (int i = 1; i <= 12; i++) {
            repository.write("a.txt", String.valueOf(i)).commit("Number " + i);
            int number = i * 5 % 13; // so that the order of names is not that of time
            repository.git("tag", "v1." + number);
            repository.git("tag", "-a", "-m", "whole", "whole/" + number);
            repository.git("branch", "release/" + number);
        }
        repository.git("tag", "text", repository.git("rev-parse", "HEAD:a.txt").strip());
    }

    private static Targets targets(String... wanted) throws IOException {
        TreeMap<String, String> refs = new TreeMap<>();
        for (String line : Split.parts(
                repository
                        .git("for-each-ref", "--format=%(refname) %(objectname)")
                        .strip(),
                '\n')) {
            List<String> parts = Split.parts(line, ' ');
            refs.put(parts.getFirst(), parts.get(1));
        }
        try (MirrorReader reader = new MirrorReader(repository.path().resolve(".git"))) {
            return Targets.of(
                    List.of(wanted),
                    new Mirror.Refs(Optional.of("main"), refs, List.of()),
                    ref -> reader.commit(ref).map(MirrorReader.Revision::committed));
        }
    }

    private static List<String> listed(String... arguments) throws IOException {
        String[] command = new String[arguments.length + 2];
        command[0] = "for-each-ref";
        command[1] = "--format=%(refname:lstrip=2)";
        System.arraycopy(arguments, 0, command, 2, arguments.length);
        return Split.parts(repository.git(command).strip(), '\n');
    }

    @Test
    void aPatternStandsForAllThatMatch() throws IOException {
        assertThat(targets("release/*").names()).containsExactlyInAnyOrderElementsOf(listed("refs/heads/release"));
        assertThat(targets("tags/v1.?").names()).containsExactlyInAnyOrderElementsOf(listed("refs/tags/v1.?"));
        assertThat(targets("heads/v1.*").problems()).singleElement().asString().contains("like heads/v1.*");
    }

    @Test
    void ofThoseTheNewestCanBeWanted() throws IOException {
        assertThat(targets("tags/v*:5").names())
                .containsExactlyElementsOf(listed("--sort=-committerdate", "--count=5", "refs/tags/v*"));
        assertThat(targets("whole/*:3").names())
                .as("of tags with a message, the commit counts")
                .containsExactlyElementsOf(listed("--sort=-*committerdate", "--count=3", "refs/tags/whole/*"));
        assertThat(targets("tags/*:200").names())
                .as("a tag of a text names no commit")
                .doesNotContain("text");
    }

    @Test
    void whatIsNamedComesFirstAndIsSearchedByDefault() throws IOException {
        Targets targets = targets("release/*:2", "v1.3", "main", "v1.3");
        assertThat(targets.names()).hasSize(4).endsWith("v1.3", "main");
        assertThat(targets.targets().stream().filter(Targets.Target::isDefault).map(Targets.Target::name))
                .containsExactly("v1.3");
        assertThat(targets("*:2", "release/*:1").targets().stream()
                        .filter(Targets.Target::isDefault)
                        .map(Targets.Target::name))
                .as("else what HEAD stands for")
                .containsExactly("main");
        assertThat(targets().names()).containsExactly("main");
    }

    @Test
    void whatIsMissingIsTold() throws IOException {
        Targets targets = targets("nowhere", "main");
        assertThat(targets.names()).containsExactly("main");
        assertThat(targets.problems()).singleElement().asString().contains("no branch or tag nowhere");
    }

    @Test
    void aNumberThatIsNoneIsRefused() {
        for (String wrong : List.of("v*:0", "v*:", "v*:five", "v*:-1", "v*:99999999999", ":", "a:b:201")) {
            assertThatThrownBy(() -> Targets.Pattern.of(wrong))
                    .as(wrong)
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("from 1 to 200");
        }
        assertThat(Targets.Pattern.of("main")).isEmpty();
    }
}
