package dev.oddbeacon.core.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Uses in Go: each line that uses a name ends with what the language says of it. */
class GoUsesTest {
    private static final String GAUGE = """
            package quay

            type Gauge struct {
            	depth, width int
            	next *Gauge
            	parts map[string][]*Gauge
            	read func() Bell
            }

            func At(pier string) (*Gauge, error) { return &Gauge{}, nil }
            """;
    private static final String SOUND = """
            package quay

            func (g *Gauge) Sound(times int) int { return g.depth } // sure
            """;
    private static final String BELL = """
            package quay

            type Bell struct{ depth int }

            func (b Bell) Sound() int { return b.depth } // by-name

            type Sounding interface{ Sound(times int) int }
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

    private void addQuay(String... pathsAndTexts) throws IOException {
        String[] all = new String[pathsAndTexts.length + 8];
        System.arraycopy(
                new String[] {
                    "go.mod",
                    "module ferries.example/harbour\n\ngo 1.21\n",
                    "quay/gauge.go",
                    GAUGE,
                    "quay/sound.go",
                    SOUND,
                    "quay/bell.go",
                    BELL
                },
                0,
                all,
                0,
                8);
        System.arraycopy(pathsAndTexts, 0, all, 8, pathsAndTexts.length);
        code.add("harbour", all);
    }

    @Test
    void theWrittenTypeOfTheReceiverTellsMethodsOfOneNameApart() throws IOException {
        addQuay("tide/pier.go", """
                package tide

                import (
                	"errors"
                	q "ferries.example/harbour/quay"
                )

                type Pier struct {
                	gauge *q.Gauge
                	bells []q.Bell
                }

                func (p *Pier) All(other *q.Gauge, anything interface{}, sounding q.Sounding) int {
                	p.gauge.Sound(1) // sure
                	p.bells[0].Sound() // by-name
                	other.next.next.Sound(2) // sure
                	sounding.Sound(3) // by-name
                	made, err := q.At("north")
                	made.Sound(1) // sure
                	(&q.Gauge{}).Sound(1) // sure
                	anything.(*q.Gauge).Sound(1) // sure
                	anything.(q.Bell).Sound() // by-name
                	(*q.Gauge)(other).Sound(1) // sure
                	other.read().Sound() // by-name
                	for name, parts := range other.parts {
                		parts[0].Sound(1) // sure
                		for _, part := range parts[1:] {
                			part.Sound(len(name)) // sure
                		}
                	}
                	for _, bell := range p.bells {
                		bell.Sound() // by-name
                	}
                	switch one := anything.(type) {
                	case *q.Gauge:
                		one.Sound(1) // sure
                	case q.Bell:
                		one.Sound() // by-name
                	}
                	late := other.Sound // sure
                	quick := func(g *q.Gauge) q.Bell { return q.Bell{} }
                	quick(other).Sound() // by-name
                	if other := p.bells[0]; other.Sound() > 0 { // by-name
                		other.Sound() // by-name
                	}
                	other.Sound(late(1)) // sure
                	err = errors.New("Sound")
                	err.Sound() // by-name
                	return unknown().Sound(1) // likely
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.Sound"));
    }

    @Test
    void fieldsAreUsedByValuesAndAmongBraces() throws IOException {
        addQuay("quay/use.go", """
                package quay

                var all = map[string]Gauge{
                	"north": {depth: 1}, // sure
                }

                type deep struct{ Gauge }

                func use(depth int, d *deep) int {
                	g := Gauge{depth: 3} // sure
                	b := &Bell{depth: 4} // by-name
                	many := []*Gauge{{depth: 2}} // sure
                	pair := [][]Bell{{{depth: 5}}} // by-name
                	many[0].depth += 3 // sure
                	g.depth++ // sure
                	b.depth++ // by-name
                	pair[0][0].depth = 1 // by-name
                	all["north"].depth = 2 // sure
                	d.depth = 1 // sure
                	d.Gauge.depth = 2 // sure
                	return g.next.depth // sure
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.depth").stream()
                .filter(one ->
                        !one.contains("struct{ depth") && !one.contains("use(depth") && !one.contains("width int"))
                .toList());
    }

    @Test
    void aFunctionIsNotAVariableOfItsNameNorThatOfAnotherPackage() throws IOException {
        code.add(
                "harbour",
                "go.mod",
                "module ferries.example/harbour\n",
                "quay/sound.go",
                "package quay\n\nfunc Sound() int { return 1 }\n",
                "quay/use.go",
                """
                package quay

                func all() {
                	Sound() // sure
                	{
                		Sound := func() {}
                		Sound() // by-name
                	}
                	Sound() // sure
                }
                """,
                "tide/sound.go",
                "package tide\n\nfunc Sound() int { return Sound() } // by-name\n",
                "pier/use.go",
                """
                package pier

                import "ferries.example/harbour/quay"
                import "ferries.example/harbour/tide"
                import "other.example/quay/v2"

                func use(registry interface{ Sound() }) {
                	quay.Sound() // sure
                	tide.Sound() // by-name
                	registry.Sound() // by-name
                }
                """,
                "shore/use.go",
                """
                package shore

                import "other.example/quay"
                import . "ferries.example/harbour/quay"

                func use(tide string) {
                	quay.Sound() // by-name
                	Sound() // sure
                	tide.Sound() // by-name
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Sound", "quay/sound.go").stream()
                .filter(one -> !one.contains("Sound := "))
                .filter(one -> !one.contains("func use"))
                .toList());
    }

    @Test
    void aGenericTypeSaysWhatItsMethodsReturn() throws IOException {
        addQuay("quay/list.go", """
                package quay

                type List[T any] struct{ items []T }

                func (l *List[E]) First() E { return l.items[0] }

                func first[T any](all []T) T { return all[0] }

                func use(gauges *List[*Gauge], bells List[Bell]) {
                	gauges.First().Sound(1) // sure
                	bells.First().Sound() // by-name
                	made := List[*Gauge]{}
                	made.First().Sound(1) // sure
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.Sound"));
    }

    @Test
    void anotherRepositoryIsAskedByThePathThatItsModuleSays() throws IOException {
        code.add(
                "library",
                "go.mod",
                "module ferries.example/library\n",
                "quay/sound.go",
                "package quay\n\nfunc Sound() int { return 1 }\n");
        code.add(
                "ferry",
                "go.mod",
                "module ferries.example/ferry\n",
                "quay/other.go",
                "package quay\n\nfunc Other() int { return 1 }\n",
                "use.go",
                """
                package ferry

                import "ferries.example/library/quay"

                func use() int { return quay.Sound() } // sure
                """,
                "wrong.go",
                """
                package ferry

                import "ferries.example/ferry/quay"

                func wrong() int { return quay.Sound() } // by-name
                """);
        assertThat(code.judged("Sound", "quay/sound.go")).containsExactlyInAnyOrder("sure: sure", "by-name: by-name");
    }

    @Test
    @Timeout(60)
    void textsThatAreMeantToTakeLongDoNot() throws IOException {
        addQuay(
                "quay/deep.go",
                "package quay\n\nfunc deep(g *Gauge) {\n\tg.Sound(" + "g.Sound(".repeat(3_000) + ")".repeat(3_000)
                        + ")\n}\n",
                "quay/long.go",
                "package quay\n\nfunc long(g *Gauge) {\n\tg" + ".next.Sound(1)".repeat(3_000) + "\n}\n",
                "quay/braces.go",
                "package quay\n\nvar braces = []Gauge{" + "{Sound: ".repeat(3_000) + "1" + "}".repeat(3_000) + "}\n",
                "quay/brackets.go",
                "package quay\n\nvar brackets " + "[]".repeat(10_000) + "Gauge\n\nfunc b() { brackets.Sound() }\n",
                "quay/names.go",
                "package quay\n\nfunc names() {\n" + "\tSound := Sound\n".repeat(3_000) + "}\n",
                "quay/round.go",
                "package quay\n\ntype Round Square\n\ntype Square Round\n\nfunc (s *Square) go(r Round) { r.Sound() }\n",
                "quay/broken.go",
                "package quay\n\nfunc ( { ) } ] Sound( . Sound := Sound range , Sound switch Sound.(type) { case Sound: Sound {Sound: ");
        assertThat(code.uses("Gauge.Sound").symbols()).isGreaterThan(15_000);
    }
}
