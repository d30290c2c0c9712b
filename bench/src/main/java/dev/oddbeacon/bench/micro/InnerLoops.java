package dev.oddbeacon.bench.micro;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.segment.SegmentWriter;
import dev.oddbeacon.core.text.LiteralScanner;
import dev.oddbeacon.core.text.TextDecoder;
import dev.oddbeacon.core.text.regex.LineRegex;
import dev.oddbeacon.core.text.regex.RegexParser;
import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/**
 * The innermost loops by themselves, over 8 MB of made-up source text: megabytes a second are operations times 8. Run
 * by {@code ./oddbeacon bench --only loops}.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Fork(value = 1, jvmArgsAppend = "--add-modules=jdk.incubator.vector")
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 1)
public class InnerLoops {
    private static final int BYTES = 8 << 20;
    private static final String[] WORDS = {
        "int",
        "return",
        "ferry",
        "tide_level",
        "for (",
        ") {",
        "}",
        "if (x == ",
        "static",
        "// moored at ",
        "0x1f",
        "Quay",
        " = ",
        ";",
        "berth[i]",
        "harbour"
    };

    /** A text to scan for: one that finds nothing, and one that finds something on every third line. */
    @State(Scope.Benchmark)
    public static class Scan {
        @Param({"zq_nothing", "harbour"})
        public String literal;

        private LiteralScanner minding;
        private LiteralScanner ignoring;

        @Setup(Level.Trial)
        public void prepare() {
            minding = LiteralScanner.of(literal, false);
            ignoring = LiteralScanner.of(literal, true);
        }
    }

    /** An automaton: one whose bytes are looked for first, one that looks at every byte. */
    @State(Scope.Benchmark)
    public static class Automaton {
        @Param({"[xyz][0-9][xyz]", "^\\s*\\S+ .*r$"})
        public String regex;

        private LineRegex.Finder finder;

        @Setup(Level.Trial)
        public void prepare() {
            finder = LineRegex.of(RegexParser.parse(regex, false).regex()).finder(() -> false);
        }
    }

    private byte[] bytes;
    private MemorySegment text;
    private Path folder;
    private SegmentReader segment;
    private int commonList;
    private int number;

    @Setup(Level.Trial)
    public void prepare() throws IOException {
        Random random = new Random(7);
        StringBuilder source = new StringBuilder();
        while (source.length() < BYTES) {
            source.append(WORDS[random.nextInt(WORDS.length)]).append(random.nextInt(8) == 0 ? "\n\t" : " ");
        }
        bytes = source.substring(0, BYTES).getBytes(StandardCharsets.UTF_8);
        text = MemorySegment.ofArray(bytes);
        folder = Files.createTempDirectory("oddbeacon-loops");
        segment = new SegmentReader(write());
        commonList = segment.grams().list('i' << 16 | 'n' << 8 | 't');
    }

    private Path write() throws IOException {
        try (SegmentWriter writer = new SegmentWriter.Workshop().open(folder.resolve(number++ + ".segment"), "")) {
            writer.addText(
                    new ObjectId(1, 2, 3), BYTES, TextDecoder.decode(bytes).orElseThrow(), _ -> Optional.empty());
            return writer.finish();
        }
    }

    @TearDown(Level.Trial)
    public void clear() throws IOException {
        segment.close();
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                Files.delete(file);
            }
        }
        Files.delete(folder);
    }

    private int count(LiteralScanner scanner) {
        int count = 0;
        for (long found = scanner.find(text, 0, BYTES); found >= 0; found = scanner.find(text, found + 1, BYTES)) {
            count++;
        }
        return count;
    }

    @Benchmark
    public int scanMindingCase(Scan scan) {
        return count(scan.minding);
    }

    @Benchmark
    public int scanIgnoringCase(Scan scan) {
        return count(scan.ignoring);
    }

    @Benchmark
    public int automaton(Automaton automaton) {
        return automaton.finder.countLines(text, 0, BYTES);
    }

    /** Grams, words and postings of 8 MB, written to a file. */
    @Benchmark
    public Path writeSegment() throws IOException {
        Path file = write();
        Files.delete(file);
        return file;
    }

    @Benchmark
    public int[] readPostings() {
        return segment.grams().pieces(commonList);
    }

    /** Runs all of it. */
    public static void run() throws RunnerException {
        new Runner(new OptionsBuilder()
                        .include(InnerLoops.class.getSimpleName())
                        .build())
                .run();
    }
}
