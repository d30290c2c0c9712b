package dev.oddbeacon.bench.truth;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** Holds our analysis against compilers, over folders of real source. */
public final class AgainstCompilers {
    private AgainstCompilers() {}

    /** Java files below a folder against the JDK's compiler. */
    public static Agreement java(Path folder, int most) throws IOException {
        Agreement agreement = new Agreement(Language.named("java").orElseThrow(), Set.of(Kind.NAMESPACE));
        JavaTruth compiler = new JavaTruth();
        List<Path> files;
        try (Stream<Path> all = Files.walk(folder)) {
            files = all.filter(path -> path.toString().endsWith(".java") && !path.endsWith("module-info.java"))
                    .sorted()
                    .limit(most)
                    .toList();
        }
        for (Path file : files) {
            String text;
            try {
                text = Files.readString(file).replace("\r\n", "\n");
            } catch (MalformedInputException e) {
                continue;
            }
            Optional<Truth> truth = compiler.of(file.toString(), text);
            if (truth.isPresent()) {
                agreement.add(truth.get(), JavaTruth.utf8(text));
            }
        }
        return agreement;
    }

    /** The declarations that a script found in files of another language. */
    public static Agreement dumped(Language language, Path dump) throws IOException {
        Set<Kind> uncounted = switch (language.name()) {
            case "c" -> Set.of(Kind.FIELD, Kind.CONSTANT, Kind.PROTOTYPE);
            case "go", "python" -> Set.of(Kind.NAMESPACE);
            default -> Set.of();
        };
        Agreement agreement = new Agreement(language, uncounted);
        try (BufferedReader in = Files.newBufferedReader(dump)) {
            DumpedTruth dumped = new DumpedTruth(in);
            for (Optional<Truth> truth = dumped.next(); truth.isPresent(); truth = dumped.next()) {
                agreement.add(
                        truth.get(),
                        Files.readString(Path.of(truth.get().path()))
                                .replace("\r\n", "\n")
                                .getBytes(java.nio.charset.StandardCharsets.UTF_8));
            }
        }
        return agreement;
    }

    /** The name of our language for that of a script. */
    static String language(String script) {
        return switch (script) {
            case ParserScripts.SCALA_3 -> "scala";
            case ParserScripts.SVELTE -> "vue";
            default -> script;
        };
    }

    /**
     * Prints figures.
     *
     * @param scripts the folder of those that ask other parsers
     * @param parts LANGUAGE, a folder or what a script has written of one, and "all" if it is to be told where they differ
     */
    public static void print(Path scripts, List<String> parts) throws IOException {
        Optional<Language> language = parts.stream()
                .limit(1)
                .map(AgainstCompilers::language)
                .findFirst()
                .flatMap(Language::named);
        if (language.isEmpty() || parts.size() < 2) {
            throw new IOException("Say what is to be compared: --against LANGUAGE,FOLDER or --against LANGUAGE,DUMP");
        }
        Path from = Path.of(parts.get(1));
        Agreement agreement;
        if (language.get().name().equals("java")) {
            agreement = java(from, Integer.MAX_VALUE);
        } else if (Files.isDirectory(from)) {
            agreement = dumped(language.get(), new ParserScripts(scripts).ask(parts.getFirst(), from));
        } else {
            agreement = dumped(language.get(), from);
        }
        System.out.println(agreement.summary());
        if (parts.size() > 2) {
            System.out.print(agreement.examples());
        }
    }
}
