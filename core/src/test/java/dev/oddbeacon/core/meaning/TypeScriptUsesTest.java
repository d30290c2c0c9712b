package dev.oddbeacon.core.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Uses in TypeScript: each line that uses a name ends with what the language says of it. */
class TypeScriptUsesTest {
    private static final String GAUGE = """
            export class Gauge<T = string> {
              next?: Gauge<T>
              constructor(private readonly depth: number, readonly content: T) {
                if (depth < 0) throw new Error() // by-name too
              }
              sound(times = 1, ...more: string[]): number { return times }
              get last(): Gauge<T> { return this }
              static at(pier: string): Gauge<Bell> { return new Gauge(1, new Bell()) }
              all(): Promise<Gauge<T>[]> { return Promise.resolve([]) }
              each(each: (gauge: Gauge<T>, bell: Bell) => void): void {}
            }
            export class Bell { sound(): void {} }
            export interface Sounding { sound(times: number): number }
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

    @Test
    void theWrittenTypeOfTheReceiverTellsMethodsOfOneNameApart() throws IOException {
        code.add(
                "harbour",
                "src/quay/gauge.ts",
                GAUGE,
                "src/quay/index.ts",
                "export * from './gauge.js'\n",
                "src/tide.ts",
                """
                import { Gauge as Depths, Bell, type Sounding } from './quay'
                import * as quay from './quay/index'

                type Known = Depths<Bell>
                type Either = Depths<string> | Bell

                class Deep extends Depths<Bell> {
                  bells: Bell[] = []
                  gauge = new Depths<Bell>(1, new Bell())
                  constructor(private first: Depths<string>, other: Bell) {
                    super(1, other)
                    first.sound() // sure
                    other.sound() // by-name
                  }
                  async all(anything: unknown, sounding: Sounding, either: Either, known: Known | undefined) {
                    this.sound(2) // sure
                    super.sound(2) // sure
                    this.gauge.sound() // sure
                    this.bells[0].sound() // by-name
                    this.first!.next?.next?.sound(1) // sure
                    this.last.sound(3) // sure
                    sounding.sound(3) // by-name
                    either.sound() // likely
                    known?.sound() // sure
                    known.content.sound() // by-name
                    ;(anything as Depths<string>).sound() // sure
                    ;(anything as Bell).sound() // by-name
                    new quay.Gauge(1, 'a').sound() // sure
                    quay.Gauge.at('north').sound() // sure
                    const made = await Depths.at('south').all()
                    made[0].sound() // sure
                    for (const one of made) {
                      one.sound() // sure
                    }
                    made.forEach(one => one.sound()) // likely
                    this.first.each((gauge, bell) => {
                      gauge.sound() // sure
                      bell.sound() // by-name
                    })
                    const late = this.first.sound // sure
                    const quick = (one: Depths): Bell => one.content as any
                    quick(this.first).sound() // by-name
                    const values = { sound: 1, other: late } // by-name
                    {
                      const made = new Bell()
                      made.sound() // by-name
                    }
                    return values.sound // likely
                  }
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.sound"));
    }

    @Test
    void aParameterOfAConstructorMayBeAField() throws IOException {
        code.add("harbour", "gauge.ts", """
                export class Gauge {
                  constructor(readonly depth: number, width: number) {
                    this.width = depth // sure
                  }
                  width: number
                  area(depth: number): number { // by-name
                    return depth * this.depth // sure of the second
                  }
                }
                """);
        assertThat(code.judged("Gauge.depth"))
                .containsExactlyInAnyOrder(
                        "sure: sure", "by-name: by-name", "by-name: sure of the second", "sure: sure of the second");
    }

    @Test
    void aFunctionIsFoundThroughTheModulesThatPassItOn() throws IOException {
        code.add(
                "harbour",
                "src/sound.ts",
                "export function sound(): void {}\nexport default function other() { sound() } // sure\n",
                "src/all.ts",
                "export { sound as deep } from './sound.js' // sure\nexport * as sounds from './sound'\n",
                "src/index.ts",
                "export * from './all'\nexport * from './index'\n",
                "src/use.ts",
                """
                import { deep, sounds } from '.'
                import sound from './sound'
                deep() // sure by another name
                sounds.sound() // sure
                sound() // by-name
                """,
                "src/own.ts",
                """
                import { sound } from 'elsewhere'
                sound() // by-name
                function within() {
                  function sound() {}
                  sound() // by-name
                }
                """,
                "src/shadow.ts",
                """
                import { sound } from './sound' // sure
                sound() // sure
                const use = (sound: () => void) => sound() // by-name
                const { length: sound2, ...rest } = { sound } // sure
                abstract class Quay { abstract go(sound: number): void } // by-name
                """);
        RemarkedCode.assertAsRemarked(code.judged("sound", "src/sound.ts").stream()
                .filter(one ->
                        !one.contains("import {") && !one.contains("function sound") && !one.contains("import sound"))
                .toList());
    }

    @Test
    void aPackageIsAFolderOrAnotherRepository() throws IOException {
        code.add(
                "harbour",
                "packages/quay/src/index.ts",
                "export function sound(): void {}\n",
                "apps/tide/use.ts",
                "import { sound } from '@ferries/quay'\nexport const use = () => sound() // sure\n");
        code.add(
                "group/tide",
                "src/index.ts",
                "export function sound(): void {}\n",
                "src/deep/other.ts",
                "export function sound(): void {}\n");
        code.add("ferry", "use.ts", "import { sound } from 'tide'\nexport const use = () => sound() // of tide\n");

        assertThat(code.judged("sound", "packages/quay/src/index.ts")).contains("sure: sure", "by-name: of tide");
        assertThat(code.judged("sound", "src/index.ts")).contains("sure: of tide", "by-name: sure");
        assertThat(code.judged("sound", "src/deep/other.ts")).contains("by-name: of tide", "by-name: sure");
    }

    @Test
    @Timeout(30)
    void constructorsAreLookedForInARoundOfTypesOnce() throws IOException {
        String round = IntStream.range(0, 400)
                .mapToObj(i -> "class T" + i + " extends T" + (i + 1) % 400 + " {}\n")
                .collect(Collectors.joining());
        code.add("harbour", "gauge.ts", GAUGE, "round.ts", round + "const t = new T0(one => one.sound())\n");
        assertThat(code.judged("Gauge.sound")).isNotEmpty();
    }

    @Test
    @Timeout(60)
    void textsThatAreMeantToTakeLongDoNot() throws IOException {
        String modules = IntStream.range(0, 300)
                .mapToObj(i -> "export * from './m" + i + "'\n")
                .collect(Collectors.joining());
        String[] files = new String[600 + 12];
        for (int i = 0; i < 300; i++) {
            files[i * 2] = "m" + i + ".ts";
            files[i * 2 + 1] = modules;
        }
        String[] more = {
            "gauge.ts",
            GAUGE,
            "use.ts",
            "import { lost } from './m0'\nlost.sound()\nlost().sound()\n",
            "deep.ts",
            "import { Gauge } from './gauge'\nfunction deep(g: Gauge) { g.sound(" + "g.sound(".repeat(3_000)
                    + ")".repeat(3_000) + ") }\n",
            "angles.ts",
            "let g: " + "A<".repeat(20_000) + "\ng.sound()\n",
            "arrows.ts",
            "const f = " + "(sound => ".repeat(2_000) + "sound.sound()" + ")".repeat(2_000) + "\n",
            "broken.ts",
            "import { import sound } export { sound as ( < > sound?.! sound => sound ` ${ sound } class sound extends sound<sound { sound(sound: sound"
        };
        System.arraycopy(more, 0, files, 600, more.length);
        code.add("harbour", files);
        assertThat(code.uses("Gauge.sound").symbols()).isGreaterThan(5_000);
    }
}
