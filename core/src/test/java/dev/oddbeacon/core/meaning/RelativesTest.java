package dev.oddbeacon.core.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** What extends what, and what overrides what. */
class RelativesTest {
    private static final String RULE = """
            package quay;
            public interface Rule<T> {
                boolean check(T what, int depth);
                boolean check(byte[] what, int depth);
                boolean check(char[] what, int depth);
                static void none() {}
            }
            """;
    private static final String BASE = """
            package quay;
            abstract class Base implements Rule<String> {
                public boolean check(byte[] what, int depth) { return true; }
                public boolean check(char[] what, int depth) { return true; }
                private void hidden() {}
            }
            """;
    private static final String DEPTH = """
            package quay;
            class Depth extends Base {
                @Override public boolean check(String what, int depth) { return true; }
                @Override public boolean check(char[] what, int depth) { return true; }
                static void none() {}
                void hidden() {}
            }
            """;

    @TempDir
    Path folder;

    private RemarkedCode code;

    @BeforeEach
    void open() {
        code = new RemarkedCode(folder);
    }

    @AfterEach
    void close() {
        code.close();
    }

    /** The declaration of a name on a line of a file. */
    private Spot at(String name, String path, int line) {
        return new Spots(code.library().view(), 0)
                .of(name).stream()
                        .filter(spot -> told(spot).equals(path + ":" + line))
                        .findFirst()
                        .orElseThrow();
    }

    private String told(Spot spot) {
        return code.library().view().snapshot(spot.branchNumber()).path(spot.file()) + ":"
                + spot.segment().lineNumber(spot.blob(), spot.declared().nameStart());
    }

    private List<String> told(List<Spot> spots) {
        return spots.stream().map(this::told).sorted().toList();
    }

    private Relatives relatives() {
        return new Relatives(code.library().view(), 0);
    }

    @Test
    void typesOfOneNameAreToldApart() throws IOException {
        code.add(
                "harbour",
                "quay/Rule.java",
                RULE,
                "quay/Base.java",
                BASE,
                "quay/Depth.java",
                DEPTH,
                "tide/Base.java",
                "package tide;\nclass Base {}\n",
                "tide/Low.java",
                "package tide;\nclass Low extends Base {}\n",
                "tide/Far.java",
                "package tide;\nimport elsewhere.Rule;\nclass Far implements Rule {}\n");

        assertThat(told(relatives().above(at("Low", "tide/Low.java", 2)))).containsExactly("tide/Base.java:2");
        assertThat(told(relatives().above(at("Far", "tide/Far.java", 3)))).isEmpty();
        assertThat(told(relatives().below(at("Base", "quay/Base.java", 2)))).containsExactly("quay/Depth.java:2");
        assertThat(told(relatives().below(at("Rule", "quay/Rule.java", 2)))).containsExactly("quay/Base.java:2");
    }

    @Test
    void methodsAreToldApartByWhatTheyTake() throws IOException {
        code.add("harbour", "quay/Rule.java", RULE, "quay/Base.java", BASE, "quay/Depth.java", DEPTH);

        Relatives relatives = relatives();
        assertThat(told(relatives.overridden(at("check", "quay/Depth.java", 3))))
                .containsExactly("quay/Rule.java:3");
        assertThat(told(relatives.overridden(at("check", "quay/Depth.java", 4))))
                .containsExactly("quay/Base.java:4", "quay/Rule.java:5");
        assertThat(told(relatives.family(at("check", "quay/Rule.java", 4)))).containsExactly("quay/Base.java:3");
        assertThat(told(relatives.family(at("none", "quay/Depth.java", 5)))).isEmpty();
        assertThat(told(relatives.overridden(at("hidden", "quay/Depth.java", 6))))
                .isEmpty();
    }

    @Test
    void recordsHaveThemBehindTheirComponents() throws IOException {
        code.add(
                "harbour",
                "quay/Rule.java",
                RULE,
                "quay/Deep.java",
                """
                package quay;
                @Told(by = {1}) public record Deep<T extends Rule<T>>(@Told(by = "x") T t, int... more)
                        implements Rule<String>, Told {
                    public boolean check(String what, int depth) { return true; }
                }
                interface Told {}
                record Next(int depth) implements Told {}
                """,
                "quay/Berth.cs",
                "namespace Quay;\npublic record Berth(int Depth) : Place(Depth), ITold;\n");

        assertThat(told(relatives().above(at("Deep", "quay/Deep.java", 2))))
                .containsExactly("quay/Deep.java:6", "quay/Rule.java:2");
        assertThat(told(relatives().below(at("Told", "quay/Deep.java", 6))))
                .containsExactly("quay/Deep.java:2", "quay/Deep.java:7");
        assertThat(told(relatives().overridden(at("check", "quay/Deep.java", 4))))
                .containsExactly("quay/Rule.java:3");
        Spots spots = new Spots(code.library().view(), 0);
        assertThat(told(spots.of("Told"))).containsExactly("quay/Deep.java:6"); // no record of that name
        assertThat(spots.of("ITold")).isEmpty();
        assertThat(told(spots.subtypesOf("ITold"))).containsExactly("quay/Berth.cs:2");
    }

    @Test
    void goAndTypeScriptHaveRelativesToo() throws IOException {
        code.add(
                "harbour",
                "gauge.ts",
                "export class Gauge { sound() {} }\n",
                "deep.ts",
                "import { Gauge } from './gauge'\nexport class Deep extends Gauge { sound() {} }\n",
                "other.ts",
                "class Gauge { sound() {} }\nclass Other extends Gauge { sound() {} }\n",
                "quay/pier.go",
                "package quay\n\ntype Pier struct{ Base }\n\ntype Base struct{}\n",
                "tide/base.go",
                "package tide\n\ntype Base struct{}\n");

        assertThat(told(relatives().below(at("Gauge", "gauge.ts", 1)))).containsExactly("deep.ts:2");
        assertThat(told(relatives().family(at("sound", "gauge.ts", 1)))).containsExactly("deep.ts:2");
        assertThat(told(relatives().above(at("Pier", "quay/pier.go", 3)))).containsExactly("quay/pier.go:5");
    }

    @Test
    @Timeout(60)
    void veryManyRelativesAreCutOff() throws IOException {
        String types = IntStream.range(0, 3_000)
                .mapToObj(i -> "class T" + i + " extends T" + (i % 50 == 49 ? 0 : i + 1) + " { void go() {} }\n")
                .collect(Collectors.joining());
        code.add("harbour", "quay/T.java", "package quay;\n" + types);

        assertThat(relatives().family(at("go", "quay/T.java", 2))).hasSizeBetween(49, 3_000);
    }
}
