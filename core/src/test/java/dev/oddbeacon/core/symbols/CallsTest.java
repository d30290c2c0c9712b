package dev.oddbeacon.core.symbols;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.Spots;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Who calls what, over small repositories in three languages. */
class CallsTest {
    private static final String RULE = """
            package quay;
            interface Rule { boolean check(int depth); }
            """;
    private static final String DEPTH = """
            package quay;
            class Depth implements Rule {
                public boolean check(int depth) {
                    return deep(depth) && deep(depth + 1) && unknown.check(depth);
                }
                private boolean deep(int depth) { return new Gauge().sound() > depth; }
            }
            """;
    private static final String GAUGE = """
            package quay;
            class Gauge { int sound() { return 1; } }
            """;
    private static final String USE = """
            package quay;
            class Use {
                boolean rules(Rule rule) { return rule.check(1); }
                boolean depths(Depth depth) { return depth.check(1) || depth.check(2); }
                java.util.function.IntPredicate later = new Depth()::check;
                int other(Other check) { return check.check(); }
            }
            """;

    @TempDir
    Path folder;

    private Library library;

    @BeforeEach
    void open() {
        library = new Library(folder);
    }

    @AfterEach
    void close() {
        library.close();
    }

    private void add(String... pathsAndTexts) throws IOException {
        MemoryTree tree = new MemoryTree();
        for (int i = 0; i < pathsAndTexts.length; i += 2) {
            tree.file(pathsAndTexts[i], pathsAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
        }
        library.add("harbour", tree);
    }

    private Spot declared(String name, String container) {
        return new Spots(library.view(), 0)
                .of(name).stream()
                        .filter(spot -> spot.container().endsWith(container))
                        .findFirst()
                        .orElseThrow();
    }

    private Calls callers(Spot of) {
        return Calls.of(
                library.context(),
                Scope.EVERYTHING,
                List.of(of),
                new Navigation(library.view(), of.branchNumber(), of.file()).overridden(of));
    }

    private static List<String> told(Calls calls) {
        return calls.ends().stream()
                .map(end -> end.surest().label() + " "
                        + end.declaration().map(Navigation.Target::name).orElse("the file") + " "
                        + end.sites().stream().map(Calls.Site::line).toList())
                .toList();
    }

    @Test
    void callersAreTheDeclarationsAroundUses() throws IOException {
        add("Rule.java", RULE, "Depth.java", DEPTH, "Gauge.java", GAUGE, "Use.java", USE);

        Calls calls = callers(declared("check", "Depth"));

        assertThat(told(calls))
                .containsExactly("sure depths [4, 4]", "sure later [5]", "likely check [4]", "likely rules [3]");
        assertThat(calls.exact()).isTrue();
        assertThat(calls.byName()).isPositive();
        assertThat(told(callers(declared("check", "Rule")))).contains("sure rules [3]");
    }

    @Test
    void calleesStandInTheOrderOfTheCalls() throws IOException {
        add("Rule.java", RULE, "Depth.java", DEPTH, "Gauge.java", GAUGE, "Use.java", USE);

        assertThat(told(Calls.madeBy(library.view(), declared("check", "Depth"))))
                .containsExactly("sure deep [4, 4]");
        assertThat(Calls.madeBy(library.view(), declared("check", "Depth")).byName())
                .isEqualTo(1);
        assertThat(told(Calls.madeBy(library.view(), declared("deep", "Depth"))))
                .containsExactly("sure Gauge [6]", "sure sound [6]");
        assertThat(told(Calls.madeBy(library.view(), declared("rules", "Use")))).containsExactly("sure check [3]");
        assertThat(Calls.madeBy(library.view(), declared("sound", "Gauge")).ends())
                .isEmpty();
    }

    @Test
    void aFileMayCallAndAnImportDoesNot() throws IOException {
        add(
                "sound.ts",
                "export function sound(): number { return 1 }\n",
                "use.ts",
                "import { sound } from './sound'\nsound()\nexport const twice = () => sound() + sound()\n");

        assertThat(told(callers(declared("sound", ""))))
                .containsExactlyInAnyOrder("sure the file [2]", "sure twice [3, 3]");
    }

    @Test
    void inLanguagesThatAreNotReadACallIsLikelyIfNothingElseHasTheName() throws IOException {
        add(
                "sound.py",
                "def sound():\n    return 1\n\ndef twice():\n    return sound() + deep()\n",
                "deep.py",
                "def deep():\n    return 1\n",
                "other.py",
                "def deep():\n    return 2\n");

        Calls calls = Calls.madeBy(library.view(), declared("twice", ""));
        assertThat(told(calls)).containsExactly("likely sound [5]");
        assertThat(calls.byName()).isEqualTo(1);
        assertThat(told(callers(declared("sound", "")))).containsExactly("likely twice [5]");
    }
}
