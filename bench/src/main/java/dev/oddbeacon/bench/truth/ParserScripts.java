package dev.oddbeacon.bench.truth;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** The scripts of {@code bench/truth}, each of which asks the parser of a language what the files below a folder declare. */
final class ParserScripts {
    /** Scala has two grammars. */
    static final String SCALA_3 = "scala3";

    /** Shares its analysis with Vue. */
    static final String SVELTE = "svelte";

    /** Of languages whose compilers say what names mean. */
    static final String USES = "uses of ";

    private static final String SCRIPT = "SCRIPT";
    private static final String FOLDER = "FOLDER";
    /** What must be set to the jars of Kotlin's compiler, and to those of Scalameta. */
    private static final String KOTLIN_COMPILER = "KOTLIN_COMPILER";

    private static final String SCALAMETA = "SCALAMETA";

    /** @param arguments SCRIPT and FOLDER stand for what they say */
    private record Script(String file, String program, List<String> arguments) {
        Script(String file, String program) {
            this(file, program, List.of(SCRIPT, FOLDER));
        }
    }

    private static final Map<String, Script> SCRIPTS = new TreeMap<>();

    static {
        SCRIPTS.put("cpp", new Script("cpp.py", "python3"));
        SCRIPTS.put("go", new Script("go.go", "go", List.of("run", SCRIPT, FOLDER)));
        SCRIPTS.put("html", new Script("components.mjs", "node", List.of(SCRIPT, FOLDER, ".html")));
        SCRIPTS.put("javascript", new Script("typescript.mjs", "node", List.of(SCRIPT, FOLDER, ".js")));
        SCRIPTS.put("kotlin", new Script("Kotlin.java", "java", List.of("-cp", KOTLIN_COMPILER, SCRIPT, FOLDER)));
        SCRIPTS.put("lua", new Script("lua.mjs", "node"));
        SCRIPTS.put("perl", new Script("perl.pl", "perl"));
        SCRIPTS.put("php", new Script("php.php", "php"));
        SCRIPTS.put("python", new Script("python.py", "python3"));
        SCRIPTS.put("ruby", new Script("ruby.rb", "ruby"));
        SCRIPTS.put(
                "rust",
                new Script(
                        "rust/Cargo.toml",
                        "cargo",
                        List.of("run", "--quiet", "--release", "--manifest-path", SCRIPT, "--", FOLDER)));
        SCRIPTS.put("scala", new Script("Scala.java", "java", List.of("-cp", SCALAMETA, SCRIPT, "2", FOLDER)));
        SCRIPTS.put(SCALA_3, new Script("Scala.java", "java", List.of("-cp", SCALAMETA, SCRIPT, "3", FOLDER)));
        SCRIPTS.put("shell", new Script("shell.mjs", "node"));
        SCRIPTS.put(SVELTE, new Script("components.mjs", "node", List.of(SCRIPT, FOLDER, ".svelte")));
        SCRIPTS.put(USES + "go", new Script("uses-go.go", "go", List.of("run", SCRIPT, FOLDER)));
        SCRIPTS.put(USES + "typescript", new Script("uses-typescript.mjs", "node"));
        SCRIPTS.put("typescript", new Script("typescript.mjs", "node", List.of(SCRIPT, FOLDER, ".ts")));
        SCRIPTS.put("vue", new Script("components.mjs", "node", List.of(SCRIPT, FOLDER, ".vue")));
    }

    private final Path scripts;

    /** @param scripts the folder {@code bench/truth} */
    ParserScripts(Path scripts) {
        this.scripts = scripts;
    }

    /**
     * Asks the parser of a language.
     *
     * @return what it said, in a new file, as {@link DumpedTruth} reads it
     * @throws IOException if the parser is not installed or fails
     */
    Path ask(String language, Path folder) throws IOException {
        Script script = SCRIPTS.get(language);
        if (script == null) {
            throw new IOException("There is no script for " + language + ". There are some for "
                    + String.join(", ", SCRIPTS.keySet()) + ".");
        }
        Path file = scripts.resolve(script.file);
        List<String> command = new ArrayList<>(List.of(script.program));
        for (String argument : script.arguments) {
            command.add(
                    switch (argument) {
                        case SCRIPT -> file.toString();
                        case FOLDER -> folder.toAbsolutePath().toString();
                        case KOTLIN_COMPILER, SCALAMETA -> System.getenv().getOrDefault(argument, "");
                        default -> argument;
                    });
        }
        Path dump = Files.createTempFile("truth-" + language, ".dump");
        dump.toFile().deleteOnExit();
        try {
            int status = new ProcessBuilder(command)
                    .redirectOutput(dump.toFile())
                    .redirectError(ProcessBuilder.Redirect.INHERIT)
                    .start()
                    .waitFor();
            if (status != 0) {
                throw new IOException(script.program + " ended with status " + status + ". The first lines of " + file
                        + " say what it needs.");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("Interrupted while " + script.program + " was asked.", e);
        }
        return dump;
    }
}
