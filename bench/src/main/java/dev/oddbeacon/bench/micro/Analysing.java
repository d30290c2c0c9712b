package dev.oddbeacon.bench.micro;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Lexer;
import dev.oddbeacon.core.source.language.TokenSink;
import dev.oddbeacon.core.source.language.Word;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/**
 * Lexing and analysing 100 MB of C, every tenth file of a tree: an operation is all of it, so a second means 100 MB/s.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 2, time = 3)
@Measurement(iterations = 3, time = 3)
@Fork(1)
public class Analysing {
    private static final String SOURCE = "oddbeacon.bench.source";
    private static final long BYTES = 100_000_000;
    private static final int STEP = 10;
    private static final TokenSink NOWHERE = new TokenSink() {
        @Override
        public void word(int start, int end, Word word) {}

        @Override
        public void sign(int at, byte sign) {}

        @Override
        public void literal(int start, int end) {}

        @Override
        public void line(int at) {}
    };

    private final List<byte[]> files = new ArrayList<>();
    private final Language language = Language.named("c").orElseThrow();
    private final Lexer lexer = new Lexer(language);
    private final Found found = new Found();
    private final Analyser analyser = new Analyser();

    @Setup
    public void read() throws IOException {
        List<Path> paths;
        try (Stream<Path> all = Files.walk(Path.of(System.getProperty(SOURCE)))) {
            paths = all.filter(path ->
                            path.toString().endsWith(".c") || path.toString().endsWith(".h"))
                    .sorted()
                    .toList();
        }
        long bytes = 0;
        for (int start = 0; start < STEP && bytes < BYTES; start++) {
            for (int i = start; i < paths.size() && bytes < BYTES; i += STEP) {
                byte[] file = Files.readAllBytes(paths.get(i));
                bytes += file.length;
                files.add(bytes > BYTES ? java.util.Arrays.copyOf(file, (int) (file.length - (bytes - BYTES))) : file);
            }
        }
    }

    @Benchmark
    public int lex() {
        int names = 0;
        for (byte[] file : files) {
            found.clear();
            lexer.run(file, 0, file.length, NOWHERE, found);
            names += found.names();
        }
        return names;
    }

    @Benchmark
    public int analyse() {
        int declarations = 0;
        for (byte[] file : files) {
            declarations += analyser.analyse(language, file).declarations().size();
        }
        return declarations;
    }

    /** Runs both over the files below a folder. */
    public static void run(Path source) throws RunnerException {
        new Runner(new OptionsBuilder()
                        .include(Analysing.class.getSimpleName())
                        .jvmArgsAppend("-D" + SOURCE + "=" + source, "-Xmx2g")
                        .build())
                .run();
    }
}
